"""Decisions to leave a pair, held against the pair as it stands now.

A decision is made on numbers. When the layout later changes under it, so that the verdict is
another or the arrival difference has left its interval, it is flagged: somebody has to look
again. Decisions from before numbers were kept with them can only be flagged by nothing.
"""

from dataclasses import dataclass

from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import COVERAGE, deviation_s
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict


@dataclass(frozen=True, kw_only=True, slots=True)
class DecisionRow:
    """A decision held against the pair as it stands now."""

    a: str
    b: str
    source: str
    stale: bool
    words: str


def decision_rows(an: Analysis) -> list[DecisionRow]:
    """Every decision in the layout's order.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    list of DecisionRow
    """
    if not an.layout.decisions:
        return []
    sure = deviation_s(an)
    rows = []
    for d in an.layout.decisions:
        row, turned = an.pair_index(d.a, d.b)
        k = an.scene.sources.ids.index(d.source)
        now = VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, k]))]
        delay = (-1 if turned else 1) * float(an.pairs.delay_s[row, k])
        words = ""
        # What the balance does not let anybody hear is nothing to look at again.
        if d.stood is not None and an.pairs.verdict[row, k] != Verdict.NO_MATTER:
            away = abs(delay - d.stood.delay_s)
            if now != d.stood.verdict:
                words = f"It was {d.stood.verdict} when it was left; now it is {now}. Look again."
            elif away > COVERAGE * float(sure[row, k]):
                words = (
                    f"It was left at {d.stood.delay_s * 1e3:+z.2f} ms; now it is"
                    f" {delay * 1e3:+z.2f} ms. Look again."
                )
        rows.append(DecisionRow(a=d.a, b=d.b, source=d.source, stale=bool(words), words=words))
    return rows
