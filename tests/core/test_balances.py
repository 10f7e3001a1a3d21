"""How far each channel is up, and what of a pair is heard then."""

import dataclasses
import json

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ringside.answers.options import ranked_options
from ringside.answers.sentences import verdict_words
from ringside.edits.apply import apply
from ringside.edits.balances import Fade, RoomOptions, with_faders
from ringside.errors import RingsideError
from ringside.files.layout import read_layout, write_layout
from ringside.hear.mix import COPY_DB, ROOM_DB, SILENT_DB, UNDER_TOM_DB, ups
from ringside.hear.standins import stand_ins
from ringside.pairs.analysis import analyse
from ringside.pairs.gram import drum_ids, grams
from ringside.pairs.stereo import positions
from ringside.pairs.verdicts import Verdict, swing_db
from ringside.places.starts import starting_layout
from ringside.plan.balances import Fader, Option, OptionSet
from ringside.plan.channels import Crush
from ringside.plan.feeds import feed
from ringside.plan.hanging import (
    track_of,
    with_channels,
    with_flips,
    with_tracks,
    without_channels,
    without_mics,
)
from ringside.plan.layout import VERSION
from ringside.plan.spoken import the
from ringside.techniques.taking import take
from scipy.signal import butter, freqs

from tests.core.test_stored import VERSIONS
from tests.core.tracks import with_each, with_mic

START = starting_layout("five-piece", "turned pair")
ALL = [c.id for c in START.channels]


def faders(layout, **levels):
    return with_faders(layout, tuple(Fader(channel=c, db=db) for c, db in levels.items()))


def muted(layout, *names, on=True):
    return with_faders(layout, tuple(Fader(channel=c, muted=on) for c in names))


def split(layout, mic, **way):
    """The mic's track once more, with fields of the copy as given."""
    copy = track_of(layout.channels, layout.mic(mic)).model_copy(update=way)
    return layout.model_copy(update={"channels": (*layout.channels, copy)})


def level(layout, mic, source):
    an = analyse(layout)
    ids = [m.id for m in layout.mics]
    return an.arrivals.after_gain_db[ids.index(mic), an.scene.sources.ids.index(source)]


def words(layout, a, b, source):
    an = analyse(layout)
    row, _ = an.pair_index(a, b)
    return verdict_words(an, row, an.scene.sources.ids.index(source))


@given(st.floats(-40, 8), st.integers(0, 2**32 - 1))
def test_all_faders_moved_together_change_nothing(by, seed):
    dice = np.random.default_rng(seed)
    levels = dict(zip(ALL, dice.uniform(-20, 4, len(ALL)).tolist(), strict=True))
    before = analyse(faders(START, **levels))
    after = analyse(faders(START, **{c: db + by for c, db in levels.items()}))
    assert np.array_equal(before.pairs.verdict, after.pairs.verdict)
    assert after.arrivals.after_gain_db == pytest.approx(before.arrivals.after_gain_db, abs=1e-9)


@pytest.mark.parametrize("name", ["ST", "HH", "OL"])
def test_a_muted_channel_is_as_good_as_its_mic_away(name):
    off, gone = analyse(muted(START, name)), analyse(without_mics(START, {name}))
    kept = [m.id for m in gone.layout.mics]
    for i, a in enumerate(kept):
        for b in kept[i + 1 :]:
            one, two = off.pair_index(a, b)[0], gone.pair_index(a, b)[0]
            assert off.pairs.verdict[one].tolist() == gone.pairs.verdict[two].tolist(), (a, b)
        silent, _ = off.pair_index(a, name)
        assert (off.pairs.verdict[silent] == Verdict.NO_MATTER).all()
    assert words(muted(START, name), name, "OR", "snare").endswith("not heard.")


