"""Adding mics one at a time: what each newcomer does to every drum's body.

Two schools begin at two ends (common practice): with the overheads, which are the picture of
the kit, or with the kick, which sets how big everything is. Or in any order of the user's own.
Mics the order does not name follow in the order of the school.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis
from ringside.pairs.gram import drum_ids, grams, kept_body
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.spoken import the

FirstSchool = Literal["overheads", "kick"]
HEARD_DB: Final = 1.0
"""A change of body below this goes unnoticed among the rest (common practice)."""

ADDING_ORDER: Final = ("kick", "snare", "rack", "floor", "hand drum")


def school_order(layout: Layout, first: FirstSchool) -> list[str]:
    """The mics in the order of a school: overheads or kick first, rooms last.

    Parameters
    ----------
    layout : Layout
    first : FirstSchool

    Returns
    -------
    list of str
    """
    kinds = {p.id: p.kind for p in layout.kit.parts}

    def place(mic: Mic) -> tuple[int, int]:
        if mic.role == "overhead":
            return (0 if first == "overheads" else 2, 0)
        if mic.role == "room":
            return (3, 0)
        kind = kinds.get(mic.job or "")
        return (1, ADDING_ORDER.index(kind) if kind in ADDING_ORDER else len(ADDING_ORDER))

    return [m.id for m in sorted(layout.mics, key=place)]


def order_of(layout: Layout, first: FirstSchool | None = None) -> list[str]:
    """The order in use: the user's own, then what it does not name by the school.

    A school named here goes before the user's own order.

    Parameters
    ----------
    layout : Layout
    first : FirstSchool or None
        Which school fills up the user's own order.

    Returns
    -------
    list of str
    """
    brief = layout.brief.first if layout.brief else "overheads"
    school = school_order(layout, first or ("kick" if brief == "close" else "overheads"))
    own = [] if first else [m for m in dict.fromkeys(layout.order) if m in school]
    return [*own, *(m for m in school if m not in own)]


@dataclass(frozen=True, kw_only=True, slots=True)
class StepDrum:
    """What a newcomer does to a drum's body, decibels; None for the first mic."""

    source: str
    wired_db: float | None
    flipped_db: float | None
    heard: bool
    """By `HEARD_DB` or more as it is."""


@dataclass(frozen=True, kw_only=True, slots=True)
class StepRow:
    """One mic added, as it is and turned over; means over the drums in decibels."""

    mic: str
    drums: list[StepDrum]
    mean_db: float | None
    flipped_mean_db: float | None
    flip: bool
    """Whether the other way is fuller by `HEARD_DB` or more."""
    words: str


def steps(an: Analysis, order: list[str]) -> list[StepRow]:
    """What each mic does as it is added.

    Parameters
    ----------
    order : list of str
        Every mic once.

    Returns
    -------
    list of StepRow
    """
    ids, drums = [m.id for m in an.layout.mics], drum_ids(an)
    names = dict(zip(an.scene.sources.ids, an.scene.sources.names, strict=True))
    gram = grams(an)
    on = np.zeros(len(ids))
    rows = []
    for mic in order:
        i = ids.index(mic)
        before = kept_body(gram, on)
        if on.any():
            changes = [
                10 * np.log10(kept_body(gram, _with(on, i, s)) / before) for s in (1.0, -1.0)
            ]
            rows.append(_step(mic, _drum_rows(drums, *changes), names))
        else:
            rows.append(_first(mic, drums))
        on[i] = 1.0
    return rows


def _with(on: Floats, mic: int, sign: float) -> Floats:
    there = on.copy()
    there[mic] = sign
    return there


def _drum_rows(drums: list[str], wired: Floats, flipped: Floats) -> list[StepDrum]:
    return [
        StepDrum(
            source=d,
            wired_db=round(float(a), 2),
            flipped_db=round(float(b), 2),
            heard=bool(abs(a) >= HEARD_DB),
        )
        for d, a, b in zip(drums, wired, flipped, strict=True)
    ]


def _first(mic: str, drums: list[str]) -> StepRow:
    nothing = [StepDrum(source=d, wired_db=None, flipped_db=None, heard=False) for d in drums]
    words = f"{mic} is the first: everything is heard against it."
    return StepRow(
        mic=mic, drums=nothing, mean_db=None, flipped_mean_db=None, flip=False, words=words
    )


def _step(mic: str, rows: list[StepDrum], names: dict[str, str]) -> StepRow:
    wired = float(np.mean([r.wired_db or 0.0 for r in rows]))
    turned = float(np.mean([r.flipped_db or 0.0 for r in rows]))
    flip = turned - wired >= HEARD_DB
    return StepRow(
        mic=mic,
        drums=rows,
        mean_db=round(wired, 2),
        flipped_mean_db=round(turned, 2),
        flip=flip,
        words=_words(mic, rows, names, flip, turned - wired),
    )


def _words(mic: str, rows: list[StepDrum], names: dict[str, str], flip: bool, more: float) -> str:
    by_gain = sorted((r.wired_db or 0.0, i) for i, r in enumerate(rows))
    least, most = by_gain[0][0], by_gain[-1][0]
    first_most = min(i for gain, i in by_gain if gain == most)

    gives = f"gives {most:.1f} dB to {the(names[rows[first_most].source])}"
    takes = f"takes {-least:.1f} dB off {the(names[rows[by_gain[0][1]].source])}"

    if most < HEARD_DB and least > -HEARD_DB:
        text = f"{mic} changes no drum's body by {HEARD_DB:.0f} dB."
    elif least <= -HEARD_DB and most >= HEARD_DB:
        text = f"{mic} {gives} and {takes}."
    elif least <= -HEARD_DB:
        text = f"{mic} {takes}."
    else:
        text = f"{mic} {gives}."
    if flip:
        text += f" Turned over it would be {more:.1f} dB fuller on average: flip it."
    return text
