"""Room recipes: in front, bars, spaced omnis, floor, boundary, far and high.

A pair starts where people put it: in front of the kick, facing the kit, turned a little so that
the snare is exactly equal, and what that leaves on the kick is told. On the line from snare
through kick, one number away, it is equal on both, which on most kits is well to the side. Where
a wall is nearer the pair comes in and says so. Distances are common practice.
"""

from collections.abc import Callable, Sequence
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.plan.mics import Pattern
from ringside.techniques.around import UP, Around
from ringside.techniques.overheads import both, mid_side_at, opened
from ringside.techniques.recipe import Couple, Made, Named, Numbers, Put, Technique, number

NEARER: Final = "A wall is nearer: it stands as far out as the room lets."
NARROWER: Final = "The room is narrower than that: the pair is drawn in."
SWINGS: Final = (
    {}, *({"swung": v} for v in (60.0, 40.0, 20.0, 80.0, 0.0, -20.0, -40.0)),
)  # fmt: skip
FLOOR: Final = "floor room"
"""The pair that looks down at the floor."""
CARD_OFF_FLOOR_M: Final = 0.005
"""The opening of a boundary mic over the floor it lies on (common practice)."""


def _pair_of(kind: str) -> Couple:
    return Couple(name=f"{kind.capitalize()} pair", left=0, right=1)


def _sides(kind: str) -> tuple[str, str]:
    """What its mics are called: of several pairs put up to choose from no two are called alike."""
    return f"Left {kind}", f"Right {kind}"


def _middle(
    a: Around, n: Numbers, width: float = 0.0
) -> tuple[Floats, Floats, float, tuple[str, ...]]:
    """The middle of a room pair on the floor, the way across it, its width, and notes."""
    way = a.heading(n["swung"])
    across = np.array([way[1], -way[0], 0.0])
    across = across if across[0] >= 0 else -across
    start = np.array([a.s[0], a.s[1], 0.0])
    far = a.out(start, way, n["out"])
    for share in (1.0, 0.85, 0.7, 0.55, 0.4):
        half = across * width * share / 2
        for d in np.arange(far, far * 0.6, -0.1):
            mid = start + way * d
            if a.in_room(np.array([mid - half, mid + half]), 0.15).all():
                notes = () if d > n["out"] - 0.02 else (NEARER,)
                return mid, across, width * share, (*notes, *(() if share == 1 else (NARROWER,)))
    return start + way * far, across, width * 0.4, (NEARER, NARROWER)


def _equal_on(n: Numbers) -> tuple[str, ...]:
    return ("snare", "kick") if abs(n["swung"]) < 1e-9 else ("snare",)


def _in_front(out: float) -> Callable[[Around], dict[str, float]]:
    """The swing that puts the middle of a pair so far out right in front of the kick."""

    def swing(a: Around) -> dict[str, float]:
        to_kick = a.front_of_kick[:2] - a.s[:2]
        ahead = a.ahead[:2]
        side = float(to_kick[0] * ahead[1] - to_kick[1] * ahead[0])
        line = float(np.arctan2(a.u[0] * ahead[1] - a.u[1] * ahead[0], a.u[:2] @ ahead))
        mine = float(np.arcsin(np.clip(side / out, -0.9, 0.9)))
        return {"swung": round(float(np.degrees(line - mine)) * a.leads, 1)}

    return swing


def _kick_words(a: Around, puts: Sequence[Put], n: Numbers) -> tuple[str, ...]:
    """What a pair that is equal on the snare leaves on the kick."""
    if abs(n["swung"]) < 1e-9:
        return ()
    reach = [float(np.linalg.norm(p.at - a.k)) for p in puts[:2]]
    apart = abs(reach[0] - reach[1]) / a.layout.air.speed
    if apart < LEAST_S:
        return ()
    first = puts[int(reach[1] < reach[0])].id
    return (f"Equal on the snare; the kick reaches {first} {apart * 1e3:.2f} ms sooner.",)


