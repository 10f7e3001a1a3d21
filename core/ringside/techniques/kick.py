"""Kick recipes: inside, at the port, outside, boundary, batter side, woofer, tunnel.

Distances are common practice: 20 to 25 cm back from the beater for body, a fist off the
front head and never straight in the air of the port, a tunnel of 2 to 2.5 m.
"""

from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.plan.drumframe import face_of
from ringside.plan.kit import Drum
from ringside.techniques.around import Around
from ringside.techniques.recipe import Made, Numbers, Put, Technique, number

OUT_OF_JET_M: Final = 0.10
"""How far outside the rim of the port an outside mic is kept (common practice: never in it)."""

JET_WORDS: Final = "Never straight in the air of the port: it can destroy a diaphragm."


def _named(a: Around, base: str) -> str:
    kicks = a.drums("kick")
    return base if len(kicks) == 1 or a.drum == kicks[0] else f"{base}, {a.drum.name}"[:80]


def _axes(drum: Drum) -> tuple[Floats, Floats, Floats, Floats]:
    """Beater spot, front centre, way out of the front, and the drummer's right along the head."""
    face = face_of(drum, "under")
    return np.array(drum.batter_m), face.centre, face.out, face.three


def _hole(drum: Drum) -> tuple[Floats, float] | None:
    """Centre and radius of the port."""
    if drum.port is None:
        return None
    _, front, _, right = _axes(drum)
    up = face_of(drum, "under").twelve
    return front + right * drum.port.right_m + up * drum.port.up_m, drum.port.diameter_m / 2


def _inside(a: Around, n: Numbers) -> Made:
    """Inside the shell, some way back from the beater, beside its line or straight at it."""
    drum = a.drum
    beater, front, out, right = _axes(drum)
    deepest = float((front - beater) @ out) - 0.03
    far = min(n["back"], deepest)
    at = beater + out * far + right * n["aside"] * a.leads
    notes = () if far == n["back"] else ("The shell is shorter than that: it stands at its end.",)
    mic = Put(id="KI", name=_named(a, "Kick in"), at=at, way=beater - at, pattern="cardioid",
              job=drum.id)  # fmt: skip
    return Made(puts=(mic,), notes=notes)


def _port(a: Around, n: Numbers) -> Made:
    """Level with the hole, in it or a little out, toward the beater.

    Raises
    ------
    RingsideError
        When the front head has no hole.
    """
    drum = a.drum
    beater, front, out, _ = _axes(drum)
    hole = _hole(drum)
    notes: tuple[str, ...] = ()
    if hole is None:
        if drum.far_head is not None:
            raise RingsideError(
                f"{drum.name} has no hole in its front head: mic it outside or at the batter"
            )
        centre = front
        notes = ("There is no front head: it stands where the hole would be.",)
    else:
        centre = hole[0]
    at = centre - out * n["in"]
    mic = Put(id="KP", name=_named(a, "Kick port"), at=at, way=beater - at, job=drum.id)
    return Made(puts=(mic,), notes=notes)


def _outside(a: Around, n: Numbers) -> Made:
    """Off the front head, beside the air of the port, toward the head."""
    drum = a.drum
    _, front, out, right = _axes(drum)
    aside = n["aside"] * a.leads
    at = front + out * n["off"] + right * aside
    hole = _hole(drum)
    notes: tuple[str, ...] = ()
    if hole is not None:
        keep = hole[1] + OUT_OF_JET_M
        off_port = float((at - hole[0]) @ right)
        level = float(np.linalg.norm((at - hole[0]) - out * float((at - hole[0]) @ out)))
        if level < keep:
            way = float(np.sign(off_port) or a.leads)
            if abs(drum.port.right_m if drum.port else 0.0) > 0.05:
                way = -float(np.sign(drum.port.right_m if drum.port else 1.0))
            at = at + right * (way * keep - off_port)
            notes = ("Moved aside, out of the air of the port.",)
    mic = Put(id="KO", name=_named(a, "Kick out"), at=at, way=-out, job=drum.id)
    return Made(puts=(mic,), notes=notes)


def _boundary(a: Around, n: Numbers) -> Made:
    """Flat on the pillow on the floor of the shell."""
    drum = a.drum
    beater, front, out, _ = _axes(drum)
    up = face_of(drum, "under").twelve
    far = min(n["back"], float((front - beater) @ out) - 0.03)
    at = beater + out * far - up * (drum.diameter_m / 2 - n["pillow"])
    mic = Put(id="KB", name=_named(a, "Kick boundary"), at=at, way=up, pattern="omni", job=drum.id)
    return Made(puts=(mic,))


def _batter(a: Around, n: Numbers) -> Made:
    """On the drummer's side, beside the beater, clear of foot and pedal."""
    drum = a.drum
    face = face_of(drum, "over")
    at = face.spot(n["off"], n["in"], n["clock"])
    mic = Put(id="KS", name=_named(a, "Kick batter side"), at=at, way=face.centre - at,
              job=drum.id)  # fmt: skip
    return Made(puts=(mic,))


def _woofer(a: Around, n: Numbers) -> Made:
    """A loudspeaker's cone used as a mic, close outside the front head."""
    drum = a.drum
    _, front, out, right = _axes(drum)
    at = front + out * n["off"] + right * n["aside"] * a.leads
    mic = Put(id="KW", name=_named(a, "Kick woofer"), at=at, way=-out, pattern="figure-8",
              job=drum.id)  # fmt: skip
    return Made(puts=(mic,))


