"""Place, by hand and by keyboard: what is seen is what is stored."""

import math
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import arrive, pick

SNARE, KICK = (0.0, 0.0, 0.66), (0.28, 0.25, 0.28)


def distance(mic, to):
    return math.dist(mic["position_m"], to)


def shown(page, which):
    return page.locator(f'[data-tape="{which}"]')


def middle(page, mic, view="above"):
    """The capsule of a mic on the screen: the centre of its wide invisible grip.

    Under a hand it is a copy on a sheet of its own.
    """
    drawn = f'[data-mic="{mic}"][data-view="{view}"] > circle'
    page.locator(drawn).first.wait_for(state="attached")
    box = page.evaluate(
        "([held, drawn]) => (document.querySelector(held) ?? document.querySelector(drawn))"
        ".getBoundingClientRect().toJSON()",
        [f'[data-hand="{mic}"][data-view="{view}"] > g > circle', drawn],
    )
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def drag(page, mic, dx, dy, view="above", steps=12):
    x, y = middle(page, mic, view)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx, y + dy, steps=steps)
    page.mouse.up()


def test_dragging_an_overhead_changes_the_numbers_and_is_kept(someone):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    before = someone.mic("OR")
    x, y = middle(page, "OR")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y + 20, steps=6)
    expect(shown(page, "snare-b")).not_to_have_text("127.1")  # while the hand still holds it
    assert someone.mic("OR") == before  # nothing is saved until it is let go
    page.mouse.move(x + 60, y + 40, steps=6)
    page.mouse.up()
    someone.saved()
    after = someone.mic("OR")
    assert after["position_m"][0] > before["position_m"][0] + 0.1
    assert after["position_m"][1] < before["position_m"][1] - 0.05
    assert after["position_m"][2] == before["position_m"][2]
    expect(shown(page, "snare-b")).to_have_text(f"{distance(after, SNARE) * 100:.1f}")
    expect(shown(page, "kick-b")).to_have_text(f"{distance(after, KICK) * 100:.1f}")
    page.reload()
    expect(shown(page, "snare-b")).to_have_text(f"{distance(after, SNARE) * 100:.1f}")


def test_dragging_in_height_moves_the_height(someone):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    before = someone.mic("OR")
    drag(page, "OR", 0, 30, view="along")
    someone.saved()
    after = someone.mic("OR")
    assert after["position_m"][2] < before["position_m"][2] - 0.1
    assert after["position_m"][1] == before["position_m"][1]


def test_swinging_onto_the_ring_makes_both_tapes_equal(someone):
    page = someone.open()
    expect(page.locator('[data-off="kick"]')).to_contain_text("OL 21.0 cm further")
    expect(page.locator('[data-verdict-of="kick"]')).to_have_text("late")
    page.get_by_role("button", name="Swing OR onto the ring").click()
    expect(page.get_by_role("button", name="OR is on the ring")).to_be_disabled()
    for drum in ("snare", "kick"):
        expect(page.locator(f'[data-off="{drum}"]')).to_have_text("equal by tape")
    someone.saved()
    left, right = someone.mic("OL"), someone.mic("OR")
    assert abs(distance(left, SNARE) - distance(right, SNARE)) < 2e-4
    assert abs(distance(left, KICK) - distance(right, KICK)) < 2e-4
    # Both flags stand on one mark of the kick tape.
    flags = [page.locator(f'[data-flag="0-{m}"] > text') for m in ("OL", "OR")]
    left, right = (f["x"] + f["width"] / 2 for f in (flag.bounding_box() for flag in flags))
    assert abs(left - right) < 0.2


def test_equal_height_keeps_the_height(someone):
    page = someone.open()
    page.get_by_role("button", name="Equal height").click()
    expect(page.locator('[data-off="kick"]')).to_have_text("equal by tape")
    someone.saved()
    assert someone.mic("OR")["position_m"][2] == pytest.approx(1.74)


