"""What a room is: a box or an L, what covers each surface, and what opens off it.

Room coordinates: metres from the back left corner of the box as the drummer sits, x to the
right, y toward the front wall, z up. The kit has a pose in it. Angles run counter-clockwise
seen from above. An L is the box with one corner cut away. Adjoining spaces lie outside the
box and hold mics as well.
"""

from math import hypot
from typing import Annotated, Final, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from ringside.arrays import Floats, Mask
from ringside.plan.materials import MaterialName
from ringside.values import Coordinate, Flag, Key, Record, Title, length

Wall = Literal["back", "front", "left", "right"]
Corner = Literal["back left", "back right", "front left", "front right"]
Surface = Literal["floor", "ceiling", "back", "front", "left", "right"]
SURFACES: Final[tuple[Surface, ...]] = ("floor", "ceiling", "back", "front", "left", "right")
DOORWAY_M: Final = 0.3
"""How deep a doorway is taken to be, so that a mic can stand in it (from memory)."""

Angle = Annotated[
    float, Field(strict=True, allow_inf_nan=False, ge=-7, le=7, description="Radians.")
]


class Notch(Record):
    """The corner that is cut away from the box to make an L."""

    corner: Corner
    width_m: Annotated[float, length(0.2, 99, "Across, metres.")]
    length_m: Annotated[float, length(0.2, 99, "Front to back, metres.")]


class Surfaces(Record):
    """What covers each surface of the room; an inner wall of an L is covered like the others."""

    floor: MaterialName = "concrete floor"
    ceiling: MaterialName = "plasterboard ceiling"
    back: MaterialName = "plastered brick"
    front: MaterialName = "plastered brick"
    left: MaterialName = "plastered brick"
    right: MaterialName = "plastered brick"


class Space(Record):
    """An adjoining space that can hold mics: a hallway, a bathroom, a stairwell."""

    id: Key
    name: Title
    x_m: Coordinate
    y_m: Coordinate
    width_m: Annotated[float, length(0.5, 100, "Across, metres.")]
    length_m: Annotated[float, length(0.5, 100, "Front to back, metres.")]
    height_m: Annotated[float, length(1.0, 30, "Floor to ceiling, metres.")]
    material: MaterialName = "plastered brick"


class Door(Record):
    """A door in a wall: from the wall's left or back end, and where it leads."""

    wall: Wall
    at_m: Annotated[float, length(0, 100, "From the left or back end of the wall, metres.")]
    width_m: Annotated[float, length(0.4, 6, "Across, metres.")] = 0.9
    height_m: Annotated[float, length(1.0, 6, "High, metres.")] = 2.0
    open: Flag = False
    leads_to: Key | None = None


class Gobo(Record):
    """A screen that stands or hangs, a card of foam too: both faces covered with one material."""

    name: Title
    x_m: Coordinate
    y_m: Coordinate
    width_m: Annotated[float, length(0.1, 6, "Across, metres.")] = 1.2
    height_m: Annotated[float, length(0.1, 4, "High, metres.")] = 1.2
    from_m: Annotated[float, length(0, 3, "From the floor to its lower edge, metres.")] = 0.0
    thickness_m: Annotated[float, length(0.01, 0.5, "Thick, metres.")] = 0.1
    turn_rad: Angle = 0.0
    material: MaterialName = "fabric panel"


class Room(Record):
    """A room, and where the kit's origin stands in it."""

    name: Title
    width_m: Annotated[float, length(1.5, 100, "Across, metres.")]
    length_m: Annotated[float, length(1.5, 100, "Front to back, metres.")]
    height_m: Annotated[float, length(1.5, 30, "Floor to ceiling, metres.")]
    kit_x_m: Annotated[float, length(0, 100, "Kit origin from the left wall, metres.")]
    kit_y_m: Annotated[float, length(0, 100, "Kit origin from the wall behind, metres.")]
    kit_turn_rad: Annotated[
        float, Field(strict=True, ge=-7, le=7, description="Counter-clockwise from above.")
    ] = 0.0
    notch: Notch | None = None
    surfaces: Surfaces = Surfaces()
    doors: tuple[Door, ...] = Field(default=(), max_length=12)
    spaces: tuple[Space, ...] = Field(default=(), max_length=8)
    gobos: tuple[Gobo, ...] = Field(default=(), max_length=16)

    @model_validator(mode="after")
    def _possible(self) -> Self:
        n = self.notch
        if n and (n.width_m > self.width_m - 0.5 or n.length_m > self.length_m - 0.5):
            raise ValueError(
                "the corner cut away must leave at least half a metre of the room on both sides"
            )
        ids = [s.id for s in self.spaces]
        if len(set(ids)) < len(ids):
            raise ValueError("two adjoining spaces have one short name; rename one")
        for d in self.doors:
            along = self.width_m if d.wall in ("back", "front") else self.length_m
            if d.at_m + d.width_m > along:
                raise ValueError(f"a door reaches past the end of the {d.wall} wall")
            if d.height_m > self.height_m:
                raise ValueError(f"a door in the {d.wall} wall is higher than the room")
            if d.leads_to is not None and d.leads_to not in ids:
                raise ValueError(f"a door leads to {d.leads_to!r}, which is no adjoining space")
        return self


def notch_box(room: Room) -> tuple[float, float, float, float] | None:
    """The cut corner as x0, y0, x1, y1, metres; None for a box.

    Parameters
    ----------
    room : Room

    Returns
    -------
    (float, float, float, float) or None
        x0, y0, x1, y1, metres.
    """
    n = room.notch
    if n is None:
        return None
    x0 = 0.0 if n.corner.endswith("left") else room.width_m - n.width_m
    y0 = 0.0 if n.corner.startswith("back") else room.length_m - n.length_m
    return x0, y0, x0 + n.width_m, y0 + n.length_m


