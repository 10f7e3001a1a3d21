"""Kit: built from typed tape readings by keyboard alone; what follows a moved drum."""

import math
import re

import pytest
from playwright.sync_api import expect
from ringside.plan.kit import Kit, mirrored, reference_point
from ringside.plan.kits import KITS

from tests.browser.conftest import arrive, by_requests, held_back, pick, until


@pytest.fixture
def six_piece(server, chromium):
    person = arrive(server, chromium, kit="six-piece")
    yield person
    person.context.close()
    assert person.faults == []


def held(part):
    return reference_point(part) if hasattr(part, "batter_m") else part.centre_m


def true_kit():
    """A left-handed six-piece as somebody set it up: the preset's mirror image, pushed about."""
    kit = mirrored(KITS["six-piece"](), "True")
    shifts = {
        "kick": (0.02, -0.03, 0.0), "rack-1": (0.05, 0.04, 0.03), "rack-2": (-0.06, 0.02, 0.02),
        "floor-1": (-0.07, 0.05, 0.01), "floor-2": (0.06, 0.08, -0.02),
    }  # fmt: skip
    drums = tuple(
        d.model_copy(
            update={
                "batter_m": tuple(
                    a + b for a, b in zip(d.batter_m, shifts.get(d.id, (0, 0, 0)), strict=True)
                )
            }
        )
        for d in kit.drums
    )
    return kit.model_copy(update={"drums": drums})


def length(kit, a, b):
    if b == "ground":
        return held(kit.part(a))[2]
    return math.dist(held(kit.part(a)), held(kit.part(b)))


def press_through(page, label, role="button", most=80):
    """Tab until the control of that name has the focus; nothing is clicked."""
    for _ in range(most):
        page.keyboard.press("Tab")
        found = page.evaluate(
            "() => { const e = document.activeElement; return e.getAttribute('aria-label') ||"
            " (e.labels && e.labels[0] && e.labels[0].innerText) || e.innerText; }"
        )
        if (found or "").strip().startswith(label):
            return
    raise AssertionError(f"Tab does not reach {label!r}")


def test_a_left_handed_six_piece_from_typed_readings_by_keyboard_alone(six_piece):
    page = six_piece.open("kit")
    press_through(page, "Turn round for a left-handed drummer")
    page.keyboard.press("Enter")
    expect(page.get_by_text("left-handed", exact=False).first).to_be_visible()
    six_piece.saved()
    truth = true_kit()
    ask = page.locator("[data-ask]")
    page.get_by_label("Reads, cm").focus()
    drums = set(truth.source_ids[: len(truth.drums)])
    taken = 0
    while taken < 40:
        ends = ask.get_attribute("data-ask").split()
        if not set(ends) <= drums | {"ground"}:
            break  # the drums are done, the cymbals would follow
        page.keyboard.type(f"{length(truth, *ends) * 100:.1f}")
        page.keyboard.press("Enter")
        expect(page.locator(f'[data-reading="{" ".join(ends)}"]')).to_have_count(1)
        expect(ask).not_to_have_attribute("data-ask", " ".join(ends))
        expect(page.get_by_label("Reads, cm")).to_be_focused()
        taken += 1
    assert 10 <= taken <= 24  # two tapes and a height for each drum, and a few more
    six_piece.saved()
    kit = Kit.model_validate(six_piece.doc()["kit"])
    assert kit.hand == "left"
    assert kit.name == "Left-handed six-piece"
    for a in truth.drums:
        assert kit.part(a.id).batter_m[2] == pytest.approx(a.batter_m[2], abs=0.01)
        for b in truth.drums:
            if a.id < b.id:
                assert length(kit, a.id, b.id) == pytest.approx(length(truth, a.id, b.id), abs=0.03)
    # The overheads were turned round with the kit, and the close mics went with their drums.
    assert six_piece.mic("OL")["position_m"][0] > six_piece.mic("OR")["position_m"][0]
    floor = six_piece.mic("F1")["position_m"]
    assert math.dist(floor[:2], kit.part("floor-1").batter_m[:2]) < 0.2


