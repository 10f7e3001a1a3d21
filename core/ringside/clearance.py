"""Where a capsule cannot be: outside the room, in a drum, in a cymbal's swing, at the drummer.

Every check takes points (N, 3) in metres and marks those that are not clear. The sizes of
the zones are common practice; they are the usual caution, not a safety rule.
"""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ringside.layout import Layout, Room
from ringside.scene import Floats, sources_of

CYMBAL_SWING_M = 0.10
"""How far a struck cymbal's edge swings up and down."""

CYMBAL_ROUND_M = 0.03
"""Room left round a cymbal's edge."""

SHELL_ROUND_M = 0.01
"""Room left outside a shell."""

Mask = NDArray[np.bool_]


def in_room(points: Floats, room: Room) -> Floats:
    """Points of the kit's frame as room coordinates, origin in the back left corner (N, 3)."""
    c, s = np.cos(room.kit_turn_rad), np.sin(room.kit_turn_rad)
    x, y = points[:, 0], points[:, 1]
    return np.column_stack(
        [room.kit_x_m + c * x - s * y, room.kit_y_m + s * x + c * y, points[:, 2]]
    )


def outside_room(points: Floats, room: Room | None) -> Mask:
    """Below the floor, or through a wall or the ceiling of the room if there is one."""
    below = points[:, 2] < 0
    if room is None:
        return np.asarray(below)
    at = in_room(points, room)
    box = np.array([room.width_m, room.length_m, room.height_m])
    return np.asarray(below | (at < 0).any(axis=1) | (at > box).any(axis=1))


def _in_parts(points: Floats, layout: Layout) -> Mask:
    """Inside a closed shell's wall zone or a cymbal's swing; inside the open kick is allowed."""
    src = sources_of(layout.kit)
    out = points[:, None, :] - src.centre
    height = np.einsum("nsi,si->ns", out, src.axis)
    radial = np.sqrt(np.maximum(np.einsum("nsi,nsi->ns", out, out) - height**2, 0))
    cymbal = src.depth == 0
    swing = cymbal & (np.abs(height) < CYMBAL_SWING_M) & (radial < src.radius + CYMBAL_ROUND_M)
    kick = np.array([d.kind == "kick" for d in layout.kit.drums] + [False] * int(cymbal.sum()))
    drum = ~cymbal & ~kick & (height < 0) & (height > -src.depth)
    return np.asarray((swing | (drum & (radial < src.radius + SHELL_ROUND_M))).any(axis=1))


def _at_drummer(points: Floats, layout: Layout) -> Mask:
    stool = layout.kit.stool
    if stool is None:
        return np.zeros(len(points), bool)
    away = np.hypot(points[:, 0] - stool.position_m[0], points[:, 1] - stool.position_m[1])
    return np.asarray((away < stool.zone_radius_m) & (points[:, 2] < stool.zone_top_m))


def blocked(points: ArrayLike, layout: Layout) -> Mask:
    """Which of the points (N, 3) a mic cannot stand at, (N,)."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    return np.asarray(outside_room(p, layout.room) | _in_parts(p, layout) | _at_drummer(p, layout))


def under_cymbals(points: ArrayLike, layout: Layout) -> Mask:
    """Which of the points (N, 3) are lower than the highest cymbal: no place for an overhead."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    top = max((c.centre_m[2] for c in layout.kit.cymbals), default=0.0)
    return np.asarray(p[:, 2] < top)


OUTSIDE = "This spot is outside the room."
IN_PARTS = "This spot is inside a drum or in the swing of a cymbal."
AT_DRUMMER = "This spot is where the drummer sits and swings: a stand here hits somebody."


def words_for_all(points: ArrayLike, layout: Layout) -> list[str]:
    """Why a mic cannot stand at each of the points (N, 3); empty where it can."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    words = np.select(
        [outside_room(p, layout.room), _in_parts(p, layout), _at_drummer(p, layout)],
        [OUTSIDE, IN_PARTS, AT_DRUMMER],
        "",
    )
    found: list[str] = words.tolist()
    return found


def words_for(point: ArrayLike, layout: Layout) -> str:
    """Why a mic cannot stand at a point (3,); empty when it can."""
    return words_for_all(point, layout)[0]
