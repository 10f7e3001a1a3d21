"""What a change of a layout does to its pairs, by their worst verdicts."""

from dataclasses import dataclass

import numpy as np

from ringside.arrays import Mask
from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import WORDS_BY_VALUE
from ringside.plan.layout import VerdictWord


@dataclass(frozen=True, kw_only=True, slots=True)
class EffectRow:
    """What becomes of another pair, by its worst verdict."""

    a: str
    b: str
    source: str
    before: VerdictWord
    after: VerdictWord


def effect_rows(an: Analysis, after: Analysis, which: Mask) -> list[EffectRow]:
    """Pairs with their worst verdict before and after a change.

    Parameters
    ----------
    an, after : Analysis
        Of the same mics.
    which : ndarray of bool, shape (P,)
        The pairs that are told.

    Returns
    -------
    list of EffectRow
        In the order of the pairs, each on the drum that is worst in the graver of the two.
    """
    ids, p = [m.id for m in an.layout.mics], an.pairs
    names = an.scene.sources.ids
    rows = []
    for r in np.flatnonzero(which):
        worse = after if after.pairs.worst[r] > p.worst[r] else an
        rows.append(
            EffectRow(
                a=ids[p.first[r]],
                b=ids[p.second[r]],
                source=names[worse.worst_source[r]],
                before=WORDS_BY_VALUE[int(p.worst[r])],
                after=WORDS_BY_VALUE[int(after.pairs.worst[r])],
            )
        )
    return rows
