"""Arrivals, signs and sums of real drums laid on known delays, against independent ways."""

import numpy as np
import pytest
from ringside.takes.hit import BEFORE_S, Cut, Ranges, read_hit
from ringside.takes.pitch import fundamental
from ringside.takes.pooled import pooled
from scipy.signal import (
    butter,
    correlate,
    correlation_lags,
    hilbert,
    resample,
    resample_poly,
    sosfiltfilt,
)

from ops.trial import CONDITIONS, SAMPLES, fundamental_of, sound, trial

pytestmark = pytest.mark.skipif(not SAMPLES.is_dir(), reason="no recordings on this machine")
DRUMS = ("drum_snare_hard", "drum_tom_hi_hard", "drum_tom_lo_soft", "drum_heavy_kick")
HZ = 44100


def ranges(name):
    f = fundamental_of(name)
    return Ranges(f, (f / 2**0.5, f * 2**0.5), (5 * f, 6000.0), (6000.0, 18000.0))


def laid(name, delays, signs=None, noise=1e-5, seed=0):
    """One hit in several tracks, each so many samples (parts, too) later than the first."""
    dry, rate = sound(name)
    length = round((BEFORE_S + 0.3) * rate)
    f = np.fft.rfftfreq(4 * length)
    spectrum = np.fft.rfft(dry[:length], 4 * length)
    start = (BEFORE_S - 0.005) * rate
    tracks = [np.fft.irfft(spectrum * np.exp(-2j * np.pi * f * (start + d)), 4 * length)[:length]
              for d in delays]  # fmt: skip
    dice = np.random.default_rng(seed)
    made = np.array(tracks) * np.array(signs or [1] * len(delays))[:, None]
    made += dice.normal(0, noise, made.shape)
    return Cut(made, rate, round(BEFORE_S * rate), round(0.03 * rate))


@pytest.mark.parametrize("name", DRUMS)
def test_a_clean_delay_is_found_to_a_tenth_of_a_sample(name):
    delays = [0.0, 3.0, 41.37, 170.5, 288.81]
    got = read_hit(laid(name, delays), 0, ranges(name))
    assert got.agreed.all()
    assert got.lag_s * HZ == pytest.approx(delays, abs=0.1)
    # The first half-waves alone are another way to the same, rougher.
    assert got.rough_s * HZ == pytest.approx(delays, abs=2.0)


@pytest.mark.parametrize(("rate", "up"), [(88200, 2), (176400, 4)])
@pytest.mark.parametrize("name", DRUMS)
def test_at_higher_rates_the_same_seconds_are_found(name, rate, up):
    cut = laid(name, [0.0, 41.37, 288.81], [1, -1, 1])
    finer = resample_poly(cut.sound, up, 1, axis=1)
    again = Cut(finer, rate, cut.begins * up, cut.across * up)
    got = read_hit(again, 0, ranges(name))
    assert got.agreed.all()
    assert got.lag_s * HZ == pytest.approx([0.0, 41.37, 288.81], abs=0.1)
    assert got.turned.tolist() == [1, -1, 1]


@pytest.mark.parametrize("name", DRUMS)
def test_an_independent_estimator_says_the_same(name):
    """scipy's plain correlation, 16 times finer: no phase transform, no half-wave."""
    cut = laid(name, [0.0, 63.3])
    fine = resample(cut.sound, 16 * cut.sound.shape[1], axis=1)
    r = correlate(fine[1], fine[0])
    lag = correlation_lags(fine.shape[1], fine.shape[1])[r.argmax()] / 16
    got = read_hit(cut, 0, ranges(name))
    assert got.lag_s[1] * HZ == pytest.approx(lag, abs=0.1)


def test_later_is_above_nothing_and_earlier_below():
    got = read_hit(laid("drum_tom_hi_hard", [100.0, 130.0, 80.0]), 0, ranges("drum_tom_hi_hard"))
    assert got.lag_s * HZ == pytest.approx([0.0, 30.0, -20.0], abs=0.1)


def test_a_track_turned_over_is_minus_and_says_which_way_it_goes_first():
    name = "drum_tom_mid_hard"
    plain = read_hit(laid(name, [0.0, 90.0]), 0, ranges(name))
    over = read_hit(laid(name, [0.0, 90.0], [1, -1]), 0, ranges(name))
    assert plain.turned.tolist() == [1, 1]
    assert over.turned.tolist() == [1, -1]
    assert plain.way[0] == plain.way[1] == over.way[0] == -over.way[1] != 0
    # A drum pushed first is pushed first, whichever file it is in.
    both = read_hit(laid(name, [0.0, 90.0], [-1, -1]), 0, ranges(name))
    assert both.way[0] == -plain.way[0]
    assert both.turned.tolist() == [1, 1]


