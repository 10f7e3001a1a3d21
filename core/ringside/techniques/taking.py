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
from ringside.plan.channels import MOST_CHANNELS
from ringside.plan.handsizes import HandSizes
from ringside.plan.hanging import track_of
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
    """What a recipe places with these numbers.

    Parameters
    ----------
    layout : Layout
    t : Technique
    target : str or None
        Short name of the drum, cymbal or space it is for; the first that suits
        where it is left out.
    numbers : mapping of str to float
        By name, in metres, degrees or hours.

    Returns
    -------
    Made
    """
    return t.place(Around(layout, target), numbers)


def checked(t: Technique, given: Mapping[str, float]) -> dict[str, float]:
    """Numbers as they were given, each known and within its range.

    Parameters
    ----------
    t : Technique
    given : mapping of str to float
        By name, as somebody typed them; metres, degrees or hours.

    Returns
    -------
    dict of str to float

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


def _clear(layout: Layout, laid: Made, target: str | None) -> bool:
    spots = np.array([p.at for p in laid.puts])
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

    Parameters
    ----------
    layout : Layout
    t : Technique
    target : str or None
        Short name of the drum, cymbal or space it is for; the first that suits
        where it is left out.
    given : mapping of str to float
        By name, as somebody typed them; metres, degrees or hours.
    hands : HandSizes
        Widths of a person's hand, metres.

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
            laid = made(layout, t, target, numbers)
        except RingsideError as e:
            fault = fault or e
            continue
        rank = (2 if _clear(layout, laid, target) else 0) + (0 if laid.notes else 1)
        if best is None or rank > best[0]:
            best = (rank, numbers, laid)
        if rank == 3:
            break
    if best is None:
        raise fault or RingsideError(f"{t.name} cannot be put up on this kit")
    return best[1], best[2]


def free_id(taken: set[str], stem: str) -> str:
    """A short name not yet taken: the stem itself, or with the next number.

    A number follows a name that ends in one after a hyphen: a second T1 is T1-2, not T12. A dot
    is of tracks, where it means a copy of one capsule.

    Parameters
    ----------
    taken : set of str
        Short names in use.
    stem : str

    Returns
    -------
    str
    """
    if stem not in taken:
        return stem
    joint = "-" if stem[-1:].isdigit() else ""
    n = 2
    while f"{stem[:13]}{joint}{n}" in taken:
        n += 1
    return f"{stem[:13]}{joint}{n}"


def _mic(put: Put, id_: str) -> Mic:
    return Mic(
        id=id_, name=put.name, role=put.role, job=put.job, pattern=put.pattern,
        position_m=vector(put.at), aim=unit(put.way),
    )  # fmt: skip


def _from_the_audience(layout: Layout) -> bool:
    """Whether the brief looks at the kit from the other side; a recipe's left is the drummer's."""
    return layout.brief is not None and layout.brief.outlook == "audience"


def _renamed(laid: Made) -> tuple[Put, ...]:
    """The recipe's mics with what is called left and right changed over in every pair."""
    puts = list(laid.puts)
    for c in laid.couples:
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

    Parameters
    ----------
    layout : Layout
    id_ : str
        Its name in the table.
    target : str or None
        Short name of the drum, cymbal or space it is for; the first that suits
        where it is left out.
    numbers : mapping of str to float or None
        Those that are not the default, by name; metres, degrees or hours.
    hands : HandSizes
        Widths of a person's hand, metres.

    Returns
    -------
    Took

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
    settled, laid = settle(layout, t, on, checked(t, numbers or {}), hands)
    if len(layout.mics) + len(laid.puts) > MOST_MICS:
        raise RingsideError(f"expected at most {MOST_MICS} mics; take some away first")
    ids = {m.id for m in layout.mics}
    audience = _from_the_audience(layout)
    mics: list[Mic] = []
    tracks = list(layout.channels)
    for put in _renamed(laid) if audience else laid.puts:
        name = free_id(ids, put.id)
        ids.add(name)
        mics.append(_mic(put, name))
        if len(tracks) < MOST_CHANNELS:
            track = track_of(tracks, mics[-1])
            tracks.append(track.model_copy(update={"preamp_flip": put.flip}))
    pairs = []
    for c in laid.couples:
        left, right = mics[c.left].id, mics[c.right].id
        sides = (right, left) if audience else (left, right)
        pairs.append(_couple(c.name, sides, mics))
    name = free_id({x.id for x in layout.techniques}, t.id)
    kept = Taken(id=name, technique=t.id, target=on, numbers=settled,
                 mics=tuple(m.id for m in mics))  # fmt: skip
    after = Layout.model_validate(
        {
            **layout.fields(),
            "mics": (*layout.mics, *mics),
            "channels": tuple(tracks),
            "stereo_pairs": (*layout.stereo_pairs, *pairs),
            "techniques": (*layout.techniques, kept),
        }
    )
    return Took(after, name, laid.notes + laid.told, f"Took {t.name}"[:120])


