"""The analysis for a screen: arrays kept together, because it is sent many times a second.

It holds the same numbers as :mod:`ringside.answers.report`; names, units and signs are those of
docs/formats/report.md.
"""

from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from ringside.answers.rows import (
    FlipEffect,
    PairRow,
    SourceRow,
    Sure,
    flip_effect,
    pair_row,
    source_rows,
)
from ringside.answers.sentences import FREQUENCIES, WhyRow, why
from ringside.arrays import Floats
from ringside.hear.mix import Up, current_balance, ups
from ringside.hear.standins import stand_ins
from ringside.hear.sums import curve_db
from ringside.pairs.analysis import Analysis
from ringside.pairs.counts import Counts, counts
from ringside.pairs.decisions import DecisionRow, decision_rows
from ringside.pairs.verdicts import WORDS_BY_VALUE
from ringside.places.aims import aim_words
from ringside.places.clearance import words_for_all
from ringside.places.kitplace import kit_words
from ringside.places.partner import Places, can_be_equal, places
from ringside.plan.feeds import Plugging, plugging
from ringside.plan.layout import Layout, VerdictWord
from ringside.plan.questions import Outlook
from ringside.plan.units import Unit, units


@dataclass(frozen=True, kw_only=True, slots=True)
class TipRow:
    """A verdict that could tip within its interval: pair and source by number, and to what."""

    pair: int
    source: int
    verdict: VerdictWord


@dataclass(frozen=True, kw_only=True, slots=True)
class Focus:
    """One pair in full: every source, the sum curve of one, better places, what flips do."""

    a: str
    b: str
    source: str
    rows: list[PairRow]
    curve_hz: list[float]
    curve_db: list[float]
    flipped_curve_db: list[float]
    why: list[WhyRow]
    places: Places | None
    """None when the two are not of a kind that is kept equal."""
    flips: list[FlipEffect]


@dataclass(frozen=True, kw_only=True, slots=True)
class PairSide:
    """From whose side the left of a stereo pair is on the left."""

    left: str
    right: str
    seen_from: Outlook


@dataclass(frozen=True, kw_only=True, slots=True)
class Board:
    """Arrays of M mics by S sources, and of P pairs by S sources; metres, seconds, decibels."""

    speed_of_sound_m_s: float
    mic_ids: list[str]
    sources: list[SourceRow]
    tape_m: list[list[float]]
    path_m: list[list[float]]
    arrival_s: list[list[float]]
    after_gain_db: list[list[float]]
    sign: list[list[int]]
    pair_a: list[str]
    pair_b: list[str]
    verdict: list[list[VerdictWord]]
    worst: list[VerdictWord]
    worst_source: list[str]
    balance: str | None
    """The name of the balance all of it is judged under; None is the usual one."""
    tracks: list[Up]
    patched: Plugging
    stand_ins: list[str]
    """Rooms that could be options of one set and are none yet; empty where it is not several."""
    counts: Counts
    units: list[Unit]
    """Mics that are one thing in the mix; every mic is of one."""
    named_from: list[PairSide]
    trouble: list[float]
    tips: list[TipRow]
    decisions: list[DecisionRow]
    aim: dict[str, str]
    """What each mic points at, in words."""
    blocked: dict[str, str]
    """Why each mic cannot stand where it is; empty where it can."""
    kit: list[str]
    """What is wrong with where the kit stands, in words."""
    focus: Focus | None


class FocusOn(NamedTuple):
    """The pair to open: the anchor stands, the mover moves; without a source its worst one."""

    anchor: str
    mover: str
    source: str | None = None


def _sides(layout: Layout) -> list[PairSide]:
    named = ((p, layout.named_from(p)) for p in layout.stereo_pairs if p.coding != "mid-side")
    return [PairSide(left=p.left, right=p.right, seen_from=side) for p, side in named if side]


def table(values: Floats, digits: int) -> Any:
    """Numbers as they are sent: rounded, in lists of the same shape.

    Parameters
    ----------
    values : ndarray
    digits : int
        After the point.

    Returns
    -------
    list
    """
    return np.round(values, digits).tolist()


def _verdict_table(values: np.ndarray) -> list[list[VerdictWord]]:
    return [[WORDS_BY_VALUE[v] for v in row] for row in values.tolist()]


