"""One pair in depth: its bands, its body against delay, and what can be done about it."""

from typing import Any

from ringside.answers.remedies import remedies
from ringside.pairs.analysis import analyse
from ringside.pairs.delays import bands_db, body_by_delay
from ringside.plan.layout import Layout


def in_depth(layout: Layout, a: str, b: str, source: str | None = None) -> dict[str, Any]:
    """What :func:`ringside.answers.remedies.remedies` finds, with ``bands`` and ``by_delay`` beside it.

    Raises
    ------
    RingsideError
        When a mic or the source is not there.
    """
    an = analyse(layout)
    row, turned, k = an.find(a, b, source)
    return {
        **remedies(an, a, b, source),
        "bands": bands_db(an, row, k),
        "by_delay": body_by_delay(an, row, k, turned),
    }
