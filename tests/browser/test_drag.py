"""The drag: the mic goes with the pointer whatever the network does, and numbers follow it."""

import json
import math
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import by_requests, held_back, until
from tests.browser.test_place import middle, shown


@pytest.fixture
def held(someone):
    """A page with the right overhead under the hand, and a way to move it on by pixels."""
    page = someone.open()
    go = taken_hold_of(page)
    yield page, go
    page.mouse.up()


@pytest.fixture
def held_asking(someone):
    """The same in a browser that asks by requests."""
    by_requests(someone)
    page = someone.open()
    go = taken_hold_of(page)
    yield page, go
    page.mouse.up()


def taken_hold_of(page):
    expect(shown(page, "snare-b")).to_have_text("127.1")
    x, y = middle(page, "OR")
    page.mouse.move(x, y)
    page.mouse.down()

    def go(dx, dy):
        page.mouse.move(x + dx, y + dy, steps=4)
        page.wait_for_timeout(60)
        for _ in range(3):  # the view under the hand, the other one, the tapes
            drawn(page)

    return go


FLAGS = """() => Object.fromEntries(
  [...document.querySelectorAll('[data-flag], [data-hand-flag]')]
    .filter((f) => f.style.opacity !== '0')
    .map((f) => [f.dataset.flag ?? f.dataset.handFlag,
      f.querySelector('text').getBoundingClientRect().x]))"""


# Where lines begin and end on the screen, whatever they were turned and stretched by. Found and
# read in one go: a hand that rests has them made anew.
ENDS = """(chart, which) => [...chart.querySelectorAll(which)].map((l) =>
  [0, l.getTotalLength()].map((at) => {
    const end = l.getPointAtLength(at).matrixTransform(l.getScreenCTM());
    return [end.x, end.y];
  }))"""


# How many times longer lines are shown than they are drawn.
STRETCHED = """(chart, which) => [...chart.querySelectorAll(which)].map((l) => {
  const { a, b } = l.getScreenCTM();
  return Math.hypot(a, b);
})"""


def told(page):
    """What the panel says of the open pair, and where the flags of both tapes are seen."""
    said = page.locator("aside section").filter(has_not_text="All pairs").all_inner_texts()
    assert any("First dip" in text for text in said)
    return said, page.evaluate(FLAGS)


def worded(asked):
    """Whether words were asked for last, and for the place for which numbers were."""
    numbers = [a for a in asked if not a["words"]]
    return asked[-1]["words"] and asked[-1]["position_m"] == numbers[-1]["position_m"]


def where(board, mic):
    """Where a mic is in the layout of which a whole board was asked."""
    mics = board.request.post_data_json["layout"]["mics"]
    return next(m["position_m"] for m in mics if m["id"] == mic)


def drawn(page):
    """Wait until what is on its way to the screen is there."""
    page.evaluate("() => new Promise((ok) => requestAnimationFrame(() => setTimeout(ok, 0)))")


def test_views_lines_and_numbers_go_with_the_hand_and_stay_where_it_lets_go(someone, held):
    page, go = held
    assert page.evaluate("crossOriginIsolated")  # numbers come by shared memory
    start, front = middle(page, "OR"), middle(page, "OR", "along")
    was = shown(page, "snare-b").inner_text()
    go(60, -20)
    assert middle(page, "OR") == pytest.approx((start[0] + 60, start[1] - 20), abs=1.5)
    assert middle(page, "OR", "along")[0] > front[0] + 20
    assert middle(page, "OR", "along")[1] == pytest.approx(front[1], abs=1.5)
    for view, facing in (("above", "From above"), ("along", "From behind")):
        chart = page.locator(f'section[aria-label="{facing}"]')
        bars, lines = (chart.evaluate(ENDS, w) for w in ("[data-bar] line", '[data-from="OR"]'))
        assert len(bars) == len(lines) == 2
        for bar, line in zip(bars, lines, strict=True):
            assert bar[0] == pytest.approx(middle(page, "OR", view), abs=1)
            assert bar[1] == pytest.approx(line[1], abs=0.5)  # the drum stands
            assert math.dist(bar[0], line[0]) > 20
        dashed = chart.evaluate(STRETCHED, "[data-bar] line[stroke-dasharray]")
        assert len(dashed) == 1
        assert max(dashed[0], 1 / dashed[0]) < 1.21
    expect(shown(page, "snare-b")).not_to_have_text(was)
    page.wait_for_timeout(120)
    there = shown(page, "snare-b").inner_text()
    page.mouse.up()
    someone.saved()
    assert middle(page, "OR") == pytest.approx((start[0] + 60, start[1] - 20), abs=1.5)
    assert shown(page, "snare-b").inner_text() == there
    page.reload()
    expect(shown(page, "snare-b")).to_have_text(there)


