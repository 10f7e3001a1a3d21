"""The one frame at a drum or cymbal: which side of it a point is on, how far off, in, what hour.

A part has a struck face with a centre and a normal; the far face of a drum lies `depth` behind
it. Of a point, **height** is how far it is above the struck face along the normal, **behind**
how far it is past the far face, **radial** how far from the axis. From these follows its side:

- ``over``: on the struck side of the struck face's plane;
- ``inside``: between the two planes and within the shell;
- ``beside``: between the two planes and outside the shell, as a mic at the shell is;
- ``under``: past the far face; in front of a kick.

The clock is read from above with 12 toward the audience and 3 at the drummer's right; on a
standing head, like a kick's, 12 is up. Metres, hours. Arrivals, drum terms, the sheet, mics
that follow their drum and slides round the rim all ask here.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats, Mask, dot
from ringside.plan.kit import Cymbal, Drum, Kit, centre_of, depth_of
from ringside.values import Number, Record

Side = Literal["over", "under", "inside", "beside"]

STANDING: Final = 0.5
"""A head whose normal rises less than this (sine) is standing: its clock has 12 up."""

EDGE_SHARE: Final = 0.85
"""How far out on the head a mic aimed at the edge looks, of the radius (from memory)."""


@dataclass(frozen=True, kw_only=True, slots=True)
class OffHead:
    """Points against struck faces, in the shape the two broadcast to; metres."""

    height: Floats  # above the struck face
    behind: Floats  # past the far face
    radial: Floats  # from the axis
    flat: Floats  # (..., 3) from the axis to the point, in the plane of the head
    over: Mask
    inside: Mask


def off_head(
    points: Floats, centre: Floats, axis: Floats, radius: ArrayLike, depth: ArrayLike
) -> OffHead:
    """Where points are against the struck faces of parts.

    Parameters
    ----------
    points, centre, axis : ndarray, shape (..., 3)
        Broadcast together; `axis` has length one.
    radius, depth : array_like, shape (...)
        Metres; a cymbal has no depth, so nothing is inside it.

    Returns
    -------
    OffHead
        Of the shape the arguments broadcast to.
    """
    out = points - centre
    height = dot(out, axis)
    flat = out - height[..., None] * axis
    radial = np.sqrt(dot(flat, flat))
    behind = -height - np.asarray(depth, dtype=float)
    inside = (height < 0) & (behind < 0) & (radial < radius)
    return OffHead(
        height=height, behind=behind, radial=radial, flat=flat, over=height >= 0, inside=inside
    )


@dataclass(frozen=True, slots=True)
class Face:
    """A face of a drum or cymbal: its centre, the way out of it, 12 and 3 o'clock on it."""

    centre: Floats
    out: Floats
    twelve: Floats
    three: Floats
    radius: float
    depth: float

    def radial(self, clock_h: float) -> Floats:
        """Unit vector from the centre toward an hour.

        Parameters
        ----------
        clock_h : float
            0 to 12.

        Returns
        -------
        ndarray, shape (3,)
        """
        turn = np.radians(30.0 * clock_h)
        return np.asarray(np.cos(turn) * self.twelve + np.sin(turn) * self.three)

    def spot(self, height_m: float, in_from_rim_m: float, clock_h: float) -> Floats:
        """The place at a height off the face, in from the rim, at an hour.

        Parameters
        ----------
        height_m, in_from_rim_m : float
            Metres; below 0 within the drum, and outside the rim.
        clock_h : float
            0 to 12.

        Returns
        -------
        ndarray, shape (3,)
            Metres.
        """
        out = self.radius - in_from_rim_m
        return np.asarray(self.centre + self.out * height_m + self.radial(clock_h) * out)

    def hour(self, flat: Floats) -> float:
        """The hour a vector in the plane of the face points to; 0 at the middle.

        Parameters
        ----------
        flat : ndarray, shape (3,)
            Metres.

        Returns
        -------
        float
            Hours, 0 to 12.
        """
        if float(np.linalg.norm(flat)) <= 1e-6:
            return 0.0
        turn = np.arctan2(flat @ self.three, flat @ self.twelve)
        return float(np.degrees(turn) / 30) % 12


def wires_hours(snare: Drum, face: Face) -> tuple[float, float] | None:
    """The hours that the two ends of a snare's wires lie at, as a face counts them.

    Parameters
    ----------
    snare : Drum
    face : Face

    Returns
    -------
    (float, float) or None
        0 to 12; None where it is not known how they run.
    """
    if snare.wires_rad is None:
        return None
    way = np.array([np.cos(snare.wires_rad), np.sin(snare.wires_rad), 0.0])
    return face.hour(way), face.hour(-way)


