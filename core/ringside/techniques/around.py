"""The kit and room as a recipe sees them: the snare-kick line, its mirror plane, the limits.

``u`` is the level direction from snare to kick and ``right`` the level direction across it
that points to the drummer's right: two spots mirrored across the upright plane through snare
and kick are equal on both. ``leads`` is +1 where the kick lies to the right of the snare (a
right-handed kit) and -1 where it lies to the left. Metres.
"""

from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.errors import RingsideError
from ringside.plan.kit import Cymbal, Drum, Kit, reference_point
from ringside.plan.layout import Layout
from ringside.plan.room import Room, in_gobos, inside_floor, notch_box, to_kit, to_room

WALL_M: Final = 0.25
"""A mic on a stand stays this far from a wall (common practice)."""

CEILING_M: Final = 0.15
"""And this far under the ceiling: the body of the mic has to fit (common practice)."""

SEARCH_STEP_M: Final = 0.02
UP: Final = np.array([0.0, 0.0, 1.0])


def level(v: Floats) -> Floats:
    """The level part of a direction as a unit vector; toward the audience when it has none.

    Parameters
    ----------
    v : ndarray, shape (3,)

    Returns
    -------
    ndarray, shape (3,)
        No unit.
    """
    flat = np.array([v[0], v[1], 0.0])
    size = float(np.linalg.norm(flat))
    return flat / size if size > 1e-6 else np.array([0.0, 1.0, 0.0])


