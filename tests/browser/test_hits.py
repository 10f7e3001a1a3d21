"""Test hits from a dropped file to a cured channel: through a cut line, corrected, on a phone."""

import base64
import re
import zipfile
from typing import NamedTuple

import numpy as np
import pytest
from playwright.sync_api import expect
from ringside.plan.layout import Layout
from ringside.recorder.wrong import Wrong
from scipy.signal import fftconvolve

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
    # On Pairs the take has a mark of its own where the plan says otherwise.
    rail = page.get_by_role("navigation", name="Steps of the work")
    rail.get_by_role("link", name="Pairs").click()
    cell = page.locator("[data-pair='ST-SB']")
    expect(cell).to_have_attribute("data-heard", "hollow")
    expect(page.get_by_text("as the take “take")).to_contain_text("has heard them")
    cell.click()
    expect(page.locator("[data-recorded=hollow]")).to_contain_text("As recorded, take")
    rail.get_by_role("link", name="Hits").click()
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


SNAP = 32_768
LISTEN_IN = """
  window.heard = [];
  window.ears = [];
  const connect = AudioNode.prototype.connect;
  AudioNode.prototype.connect = function (to, ...more) {
    if (to instanceof AudioDestinationNode) {
      const ear = new AnalyserNode(this.context, { fftSize: 32768 });
      connect.call(this, ear);
      window.ears.push(ear);
      setInterval(() => {
        const last = new Float32Array(32768);
        const at = ear.context.currentTime;
        ear.getFloatTimeDomainData(last);
        window.heard.push({ at, last });
      }, 150);
    }
    return connect.call(this, to, ...more);
  };
"""
CLOCK = "() => window.ears.at(-1).context.currentTime"
PACKED = """async () => {
  const parts = window.heard.splice(0);
  const all = new FileReader();
  const read = new Promise((done) => { all.onload = done; });
  all.readAsDataURL(new Blob(parts.map(({ last }) => last)));
  await read;
  const rate = window.ears.at(-1).context.sampleRate;
  return {
    sound: all.result.slice(all.result.indexOf(",") + 1),
    ended: parts.map(({ at }) => at),
    begun: parts.map(({ at, last }) => at - last.length / rate),
  };
}"""


class Snaps(NamedTuple):
    """The last 0.7 s of what went to the speakers, several times a second."""

    # When each begins and ends, on the clock of the sound, which stands where a machine stalls.
    begun: np.ndarray
    ended: np.ndarray
    all: np.ndarray

    def between(self, clock, until=np.inf):
        """Those that hold nothing of before or after, nor of the fade that follows."""
        return self.all[(self.begun > clock + 0.1) & (self.ended < until - 0.1)]

    def over(self, clock):
        """Those that hold what sounded at a time, or come after it."""
        return self.all[self.ended > clock]


def sounded(page):
    """What went to the speakers since last asked; to fetch it takes time from what plays."""
    packed = page.evaluate(PACKED)
    sound = np.frombuffer(base64.b64decode(packed["sound"]), np.float32)
    begun, ended = (np.array(packed[name]) for name in ("begun", "ended"))
    return Snaps(begun, ended, sound.reshape(-1, SNAP).astype(float))


def likeness(part, snaps):
    """How alike a part is to the place most like it, from -1 to 1."""
    best = 0.0
    for snap in snaps:
        power = np.concatenate([[0.0], np.cumsum(snap**2)])
        size = np.sqrt((power[part.size :] - power[: -part.size]) * (part @ part))
        alike = fftconvolve(snap, part[::-1], "valid") / np.maximum(size, 1e-9)
        best = max(best, alike.max(), alike.min(), key=abs)
    return best


def test_a_take_is_aligned_and_heard_and_a_track_flipped_while_it_plays_without_a_gap(
    someone, take
):
    someone.page.add_init_script(LISTEN_IN)
    page = someone.open("hits")
    page.get_by_role("radio", name="Takes").click()
    page.get_by_label("Sound files").set_input_files(take)
    says = page.locator("[data-says]")
    expect(says).to_contain_text("10 of 10 strokes", timeout=60_000)
    # What aligning does is told, and its copies are fetched.
    page.get_by_role("radio", name="Align").click()
    page.get_by_role("button", name="What it does to every pair").click()
    expect(page.locator("[data-effect]")).to_contain_text("arked", timeout=60_000)
    with page.expect_download() as waiting:
        page.get_by_role("link", name="Aligned copies, ZIP").click()
    with zipfile.ZipFile(waiting.value.path()) as made:
        assert made.namelist() == ["aligned.csv", "take.wav"]
    page.get_by_role("radio", name="Listen").click()
    page.get_by_role("radio", name="Snare", exact=True).click()
    page.get_by_role("checkbox", name="equally loud").click()
    page.get_by_role("button", name="SB alone").click()
    assert faults(page) == []
    page.get_by_role("button", name="Play", exact=True).click()
    now = page.locator("[data-clock]")
    expect(now).to_contain_text("hit 2 of 2")
    expect(now).to_contain_text("hit 1 of 2")
    expect(now).to_contain_text("hit 2 of 2")
    turning = page.evaluate(CLOCK)
    page.get_by_role("button", name="SB flip").click()
    flipped = page.evaluate(CLOCK)
    expect(now).to_contain_text("hit 1 of 2")
    expect(now).to_contain_text("hit 2 of 2")
    expect(now).to_contain_text("hit 1 of 2")
    assert now.get_attribute("data-late") == "0"
    heard = sounded(page)
    page.get_by_role("button", name="Stop", exact=True).click()
    expect(page.get_by_text("Silent")).to_be_visible()
    # A stroke that came round again is the same before the flip, and turned over after it.
    before = heard.between(0.0, turning)
    loudest = before[np.abs(before).max(axis=1).argmax()]
    at = min(max(np.abs(loudest).argmax(), 1000), SNAP - 3000)
    stroke = loudest[at - 1000 : at + 3000]
    assert likeness(stroke, heard.between(flipped)) < -0.999
    assert likeness(stroke, before) > 0.999
    # From one flip to the next there is no silent millisecond: the tracks hold noise throughout.
    for snap in heard.over(flipped):
        quiet = np.convolve(np.abs(snap) < 1e-9, np.ones(48), "valid")
        assert quiet.max() < 47
    # Kept on the track, with undo.
    page.get_by_role("button", name="Keep this on the tracks: SB").click()
    expect(page.get_by_role("button", name="Undo: Tracks as heard: SB")).to_be_enabled()
    someone.saved()
    assert someone.track("SB")["track_flip"]


