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

from ringside.constants import ZERO_CELSIUS_K
from ringside.pairs import Analysis, pair_alike, verdicts
from ringside.scene import Floats
from ringside.sums import first_dip_hz, sum_db

COVERAGE: Final = 2.0
STEPS: Final = (-1.0, -0.5, 0.5, 1.0)
"""Where in the interval a verdict is asked again."""


def deviation_s(an: Analysis) -> Floats:
    """One standard deviation of every arrival difference, seconds (P, S)."""
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


def tips(an: Analysis) -> NDArray[np.int8]:
    """The gravest other verdict within the interval of each pair and source, (P, S).

    Equal to the verdict itself where nothing in the interval changes it.
    """
    p, s, limits = an.pairs, an.scene.sources, an.layout.thresholds
    found = p.verdict.copy()
    half = COVERAGE * deviation_s(an)
    sign = np.where(s.drum, p.sign, 1)
    gravest = np.full(p.verdict.shape, -1, dtype=np.int8)
    for step in STEPS:
        shift = step * half
        alike = pair_alike(an.arrivals.rays, p.first, p.second, s.body_low, s.body_high, shift)
        gain = sum_db(p.ratio, -p.raw_sign, alike) - sum_db(p.ratio, p.raw_sign, alike)
        dips = first_dip_hz(p.delay_s + shift, p.raw_sign, s.body_low) <= p.band_high_hz
        there = verdicts(
            limits, p.level_difference_db, p.under_db, sign, np.where(s.drum, gain, 0.0), dips
        )
        gravest = np.maximum(gravest, np.where(there != p.verdict, there, -1).astype(np.int8))
    return np.where(gravest >= 0, gravest, found).astype(np.int8)
