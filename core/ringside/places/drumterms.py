"""Close mics in the terms of their drum: height, in from the rim, clock, tilt, target, gap.

A drum or cymbal has a side the mic is on: ``over`` the struck face, ``under`` (beyond) the
other face, or ``inside`` the shell. Height is measured off that face, inside from the batter.
The clock is read from above with 12 toward the audience and 3 at the drummer's right; on a
standing head, like a kick's, 12 is up. Tilt is the angle of the aim to the head: 90 points
straight at it, 0 lies flat across it. Metres, degrees, hours.
"""

from typing import Any, Final, Literal

import numpy as np
from numpy.typing import ArrayLike
from pydantic import Field

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.plan.drumframe import EDGE_SHARE, Face, Side, face_of, nearest_cymbal, side_of
from ringside.plan.kit import Cymbal, Drum
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.values import Number, Record, unit, vector

Target = Literal["centre", "edge", "shell", "free"]


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


def targets(part: Drum | Cymbal, face: Face, clock_h: float) -> dict[Target, Floats]:
    """The points a mic on a face may be aimed at, metres (3,) each."""
    toward = face.radial(clock_h)
    found: dict[Target, Floats] = {
        "centre": face.centre,
        "edge": face.centre + toward * face.radius * EDGE_SHARE,
    }
    if isinstance(part, Drum):
        middle = np.array(part.batter_m) - np.array(part.axis) * part.depth_m / 2
        found["shell"] = middle + toward * face.radius
    return found


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
