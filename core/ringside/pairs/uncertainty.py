"""How sure a time and a verdict are: tape, air, where the stick lands, and how the drum is tuned.

One standard deviation of an arrival difference is the root of three squares:

- tape: each capsule's distance is good to `tape_error_m`, so √2 of it over c; as it stands, what
  the readings leave open (`Analysis.doubt_m`);
- air: c goes with the square root of the absolute temperature, so a share δT/(2T) of Δt;
- strike: a hit that lands off the centre by `strike_spread_m` (root mean square, any way in
  the head) changes the two paths by the part of the difference of their directions that lies
  in the head.

How well a drum's tuning is known is a doubt of its own (:data:`ringside.hear.bands.TUNING_SPREAD`):
it moves the bands a pair is judged in, not the times.

An interval is two of them either way, about 95 in 100 (JCGM 100:2008, coverage factor 2).
Levels and signs are taken as they stand; the sign has its own "unsure".
"""

from typing import Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats, Ints, dot
from ringside.constants import ZERO_CELSIUS_K
from ringside.hear.sums import first_dip_hz, sums_db
from ringside.pairs.analysis import Analysis, alike_at
from ringside.pairs.verdicts import Facts, Kind, Verdict, verdicts

COVERAGE: Final = 2.0
INTERVAL_STEPS: Final = (-1.0, -0.5, 0.5, 1.0)
"""Where in the interval a verdict is asked again."""


def deviation_s(an: Analysis) -> Floats:
    """One standard deviation of every arrival difference.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    ndarray, shape (P, S)
        Seconds.
    """
    p, s, limits = an.pairs, an.scene.sources, an.layout.thresholds
    c = an.scene.speed
    apart_m = np.sqrt(2) * limits.tape_error_m if an.doubt_m is None else an.doubt_m
    tape = apart_m / c
    kelvin = an.layout.air.temperature_c + ZERO_CELSIUS_K
    air = np.abs(p.delay_s - _track(an)) * limits.air_error_c / (2 * kelvin)
    to = an.arrivals.toward
    unit = to / np.maximum(np.sqrt(dot(to, to)), 1e-9)[..., None]
    apart = unit[p.second] - unit[p.first]
    out = dot(apart, s.axis)
    in_head = np.sqrt(np.maximum(dot(apart, apart) - out**2, 0.0))
    strike = limits.strike_spread_m / np.sqrt(2) * in_head / c
    return np.asarray(np.sqrt(tape**2 + air**2 + strike**2))


def _track(an: Analysis) -> Floats:
    """The part of each difference that is put on tracks, which no air changes, (P, 1)."""
    late, p = an.scene.track_delay, an.pairs
    return np.asarray((late[p.second] - late[p.first])[:, None])


def tips(an: Analysis, half_s: Floats | None = None) -> NDArray[np.int8]:
    """The gravest other verdict within the interval of each pair and source.

    Equal to the verdict itself where nothing in the interval changes it. `half_s` is half of
    every interval, (P, S), where it is known already.

    Parameters
    ----------
    an : Analysis
    half_s : ndarray, shape (P, S), optional
        Half of every interval, seconds, where it is known already.

    Returns
    -------
    ndarray of int8, shape (P, S)
        Equal to the verdict itself where nothing in the interval changes it.
    """
    p = an.pairs
    verdict = p.verdict.copy()
    # Levels and unsure signs stand whatever time and tuning are; of a comb nobody hears, no word.
    rows, k = np.nonzero((verdict != Verdict.NO_MATTER) & (verdict != Verdict.ASK_THE_EAR))
    if len(rows) == 0:
        return verdict
    half = (COVERAGE * deviation_s(an) if half_s is None else half_s)[rows, k]
    n, now = len(INTERVAL_STEPS), verdict[rows, k]
    steps = np.repeat(INTERVAL_STEPS, len(rows))
    there = _verdict_at(an, np.tile(rows, n), np.tile(k, n), steps, np.tile(half, n)).reshape(n, -1)
    turned = (there != now) & (np.maximum(there, now) > Verdict.TOGETHER)
    gravest = np.where(turned, there, -1).max(axis=0)
    verdict[rows, k] = np.where(gravest >= 0, gravest, now)
    return verdict


def _verdict_at(an: Analysis, rows: Ints, k: Ints, steps: Floats, half: Floats) -> NDArray[np.int8]:
    """The verdict on pairs and sources by number, (N,), so many half intervals away."""
    p, s = an.pairs, an.scene.sources
    at = (rows, k)
    delay, raw, kind = p.delay_s[at], p.raw_sign[at], p.kind[rows]
    # Bands go with the fundamental, so a body tuned higher by a share is one delayed by that share.
    tuned = np.hypot(half, COVERAGE * s.tuning[k] * delay)
    alike = alike_at(an.arrivals.rays, p.first[rows], p.second[rows], k, s.body_low[k],
                     s.body_high[k], steps * tuned)  # fmt: skip
    body, flipped = sums_db(p.ratio[at], raw, alike)
    later = delay + steps * np.where(kind == Kind.SAME, tuned, half)
    sign = np.where(kind == Kind.DECODED, 0, p.sign[at])
    dips = first_dip_hz(later, sign, s.body_low[k]) <= p.band_high_hz[at]
    facts = Facts(
        kind, s.drum[k], p.level_difference_db[at], p.share[at], alike, later, p.sign[at],
        flipped - body, dips,
    )  # fmt: skip
    return verdicts(an.layout.thresholds, facts)
