"""The log: what a change did is written down, found again and gone back to."""

import json
from uuid import uuid4

from playwright.sync_api import expect

from tests.browser.conftest import held_back, pick, until
from tests.browser.test_access import faults


def moved(person, mic, by):
    """Move a mic to its side, saved."""
    doc = person.doc()
    next(m for m in doc["mics"] if m["id"] == mic)["position_m"][0] += by
    person.save(doc, f"Moved {mic}")


def tried(person):
    session = person.get(f"/layouts/{person.layout}").json()["session_id"]
    return person.get(f"/sessions/{session}/tried").json()


def write(page, words, heard="Works"):
    page.get_by_role("radio", name=heard, exact=True).click()
    page.get_by_label("What it did").fill(words)
    page.get_by_role("button", name="Write it down").click()


def line(page, words):
    return page.locator("[data-line]").filter(has_text=words)


def test_what_a_change_did_is_written_down_with_the_change(someone):
    page = someone.open("log")
    page.get_by_role("textbox", name="Song").fill("Low Water")
    expect(page.get_by_text("The first line of this layout.")).to_be_visible()
    write(page, "As it came", "Maybe")
    expect(line(page, "As it came")).to_contain_text("Maybe")
    expect(page.get_by_text("nothing was changed")).to_be_visible()
    moved(someone, "OR", 0.1)
    page = someone.open("log")
    since = page.get_by_role("list", name="What changed since the last line")
    expect(since).to_contain_text("OR: moved 10.0 cm; snare 127.1 cm → ")
    write(page, "Floor tom fuller")
    expect(line(page, "Floor tom fuller")).to_contain_text("OR: moved 10.0 cm")
    expect(page.get_by_label("What it did")).to_have_value("")
    newest, first = tried(someone)
    assert [r["verdict"] for r in (newest, first)] == ["works", "maybe"]
    assert newest["song"] == "Low Water"  # stays for the next line
    page.get_by_role("searchbox").fill("or tom")
    expect(page.locator("[data-line]")).to_have_count(1)
    page.get_by_role("searchbox").fill("bell")
    expect(page.get_by_text("No line has it.")).to_be_visible()


def test_a_layout_is_as_it_was_in_a_line_and_one_undo_takes_that_back(someone):
    page = someone.open("log")
    write(page, "As it came")
    expect(line(page, "As it came")).to_be_visible()
    was = someone.mic("OR")["position_m"]
    moved(someone, "OR", 0.1)
    page = someone.open("log")
    line(page, "As it came").get_by_role("button").click()
    way = page.get_by_role("list", name="What is to be changed")
    expect(way).to_contain_text("→ 127.1 cm")  # from where it is, to there
    page.get_by_role("button", name="Go back to it").click()
    expect(page.get_by_text("To be moved on the floor: OR", exact=False).first).to_be_visible()
    someone.saved()
    assert someone.mic("OR")["position_m"] == was
    expect(way).to_contain_text("Nothing: they are the same.")
    page.keyboard.press("Control+z")
    until(page, lambda: someone.mic("OR")["position_m"] != was)


def test_a_line_struck_out_is_let_back_and_becomes_a_layout(someone):
    page = someone.open("log")
    page.get_by_role("textbox", name="Song").fill("Rope Walk")
    write(page, "For the slow one")
    line(page, "For the slow one").get_by_role("button").click()
    page.get_by_role("button", name="Strike out").click()
    expect(page.locator("[data-line]")).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).last.click()
    line(page, "For the slow one").get_by_role("button").click()
    page.get_by_role("button", name="Make a layout of it").click()
    expect(page.get_by_role("button", name="Rope Walk")).to_be_visible()
    page.wait_for_url("**/place")
    assert f"/layouts/{someone.layout}/" not in page.url


def test_what_worked_in_another_session_is_found_and_put_up_here(someone):
    page = someone.open("log")
    write(page, "Bell of the ride tamed")
    expect(line(page, "Bell of the ride tamed")).to_be_visible()
    start = {"name": "Day two", "kit": "five-piece", "start": "empty"}
    new = someone.post("/sessions", start).json()["layouts"][0]["id"]
    page = someone.open("log", new)
    expect(page.get_by_text("Nothing is written down yet.", exact=False)).to_be_visible()
    page.get_by_role("radio", name="Earlier sessions").click()
    page.get_by_role("searchbox").fill("bell")
    line(page, "Bell of the ride tamed").get_by_role("button").click()
    expect(page.get_by_role("button", name="Go back to it")).to_have_count(0)
    page.get_by_role("button", name="Make a layout of it").click()
    page.wait_for_url("**/place")
    expect(page.locator('[data-mic="OR"]').first).to_be_visible()


