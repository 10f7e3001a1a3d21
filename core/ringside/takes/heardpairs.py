"""Pairs as the hits have them, beside as they were planned and as they stand by the tape."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from ringside.pairs.uncertainty import COVERAGE
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.plan.layout import VerdictWord
from ringside.standing.stood import AsItStands, analysed
from ringside.takes.judged import Judged
from ringside.takes.places import known_of


@dataclass(frozen=True, slots=True)
class PairTold:
    """A pair on a drum, as measured beside as planned."""

    a: str
    b: str
    source: str
    planned: VerdictWord
    measured: VerdictWord
    sure: bool
    settled: bool
    """The plan asked the ear; the hits answer."""
    counts: bool
    """It is what the two are put up for."""
    why: str
    delay_ms: float | None
    interval_ms: float | None
    planned_delay_ms: float
    gain_db: float
    gain_interval_db: float
    planned_gain_db: float
    wired_db: list[float]
    """The sum against the louder alone: body, attack, air."""
    flipped_db: list[float]
    level_db: float
    alike: float
    stands: VerdictWord | None
    """As it stands by the tape; None where no tape was held at either."""


Stands = Callable[[int, int], VerdictWord | None]


def _as_they_stand(stands: AsItStands | None) -> Stands:
    """The verdict of a pair on a source by the tape, both by number."""
    if stands is None:
        return lambda row, k: None
    an = analysed(stands)
    read = [known_of(stands, m.id) is not None for m in stands.mics]
    p = an.pairs

    def told(row: int, k: int) -> VerdictWord | None:
        if not (read[p.first[row]] or read[p.second[row]]):
            return None
        return VERDICT_WORDS[Verdict(p.verdict[row, k])]

    return told


def pairs_told(seen: Judged, stands: AsItStands | None) -> list[PairTold]:
    """Every pair on every drum that was hit, as far as it counts or wants attention.

    Parameters
    ----------
    seen : Judged
    stands : AsItStands or None
        The layout as the tape has it.

    Returns
    -------
    list of PairTold
    """
    by_tape = _as_they_stand(stands)
    take, an = seen.take, seen.take.analysis
    p, ids = an.pairs, [m.id for m in an.layout.mics]
    grave = (Verdict.HOLLOW, Verdict.LATE)
    made = []
    for n, d in enumerate(take.drums):
        k = d.source
        for row in np.flatnonzero(seen.there[:, n]):
            counts = bool(p.counts[row, k])
            if not counts and seen.verdict[row, n] not in grave:
                continue
            made.append(_pair(seen, int(row), n, ids, counts, by_tape(int(row), k)))
    return made


def _pair(
    seen: Judged, row: int, n: int, ids: Sequence[str], counts: bool, stands: VerdictWord | None
) -> PairTold:
    an = seen.take.analysis
    p, k, hits = an.pairs, seen.take.drums[n].source, seen.take.drums[n].hits
    planned, measured = Verdict(p.verdict[row, k]), Verdict(seen.verdict[row, n])
    known = bool(np.isfinite(seen.delay_s[row, n]))
    sure = bool(seen.sure[row, n])
    ear = Verdict.ASK_THE_EAR
    why = ""
    if seen.time_missing[row, n]:
        why = "When it arrives was refused, and the verdict hangs on it."
    elif not sure:
        why = "The hits differ: within their spread the verdict is another."
    return PairTold(
        a=ids[p.first[row]], b=ids[p.second[row]], source=an.scene.sources.ids[k],
        planned=VERDICT_WORDS[planned], measured=VERDICT_WORDS[measured], sure=sure,
        settled=planned == ear and sure and measured != ear, counts=counts, why=why,
        delay_ms=_ms(seen.delay_s[row, n]) if known else None,
        interval_ms=_ms(COVERAGE * seen.deviation_s[row, n]) if known else None,
        planned_delay_ms=_ms(p.delay_s[row, k]),
        gain_db=round(float(seen.gain_db[row, n]), 2),
        gain_interval_db=round(COVERAGE * float(seen.gain_spread_db[row, n]) / np.sqrt(hits), 2),
        planned_gain_db=round(float(p.flipped_body_db[row, k] - p.body_db[row, k]), 2),
        wired_db=[round(float(v), 2) for v in seen.sums_db[0, :, row, n]],
        flipped_db=[round(float(v), 2) for v in seen.sums_db[1, :, row, n]],
        level_db=round(float(seen.level_difference_db[row, n]), 2),
        alike=round(float(seen.alike[row, n]), 3), stands=stands,
    )  # fmt: skip


def _ms(seconds: float) -> float:
    return round(float(seconds) * 1e3, 4)