def in_use(layout: Layout, taken_id: str) -> Taken:
    """The technique in use of that name, or an error.

    Parameters
    ----------
    layout : Layout
    taken_id : str
        Its name among the techniques in use.

    Returns
    -------
    Taken

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
    """A mic at a new place and aim, but for what is locked on it.

    Parameters
    ----------
    old : Mic
        As it stands.
    at : object
        Where it would go, metres.
    way : object
        Which way it would face, a direction of any length.

    Returns
    -------
    Mic
    """
    spot = vector(at)
    position = tuple(
        o if LOCKS[i] in old.locks else n
        for i, (o, n) in enumerate(zip(old.position_m, spot, strict=True))
    )
    aim = old.aim if "aim" in old.locks else unit(way)
    return old.model_copy(update={"position_m": position, "aim": aim})


def _replaced(layout: Layout, kept: Taken, laid: Made) -> tuple[Mic, ...]:
    puts = dict(zip(kept.mics, laid.puts, strict=False))
    return tuple(held(m, puts[m.id].at, puts[m.id].way) if m.id in puts else m for m in layout.mics)


def change(layout: Layout, taken_id: str, numbers: Mapping[str, float]) -> Took:
    """The layout with some of a technique's numbers changed; its mics move as one thing.

    Parameters
    ----------
    layout : Layout
    taken_id : str
        Its name among the techniques in use.
    numbers : mapping of str to float
        By name, in metres, degrees or hours.

    Returns
    -------
    Took

    Raises
    ------
    RingsideError
        When there is no such technique, or a number is out of range.
    """
    kept = in_use(layout, taken_id)
    t = technique(kept.technique)
    new = {**kept.numbers, **checked(t, numbers)}
    new = {n.id: new.get(n.id, n.default) for n in t.numbers}
    laid = made(layout, t, kept.target, new)
    mics = _replaced(layout, kept, laid)
    rows = tuple(
        x.model_copy(update={"numbers": new}) if x.id == kept.id else x for x in layout.techniques
    )
    labels = [n.label.lower() for n in t.numbers if n.id in numbers]
    what = f"{t.name}: {', '.join(labels)}" if labels else f"{t.name} back on its numbers"
    after = layout.model_copy(update={"mics": mics, "techniques": rows})
    return Took(after, kept.id, laid.notes + laid.told, what[:120])


def remade(layout: Layout, kept: Taken) -> Made | None:
    """What a technique in use places by its numbers now; None where it no longer can.

    Parameters
    ----------
    layout : Layout
    kept : Taken
        The technique in use.

    Returns
    -------
    Made or None
    """
    try:
        t = technique(kept.technique)
        full = {n.id: kept.numbers.get(n.id, n.default) for n in t.numbers}
        laid = made(layout, t, kept.target, full)
    except RingsideError:
        return None
    return laid if len(laid.puts) == len(kept.mics) else None


ON_NUMBERS_M: Final = 1e-4


def restood(before: Layout, after: Layout) -> Layout:
    """After an edit of the kit: mics that stood on their drum's numbers stand on them again.

    Only what was put up for one drum or cymbal follows it; a mic that was moved or turned by
    hand is left where the edit put it.

    Parameters
    ----------
    before : Layout
        As it was.
    after : Layout
        As it is now.

    Returns
    -------
    Layout
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

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Layout
    """
    rows = []
    for kept in layout.techniques:
        laid = remade(layout, kept)
        if laid is None:
            rows.append(kept)
            continue
        left, order = list(kept.mics), []
        for put in laid.puts:
            gaps = [float(np.linalg.norm(np.subtract(layout.mic(m).position_m, put.at)))
                    for m in left]  # fmt: skip
            order.append(left.pop(int(np.argmin(gaps))))
        rows.append(kept.model_copy(update={"mics": tuple(order)}))
    return layout.model_copy(update={"techniques": tuple(rows)})