def test_a_moved_floor_tom_takes_its_mic_and_the_verdicts_along(someone):
    page = someone.open("pairs")
    before = someone.get(f"/layouts/{someone.layout}/analysis").json()
    page = someone.open("kit")
    mic, drum = someone.mic("FT"), someone.doc()["kit"]["drums"][-1]
    grip = page.locator('[data-part="floor"][data-view="above"]')
    grip.focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("PageUp")
    expect(page.get_by_role("button", name="Undo: Moved Floor tom with FT")).to_be_enabled()
    expect(grip).to_have_attribute("aria-label", "Floor tom, 63.0 cm high")
    someone.saved()
    now, moved = someone.mic("FT"), someone.doc()["kit"]["drums"][-1]
    assert moved["batter_m"][0] == pytest.approx(drum["batter_m"][0] + 0.3)
    assert moved["batter_m"][2] == pytest.approx(drum["batter_m"][2] + 0.01)
    for axis in range(3):
        gone = moved["batter_m"][axis] - drum["batter_m"][axis]
        assert now["position_m"][axis] - mic["position_m"][axis] == pytest.approx(gone, abs=1e-4)
    after = someone.get(f"/layouts/{someone.layout}/analysis").json()
    k = [s["id"] for s in after["sources"]].index("floor")
    own = after["mic_ids"].index("FT")
    left = after["mic_ids"].index("OL")
    assert after["tape_m"][own][k] == pytest.approx(before["tape_m"][own][k], abs=1e-4)
    assert after["tape_m"][left][k] > before["tape_m"][left][k] + 0.2
    assert after["verdict"] != before["verdict"]


def drag(page, locator, dx, dy):
    box = locator.locator("circle").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx / 2, y + dy / 2, steps=4)
    page.mouse.move(x + dx, y + dy, steps=4)
    page.mouse.up()


def taped(page):
    """One reading from the snare to the floor tom; its row."""
    form = page.get_by_role("form", name="Another reading")
    pick(form.get_by_label("From", exact=True), "snare")
    pick(form.get_by_label("To", exact=True), "floor")
    form.get_by_label("Length, cm").fill("70")
    form.get_by_role("button", name="Take").click()
    row = page.locator('[data-reading="snare floor"]')
    expect(row).to_contain_text("fits")
    return row


def test_a_tape_reaches_to_the_drum_wherever_the_hand_has_it(someone):
    page = someone.open("kit")
    taped(page)
    someone.saved()
    line = page.locator('[data-ends="part snare,part floor"]').first
    rest = line.bounding_box()
    grip = page.locator('[data-part="floor"][data-view="above"] > circle').first.bounding_box()
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y + 90, steps=6)
    bar = page.locator("[data-bar]").first
    expect(bar).to_be_visible()
    page.wait_for_timeout(100)
    # Found and read in one go: a hand that rests has it made anew.
    held = page.evaluate("document.querySelector('[data-bar]').getBoundingClientRect().toJSON()")
    # From the snare, which stands to the left and as far ahead, to the middle of the drum.
    assert held["x"] == pytest.approx(rest["x"], abs=4)
    assert held["x"] + held["width"] == pytest.approx(x + 60, abs=4)
    assert held["y"] == pytest.approx(rest["y"], abs=4)
    assert held["y"] + held["height"] == pytest.approx(y + 90, abs=4)
    page.mouse.up()
    expect(page.locator("[data-bar]")).to_have_count(0)
    now = line.bounding_box()
    assert now["x"] + now["width"] == pytest.approx(x + 60, abs=4)