def _tunnel(a: Around, n: Numbers) -> Made:
    """At the far end of a covered way in front of the kick."""
    drum = a.drum
    _, front, _, _ = _axes(drum)
    start = np.array([front[0], front[1], 0.0])
    way = a.ahead
    far = a.out(start, way, n["long"])
    at = start + way * far + np.array([0.0, 0.0, n["height"]])
    notes = () if far == n["long"] else ("A wall is nearer: the tunnel ends before it.",)
    mic = Put(id="KT", name=_named(a, "Kick tunnel"), at=at, way=front - at, job=drum.id)
    return Made(puts=(mic,), notes=notes)


KICK: Final = (
    Technique(
        id="kick-inside", name="Kick inside", group="Kick", place=_inside, over=("kick",),
        numbers=(number("back", "Back from the beater", 0.22, 0.03, 0.6),
                 number("aside", "Beside the beater's line", 0.03, -0.25, 0.25)),
        wants=("moving-coil",), minutes=5, also="beater body click",
        gives="Body at a hand's length back; click when close and straight at the beater.",
        watch_for="A cable or stand that touches the shell, and a mic that creeps with the pillow.",
        listen_for="Nearer is click, half way in is a compromise, beside it toward the shell is"
        " warmth.",
        care="Peaks in a shell go far over what an ear at the kit meets: choose a mic that takes"
        " them and put its pad in.",
    ),
    Technique(
        id="kick-port", name="Kick at the port", group="Kick", place=_port, over=("kick",),
        only="ported",
        numbers=(number("in", "In from the hole", 0.0, -0.15, 0.3),),
        wants=("moving-coil",), minutes=4, also="hole front head",
        gives="Click and boom in one mic.",
        watch_for="The gust of air at the hole: a rugged mic with a screen, never a ribbon.",
        listen_for="Further in is click, further out is boom.",
        care=JET_WORDS,
    ),
    Technique(
        id="kick-outside", name="Kick outside", group="Kick", place=_outside, over=("kick",),
        numbers=(number("off", "Off the front head", 0.09, 0.03, 0.6, hand="fist_m"),
                 number("aside", "Beside its middle", 0.03, -0.28, 0.28)),
        tries=({}, {"aside": 0.12}, {"aside": -0.12}, {"off": 0.2}),
        wants=("condenser", "moving-coil"), minutes=5, also="front head sub resonant",
        gives="The round low end of the front head.",
        watch_for="Out of the air of the port; the pad in.",
        listen_for="It loses pressure fast as it moves out; the inside mic hears the beater first.",
        care=JET_WORDS,
    ),
    Technique(
        id="kick-boundary", name="Boundary mic in the kick", group="Kick", place=_boundary,
        over=("kick",),
        numbers=(number("back", "Back from the beater", 0.22, 0.05, 0.5),
                 number("pillow", "Over the shell's floor", 0.06, 0.02, 0.2)),
        wants=("boundary",), minutes=3, also="pillow flat plate",
        gives="Attack with an even low end, and no stand.",
        watch_for="It slides; tape it to the pillow.",
        listen_for="A pillow that damps more than wanted.",
    ),
    Technique(
        id="kick-batter", name="Kick from the batter side", group="Kick", place=_batter,
        over=("kick",),
        numbers=(number("off", "Off the batter head", 0.08, 0.03, 0.3),
                 number("in", "In from the rim", 0.06, -0.05, 0.25),
                 number("clock", "Clock", 9.0, 0.0, 12.0, unit="clock")),
        tries=({}, {"clock": 10.0}, {"clock": 3.0}, {"clock": 2.0}, {"clock": 8.0}, {"clock": 4.0},
               {"clock": 10.5, "in": 0.02}, {"clock": 1.5, "in": 0.02}),
        wants=("moving-coil", "condenser"), minutes=7, also="beater side no hole",
        gives="The beater itself, where the front head has no hole.",
        watch_for="The foot, the pedal, the snare's wires: it is pushed the other way from a mic"
        " in front.",
        listen_for="Squeaks of the pedal.",
        care="Nothing may stand where the foot works.",
    ),
    Technique(
        id="kick-woofer", name="Woofer as a mic", group="Kick", place=_woofer, over=("kick",),
        numbers=(number("off", "Off the front head", 0.06, 0.02, 0.4),
                 number("aside", "Beside its middle", 0.0, -0.2, 0.2)),
        tries=({}, {"aside": 0.15}, {"aside": -0.15}),
        wants=("moving-coil",), minutes=8, also="speaker cone sub low lo-fi",
        gives="The lowest octave, and nothing else.",
        watch_for="Its polarity is anybody's guess until tried; it never stands alone.",
        listen_for="Whether it fills under the inside mic or fights it.",
        care="Use it unpowered, into a transformer or pad; leave mains equipment to qualified"
        " people.",
    ),
    Technique(
        id="kick-tunnel", name="Kick tunnel", group="Kick", place=_tunnel, over=("kick",),
        numbers=(number("long", "Out from the front head", 2.2, 1.0, 3.5),
                 number("height", "Over the floor", 0.30, 0.05, 0.8)),
        wants=("condenser", "ribbon"), minutes=15, also="blankets chairs gobos far",
        gives="Sub bass with little of the rest of the kit.",
        watch_for="It comes some milliseconds after the inside mic; delay or enjoy.",
        listen_for="Cymbals leaking in at the open end.",
        care="Heavy blankets stay away from lamps and heaters, and out of the way to the exit.",
    ),
)  # fmt: skip
