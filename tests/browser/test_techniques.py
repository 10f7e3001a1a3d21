"""Techniques: preview, take, change a number, fit, undo; what-if; drum terms; locks; nulls."""

import math
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import arrive, pick


@pytest.fixture
def blank(server, chromium):
    person = arrive(server, chromium, start="empty")
    yield person
    person.context.close()
    assert person.faults == []


def far(doc, a, b):
    spot = {m["id"]: m["position_m"] for m in doc["mics"]}
    return math.dist(spot[a], spot[b])


def techniques(page):
    page.get_by_role("tab", name="Techniques", exact=True).click()
    expect(page.locator("[data-technique]").first).to_be_visible()


def take(page, name):
    page.locator(f"[data-technique='{name}']").click()
    page.get_by_role("button", name="Take it", exact=True).click()
    expect(page.locator("[data-opened]")).to_be_visible()


def choose(page, mic):
    """Select a mic as the keys do."""
    page.locator(f"[data-mic='{mic}'][data-view='above']").focus()
    page.keyboard.press("Enter")


def kept(person, what):
    """Wait until the last thing done is saved under that name."""
    expect(person.page.locator(f"[aria-label^='Undo: {what}']")).to_be_visible()
    person.saved()


def number(page, label, text):
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_preview_take_change_fit_and_undo(blank):
    page = blank.open()
    techniques(page)
    page.get_by_label("Search").fill("mirror ring")
    expect(page.locator("[data-technique]")).to_have_count(1)
    page.locator("[data-technique='pair-turned']").click()
    expect(page.locator("[data-fresh='OL']").first).to_be_visible()
    expect(page.locator("[data-equal='kick']")).to_contain_text("0.0 cm apart")
    expect(page.get_by_label("Pairs with it")).to_contain_text("ask the ear 1")
    assert blank.doc()["mics"] == []  # shown, not taken

    number(page, "Pair apart, cm", "150")
    expect(page.locator("[data-draft]")).to_be_visible()
    page.get_by_role("button", name="Take it", exact=True).click()
    expect(page.locator("[data-fresh]")).to_have_count(0)
    blank.saved()
    assert far(blank.doc(), "OL", "OR") == pytest.approx(1.5, abs=1e-6)

    number(page, "Pair apart, cm", "110")
    kept(blank, "Turned pair: pair apart")
    assert far(blank.doc(), "OL", "OR") == pytest.approx(1.1, abs=1e-6)
    assert blank.doc()["techniques"][0]["numbers"]["width"] == pytest.approx(1.1)

    page.locator("[data-mic='OR'][data-view='above']").focus()
    page.keyboard.press("Shift+ArrowRight")
    blank.saved()
    expect(page.locator("[data-off]")).to_contain_text("OR 10.0 cm off its numbers")
    page.get_by_role("tab", name="Fit", exact=True).click()
    page.get_by_role("button", name="Fit it").click()
    expect(page.locator("[data-moved='OR']")).to_contain_text("equal on snare and kick")
    blank.saved()
    fitted = blank.doc()
    for drum in ("snare", "kick"):
        to = next(d["batter_m"] for d in fitted["kit"]["drums"] if d["id"] == drum)
        spot = {m["id"]: m["position_m"] for m in fitted["mics"]}
        assert abs(math.dist(spot["OL"], to) - math.dist(spot["OR"], to)) < 1e-4

    page.get_by_role("button", name="Undo the fit").click()
    blank.saved()
    expect(page.locator("[data-fit]")).to_have_count(0)
    for _ in range(3):
        page.keyboard.press("Control+z")
        blank.saved()
    expect(page.locator("[data-mic]")).to_have_count(0)
    assert blank.doc()["techniques"] == []


def test_a_number_typed_and_taken_at_once_is_the_one_that_is_taken(blank):
    page = blank.open()
    techniques(page)
    page.locator("[data-technique='pair-turned']").click()
    expect(page.locator("[data-fresh='OL']").first).to_be_visible()
    page.route("**/take", lambda route: (page.wait_for_timeout(400), route.continue_()))
    number(page, "Pair apart, cm", "160")
    page.get_by_role("button", name="Take it", exact=True).click()
    kept(blank, "Took Turned pair")
    assert far(blank.doc(), "OL", "OR") == pytest.approx(1.6, abs=1e-6)


def test_leaving_a_preview_leaves_nothing_behind(blank):
    page = blank.open()
    techniques(page)
    page.locator("[data-technique='room-bar']").click()
    expect(page.locator("[data-fresh='RL']").first).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator("[data-mic]")).to_have_count(0)
    page.locator("[data-technique='room-bar']").click()
    expect(page.locator("[data-fresh='RL']").first).to_be_visible()
    page.get_by_role("link", name="Pairs").click()
    page.get_by_role("link", name="Add mics on Place").click()
    expect(page.locator("[data-mic]")).to_have_count(0)
    assert blank.doc()["mics"] == []


