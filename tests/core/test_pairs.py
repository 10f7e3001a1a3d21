"""Verdicts: what a practitioner would expect, and what must never change them."""

from dataclasses import asdict

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ringside.answers.board import FocusOn, board, focus_on
from ringside.answers.report import report
from ringside.answers.rows import flip_effect
from ringside.pairs.analysis import analyse, flipped
from ringside.pairs.counts import counts
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.places.starts import starting_layout
from ringside.plan.layout import Layout
from ringside.plan.spoken import spoken

from tests.core.tracks import with_mic

TURNED = starting_layout("five-piece", "turned pair")
SQUARE = starting_layout("five-piece", "square pair")


def verdict(layout, a, b, source):
    an = analyse(layout)
    row, _ = an.pair_index(a, b)
    return VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, an.scene.sources.ids.index(source)]))]


def test_bottom_mic_is_hollow_until_flipped():
    # Common practice: top and bottom snare mics cancel until one is flipped.
    assert verdict(TURNED, "ST", "SB", "snare") == "hollow"
    assert verdict(with_mic(TURNED, "SB", preamp_flip=True), "ST", "SB", "snare") == "together"
    two = with_mic(TURNED, "SB", preamp_flip=True, cable_inverted=True)
    assert verdict(two, "ST", "SB", "snare") == "hollow"


def test_a_square_pair_is_late_on_the_kick_and_equal_on_the_snare():
    assert verdict(SQUARE, "OL", "OR", "kick") == "late"
    assert verdict(SQUARE, "OL", "OR", "snare") == "together"


def test_a_turned_pair_is_equal_on_both_to_a_tenth_of_a_millimetre():
    an = analyse(TURNED)
    row, _ = an.pair_index("OL", "OR")
    assert np.abs(an.pairs.tape_difference_m[row, :2]).max() < 1e-4
    assert verdict(TURNED, "OL", "OR", "snare") == "together"


def test_a_turned_pair_sees_the_kick_from_two_sides_so_the_ear_is_asked():
    assert verdict(TURNED, "OL", "OR", "kick") == "ask the ear"


def test_far_apart_in_level_does_not_matter():
    assert verdict(TURNED, "KI", "ST", "snare") == "no matter"


def test_a_cymbal_is_never_hollow():
    an = analyse(TURNED)
    cymbals = ~an.scene.sources.drum
    assert not np.isin(an.pairs.verdict[:, cymbals], [Verdict.HOLLOW, Verdict.ASK_THE_EAR]).any()


def test_late_limit_of_a_stereo_pair_is_half_a_wave_of_the_attack():
    # Kick attack to 6 kHz: half a wave there is 1/12000 s, 2.9 cm at 20 °C.
    at = np.array(SQUARE.mic("OL").position_m)
    an = analyse(SQUARE)
    kick = np.array(SQUARE.kit.first("kick").batter_m)
    gap = float(np.linalg.norm(np.array(SQUARE.mic("OR").position_m) - kick))
    for extra, word in ((0.026, "together"), (0.032, "late")):
        unit = (at - kick) / np.linalg.norm(at - kick)
        moved = with_mic(SQUARE, "OL", position_m=tuple(kick + unit * (gap + extra)))
        assert verdict(moved, "OL", "OR", "kick") == word, extra
    assert an.scene.speed / 12000 == pytest.approx(0.0286, abs=1e-4)


def turned_by(layout, angle, shift):
    """The whole kit and every mic turned and moved as one."""
    c, s = np.cos(angle), np.sin(angle)

    def go(v, move=True):
        x, y = c * v[0] - s * v[1], s * v[0] + c * v[1]
        return (x + shift[0] * move, y + shift[1] * move, v[2])

    k = layout.kit
    kit = k.model_copy(update={
        "drums": tuple(d.model_copy(update={"batter_m": go(d.batter_m), "axis": go(d.axis, 0)})
                       for d in k.drums),
        "cymbals": tuple(d.model_copy(update={"centre_m": go(d.centre_m), "axis": go(d.axis, 0)})
                         for d in k.cymbals),
        "stool": k.stool.model_copy(update={"position_m": go((*k.stool.position_m, 0))[:2]}),
    })  # fmt: skip
    mics = tuple(m.model_copy(update={"position_m": go(m.position_m), "aim": go(m.aim, 0)})
                 for m in layout.mics)  # fmt: skip
    return layout.model_copy(update={"kit": kit, "mics": mics})


@settings(max_examples=15, deadline=None)
@given(st.floats(-3, 3), st.tuples(st.floats(-2, 2), st.floats(-2, 2)))
def test_turning_everything_as_one_changes_no_verdict(angle, shift):
    before, after = analyse(SQUARE).pairs, analyse(turned_by(SQUARE, angle, shift)).pairs
    assert (before.verdict == after.verdict).all()


@settings(max_examples=10, deadline=None)
@given(st.permutations(range(10)))
def test_renaming_the_mics_changes_no_verdict(numbers):
    names = {m.id: f"N{n}" for m, n in zip(SQUARE.mics, numbers, strict=True)}
    renamed = SQUARE.model_copy(
        update={
            "channels": (),
            "mics": tuple(m.model_copy(update={"id": names[m.id]}) for m in SQUARE.mics),
            "stereo_pairs": tuple(
                p.model_copy(update={"left": names[p.left], "right": names[p.right]})
                for p in SQUARE.stereo_pairs
            ),
        }
    )
    before, after = analyse(SQUARE).pairs, analyse(renamed).pairs
    assert (before.verdict == after.verdict).all()
    assert (before.counts == after.counts).all()


