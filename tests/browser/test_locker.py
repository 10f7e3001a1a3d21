"""Locker: filled by hand and by CSV; a layout says when it runs out; hands as a unit."""

import pytest
from playwright.sync_api import expect

CSV = """what,id,name,count,patterns,phantom,low_m,high_m,reach_m,length_m
mic,pencil,Pencil,2,cardioid,yes,,,,
mic,broken,Broken,many,cardioid,,,,,
stand,boom,Boom,2,,,0.9,1.6,0.8,
input,box,Box,16,,each,,,,
cable,c6,Six,16,,,,,,6
"""


def read_in(someone, text, row):
    """A locker from CSV, once a row of it is there."""
    studio = someone.get("/account/me").json()["studios"][0]["id"]
    page = someone.page
    page.goto(f"{someone.url}/studios/{studio}/locker")
    page.get_by_label("Locker as CSV").set_input_files(
        {"name": "locker.csv", "mimeType": "text/csv", "buffer": text.encode()}
    )
    expect(page.locator(f"[data-row={row}]")).to_be_visible()


@pytest.fixture
def stocked(someone):
    read_in(someone, CSV, "boom")
    return someone


def test_a_broken_row_is_named_and_the_rest_is_read(stocked):
    page = stocked.page
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("One row was left out; all others are read in.")
    expect(alert).to_contain_text("line 3, count: expected a number, got 'many'")
    expect(page.locator("[data-row]")).to_have_count(4)


def test_running_out_of_stands_by_keyboard_alone(stocked):
    page = stocked.open("place")
    for mic in ("OL", "OR", "HH"):
        page.locator(f'[data-mic="{mic}"][data-view="above"]').focus()
        page.keyboard.press("Enter")
        tab = page.get_by_role("tab", name=f"Mic {mic}", exact=True)
        tab.focus()
        page.keyboard.press("Enter")
        choice = page.get_by_label("Stand", exact=True)
        expect(choice).to_be_enabled()
        choice.focus()
        page.keyboard.press("Enter")
        page.keyboard.type("Boom")
        expect(page.get_by_role("option", name="Boom")).to_be_focused()
        page.keyboard.press("Enter")
        expect(choice).to_have_attribute("data-value", "boom")
        stocked.saved()
    lack = page.locator("[data-lack=stands]")
    expect(lack).to_contain_text("1 Boom short: 3 wanted, 2 there.")
    expect(page.get_by_text("stands 3/2")).to_be_visible()
    choice.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("option", name="Boom")).to_be_focused()
    page.keyboard.press("Home")
    expect(page.get_by_role("option", name="not chosen")).to_be_focused()
    page.keyboard.press("Enter")
    expect(lack).to_have_count(0)
    expect(page.get_by_text("Nothing is short.")).to_be_visible()


def test_a_row_is_changed_taken_out_and_brought_back(stocked):
    page = stocked.page
    page.locator("[data-row=boom]").get_by_role("button").click()
    page.get_by_label("How many").fill("5")
    page.keyboard.press("Enter")
    expect(page.locator("[data-row=boom] td").first).to_have_text("5")
    page.get_by_role("button", name="Take Boom out").click()
    expect(page.locator("[data-row=boom]")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-row=boom]")).to_be_visible()
    page.reload()
    expect(page.locator("[data-row=boom] td").first).to_have_text("5")


def test_a_wrong_number_is_not_taken(stocked):
    page = stocked.page
    page.locator("[data-row=boom]").get_by_role("button").click()
    page.get_by_label("Highest clip, cm").fill("40")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Not taken")).to_contain_text(
        "stand 'boom': its highest clip is under its lowest"
    )
    page.reload()
    expect(page.locator("[data-row=boom]")).to_contain_text("90.0 cm to 160.0 cm")


def test_lengths_in_ones_own_hands(someone):
    page = someone.page
    page.goto(f"{someone.url}/account")
    page.get_by_label("A hand, thumb to little finger, cm").fill("20")
    page.get_by_role("button", name="Keep my hand").click()
    expect(page.get_by_text("Your hand is kept.")).to_be_visible()
    page = someone.open("place")
    page.locator('[data-mic="OR"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("radio", name="hand", exact=True).click()
    expect(page.locator('[data-tape="snare-b"]')).to_have_text("6 h 4 f")  # 127.1 cm
    page.get_by_role("tab", name="Mic OR").click()
    field = page.get_by_label("Height", exact=True)
    field.fill("9 h fist")
    page.keyboard.press("Enter")
    someone.saved()
    assert someone.mic("OR")["position_m"][2] == pytest.approx(1.89)
    field.fill("170")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Type hands, fist and fingers")


HOT = """what,id,name,count,kind,patterns,pads_db,sensitivity_mv_pa,max_spl_db,phantom,max_level_dbu
mic,hot,Hot condenser,2,condenser,cardioid,10;20,20,126,yes,
mic,tough,Tough dynamic,2,moving-coil,cardioid,,1.5,150,no,
mic,mute,Untold,2,condenser,cardioid,,,,yes,
input,box,Box,16,,,,,,each,0
"""


def test_a_mic_too_hot_for_its_drum_is_told_with_the_pad_that_cures_it(someone):
    read_in(someone, HOT, "hot")
    page = someone.open("place")
    page.locator('[data-mic="ST"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    page.get_by_role("tab", name="Mic ST", exact=True).click()
    expect(page.locator("[data-headroom]")).to_have_count(0)  # which mic it is, nobody has said
    told = page.get_by_role("region", name="Headroom")
    choice = page.get_by_label("Mic", exact=True)
    for name, state, words in (
        ("Hot condenser", "overloads", "overloads even at least gain: switch its 20 dB pad in."),
        ("Tough dynamic", "fits", "takes that, with"),
        ("Untold", "unknown", "The locker does not say how loud the Untold may be met"),
    ):
        choice.click()
        page.get_by_role("option", name=name).click()
        expect(page.locator("[data-headroom]")).to_have_attribute("data-headroom", state)
        expect(told).to_contain_text(words)
        someone.saved()
        lacks = page.locator("[data-lack=level]")
        expect(lacks).to_have_count(1 if state == "overloads" else 0)
