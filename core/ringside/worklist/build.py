"""The list of what to do now: a plan of at most seven lines that go together.

Each line is worked out on the state that the lines before it leave, so that all of them taken give
what the last one says. First what stands in for each other is chosen, for it changes all else;
then flips; then moves, or in the other school delays; then what is done to know more; last what
somebody has to decide.
"""

from typing import Final

from ringside.edits.following import moved
from ringside.pairs.counts import counts
from ringside.pairs.trade import BECAUSE
from ringside.pairs.turning import ALIKE_DB
from ringside.phrases import count_words
from ringside.places.steps import stand_steps
from ringside.plan.layout import Layout
from ringside.values import whole
from ringside.worklist.asks import decide, hits, tape
from ringside.worklist.chooses import chooses
from ringside.worklist.delays import delays
from ringside.worklist.lines import AsideRow, Line, LineCost, StandMove, Worklist
from ringside.worklist.settled import Settled
from ringside.worklist.shifts import shifts
from ringside.worklist.state import State, changed, edited, gain_of, gains_of
from ringside.worklist.step import Step
from ringside.worklist.turns import turns

LIST_RULES: Final = 3
"""Counted up when the same layout gets another list than before, so that a length that was kept is
known to be of older rules."""

MOST_LINES: Final = 7
PASSES: Final = 3
"""What a delay or a move has made worth turning over is asked once more."""

ASKED: Final = 2
"""Lines that are kept free for hits and a decision."""


def worklist(layout: Layout, settled: Settled | None = None) -> Worklist:
    """What to do now about a layout, in the order it is done.

    Parameters
    ----------
    layout : Layout
        Planned, or as it stands.
    settled : Settled, optional
        What a take has told of its pairs.

    Returns
    -------
    Worklist
    """
    start = State.of(layout, settled.of(layout) if settled else None)
    work = _made(start)
    lines, now = work.lines, work.now
    gain = sum(x.gain_db for x in lines)
    return Worklist(
        lines=lines,
        aside=_aside(layout),
        before=counts(start.an),
        after=counts(now.an),
        gains=gains_of(work.chosen, now) if lines else [],
        gain_db=round(gain, 3),
        school=layout.school,
        heard=start.told_by,
        words=_words(layout, lines, gain) + _heard_words(start),
    )


class _Work:
    """The list while it is made, and the state that its lines leave."""

    def __init__(self, start: State) -> None:
        self.now = start
        self.chosen = start  # once what stands in for each other is chosen: gains count from here
        self.lines: list[Line] = []

    def copy(self) -> "_Work":
        """The same, to go on from."""
        other = _Work(self.now)
        other.chosen, other.lines = self.chosen, [*self.lines]
        return other

    def take(self, step: Step, after: State | None = None) -> None:
        """One line more; `after` where the state after it is known already."""
        if len(self.lines) >= MOST_LINES:
            return
        if after is None:
            there = edited(self.now.layout, step.edits)
            after = self.now.then(there) if step.edits else self.now
        self.lines.append(_line(step, self.now, after))
        self.now = after

    def change(self, step: Step, after: State | None = None) -> None:
        """One line more that changes something; room is kept for what is asked."""
        if len(self.lines) < MOST_LINES - ASKED:
            self.take(step, after)


def _made(start: State) -> _Work:
    """The list on a state: in the school that aligns, whichever order comes out fuller."""
    work = _Work(start)
    if len(start.layout.mics) < 2:
        return work
    for step, after in chooses(start):
        work.take(step, after)
    work.chosen = work.now
    orders = (False, True) if start.layout.school == "aligned" else (False,)
    work = max(
        (_changing(work, late_first=late) for late in orders),
        key=lambda w: (round(gain_of(w.chosen, w.now) / ALIKE_DB), -len(w.lines)),
    )
    for ask in (tape, hits, decide):
        found = ask(work.now)
        if found is not None:
            work.take(found)
    return work


def _changing(begun: _Work, *, late_first: bool) -> _Work:
    """The lines that change something, after those that there are; delays before flips or after."""
    work = begun.copy()
    turned: set[str] = set()
    for _ in range(PASSES):
        had = len(work.lines)
        if late_first:
            for step, after in delays(work.now):
                work.change(step, after)
        for step in turns(work.now, turned):
            turned |= {*step.of}
            work.change(step)
        for step, after in (*delays(work.now), *shifts(work.now)):
            work.change(step, after)
        if len(work.lines) == had:
            break
    return work


def _line(step: Step, before: State, after: State) -> Line:
    better, worse = changed(before, after) if step.edits else ([], [])
    # What is up in the mix is another mix: it has no gain over the one before.
    counted = bool(step.edits) and step.kind != "choose"
    gain = gain_of(before, after, step.kind) if counted else 0.0
    there = after.layout
    touched = list(moved(before.layout, there.mics))
    moves = [
        StandMove(mic=m, steps=stand_steps(before.layout, m, there.mic(m).position_m))
        for m in touched
    ]
    return Line(
        kind=step.kind,
        of=list(step.of),
        words=step.words,
        because=BECAUSE[step.because],
        edits=step.edits,
        gain_db=round(gain, 3),
        low_db=round(gain + step.low_db, 3),
        high_db=round(gain + step.high_db, 3),
        drums=gains_of(before, after, step.kind) if counted else [],
        moves=moves,
        cost=LineCost(minutes=step.minutes, stands=touched, drummer=step.drummer, words=step.cost),
        sure=step.sure,
        sure_words=step.sure_words,
        settles=step.settles,
        better=better,
        worse=worse,
    )


def _aside(layout: Layout) -> list[AsideRow]:
    return [
        AsideRow(kind=s.kind, of=list(s.of), words=s.words, reason=s.reason, by=s.by, at=s.at)
        for s in layout.set_aside
    ]


def _heard_words(start: State) -> str:
    if not start.told_by:
        return ""
    signs = count_words(start.heard, "sign is", "signs are")
    return f" {signs} as the take “{start.told_by}” has heard them."


def _words(layout: Layout, lines: list[Line], gain: float) -> str:
    if len(layout.mics) < 2:
        return "A pair needs two mics; there is nothing to compare yet."
    aside = len(layout.set_aside)
    if not lines:
        rest = f" {count_words(aside, 'line')} set aside." if aside else ""
        return (
            "Nothing here is worth a switch or a stand: no set of flips gains 0.3 dB, no move"
            f" half a decibel, and no sign is open that the mix would hear.{rest}"
        )
    minutes = sum(x.cost.minutes for x in lines)
    told = f"{count_words(len(lines), 'line')}, about {max(whole(minutes), 1)} min"
    if gain >= 0.05:
        return f"{told}: {gain:.1f} dB more of the drums on average."
    return f"{told}."
