"""What a change of the whole (the air, the room, the kit) did to the answers, in words.

Two layouts with the same mics are analysed; verdicts that turned over and the largest change
of an arrival are told. Only mics and sources that both have are compared.
"""

from dataclasses import dataclass

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import WORDS_BY_VALUE
from ringside.plan.layout import Layout, VerdictWord
from ringside.standing.stood import analysed

MOST_ROWS = 40
NAMED = 3


@dataclass(frozen=True, kw_only=True, slots=True)
class ArrivalChange:
    """The largest change of an arrival, seconds."""

    mic: str
    source: str
    before_s: float
    after_s: float


@dataclass(frozen=True, kw_only=True, slots=True)
class VerdictChange:
    """A verdict that turned over."""

    a: str
    b: str
    source: str
    before: VerdictWord
    after: VerdictWord


@dataclass(frozen=True, kw_only=True, slots=True)
class Effects:
    """What a change of a layout did."""

    speed_before_m_s: float
    speed_after_m_s: float
    arrivals: ArrivalChange | None
    verdicts: list[VerdictChange]
    """Every pair and source whose verdict turned over, gravest first, at most 40."""
    turned: int
    """How many there are."""
    words: str


def effects(before: Layout, after: Layout) -> Effects:
    """What turned over between two layouts, of the mics and sources that both have.

    Parameters
    ----------
    before : Layout
        As it was.
    after : Layout
        As it is now.

    Returns
    -------
    Effects
    """
    one, two = analysed(before), analysed(after)
    largest = _largest(one, two)
    rows = _turned(one, two)
    return Effects(
        speed_before_m_s=one.scene.speed,
        speed_after_m_s=two.scene.speed,
        arrivals=largest,
        verdicts=rows[:MOST_ROWS],
        turned=len(rows),
        words=_words(one, two, largest, rows),
    )


def _shared(one: list[str], two: list[str]) -> list[tuple[int, int]]:
    return [(i, two.index(x)) for i, x in enumerate(one) if x in two]


def _ids(an: Analysis) -> list[str]:
    return [m.id for m in an.layout.mics]


def _largest(one: Analysis, two: Analysis) -> ArrivalChange | None:
    mics = _shared(_ids(one), _ids(two))
    sources = _shared(list(one.scene.sources.ids), list(two.scene.sources.ids))
    if not mics or not sources:
        return None
    a = one.arrivals.time_s[np.ix_([i for i, _ in mics], [k for k, _ in sources])]
    b = two.arrivals.time_s[np.ix_([j for _, j in mics], [k for _, k in sources])]
    i, k = np.unravel_index(int(np.abs(b - a).argmax()), a.shape)
    return ArrivalChange(
        mic=_ids(one)[mics[int(i)][0]],
        source=one.scene.sources.ids[sources[int(k)][0]],
        before_s=float(a[i, k]),
        after_s=float(b[i, k]),
    )


def _turned(one: Analysis, two: Analysis) -> list[VerdictChange]:
    ids, others = _ids(one), set(_ids(two))
    sources = _shared(list(one.scene.sources.ids), list(two.scene.sources.ids))
    rows = []
    for row, (i, j) in enumerate(zip(one.pairs.first, one.pairs.second, strict=True)):
        a, b = ids[int(i)], ids[int(j)]
        if a not in others or b not in others:
            continue
        there = two.pair_index(a, b)[0]
        for k, m in sources:
            was, now = int(one.pairs.verdict[row, k]), int(two.pairs.verdict[there, m])
            if was != now:
                rows.append((max(was, now), a, b, one.scene.sources.ids[k], was, now))
    rows.sort(key=lambda r: -r[0])
    return [
        VerdictChange(
            a=a, b=b, source=source, before=WORDS_BY_VALUE[was], after=WORDS_BY_VALUE[now]
        )
        for _, a, b, source, was, now in rows
    ]


def _words(
    one: Analysis, two: Analysis, largest: ArrivalChange | None, rows: list[VerdictChange]
) -> str:
    said = []
    if abs(two.scene.speed - one.scene.speed) > 0.005:
        said.append(f"Sound goes {two.scene.speed:.1f} m/s instead of {one.scene.speed:.1f}.")
    if largest and abs(largest.after_s - largest.before_s) > 5e-7:
        ms = (largest.after_s - largest.before_s) * 1e3
        way = "later" if ms > 0 else "earlier"
        said.append(
            f"Arrivals change by up to {abs(ms):.2f} ms ({largest.mic} hears the"
            f" {largest.source} that much {way})."
        )
    if rows:
        verb = "verdict turns" if len(rows) == 1 else "verdicts turn"
        named = "; ".join(
            f"{r.a} with {r.b} on {r.source} {r.before} → {r.after}" for r in rows[:NAMED]
        )
        more = ", and so on" if len(rows) > NAMED else ""
        said.append(f"{len(rows)} {verb} over: {named}{more}.")
    else:
        said.append("No verdict turns over.")
    return " ".join(said)
