"""The best set of flips for all mics together, by body over all drums.

What is best: the mean over the drums that are meant of the body of everything summed, in decibels,
so that no drum is bought with the loss of another. Turning every mic over changes nothing, so of
two such sets the one with fewer flips is taken. Mics whose polarity is held stay as they are.

Up to `EXACT` free mics every set is tried: half of the mics against the other half, a block
at a time, in single precision; the best dozen are ranked again in double, so a set that is
passed over is within a hundredth of a decibel. Beyond, sets are split at the mics that matter
most; a branch is dropped when even a bound on it does not reach the best set found. The bound
takes the logarithm by its tangent (it lies above the curve) and the quadratic form that is left
by the largest eigenvalue after the diagonal is shifted (C. Delorme and S. Poljak, Mathematical
Programming 62 (1993) 557, the eigenvalue bound of maximum cut). When the work is cut short the
bound that is left is told.
"""

import heapq
from dataclasses import dataclass
from functools import cached_property
from itertools import count
from typing import Final, NamedTuple

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.errors import RingsideError
from ringside.pairs.analysis import Analysis
from ringside.pairs.gram import (
    LEAST_SHARE,
    PairOn,
    body_of,
    drum_ids,
    grams,
    kept_body,
    meant,
    unsure_pairs,
)
from ringside.pairs.kinds import side_mics

EXACT: Final = 24
LEAF: Final = 19
"""Free mics of a branch that are tried set by set."""

MOST_WORK: Final = 13_500
"""Steps of bounds, a leaf counting as `LEAF_WORK` of them: about a second. Where it is not
enough, the best set found is told with how much better another could at most be."""

LEAF_WORK: Final = 160
BOUND_WORK: Final = 6
MOST_STEPS: Final = 40
BLOCK: Final = 2**16
"""Sets tried at a time: so many fit a processor's cache."""

MOST_FLIPPED: Final = 32
KEPT: Final = 12

LEAST_FLIP_DB: Final = 0.3
"""A set that gains less, or a part of one, on average over the drums, is not worth a switch."""
"""How many of the best sets are handed back."""


@dataclass(frozen=True, kw_only=True)
class Sets:
    """Sets of signs against as wired, best first, and what is proven."""

    signs: list[Floats]  # each (M,) of +1 and -1
    mean_db: list[float]  # mean over the drums against as wired
    bound_db: float  # no set is better than this


@dataclass(frozen=True)
class Problem:
    """Grams scaled so that each drum's mics have an energy of one, (D, M, M)."""

    gram: Floats
    free: Ints

    @cached_property
    def slack(self) -> Floats:
        """How far a drum's sum, never taken below its least, can lie over the form, (D,).

        Terms left out can leave a form that some signs take below nothing.
        """
        lowest = np.linalg.eigvalsh(self.gram)[:, 0]
        return np.asarray(LEAST_SHARE + np.maximum(-lowest, 0.0) * self.gram.shape[1])

    def score(self, signs: Floats) -> float:
        """Sum over the drums of the logarithm of the body.

        Parameters
        ----------
        signs : ndarray, shape (M,)
            +1, -1, or 0 for a mic that is off.

        Returns
        -------
        float
            Nepers of energy.
        """
        return float(np.log(np.maximum(body_of(self.gram, signs), LEAST_SHARE)).sum())


def best_sets(gram: Floats, held: Mask) -> Sets:
    """The best sets of flips.

    Parameters
    ----------
    gram : ndarray, shape (D, M, M)
        As of :func:`ringside.pairs.gram.grams`.
    held : ndarray of bool, shape (M,)
        Mics that stay as they are.

    Returns
    -------
    Sets
        The best set and up to `KEPT` - 1 that follow it.
    """
    trace = np.maximum(np.einsum("dii->d", gram), 1e-12)
    scaled = gram / trace[:, None, None]
    weight = np.abs(scaled).sum(axis=(0, 2))
    free = [int(i) for i in np.argsort(-weight, kind="stable") if not held[i]]
    if not held.any() and free:
        free = free[1:]  # turning all of them over is the same set
    problem = Problem(scaled, np.array(free, dtype=np.int64))
    ones = np.ones(gram.shape[1])
    if len(free) <= EXACT:
        sets, bound = _every(problem, ones, problem.free), -np.inf
    else:
        sets, bound = _split(problem, ones)
    return _told(problem, sets, bound, held)


