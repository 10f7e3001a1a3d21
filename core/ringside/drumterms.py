"""Close mics in the terms of their drum: height, in from the rim, clock, tilt, target, gap.

A drum or cymbal has a side the mic is on: ``over`` the struck face, ``under`` (beyond) the
other face, or ``inside`` the shell. Height is measured off that face, inside from the batter.
The clock is read from above with 12 toward the audience and 3 at the drummer's right; on a
standing head, like a kick's, 12 is up. Tilt is the angle of the aim to the head: 90 points
straight at it, 0 lies flat across it. Metres, degrees, hours.
"""

from dataclasses import dataclass
from typing import Any, Final, Literal

import numpy as np
from numpy.typing import ArrayLike, NDArray
from pydantic import Field

from ringside.errors import RingsideError
from ringside.kit import Cymbal, Drum, Kit, centre_of
from ringside.layout import Layout
from ringside.mics import Mic
from ringside.values import Number, Record, Vector

Array = NDArray[np.float64]
Side = Literal["over", "under", "inside"]
Target = Literal["centre", "edge", "shell", "free"]
STANDING: Final = 0.5
"""A head whose normal rises less than this (sine) is standing: its clock has 12 up."""

EDGE_SHARE: Final = 0.85
"""How far out on the head a mic aimed at the edge looks, of the radius (from memory)."""

ON_TARGET_DEG: Final = 4.0
"""An aim this near a target is said to be at it."""


class DrumTerms(Record):
    """Where a close mic is, as it is said at the drum."""

    side: Side
    height_m: Number = Field(description="Off the face; inside, from the batter. Metres.")
    in_from_rim_m: Number = Field(description="Below zero stands outside the rim. Metres.")
    clock_h: Number = Field(description="0 to 12, hours.")
    tilt_deg: Number = Field(description="90 straight at the head, 0 flat across it.")
    target: Target = "free"


@dataclass(frozen=True)
class Face:
    """A face of a drum or cymbal: its centre, the way out of it, 12 and 3 o'clock on it."""

    centre: Array
    out: Array
    twelve: Array
    three: Array
    radius: float
    depth: float

    def radial(self, clock_h: float) -> Array:
        """Unit vector from the centre toward an hour."""
        turn = np.radians(30.0 * clock_h)
        return np.asarray(np.cos(turn) * self.twelve + np.sin(turn) * self.three)

    def spot(self, height_m: float, in_from_rim_m: float, clock_h: float) -> Array:
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


def targets(part: Drum | Cymbal, face: Face, clock_h: float) -> dict[Target, Array]:
    """The points a mic on a face may be aimed at, metres (3,) each."""
    toward = face.radial(clock_h)
    found: dict[Target, Array] = {
        "centre": face.centre,
        "edge": face.centre + toward * face.radius * EDGE_SHARE,
    }
    if isinstance(part, Drum):
        middle = np.array(part.batter_m) - np.array(part.axis) * part.depth_m / 2
        found["shell"] = middle + toward * face.radius
    return found


def nearest_metal(point: ArrayLike, cymbal: Cymbal) -> Array:
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


def _part(layout: Layout, mic: Mic) -> Drum | Cymbal:
    if mic.job is None:
        raise RingsideError(
            f"{mic.id} is put up for the whole kit; say what drum or cymbal it is for first"
        )
    return layout.kit.part(mic.job)


def _mic(layout: Layout, mic_id: str) -> Mic:
    try:
        return layout.mic(mic_id)
    except KeyError:
        raise RingsideError(f"expected a mic of this layout, got {mic_id!r}") from None


def terms_of(layout: Layout, mic_id: str) -> dict[str, Any]:
    """A close mic in drum terms.

    Returns
    -------
    dict
        ``terms`` (DrumTerms), ``cymbal`` (the nearest, or None) and ``gap_m`` to its metal.

    Raises
    ------
    RingsideError
        When there is no such mic, or it is put up for the whole kit.
    """
    mic = _mic(layout, mic_id)
    part = _part(layout, mic)
    near = nearest_cymbal(layout.kit, mic.position_m)
    return {
        "terms": told(part, mic.position_m, mic.aim),
        "cymbal": near[0] if near else None,
        "gap_m": near[1] if near else None,
    }


def told(part: Drum | Cymbal, position: ArrayLike, aim: ArrayLike) -> DrumTerms:
    """A place and an aim at a part, in its terms."""
    at, way = np.asarray(position, dtype=float), np.asarray(aim, dtype=float)
    side = side_of(part, at)
    face = face_of(part, side)
    out = at - face.centre
    height = float(out @ face.out)
    flat = out - height * face.out
    radial = float(np.linalg.norm(flat))
    hour = float(np.degrees(np.arctan2(flat @ face.three, flat @ face.twelve)) / 30) % 12
    found: Target = "free"
    best = np.cos(np.radians(ON_TARGET_DEG))
    for name, point in targets(part, face, hour).items():
        to = point - at
        cos = float(to @ way) / max(float(np.linalg.norm(to)), 1e-9)
        if cos > best:
            found, best = name, cos
    tilt = float(np.degrees(np.arcsin(np.clip(-way @ face.out, -1, 1))))
    return DrumTerms(
        side=side,
        height_m=height,
        in_from_rim_m=face.radius - radial,
        clock_h=hour if radial > 1e-6 else 0.0,
        tilt_deg=tilt,
        target=found,
    )


def placed(layout: Layout, mic_id: str, terms: DrumTerms) -> Layout:
    """The layout with a close mic where its drum terms say.

    A target goes before the tilt: aimed at a point, the tilt follows from the place.

    Raises
    ------
    RingsideError
        When there is no such mic, it is for the whole kit, or it stands on its target.
    """
    mic = _mic(layout, mic_id)
    part = _part(layout, mic)
    face = face_of(part, terms.side)
    at = face.spot(terms.height_m, terms.in_from_rim_m, terms.clock_h)
    aims = targets(part, face, terms.clock_h)
    if terms.target == "free":
        tilt = np.radians(terms.tilt_deg)
        way = -np.cos(tilt) * face.radial(terms.clock_h) - np.sin(tilt) * face.out
    elif terms.target in aims:
        way = aims[terms.target] - at
    else:
        raise RingsideError(f"{part.name} has no {terms.target} to aim at; choose another target")
    if float(np.linalg.norm(way)) < 1e-6:
        raise RingsideError(f"{mic_id} would stand on the very spot it is aimed at; leave a gap")
    if abs(at).max() > 100:
        raise RingsideError("expected a height and a way in of a few metres at most; given in cm?")
    return layout.with_mic(mic.model_copy(update={"position_m": vector(at), "aim": unit(way)}))


def vector(p: ArrayLike) -> Vector:
    """A point as it is kept: a tenth of a micrometre is finer than any promise made of it."""
    x, y, z = (float(v) + 0.0 for v in np.round(np.asarray(p, dtype=float), 7))
    return (x, y, z)


def unit(v: ArrayLike) -> Vector:
    """A direction as it is kept."""
    w = np.asarray(v, dtype=float)
    x, y, z = (float(q) + 0.0 for q in w / np.linalg.norm(w))
    return (x, y, z)
