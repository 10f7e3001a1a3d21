"""Overhead recipes: spaced, turned, coincident, figure-8, mid-side, mono, over-and-side, wide.

Two spots mirrored across the upright plane through snare and kick are equal on both, which
is what turning a pair means; mirrored across the snare alone they are equal on the snare.
Capsules at one point are set side by side across that plane, so that even the thickness of
a capsule costs no equality.
"""

from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.places.loci import ring_through
from ringside.plan.mics import Pattern
from ringside.techniques.around import UP, Around
from ringside.techniques.recipe import Couple, Equal, Made, Named, Numbers, Put, Technique, number

NEAREST_PAIR_M: Final = 0.5
"""An over-the-shoulder pair nearer together than this is no pair any more (from memory)."""

LOW_CEILING: Final = "The ceiling is lower than that: as high as it lets."
LIFTS: Final = tuple({"over": v} for v in (1.05, 1.15, 1.25, 1.35, 0.95, 1.5))
SIDE_TRIES: Final = tuple(
    {"round": r, **f}
    for f in ({}, {"far": 1.15}, {"far": 1.25}, {"side": 0.25}, {"far": 1.15, "side": 0.3})
    for r in (0.0, -10.0, 10.0, -20.0, 20.0, -35.0, 35.0)
)


def both(a: Around, i: int, j: int, on: tuple[str, ...] = ("snare", "kick")) -> tuple[Equal, ...]:
    """Two mics of a recipe as far from the snare, and from the kick.

    Parameters
    ----------
    a : Around
        The kit and the part a technique is put up for.
    i : int
        Number of one mic in the recipe.
    j : int
        Number of the other.
    on : tuple of str
        Short names of the drums.

    Returns
    -------
    tuple of Equal
    """
    points = {"snare": a.s, "kick": a.k}
    return tuple(Equal(on=name, a=i, b=j, to_a=points[name], to_b=points[name]) for name in on)


def _height(a: Around, over: float) -> tuple[float, tuple[str, ...]]:
    want = float(a.s[2]) + over
    z = a.under_ceiling(want)
    return z, () if z == want else (LOW_CEILING,)


def _pair(
    spots: tuple[Floats, Floats], ways: tuple[Floats, Floats], pattern: Pattern = "cardioid",
    *, ids: tuple[str, str] = ("OL", "OR"), names: tuple[str, str] | None = None,
) -> tuple[Put, Put]:  # fmt: skip
    said = names or ("Left overhead", "Right overhead")
    one, two = (
        Put(id=i, name=w, at=p, way=d, pattern=pattern, role="overhead")
        for i, w, p, d in zip(ids, said, spots, ways, strict=True)
    )
    return one, two


_OVERHEADS: Final = (Couple(name="Overheads", left=0, right=1),)


def _square(a: Around, n: Numbers) -> tuple[Floats, Floats, tuple[str, ...]]:
    z, notes = _height(a, n["over"])
    mid = np.array([a.s[0], a.s[1] + n["forward"], z])
    half = np.array([n["width"] / 2, 0.0, 0.0])
    return mid - half, mid + half, notes


def _straight(a: Around, n: Numbers) -> Made:
    """A spaced pair straight down, mirrored across the snare."""
    left, right, notes = _square(a, n)
    puts = _pair((left, right), (-UP, -UP))
    return Made(puts=puts, couples=_OVERHEADS, equals=both(a, 0, 1, ("snare",)), notes=notes)


def _at_snare(a: Around, n: Numbers) -> Made:
    """A spaced pair aimed at the snare, mirrored across it."""
    left, right, notes = _square(a, n)
    puts = _pair((left, right), (a.s - left, a.s - right))
    return Made(puts=puts, couples=_OVERHEADS, equals=both(a, 0, 1, ("snare",)), notes=notes)


def _mirror(
    a: Around, width: float, over: float, forward: float
) -> tuple[Floats, Floats, tuple[str, ...]]:
    z, notes = _height(a, over)
    mid = np.array([a.s[0], a.s[1], z]) + a.u * forward
    return mid - a.right * width / 2, mid + a.right * width / 2, notes


