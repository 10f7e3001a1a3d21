"""On a phone, and at a desk at 200 %: every step fits, is read to its end and is worked."""

import math

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import at_rest, until
from tests.browser.test_access import faults

STEPS = ["brief", "room", "kit", "place", "patch", "pairs", "sheet", "tape", "hits", "log"]
TOO_LARGE = """() => {
  const { scrollWidth, scrollHeight } = document.documentElement;
  return [scrollWidth - innerWidth, scrollHeight - innerHeight];
}"""
# The last thing of the step that can be pressed or typed into, brought into sight.
LAST = """() => {
  const all = [...document.querySelectorAll("main button, main input, main a, main summary")];
  const last = all.filter((e) => !e.disabled && e.getClientRects().length).at(-1);
  if (!last) return false;
  last.scrollIntoView({ block: "center" });
  const b = last.getBoundingClientRect();
  const there = document.elementFromPoint(b.left + b.width / 2, b.top + b.height / 2);
  return b.left >= 0 && b.right <= innerWidth && b.bottom <= innerHeight && last.contains(there);
}"""
CAPSULE = """(id) => {
  const b = document.querySelector(`[data-mic="${id}"] circle`).getBoundingClientRect();
  return [b.left + b.width / 2, b.top + b.height / 2];
}"""


class Fingers:
    """Fingers on the glass, by the protocol of the browser's own tools."""

    def __init__(self, person):
        self.line = person.context.new_cdp_session(person.page)

    def send(self, kind, *points):
        touched = [{"x": x, "y": y, "id": n} for n, (x, y) in enumerate(points)]
        self.line.send("Input.dispatchTouchEvent", {"type": f"touch{kind}", "touchPoints": touched})


def drum(person, part):
    return next(d for d in person.doc()["kit"]["drums"] if d["id"] == part)


def room(person):
    return person.doc()["room"] or {"gobos": []}


def capsule(page, mic):
    return page.evaluate(CAPSULE, mic)


@pytest.mark.parametrize("size", [(390, 844), (640, 400)])
def test_every_step_fits_and_is_read_to_its_end(someone, size):
    page = someone.page
    page.set_viewport_size({"width": size[0], "height": size[1]})
    for step in STEPS:
        someone.open(step)
        if step == "room":
            page.get_by_role("button", name="Draw a box").click()
            expect(page.get_by_role("tab", name="Numbers")).to_be_visible()
        if step == "tape":
            expect(page.get_by_role("form", name="Reading")).to_be_visible()
        until(page, lambda: page.evaluate(LAST))
        assert page.evaluate(TOO_LARGE) == [0, 0], step


@pytest.mark.parametrize(("wide", "desk"), [(899, False), (900, True)])
def test_from_900_wide_there_is_room_for_two(someone, wide, desk):
    someone.page.set_viewport_size({"width": wide, "height": 800})
    page = someone.open("place")
    expect(page.get_by_role("button", name="Step: Place")).to_have_count(0 if desk else 1)
    expect(page.get_by_role("heading", name="From above")).to_be_visible()
    side = page.get_by_role("region", name="From above").bounding_box()["width"] < wide - 100
    assert side == desk


def test_one_view_at_a_time_is_named_for_who_looks(held):
    page = held.open("place")
    page.get_by_role("radio", name="Right").tap()
    expect(page.get_by_role("region", name="From the right")).to_be_visible()
    expect(page.get_by_role("region", name="From above")).to_have_count(0)
    page.get_by_role("radio", name="Above").tap()
    page.get_by_role("button", name="Audience view").tap()
    page.get_by_role("radio", name="Left").tap()
    expect(page.get_by_role("region", name="From the left")).to_be_visible()


