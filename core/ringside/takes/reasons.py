"""Why a take differs from the plan: the fewest faults that explain most of it, likeliest first.

Every arrival is held against the plan's: what is left is put down to channels that are late, mics
that stand elsewhere, air of another temperature. Each such fault is tried alone on all drums at
once, weighed by how well the plan is known, and the one that explains most is taken; then the next
on what is left, while one explains more than its own freedom would by chance (Bayesian information
criterion: G. Schwarz, Ann. Statist. 6 (1978) 461). A rival that explains it nearly as well is told
with it: a room mic a hand farther off and a track so many samples late look alike.

Signs are explained by the fewest channels turned over.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.constants import ZERO_CELSIUS_K
from ringside.hear.arrivals import Arrivals, arrivals
from ringside.pairs.analysis import Analysis
from ringside.plan.feeds import feeds
from ringside.takes.reading import TakeRead

Kind = Literal["late", "moved", "air"]

PLAN_S: Final = 0.000035
"""One standard deviation of a planned arrival: mics put up by tape, sticks that land off the middle
(1.2 cm)."""

ROUND_S: Final = 0.0005
"""The same where the sound is planned to come round a shell or through it: which of the two heads
a mic beside a drum hears first is not known to better (from trial)."""

REFLECTED_S: Final = 0.0009
"""An arrival so much later than the plan on this drum alone is a reflection's."""

STEP_M: Final = 0.002
FARTHEST_M: Final = 0.6
"""Beyond it a mic was not knocked: it is another plan, or another channel."""

FEWEST_DRUMS: Final = 2
"""One drum alone cannot tell a mic that moved from a track that is late."""

SHORTEST_M: Final = 0.04
LEAST_LATE_S: Final = 0.00012
FEW_S: Final = 0.0006
"""A mic that stands a hand off is likelier than a file late by so little (common practice)."""

UNLIKELY: Final = 8.0
"""Squared standard deviations that speaks against it."""

MOST_FAULTS: Final = 4
RIVAL: Final = 6.0
"""Squared standard deviations: a rival within this is told, too (a ratio of twenty to one)."""

WORTH: Final = 14.0
"""Squared standard deviations a fault explains beyond its freedom before it is told (a chance of
one in a thousand)."""


@dataclass(frozen=True)
class Cause:
    """One fault that explains arrivals."""

    kind: Kind
    track: int
    """By number; -1 for the air."""
    late_s: float
    by_m: Floats  # (3,) metres, where the mic stands from where it was planned
    spread_m: Floats  # (3,) one standard deviation
    explains: float
    """Squared standard deviations."""
    drums: int
    """On how many it was heard."""
    rival: "Cause | None" = None


@dataclass(frozen=True)
class Rows:
    """Arrivals against the plan's, one row for each drum and track: R rows."""

    track: Ints
    own: Ints
    drum: Ints  # by number among the sources
    off_s: Floats  # measured less planned
    weight: Floats  # one over the variance
    slope: Floats  # (R, 3) of the planned arrival of the track's mic over its place, s/m
    own_slope: Floats  # (R, 3) the same of the own track's mic
    path_s: Floats  # planned


def rows_of(take: TakeRead) -> Rows:
    """What was measured against what was planned.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    Rows
    """
    if not take.drums:
        return _NO_ROWS
    an = take.analysis
    mics = np.array(take.mics)
    drums = [d.source for d in take.drums]
    plan = (an.arrivals.time_s - an.scene.track_delay[:, None])[mics][:, drums]
    slopes = _slopes(an)[mics][:, drums]
    known = _known_s(an)[mics][:, drums]
    made: list[tuple[int, int, int, float, float, Floats, Floats, float]] = []
    for n, d in enumerate(take.drums):
        for t in np.flatnonzero(np.isfinite(d.lag_s)):
            if t == d.own:
                continue
            want = float(plan[t, n] - plan[d.own, n])
            planned = known[t, n] ** 2 + (known[d.own, n] ** 2 - PLAN_S**2)
            variance = float(planned + d.deviation_s[t] ** 2)
            made.append((int(t), d.own, d.source, float(d.lag_s[t]) - want, 1 / variance,
                         slopes[t, n], slopes[d.own, n], want))  # fmt: skip
    if not made:
        return _NO_ROWS
    track, own, drum, off, weight, slope, own_slope, path = zip(*made, strict=True)
    return Rows(np.array(track), np.array(own), np.array(drum), np.array(off), np.array(weight),
                np.array(slope), np.array(own_slope), np.array(path))  # fmt: skip


_NONE: Final = np.zeros(0)
_NO_NAMES: Final = np.zeros(0, dtype=np.int64)
_NO_ROWS: Final = Rows(
    _NO_NAMES, _NO_NAMES, _NO_NAMES, _NONE, _NONE, np.zeros((0, 3)), np.zeros((0, 3)), _NONE
)


