"""Hear it: rendered by the worker, switched by keys without a gap, tested blind."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import pick
from tests.browser.test_pairs import cell

# Web Audio writes down what it is told beside doing it: what starts, when, and what is faded in.
WATCH = """() => {
  const told = { starts: [], fades: [], stops: 0 };
  window.__told = told;
  const start = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (when) {
    told.starts.push([when, this.buffer.length, this.loop]);
    return start.call(this, when);
  };
  const stop = AudioBufferSourceNode.prototype.stop;
  AudioBufferSourceNode.prototype.stop = function (...a) {
    told.stops++;
    return stop.apply(this, a);
  };
  const fade = AudioParam.prototype.setTargetAtTime;
  AudioParam.prototype.setTargetAtTime = function (to, at, slow) {
    told.fades.push([to, at, slow]);
    return fade.call(this, to, at, slow);
  };
}"""


def of(page, pair):
    """The pair in full; the one that was open until now has buttons of its own."""
    return page.get_by_role("region", name=f"Pair {pair.replace('-', ' with ')}")


def hearing(someone, pair="ST-SB"):
    page = someone.open("pairs")
    page.evaluate(WATCH)
    cell(page, pair).click()
    of(page, pair).get_by_role("button", name="Hear it").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.locator("[data-hear=wired]")).to_be_visible(timeout=20000)
    return page, dialog


def test_versions_run_together_and_are_switched_without_a_start(someone):
    page, dialog = hearing(someone)
    expect(dialog.get_by_text("Start quiet.")).to_be_visible()
    dialog.locator("[data-hear=wired]").click()
    expect(dialog.locator("[data-heard=wired]")).to_have_text("Hearing both as wired")
    told = page.evaluate("window.__told")
    assert len(told["starts"]) == 5
    assert len({when for when, _, _ in told["starts"]}) == 1  # all at one moment
    assert len({length for _, length, _ in told["starts"]}) == 1
    assert all(loop for _, _, loop in told["starts"])
    page.keyboard.press("4")
    expect(dialog.locator("[data-heard=flipped]")).to_be_visible()
    page.keyboard.press("a")
    expect(dialog.locator("[data-heard=A]")).to_be_visible()
    page.keyboard.press("b")
    expect(dialog.locator("[data-heard=B]")).to_be_visible()
    told = page.evaluate("window.__told")
    assert (len(told["starts"]), told["stops"]) == (5, 0)
    assert [to for to, _, _ in told["fades"][-5:]].count(1) == 1
    dialog.get_by_role("button", name="Stop").click()
    expect(dialog.get_by_text("Silent")).to_be_visible()
    assert page.evaluate("window.__told.stops") == 5


def test_a_blind_test_counts_right_answers(someone):
    page, dialog = hearing(someone)
    pick(dialog.get_by_label("A is"), "a")
    dialog.get_by_role("button", name="Blind test").click()
    expect(dialog.locator("[data-hear]")).to_have_count(0)  # nothing tells which is which
    right = 0
    for given in range(1, 7):
        page.keyboard.press("x")
        expect(dialog.locator("[data-heard=X]")).to_be_visible()
        dialog.get_by_role("button", name="X is A").click()
        expect(dialog.locator(f'[data-blind="{given}"]')).to_be_visible()
        said = dialog.locator("[data-blind]").inner_text()
        right += "Right." in said
        assert re.search(rf"{right} of {given} right", said.replace("\n", " "))
    expect(dialog.locator("[data-blind]")).to_contain_text(re.compile("guessing|by luck"))
    dialog.get_by_role("button", name="End the test").click()
    expect(dialog.locator("[data-hear=wired]")).to_be_visible()


def test_a_second_time_it_is_there_at_once_and_an_unsure_pair_says_so(someone):
    page, _dialog = hearing(someone)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Hear it").click()
    expect(page.get_by_role("dialog").locator("[data-hear=wired]")).to_be_visible()
    page.keyboard.press("Escape")
    cell(page, "KO-OL").click()
    expect(of(page, "KO-OL")).to_be_visible()
    pick(page.get_by_label("Drum of this pair"), "kick")
    expect(page.get_by_label("Drum of this pair")).to_have_attribute("data-value", "kick")
    of(page, "KO-OL").get_by_role("button", name="Hear it").click()
    unsure = page.get_by_role("dialog").get_by_text("The sign of this pair is unsure")
    expect(unsure).to_be_visible(timeout=20000)
