"""The list to do: a few lines for a big session, taken by keys, tried, dismissed, brought back."""

import re

from playwright.sync_api import expect

from tests.browser.test_pairs import cell
from tests.core.test_balances import big_session


def counted(page):
    """What the sieve says of hollow, late and unsure pairs."""
    return [
        int(page.locator(f'button[data-count="{v}"] .num').inner_text())
        for v in ("hollow", "late", "ask the ear")
    ]


def promised(page):
    told = page.locator("[data-todo-promise]").inner_text()
    rows = [re.search(rf"{v} (\d+) → (\d+)", told) for v in ("hollow", "late", "ask the ear")]
    return [int(r[1]) for r in rows], [int(r[2]) for r in rows]


def test_a_big_session_has_a_short_list_that_keeps_its_promise(someone):
    doc = big_session().model_copy(update={"options": ()}).model_dump(mode="json")
    made = someone.post(f"/layouts/{someone.layout}/copy", {"name": "Big", "doc": doc}).json()
    page = someone.open("pairs", made["id"])
    lines = page.locator("[data-line]")
    expect(page.locator("[data-units]").last).to_be_visible(timeout=60_000)  # 28 mics at all
    expect(lines.first).to_be_visible(timeout=20_000)
    assert 2 <= lines.count() <= 7
    expect(page.locator("nav [data-to-do]")).to_have_text(f"{lines.count()} to do")
    # The whole triangle of units is on the screen, and the last line of the list.
    last = page.locator("[data-units]").last.bounding_box()
    assert last["y"] + last["height"] < 800
    now, then = promised(page)
    assert now == counted(page)
    # By keys alone: every line taken in one step.
    page.get_by_role("button", name=re.compile("^Take all")).focus()
    page.keyboard.press("Enter")
    expect(page.locator("[data-todo-promise]")).to_have_count(0)
    someone.saved()
    assert counted(page) == then
    page.keyboard.press("Control+z")
    expect(page.locator("[data-todo-promise]")).to_be_visible()
    assert counted(page) == now
    # A cell of two units opens to their mics; the arrows walk there.
    page.locator('[data-units="Snare|OL OR"]').focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(page.locator("[data-pair-verdict]")).to_be_visible()
    expect(page.locator("[data-pair]")).to_have_count(6)
    page.get_by_role("button", name="All units").click()
    expect(page.locator("[data-units]").first).to_be_visible()


def test_a_line_is_tried_taken_dismissed_and_brought_back(someone):
    page = someone.open("pairs")
    line = page.locator("[data-line=flip][data-of=SB]")
    expect(line).to_contain_text("Flip SB at the preamp, input 4.")
    line.get_by_role("button", name="Try").click()
    expect(page.locator("[data-trial]")).to_contain_text("On trial, not saved: Flip SB")
    expect(cell(page, "ST-SB")).to_have_attribute("data-verdict", "together")
    assert not someone.track("SB")["preamp_flip"]
    page.get_by_role("button", name="Back").click()
    expect(cell(page, "ST-SB")).to_have_attribute("data-verdict", "hollow")
    # What the pair is told to do names the line.
    cell(page, "ST-SB").click()
    expect(page.locator("[data-on-the-list]")).to_contain_text("line 1: Flip SB")
    expect(page.locator("[data-remedy=flip]").first).to_contain_text("Flip SB")
    line.get_by_role("button", name="Dismiss").click()
    page.get_by_label("Reason").fill("The drummer likes it thin.")
    page.get_by_role("button", name="Dismiss it").click()
    expect(line).to_have_count(0)
    someone.saved()
    page.reload()
    aside = page.locator("[data-aside=flip]")
    expect(aside).to_contain_text("Dismissed: The drummer likes it thin.")
    aside.get_by_role("button", name="Bring back").click()
    expect(line).to_be_visible()
    line.get_by_role("button", name="Take").click()
    expect(line).to_have_count(0)
    someone.saved()
    assert someone.track("SB")["preamp_flip"]
    page.goto(someone.url)
    expect(page.locator("a [data-to-do]").first).to_have_text(re.compile(r"\d to do"))
