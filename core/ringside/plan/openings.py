"""What walls leave open: the doors to what is next door, and the inner corner of an L.

A tape is held, and sound goes straight, only where no wall is between two points. Coordinates are
those of :mod:`ringside.plan.room`; walls are taken to have no thickness.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.plan.room import (
    Door,
    Room,
    in_doorway,
    inside_floor,
    inside_space,
    notch_box,
    to_room,
)
from ringside.values import Vector


@dataclass(frozen=True, slots=True)
class Opening:
    """A doorway in the frame of its wall, metres."""

    along: int  # the coordinate that runs along the wall
    across: int
    wall_m: float  # where the wall lies across
    low_m: float
    high_m: float  # from one jamb to the other
    top_m: float
    open: bool


def opening_of(door: Door, room: Room) -> Opening:
    """Where a door's edges are.

    Parameters
    ----------
    door : Door
    room : Room

    Returns
    -------
    Opening
    """
    along, across = (0, 1) if door.wall in ("back", "front") else (1, 0)
    depth = room.length_m if across == 1 else room.width_m
    wall = 0.0 if door.wall in ("back", "left") else depth
    return Opening(along, across, wall, door.at_m, door.at_m + door.width_m, door.height_m,
                   door.open)  # fmt: skip


def openings_to(space: int, room: Room) -> list[Opening]:
    """The ways to a space: its open doors; where all are shut, those.

    Parameters
    ----------
    space : int
        Its number in the room's list.
    room : Room

    Returns
    -------
    list of Opening
        None where no door leads there.
    """
    doors = [opening_of(d, room) for d in room.doors if d.leads_to == room.spaces[space].id]
    return [d for d in doors if d.open] or doors


Reach = Literal["open door", "shut door", "wall"]


def reach_of(space: int, room: Room) -> Reach:
    """By what sound gets to an adjoining space.

    Parameters
    ----------
    space : int
        Its number in the room's list.
    room : Room

    Returns
    -------
    Reach
    """
    doors = openings_to(space, room)
    if any(d.open for d in doors):
        return "open door"
    return "shut door" if doors else "wall"


def next_door(at: Floats, room: Room) -> Ints:
    """Which adjoining space points stand in, or in the doorway to.

    Parameters
    ----------
    at : ndarray, shape (N, 3)
        Metres in room coordinates.
    room : Room

    Returns
    -------
    ndarray of int, shape (N,)
        Numbers in the room's list of spaces; -1 in the room itself, and where nothing is.
    """
    which = np.full(len(at), -1, dtype=np.int64)
    if not room.spaces:
        return which
    free = ~inside_floor(at[:, 0], at[:, 1], room)
    if not free.any():
        return which
    for n, space in enumerate(room.spaces):
        within = inside_space(space, at)
        for door in room.doors:
            if door.leads_to == space.id:
                within |= in_doorway(door, at, room)
        which[free & within & (which < 0)] = n
    return which


@dataclass(frozen=True, slots=True)
class InnerCorner:
    """The edge at which the arms of an L meet: where it is, and which way the cut corner lies."""

    at: tuple[float, float]
    outward: tuple[float, float]

    def off(self, points: Floats) -> Floats:
        """Points from the edge, both coordinates above nothing in what is cut away.

        Parameters
        ----------
        points : ndarray, shape (..., 3)
            Metres in room coordinates.

        Returns
        -------
        ndarray, shape (..., 2)
        """
        return np.asarray((points[..., :2] - np.array(self.at)) * np.array(self.outward))


def inner_corner(room: Room) -> InnerCorner | None:
    """The inner corner of an L; None for a box.

    Parameters
    ----------
    room : Room

    Returns
    -------
    InnerCorner or None
    """
    cut = notch_box(room)
    if cut is None or room.notch is None:
        return None
    x0, y0, x1, y1 = cut
    left, back = room.notch.corner.endswith("left"), room.notch.corner.startswith("back")
    return InnerCorner(
        (x1 if left else x0, y1 if back else y0), (-1.0 if left else 1.0, -1.0 if back else 1.0)
    )


def past_corner(off_one: Floats, off_two: Floats) -> tuple[Mask, Floats]:
    """Where straight lines pass an inner corner, along the diagonal into what is cut away.

    Parameters
    ----------
    off_one, off_two : ndarray, shape (..., 2)
        Their ends, as `InnerCorner.off` tells them.

    Returns
    -------
    ndarray of bool, ndarray
        Whether a line crosses the diagonal at all; and how far along it, above nothing where the
        corner is in the way.
    """
    one, two = (p[..., 0] - p[..., 1] for p in (off_one, off_two))
    crosses = one * two < 0
    if not crosses.any():
        return np.asarray(crosses), np.zeros(crosses.shape)
    span = one - two
    share = one / np.where(np.abs(span) < 1e-12, 1e-12, span)
    at = off_one[..., 0] + share * (off_two[..., 0] - off_one[..., 0])
    return np.asarray(crosses), np.asarray(at)


def in_one_line(room: Room, one: Floats, two: Floats) -> bool:
    """Whether no wall is between two points: in one space, in line with an open door, not round
    the corner of an L.

    Parameters
    ----------
    room : Room
    one, two : ndarray, shape (3,)
        Metres in room coordinates.

    Returns
    -------
    bool
    """
    here, there = (int(n) for n in next_door(np.array([one, two]), room))
    if here == there:
        corner = inner_corner(room) if here < 0 else None
        if corner is None:
            return True
        crosses, at = past_corner(corner.off(one), corner.off(two))
        return not (bool(crosses) and float(at) > 0)
    if here >= 0 and there >= 0:
        return False  # by two doors, which are hardly in one line
    ways = openings_to(max(here, there), room)
    return any(w.open and _passes(w, one, two) for w in ways)


def in_sight(room: Room | None, one: Vector | Floats, two: Vector | Floats) -> bool:
    """The same for points of the kit; without a room nothing is in between.

    Parameters
    ----------
    room : Room or None
    one, two : Vector or ndarray, shape (3,)
        Metres in the kit's coordinates.

    Returns
    -------
    bool
    """
    if room is None or not (room.spaces or room.notch):
        return True
    here, there = to_room(np.array([one, two]), room)
    return in_one_line(room, here, there)


def _passes(way: Opening, one: Floats, two: Floats) -> bool:
    """Whether a straight line goes through an opening."""
    ways = one[way.across] - way.wall_m, two[way.across] - way.wall_m
    if ways[0] * ways[1] >= 0:
        return False
    at = one + ways[0] / (ways[0] - ways[1]) * (two - one)
    return bool(way.low_m <= at[way.along] <= way.high_m and at[2] <= way.top_m)