def test_the_mix_is_the_sum_of_energies_one_after_the_other():
    # The slow way, with no arrays: 2ab of the pair over the energy of all that is up.
    dice = np.random.default_rng(4)
    layout = faders(START, **dict(zip(ALL, dice.uniform(-15, 3, len(ALL)).tolist(), strict=True)))
    layout = muted(layout, "T2")
    an = analyse(layout)
    ids, k = [m.id for m in layout.mics], an.scene.sources.ids.index("snare")
    size = {m: 0.0 if m == "T2" else 10 ** (level(layout, m, "snare") / 20) for m in ids}
    whole = sum(a * a for a in size.values())
    for a, b in (("ST", "SB"), ("OL", "OR"), ("T1", "OL"), ("T2", "ST")):
        row, _ = an.pair_index(a, b)
        share = 2 * size[a] * size[b] / whole
        assert an.pairs.share[row, k] == pytest.approx(share)
        best, worst = whole + 2 * size[a] * size[b], whole - 2 * size[a] * size[b]
        assert swing_db(an.pairs.share[row, k]) == pytest.approx(10 * np.log10(best / worst))


def test_a_split_is_one_channel_of_the_summed_level():
    # Two alike add as amplitudes: each 6.02 dB down is one at full level.
    half = 20 * np.log10(0.5)
    two = faders(split(START, "KI"), **{"KI": half, "KI.2": half})
    one = faders(START, KI=0.0)
    a, b = analyse(two), analyse(one)
    assert a.arrivals.after_gain_db == pytest.approx(b.arrivals.after_gain_db, abs=1e-9)
    assert np.array_equal(a.pairs.verdict, b.pairs.verdict)


def test_a_copy_turned_over_takes_the_capsule_away_or_turns_it():
    same = faders(split(START, "KI", preamp_flip=True), **{"KI": 0.0, "KI.2": 0.0})
    assert level(same, "KI", "kick") == pytest.approx(SILENT_DB)
    # Louder than the first, it is what is left, the other way round: 10^(6/20) - 1 of it.
    louder = faders(same, **{"KI.2": 6.0})
    left = 20 * np.log10(10 ** (6 / 20) - 1) - 6
    assert level(louder, "KI", "kick") == pytest.approx(left)
    plain = analyse(START)
    assert (analyse(louder).arrivals.raw_sign[0] == -plain.arrivals.raw_sign[0]).all()
    assert analyse(louder).arrivals.raw_sign[1:].tolist() == plain.arrivals.raw_sign[1:].tolist()


def test_a_low_cut_in_a_copy_is_added_with_its_phase():
    # By scipy's filter of the same kind, at the fundamental of the kick.
    layout = split(START, "KI", low_cut_hz=100.0)
    layout = faders(layout, **{"KI": 0.0, "KI.2": 0.0})
    an = analyse(layout)
    f = an.scene.sources.fundamentals[an.scene.sources.ids.index("kick")]
    _, cut = freqs(*butter(2, 2 * np.pi * 100.0, "highpass", analog=True), [2 * np.pi * f])
    both = 20 * np.log10(abs(1 + cut[0]))
    assert level(layout, "KI", "kick") == pytest.approx(both, abs=1e-6)


@pytest.mark.parametrize(("under", "after"), [(0, 0), (-8, -2), (-20, -5), (-21, -6), (-30, -15)])
def test_a_compressor_is_a_line_with_a_bend(under, after):
    # 20 dB under the peak it begins, 4 to 1: d under lies d/4 under while both are above.
    assert Crush(threshold_db=20, ratio=4).after(np.array([float(under)]))[0] == after


def test_a_crushed_channel_raises_what_is_quiet_in_it():
    crushed = with_mic(START, "ST", crush=Crush(threshold_db=40, ratio=4))
    assert level(crushed, "ST", "snare") == pytest.approx(0.0)
    quiet = level(START, "ST", "rack-1")
    assert -40 < quiet < -10
    assert level(crushed, "ST", "rack-1") == pytest.approx(quiet / 4)


