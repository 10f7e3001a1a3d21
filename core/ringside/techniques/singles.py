"""One, two and three mics for a whole kit; the odd mic that is equally far from everything.

Common practice: 1.2 m in front (lower: more kick, higher: more cymbals), over the kick at
the snare, over the kit, in its middle, behind the shoulder across the kit.
"""

from dataclasses import replace
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.places.loci import equidistant
from ringside.techniques import overheads as pairs
from ringside.techniques.around import UP, Around
from ringside.techniques.recipe import Equal, Made, Numbers, Put, Technique, number


def _one(at: Floats, look: Floats, name: str) -> Made:
    return Made(puts=(Put(id="MM", name=name, at=at, way=look - at, role="overhead"),))


def _front(a: Around, n: Numbers) -> Made:
    """In front of the kick, toward the middle of the kit."""
    start = np.array([a.front_of_kick[0], a.front_of_kick[1], 0.0])
    far = a.out(start, a.ahead, n["out"])
    at = start + a.ahead * far + UP * a.under_ceiling(n["height"])
    notes = () if far == n["out"] else ("A wall is nearer: it stands as far out as the room lets.",)
    look = (a.s + a.k) / 2
    put = Put(id="MM", name="Front mic", at=at, way=look - at, role="room")
    return Made(puts=(put,), notes=notes)


def _over_kick(a: Around, n: Numbers) -> Made:
    """Over the shell of the kick, between the toms, at the snare."""
    middle = np.array(a.kick.batter_m) - np.array(a.kick.axis) * a.kick.depth_m * n["along"]
    at = np.array([middle[0], middle[1], a.kick.diameter_m / 2 + a.kick.batter_m[2] + n["over"]])
    return _one(at, a.s, "Over the kick")


def _over_kit(a: Around, n: Numbers) -> Made:
    """Straight over the middle of snare and kick, looking down."""
    middle = (a.s + a.k) / 2
    at = np.array([middle[0], middle[1], a.under_ceiling(a.s[2] + n["over"])]) + a.u * n["forward"]
    return _one(at, at - UP, "Over the kit")


def _mid_kit(a: Around, n: Numbers) -> Made:
    """In the middle of the kit, between snare, toms and kick."""
    at = a.s + a.u * n["along"] + UP * n["over"]
    return Made(puts=(Put(id="MM", name="Middle of the kit", at=at, way=a.k - at,
                          pattern="omni", role="overhead"),))  # fmt: skip


def _shoulder(a: Around, n: Numbers) -> Made:
    """Behind the drummer's shoulder, across the kit."""
    seat = np.array([*(a.kit.stool.position_m if a.kit.stool else (a.k[0], -0.5)), 0.0])
    side = np.array([a.leads, 0.0, 0.0])
    at = seat + side * n["aside"] - np.array([0.0, n["behind"], 0.0]) + UP * n["height"]
    far = a.out(seat, (at - seat) * [1, 1, 0] / np.linalg.norm((at - seat)[:2]),
                float(np.linalg.norm((at - seat)[:2])))  # fmt: skip
    flat = (at - seat)[:2]
    at[:2] = seat[:2] + flat / np.linalg.norm(flat) * far
    return _one(at, (a.s + a.k) / 2, "Over the shoulder")


def _equal_to_all(a: Around, n: Numbers) -> Made:
    """As far from snare, kick and floor tom; as near as can be to the same from a rack tom."""
    drums = [a.needed("floor"), *a.drums("rack")[:1]]
    points = [a.s, a.k, *(np.array(d.batter_m) for d in drums)]
    answer = equidistant(points)
    at = answer.line_point + answer.line_way * (answer.best_along + n["along"])
    ids = ("snare", "kick", "floor")
    equals = [
        Equal(on=f"snare and {ids[i]}", a=0, b=0, to_a=points[0], to_b=points[i]) for i in (1, 2)
    ]
    put = Put(id="EQ", name="Equally far", at=at, way=np.mean(points, axis=0) - at,
              pattern="cardioid", role="overhead")  # fmt: skip
    return Made(puts=(put,), equals=tuple(equals))


def _kick_out(a: Around, off: float) -> Put:
    face_out = -np.array(a.kick.axis)
    side = np.array([a.leads, 0.0, 0.0])
    at = a.front_of_kick + face_out * off + side * 0.12 - UP * 0.04
    return Put(id="KO", name="Kick out", at=at, way=-face_out, job=a.kick.id)


