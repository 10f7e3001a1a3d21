"""What can be done about a pair on a drum, each with what it does to every other pair.

Flips, moves (round the ring, to the same height on it, to the snare's sphere, along the line
to the drum), and delays put on a track after recording. Every remedy is tried on the whole
layout and all pairs are judged anew; nothing is taken from the pair alone.

What a stereo pair keeps equal, on the snare and the kick, is not given up for a single drum: a
remedy that would comes after those that would not (common practice).

Two schools (common practice): placed until it is in phase, or aligned after recording. Of
remedies that do as much, the one of the layout's school comes first.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.pairs.effects import EffectRow, effect_rows
from ringside.pairs.keeping import pair_broken
from ringside.pairs.trade import switch_cost
from ringside.pairs.uncertainty import COVERAGE, deviation_s
from ringside.pairs.verdicts import WEIGHT, WORDS_BY_VALUE, Verdict
from ringside.places.clearance import words_for_all
from ringside.places.steps import StandStep, stand_steps
from ringside.plan.channels import Channel
from ringside.plan.hanging import with_channels, with_mics
from ringside.plan.layout import Layout, VerdictWord
from ringside.plan.mics import Mic
from ringside.plan.questions import Timing
from ringside.standing.stood import analysed
from ringside.worklist.cures import (
    Remedy,
    RemedyKind,
    delays_of,
    equal_places,
    flips_of,
    lines_of,
    worth_making,
)

SAME_DB: Final = 0.5
SAME_SPOT_M: Final = 0.003
A_STAND: Final = 10.0
"""Moving one costs more than any switch (from memory)."""


@dataclass(frozen=True, kw_only=True, slots=True)
class RemedyRow:
    """One thing to do, tried on the whole layout; the pair as it would be then."""

    kind: RemedyKind
    words: str
    mics: list[Mic]
    channels: list[Channel]
    """Both as they would be; a move changes mics, a flip or a delay their channels."""
    verdict: VerdictWord
    delay_s: float
    body_db: float
    body_gain_db: float | None
    """None while a sign is unsure."""
    own: float
    """By weight of verdict for this pair; below zero is better."""
    score: float
    """The same over all pairs."""
    improves: list[EffectRow]
    spoils: list[EffectRow]
    steps: list[StandStep]
    blocked: str
    """What stands in the way, in words; empty when nothing does."""
    breaks: str
    """Which stereo pair would no longer keep what it keeps, in words; empty when none would."""


@dataclass(frozen=True, kw_only=True, slots=True)
class PairRemedies:
    """Everything that could be done about a pair on a drum, the best first."""

    a: str
    b: str
    source: str
    verdict: VerdictWord
    school: Timing
    remedies: list[RemedyRow]
    words: str


def remedies(an: Analysis, a: str, b: str, source: str | None = None) -> PairRemedies:
    """Everything that could be done about a pair on a drum, the best first.

    Parameters
    ----------
    a, b : str
        The mic that stands and the one that rather moves.
    source : str, optional
        The drum; the pair's worst when not given.

    Returns
    -------
    PairRemedies

    Raises
    ------
    RingsideError
        When a mic or the source is not there.
    """
    row, turned, k = an.find(a, b, source)
    layout, p = an.layout, an.pairs
    delay = (-1 if turned else 1) * float(p.delay_s[row, k])
    # What is nearer than half the interval is as good as at once.
    off = delay if abs(delay) > COVERAGE * float(deviation_s(an)[row, k]) else None
    one, two = layout.mic(a), layout.mic(b)
    every = [
        *flips_of(layout, one, two), *equal_places(an, one, two), *lines_of(an, one, two, k, off),
        *delays_of(layout, one, two, off),
    ]  # fmt: skip
    rows = [_tried(an, r, row, k) for r in every if worth_making(layout, r)]
    rows = _without_twins(rows)
    rows.sort(key=lambda r: _rank(r, layout))
    return PairRemedies(
        a=a,
        b=b,
        source=an.scene.sources.ids[k],
        verdict=_word(an.pairs.verdict[row, k]),
        school=layout.school,
        remedies=rows,
        words=_summary(an, row, k, rows),
    )


def _word(verdict: int) -> VerdictWord:
    return WORDS_BY_VALUE[int(verdict)]


def _without_twins(rows: list[RemedyRow]) -> list[RemedyRow]:
    """Two moves that end within millimetres of each other are one."""
    kept: list[RemedyRow] = []
    for r in rows:
        if not any(_same_move(k, r) for k in kept):
            kept.append(r)
    return kept


def _same_move(one: RemedyRow, two: RemedyRow) -> bool:
    if not one.mics or not two.mics:
        return False
    a, b = one.mics[0], two.mics[0]
    apart = float(np.linalg.norm(np.subtract(a.position_m, b.position_m)))
    return a.id == b.id and apart < SAME_SPOT_M


def _tried(an: Analysis, r: Remedy, row: int, k: int) -> RemedyRow:
    layout = with_channels(with_mics(an.layout, r.mics), r.channels)
    after = analysed(layout)
    was, now = an.pairs.worst, after.pairs.worst
    weight = np.array([WEIGHT[v] for v in sorted(WEIGHT)])
    change = weight[now] - weight[was]
    blocked = ""
    steps: list[StandStep] = []
    if r.mics:
        mic = r.mics[0]
        blocked = words_for_all([mic.position_m], layout)[0]
        steps = stand_steps(an.layout, mic.id, mic.position_m)
    own = weight[after.pairs.verdict[row, k]] - weight[an.pairs.verdict[row, k]]
    return RemedyRow(
        kind=r.kind,
        words=r.words,
        mics=list(r.mics),
        channels=list(r.channels),
        verdict=_word(after.pairs.verdict[row, k]),
        delay_s=float(after.pairs.delay_s[row, k]),
        body_db=float(after.pairs.body_db[row, k]),
        body_gain_db=_body_gain(an, after, row, k),
        own=float(own),
        score=float(change.sum()),
        improves=effect_rows(an, after, change < 0),
        spoils=effect_rows(an, after, change > 0),
        steps=steps,
        blocked=blocked,
        breaks=pair_broken(an, after, r.of),
    )


def _body_gain(an: Analysis, after: Analysis, row: int, k: int) -> float | None:
    """What the pair's own body gains, decibels; None while a sign is unsure."""
    if an.pairs.sign[row, k] == 0 or after.pairs.sign[row, k] == 0:
        return None
    return float(after.pairs.body_db[row, k] - an.pairs.body_db[row, k])


