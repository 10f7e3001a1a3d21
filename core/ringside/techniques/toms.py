"""Tom recipes: top, a little off, bottom, both, inside; hand drums likewise.

Common practice: over the outer third, three fingers up and three in; farther off with
condensers so that the drum can breathe; bottom mics 10 to 12 dB under the top.
"""

from collections.abc import Mapping
from typing import Final

import numpy as np

from ringside.errors import RingsideError
from ringside.plan.drumframe import EDGE_SHARE, face_of
from ringside.techniques.around import Around
from ringside.techniques.recipe import Made, Named, Numbers, Put, Technique, number

TOMS: Final = ("rack", "floor", "hand drum")
TOM_CLOCKS: Final[tuple[Mapping[str, float], ...]] = tuple(
    {"clock": c} for c in (12.0, 1.0, 11.0, 2.0, 10.0, 3.0, 9.0, 4.0, 8.0, 5.0, 7.0)
)


def _tries(off: str, nearer: float, outward: float = -0.03) -> tuple[dict[str, float], ...]:
    """Round the rim; then nearer to the head, further in, and further out, each round again."""
    ways: tuple[dict[str, float], ...] = ({}, {off: nearer}, {"in": 0.02}, {"in": outward})
    return tuple({**clock, **way} for way in ways for clock in TOM_CLOCKS)


RISES: Final = _tries("height", 0.04)


def _ids(a: Around, bottom: bool = False) -> tuple[str, str]:
    """Short and full name: T1, T2 for racks, FT or F1 for floors, H1 for hand drums."""
    drum = a.drum
    among = [d for d in a.kit.drums if d.kind == drum.kind]
    place = among.index(drum) + 1
    stem = {"rack": f"T{place}", "floor": "FT" if len(among) == 1 else f"F{place}"}.get(
        drum.kind, f"H{place}"
    )
    return (f"{stem}b", f"{drum.name} bottom") if bottom else (stem, drum.name)


def _clock() -> Named:
    return number("clock", "Clock", 12.0, 0.0, 12.0, unit="clock")


def _top_face(a: Around, n: Numbers) -> Put:
    face = face_of(a.drum, "over")
    at = face.spot(n["height"], n["in"], n["clock"])
    look = face.centre + face.radial(n["clock"]) * face.radius * EDGE_SHARE * n.get("toward", 0.3)
    id_, name = _ids(a)
    return Put(id=id_, name=name, at=at, way=look - at, job=a.drum.id)


def _under(a: Around, n: Numbers) -> Put:
    if a.drum.far_head is None:
        raise RingsideError(f"{a.drum.name} has no bottom head; put the mic inside instead")
    face = face_of(a.drum, "under")
    at = face.spot(n["under"], n["in"], n["clock"])
    id_, name = _ids(a, bottom=True)
    return Put(id=id_, name=name, at=at, way=face.centre - at, job=a.drum.id, flip=True)


def _top(a: Around, n: Numbers) -> Made:
    """Over the outer third of the head."""
    return Made(puts=(_top_face(a, n),))


def _bottom(a: Around, n: Numbers) -> Made:
    """Under the bottom head."""
    return Made(puts=(_under(a, n),))


def _both(a: Around, n: Numbers) -> Made:
    """Top and bottom."""
    return Made(puts=(_top_face(a, n), _under(a, n)))


def _inside(a: Around, n: Numbers) -> Made:
    """Inside a tom that has no bottom head.

    Raises
    ------
    RingsideError
        When the tom has a bottom head.
    """
    if a.drum.far_head is not None:
        raise RingsideError(f"{a.drum.name} has a bottom head; this is for a tom without one")
    face = face_of(a.drum, "inside")
    deep = min(n["below"], a.drum.depth_m + 0.05)
    at = face.centre + face.out * deep + face.radial(n["clock"]) * n["aside"]
    id_, name = _ids(a)
    return Made(
        puts=(Put(id=id_, name=f"{name} inside"[:80], at=at, way=-face.out, job=a.drum.id),)
    )


def _beneath(a: Around, n: Numbers) -> Made:
    """One trash mic under the rack toms, looking up.

    Raises
    ------
    RingsideError
        When the kit has no toms.
    """
    racks = a.drums("rack") or a.drums("floor")
    if not racks:
        raise RingsideError("this kit has no toms to put a mic under")
    centres = np.array([face_of(d, "under").centre for d in racks])
    at = centres.mean(axis=0)
    at[2] = max(float(centres[:, 2].min()) - n["under"], 0.05)
    at[1] += n["front"]
    mic = Put(id="UT", name="Under the toms", at=at, way=np.array([0.0, -0.2, 1.0]), role="room")
    return Made(puts=(mic,))