def test_what_nobody_sets_is_usual_for_the_role():
    layout = take(starting_layout("five-piece", "turned pair"), "room-bar").layout
    layout = take(layout, "tom-bottom", "floor").layout
    room = next(m.id for m in layout.mics if m.role == "room")
    bottom = layout.mics[-1].id
    layout = split(layout, "KI")
    usual = {u.id: u.db for u in ups(layout)}
    assert (usual["KI"], usual["ST"], usual["OL"]) == (0, 0, 0)
    assert (usual[room], usual[bottom], usual["KI.2"]) == (ROOM_DB, UNDER_TOM_DB, COPY_DB)
    said = {u.id: u.why for u in ups(layout)}
    assert (said[bottom], said[room]) == (
        "under a tom that has a mic on top", "a room mic, under the kit",
    )  # fmt: skip
    # Beyond the middle of the shell it is a bottom mic, before it another top one.
    floor, mic = layout.kit.part("floor"), layout.mic(bottom)
    for part, db in ((0.55, UNDER_TOM_DB), (0.45, 0.0)):
        spot = tuple(b - part * floor.depth_m * a for b, a in zip(floor.batter_m, floor.axis,
                                                                  strict=True))  # fmt: skip
        there = layout.with_mic(mic.model_copy(update={"position_m": spot}))
        assert {u.id: u.db for u in ups(there)}[bottom] == db
    # A cymbal's own mic is under the drums as the cymbal is: hats 100 dB, snare 115 (from memory).
    assert usual["HH"] == -15
    alone = without_mics(layout, {"FT"})
    assert {u.id: u.db for u in ups(alone)}[bottom] == 0  # a bottom-only kit
    said = {u.id: u.set for u in ups(faders(layout, ST=-2.0))}
    assert (said["ST"], said["OL"]) == (True, False)


def test_a_fader_takes_its_group_along_by_as_much_and_stops_at_its_ends():
    grouped = with_each(START, {m: {"group": "Kick"} for m in ("KI", "KO")})
    grouped = faders(grouped, KI=0.0, KO=-6.0, ST=-3.0)

    def after(**how):
        done = apply(grouped, Fade(do="fade", channel="KI", **how)).layout
        return {u.id: u.db for u in ups(done)}

    assert [after(to_db=-4.0)[c] for c in ("KI", "KO", "ST")] == [-4, -10, -3]
    assert [after(by_db=1.0)[c] for c in ("KI", "KO", "ST")] == [1, -5, -3]
    assert after(to_db=-4.2)["KI"] == -4  # half a decibel is the least step
    assert [after(by_db=40.0)[c] for c in ("KI", "KO")] == [12, 12]
    assert [after(by_db=-58.0)[c] for c in ("KI", "KO")] == [-58, -60]
    assert after()["KI"] == 0.0  # its usual
    alone = apply(grouped, Fade(do="fade", channel="ST", by_db=-1.0))
    assert (alone.words, {u.id: u.db for u in ups(alone.layout)}["KO"]) == ("ST at -4.0 dB", -6)


def test_room_techniques_are_offered_as_options_once():
    assert stand_ins(take(START, "room-bar").layout) is None
    two = take(take(START, "room-bar").layout, "room-omnis").layout
    made = apply(two, RoomOptions(do="room-options"))
    (rooms,) = made.layout.options
    assert [o.channels for o in rooms.options] == [tuple(t.mics) for t in two.techniques[-2:]]
    assert stand_ins(made.layout) is None
    with pytest.raises(RingsideError, match="two or more room techniques"):
        apply(made.layout, RoomOptions(do="room-options"))


def with_options():
    layout = START
    for technique in ("room-bar", "room-omnis"):
        layout = take(layout, technique).layout
    rooms = [m.id for m in layout.mics if m.role == "room"]
    sets = OptionSet(
        id="rooms", name="Rooms",
        options=(Option(name="Bar", channels=tuple(rooms[:2])),
                 Option(name="Omnis", channels=tuple(rooms[2:]))),
    )  # fmt: skip
    return layout.model_copy(update={"options": (sets,)}), rooms


def test_of_options_the_first_is_up_and_the_others_are_not_judged():
    layout, (one, two, three, four) = with_options()
    up = {u.id: (u.heard, u.why) for u in ups(layout)}
    assert [up[m][0] for m in (one, two, three, four)] == [True, True, False, False]
    assert up[three][1] == "Bar is used of Rooms"
    an = analyse(layout)
    for a, b in ((one, three), (two, four), (three, four)):
        row, _ = an.pair_index(a, b)
        assert (an.pairs.verdict[row] == Verdict.NO_MATTER).all()
    both = analyse(muted(layout, three, four, on=False))
    assert both.scene.heard.all()


