"""How loud a kit is for people: at the drummer's ears and beside it, and how long that is a day's.

Worked examples, to be taken for no more: what a drum gives is from memory, no room is counted, and
nobody measured. Local rules and qualified people go first.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.gear.dose import NIOSH, OSHA, DoseRule, minutes_allowed
from ringside.gear.levels import peaks
from ringside.plan.kit import reference_point
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

EAR_UNDER_TOP_M: Final = 0.15
"""Ears lie so far under the top of the drummer's zone (from memory)."""

BESIDE_M: Final = 2.0
STANDING_EAR_M: Final = 1.6
"""Somebody who stands by: so far from the snare, ears so high (from memory)."""

PEAK_OVER_AVERAGE_DB: Final = 18.0
"""Peaks lie so far above the A-weighted average of a kit that is played on (from memory: 15 to 25
for drums), of which five either way is what drummers and pieces differ by."""

DIFFERS_DB: Final = 5.0
LONGEST_MIN: Final = 16 * 60.0
"""Longer than anybody is awake at work."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Loud:
    """A place for ears while the kit is played; decibels."""

    place: str
    peak_db: float
    average_db: float
    """A-weighted, about; `DIFFERS_DB` either way."""
    words: str


def loudness(layout: Layout) -> list[Loud]:
    """At the drummer's ears, where there is a stool, and beside the kit.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of Loud
    """
    places = {"beside the kit": _beside(layout)}
    stool = layout.kit.stool
    if stool:
        top = stool.zone_top_m - EAR_UNDER_TOP_M
        places = {"at the drummer's ears": (*stool.position_m, top), **places}
    ears = tuple(
        Mic(id=f"E{i}", name=name, role="room", pattern="omni", position_m=at, aim=(0, 0, -1))
        for i, (name, at) in enumerate(places.items())
    )
    alone = layout.model_copy(update={"mics": ears, "stereo_pairs": (), "room": None})
    return [_loud(name, p.middle_db) for name, p in zip(places, peaks(alone), strict=True)]


def _beside(layout: Layout) -> tuple[float, float, float]:
    """Out from the snare, away from the kick."""
    snare = np.array(reference_point(layout.kit.first("snare")))
    away = (snare - np.array(reference_point(layout.kit.first("kick"))))[:2]
    way = away / max(float(np.hypot(*away)), 1e-9)
    x, y = snare[:2] + BESIDE_M * way
    return float(x), float(y), STANDING_EAR_M


def _loud(place: str, peak_db: float) -> Loud:
    average = peak_db - PEAK_OVER_AVERAGE_DB
    return Loud(
        place=place,
        peak_db=round(peak_db, 1),
        average_db=round(average, 1),
        words=(
            f"{place[0].upper()}{place[1:]} about {average:.0f} ± {DIFFERS_DB:.0f} dB(A): a day's"
            f" dose in {_times(average, NIOSH)}, {_times(average, OSHA)}."
        ),
    )


def _times(average_db: float, rule: DoseRule) -> str:
    """The time, and that of the louder and of the softer end of what is known."""
    middle, least, most = (
        _time(minutes_allowed(average_db + by, rule)) for by in (0.0, DIFFERS_DB, -DIFFERS_DB)
    )
    return f"{middle} ({least} to {most}) by {rule.name}"


def _time(minutes: float) -> str:
    if minutes > LONGEST_MIN:
        return "no end"
    return f"{minutes / 60:.0f} h" if minutes >= 100 else f"{max(minutes, 1):.0f} min"