def turned(a: Around, n: Numbers) -> Made:
    """A spaced pair mirrored across the plane through snare and kick: both on one ring.

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
    left, right, notes = _mirror(a, n["width"], n["over"], n["forward"])
    puts = _pair((left, right), (a.s - left, a.s - right))
    return Made(puts=puts, couples=_OVERHEADS, equals=both(a, 0, 1), notes=notes)


def _at_one_point(a: Around, n: Numbers) -> tuple[Floats, Floats, tuple[str, ...]]:
    """The middle of a pair over the kit and the direction to the middle of snare and kick."""
    z, notes = _height(a, n["over"])
    mid = np.array([a.s[0], a.s[1], z]) + a.u * n["forward"]
    to = (a.s + a.k) / 2 - mid
    return mid, to / np.linalg.norm(to), notes


def opened(d: Floats, across: Floats, angle_deg: float) -> tuple[Floats, Floats]:
    """Left and right aims opened by an angle round a middle direction.

    Parameters
    ----------
    d, across : ndarray, shape (3,)
        Unit vectors: the middle direction, and the one to the right.
    angle_deg : float
        Between the two aims, degrees.

    Returns
    -------
    left, right : ndarray, shape (3,)
        Unit vectors.
    """
    half = np.radians(angle_deg) / 2
    return (
        np.cos(half) * d - np.sin(half) * across,
        np.cos(half) * d + np.sin(half) * across,
    )


def coincident(a: Around, n: Numbers, pattern: Pattern = "cardioid") -> Made:
    """Two capsules at one point, opened by an angle; the one that looks left sits right.

    Parameters
    ----------
    a : Around
        The kit and the part a technique is put up for.
    n : Numbers
        By name, in metres, degrees or hours.
    pattern : Pattern

    Returns
    -------
    Made
    """
    mid, d, notes = _at_one_point(a, n)
    half = a.right * n["apart"] / 2
    puts = _pair((mid + half, mid - half), opened(d, a.right, n["angle"]), pattern)
    return Made(puts=puts, couples=_OVERHEADS, equals=both(a, 0, 1), notes=notes)


def _near(a: Around, n: Numbers) -> Made:
    """Two capsules a hand apart, opened by an angle."""
    mid, d, notes = _at_one_point(a, n)
    half = a.right * n["apart"] / 2
    puts = _pair((mid - half, mid + half), opened(d, a.right, n["angle"]))
    return Made(puts=puts, couples=_OVERHEADS, equals=both(a, 0, 1), notes=notes)


def _crossed(a: Around, n: Numbers) -> Made:
    """Two figure-8 at one point."""
    return coincident(a, n, "figure-8")


def mid_side_at(
    mid: Floats, d: Floats, across: Floats, apart: float, stem: str, name: str, role: str
) -> tuple[Put, Put]:
    """A cardioid looking ahead and a figure-8 looking left, side by side.

    Parameters
    ----------
    mid : ndarray, shape (3,)
        Where the pair is, metres.
    d, across : ndarray, shape (3,)
        Unit vectors: ahead, and to the right.
    apart : float
        Between the two capsules, metres.
    stem, name, role : str
        What the two are called after, and what they are for.

    Returns
    -------
    tuple of Put
        The cardioid and the figure-8.
    """
    half = across * apart / 2
    return (
        Put(id=f"{stem}M", name=f"{name}, mid", at=mid + half, way=d, role=role),  # type: ignore[arg-type]
        Put(id=f"{stem}S", name=f"{name}, side", at=mid - half, way=-across, pattern="figure-8",
            role=role),  # type: ignore[arg-type]
    )  # fmt: skip


def _mid_side(a: Around, n: Numbers) -> Made:
    """Mid-side over the kit."""
    mid, d, notes = _at_one_point(a, n)
    puts = mid_side_at(mid, d, a.right, n["apart"], "O", "Overhead", "overhead")
    couple = Couple(name="Overheads, mid and side", left=0, right=1)
    return Made(puts=puts, couples=(couple,), equals=both(a, 0, 1), notes=notes)


def mono_over(a: Around, n: Numbers) -> Made:
    """One over the kit, in the plane of snare and kick, at the middle of the two.

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
    mid, d, notes = _at_one_point(a, n)
    return Made(puts=(Put(id="OM", name="Mono over", at=mid, way=d, role="overhead"),), notes=notes)