def floor_area(room: Room) -> float:
    """Square metres of the floor without the corner cut away.

    Parameters
    ----------
    room : Room

    Returns
    -------
    float
        m².
    """
    n = room.notch
    return room.width_m * room.length_m - (n.width_m * n.length_m if n else 0.0)


def volume(room: Room) -> float:
    """Cubic metres.

    Parameters
    ----------
    room : Room

    Returns
    -------
    float
        m³.
    """
    return floor_area(room) * room.height_m


def longest_within(room: Room) -> float:
    """No two points in the room and its adjoining spaces are further apart.

    Parameters
    ----------
    room : Room

    Returns
    -------
    float
        Metres: across the box round all of them.
    """
    boxes = [(0.0, 0.0, room.width_m, room.length_m, room.height_m)]
    boxes += [(s.x_m, s.y_m, s.x_m + s.width_m, s.y_m + s.length_m, s.height_m)
              for s in room.spaces]  # fmt: skip
    x0, y0, x1, y1, high = zip(*boxes, strict=True)
    return hypot(max(x1) - min(x0), max(y1) - min(y0), max(high))


def to_room(points: Floats, room: Room) -> Floats:
    """Points of the kit's frame in room coordinates.

    Parameters
    ----------
    points : ndarray, shape (N, 3)
        Metres.
    room : Room

    Returns
    -------
    ndarray, shape (N, 3)
        Metres from the back left corner.
    """
    c, s = np.cos(room.kit_turn_rad), np.sin(room.kit_turn_rad)
    x, y = points[:, 0], points[:, 1]
    return np.column_stack(
        [room.kit_x_m + c * x - s * y, room.kit_y_m + s * x + c * y, points[:, 2]]
    )


def to_kit(points: Floats, room: Room) -> Floats:
    """Points in room coordinates in the kit's frame.

    Parameters
    ----------
    points : ndarray, shape (N, 3)
        Metres from the back left corner.
    room : Room

    Returns
    -------
    ndarray, shape (N, 3)
        Metres.
    """
    c, s = np.cos(room.kit_turn_rad), np.sin(room.kit_turn_rad)
    x, y = points[:, 0] - room.kit_x_m, points[:, 1] - room.kit_y_m
    return np.column_stack([c * x + s * y, -s * x + c * y, points[:, 2]])


def inside_floor(x: Floats, y: Floats, room: Room) -> Mask:
    """Which places of the floor lie in the room itself.

    Parameters
    ----------
    x, y : ndarray, shape (N,)
        Metres in room coordinates.
    room : Room

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    inside = (x >= 0) & (x <= room.width_m) & (y >= 0) & (y <= room.length_m)
    cut = notch_box(room)
    if cut and room.notch:
        x0, y0, x1, y1 = cut
        across = x < x1 if room.notch.corner.endswith("left") else x > x0
        along = y < y1 if room.notch.corner.startswith("back") else y > y0
        inside &= ~(across & along)
    return np.asarray(inside)


def inside_space(space: Space, at: Floats) -> Mask:
    """Which points stand in one adjoining space.

    Parameters
    ----------
    space : Space
    at : ndarray, shape (N, 3)
        Metres in room coordinates.

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    low = np.array([space.x_m, space.y_m, 0.0])
    high = low + np.array([space.width_m, space.length_m, space.height_m])
    return np.asarray(((at >= low) & (at <= high)).all(axis=1))


def in_doorway(door: Door, at: Floats, room: Room) -> Mask:
    """Which points stand in the thickness of one doorway.

    Parameters
    ----------
    door : Door
    at : ndarray, shape (N, 3)
        Metres in room coordinates.
    room : Room

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    across, along = (1, 0) if door.wall in ("back", "front") else (0, 1)
    depth = room.length_m if across == 1 else room.width_m
    past = -at[:, across] if door.wall in ("back", "left") else at[:, across] - depth
    return np.asarray(
        (past >= 0)
        & (past <= DOORWAY_M)
        & (at[:, along] >= door.at_m)
        & (at[:, along] <= door.at_m + door.width_m)
        & (at[:, 2] <= door.height_m)
    )


def in_gobos(at: Floats, room: Room) -> Mask:
    """Which points are inside a gobo.

    Parameters
    ----------
    at : ndarray, shape (N, 3)
        Metres in room coordinates.
    room : Room

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    within = np.zeros(len(at), bool)
    for g in room.gobos:
        c, s = np.cos(g.turn_rad), np.sin(g.turn_rad)
        x, y = at[:, 0] - g.x_m, at[:, 1] - g.y_m
        within |= (
            (np.abs(c * x + s * y) <= g.width_m / 2)
            & (np.abs(-s * x + c * y) <= g.thickness_m / 2)
            & (at[:, 2] >= g.from_m)
            & (at[:, 2] <= g.from_m + g.height_m)
        )
    return within


def wall_distances(x: float, y: float, room: Room) -> dict[Wall, float]:
    """How far a place on the floor is from the wall in each of the four directions, metres.

    In an L the nearer inner wall counts where it lies in the way.

    Parameters
    ----------
    x : float
        Across the room, metres.
    y : float
        Along the room, metres.
    room : Room

    Returns
    -------
    dict of Wall to float
        Metres.
    """
    left, right = 0.0, room.width_m
    back, front = 0.0, room.length_m
    cut = notch_box(room)
    if cut:
        x0, y0, x1, y1 = cut
        if y0 < y < y1:
            left, right = (max(left, x1), right) if x >= x1 else (left, min(right, x0))
        if x0 < x < x1:
            back, front = (max(back, y1), front) if y >= y1 else (back, min(front, y0))
    return {"left": x - left, "right": right - x, "back": y - back, "front": front - y}
