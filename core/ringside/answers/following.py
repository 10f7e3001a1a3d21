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
from ringside.hear.arrivals import Arrivals
from ringside.pairs.analysis import Analysis, Pairs
from ringside.pairs.moving import heard_alone
from ringside.pairs.moving import moved as analysis_moved
from ringside.places.aims import aim_words
from ringside.places.clearance import words_for
from ringside.places.drumterms import CloseTerms, terms_of
from ringside.places.partner import DrawnRing, Spots, can_be_equal, drawn_ring, spots
from ringside.plan.hanging import with_mics
from ringside.values import Vector


@dataclass(frozen=True, kw_only=True, slots=True)
class PairInWords:
    """What of the open pair is read rather than seen at a glance."""

    rows: list[PairRow]
    """On snare, kick and the source that is open."""
    source: str
    curve_db: list[float]
    flipped_curve_db: list[float]
    spots: Spots | None
    """None when the two are not of a kind that is kept equal."""
    ring: DrawnRing | None
    """None where it does not change: for two that are not kept equal, and when the mover moves."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Distances:
    """How far both mics of the open pair are from one source; as a `PairRow` has it."""

    source: str
    tape_a_m: float
    tape_b_m: float
    tape_difference_m: float
    delay_s: float


@dataclass(frozen=True, kw_only=True, slots=True)
class PairFollows:
    """The open pair while one of its mics moves; see `Focus` of the board."""

    a: str
    b: str
    distances: list[Distances]
    """To snare and kick."""
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
    """None, as `aim` and `close`, where words were not asked for."""
    close: CloseTerms | None
    """None as well where it is no close mic of a drum or cymbal."""
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
        With what is read: verdicts, sentences, curves, better places. They take twice as long as
        the numbers, and nobody reads them sixty times a second.

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
    at = before.find(*focus) if focus else None  # who is not there is told
    an = analysis_moved(before, layout, i) if words else None
    heard, k = (an.arrivals, i) if an else (heard_alone(before, layout, i), 0)
    return Follows(
        mic=moved.mic,
        tape_m=table(heard.tape_m[k], 5),
        path_m=table(heard.path_m[k], 5),
        arrival_s=table(heard.time_s[k], 8),
        after_gain_db=table(heard.after_gain_db[k], 2),
        sign=heard.sign[k].tolist(),
        aim=aim_words(layout.model_copy(update={"mics": (mic,)}))[0] if words else None,
        blocked=words_for(moved.position_m, layout) if words else None,
        close=terms_of(layout, mic.id) if words and mic.role == "close" and mic.job else None,
        pair=PairFollows(
            a=focus.anchor,
            b=focus.mover,
            distances=_distances(before, heard, k, moved.mic == focus.anchor, focus),
            in_words=_in_words(an, moved.mic, focus, at) if an else None,
        )
        if focus and at and moved.mic in focus[:2]
        else None,
    )


def _distances(
    before: Analysis, heard: Arrivals, row: int, is_anchor: bool, focus: FocusOn
) -> list[Distances]:
    """From the mic that moves, by its row in what is heard now, and from the one that stands."""
    src, was = before.scene.sources, before.arrivals
    ids = [m.id for m in before.layout.mics]
    stands = ids.index(focus.mover if is_anchor else focus.anchor)
    way = -1.0 if is_anchor else 1.0
    return [
        Distances(
            source=src.ids[k],
            tape_a_m=float(heard.tape_m[row, k] if is_anchor else was.tape_m[stands, k]),
            tape_b_m=float(was.tape_m[stands, k] if is_anchor else heard.tape_m[row, k]),
            tape_difference_m=way * float(heard.tape_m[row, k] - was.tape_m[stands, k]),
            delay_s=way * float(heard.time_s[row, k] - was.time_s[stands, k]),
        )
        for k in np.flatnonzero(src.reference).tolist()
    ]


def _in_words(an: Analysis, mic: str, focus: FocusOn, at: tuple[int, bool, int]) -> PairInWords:
    row, turned, _ = at
    k = an.find(*focus)[2]  # the worst source now, where none is open
    anchor, mover, _ = focus
    layout, s = an.layout, an.scene.sources
    equal = can_be_equal(layout, anchor, mover)
    wired, flipped = sum_curves(an, row, k)
    sure = _sure_of_one(an, row)
    shown = np.flatnonzero(s.reference | (np.arange(len(s.ids)) == k))
    return PairInWords(
        rows=[pair_row(an, row, n, sure, turned) for n in shown.tolist()],
        source=s.ids[k],
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