def _rank(row: RemedyRow, layout: Layout) -> tuple[float, ...]:
    later = {"placed": "delay", "aligned": "move"}[layout.school]
    turned = {c.mic for c in row.channels} if row.kind == "flip" else set[str]()
    kind = row.kind if row.kind in ("flip", "delay") else "move"
    return (
        1.0 if row.blocked else 0.0,
        1.0 if row.breaks else 0.0,  # what a stereo pair keeps equal goes before any single drum
        max(row.own, 0.0),  # what makes this very pair worse is no remedy for it
        row.score,
        1.0 if kind == later else 0.0,
        # A flip before a move, and the cheaper of two switches (ringside.pairs.trade).
        A_STAND if row.mics else sum(switch_cost(layout, layout.mic(m)) for m in turned),
        -round((row.body_gain_db or 0.0) / SAME_DB),
        sum(s.metres for s in row.steps),
    )


def _summary(an: Analysis, row: int, k: int, rows: list[RemedyRow]) -> str:
    verdict = Verdict(int(an.pairs.verdict[row, k]))
    if verdict == Verdict.NO_MATTER:
        return "Nothing to cure: in this balance nobody hears what the two do to each other."
    if verdict == Verdict.BEHIND:
        return "Nothing to cure: it is further away on purpose. What follows is for the curious."
    if verdict == Verdict.TOGETHER:
        return "Nothing to cure; what follows is for the curious."
    if verdict == Verdict.ASK_THE_EAR:
        return "The sign is unsure: try what is said beside it, and leave the answer with a reason."
    if rows and rows[0].score < 0 and rows[0].own <= 0 and not rows[0].blocked:
        return f"{rows[0].words} It does the most good over all pairs."
    if rows and rows[0].own < 0 and not rows[0].blocked:
        return (
            f"{rows[0].words} It cures this pair and does others as much harm;"
            " look at the best set of flips."
        )
    return "No single step makes the whole better. Leaving it with a reason is an answer too."