def shown(page, name="pair-turned"):
    """A technique shown, not taken."""
    techniques(page)
    page.locator(f"[data-technique='{name}']").click()
    expect(page.locator("[data-fresh='OL']").first).to_be_visible()


def test_what_is_done_besides_a_preview_is_done_on_what_is_kept(blank):
    page = blank.open()
    shown(page)
    page.get_by_role("button", name="Add a mic").click()
    kept(blank, "Added")
    assert [m["name"] for m in blank.doc()["mics"]] == ["New mic"]

    shown(page)
    page.get_by_role("button", name="Switch layout").click()
    page.get_by_role("menuitem", name="Rename this layout").click()
    page.get_by_role("dialog").get_by_label("Name").fill("Dry take")
    page.get_by_role("button", name="Rename", exact=True).click()
    kept(blank, "Renamed to Dry take")
    assert blank.doc()["name"] == "Dry take"
    assert len(blank.doc()["mics"]) == 1


def test_taking_a_brief_does_not_take_what_is_only_shown(blank):
    page = blank.open()
    shown(page)
    page.get_by_role("link", name="Brief").click()
    page.get_by_role("radio", name="Driving").click()
    kept(blank, "Brief: driving")
    assert blank.doc()["mics"] == []
    page.get_by_role("button", name="Start empty").click()
    kept(blank, "Started empty")
    assert blank.doc()["mics"] == []


def test_a_mic_that_is_only_shown_is_not_taken_by_dragging_another(someone):
    page = someone.open()
    techniques(page)
    page.locator("[data-technique='one-front']").click()
    expect(page.locator("[data-fresh='MM']").first).to_be_visible()
    expect(page.get_by_label("Pairs with it")).to_contain_text("None of its pairs")
    page.locator("[data-mic='OR'][data-view='above']").focus()
    page.keyboard.press("ArrowRight")
    someone.saved()
    assert "MM" not in [m["id"] for m in someone.doc()["mics"]]
    expect(page.locator("[data-fresh='MM']").first).to_be_visible()


def test_a_preview_names_its_gravest_pairs_as_the_core_has_them(someone):
    page = someone.open()
    techniques(page)
    page.locator("[data-technique='one-shoulder']").click()
    rows = page.get_by_label("Its gravest pairs").get_by_role("listitem")
    expect(rows).to_have_count(3)
    layout = someone.post(
        f"/layouts/{someone.layout}/take", {"layout": someone.doc(), "technique": "one-shoulder"}
    ).json()["layout"]
    board = someone.post("/compute", {"layout": layout}).json()
    grave = [
        (a, b, worst)
        for a, b, worst in zip(board["pair_a"], board["pair_b"], board["worst"], strict=True)
        if "MM" in (a, b) and worst in ("hollow", "late")
    ]
    assert len(grave) == 3
    for a, b, worst in grave:
        expect(rows.filter(has_text=f"{a}, {b}")).to_contain_text(f"{worst} on")


def test_a_technique_for_a_drum_goes_where_it_is_told(blank):
    page = blank.open()
    techniques(page)
    page.locator("[data-technique='tom-top']").click()
    expect(page.locator("[data-fresh]").first).to_be_visible()
    pick(page.get_by_label("For", exact=True), "floor")
    expect(page.locator("[data-fresh='FT']").first).to_be_visible()
    number(page, "Over the head, cm", "12")
    page.get_by_role("button", name="Take it", exact=True).click()
    blank.saved()
    mic = blank.mic("FT")
    assert mic["job"] == "floor"
    head = next(d for d in blank.doc()["kit"]["drums"] if d["id"] == "floor")
    assert mic["position_m"][2] - head["batter_m"][2] == pytest.approx(0.12, abs=1e-6)


def test_what_this_kit_lacks_is_greyed_and_says_why(blank):
    page = blank.open()
    techniques(page)
    wall = page.locator("[data-technique='wall-mic']")
    expect(wall).to_be_disabled()
    expect(wall).to_contain_text("Draw the room first.")
    page.get_by_label("Search").fill("zither")
    expect(page.get_by_text("Nothing by these words")).to_be_visible()


def test_a_number_out_of_range_is_refused_in_words_and_nothing_is_lost(blank):
    page = blank.open()
    techniques(page)
    take(page, "pair-turned")
    blank.saved()
    before = blank.doc()
    number(page, "Pair apart, cm", "900")
    expect(page.get_by_text("expected 40.0 cm to 240.0 cm").first).to_be_visible()
    assert blank.doc()["mics"] == before["mics"]


