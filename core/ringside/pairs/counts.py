"""How the pairs of a layout stand, counted by their worst verdict."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import Verdict

RULES: Final = 4
"""Counted up whenever the same layout gets another verdict than before, so that what was
counted by older rules is known for it and counted anew."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Counts:
    """Pairs by their worst verdict; those left on purpose are counted apart."""

    no_matter: int
    behind: int
    together: int
    ask_the_ear: int
    late: int
    hollow: int
    left_on_purpose: int


def counts(an: Analysis) -> Counts:
    """How many pairs have each verdict as their worst; decided pairs are counted apart.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    Counts
    """
    worst = an.pairs.worst
    left = np.zeros(len(worst), bool)
    for d in an.layout.decisions:
        left[an.pair_index(d.a, d.b)[0]] = True
    left &= worst > Verdict.TOGETHER
    tally = np.bincount(worst[~left], minlength=len(Verdict)).tolist()
    return Counts(
        no_matter=tally[Verdict.NO_MATTER],
        behind=tally[Verdict.BEHIND],
        together=tally[Verdict.TOGETHER],
        ask_the_ear=tally[Verdict.ASK_THE_EAR],
        late=tally[Verdict.LATE],
        hollow=tally[Verdict.HOLLOW],
        left_on_purpose=int(left.sum()),
    )
