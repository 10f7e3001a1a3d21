"""Body against delay, bands, how sure a time is, and decisions that no longer hold."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ringside.edits.balances import with_faders
from ringside.pairs.analysis import analyse
from ringside.pairs.counts import counts
from ringside.pairs.decisions import DecisionRow, decision_rows
from ringside.pairs.delays import CURVE_POINTS, bands_db, body_by_delay
from ringside.pairs.uncertainty import deviation_s, tips
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.places.starts import starting_layout
from ringside.plan.balances import Fader
from ringside.plan.layout import Air, Decision, Stood

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")


def row_of(an, a, b, source):
    row, turned = an.pair_index(a, b)
    return row, an.scene.sources.ids.index(source), turned


def test_the_curve_passes_through_now_and_is_what_a_delayed_track_gives():
    an = analyse(SQUARE)
    row, k, turned = row_of(an, "T1", "OL", "rack-1")
    curve = body_by_delay(an, row, k, turned)
    assert curve.now_db == pytest.approx(an.pairs.body_db[row, k])
    assert curve.flipped_now_db == pytest.approx(an.pairs.flipped_body_db[row, k])
    for samples in (24, 96, 240):
        late = analyse(with_mic(SQUARE, "OL", track_delay_samples=samples))
        expected = float(late.pairs.body_db[row, k])
        found = np.interp(samples / 48000, curve.later_s, curve.wired_db)
        assert found == pytest.approx(expected, abs=0.05)


def test_named_the_other_way_the_curve_is_mirrored():
    an = analyse(SQUARE)
    row, k, _ = row_of(an, "T1", "OL", "rack-1")
    one, two = (body_by_delay(an, row, k, t) for t in (False, True))
    assert one.wired_db == pytest.approx(two.wired_db[::-1], abs=1e-6)
    assert one.equal_s == pytest.approx(-two.equal_s)


def test_half_a_wave_of_the_fundamental_turns_the_body_round():
    # Interference: equal levels half a period apart cancel, a whole period apart add up.
    an = analyse(SQUARE)
    row, k, turned = row_of(an, "OL", "OR", "snare")
    curve = body_by_delay(an, row, k, turned)
    f = an.scene.sources.bands[k].fundamental
    half = np.interp(0.5 / f, curve.later_s, curve.wired_db)
    flipped = np.interp(0.5 / f, curve.later_s, curve.flipped_db)
    assert curve.now_db == pytest.approx(6.02, abs=0.01)
    assert half < 0 < flipped
    assert len(curve.later_s) == CURVE_POINTS
    assert curve.equal_s == pytest.approx(0, abs=1e-6)


def test_words_say_which_cure_is_the_better():
    an = analyse(SQUARE)
    row, k, turned = row_of(an, "ST", "SB", "snare")
    assert body_by_delay(an, row, k, turned).words.startswith("The flip is the better cure")
    # A close mic is moved a hand at most, an overhead as far as sound goes in a millisecond.
    assert body_by_delay(an, row, k, turned).best_move.metres <= 0.1
    row, k, turned = row_of(an, "T1", "OL", "rack-1")
    assert 0.1 < body_by_delay(an, row, k, turned).best_move.metres < 0.35
    row, k, turned = row_of(an, "OL", "OR", "snare")
    assert "leave it" in body_by_delay(an, row, k, turned).words
    row, k, turned = row_of(an, "OL", "OR", "ride")
    assert "no body to lose" in body_by_delay(an, row, k, turned).words
    late = analyse(with_mic(SQUARE, "OR", track_delay_samples=40))
    row, k, turned = row_of(late, "OL", "OR", "snare")
    assert body_by_delay(late, row, k, turned).words.startswith("The move is the better cure")


def test_bands_of_a_pair_against_a_sum_over_frequencies():
    an = analyse(SQUARE)
    row, k, _ = row_of(an, "ST", "SB", "snare")
    dt, g = an.pairs.delay_s[row, k], an.pairs.ratio[row, k]
    turn = an.arrivals.rays.turn[:, k]
    ahead = turn[an.pairs.second[row]] - turn[an.pairs.first[row]]
    assert ahead < -0.03  # nearness turns the top mic's low end further than the bottom's
    rows = {r.band: r for r in bands_db(an, row, k)}
    assert list(rows) == ["body", "attack", "air"]
    for r in rows.values():
        f = np.linspace(r.low_hz, r.high_hz, 20001)
        for sign, key in ((1, "wired_db"), (-1, "flipped_db")):
            way = sign * an.pairs.raw_sign[row, k]
            power = np.mean(np.abs(1 + way * g * np.exp(1j * (ahead - 2 * np.pi * f * dt))) ** 2)
            assert getattr(r, key) == pytest.approx(10 * np.log10(power), abs=0.05)
    assert rows["body"].wired_db == pytest.approx(an.pairs.body_db[row, k])


def test_a_flip_costs_nothing_in_the_air_once_the_two_are_a_wave_apart():
    # Above the first few dips the comb averages out: both polarities keep the same energy.
    an = analyse(SQUARE)
    row, k, _ = row_of(an, "T1", "OL", "rack-1")
    air = bands_db(an, row, k)[2]
    assert air.wired_db == pytest.approx(air.flipped_db, abs=0.1)


def test_the_deviation_against_shaken_layouts():
    # Monte Carlo: every capsule 5 mm off along each of its lines, the strike and the air too.
    rng = np.random.default_rng(4)
    an = analyse(SQUARE)
    row, k, _ = row_of(an, "OL", "OR", "kick")
    strike, c0 = an.scene.sources.strike[k], an.scene.speed
    axis = an.scene.sources.axis[k]
    at = [np.array(SQUARE.mic(m).position_m) for m in ("OL", "OR")]
    limits = SQUARE.thresholds
    times = []
    for _ in range(6000):
        off = rng.normal(size=3) * limits.strike_spread_m / np.sqrt(2)
        hit = strike + off - axis * float(off @ axis)
        c = c0 * np.sqrt((293.15 + rng.normal() * limits.air_error_c) / 293.15)
        d = [np.linalg.norm(hit - p) + rng.normal() * limits.tape_error_m for p in at]
        times.append((d[1] - d[0]) / c)
    # The two stand on either side of the kick's own plane, so only straight paths are compared.
    assert an.arrivals.path_m[[8, 9], k].tolist() == pytest.approx(
        [float(np.linalg.norm(strike - p)) for p in at], rel=0.2
    )
    assert float(deviation_s(an)[row, k]) == pytest.approx(float(np.std(times)), rel=0.1)


def test_with_nothing_unsure_nothing_tips():
    still = SQUARE.thresholds.model_copy(
        update={"tape_error_m": 0.0, "air_error_c": 0.0, "strike_spread_m": 0.0}
    )
    an = analyse(SQUARE.model_copy(update={"thresholds": still}))
    assert not deviation_s(an).any()
    assert (tips(an) != an.pairs.verdict).any()  # by tuning alone
    tuned = replace(an.scene.sources, tuning=np.zeros(len(an.scene.sources.ids)))
    an = replace(an, scene=replace(an.scene, sources=tuned))
    assert (tips(an) == an.pairs.verdict).all()


def test_a_verdict_near_its_limit_says_it_could_tip():
    # Half a wave of the snare's attack, 8 kHz, is 2.1 cm: a pair 2.0 cm apart is on the edge.
    snare = np.array(SQUARE.kit.first("snare").batter_m)
    at = np.array(SQUARE.mic("OR").position_m)
    unit = (at - snare) / np.linalg.norm(at - snare)
    an = analyse(with_mic(SQUARE, "OR", position_m=tuple(at + 0.020 * unit)))
    row, k, _ = row_of(an, "OL", "OR", "snare")
    assert VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, k]))] == "together"
    assert VERDICT_WORDS[Verdict(int(tips(an)[row, k]))] == "late"
    sure = analyse(SQUARE)
    assert tips(sure)[row, k] == sure.pairs.verdict[row, k]


@settings(max_examples=10)
@given(st.floats(0.001, 0.03), st.floats(-10, 40))
def test_worse_tapes_are_less_sure(error, celsius):
    limits = SQUARE.thresholds.model_copy(update={"tape_error_m": error})
    layout = SQUARE.model_copy(update={"thresholds": limits, "air": Air(temperature_c=celsius)})
    worse = limits.model_copy(update={"tape_error_m": error * 1.5})
    one = deviation_s(analyse(layout))
    two = deviation_s(analyse(layout.model_copy(update={"thresholds": worse})))
    assert (two > one).all()


def left(an, a, b, source):
    row, k, turned = row_of(an, a, b, source)
    stood = Stood(
        verdict=VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, k]))],
        delay_s=(-1 if turned else 1) * float(an.pairs.delay_s[row, k]),
        body_db=float(an.pairs.body_db[row, k]),
    )
    return Decision(a=a, b=b, source=source, reason="KI carries the kick", stood=stood)


def test_a_decision_is_flagged_when_the_layout_changes_under_it():
    kept = SQUARE.model_copy(update={"decisions": (left(analyse(SQUARE), "OR", "OL", "kick"),)})
    assert decision_rows(analyse(kept)) == [
        DecisionRow(a="OR", b="OL", source="kick", stale=False, words="")
    ]
    x, y, z = SQUARE.mic("OR").position_m
    moved = with_mic(kept, "OR", position_m=(x + 0.2, y, z))
    assert "now it is" in decision_rows(analyse(moved))[0].words
    nudged = with_mic(kept, "OR", position_m=(x, y + 0.004, z))
    assert not decision_rows(analyse(nudged))[0].stale
    equal = with_mic(kept, "OR", track_delay_samples=29)
    words = decision_rows(analyse(equal))[0].words
    assert words == "It was late when it was left; now it is together. Look again."
    # Muted there is nothing to look at; the decision stays.
    off = with_faders(moved, (Fader(channel="OR", muted=True),))
    assert decision_rows(analyse(off))[0].words == ""
    assert counts(analyse(kept)).left_on_purpose == 1
