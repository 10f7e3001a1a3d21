"""Two takes held against each other by ear: which hit of one is heard for which of the other.

They are two performances, so nothing of them adds up and nothing is heard at once: one is faded
into the other at the same moment of a stroke. What is to be heard is what was moved, so a stroke is
held against the one of the other take that is as hard for its own: the strokes of each are
compared with its own middle one, for a mic that was moved, or a gain that was turned, makes all of
them louder.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import floor
from statistics import median
from typing import Final

import numpy as np

from ringside.takes.listening import Listening, Loop

MOST_APART_DB: Final = 6.0
"""Further apart, two strokes are an accent and a light one (common practice: twice as hard)."""

LEAD_S: Final = 1.0
"""All of a take is heard from so long before its first stroke."""

Span = tuple[int, int]


@dataclass(frozen=True, slots=True)
class LoopsAgainst:
    """The hits of a drum in two takes, each for one of the other; both last equally long."""

    source: str
    name: str
    first: list[Span]
    second: list[Span]
    """Where each begins, and how long it is, samples of its own take."""
    apart_db: float | None
    """What the least alike of them differ by, for their own take; None where that is not known."""


@dataclass(frozen=True, slots=True)
class Against:
    """Two takes, moment by moment."""

    loops: list[LoopsAgainst]
    """Of the drums that were hit in both."""
    whole: tuple[Span, Span] | None
    """All that both have from their first strokes on; None where nothing was hit in one."""


def against(first: Listening, second: Listening) -> Against:
    """Two takes, to be heard in the place of each other.

    Parameters
    ----------
    first, second : Listening
        At any two sample rates.

    Returns
    -------
    Against
    """
    others = {loop.source: loop for loop in second.loops}
    loops = [
        _paired(loop, others[loop.source], first.rate_hz, second.rate_hz)
        for loop in first.loops
        if loop.source in others
    ]
    return Against(loops, _whole(first, second))


def _paired(one: Loop, two: Loop, rate: int, other_rate: int) -> LoopsAgainst:
    pairs, apart = _pairs(one.level_db, two.level_db, len(one.spans), len(two.spans))
    both = [_alike(one.spans[i], two.spans[k], rate, other_rate) for i, k in pairs]
    return LoopsAgainst(one.source, one.name, [a for a, _ in both], [b for _, b in both], apart)


def _pairs(
    one: Sequence[float], two: Sequence[float], many: int, more: int
) -> tuple[list[tuple[int, int]], float | None]:
    """Which stroke goes with which, in the order of the first take, and how far apart they are."""
    from scipy.optimize import linear_sum_assignment

    if len(one) != many or len(two) != more:
        return [(n, n) for n in range(min(many, more))], None
    gap = np.abs(np.subtract.outer(_for_its_own(one), _for_its_own(two)))
    # By squares the hardest goes with the hardest; of equals the first with the first.
    crossed = np.subtract.outer(np.arange(many), np.arange(more))
    best = linear_sum_assignment(gap**2 + 1e-6 * crossed**2)
    found = [(int(i), int(k)) for i, k in zip(*best, strict=True)]
    near = [x for x in found if gap[x] <= MOST_APART_DB] or [min(found, key=lambda x: gap[x])]
    return near, round(max(float(gap[x]) for x in near), 1)


def _for_its_own(levels: Sequence[float]) -> list[float]:
    middle = median(levels)
    return [x - middle for x in levels]


def _alike(one: Span, two: Span, rate: int, other_rate: int) -> tuple[Span, Span]:
    """Two stretches cut to the shorter of them."""
    long_s = min(one[1] / rate, two[1] / other_rate)
    return (one[0], _count(long_s, rate)), (two[0], _count(long_s, other_rate))


def _count(seconds: float, rate: int) -> int:
    # A stretch that is the shorter one keeps its own length.
    return floor(seconds * rate + 1e-6)


def _whole(first: Listening, second: Listening) -> tuple[Span, Span] | None:
    if first.first is None or second.first is None:
        return None
    lead_s = min(LEAD_S, first.first / first.rate_hz, second.first / second.rate_hz)
    begins = [t.first - _count(lead_s, t.rate_hz) for t in (first, second) if t.first is not None]
    spans = [(b, t.samples - b) for b, t in zip(begins, (first, second), strict=True)]
    return _alike(spans[0], spans[1], first.rate_hz, second.rate_hz)
