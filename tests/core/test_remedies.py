"""Remedies: each is tried on the whole, told in stand terms, and ranked by what it does."""

import numpy as np
import pytest
from ringside.answers.remedies import remedies as of_analysis
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.pairs.effects import EffectRow
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.places.loci import ring_through
from ringside.places.starts import starting_layout
from ringside.places.steps import stand_steps
from ringside.plan.hanging import with_channels, with_mics
from ringside.plan.references import references

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")


def remedies(layout, *pair):
    return of_analysis(analyse(layout), *pair)


def by_kind(layout, *pair):
    return {(r.kind, of(r)): r for r in remedies(layout, *pair).remedies}


def of(row):
    """The first mic that a remedy changes."""
    return row.mics[0].id if row.mics else row.channels[0].mic


def applied(layout, row):
    return with_channels(with_mics(layout, tuple(row.mics)), tuple(row.channels))


def test_the_bottom_mic_is_cured_by_a_flip():
    # Common practice: flip one of the two snare mics, whichever does the others more good.
    found = remedies(SQUARE, "ST", "SB")
    assert (found.verdict, found.source) == ("hollow", "snare")
    first = found.remedies[0]
    assert first.kind == "flip"
    assert first.verdict == "together"
    assert found.words == f"{first.words} It does the most good over all pairs."
    assert EffectRow(a="ST", b="SB", source="snare", before="hollow", after="together") in (
        first.improves
    )


@pytest.mark.parametrize("pair", [("ST", "SB"), ("OL", "OR", "kick"), ("T1", "OL")])
def test_every_remedy_does_what_it_says(pair):
    found = remedies(SQUARE, *pair)
    before = analyse(SQUARE)
    k = before.scene.sources.ids.index(found.source)
    row, _ = before.pair_index(*pair[:2])
    for r in found.remedies:
        after = analyse(applied(SQUARE, r))
        assert VERDICT_WORDS[Verdict(int(after.pairs.verdict[row, k]))] == r.verdict
        assert float(after.pairs.body_db[row, k]) == pytest.approx(r.body_db)
        better = {(x.a, x.b) for x in r.improves}
        worse = {(x.a, x.b) for x in r.spoils}
        ids = [m.id for m in SQUARE.mics]
        changed = np.flatnonzero(after.pairs.worst != before.pairs.worst)
        named = {(ids[before.pairs.first[n]], ids[before.pairs.second[n]]) for n in changed}
        told = better | worse
        assert told <= named
        # Between "no matter", "behind" and "together" nothing is gained or lost.
        quiet = {Verdict.NO_MATTER, Verdict.BEHIND, Verdict.TOGETHER}
        for n in changed:
            pair_ = (ids[before.pairs.first[n]], ids[before.pairs.second[n]])
            if pair_ not in told:
                assert {before.pairs.worst[n], after.pairs.worst[n]} <= quiet


def test_a_step_that_helps_all_pairs_says_so():
    found = remedies(SQUARE, "T1", "OL")
    best = found.remedies[0]
    assert best.score < 0
    assert best.own < 0
    assert found.words == f"{best.words} It does the most good over all pairs."


def test_a_late_pair_is_made_equal_by_a_move_or_by_samples():
    rows = by_kind(SQUARE, "OL", "OR", "kick")
    move, delay = rows["equal", "OL"], rows["delay", "OR"]
    assert (move.verdict, delay.verdict) == ("together", "together")
    assert abs(move.delay_s) < 1e-6
    assert abs(delay.delay_s) < 0.5 / 48000
    assert delay.words == "Delay OR by 29 samples after recording."
    assert delay.channels[0].track_delay_samples == 29
    after = analyse(applied(SQUARE, delay))  # what was equal is not any more
    row, _, k = after.find("OL", "OR")
    assert (after.scene.sources.ids[k], after.pairs.verdict[row, k]) == ("snare", Verdict.LATE)


def test_a_delay_is_taken_off_the_late_one_first():
    delayed = with_mic(SQUARE, "OL", track_delay_samples=50)
    rows = remedies(delayed, "OL", "OR", "snare").remedies
    said = next(r for r in rows if r.kind == "delay")
    assert said.words == "Take 50 samples of delay off OL."
    assert [c.track_delay_samples for c in said.channels] == [0]


def test_a_swing_ends_on_the_ring():
    x, y, z = SQUARE.mic("OR").position_m
    off = with_mic(SQUARE, "OR", position_m=(x + 0.05, y - 0.30, z))
    swing = by_kind(off, "OL", "OR", "kick")["swing", "OR"]
    ref = references(off)
    spot = np.array(swing.mics[0].position_m)
    for point in (ref.snare, ref.kick):
        assert np.linalg.norm(spot - point) == pytest.approx(
            np.linalg.norm(np.array(off.mic("OL").position_m) - point), abs=2e-4
        )
    assert ring_through(ref.snare, ref.kick, spot).ring is not None
    assert swing.verdict in ("together", "ask the ear")


