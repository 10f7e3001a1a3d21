"""Pairs in depth: remedies on trial, flips for all, one by one, the picture, many mics."""

import csv
import io
import itertools
import re

from playwright.sync_api import expect

from ops.bench import big_layout
from tests.browser.conftest import pick
from tests.browser.test_pairs import cell


def counted(page, verdict):
    return int(page.locator(f'button[data-count="{verdict}"] .num').inner_text())


def look(page, name):
    page.get_by_role("tab", name=name).click()


def test_a_remedy_is_shown_on_the_chart_before_it_is_taken(someone):
    page = someone.open("pairs")
    cell(page, "T1-OL").click()  # the spot moves: the pair of overheads keeps what is equal
    expect(cell(page, "T1-OL")).to_have_attribute("data-verdict", "hollow")
    before = someone.mic("T1")["position_m"]
    page.get_by_role("button", name=re.compile("^Try: Move")).first.click()
    trial = page.get_by_role("region", name="On trial")
    expect(trial.locator("[data-trial]")).to_contain_text("On trial, not saved")
    expect(trial.locator("[data-fresh=T1]").first).to_be_visible()
    expect(cell(page, "T1-OL")).to_have_attribute("data-verdict", "behind")
    assert someone.mic("T1")["position_m"] == before
    trial.get_by_role("button", name="Back").click()
    expect(cell(page, "T1-OL")).to_have_attribute("data-verdict", "hollow")
    page.get_by_role("button", name=re.compile("^Try: Move")).first.click()
    trial.get_by_role("button", name="Take it").click()
    page.locator("[aria-label^='Undo: Move T1']").wait_for()
    someone.saved()
    assert someone.mic("T1")["position_m"] != before
    page.keyboard.press("Control+z")
    expect(cell(page, "T1-OL")).to_have_attribute("data-verdict", "hollow")
    someone.saved()
    assert someone.mic("T1")["position_m"] == before


def test_leaving_the_step_ends_a_trial(someone):
    page = someone.open("pairs")
    cell(page, "T1-OL").click()
    page.get_by_role("button", name=re.compile("^Try: Flip")).first.click()
    expect(page.get_by_role("region", name="On trial")).to_be_visible()
    page.get_by_role("link", name="Place").click()
    expect(page.locator("[data-flipped]")).to_have_count(0)
    page.get_by_role("link", name="Pairs").click()
    expect(page.get_by_role("region", name="On trial")).to_have_count(0)


def test_body_over_delay_says_whether_to_flip_or_to_move(someone):
    page = someone.open("pairs")
    cell(page, "ST-SB").click()
    expect(page.locator("[data-delay-words]")).to_contain_text("The flip is the better cure")
    page.get_by_role("tab", name="Body over delay").click()
    chart = page.get_by_role("img", name=re.compile("^Body against delay: now"))
    expect(chart.locator("[data-now]")).to_be_visible()
    band = page.locator("[data-band='body flipped_db']")
    assert float(band.inner_text().replace("−", "-")) > 3
    page.get_by_role("button", name="Other way round").click()
    expect(page.get_by_role("region", name="Pair SB with ST")).to_be_visible()


def test_a_delay_on_the_track_is_kept_and_the_school_chosen(someone):
    page = someone.open("pairs")
    cell(page, "OL-OR").click()
    pick(page.get_by_label("School"), "aligned")
    someone.saved()
    assert someone.doc()["timing"] == "aligned"
    page.get_by_role("button", name=re.compile("^Take: Delay OR by 29 samples")).click()
    page.locator("[aria-label^='Undo: Delay OR']").wait_for()
    someone.saved()
    assert someone.track("OR")["track_delay_samples"] == 29