def test_what_is_not_recorded_is_not_heard_and_with_no_tracks_at_all_all_is():
    off = without_channels(START, {"OL"})
    assert words(off, "OL", "OR", "snare") == "OL is not heard."
    assert words(without_channels(START, {"OL", "OR"}), "OL", "OR", "snare") == (
        "OL and OR are not heard."
    )
    none, every = analyse(without_channels(START, set(ALL))), analyse(START)
    assert np.array_equal(none.pairs.verdict, every.pairs.verdict)
    again = with_tracks(none.layout)
    assert [(c.mic, c.input) for c in again.channels] == [(m.id, n) for n, m in enumerate(
        START.mics, 1)]  # fmt: skip


def test_version_1_written_anew_is_analysed_the_same_to_the_last_digit():
    old = (VERSIONS / "layout-1.json").read_text()
    first = read_layout(old)
    again = read_layout(write_layout(first))
    assert json.loads(write_layout(first))["version"] == VERSION
    one, two = analyse(first), analyse(again)
    for part in ("arrivals", "pairs"):
        a, b = getattr(one, part), getattr(two, part)
        for f in dataclasses.fields(a):
            if isinstance(getattr(a, f.name), np.ndarray):
                assert np.array_equal(getattr(a, f.name), getattr(b, f.name)), f.name
    # What stood at the mics stands at their channels.
    was = {m["id"]: m for m in json.loads(old)["mics"]}
    for c in first.channels:
        assert (c.input, c.preamp_flip, c.track_delay_samples, c.pan) == (
            was[c.mic]["channel"], was[c.mic]["preamp_flip"], was[c.mic]["track_delay_samples"],
            was[c.mic]["pan"],
        )  # fmt: skip


def test_tracks_of_version_1_are_in_the_order_of_its_inputs():
    old = json.loads((VERSIONS / "layout-1.json").read_text())
    for n, m in enumerate(old["mics"]):
        m["channel"] = 20 - n if n else None
    found = read_layout(json.dumps(old))
    assert [c.input for c in found.channels] == [*range(21 - len(old["mics"]), 20), None]
    assert found.channels[-1].mic == old["mics"][0]["id"]


def test_a_fault_of_version_1_is_told_where_it_stood():
    old = json.loads((VERSIONS / "layout-1.json").read_text())
    old["mics"][2]["preamp_flip"] = 1
    with pytest.raises(Exception, match=r"^mics\[2\].preamp_flip: expected true or false, got 1"):
        read_layout(json.dumps(old))


def test_flips_turn_every_copy_over_and_a_delay_is_put_on_each():
    layout = with_flips(split(START, "KI"), {"KI"})
    assert [c.preamp_flip for c in feed(layout, "KI").channels] == [True, True]
    late = with_channels(layout, feed(layout, "KI").delayed(7))
    assert [c.track_delay_samples for c in late.channels if c.mic == "KI"] == [7, 7]


def big_session():
    """Twenty-eight mics: what a big session puts up, five room pairs of which one is used."""
    layout = with_flips(starting_layout("five-piece", "turned pair"), {"SB"})
    for technique, target in (
        ("snare-edge", None), ("kick-woofer", None), ("tom-bottom", "rack-1"),
        ("tom-bottom", "rack-2"), ("tom-bottom", "floor"), ("room-bar", None),
        ("room-omnis", None), ("room-crossed-8", None), ("room-far-high", None),
        ("floor-pair", None), ("boundary-room", None),
    ):  # fmt: skip
        layout = take(layout, technique, target).layout
    rooms = [t.mics for t in layout.techniques if layout.mic(t.mics[0]).role == "room"]
    options = tuple(Option(name=" ".join(m), channels=m) for m in rooms)
    sets = (OptionSet(id="rooms", name="Rooms", options=options),)
    return layout.model_copy(update={"options": sets})


def marked(an):
    """Pairs whose worst verdict wants something done."""
    return [r for r in range(len(an.pairs.first)) if an.pairs.worst[r] > Verdict.TOGETHER]


