"""Snare recipes: on top at the centre, the edge, flat, at the shell, two on top; the wires.

Heights and ways in are common practice: two fingers over the head and two to three fingers
in from the rim; the bottom mic straight up at the wires.
"""

from collections.abc import Mapping
from typing import Final

import numpy as np

from ringside.plan.drumframe import EDGE_SHARE, face_of, side_of, wires_hours
from ringside.techniques.around import Around
from ringside.techniques.recipe import Equal, Made, Named, Numbers, Put, Technique, number

SNARE_CLOCKS: Final[tuple[Mapping[str, float], ...]] = (
    {}, *({"clock": c} for c in (11.0, 11.5, 10.5, 12.0, 10.0, 1.0, 9.5, 2.0, 9.0, 8.5)),
)  # fmt: skip
"""Hours to try, from the far left on: between hats and rack tom first (common practice)."""


def _ids(a: Around, stem: str, name: str) -> tuple[str, str]:
    snares = a.drums("snare")
    at = snares.index(a.drum) if a.drum in snares else 0
    return (stem, name) if at == 0 else (f"{stem}{at + 1}", f"{a.drum.name} {name.split()[-1]}")


FAR_LEFT_H: Final = 11.0
"""Between hats and rack tom, away from the drummer's legs: where a stand comes in first (common
practice); a left-handed kit has it at one o'clock."""


def _in_line(a: Around) -> dict[str, float]:
    """The end of the wires that is nearer to where a stand comes in; nothing where they are not
    known."""
    hours = wires_hours(a.drum, face_of(a.drum, "under"))
    if hours is None:
        return {}
    wanted = FAR_LEFT_H if a.leads > 0 else 12.0 - FAR_LEFT_H
    best = min(hours, key=lambda h: abs((h - wanted + 6) % 12 - 6))
    return {"clock": round(best, 2) % 12}


def _in_line_alone(a: Around) -> dict[str, float]:
    """A top mic stands in line with the wires too when the snare has no mic under it."""
    below = any(
        m.job == a.drum.id and side_of(a.drum, m.position_m) == "under" for m in a.layout.mics
    )
    return {} if below else _in_line(a)


def _height() -> Named:
    return number("height", "Over the head", 0.035, 0.01, 0.25, hand="two_fingers_m")


def _in() -> Named:
    return number("in", "In from the rim", 0.035, -0.08, 0.15, hand="two_fingers_m")


def _clock() -> Named:
    return number("clock", "Clock", 11.0, 0.0, 12.0, unit="clock")


