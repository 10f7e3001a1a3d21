"""Whether a stand can hold a mic where it is: its clip, its boom, and a free spot for its base.

A boom of length r on a clip between two heights reaches a capsule that is v above or below
them and up to √(r² - v²) aside. The base stands beside it on the floor, not in a drum, at a
pedal, under the drummer, or outside the room. Metres.
"""

from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats, Mask
from ringside.gear.locker import StandModel
from ringside.places.clearance import blocked
from ringside.plan.kit import Kit
from ringside.plan.layout import Layout

BASE_M: Final = 0.12
"""Room a folded base takes round its foot (common practice)."""

SNARE_STAND_M: Final = 0.20
"""How far the legs of a snare or hats stand reach (common practice)."""

BOOM_TURNS: Final = 16
BOOM_SHARES: Final = (0.0, 0.25, 0.5, 0.75, 1.0)


def aside_m(heights: ArrayLike, stand: StandModel) -> Floats:
    """How far aside of its base a stand holds a mic at a height.

    Parameters
    ----------
    heights : array_like, shape (N,)
        Metres over the floor.
    stand : StandModel

    Returns
    -------
    ndarray, shape (N,)
        Metres; below 0 where it cannot hold one at all.
    """
    z = np.asarray(heights, dtype=float)
    off = np.maximum(np.maximum(stand.low_m - z, z - stand.high_m), 0.0)
    square = stand.reach_m**2 - off**2
    return np.where(square >= 0, np.sqrt(np.maximum(square, 0.0)), -1.0)


def floor_taken(spots: Floats, layout: Layout) -> Mask:
    """Which places of the floor have no room for a base.

    Parameters
    ----------
    spots : ndarray, shape (N, 2)
        Metres in the kit's frame.
    layout : Layout

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    kit = layout.kit
    ground = np.column_stack([spots, np.full(len(spots), 0.02)])
    return np.asarray(blocked(ground, layout) | _under_drums(spots, kit))


def _under_drums(spots: Floats, kit: Kit) -> Mask:
    taken = np.zeros(len(spots), bool)
    for d in kit.drums:
        out = spots - np.array(d.batter_m[:2])
        if d.kind == "kick":
            way = -np.array(d.axis[:2])
            way = way / max(float(np.linalg.norm(way)), 1e-9)
            along = out @ way
            across = np.abs(out[:, 0] * way[1] - out[:, 1] * way[0])
            wide = d.diameter_m / 2 + BASE_M
            taken |= (along > -BASE_M) & (along < d.depth_m + BASE_M) & (across < wide)
        elif d.kind == "floor":
            taken |= np.hypot(out[:, 0], out[:, 1]) < d.diameter_m / 2 + BASE_M
        elif d.kind == "snare":
            taken |= np.hypot(out[:, 0], out[:, 1]) < SNARE_STAND_M + BASE_M
    for c in (c for c in kit.cymbals if c.kind == "hats"):
        out = spots - np.array(c.centre_m[:2])
        taken |= np.hypot(out[:, 0], out[:, 1]) < SNARE_STAND_M + BASE_M
    return taken


def _spots(points: Floats, far: Floats) -> Floats:
    """Places a base could stand for each point (N, 3) within its way aside (N,): (N, K, 2)."""
    turn = np.arange(BOOM_TURNS) * 2 * np.pi / BOOM_TURNS
    ring = np.column_stack([np.cos(turn), np.sin(turn)])
    shares = np.concatenate([ring * s for s in BOOM_SHARES])
    return np.asarray(points[:, None, :2] + shares * far[:, None, None])


def base_for(at: ArrayLike, stand: StandModel, layout: Layout) -> tuple[float, float] | None:
    """A free spot on the floor for the base that holds a mic at a point (3,), or None.

    The spot farthest from the middle of the kit is given: away from sticks and feet.

    Parameters
    ----------
    at : array_like, shape (3,)
        Metres.
    stand : StandModel
    layout : Layout

    Returns
    -------
    (float, float) or None
        On the floor, metres.
    """
    p = np.asarray(at, dtype=float).reshape(1, 3)
    far = aside_m(p[:, 2], stand)
    if far[0] < 0:
        return None
    spots = _spots(p, far)[0]
    free = spots[~floor_taken(spots, layout)]
    if not len(free):
        return None
    middle = np.mean([d.batter_m[:2] for d in layout.kit.drums], axis=0)
    best = free[int(np.round(np.linalg.norm(free - middle, axis=1), 9).argmax())]
    return (float(best[0]), float(best[1]))


def reached(points: Floats, stand: StandModel | None, layout: Layout) -> Mask:
    """Which points a stand can hold a mic at; without a stand all of them.

    Parameters
    ----------
    points : ndarray, shape (N, 3)
        Metres.
    stand : StandModel or None
    layout : Layout

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    if stand is None:
        return np.ones(len(points), bool)
    far = aside_m(points[:, 2], stand)
    fine = far >= 0
    if fine.any():
        spots = _spots(points[fine], far[fine])
        taken = floor_taken(spots.reshape(-1, 2), layout).reshape(spots.shape[:2])
        fine[fine] = ~taken.all(axis=1)
    return np.asarray(fine)