def test_the_school_breaks_ties_and_held_mics_are_left_alone():
    assert remedies(SQUARE, "ST", "SB").school == "placed"
    aligned = SQUARE.model_copy(update={"timing": "aligned"})
    assert remedies(aligned, "ST", "SB").school == "aligned"
    held = with_mic(SQUARE, "SB", locks=("right", "polarity"))
    kinds = {(r.kind, of(r)) for r in remedies(held, "ST", "SB").remedies}
    assert not {k for k in kinds if k[1] == "SB" and k[0] != "delay"}


def test_what_makes_the_pair_itself_worse_is_never_first():
    for pair in (("OL", "OR", "kick"), ("T1", "OL"), ("KI", "OL", "kick")):
        rows = remedies(SQUARE, *pair).remedies
        assert rows[0].own <= 0
        assert rows[-1].own >= rows[0].own


def test_while_a_sign_is_unsure_no_body_is_promised():
    found = remedies(SQUARE, "KO", "OL", "kick")
    assert found.verdict == "ask the ear"
    assert "The sign is unsure" in found.words
    for r in found.remedies:
        assert r.body_gain_db is None
        assert r.kind != "line"


def test_what_is_as_good_as_at_once_is_not_moved():
    # Equal on the snare: ten samples late is outside what tape and strike leave unsure, one not.
    for samples, offered in ((0, False), (1, False), (10, True)):
        late = with_mic(SQUARE, "OR", track_delay_samples=samples)
        rows = remedies(late, "OL", "OR", "snare").remedies
        assert any(r.kind in ("equal", "delay") for r in rows) is offered, samples


def test_close_mics_are_not_carried_off():
    for mic in (r.mics[0] for r in remedies(SQUARE, "T1", "OL").remedies if r.mics):
        gone = np.linalg.norm(np.subtract(mic.position_m, SQUARE.mic(mic.id).position_m))
        assert gone <= (0.1 if mic.role == "close" else 0.6)


def test_a_mic_on_the_floor_is_not_lifted_off_it():
    for height, moves in ((0.01, set()), (0.08, {"equal", "snare only"})):
        low = with_mic(SQUARE, "OR", position_m=(0.6, 1.6, height), role="room")
        rows = remedies(low, "OL", "OR", "kick").remedies
        own = {r.kind for r in rows if of(r) == "OR"}
        assert own - {"flip", "delay"} == moves, height


def test_steps_of_the_stand_add_up_to_the_move():
    to = (0.9, 0.1, 1.9)
    steps = {s.way: s.metres for s in stand_steps(SQUARE, "OR", to)}
    by = np.subtract(to, SQUARE.mic("OR").position_m)
    assert steps["up"] == pytest.approx(by[2])
    known = {"up", "boom out", "boom in", "to the drummer's right", "to the drummer's left",
             "toward the audience", "toward the drummer"}  # fmt: skip
    assert set(steps) <= known
    assert stand_steps(SQUARE, "OR", SQUARE.mic("OR").position_m) == []
    over = with_mic(SQUARE, "OR", position_m=(0.0, 0.0, 1.8))
    ways = [s.way for s in stand_steps(over, "OR", (0.1, 0.0, 1.8))]
    assert ways == ["to the drummer's right"]


def test_wrong_names_are_told():
    with pytest.raises(RingsideError, match="two mics of this layout"):
        remedies(SQUARE, "OL", "OL")
    with pytest.raises(RingsideError, match="a drum or cymbal of the kit"):
        remedies(SQUARE, "OL", "OR", "gong")


def test_what_a_stereo_pair_keeps_goes_before_a_single_drum():
    # The left overhead against the first rack tom: nobody moves or flips one overhead for it.
    found = remedies(SQUARE, "T1", "OL", "rack-1")
    last = len(found.remedies)
    whole = [n for n, r in enumerate(found.remedies) if not r.breaks and not r.blocked]
    first_broken = min((n for n, r in enumerate(found.remedies) if r.breaks), default=last)
    assert whole
    assert max(whole) < first_broken
    assert of(found.remedies[0]) != "OL"
    alone = [r for r in found.remedies if r.kind == "flip" and of(r) == "OL"]
    assert [r.breaks for r in alone] == ["Overheads would push opposite ways."]
    moved = [r for r in found.remedies if r.kind in ("line", "equal") and of(r) == "OL"]
    assert all(r.breaks == "Overheads would no longer be equal on the snare." for r in moved)


def test_a_remedy_within_the_pair_that_makes_it_equal_breaks_nothing():
    # Both swing to equal on the kick; the snare is kept: the ring is where both are.
    rows = by_kind(SQUARE, "OL", "OR", "kick")
    assert rows["equal", "OL"].breaks == "Overheads would no longer be equal on the snare."
    shifted = with_mic(SQUARE, "OR", track_delay_samples=40)
    cured = remedies(shifted, "OL", "OR", "snare").remedies[0]
    assert (cured.kind, cured.breaks) == ("delay", "")