LEAST_S: Final = 2e-5
"""Less than this on the kick is no word worth: seven millimetres."""


def _at(a: Around, p: Floats, z: float) -> Floats:
    return np.array([p[0], p[1], a.under_ceiling(z)])


def _pair(
    a: Around, n: Numbers, puts: Sequence[Put], notes: tuple[str, ...], couple: Couple
) -> Made:
    """A room pair, equal on the snare, with what it leaves on the kick."""
    return Made(
        puts=tuple(puts), couples=(couple,), equals=both(a, 0, 1, _equal_on(n)), notes=notes,
        told=_kick_words(a, puts, n),
    )  # fmt: skip


def _spaced(a: Around, n: Numbers, kind: str, pattern: Pattern, ids: tuple[str, str]) -> Made:
    mid, across, width, notes = _middle(a, n, n["width"])
    look = (a.s + a.k) / 2
    puts = []
    for sign, id_, name in zip((-1, 1), ids, _sides(kind), strict=True):
        at = _at(a, mid + sign * across * width / 2, n["height"])
        way = -UP if kind == FLOOR else look - at
        puts.append(Put(id=id_, name=name, at=at, way=way, pattern=pattern, role="room"))
    return _pair(a, n, puts, notes, _pair_of(kind))


def _bar(a: Around, n: Numbers) -> Made:
    """Two on a bar at cymbal height, opened a little."""
    mid, across, _, notes = _middle(a, n, n["width"])
    mid = _at(a, mid, n["height"])
    to = (a.s + a.k) / 2 - mid
    to[2] *= 0.5
    to -= across * float(to @ across)
    right, left = opened(to / np.linalg.norm(to), across, n["angle"])
    half = across * n["width"] / 2
    names = _sides("room")
    puts = (
        Put(id="RL", name=names[0], at=mid - half, way=right, role="room"),
        Put(id="RR", name=names[1], at=mid + half, way=left, role="room"),
    )
    return _pair(a, n, puts, notes, _pair_of("room"))


def _omnis(a: Around, n: Numbers) -> Made:
    """Spaced omnis, further and higher than the overheads."""
    return _spaced(a, n, "wide room", "omni", ("WL", "WR"))


def _far_high(a: Around, n: Numbers) -> Made:
    """A wide pair far off and high up, facing the kit."""
    return _spaced(a, n, "far room", "cardioid", ("HL", "HR"))


def _floor_pair(a: Around, n: Numbers) -> Made:
    """Two a card's thickness off the floor, pointing down at it."""
    return _spaced(a, n, FLOOR, "cardioid", ("GL", "GR"))


def _one_point(a: Around, n: Numbers, kind: str, pattern: Pattern, ids: tuple[str, str]) -> Made:
    mid, across, _, notes = _middle(a, n, n["apart"])
    mid = _at(a, mid, n["height"])
    to = (a.s + a.k) / 2 - mid
    to -= across * float(to @ across)
    aims = opened(to / np.linalg.norm(to), across, n["angle"])
    half = across * n["apart"] / 2
    names = _sides(kind)
    puts = (
        Put(id=ids[0], name=names[0], at=mid + half, way=aims[0], pattern=pattern, role="room"),
        Put(id=ids[1], name=names[1], at=mid - half, way=aims[1], pattern=pattern, role="room"),
    )
    return _pair(a, n, puts, notes, _pair_of(kind))


def _crossed(a: Around, n: Numbers) -> Made:
    """Two figure-8 at one point in front of the kit."""
    return _one_point(a, n, "crossed room", "figure-8", ("XL", "XR"))


def _floor_coincident(a: Around, n: Numbers) -> Made:
    """Two cardioids at one point, a few centimetres off the floor."""
    return _one_point(a, n, "low room", "cardioid", ("PL", "PR"))


def _mid_side(a: Around, n: Numbers) -> Made:
    """Mid-side in front of the kit, centred on the line through snare and kick."""
    mid, across, _, notes = _middle(a, n, n["apart"])
    mid = _at(a, mid, n["height"])
    to = (a.s + a.k) / 2 - mid
    to -= across * float(to @ across)
    puts = mid_side_at(mid, to, across, n["apart"], "R", "Room", "room")
    couple = Couple(name="Room, mid and side", left=0, right=1)
    return _pair(a, n, puts, notes, couple)


