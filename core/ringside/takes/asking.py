"""Which hits to ask the drummer for: those that settle what the plan leaves open.

Every drum is worth hitting once, for the arrival at each mic; those come first on which a verdict
that counts is "ask the ear", or stands so near its limit that it may be another.
"""

from collections.abc import Collection
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import tips
from ringside.pairs.verdicts import Verdict
from ringside.takes.judged import Judged

EACH: Final = 5
"""Hits on each drum: enough to see that they agree (common practice)."""

APART_S: Final = 2.0
"""From hit to hit: a floor tom has died away."""

FEWEST_DRUMS: Final = 3
"""A mic is placed by as many drums at least."""

PER_HIT_S: Final = 3.0


@dataclass(frozen=True, slots=True)
class HitsWanted:
    """Hits to play on one drum."""

    source: str
    name: str
    hits: int
    settles: int
    """Verdicts that count and are open on it."""
    words: str


@dataclass(frozen=True, slots=True)
class HitList:
    """What to play, in order, and for how long it takes."""

    rows: list[HitsWanted]
    minutes: float
    words: str
    caution: str


CAUTION: Final = (
    "Ears are in danger beside a drum: nobody leans over the kit while it is played. Monitors and"
    " talkback down before the first hit."
)


NO_PAIR: Final = "Nothing to play: hits settle what two mics are to each other. Place two first."


def hits_wanted(an: Analysis, had: Judged | None = None) -> HitList:
    """What to ask the drummer for.

    Parameters
    ----------
    an : Analysis
    had : Judged, optional
        What a take of this layout has settled already.

    Returns
    -------
    HitList
        The drums that settle most first; short of those that a take has settled.
    """
    p, s = an.pairs, an.scene.sources
    if not len(p.first):
        return HitList([], 0.0, NO_PAIR, "")
    other = tips(an)
    open_now = p.counts & ((p.verdict == Verdict.ASK_THE_EAR) | (other != p.verdict))
    open_now = open_now & s.drum
    done: Collection[int] = ()
    if had is not None:
        done = [d.source for d in had.take.drums]
        for n, k in enumerate(done):
            open_now[:, k] &= ~(had.there[:, n] & had.sure[:, n])
    settles = open_now.sum(axis=0)
    left = [int(k) for k in np.flatnonzero(s.drum) if k not in done or settles[k]]
    left.sort(key=lambda k: (-int(settles[k]), k))
    rows = [_row(an, k, int(settles[k])) for k in left]
    count = sum(r.hits for r in rows)
    words = _words(rows, had is not None)
    return HitList(rows, round((count * PER_HIT_S) / 60, 1), words, CAUTION if rows else "")


def _row(an: Analysis, k: int, settles: int) -> HitsWanted:
    name = an.scene.sources.names[k]
    what = {0: "for the arrivals at every mic", 1: "settles one open verdict"}
    words = what.get(settles, f"settles {settles} open verdicts")
    return HitsWanted(an.scene.sources.ids[k], name, EACH, settles, words)


def _words(rows: list[HitsWanted], some: bool) -> str:
    if not rows:
        return "Nothing more to play: what was hit settles all that was open."
    start = "Still to play" if some else "Play"
    names = ", ".join(r.name for r in rows)
    return (
        f"{start}: {EACH} single hits on each of {names}; even, as loud as in the song, about"
        f" {APART_S:g} s apart, and let each ring out. Snare wires on. Nothing else sounds."
    )
