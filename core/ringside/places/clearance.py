"""Where a capsule cannot be: outside the room, in a drum, in a cymbal's swing, at the drummer.

Every check takes points (N, 3) in metres and marks those that are not clear. The sizes of
the zones are common practice; they are the usual caution, not a safety rule. Adjoining
spaces and the doorways to them hold mics like the room itself.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats, Mask
from ringside.hear.scene import sources_of
from ringside.plan.kit import Kit, Stool
from ringside.plan.layout import Layout
from ringside.plan.openings import next_door
from ringside.plan.room import Room, in_gobos, inside_floor, to_room

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

ARM_REACH_M = 0.25
"""From the middle of the stool to the hands, toward the kit (common practice)."""

HANDS_OVER_SEAT_M = 0.40
"""Hands over the seat: elbows hang at the ribs (common practice)."""


def sweeps(kit: Kit) -> Floats:
    """The ways of the sticks: from the hands to each struck spot but the kick's.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    ndarray, shape (N, 2, 3)
        Both ends, metres.
    """
    if kit.stool is None:
        return np.empty((0, 2, 3))
    src = sources_of(kit)
    seat = np.array([*kit.stool.position_m, kit.stool.height_m + HANDS_OVER_SEAT_M])
    ends = src.strike[[i for i, p in enumerate(kit.parts) if p.kind != "kick"]]
    flat = ends[:, :2] - seat[:2]
    step = np.minimum(ARM_REACH_M / np.maximum(np.linalg.norm(flat, axis=1), 1e-9), 1.0)
    hands = np.tile(seat, (len(ends), 1))
    hands[:, :2] += flat * step[:, None]
    return np.asarray(np.stack([hands, ends], axis=1))


def pedals(kit: Kit) -> Floats:
    """Floor zones of the feet: front middle and back middle of each pedal.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    ndarray, shape (N, 2, 2)
        Metres.
    """
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


@dataclass(frozen=True, kw_only=True)
class Zones:
    """What of a kit must be kept clear, as arrays; D drums and cymbals."""

    centre: Floats  # (D, 3)
    axis: Floats  # (D, 3)
    radius: Floats  # (D,)
    depth: Floats  # (D,) 0 for cymbals
    shut: Mask  # (D,) a shell no mic stands in
    stool: Stool | None
    top_m: float  # height of the highest cymbal's bell
    sweeps: Floats  # (N, 2, 3)
    pedals: Floats  # (N, 2, 2)


@lru_cache(maxsize=64)
def zones_of(kit: Kit) -> Zones:
    """The zones of a kit; kept, because a kit stays while mics are dragged.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Zones
    """
    src = sources_of(kit)
    open_shell = [d.kind == "kick" or d.far_head is None for d in kit.drums]
    return Zones(
        centre=src.centre,
        axis=src.axis,
        radius=src.radius,
        depth=src.depth,
        shut=np.array([not x for x in open_shell] + [False] * len(kit.cymbals)),
        stool=kit.stool,
        top_m=max((c.centre_m[2] for c in kit.cymbals), default=0.0),
        sweeps=sweeps(kit),
        pedals=pedals(kit),
    )


def _in_room(points: Floats, room: Room | None) -> list[Mask]:
    """Outside the room and what opens off it, above its ceiling, inside a gobo: each (N,)."""
    nowhere = np.zeros(len(points), bool)
    if room is None:
        return [nowhere, nowhere, nowhere]
    at = to_room(points, room)
    own = inside_floor(at[:, 0], at[:, 1], room)
    beside = next_door(at, room) >= 0
    return [
        np.asarray(~(own | beside)),
        np.asarray(own & (at[:, 2] > room.height_m)),
        in_gobos(at, room) if room.gobos else nowhere,
    ]


def _in_parts(points: Floats, zones: Zones) -> list[Mask]:
    """In a closed shell or in the wall of an open one; in the swing of a cymbal: each (N,)."""
    out = points[:, None, :] - zones.centre
    height = np.einsum("nsi,si->ns", out, zones.axis)
    radial = np.sqrt(np.maximum(np.einsum("nsi,nsi->ns", out, out) - height**2, 0))
    over, cymbal = radial - zones.radius, zones.depth == 0
    between = (height < 0) & (height > -zones.depth)
    wall = np.abs(over) < SHELL_ROUND_M
    shell = between & np.where(zones.shut, over < SHELL_ROUND_M, wall)
    swing = cymbal & (np.abs(height) < CYMBAL_SWING_M) & (over < CYMBAL_ROUND_M)
    return [np.asarray(shell.any(axis=1)), np.asarray(swing.any(axis=1))]


def _at_drummer(points: Floats, zones: Zones) -> list[Mask]:
    """In the drummer's own zone, in the way of a stick, in a pedal's zone: each (N,).

    A stick's way ends at the spot it strikes: past it a mic is clear.
    """
    nowhere = np.zeros(len(points), bool)
    feet = _in_pedals(points, zones.pedals) if len(zones.pedals) else nowhere
    stool = zones.stool
    if stool is None:
        return [nowhere, nowhere, feet]
    away = np.hypot(points[:, 0] - stool.position_m[0], points[:, 1] - stool.position_m[1])
    sits = (away < stool.zone_radius_m) & (points[:, 2] < stool.zone_top_m)
    start, way = zones.sweeps[:, 0], zones.sweeps[:, 1] - zones.sweeps[:, 0]
    size = np.maximum(np.sqrt(np.einsum("si,si->s", way, way)), 1e-9)
    out = points[:, None, :] - start
    along = np.einsum("nsi,si->ns", out, way / size[:, None])
    aside = np.einsum("nsi,nsi->ns", out, out) - along**2
    swept = (along >= 0) & (along <= size) & (aside < stool.sweep_m**2)
    return [np.asarray(sits), np.asarray(swept.any(axis=1)), feet]


def _in_pedals(points: Floats, ways: Floats) -> Mask:
    unit = (ways[:, 1] - ways[:, 0]) / PEDAL_LONG_M
    out = points[:, None, :2] - ways[:, 0]
    along = np.einsum("nsi,si->ns", out, unit)
    aside = np.abs(out[..., 0] * unit[:, 1] - out[..., 1] * unit[:, 0])
    within = (along > 0) & (along < PEDAL_LONG_M) & (aside < PEDAL_WIDE_M / 2)
    return np.asarray((within & (points[:, 2:3] < PEDAL_HIGH_M)).any(axis=1))


BLOCKED_WORDS: Final = (
    "This spot is under the floor.",
    "This spot is outside the room, behind a wall.",
    "This spot is above the ceiling.",
    "This spot is inside a gobo.",
    "This spot is inside a drum's shell.",
    "This spot is in the swing of a cymbal.",
    "This spot is where the drummer sits and swings: a stand here hits somebody.",
    "This spot is in the way of the sticks: a mic here is struck.",
    "This spot is where the feet work the pedals.",
)
"""What is wrong with a spot, gravest first: the order of `_checked`."""


def _checked(points: ArrayLike, layout: Layout) -> Mask:
    """Each check on each of the points (N, 3): (9, N), in the order of `BLOCKED_WORDS`."""
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    zones = zones_of(layout.kit)
    return np.array(
        [p[:, 2] < 0, *_in_room(p, layout.room), *_in_parts(p, zones), *_at_drummer(p, zones)]
    )


def blocked(points: ArrayLike, layout: Layout) -> Mask:
    """Which points a mic cannot stand at.

    Parameters
    ----------
    points : array_like, shape (N, 3)
        Metres.
    layout : Layout

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    return np.asarray(_checked(points, layout).any(axis=0))


