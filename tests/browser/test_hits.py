"""Test hits from a dropped file to a cured channel: through a cut line, corrected, on a phone."""

import re

import pytest
from playwright.sync_api import expect
from ringside.plan.layout import Layout
from ringside.recorder.wrong import Wrong

from tests.browser.conftest import pick, until
from tests.browser.test_access import faults
from tests.core.takes import recorded


@pytest.fixture
def take(someone, tmp_path):
    """One file of ten channels, the snare's bottom mic turned over on the way in."""
    doc = someone.doc()
    for c in doc["channels"]:
        c["preamp_flip"] = c["id"] == "SB"
    someone.save(doc, "The bottom of the snare flipped")
    layout = Layout.model_validate(doc)
    files, _ = recorded(tmp_path, Wrong(inverted=("SB",)), layout=layout, each=2, one_file=True)
    return files[0]


def takes(person):
    return person.get(f"/layouts/{person.layout}/takes").json()["takes"]


def test_a_take_comes_through_a_cut_line_and_a_turned_channel_is_named_and_cured(someone, take):
    page = someone.open("hits")
    expect(page.locator("[data-play=kick]")).to_contain_text("5 hits")
    page.get_by_role("radio", name="Takes").click()
    cuts = []

    def cut(route):
        # The third piece arrives and its answer is lost; then the line is dead once more.
        if len(cuts) == 2:
            route.fetch()
        if len(cuts) in (2, 3):
            cuts.append("cut")
            route.abort()
            return
        cuts.append("through")
        route.continue_()

    page.route("**/api/takes/*/files/*", cut)
    page.get_by_label("Sound files").set_input_files(take)
    expect(page.get_by_text("The line is cut; it goes on by itself")).to_be_visible()
    says = page.locator("[data-says]")
    expect(says).to_contain_text("10 of 10 strokes count, on 5 drums", timeout=60_000)
    (kept,) = takes(someone)
    assert [f["received"] for f in kept["files"]] == [take.stat().st_size]
    # The first half-waves of every channel are drawn, and what was open is settled.
    expect(page.locator("[data-lane=OL]")).to_be_visible()
    expect(says).to_contain_text("verdicts that were left to the ear are settled")
    page.get_by_role("radio", name="Floor tom").click()
    settled = page.locator("[data-settled=true]")
    expect(settled.first).to_contain_text("ask the ear")
    assert faults(page) == []
    # Turned over: named, and cured on the track, with undo.
    reason = page.locator("[data-reason='turned over']")
    expect(reason).to_contain_text("SB is turned over against the plan")
    page.get_by_role("radio", name="Snare").click()
    pair = page.locator("[data-heard='ST-SB']")
    expect(pair).to_contain_text("hollow")
    reason.get_by_role("button", name="note it, and flip the track of SB").click()
    expect(reason).to_have_count(0, timeout=60_000)
    expect(pair).to_contain_text("together")
    assert someone.track("SB")["track_flip"]
    assert not someone.track("SB")["preamp_flip"]
    page.get_by_role("button", name="Undo: Noted that SB comes in turned over").click()
    expect(reason).to_have_count(1, timeout=60_000)


def test_a_stroke_and_a_track_are_corrected_and_a_take_is_deleted(someone, take):
    page = someone.open("hits")
    page.get_by_role("radio", name="Takes").click()
    page.get_by_label("Sound files").set_input_files(take)
    says = page.locator("[data-says]")
    expect(says).to_contain_text("10 of 10 strokes", timeout=60_000)
    page.get_by_role("radio", name="Strokes").click()
    first = page.locator("[data-stroke='0']")
    expect(first).to_have_attribute("aria-label", re.compile(r"1\.0\d s, Kick"))
    first.focus()
    page.keyboard.press("Enter")
    pick(page.get_by_label("It is"), "left out")
    expect(says).to_contain_text("9 of 10 strokes", timeout=60_000)
    ((at, drum),) = takes(someone)[0]["drums"].items()
    assert (len(at), drum) == (4, None)  # the stroke at a second and some milliseconds
    page.get_by_role("radio", name="Tracks").click()
    row = page.locator("[data-track-of='take.wav, 10']")
    expect(row).to_contain_text("by its number")
    pick(row.get_by_role("combobox"), "left out")
    expect(row).to_contain_text("as you said", timeout=60_000)
    page.get_by_role("radio", name="Places").click()
    expect(page.locator("[data-place=OL]")).to_be_visible()
    expect(page.locator("[data-place=OR]")).to_have_count(0)
    page.get_by_role("button", name="Delete", exact=True).click()
    page.get_by_role("button", name="Delete it").click()
    expect(page.get_by_text("No take yet.")).to_be_visible()
    until(page, lambda: takes(someone) == [])


def test_what_is_no_sound_is_told_and_the_rest_of_a_cut_take_is_sent(someone, tmp_path):
    page = someone.open("hits")
    page.get_by_role("radio", name="Takes").click()
    text = tmp_path / "notes.wav"
    text.write_text("take 3 was the good one")
    page.get_by_label("Sound files").set_input_files(text)
    expect(page.get_by_role("alert")).to_contain_text("notes.wav: is no sound file")
    # Stopped half way, closed, opened: the same files go on where they ended.
    noise = tmp_path / "noise.wav"
    noise.write_bytes(b"RIFF" + bytes(2_500_000))
    page.route("**/api/takes/*/files/0?at=1000000", lambda route: None)
    page.get_by_label("Sound files").set_input_files(noise)
    expect(page.get_by_text("1 MB of 3 MB")).to_be_visible()
    page.close()
    someone.page = someone.context.new_page()
    page = someone.open("hits")
    page.get_by_role("radio", name="Takes").click()
    expect(page.get_by_text("1 MB of 3 MB came")).to_be_visible()
    page.get_by_label("The files of noise again").set_input_files(text)
    expect(page.get_by_text("These are not the files this take was begun with")).to_be_visible()
    page.get_by_label("The files of noise again").set_input_files(noise)
    expect(page.get_by_text("Send the rest")).to_have_count(0)
    until(page, lambda: takes(someone)[0]["files"][0]["received"] == 2_500_004)
    expect(page.get_by_role("alert")).to_contain_text("noise.wav: is damaged")


def test_a_phone_counts_the_hits_along(someone):
    someone.page.set_viewport_size({"width": 390, "height": 844})
    page = someone.open("hits")
    page.get_by_role("button", name="Count along").click()
    first = page.locator("[data-now]").inner_text()
    for n in range(1, 6):
        expect(page.get_by_text(f"{n} of 25")).to_be_visible()
        assert page.locator("[data-now]").inner_text() == first
        page.get_by_role("button", name="Hit", exact=True).click()
    assert page.locator("[data-now]").inner_text() != first
    page.get_by_role("button", name="One back").click()
    expect(page.get_by_text("5 of 25")).to_be_visible()
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390