def over_and_side(a: Around, n: Numbers) -> Made:
    """One over the snare, one low beside the floor tom, both as far from the snare centre.

    Parameters
    ----------
    a : Around
        The kit and the part a technique is put up for.
    n : Numbers
        By name, in metres, degrees or hours.

    Returns
    -------
    Made

    Raises
    ------
    RingsideError
        When the side mic is set too high for the distance.
    """
    floor = a.needed("floor")
    far = n["far"]
    over = a.s + UP * far
    over[2] = a.under_ceiling(over[2])
    notes = () if over[2] == a.s[2] + far else (LOW_CEILING,)
    far = float(over[2] - a.s[2])
    rise = floor.batter_m[2] + n["side"] - float(a.s[2])
    flat = far**2 - rise**2
    if flat <= 0.05:
        raise RingsideError("the side mic is set too high for that distance; lower it")
    way = np.array(floor.batter_m) - a.s
    way = way * [1, 1, 0] / np.linalg.norm(way[:2])
    turn = np.radians(n["round"]) * a.leads
    c, s = np.cos(turn), np.sin(turn)
    way = np.array([c * way[0] - s * way[1], s * way[0] + c * way[1], 0.0])
    side = a.s + way * np.sqrt(flat) + UP * rise
    ids, names = ("OV", "SD"), ("Over the snare", "Side, by the floor tom")
    puts = _pair((over, side), (-UP, a.s - side), ids=ids, names=names)
    left, right = (0, 1) if a.leads > 0 else (1, 0)
    couple = Couple(name="Over and side", left=left, right=right)
    return Made(puts=puts, couples=(couple,), equals=both(a, 0, 1, ("snare",)), notes=notes)


def _shoulder_pair(a: Around, n: Numbers) -> Made:
    """One over the snare, one on its ring over the drummer's shoulder: equal on both drums.

    Raises
    ------
    RingsideError
        When no such pair fits this kit, or the two would nearly touch.
    """
    z, notes = _height(a, n["over"])
    over = np.array([a.s[0], a.s[1], z]) + a.u * n["forward"]
    answer = ring_through(a.s, a.k, over)
    if answer.ring is None:
        raise RingsideError(f"no such pair on this kit: {answer.words}")
    spots = answer.ring.at_height(n["height"])
    if len(spots) == 0:
        raise RingsideError(
            "The ring of that distance does not come to the shoulder's height; raise the mic"
            " over the snare."
        )
    back = spots[int(spots[:, 1].argmin())]
    if float(np.linalg.norm(back - over)) < NEAREST_PAIR_M:
        raise RingsideError(
            "The two mics would nearly touch: raise the one over the snare or lower the other."
        )
    ids, names = ("OV", "SH"), ("Over the snare", "Over the shoulder")
    puts = _pair((over, back), ((a.s + a.k) / 2 - over, a.s - back), ids=ids, names=names)
    left, right = (0, 1) if back[0] >= over[0] else (1, 0)
    couple = Couple(name="Over and shoulder", left=left, right=right)
    return Made(puts=puts, couples=(couple,), equals=both(a, 0, 1), notes=notes)


def _wide(a: Around, n: Numbers) -> tuple[Put, Put, Floats, tuple[str, ...]]:
    """The wide pair, and the top of its ring, where what is in the middle is equal to it."""
    left, right, notes = _mirror(a, n["width"], n["over"], n["forward"])
    one, two = _pair((left, right), (-UP, -UP))
    answer = ring_through(a.s, a.k, left)
    top = answer.ring.at(np.pi / 2) if answer.ring else (left + right) / 2
    low = np.array([*top[:2], a.under_ceiling(float(top[2]))])
    if low[2] != top[2]:
        notes = (*notes, "The ceiling is under the top of the ring: the middle is not equal.")
    return one, two, low, notes


def _wide_centre(a: Around, n: Numbers) -> Made:
    """A wide turned pair with one figure-8 in the middle, on the same ring."""
    one, two, top, notes = _wide(a, n)
    mid = Put(id="OC", name="Centre overhead", at=top, way=(a.s + a.k) / 2 - top,
              pattern="figure-8", role="overhead")  # fmt: skip
    equals = both(a, 0, 1) if notes else (*both(a, 0, 1), *both(a, 0, 2))
    return Made(puts=(one, two, mid), couples=_OVERHEADS, equals=equals, notes=notes)