def test_when_the_hand_is_gone_nothing_of_it_is_left(someone, held):
    page, go = held
    drawn(page)
    _, flags = told(page)
    go(60, -20)
    for view in ("above", "along"):
        expect(page.locator(f'[data-hand="OR"][data-view="{view}"]').first).to_be_attached()
    assert page.evaluate(FLAGS) != flags
    page.mouse.up()
    someone.saved()
    expect(page.locator("[data-hand], [data-bar]")).to_have_count(0)
    expect(page.locator("[data-mic][style], [data-from][style]")).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(shown(page, "snare-b")).to_have_text("127.1")
    someone.saved()
    drawn(page)
    assert page.evaluate(FLAGS) == pytest.approx(flags, abs=0.1)


# How many moves of each kind the page as a whole has heard of since.
MOVES_HEARD = """() => {
  window.__moves = {};
  for (const kind of ['pointerrawupdate', 'pointermove', 'mousemove'])
    document.addEventListener(kind, () => {
      window.__moves[kind] = (window.__moves[kind] ?? 0) + 1;
    });
}"""


def test_nobody_else_is_told_of_the_moves_of_a_hand(held):
    """To ask all who might hear of each of them takes time that what is held would wait for."""
    page, go = held
    page.evaluate(MOVES_HEARD)
    go(60, -20)
    expect(shown(page, "snare-b")).not_to_have_text("127.1")
    assert page.evaluate("window.__moves") == {}
    page.mouse.up()
    page.mouse.move(500, 300, steps=3)
    until(page, lambda: {"pointermove", "mousemove"} <= page.evaluate("window.__moves").keys())


def test_a_press_that_moves_nothing_leaves_everything_as_it_was(held):
    page, _ = held
    asked = []
    page.on("request", lambda r: "follow" in r.url and asked.append(r.url))
    expect(page.locator('[data-hand="OR"]').first).to_be_attached()
    start = middle(page, "OR")
    page.mouse.up()
    expect(page.locator("[data-hand], [data-bar]")).to_have_count(0)
    expect(page.locator("[data-mic][style], [data-from][style]")).to_have_count(0)
    assert middle(page, "OR") == start
    expect(shown(page, "snare-b")).to_have_text("127.1")
    assert not asked


# Where the names of the snare tape's marks and one mic's flag are seen, left to right.
ALONG = """(flag) => {
  const middle = (e) => { const { x, width } = e.getBoundingClientRect(); return x + width / 2; };
  const tape = document.querySelector(`[data-flag^="${flag.split('-')[0]}-"]`).parentElement;
  const marks = [...tape.querySelectorAll('g[aria-hidden] text')]
    .flatMap((t) => (/^\\d+$/.test(t.textContent) ? [[Number(t.textContent), middle(t)]] : []));
  const held = [...document.querySelectorAll(`[data-hand-flag="${flag}"] text`)].map(middle);
  const hidden = document.querySelector(`[data-flag="${flag}"]`)?.style.opacity === '0';
  return { marks, held, hidden };
}"""


def test_tapes_that_grow_under_a_hand_leave_its_flag_in_it(held):
    page, go = held
    flag = page.locator('[data-flag$="-OR"]').first.get_attribute("data-flag")
    go(10, -3)
    before = page.evaluate(ALONG, flag)["marks"][-1][0]
    go(125, -42)
    until(page, lambda: page.evaluate(ALONG, flag)["marks"][-1][0] > before)
    page.wait_for_timeout(200)
    now = page.evaluate(ALONG, flag)
    (low, low_px), (high, high_px) = now["marks"][0], now["marks"][-1]
    cm = float(shown(page, "snare-b").inner_text())
    at = low_px + (cm - low) / (high - low) * (high_px - low_px)
    assert now["hidden"]
    assert now["held"] == pytest.approx([at], abs=1)