def test_the_mic_in_most_trouble_is_the_one_whose_pairs_weigh_most():
    an = analyse(SQUARE)
    p, ids = an.pairs, [m.id for m in SQUARE.mics]
    weigh = {Verdict.HOLLOW: 4, Verdict.LATE: 2, Verdict.ASK_THE_EAR: 1}
    for n, name in enumerate(ids):
        own = [weigh.get(v, 0) for v, a, b in zip(p.worst, p.first, p.second, strict=True)
               if n in (a, b)]  # fmt: skip
        assert an.trouble[n] == sum(own), name
    assert ids[int(an.trouble.argmax())] in ("OL", "OR")


def test_a_track_delay_is_time_at_the_track_and_no_sign():
    late = analyse(with_mic(SQUARE, "OR", track_delay_samples=480)).arrivals
    now = analyse(SQUARE).arrivals
    assert late.time_s[9] - now.time_s[9] == pytest.approx(0.01)
    assert (late.sign == now.sign).all()
    assert (late.path_m == now.path_m).all()
    assert (late.level_db == now.level_db).all()


@pytest.mark.parametrize("mic", range(10))
def test_flipping_twice_is_nothing_and_once_matches_the_switch(mic):
    an = analyse(TURNED)
    rows, once = flipped(an, mic)
    switched = analyse(with_mic(TURNED, TURNED.mics[mic].id, track_flip=True)).pairs
    assert len(rows) == len(TURNED.mics) - 1
    assert (once.verdict == switched.verdict[rows]).all()
    assert np.allclose(once.body_db, switched.body_db[rows])
    others = np.delete(np.arange(len(switched.verdict)), rows)
    assert (an.pairs.verdict[others] == switched.verdict[others]).all()
    effect = flip_effect(an, mic)
    hollow = [int((p.worst == Verdict.HOLLOW).sum()) for p in (an.pairs, switched)]
    assert [effect.hollow_before, effect.hollow_after] == hollow
    twice = with_mic(TURNED, TURNED.mics[mic].id, track_flip=True, preamp_flip=True)
    assert (analyse(twice).pairs.verdict == an.pairs.verdict).all()


TURNS = ("tape_difference_m", "delay_s", "delay_samples", "level_difference_db")


def test_naming_a_pair_the_other_way_round_swaps_sides_and_signs_only():
    an = analyse(SQUARE)
    one, two = focus_on(an, FocusOn("OL", "OR", "kick")), focus_on(an, FocusOn("OR", "OL", "kick"))
    assert (two.a, two.b) == ("OR", "OL")
    for x, y in zip(one.rows, two.rows, strict=True):
        assert (y.a, y.b) == ("OR", "OL")
        assert (x.tape_a_m, x.path_a_m) == (y.tape_b_m, y.path_b_m)
        for key in TURNS:
            assert getattr(x, key) == -getattr(y, key)
        for key in ("sign", "first_dip_hz", "body_db", "flipped_body_db", "verdict", "words"):
            assert getattr(x, key) == getattr(y, key)
    assert two.places.mover == "OL"


def test_the_order_of_mics_in_the_layout_changes_nothing():
    turned = Layout(**{**TURNED.__dict__, "mics": tuple(reversed(TURNED.mics))})
    for a, b in (("ST", "OL"), ("SB", "OR"), ("OL", "OR")):
        rows = zip(
            focus_on(analyse(TURNED), FocusOn(a, b)).rows,
            focus_on(analyse(turned), FocusOn(a, b)).rows,
            strict=True,
        )  # fmt: skip
        for x, y in rows:
            assert x.verdict == y.verdict
            for key in ("tape_a_m", *TURNS, "body_db"):
                assert getattr(x, key) == pytest.approx(getattr(y, key))


def test_counts_name_every_pair_once_and_decisions_apart():
    an = analyse(TURNED)
    assert sum(asdict(counts(an)).values()) == 45
    kept = {"a": "ST", "b": "SB", "source": "snare", "reason": "by ear"}
    decided = Layout.model_validate({**TURNED.model_dump(), "decisions": (kept,)})
    assert counts(analyse(decided)).left_on_purpose == 1
    assert counts(analyse(decided)).hollow == counts(an).hollow - 1


def test_every_row_of_the_report_carries_a_sentence_with_its_drum():
    found = report(analyse(SQUARE))
    assert len(found.pairs) == 45 * 9
    names = {s.id: spoken(s.name) for s in found.sources}
    assert all(names[row.source] in row.words for row in found.pairs)


def test_the_board_and_the_report_hold_the_same_numbers():
    an = analyse(SQUARE)
    b, r = board(an, ("OL", "OR", "kick")), report(an)
    flat = [v for row in b.arrival_s for v in row]
    assert np.allclose(flat, [row.arrival_s for row in r.arrivals], atol=1e-7)
    assert [v for row in b.verdict for v in row] == [row.verdict for row in r.pairs]
    assert b.focus.source == "kick"
    assert b.focus.rows[0].delay_samples == pytest.approx(b.focus.rows[0].delay_s * 48000)


def test_a_flip_tells_what_it_would_spoil_before_it_is_taken():
    flips = focus_on(analyse(TURNED), FocusOn("ST", "SB")).flips
    assert {f.mic for f in flips} == {"ST", "SB"}
    assert flips[0].hollow_after <= flips[1].hollow_after  # the better cure first
    sb = next(f for f in flips if f.mic == "SB")
    assert "ST-SB" in sb.cures
    after = analyse(with_mic(TURNED, "SB", preamp_flip=True))
    assert sb.hollow_after == counts(after).hollow
