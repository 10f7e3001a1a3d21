"""Dips, ripple and body against theory and against summed waveforms."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ringside.hear.sums import (
    body_db,
    curve_db,
    first_dip_hz,
    likeness,
    likeness_of,
    ripple_db,
    sums_db,
    turns_of,
)
from ringside.pairs.verdicts import share_that_takes, swing_db

delay = st.floats(2e-5, 5e-3)


def test_three_to_one():
    # Common practice, the 3-to-1 rule: 9.5 dB down leaves a ripple of 6.0 dB.
    assert 20 * np.log10(3) == pytest.approx(9.5, abs=0.05)
    assert float(ripple_db(1 / 3)) == pytest.approx(6.0, abs=0.05)


def test_equal_levels_double_or_vanish():
    assert float(curve_db(1000, 0.5e-3, 1, 1)) < -60
    assert float(curve_db(2000, 0.5e-3, 1, 1)) == pytest.approx(6.02, abs=0.01)


@given(delay, st.sampled_from([1, -1]), st.floats(0, 2000))
def test_the_first_dip_is_a_dip_and_the_lowest(dt, sign, low):
    f = float(first_dip_hz(dt, sign, low))
    assert f >= low * (1 - 1e-9)
    assert float(curve_db(f, dt, 1, sign)) < -50
    # A fiftieth of a period from a dip the sum is 2·sin(π/50), -18 dB; below that is a dip.
    between = np.linspace(max(low, 1.0), f, 400)
    # Just above `low` may lie the skirt of a dip that is below it.
    between = between[(between < f - 0.02 / dt) & (between > low + 0.02 / dt)]
    if sign < 0:  # the dip at 0 Hz of an inverted sum is polarity, not time
        between = between[between > 0.25 / dt]
    if len(between):
        assert curve_db(between, dt, 1, sign).min() > -18.1


def test_no_delay_has_no_dip():
    assert float(first_dip_hz(0.0, 1)) == np.inf


@given(delay, st.floats(0, 2000))
def test_of_an_unsure_sign_the_lower_dip_counts(dt, low):
    both = [float(first_dip_hz(dt, sign, low)) for sign in (1, -1)]
    assert float(first_dip_hz(dt, 0, low)) == pytest.approx(min(both))


@pytest.mark.parametrize("apart", [0.0, 1e-12, 1e-9, 4e-6, 6e-6, 1e-3, 0.09])
def test_two_of_many_are_as_alike_as_two_alone(apart):
    # 1e-3 radians, where the series takes over, lie at 5 µs in a band of 63 Hz.
    time = np.array([[0.004, 0.021], [0.004 + apart, 0.021 - apart]])
    low, high, ahead = np.array([42.0, 163.0]), np.array([105.0, 325.0]), np.array([[0.2], [0.5]])
    weight = np.array([[1.0, -1.0], [0.5, 0.25]])
    turns = turns_of(time, low, high, ahead, weight)
    alone = likeness(time[1] - time[0], low, high, ahead[1] - ahead[0])
    found = likeness_of(turns, np.array([0]), np.array([1]))
    assert found[0] == pytest.approx(alone * weight[0] * weight[1], abs=1e-11)


@given(st.floats(0.1, 1), st.sampled_from([1, -1]), st.floats(-0.9, 0.9))
def test_turned_over_a_sum_is_that_of_the_other_sign(g, sign, alike):
    wired, flipped = sums_db(g, sign, alike)
    assert 10 ** (wired / 10) == pytest.approx(1 + g * g + 2 * sign * g * alike)
    assert 10 ** (flipped / 10) == pytest.approx(1 + g * g - 2 * sign * g * alike)


@given(st.floats(0, 40))
def test_the_share_that_takes_so_much_takes_so_much(db):
    assert swing_db(share_that_takes(db)) == pytest.approx(db, abs=1e-7)


@given(delay, st.floats(0.1, 1), st.sampled_from([1, -1]))
def test_body_against_a_sum_over_many_frequencies(dt, g, sign):
    f = np.linspace(163, 325, 4001)
    power = np.mean(np.abs(1 + sign * g * np.exp(-2j * np.pi * f * dt)) ** 2)
    assert float(body_db(dt, g, sign, 163, 325)) == pytest.approx(10 * np.log10(power), abs=0.05)


def test_curve_against_the_spectrum_of_two_clicks():
    fs, late = 48000, 24
    clicks = np.zeros(4800)
    clicks[0], clicks[late] = 1.0, -0.7
    spectrum = 20 * np.log10(np.abs(np.fft.rfft(clicks)))
    f = np.fft.rfftfreq(4800, 1 / fs)
    assert np.allclose(curve_db(f, late / fs, 0.7, -1), spectrum, atol=1e-6)
