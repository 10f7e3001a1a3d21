"""Taking a technique into a layout, changing its numbers, taking it away again.

What was taken is kept with its numbers, so that it can be changed later as one thing. The
mics are ordinary mics: they may be dragged, and then stand off their numbers, which is said.
A lock on a mic holds against every change of numbers.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

import numpy as np

from ringside.errors import RingsideError
from ringside.places.clearance import words_for_all
from ringside.plan.handsizes import HandSizes
from ringside.plan.layout import MOST_MICS, Layout, StereoPair, Taken
from ringside.plan.mics import LOCKS, Mic
from ringside.techniques.around import Around
from ringside.techniques.catalogue import lacking, targets_in, technique
from ringside.techniques.recipe import Made, Put, Technique
from ringside.values import unit, vector

APART_M: Final = 0.03
"""Two capsules nearer than this do not both fit (common practice: a body is as wide)."""

OFF_NUMBERS_M: Final = 0.002
"""A mic this far off its numbers was moved by hand."""

DEFAULT_HANDS: Final = HandSizes()


@dataclass(frozen=True)
class Took:
    """A layout after a technique was taken or changed, and what to say about it."""

    layout: Layout
    id: str
    notes: tuple[str, ...]
    what: str


def made(layout: Layout, t: Technique, target: str | None, numbers: Mapping[str, float]) -> Made:
    """What a recipe places with these numbers."""
    return t.place(Around(layout, target), numbers)


def checked(t: Technique, given: Mapping[str, float]) -> dict[str, float]:
    """Numbers as they were given, each known and within its range.

    Raises
    ------
    RingsideError
        For a number that is not the technique's, or out of its range.
    """
    known = {n.id: n for n in t.numbers}
    for name, value in given.items():
        if name not in known:
            raise RingsideError(f"{t.name} has no number called {name!r}")
        n = known[name]
        if not n.low - 1e-9 <= value <= n.high + 1e-9:
            if n.unit == "m":
                raise RingsideError(
                    n.label.replace("{", "").replace("}", "")
                    + ": expected {low} to {high}, got {got}; given in cm?",
                    low=n.low, high=n.high, got=value,
                )  # fmt: skip
            raise RingsideError(f"{n.label}: expected {n.low:g} to {n.high:g}, got {value:g}")
    return dict(given)


def _target(t: Technique, layout: Layout, wanted: str | None) -> str | None:
    if not t.over:
        if wanted is not None:
            raise RingsideError(f"{t.name} is for the whole kit, not for {wanted!r}")
        return None
    possible = targets_in(t, layout)
    if wanted is None:
        used = {x.target for x in layout.techniques if x.technique == t.id}
        return next((p for p in possible if p not in used), possible[0])
    if wanted not in possible:
        raise RingsideError(f"{t.name} is not for {wanted!r}; expected {' or '.join(possible)}")
    return wanted


def _clear(layout: Layout, found: Made, target: str | None) -> bool:
    spots = np.array([p.at for p in found.puts])
    if any(words_for_all(spots, layout)):
        return False
    if not layout.mics:
        return True
    there = np.array([m.position_m for m in layout.mics])
    gaps = np.linalg.norm(spots[:, None] - there, axis=-1)
    return bool(gaps.min() >= APART_M)


def settle(
    layout: Layout, t: Technique, target: str | None, given: Mapping[str, float], hands: HandSizes
) -> tuple[dict[str, float], Made]:
    """The technique's numbers on this kit: what was given, else the first defaults all clear.

    Returns
    -------
    (dict, Made)
        Every number, and what the recipe places. A try that is clear and leaves nothing out
        goes before one that is clear; when none is, the first stands and is said to be blocked.

    Raises
    ------
    RingsideError
        When no numbers of the technique can be placed on this kit.
    """
    leads = Around(layout).leads
    start = {n.id: n.start(hands, leads) for n in t.numbers}
    if t.suggest is not None:
        start |= t.suggest(Around(layout, target))
    clocks = {n.id for n in t.numbers if n.unit == "clock"}
    best: tuple[int, dict[str, float], Made] | None = None
    fault: RingsideError | None = None
    for attempt in t.tries or ({},):
        tried = {
            k: ((12.0 - v) % 12.0 if k in clocks and leads < 0 else v) for k, v in attempt.items()
        }
        numbers = {**start, **tried, **given}
        try:
            found = made(layout, t, target, numbers)
        except RingsideError as e:
            fault = fault or e
            continue
        rank = (2 if _clear(layout, found, target) else 0) + (0 if found.notes else 1)
        if best is None or rank > best[0]:
            best = (rank, numbers, found)
        if rank == 3:
            break
    if best is None:
        raise fault or RingsideError(f"{t.name} cannot be put up on this kit")
    return best[1], best[2]


def free_id(taken: set[str], stem: str) -> str:
    """A short name not yet taken: the stem itself, or with the next number."""
    if stem not in taken:
        return stem
    n = 2
    while f"{stem[:13]}.{n}" in taken:
        n += 1
    return f"{stem[:13]}.{n}"


def _mic(put: Put, id_: str, channel: int) -> Mic:
    return Mic(
        id=id_, name=put.name, role=put.role, job=put.job, pattern=put.pattern, channel=channel,
        position_m=vector(put.at), aim=unit(put.way), preamp_flip=put.flip,
    )  # fmt: skip


def _from_the_audience(layout: Layout) -> bool:
    """Whether the brief looks at the kit from the other side; a recipe's left is the drummer's."""
    return layout.brief is not None and layout.brief.outlook == "audience"


def _renamed(found: Made) -> tuple[Put, ...]:
    """The recipe's mics with what is called left and right changed over in every pair."""
    puts = list(found.puts)
    for c in found.couples:
        one, two = puts[c.left], puts[c.right]
        if one.name.lower().replace("left", "right") == two.name.lower():
            puts[c.left] = replace(one, id=two.id, name=two.name)
            puts[c.right] = replace(two, id=one.id, name=one.name)
    return tuple(puts)


