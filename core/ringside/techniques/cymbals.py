"""Hats, ride and other cymbals: over and under, a hand away, the dead side to the neighbour.

Common practice: a hand away at the outer edge; too close and the low end swells.
"""

from typing import Final

import numpy as np

from ringside.errors import RingsideError
from ringside.places.nulls import best_way, loudest_near
from ringside.plan.drumframe import Side, face_of
from ringside.plan.kit import Cymbal, centre_of
from ringside.plan.mics import PRESSURE_SHARE, Pattern
from ringside.techniques.around import Around
from ringside.techniques.recipe import Made, Named, Numbers, Put, Technique, number

PLATES: Final = ("hats", "crash", "ride", "splash", "china", "percussion")
EDGE: Final = 0.85
_STEMS: Final = {"hats": "HH", "ride": "RD", "crash": "CR", "splash": "SP", "china": "CH"}
AROUND: Final = (12.0, 10.0, 11.0, 9.0, 1.0, 8.0, 2.0, 7.0, 3.0, 5.0, 4.0, 6.0)
TRIES: Final = tuple(
    {"clock": c, **h} for h in ({}, {"away": 0.14}, {"away": 0.26}, {"in": -0.04}) for c in AROUND
)


def _cymbal(a: Around) -> Cymbal:
    if not isinstance(a.part, Cymbal):
        raise RingsideError(f"{a.part.name} is no cymbal; choose a cymbal for this")
    return a.part


def _plate(a: Around, n: Numbers, side: Side, pattern: Pattern) -> Made:
    cymbal = _cymbal(a)
    face = face_of(cymbal, side)
    at = face.spot(n["away"], n["in"], n["clock"])
    own = face.centre + face.radial(n["clock"]) * face.radius * EDGE - at
    other = loudest_near(a.kit, at, cymbal.id)
    way = own
    if other is not None:
        to = np.array(centre_of(a.kit.part(other))) - at
        way = best_way(own, to, PRESSURE_SHARE[pattern], float(np.radians(n["turn"])))
    same = [c for c in a.kit.cymbals if c.kind == cymbal.kind]
    stem = _STEMS.get(cymbal.kind, "PC")
    id_ = stem if len(same) == 1 else f"{stem}{same.index(cymbal) + 1}"
    under = side == "under"
    return Made(
        puts=(
            Put(id=f"{id_}u" if under else id_, name=cymbal.name + (" under" if under else ""),
                at=at, way=way, pattern=pattern, job=cymbal.id),
        )
    )  # fmt: skip


def _outer_edge(a: Around) -> dict[str, float]:
    """The hour of the edge farthest from the snare: the outer edge (common practice)."""
    face = face_of(_cymbal(a), "over")
    out = face.centre - a.s
    hour = float(np.degrees(np.arctan2(out @ face.three, out @ face.twelve)) / 30) % 12
    return {"clock": round(hour * 2) / 2 % 12}


def _over(a: Around, n: Numbers) -> Made:
    """Over the edge of a cymbal."""
    return _plate(a, n, "over", "cardioid")


def under(a: Around, n: Numbers) -> Made:
    """Under the edge of a cymbal.

    Parameters
    ----------
    a : Around
        The kit and the part a technique is put up for.
    n : Numbers
        By name, in metres, degrees or hours.

    Returns
    -------
    Made
    """
    return _plate(a, n, "under", "cardioid")


def _numbers(clock: float) -> tuple[Named, ...]:
    return (
        number("away", "Away from the metal", 0.19, 0.105, 0.5, hand="hand_m"),
        number("in", "In from the edge", 0.02, -0.15, 0.2),
        number("clock", "Clock", clock, 0.0, 12.0, unit="clock"),
        number("turn", "Front may turn off it by", 25.0, 0.0, 60.0, unit="deg"),
    )


CYMBALS: Final = (
    Technique(
        id="cymbal-over", name="Cymbal from over", group="Hats and cymbals", place=_over,
        over=PLATES, numbers=_numbers(12.0), tries=({}, *TRIES), suggest=_outer_edge, minutes=5,
        also="hats ride hi-hat spot",
        gives="Stick and shimmer of one cymbal.",
        watch_for="A cymbal swings: a hand away at the outer edge, the dead side to the loudest"
        " neighbour. Too close and the low end swells.",
        listen_for="On hats, the puff of air as they shut: move round the edge, not closer.",
    ),
    Technique(
        id="cymbal-under", name="Cymbal from under", group="Hats and cymbals", place=under,
        over=PLATES, numbers=_numbers(12.0),
        suggest=_outer_edge,
        tries=({}, *TRIES, *({"clock": c, "away": 0.12, "in": -0.1} for c in AROUND)), minutes=6,
        also="hats ride below",
        gives="A cymbal kept apart from the one above it, and no boom over heads.",
        watch_for="Toms right below: they leak in. Stick side and underside are not alike.",
        listen_for="A duller stick, and more of the wash.",
    ),
)  # fmt: skip
