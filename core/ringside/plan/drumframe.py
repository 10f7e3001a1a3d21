"""The frame at a drum or cymbal: which side of it a point is on, how far off, how far in, at what hour."""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats
from ringside.plan.kit import Cymbal, Drum, Kit, centre_of

Side = Literal["over", "under", "inside"]


STANDING: Final = 0.5
"""A head whose normal rises less than this (sine) is standing: its clock has 12 up."""


EDGE_SHARE: Final = 0.85
"""How far out on the head a mic aimed at the edge looks, of the radius (from memory)."""


@dataclass(frozen=True)
class Face:
    """A face of a drum or cymbal: its centre, the way out of it, 12 and 3 o'clock on it."""

    centre: Floats
    out: Floats
    twelve: Floats
    three: Floats
    radius: float
    depth: float

    def radial(self, clock_h: float) -> Floats:
        """Unit vector from the centre toward an hour."""
        turn = np.radians(30.0 * clock_h)
        return np.asarray(np.cos(turn) * self.twelve + np.sin(turn) * self.three)

    def spot(self, height_m: float, in_from_rim_m: float, clock_h: float) -> Floats:
        """The place at a height off the face, in from the rim, at an hour, metres (3,)."""
        out = self.radius - in_from_rim_m
        return np.asarray(self.centre + self.out * height_m + self.radial(clock_h) * out)


def face_of(part: Drum | Cymbal, side: Side) -> Face:
    """The face of a part that a mic on a side sees."""
    axis, depth = np.array(part.axis), part.depth_m if isinstance(part, Drum) else 0.0
    up, front = np.array([0.0, 0.0, 1.0]), np.array([0.0, 1.0, 0.0])
    ahead = up if abs(axis[2]) < STANDING else front
    twelve = ahead - axis * float(ahead @ axis)
    twelve /= np.linalg.norm(twelve)
    three = np.cross(twelve, axis)
    centre = np.array(centre_of(part)) - (axis * depth if side == "under" else 0.0)
    out = axis if side == "over" else -axis
    return Face(centre, out, twelve, three, part.diameter_m / 2, depth)


def side_of(part: Drum | Cymbal, point: ArrayLike) -> Side:
    """Which side of a part a point is on."""
    p = np.asarray(point, dtype=float) - np.array(centre_of(part))
    height = float(p @ np.array(part.axis))
    depth = part.depth_m if isinstance(part, Drum) else 0.0
    if height >= 0:
        return "over"
    radial = float(np.linalg.norm(p - height * np.array(part.axis)))
    return "inside" if -height < depth and radial < part.diameter_m / 2 else "under"


def nearest_metal(point: ArrayLike, cymbal: Cymbal) -> Floats:
    """The point of a cymbal's disc nearest to a point (3,), metres (3,)."""
    out = np.asarray(point, dtype=float) - np.array(cymbal.centre_m)
    axis = np.array(cymbal.axis)
    flat = out - float(out @ axis) * axis
    size = float(np.linalg.norm(flat))
    keep = min(size, cymbal.diameter_m / 2)
    return np.asarray(np.array(cymbal.centre_m) + (flat / size * keep if size > 1e-9 else 0.0))


def disc_gap(point: ArrayLike, cymbal: Cymbal) -> float:
    """From a point (3,) to the nearest metal of a cymbal, metres."""
    return float(np.linalg.norm(np.asarray(point, dtype=float) - nearest_metal(point, cymbal)))


def nearest_cymbal(kit: Kit, point: ArrayLike) -> tuple[str, float] | None:
    """The cymbal nearest to a point and how far its metal is, metres; None without cymbals."""
    gaps = [(disc_gap(point, c), c.id) for c in kit.cymbals]
    return (min(gaps)[1], min(gaps)[0]) if gaps else None