def _couple(name: str, sides: tuple[str, str], mics: list[Mic]) -> StereoPair:
    """A stereo pair; one figure-8 beside another pattern is the side of a mid-side pair."""
    eight = {m.id for m in mics if m.pattern == "figure-8"}
    one, two = sides
    if (one in eight) == (two in eight):
        return StereoPair(name=name, left=one, right=two)
    mid, side = (two, one) if one in eight else (one, two)
    return StereoPair(name=name, left=mid, right=side, coding="mid-side")


def take(
    layout: Layout, id_: str, target: str | None = None,
    numbers: Mapping[str, float] | None = None, hands: HandSizes = DEFAULT_HANDS,
) -> Took:  # fmt: skip
    """The layout with one more technique.

    Raises
    ------
    RingsideError
        When the kit or room lacks what it needs, a number is out of range, or there are too
        many mics; nothing is changed then.
    """
    t = technique(id_)
    lack = lacking(t, layout)
    if lack:
        raise RingsideError(f"{t.name}: {lack[0].lower()}{lack[1:]}")
    on = _target(t, layout, target)
    settled, found = settle(layout, t, on, checked(t, numbers or {}), hands)
    if len(layout.mics) + len(found.puts) > MOST_MICS:
        raise RingsideError(f"expected at most {MOST_MICS} mics; take some away first")
    ids = {m.id for m in layout.mics}
    channel = max((m.channel or 0 for m in layout.mics), default=0)
    audience = _from_the_audience(layout)
    mics: list[Mic] = []
    for k, put in enumerate(_renamed(found) if audience else found.puts, 1):
        name = free_id(ids, put.id)
        ids.add(name)
        mics.append(_mic(put, name, min(channel + k, 256)))
    pairs = []
    for c in found.couples:
        left, right = mics[c.left].id, mics[c.right].id
        sides = (right, left) if audience else (left, right)
        pairs.append(_couple(c.name, sides, mics))
    name = free_id({x.id for x in layout.techniques}, t.id)
    kept = Taken(id=name, technique=t.id, target=on, numbers=settled,
                 mics=tuple(m.id for m in mics))  # fmt: skip
    after = Layout.model_validate(
        {
            **dict(layout),
            "mics": (*layout.mics, *mics),
            "stereo_pairs": (*layout.stereo_pairs, *pairs),
            "techniques": (*layout.techniques, kept),
        }
    )
    return Took(after, name, found.notes, f"Took {t.name}"[:120])


def in_use(layout: Layout, taken_id: str) -> Taken:
    """The technique in use of that name, or an error.

    Raises
    ------
    RingsideError
        When there is none.
    """
    for kept in layout.techniques:
        if kept.id == taken_id:
            return kept
    raise RingsideError(f"expected a technique of this layout, got {taken_id!r}")


def held(old: Mic, at: Any, way: Any) -> Mic:
    """A mic at a new place and aim, but for what is locked on it."""
    spot = vector(at)
    position = tuple(
        o if LOCKS[i] in old.locks else n
        for i, (o, n) in enumerate(zip(old.position_m, spot, strict=True))
    )
    aim = old.aim if "aim" in old.locks else unit(way)
    return old.model_copy(update={"position_m": position, "aim": aim})


def _replaced(layout: Layout, kept: Taken, found: Made) -> tuple[Mic, ...]:
    puts = dict(zip(kept.mics, found.puts, strict=False))
    return tuple(held(m, puts[m.id].at, puts[m.id].way) if m.id in puts else m for m in layout.mics)


def change(layout: Layout, taken_id: str, numbers: Mapping[str, float]) -> Took:
    """The layout with some of a technique's numbers changed; its mics move as one thing.

    Raises
    ------
    RingsideError
        When there is no such technique, or a number is out of range.
    """
    kept = in_use(layout, taken_id)
    t = technique(kept.technique)
    new = {**kept.numbers, **checked(t, numbers)}
    new = {n.id: new.get(n.id, n.default) for n in t.numbers}
    found = made(layout, t, kept.target, new)
    mics = _replaced(layout, kept, found)
    rows = tuple(
        x.model_copy(update={"numbers": new}) if x.id == kept.id else x for x in layout.techniques
    )
    labels = [n.label.lower() for n in t.numbers if n.id in numbers]
    what = f"{t.name}: {', '.join(labels)}" if labels else f"{t.name} back on its numbers"
    after = layout.model_copy(update={"mics": mics, "techniques": rows})
    return Took(after, kept.id, found.notes, what[:120])


