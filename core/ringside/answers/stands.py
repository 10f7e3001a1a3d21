"""Planned against as it stands: which verdicts are others now, and which the tape leaves open."""

from dataclasses import dataclass

from ringside.answers.rows import Sure
from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import WORDS_BY_VALUE, Verdict
from ringside.plan.layout import VerdictWord


@dataclass(frozen=True, kw_only=True, slots=True)
class PairStands:
    """One pair on the drum that is worst for it as it stands."""

    a: str
    b: str
    source: str
    planned: VerdictWord
    stands: VerdictWord
    could: VerdictWord | None
    """What it may be within its interval; None where nothing else."""
    delay_ms: float
    """As it stands: above zero `b` is later."""
    half_ms: float
    """Half of the interval."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Compared:
    """Every pair whose verdict has changed or is not sure, and how many of which."""

    pairs: list[PairStands]
    changed: int
    open: int
    words: str


def compared(planned: Analysis, stands: Analysis) -> Compared:
    """Verdicts as planned beside those as it stands.

    Parameters
    ----------
    planned, stands : Analysis
        Of the same mics and kit.

    Returns
    -------
    Compared
    """
    sure = Sure.of(stands)
    ids, s, p = [m.id for m in stands.layout.mics], stands.scene.sources, stands.pairs
    rows, changed, unsure = [], 0, 0
    for row in range(len(p.first)):
        k = int(stands.worst_source[row])
        was = int(planned.pairs.verdict[row, k])
        now, could = int(p.verdict[row, k]), int(sure.tips[row, k])
        other = max(was, now) > Verdict.TOGETHER and was != now
        tips = could != now
        if not (other or tips):
            continue
        changed, unsure = changed + other, unsure + tips
        rows.append(
            PairStands(
                a=ids[p.first[row]],
                b=ids[p.second[row]],
                source=s.ids[k],
                planned=WORDS_BY_VALUE[was],
                stands=WORDS_BY_VALUE[now],
                could=WORDS_BY_VALUE[could] if tips else None,
                delay_ms=round(float(p.delay_s[row, k]) * 1e3, 3),
                half_ms=round(float(sure.half_s[row, k]) * 1e3, 3),
            )
        )
    rows.sort(key=lambda r: (r.planned == r.stands, r.a, r.b))
    return Compared(pairs=rows, changed=changed, open=unsure, words=counted_words(changed, unsure))


def counted_words(changed: int, unsure: int) -> str:
    """How many pairs are judged otherwise, and how many are not sure.

    Parameters
    ----------
    changed, unsure : int

    Returns
    -------
    str
    """
    if not changed and not unsure:
        return "Every verdict stands as planned, and sure."
    said = []
    if changed:
        are = "pairs are" if changed > 1 else "pair is"
        said.append(f"{changed} {are} judged otherwise than planned")
    if unsure:
        said.append(f"{unsure} {'are' if unsure > 1 else 'is'} not sure by what was read so far")
    words = "; ".join(said)
    return f"{words[0].upper()}{words[1:]}."