def _wide_crossed(a: Around, n: Numbers) -> Made:
    """A wide turned pair with a crossed pair in the middle, on the same ring."""
    one, two, top, notes = _wide(a, n)
    d = (a.s + a.k) / 2 - top
    d = d / np.linalg.norm(d)
    half = a.right * n["apart"] / 2
    aims = opened(d, a.right, n["angle"])
    puts = tuple(
        Put(id=i, name=w, at=p, way=v, role="overhead")
        for i, w, p, v in (("CL", "Centre left", top + half, aims[0]),
                           ("CR", "Centre right", top - half, aims[1]))
    )  # fmt: skip
    couples = (*_OVERHEADS, Couple(name="Centre pair", left=2, right=3))
    return Made(puts=(one, two, *puts), couples=couples,
                equals=(*both(a, 0, 1), *both(a, 2, 3)), notes=notes)  # fmt: skip


def _over(default: float = 1.05) -> Named:
    return number("over", "Over the snare", default, 0.5, 2.2)


def _forward(default: float = 0.0) -> Named:
    return number("forward", "Toward the kick", default, -0.5, 1.0)


def _apart(default: float, high: float = 0.05) -> Named:
    return number("apart", "Capsules apart", default, 0.0, high)


def _angle(default: float) -> Named:
    return number("angle", "Angle between", default, 60.0, 150.0, unit="deg")


_BOOM = (
    "A boom over heads wants a counterweight and a sandbag, tightened; nobody under it while it"
    " moves."
)
_TAPE = "Tape from each capsule to the snare, then to the kick."

