"""What is near a mic: its own drum, the wires under it, the gobos round it."""

import math
import re

from playwright.sync_api import expect

from tests.browser.conftest import until


def gobos(person):
    """Those that are saved; the room itself may be on its way still."""
    return (person.doc()["room"] or {"gobos": []})["gobos"]


def test_a_close_mic_nearer_and_further_pattern_by_pattern(someone):
    page = someone.open()
    mic = page.locator('[data-mic="FT"][role=button]').first
    mic.focus()
    page.keyboard.press("Enter")
    page.get_by_text("Nearer and further").click()
    curves = page.locator("[data-near]")
    expect(curves.get_by_role("img")).to_have_attribute(
        "aria-label", re.compile(r"low end \+4\.\d dB, attack 0\.0 dB, neighbours −1\d")
    )
    expect(page.get_by_text("Its nearness swells the low end by 4.")).to_be_visible()
    cut = page.get_by_label("Low cut, Hz")
    cut.fill("5")
    cut.press("Enter")
    expect(page.get_by_text("10 to 500, or empty")).to_be_visible()
    cut.fill("150")
    cut.press("Enter")
    expect(page.get_by_text(re.compile("^The low cut takes"))).to_be_visible()
    until(page, lambda: someone.track("FT")["low_cut_hz"] == 150)


def test_snare_wires_are_turned_by_keys_and_kept(someone):
    page = someone.open("kit")
    page.locator('[data-part="snare"]').first.focus()
    page.keyboard.press("Enter")
    wires = page.get_by_role("slider", name="Wires of Snare")
    wires.focus()
    for _ in range(3):
        page.keyboard.press("ArrowUp")
    expect(wires).to_have_attribute("aria-valuenow", "15")

    def turned():
        snare = next(d for d in someone.doc()["kit"]["drums"] if d["id"] == "snare")
        return abs((snare["wires_rad"] or 0) - math.radians(15)) < 1e-6

    until(page, turned)
    expect(page.get_by_label("Wires run, °")).to_have_value("15")


def test_a_card_of_foam_is_put_up_dragged_and_taken_away(someone):
    page = someone.open("room")
    if page.get_by_role("button", name="Draw a box").count():
        page.get_by_role("button", name="Draw a box").click()
    page.get_by_text(re.compile(r"^Gobos \(")).click()
    page.get_by_role("button", name="Add a foam card").click()
    card = page.get_by_role("button", name=re.compile("^Foam 1,"))
    expect(card).to_be_visible()
    until(page, lambda: gobos(someone))
    before = gobos(someone)[0]
    assert (before["width_m"], before["from_m"]) == (0.25, 0.68)
    card.focus()
    for _ in range(3):  # pressed fast, each goes on from the last
        page.keyboard.press("ArrowRight")
    until(page, lambda: abs(gobos(someone)[0]["x_m"] - before["x_m"] - 0.15) < 1e-6)
    page.keyboard.press("PageUp")
    turned = before["turn_rad"] + math.pi / 36
    until(page, lambda: abs(gobos(someone)[0]["turn_rad"] - turned) < 1e-6)
    page.get_by_role("button", name="Remove Foam 1").click()
    until(page, lambda: gobos(someone) == [])