def test_the_steps_the_units_and_the_way_home_are_behind_one_button(held):
    page = held.open("place")
    expect(page.get_by_text("Snare, cm")).to_be_visible()
    page.get_by_role("button", name="Step: Place").tap()
    steps = page.get_by_role("navigation", name="Steps of the work")
    expect(steps.get_by_role("link")).to_have_count(10)
    expect(steps.get_by_role("link", name="Pairs , wants attention")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("radio", name="ft-in").tap()
    expect(page.get_by_text("Snare, cm")).to_have_count(0)
    steps.get_by_role("link", name="Pairs").tap()
    expect(page.get_by_role("button", name="Step: Pairs")).to_be_visible()
    expect(steps).to_have_count(0)
    page.get_by_role("button", name="Step: Pairs").tap()
    page.get_by_role("link", name="To your sessions").tap()
    expect(page.get_by_role("heading", name="Test day")).to_be_visible()


def test_a_finger_moves_a_mic_and_a_touch_takes_it_back(held):
    page = held.open("place")
    snare = page.get_by_role("region", name="Distances to the snare")
    expect(snare).to_contain_text("equal by tape")
    before, kick_in = (held.mic(m)["position_m"] for m in ("OL", "KI"))
    fingers = Fingers(held)
    x, y = capsule(page, "OL")

    def take():
        fingers.send("Start", (x, y))
        for n in range(1, 6):
            fingers.send("Move", (x - 4 * n, y))
        expect(snare).to_contain_text("further")  # while it is still held
        assert held.mic("OL")["position_m"] == before

    def let_go():
        fingers.send("End")
        until(page, lambda: held.mic("OL")["position_m"][0] < before[0] - 0.05)

    take()
    let_go()
    page.get_by_role("button", name="Undo").tap()
    until(page, lambda: held.mic("OL")["position_m"] == before)
    expect(snare).to_contain_text("equal by tape")
    # A second finger meanwhile takes no other mic along, nor the chart from under the first.
    take()
    kick = capsule(page, "KI")
    fingers.send("Start", (x - 20, y), kick)
    fingers.send("Move", (x - 20, y), (kick[0] + 60, kick[1] + 40))
    assert capsule(page, "KI") == pytest.approx(kick, abs=0.5)
    let_go()
    assert held.mic("KI")["position_m"] == kick_in


def test_a_thumb_nudges_a_mic_as_the_plan_shows_it(held):
    page = held.open("place")
    page.locator("[data-mic=OL]").tap()
    page.get_by_role("tab", name="Mic OL").tap()
    x, y, z = held.mic("OL")["position_m"]

    def nudged(ways, there):
        for way in ways:
            page.get_by_role("button", name=way).tap()
        there = pytest.approx(there, abs=1e-6)
        until(page, lambda: held.mic("OL")["position_m"] == there)

    # Presses add up while the first is on its way, and each kind of step is its own size.
    nudged(["To the drummer's left"] * 3 + ["Toward the audience"], [x - 0.03, y + 0.01, z])
    page.get_by_role("radio", name="1 mm").tap()
    nudged(["Lower", "Lower"], [x - 0.03, y + 0.01, z - 0.002])
    left = page.get_by_role("button", name="To the drummer's left").bounding_box()["x"]
    page.get_by_role("button", name="Audience view").tap()
    right = page.get_by_role("button", name="To the drummer's right")
    expect(right).to_be_visible()
    assert right.bounding_box()["x"] == left  # the arrow to the left moves it to the left there
    nudged(["To the drummer's right"], [x - 0.029, y + 0.01, z - 0.002])
    assert faults(page) == []


def test_a_drum_is_nudged_and_goes_on_while_the_arrow_is_held(held):
    page = held.open("kit")
    x, y, z = drum(held, "rack-1")["batter_m"]
    page.locator("[data-part=rack-1]").tap()
    page.get_by_role("button", name="Higher").tap()
    until(page, lambda: drum(held, "rack-1")["batter_m"] == pytest.approx([x, y, z + 0.01]))
    right = page.get_by_role("button", name="To the drummer's right")
    right.scroll_into_view_if_needed()
    box = right.bounding_box()
    finger = Fingers(held)
    finger.send("Start", (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2))
    page.wait_for_timeout(1100)
    finger.send("End")
    page.locator("[data-saved=saved]").wait_for()
    moved = drum(held, "rack-1")["batter_m"][0] - x
    assert moved > 0.025
    assert moved == pytest.approx(0.01 * round(moved / 0.01), abs=1e-6)  # whole steps
    page.wait_for_timeout(600)
    assert drum(held, "rack-1")["batter_m"][0] - x == pytest.approx(moved)  # and none after it
    assert faults(page) == []


def test_the_kit_and_a_gobo_are_nudged_along_the_walls_and_no_further(held):
    page = held.open("room")
    page.get_by_role("button", name="Draw a box").tap()
    page.get_by_role("tab", name="Numbers").tap()
    page.get_by_role("radio", name="50 cm").tap()
    before = room(held)
    for _ in range(2):
        page.get_by_role("button", name="Toward the back wall").tap()
    page.get_by_role("button", name="Turn 5° left").tap()
    until(page, lambda: room(held)["kit_turn_rad"] == pytest.approx(math.radians(5), abs=1e-5))
    assert room(held)["kit_y_m"] == pytest.approx(before["kit_y_m"] - 1)
    for _ in range(6):
        page.get_by_role("button", name="Toward the left wall").tap()
    until(page, lambda: room(held)["kit_x_m"] == 0)
    page.get_by_text("Gobos (0)").tap()
    page.get_by_role("button", name="Add a gobo").tap()
    gobo = page.get_by_role("group", name="Nudge Gobo 1, arrows as on the plan")
    until(page, lambda: len(room(held)["gobos"]) == 1)
    stood = room(held)["gobos"][0]
    gobo.get_by_role("button", name="Toward the front wall").tap()
    gobo.get_by_role("button", name="Turn 5° right").tap()
    until(page, lambda: room(held)["gobos"][0]["turn_rad"] < stood["turn_rad"])
    assert room(held)["gobos"][0]["y_m"] == pytest.approx(stood["y_m"] + 0.1)
    assert faults(page) == []


def test_two_fingers_spread_the_chart_and_move_nothing(held):
    page = held.open("place")
    expect(page.get_by_text("equal by tape").first).to_be_visible()
    version = held.get(f"/layouts/{held.layout}").json()["version"]
    chart = at_rest(page.get_by_role("group", name="From above: mics of"))
    a, b = capsule(page, "OL"), capsule(page, "OR")
    fingers = Fingers(held)
    low = chart["y"] + chart["height"] - 12
    paper, mic = (chart["x"] + 12, low), capsule(page, "ST")
    fingers.send("Start", paper)
    fingers.send("Start", paper, mic)  # the second begins on a mic, and does not take it along
    apart = math.dist(paper, mic)
    for n in range(1, 7):
        fingers.send("Move", paper, (mic[0] + 10 * n, mic[1] - 10 * n))
    now = math.dist(paper, (mic[0] + 60, mic[1] - 60))
    fingers.send("End")
    spread = math.dist(capsule(page, "OL"), capsule(page, "OR")) / math.dist(a, b)
    assert spread == pytest.approx(now / apart, rel=0.02)
    assert held.get(f"/layouts/{held.layout}").json()["version"] == version


def test_a_pair_that_is_opened_comes_forward_and_a_trial_before_it(held):
    page = held.open("pairs")
    expect(page.get_by_role("list", name="What to do now, in order")).to_be_visible()
    page.get_by_role("tab", name="Every pair").tap()
    page.get_by_label("Find a mic or drum").fill("snare")
    page.locator('[data-pair="ST-SB"]').tap()
    expect(page.get_by_role("tab", name="One pair")).to_have_attribute("aria-selected", "true")
    pair = page.get_by_role("region", name="Pair ST with SB")
    expect(pair).to_be_visible()
    assert faults(page) == []
    pair.get_by_role("button", name="Try").first.tap()
    expect(page.get_by_role("region", name="On trial")).to_be_visible()
    expect(pair.get_by_text("As it would be; not saved.")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("region", name="On trial").get_by_role("button", name="Back").tap()
    expect(page.get_by_role("region", name="On trial")).to_have_count(0)
    expect(pair).to_be_visible()
    page.get_by_role("tab", name="Every pair").tap()
    expect(page.get_by_label("Find a mic or drum")).to_have_value("snare")
    page.locator('[data-pair="ST-SB"]').tap()  # the same once more
    expect(pair).to_be_visible()
    held.open("place")
    page.get_by_role("link", name="All drums of this pair").tap()
    expect(page.get_by_role("region", name="Pair OL with OR")).to_be_visible()


def test_no_step_has_a_serious_fault_there(held):
    page = held.page
    for step, tab, there in (
        ("place", "Tapes", "[data-plate]"),
        ("kit", "Table", "table"),
        ("brief", "", "[data-plan]"),
        ("pairs", "Best flips", "[data-flips-words]"),
    ):
        held.open(step)
        if tab:
            page.get_by_role("tab", name=tab, exact=True).tap()
        expect(page.locator(there).first).to_be_visible()
        assert faults(page) == [], step
