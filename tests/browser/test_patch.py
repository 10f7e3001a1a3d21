"""Patch: every mic through its input to its track, by keys, by hand and by the button."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import at_rest, pick, until
from tests.core.test_stored import VERSIONS

BOXES = [
    {"id": "a", "name": "Stage box", "count": 16, "max_level_dbu": 10.0, "full_scale_dbu": 20.0,
     "most_gain_db": 60.0},
    {"id": "b", "name": "Rack", "count": 4, "phantom": "bank", "matched": True},
]  # fmt: skip
MICS = [{"id": "hot", "name": "Hot condenser", "phantom": True, "sensitivity_mv_pa": 40.0,
         "max_spl_db": 160.0, "pads_db": [10.0, 20.0], "count": 4}]  # fmt: skip


@pytest.fixture
def sixteen(someone):
    """A layout of sixteen mics, none of them plugged in, and a locker with boxes."""
    doc = someone.doc()
    for technique in ("snare-edge", "kick-boundary", "room-bar", "room-mono"):
        took = someone.post(
            f"/layouts/{someone.layout}/take", {"layout": doc, "technique": technique}
        )
        doc = took.json()["layout"]
    doc["mics"].append({**doc["mics"][0], "id": "XX", "name": "Spare"})
    doc["channels"].append({**doc["channels"][0], "id": "XX", "name": "Spare", "mic": "XX"})
    for track in doc["channels"]:
        track["input"] = None
    someone.save(doc, "sixteen mics")
    put_locker(someone)
    assert len(doc["mics"]) == 16
    return someone


def put_locker(person):
    studio = person.get(f"/layouts/{person.layout}").json()["studio_id"]
    version = person.get(f"/studios/{studio}/locker").json()["version"]
    token = next(c["value"] for c in person.context.cookies() if c["name"] == "csrftoken")
    done = person.context.request.put(
        f"{person.url}/api/studios/{studio}/locker",
        data={"version": version, "locker": {"mics": MICS, "inputs": BOXES}},
        headers={"X-CSRFToken": token, "Referer": person.url},
    )
    assert done.ok, done.text()


def inputs(person):
    return {c["id"]: c["input"] for c in person.doc()["channels"]}


def test_sixteen_mics_are_patched_by_keys_alone(sixteen):
    page = sixteen.open("patch")
    tracks = page.locator("[data-track]")
    expect(tracks).to_have_count(16)
    expect(page.locator("[data-loose='16']")).to_be_visible()
    tracks.first.focus()
    for n in range(1, 17):
        page.keyboard.press("ArrowRight")
        now = page.locator("[data-track][aria-pressed=true]")
        expect(now).to_have_attribute("data-input", str(n))
        page.keyboard.press("ArrowDown")
    expect(page.locator("[data-loose]")).to_have_count(0)
    page.keyboard.press("Alt+ArrowUp")  # the last track, one up
    sixteen.saved()
    assert sorted(inputs(sixteen).values()) == list(range(1, 17))
    assert [c["id"] for c in sixteen.doc()["channels"]][-2:] == ["XX", "RM"]
    page.keyboard.press("Delete")
    until(page, lambda: inputs(sixteen)["XX"] is None)


def test_patched_by_the_button_with_reasons_and_undone_as_one(sixteen):
    page = sixteen.open("patch")
    page.get_by_role("button", name="Patch it for me").click()
    expect(page.locator("[data-patched]")).to_contain_text("16 tracks plugged in.")
    moves = page.get_by_role("list", name="Moves").get_by_role("listitem")
    expect(moves.filter(has_text="OL and OR into Rack")).to_contain_text(
        "a pair, on matched inputs side by side"
    )
    sixteen.saved()
    at = inputs(sixteen)
    assert None not in at.values()
    assert len(set(at.values())) == 16
    assert at["OR"] == at["OL"] + 1
    page.get_by_role("button", name="Patch it for me").click()
    expect(page.locator("[data-patched]")).to_contain_text("nothing was moved")
    page.locator("[aria-label^='Undo: Patched']").click()
    expect(page.locator("[data-loose='16']")).to_be_visible()


def test_tracks_are_put_where_they_are_looked_for_and_plugs_stay(someone):
    before = someone.doc()["channels"]
    page = someone.open("patch")
    tidy = page.get_by_role("button", name="Put the tracks in order", exact=True)
    first = page.locator("[data-track]").first
    expect(first).to_have_attribute("data-track", "KI")
    expect(tidy).to_have_count(0)
    first.focus()
    page.keyboard.press("Alt+ArrowDown")
    expect(first).to_have_attribute("data-track", "KO")
    tidy.click()
    expect(first).to_have_attribute("data-track", "KI")
    expect(tidy).to_have_count(0)
    someone.saved()
    assert someone.doc()["channels"] == before
    page.keyboard.press("Control+z")
    expect(first).to_have_attribute("data-track", "KO")


def test_a_mic_is_dragged_to_a_socket_and_changes_over_with_who_is_there(someone):
    put_locker(someone)
    page = someone.open("patch")
    target = at_rest(page.locator("[data-socket='1']"))
    source = at_rest(page.locator("[data-patch-mic=OL]"))
    page.mouse.move(source["x"] + 60, source["y"] + 10)
    page.mouse.down()
    page.mouse.move(target["x"] + 40, target["y"] + 30, steps=6)
    page.mouse.move(target["x"] + 40, target["y"] + 10)
    page.mouse.up()
    until(page, lambda: inputs(someone)["OL"] == 1)
    assert inputs(someone)["KI"] == 9
    someone.saved()


def test_an_overload_is_cured_by_the_pad_it_names(someone):
    put_locker(someone)
    doc = someone.doc()
    next(m for m in doc["mics"] if m["id"] == "ST")["model"] = "hot"
    someone.save(doc, "a hot mic")
    page = someone.open("patch")
    fault = page.locator("[data-fault=level]")
    expect(fault).to_contain_text("Stage box overloads even at least gain: switch its 10 dB pad in")
    fault.get_by_role("button").click()
    pick(page.get_by_label("Pad at the mic"), "10")
    expect(fault).to_have_count(0)
    expect(page.locator("[data-headroom=fits]")).to_contain_text("With its 10 dB pad in")
    someone.saved()
    assert someone.mic("ST")["pad_db"] == 10


def test_a_split_with_one_copy_turned_over_is_said_to_cancel(someone):
    page = someone.open("patch")
    page.locator("[data-track=KI]").click()
    page.get_by_role("button", name="Split KI").click()
    expect(page.locator("[data-track='KI.2']")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("switch", name="Flip at the preamp").click()
    expect(page.locator("[data-fault=splits]")).to_contain_text(
        "KI and KI.2 are of one mic and turned against each other: they cancel. Flip one."
    )
    page.get_by_role("switch", name="Flip at the preamp").click()
    expect(page.locator("[data-fault=splits]")).to_have_count(0)
    page.get_by_role("button", name="Do not record").click()
    expect(page.locator("[data-track='KI.2']")).to_have_count(0)
    someone.saved()
    assert [c["mic"] for c in someone.doc()["channels"]].count("KI") == 1


def test_a_file_of_version_1_is_read_in_with_its_inputs(someone):
    old = (VERSIONS / "layout-1.json").read_text()
    page = someone.page
    page.goto(someone.url)
    expect(page.get_by_role("heading", name="Test day")).to_be_visible()  # the page is whole
    page.get_by_label("Layout file").set_input_files(
        {"name": "old.json", "mimeType": "application/json", "buffer": old.encode()}
    )
    expect(page.get_by_role("heading", name="Layout A")).to_be_visible()
    made = max(x["id"] for s in someone.get("/sessions").json() for x in s["layouts"])
    page = someone.open("patch", made)
    track = page.locator("[data-track=ST]")
    expect(track).to_have_attribute("data-input", "3")


def test_a_box_is_put_on_the_floor_and_cables_follow_it_by_hand_and_keys(someone):
    put_locker(someone)
    page = someone.open("patch")
    page.get_by_role("radio", name="Boxes on the floor").click()
    first = page.get_by_role("group", name="Stage box")
    first.get_by_role("button", name="Put it on the floor").click()
    lead = first.locator("[data-lead='KI']")
    was = metres_of(lead)
    box = page.locator("[data-box='a']")
    at = at_rest(box)
    x, y = at["x"] + at["width"] / 2, at["y"] + at["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 80, y, steps=4)  # away from the kit, to the left
    until(page, lambda: metres_of(lead) > was + 0.3)  # while it is held
    page.wait_for_timeout(200)  # for the last of the moves
    there = metres_of(lead)
    page.mouse.up()
    someone.saved()
    assert metres_of(lead) == there
    ((bank, spot),) = [(b["bank"], b["position_m"]) for b in someone.doc()["boxes"]]
    assert (bank, spot[0] < -1.5) == ("a", True)
    box.focus()
    page.keyboard.press("Shift+ArrowLeft")
    until(page, lambda: metres_of(lead) == pytest.approx(there + 0.5, abs=0.06))
    box.focus()
    page.keyboard.press("Delete")
    expect(box).to_have_count(0)
    someone.saved()
    assert someone.doc()["boxes"] == []


def metres_of(lead):
    return float(lead.locator("span").nth(1).inner_text().removesuffix(" m"))
