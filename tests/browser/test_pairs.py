"""Pairs: find what is hollow, flip it, leave something on purpose."""

import re

from playwright.sync_api import expect
from ringside.places.starts import starting_layout
from ringside.techniques.taking import take


def cell(page, pair):
    return page.locator(f'[data-pair="{pair}"]')


def test_a_flip_changes_the_verdict_and_is_kept(someone):
    page = someone.open("pairs")
    page.get_by_role("tab", name="First half-waves").click()
    expect(cell(page, "ST-SB")).to_have_attribute("data-verdict", "hollow")
    cell(page, "ST-SB").click()
    expect(page.locator("[data-pair-verdict]")).to_have_attribute("data-pair-verdict", "hollow")
    expect(page.locator('[data-sign="SB"]')).to_have_text("+")
    first = page.locator("[data-remedy]").first
    expect(first).to_have_attribute("data-remedy", "flip")
    expect(first.locator("[data-effect=Better]")).to_contain_text("ST-SB")
    first.get_by_role("button", name=re.compile("^Take: Flip S[TB] at the preamp")).click()
    expect(cell(page, "ST-SB")).to_have_attribute("data-verdict", "together")
    someone.saved()
    assert someone.track("SB")["preamp_flip"] != someone.track("ST")["preamp_flip"]
    page.get_by_role("link", name="Place").click()
    expect(page.locator("[data-flipped]")).to_have_count(2)  # one plate in each view
    page.get_by_role("link", name="Pairs").click()
    page.reload()
    expect(cell(page, "ST-SB")).to_have_attribute("data-verdict", "together")


def test_a_pair_left_on_purpose_keeps_its_reason_and_who(someone):
    page = someone.open("pairs")
    cell(page, "OL-OR").click()
    page.get_by_role("button", name="Leave, and say why").click()
    page.get_by_label("Reason").fill("Kick is carried by KI and KO")
    page.get_by_role("button", name="Leave it on purpose").click()
    expect(page.get_by_text("Left on purpose: Kick is carried by KI and KO")).to_be_visible()
    someone.saved()
    page.reload()
    cell(page, "OL-OR").click()
    expect(page.get_by_text("Left on purpose: Kick is carried by KI and KO")).to_be_visible()
    expect(page.get_by_text(re.compile("left on purpose 1"))).to_be_visible()
    decision = someone.doc()["decisions"][0]
    assert decision["by"] == someone.get("/account/me").json()["username"]
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_role("button", name="Leave, and say why")).to_be_visible()


def test_the_pulses_follow_the_chosen_drum_in_order_of_arrival(someone):
    page = someone.open("pairs")
    page.get_by_role("tab", name="First half-waves").click()
    order = page.locator("svg[aria-label='First half-waves by arrival'] [data-sign]")
    expect(order.first).to_have_attribute("data-sign", "ST")
    page.get_by_role("radiogroup", name="Drum").get_by_role("radio", name="Kick").click()
    expect(order.first).to_have_attribute("data-sign", "KI")
    page.get_by_label("worst drum").uncheck()
    expect(cell(page, "OL-OR")).to_have_attribute("data-verdict", "late")
    page.get_by_role("radiogroup", name="Drum").get_by_role("radio", name="Snare").click()
    expect(cell(page, "OL-OR")).to_have_attribute("data-verdict", "together")


def test_arrows_walk_the_grid(someone):
    page = someone.open("pairs")
    cell(page, "KI-KO").focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Pair ST with SB")).to_be_visible()


def test_of_twelve_mics_the_last_row_is_seen_beside_an_open_pair(someone):
    layout = take(starting_layout("five-piece", "square pair"), "room-omnis").layout
    doc = layout.model_dump(mode="json")
    made = someone.post(f"/layouts/{someone.layout}/copy", {"name": "Twelve", "doc": doc}).json()
    page = someone.open("pairs", made["id"])
    cell(page, "OL-OR").click()
    expect(page.get_by_role("region", name="Pair OL with OR")).to_be_visible()
    shown = page.get_by_role("region", name="Every pair").bounding_box()
    low = cell(page, f"{layout.mics[-2].id}-{layout.mics[-1].id}").bounding_box()
    assert low["y"] + low["height"] <= shown["y"] + shown["height"]
    assert low["height"] >= 18


def test_table_is_worst_first_and_opens_pairs(someone):
    page = someone.open("pairs")
    page.get_by_role("radio", name="Table").click()
    rows = page.get_by_role("table", name="Pairs, worst first").get_by_role("row")
    expect(rows.nth(1)).to_contain_text("hollow")
    rows.nth(1).get_by_role("button").click()
    expect(page.locator("[data-pair-verdict]")).to_have_attribute("data-pair-verdict", "hollow")


def test_move_leads_to_place_with_the_pair_open(someone):
    page = someone.open("pairs")
    cell(page, "OL-OR").click()
    page.get_by_role("button", name="Move OR", exact=True).click()
    expect(page.get_by_role("button", name="Swing OR onto the ring")).to_be_visible()


def test_the_limits_are_named_with_reasons_and_can_be_changed(someone):
    page = someone.open("pairs")
    hollow = page.locator('button[data-verdict="hollow"]')
    expect(cell(page, "ST-SB")).to_have_attribute("data-verdict", "hollow")
    before = hollow.count()
    page.get_by_role("button", name="How pairs are judged").click()
    dialog = page.get_by_role("dialog", name="How pairs are judged")
    expect(dialog.get_by_text("the 3-to-1 rule")).to_be_visible()
    dialog.get_by_label("Hollow when a flip gains").fill("12")
    dialog.get_by_role("button", name="Judge by these").click()
    expect(hollow).not_to_have_count(before)
    someone.saved()
    assert someone.doc()["thresholds"]["hollow_gain_db"] == 12
    page.keyboard.press("Control+z")
    expect(hollow).to_have_count(before)


def test_numbers_say_why(someone):
    page = someone.open("pairs")
    cell(page, "OL-OR").click()
    page.get_by_text("Why these numbers").click()
    expect(page.get_by_text("ISO 9613-1:1993")).to_be_visible()
    expect(page.get_by_text(re.compile("octave round 60 Hz"))).to_be_visible()
