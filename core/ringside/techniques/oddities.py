"""Walls, corners, the room next door, and the odd ones: hose, behind, talkback, speakers.

Common practice. A mic at a wall hears its low end build up; in the room next door it hears
reflections only.
"""

from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.plan.room import Space, to_kit, to_room, wall_distances
from ringside.techniques.around import UP, Around
from ringside.techniques.recipe import Couple, Made, Numbers, Put, Technique, number
from ringside.techniques.rooms import _CABLES, NEARER

WALL_DIRECTIONS: Final = {"back": (0.0, -1.0), "front": (0.0, 1.0), "left": (-1.0, 0.0),
                          "right": (1.0, 0.0)}  # fmt: skip


def _floor(p: Floats) -> Floats:
    return np.array([p[0], p[1], 0.0])


def _turned_to_room(a: Around, way: Floats) -> Floats:
    turn = a.must_room().kit_turn_rad
    c, s = np.cos(turn), np.sin(turn)
    return np.array([c * way[0] - s * way[1], s * way[0] + c * way[1]])


def _wall(a: Around, n: Numbers) -> Made:
    """Facing the wall the kick looks at, nearly touching it."""
    room = a.must_room()
    ahead = _turned_to_room(a, a.ahead)
    name = max(WALL_DIRECTIONS, key=lambda w: float(ahead @ np.array(WALL_DIRECTIONS[w])))
    out = np.array([*WALL_DIRECTIONS[name], 0.0])
    along = np.array([-out[1], out[0], 0.0])
    at = to_room(_floor(a.front_of_kick)[None], room)[0] + along * n["along"]
    to_wall = wall_distances(float(at[0]), float(at[1]), room)[name]  # type: ignore[index]
    at = at + out * (to_wall - n["gap"]) + UP * a.under_ceiling(n["height"])
    spot, tip = to_kit(np.array([at, at + out]), room)
    put = Put(id="WM", name="Wall mic", at=spot, way=tip - spot, role="room")
    return Made(puts=(put,))


def _corner_pair(a: Around, n: Numbers) -> Made:
    """High in the two corners ahead of the kit, facing in.

    Raises
    ------
    RingsideError
        When the room has no two free corners.
    """
    room = a.must_room()
    corners = a.corners()
    middle = to_kit(np.array([[room.width_m / 2, room.length_m / 2, 0.0]]), room)[0]
    spots = []
    for p in corners:
        diagonal = (middle - p) / np.linalg.norm(middle - p)
        spot = p + diagonal * n["off"] + UP * a.under_ceiling(n["height"])
        if a.in_room(spot[None])[0]:
            spots.append(spot)
    if len(spots) < 2:
        raise RingsideError("this room has no two free corners for a pair")
    ahead = sorted(spots, key=lambda p: -float((p - a.s) @ a.ahead))[:2]
    left, right = sorted(ahead, key=lambda p: float(p[0]))
    puts = (
        Put(id="CL", name="Left corner", at=left, way=a.s - left, role="room"),
        Put(id="CR", name="Right corner", at=right, way=a.s - right, role="room"),
    )
    return Made(puts=puts, couples=(Couple(name="Corner pair", left=0, right=1),))


def _space(a: Around) -> Space:
    room = a.must_room()
    for space in room.spaces:
        if space.id == a.target or a.target is None:
            return space
    raise RingsideError("this needs an adjoining space: draw a hallway or bathroom in Room first")


def _next_door(a: Around, n: Numbers) -> Made:
    """In the room next door, facing its far wall, so that only reflections reach it."""
    room, space = a.must_room(), _space(a)
    low = np.array([space.x_m, space.y_m])
    size = np.array([space.width_m, space.length_m])
    here = to_room(a.s[None], room)[0][:2]
    middles = {
        w: low + size / 2 + np.array(d) * (size / 2 - n["gap"]) for w, d in WALL_DIRECTIONS.items()
    }
    far = max(middles, key=lambda w: (round(float(np.linalg.norm(middles[w] - here)), 6), w))
    at = np.array([*middles[far], min(n["height"], space.height_m - 0.15)])
    tip = at + np.array([*WALL_DIRECTIONS[far], 0.0])
    spot, to = to_kit(np.array([at, tip]), room)
    put = Put(id="ND", name=f"Next door, {space.name}"[:80], at=spot, way=to - spot, role="room")
    return Made(puts=(put,))


