"""What a stereo pair keeps: as far from snare and kick, pushed the same way, one picture."""

from collections.abc import Set
from typing import Final

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.plan.feeds import feed
from ringside.plan.layout import StereoPair
from ringside.plan.spoken import the

EQUAL_S: Final = 6e-5
"""Arrivals nearer than this are kept equal: two centimetres of tape (common practice)."""


def pair_broken(before: Analysis, after: Analysis, changed: Set[str]) -> str:
    """Which stereo pair with a changed mic would no longer keep what it keeps, in words.

    Parameters
    ----------
    before, after : Analysis
        Of the same mics and kit.
    changed : set of str
        Short names of the mics that are not as before.

    Returns
    -------
    str
        Empty when none would.
    """
    for pair in before.layout.stereo_pairs:
        if pair.coding == "left-right" and changed & {pair.left, pair.right}:
            said = _turned_over(before, after, pair) or _put_apart(before, after, pair)
            if said:
                return said
    return ""


def _turned_over(before: Analysis, after: Analysis, pair: StereoPair) -> str:
    was, now = (
        feed(a.layout, pair.left).switch_sign == feed(a.layout, pair.right).switch_sign
        for a in (before, after)
    )
    return f"{pair.name} would push opposite ways." if was and not now else ""


def _put_apart(before: Analysis, after: Analysis, pair: StereoPair) -> str:
    row, _ = before.pair_index(pair.left, pair.right)
    s = before.scene.sources
    was, now = (np.abs(a.pairs.delay_s[row]) for a in (before, after))
    lost = s.reference & (was <= EQUAL_S) & (now > EQUAL_S)
    if not lost.any():
        return ""
    drums = " and ".join(the(s.names[k]) for k in np.flatnonzero(lost))
    return f"{pair.name} would no longer be equal on {drums}."