def _kick_and_over(a: Around, n: Numbers) -> Made:
    """A kick mic and one overhead."""
    over = pairs.mono_over(a, {"over": n["over"], "forward": n["forward"]})
    return _behind_kick(a, n["off"], over)


def _kick_snare_over(a: Around, n: Numbers) -> Made:
    """Kick, snare and one mic over the kit."""
    from ringside.techniques.snare import centre

    snare = centre(Around(a.layout, a.snare.id),
                   {"height": 0.035, "in": 0.035, "clock": n["clock"]})  # fmt: skip
    two = _kick_and_over(a, n)
    return Made(puts=(two.puts[0], *snare.puts, *two.puts[1:]), notes=two.notes)


def _behind_kick(a: Around, off: float, over: Made) -> Made:
    """A kick mic, then another recipe's mics with what they promise counted on by one."""
    return Made(
        puts=(_kick_out(a, off), *over.puts),
        couples=tuple(replace(c, left=c.left + 1, right=c.right + 1) for c in over.couples),
        equals=tuple(replace(e, a=e.a + 1, b=e.b + 1) for e in over.equals),
        notes=over.notes,
    )


def _kick_and_pair(a: Around, n: Numbers) -> Made:
    """A kick mic and a pair turned onto the ring."""
    over = pairs.turned(a, {"width": n["width"], "over": n["over"], "forward": 0.0})
    return _behind_kick(a, n["off"], over)


def _kick_over_side(a: Around, n: Numbers) -> Made:
    """A kick mic and the over-and-side pair."""
    over = pairs.over_and_side(a, {"far": n["far"], "side": n["side"], "round": n["round"]})
    return _behind_kick(a, n["off"], over)


_OVER = number("over", "Over the snare", 1.05, 0.5, 2.0)
_OFF = number("off", "Kick mic off the front head", 0.09, 0.03, 0.6, hand="fist_m")
_LIFT = tuple({"over": v} for v in (1.05, 1.15, 1.25, 1.35, 0.95, 1.5))