def test_what_arrives_of_a_line_moves_no_button_from_under_the_hand(someone):
    page = someone.open("log")
    write(page, "As it came")
    moved(someone, "OR", 0.1)
    page = someone.open("log")
    let_go = held_back(page, "**/api/tried/*/way-to")
    line(page, "As it came").get_by_role("button").click()
    page.get_by_role("button", name="Make a layout of it").hover()
    page.mouse.down()
    let_go()
    expect(page.get_by_role("list", name="What is to be changed")).to_contain_text("→ ")
    page.mouse.up()
    page.wait_for_url("**/place")


def test_a_line_written_without_a_network_is_kept_and_sent_once(someone):
    page = someone.open("log")
    expect(page.get_by_text("The first line of this layout.")).to_be_visible()
    page.get_by_label("What it did").fill("Begun on the way")
    someone.open("place")
    page = someone.open("log")
    expect(page.get_by_label("What it did")).to_have_value("Begun on the way")
    page.route("**/api/layouts/*/tried", lambda route: route.abort())
    write(page, "Dry with the gobos")
    expect(page.get_by_text("Kept here, not sent yet: Dry with the gobos")).to_be_visible()
    assert tried(someone) == []
    page.unroute_all()
    page = someone.open("log")  # as after a closed tab
    expect(line(page, "Dry with the gobos")).to_be_visible()
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0)
    assert [r["words"] for r in tried(someone)] == ["Dry with the gobos"]


def test_words_that_are_refused_are_not_lost(someone):
    page = someone.open("log")
    full = {"status": 400, "detail": "expected at most 500 lines in the log", "title": "Full"}
    how = {"status": 400, "body": json.dumps(full), "content_type": "application/problem+json"}
    page.route("**/api/layouts/*/tried", lambda route: route.fulfill(**how))
    write(page, "Too much for one day")
    expect(page.get_by_text("Not written down: ", exact=False).first).to_be_visible()
    expect(page.get_by_label("What it did")).to_have_value("Too much for one day")


def test_a_line_is_said_otherwise_after_the_mix_was_heard(someone):
    page = someone.open("log")
    write(page, "Toms fuller")
    line(page, "Toms fuller").get_by_role("button").click()
    page.get_by_role("button", name="Say it otherwise").click()
    form = page.get_by_role("form", name="Say it otherwise")
    form.get_by_role("radio", name="No", exact=True).click()
    form.get_by_label("What it did then").fill("Too full in the mix")
    form.get_by_role("button", name="Say it so").click()
    expect(form).to_have_count(0)
    expect(line(page, "Too full in the mix")).to_contain_text("No")
    expect(page.locator("[data-line]")).to_have_count(1)
    assert [r["verdict"] for r in tried(someone)] == ["no"]


def recorded(person, seed):
    """A simulated take of the layout as it is; its name."""
    sent = {"key": str(uuid4()), "seed": seed, "wrong": []}
    job = person.post(f"/layouts/{person.layout}/takes/simulated", sent).json()["id"]
    until(person.page, lambda: person.get(f"/recordings/{job}").json()["state"] == "done", 60)
    return f"Simulated, seed {seed}"


def test_a_line_is_about_a_take_and_is_heard_against_the_one_before_it(someone):
    page = someone.open("log")
    first = recorded(someone, 1)
    page = someone.open("log")
    heard = page.get_by_label("Heard in the take")
    # The take that came since the last line is likely what the line is about.
    expect(heard).to_have_text(first)
    write(page, "As it came")
    expect(line(page, "As it came")).to_contain_text(f"heard in {first}")
    expect(heard).to_have_text("none, by ear in the room")
    second = recorded(someone, 2)
    page = someone.open("log")
    expect(heard).to_have_text(second)
    pick(heard, "none, by ear in the room")
    page = someone.open("log")  # what was chosen is kept with the rest that was begun
    expect(heard).to_have_text("none, by ear in the room")
    write(page, "Fuller")
    line(page, "Fuller").get_by_role("button").first.click()
    expect(page.get_by_role("link", name="Listen to")).to_have_count(0)
    page.get_by_role("button", name="Say it otherwise").click()
    pick(line(page, "Fuller").get_by_label("Heard in the take"), second)
    page.get_by_role("button", name="Say it so").click()
    expect(line(page, "Fuller")).to_contain_text(f"heard in {second}")
    line(page, "Fuller").get_by_role("button").first.click()
    assert faults(page) == []
    page.get_by_role("link", name=f"Hear it against {first}").click()
    for side, name in (("A", second), ("B", first)):
        told = page.locator(f"[data-side={side}]")
        expect(told).to_have_text(f"{side} {name}, as planned", timeout=60_000)
    page.get_by_role("link", name="Write down what it did").click()
    expect(heard).to_have_text(second)
    # A take that is deleted takes no line with it.
    page = someone.open("hits")
    for left in (1, 0):
        page.get_by_role("button", name="Delete", exact=True).first.click()
        page.get_by_role("button", name="Delete it").click()
        expect(page.get_by_role("button", name="Delete", exact=True)).to_have_count(left)
    page = someone.open("log")
    expect(line(page, "Fuller")).not_to_contain_text("heard in")
    assert [r["words"] for r in tried(someone)] == ["Fuller", "As it came"]
