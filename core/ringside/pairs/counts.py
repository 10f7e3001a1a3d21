"""How the pairs of a layout stand, counted by their worst verdict."""

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import WORDS_BY_VALUE as BY_VALUE
from ringside.pairs.verdicts import Verdict


def counts(an: Analysis) -> dict[str, int]:
    """How many pairs have each verdict as their worst; decided pairs are counted apart."""
    worst = an.pairs.worst
    left = np.zeros(len(worst), bool)
    for d in an.layout.decisions:
        left[an.pair_index(d.a, d.b)[0]] = True
    left &= worst > Verdict.TOGETHER
    tally = np.bincount(worst[~left], minlength=len(BY_VALUE)).tolist()
    found = {word.replace(" ", "_"): n for word, n in zip(BY_VALUE, tally, strict=True)}
    return {**found, "left_on_purpose": int(left.sum())}
