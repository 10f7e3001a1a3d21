"""Better places for one mic of a pair: on the ring, level with its partner, on the sphere.

The first mic of a pair stands; the second is the one that moves. Each answer carries how
far the stand goes and the distances it ends with, so that it can be judged before it is
taken.
"""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.places.clearance import blocked, under_cymbals, words_for_all
from ringside.places.loci import RingAnswer, at_distances, nearest_on_sphere, ring_through
from ringside.plan.layout import Layout
from ringside.plan.references import references
from ringside.values import Vector, vector

RING_POINTS = 145
"""Points of a drawn ring; the first is repeated at the end."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Spot:
    """A better place for the mic that moves, or why there is none. Metres."""

    position_m: Vector | None
    words: str
    moved_m: float | None = None
    snare_m: float | None = None
    kick_m: float | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class DrawnRing:
    """A ring for drawing: N points and where of them a mic can stand. Metres."""

    kind: Literal["circle", "point", "none"]
    words: str
    centre_m: Vector | None = None
    radius_m: float | None = None
    points_m: list[Vector]
    clear: list[bool]


@dataclass(frozen=True, kw_only=True, slots=True)
class Places:
    """The ring through the anchor and three better places for the mover."""

    anchor: str
    mover: str
    ring: DrawnRing
    swing: Spot
    equal_height: Spot
    snare_only: Spot


def _spot(layout: Layout, mover: str, to: Floats | None, words: str) -> Spot:
    """A spot for the mover; what stands in its way is told later, for all spots at once."""
    if to is None:
        return Spot(position_m=None, words=words)
    ref = references(layout)
    now = np.array(layout.mic(mover).position_m)
    return Spot(
        position_m=vector(to),
        moved_m=float(np.linalg.norm(to - now)),
        snare_m=float(np.linalg.norm(to - ref.snare)),
        kick_m=float(np.linalg.norm(to - ref.kick)),
        words=words,
    )


def _with_words(layout: Layout, spots: list[Spot]) -> list[Spot]:
    """The spots with what stands in the way of each that says nothing yet."""
    quiet = {i: s.position_m for i, s in enumerate(spots) if s.position_m and not s.words}
    said = dict(zip(quiet, words_for_all(list(quiet.values()), layout), strict=True))
    return [replace(s, words=said.get(i, s.words)) for i, s in enumerate(spots)]


def ring_of(layout: Layout, anchor: str) -> RingAnswer:
    """The ring a mic stands on.

    Parameters
    ----------
    layout : Layout
    anchor : str
        Short name of the mic that stays.

    Returns
    -------
    RingAnswer
    """
    ref = references(layout)
    return ring_through(ref.snare, ref.kick, layout.mic(anchor).position_m)


def ring_points(layout: Layout, answer: RingAnswer, overhead: bool) -> DrawnRing:
    """A ring for drawing: points (N, 3) and which of them a mic can stand at (N,).

    Parameters
    ----------
    layout : Layout
    answer : RingAnswer
    overhead : bool
        Whether to ask for room over the heads.

    Returns
    -------
    DrawnRing
    """
    if answer.ring is None:
        return DrawnRing(kind=answer.kind, words=answer.words, points_m=[], clear=[])
    points = answer.ring.at(np.linspace(0, 2 * np.pi, RING_POINTS))
    bad = blocked(points, layout)
    if overhead:
        bad = bad | under_cymbals(points, layout)
    cx, cy, cz = answer.ring.centre.tolist()
    return DrawnRing(
        kind=answer.kind,
        words="",
        centre_m=(cx, cy, cz),
        radius_m=answer.ring.radius,
        points_m=[(x, y, z) for x, y, z in np.round(points, 4).tolist()],
        clear=(~bad).tolist(),
    )


def can_be_equal(layout: Layout, a: str, b: str) -> bool:
    """Whether two mics are of a kind that is kept at equal distances.

    A stereo pair is, and so are two mics that both stand off the kit; a spot and an
    overhead never are, and two spots are equal on their own drum if on anything.

    Parameters
    ----------
    layout : Layout
    a : str
        Short name of a mic.
    b : str
        Short name of the other.

    Returns
    -------
    bool
    """
    if any({p.left, p.right} == {a, b} for p in layout.stereo_pairs):
        return True
    return layout.mic(a).role != "close" and layout.mic(b).role != "close"


@dataclass(frozen=True, kw_only=True, slots=True)
class Spots:
    """Three better places for the mic that moves."""

    swing: Spot
    equal_height: Spot
    snare_only: Spot


def drawn_ring(layout: Layout, anchor: str, mover: str) -> DrawnRing:
    """The ring through the anchor as it is drawn for a mover; wherever that stands, it is the same.

    Parameters
    ----------
    layout : Layout
    anchor : str
        Short name of the mic that stays.
    mover : str
        Short name of the mic that would move.

    Returns
    -------
    DrawnRing
    """
    return _drawn(layout, anchor, mover, ring_of(layout, anchor))


def _drawn(layout: Layout, anchor: str, mover: str, answer: RingAnswer) -> DrawnRing:
    overhead = any(layout.mic(m).role == "overhead" for m in (anchor, mover))
    return ring_points(layout, answer, overhead)


def places(layout: Layout, anchor: str, mover: str) -> Places:
    """The ring through the anchor, and the spots that would make the mover equal to it.

    Parameters
    ----------
    layout : Layout
    anchor : str
        Short name of the mic that stays.
    mover : str
        Short name of the mic that would move.

    Returns
    -------
    Places
    """
    answer = ring_of(layout, anchor)
    found = _spots(layout, anchor, mover, answer)
    return Places(
        anchor=anchor,
        mover=mover,
        ring=_drawn(layout, anchor, mover, answer),
        swing=found.swing,
        equal_height=found.equal_height,
        snare_only=found.snare_only,
    )


def spots(layout: Layout, anchor: str, mover: str) -> Spots:
    """The spots that would make the mover equal to the anchor.

    Parameters
    ----------
    layout : Layout
    anchor : str
        Short name of the mic that stays.
    mover : str
        Short name of the mic that would move.

    Returns
    -------
    Spots
    """
    return _spots(layout, anchor, mover, ring_of(layout, anchor))


def _spots(layout: Layout, anchor: str, mover: str, answer: RingAnswer) -> Spots:
    ref, one, two = references(layout), layout.mic(anchor), layout.mic(mover)
    now = np.array(two.position_m)
    a = float(np.linalg.norm(np.array(one.position_m) - ref.snare))
    if answer.ring is None:
        swing, level = answer.point, None
        level_words = answer.words
    else:
        swing = answer.ring.nearest(now)
        crossings = answer.ring.at_height(one.position_m[2])
        away = np.linalg.norm(crossings - np.array(one.position_m), axis=1)
        other = crossings[away > 1e-3]
        level = other[0] if len(other) else None
        level_words = "" if len(other) else "The ring has no second spot at this height."
    found = [
        _spot(layout, mover, swing, answer.words),
        _spot(layout, mover, level, level_words),
        _spot(layout, mover, nearest_on_sphere(ref.snare, a, now), ""),
    ]
    swing_spot, level_spot, snare_spot = _with_words(layout, found)
    return Spots(swing=swing_spot, equal_height=level_spot, snare_only=snare_spot)


def place_by_tape(layout: Layout, mic: str, snare_m: float, kick_m: float, height_m: float) -> Spot:
    """Where a mic stands when snare, kick and height are typed; the side it is on now is kept.

    Parameters
    ----------
    layout : Layout
    mic : str
        Its short name.
    snare_m : float
        Tape from the snare, metres.
    kick_m : float
        Tape from the kick, metres.
    height_m : float
        Over the floor, metres.

    Returns
    -------
    Spot

    Raises
    ------
    RingsideError
        When no spot has these three numbers, with what is possible; or no such mic.
    """
    if mic not in [m.id for m in layout.mics]:
        raise RingsideError(f"expected a mic of this layout, got {mic!r}")
    ref = references(layout)
    spot = at_distances(ref.snare, ref.kick, snare_m, kick_m, height_m, layout.mic(mic).position_m)
    return _with_words(layout, [_spot(layout, mic, spot, "")])[0]