@dataclass(frozen=True)
class Around:
    """A layout with the part a technique is put up for."""

    layout: Layout
    target: str | None = None

    @property
    def kit(self) -> Kit:
        """The kit."""
        return self.layout.kit

    @property
    def room(self) -> Room | None:
        """The room, if it is drawn."""
        return self.layout.room

    @cached_property
    def snare(self) -> Drum:
        """The snare distances are kept to."""
        return self.kit.first("snare")

    @cached_property
    def kick(self) -> Drum:
        """The kick distances are kept to."""
        return self.kit.first("kick")

    @cached_property
    def s(self) -> Floats:
        """Where the snare tape is held, metres (3,)."""
        return np.array(reference_point(self.snare))

    @cached_property
    def k(self) -> Floats:
        """Where the kick tape is held, metres (3,)."""
        return np.array(reference_point(self.kick))

    @cached_property
    def leads(self) -> float:
        """+1 for a kit with the kick to the right of the snare, -1 to its left."""
        side = self.kick.batter_m[0] - self.snare.batter_m[0]
        if abs(side) > 0.01:
            return float(np.sign(side))
        return -1.0 if self.kit.hand == "left" else 1.0

    @cached_property
    def u(self) -> Floats:
        """Level unit vector from snare to kick, (3,)."""
        return level(self.k - self.s)

    @cached_property
    def right(self) -> Floats:
        """Level unit vector across the snare-kick plane, to the drummer's right, (3,)."""
        across = np.array([self.u[1], -self.u[0], 0.0])
        return across if across[0] >= 0 else -across

    @cached_property
    def part(self) -> Drum | Cymbal:
        """The drum or cymbal the technique is put up for.

        Raises
        ------
        RingsideError
            When nothing is named, or what is named is not in the kit.
        """
        if self.target is None:
            raise RingsideError("expected the drum or cymbal this is put up for")
        try:
            return self.kit.part(self.target)
        except KeyError:
            raise RingsideError(
                f"expected a drum or cymbal of the kit, got {self.target!r}"
            ) from None

    @property
    def drum(self) -> Drum:
        """The target, which must be a drum.

        Raises
        ------
        RingsideError
            When it is a cymbal.
        """
        if not isinstance(self.part, Drum):
            raise RingsideError(f"{self.part.name} is no drum; choose a drum for this")
        return self.part

    @cached_property
    def front_of_kick(self) -> Floats:
        """Centre of the kick's front head, metres (3,)."""
        return np.array(self.kick.batter_m) - np.array(self.kick.axis) * self.kick.depth_m

    @cached_property
    def ahead(self) -> Floats:
        """Level unit vector the kick's front head faces, (3,)."""
        return level(-np.array(self.kick.axis))

    def heading(self, swung_deg: float) -> Floats:
        """The snare-kick direction swung back toward straight in front by some degrees.

        Parameters
        ----------
        swung_deg : float
            Degrees.

        Returns
        -------
        ndarray, shape (3,)
            A level unit vector.
        """
        turn = np.radians(swung_deg) * self.leads
        c, s = np.cos(turn), np.sin(turn)
        return np.array([c * self.u[0] - s * self.u[1], s * self.u[0] + c * self.u[1], 0.0])

    def drums(self, kind: str) -> tuple[Drum, ...]:
        """Every drum of a kind.

        Parameters
        ----------
        kind : str
            Kind of drum, as `snare`.

        Returns
        -------
        tuple of Drum
        """
        return tuple(d for d in self.kit.drums if d.kind == kind)

    def needed(self, kind: str) -> Drum:
        """The first drum of a kind, or an error that says it is missing.

        Parameters
        ----------
        kind : str
            Kind of drum, as `snare`.

        Returns
        -------
        Drum

        Raises
        ------
        RingsideError
            When the kit has none.
        """
        drums = self.drums(kind)
        if not drums:
            raise RingsideError(f"this kit has no {kind} tom; choose another technique")
        return drums[0]

    # --- the room ---------------------------------------------------------------------------

    def in_room(self, points: Floats, margin: float = 0.0) -> Mask:
        """Which points stand in the room itself, a margin from its walls.

        Parameters
        ----------
        points : ndarray, shape (N, 3)
            Metres.
        margin : float
            Metres.

        Returns
        -------
        ndarray of bool, shape (N,)
        """
        if self.room is None:
            return np.ones(len(points), bool)
        at = to_room(points, self.room)
        fine = np.ones(len(at), bool)
        for dx in (-margin, 0.0, margin):
            for dy in (-margin, 0.0, margin):
                fine &= inside_floor(at[:, 0] + dx, at[:, 1] + dy, self.room)
        return np.asarray(fine & ~in_gobos(at, self.room))

    def out(self, start: Floats, way: Floats, want: float, margin: float = WALL_M) -> float:
        """How far from a start along a level direction a mic can go, up to what is wanted.

        Parameters
        ----------
        start, way : ndarray, shape (3,)
            Metres, and a level unit vector.
        want, margin : float
            Metres.

        Returns
        -------
        float
            Metres.
        """
        if self.room is None or want <= 0:
            return want
        far = np.append(np.arange(0.0, want, SEARCH_STEP_M), want)
        ok = self.in_room(start + far[:, None] * way, margin)
        return float(far[ok].max()) if ok.any() else 0.0

    def under_ceiling(self, z: float) -> float:
        """A height, or as high as the room allows.

        Parameters
        ----------
        z : float
            Height, metres.

        Returns
        -------
        float
            Metres.
        """
        if self.room is None:
            return z
        return min(z, self.room.height_m - CEILING_M)

    def corners(self) -> Floats:
        """The corners of the room's floor in the kit's frame, (N, 3); an L has its own five.

        The inner corner of an L, which sticks out into the room, is none to put a mic in.
        """
        room = self.must_room()
        w, d = room.width_m, room.length_m
        free = {
            "back left": [(0.0, 0.0)], "back right": [(w, 0.0)],
            "front right": [(w, d)], "front left": [(0.0, d)],
        }  # fmt: skip
        cut = notch_box(room)
        if cut and room.notch:
            x0, y0, x1, y1 = cut
            side = 0.0 if room.notch.corner.endswith("left") else w
            end = 0.0 if room.notch.corner.startswith("back") else d
            inner_x, inner_y = (x1 if side == 0.0 else x0), (y1 if end == 0.0 else y0)
            free[room.notch.corner] = [(side, inner_y), (inner_x, end)]
        flat = [p for spots in free.values() for p in spots]
        return to_kit(np.array([(x, y, 0.0) for x, y in flat]), room)

    def must_room(self) -> Room:
        """The room, or an error that says to draw it first.

        Raises
        ------
        RingsideError
            When none is drawn.
        """
        if self.room is None:
            raise RingsideError("this technique needs the room: draw it in Room first")
        return self.room