def test_two_takes_are_heard_against_each_other_stroke_by_stroke(someone, take, tmp_path):
    layout = Layout.model_validate(someone.doc())
    folder = tmp_path / "right"
    folder.mkdir()
    (right,), _ = recorded(folder, Wrong(), layout=layout, each=2, one_file=True)
    right = right.rename(tmp_path / "right.wav")
    someone.page.add_init_script(LISTEN_IN)
    page = someone.open("hits")
    page.get_by_role("radio", name="Takes").click()
    for file in (right, take):
        page.get_by_label("Sound files").set_input_files(file)
        says = page.get_by_role("region", name=f"What {file.stem} says")
        expect(says.locator("[data-says]")).to_contain_text("10 of 10 strokes", timeout=60_000)
    page.get_by_role("radio", name="Listen").click()
    page.get_by_role("radio", name="Snare", exact=True).click()
    page.get_by_role("checkbox", name="equally loud").click()
    page.get_by_role("button", name="SB alone").click()
    page.get_by_role("button", name="B as planned").click()
    pick(page.get_by_label("Take of B"), "right")
    # Of one performance, but for the wire that was turned over.
    expect(page.locator("[data-two-takes]")).to_contain_text("within 0.0 dB", timeout=60_000)
    assert faults(page) == []
    now = page.locator("[data-clock]")

    def round_of(side):
        page.keyboard.press(side)
        turned = page.evaluate(CLOCK)
        for _ in range(2):
            expect(now).to_contain_text("hit 2 of 2")
            expect(now).to_contain_text("hit 1 of 2")
        return turned, page.evaluate(CLOCK)

    for _ in range(3):  # where a busy machine was too slow for one, the next is asked
        page.get_by_role("button", name="Play", exact=True).click()
        theirs, ours = round_of("b"), round_of("a")
        late = now.get_attribute("data-late")
        page.get_by_role("button", name="Stop", exact=True).click()
        if late == "0":
            break
    assert late == "0"
    heard = sounded(page)
    other, own = heard.between(*theirs), heard.between(*ours)
    loudest = other[np.abs(other).max(axis=1).argmax()]
    at = min(max(np.abs(loudest).argmax(), 1000), SNAP - 3000)
    stroke = loudest[at - 1000 : at + 3000]
    assert likeness(stroke, other) > 0.999
    assert likeness(stroke, own) < -0.99
    # Nothing is kept on the tracks of what another take was given; back to one take.
    page.keyboard.press("b")
    page.get_by_role("button", name="Stop", exact=True).click()
    page.get_by_role("button", name="SB flip").click()
    expect(page.get_by_role("button", name="Keep this on the tracks")).to_have_count(0)
    expect(page.locator("[data-side=B]")).to_contain_text("right, as planned, changed")
    pick(page.get_by_label("Take of B"), "take")
    expect(page.locator("[data-two-takes]")).to_have_count(0)
    expect(page.locator("[data-side=B]")).to_have_text("B as planned")


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


def test_tracks_on_each_others_names_are_told_and_kept_as_what_they_hold(someone, tmp_path):
    layout = Layout.model_validate(someone.doc())
    row = ("T1", "T2", "FT", "HH")
    files, _ = recorded(tmp_path, Wrong(shifted=(row,)), layout=layout, each=2, one_file=True)
    page = someone.open("hits")
    page.get_by_role("radio", name="Takes").click()
    page.get_by_label("Sound files").set_input_files(files[0])
    reason = page.locator("[data-reason=swapped]")
    expect(reason).to_contain_text(
        "T1 is on the track of T2, T2 on that of FT and FT on that of HH", timeout=60_000
    )
    expect(reason).to_contain_text("Move the plugs one back, and find that of HH")
    page.get_by_role("radio", name="Tracks").click()
    sixth = page.locator("[data-track-of='take.wav, 6']")
    expect(sixth).to_contain_text("by what it holds")
    expect(page.locator("[data-track-of='take.wav, 1']")).to_contain_text("by its number")
    reason.get_by_role("button", name="Only the names are wrong").click()
    expect(sixth).to_contain_text("as you said", timeout=60_000)
    expect(reason).to_have_count(0)
    held = ("HH", "T1", "T2", "FT")
    assert takes(someone)[0]["channels"] == {
        f"take.wav, {n}": name for n, name in zip(range(5, 9), held, strict=True)
    }
    # What no track has is told as any that is silent.
    expect(page.locator("[data-reason=dead]")).to_contain_text("HH holds no drum.")
    assert faults(page) == []


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
    # Refused, not held: what is held goes through when the page closes.
    page.route("**/api/takes/*/files/0?at=1000000", lambda route: route.abort())
    page.get_by_label("Sound files").set_input_files(noise)
    expect(page.get_by_text("The line is cut; it goes on by itself")).to_be_visible()
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
