"""What the nearest walls do to a drum at a spot, and which spots of a room are the smoothest.

A small source near hard surfaces radiates more or less power by its own reflections: with
the images of the source in the surfaces at distances r and reflection factors R, the power
against free air is 1 + Σ R·sin(kr)/(kr) (R. V. Waterhouse, J. Acoust. Soc. Am. 30 (1958) 4).
Each pair of opposite walls gives two images and their products with the other pairs: 26 in
a box. In an L the walls are those met in the four directions from the spot. R² = 1 - α.
By reciprocity the same curve holds for a mic that hears the whole room.
"""

from dataclasses import dataclass
from itertools import product
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.constants import OVERHEAD_HEIGHT_M, REFERENCE_SPEED_OF_SOUND
from ringside.plan.kit import Kit
from ringside.plan.layout import Layout
from ringside.plan.materials import reflection
from ringside.plan.room import Room, inside_floor, wall_distances

FREQUENCIES_HZ: Final = np.geomspace(30.0, 300.0, 80)
MAP_STEP_M: Final = 0.5
"""Spots of the map stand this far apart: half a metre can be heard on the kick."""

FROM_WALL_M: Final = 0.8
"""A snare is no nearer to a wall than this: the drummer sits behind it (common practice)."""

SMOOTH_SHARE: Final = 0.25
"""The smoothest quarter of the spots is marked."""

MOST_SPOTS: Final = 1500


def response_db(
    room: Room, spots: Floats, frequency_hz: Floats, speed: float = REFERENCE_SPEED_OF_SOUND
) -> Floats:
    """The boundary response at points of the room.

    Parameters
    ----------
    room : Room
    spots : ndarray, shape (N, 3)
        Room coordinates, metres, inside the room.
    frequency_hz : ndarray, shape (F,)
    speed : float
        Speed of sound, m/s.

    Returns
    -------
    ndarray, shape (N, F)
        Power against the same source in free air, decibels.

    References
    ----------
    Waterhouse (1958), equations 3 to 8 in substance.
    """
    near = [wall_distances(float(x), float(y), room) for x, y, _ in spots]
    surfaces = room.surfaces
    # Per axis: the source itself, its image in the near and in the far surface.
    low = np.array([[n["left"] for n in near], [n["back"] for n in near], spots[:, 2]])
    high = np.array(
        [[n["right"] for n in near], [n["front"] for n in near], room.height_m - spots[:, 2]]
    )
    away = np.stack([np.zeros_like(low), 2 * low, 2 * high], axis=1)  # (3 axes, 3, N)
    pairs = ((surfaces.left, surfaces.right), (surfaces.back, surfaces.front),
             (surfaces.floor, surfaces.ceiling))  # fmt: skip
    one = np.ones_like(frequency_hz)
    factor = np.array([[one, reflection(a, frequency_hz), reflection(b, frequency_hz)]
                       for a, b in pairs])  # fmt: skip
    k = 2 * np.pi * frequency_hz / speed
    power = np.ones((len(spots), len(frequency_hz)))
    for i, j, m in product(range(3), repeat=3):
        if (i, j, m) == (0, 0, 0):
            continue
        r = np.sqrt(away[0, i] ** 2 + away[1, j] ** 2 + away[2, m] ** 2)
        power += factor[0, i] * factor[1, j] * factor[2, m] * np.sinc(np.outer(r, k) / np.pi)
    return np.asarray(10 * np.log10(np.maximum(power, 1e-3)))


def heights(kit: Kit) -> dict[str, float]:
    """The three heights a spot is judged at, metres over the floor.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    dict of str to float
        Metres over the floor, by short name.
    """
    return {
        "kick": max(kit.first("kick").batter_m[2], 0.05),
        "snare": kit.first("snare").batter_m[2],
        "overhead": OVERHEAD_HEIGHT_M,
    }


def roughness_db(curves: Floats) -> Floats:
    """How far curves sway about their own mean.

    Parameters
    ----------
    curves : ndarray, shape (..., F)
        Decibels.

    Returns
    -------
    ndarray, shape (...)
        Decibels RMS.
    """
    return np.asarray(curves.std(axis=-1))


