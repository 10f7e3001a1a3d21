"""Delays as lines, for those who align afterwards: pairs to themselves, spots to the overheads.

Delays are put on the earlier track. The spots of one drum go together, so that what they are to
each other stays; a drum whose body would be less is left as it is.
"""

from collections.abc import Iterator
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.edits.lines import DelayTracks, TrackDelay
from ringside.pairs.keeping import pair_broken
from ringside.pairs.verdicts import Kind, Verdict
from ringside.phrases import listed
from ringside.plan.feeds import feed
from ringside.plan.hanging import with_channels
from ringside.plan.layout import Layout
from ringside.worklist.state import State, gain_of
from ringside.worklist.step import Step, left

LEAST_DELAY_DB: Final = 0.3
LOSES_DB: Final = 1.0
UNHEARD_DB: Final = 0.05
MOST_SAMPLES: Final = 20_000
DELAY_MIN: Final = 0.5

Delays = dict[str, int]


def delays(state: State) -> list[tuple[Step, State]]:
    """The delays worth putting on tracks, with the state after each line.

    Parameters
    ----------
    state : State

    Returns
    -------
    list of (Step, State)
        Empty in the school that places until it is in phase.
    """
    if state.layout.school != "aligned":
        return []
    away = frozenset().union(*left(state.layout, "delay"))
    now, made = state, list[tuple[Step, State]]()
    for late in _pairs(now):
        now, made = _taken(now, made, _without(late, away), "the earlier of the two to the later")
    spots: Delays = {}
    there = now
    for late in _spots(now):
        tried = _delayed(there, _without(late, away))
        if gain_of(there, tried) >= -UNHEARD_DB and _loses_little(there, tried):
            spots |= _without(late, away)
            there = tried
    now, made = _taken(now, made, spots, "the spots to the overheads")
    return made


def _without(late: Delays, away: frozenset[str]) -> Delays:
    return {} if away & late.keys() else late


def _taken(
    now: State, made: list[tuple[Step, State]], late: Delays, to: str
) -> tuple[State, list[tuple[Step, State]]]:
    """One line more, where it is worth one."""
    if not late:
        return now, made
    after = _delayed(now, late)
    good = gain_of(now, after) >= LEAST_DELAY_DB and _loses_little(now, after)
    if not good or pair_broken(now.an, after.an, {*late}):
        return now, made
    return after, [*made, (_step(now.layout, late, to), after)]


def _loses_little(now: State, after: State) -> bool:
    return bool((after.body - now.body)[now.meant].min() >= -LOSES_DB)


def _delayed(state: State, late: Delays) -> State:
    channels = tuple(c for m, n in late.items() for c in feed(state.layout, m).delayed(n))
    return state.then(with_channels(state.layout, channels))


def _pairs(state: State) -> Iterator[Delays]:
    """The earlier of a pair that is late on what it keeps equal, or of two spots of a drum."""
    an, p = state.an, state.an.pairs
    s = an.scene.sources
    kept = (p.kind == Kind.PICTURE)[:, None] & s.reference
    own = (p.kind == Kind.SAME)[:, None] & s.drum
    wrong = (p.verdict == Verdict.LATE) & p.counts & (kept | own)
    for row in np.flatnonzero(wrong.any(axis=1)):
        k = int(np.where(wrong[row], np.abs(p.delay_s[row]), 0.0).argmax())
        early = p.first[row] if p.delay_s[row, k] > 0 else p.second[row]
        yield from _one(state, [int(early)], abs(float(p.delay_s[row, k])))


def _spots(state: State) -> Iterator[Delays]:
    """The spots of each drum and cymbal, as late as the overheads hear it."""
    an = state.an
    s, mics = an.scene.sources, state.layout.mics
    over = [i for i, m in enumerate(mics) if m.role == "overhead" and an.scene.heard[i]]
    if not over:
        return
    for k in range(len(s.ids)):
        own = [
            i for i, m in enumerate(mics)
            if m.role == "close" and m.job == s.ids[k] and an.scene.heard[i]
        ]  # fmt: skip
        if own:
            time: Floats = an.arrivals.time_s[:, k]
            yield from _one(state, own, float(time[over].mean() - time[own[0]]))


def _one(state: State, mics: list[int], seconds: float) -> Iterator[Delays]:
    layout = state.layout
    by = round(seconds * layout.sample_rate_hz)
    late: Delays = {}
    for i in mics:
        one = feed(layout, layout.mics[i].id)
        total = one.delay_samples + by
        if not one.channels or by < 1 or total > MOST_SAMPLES:
            return
        late[one.mic.id] = total
    yield late


def _step(layout: Layout, late: Delays, to: str) -> Step:
    rate = layout.sample_rate_hz / 1e3
    told = [f"{m} {n} samples ({n / rate:.2f} ms)" for m, n in late.items()]
    rows = tuple(TrackDelay(mic=m, samples=n) for m, n in late.items())
    return Step(
        kind="delay",
        of=tuple(late),
        words=f"Delay {to}, after recording: {listed(told)}.",
        because="aligned",
        edits=[DelayTracks(do="delay", delays=rows)],
        minutes=DELAY_MIN * len(late),
        cost="no stand; on the tracks, after recording",
        sure="likely",
        sure_words="The hits of a take give these to a sample; the plan to a few.",
    )
