"""Cables laid across a way people walk: whether the run from a mic to its box passes a door."""

from collections.abc import Iterator
from itertools import pairwise
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.plan.layout import Layout
from ringside.plan.room import Door, Room, to_room

WAY_M: Final = 1.2
"""How far in front of a door people walk straight on (from memory)."""


def doors_crossed(
    layout: Layout, mic: tuple[float, float, float], box: tuple[float, float]
) -> list[str]:
    """The walls whose door a cable crosses in front of, laid square to the walls.

    Both ways round the corner are looked at: a door that only one of them crosses is kept clear by
    laying the other.

    Parameters
    ----------
    layout : Layout
    mic : tuple of float, shape (3,)
        Metres, in the frame of the kit.
    box : tuple of float, shape (2,)
        The same, on the floor.

    Returns
    -------
    list of str
        Empty where no room is drawn.
    """
    room = layout.room
    if room is None:
        return []
    ends = to_room(np.array([mic, (*box, 0.0)]), room)[:, :2]
    return [d.wall for d in room.doors if all(_meets(run, d, room) for run in _runs(ends))]


def _runs(ends: Floats) -> Iterator[Floats]:
    """Both ways round the corner, (3, 2) each."""
    (x, y), (u, v) = ends
    for corner in ((u, y), (x, v)):
        yield np.array([(x, y), corner, (u, v)])


def _meets(run: Floats, door: Door, room: Room) -> bool:
    """Whether a run of two legs, each along a wall, passes the way in front of a door."""
    low, high = _way(door, room)
    for one, two in pairwise(run):
        least, most = np.minimum(one, two), np.maximum(one, two)
        if np.all(least < high) and np.all(most > low):
            return True
    return False


def _way(door: Door, room: Room) -> tuple[Floats, Floats]:
    """The floor in front of a door: its two far corners, metres."""
    a, b = door.at_m, door.at_m + door.width_m
    corners = {
        "back": ((a, 0.0), (b, WAY_M)),
        "front": ((a, room.length_m - WAY_M), (b, room.length_m)),
        "left": ((0.0, a), (WAY_M, b)),
        "right": ((room.width_m - WAY_M, a), (room.width_m, b)),
    }[door.wall]
    return np.array(corners[0]), np.array(corners[1])