def _hose(a: Around, n: Numbers) -> Made:
    """In one end of a hose whose other end lies by the kit."""
    at = _floor(a.front_of_kick) + np.array([a.leads * n["aside"], n["out"], n["height"]])
    put = Put(id="HO", name="Hose", at=at, way=a.k - at, pattern="omni", role="room")
    return Made(puts=(put,))


def _behind(a: Around, n: Numbers) -> Made:
    """Behind the drummer, toward the kit."""
    seat = a.kit.stool.position_m if a.kit.stool else (float(a.k[0]), -0.5)
    start, back = np.array([*seat, 0.0]), np.array([0.0, -1.0, 0.0])
    far = a.out(start, back, n["out"])
    at = start + back * far + UP * a.under_ceiling(n["height"])
    put = Put(id="BK", name="Behind the kit", at=at, way=(a.s + a.k) / 2 - at, role="room")
    return Made(puts=(put,), notes=() if far == n["out"] else (NEARER,))


def _talkback(a: Around, n: Numbers) -> Made:
    """The mic the players talk into, left open and crushed."""
    start = _floor(a.front_of_kick)
    far = a.out(start, a.ahead, n["out"])
    at = start + a.ahead * far + UP * a.under_ceiling(n["height"])
    put = Put(id="TB", name="Talkback", at=at, way=-UP, pattern="omni", role="room")
    return Made(puts=(put,), notes=() if far == n["out"] else (NEARER,))


def _off(a: Around, n: Numbers) -> tuple[Floats, tuple[str, ...]]:
    way = a.ahead
    start = _floor(a.front_of_kick)
    far = a.out(start, way, n["out"])
    return start + way * far, () if far == n["out"] else (NEARER,)


def _speakers(a: Around, n: Numbers) -> Made:
    """A pair that hears the close mics played back into the room, turned off the speakers."""
    mid, notes = _off(a, n)
    half = np.array([a.ahead[1], -a.ahead[0], 0.0]) * n["width"] / 2
    z = UP * a.under_ceiling(n["height"])
    puts = (
        Put(id="PL", name="Playback left", at=mid - half + z, way=a.ahead, role="room"),
        Put(id="PR", name="Playback right", at=mid + half + z, way=a.ahead, role="room"),
    )
    return Made(puts=puts, couples=(Couple(name="Playback pair", left=0, right=1),), notes=notes)


def _piano(a: Around, n: Numbers) -> Made:
    """Over the strings of a piano with its pedal held: a resonator for the kit."""
    mid, notes = _off(a, n)
    at = mid + UP * n["height"]
    put = Put(id="PN", name="Piano strings", at=at, way=-UP, role="room")
    return Made(puts=(put,), notes=notes)


