"""The least-squares net: where the points a tape is held at stand, from readings between them.

Unknowns are the points the tape is held at, one per part, metres in the kit's frame. The
snare stays at its place. Where the kit was drawn counts as weak knowledge (`PRIOR_M`), so few
readings already give a sensible plan and it faces the way it is drawn: distances alone do
not say which way that is. Each reading weighs by the error of a tape.

Least squares with prior and snooping for gross errors by standardised residuals: W. Baarda,
A testing procedure for use in geodetic networks (1968); redundancy of each reading from the
same normal equations."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.plan.kit import Cymbal, Drum, Kit, Reading, centre_of, reference_point
from ringside.values import Vector

TAPE_M: Final = 0.005
"""Standard error of one tape reading, metres (common practice)."""


PRIOR_M: Final = 0.20
"""How far a drawn part may stand from its true place in plan, metres, one sigma."""


PRIOR_HEIGHT_M: Final = 0.06
"""The same for its height."""


DATUM_M: Final = 1e-4
"""What is held: the snare's place in plan; for the doubt about parts also the kick's bearing."""


MISFIT: Final = 2.8
"""A standardised residual above this is asked for again: five good readings in a thousand are,
and a repeated reading costs seconds where a wrong one costs the plan."""


RIVAL: Final = 6.0
"""Squared sigmas: a reading that explains the misfit to within this of the best may be the
wrong one instead (a likelihood ratio of twenty), and is asked for again as well."""


CANDIDATES: Final = 4
"""So many of the worst readings are tried as the wrong one."""


REPEATED: Final = 14.0
"""Squared sigmas: what a reading that was repeated and stayed the same has in its favour. That
the same slip is made twice is one in a thousand (from memory)."""


GROSS: Final = 5.0
"""Above this many sigmas the plan is bent so far that four times as many are tried."""


UNCHECKED: Final = 0.05
"""Below this redundancy only the drawing speaks against a reading, not other readings."""


MISDRAWN: Final = 6.0
"""So many sigmas from the drawing alone a reading is a slip of the keys, not a kit moved."""


@dataclass(frozen=True)
class Net:
    """The state of the kit by its readings. P parts, R readings that count."""

    points: Floats  # (P, 3)
    covariance: Floats  # (3P, 3P), with the kick's bearing held
    used: tuple[int, ...]  # indices into kit.readings
    residual: Floats  # (R,) measured minus computed, metres
    redundancy: Floats  # (R,) 0 to 1
    suspects: tuple[int, ...]  # indices into kit.readings that are left out
    rivals: tuple[int, ...]  # those that would explain the misfit nearly as well
    cost: float  # squared sigmas of readings and drawing together


def held_at(part: Drum | Cymbal) -> Vector:
    """Where the tape is held at a part, metres."""
    return reference_point(part) if isinstance(part, Drum) else part.centre_m


def drawn_points(kit: Kit) -> Floats:
    """The points the tape is held at where the parts were drawn.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    ndarray, shape (P, 3)
        Metres.
    """
    places = {d.id: d.at_m for d in kit.drawn}
    held = np.array([held_at(p) for p in kit.parts], dtype=float)
    moved = [np.subtract(places.get(p.id, centre_of(p)), centre_of(p)) for p in kit.parts]
    return np.asarray(held + np.array(moved, dtype=float))


def _prior(kit: Kit, *, hold_bearing: bool) -> Floats:
    """Weights of the drawn places, (3P, 3P): inverse covariance, 1/m².

    With `hold_bearing` the kick keeps its bearing from the snare: the doubt is then about the
    places of the others seen from those two, as every mic's is.
    """
    n = len(kit.parts)
    weight = np.zeros((3 * n, 3 * n))
    flat, high, datum = PRIOR_M**-2, PRIOR_HEIGHT_M**-2, DATUM_M**-2
    ids = kit.source_ids
    s = ids.index(kit.first("snare").id)
    for i in range(n):
        weight[3 * i : 3 * i + 3, 3 * i : 3 * i + 3] = np.diag([flat, flat, high])
    weight[3 * s, 3 * s] = weight[3 * s + 1, 3 * s + 1] = datum
    if hold_bearing:
        k = ids.index(kit.first("kick").id)
        bearing = np.subtract(held_at(kit.parts[k]), held_at(kit.parts[s]))[:2]
        size = max(float(np.linalg.norm(bearing)), 1e-6)
        across = np.array([-bearing[1], bearing[0]]) / size
        weight[3 * k : 3 * k + 2, 3 * k : 3 * k + 2] += np.outer(across, across) * datum
    return weight


def computed(points: Floats, ends: list[tuple[int, int | None]]) -> tuple[Floats, Floats]:
    """What each reading should be, and its slope over all coordinates.

    Parameters
    ----------
    points : ndarray, shape (P, 3)
        Where the tape is held at each part, metres.
    ends : list of (int, int or None)
        Parts by number; None is the floor.

    Returns
    -------
    said : ndarray, shape (R,)
        Metres.
    slope : ndarray, shape (R, 3P)
        Metres per metre.
    """
    rows = np.arange(len(ends))
    one = np.array([a for a, _ in ends], dtype=int)
    floor = np.array([b is None for _, b in ends], dtype=bool)
    two = np.array([a if b is None else b for a, b in ends], dtype=int)
    way = points[one] - points[two]
    said = np.where(floor, points[one, 2], np.sqrt(np.einsum("ri,ri->r", way, way)))
    unit = way / np.maximum(said, 1e-6)[:, None]
    unit[floor] = (0.0, 0.0, 1.0)
    slope = np.zeros((len(ends), len(points), 3))
    slope[rows, one] = unit
    slope[rows[~floor], two[~floor]] = -unit[~floor]
    return np.asarray(said), slope.reshape(len(ends), points.size)


def ends_of(kit: Kit, r: Reading) -> tuple[int, int | None]:
    """The ends of a reading by number; None is the floor."""
    ids = kit.source_ids
    return ids.index(r.a), None if r.b is None else ids.index(r.b)


def solve(kit: Kit, used: list[int]) -> Net:
    """Gauss-Newton with halved steps, begun from the kit as it was drawn."""
    start = drawn_points(kit)
    weight = _prior(kit, hold_bearing=False)
    ends = [ends_of(kit, kit.readings[i]) for i in used]
    read = np.array([kit.readings[i].metres for i in used])
    points = start.copy()

    def state(p: Floats) -> tuple[float, Floats, Floats]:
        away = (p - start).ravel()
        said, slope = computed(p, ends)
        off = read - said
        return float(away @ weight @ away + off @ off / TAPE_M**2), said, slope

    now, said, slope = state(points)
    for _ in range(60):
        normal = weight + slope.T @ slope / TAPE_M**2
        pull = slope.T @ (read - said) / TAPE_M**2 - weight @ (points - start).ravel()
        step = np.linalg.solve(normal, pull).reshape(-1, 3)
        scale, new = 1.0, state(points + step)
        while new[0] > now and scale > 1e-4:
            scale /= 2
            new = state(points + scale * step)
        points = points + scale * step
        now, said, slope = new
        if float(np.abs(step).max()) * scale < 1e-6:
            break
    told = slope.T @ slope / TAPE_M**2
    free = np.linalg.inv(weight + told)
    redundancy = 1 - np.einsum("ri,ij,rj->r", slope, free, slope) / TAPE_M**2
    covariance = np.linalg.inv(_prior(kit, hold_bearing=True) + told)
    return Net(
        points,
        np.asarray(covariance, dtype=np.float64),
        tuple(used),
        read - said,
        np.maximum(redundancy, 0.0),
        (),
        (),
        now,
    )


def fit(kit: Kit) -> Net:
    """The plan from all readings that are sure, less those that do not fit the others.

    While a standardised residual is above `MISFIT`, all is solved again without each of the
    worst in turn, because a large error bends the plan and the residuals with it. The one
    without which the rest fits best is left out; those that explain it nearly as well are its
    rivals. At most a third of the readings can be left out.
    """
    used = [i for i, r in enumerate(kit.readings) if r.sure]
    out: list[int] = []
    rivals: set[int] = set()
    net = solve(kit, used)
    while used and len(out) < max(len(kit.readings) / 3, 1):
        over = misfit(net)
        if over.max() <= MISFIT:
            break
        tried = CANDIDATES if over.max() <= GROSS else 4 * CANDIDATES
        worst = [int(k) for k in over.argsort()[::-1][:tried]]
        trials = {used[k]: solve(kit, [i for i in used if i != used[k]]) for k in worst}
        cost = {i: t.cost + REPEATED * (kit.readings[i].taken - 1) for i, t in trials.items()}
        best = min(cost, key=lambda i: cost[i])
        rivals |= {i for i, c in cost.items() if c < cost[best] + RIVAL}
        net = trials[best]
        used.remove(best)
        out.append(best)
    return replace(net, suspects=tuple(sorted(out)), rivals=tuple(sorted(rivals - set(out))))


def misfit(net: Net) -> Floats:
    """How far each used reading is off, on the scale of `MISFIT`.

    Parameters
    ----------
    net : Net

    Returns
    -------
    ndarray, shape (R,)
        Sigmas.
    """
    size = np.abs(net.residual) / (TAPE_M * np.sqrt(np.maximum(net.redundancy, 1e-5)))
    return np.asarray(size * np.where(net.redundancy > UNCHECKED, 1.0, MISFIT / MISDRAWN))
