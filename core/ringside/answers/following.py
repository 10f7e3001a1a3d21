"""What follows a mic under the hand: its own rows and the open pair, not the whole board.

It is asked for at every move of the pointer, so it holds only what changes before one's eyes.
Each number is that of :mod:`ringside.answers.board` for the same layout, so that the board, asked
for when the hand rests, changes nothing of it.
"""

from dataclasses import dataclass, fields, replace
from typing import NamedTuple

import numpy as np

from ringside.answers.board import FocusOn, sum_curves, table
from ringside.answers.rows import PairRow, Sure, pair_row
from ringside.errors import RingsideError
from ringside.pairs.analysis import Analysis, Pairs
from ringside.pairs.moving import moved as analysis_moved
from ringside.pairs.moving import moved_pair
from ringside.places.aims import aim_words
from ringside.places.clearance import words_for
from ringside.places.partner import DrawnRing, Spots, can_be_equal, drawn_ring, spots
from ringside.plan.hanging import with_mics
from ringside.values import Vector


@dataclass(frozen=True, kw_only=True, slots=True)
class PairInWords:
    """What of the open pair is read rather than seen at a glance."""

    source: str
    curve_db: list[float]
    flipped_curve_db: list[float]
    spots: Spots | None
    """None when the two are not of a kind that is kept equal."""
    ring: DrawnRing | None
    """None where it does not change: for two that are not kept equal, and when the mover moves."""


@dataclass(frozen=True, kw_only=True, slots=True)
class PairFollows:
    """The open pair while one of its mics moves; see `Focus` of the board."""

    a: str
    b: str
    rows: list[PairRow]
    """On snare and kick; with the words, on the source that is open as well.

    Without the words no row has its sentence: it is empty.
    """
    in_words: PairInWords | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Follows:
    """Rows of one mic, by source, and the open pair if the mic is of it."""

    mic: str
    tape_m: list[float]
    path_m: list[float]
    arrival_s: list[float]
    after_gain_db: list[float]
    sign: list[int]
    aim: str | None
    blocked: str | None
    """None, as `aim`, where words were not asked for."""
    pair: PairFollows | None


class Moved(NamedTuple):
    """A mic where the hand has it: its short name, metres, and the way it points."""

    mic: str
    position_m: Vector
    aim: Vector


def follows(
    before: Analysis, moved: Moved, focus: FocusOn | None = None, *, words: bool = True
) -> Follows:
    """What a move of one mic changes before one's eyes.

    Parameters
    ----------
    before : Analysis
        Of the layout as it stood before the move.
    moved : Moved
        Where the hand has the mic now.
    focus : FocusOn or None
        The pair that is open.
    words : bool
        With what is read: sentences, curves, better places. They take as long as the numbers, and
        nobody reads them sixty times a second.

    Returns
    -------
    Follows

    Raises
    ------
    RingsideError
        When the mic, or a mic or the source of the focus, is not in the layout.
    """
    ids = [m.id for m in before.layout.mics]
    if moved.mic not in ids:
        raise RingsideError(f"expected a mic of this layout, got {moved.mic!r}")
    i = ids.index(moved.mic)
    there = {"position_m": moved.position_m, "aim": moved.aim}
    mic = before.layout.mics[i].model_copy(update=there)
    layout = with_mics(before.layout, (mic,))
    row, turned, _ = before.find(*focus) if focus else (0, False, 0)  # who is not there is told
    if words:
        an = analysis_moved(before, layout, i)
    else:
        an, row = moved_pair(before, layout, i, row), 0
    heard = an.arrivals
    return Follows(
        mic=moved.mic,
        tape_m=table(heard.tape_m[i], 5),
        path_m=table(heard.path_m[i], 5),
        arrival_s=table(heard.time_s[i], 8),
        after_gain_db=table(heard.after_gain_db[i], 2),
        sign=heard.sign[i].tolist(),
        aim=aim_words(layout.model_copy(update={"mics": (mic,)}))[0] if words else None,
        blocked=words_for(moved.position_m, layout) if words else None,
        pair=_pair(an, moved.mic, focus, (row, turned), words)
        if focus and moved.mic in focus[:2]
        else None,
    )


def _pair(an: Analysis, mic: str, focus: FocusOn, at: tuple[int, bool], words: bool) -> PairFollows:
    row, turned = at
    s, sure, shown = an.scene.sources, _sure_of_one(an, row), an.scene.sources.reference
    k = an.find(*focus)[2] if words else None
    if k is not None:
        shown = shown | (np.arange(len(s.ids)) == k)
    return PairFollows(
        a=focus.anchor,
        b=focus.mover,
        rows=[
            pair_row(an, row, n, sure, turned, words=words) for n in np.flatnonzero(shown).tolist()
        ],
        in_words=None if k is None else _in_words(an, mic, focus, row, k),
    )


def _in_words(an: Analysis, mic: str, focus: FocusOn, row: int, k: int) -> PairInWords:
    anchor, mover, _ = focus
    layout = an.layout
    equal = can_be_equal(layout, anchor, mover)
    wired, flipped = sum_curves(an, row, k)
    return PairInWords(
        source=an.scene.sources.ids[k],
        curve_db=wired,
        flipped_curve_db=flipped,
        spots=spots(layout, anchor, mover) if equal else None,
        ring=drawn_ring(layout, anchor, mover) if equal and mic == anchor else None,
    )


def _sure_of_one(an: Analysis, row: int) -> Sure:
    """How sure one pair is, to be read at its row: of all of them it would take longer."""
    one = {f.name: getattr(an.pairs, f.name)[row : row + 1] for f in fields(Pairs)}
    sure, every = Sure.of(replace(an, pairs=Pairs(**one))), an.pairs.verdict.shape
    return Sure(np.broadcast_to(sure.half_s, every), np.broadcast_to(sure.tips, every))
