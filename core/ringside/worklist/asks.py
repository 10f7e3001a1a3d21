"""What is done to know more, as lines: the tape, test hits, and deciding what nothing cures."""

from collections import Counter
from typing import Final

import numpy as np

from ringside.arrays import Mask
from ringside.pairs.analysis import Analysis
from ringside.pairs.decisions import decision_rows
from ringside.pairs.uncertainty import COVERAGE, deviation_s, tips
from ringside.pairs.verdicts import WORDS_BY_VALUE, Verdict, swing_db
from ringside.phrases import count_words, listed
from ringside.plan.spoken import the
from ringside.standing.stood import AsItStands
from ringside.takes.asking import EACH, PER_HIT_S
from ringside.worklist.lines import Surety
from ringside.worklist.state import State
from ringside.worklist.step import Step, left

READ_MIN: Final = 2.0
HITS_SET_UP_MIN: Final = 2.0
DECIDE_MIN: Final = 1.0
MOST_MEASURED: Final = 2
FIXED_BY: Final = 2
"""Readings that place a mic well enough: a third checks them."""


def tape(state: State) -> Step | None:
    """The two mics whose readings settle most of what is open; None where the tape settles none.

    A plan has nothing to read: only a layout that stands is open by its tape.

    Parameters
    ----------
    state : State

    Returns
    -------
    Step or None
    """
    an = state.an
    if an.doubt_m is None or not isinstance(an.layout, AsItStands):
        return None
    ids, p = [m.id for m in an.layout.mics], an.pairs
    read = Counter(r.a for r in an.layout.stood.readings if not r.at_kit)
    away = left(state.layout, "tape")
    open_now = _open(an)
    before = _tips_with(an, np.zeros(len(ids), bool)) & open_now
    gains = []
    for i in range(len(ids)):
        own = (p.first == i) | (p.second == i)
        if before[own].any() and read[ids[i]] < FIXED_BY:
            known = np.zeros(len(ids), bool)
            known[i] = True
            settled = int((before & ~_tips_with(an, known)).any(axis=1).sum())
            gains.append((settled, float(an.doubt_m[own].mean()), i))
    best = sorted(gains, key=lambda g: (-g[0], -g[1], g[2]))
    mics = [i for _, _, i in best[:MOST_MEASURED]]
    if not mics:
        return None
    known = np.isin(np.arange(len(ids)), mics)
    settled = int((before & ~_tips_with(an, known)).any(axis=1).sum())
    names = tuple(ids[i] for i in mics)
    if settled == 0 or frozenset(names) in away:
        return None
    return Step(
        kind="tape",
        of=names,
        words=f"Measure {listed(names)} with the tape.",
        because="tape before moving",
        minutes=READ_MIN * len(names),
        drummer="stops",
        cost="the tape; the drummer stops",
        sure_words=f"It settles {count_words(settled, 'verdict')} that the tape leaves open.",
        settles=settled,
    )


def _tips_with(an: Analysis, measured: Mask) -> Mask:
    """Verdicts that could tip, (P, S), were some mics read with the tape."""
    p, limits = an.pairs, an.layout.thresholds
    whole = deviation_s(an)
    if measured.any() and an.doubt_m is not None:
        tape_s = np.sqrt(2) * limits.tape_error_m / an.scene.speed
        was = an.doubt_m / an.scene.speed
        # Of two mics, the one that is read leaves the doubt of the other.
        share = 1.0 - 0.5 * (measured[p.first].astype(float) + measured[p.second])
        rest = np.maximum(was * np.sqrt(share)[:, None], np.minimum(was, tape_s))
        whole = np.sqrt(np.maximum(whole**2 - was**2, 0.0) + rest**2)
    return np.asarray(tips(an, COVERAGE * whole) != p.verdict)


def _open(an: Analysis) -> Mask:
    """The drums that decide each pair's worst verdict, (P, S)."""
    p = an.pairs
    worst = np.zeros(p.verdict.shape, bool)
    worst[np.arange(len(worst)), an.worst_source] = True
    return np.asarray(p.counts & worst)


def hits(state: State) -> Step | None:
    """One line for all that only hits can tell; None where nothing is open.

    Parameters
    ----------
    state : State

    Returns
    -------
    Step or None
    """
    an = state.an
    p, s = an.pairs, an.scene.sources
    ask = p.counts & (p.verdict == Verdict.ASK_THE_EAR) & s.drum
    away = frozenset().union(*left(state.layout, "hits"))
    drums = [k for k in np.flatnonzero(ask.any(axis=0)) if s.ids[k] not in away]
    drums.sort(key=lambda k: (-int(ask[:, k].sum()), int(k)))
    if not drums:
        return None
    pairs = int(ask[:, drums].any(axis=1).sum())
    count = EACH * len(drums)
    names = listed([the(s.names[k]) for k in drums])
    return Step(
        kind="hits",
        of=tuple(s.ids[k] for k in drums),
        words=f"Ask for {EACH} hits on {'each of ' if len(drums) > 1 else ''}{names}.",
        because="unsure to the ear",
        minutes=round(HITS_SET_UP_MIN + count * PER_HIT_S / 60, 1),
        drummer="hits",
        cost=f"the drummer plays {count} single hits; nobody leans over the kit",
        sure_words=f"It settles {count_words(pairs, 'pair')} whose sign no plan can know.",
        settles=pairs,
    )


def decide(state: State) -> Step | None:
    """The gravest pair that nothing on the list cures, or a decision to be looked at again.

    Parameters
    ----------
    state : State

    Returns
    -------
    Step or None
    """
    an = state.an
    p, ids, s = an.pairs, [m.id for m in an.layout.mics], an.scene.sources
    away = left(state.layout, "decide")
    for d in decision_rows(an):
        if d.stale and frozenset((d.a, d.b, d.source)) not in away:
            words = f"Look again at {d.a} and {d.b} on {d.source}. {d.words}"
            return _decision((d.a, d.b, d.source), words, "sure", "Decided on other numbers.")
    settled = {frozenset((d.a, d.b, d.source)) for d in an.layout.decisions} | {*away}
    open_rows = []
    for row in np.flatnonzero(p.worst >= Verdict.LATE):
        k = int(an.worst_source[row])
        of = (ids[p.first[row]], ids[p.second[row]], s.ids[k])
        if frozenset(of) not in settled:
            open_rows.append((int(p.worst[row]), float(swing_db(p.share[row, k])), of, k))
    if not open_rows:
        return None
    verdict, takes, of, k = max(open_rows, key=lambda r: (r[0], round(r[1], 2)))
    more = len(open_rows) - 1
    rest = f" {count_words(more, 'other pair')} after it." if more else ""
    word, drum = WORDS_BY_VALUE[verdict], the(s.names[k])
    words = f"Decide on {of[0]} and {of[1]}, {word} on {drum}, and say why.{rest}"
    told = f"In this balance the two can take {takes:.1f} dB from {drum}."
    return _decision(of, words, "sure", told)


def _decision(of: tuple[str, str, str], words: str, sure: Surety, told: str) -> Step:
    return Step(
        kind="decide",
        of=of,
        words=words,
        because="nothing better",
        minutes=DECIDE_MIN,
        cost="nobody; a reason in a line",
        sure=sure,
        sure_words=told,
    )
