"""The least-squares net: where the points a tape is held at stand, from readings between them.

Unknowns are the points the tape is held at, one per part, metres in the kit's frame. The
snare stays at its place. Where the kit was drawn counts as weak knowledge (`PRIOR_M`), so few
readings already give a sensible plan and it faces the way it is drawn: distances alone do
not say which way that is. Each reading weighs by the error of a tape.

Least squares with prior and snooping for gross errors by standardised residuals: W. Baarda,
A testing procedure for use in geodetic networks (1968); redundancy of each reading from the
same normal equations."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.plan.kit import Cymbal, Drum, Kit, Reading, centre_of, reference_point
from ringside.survey.lines import Ends, Observed, observed
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


MOST_OUT: Final = 10
"""So many readings are left out at most: when more do not fit, it is not slips of the hand."""

MOST_STEPS: Final = 25
"""Readings that agree settle in under a dozen; what has not by now never will."""

WEIGHED: Final = 4
"""After so many the next is simply the worst: it no longer pays to weigh one against another."""

EXACT: Final = (1e-6, 1e-7)
"""A solution is found when a step is smaller, metres, or wins less, squared sigmas."""

NEAR: Final = (1e-4, 0.02)
"""The same where solutions are only held against each other."""

GROSS: Final = 5.0
"""Above this many sigmas the plan is bent so far that twice as many are tried."""


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
    """Where the tape is held at a part, metres.

    Parameters
    ----------
    part : Drum or Cymbal

    Returns
    -------
    tuple of float, shape (3,)
        Metres.
    """
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


def ends_of(kit: Kit, r: Reading) -> Ends:
    """The ends of a reading by number; None is the floor.

    Parameters
    ----------
    kit : Kit
    r : Reading

    Returns
    -------
    Ends
    """
    ids = kit.source_ids
    return ids.index(r.a), None if r.b is None else ids.index(r.b)


@dataclass(frozen=True)
class Task:
    """Points and the readings between them as arrays, worked out once for every solution."""

    start: Floats  # (P, 3) where the points are drawn
    weight: Floats  # (3P, 3P) of the drawing
    ends: tuple[Ends, ...]  # of every reading
    read: Floats  # (all readings,) metres
    taken: tuple[int, ...]  # how often each read the same
    told: Floats  # (3P, 3P) of the drawing, for the doubt that is told
    less: tuple[Ends | None, ...] = ()  # of readings that are differences: what is taken away

    def some(self, used: Sequence[int]) -> Observed:
        """Some of the readings, by number.

        Parameters
        ----------
        used : sequence of int

        Returns
        -------
        Observed
        """
        less = [self.less[i] for i in used] if self.less else []
        return observed([self.ends[i] for i in used], less)


def task_of(kit: Kit) -> Task:
    """The arrays of a kit and all its readings.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Task
    """
    ends = tuple(ends_of(kit, r) for r in kit.readings)
    read = np.array([r.metres for r in kit.readings])
    taken = tuple(r.taken for r in kit.readings)
    free, held = (_prior(kit, hold_bearing=hold) for hold in (False, True))
    return Task(drawn_points(kit), free, ends, read, taken, held)


def held_task(kit: Kit) -> Task:
    """The same with the kick's bearing held where the kit has it now, for what is seen from there.

    Solved, it is the kit as it stands: nothing is pulled by what was held at its own answer.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Task
    """
    task = task_of(kit)
    ids, start = kit.source_ids, task.start.copy()
    k = ids.index(kit.first("kick").id)
    now = np.array(held_at(kit.parts[k]))
    way = (now - np.array(held_at(kit.first("snare"))))[:2]
    across = np.array([-way[1], way[0]]) / max(float(np.linalg.norm(way)), 1e-6)
    start[k, :2] += across * float(across @ (now - start[k])[:2])
    return replace(task, start=start, weight=task.told)


def _settled(
    task: Task, used: list[int], close: tuple[float, float], begin: Floats | None = None
) -> tuple[Floats, float, Floats, Floats]:
    """Points, cost, what the readings should be and their slope: Gauss-Newton, halved steps.

    Begun from the kit as it was drawn, so that no order of readings tells, unless told where to
    begin; until a step, or what it wins, is smaller than `close`.
    """
    start, weight, read = task.start, task.weight, task.read[used]
    lines = task.some(used)
    points = (start if begin is None else begin).copy()

    def cost(p: Floats) -> float:
        away = (p - start).ravel()
        off = read - lines.said(p)
        return float(away @ weight @ away + off @ off / TAPE_M**2)

    now = cost(points)
    for _ in range(MOST_STEPS):
        said, slope = lines.sloped(points)
        normal = weight + slope.T @ slope / TAPE_M**2
        pull = slope.T @ (read - said) / TAPE_M**2 - weight @ (points - start).ravel()
        step = np.linalg.solve(normal, pull).reshape(-1, 3)
        scale, new = 1.0, cost(points + step)
        while new > now and scale > 1e-4:
            scale /= 2
            new = cost(points + scale * step)
        points = points + scale * step
        won, now = now - new, new
        if float(np.abs(step).max()) * scale < close[0] or won < close[1]:
            break
    said, slope = lines.sloped(points)
    return points, now, said, slope


def solve(kit: Kit, used: list[int]) -> Net:
    """The plan from some of the readings, with the doubt about each part.

    Parameters
    ----------
    kit : Kit
    used : list of int
        Numbers of the readings that count.

    Returns
    -------
    Net
    """
    return solved_task(task_of(kit), used)


def solved_task(task: Task, used: list[int], begin: Floats | None = None) -> Net:
    """The points from some of the readings, with the doubt about each.

    Parameters
    ----------
    task : Task
    used : list of int
        Numbers of the readings that count.
    begin : ndarray, shape (P, 3), optional
        Where to begin to look, metres; as drawn where not given.

    Returns
    -------
    Net
    """
    points, cost, said, slope = _settled(task, used, EXACT, begin)
    told = slope.T @ slope / TAPE_M**2
    free = np.linalg.inv(task.weight + told)
    redundancy = 1 - np.einsum("ri,ij,rj->r", slope, free, slope) / TAPE_M**2
    covariance = np.linalg.inv(task.told + told)
    return Net(
        points,
        np.asarray(covariance, dtype=np.float64),
        tuple(used),
        task.read[used] - said,
        np.maximum(redundancy, 0.0),
        (),
        (),
        cost,
    )


def fit(kit: Kit) -> Net:
    """The plan from all readings that are sure, less those that do not fit the others.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Net
    """
    return fitted_task(task_of(kit), [i for i, r in enumerate(kit.readings) if r.sure])


def fitted_task(task: Task, sure: list[int]) -> Net:
    """The points from the readings that are sure, less those that do not fit the others.

    While a standardised residual is above `MISFIT`, all is solved again without each of the
    worst in turn, because a large error bends the plan and the residuals with it. The one
    without which the rest fits best is left out; those that explain it nearly as well are its
    rivals. At most a third of the readings can be left out, and `MOST_OUT`. One that was repeated
    and stayed the same is left out only for a misfit that no drawing explains.

    Parameters
    ----------
    task : Task
    sure : list of int
        Numbers of the readings that are not in doubt beforehand.

    Returns
    -------
    Net
    """
    used = list(sure)
    out: list[int] = []
    rivals: set[int] = set()
    net = solved_task(task, used)
    most = min(max(len(task.read) / 3, 1), MOST_OUT)
    while used and len(out) < most:
        over = misfit(net)
        if over.max() <= MISFIT:
            break
        tried = CANDIDATES if over.max() <= GROSS else 2 * CANDIDATES
        tried = tried if len(out) < WEIGHED else 1
        worst = [used[int(k)] for k in over.argsort()[::-1][:tried]]
        cost = {
            i: _settled(task, [u for u in used if u != i], NEAR)[1] + REPEATED * (task.taken[i] - 1)
            for i in worst
        }
        best = min(cost, key=lambda i: cost[i])
        if task.taken[best] > 1 and cost[best] >= net.cost:
            break  # read again and the same: likelier that the drawing is so far off
        rivals |= {i for i, c in cost.items() if c < cost[best] + RIVAL}
        used.remove(best)
        net = solved_task(task, used)
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
