"""Mirror images of mics in the floor, the ceiling and the walls.

What a hard surface sends back to a capsule is what a second capsule, mirrored in the surface
with its aim mirrored too, would hear of the drum itself (the image principle; Kuttruff, Room
Acoustics, ch. 4). Close to the surface the two arrive together: the level rises by up to
6 dB, with the first dip near c/(4h) at a gap h and sound from straight ahead. The floor is
always there, and hard until a room says what covers it; walls and ceiling need a room. In an
L the walls are those met in the four directions from the mic. Gobos are not mirrors here.

Directions and places are in the frame of :mod:`ringside`.
"""

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.plan.materials import reflection
from ringside.plan.room import Room, Surface, Surfaces, Wall, inside_floor, to_room, wall_distances

FAR_M: Final = 1e3
"""A surface that is not there is this far away."""


@dataclass(frozen=True, kw_only=True)
class Images:
    """G images of M mics, against S sources."""

    mic: Ints  # (G,) whose image it is
    capsule: Floats  # (G, 3)
    aim: Floats  # (G, 3)
    factor: Floats  # (G, S) pressure reflection at each drum's fundamental
    near: Mask  # (G,) of surfaces close enough to be part of the mic's own sound
    surface: tuple[tuple[Surface, ...], ...]  # what it is mirrored in
    gap: Floats  # (G,) metres from the capsule to the surface (the nearest of several)


def no_images(sources: int) -> Images:
    """Images of mics in free air: none.

    Parameters
    ----------
    sources : int
        How many drums and cymbals.

    Returns
    -------
    Images
    """
    return Images(
        mic=np.empty(0, dtype=np.int64), capsule=np.empty((0, 3)), aim=np.empty((0, 3)),
        factor=np.empty((0, sources)), near=np.empty(0, dtype=bool), surface=(), gap=np.empty(0),
    )  # fmt: skip


@lru_cache(maxsize=64)
def _factors(surfaces: Surfaces, fundamentals: tuple[float, ...]) -> dict[Surface, Floats]:
    f = np.array(fundamentals)
    return {
        "floor": reflection(surfaces.floor, f), "ceiling": reflection(surfaces.ceiling, f),
        "back": reflection(surfaces.back, f), "front": reflection(surfaces.front, f),
        "left": reflection(surfaces.left, f), "right": reflection(surfaces.right, f),
    }  # fmt: skip


def _towards(room: Room | None) -> dict[Surface, Floats]:
    """The unit direction from a mic to each surface, in the kit's frame."""
    turn = room.kit_turn_rad if room else 0.0
    c, s = float(np.cos(turn)), float(np.sin(turn))
    right, front = np.array([c, -s, 0.0]), np.array([s, c, 0.0])
    up = np.array([0.0, 0.0, 1.0])
    return {"floor": -up, "ceiling": up, "right": right, "left": -right, "front": front,
            "back": -front}  # fmt: skip


def _gaps(capsule: Floats, room: Room | None) -> dict[Surface, Floats]:
    """Metres from each capsule to each surface it can see, (M,); FAR_M where it is not there."""
    count = len(capsule)
    gaps: dict[Surface, Floats] = {"floor": np.maximum(capsule[:, 2], 0.0)}
    if room is None:
        return gaps
    at = to_room(capsule, room)
    inside = inside_floor(at[:, 0], at[:, 1], room)
    gaps["ceiling"] = np.where(inside, np.maximum(room.height_m - at[:, 2], 0.0), FAR_M)
    sides: tuple[Wall, ...] = ("left", "right", "back", "front")
    walls = {w: np.full(count, FAR_M) for w in sides}
    for i in np.flatnonzero(inside):
        for wall, gap in wall_distances(float(at[i, 0]), float(at[i, 1]), room).items():
            walls[wall][i] = gap
    for side in sides:
        gaps[side] = np.maximum(walls[side], 0.0)
    return gaps


def images_of(
    capsule: Floats, aim: Floats, fundamentals: tuple[float, ...], room: Room | None, near_m: float
) -> Images:
    """Every first image of every mic, and those in several surfaces at once in a corner.

    Parameters
    ----------
    capsule, aim : ndarray, shape (M, 3)
    fundamentals : tuple of float
        One per source, hertz: where the reflection factor is taken.
    room : Room or None
    near_m : float
        Surfaces nearer than this are part of a mic's own sound, metres.

    Returns
    -------
    Images
    """
    count = len(capsule)
    if count == 0:
        return no_images(len(fundamentals))
    gaps, towards = _gaps(capsule, room), _towards(room)
    factors = _factors(room.surfaces if room else Surfaces(), fundamentals)
    names = list(gaps)
    away = np.array([gaps[n] for n in names])  # (K, M)
    ways = np.array([towards[n] for n in names])  # (K, 3)
    which, mic = np.nonzero(away < FAR_M)
    u, d = ways[which], away[which, mic]
    turned = aim[mic] - 2 * np.einsum("gi,gi->g", aim[mic], u)[:, None] * u
    images = Images(
        mic=mic.astype(np.int64),
        capsule=capsule[mic] + 2 * d[:, None] * u,
        aim=turned,
        factor=np.array([factors[n] for n in names])[which],
        near=d <= near_m,
        surface=tuple((names[k],) for k in which),
        gap=d,
    )
    corners = _corners(capsule, aim, away, ways, near_m)
    return _joined(images, corners, names, factors) if corners else images


Corner = tuple[int, tuple[int, ...], Floats, Floats, float]


def _corners(
    capsule: Floats, aim: Floats, away: Floats, ways: Floats, near_m: float
) -> list[Corner]:
    """Images in two or three near surfaces that stand square to each other."""
    corners: list[Corner] = []
    close = away <= near_m
    for m in np.flatnonzero(close.sum(axis=0) >= 2):
        beside = [int(k) for k in np.flatnonzero(close[:, m])]
        for size in (2, 3):
            for some in combinations(beside, size):
                if any(abs(float(ways[a] @ ways[b])) > 0.5 for a, b in combinations(some, 2)):
                    continue
                at, way = capsule[m].copy(), aim[m].copy()
                for k in some:
                    at = at + 2 * away[k, m] * ways[k]
                    way = way - 2 * float(way @ ways[k]) * ways[k]
                corners.append((int(m), some, at, way, float(away[list(some), m].min())))
    return corners


def _joined(
    single: Images, corners: list[Corner], names: list[Surface], factors: dict[Surface, Floats]
) -> Images:
    more = [np.prod([factors[names[k]] for k in some], axis=0) for _, some, _, _, _ in corners]
    return Images(
        mic=np.concatenate([single.mic, [m for m, *_ in corners]]).astype(np.int64),
        capsule=np.vstack([single.capsule, [c[2] for c in corners]]),
        aim=np.vstack([single.aim, [c[3] for c in corners]]),
        factor=np.vstack([single.factor, more]),
        near=np.concatenate([single.near, np.ones(len(corners), dtype=bool)]),
        surface=(*single.surface, *(tuple(names[k] for k in c[1]) for c in corners)),
        gap=np.concatenate([single.gap, [c[4] for c in corners]]),
    )
