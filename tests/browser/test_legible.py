"""Labels of Place by the boxes that were drawn: at 12, 28 and 40 mics none lies on another."""

import itertools

import pytest
from playwright.sync_api import expect
from ringside.places.starts import starting_layout
from ringside.techniques.taking import take

from tests.core.test_balances import big_session

PLATES = "[data-mic] rect[rx='4.5'], [data-edge] rect"
BOXES = """(of) => [...document.querySelectorAll(of)].map((e) => {
  const b = e.getBoundingClientRect();
  const paper = e.closest("svg").getBoundingClientRect();
  return { box: [b.left, b.top, b.right, b.bottom], paper: Math.round(paper.left) };
})"""


def session(mics):
    if mics == 12:
        return take(starting_layout("five-piece", "square pair"), "room-omnis").layout
    layout = big_session().model_copy(update={"options": ()})
    more = ("wide-centre", "wide-crossed", "kick-floor", "mono-over", "corner-pair", "room-mono",
            "over-shoulder", "one-front", "snare-flat", "snare-centre", "floor-point")  # fmt: skip
    for technique in more:
        if len(layout.mics) < mics:
            try:
                layout = take(layout, technique).layout
            except Exception:  # no room is drawn, or it has no place here
                continue
    return layout


def meeting(boxes, others=None):
    """How many of these lie on each other, or on others, by more than half a pixel."""
    found = itertools.combinations(boxes, 2) if others is None else itertools.product(boxes, others)

    def meet(a, b):
        (l1, t1, r1, b1), (l2, t2, r2, b2) = a["box"], b["box"]
        apart = l1 + 0.5 >= r2 or l2 + 0.5 >= r1 or t1 + 0.5 >= b2 or t2 + 0.5 >= b1
        return a["paper"] == b["paper"] and not apart

    return sum(meet(a, b) for a, b in found)


def inner(mic):
    """A mic without the corners of its box, which it does not fill."""
    left, top, right, bottom = mic["box"]
    return {**mic, "box": [left + 2, top + 2, right - 2, bottom - 2]}


@pytest.mark.parametrize("mics", [12, 28, 40])
def test_no_label_lies_on_another_or_on_the_name_of_a_drum_and_no_mic_on_that(someone, mics):
    layout = session(mics)
    assert len(layout.mics) >= min(mics, 38)
    doc = layout.model_dump(mode="json")
    made = someone.post(f"/layouts/{someone.layout}/copy", {"name": "Many", "doc": doc}).json()
    page = someone.open("place", made["id"])
    expect(page.locator("[data-plate]").first).to_be_visible()
    expect(page.locator("[data-mic], [data-edge]")).to_have_count(2 * len(layout.mics))
    plates, flags, names, lengths, drawn = (
        page.evaluate(BOXES, of)
        for of in (PLATES, "[data-plate]", "[data-part-name]", "[data-cut]", "[data-mic] > g path")
    )
    assert len(plates) == 2 * len(layout.mics)
    assert (meeting(plates), meeting(flags), meeting(names), meeting(plates, names)) == (0,) * 4
    assert len(lengths) == 2
    assert (meeting(lengths), meeting(lengths, names), meeting(lengths, plates)) == (0,) * 3
    assert meeting(plates, [inner(m) for m in drawn]) == 0
    assert meeting(names, [inner(m) for m in drawn]) == 0
    if mics > 12:
        bunch = page.locator("[data-bunch]").first
        bunch.focus()
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Whole tape").click()
        expect(page.locator("[data-bunch]").first).to_be_visible()
