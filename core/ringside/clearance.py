"""Where a capsule cannot be: outside the room, in a drum, in a cymbal's swing, at the drummer.

Every check takes points (N, 3) in metres and marks those that are not clear. The sizes of
the zones are common practice; they are the usual caution, not a safety rule. Adjoining
spaces and the doorways to them hold mics like the room itself.
"""

from collections.abc import Callable
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ringside.kit import Kit
from ringside.layout import Layout
from ringside.room import Room, in_gobos, inside_doorways, inside_floor, inside_spaces, to_room
from ringside.scene import Floats, sources_of

CYMBAL_SWING_M = 0.10
"""How far a struck cymbal's edge swings up and down."""

CYMBAL_ROUND_M = 0.03
"""Room left round a cymbal's edge."""

SHELL_ROUND_M = 0.01
"""Room left outside a shell."""

PEDAL_LONG_M = 0.40
"""How far a pedal and the foot on it reach back from the beater or the hats' stand."""

PEDAL_WIDE_M = 0.24
"""How wide a pedal's zone is: a shoe and room to rock."""

PEDAL_HIGH_M = 0.25
"""How high a pedal's zone is."""

REACH_M = 0.25
"""From the middle of the stool to the hands, toward the kit (common practice)."""

HANDS_OVER_SEAT_M = 0.40
"""Hands over the seat: elbows hang at the ribs (common practice)."""

Mask = NDArray[np.bool_]


def _floors(at: Floats, room: Room) -> tuple[Mask, Mask, Mask]:
    """Over the room's own floor, in an adjoining space, in a doorway: each (N,)."""
    return (
        inside_floor(at[:, 0], at[:, 1], room),
        inside_spaces(at, room),
        inside_doorways(at, room),
    )


def below_floor(points: Floats, _: Layout) -> Mask:
    """Under the floor."""
    return np.asarray(points[:, 2] < 0)


def over_ceiling(points: Floats, layout: Layout) -> Mask:
    """Through the ceiling of the room it is in."""
    room = layout.room
    if room is None:
        return np.zeros(len(points), bool)
    own, beside, door = _floors(to_room(points, room), room)
    return np.asarray(own & ~beside & ~door & (points[:, 2] > room.height_m))


def outside_room(points: Floats, layout: Layout) -> Mask:
    """Neither over the room's floor nor in a space that opens off it."""
    room = layout.room
    if room is None:
        return np.zeros(len(points), bool)
    own, beside, door = _floors(to_room(points, room), room)
    return np.asarray(~(own | beside | door))


def _in_gobo(points: Floats, layout: Layout) -> Mask:
    room = layout.room
    if room is None or not room.gobos:
        return np.zeros(len(points), bool)
    return in_gobos(to_room(points, room), room)


def _in_drum(points: Floats, layout: Layout) -> Mask:
    """In a closed shell; inside a kick, or a drum with no far head, a mic may stand."""
    src = sources_of(layout.kit)
    out = points[:, None, :] - src.centre
    height = np.einsum("nsi,si->ns", out, src.axis)
    radial = np.sqrt(np.maximum(np.einsum("nsi,nsi->ns", out, out) - height**2, 0))
    shut = np.array(
        [d.kind != "kick" and d.far_head is not None for d in layout.kit.drums]
        + [False] * len(layout.kit.cymbals)
    )
    within = shut & (height < 0) & (height > -src.depth) & (radial < src.radius + SHELL_ROUND_M)
    wall = (src.depth > 0) & ~shut & (np.abs(radial - src.radius) < SHELL_ROUND_M)
    return np.asarray((within | (wall & (height < 0) & (height > -src.depth))).any(axis=1))


def _in_cymbal(points: Floats, layout: Layout) -> Mask:
    src = sources_of(layout.kit)
    out = points[:, None, :] - src.centre
    height = np.einsum("nsi,si->ns", out, src.axis)
    radial = np.sqrt(np.maximum(np.einsum("nsi,nsi->ns", out, out) - height**2, 0))
    swing = (np.abs(height) < CYMBAL_SWING_M) & (radial < src.radius + CYMBAL_ROUND_M)
    return np.asarray(((src.depth == 0) & swing).any(axis=1))


def _at_drummer(points: Floats, layout: Layout) -> Mask:
    stool = layout.kit.stool
    if stool is None:
        return np.zeros(len(points), bool)
    away = np.hypot(points[:, 0] - stool.position_m[0], points[:, 1] - stool.position_m[1])
    return np.asarray((away < stool.zone_radius_m) & (points[:, 2] < stool.zone_top_m))