def test_a_plumb_line_keeps_its_foot_on_the_floor_as_its_drum_is_lifted(someone):
    page = someone.open("kit")
    expect(page.locator("[data-ask]")).to_have_attribute("data-ask", "snare ground")
    grip = page.locator('[data-part="snare"][data-view="along"] > circle').first
    line = page.locator('[data-ends="part snare,floor:part snare"]').last
    rest, at = line.bounding_box(), grip.bounding_box()
    x, y = at["x"] + at["width"] / 2, at["y"] + at["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y - 40, steps=6)
    bar = page.locator("[data-bar]").last
    expect(bar).to_be_visible()
    page.wait_for_timeout(100)
    held = bar.bounding_box()
    assert held["y"] + held["height"] == pytest.approx(rest["y"] + rest["height"], abs=4)
    assert held["y"] == pytest.approx(y - 40, abs=4)
    assert held["x"] + held["width"] / 2 == pytest.approx(x + 30, abs=4)
    page.mouse.up()


def test_a_lifted_cymbal_is_drawn_anew_where_its_stand_is_seen_to_grow(someone):
    page = someone.open("kit")
    name = someone.doc()["kit"]["cymbals"][0]["id"]
    grip = page.locator(f'[data-part="{name}"][data-view="along"] > circle').first
    at = grip.bounding_box()
    x, y = at["x"] + at["width"] / 2, at["y"] + at["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    # Sideways it is carried in both views; lifted too, in the one from above only.
    page.mouse.move(x + 20, y, steps=4)
    expect(page.locator(f'[data-hand="part {name}"][data-view="along"]').first).to_be_visible()
    page.mouse.move(x + 20, y - 30, steps=4)
    expect(page.locator(f'[data-hand="part {name}"][data-view="along"]')).to_have_count(0)
    expect(page.locator(f'[data-hand="part {name}"][data-view="above"]').first).to_be_visible()
    assert grip.bounding_box()["y"] == pytest.approx(at["y"] - 30, abs=1.5)
    page.mouse.up()


def test_dragging_a_drum_by_hand_makes_its_readings_unsure(someone):
    page = someone.open("kit")
    row = taped(page)
    drag(page, page.locator('[data-part="floor"][data-view="above"]'), 40, 20)
    expect(row).to_contain_text("no longer sure")
    expect(page.locator("[data-ask]")).to_have_attribute("data-ask", "snare floor")
    expect(page.locator("[data-tape-words]")).to_contain_text("no longer sure")
    page.keyboard.press("Control+z")
    expect(row).to_contain_text("fits")


def test_a_reading_that_does_not_fit_is_named_and_measured_again(someone):
    page = someone.open("kit")
    kit = Kit.model_validate(someone.doc()["kit"])
    field, ask = page.get_by_label("Reads, cm"), page.locator("[data-ask]")
    states = page.locator("[data-reading]").filter(has_text="does not fit, left out")

    def answer(off=0.0):
        ends = ask.get_attribute("data-ask")
        field.fill(f"{(length(kit, *ends.split()) + off) * 100:.1f}")
        page.keyboard.press("Enter")
        expect(page.locator(f'[data-reading="{ends}"]')).to_have_count(1)
        expect(field).to_have_value("")
        return ends

    for _ in range(12):
        answer()
    bad = answer(0.25)
    for _ in range(40):
        if states.count():
            break
        answer()
    row = page.locator(f'[data-reading="{bad}"]')
    expect(row).to_contain_text(re.compile("does not fit, left out|in doubt"))
    expect(page.locator("[data-tape-words]")).to_contain_text("not fit the other readings")
    expect(page.get_by_text("Once more")).to_be_visible()
    for _ in range(4):  # what is in doubt is asked for first, and measured right this time
        if page.get_by_text("Once more").count():
            answer()
    expect(states).to_have_count(0)
    expect(row).to_contain_text("fits")


def test_a_three_metre_snare_is_refused_in_words_and_nothing_is_lost(someone):
    page = someone.open("kit")
    before = someone.doc()
    page.locator('[data-part="snare"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_label("Size, cm").fill("300")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="given in cm?")).to_contain_text(
        "diameter_m: expected at most 1, got 3"
    )
    page.get_by_label("Depth, cm").fill("-4")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="depth_m")).to_contain_text(
        "expected at least 0.03"
    )
    someone.saved()
    assert someone.doc() == before