def test_the_best_set_of_flips_is_taken_and_then_nothing_is_left(someone):
    page = someone.open("pairs")
    look(page, "Best flips")
    words = page.locator("[data-flips-words]")
    expect(words).to_contain_text("No other set has more")
    turned = page.locator("[data-turn]")
    expect(turned.first).to_be_visible()
    names = turned.evaluate_all("all => all.map((x) => x.dataset.turn)")
    assert "SB" in names or "ST" in names
    held = names[0]
    page.get_by_label(f"Keep the polarity of {held}").click()
    expect(page.locator(f"[data-turn={held}]")).to_have_count(0)
    someone.saved()
    assert "polarity" in someone.mic(held)["locks"]
    page.get_by_role("button", name=re.compile("^Flip these|^Flip [A-Z]")).first.click()
    expect(words).to_contain_text("As wired is the fullest set there is")
    someone.saved()
    assert not someone.track(held)["preamp_flip"]
    assert any(c["preamp_flip"] for c in someone.doc()["channels"])


def test_mics_are_added_in_ones_own_order_which_is_kept(someone):
    page = someone.open("pairs")
    look(page, "One by one")
    rows = page.locator("[data-step]")
    expect(rows.first).to_have_attribute("data-step", "OL")
    page.get_by_role("radio", name="Kick first").click()
    expect(rows.first).to_have_attribute("data-step", "KI")
    expect(page.locator("[data-step=SB]")).to_contain_text("flip it")
    page.get_by_role("button", name="SB earlier").click()
    expect(rows.nth(2)).to_have_attribute("data-step", "SB")
    someone.saved()
    page.reload()
    look(page, "One by one")
    expect(rows.nth(2)).to_have_attribute("data-step", "SB")
    page.get_by_role("button", name="Flip ST").click()
    page.locator("[aria-label^='Undo: Flipped ST']").wait_for()
    someone.saved()
    assert someone.track("ST")["preamp_flip"]


def test_the_picture_follows_the_view_and_pans_follow_the_picture(someone):
    page = someone.open("pairs")
    look(page, "Picture")
    heads = page.get_by_role("region", name="Picture of Overheads")
    expect(heads.locator("[data-appears=snare]")).to_contain_text("Snare in the middle")
    expect(heads.locator("[data-appears=floor]")).to_contain_text("right")
    page.get_by_role("radio", name="Audience's view").click()
    expect(heads.get_by_text("OL stands on the right")).to_be_visible()
    heads.get_by_role("button", name="Change over").click()
    expect(heads.locator("[data-appears=floor]")).to_contain_text("left")
    expect(heads.get_by_text("OL stands on the right")).to_have_count(0)
    pans = page.get_by_role("region", name="Pans")
    expect(pans.locator("[data-pan='not chosen']").first).to_be_visible()
    pans.get_by_role("button", name="Pan them as Overheads hear it").click()
    expect(pans.locator("[data-pan='not chosen']")).to_have_count(0)
    pans.locator("li", has_text="HH").get_by_label("Pan of HH %, − left").fill("-90")
    page.keyboard.press("Enter")
    expect(pans.locator("li", has_text="HH")).to_have_attribute("data-pan", "other side")
    someone.saved()
    doc = someone.doc()
    assert (doc["outlook"], someone.track("HH")["pan"]) == ("audience", -90)
    assert doc["stereo_pairs"][0]["left"] == "OR"


def test_the_grid_is_sifted_searched_and_walked(someone):
    page = someone.open("pairs")
    all_cells, faint = page.locator("[data-cell]"), page.locator("[data-faint]")
    expect(all_cells).to_have_count(45)
    expect(faint).to_have_count(0)
    page.locator('button[data-count="hollow"]').click()
    expect(faint).to_have_count(45 - page.locator('button[data-verdict="hollow"]').count())
    page.locator('button[data-count="hollow"]').click()
    page.get_by_label("Find a mic or drum").fill("hats")
    expect(faint).to_have_count(36)
    page.get_by_label("Find a mic or drum").fill("")
    pick(page.get_by_label("Order of the mics"), "by drum")
    expect(page.locator('[data-cell="1-0"]')).to_have_attribute("data-pair", "KI-KO")
    pick(page.get_by_label("Order of the mics"), "worst first")
    expect(page.locator('[data-cell="1-0"]')).to_have_attribute("data-pair", re.compile("OL|OR"))
    page.locator('[data-cell="1-0"]').focus()
    page.keyboard.press("PageDown")
    expect(page.locator('[data-cell="9-0"]')).to_be_focused()
    page.keyboard.press("End")
    expect(page.locator('[data-cell="9-8"]')).to_be_focused()