def test_undo_and_redo_survive_a_reload(someone):
    page = someone.open()
    page.get_by_role("button", name="Swing OR onto the ring").click()
    expect(page.locator('[data-off="kick"]')).to_have_text("equal by tape")
    someone.saved()
    page.reload()
    someone.saved()
    page.keyboard.press("Control+z")
    expect(page.locator('[data-off="kick"]')).to_contain_text("21.0 cm further")
    someone.saved()
    page.reload()
    page.get_by_role("button", name="Redo: Swung OR onto the ring").click()
    expect(page.locator('[data-off="kick"]')).to_have_text("equal by tape")


def test_the_keyboard_alone_moves_selects_and_aims(someone):
    page = someone.open()
    before = someone.mic("FT")
    page.locator('[data-mic="FT"][data-view="above"]').focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowUp")
    page.keyboard.press("Alt+ArrowRight")
    page.keyboard.press("PageUp")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Floor tom", exact=True)).to_be_visible()
    someone.saved()
    after = someone.mic("FT")
    moved = [b - a for a, b in zip(before["position_m"], after["position_m"], strict=True)]
    assert moved == pytest.approx([0.011, 0.10, 0.01], abs=1e-6)
    page.locator('[data-aim="FT"]').first.focus()
    page.keyboard.press("ArrowLeft")
    someone.saved()
    a, b = after["aim"], someone.mic("FT")["aim"]
    turn = math.degrees(math.atan2(b[1], b[0]) - math.atan2(a[1], a[0]))
    assert turn == pytest.approx(5, abs=1e-3)
    assert b[2] == pytest.approx(a[2], abs=1e-6)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name=re.compile("Redo: Aimed FT"))).to_be_enabled()


def test_every_control_of_the_pair_is_reached_by_tab(someone):
    page = someone.open()
    button = page.get_by_role("button", name="Swing OR onto the ring")
    expect(button).to_be_enabled()
    for _ in range(90):
        page.keyboard.press("Tab")
        if button.evaluate("e => e === document.activeElement"):
            break
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="OR is on the ring")).to_be_visible()


def test_aim_handle_turns_the_mic(someone):
    page = someone.open()
    page.locator('[data-mic="KO"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    handle = page.locator('[data-aim="KO"] > circle').first.bounding_box()
    x, y = handle["x"] + 5, handle["y"] + 5
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y - 10, steps=5)
    page.mouse.up()
    someone.saved()
    aim = someone.mic("KO")["aim"]
    assert aim[0] > 0.3
    assert math.hypot(*aim) == pytest.approx(1, abs=1e-6)


