"""Listening: how loud each channel is, what is looped, that the sound sent is the sound kept."""

import io
from itertools import pairwise

import numpy as np
import pytest
import soundfile
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.plan.balances import Balance, Fader
from ringside.takes.align import AlignRow, align_table, basis_of
from ringside.takes.effect import aligned_layout, effect
from ringside.takes.heardpairs import PairTold
from ringside.takes.listening import COMMON_DB, GROUP, Source, listening, sound_of
from ringside.takes.reading import Corrections, read_take

from tests.core.takes import demo_layout, figures, recorded
from tests.core.tracks import with_mic


@pytest.fixture(scope="module")
def take(tmp_path_factory):
    folder = tmp_path_factory.mktemp("take")
    files, made = recorded(folder, sources=("kick", "snare"), each=2)
    return files, made.layout


def heard(take, **changes):
    files, layout = take
    told = listening(read_take(files, analyse(layout.model_copy(update=changes))))
    return told, {t.channel: t for t in told.tracks}


def peak_db(take, told, name, source):
    """Of one channel in a drum's first loop, as it would be heard, by reading the file itself."""
    track = next(t for t in told.tracks if t.channel == name)
    (begin, count), *_ = next(x.spans for x in told.loops if x.source == source)
    sound, _ = soundfile.read(take[0][track.source.file], start=begin, frames=count)
    return 20 * np.log10(np.abs(sound).max()) + track.gain_db


def test_a_mic_peaks_on_its_own_drum_where_its_fader_says(take):
    told, by = heard(take)
    # The strokes of a drum are not equally hard: within a few decibels of the middle one.
    assert peak_db(take, told, "ST", "snare") == pytest.approx(COMMON_DB, abs=2)
    assert peak_db(take, told, "KI", "kick") == pytest.approx(COMMON_DB, abs=2)
    # Nothing struck the toms: their mics are not brought up to what leaks into them.
    assert peak_db(take, told, "FT", "snare") < COMMON_DB - 8
    down = Balance(id="dry", name="Dry", faders=(
        Fader(channel="ST", db=-6.0), Fader(channel="OL", muted=True)))  # fmt: skip
    _, less = heard(take, balances=(down,), current="dry")
    assert less["ST"].gain_db == pytest.approx(by["ST"].gain_db - 6, abs=0.02)
    assert less["KI"].gain_db == pytest.approx(by["KI"].gain_db, abs=0.02)
    assert (less["OL"].heard, less["OL"].why) == (False, "muted")
    assert less["OR"].heard


def test_pans_are_as_chosen_or_where_the_main_pair_has_the_drum(take):
    _, by = heard(take)
    assert (by["OL"].pan, by["OR"].pan) == (-100, 100)
    x, y, z = take[1].mic("OR").position_m
    lowered = take[1].with_mic(take[1].mic("OR").model_copy(update={"position_m": (x, y, z - 0.3)}))
    _, off = heard(take, mics=lowered.mics)
    for pans in (by, off):  # common practice: in the middle, whatever the pair hears of them
        assert (pans["KI"].pan, pans["ST"].pan) == (0, 0)
    assert by["T1"].pan < 0 < by["FT"].pan  # common practice: from the audience, high to low
    channels = tuple(
        c.model_copy(update={"pan": 30.0, "track_flip": True, "track_delay_samples": 12})
        if c.id == "T1"
        else c
        for c in take[1].channels
    )
    _, by = heard(take, channels=channels)
    assert (by["T1"].pan, by["T1"].flip, by["T1"].later) == (30, True, 12)
    assert (by["T2"].flip, by["T2"].later) == (False, 0)
    pair = take[1].stereo_pairs[0].model_copy(update={"coding": "mid-side"})
    _, by = heard(take, stereo_pairs=(pair,))
    assert [c for c, t in by.items() if t.side] == [pair.right]


def test_a_loop_holds_a_stroke_and_nothing_of_the_next(take):
    files, layout = take
    read = read_take(files, analyse(layout))
    told = listening(read)
    assert [(x.source, len(x.spans)) for x in told.loops] == [("kick", 2), ("snare", 2)]
    # A stroke's loudness is that on its drum's own track, and the first of all is the kick's.
    own = {h.at_s: h.level_db for h in read.hits}
    assert told.loops[1].level_db == pytest.approx(list(own.values())[2:], abs=0.01)
    assert told.first == round(min(own) * told.rate_hz)
    spans = sorted(s for x in told.loops for s in x.spans)
    for (begin, count), hit in zip(spans, read.hits, strict=True):
        assert begin < hit.at_s * told.rate_hz < begin + count
    assert all(b + n <= c for (b, n), (c, _) in pairwise(spans))
    out = read_take(files, analyse(layout), Corrections(drums={read.hits[0].ms: None}))
    assert [len(x.spans) for x in listening(out).loops] == [1, 2]


def kept(path, frames, channels, rate=48000):
    made = np.random.default_rng(3).integers(-20000, 20000, (frames, channels)).astype(np.int16)
    soundfile.write(path, made, rate, "PCM_16")
    return made