def test_a_big_session_marks_what_the_mix_can_hear_and_no_more():
    layout = big_session()
    assert len(layout.mics) == 28
    an = analyse(layout)
    assert 0 < len(marked(an)) < 40
    limits = layout.thresholds
    for row in marked(an):
        k = an.worst_source[row]
        least = min(limits.takes_db, limits.picture_takes_db)
        assert swing_db(an.pairs.share[row, k]) >= least
    # The options that are not used, all of them muted by name, change nothing.
    spare = [c for o in layout.options[0].options[1:] for c in o.channels]
    assert marked(analyse(muted(layout, *spare))) == marked(an)
    # One close pair alone is all there is of its drum: it is judged by the 3-to-1 rule again.
    two = analyse(without_mics(layout, {m.id for m in layout.mics} - {"T1", "OL"}))
    k = two.scene.sources.ids.index("rack-1")
    assert two.pairs.share[0, k] > an.pairs.share[an.pair_index("T1", "OL")[0], k]


def test_options_are_ranked_by_marks_then_the_snare_then_body():
    layout = big_session()
    rows = ranked_options(layout, "rooms")
    names = [o.name for o in layout.options[0].options]
    assert sorted(r.name for r in rows) == sorted(names)
    assert [r.marked for r in rows] == sorted(r.marked for r in rows)
    # Each is what the layout with it alone up says, by the sums of every pair of mics.
    first = rows[0]
    others = tuple(c for o in layout.options[0].options if o.name != first.name for c in o.channels)
    own = next(o.channels for o in layout.options[0].options if o.name == first.name)
    up = analyse(muted(muted(layout, *others), *own, on=False))
    none = analyse(muted(layout, *others, *own))
    assert first.marked == len(marked(up))
    whole = [np.maximum(grams(an).sum(axis=(1, 2)), 1e-9) for an in (up, none)]
    assert dict(first.drums) == pytest.approx(
        dict(zip(drum_ids(up), 10 * np.log10(whole[0] / whole[1]), strict=True)), abs=0.01
    )
    assert first.drums[0][1] == min(g for _, g in first.drums)
    assert f"{first.marked} pair{'s' if first.marked != 1 else ''} marked" in first.words
    least = layout.kit.part(first.drums[0][0]).name  # by its name, with an article or a number
    assert f"{first.drums[0][1]:+.1f} on {the(least)}; " in first.words
    assert all(r.mono_db is not None and r.central is not None for r in rows)
    alone = Option(name="Left", channels=("OL",)), Option(name="Right", channels=("OR",))
    one = START.model_copy(update={"options": (OptionSet(id="o", name="O", options=alone),)})
    assert [(r.mono_db, r.central) for r in ranked_options(one, "o")] == [(None, None)] * 2
    with pytest.raises(RingsideError, match="a set of options of this layout, got 'halls'"):
        ranked_options(layout, "halls")


def test_the_picture_leans_to_the_side_that_is_up():
    # 7.5 % of the way for each decibel, up to three quarters (Wittek and Theile 2002).
    pair = START.stereo_pairs[0]
    k = analyse(START).scene.sources.ids.index("snare")
    for mic, sign in (("OL", 1), ("OR", -1)):
        percent, lost = positions(analyse(faders(START, **{mic: -6.0})), pair)
        plain, _ = positions(analyse(START), pair)
        assert percent[k] - plain[k] == pytest.approx(sign * 45.0, abs=0.1)
        assert not lost[k]
    hard, _ = positions(analyse(muted(START, "OL")), pair)
    assert hard.tolist() == [100.0] * len(hard)


def test_a_crushed_mic_is_named_where_it_raises_anothers_drum():
    crushed = with_mic(START, "T1", crush=Crush(threshold_db=40, ratio=10))
    assert words(crushed, "ST", "T1", "snare").endswith(
        " T1 is compressed, which raises the snare in it."
    )
    assert "compressed" not in words(crushed, "T1", "OL", "rack-1")
    assert "compressed" not in words(START, "ST", "T1", "snare")
