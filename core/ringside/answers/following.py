"""What follows a mic under the hand: its own rows and the open pair, not the whole board.

It is asked for at every move of the pointer, so it holds only what changes before one's eyes.
Each number is that of :mod:`ringside.answers.board` for the same layout, so that the board, asked
for when the hand rests, changes nothing of it.
"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from ringside.answers.board import FocusOn, PairHeard, pair_heard, table
from ringside.answers.rows import Sure
from ringside.errors import RingsideError
from ringside.pairs.analysis import Analysis, analyse
from ringside.pairs.uncertainty import COVERAGE, deviation_s, tips
from ringside.places.aims import aim_words
from ringside.places.clearance import words_for
from ringside.places.partner import DrawnRing, Spots, can_be_equal, drawn_ring, spots
from ringside.plan.hanging import with_mics
from ringside.plan.layout import Layout
from ringside.values import Vector


@dataclass(frozen=True, kw_only=True, slots=True)
class PairFollows:
    """The open pair while one of its mics moves; see `Focus` of the board."""

    a: str
    b: str
    heard: PairHeard
    spots: Spots | None
    """None when the two are not of a kind that is kept equal."""
    ring: DrawnRing | None
    """None where it does not change: for two that are not kept equal, and when the mover moves."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Follows:
    """Rows of one mic, by source, and the open pair if the mic is of it."""

    mic: str
    tape_m: list[float]
    path_m: list[float]
    arrival_s: list[float]
    after_gain_db: list[float]
    sign: list[int]
    aim: str
    blocked: str
    pair: PairFollows | None


class Moved(NamedTuple):
    """A mic where the hand has it: its short name, metres, and the way it points."""

    mic: str
    position_m: Vector
    aim: Vector


def follows(layout: Layout, moved: Moved, focus: FocusOn | None = None) -> Follows:
    """What a move of one mic changes before one's eyes.

    Parameters
    ----------
    layout : Layout
        As it stood before the move.
    moved : Moved
        Where the hand has the mic now.
    focus : FocusOn or None
        The pair that is open.

    Returns
    -------
    Follows

    Raises
    ------
    RingsideError
        When the mic, or a mic or the source of the focus, is not in the layout.
    """
    ids = [m.id for m in layout.mics]
    if moved.mic not in ids:
        raise RingsideError(f"expected a mic of this layout, got {moved.mic!r}")
    i = ids.index(moved.mic)
    there = {"position_m": moved.position_m, "aim": moved.aim}
    layout = with_mics(layout, (layout.mics[i].model_copy(update=there),))
    an = analyse(layout)
    heard = an.arrivals
    return Follows(
        mic=moved.mic,
        tape_m=table(heard.tape_m[i], 5),
        path_m=table(heard.path_m[i], 5),
        arrival_s=table(heard.time_s[i], 8),
        after_gain_db=table(heard.after_gain_db[i], 2),
        sign=heard.sign[i].tolist(),
        aim=aim_words(layout)[i],
        blocked=words_for(moved.position_m, layout),
        pair=_pair(an, moved.mic, focus) if focus and moved.mic in focus[:2] else None,
    )


def _pair(an: Analysis, mic: str, focus: FocusOn) -> PairFollows:
    anchor, mover, _ = focus
    row, _, _ = an.find(*focus)
    heard = pair_heard(an, focus, _sure_of_one(an, row))
    equal = can_be_equal(an.layout, anchor, mover)
    return PairFollows(
        a=anchor,
        b=mover,
        heard=heard,
        spots=spots(an.layout, anchor, mover) if equal else None,
        ring=drawn_ring(an.layout, anchor, mover) if equal and mic == anchor else None,
    )


def _sure_of_one(an: Analysis, row: int) -> Sure:
    """How sure one pair is, read at its row: asking for all of them takes longer than the rest."""
    one = an.only(row)
    half = COVERAGE * deviation_s(one)
    every = an.pairs.verdict.shape
    return Sure(np.broadcast_to(half, every), np.broadcast_to(tips(one, half), every))
