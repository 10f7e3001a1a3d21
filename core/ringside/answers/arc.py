"""The arc of a side mic: every spot as far from the snare at one height, and what it hears there.

An over-and-side pair is swung on a cable from the snare's middle. Round the arc the snare stays
equal; what changes is how near the floor tom is, how far the kick, and whether a stand fits.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.hear.arrivals import arrivals
from ringside.hear.scene import at_spots, scene_of
from ringside.places.clearance import words_for_all
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.spoken import spoken, the_first
from ringside.survey.net import held_at

WIDEST_DEG: Final = 75.0
STEP_DEG: Final = 3.0
"""Fine enough that a stand's foot fits between two."""

HEARD_DB: Final = 1.0
"""A gain smaller than this is told as none (common practice: the smallest change noticed)."""


@dataclass(frozen=True, kw_only=True, slots=True)
class ArcSpot:
    """One spot of the arc."""

    turn_deg: float
    """From where the mic is, seen from above: above zero toward the audience."""
    position_m: tuple[float, float, float]
    aim: tuple[float, float, float]
    blocked: str
    """Why no stand fits there; empty where one does."""
    floor_db: float
    """The floor tom against the snare, more than where the mic is now."""
    kick_m: float


@dataclass(frozen=True, kw_only=True, slots=True)
class Arc:
    """The spots of a side mic that are as far from the snare, and which of them is worth it."""

    mic: str
    snare_m: float
    floor: str
    """The drum that gains, by its name."""
    spots: list[ArcSpot]
    now: int
    best: int | None
    """The free spot with most of the floor tom; None where none is free."""
    words: str


def arc(layout: Layout, mic_id: str) -> Arc:
    """Every spot as far from the snare, at one height.

    Parameters
    ----------
    layout : Layout
    mic_id : str

    Returns
    -------
    Arc

    Raises
    ------
    RingsideError
        When the mic is not there, the kit has no floor tom, or the mic is straight over the snare.
    """
    mic = next((m for m in layout.mics if m.id == mic_id), None)
    if mic is None:
        raise RingsideError(f"expected a mic of this layout, got {mic_id!r}")
    floor = next((d for d in layout.kit.drums if d.kind == "floor"), None)
    if floor is None:
        raise RingsideError("expected a kit with a floor tom: the arc is for what it gains there")
    snare: Floats = np.array(held_at(layout.kit.first("snare")))
    kick: Floats = np.array(held_at(layout.kit.first("kick")))
    at = np.array(mic.position_m)
    if float(np.linalg.norm((at - snare)[:2])) < 0.1:
        raise RingsideError(f"{mic_id} is straight over the snare: its arc is one spot")
    turns = np.arange(-WIDEST_DEG, WIDEST_DEG + STEP_DEG / 2, STEP_DEG)
    way = _toward_audience(at - snare)
    places = snare + _turned(at - snare, turns * way)
    aims = _turned(np.array(mic.aim), turns * way)
    floor_db = _floor_over_snare(layout, mic, places, aims, floor.id)
    now = int(np.abs(turns).argmin())
    blocked = words_for_all(places, layout)
    gain = floor_db - floor_db[now]
    free = [n for n, why in enumerate(blocked) if not why]
    best = max(free, key=lambda n: (round(float(gain[n]), 2), -abs(turns[n]))) if free else None
    rows = [
        ArcSpot(
            turn_deg=float(turns[n]),
            position_m=_three(places[n]),
            aim=_three(aims[n]),
            blocked=blocked[n],
            floor_db=round(float(gain[n]), 2),
            kick_m=round(float(np.linalg.norm(places[n] - kick)), 4),
        )
        for n in range(len(turns))
    ]
    return Arc(
        mic=mic.id, snare_m=round(float(np.linalg.norm(at - snare)), 4), floor=floor.name,
        spots=rows, now=now, best=best, words=_words(rows, now, best, floor.name),
    )  # fmt: skip


def _three(v: Floats) -> tuple[float, float, float]:
    x, y, z = (round(float(c), 7) + 0.0 for c in v)
    return x, y, z


def _toward_audience(level: Floats) -> float:
    """Which way round (1 counter-clockwise from above) brings a spot toward the audience."""
    return 1.0 if level[0] > 0 else -1.0


def _turned(v: Floats, degrees: Floats) -> Floats:
    """A vector turned about the upright by each angle, (N, 3)."""
    c, s = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    return np.stack([c * v[0] - s * v[1], s * v[0] + c * v[1], np.full_like(c, v[2])], axis=1)


def _floor_over_snare(layout: Layout, mic: Mic, places: Floats, aims: Floats, floor: str) -> Floats:
    """How loud the floor tom is against the snare at every spot, decibels (N,)."""
    alone = scene_of(layout.model_copy(update={"mics": (mic,), "stereo_pairs": ()}))
    scene = at_spots(alone, places, aims, np.repeat(alone.pressure_share, len(places)))
    level = arrivals(scene, layout.thresholds).level_db
    ids = scene.sources.ids
    return np.asarray(
        level[:, ids.index(floor)] - level[:, ids.index(layout.kit.first("snare").id)]
    )


def _words(rows: list[ArcSpot], now: int, best: int | None, floor: str) -> str:
    if best is None:
        return "No spot of the arc is free: change the distance or the height."
    here = rows[now]
    stands = "" if not here.blocked else f"Where it is planned: {here.blocked} "
    gain, turn = rows[best].floor_db, rows[best].turn_deg
    if gain < HEARD_DB and not here.blocked:
        return f"{the_first(floor)} gains less than a decibel anywhere that is free: leave it."
    side = "toward the audience" if turn > 0 else "toward the drummer"
    told = (
        f"{gain:+z.1f} dB of {spoken(floor)} against the snare"
        if abs(gain) >= HEARD_DB
        else "as good"
    )
    return f"{stands}Swung {abs(turn):.0f}° {side} it is free: {told}."