def test_the_table_sorts_and_is_taken_as_csv(someone):
    page = someone.open("pairs")
    page.get_by_role("radio", name="Table").click()
    table = page.get_by_role("table", name="Pairs, worst first")
    expect(table.get_by_role("row")).to_have_count(46)
    table.get_by_role("button", name="Δt, ms").click()
    late = [float(x.split(" ")[0]) for x in table.locator("td:nth-child(4)").all_inner_texts()]
    assert late == sorted(late, reverse=True)
    page.locator('button[data-count="late"]').click()
    expect(table.get_by_role("row")).to_have_count(counted(page, "late") + 1)
    with page.expect_download() as got:
        page.get_by_role("link", name="Take as CSV").click()
    rows = list(csv.DictReader(io.StringIO(got.value.path().read_text())))
    assert len(rows) == 45 * 9
    assert got.value.suggested_filename.endswith("-pairs.csv")


def test_a_decision_is_flagged_when_the_layout_moves_under_it(someone):
    page = someone.open("pairs")
    cell(page, "OL-OR").click()
    page.get_by_role("button", name="Leave, and say why").click()
    page.get_by_label("Reason").fill("KI carries the kick")
    page.get_by_role("button", name="Leave it on purpose").click()
    expect(cell(page, "OL-OR")).to_have_attribute("data-left", "kept")
    page.get_by_role("button", name=re.compile("^Take: Move OR until both hear the kick")).click()
    expect(cell(page, "OL-OR")).to_have_attribute("data-left", "stale")
    cell(page, "OL-OR").click()
    pick(page.get_by_label("Drum of this pair"), "kick")
    expect(page.locator("[data-stale]")).to_contain_text("Look again")
    page.get_by_role("button", name="It still holds").click()
    expect(page.locator("[data-stale]")).to_have_count(0)
    expect(cell(page, "OL-OR")).to_have_attribute("data-left", "kept")


def test_thirty_two_mics_can_be_read(someone):
    doc = big_layout(32, 14).model_dump(mode="json")
    made = someone.post(f"/layouts/{someone.layout}/copy", {"name": "Big", "doc": doc}).json()
    page = someone.open("pairs", made["id"])
    page.get_by_role("radio", name="Mics", exact=True).click()
    expect(page.locator("[data-cell]")).to_have_count(496)
    boxes = page.locator("[data-cell]").evaluate_all(
        "all => all.map((x) => { const b = x.getBoundingClientRect();"
        " return [b.left, b.right, b.width]; })"
    )
    pane = page.get_by_role("region", name="Every pair").bounding_box()
    assert min(b[2] for b in boxes) >= 14
    assert max(b[1] for b in boxes) <= pane["x"] + pane["width"]
    widths = {round(b[2], 1) for b in boxes}
    assert len(widths) == 1
    lefts = sorted({round(b[0]) for b in boxes})
    steps = {right - left for left, right in itertools.pairwise(lefts)}
    assert max(steps) - min(steps) <= 1  # no column is spread by a name
    expect(page.get_by_text("Choose a pair in the grid")).to_be_visible()
    expect(page.locator('[data-cell="31-30"]')).to_be_visible()
    look(page, "Best flips")
    expect(page.locator("[data-flips-words]")).to_contain_text(
        "more body on average", timeout=15000
    )