def _mono(a: Around, n: Numbers) -> Made:
    """One in front of the kick."""
    start = np.array([a.front_of_kick[0], a.front_of_kick[1], 0.0])
    far = a.out(start, a.ahead, n["out"])
    at = _at(a, start + a.ahead * far, n["height"])
    put = Put(id="RM", name="Mono room", at=at, way=(a.s + a.k) / 2 - at, role="room")
    return Made(puts=(put,), notes=() if far == n["out"] else (NEARER,))


def _plates(a: Around, n: Numbers) -> Made:
    """Two boundary mics on the floor and a third further back."""
    mid, across, width, notes = _middle(a, n, n["width"])
    back, _, _, more = _middle(a, {**n, "out": n["out"] + n["back"]})
    spots = (mid - across * width / 2, mid + across * width / 2, back)
    named = (("BL", "Left boundary"), ("BR", "Right boundary"), ("BB", "Back boundary"))
    puts = tuple(
        Put(
            id=i,
            name=w,
            at=np.array([p[0], p[1], CARD_OFF_FLOOR_M]),
            way=UP,
            pattern="omni",
            role="room",
        )
        for (i, w), p in zip(named, spots, strict=True)
    )
    couple = Couple(name="Boundary pair", left=0, right=1)
    return _pair(a, n, puts, tuple(dict.fromkeys((*notes, *more))), couple)


def _out(default: float, low: float = 0.8, high: float = 7.0) -> Named:
    return number("out", "Out from the snare", default, low, high)


def _height(default: float, high: float = 4.0) -> Named:
    return number("height", "Over the floor", default, 0.02, high)


_SWUNG = number("swung", "Off the line through snare and kick", 0.0, -60.0, 90.0, unit="deg")
_LINE = (
    "Turned until the snare is equal, not set to the middle of the rug; on the line through snare"
    " and kick both are."
)
_CABLES = "Tape the cables down; leave exits and hallways clear."