SINGLES: Final = (
    Technique(
        id="one-front", name="One in front", group="One mic", place=_front,
        numbers=(number("out", "Out from the kick", 1.2, 0.4, 4.0),
                 number("height", "Over the floor", 1.0, 0.2, 2.2)),
        tries=({}, {"out": 1.0}, {"out": 0.8}, {"height": 0.8}), minutes=5, also="mono single",
        gives="The kit as somebody in front hears it.",
        watch_for="Lower is more kick and fewer cymbals; higher is more cymbals and snare,"
        " thinner.",
        listen_for="The spot where nothing has to be turned down: walk, one ear closed.",
        care="Wear hearing protection when walking round a kit that is played.",
    ),
    Technique(
        id="one-over-kick", name="One over the kick, at the snare", group="One mic",
        place=_over_kick,
        numbers=(number("over", "Over the kick's hoop", 0.22, 0.08, 0.7),
                 number("along", "Along the shell", 0.9, 0.0, 1.4, unit="share")),
        tries=tuple({"over": o, "along": s} for s in (0.9, 1.0, 1.15, 1.3, 0.75, 0.6)
                    for o in (0.22, 0.3, 0.15, 0.4, 0.5)),
        minutes=5, also="mono single toms between",
        gives="Snare and kick in one, toms to both sides.",
        watch_for="A rack tom that hides the snare, and sticks on the way from tom to tom.",
        listen_for="Kick against snare: along the shell toward the drummer is more snare.",
    ),
    Technique(
        id="one-over-kit", name="One over the kit", group="One mic", place=_over_kit,
        numbers=(_OVER, number("forward", "Toward the kick", 0.0, -0.5, 0.8)),
        tries=_LIFT, minutes=5, also="mono single overhead down",
        gives="Everything, cymbals first.",
        watch_for="A boom over a head.",
        listen_for="Kick: it gains as the mic comes down or forward.",
        care="A boom over heads wants a counterweight and a sandbag, tightened; nobody under it"
        " while it moves.",
    ),
    Technique(
        id="one-mid-kit", name="One in the middle of the kit", group="One mic", place=_mid_kit,
        numbers=(number("over", "Over the snare's height", 0.28, 0.05, 0.6),
                 number("along", "From snare toward kick", 0.22, 0.05, 0.6)),
        tries=tuple({"over": o, "along": s} for s in (0.22, 0.30, 0.16, 0.40, 0.12)
                    for o in (0.28, 0.20, 0.36, 0.14, 0.45)),
        wants=("moving-coil", "condenser"), minutes=5, also="mono single trash crush",
        gives="Drums before cymbals, dry and near.",
        watch_for="Sticks: it stands in the drummer's reach.",
        listen_for="Kick and snare at one level before anything is crushed.",
        care="Ask the drummer to play slowly round it first.",
    ),
    Technique(
        id="one-shoulder", name="One over the shoulder", group="One mic", place=_shoulder,
        numbers=(number("aside", "Beside the stool", 0.42, 0.1, 0.9),
                 number("behind", "Behind the stool", 0.15, -0.2, 0.8),
                 number("height", "Over the floor", 1.5, 1.1, 2.0)),
        tries=({}, {"behind": 0.3}, {"aside": 0.5}, {"aside": 0.55, "behind": 0.3}), minutes=5,
        also="mono single drummer behind",
        gives="The kit as the drummer hears it.",
        watch_for="The drummer's head and elbow.",
        listen_for="Hats against ride: swing it round the head.",
        care="Keep it out of the reach of the drummer's arms and head.",
    ),
    Technique(
        id="two-mics", name="Kick and one over", group="Two and three", place=_kick_and_over,
        mics=2, numbers=(_OVER, number("forward", "Toward the kick", 0.1, -0.5, 0.8), _OFF),
        tries=_LIFT, minutes=10, also="duo",
        gives="A kit, and a kick that can be turned up.",
        watch_for="The kick arrives twice: move the upper one until the low end is full.",
        listen_for="Snare level, which only the height can change.",
    ),
    Technique(
        id="three-mics", name="Kick, snare and one over", group="Two and three",
        place=_kick_snare_over, mics=3,
        numbers=(_OVER, number("forward", "Toward the kick", 0.1, -0.5, 0.8), _OFF,
                 number("clock", "Snare clock", 11.0, 0.0, 12.0, unit="clock")),
        tries=tuple({**h, **c} for h in _LIFT for c in ({}, {"clock": 10.0}, {"clock": 12.0},
                                                        {"clock": 1.0}, {"clock": 9.0})),
        wants=("moving-coil", "condenser"), minutes=14, also="trio",
        gives="Control of the two drums that matter, in mono.",
        watch_for="Two arrivals of the snare.",
        listen_for="Body of the snare as its mic comes up under the upper one.",
    ),
    Technique(
        id="three-pair", name="Kick and a turned pair", group="Two and three",
        place=_kick_and_pair, mics=3,
        numbers=(number("width", "Pair apart", 1.2, 0.4, 2.4), _OVER, _OFF),
        tries=_LIFT, wants=("condenser", "moving-coil"), minutes=16, also="trio stereo",
        gives="A stereo kit with both drums in the middle.",
        watch_for="Snare and kick equal to both upper mics, by tape.",
        listen_for="Mono: nothing should go.", keeps_on=("snare", "kick"),
    ),
    Technique(
        id="three-side", name="Kick, over and side", group="Two and three", place=_kick_over_side,
        mics=3, needs=("floor",),
        numbers=(number("far", "Both from the snare", 1.05, 0.8, 1.5),
                 number("side", "Side mic over the tom's rim", 0.15, 0.0, 0.5),
                 number("round", "Side mic round toward the audience", 0.0, -60.0, 60.0,
                        unit="deg"), _OFF),
        tries=pairs.SIDE_TRIES, wants=("condenser",), minutes=18, also="trio over-and-side",
        gives="Wide, full drums from three mics.",
        watch_for="Both upper mics at one distance from the snare, by a cable swung from its"
        " centre; the floor tom tends to be weak.",
        listen_for="Snare in the middle, panned about half way.", keeps_on=("snare",),
    ),
    Technique(
        id="equidistant", name="Equally far from four drums", group="Overheads",
        place=_equal_to_all, needs=("floor",),
        numbers=(number("along", "Off the best spot, up its line", 0.0, -0.6, 1.5),),
        tries=tuple({"along": v} for v in (0.0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8, 1.0, -0.2)),
        minutes=8, also="odd mono circumcentre",
        gives="One mic that hears snare, kick, floor and rack tom at the same moment.",
        watch_for="Only three of the four can always be exact; the rack tom is as near as it gets.",
        listen_for="Whether it glues the close mics together.",
        keeps_on=("snare and kick", "snare and floor"),
    ),
)  # fmt: skip
