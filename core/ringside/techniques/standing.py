"""How the techniques in use stand: what left its numbers, and what should be equal and is not."""

from dataclasses import dataclass

import numpy as np

from ringside.errors import RingsideError
from ringside.plan.layout import Layout, Taken
from ringside.techniques.catalogue import technique
from ringside.techniques.recipe import Made
from ringside.techniques.taking import OFF_NUMBERS_M, made


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
    """Each technique in use, in the layout's order.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of StandingRow
    """
    return [standing_of(layout, kept) for kept in layout.techniques]


def standing_of(layout: Layout, kept: Taken) -> StandingRow:
    """One technique in use.

    Parameters
    ----------
    layout : Layout
    kept : Taken
        One of the layout's.

    Returns
    -------
    StandingRow
    """
    name, off, equal = kept.technique, list[OffRow](), list[EqualRow]()
    try:
        t = technique(kept.technique)
        name = t.name
        numbers = {n.id: kept.numbers.get(n.id, n.default) for n in t.numbers}
        laid = made(layout, t, kept.target, numbers)
    except RingsideError as fault:
        notes = [str(fault)]
    else:
        if len(laid.puts) != len(kept.mics):
            notes = ["Some of its mics were taken away."]
        else:
            off, equal, notes = *_against(layout, kept, laid), [*laid.notes, *laid.told]
    return StandingRow(
        id=kept.id, technique=kept.technique, name=name, target=kept.target, mics=list(kept.mics),
        numbers=dict(kept.numbers), off=off, equal=equal, notes=notes,
    )  # fmt: skip


def _against(layout: Layout, kept: Taken, laid: Made) -> tuple[list[OffRow], list[EqualRow]]:
    """The mics off what the recipe places, and its promises measured at the mics."""
    spots = [np.array(layout.mic(m).position_m) for m in kept.mics]
    off = []
    for name, spot, put in zip(kept.mics, spots, laid.puts, strict=True):
        moved = float(np.linalg.norm(spot - put.at))
        if moved > OFF_NUMBERS_M:
            off.append(OffRow(mic=name, moved_m=moved))
    equal = []
    for e in laid.equals:
        gap = float(np.linalg.norm(spots[e.a] - e.to_a) - np.linalg.norm(spots[e.b] - e.to_b))
        equal.append(EqualRow(a=kept.mics[e.a], b=kept.mics[e.b], on=e.on, difference_m=abs(gap)))
    return off, equal
