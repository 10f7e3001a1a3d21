"""One reading as it is typed: whether it can be, is right, and what to do at the stand."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.gear.locker import Locker
from ringside.plan.layout import Layout
from ringside.plan.spoken import the
from ringside.standing.asks import AskRow, ask_rows, end_point
from ringside.standing.entries import LONGEST_M, Entry, span_of, tape_span, written
from ringside.standing.moves import Kept, Move, moves
from ringside.standing.report import span_words
from ringside.standing.told import Told
from ringside.standing.truth import Truth, truth
from ringside.survey.net import held_at

SLIP: Final = 0.04
"""A reading this near to another unit's, as a share, was read in that unit."""

UNLIKELY_M: Final = 0.5
"""What is further off than this is asked about before it is moved for."""

LEAST_M: Final = 0.001
"""The least that a tape tells."""

UNITS: Final = (
    (12.0, "feet typed for inches, or the other way round"),
    (2.54, "inches typed for centimetres, or the other way round"),
    (10.0, "a decimal point too far"),
    (100.0, "metres typed for centimetres, or the other way round"),
)

JudgedState = Literal["good", "off", "unlikely", "impossible"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Judged:
    """A reading against what it should be."""

    state: JudgedState
    target_m: float
    target_words: str
    off_m: float
    """Read less target: above zero it is too far."""
    words: Told
    moves: list[Move]
    spread_words: str
    """What else this reading says, or what it is at odds with; empty where nothing."""


def judged(
    layout: Layout, locker: Locker, log: Sequence[Entry], mic: str, to: str | None, metres: float
) -> Judged:
    """A reading before it is kept.

    Parameters
    ----------
    layout : Layout
        As planned.
    locker : Locker
    log : sequence of Entry
        What was written down before.
    mic : str
    to : str or None
        None is the floor.
    metres : float

    Returns
    -------
    Judged

    Raises
    ------
    RingsideError
        When an end is not of the layout, or both are one.
    """
    ids = [m.id for m in layout.mics]
    if mic not in ids:
        raise RingsideError(f"expected a mic of this layout, got {mic!r}")
    if to is not None and (to == mic or to not in {*ids, *layout.kit.source_ids}):
        raise RingsideError(f"expected a drum, a cymbal or another mic, got {to!r}")
    span = span_of(mic, to)
    before = written(
        layout, [e for e in log if e.what != "reading" or span_of(e.mic, e.to) != span]
    )
    row = _target(layout, locker, log, mic, to)
    off = metres - row.target_m
    said = _impossible(layout, metres)
    if said:
        return _plain("impossible", row, off, said)
    if abs(off) <= row.tolerance_m:
        return _plain("good", row, off, _good_words(row, off))
    if slip := _slip(metres, row.target_m):
        return _plain("unlikely", row, off, Told(slip))
    entry = Entry(key="typed", what="reading", mic=mic, to=to, metres=metres)
    here = truth(layout, locker, (*before.readings, *written(layout, [entry]).readings))
    odds = _odds(here)
    return Judged(
        state="off" if abs(off) <= UNLIKELY_M else "unlikely",
        target_m=row.target_m,
        target_words=row.target_words,
        off_m=round(off, 4),
        words=_off_words(to, off),
        # Where readings are at odds nobody knows where it stands, nor how it should go.
        moves=[] if odds else _moves(here, layout, locker, row),
        spread_words=odds,
    )


def _target(
    layout: Layout, locker: Locker, log: Sequence[Entry], mic: str, to: str | None
) -> AskRow:
    """The row of the list for these two ends; of one that is not on it, as planned."""
    probe = Entry(key="probe", what="reading", mic=mic, to=to, metres=1.0)
    rows = ask_rows(layout, locker, written(layout, [*log, probe]), frozenset())
    return next(r for r in rows if span_of(r.mic, r.to) == span_of(mic, to))


def _plain(state: JudgedState, row: AskRow, off: float, words: Told) -> Judged:
    return Judged(
        state=state, target_m=row.target_m, target_words=row.target_words, off_m=round(off, 4),
        words=words, moves=[], spread_words="",
    )  # fmt: skip


def _impossible(layout: Layout, metres: float) -> Told | None:
    """Why a reading cannot be; None where it can."""
    least, most = tape_span(layout)
    if not metres >= least:
        return Told("A tape reads more than nothing: type it again.")
    if metres <= most:
        return None
    if metres > LONGEST_M:
        return Told("Nothing at a kit is further apart than {}: type it again.", (LONGEST_M,))
    words = "Nothing in the room is further apart than {}: type it again, or draw the room larger."
    return Told(words, (most,))


def _slip(metres: float, target: float) -> str:
    """What a reading was likely typed as, where it fits another unit better."""
    if target <= 0:
        return ""
    share = max(metres / target, target / metres)
    for factor, words in UNITS:
        if abs(share / factor - 1) <= SLIP:
            return f"That is {share:.1f} times what it should be: {words}?"
    return ""


def _good_words(row: AskRow, off: float) -> Told:
    first = "As planned, within {}." if row.target_words == "the plan" else "Equal within {}."
    return Told(first, (max(abs(off), LEAST_M),))


def _off_words(to: str | None, off: float) -> Told:
    if to is None:
        words = "{} too high" if off > 0 else "{} too low"
    else:
        words = "Bring it {} closer" if off > 0 else "Take it {} further away"
    return Told(words, (abs(off),))


def _moves(here: Truth, layout: Layout, locker: Locker, row: AskRow) -> list[Move]:
    number = [m.id for m in layout.mics].index(row.mic)
    at = dict(
        zip(
            [m.id for m in layout.mics],
            [here.point(i) for i in range(len(layout.mics))],
            strict=True,
        )
    )
    end = end_point(here.layout, at, row.to)
    return moves(here.point(number), end, row.target_m, _kept(here, layout, locker, row))


def _kept(here: Truth, layout: Layout, locker: Locker, row: AskRow) -> list[Kept]:
    """What else the mic keeps: snare and kick of one that stands off the kit."""
    mic = layout.mic(row.mic)
    if mic.role == "close":
        return []
    kept = []
    log = written(layout, [])
    planned = {
        r.to: r for r in ask_rows(layout, locker, log, frozenset()) if r.mic == row.mic and r.to
    }
    for kind in ("snare", "kick"):
        part = layout.kit.first(kind)
        if part.id == row.to or part.id not in planned:
            continue
        end: Floats = np.array(held_at(here.layout.kit.part(part.id)))
        kept.append(Kept(the(part.name), end, planned[part.id].target_m))
    return kept


def _odds(here: Truth) -> str:
    """What the readings so far are at odds about."""
    every = [*here.net.suspects, *here.net.rivals]
    if not every:
        return ""
    said = ", ".join(span_words(here, n) for n in every)
    return f"The readings do not fit each other: measure {said} again before you move anything."