def board(an: Analysis, focus: FocusOn | None = None) -> Board:
    """What a screen needs: arrays over mics and sources, the grid, and one pair in detail.

    Parameters
    ----------
    an : Analysis
    focus : FocusOn or None
        The pair that is open, if one is.

    Returns
    -------
    Board

    Raises
    ------
    RingsideError
        When a mic or the source of the focus is not in the layout, or both mics are one.
    """
    f, s, sure = an.arrivals, an.scene.sources, Sure.of(an)
    ids = [m.id for m in an.layout.mics]
    blocked = words_for_all(an.scene.capsule, an.layout)
    return Board(
        speed_of_sound_m_s=an.scene.speed,
        mic_ids=ids,
        sources=source_rows(an),
        tape_m=table(f.tape_m, 5),
        path_m=table(f.path_m, 5),
        arrival_s=table(f.time_s, 8),
        after_gain_db=table(f.after_gain_db, 2),
        sign=f.sign.tolist(),
        pair_a=[ids[i] for i in an.pairs.first],
        pair_b=[ids[j] for j in an.pairs.second],
        verdict=_verdict_table(an.pairs.verdict),
        worst=[WORDS_BY_VALUE[v] for v in an.pairs.worst.tolist()],
        worst_source=[s.ids[k] for k in an.worst_source.tolist()],
        balance=current.name if (current := current_balance(an.layout)) else None,
        tracks=ups(an.layout),
        patched=plugging(an.layout.channels),
        stand_ins=[o.name for o in rooms.options] if (rooms := stand_ins(an.layout)) else [],
        counts=counts(an),
        units=units(an.layout),
        named_from=_sides(an.layout),
        trouble=an.trouble.tolist(),
        tips=_tip_rows(an, sure),
        decisions=decision_rows(an),
        aim=dict(zip(ids, aim_words(an.layout, an.scene), strict=True)),
        blocked=dict(zip(ids, blocked, strict=True)),
        kit=kit_words(an.layout),
        focus=focus_on(an, focus, sure) if focus else None,
    )


def _tip_rows(an: Analysis, sure: Sure) -> list[TipRow]:
    """The few verdicts that could tip."""
    rows, sources = np.nonzero(sure.tips != an.pairs.verdict)
    return [
        TipRow(pair=int(r), source=int(k), verdict=WORDS_BY_VALUE[int(sure.tips[r, k])])
        for r, k in zip(rows, sources, strict=True)
    ]


def focus_on(an: Analysis, pair: FocusOn, sure: Sure | None = None) -> Focus:
    """One pair in full.

    Parameters
    ----------
    an : Analysis
    pair : FocusOn
        Which pair, and on which drum.
    sure : Sure or None
        What is known of every row, where it has been computed before.

    Returns
    -------
    Focus

    Raises
    ------
    RingsideError
        When a mic or the source is not in the layout, or both mics are one.
    """
    ids, s = [m.id for m in an.layout.mics], an.scene.sources
    anchor, mover, _ = pair
    row, turned, k = an.find(*pair)
    equal = can_be_equal(an.layout, anchor, mover)
    sure = sure or Sure.of(an)
    wired, flipped = sum_curves(an, row, k)
    return Focus(
        a=anchor,
        b=mover,
        source=s.ids[k],
        rows=[pair_row(an, row, n, sure, turned) for n in range(len(s.ids))],
        curve_hz=np.round(FREQUENCIES, 2).tolist(),
        curve_db=wired,
        flipped_curve_db=flipped,
        why=why(an, row, k),
        places=places(an.layout, anchor, mover) if equal else None,
        flips=sorted(
            (flip_effect(an, ids.index(m)) for m in (mover, anchor)),
            key=lambda f: f.hollow_after,
        ),
    )


def sum_curves(an: Analysis, row: int, source: int) -> tuple[list[float], list[float]]:
    """The sum of a pair on a source over frequency, as wired and with one flipped.

    Parameters
    ----------
    an : Analysis
    row, source : int
        The pair and the source by number.

    Returns
    -------
    (list of float, list of float)
        Decibels against the louder mic alone, at each of `FREQUENCIES`.
    """
    p = an.pairs
    delay, ratio, sign = (float(x[row, source]) for x in (p.delay_s, p.ratio, p.raw_sign))
    wired, flipped = (curve_db(FREQUENCIES, delay, ratio, way * sign) for way in (1.0, -1.0))
    return table(wired, 2), table(flipped, 2)
