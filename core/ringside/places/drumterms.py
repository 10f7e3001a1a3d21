"""Close mics in the terms of their drum: height, in from the rim, clock, tilt, target, gap.

Side, height, way in and clock are those of :mod:`ringside.plan.drumframe`. Tilt is the angle of
the aim to the head: 90 points straight at it, 0 lies flat across it. Metres, degrees, hours.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import ArrayLike
from pydantic import Field

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.plan.drumframe import EDGE_SHARE, AtDrum, Face, at_drum, face_of, nearest_cymbal
from ringside.plan.kit import Cymbal, Drum
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.values import Number, unit, vector

Target = Literal["centre", "edge", "shell", "free"]


ON_TARGET_DEG: Final = 4.0
"""An aim this near a target is said to be at it."""


class DrumTerms(AtDrum):
    """Where a close mic is and where it looks, as it is said at the drum."""

    tilt_deg: Number = Field(description="90 straight at the head, 0 flat across it.")
    target: Target = "free"


def targets(part: Drum | Cymbal, face: Face, clock_h: float) -> dict[Target, Floats]:
    """The points a mic on a face may be aimed at.

    Parameters
    ----------
    part : Drum or Cymbal
    face : str
        The side of it the mic is at.
    clock_h : float
        The hour the mic stands at.

    Returns
    -------
    dict of str to ndarray, shape (3,)
        Metres.
    """
    toward = face.radial(clock_h)
    spots: dict[Target, Floats] = {
        "centre": face.centre,
        "edge": face.centre + toward * face.radius * EDGE_SHARE,
    }
    if isinstance(part, Drum):
        middle = np.array(part.batter_m) - np.array(part.axis) * part.depth_m / 2
        spots["shell"] = middle + toward * face.radius
    return spots


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


@dataclass(frozen=True, kw_only=True, slots=True)
class CloseTerms:
    """A close mic in drum terms, and the metal nearest to it, metres."""

    terms: DrumTerms
    cymbal: str | None
    gap_m: float | None


def terms_of(layout: Layout, mic_id: str) -> CloseTerms:
    """A close mic in drum terms, with the nearest cymbal and the gap to its metal.

    Parameters
    ----------
    layout : Layout
    mic_id : str
        Its short name.

    Returns
    -------
    CloseTerms

    Raises
    ------
    RingsideError
        When there is no such mic, or it is put up for the whole kit.
    """
    mic = _mic(layout, mic_id)
    part = _part(layout, mic)
    near = nearest_cymbal(layout.kit, mic.position_m)
    return CloseTerms(
        terms=told(part, mic.position_m, mic.aim),
        cymbal=near[0] if near else None,
        gap_m=near[1] if near else None,
    )


def told(part: Drum | Cymbal, position: ArrayLike, aim: ArrayLike) -> DrumTerms:
    """A place and an aim at a part, in its terms.

    Parameters
    ----------
    part : Drum or Cymbal
    position : array_like, shape (3,)
        Metres.
    aim : array_like, shape (3,)
        A direction of any length.

    Returns
    -------
    DrumTerms
    """
    at, way = np.asarray(position, dtype=float), np.asarray(aim, dtype=float)
    here = at_drum(part, at)
    face = face_of(part, here.side)
    nearest: Target = "free"
    best = np.cos(np.radians(ON_TARGET_DEG))
    for name, point in targets(part, face, here.clock_h).items():
        to = point - at
        cos = float(to @ way) / max(float(np.linalg.norm(to)), 1e-9)
        if cos > best:
            nearest, best = name, cos
    tilt = float(np.degrees(np.arcsin(np.clip(-way @ face.out, -1, 1))))
    return DrumTerms(**dict(here), tilt_deg=tilt, target=nearest)


def placed(layout: Layout, mic_id: str, terms: DrumTerms) -> Layout:
    """The layout with a close mic where its drum terms say.

    A target goes before the tilt: aimed at a point, the tilt follows from the place.

    Parameters
    ----------
    layout : Layout
    mic_id : str
        Its short name.
    terms : DrumTerms

    Returns
    -------
    Layout

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