def test_aim_is_said_in_words_and_set_by_naming_a_drum(someone):
    page = someone.open()
    page.locator('[data-mic="FT"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    expect(page.locator("[data-aim-words]")).to_have_text("at the floor tom")
    pick(page.get_by_label("Aim at"), "snare")
    expect(page.locator("[data-aim-words]")).to_have_text("at the snare")
    someone.saved()
    mic = someone.mic("FT")
    away = [c - p for c, p in zip(SNARE, mic["position_m"], strict=True)]
    size = math.hypot(*away)
    assert mic["aim"] == pytest.approx([x / size for x in away], abs=1e-6)


def test_typed_distances_place_the_mic_or_say_why_not(someone):
    page = someone.open()
    page.locator('[data-mic="OR"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Mic OR").click()
    form = page.get_by_role("form", name="Place OR by tape")
    form.get_by_label("Snare").fill("120")
    form.get_by_label("Kick").fill("152")
    form.get_by_label("High").fill("168")
    form.get_by_role("button", name="Put it there").click()
    expect(page.locator('[data-mic="OR"][data-view="above"]')).to_have_attribute(
        "aria-label", re.compile("120.0 cm from the snare, 152.0 cm from the kick")
    )
    someone.saved()
    assert distance(someone.mic("OR"), KICK) == pytest.approx(1.52, abs=2e-4)
    form.get_by_label("Snare").fill("10")
    form.get_by_role("button", name="Put it there").click()
    expect(form.get_by_role("alert")).to_contain_text("No spot keeps both distances")


def test_adding_copying_renaming_and_taking_away_a_mic(someone):
    page = someone.open()
    page.get_by_role("button", name="Add a mic").click()
    expect(page.get_by_role("heading", name="New mic")).to_be_visible()
    page.get_by_label("Short name").fill("FM")
    page.get_by_label("Short name").press("Enter")
    expect(page.locator("[data-mic='FM']").first).to_be_visible()
    someone.saved()
    pick(page.get_by_label("Pattern"), "figure-8")
    page.get_by_role("button", name="Copy", exact=True).click()
    someone.saved()
    ids = [m["id"] for m in someone.doc()["mics"]]
    assert ids[-2:] == ["FM", "FM1"]
    assert someone.mic("FM1")["pattern"] == "figure-8"
    page.get_by_role("button", name="Take away").click()
    expect(page.get_by_text("FM1 is taken away", exact=True)).to_be_visible()
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(page.locator('[data-mic="FM1"][data-view="above"]')).to_be_visible()
    page.locator('[data-mic="FM"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Mic FM").click()
    page.get_by_label("Short name").fill("OL")
    page.get_by_label("Short name").press("Enter")
    expect(page.get_by_text("Not taken: one word, not taken")).to_be_visible()


def test_a_flag_lights_its_mic_everywhere(someone):
    page = someone.open()
    marks = page.locator('[data-mic="HH"]')
    expect(marks.first).to_have_attribute("aria-pressed", "false")
    page.locator('[data-flag="0-HH"] > rect').hover()
    for n in range(2):
        expect(marks.nth(n)).to_have_attribute("aria-pressed", "true")
    other = page.locator('[data-flag="1-HH"] > rect')
    assert other.get_attribute("fill") == "var(--cymbal)"


def test_the_side_view_moves_front_and_height(someone):
    page = someone.open()
    page.get_by_role("button", name="Side", exact=True).click()
    expect(page.locator('[data-mic="OR"][data-view="side"]')).to_be_visible()
    before = someone.mic("OR")
    drag(page, "OR", 20, 20, view="side")
    someone.saved()
    after = someone.mic("OR")
    assert after["position_m"][0] == before["position_m"][0]
    assert after["position_m"][1] > before["position_m"][1] + 0.03
    assert after["position_m"][2] < before["position_m"][2] - 0.03


def test_the_other_mic_can_be_the_one_that_moves(someone):
    page = someone.open()
    expect(shown(page, "kick-a")).to_have_text("170.5")
    page.get_by_role("button", name="Let OL move instead of OR").click()
    expect(page.get_by_text("OR stands, OL moves")).to_be_visible()
    expect(shown(page, "kick-a")).to_have_text("149.5")
    expect(shown(page, "kick-b")).to_have_text("170.5")
    expect(page.locator('[data-off="kick"]')).to_contain_text("OL 21.0 cm further")
    before = someone.mic("OR")
    page.get_by_role("button", name="Swing OL onto the ring").click()
    expect(page.locator('[data-off="kick"]')).to_have_text("equal by tape")
    someone.saved()
    assert someone.mic("OR") == before
    assert distance(someone.mic("OL"), KICK) == pytest.approx(distance(before, KICK), abs=2e-4)


def test_two_mics_chosen_by_hand_open_as_a_pair(someone):
    page = someone.open()
    page.locator('[data-mic="KI"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.locator('[data-mic="KO"][data-view="above"]').focus()
    page.keyboard.press("Shift+Enter")
    expect(page.get_by_text("two mics; KI stands, KO moves")).to_be_visible()
    page.get_by_role("button", name="Make it a stereo pair").click()
    expect(page.get_by_text("KI and KO; KI stands, KO moves")).to_be_visible()


def test_a_mic_in_the_drummers_place_is_said_at_once(someone):
    page = someone.open()
    page.locator('[data-mic="FT"][data-view="above"]').focus()
    for _ in range(5):
        page.keyboard.press("Shift+ArrowLeft")
    for _ in range(6):
        page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("where the drummer sits")


def test_feet_and_inches_everywhere_and_back(someone):
    page = someone.open()
    page.get_by_role("radio", name="ft-in").click()
    expect(shown(page, "snare-a")).to_have_text("4′ 2″")
    expect(page.locator('[data-off="kick"]')).to_contain_text("8¼″ further")
    page.get_by_role("link", name="Sheet").click()
    sheet = page.frame_locator("iframe")
    expect(sheet.get_by_role("row", name=re.compile("Left overhead"))).to_contain_text("4′ 2″")
    page.get_by_role("link", name="Place").click()
    page.locator('[data-mic="OL"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Mic OL").click()
    page.get_by_label("Height").fill("5' 6 1/2\"")
    page.get_by_label("Height").press("Enter")
    someone.saved()
    assert someone.mic("OL")["position_m"][2] == pytest.approx(66.5 * 0.0254, abs=1e-4)
    page.reload()
    expect(page.get_by_role("radio", name="ft-in")).to_be_checked()


def test_warmer_air_brings_every_arrival_forward(someone):
    page = someone.open()
    expect(page.locator('[data-off="kick"]')).to_contain_text("0.61 ms")
    page.get_by_role("button", name=re.compile("air: 20.0 °C")).click()
    page.get_by_label("Temperature of the room, °C").fill("35")
    page.get_by_role("button", name="Take it").click()
    expect(page.get_by_role("button", name=re.compile("air: 35.0 °C"))).to_contain_text("351.9 m/s")
    expect(page.locator('[data-off="kick"]')).to_contain_text("0.60 ms")
    page.get_by_role("button", name=re.compile("air: 35.0 °C")).click()
    pick(page.get_by_label("Session rate"), "96000")
    page.get_by_role("button", name="Take it").click()
    page.get_by_role("link", name="Pairs").click()
    page.locator('[data-pair="OL-OR"]').click()
    # 0.210 m at 351.9 m/s are 0.597 ms, 57.3 samples at 96 kHz.
    pair = page.get_by_role("region", name="Pair OL with OR")
    expect(pair.get_by_text("57.3", exact=True)).to_be_visible()
    expect(pair.get_by_text("Delay OR by 57 samples after recording.")).to_be_visible()


def test_a_left_handed_kit_is_drawn_mirrored(server, chromium):
    person = arrive(server, chromium, start="turned pair", kit="left-handed five-piece")
    page = person.open()
    snare, kick = (middle(page, m)[0] for m in ("ST", "KI"))
    assert kick < snare
    page.get_by_role("button", name="Audience view").click()
    snare, kick = (middle(page, m)[0] for m in ("ST", "KI"))
    assert kick > snare
    assert person.faults == []
    person.context.close()


def test_the_table_says_what_the_chart_shows(someone):
    page = someone.open()
    page.get_by_role("tab", name="Table").click()
    row = page.get_by_role("row", name=re.compile("Left overhead"))
    expect(row).to_contain_text("127.1")
    expect(row).to_contain_text("170.5")


def test_a_closed_list_takes_letters_and_an_open_one_arrows(someone):
    page = someone.open()
    drum = page.get_by_label("Drum of the sum")
    expect(drum).to_have_text("Kick")
    drum.focus()
    page.keyboard.press("s")
    expect(drum).to_have_text("Snare")
    page.keyboard.press("ArrowDown")
    option = page.get_by_role("option")
    expect(option.filter(has_text="Snare")).to_be_focused()
    page.keyboard.press("ArrowDown")
    # The list moves its focus one turn after the key; Enter takes what has the focus.
    expect(option.filter(has_text="Rack 1")).to_be_focused()
    page.keyboard.press("Enter")
    expect(option).to_have_count(0)
    expect(drum).to_have_text("Rack 1")