def _known_s(an: Analysis) -> Floats:
    """One standard deviation of every planned arrival, (M, S), seconds."""
    s = an.scene.sources
    way = np.linalg.norm(an.scene.capsule[:, None] - s.strike, axis=-1)
    straight = np.abs(an.arrivals.path_m - way) < 0.005
    return np.asarray(np.where(straight, PLAN_S, ROUND_S))


def _slopes(an: Analysis) -> Floats:
    """How every planned arrival changes with the place of its mic, (M, S, 3), seconds a metre."""
    scene = an.scene
    made = np.zeros((*an.arrivals.time_s.shape, 3))
    for axis in range(3):
        ends: list[Arrivals] = []
        for way in (1.0, -1.0):
            capsule = scene.capsule.copy()
            capsule[:, axis] += way * STEP_M
            ends.append(arrivals(replace(scene, capsule=capsule), an.layout.thresholds))
        made[..., axis] = (ends[0].time_s - ends[1].time_s) / (2 * STEP_M)
    # What lies on the floor is looked for on it.
    made[[m.lies for m in an.layout.mics], :, 2] = 0.0
    # Where a step changes which way the sound goes, the slope is no slope.
    return np.clip(made, -1 / 300, 1 / 300)


def reflected(rows: Rows, off_s: Floats) -> Mask:
    """Arrivals far later than those of the same track on other drums: of a reflection.

    Parameters
    ----------
    rows : Rows
    off_s : ndarray, shape (R,)
        What of them is not explained.

    Returns
    -------
    ndarray of bool, shape (R,)
    """
    made = np.zeros(len(off_s), dtype=bool)
    for t in np.unique(rows.track):
        mine = np.flatnonzero(rows.track == t)
        made[mine] = off_s[mine] - float(np.median(off_s[mine])) > REFLECTED_S
    return made


def causes(rows: Rows, tracks: int, kelvin: float) -> list[Cause]:
    """The faults that explain the arrivals, the one that explains most first.

    Parameters
    ----------
    rows : Rows
    tracks : int
        How many.
    kelvin : float
        Planned temperature of the air.

    Returns
    -------
    list of Cause
    """
    off = rows.off_s.copy()
    found: list[Cause] = []
    while len(found) < MOST_FAULTS:
        used = ~reflected(rows, off)
        tried = [c for c in _tried(rows, off, used, tracks, kelvin) if not _told(c, found)]
        tried.sort(key=lambda c: -_gain(c))
        if not tried or _gain(tried[0]) < WORTH:
            break
        best = tried[0]
        near = [c for c in tried[1:] if _gain(best) - _gain(c) < RIVAL + UNLIKELY
                and c.track == best.track]  # fmt: skip
        found.append(replace(best, rival=near[0] if near else None))
        off = off - _effect(rows, best, kelvin)
    return found


def _told(cause: Cause, found: Sequence[Cause]) -> bool:
    return any(c.track == cause.track and c.kind == cause.kind for c in found)


def _gain(cause: Cause) -> float:
    """What it explains beyond what its freedom would by chance, and its own likelihood."""
    freedom = {"late": 1, "air": 1, "moved": 3}[cause.kind]
    unlikely = cause.kind == "late" and abs(cause.late_s) < FEW_S
    chance = freedom * float(np.log(max(cause.drums, 2)))
    return cause.explains - chance - (UNLIKELY if unlikely else 0.0)


def _tried(rows: Rows, off: Floats, used: Mask, tracks: int, kelvin: float) -> list[Cause]:
    made = []
    for t in range(tracks):
        sign = (rows.track == t).astype(float) - (rows.own == t)
        mine = used & (sign != 0)
        if not mine.any():
            continue
        made.append(_late(rows, off, mine, t, sign))
        made.append(_moved(rows, off, mine, t))
    made.append(_air(rows, off, used, kelvin))
    return [c for c in made if c is not None]


def _solved(
    slope: Floats, off: Floats, weight: Floats, prior: float
) -> tuple[Floats, Floats, float]:
    """Least squares with a weak prior: the answer, its covariance, and what it explains.

    A single row that disagrees does not decide: rows far off the answer count less (Huber).
    """
    base = np.minimum(off**2 * weight, 9.0).sum()
    w = weight.copy()
    x: Floats = np.zeros(slope.shape[1])
    cov: Floats = np.eye(slope.shape[1])
    for _ in range(6):
        normal = slope.T @ (w[:, None] * slope) + np.eye(slope.shape[1]) / prior**2
        cov = np.asarray(np.linalg.inv(normal))
        x = np.asarray(cov @ (slope.T @ (w * off)))
        off_by = np.abs(off - slope @ x) * np.sqrt(weight)
        w = np.asarray(weight * np.minimum(1.0, 2.0 / np.maximum(off_by, 1e-9)))
    left = off - slope @ x
    return x, cov, float(base - np.minimum(left**2 * weight, 9.0).sum())