ODDITIES: Final = (
    Technique(
        id="wall-mic", name="Wall mic", group="Room", place=_wall, needs=("room",),
        numbers=(number("gap", "Off the wall", 0.02, 0.003, 0.2),
                 number("height", "Over the floor", 1.2, 0.1, 4.0),
                 number("along", "Along the wall", 0.0, -3.0, 3.0)),
        wants=("boundary", "condenser"), minutes=6, also="facing touching",
        gives="The low end that builds up at a wall, no early comb.",
        watch_for="Touching or nearly: at a hand's width it already dips.",
        listen_for="Boom at one note; move along the wall.", care=_CABLES,
    ),
    Technique(
        id="corner-pair", name="Corner pair", group="Room", place=_corner_pair, mics=2,
        needs=("room",),
        numbers=(number("off", "Out of the corner", 0.45, 0.2, 2.0),
                 number("height", "Over the floor", 2.2, 0.5, 5.0)),
        minutes=16, also="high corners facing in",
        gives="The biggest low end in the room, and its longest way.",
        watch_for="Corners are seldom as far from the snare: measure, then slide one along.",
        listen_for="Snare leaning to one side.",
        care="High stands want a sandbag, and nobody under them while they move. " + _CABLES,
    ),
    Technique(
        id="next-door", name="The room next door, at a hard wall", group="Room", place=_next_door,
        over=("space",), needs=("space",),
        numbers=(number("gap", "Off the wall", 0.10, 0.01, 0.5),
                 number("height", "Over the floor", 1.4, 0.2, 3.0)),
        minutes=8, also="hallway bathroom stairwell tile reverb chamber",
        gives="A reverb nobody else has.",
        watch_for="The door stays open: prop it so that it cannot swing.",
        listen_for="Only reflections: turn it if the kit itself gets in.",
        care="Hallways and exits stay clear; local fire rules come first. " + _CABLES,
    ),
    Technique(
        id="hose", name="Mic in a hose", group="Oddities", place=_hose,
        numbers=(number("out", "Out from the kick", 0.35, 0.1, 2.0),
                 number("aside", "To the floor tom's side", 0.45, -1.0, 1.5),
                 number("height", "Over the floor", 0.15, 0.02, 1.5)),
        tries=({}, {"aside": 0.6}, {"out": 0.6}, {"aside": 0.8, "out": 0.6}),
        wants=("moving-coil",), minutes=6, also="tube lo-fi resonance",
        gives="One loud resonance, a whole character.",
        watch_for="The end of the hose is what hears; the plan shows that end.",
        listen_for="Its note against the song's key.",
    ),
    Technique(
        id="behind", name="Behind the kit", group="Oddities", place=_behind,
        numbers=(number("out", "Behind the stool", 1.2, 0.5, 4.0),
                 number("height", "Over the floor", 1.2, 0.2, 2.5)),
        tries=({}, {"out": 0.9}, {"out": 0.6}), minutes=5, also="back trash",
        gives="Beater, snare and the drummer's side of everything.",
        watch_for="The kick is pulled here and pushed in front: listen to its polarity.",
        listen_for="The wall behind.", care="Leave the drummer a way out.",
    ),
    Technique(
        id="talkback", name="Talkback, left open", group="Oddities", place=_talkback,
        numbers=(number("out", "Out from the kick", 1.0, 0.2, 5.0),
                 number("height", "Over the floor", 1.7, 0.2, 2.6)),
        wants=("moving-coil", "condenser"), minutes=3, also="crush lo-fi",
        gives="A mic that is up anyway, crushed.",
        watch_for="Record it: a talkback path is often not routed to a track.",
        listen_for="What happens between the hits.",
    ),
    Technique(
        id="speakers", name="Close mics played into the room", group="Oddities", place=_speakers,
        mics=2,
        numbers=(number("out", "Out from the kick", 3.5, 1.0, 8.0),
                 number("height", "Over the floor", 1.6, 0.2, 4.0),
                 number("width", "Pair apart", 1.6, 0.4, 5.0)),
        tries=({}, {"width": 1.0}, {"out": 2.5, "width": 1.0}, {"out": 1.5, "width": 0.6}),
        minutes=15, also="reamp playback ambience",
        gives="A room for a kit that was recorded dry.",
        watch_for="Turned away from the speakers. Later than everything else, on purpose.",
        listen_for="The snare's tail.",
        care="Loud speakers in the live room feed back: bring them up slowly, nobody near, hearing"
        " protection on.",
    ),
    Technique(
        id="piano", name="Piano with its pedal held", group="Oddities", place=_piano,
        numbers=(number("out", "Out from the kick", 2.5, 0.8, 8.0),
                 number("height", "Over the floor", 1.1, 0.5, 1.6)),
        tries=({}, {"out": 2.0}, {"out": 1.5}), wants=("condenser", "ribbon"), minutes=8,
        also="strings resonator sympathetic",
        gives="Every string that the kit sets ringing.",
        watch_for="A weight on the pedal, not on the lid.",
        listen_for="Notes that clash with the song.",
    ),
)  # fmt: skip