def test_a_typed_note_feeds_the_body_band(someone):
    page = someone.open("kit")
    page.locator('[data-part="floor"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    field = page.get_by_label("Tuned to, Hz or a note")
    expect(page.get_by_text("Body is judged from")).to_contain_text("60 Hz to 120 Hz")
    field.fill("C2")
    page.keyboard.press("Enter")
    expect(field).to_have_value("65.4")
    expect(page.get_by_text("Body is judged from")).to_contain_text("46 Hz to 92 Hz")
    page.get_by_role("tab", name="Tuning").click()
    expect(page.locator("[data-note=floor]")).to_have_text("C2")
    expect(page.locator("[data-spread]")).to_contain_text("type a note for Rack 1, Rack 2")


def test_lugs_through_the_day(someone):
    page = someone.open("kit")
    page.get_by_role("tab", name="Tuning").click()
    for lugs in ("330 331 330 329 330 331", "318 331 330 329 330 331"):
        page.get_by_label("Hz beside each lug, strike lug first").fill(lugs)
        page.keyboard.press("Enter")
        expect(page.get_by_label("Hz beside each lug, strike lug first")).to_have_value("")
    expect(page.locator("[data-drift=snare]")).to_contain_text("lug 1 has gone down 64 cents")
    page.get_by_label("Hz beside each lug, strike lug first").fill("loud")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Type hertz with spaces between")


def test_a_kit_is_kept_and_taken_again(someone):
    page = someone.open("kit")
    page.get_by_label("This kit").fill("Barn kit")
    page.keyboard.press("Enter")
    pick(page.get_by_label("One more"), "percussion")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("heading", name="Percussion")).to_be_visible()
    page.get_by_role("button", name="The kit as a whole").click()
    page.get_by_role("button", name="Keep Barn kit for next time").click()
    expect(page.get_by_text("Barn kit is kept for next time", exact=True)).to_be_visible()
    pick(page.get_by_label("Take another kit"), "small four-piece")
    expect(page.get_by_label("This kit")).to_have_value("Small four-piece")
    pick(page.get_by_label("Take another kit"), "Barn kit")
    expect(page.get_by_label("This kit")).to_have_value("Barn kit")
    page.get_by_role("button", name="Forget the kept Barn kit").click()
    expect(page.get_by_role("button", name="Forget the kept Barn kit")).to_have_count(0)
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Forget the kept Barn kit")).to_be_visible()
    someone.saved()
    assert "percussion" in [c["id"] for c in someone.doc()["kit"]["cymbals"]]


def test_the_mic_follows_while_the_drum_is_still_held(someone):
    page = someone.open("kit")
    plate = page.locator("text", has_text=re.compile("^FT$")).first
    before = plate.bounding_box()["x"]
    box = page.locator('[data-part="floor"][data-view="above"] circle').bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y, steps=6)
    page.wait_for_function(
        "([from]) => [...document.querySelectorAll('text')].some((t) => t.textContent === 'FT'"
        " && t.getBoundingClientRect().x > from + 30)",
        arg=[before],
    )
    kit = someone.doc()["kit"]
    assert kit["drums"][-1]["batter_m"][0] == pytest.approx(0.64)  # nothing is saved yet
    page.mouse.up()
    expect(page.get_by_role("button", name="Undo: Moved Floor tom with FT")).to_be_enabled()
    someone.saved()
    page.reload()
    someone.saved()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name="Redo: Moved Floor tom with FT")).to_be_enabled()
    someone.saved()
    assert someone.doc()["kit"]["drums"][-1]["batter_m"][0] == pytest.approx(0.64)


def left_of(copies):
    """Where the copy is, looked for and measured at once: any answer may make it anew."""
    return copies.evaluate_all("([one]) => one?.getBoundingClientRect().left ?? null")