def under_cymbals(points: ArrayLike, layout: Layout) -> Mask:
    """Which points are lower than the highest cymbal: no place for an overhead.

    Parameters
    ----------
    points : array_like, shape (N, 3)
        Metres.
    layout : Layout

    Returns
    -------
    ndarray of bool, shape (N,)
    """
    p = np.asarray(points, dtype=float).reshape(-1, 3)
    return np.asarray(p[:, 2] < zones_of(layout.kit).top_m)


def words_for_all(points: ArrayLike, layout: Layout) -> list[str]:
    """Why a mic cannot stand at each of the points (N, 3); empty where it can.

    Parameters
    ----------
    points : array_like, shape (N, 3)
        Metres.
    layout : Layout

    Returns
    -------
    list of str
    """
    wrong = _checked(points, layout)
    first = np.where(wrong.any(axis=0), wrong.argmax(axis=0), -1)
    return [BLOCKED_WORDS[k] if k >= 0 else "" for k in first.tolist()]


def words_for(point: ArrayLike, layout: Layout) -> str:
    """Why a mic cannot stand at a point (3,); empty when it can.

    Parameters
    ----------
    point : array_like, shape (3,)
        Metres.
    layout : Layout

    Returns
    -------
    str
    """
    return words_for_all(point, layout)[0]