def remade(layout: Layout, kept: Taken) -> Made | None:
    """What a technique in use places by its numbers now; None where it no longer can."""
    try:
        t = technique(kept.technique)
        full = {n.id: kept.numbers.get(n.id, n.default) for n in t.numbers}
        found = made(layout, t, kept.target, full)
    except RingsideError:
        return None
    return found if len(found.puts) == len(kept.mics) else None


ON_NUMBERS_M: Final = 1e-4


def restood(before: Layout, after: Layout) -> Layout:
    """After an edit of the kit: mics that stood on their drum's numbers stand on them again.

    Only what was put up for one drum or cymbal follows it; a mic that was moved or turned by
    hand is left where the edit put it.
    """
    was = {k.id: k for k in before.techniques}
    for kept in after.techniques:
        if kept.target is None or kept.id not in was:
            continue
        old, new = remade(before, was[kept.id]), remade(after, kept)
        if old is None or new is None:
            continue
        for name, o, n in zip(kept.mics, old.puts, new.puts, strict=True):
            mic = before.mic(name)
            near = float(np.linalg.norm(np.array(mic.position_m) - o.at)) < ON_NUMBERS_M
            if near and float(np.dot(mic.aim, unit(o.way))) > 1 - 1e-8:
                stood = {"position_m": vector(n.at), "aim": unit(n.way)}
                after = after.with_mic(after.mic(name).model_copy(update=stood))
    return after


def rematched(layout: Layout) -> Layout:
    """The layout with each technique's mics in the order of its recipe, by where they stand.

    On a mirrored kit what was the left mic stands where the recipe now puts the right one.
    """
    rows = []
    for kept in layout.techniques:
        found = remade(layout, kept)
        if found is None:
            rows.append(kept)
            continue
        left, order = list(kept.mics), []
        for put in found.puts:
            gaps = [float(np.linalg.norm(np.subtract(layout.mic(m).position_m, put.at)))
                    for m in left]  # fmt: skip
            order.append(left.pop(int(np.argmin(gaps))))
        rows.append(kept.model_copy(update={"mics": tuple(order)}))
    return layout.model_copy(update={"techniques": tuple(rows)})


@dataclass(frozen=True, kw_only=True, slots=True)
class OffRow:
    """A mic that left its numbers, and how far, metres."""

    mic: str
    moved_m: float


@dataclass(frozen=True, kw_only=True, slots=True)
class EqualRow:
    """A promise as measured now, metres."""

    a: str
    b: str
    on: str
    difference_m: float


@dataclass(frozen=True, kw_only=True, slots=True)
class StandingRow:
    """A technique in use: its promises as measured now, and which mics left their numbers."""

    id: str
    technique: str
    name: str
    target: str | None
    mics: list[str]
    numbers: dict[str, float]
    off: list[OffRow]
    equal: list[EqualRow]
    notes: list[str]
    """What the recipe says, or why it no longer fits the kit."""


def standing(layout: Layout) -> list[StandingRow]:
    """Each technique in use, in the layout's order."""
    return [_standing(layout, kept) for kept in layout.techniques]


def _standing(layout: Layout, kept: Taken) -> StandingRow:
    name, off, equal = kept.technique, list[OffRow](), list[EqualRow]()
    try:
        t = technique(kept.technique)
        name = t.name
        numbers = {n.id: kept.numbers.get(n.id, n.default) for n in t.numbers}
        found = made(layout, t, kept.target, numbers)
    except RingsideError as fault:
        notes = [str(fault)]
    else:
        if len(found.puts) != len(kept.mics):
            notes = ["Some of its mics were taken away."]
        else:
            off, equal, notes = *_against(layout, kept, found), list(found.notes)
    return StandingRow(
        id=kept.id, technique=kept.technique, name=name, target=kept.target, mics=list(kept.mics),
        numbers=dict(kept.numbers), off=off, equal=equal, notes=notes,
    )  # fmt: skip


def _against(layout: Layout, kept: Taken, found: Made) -> tuple[list[OffRow], list[EqualRow]]:
    """The mics off what the recipe places, and its promises measured at the mics."""
    spots = [np.array(layout.mic(m).position_m) for m in kept.mics]
    off = []
    for name, spot, put in zip(kept.mics, spots, found.puts, strict=True):
        moved = float(np.linalg.norm(spot - put.at))
        if moved > OFF_NUMBERS_M:
            off.append(OffRow(mic=name, moved_m=moved))
    equal = []
    for e in found.equals:
        gap = float(np.linalg.norm(spots[e.a] - e.to_a) - np.linalg.norm(spots[e.b] - e.to_b))
        equal.append(EqualRow(a=kept.mics[e.a], b=kept.mics[e.b], on=e.on, difference_m=abs(gap)))
    return off, equal
