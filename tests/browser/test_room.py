"""Room: moved, changed and warmed; what is told at once."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import by_requests, pick

SIDEWAYS, ALONG = ("x", "y", 40 * 0.28), ("y", "x", -30 * 0.28)
WALLS = {"left": SIDEWAYS, "right": SIDEWAYS, "back": ALONG, "front": ALONG}
"""Along which a length lies, across, how far it goes with a kit that goes 40 right and 30 up."""


@pytest.fixture
def in_a_room(someone):
    page = someone.open("room")
    page.get_by_role("button", name="Draw a box").click()
    expect(page.locator("[data-kit]")).to_be_visible()
    someone.saved()
    return someone


def test_the_kit_is_moved_and_turned_by_keyboard_and_the_walls_follow(in_a_room):
    page = in_a_room.page
    expect(page.locator("[data-wall=back]")).to_have_text("200.0 cm")
    rough = page.locator("[data-rough]").inner_text()
    page.locator("[data-kit]").focus()
    for _ in range(5):
        page.keyboard.press("Shift+ArrowUp")
    page.keyboard.press("PageUp")
    expect(page.locator("[data-wall=back]")).to_have_text("250.0 cm")
    expect(page.locator("[data-wall=front]")).to_have_text("350.0 cm")
    expect(page.locator("[data-rough]")).not_to_have_text(rough)
    in_a_room.saved()
    room = in_a_room.doc()["room"]
    assert room["kit_y_m"] == pytest.approx(2.5)
    assert room["kit_turn_rad"] == pytest.approx(0.0873, abs=1e-3)


def test_the_kit_is_dragged(in_a_room):
    page = in_a_room.page
    box = page.locator("[data-kit] circle").first.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=5)
    page.mouse.up()
    expect(page.locator("[data-wall=left]")).not_to_have_text("240.0 cm")
    in_a_room.saved()
    assert in_a_room.doc()["room"]["kit_x_m"] > 2.5


def dragged(page, what, dx, dy):
    box = page.locator(what).bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx, y + dy, steps=6)


def test_the_kit_turns_with_its_handle_and_all_goes_with_it(in_a_room):
    """Seen from above, pulled to the right it turns clockwise: less by the angle of the maths."""
    page = in_a_room.page
    away = page.evaluate(ABOUT_THE_SNARE)
    dragged(page, "[data-turn] circle >> nth=0", 30, 0)
    assert page.evaluate(ABOUT_THE_SNARE) != pytest.approx(away, abs=5)  # the overheads turn too
    page.mouse.up()
    in_a_room.saved()
    assert in_a_room.doc()["room"]["kit_turn_rad"] == pytest.approx(-0.3, abs=0.15)
    away = page.evaluate(ABOUT_THE_SNARE)
    for dx, dy in ((40, -20), (-25, 15)):  # the second before the first can be kept
        dragged(page, "[data-kit] circle >> nth=0", dx, dy)
        assert page.evaluate(ABOUT_THE_SNARE) == pytest.approx(away, abs=1.5)
        page.mouse.up()
    in_a_room.saved()
    page.wait_for_timeout(300)
    assert page.evaluate(ABOUT_THE_SNARE) == pytest.approx(away, abs=1.5)
    assert in_a_room.doc()["room"]["kit_turn_rad"] == pytest.approx(-0.3, abs=0.15)


# How far the name of the left overhead is from the snare's handle, pixels.
ABOUT_THE_SNARE = """() => {
  const middle = (e) => {
    const { x, y, width, height } = e.getBoundingClientRect();
    return [x + width / 2, y + height / 2];
  };
  const [x, y] = middle(document.querySelector('[data-kit] circle'));
  const name = [...document.querySelectorAll('svg text')].find((t) => t.textContent === 'OL');
  const [u, v] = middle(name);
  return [u - x, v - y];
}"""


def test_walls_and_low_end_are_those_under_the_hand_and_a_room_mic_stays(in_a_room):
    page = in_a_room.page
    doc = in_a_room.get(f"/layouts/{in_a_room.layout}").json()
    over = next(m for m in doc["doc"]["mics"] if m["id"] == "OR")
    doc["doc"]["mics"].append(
        {**over, "id": "RM", "name": "Room", "role": "room", "stand": None,
         "position_m": [0.4, 2.6, 1.2]}
    )  # fmt: skip
    body = {"version": doc["version"], "doc": doc["doc"], "what": "a room mic"}
    token = next(c["value"] for c in in_a_room.context.cookies() if c["name"] == "csrftoken")
    in_a_room.context.request.put(
        f"{in_a_room.url}/api/layouts/{in_a_room.layout}",
        data=body,
        headers={"X-CSRFToken": token, "Referer": in_a_room.url},
    )
    by_requests(in_a_room)
    page = in_a_room.open("room")
    mic = page.locator("svg text", has_text="RM")
    expect(page.locator("[data-wall=left]")).to_have_text("240.0 cm")
    rough = page.locator("[data-rough]").inner_text()
    stood, box = mic.bounding_box(), page.locator("[data-kit] circle").first.bounding_box()
    lengths = {w: page.locator(f"[data-wall={w}]").bounding_box() for w in WALLS}
    page.route("**/api/edit", lambda route: route.abort())  # nothing is taken while it is held
    page.route("**/api/room/board", lambda route: route.abort())
    page.route("**/api/room/here", lambda route: route.abort())
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"], steps=4)
    expect(page.locator("[data-wall]")).to_have_count(0)  # rather none than those of before
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, steps=4)
    page.unroute("**/api/room/here")
    page.mouse.move(box["x"] + box["width"] / 2 + 5, box["y"] + box["height"] / 2, steps=2)
    expect(page.locator("[data-wall]")).to_have_count(4)
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x + 40, y - 30, steps=8)
    now = page.locator("[data-kit] circle").first
    expect(page.locator("[data-wall=left]")).not_to_have_text("240.0 cm")
    expect(page.locator("[data-rough]")).not_to_have_text(rough)
    assert now.bounding_box()["x"] == pytest.approx(box["x"] + 40, abs=1.5)
    assert mic.bounding_box() == pytest.approx(stood, abs=0.5)
    page.wait_for_timeout(300)
    told = page.locator("[data-wall]").all_text_contents()
    # Each length stands on its line, at the same part of the way to its wall, which has not moved.
    for way, was in lengths.items():
        at = page.locator(f"[data-wall={way}]").bounding_box()
        side, across, gone = WALLS[way]
        size = {"x": "width", "y": "height"}
        middle = {k: at[k] + at[size[k]] / 2 for k in at if k in size}
        assert middle[side] == pytest.approx(was[side] + was[size[side]] / 2 + gone, abs=2)
        assert middle[across] == pytest.approx(y - 30 if across == "y" else x + 40, abs=2)
    page.unroute_all()
    page.mouse.up()
    in_a_room.saved()
    expect(page.locator("[data-wall=left]")).to_have_text(told[0])
    assert page.locator("[data-wall]").all_text_contents() == told
    assert mic.bounding_box() == pytest.approx(stood, abs=1.0)
    page.reload()
    expect(page.locator("[data-wall=left]")).to_have_text(told[0])


def test_ten_degrees_more_by_keyboard_and_what_they_change(someone):
    page = someone.open("place")
    page.locator('[data-mic="OR"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    off = page.locator('[data-off="kick"]')
    expect(off).to_contain_text("21.0 cm further, 0.61 ms")
    air = page.get_by_role("button", name="Change the air")
    expect(air).to_contain_text("20.0 °C 343.2 m/s")
    air.focus()
    page.keyboard.press("Enter")
    field = page.get_by_label("Temperature of the room")
    expect(field).to_be_visible()
    field.focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("30")
    page.keyboard.press("Enter")
    expect(air).to_contain_text("30.0 °C 349.0 m/s")
    expect(off).to_contain_text("21.0 cm further, 0.60 ms")
    said = page.get_by_role("status").filter(has_text="Sound goes")
    expect(said).to_contain_text("Sound goes 349.0 m/s instead of 343.2.")
    someone.saved()
    assert someone.doc()["air"] == {"temperature_c": 30.0, "humidity_pct": None}


def test_humidity_is_counted_and_refused_where_it_cannot_be(someone):
    page = someone.open("place")
    air = page.get_by_role("button", name="Change the air")
    air.click()
    page.get_by_label("Relative humidity").fill("50")
    page.get_by_role("button", name="Take it").click()
    expect(air).to_contain_text("344.0 m/s")  # Cramer 1993: 343.99 at 20 °C and 50 %
    air.click()
    page.get_by_label("Temperature of the room").fill("41")
    page.get_by_role("button", name="Take it").click()
    expect(page.get_by_role("alert")).to_contain_text("at 41 °C leave it empty")


def test_a_ceiling_under_the_overheads_is_told_at_once(in_a_room):
    page = in_a_room.page
    page.get_by_label("Ceiling, cm").first.fill("160")
    page.keyboard.press("Enter")
    name = "Undo: Changed the room; OL, OR are no longer inside or clear"
    expect(page.get_by_role("button", name=name)).to_be_enabled()
    in_a_room.saved()
    page.get_by_role("link", name="Place").click()
    for mic in ("OL", "OR"):
        expect(page.locator(f'[data-blocked="{mic}"]')).to_contain_text("above the ceiling")
    page.locator('[data-mic="OL"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Mic OL").click()
    expect(page.get_by_role("alert").first).to_contain_text("above the ceiling")


def test_a_ceiling_typed_in_the_wrong_unit_is_refused_and_nothing_is_lost(in_a_room):
    page = in_a_room.page
    before = in_a_room.doc()
    page.get_by_label("Ceiling, cm").first.fill("33000")
    page.keyboard.press("Enter")
    said = page.get_by_role("status").filter(has_text="height_m")
    expect(said).to_contain_text("expected at most 30, got 330")
    assert in_a_room.doc() == before


def test_an_l_a_hallway_and_materials_change_what_the_room_does(in_a_room):
    page = in_a_room.page
    decay = page.locator('[data-figure^="decay"]')
    before = decay.inner_text()
    pick(page.get_by_label("Material of the ceiling"), "ceiling tiles")
    expect(decay).not_to_have_text(before)
    expect(page.locator("[data-room-words]")).to_contain_text("Live: the room mics")
    pick(page.get_by_label("Shape"), "front right")
    expect(page.locator("[data-wall=front]")).to_have_text("400.0 cm")
    page.get_by_role("tab", name="Modes").click()
    expect(page.get_by_role("table", name="Modes of the room")).to_contain_text("plan")
    page.get_by_text("What opens off it (0)").click()
    page.get_by_role("button", name="Add a hallway, bathroom, stairwell").click()
    expect(page.get_by_text("What opens off it (1)")).to_be_visible()
    in_a_room.saved()
    room = in_a_room.doc()["room"]
    assert room["notch"]["corner"] == "front right"
    assert room["surfaces"]["ceiling"] == "ceiling tiles"
    assert room["spaces"][0]["name"] == "Hallway"


def test_spots_tried_by_ear_and_the_way_back(in_a_room):
    page = in_a_room.page
    page.get_by_role("tab", name="Spots tried").click()
    page.get_by_role("radio", name="4").click()
    page.get_by_label("In words").fill("Even, a little dry")
    page.keyboard.press("Enter")
    row = page.locator("[data-spot]")
    expect(row).to_contain_text("240.0 cm / 200.0 cm")
    page.get_by_label("Snare from back, cm").fill("300")
    page.keyboard.press("Enter")
    expect(page.locator("[data-wall=back]")).to_have_text("300.0 cm")
    row.get_by_role("button", name="go there").click()
    expect(page.locator("[data-wall=back]")).to_have_text("200.0 cm")


def test_a_room_is_kept_for_next_time(in_a_room):
    page = in_a_room.page
    expect(page.locator('[data-figure^="decay"]')).to_be_visible()  # what comes moves the button
    page.get_by_role("button", name="Keep for next time").click()
    expect(page.get_by_text("Live room is kept for next time", exact=True)).to_be_visible()
    starts = in_a_room.get("/sessions/starts").json()
    assert [r["name"] for r in starts["rooms"]] == ["Live room"]


def test_a_mic_in_the_hallway_is_clear_and_one_in_its_wall_is_not(in_a_room):
    page = in_a_room.page
    page.get_by_text("What opens off it (0)").click()
    page.get_by_role("button", name="Add a hallway, bathroom, stairwell").click()
    expect(page.get_by_text("What opens off it (1)")).to_be_visible()
    page.get_by_text("Doors (0)").click()
    page.get_by_role("button", name="Add a door").click()
    expect(page.get_by_text("Doors (1)")).to_be_visible()
    pick(page.get_by_label("Wall", exact=True), "right")
    in_a_room.saved()
    page.get_by_role("link", name="Place").click()
    page.locator('[data-mic="OR"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Mic OR").click()
    # The room is 500 across with the snare at 240: the hallway begins 20 beyond the wall.
    for right, words in (("300", ""), ("270", "behind a wall"), ("100", "")):
        page.get_by_label("Right, cm").fill(right)
        page.keyboard.press("Enter")
        alert = page.get_by_role("alert").filter(has_text="This spot")
        if words:
            expect(alert).to_contain_text(words)
        else:
            expect(alert).to_have_count(0)
        in_a_room.saved()


def test_a_mic_behind_a_wall_is_told_where_the_kit_is_moved(in_a_room):
    page = in_a_room.page
    told = page.get_by_role("alert").filter(has_text="behind a wall")
    for left, words in (("30", "OL: This spot is outside the room, behind a wall."), ("240", "")):
        page.get_by_label("Snare from left, cm").fill(left)
        page.keyboard.press("Enter")
        if words:
            expect(told).to_have_text(words)
        else:
            expect(told).to_have_count(0)
        in_a_room.saved()


def test_the_rug_counts_for_the_decay(in_a_room):
    page = in_a_room.page
    page.get_by_role("tab", name="Decay").click()
    table = page.get_by_role("table", name="Decay by octave band, seconds")
    before = table.inner_text()
    page.get_by_text("Rug under the kit").click()
    page.get_by_role("button", name="Take the rug away").click()
    expect(page.get_by_role("button", name="Lay a rug under the kit")).to_be_visible()
    expect(table).not_to_have_text(before)


# In the page: a hand that moves with every frame until something is there; how many that were.
MOVED_ON = """([x, y, awaited]) => new Promise((done) => {
  let n = 0;
  const move = () => {
    const at = { clientX: x + 20 + (n++ % 40), clientY: y };
    window.dispatchEvent(new PointerEvent('pointermove', { pointerId: 1, buttons: 1, ...at }));
    if (n > 200 || document.body.textContent.includes(awaited)) return done(n);
    requestAnimationFrame(move);
  };
  move();
})"""


def test_what_comes_after_the_plan_comes_under_a_hand_as_well(in_a_room):
    """On a slow machine the kit is taken before the panel is there, and moved on and on."""
    page = in_a_room.page
    box = page.locator("[data-kit] circle").first.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    slowed = page.context.new_cdp_session(page)
    slowed.send("Emulation.setCPUThrottlingRate", {"rate": 6})
    page.reload()
    page.locator("[data-kit]").wait_for(state="attached")
    page.mouse.down()
    frames = page.evaluate(MOVED_ON, [x, y, "Turned, degrees"])
    slowed.send("Emulation.setCPUThrottlingRate", {"rate": 1})
    page.mouse.up()
    in_a_room.saved()
    assert frames < 24  # a few pieces, each in its turn; begun anew with each, some fifty
