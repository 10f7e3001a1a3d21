"""What aligning does to every pair: the take as it is, and as it would be mixed aligned."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ringside.pairs.verdicts import VERDICT_WORDS, WEIGHT, Verdict
from ringside.plan.layout import Layout, VerdictWord
from ringside.takes.align import AlignRow
from ringside.takes.heardpairs import PairTold

LIGHT: Final = tuple(VERDICT_WORDS[v] for v, weight in WEIGHT.items() if weight == 0)
"""Nothing is to be done about these."""

NO_MATTER: Final = VERDICT_WORDS[Verdict.NO_MATTER]
HEARD_DB: Final = 1.0
"""A change of a drum's body under this is not told (common practice: about what is heard)."""


@dataclass(frozen=True, slots=True)
class PairChange:
    """A pair on a drum before and after."""

    a: str
    b: str
    source: str
    before: VerdictWord
    after: VerdictWord
    body_db: tuple[float, float]
    """What the two add up to in the body against the louder alone, before and after."""


@dataclass(frozen=True, slots=True)
class AlignEffect:
    """What aligning changes in the pairs that count."""

    cured: list[PairChange]
    """Marked before and not after."""
    worse: list[PairChange]
    """Marked after and not before."""
    body: list[PairChange]
    """Under no mark before or after, but with more or less body by a decibel and more."""
    marked: tuple[int, int]
    """Pairs on drums that are marked before and after."""
    words: str


def aligned_layout(layout: Layout, rows: Sequence[AlignRow], rate_hz: int) -> Layout:
    """A layout whose tracks are flipped and delayed as a table has them.

    Parameters
    ----------
    layout : Layout
    rows : sequence of AlignRow
    rate_hz : int
        Of the take; a layout counts in samples of its own.

    Returns
    -------
    Layout
    """
    by = {r.channel: r for r in rows if not r.why_not}
    per_sample = layout.sample_rate_hz / rate_hz
    channels = tuple(
        c.model_copy(update={"track_flip": by[c.id].flip,
                             "track_delay_samples": round(by[c.id].later * per_sample)})
        if c.id in by
        else c
        for c in layout.channels
    )  # fmt: skip
    return layout.model_copy(update={"channels": channels})


def effect(before: Sequence[PairTold], after: Sequence[PairTold]) -> AlignEffect:
    """What is different between two tellings of one take.

    Parameters
    ----------
    before, after : sequence of PairTold

    Returns
    -------
    AlignEffect
        Largest changes of body first.
    """
    was = {(p.a, p.b, p.source): p for p in before}
    is_now = {(p.a, p.b, p.source): p for p in after}
    cured, worse, body = [], [], []
    marked = [0, 0]
    for key in dict.fromkeys([*was, *is_now]):
        one, two = was.get(key), is_now.get(key)
        if not any(p is not None and p.counts for p in (one, two)):
            continue
        marks = [p is not None and p.measured not in LIGHT for p in (one, two)]
        marked = [n + m for n, m in zip(marked, marks, strict=True)]
        change = _change(one, two)
        if marks == [True, False]:
            cured.append(change)
        elif marks == [False, True]:
            worse.append(change)
        elif not any(marks) and _matters(change) and _gain(change) >= HEARD_DB:
            body.append(change)
    for rows in (cured, worse, body):
        rows.sort(key=_gain, reverse=True)
    return AlignEffect(cured, worse, body, (marked[0], marked[1]), _words(cured, worse, marked))


def _change(one: PairTold | None, two: PairTold | None) -> PairChange:
    """Where one is not told it does not matter: it is told with nothing gained or lost."""
    there = one or two
    assert there is not None
    return PairChange(
        there.a, there.b, there.source,
        one.measured if one else NO_MATTER, two.measured if two else NO_MATTER,
        ((one or there).wired_db[0], (two or there).wired_db[0]),
    )  # fmt: skip


def _matters(change: PairChange) -> bool:
    return change.before != NO_MATTER or change.after != NO_MATTER


def _gain(change: PairChange) -> float:
    return abs(change.body_db[1] - change.body_db[0])


def _words(cured: Sequence[PairChange], worse: Sequence[PairChange], marked: Sequence[int]) -> str:
    if not cured and not worse:
        return f"No mark changes; marked before and after: {marked[0]}."
    words = f"Marked pairs on drums go from {marked[0]} to {marked[1]}."
    if worse:
        several = len(worse) > 1
        words += (
            f" {len(worse)} that {'were' if several else 'was'} well"
            f" {'are' if several else 'is'} marked then: look at"
            f" {'them' if several else 'it'} before anything is printed."
        )
    return words