def test_a_mic_is_framed_for_who_comes_by_keys_alone(someone, held):
    page, go = held
    go(30, 0)
    page.mouse.up()
    someone.saved()
    framed = "() => getComputedStyle(document.activeElement).outlineStyle"
    assert page.evaluate("document.activeElement.dataset.mic") == "OR"
    assert page.evaluate(framed) == "none"
    page.keyboard.press("Shift+Tab")
    page.keyboard.press("Tab")
    assert page.evaluate("document.activeElement.dataset.mic") == "OR"
    assert page.evaluate(framed) == "solid"


def test_a_selected_mic_is_moved_by_its_capsule_and_not_turned(someone, held):
    page, go = held
    go(30, 0)
    page.mouse.up()
    someone.saved()
    x, y = middle(page, "OR")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y, steps=4)
    page.mouse.up()
    assert middle(page, "OR")[0] == pytest.approx(x + 40, abs=1.5)


def at_rest(page):
    """What is told once it has been the same for a second: words come late on a slow machine."""
    seen = []

    def same():
        seen.append(told(page))
        return len(seen) > 10 and all(s == seen[-1] for s in seen[-10:])

    until(page, same)
    return seen[-1]


def test_what_follows_the_hand_is_what_the_whole_board_says_and_no_board_it_has_left(held_asking):
    page, go = held_asking
    boards = []
    page.route("**/api/compute", lambda route: boards.append(route))  # all of them come late
    asked, answered = [], []
    page.on("request", lambda r: "follow" in r.url and asked.append(r.post_data_json))
    page.on("requestfinished", lambda r: "follow" in r.url and answered.append(r))
    go(-30, 10)
    # Of a rest on the way; of two, where the machine made the hand rest twice.
    until(page, lambda: len(boards) in (1, 2))
    go(5, 5)
    until(page, lambda: len(boards) == 2)  # of another; no more than two are asked for at a time
    go(40, 25)
    # Words may have been asked for a place just before: wait for those of where the hand rests.
    until(page, lambda: len(answered) == len(asked) and worded(asked))
    said, flags = at_rest(page)
    followed = said, pytest.approx(flags, abs=0.1)
    boards[1].continue_()
    until(page, lambda: len(boards) == 3)
    assert at_rest(page) == followed
    assert where(boards[2], "OR") == asked[-1]["position_m"]
    for late in (boards[2], boards[0]):
        with page.expect_response("**/api/compute"):
            late.continue_()
        assert at_rest(page) == followed
    page.unroute("**/api/compute")


FIELDS = """() => Object.fromEntries([...document.querySelectorAll('aside input')]
  .filter((i) => i.labels.length).map((i) => [i.labels[0].textContent, i.value]))"""


def test_the_panel_of_a_close_mic_follows_it_and_says_the_same_once_it_is_let_go_of(someone):
    page = someone.open()
    x, y = middle(page, "ST")
    page.mouse.move(x, y)
    page.mouse.down()
    follow = ("Snare, cm", "Right, cm", "Front, cm", "From rim, cm", "Clock")
    page.get_by_label("Clock").wait_for()
    before = page.evaluate(FIELDS)
    page.mouse.move(x + 30, y - 20, steps=4)
    until(page, lambda: page.evaluate(FIELDS)["Clock"] != before["Clock"])
    page.wait_for_timeout(400)  # words of the place where the hand rests
    held = page.evaluate(FIELDS)
    assert all(held[name] != before[name] for name in follow)
    assert held["Height, cm"] == before["Height, cm"]
    assert float(held["Right, cm"]) > float(before["Right, cm"])
    # What does not follow is there once the hand is gone.
    rest = page.get_by_role("button", name="Take away")
    assert not rest.is_visible()
    seen = page.evaluate_handle(f"""() => {{
      const seen = [];
      const look = () => {{
        seen.push(({FIELDS})()['From rim, cm']);
        seen.next = requestAnimationFrame(look);
      }};
      look();
      return seen;
    }}""")
    let_go = held_back(page, "**/api/edit")
    page.mouse.up()
    expect(rest).to_be_visible()
    let_go()
    someone.saved()
    page.wait_for_timeout(300)
    kept = page.evaluate(FIELDS)
    assert {name: kept[name] for name in held} == held
    assert set(seen.json_value()) == {held["From rim, cm"]}
    page.keyboard.press("Control+z")
    until(page, lambda: page.evaluate(FIELDS).items() >= before.items())


