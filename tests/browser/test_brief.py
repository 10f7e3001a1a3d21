"""From a blank session to a checked full layout by the brief; plans taken, mixed, undone."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import arrive


@pytest.fixture
def blank(server, chromium):
    person = arrive(server, chromium, start="empty")
    yield person
    person.context.close()
    assert person.faults == []


class Counted:
    """Presses of the mouse and the keys, counted: what a hand has to do."""

    def __init__(self, page):
        self.page, self.count = page, 0

    def press(self, locator):
        self.count += 1
        locator.click()

    def type(self, locator, text):
        self.count += 1
        locator.fill(text)
        locator.press("Enter")


def test_from_a_blank_session_to_a_checked_full_layout_in_under_twenty_actions(blank):
    page = blank.open("pairs")
    rail = page.get_by_role("navigation", name="Steps of the work")
    expect(rail.get_by_role("link", name="Brief")).to_contain_text("start")
    expect(rail.get_by_role("link", name="Pairs")).to_contain_text("no pair of mics yet")
    page.get_by_role("link", name="Add mics on Place").click()
    expect(page.get_by_role("heading", name="No mics yet")).to_be_visible()
    page = blank.open("brief")
    hand = Counted(page)
    hand.press(page.get_by_role("radio", name="Driving"))
    hand.press(page.get_by_role("radio", name="Huge"))
    hand.press(page.get_by_role("radio", name="Much", exact=True))
    hand.type(page.get_by_label("Inputs"), "16")
    first = page.locator("[data-plan='1']")
    expect(first).to_contain_text("14 inputs")
    hand.press(first.get_by_role("button", name="Take this one"))
    expect(page.locator("[data-mic='OL'][data-view='above']")).to_be_visible()
    hand.press(page.get_by_role("tab", name="Fit", exact=True))
    hand.press(page.get_by_role("button", name="Fit it"))
    expect(page.locator("[data-fit]")).to_be_visible()
    hand.press(page.get_by_role("link", name="Pairs"))
    expect(page.locator("[data-count='together']").first).to_be_visible()
    blank.saved()
    assert hand.count < 20
    doc = blank.doc()
    assert len(doc["mics"]) == 14
    assert doc["brief"]["style"] == "driving"
    board = blank.get(f"/layouts/{blank.layout}/analysis").json()
    assert not any(board["blocked"].values())
    snare = [s["id"] for s in board["sources"]].index("snare")
    for pair in doc["stereo_pairs"]:
        rows = [board["mic_ids"].index(pair[side]) for side in ("left", "right")]
        one, two = (board["tape_m"][r][snare] for r in rows)
        assert abs(one - two) < 0.005


def test_each_answer_says_what_it_changes_and_the_layouts_follow(blank):
    page = blank.open("brief")
    space = page.locator("[data-question='space']")
    expect(space).to_contain_text("One room pair")
    expect(page.locator("[data-plan='1']")).to_be_visible()
    space.get_by_role("radio", name="Dry", exact=True).click()
    expect(space).to_contain_text("No room mics")
    mono = page.locator("[data-question='mono']")
    mono.get_by_role("radio", name="It must").click()
    expect(page.locator("[data-plan='1'] h3")).to_contain_text("oincident")
    blank.saved()
    assert blank.doc()["brief"]["mono"] == "must hold"
    page.reload()
    expect(mono.get_by_role("radio", name="It must")).to_be_checked()


def test_two_layouts_are_mixed_and_undone_in_one_step(blank):
    page = blank.open("brief")
    second = page.locator("[data-plan='2'] h3").inner_text()
    page.get_by_label("Picture from layout 2").check()
    page.get_by_label("Toms from nobody").check()
    page.get_by_role("button", name="Take the mix").click()
    expect(page.locator("[data-mic]").first).to_be_visible()
    blank.saved()
    used = blank.doc()["techniques"]
    assert second.split(" ", 1)[1].split(",")[0].lower().startswith(used[0]["id"].split("-")[0][:4])
    assert not any(t["technique"].startswith("tom") for t in used)
    page.keyboard.press("Control+z")
    expect(page.locator("[data-mic]")).to_have_count(0)


def test_one_input_gives_three_single_mics_to_choose_from(blank):
    page = blank.open("brief")
    page.get_by_label("Inputs").fill("1")
    page.get_by_label("Inputs").press("Enter")
    for n in (1, 2, 3):
        expect(page.locator(f"[data-plan='{n}']")).to_contain_text("1 input, 1 stand")
        expect(page.locator(f"[data-plan='{n}'] h3")).to_contain_text("One ")
    # Of a single mic there are no pairs to count, no parts to mix, and all there is to see of it.
    expect(page.get_by_role("button", name="Take the mix")).to_have_count(0)
    expect(page.locator("[data-plan='1'] [data-count]")).to_have_count(0)
    page.locator("[data-plan='1']").get_by_role("button", name="Take this one").click()
    expect(page.get_by_role("heading", name="Front mic")).to_be_visible()
    expect(page.get_by_label("Height, cm")).to_be_visible()


def test_a_wrong_number_of_inputs_is_not_taken(blank):
    page = blank.open("brief")
    field = page.get_by_label("Inputs")
    field.fill("400")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("1 to 32")
    expect(page.locator("[data-plan='1']")).to_be_visible()


def test_limits_that_leave_nothing_say_what_to_do(blank):
    page = blank.open("brief")
    page.get_by_label("Minutes to set up").fill("10")
    page.get_by_label("Minutes to set up").press("Enter")
    expect(page.get_by_text("Allow more minutes or inputs")).to_be_visible()


def test_starting_empty_takes_every_mic_away_until_undone(someone):
    page = someone.open("brief")
    page.get_by_role("button", name="Start empty").click()
    expect(page.get_by_role("heading", name="No mics yet")).to_be_visible()
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(page.locator("[data-mic='OR'][data-view='above']")).to_be_visible()


def test_the_rules_are_a_table_anybody_can_read(blank):
    page = blank.open("brief")
    page.get_by_text("Every rule,").click()
    row = page.locator("tr", has_text="A turned pair wants the tape.")
    expect(row).to_contain_text("Measured or by ear?")
    expect(row).to_contain_text("Turned pair")


def test_a_new_session_without_mics_begins_at_the_brief(blank):
    page = blank.page
    page.goto(blank.url)
    page.get_by_role("button", name="New session").click()
    dialog = page.get_by_role("dialog", name="New session")
    dialog.get_by_label("Name").fill("Second day")
    dialog.get_by_role("radio", name="empty").check()
    dialog.get_by_role("button", name="Make it").click()
    expect(page.get_by_role("heading", name="Before the first mic")).to_be_visible()