@pytest.mark.parametrize("delay", [0.0, 55.0])
@pytest.mark.parametrize("sign", [1, -1])
def test_sums_of_a_band_are_those_of_the_filtered_sum(delay, sign):
    """The body of both added and set against each other, by scipy's filter in time."""
    name = "drum_tom_lo_hard"
    cut, want = laid(name, [0.0, delay], [1, sign]), ranges(name)
    got = read_hit(cut, 0, want)
    band = butter(6, want.body, "bandpass", fs=HZ, output="sos")
    a, b = sosfiltfilt(band, cut.sound, axis=1)
    for way in (1, -1):
        p = got.products[0]
        told = 10 * np.log10((p[0, 0] + p[1, 1] + way * 2 * p[0, 1]) / p[0, 0])
        true = 10 * np.log10(np.sum((a + way * b) ** 2) / np.sum(a**2))
        if true > -20:
            assert told == pytest.approx(true, abs=0.35)
        else:
            assert told < -20


@pytest.mark.parametrize("name", DRUMS)
def test_a_fundamental_is_where_the_low_end_turns(name):
    """An independent way: how fast the phase of the low end turns, where it is loud (Hilbert)."""
    (dry, rate), hz = sound(name), fundamental_of(name)
    band = butter(2, (0.7 * hz, 1.4 * hz), "bandpass", fs=rate, output="sos")
    turning = hilbert(sosfiltfilt(band, dry))[round(0.025 * rate) :]
    speed = np.diff(np.unwrap(np.angle(turning))) * rate / (2 * np.pi)
    loud = np.abs(turning[1:]) ** 2
    planned = hz * 1.15  # more than a whole tone off
    found = fundamental(dry, round(0.005 * rate), planned, rate)
    assert found == pytest.approx((speed * loud).sum() / loud.sum(), rel=0.04)


def test_what_has_no_line_has_no_fundamental():
    noise = np.random.default_rng(0).normal(size=15000)
    assert fundamental(noise, 0, 100.0, HZ) is None


def hits(name, delays, noise=1e-5):
    return [read_hit(laid(name, d, noise=noise, seed=n), 0, ranges(name))
            for n, d in enumerate(delays)]  # fmt: skip


def test_hits_that_contradict_each_other_are_refused_and_told():
    name = "drum_tom_hi_hard"
    steady = pooled(0, hits(name, [[0, 50]] * 5), [150.0] * 5)
    assert steady.lag_s[1] * HZ == pytest.approx(50, abs=0.1)
    assert steady.late_why == ("", "")
    torn = pooled(0, hits(name, [[0, 20], [0, 60], [0, 100], [0, 140], [0, 180]]), [None] * 5)
    assert np.isnan(torn.lag_s[1])
    assert torn.late_why[1] == "the hits do not agree with each other"
    assert torn.fundamental_hz is None
    soft = pooled(0, hits(name, [[0, 50]] * 5, noise=0.2), [150.0] * 5)
    assert np.isnan(soft.lag_s[1])
    assert soft.late_why[1] == "too soft over what is there before"


def test_the_spread_over_hits_is_the_interval():
    name, dice = "drum_snare_hard", np.random.default_rng(2)
    off = dice.normal(0, 2.0, 5)
    got = pooled(0, hits(name, [[0, 70 + o] for o in off]), [204.0] * 5)
    assert got.lag_s[1] * HZ == pytest.approx(70 + off.mean(), abs=0.1)
    mean = off.std(ddof=1) / np.sqrt(5) / HZ
    assert got.deviation_s[1] == pytest.approx(np.hypot(mean, 0.00002), rel=0.05)


@pytest.mark.parametrize("condition", CONDITIONS, ids=lambda c: c.name)
def test_seldom_wrong_and_seldom_refused_whatever_is_in_the_way(condition):
    """A short run of what `docs/measuring.md` tells in full; another seed than there."""
    arrivals, signs = trial(condition, 8, seed=2)
    assert arrivals.wrong == 0
    assert signs.wrong <= (0 if condition.ordinary else 2)
    if condition.ordinary:
        assert arrivals.share("refused") < 0.2
        assert signs.share("refused") < 0.2