def _told(problem: Problem, sets: list[Floats], bound: float, held: Mask) -> Sets:
    wired = problem.score(np.ones(problem.gram.shape[1]))
    scale = float(10 / np.log(10)) / max(len(problem.gram), 1)
    fewest = [s if held.any() or (s < 0).sum() * 2 <= len(s) else -s for s in sets]
    rows = [
        (round(float(problem.score(s) - wired) * scale, 9), int((s < 0).sum()), s) for s in fewest
    ]
    rows.sort(key=lambda r: (-r[0], r[1]))
    best = rows[0][0]
    return Sets(
        signs=[s for _, _, s in rows],
        mean_db=[g for g, _, _ in rows],
        bound_db=max(best, (bound - wired) * scale if np.isfinite(bound) else best),
    )


def _patterns(n: int) -> Floats:
    """Every set of n signs, (2^n, n)."""
    bits = (np.arange(2**n)[:, None] >> np.arange(n)) & 1
    return np.asarray(1.0 - 2.0 * bits)


def _every(problem: Problem, at: Floats, free: Ints) -> list[Floats]:
    """The best few of every set of the free mics, the others as in `at`."""
    g, n = problem.gram, len(free)
    fixed = np.setdiff1d(np.arange(len(at)), free)
    one, two = free[: n // 2], free[n // 2 :]
    x, y = _patterns(len(one)), _patterns(len(two))
    rest = at[fixed]
    alone_x = _alone(g, x, one, fixed, rest).astype(np.float32)
    alone_y = _alone(g, y, two, fixed, rest).astype(np.float32)
    base = np.einsum("i,dij,j->d", rest, g[:, fixed][:, :, fixed], rest).astype(np.float32)
    cross = (2 * g[:, one][:, :, two]).astype(np.float32)
    xs, ys = x.astype(np.float32), np.ascontiguousarray(y.T.astype(np.float32))
    best: list[tuple[float, int, int]] = []
    block = max(1, BLOCK // len(y))
    for start in range(0, len(x), block):
        rows = slice(start, min(start + block, len(x)))
        product = np.ones((rows.stop - start, len(y)), dtype=np.float32)
        for d in range(len(g)):
            energy = xs[rows] @ cross[d] @ ys
            energy += (alone_x[d, rows] + base[d])[:, None]
            energy += alone_y[d]
            np.maximum(energy, LEAST_SHARE, out=energy)
            product *= energy
        flat = product.ravel()
        if len(best) == KEPT and float(flat.max()) <= best[-1][0]:
            continue
        top = np.argpartition(flat, -min(KEPT, len(flat)))[-min(KEPT, len(flat)) :]
        best += [(float(flat[t]), start + int(t) // len(y), int(t) % len(y)) for t in top]
        best = heapq.nlargest(KEPT, best)
    sets = []
    for _, i, j in best:
        signs = at.copy()
        signs[one], signs[two] = x[i], y[j]
        sets.append(signs)
    return sets


def _alone(g: Floats, x: Floats, free: Ints, fixed: Ints, rest: Floats) -> Floats:
    """Energy of some free mics among themselves and with the fixed ones, (D, sets)."""
    own = ((x @ g[:, free][:, :, free]) * x).sum(axis=2)
    pull = np.einsum("dij,j->di", g[:, free][:, :, fixed], rest)
    return np.asarray(own + 2 * pull @ x.T)


def climb(problem: Problem, at: Floats, free: Ints) -> Floats:
    """Flip one mic, or two, as long as it helps.

    Parameters
    ----------
    problem : Problem
    at : ndarray, shape (M,)
        Signs to begin with, +1 and -1.
    free : ndarray of int, shape (F,)
        The mics that may be turned over, by number.

    Returns
    -------
    ndarray, shape (M,)
        Signs of a set that no single flip and no two make better.
    """
    signs = at.copy()
    score = problem.score(signs)
    while True:
        pull = np.einsum("dij,j->di", problem.gram, signs)[:, free]
        own = np.einsum("dii->di", problem.gram)[:, free]
        now = body_of(problem.gram, signs)
        x = signs[free]
        one = -4 * x * pull + 4 * own  # change of energy by one flip, (D, n)
        both = 8 * problem.gram[:, free][:, :, free] * np.outer(x, x)
        two = one[:, :, None] + one[:, None, :] + both
        n = len(free)
        two[:, np.arange(n), np.arange(n)] = one
        after = np.log(np.maximum(now[:, None, None] + two, LEAST_SHARE)).sum(axis=0)
        i, j = np.unravel_index(int(after.argmax()), after.shape)
        if after[i, j] <= score + 1e-9:
            return signs
        score = float(after[i, j])
        signs[free[list({int(i), int(j)})]] *= -1


class _Bound(NamedTuple):
    """What no set of a branch scores more than, a good one of it, and the work it took."""

    limit: float
    near: Floats
    steps: int


def _bound(problem: Problem, at: Floats, free: Ints, enough: float) -> _Bound:
    """No set of the free mics, the others as in `at`, scores more than this; and a good one.

    It is made no sharper once it is below `enough`: the branch is dropped by then.
    """
    g = problem.gram
    near = climb(problem, at, free)
    e = np.maximum(body_of(g, near), LEAST_SHARE)
    fixed = np.setdiff1d(np.arange(len(at)), free)
    rest = at[fixed]
    q = (g / e[:, None, None]).sum(axis=0)
    n = len(free)
    form = np.zeros((n + 1, n + 1))  # the last variable stands for the fixed mics
    form[:n, :n] = q[np.ix_(free, free)]
    form[:n, n] = form[n, :n] = q[np.ix_(free, fixed)] @ rest
    form[n, n] = rest @ q[np.ix_(fixed, fixed)] @ rest
    tangent = float((np.log(e) - 1 + problem.slack / e).sum())
    most, steps = _largest(form, np.append(near[free], 1.0), enough - tangent)
    return _Bound(tangent + most, near, steps)


def _largest(form: Floats, near: Floats, enough: float) -> tuple[float, int]:
    """A bound on x'Fx over signs: n·λ of F with its diagonal shifted, and how many steps it took.

    The steps go along the subgradient.
    """
    from scipy.linalg.lapack import dsyevr  # slow to import: only for many mics

    n = len(form)
    goal = float(near @ form @ near)
    # The shift that makes `near` an eigenvector: exact when no other set is better.
    shift = near * (form @ near)
    shift = shift - shift.mean()
    best, steps = np.inf, 0
    while steps < MOST_STEPS:
        steps += 1
        values, vectors, *_ = dsyevr(form - np.diag(shift), range="I", il=n, iu=n)
        best = min(best, n * float(values[0]) + float(shift.sum()))
        if best - goal < 1e-7 or best <= enough:
            break
        slope = 1 - n * vectors[:, 0] ** 2
        size = float(slope @ slope)
        if size < 1e-12:
            break
        shift = shift - (best - goal) * 0.7 / size * slope
    return best, steps


def _split(problem: Problem, ones: Floats) -> tuple[list[Floats], float]:
    """Branch and bound; the sets found and a bound on any set."""
    free = problem.free
    rng = np.random.default_rng(1)
    starts = [ones] + [
        np.where(np.isin(np.arange(len(ones)), free), rng.choice([-1.0, 1.0], len(ones)), 1.0)
        for _ in range(16)
    ]
    sets = {tuple(s): s for s in (climb(problem, s, free) for s in starts)}
    best = max(problem.score(s) for s in sets.values())
    order = count()
    first = _bound(problem, ones, free, best)
    heap: list[tuple[float, int, int, Floats]] = [(-first.limit, next(order), 0, first.near)]
    work = 0
    while work < MOST_WORK:
        if not heap or -heap[0][0] <= best + 1e-9:
            break
        _, _, depth, at = heapq.heappop(heap)
        if len(free) - depth <= LEAF:
            work += LEAF_WORK
            for s in _every(problem, at, free[depth:]):
                sets[tuple(s)] = s
                best = max(best, problem.score(s))
            continue
        for sign in (1.0, -1.0):
            there = at.copy()
            there[free[depth]] = sign
            below = _bound(problem, there, free[depth + 1 :], best)
            work += below.steps + BOUND_WORK
            if below.limit > best + 1e-9:
                heapq.heappush(heap, (-below.limit, next(order), depth + 1, below.near))
    ranked = sorted(sets.values(), key=lambda s: -problem.score(s))[:KEPT]
    return ranked, max(best, -heap[0][0] if heap else best)


@dataclass(frozen=True, kw_only=True, slots=True)
class DrumGain:
    """What a set of flips gives a drum, decibels of body against as wired."""

    source: str
    gain_db: float


@dataclass(frozen=True, kw_only=True, slots=True)
class FlipSet:
    """Mics to turn over, as they stand now, and what it gives."""

    flip: list[str]
    mean_db: float
    """Over the drums, against as wired."""
    drums: list[DrumGain]


@dataclass(frozen=True, kw_only=True, slots=True)
class BestFlips:
    """The best set of flips, the runner-up, and what is proven."""

    best: FlipSet
    runner_up: FlipSet | None
    behind_db: float | None
    """How much the runner-up is behind."""
    proven: bool
    bound_db: float
    """No set gains more than this."""
    held: list[str]
    """Mics whose polarity stays."""
    unsure: list[PairOn]
    """Pairs left out because their sign is unsure."""
    worth: bool
    """The best gains enough to throw a switch for it."""
    words: str


def best_flips(an: Analysis) -> BestFlips:
    """The best set of flips of a layout, beside as wired and the runner-up.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    BestFlips

    Raises
    ------
    RingsideError
        With no mics, or more than 32.
    """
    mics = an.layout.mics
    if not 1 <= len(mics) <= MOST_FLIPPED:
        raise RingsideError(
            f"expected 1 to {MOST_FLIPPED} mics to find the best flips of, got {len(mics)}"
        )
    gram = grams(an)
    held = np.array(["polarity" in m.locks for m in mics])
    stay = held | ~an.scene.heard
    stay[side_mics(an.layout)] = True  # turned over, it changes left and right over, no body
    sets = best_sets(gram[meant(an)], stay)
    rows = [_row(an, gram, s, g) for s, g in zip(sets.signs, sets.mean_db, strict=True)]
    best = rows[0]
    second = rows[1] if len(rows) > 1 else None
    worth = best.mean_db >= LEAST_FLIP_DB
    proven = sets.bound_db - sets.mean_db[0] < 1e-3
    return BestFlips(
        best=best,
        runner_up=second,
        behind_db=best.mean_db - second.mean_db if second else None,
        proven=proven,
        bound_db=sets.bound_db,
        held=[m.id for m, h in zip(mics, held, strict=True) if h],
        unsure=unsure_pairs(an),
        worth=worth,
        words=_words(best, worth, proven, sets.bound_db),
    )


def _row(an: Analysis, gram: Floats, signs: Floats, mean_db: float) -> FlipSet:
    ids = [m.id for m in an.layout.mics]
    gain = 10 * np.log10(kept_body(gram, signs) / kept_body(gram, np.ones(len(ids))))
    return FlipSet(
        flip=[ids[i] for i in np.flatnonzero(signs < 0)],
        mean_db=mean_db,
        drums=[
            DrumGain(source=d, gain_db=round(float(g), 3))
            for d, g in zip(drum_ids(an), gain, strict=True)
        ],
    )


def _words(best: FlipSet, worth: bool, proven: bool, bound_db: float) -> str:
    if not best.flip:
        said = "As wired is the fullest set there is."
    elif not worth:
        said = (
            f"As wired is as full as any, to the ear: {', '.join(best.flip)} turned over would be"
            f" {best.mean_db:.2f} dB more body on average."
        )
    else:
        said = f"Flip {', '.join(best.flip)}: {best.mean_db:.1f} dB more body on average."
    if proven:
        return f"{said} No other set has more."
    return f"{said} No set can have more than {bound_db - best.mean_db:.2f} dB above this one."