TOM: Final = (
    Technique(
        id="tom-top", name="Tom top", group="Toms", place=_top, over=TOMS,
        numbers=(number("height", "Over the head", 0.055, 0.02, 0.3, hand="three_fingers_m"),
                 number("in", "In from the rim", 0.055, -0.05, 0.15, hand="three_fingers_m"),
                 _clock(),
                 number("toward", "Looks out to this share of the head", 0.3, 0.0, 1.0,
                        unit="share")),
        tries=RISES, wants=("moving-coil", "condenser"), minutes=5, also="close rack floor",
        gives="Attack when steep, volume when flat.",
        watch_for="Cymbals that swing over it, and the ride's bell behind it.",
        listen_for="Whether the low end swells when it is very near.",
    ),
    Technique(
        id="tom-off", name="Tom top, a little off", group="Toms", place=_top, over=TOMS,
        numbers=(number("height", "Over the head", 0.11, 0.05, 0.4),
                 number("in", "In from the rim", 0.03, -0.08, 0.15), _clock(),
                 number("toward", "Looks out to this share of the head", 0.3, 0.0, 1.0,
                        unit="share")),
        tries=_tries("height", 0.07), wants=("condenser",), minutes=6, also="breathe condenser",
        gives="A drum that breathes, with its shell.",
        watch_for="More cymbal in it than close up.",
        listen_for="The ride: it should stay in the overheads.",
    ),
    Technique(
        id="tom-bottom", name="Tom bottom", group="Toms", place=_bottom, over=TOMS,
        only="two heads",
        numbers=(number("under", "Under the head", 0.055, 0.02, 0.2, hand="three_fingers_m"),
                 number("in", "In from the rim", 0.055, 0.0, 0.2, hand="three_fingers_m"),
                 _clock()),
        tries=_tries("under", 0.04, 0.0), wants=("moving-coil", "condenser"), minutes=5,
        also="resonant under only",
        gives="Tone and sustain with hardly any cymbal.",
        watch_for="Pushed the other way from every mic above: flip all the bottoms.",
        listen_for="The stick is missing: the overheads carry it.",
    ),
    Technique(
        id="tom-both", name="Tom top and bottom", group="Toms", place=_both, over=TOMS, mics=2,
        only="two heads",
        numbers=(number("height", "Over the head", 0.055, 0.02, 0.3, hand="three_fingers_m"),
                 number("in", "In from the rim", 0.055, -0.05, 0.15, hand="three_fingers_m"),
                 _clock(), number("under", "Under the head", 0.055, 0.02, 0.2)),
        tries=RISES, wants=("moving-coil", "condenser"), minutes=9, also="pair",
        gives="Stick from above, tone from below.",
        watch_for="The bottom flipped and 10 to 12 dB under the top.",
        listen_for="Body gained when the bottom comes up; if it goes, the flip is wrong.",
    ),
    Technique(
        id="tom-inside", name="Inside a tom", group="Toms", place=_inside, over=TOMS, only="open",
        numbers=(number("below", "Below the head", 0.10, 0.03, 0.4),
                 number("aside", "Beside the middle", 0.03, 0.0, 0.15), _clock()),
        wants=("moving-coil",), minutes=7, also="no bottom head single-headed",
        gives="A close, dry drum with next to no bleed.",
        watch_for="It must not touch the shell. Levels in there are high: pad in.",
        listen_for="A boxy ring of the shell; move it toward the open end.",
    ),
    Technique(
        id="under-toms", name="Under the toms", group="Oddities", place=_beneath,
        numbers=(number("under", "Under the shells", 0.12, 0.03, 0.5),
                 number("front", "Toward the audience", 0.0, -0.3, 0.4)),
        tries=({}, {"front": 0.1}, {"under": 0.2}, {"front": 0.2}, {"under": 0.05},
               {"front": 0.3}, {"under": 0.3, "front": 0.3}, {"under": 0.03, "front": 0.35}),
        wants=("moving-coil", "condenser"), minutes=5, also="trash below lo-fi",
        gives="Kick, toms from below and legs of stands: something to crush.",
        watch_for="Knees and pedals.",
        listen_for="What it does under the picture once compressed.",
    ),
)  # fmt: skip
