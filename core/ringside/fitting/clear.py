"""Clear: a mic in the way, or out of its stand's reach, goes to the nearest spot that is not."""

from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.constants import FARTHEST_MOVE_M
from ringside.fitting.work import GaveUp, Work
from ringside.places.clearance import words_for
from ringside.plan.drumframe import side_of
from ringside.plan.mics import Mic


def _directions() -> Floats:
    """Even directions over the sphere (Fibonacci spiral), up and outward first, (N, 3)."""
    n = 96
    k = np.arange(n) + 0.5
    z = 1 - 2 * k / n
    turn = np.pi * (1 + 5**0.5) * k
    flat = np.sqrt(1 - z**2)
    return np.column_stack([flat * np.cos(turn), flat * np.sin(turn), z])


DIRECTIONS: Final = _directions()
RADII_M: Final = np.concatenate(
    [
        np.arange(0.01, 0.1, 0.01),
        np.arange(0.1, 0.3, 0.02),
        np.arange(0.3, FARTHEST_MOVE_M + 0.01, 0.05),
    ]
)
"""Finer near by, because a mic that only grazes a zone should move a centimetre."""


def make_clear(work: Work) -> None:
    """Move what is in the way, or give it up and say why.

    Parameters
    ----------
    work : Work
        What is being fitted; it is changed in place.
    """
    for mic in work.layout.mics:
        now = np.array([mic.position_m])
        if work.fine(now, mic)[0]:
            continue
        why = words_for(now[0], work.layout) or "Out of its stand's reach, or in another mic."
        spot = _nearest_fine(work, mic)
        if spot is None:
            work.gave_up.append(
                GaveUp(
                    mics=[mic.id],
                    left_m=None,
                    words=f"{mic.id} found no clear spot near by. {why}",
                )
            )
        else:
            work.put(mic, spot, f"clear: {why[0].lower()}{why[1:].rstrip('.')}")


def _nearest_fine(work: Work, mic: Mic) -> Floats | None:
    """The nearest spot that is fine, on the side of its drum that it is on."""
    at, free = np.array(mic.position_m), work.free(mic)
    if not free.any():
        return None
    ways = np.where(free, DIRECTIONS, 0.0)
    ways = np.unique(np.round(ways, 9), axis=0)
    ways = ways[np.linalg.norm(ways, axis=1) > 0.2]
    ways /= np.linalg.norm(ways, axis=1)[:, None]
    part = work.layout.kit.part(mic.job) if mic.job else None
    for r in RADII_M:
        points = at + ways * r
        points = points[work.fine(points, mic)]
        if part is not None:
            points = np.array([p for p in points if side_of(part, p) == side_of(part, at)])
        if len(points):
            return np.asarray(points[0])
    return None