OVERHEADS: Final = (
    Technique(
        id="pair-straight", name="Spaced pair, straight down", group="Overheads", place=_straight,
        mics=2, tries=LIFTS,
        numbers=(number("width", "Pair apart", 1.2, 0.4, 2.4), _over(),
                 number("forward", "Toward the audience", 0.3, -0.4, 0.8)),
        minutes=12, also="wide cymbal overheads", keeps_on=("snare",),
        gives="Cymbals left and right; the close mics are the kit.",
        watch_for="Equal on the snare only: the kick leans to one side.",
        listen_for="Mono: the low end of the kick.", care=_BOOM,
    ),
    Technique(
        id="pair-snare", name="Spaced pair, at the snare", group="Overheads", place=_at_snare,
        mics=2, tries=LIFTS,
        numbers=(number("width", "Pair apart", 1.2, 0.4, 2.4), _over(),
                 number("forward", "Toward the audience", 0.3, -0.4, 0.8)),
        minutes=13, also="overheads picture", keeps_on=("snare",),
        gives="The snare in front, cymbals beside it.",
        watch_for=_TAPE + " The kick is equal only when the pair is turned.",
        listen_for="Where the kick sits.", care=_BOOM,
    ),
    Technique(
        id="pair-turned", name="Turned pair", group="Overheads", place=turned, mics=2, tries=LIFTS,
        numbers=(number("width", "Pair apart", 1.2, 0.4, 2.4), _over(), _forward()),
        minutes=15, also="ring mirror spaced overheads equal", keeps_on=("snare", "kick"),
        gives="A wide picture with snare and kick both in the middle.",
        watch_for="It stands across the line from snare to kick, not across the rug. " + _TAPE,
        listen_for="Both drums in the middle, and nothing lost in mono.", care=_BOOM,
    ),
    Technique(
        id="pair-coincident", name="Coincident pair", group="Overheads", place=coincident, mics=2,
        numbers=(_angle(90.0), _apart(0.025), _over(), _forward(0.15)), tries=LIFTS,
        minutes=8, also="crossed cardioids one point mono safe", keeps_on=("snare", "kick"),
        gives="Safe in mono; one stand.",
        watch_for="Narrower than spaced mics.",
        listen_for="Toms: opened wider they move out.", care=_BOOM,
    ),
    Technique(
        id="pair-near", name="Near-coincident pair", group="Overheads", place=_near, mics=2,
        numbers=(_angle(110.0), number("apart", "Capsules apart", 0.17, 0.05, 0.4), _over(),
                 _forward(0.15)),
        tries=LIFTS, minutes=9, also="hand apart angled", keeps_on=("snare", "kick"),
        gives="Width from time and level both, nearly as safe in mono.",
        watch_for="The bar lies across the line from snare to kick.",
        listen_for="Cymbals far left and right: they comb in mono first.", care=_BOOM,
    ),
    Technique(
        id="pair-crossed-8", name="Crossed figure-8 pair", group="Overheads", place=_crossed,
        mics=2, numbers=(_angle(90.0), _apart(0.03), _over(), _forward(0.15)), tries=LIFTS,
        wants=("ribbon", "condenser"), minutes=10, also="ribbon", keeps_on=("snare", "kick"),
        gives="Real width and depth with the room in it.",
        watch_for="Half of what it hears is the ceiling; picture sides swap behind it.",
        listen_for="A low ceiling: then nearer or not at all.",
        care=_BOOM + " Ribbons: no air blasts, care with phantom.",
    ),
    Technique(
        id="pair-mid-side", name="Mid-side overhead", group="Overheads", place=_mid_side, mics=2,
        numbers=(_apart(0.03), _over(), _forward(0.15)), tries=LIFTS, minutes=10,
        also="width later matrix", keeps_on=("snare", "kick"),
        gives="Mono is the mid mic alone; the width is set later.",
        watch_for="The side capsule looks left along the line across snare and kick.",
        listen_for="Snare in the side mic: there should be next to none.", care=_BOOM,
    ),
    Technique(
        id="mono-over", name="Mono overhead", group="Overheads", place=mono_over,
        numbers=(_over(), _forward(0.15)), tries=LIFTS, wants=("condenser", "ribbon"), minutes=6,
        also="single compact",
        gives="Compact, fewest phase questions; room for a wide room pair.",
        watch_for="It is not a pair panned to the middle.",
        listen_for="Balance of the kit: move it before turning anything up.", care=_BOOM,
    ),
    Technique(
        id="over-and-side", name="Over-and-side pair", group="Overheads", place=over_and_side,
        mics=2, needs=("floor",), tries=SIDE_TRIES,
        numbers=(number("far", "Both from the snare", 1.05, 0.8, 1.5),
                 number("side", "Side mic over the tom's rim", 0.15, 0.0, 0.5),
                 number("round", "Side mic round toward the audience", 0.0, -60.0, 60.0,
                        unit="deg")),
        minutes=14, also="cable arc floor tom", keeps_on=("snare",),
        gives="Full, wide drums from two mics.",
        watch_for="Swing a cable from the snare centre: both capsules at its end. The floor tom"
        " tends to be weak; small rooms make it worse.",
        listen_for="Snare in the middle with both panned about half way.", care=_BOOM,
    ),
    Technique(
        id="over-shoulder", name="Over-the-shoulder pair", group="Overheads", place=_shoulder_pair,
        mics=2, tries=tuple({"over": o, "height": h} for o in (1.2, 1.3, 1.1, 1.4, 1.0)
                            for h in (1.35, 1.45, 1.25, 1.55)),
        numbers=(_over(1.2), _forward(0.25),
                 number("height", "Shoulder mic over the floor", 1.35, 0.8, 1.9)),
        minutes=14, also="ring equal both drummer", keeps_on=("snare", "kick"),
        gives="Snare and kick in the middle, toms spread behind them.",
        watch_for="Both tapes, both drums. The drummer's head and elbow.",
        listen_for="Ride against hats.",
        care=_BOOM + " Keep it out of the reach of the drummer's arms.",
    ),
    Technique(
        id="wide-centre", name="Wide pair with a centre mic", group="Overheads", place=_wide_centre,
        mics=3, tries=LIFTS,
        numbers=(number("width", "Pair apart", 1.7, 0.8, 2.8), _over(), _forward()),
        wants=("condenser", "ribbon"), minutes=18, also="ribbon middle three",
        keeps_on=("snare", "kick"),
        gives="Far left, far right, and a middle that is filled.",
        watch_for="The centre is on the same ring, so all three are equal on both drums.",
        listen_for="How much centre is enough before the width goes.", care=_BOOM,
    ),
    Technique(
        id="wide-crossed", name="Wide pair with a crossed pair", group="Overheads",
        place=_wide_crossed, mics=4, tries=LIFTS,
        numbers=(number("width", "Pair apart", 1.7, 0.8, 2.8), _angle(90.0), _apart(0.025),
                 _over(), _forward()),
        minutes=20, also="middle four coincident", keeps_on=("snare", "kick"),
        gives="Cymbals wide, the kit from the middle pair.",
        watch_for="Two pairs sum: never both full up.",
        listen_for="Mono, with each pair in turn.", care=_BOOM,
    ),
)  # fmt: skip
