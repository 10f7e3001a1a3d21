"""Mirror images of mics in the floor, the ceiling and the walls.

What a hard surface sends back to a capsule is what a second capsule, mirrored in the surface
with its aim mirrored too, would hear of the drum itself (the image principle; Kuttruff, Room
Acoustics, ch. 4). Close to the surface the two arrive together: the level rises by up to
6 dB, with the first dip near c/(4h) at a gap h and sound from straight ahead. It is part of the
mic's own sound there and fades out of it as the gap grows, so that no move meets a step; what
comes from further off is the room's. The floor is always there, and hard until a room says what
covers it; walls and ceiling need a room. In an L the walls are those met in the four directions
from the mic. What gobos send back is left out.

Directions and places are in the frame of :mod:`ringside`.
"""

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats, Ints
from ringside.plan.materials import reflection
from ringside.plan.room import Room, Surface, Surfaces, Wall, inside_floor, to_room, wall_distances

FAR_M: Final = 1e3
"""A surface that is not there is this far away."""

FADES_FROM: Final = 0.75
FADES_TO: Final = 1.5
"""Of the limit of the layout: between the two a surface fades out of a mic's own sound (from
memory)."""


@dataclass(frozen=True, kw_only=True)
class Images:
    """G images of M mics, against S sources."""

    mic: Ints  # (G,) whose image it is
    capsule: Floats  # (G, 3)
    aim: Floats  # (G, 3)
    factor: Floats  # (G, S) pressure reflection at each drum's fundamental
    share: Floats  # (G,) how much of it is part of the mic's own sound, 0 to 1
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
        factor=np.empty((0, sources)), share=np.empty(0), surface=(), gap=np.empty(0),
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
        What surfaces about so far away send is part of a mic's own sound, metres; see `share_at`.

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
    u, d, straight = ways[which], away[which, mic], aim[mic]
    turned = straight - 2 * np.einsum("gi,gi->g", straight, u)[:, None] * u
    alone: list[tuple[Surface, ...]] = [(n,) for n in names]
    images = Images(
        mic=mic.astype(np.int64),
        capsule=capsule[mic] + 2 * d[:, None] * u,
        aim=turned,
        factor=np.array([factors[n] for n in names])[which],
        share=share_at(d, near_m),
        surface=tuple(alone[k] for k in which.tolist()),
        gap=d,
    )
    corners = _corners(capsule, aim, away, ways, near_m) if len(names) > 1 else []
    return _joined(images, corners, names, factors) if corners else images


def share_at(gap: ArrayLike, near_m: float) -> Floats:
    """How much of what a surface sends is part of a mic's own sound.

    All of it up to three quarters of `near_m`, nothing from one and a half times it, and a
    raised cosine between.

    Parameters
    ----------
    gap : array_like
        Metres from the capsule to the surface.
    near_m : float
        Metres.

    Returns
    -------
    ndarray
        0 to 1, of the shape of `gap`.
    """
    d = np.asarray(gap, dtype=float)
    if near_m <= 0:
        return np.where(d <= 0, 1.0, 0.0)
    way = np.clip((d / near_m - FADES_FROM) / (FADES_TO - FADES_FROM), 0.0, 1.0)
    return np.asarray(0.5 + 0.5 * np.cos(np.pi * way))


class Corner(NamedTuple):
    """An image in two or three surfaces."""

    mic: int
    of: tuple[int, ...]
    capsule: Floats
    aim: Floats
    gap: float
    share: float


def _corners(
    capsule: Floats, aim: Floats, away: Floats, ways: Floats, near_m: float
) -> list[Corner]:
    """Images in two or three near surfaces that stand square to each other."""
    corners: list[Corner] = []
    share = share_at(away, near_m)
    close = share > 0
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
                rows = list(some)
                nearest, whole = float(away[rows, m].min()), float(share[rows, m].prod())
                corners.append(Corner(int(m), some, at, way, nearest, whole))
    return corners


def _joined(
    single: Images, corners: list[Corner], names: list[Surface], factors: dict[Surface, Floats]
) -> Images:
    more = [np.prod([factors[names[k]] for k in c.of], axis=0) for c in corners]
    return Images(
        mic=np.concatenate([single.mic, [c.mic for c in corners]]).astype(np.int64),
        capsule=np.vstack([single.capsule, [c.capsule for c in corners]]),
        aim=np.vstack([single.aim, [c.aim for c in corners]]),
        factor=np.vstack([single.factor, more]),
        share=np.concatenate([single.share, [c.share for c in corners]]),
        surface=(*single.surface, *(tuple(names[k] for k in c.of) for c in corners)),
        gap=np.concatenate([single.gap, [c.gap for c in corners]]),
    )
