"""Moves as lines, for those who place until it is in phase: the few that are worth a stand.

A pair that is late on snare or kick is put right by moving the farther one in, round the ring, to
the same height, or back on the numbers of its technique. Two spots of one drum: the second moves,
a hand at most. A pair as a whole goes up or down by the number of its technique. No mic of a pair
is moved for one tom, and no drum for a mic (:mod:`ringside.pairs.trade`).
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ringside.edits.apply import OneEdit
from ringside.edits.following import moved
from ringside.edits.mics import ChangeMics
from ringside.edits.techniques import ChangeNumbers
from ringside.errors import RingsideError
from ringside.pairs.keeping import pair_broken
from ringside.pairs.trade import TradeKey, is_second
from ringside.pairs.turning import ALIKE_DB
from ringside.pairs.uncertainty import COVERAGE, deviation_s, tips
from ringside.pairs.verdicts import Kind, Verdict
from ringside.phrases import listed
from ringside.places.clearance import words_for_all
from ringside.plan.hanging import with_mics
from ringside.plan.layout import Layout, StereoPair, Taken
from ringside.plan.mics import LOCKS, Mic
from ringside.plan.spoken import spoken, the
from ringside.techniques.catalogue import technique
from ringside.techniques.taking import OFF_NUMBERS_M, change
from ringside.values import Vector
from ringside.worklist.cures import RemedyKind, equal_places, lines_of, worth_making
from ringside.worklist.state import State, gain_of
from ringside.worklist.step import Step, left

LEAST_MOVE_DB: Final = 0.5
"""A move that gains less, on average over the drums, is not worth finding the stand again."""

LOSES_DB: Final = 1.0
"""No drum loses what is heard (common practice)."""

LEAST_LIFT_DB: Final = 1.0
"""Both stands of a pair, and with them the picture of the whole kit, go for no less."""

FARTHEST_M: Final = 0.5
"""What goes further is another layout, not a remedy (from memory)."""

MOST_MOVES: Final = 3
LIFTS_M: Final = (-0.2, -0.1, 0.1, 0.2)
STAND_MIN: Final = 4.0
"""To move one stand, and read it with the tape (from memory)."""


HOW: Final[dict[RemedyKind, str]] = {
    "swing": "round the ring", "same height": "round the ring, to the same height,",
    "snare only": "in or out",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Tried:
    """A move, the state after it, and what it is for."""

    after: State
    edit: OneEdit
    mics: tuple[str, ...]
    words: str
    because: TradeKey
    least_db: float = LEAST_MOVE_DB
    far: bool = False
    """It moves the farther of a pair."""


def shifts(state: State) -> list[tuple[Step, State]]:
    """The moves worth making, each after those before it.

    Parameters
    ----------
    state : State

    Returns
    -------
    list of (Step, State)
        Each with the state after it; empty in the school that aligns afterwards.
    """
    made: list[tuple[Step, State]] = []
    if state.layout.school != "placed":
        return made
    away = left(state.layout, "move")
    now, done = state, set[str]()
    while len(made) < MOST_MOVES:
        every = [t for t in _tries(now) if not done & {*t.mics} and frozenset(t.mics) not in away]
        good = [t for t in every if _worth_it(now, t)]
        if not good:
            break
        best = max(good, key=lambda t: _order(now, t))
        made.append((_step(now, best), best.after))
        done |= {*best.mics}
        now = best.after
    return made


def _order(now: State, t: _Tried) -> tuple[float, bool, float]:
    """More gain, as far as it is heard; then the farther mic in; then the shorter way."""
    return (round(gain_of(now, t.after) / ALIKE_DB), t.far, -round(_way(now, t), 3))


def _tries(state: State) -> Iterator[_Tried]:
    an, layout = state.an, state.layout
    for pair in layout.stereo_pairs:
        if pair.coding == "left-right":
            yield from _repairs(state, pair)
            yield from _lifts(state, pair)
    p = an.pairs
    wrong = (p.kind == Kind.SAME) & (p.worst >= Verdict.LATE)
    for row in np.flatnonzero(wrong):
        yield from _spots(state, int(row))


def _free(mic: Mic) -> bool:
    return not any(lock in mic.locks for lock in LOCKS[:3])


def _repairs(state: State, pair: StereoPair) -> Iterator[_Tried]:
    """What puts a pair right that is late on what it keeps equal."""
    an, layout = state.an, state.layout
    row, turned = an.pair_index(pair.left, pair.right)
    s, p = an.scene.sources, an.pairs
    late = s.reference & (p.verdict[row] == Verdict.LATE) & p.counts[row]
    if p.kind[row] != Kind.PICTURE or not late.any():
        return
    k = int(np.where(late, np.abs(p.delay_s[row]), 0.0).argmax())
    if abs(p.delay_s[row, k]) <= COVERAGE * deviation_s(an)[row, k]:
        return  # nearer than it is known
    right_later = (p.delay_s[row, k] > 0) != turned
    far, near = (pair.right, pair.left) if right_later else (pair.left, pair.right)
    for mover, anchor in ((far, near), (near, far)):
        one, two = layout.mic(anchor), layout.mic(mover)
        for r in equal_places(an, one, two):
            if worth_making(layout, r):
                words = f"Move {mover} {HOW[r.kind]} {_purpose(state, pair, k)}"
                yield replace(_moved(state, r.mics, words, "pair keeps"), far=mover == far)
    for taken in layout.techniques:
        if {pair.left, pair.right} <= {*taken.mics}:
            yield from _numbers(state, taken, {}, "Put {0} back on the numbers of the {1}.")


def _purpose(state: State, pair: StereoPair, k: int) -> str:
    drum = the(state.an.scene.sources.names[k])
    return f"until {pair.left} and {pair.right} hear {drum} at once."


def _lifts(state: State, pair: StereoPair) -> Iterator[_Tried]:
    """A pair of overheads up or down as a whole, where something about it is amiss."""
    layout = state.layout
    if any(layout.mic(m).role != "overhead" for m in (pair.left, pair.right)):
        return
    p, ids = state.an.pairs, [m.id for m in layout.mics]
    own = [ids.index(pair.left), ids.index(pair.right)]
    amiss = (p.worst >= Verdict.LATE) & (np.isin(p.first, own) | np.isin(p.second, own))
    if not amiss.any():
        return
    for taken in layout.techniques:
        if {*taken.mics} == {pair.left, pair.right} and "over" in taken.numbers:
            if _off_numbers(layout, taken):
                return
            for by in LIFTS_M:
                over = {"over": round(taken.numbers["over"] + by, 3)}
                yield from _numbers(state, taken, over, f"{_up(by)} {{0}} together, as a {{1}}.")
            return
    heights = {round(layout.mic(m).position_m[2], 3) for m in (pair.left, pair.right)}
    if len(heights) == 1:
        for by in LIFTS_M:
            mics = tuple(_lifted(layout.mic(m), by) for m in (pair.left, pair.right))
            words = f"{_up(by)} {pair.left} and {pair.right} together."
            yield _moved(state, mics, words, "pair together", LEAST_LIFT_DB)


def _up(by: float) -> str:
    return "Raise" if by > 0 else "Lower"


def _off_numbers(layout: Layout, taken: Taken) -> bool:
    """Whether a mic of it was moved by hand."""
    after = change(layout, taken.id, {}).layout
    return any(
        np.linalg.norm(np.subtract(after.mic(m).position_m, layout.mic(m).position_m))
        > OFF_NUMBERS_M
        for m in taken.mics
    )


def _lifted(mic: Mic, by: float) -> Mic:
    x, y, z = mic.position_m
    to: Vector = (x, y, z + by)
    return mic.model_copy(update={"position_m": to})


def _numbers(state: State, taken: Taken, numbers: dict[str, float], words: str) -> Iterator[_Tried]:
    name = spoken(technique(taken.technique).name)
    try:
        after = change(state.layout, taken.id, numbers).layout
    except RingsideError:
        return  # out of its range, or no place for it
    mics = moved(state.layout, after.mics)
    if mics:
        edit = ChangeNumbers(do="numbers", taken=taken.id, numbers=numbers)
        yield _Tried(
            state.then(_as(state.layout, after)), edit, mics,
            words.format(listed(mics), name), "pair together",
            LEAST_LIFT_DB if numbers else LEAST_MOVE_DB,
        )  # fmt: skip


def _as(layout: Layout, after: Layout) -> Layout:
    return layout.model_copy(update={"mics": after.mics, "techniques": after.techniques})


def _spots(state: State, row: int) -> Iterator[_Tried]:
    """The second of two mics of one drum, a hand along the way the sound comes."""
    an, layout = state.an, state.layout
    one, two = (layout.mics[int(i)] for i in (an.pairs.first[row], an.pairs.second[row]))
    if is_second(layout, one) and not is_second(layout, two):
        one, two = two, one
    k = int(an.worst_source[row])
    _, turned = an.pair_index(one.id, two.id)
    off = (-1 if turned else 1) * float(an.pairs.delay_s[row, k])
    if two.role != "close":
        return
    for r in lines_of(an, one, two, k, off):
        if r.mics[0].id == two.id and worth_making(layout, r):
            drum = the(an.scene.sources.names[k])
            words = f"Move {two.id} until it goes with {one.id} on {drum}."
            yield _moved(state, r.mics, words, "spot before pair")


def _moved(
    state: State, mics: tuple[Mic, ...], words: str, because: TradeKey,
    least_db: float = LEAST_MOVE_DB,
) -> _Tried:  # fmt: skip
    after = state.then(with_mics(state.layout, mics))
    edit = ChangeMics(do="mics", mics=mics, why="")
    return _Tried(after, edit, tuple(m.id for m in mics), words, because, least_db)


def _worth_it(now: State, t: _Tried) -> bool:
    """Whether a move gains, is free to be made, spoils nothing, and breaks no pair."""
    after = t.after
    mics = [after.layout.mic(m) for m in t.mics]
    if not all(_free(m) for m in mics) or gain_of(now, after) < t.least_db:
        return False
    if _way(now, t) > FARTHEST_M * len(mics):
        return False
    if (after.body - now.body)[
        now.meant
    ].min() < -LOSES_DB or after.trouble.sum() >= now.trouble.sum():
        return False
    if ((after.trouble > now.trouble) & (after.trouble >= 4)).any():
        return False  # no pair turns hollow for another
    if pair_broken(now.an, after.an, {*t.mics}):
        return False
    return not any(words_for_all([m.position_m for m in mics], after.layout))


def _way(now: State, t: _Tried) -> float:
    """How far stands go, metres."""
    return sum(
        float(np.linalg.norm(np.subtract(after.position_m, now.layout.mic(m).position_m)))
        for m in t.mics
        for after in (t.after.layout.mic(m),)
    )


def _step(now: State, t: _Tried) -> Step:
    n = len(t.mics)
    tip = tips(t.after.an) != t.after.an.pairs.verdict
    ids = [m.id for m in now.layout.mics]
    p = t.after.an.pairs
    own = np.isin(p.first, [ids.index(m) for m in t.mics])
    own &= np.isin(p.second, [ids.index(m) for m in t.mics]) | (n == 1)
    open_now = bool((tip & p.counts)[own].any())
    return Step(
        kind="move",
        of=t.mics,
        words=t.words,
        because=t.because,
        edits=[t.edit],
        minutes=STAND_MIN * n,
        drummer="stops",
        cost=f"{'a stand' if n == 1 else f'{n} stands'}; the drummer stops while it is moved",
        sure="likely" if open_now else "sure",
        sure_words=(
            "Where the stick lands may still tip a verdict of it: read it with the tape."
            if open_now
            else "Known to a centimetre: read it with the tape."
        ),
    )
