"""How sure a time and a verdict are: tape, air and where the stick lands.

One standard deviation of an arrival difference is the root of three squares:

- tape: each capsule's distance is good to `tape_error_m`, so √2 of it over c;
- air: c goes with the square root of the absolute temperature, so a share δT/(2T) of Δt;
- strike: a hit that lands off the centre by `strike_spread_m` (root mean square, any way in
  the head) changes the two paths by the part of the difference of their directions that lies
  in the head.

An interval is two of them either way, about 95 in 100 (JCGM 100:2008, coverage factor 2).
Levels and signs are taken as they stand; the sign has its own "unsure".
"""

from typing import Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats
from ringside.constants import ZERO_CELSIUS_K
from ringside.hear.sums import first_dip_hz, sum_db
from ringside.pairs.analysis import Analysis, alike_at
from ringside.pairs.verdicts import Verdict, verdicts

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
    tape = np.sqrt(2) * limits.tape_error_m / c
    kelvin = an.layout.air.temperature_c + ZERO_CELSIUS_K
    air = np.abs(p.delay_s - _track(an)) * limits.air_error_c / (2 * kelvin)
    to = an.arrivals.toward
    unit = to / np.maximum(np.linalg.norm(to, axis=-1, keepdims=True), 1e-9)
    apart = unit[p.second] - unit[p.first]
    out = np.einsum("psi,si->ps", apart, s.axis)
    in_head = np.sqrt(np.maximum(np.einsum("psi,psi->ps", apart, apart) - out**2, 0.0))
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
    p, s = an.pairs, an.scene.sources
    verdict = p.verdict.copy()
    # Time decides only these; levels and unsure signs stand whatever the time is.
    rows, k = np.nonzero((verdict != Verdict.NO_MATTER) & (verdict != Verdict.ASK_THE_EAR))
    if len(rows) == 0:
        return verdict
    half = (COVERAGE * deviation_s(an) if half_s is None else half_s)[rows, k]
    limits, drum, low = an.layout.thresholds, s.drum[k], s.body_low[k]
    raw, ratio, high = p.raw_sign[rows, k], p.ratio[rows, k], p.band_high_hz[rows, k]
    level, under = p.level_difference_db[rows, k], p.under_db[rows, k]
    now, delay = verdict[rows, k], p.delay_s[rows, k]
    one = np.ones(len(rows), dtype=np.int64)
    gravest = np.full(len(rows), -1, dtype=np.int8)
    for step in INTERVAL_STEPS:
        shift = step * half
        alike = alike_at(an.arrivals.rays, p.first[rows], p.second[rows], k, low, s.body_high[k],
                         shift)  # fmt: skip
        gain = np.where(drum, sum_db(ratio, -raw, alike) - sum_db(ratio, raw, alike), 0.0)
        dips = first_dip_hz(delay + shift, raw, low) <= high
        there = verdicts(limits, level, under, one, gain, dips)
        gravest = np.maximum(gravest, np.where(there != now, there, -1).astype(np.int8))
    verdict[rows, k] = np.where(gravest >= 0, gravest, now)
    return verdict
