"""How long a layout takes to put up: one rule for the brief, the locker and the set-up list.

Each technique has the minutes a practised pair of hands takes for it at the usual pace; the locker
says how long a mic takes its own hands. A mic that is of no technique takes as long as that.
"""

from typing import Final

from ringside.gear.locker import USUAL_MIN_PER_MIC, Locker
from ringside.plan.layout import Layout
from ringside.techniques.catalogue import TECHNIQUES

SETTING_OUT_MIN: Final = 8.0
"""Cables, lines and a first look, whatever the layout (from memory)."""


def pace(locker: Locker | None) -> float:
    """By how much these hands are slower than usual.

    Parameters
    ----------
    locker : Locker or None
        The usual pace where there is none.

    Returns
    -------
    float
    """
    return locker.minutes_per_mic / USUAL_MIN_PER_MIC if locker else 1.0


def minutes_each(layout: Layout, locker: Locker | None) -> dict[str, float]:
    """What each mic takes to put up, its share of cables and lines included.

    Parameters
    ----------
    layout : Layout
    locker : Locker or None

    Returns
    -------
    dict of str to float
        Minutes by mic; of a technique all its mics take the same.
    """
    slower = pace(locker)
    lines = SETTING_OUT_MIN / max(len(layout.mics), 1)
    each = {m.id: USUAL_MIN_PER_MIC * slower + lines for m in layout.mics}
    for kept in layout.techniques:
        known = TECHNIQUES.get(kept.technique)
        if known:
            share = known.minutes * slower / known.mics + lines
            each.update({m: share for m in kept.mics if m in each})
    return each


def minutes_in_all(layout: Layout, locker: Locker | None) -> int:
    """What a whole layout takes to put up.

    Parameters
    ----------
    layout : Layout
    locker : Locker or None

    Returns
    -------
    int
        Minutes; none where there is no mic.
    """
    return round(sum(minutes_each(layout, locker).values()))