def test_a_drum_is_with_the_pointer_while_the_server_takes_its_time(someone):
    by_requests(someone)
    page = someone.open("kit")
    drum, beside = (
        page.locator(f'[data-part="floor"][data-view="{view}"] > circle').first
        for view in ("above", "along")
    )
    # Under the hand they are copies, over the kit and over what a hand can take.
    held, held_beside = (
        page.locator(f'[data-hand="part floor"][data-view="{view}"] > g > circle[r="19"]')
        for view in ("above", "along")
    )
    mic = page.locator('[data-goes="mic FT"]').first
    start, was, stood = drum.bounding_box(), beside.bounding_box(), mic.bounding_box()
    let_go = held_back(page, "**/api/edit/try")
    x, y = start["x"] + start["width"] / 2, start["y"] + start["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for n in (15, 30, 45):
        page.mouse.move(x + n, y, steps=2)
        page.wait_for_timeout(60)
        assert left_of(held) == pytest.approx(start["x"] + n, abs=1.5)
        assert left_of(held_beside) > was["x"] + n / 2
    expect(page.locator('[data-hand="mic FT"]')).to_have_count(0)
    let_go()
    with_it = page.locator('[data-hand="mic FT"][data-view="above"] > g[opacity] > g')
    expect(with_it).to_have_count(1)
    page.mouse.move(x + 46, y)
    until(page, lambda: left_of(with_it) == pytest.approx(stood["x"] + 46, abs=1.5))
    page.mouse.up()
    someone.saved()
    expect(page.locator("[data-hand]")).to_have_count(0)
    assert drum.bounding_box()["x"] == pytest.approx(start["x"] + 46, abs=1.5)
    assert mic.bounding_box()["x"] == pytest.approx(stood["x"] + 46, abs=1.5)


def test_a_drum_let_go_of_is_taken_again_where_it_is_before_it_is_kept(someone):
    by_requests(someone)
    page = someone.open("kit")
    drum = page.locator('[data-part="floor"][data-view="above"] > circle').first
    start = drum.bounding_box()
    let_go = held_back(page, "**/api/edit**")
    x, y = start["x"] + start["width"] / 2, start["y"] + start["height"] / 2
    for n in (0, 40):
        page.mouse.move(x + n, y)
        page.mouse.down()
        page.mouse.move(x + n + 40, y, steps=4)
        page.mouse.up()
        expect(page.locator("[data-hand]")).to_have_count(0)
        assert drum.bounding_box()["x"] == pytest.approx(start["x"] + n + 40, abs=1.5)
    let_go()
    someone.saved()
    assert drum.bounding_box()["x"] == pytest.approx(start["x"] + 80, abs=1.5)


def test_a_drum_just_taken_hold_of_has_all_its_fields_once_the_hand_rests(someone):
    by_requests(someone)
    page = someone.open("kit")
    away = page.get_by_role("button", name="Take Floor tom away")
    let_go = held_back(page, "**/api/edit**")
    floor = page.locator('[data-part="floor"][data-view="above"] > circle').first
    box = floor.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y, steps=4)
    expect(page.get_by_label("Right, cm")).to_be_visible()
    page.mouse.up()
    # The server has not kept it yet, and others are looked at meanwhile.
    expect(away).to_be_visible()
    page.locator('[data-part="snare"][data-view="above"] > circle').first.click()
    expect(page.get_by_role("button", name="Take Snare away")).to_be_visible()
    let_go()
    someone.saved()


def test_the_chosen_drum_alone_is_marked_in_both_views_and_a_snare_has_its_wires_to_turn(someone):
    page = someone.open("kit")
    marked = page.locator("[data-part][aria-pressed=true]")
    wires = page.locator("[data-wires]")
    page.locator("[data-part][data-view=along]").first.wait_for()

    def shown():
        return marked.evaluate_all("all => all.map(e => e.dataset.part + ' ' + e.dataset.view)")

    assert (shown(), wires.count()) == ([], 0)
    for part, turned in (("snare", 1), ("floor", 0), ("snare", 1)):
        page.locator(f'[data-part="{part}"]').first.focus()
        page.keyboard.press("Enter")
        until(page, lambda p=part: shown() == [f"{p} above", f"{p} along"])
        assert wires.count() == turned
    page.get_by_role("button", name="The kit as a whole").click()
    until(page, lambda: (shown(), wires.count()) == ([], 0))


def test_a_reading_that_cannot_be_taken_is_skipped_and_asked_again(someone):
    page = someone.open("kit")
    ask = page.locator("[data-ask]")
    expect(ask).to_have_attribute("data-ask", "snare ground")
    page.get_by_role("button", name="Skip").click()
    expect(ask).not_to_have_attribute("data-ask", "snare ground")
    page.get_by_role("button", name="Ask for the 1 skipped again").click()
    expect(ask).to_have_attribute("data-ask", "snare ground")