def test_a_slider_is_followed_while_held_and_taken_when_let_go(blank):
    page = blank.open()
    techniques(page)
    take(page, "one-front")
    blank.saved()
    before = blank.mic("MM")["position_m"]
    slider = page.get_by_label("Over the floor, slide")
    slider.focus()
    for _ in range(10):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_label("Over the floor, cm", exact=True)).to_have_value("110.0")
    kept(blank, "One in front: over the floor")
    assert blank.mic("MM")["position_m"][2] == pytest.approx(before[2] + 0.1, abs=1e-3)


def test_what_if_slides_shows_and_keeps(blank):
    page = blank.open()
    techniques(page)
    take(page, "one-front")
    page.locator("[data-opened]").get_by_role("button", name="What if").click()
    panel = page.locator("[data-whatif]")
    expect(panel.locator("[data-whatif-value]")).to_have_text("120.0 cm")
    pick(panel.get_by_label("Slide"), "height")
    expect(panel.locator("[data-whatif-value]")).to_have_text("100.0 cm")
    levels = panel.get_by_role("img", name="Levels it hears")
    first = levels.get_attribute("aria-label")
    slider = panel.get_by_label("What if, Over the floor")
    slider.focus()
    page.keyboard.press("End")
    expect(panel.locator("[data-whatif-value]")).to_have_text("220.0 cm")
    expect(levels).not_to_have_attribute("aria-label", first)
    blank.saved()
    assert blank.mic("MM")["position_m"][2] == pytest.approx(2.2, abs=1e-6)
    page.keyboard.press("Control+z")
    expect(panel.locator("[data-whatif-value]")).to_have_text("100.0 cm")


def test_an_undo_holds_though_the_curves_are_still_on_their_way(blank):
    # The curves of the new value take longer than a hand takes to press Ctrl+Z.
    blank.page.add_init_script("""
      const at_once = window.fetch;
      window.fetch = async (...asked) => {
        const url = String(asked[0].url ?? asked[0]);
        if (window.__slow && url.endsWith('/what-if'))
          await new Promise((done) => setTimeout(done, 2500));
        return at_once(...asked);
      };
    """)
    page = blank.open()
    techniques(page)
    take(page, "one-front")
    page.locator("[data-opened]").get_by_role("button", name="What if").click()
    value = page.locator("[data-whatif-value]")
    expect(value).to_have_text("120.0 cm")
    before = blank.mic("MM")["position_m"]
    page.evaluate("window.__slow = true")
    page.get_by_label(re.compile("^What if, ")).focus()
    page.keyboard.press("End")
    page.locator("[aria-label^='Undo: One in front']").wait_for()
    blank.saved()
    assert blank.mic("MM")["position_m"] != before
    page.keyboard.press("Control+z")
    page.locator("[aria-label^='Redo: One in front']").wait_for()
    expect(value).to_have_text("120.0 cm")
    blank.saved()
    assert blank.mic("MM")["position_m"] == before


def test_the_marked_value_is_one_press_away(someone):
    page = someone.open()
    techniques(page)
    take(page, "one-shoulder")
    kept(someone, "Took One over the shoulder")
    before = someone.mic("MM")["position_m"]
    page.locator("[data-opened]").get_by_role("button", name="What if").click()
    button = page.get_by_role("button", name="To the marked value")
    expect(button).to_be_enabled()
    button.click()
    kept(someone, "One over the shoulder: beside the stool")
    assert someone.mic("MM")["position_m"][0] != before[0]
    expect(button).to_be_disabled()


def test_a_technique_is_taken_away_as_one_thing_and_brought_back(blank):
    page = blank.open()
    techniques(page)
    take(page, "wide-crossed")
    page.get_by_role("button", name="Take it away").click()
    expect(page.locator("[data-mic]")).to_have_count(0)
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(page.locator("[data-mic][data-view='above']")).to_have_count(4)
    expect(page.locator("[data-taken='wide-crossed']")).to_be_visible()


def test_a_dragged_mic_goes_back_on_its_numbers(blank):
    page = blank.open()
    techniques(page)
    take(page, "pair-near")
    blank.saved()
    before = blank.doc()["mics"]
    page.locator("[data-mic='OL'][data-view='above']").focus()
    page.keyboard.press("ArrowUp")
    expect(page.locator("[data-off]")).to_contain_text("OL 1.0 cm")
    page.get_by_role("button", name="Back on its numbers").click()
    expect(page.locator("[data-off]")).to_have_count(0)
    kept(blank, "Near-coincident pair back on its numbers")
    assert blank.doc()["mics"] == before