def _late(rows: Rows, off: Floats, mine: Mask, t: int, sign: Floats) -> Cause | None:
    x, _, explains = _solved(sign[mine, None], off[mine], rows.weight[mine], 1.0)
    if abs(x[0]) < LEAST_LATE_S:
        return None
    return Cause("late", t, float(x[0]), np.zeros(3), np.zeros(3), _full(rows, off, mine, explains,
                 sign * x[0]), len(set(rows.drum[mine])))  # fmt: skip


def _full(rows: Rows, off: Floats, mine: Mask, capped: float, effect: Floats) -> float:
    """What a fault explains: the capped figure, or the whole where it fits nearly all of it."""
    w = rows.weight[mine]
    before, after = off[mine] ** 2 * w, (off[mine] - effect[mine]) ** 2 * w
    fits = np.mean(after < 9.0) >= 0.6
    return float(before.sum() - after.sum()) if fits and after.sum() < before.sum() else capped


def _moved(rows: Rows, off: Floats, mine: Mask, t: int) -> Cause | None:
    slope: Floats = np.asarray(np.where((rows.track == t)[:, None], rows.slope, 0.0))
    slope = np.asarray(slope - np.where((rows.own == t)[:, None], rows.own_slope, 0.0))
    if len(set(rows.drum[mine])) < FEWEST_DRUMS:
        return None
    x, cov, explains = _solved(slope[mine], off[mine], rows.weight[mine], FARTHEST_M / 2)
    size = float(np.linalg.norm(x))
    if not SHORTEST_M <= size <= FARTHEST_M:
        return None
    whole = _full(rows, off, mine, explains, slope @ x)
    drums = len(set(rows.drum[mine]))
    return Cause("moved", t, 0.0, x, np.sqrt(np.diag(cov)), whole, drums)


def _air(rows: Rows, off: Floats, used: Mask, kelvin: float) -> Cause | None:
    """Air of another temperature: every way takes longer or shorter by one share."""
    slope = -rows.path_s / (2 * kelvin)
    x, _, explains = _solved(slope[used, None], off[used], rows.weight[used], 20.0)
    if not 2.0 <= abs(x[0]) <= 30.0:
        return None
    return Cause("air", -1, float(x[0]), np.zeros(3), np.zeros(3), explains, len(set(rows.drum)))


def _effect(rows: Rows, cause: Cause, kelvin: float) -> Floats:
    """What a fault does to every row, seconds."""
    t = cause.track
    if cause.kind == "air":
        return np.asarray(-rows.path_s / (2 * kelvin) * cause.late_s)
    if cause.kind == "late":
        return np.asarray(((rows.track == t).astype(float) - (rows.own == t)) * cause.late_s)
    mine = np.where((rows.track == t)[:, None], rows.slope, 0.0)
    own = np.where((rows.own == t)[:, None], rows.own_slope, 0.0)
    return np.asarray((mine - own) @ cause.by_m)


def turned_over(take: TakeRead) -> list[tuple[int, int, int]]:
    """Channels that are turned over against the plan: the fewest that explain the signs.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    list of (int, int, int)
        Track; on how many drums it was heard, and on how many of them it says so.
    """
    an = take.analysis
    planned = _file_signs(an)[list(take.mics)]
    rows: list[tuple[int, int, int]] = []
    for d in take.drums:
        if not an.scene.sources.drum[d.source]:
            continue
        for row in np.flatnonzero(d.sign):
            want = int(planned[row, d.source] * planned[d.own, d.source])
            if row != d.own and want:
                rows.append((int(row), d.own, int(d.sign[row]) * want))
    flips = np.ones(len(take.mics), dtype=np.int64)

    def wrong() -> int:
        return sum(1 for t, own, s in rows if flips[t] * flips[own] != s)

    now = wrong()
    while now:
        tried = []
        for t in range(len(flips)):
            flips[t] *= -1
            tried.append((wrong(), t))
            flips[t] *= -1
        least, t = min(tried)
        if least >= now:
            break
        flips[t] *= -1
        now = least
    made = []
    for turned in np.flatnonzero(flips < 0):
        mine = [(a, b, s) for a, b, s in rows if turned in (a, b)]
        for_it = sum(1 for a, b, s in mine if flips[a] * flips[b] == s)
        if len(mine) and for_it > len(mine) / 2:
            made.append((int(turned), len(mine), for_it))
    return made


def _file_signs(an: Analysis) -> Ints:
    """Planned signs in the files, before any flip on a track, (M, S); 0 unsure."""
    late = [f.first for f in feeds(an.layout)]
    turn = np.array([-1 if c is not None and c.track_flip else 1 for c in late])
    return np.asarray(an.arrivals.sign * turn[:, None])


def kelvin_of(take: TakeRead) -> float:
    """Planned temperature of the air, kelvin.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    float
    """
    return take.analysis.layout.air.temperature_c + ZERO_CELSIUS_K
