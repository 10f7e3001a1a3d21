"""One pair in depth: its bands, its body against delay, and what can be done about it."""

from dataclasses import dataclass

from ringside.answers.remedies import PairRemedies, remedies
from ringside.pairs.delays import BandRow, DelayCurve, bands_db, body_by_delay
from ringside.plan.layout import Layout
from ringside.standing.stood import analysed


@dataclass(frozen=True, kw_only=True, slots=True)
class PairDepth(PairRemedies):
    """One pair in depth: what can be done about it, its bands, its body against delay."""

    bands: list[BandRow]
    by_delay: DelayCurve


def in_depth(layout: Layout, a: str, b: str, source: str | None = None) -> PairDepth:
    """One pair on a drum; its worst one when no source is named.

    Parameters
    ----------
    layout : Layout
    a : str
        Short name of a mic.
    b : str
        Short name of the other.
    source : str or None
        Short name of a drum or cymbal; the worst one of the pair where it is left
        out.

    Returns
    -------
    PairDepth

    Raises
    ------
    RingsideError
        When a mic or the source is not there.
    """
    an = analysed(layout)
    row, turned, k = an.find(a, b, source)
    said = remedies(an, a, b, source)
    return PairDepth(
        a=said.a,
        b=said.b,
        source=said.source,
        verdict=said.verdict,
        school=said.school,
        remedies=said.remedies,
        words=said.words,
        bands=bands_db(an, row, k),
        by_delay=body_by_delay(an, row, k, turned),
    )