def test_what_is_typed_beside_a_mic_stays_while_it_moves(someone):
    page = someone.open()
    x, y = middle(page, "ST")
    page.mouse.click(x, y)
    page.get_by_label("Right, cm").fill("wide")
    before = page.get_by_label("Snare, cm").input_value()
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=4)
    expect(page.get_by_label("Snare, cm")).not_to_have_value(before)
    expect(page.get_by_label("Right, cm")).to_have_value("wide")
    page.mouse.up()
    someone.saved()
    expect(page.get_by_label("Right, cm")).to_have_value("wide")
    page.get_by_label("Right, cm").press("Escape")
    expect(page.get_by_label("Right, cm")).not_to_have_value("wide")


def test_on_a_slow_line_the_mic_is_with_the_hand_and_the_numbers_say_they_are_behind(held_asking):
    page, _ = held_asking
    start, was = middle(page, "OR"), shown(page, "snare-b").inner_text()
    let_go = held_back(page, "**/api/follow")
    for n in (20, 40, 60):
        page.mouse.move(start[0] + n, start[1], steps=2)
        page.evaluate("new Promise(requestAnimationFrame)")
        assert middle(page, "OR")[0] == pytest.approx(start[0] + n, abs=1.5)
    behind = page.get_by_role("status").filter(has_text="behind your hand")
    expect(behind).to_be_visible()
    page.wait_for_timeout(500)
    let_go()
    expect(behind).to_be_hidden()
    expect(shown(page, "snare-b")).not_to_have_text(was)


def test_a_server_that_does_not_know_the_layout_is_sent_it_again(held_asking):
    page, go = held_asking
    asked, forgot = [], []

    def forgetful(route):
        asked.append(json.loads(route.request.post_data))
        if "layout" not in asked[-1] and not forgot:
            forgot.append(len(asked))
            route.fulfill(status=409, content_type="application/problem+json", body="{}")
        else:
            route.continue_()

    page.route("**/api/follow", forgetful)
    go(30, 0)
    go(50, 10)
    page.wait_for_timeout(300)
    assert "layout" in asked[0]
    assert forgot
    assert any("layout" in a for a in asked[forgot[0] :])
    assert {a["name"] for a in asked} == {asked[0]["name"]}
    expect(shown(page, "snare-b")).to_have_text(re.compile(r"\d"))


def test_what_is_only_read_in_a_panel_is_asked_once_the_hand_is_gone(someone):
    page, asked = someone.open(), []
    told = "/api/techniques/standing"
    page.on("request", lambda r: asked.append(r.url) if r.url.endswith(told) else None)
    x, y = middle(page, "ST")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y - 20, steps=4)
    page.get_by_label("Clock").wait_for()
    assert asked == []
    page.mouse.up()
    someone.saved()
    until(page, lambda: asked)


def test_what_a_hand_asks_goes_over_one_line_and_by_requests_where_that_is_cut(someone):
    page, lines, asked, told = someone.page, [], [], []

    def opened(line):
        lines.append(line.url)
        line.on("framereceived", lambda message: told.append(len(message)))

    page.on("websocket", opened)
    page.on("request", lambda r: asked.append(r.url) if r.url.endswith("/api/follow") else None)
    someone.open()
    until(page, lambda: len(lines) == 1)
    page.wait_for_timeout(300)
    go = taken_hold_of(page)
    was = shown(page, "snare-b").inner_text()
    go(30, 0)
    expect(shown(page, "snare-b")).not_to_have_text(was)
    assert lines == [f"{someone.url.replace('http', 'ws')}/api/hand"]
    assert len(told) > 2
    assert asked == []
    # Signed out from another page: it is hung up on, and nothing is told by request either.
    assert someone.post("/account/sign-out", {}).ok
    until(page, lambda: go(30 + len(told) % 9, 0) or asked)
    said = len(told)
    go(60, 0)
    assert len(told) == said
    page.mouse.up()
    expect(page.get_by_role("dialog")).to_contain_text("Sign in")


def test_the_page_asks_by_itself_where_it_can_start_no_worker(someone):
    someone.page.add_init_script("delete window.Worker")
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    was, start = shown(page, "snare-b").inner_text(), middle(page, "OR")
    page.mouse.move(*start)
    page.mouse.down()
    page.mouse.move(start[0] + 50, start[1], steps=5)
    expect(shown(page, "snare-b")).not_to_have_text(was)
    page.mouse.up()
