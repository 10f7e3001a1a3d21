"""The five verdicts on two mics and a drum: their order, words and weights, and how one is reached.

In the order they are asked: no matter, ask the ear, hollow, late, together
(:mod:`ringside.pairs.analysis` says what each means)."""

from enum import IntEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats, Ints, Mask
from ringside.plan.layout import VerdictWord
from ringside.plan.thresholds import Thresholds


class Verdict(IntEnum):
    """Ordered by how much it wants attention."""

    NO_MATTER = 0
    TOGETHER = 1
    ASK_THE_EAR = 2
    LATE = 3
    HOLLOW = 4


VERDICT_WORDS: Final[dict[Verdict, VerdictWord]] = {
    Verdict.NO_MATTER: "no matter",
    Verdict.TOGETHER: "together",
    Verdict.ASK_THE_EAR: "ask the ear",
    Verdict.LATE: "late",
    Verdict.HOLLOW: "hollow",
}


WEIGHT: dict[Verdict, float] = {
    Verdict.NO_MATTER: 0.0, Verdict.TOGETHER: 0.0, Verdict.ASK_THE_EAR: 1.0, Verdict.LATE: 2.0,
    Verdict.HOLLOW: 4.0,
}  # fmt: skip
"""How much each verdict weighs when whole layouts are compared (from memory): hollow is heard
at once, late at the second look, and what the ear must be asked about may be nothing."""


def verdicts(
    limits: Thresholds,
    level: Floats,
    under: Floats,
    sign: Ints,
    gain: Floats,
    dips: Mask,
) -> NDArray[np.int8]:
    """The verdict on each pair and source; the first of no matter, ask, hollow, late that holds.

    Parameters
    ----------
    limits : Thresholds
    level, under, gain : ndarray, shape (P, S)
        Decibels: the difference of the two after gain, how far the louder lies under the drum's
        own mics, and what a flip would gain in body.
    sign : ndarray of int, shape (P, S)
        +1, -1, or 0 where it is unsure.
    dips : ndarray of bool, shape (P, S)
        A dip lies within the band the pair is judged in.

    Returns
    -------
    ndarray of int8, shape (P, S)
    """
    apart = (np.abs(level) >= limits.no_matter_level_db) | (under >= limits.carried_db)
    return np.select(
        [apart, sign == 0, gain >= limits.hollow_gain_db, dips],
        [Verdict.NO_MATTER, Verdict.ASK_THE_EAR, Verdict.HOLLOW, Verdict.LATE],
        Verdict.TOGETHER,
    ).astype(np.int8)


WORDS_BY_VALUE: Final[tuple[VerdictWord, ...]] = tuple(
    VERDICT_WORDS[v] for v in sorted(VERDICT_WORDS)
)
"""The words in the order of the numbers, because a table of them is made many times a second."""
