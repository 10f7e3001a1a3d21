"""Rows that report, board and table share: one pair on one drum, one source, one flip."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.answers.sentences import verdict_words
from ringside.arrays import Floats
from ringside.hear.arrivals import Arrivals
from ringside.pairs.analysis import Analysis, Pairs, flipped
from ringside.pairs.uncertainty import COVERAGE, deviation_s, tips
from ringside.pairs.verdicts import WORDS_BY_VALUE, Verdict
from ringside.plan.layout import VerdictWord

DIFFERS_M: Final = 0.01
"""Tape and air are told side by side from this difference on."""


@dataclass(frozen=True, slots=True)
class Sure:
    """How sure an analysis is: half an interval of every Δt, and what a verdict could tip to."""

    half_s: Floats  # (P, S)
    tips: np.ndarray  # (P, S) verdicts

    @staticmethod
    def of(an: Analysis) -> "Sure":
        """Computed once for all rows.

        Parameters
        ----------
        an : Analysis

        Returns
        -------
        Sure
        """
        half = COVERAGE * deviation_s(an)
        return Sure(half, tips(an, half))


@dataclass(frozen=True, kw_only=True, slots=True)
class PairRow:
    """One pair on one source; see docs/formats/report.md."""

    a: str
    b: str
    source: str
    tape_a_m: float
    tape_b_m: float
    tape_difference_m: float
    path_a_m: float
    path_b_m: float
    delay_s: float
    delay_samples: float
    level_difference_db: float
    sign: int
    first_dip_hz: float | None
    body_db: float
    flipped_body_db: float
    verdict: VerdictWord
    words: str
    interval_s: float
    could_tip: VerdictWord | None
    path_differs_a: bool
    path_differs_b: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class SourceRow:
    """A drum or cymbal with the bands it is judged in, hertz."""

    id: str
    name: str
    fundamental_hz: float
    body_low_hz: float
    body_high_hz: float
    punch_high_hz: float
    attack_high_hz: float


@dataclass(frozen=True, kw_only=True, slots=True)
class FlipEffect:
    """What one flip does to all pairs, by worst verdict."""

    mic: str
    hollow_before: int
    hollow_after: int
    cures: list[str]
    spoils: list[str]


def pair_row(an: Analysis, row: int, source: int, sure: Sure, turned: bool = False) -> PairRow:
    """One pair on one source, with its sentence.

    Parameters
    ----------
    row, source : int
        The pair and the source by number.
    sure : Sure
        Of this analysis.
    turned : bool
        The second mic is named first.

    Returns
    -------
    PairRow
    """
    p, heard = an.pairs, an.arrivals
    i, j = int(p.first[row]), int(p.second[row])
    way = -1.0 if turned else 1.0
    if turned:
        i, j = j, i
    delay = way * float(p.delay_s[row, source])
    dip = float(p.dip_hz[row, source])
    return PairRow(
        a=an.layout.mics[i].id,
        b=an.layout.mics[j].id,
        source=an.scene.sources.ids[source],
        tape_a_m=float(heard.tape_m[i, source]),
        tape_b_m=float(heard.tape_m[j, source]),
        tape_difference_m=way * float(p.tape_difference_m[row, source]),
        path_a_m=float(heard.path_m[i, source]),
        path_b_m=float(heard.path_m[j, source]),
        delay_s=delay,
        delay_samples=delay * an.layout.sample_rate_hz,
        level_difference_db=way * float(p.level_difference_db[row, source]),
        sign=int(p.sign[row, source]),
        first_dip_hz=dip if np.isfinite(dip) else None,
        body_db=float(p.body_db[row, source]),
        flipped_body_db=float(p.flipped_body_db[row, source]),
        verdict=WORDS_BY_VALUE[int(p.verdict[row, source])],
        words=verdict_words(an, row, source),
        interval_s=float(sure.half_s[row, source]),
        could_tip=_tip(p, sure, row, source),
        path_differs_a=_differs(heard, i, source),
        path_differs_b=_differs(heard, j, source),
    )


def pair_rows(an: Analysis, source: str | None = None) -> list[PairRow]:
    """Every pair on its worst source, or all on one, in the order of the grid.

    Parameters
    ----------
    an : Analysis
    source : str or None
        Short name of a drum or cymbal; the worst one of the pair where it is left
        out.

    Returns
    -------
    list of PairRow

    Raises
    ------
    RingsideError
        When the source is not in the kit.
    """
    sure = Sure.of(an)
    one = None if source is None else an.source_index(source)
    return [
        pair_row(an, r, int(an.worst_source[r]) if one is None else one, sure)
        for r in range(len(an.pairs.first))
    ]


def _tip(p: Pairs, sure: Sure, row: int, source: int) -> VerdictWord | None:
    """What a verdict could tip to within its interval; None when it holds."""
    other = int(sure.tips[row, source])
    return WORDS_BY_VALUE[other] if other != int(p.verdict[row, source]) else None


def _differs(heard: Arrivals, mic: int, source: int) -> bool:
    return bool(abs(heard.path_m[mic, source] - heard.tape_m[mic, source]) > DIFFERS_M)


def source_rows(an: Analysis) -> list[SourceRow]:
    """The sources with the bands they are judged in.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    list of SourceRow
    """
    s = an.scene.sources
    return [
        SourceRow(
            id=s.ids[k],
            name=s.names[k],
            fundamental_hz=b.fundamental,
            body_low_hz=b.body_low,
            body_high_hz=b.body_high,
            punch_high_hz=b.punch_high,
            attack_high_hz=b.attack_high,
        )
        for k, b in enumerate(s.bands)
    ]


def flip_effect(an: Analysis, mic: int) -> FlipEffect:
    """What one flip of a mic, by number, would do to every pair.

    Parameters
    ----------
    an : Analysis
    mic : int
        Its number in the layout.

    Returns
    -------
    FlipEffect
    """
    rows, after = flipped(an, mic)
    hollow = an.pairs.worst == Verdict.HOLLOW
    was, now = hollow[rows], after.worst == Verdict.HOLLOW
    before = int(hollow.sum())
    return FlipEffect(
        mic=an.layout.mics[mic].id,
        hollow_before=before,
        hollow_after=before - int(was.sum()) + int(now.sum()),
        cures=_named(an, after, was & ~now),
        spoils=_named(an, after, ~was & now),
    )


def _named(an: Analysis, after: Pairs, which: np.ndarray) -> list[str]:
    ids = [m.id for m in an.layout.mics]
    return [f"{ids[after.first[r]]}-{ids[after.second[r]]}" for r in np.flatnonzero(which)]