def test_a_close_mic_is_placed_in_drum_terms(someone):
    page = someone.open()
    choose(page, "ST")
    drum = page.get_by_label("At the drum")
    field = drum.get_by_label("Clock")
    field.fill("9")
    field.press("Enter")
    expect(drum.get_by_label("Clock")).to_have_value("9")
    kept(someone, "Placed ST at its drum")
    mic = someone.mic("ST")
    snare = next(d for d in someone.doc()["kit"]["drums"] if d["kind"] == "snare")
    assert mic["position_m"][0] < snare["batter_m"][0] - 0.05
    assert mic["position_m"][1] == pytest.approx(snare["batter_m"][1], abs=1e-4)
    off = drum.get_by_label("Off it, cm")
    off.fill("10")
    off.press("Enter")
    expect(page.get_by_label("Height, cm", exact=True)).to_have_value("76.0")
    someone.saved()
    height = someone.mic("ST")["position_m"][2] - snare["batter_m"][2]
    assert height == pytest.approx(0.1, abs=1e-6)
    pick(drum.get_by_label("Aimed at", exact=True), "shell")
    expect(page.locator("[data-aim-words]")).not_to_contain_text("at the snare")
    someone.saved()
    assert someone.mic("ST")["aim"][2] < 0
    expect(drum.locator("[data-gap]")).to_contain_text("to the hats")


def test_a_null_is_turned_and_says_what_it_takes_out(someone):
    page = someone.open()
    choose(page, "ST")
    drum = page.get_by_label("At the drum")
    before = someone.mic("ST")["aim"]
    pick(drum.get_by_label("Null toward", exact=True), "hats")
    drum.get_by_role("button", name="Turn it").click()
    expect(drum.locator("[data-null]")).to_contain_text("on paper the pattern leaves")
    someone.saved()
    assert someone.mic("ST")["aim"] != before


def hold(person, mic, *names):
    choose(person.page, mic)
    person.page.get_by_role("tab", name=f"Mic {mic}").click()
    for name in names:
        person.page.get_by_role("checkbox", name=name, exact=True).click()
        person.saved()


def test_what_is_held_is_not_moved_by_a_fit(someone):
    page = someone.open()
    hold(someone, "OR", "Up and down", "Its turn")
    before = someone.mic("OR")
    assert sorted(before["locks"]) == ["aim", "height"]
    expect(page.locator("[data-held='OR']").first).to_be_visible()
    page.get_by_role("tab", name="Fit", exact=True).click()
    page.get_by_role("button", name="Fit it").click()
    expect(page.locator("[data-moved='OR']")).to_contain_text("equal on snare and kick")
    someone.saved()
    after = someone.mic("OR")
    assert after["position_m"][2] == before["position_m"][2]
    assert after["aim"] == before["aim"]
    assert after["position_m"] != before["position_m"]


def test_a_fit_with_nothing_free_says_what_it_gave_up(someone):
    page = someone.open()
    for mic in ("OL", "OR"):
        hold(someone, mic, "Sideways", "To and fro", "Up and down")
    before = someone.doc()["mics"]
    page.get_by_role("tab", name="Fit", exact=True).click()
    for words in ("Nulls toward", "Less bleed"):
        page.get_by_role("checkbox", name=words).uncheck()
    page.get_by_role("button", name="Fit it").click()
    expect(page.locator("[data-gaveup]")).to_contain_text("stay apart on kick")
    expect(page.locator("[data-gaveup]")).to_contain_text("cm are left")
    assert someone.doc()["mics"] == before


def test_techniques_by_keyboard_alone(blank):
    page = blank.open()
    page.get_by_role("tab", name="Techniques", exact=True).focus()
    page.keyboard.press("Enter")
    page.get_by_label("Search").focus()
    page.keyboard.type("mid-side over")
    expect(page.locator("[data-technique]")).to_have_count(1)
    page.keyboard.press("Tab")  # the kind
    page.keyboard.press("Tab")
    expect(page.locator("[data-technique='pair-mid-side']")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("[data-fresh='OM']").first).to_be_visible()
    page.get_by_role("button", name="Take it", exact=True).focus()
    page.keyboard.press("Enter")
    expect(page.locator("[data-opened='pair-mid-side']")).to_be_visible()
    blank.saved()
    assert [m["pattern"] for m in blank.doc()["mics"]] == ["cardioid", "figure-8"]


def test_numbers_are_told_in_ones_own_hand(blank):
    page = blank.open()
    page.get_by_role("radio", name="hand", exact=True).click()
    techniques(page)
    page.locator("[data-technique='snare-centre']").click()
    expect(page.get_by_label("Over the head", exact=True)).to_have_value("2 f")
    expect(page.locator("[data-number='height']")).to_contain_text("starts at two fingers")