def test_the_sound_sent_is_the_sound_kept_and_silence_around_it(tmp_path):
    two = kept(tmp_path / "two.wav", 5000, 2)
    one = kept(tmp_path / "one.wav", 5000, 1)
    sources = [Source(0, 1, 100, 5000), Source(1, 0, 0, 5000), Source(0, 0, 100, 5000)]
    with (tmp_path / "two.wav").open("rb") as a, (tmp_path / "one.wav").open("rb") as b:
        flac = sound_of([a, b, a], sources, 50, 5100, 48000)
    back, rate = soundfile.read(io.BytesIO(flac), dtype="int16")
    assert (back.shape, rate) == ((5100, 3), 48000)
    assert not back[:50, 0].any()  # a file that begins later
    assert (back[50:5050, 0] == two[:, 1]).all()
    assert (back[:4950, 1] == one[50:, 0]).all()
    assert not back[4950:, 1].any()
    assert (back[50:5050, 2] == two[:, 0]).all()


def test_too_much_at_once_and_what_is_no_sound_are_refused(tmp_path):
    source = Source(0, 0, 0, 100)
    junk = io.BytesIO(b"RIFF" + bytes(40))
    with pytest.raises(RingsideError, match="damaged"):
        sound_of([junk], [source], 0, 100, 48000)
    with pytest.raises(RingsideError, match="1 to 8 channels at once, got 9"):
        sound_of([junk] * (GROUP + 1), [source] * (GROUP + 1), 0, 100, 48000)
    with pytest.raises(RingsideError, match="up to 6 s"):
        sound_of([junk], [source], 0, 6 * 48000 + 1, 48000)
    with pytest.raises(RingsideError, match="got 0"):
        sound_of([], [], 0, 100, 48000)


def test_a_drum_that_was_not_hit_is_aligned_by_the_plan():
    layout = demo_layout()
    heard = figures(layout, sources=("kick", "snare"))
    rows = {r.channel: r for r in align_table(basis_of(heard), "OL")}
    an = heard.analysis
    by_hand = an.arrivals.time_s  # the tracks are not delayed in the demo
    ids = [m.id for m in layout.mics]
    ol, ft = ids.index("OL"), ids.index("FT")
    floor = an.source_index("floor")
    behind = (by_hand[ol, floor] - by_hand[ft, floor]) * 48000
    assert rows["FT"].later - rows["OL"].later == pytest.approx(behind, abs=1)
    assert (rows["FT"].by_plan, rows["FT"].on) == (True, ("floor",))
    assert not rows["ST"].by_plan
    # What hears the kit goes by what was hit alone.
    assert set(rows["OR"].on) == {"kick", "snare"}
    # Turned over at its preamp, it is turned back on the track; a flip there already says nothing.
    for over, back in ((False, False), (True, True)):
        turned = with_mic(layout, "T2", preamp_flip=over, track_flip=over)
        told = align_table(basis_of(figures(turned, sources=("kick", "snare"))), "OL")
        assert next(r.flip for r in told if r.channel == "T2") == (rows["T2"].flip ^ back)
    with pytest.raises(RingsideError, match="'floor' was not hit"):
        align_table(basis_of(heard), "OL", on="floor")


def pair(a, b, source, measured, body, counts=True):
    return PairTold(
        a=a, b=b, source=source, planned="together", measured=measured, sure=True, settled=False,
        counts=counts, why="", delay_ms=0.0, interval_ms=0.0, planned_delay_ms=0.0, gain_db=0.0,
        gain_interval_db=0.0, planned_gain_db=0.0, wired_db=[body, 0.0, 0.0],
        flipped_db=[0.0, 0.0, 0.0], level_db=0.0, alike=1.0, stands=None,
    )  # fmt: skip


def test_what_aligning_does_is_told_pair_by_pair():
    before = [pair("ST", "SB", "snare", "hollow", -9.0), pair("ST", "OL", "snare", "together", 2.0),
              pair("T1", "OL", "rack-1", "together", 3.0), pair("KI", "RL", "kick", "late", 0.0,
              counts=False), pair("KO", "T1", "kick", "no matter", 0.0)]  # fmt: skip
    after = [pair("ST", "SB", "snare", "together", 5.9), pair("ST", "OL", "snare", "behind", 4.0),
             pair("T1", "OL", "rack-1", "hollow", -3.0),
             pair("FT", "OL", "floor", "late", 1.0),
             pair("KO", "T1", "kick", "no matter", 3.0)]  # fmt: skip
    told = effect(before, after)
    assert [(c.a, c.b, c.before, c.after) for c in told.cured] == [
        ("ST", "SB", "hollow", "together")
    ]
    assert [(c.a, c.source, c.body_db) for c in told.worse] == [
        ("T1", "rack-1", (3.0, -3.0)),
        ("FT", "floor", (1.0, 1.0)),
    ]
    assert [(c.b, c.body_db) for c in told.body] == [("OL", (2.0, 4.0))]
    assert told.marked == (1, 2)
    assert told.words.startswith("Marked pairs on drums go from 1 to 2. 2 that were well")
    assert effect(before, before).words == "No mark changes; marked before and after: 1."


def test_the_aligned_layout_counts_in_its_own_samples():
    layout = demo_layout().model_copy(update={"sample_rate_hz": 96000})
    rows = [AlignRow("SB", 12.5, True, (), ()), AlignRow("ST", 5.0, True, (), (), "not heard")]
    by = {c.id: c for c in aligned_layout(layout, rows, 48000).channels}
    assert (by["SB"].track_flip, by["SB"].track_delay_samples) == (True, 25)
    assert (by["ST"].track_flip, by["ST"].track_delay_samples) == (False, 0)
