"""What to do at a stand so that a tape reads what it should: raise, draw in, or shift.

Every move is worked out exactly from where the mic stands, and told with what it does to the
other distances that are kept. A boom is raised or lowered, drawn in toward what is measured or
let out from it, or the stand is shifted level across the kit.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.standing.told import Told, ended, joined

MOST_M: Final = 0.6
"""What is further than this is put up anew, not moved."""

FLAT_M: Final = 0.08
"""Nearer than this, level distance to an end says no way to draw a boom."""

STAYS_M: Final = 0.01
"""What changes by less stays (common practice: people keep a centimetre)."""

Way = Literal["raise", "draw", "shift"]


@dataclass(frozen=True, slots=True)
class Kept:
    """Another distance of the mic that should stay: its end, and what it should be."""

    name: str
    """As it is told: the kick."""
    end: Floats | None
    """(3,), metres; None is the floor."""
    want_m: float


@dataclass(frozen=True, kw_only=True, slots=True)
class Move:
    """One way to put a distance right."""

    way: Way
    by_m: tuple[float, float, float]
    """How the front of the mic goes, in the frame of the kit."""
    size_m: float
    others: list[tuple[str, float]]
    """What else is kept, and how far too far it then is, metres; below 0 too near."""
    worst_m: float
    """What is furthest off of those, metres; 0 where nothing else is kept."""
    words: Told


def moves(at: Floats, end: Floats | None, want_m: float, others: Sequence[Kept]) -> list[Move]:
    """Ways to bring a mic to a distance from an end, the one that keeps most first.

    Parameters
    ----------
    at : ndarray, shape (3,)
        Where the front of the mic is, metres.
    end : ndarray, shape (3,), or None
        Where the tape is held; None is the floor.
    want_m : float
        What it should read, metres.
    others : sequence of Kept

    Returns
    -------
    list of Move
        At most two; none where no single move does it.
    """
    if end is None:
        rise = np.array([0.0, 0.0, want_m - float(at[2])])
        return [_told("raise", rise, at, end, others)] if abs(rise[2]) <= MOST_M else []
    found = []
    for way, direction in _ways(at, end, others):
        size = _along(at, direction, end, want_m)
        if size is not None and abs(size) <= MOST_M:
            found.append(_told(way, size * direction, at, end, others))
    found.sort(key=lambda m: (round(m.worst_m, 2), float(np.linalg.norm(m.by_m))))
    return found[:2]


def _ways(at: Floats, end: Floats, others: Sequence[Kept]) -> list[tuple[Way, Floats]]:
    """Directions a stand can be moved in, unit vectors."""
    ways: list[tuple[Way, Floats]] = [("raise", np.array([0.0, 0.0, 1.0]))]
    level = (end - at) * (1.0, 1.0, 0.0)
    size = float(np.linalg.norm(level))
    if size > FLAT_M:
        ways.append(("draw", level / size))
    for other in others:
        if other.end is None:
            continue
        # Level and across to the other end: what it reads stays.
        aside = (other.end - at)[:2]
        far = float(np.linalg.norm(aside))
        if far > FLAT_M:
            ways.append(("shift", np.array([-aside[1], aside[0], 0.0]) / far))
    return ways


def _along(at: Floats, way: Floats, end: Floats, want_m: float) -> float | None:
    """How far to go along a unit vector to be so far from an end; the shorter of the two ways."""
    to = at - end
    half = float(to @ way)
    rest = half**2 - (float(to @ to) - want_m**2)
    if rest < 0:
        return None
    return min((-half + math.sqrt(rest), -half - math.sqrt(rest)), key=abs)


def _told(way: Way, by: Floats, at: Floats, end: Floats | None, others: Sequence[Kept]) -> Move:
    there = at + by
    off = [(k.name, _reads(there, k.end) - k.want_m) for k in others]
    worst = max((abs(d) for _, d in off), default=0.0)
    size = float(np.linalg.norm(by))
    does = Told(_way_words(way, by, at, end), (size,))
    return Move(
        way=way,
        by_m=(float(by[0]), float(by[1]), float(by[2])),
        size_m=size,
        others=off,
        worst_m=worst,
        words=ended(joined([does, *_kept_words(off)], "; ")),
    )


def _reads(at: Floats, end: Floats | None) -> float:
    return float(at[2]) if end is None else float(np.linalg.norm(at - end))


def _kept_words(others: list[tuple[str, float]]) -> list[Told]:
    """What becomes of the other distances."""
    stays = [name for name, off in others if abs(off) <= STAYS_M]
    said = [
        Told(f"{name} is then {{}} too {'far' if off > 0 else 'near'}", (abs(off),))
        for name, off in others
        if abs(off) > STAYS_M
    ]
    if stays:
        verb = "stays" if len(stays) == 1 else "stay"
        said.insert(0, Told(f"{' and '.join(stays)} {verb} within {{}}", (STAYS_M,)))
    return [joined(said, ", ")] if said else []


def _way_words(way: Way, by: Floats, at: Floats, end: Floats | None) -> str:
    """What the hand does, with a gap for how far."""
    if way == "raise":
        return "Raise it {}" if by[2] > 0 else "Lower it {}"
    if way == "draw" and end is not None:
        toward = float(by @ ((end - at) * (1.0, 1.0, 0.0))) > 0
        return "Draw it in {}" if toward else "Let it out {}"
    return "Shift it {} " + side_words(by)


def side_words(by: Floats) -> str:
    """Which way something goes level, from the drummer's stool: "to the left and forward".

    Parameters
    ----------
    by : ndarray, shape (3,)
        In the frame of the kit: the drummer's right, then toward the audience.

    Returns
    -------
    str
    """
    x, y = float(by[0]), float(by[1])
    said = []
    if abs(x) > 0.4 * abs(y):
        said.append("to the right" if x > 0 else "to the left")
    if abs(y) > 0.4 * abs(x):
        said.append("forward" if y > 0 else "back")
    return " and ".join(said)