class AtDrum(Record):
    """Where a point is at a drum or cymbal, as it is said there."""

    side: Side
    height_m: Number
    """Off the face of its side; inside and beside the shell, down from the batter."""
    in_from_rim_m: Number
    """Below zero stands outside the rim."""
    clock_h: Number
    """0 to 12, hours."""


def face_of(part: Drum | Cymbal, side: Side) -> Face:
    """The face of a part that a mic on a side is measured from.

    Over, inside and beside it is the struck face, with the way out of it turned down for the
    last two; under, the far face.

    Parameters
    ----------
    part : Drum or Cymbal
    side : Side

    Returns
    -------
    Face
    """
    axis, depth = np.array(part.axis), depth_of(part)
    up, front = np.array([0.0, 0.0, 1.0]), np.array([0.0, 1.0, 0.0])
    ahead = up if abs(axis[2]) < STANDING else front
    twelve = ahead - axis * float(ahead @ axis)
    twelve /= np.linalg.norm(twelve)
    three = np.cross(twelve, axis)
    centre = np.array(centre_of(part)) - (axis * depth if side == "under" else 0.0)
    out = axis if side == "over" else -axis
    return Face(centre, out, twelve, three, part.diameter_m / 2, depth)


def against(part: Drum | Cymbal, point: ArrayLike) -> OffHead:
    """A point (3,) against one part; every value a scalar.

    Parameters
    ----------
    part : Drum or Cymbal
    point : array_like, shape (3,)
        Metres.

    Returns
    -------
    OffHead
    """
    p = np.asarray(point, dtype=float)
    axis, radius = np.array(part.axis), part.diameter_m / 2
    return off_head(p, np.array(centre_of(part)), axis, radius, depth_of(part))


def side_of(part: Drum | Cymbal, point: ArrayLike) -> Side:
    """Which side of a part a point (3,) is on.

    Parameters
    ----------
    part : Drum or Cymbal
    point : array_like, shape (3,)
        Metres.

    Returns
    -------
    Side
    """
    at = against(part, point)
    if at.over:
        return "over"
    if at.inside:
        return "inside"
    return "under" if at.behind >= 0 else "beside"


def at_drum(part: Drum | Cymbal, point: ArrayLike) -> AtDrum:
    """A point (3,) in the terms of a drum or cymbal.

    Examples
    --------
    >>> from ringside.plan.kits import five_piece
    >>> at_drum(five_piece().first("snare"), (0.0, 0.0, 1.0)).side
    'over'

    Parameters
    ----------
    part : Drum or Cymbal
    point : array_like, shape (3,)
        Metres.

    Returns
    -------
    AtDrum
    """
    at, side = against(part, point), side_of(part, point)
    off = {"over": at.height, "under": at.behind}.get(side, -at.height)
    return AtDrum(
        side=side,
        height_m=float(off),
        in_from_rim_m=part.diameter_m / 2 - float(at.radial),
        clock_h=face_of(part, side).hour(at.flat),
    )


def nearest_metal(point: ArrayLike, cymbal: Cymbal) -> Floats:
    """The point of a cymbal's disc nearest to a point.

    Parameters
    ----------
    point : array_like, shape (3,)
        Metres.
    cymbal : Cymbal

    Returns
    -------
    ndarray, shape (3,)
        Metres.
    """
    at = against(cymbal, point)
    size = float(at.radial)
    keep = min(size, cymbal.diameter_m / 2)
    return np.asarray(np.array(cymbal.centre_m) + (at.flat / size * keep if size > 1e-9 else 0.0))


def disc_gap(point: ArrayLike, cymbal: Cymbal) -> float:
    """From a point (3,) to the nearest metal of a cymbal, metres.

    Parameters
    ----------
    point : array_like, shape (3,)
        Metres.
    cymbal : Cymbal

    Returns
    -------
    float
        Metres.
    """
    return float(np.linalg.norm(np.asarray(point, dtype=float) - nearest_metal(point, cymbal)))


def nearest_cymbal(kit: Kit, point: ArrayLike) -> tuple[str, float] | None:
    """The cymbal nearest to a point and how far its metal is, metres; None without cymbals.

    Parameters
    ----------
    kit : Kit
    point : array_like, shape (3,)
        Metres.

    Returns
    -------
    (str, float) or None
        Short name, metres.
    """
    gaps = [(disc_gap(point, c), c.id) for c in kit.cymbals]
    return (min(gaps)[1], min(gaps)[0]) if gaps else None