ROOMS: Final = (
    Technique(
        id="room-mono", name="Mono room in front", group="Room", place=_mono,
        numbers=(number("out", "Out from the kick", 3.3, 0.6, 8.0), _height(1.2)),
        minutes=6, also="far front one",
        gives="Size, in the middle, where it cannot lean.",
        watch_for="Every door and lamp that rattles.",
        listen_for="Kick: half a step forward or back changes it.", care=_CABLES,
    ),
    Technique(
        id="room-bar", name="Room pair on a bar", group="Room", place=_bar, mics=2, tries=SWINGS,
        suggest=_in_front(2.6),
        numbers=(_out(2.6), _height(1.25), number("width", "Capsules apart", 0.3, 0.1, 1.0),
                 number("angle", "Angle between", 60.0, 0.0, 120.0, unit="deg"), _SWUNG),
        minutes=9, also="stereo front middle small", keeps_on=("snare",),
        gives="The kit in its room, from one stand.",
        watch_for=_LINE,
        listen_for="Cymbals: at their height they are loudest.", care=_CABLES,
    ),
    Technique(
        id="room-omnis", name="Spaced omnis", group="Room", place=_omnis, mics=2, tries=SWINGS,
        suggest=_in_front(3.2),
        numbers=(_out(3.2), number("height", "Over the floor", 1.9, 0.5, 4.0),
                 number("width", "Pair apart", 2.4, 0.8, 6.0), _SWUNG),
        minutes=14, also="wide high far ambience", keeps_on=("snare",),
        gives="A wide room with all its low end.",
        watch_for=_LINE + " Further and higher than the overheads.",
        listen_for="Mono.", care=_CABLES,
    ),
    Technique(
        id="room-crossed-8", name="Crossed figure-8 in the room", group="Room", place=_crossed,
        mics=2, tries=SWINGS,
        suggest=_in_front(2.3),
        numbers=(_out(2.3), _height(1.2), number("angle", "Angle between", 90.0, 60.0, 120.0,
                                                 unit="deg"),
                 number("apart", "Capsules apart", 0.03, 0.0, 0.05), _SWUNG),
        wants=("ribbon", "condenser"), minutes=9, also="ribbon small room",
        keeps_on=("snare",),
        gives="A small room made to sound deep; smooth cymbals.",
        watch_for=_LINE + " It hears the wall behind it as well.",
        listen_for="Snare in the middle.",
        care="Ribbons: no air blasts, care with phantom. " + _CABLES,
    ),
    Technique(
        id="room-mid-side", name="Mid-side in the room", group="Room", place=_mid_side, mics=2,
        tries=SWINGS,
        suggest=_in_front(2.6),
        numbers=(_out(2.6), _height(1.2), number("apart", "Capsules apart", 0.03, 0.0, 0.05),
                 _SWUNG),
        minutes=9, also="width later matrix", keeps_on=("snare",),
        gives="A room whose width is set later; mono is the mid mic.",
        watch_for=_LINE,
        listen_for="Snare in the side mic: next to none.", care=_CABLES,
    ),
    Technique(
        id="floor-pair", name="Floor pair, a card off the floor", group="Room", place=_floor_pair,
        mics=2, tries=SWINGS,
        suggest=_in_front(2.2),
        numbers=(_out(2.2), number("height", "Off the floor", 0.0004, 0.0001, 0.02, hand="card_m"),
                 number("width", "Pair apart", 1.0, 0.3, 3.0), _SWUNG),
        minutes=9, also="down card", keeps_on=("snare",),
        gives="Room without the comb of the floor.",
        watch_for="A card under the capsule, then take the card away. Feet.",
        listen_for="More low end than the same mic on a stand.", care=_CABLES,
    ),
    Technique(
        id="floor-point", name="Floor coincident pair", group="Room", place=_floor_coincident,
        mics=2, tries=(*SWINGS, {"out": 1.6}, {"out": 2.0}),
        suggest=_in_front(1.4),
        numbers=(_out(1.4), number("height", "Off the floor", 0.05, 0.01, 0.15),
                 number("angle", "Angle between", 90.0, 60.0, 130.0, unit="deg"),
                 number("apart", "Capsules apart", 0.025, 0.0, 0.05), _SWUNG),
        minutes=8, also="near the kick low", keeps_on=("snare",),
        gives="Kick and toms from below the cymbals.",
        watch_for="Footfalls and pedals.",
        listen_for="Weight added to the overheads.", care=_CABLES,
    ),
    Technique(
        id="boundary-room", name="Boundary mics on the floor", group="Room", place=_plates, mics=3,
        tries=SWINGS,
        suggest=_in_front(2.4),
        numbers=(_out(2.4), number("width", "Pair apart", 1.6, 0.6, 4.0),
                 number("back", "Third further back by", 1.0, 0.3, 3.0), _SWUNG),
        wants=("boundary", "condenser"), minutes=8, also="plate flat three",
        keeps_on=("snare",),
        gives="Even room, no stands.",
        watch_for="A heavy floor that does not drum.",
        listen_for="The third alone, crushed.", care=_CABLES,
    ),
    Technique(
        id="room-far-high", name="Far high pair", group="Room", place=_far_high, mics=2,
        tries=SWINGS,
        suggest=_in_front(4.5),
        numbers=(_out(4.5), number("height", "Over the floor", 2.6, 1.0, 6.0),
                 number("width", "Pair apart", 3.0, 0.8, 8.0), _SWUNG),
        minutes=16, also="ambience big", keeps_on=("snare",),
        gives="The longest picture there is.",
        watch_for="It comes late: placed, it answers; aligned, it thickens.",
        listen_for="Fast playing: does it smear?",
        care="High stands want a sandbag, and nobody under them while they move. " + _CABLES,
    ),
)  # fmt: skip
