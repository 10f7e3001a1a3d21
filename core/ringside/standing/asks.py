"""Which readings to take, in an order for one walk: pair by pair, then mic by mic round the kit.

A stereo pair is settled before the next stand: both to the snare, both to the kick, both heights,
and the two from each other, which also checks the rest. The second of two that are kept equal is
read against what the first read, not against the plan. A close mic is read to its own drum. Through
a wall nothing is read.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.gear.locker import Locker
from ringside.places.partner import can_be_equal
from ringside.plan.kit import Reading
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.openings import in_sight
from ringside.plan.spoken import spoken, the
from ringside.standing.entries import (
    Cord,
    CordReading,
    Span,
    Written,
    span_of,
    span_read,
    tape_span,
)
from ringside.standing.truth import fronts
from ringside.survey.net import held_at
from ringside.survey.report import end_words
from ringside.survey.walk import walk_order

EQUAL_M: Final = 0.01
"""Two that are kept equal are, within a centimetre of tape (common practice)."""

CLOSE_M: Final = 0.015
"""A close mic stands as planned within this (from memory)."""

FREE_M: Final = 0.03
"""A mic that keeps nothing equal stands as planned within this (from memory)."""

LEAST_SLOPE: Final = 0.3
"""What changes a distance by less than this share of a move is no way to change it."""

AskState = Literal["to read", "good", "off", "again", "skipped"]


@dataclass(frozen=True, slots=True)
class Spec:
    """A reading to take: from a mic to a part, another mic, or the floor."""

    mic: str
    to: str | None
    equal_to: str | None
    """The mic it should read the same as, on the same end."""
    tolerance_m: float
    unit: str
    """What it belongs to: the pair's name, or the mic's."""

    @property
    def span(self) -> Span:
        """Its two ends."""
        return span_of(self.mic, self.to)

    @property
    def three(self) -> Span | None:
        """Its ends with the mic it is kept equal to; None where it is to none."""
        return None if self.equal_to is None else frozenset((self.mic, self.to, self.equal_to))


def specs(layout: Layout) -> list[Spec]:
    """The readings of a layout in the order of one walk.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of Spec
    """
    out: list[Spec] = []
    paired = set[str]()
    ordered = sorted(layout.stereo_pairs, key=lambda p: layout.mic(p.left).role == "room")
    for pair in ordered:
        if pair.left in paired or pair.right in paired:
            continue
        out += _pair_specs(layout, pair)
        paired |= {pair.left, pair.right}
    rest = [m for m in layout.mics if m.id not in paired]
    for m in rest:
        if m.role != "close" or m.job is None:
            out += [_free(m.id, end) for end in _references(layout)]
    rank = {layout.kit.source_ids[i]: n for n, i in enumerate(walk_order(layout.kit))}
    close = [m for m in rest if m.role == "close" and m.job is not None]
    for m in sorted(close, key=lambda m: rank.get(m.job or "", len(rank))):
        out.append(Spec(m.id, m.job, None, CLOSE_M, m.id))
    out = [s for s in out if s.to is None or _reaches(layout, s.mic, s.to)]
    # The height alone of one that is read to nothing else says nothing of where it stands, and what
    # lies on the floor has none to read.
    read = {end for s in out if s.to is not None for end in (s.mic, s.to)}
    low = {m.id for m in layout.mics if m.lies}
    return [s for s in out if s.to is not None or s.mic in read - low]


def _reaches(layout: Layout, mic: str, to: str) -> bool:
    """Whether a tape can be held straight between the two: not through the wall to a hallway, nor
    round the corner of an L."""
    drums = to in layout.kit.source_ids
    end = held_at(layout.kit.part(to)) if drums else layout.mic(to).position_m
    return in_sight(layout.room, layout.mic(mic).position_m, end)


def _references(layout: Layout) -> tuple[str, str, None]:
    return layout.kit.first("snare").id, layout.kit.first("kick").id, None


def _free(mic: str, to: str | None) -> Spec:
    return Spec(mic, to, None, FREE_M, mic)


def _pair_specs(layout: Layout, pair: StereoPair) -> list[Spec]:
    one, two = pair.left, pair.right
    snare, kick, _ = _references(layout)
    equal = pair.coding == "left-right" and can_be_equal(layout, one, two)
    out = []
    for end in (snare, kick):
        kept = equal and _planned_equal(layout, pair, end)
        same = one if kept and _reaches(layout, one, end) else None
        tolerance = EQUAL_M if same else FREE_M
        out += [
            Spec(one, end, None, FREE_M, pair.name),
            Spec(two, end, same, tolerance, pair.name),
        ]
    out += [Spec(m, None, None, FREE_M, pair.name) for m in (one, two)]
    apart = np.subtract(layout.mic(one).position_m, layout.mic(two).position_m)
    if float(np.linalg.norm(apart)) > 0.05:
        out.append(Spec(one, two, None, FREE_M, pair.name))
    return out


def _planned_equal(layout: Layout, pair: StereoPair, end: str) -> bool:
    """Whether the plan has the two as far from an end, within what a tape tells."""
    at = np.array(held_at(layout.kit.part(end)))
    far = [float(np.linalg.norm(np.array(layout.mic(m).position_m) - at)) for m in
           (pair.left, pair.right)]  # fmt: skip
    return abs(far[0] - far[1]) <= 2 * EQUAL_M


@dataclass(frozen=True, kw_only=True, slots=True)
class CordAsk:
    """The same distance without numbers: a cord from one capsule, held at the other."""

    like: str
    """The mic whose distance the cord has."""
    said: Cord | None
    nearer: str
    """What to do where this mic is nearer: the cord hangs slack."""
    further: str
    """What to do where it is further: the cord does not reach."""


@dataclass(frozen=True, kw_only=True, slots=True)
class AskWay:
    """What a hand does about a reading that is off, for a phone that reaches nobody."""

    closer: str
    """With a gap for how far, where it is too far."""
    further: str
    per_m: float
    """How far the hand goes for each metre of tape, as planned."""


@dataclass(frozen=True, kw_only=True, slots=True)
class AskRow:
    """A reading to take or taken, with what it should read."""

    mic: str
    to: str | None
    unit: str
    to_words: str
    """Where the tape is held at the other end."""
    target_m: float
    target_words: str
    """What the target is: the plan, or what another mic read."""
    tolerance_m: float
    read_m: float | None
    off_m: float | None
    """Read less target: above zero it is too far."""
    state: AskState
    cord: CordAsk | None
    """How it can be read without numbers; None where nothing is kept equal."""
    ways: list[AskWay]
    tape_m: tuple[float, float]
    """What a tape can read here at least and at most."""


def ask_rows(layout: Layout, locker: Locker, log: Written, bad: frozenset[Span]) -> list[AskRow]:
    """Every reading with its target and what came of it.

    Parameters
    ----------
    layout : Layout
    locker : Locker
    log : Written
    bad : frozenset of Span
        Readings that do not fit the others, or may be the wrong one.

    Returns
    -------
    list of AskRow
    """
    read = {span_read(r): r for r in log.readings}
    at = dict(zip([m.id for m in layout.mics], fronts(layout, locker), strict=True))
    rows = [_row(layout, s, at, read, log, bad) for s in specs(layout)]
    asked = {s.span for s in specs(layout)}
    # What was read beyond the list is told as well.
    tapes = [r for r in log.readings if not isinstance(r, CordReading)]
    extra = [r for r in tapes if span_read(r) not in asked]
    more = [Spec(r.a, r.b, None, FREE_M, r.a) for r in extra]
    return rows + [_row(layout, s, at, read, log, bad) for s in more]


def _row(
    layout: Layout, s: Spec, at: dict[str, Floats], read: dict[Span, Reading], log: Written,
    bad: frozenset[Span],
) -> AskRow:  # fmt: skip
    planned = tape_m(layout, at, s.mic, s.to)
    like = read.get(span_of(s.equal_to, s.to)) if s.equal_to else None
    target = like.metres if like and like.sure else planned
    words = f"as {s.equal_to} reads" if like and like.sure else "the plan"
    own, cord = read.get(s.span), _cord(layout, s, at, log)
    off = None if own is None else own.metres - target
    return AskRow(
        mic=s.mic,
        to=s.to,
        unit=s.unit,
        to_words=_end(layout, s.to),
        target_m=round(target, 4),
        target_words=words,
        tolerance_m=s.tolerance_m,
        read_m=None if own is None else round(own.metres, 4),
        off_m=None if off is None else round(off, 4),
        state=_state(s, own, off, log, bad, read),
        cord=cord,
        ways=hand_ways(at[s.mic], end_point(layout, at, s.to)),
        tape_m=tape_span(layout),
    )


def _state(
    s: Spec, own: Reading | None, off: float | None, log: Written, bad: frozenset[Span],
    read: dict[Span, Reading],
) -> AskState:  # fmt: skip
    if own is None or off is None:
        return _by_cord(s, log, bad, read)
    if not own.sure or s.span in bad:
        return "again"
    return "good" if abs(off) <= s.tolerance_m else "off"


def _by_cord(s: Spec, log: Written, bad: frozenset[Span], read: dict[Span, Reading]) -> AskState:
    """Without a number: what the cord said, if one was held."""
    if s.three is not None and s.three in read:
        return "again" if not read[s.three].sure or s.three in bad else "good"
    if s.three is not None and s.three in log.cords:
        return "off"
    return "skipped" if s.span in log.skipped else "to read"


def hand_ways(at: Floats, end: Floats | None) -> list[AskWay]:
    """How a boom is raised or drawn in to change a distance, near enough for a few centimetres.

    Parameters
    ----------
    at : ndarray, shape (3,)
        The front of the mic, metres.
    end : ndarray, shape (3,), or None
        Where the tape is held; None is the floor.

    Returns
    -------
    list of AskWay
        Those of which a hand's breadth does something.
    """
    if end is None:
        return [AskWay(closer="Lower it {}", further="Raise it {}", per_m=1.0)]
    to = at - end
    far = max(float(np.linalg.norm(to)), 1e-6)
    rise, level = float(to[2]) / far, float(np.hypot(to[0], to[1])) / far
    ways = []
    if abs(rise) >= LEAST_SLOPE:
        closer, further = ("Lower it {}", "Raise it {}")[:: 1 if rise > 0 else -1]
        ways.append(AskWay(closer=closer, further=further, per_m=round(1 / abs(rise), 3)))
    if level >= LEAST_SLOPE:
        ways.append(
            AskWay(closer="Draw it in {}", further="Let it out {}", per_m=round(1 / level, 3))
        )
    return sorted(ways, key=lambda w: w.per_m)


def _cord(layout: Layout, s: Spec, at: dict[str, Floats], log: Written) -> CordAsk | None:
    if s.equal_to is None or s.three is None:
        return None
    end = end_point(layout, at, s.to)
    over = end is None or at[s.mic][2] > end[2]
    name = end_name(layout, s.to)
    to = the(name) if s.to in layout.kit.source_ids else name
    return CordAsk(
        like=s.equal_to,
        said=log.cords.get(s.three),
        nearer=f"{s.mic} is nearer to {to} than {s.equal_to}: {'raise' if over else 'lower'} it or"
        " let it out until the cord is just taut, then ask once more.",
        further=f"{s.mic} is further from {to} than {s.equal_to}: {'lower' if over else 'raise'} it"
        " or draw it in until the cord just reaches, then ask once more.",
    )


def tape_m(layout: Layout, at: dict[str, Floats], mic: str, to: str | None) -> float:
    """What a tape reads from the front of a mic, metres.

    Parameters
    ----------
    layout : Layout
    at : dict of str to ndarray, shape (3,)
        The front of every mic.
    mic : str
    to : str or None
        A part, another mic, or None for the floor.

    Returns
    -------
    float
    """
    here = at[mic]
    end = end_point(layout, at, to)
    return float(here[2]) if end is None else float(np.linalg.norm(here - end))


def end_point(layout: Layout, at: dict[str, Floats], to: str | None) -> Floats | None:
    """Where the tape is held at the other end, (3,), metres; None for the floor.

    Parameters
    ----------
    layout : Layout
    at : dict of str to ndarray, shape (3,)
        The front of every mic.
    to : str or None

    Returns
    -------
    ndarray, shape (3,), or None
    """
    if to is None:
        return None
    if to in layout.kit.source_ids:
        return np.array(held_at(layout.kit.part(to)))
    return at[to]


def end_name(layout: Layout, to: str | None) -> str:
    """What an end of a reading is called: the floor, a part by its name, a mic by its own.

    Parameters
    ----------
    layout : Layout
    to : str or None

    Returns
    -------
    str
    """
    if to is None:
        return "the floor"
    return spoken(layout.kit.part(to).name) if to in layout.kit.source_ids else to


def _end(layout: Layout, to: str | None) -> str:
    if to is None:
        return "the floor, straight down"
    if to in layout.kit.source_ids:
        part = layout.kit.part(to)
        return f"{spoken(part.name)}, {end_words(part)}"
    return f"the front of {to}"