@lru_cache(maxsize=64)
def sweeps(kit: Kit) -> Floats:
    """The ways of the sticks: from the hands to each struck spot but the kick's, (N, 2, 3)."""
    if kit.stool is None:
        return np.empty((0, 2, 3))
    src = sources_of(kit)
    seat = np.array([*kit.stool.position_m, kit.stool.height_m + HANDS_OVER_SEAT_M])
    ends = src.strike[[i for i, p in enumerate(kit.parts) if p.kind != "kick"]]
    flat = ends[:, :2] - seat[:2]
    step = np.minimum(REACH_M / np.maximum(np.linalg.norm(flat, axis=1), 1e-9), 1.0)
    hands = np.tile(seat, (len(ends), 1))
    hands[:, :2] += flat * step[:, None]
    return np.asarray(np.stack([hands, ends], axis=1))


def _in_sweep(points: Floats, layout: Layout) -> Mask:
    """Within the sweep of a stick, short of the spot it strikes: past it a mic is clear."""
    stool, ways = layout.kit.stool, sweeps(layout.kit)
    if stool is None or not len(ways):
        return np.zeros(len(points), bool)
    start, way = ways[:, 0], ways[:, 1] - ways[:, 0]
    size = np.maximum(np.linalg.norm(way, axis=1), 1e-9)
    unit = way / size[:, None]
    out = points[:, None, :] - start
    along = np.einsum("nsi,si->ns", out, unit)
    aside = np.sqrt(np.maximum(np.einsum("nsi,nsi->ns", out, out) - along**2, 0))
    return np.asarray(((along >= 0) & (along <= size) & (aside < stool.sweep_m)).any(axis=1))


@lru_cache(maxsize=64)
def pedals(kit: Kit) -> Floats:
    """Floor zones of the feet: front middle and back middle of each pedal, (N, 2, 2)."""
    ways = []
    for drum in (d for d in kit.drums if d.kind == "kick"):
        front = np.array(drum.batter_m[:2])
        back = np.array(drum.axis[:2])
        ways.append((front, back / max(float(np.linalg.norm(back)), 1e-9)))
    seat = np.array(kit.stool.position_m) if kit.stool else None
    for hats in (c for c in kit.cymbals if c.kind == "hats"):
        foot = np.array(hats.centre_m[:2])
        back = (seat - foot) if seat is not None else np.array([0.0, -1.0])
        ways.append((foot, back / max(float(np.linalg.norm(back)), 1e-9)))
    return np.array([[f, f + b * PEDAL_LONG_M] for f, b in ways]).reshape(-1, 2, 2)


def _in_pedals(points: Floats, layout: Layout) -> Mask:
    ways = pedals(layout.kit)
    unit = (ways[:, 1] - ways[:, 0]) / PEDAL_LONG_M
    out = points[:, None, :2] - ways[:, 0]
    along = np.einsum("nsi,si->ns", out, unit)
    aside = np.abs(out[..., 0] * unit[:, 1] - out[..., 1] * unit[:, 0])
    under = points[:, 2:3] < PEDAL_HIGH_M
    within = (along > 0) & (along < PEDAL_LONG_M) & (aside < PEDAL_WIDE_M / 2) & under
    return np.asarray(within.any(axis=1))


CHECKS: Final[tuple[tuple[Callable[[Floats, Layout], Mask], str], ...]] = (
    (below_floor, "This spot is under the floor."),
    (outside_room, "This spot is outside the room, behind a wall."),
    (over_ceiling, "This spot is above the ceiling."),
    (_in_gobo, "This spot is inside a gobo."),
    (_in_drum, "This spot is inside a drum's shell."),
    (_in_cymbal, "This spot is in the swing of a cymbal."),
    (_at_drummer, "This spot is where the drummer sits and swings: a stand here hits somebody."),
    (_in_sweep, "This spot is in the way of the sticks: a mic here is struck."),
    (_in_pedals, "This spot is where the feet work the pedals."),
)
"""Every check with its words, gravest first."""


def blocked(points: ArrayLike, layout: Layout) -> Mask:
    """Which of the points (N, 3) a mic cannot stand at, (N,)."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    found = np.zeros(len(p), bool)
    for check, _ in CHECKS:
        found |= check(p, layout)
    return found


def under_cymbals(points: ArrayLike, layout: Layout) -> Mask:
    """Which of the points (N, 3) are lower than the highest cymbal: no place for an overhead."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    top = max((c.centre_m[2] for c in layout.kit.cymbals), default=0.0)
    return np.asarray(p[:, 2] < top)


def words_for_all(points: ArrayLike, layout: Layout) -> list[str]:
    """Why a mic cannot stand at each of the points (N, 3); empty where it can."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    found: list[str] = np.select(
        [check(p, layout) for check, _ in CHECKS], [words for _, words in CHECKS], ""
    ).tolist()
    return found


def words_for(point: ArrayLike, layout: Layout) -> str:
    """Why a mic cannot stand at a point (3,); empty when it can."""
    return words_for_all(point, layout)[0]