def centre(a: Around, n: Numbers) -> Made:
    """Over the head near the rim, aimed at the middle.

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
    face = face_of(a.drum, "over")
    at = face.spot(n["height"], n["in"], n["clock"])
    id_, name = _ids(a, "ST", "Snare top")
    return Made(puts=(Put(id=id_, name=name, at=at, way=face.centre - at, job=a.drum.id),))


def _edge(a: Around, n: Numbers) -> Made:
    """Over the rim, steep down at the edge of the head."""
    face = face_of(a.drum, "over")
    at = face.spot(n["height"], n["in"], n["clock"])
    look = face.centre + face.radial(n["clock"]) * face.radius * (n["toward"] * EDGE_SHARE)
    id_, name = _ids(a, "ST", "Snare edge")
    return Made(puts=(Put(id=id_, name=name, at=at, way=look - at, job=a.drum.id),))


def _flat(a: Around, n: Numbers) -> Made:
    """Low over the rim, looking flat across the head."""
    face = face_of(a.drum, "over")
    at = face.spot(n["height"], n["in"], n["clock"])
    tilt = np.radians(n["tilt"])
    way = -np.cos(tilt) * face.radial(n["clock"]) - np.sin(tilt) * face.out
    id_, name = _ids(a, "ST", "Snare flat")
    return Made(puts=(Put(id=id_, name=name, at=at, way=way, job=a.drum.id),))


def _shell(a: Around, n: Numbers) -> Made:
    """Beside the shell, level with its middle, toward it."""
    face = face_of(a.drum, "over")
    at = face.spot(-a.drum.depth_m * n["down"], -n["off"], n["clock"])
    id_, name = _ids(a, "SS", "Snare shell")
    return Made(puts=(Put(id=id_, name=name, at=at, way=-face.radial(n["clock"]), job=a.drum.id),))


def _two(a: Around, n: Numbers) -> Made:
    """Two on top, taped side by side, capsules level and as far from the middle of the head."""
    face = face_of(a.drum, "over")
    out = face.radius - n["in"]
    half_h = float(np.degrees(np.arcsin(min(n["apart"] / (2 * out), 0.9)))) / 30.0
    spots = [face.spot(n["height"], n["in"], n["clock"] + d) for d in (-half_h, half_h)]
    names = (("S1", "Snare top, one"), ("S2", "Snare top, two"))
    puts = tuple(
        Put(id=i, name=w, at=p, way=face.centre - p, job=a.drum.id)
        for (i, w), p in zip(names, spots, strict=True)
    )
    same = Equal(on="own head", a=0, b=1, to_a=face.centre, to_b=face.centre)
    return Made(puts=puts, equals=(same,))


def _bottom(a: Around, n: Numbers) -> Made:
    """Straight up at the wires, in line with them."""
    face = face_of(a.drum, "under")
    at = face.spot(n["under"], n["in"], n["clock"])
    id_, name = _ids(a, "SB", "Snare bottom")
    return Made(puts=(Put(id=id_, name=name, at=at, way=-face.out, job=a.drum.id, flip=True),))


_AIR = (
    "A stick's swing; a little foam toward the hats helps. With no mic under the snare it stands in"
    " line with the wires."
)
SNARE: Final = (
    Technique(
        id="snare-centre", name="Snare top at the centre", group="Snare", place=centre,
        over=("snare",), numbers=(_height(), _in(), _clock()),
        suggest=_in_line_alone, tries=SNARE_CLOCKS,
        wants=("moving-coil", "condenser"), minutes=5, also="attack dark",
        gives="Attack, and a darker tone.",
        watch_for=_AIR + " A loud condenser here overloads preamps.",
        listen_for="Higher and farther in is fuller, until the stick is in the way.",
    ),
    Technique(
        id="snare-edge", name="Snare top at the edge", group="Snare", place=_edge, over=("snare",),
        numbers=(_height(), number("in", "In from the rim", 0.01, -0.08, 0.15), _clock(),
                 number("toward", "Looks out to this share of the head", 1.0, 0.3, 1.0,
                        unit="share")),
        suggest=_in_line_alone, tries=SNARE_CLOCKS,
        wants=("moving-coil", "condenser"), minutes=5, also="ring bright steep",
        gives="Ring, and a brighter tone.",
        watch_for=_AIR,
        listen_for="A ring that stays on after the song's tempo; damp it before moving the mic.",
    ),
    Technique(
        id="snare-flat", name="Snare top, flat across", group="Snare", place=_flat, over=("snare",),
        numbers=(_height(), number("in", "In from the rim", -0.02, -0.1, 0.1), _clock(),
                 number("tilt", "Down from level", 8.0, 0.0, 45.0, unit="deg")),
        suggest=_in_line_alone, tries=SNARE_CLOCKS,
        wants=("moving-coil", "condenser"), minutes=5, also="across shallow",
        gives="Crack of the whole head, less of one spot.",
        watch_for=_AIR + " Near the plane of the head the first half-wave may go either way.",
        listen_for="What is on the other side of the drum: it looks straight at it.",
    ),
    Technique(
        id="snare-shell", name="Snare at the shell", group="Snare", place=_shell, over=("snare",),
        numbers=(number("off", "Off the shell", 0.08, 0.03, 0.3),
                 number("down", "Down the shell", 0.5, 0.0, 1.0, unit="share"), _clock()),
        tries=tuple({**c, **o} for o in ({}, {"off": 0.05}, {"off": 0.15}) for c in SNARE_CLOCKS),
        wants=("condenser", "moving-coil"), minutes=6, also="side vent",
        gives="Both heads at once, natural.",
        watch_for="Polarity can only be found by listening: it hears both heads.",
        listen_for="Hats, and the knee of the drummer.",
    ),
    Technique(
        id="snare-two", name="Two on the snare", group="Snare", place=_two, over=("snare",), mics=2,
        numbers=(_height(), _in(), _clock(),
                 number("apart", "Capsules apart", 0.025, 0.015, 0.06)),
        tries=SNARE_CLOCKS, wants=("moving-coil", "condenser"), minutes=8,
        also="twin taped condenser",
        gives="Two characters of one drum that can be blended in any share.",
        watch_for="Capsules level and side by side: tape them together once, move them as one."
        " Two kinds of mic are wanted here.",
        listen_for="Anything that hollows when both are up.", keeps_on=("own head",),
    ),
    Technique(
        id="snare-bottom", name="Snare bottom at the wires", group="Snare", place=_bottom,
        over=("snare",),
        numbers=(number("under", "Under the wires", 0.055, 0.02, 0.2, hand="three_fingers_m"),
                 number("in", "In from the rim", 0.12, 0.0, 0.3), _clock()),
        suggest=_in_line,
        tries=({}, {"clock": 11.0}, {"clock": 12.0}, {"clock": 1.0}, {"clock": 10.0},
               {"clock": 2.0}, {"clock": 9.0}, {"clock": 3.0}),
        wants=("condenser", "moving-coil"), minutes=5, also="wires buzz under",
        gives="The wires: thin alone, blended under the top.",
        watch_for="In line with the wires, where the kit says how they run."
        " Always a polarity question: it comes flipped at the preamp; or try both and keep"
        " the fuller one.",
        listen_for="Body gained or lost when it comes up under the top mic.",
    ),
)  # fmt: skip
