"""Where no kit can stand: under the floor, outside its room, in the corner an L leaves out."""

from typing import Final

import numpy as np

from ringside.phrases import listed
from ringside.plan.kit import Cymbal, Drum
from ringside.plan.layout import Layout
from ringside.plan.room import Room, inside_floor, notch_box, wall_distances

SUNK_M: Final = 0.005
"""A tape reads to half a centimetre: a foot that far under the floor is no fault."""


def kit_words(layout: Layout) -> list[str]:
    """What is wrong with where the kit stands, one sentence each; none where it can stand.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of str
    """
    sunk = [p.name for p in layout.kit.parts if _lowest(p) < -SUNK_M]
    verb = "reaches" if len(sunk) == 1 else "reach"
    said = [f"{listed(sunk)} {verb} under the floor: look at the height."] if sunk else []
    return [*said, *(_outside(layout.room) if layout.room else [])]


def _lowest(part: Drum | Cymbal) -> float:
    """The height of its lowest edge, metres."""
    axis = np.array(part.axis)
    drop = part.diameter_m / 2 * float(np.sqrt(max(1 - axis[2] ** 2, 0.0)))
    if isinstance(part, Cymbal):
        return part.centre_m[2] - drop
    far = part.batter_m[2] - part.depth_m * float(axis[2])
    return min(part.batter_m[2], far) - drop


def _outside(room: Room) -> list[str]:
    x, y = room.kit_x_m, room.kit_y_m
    if bool(inside_floor(np.array([x]), np.array([y]), room)[0]):
        return []
    cut = notch_box(room)
    if cut and cut[0] <= x <= cut[2] and cut[1] <= y <= cut[3]:
        return ["The kit stands in the corner that the room leaves out: move it in."]
    far = [wall for wall, gap in wall_distances(x, y, room).items() if gap < 0]
    return [
        f"The kit stands outside the room, beyond the {' and the '.join(far)} wall: move it in."
    ]