@dataclass(frozen=True, kw_only=True, slots=True)
class MapSpot:
    """A spot half a metre from the next, room coordinates, and how rough the low end is there."""

    x_m: float
    y_m: float
    roughness_db: float
    smooth: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class SpotHere:
    """What the nearest walls do where the kit stands; quick enough to follow a hand."""

    curves: dict[str, list[float]]
    """By height: decibels at each frequency; empty while the snare stands outside."""
    roughness_db: float | None
    walls_m: dict[str, float]
    """From the snare."""


@dataclass(frozen=True, kw_only=True, slots=True)
class SpotBoard:
    """The boundary response where the kit stands, and the map of spots."""

    frequency_hz: list[float]
    here: SpotHere
    smoothest_db: float | None
    spots: list[MapSpot]


def _judged(kit: Kit, room: Room) -> dict[str, float]:
    """The heights a spot is judged at, under the ceiling."""
    return {k: min(h, room.height_m - 0.05) for k, h in heights(kit).items()}


def spot_here(kit: Kit, room: Room, speed: float = REFERENCE_SPEED_OF_SOUND) -> SpotHere:
    """The response where the kit stands, and how far its walls are.

    Parameters
    ----------
    kit : Kit
    room : Room
    speed : float
        Speed of sound, m/s.

    Returns
    -------
    SpotHere
    """
    high = _judged(kit, room)
    here = np.array([[room.kit_x_m, room.kit_y_m, z] for z in high.values()])
    if not inside_floor(here[:1, 0], here[:1, 1], room)[0]:
        return SpotHere(curves={}, roughness_db=None, walls_m={})
    curves = response_db(room, here, FREQUENCIES_HZ, speed)
    walls = wall_distances(room.kit_x_m, room.kit_y_m, room)
    return SpotHere(
        curves={k: [round(float(v), 2) for v in row] for k, row in zip(high, curves, strict=True)},
        roughness_db=float(roughness_db(curves).mean()),
        walls_m={str(k): v for k, v in walls.items()},
    )


def spot_report(layout: Layout) -> SpotBoard | None:
    """The response where the kit stands, and the map of spots; None without a room.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    SpotBoard or None
    """
    room, speed = layout.room, layout.air.speed
    if room is None:
        return None
    places = candidate_spots(room)
    rough = _map_roughness(room, places, list(_judged(layout.kit, room).values()), speed)
    order = np.sort(rough)
    limit = order[max(int(len(order) * SMOOTH_SHARE) - 1, 0)] if len(order) else 0.0
    return SpotBoard(
        frequency_hz=[round(float(f), 2) for f in FREQUENCIES_HZ],
        here=spot_here(layout.kit, room, speed),
        smoothest_db=float(order[0]) if len(order) else None,
        spots=[
            MapSpot(
                x_m=float(x), y_m=float(y), roughness_db=round(float(r), 2), smooth=bool(r <= limit)
            )
            for (x, y), r in zip(places, rough, strict=True)
        ],
    )


def candidate_spots(room: Room) -> Floats:
    """Spots half a metre apart where a kit could stand.

    Parameters
    ----------
    room : Room

    Returns
    -------
    ndarray, shape (N, 2)
        Metres in room coordinates.
    """
    step = MAP_STEP_M
    while room.width_m * room.length_m / step**2 > MOST_SPOTS:
        step *= 2
    xs = np.arange(FROM_WALL_M, room.width_m - FROM_WALL_M + 1e-9, step)
    ys = np.arange(FROM_WALL_M, room.length_m - FROM_WALL_M + 1e-9, step)
    grid = np.array([(x, y) for y in ys for x in xs]).reshape(-1, 2)
    if not len(grid):
        return grid
    grid = grid[inside_floor(grid[:, 0], grid[:, 1], room)]
    far = [min(wall_distances(x, y, room).values()) >= FROM_WALL_M - 1e-9 for x, y in grid]
    return np.asarray(grid[np.array(far, dtype=bool)])


def _map_roughness(room: Room, places: Floats, high: list[float], speed: float) -> Floats:
    """Mean roughness over the heights at each place, (N,)."""
    if not len(places):
        return np.empty(0)
    total = np.zeros(len(places))
    for z in high:
        spots = np.column_stack([places, np.full(len(places), z)])
        total += roughness_db(response_db(room, spots, FREQUENCIES_HZ, speed))
    return np.asarray(total / len(high))
