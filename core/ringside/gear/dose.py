"""How much noise a day is: what a level and a time come to, by the two published tables.

Worked examples, not advice: the rules of the place one works in, and people who measure there,
go before them. Levels are A-weighted and averaged over the time somebody stands there; peaks have
limits of their own.
"""

from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True, kw_only=True, slots=True)
class DoseRule:
    """A level that is borne for eight hours, and the step that halves the time."""

    name: str
    level_db: float
    exchange_db: float
    counted_from_db: float
    """Lower levels are not counted."""


# Recommended, and permitted in workplaces of the United States; other places have their own.
NIOSH: Final = DoseRule(
    name="NIOSH 98-126",
    level_db=85.0,
    exchange_db=3.0,
    counted_from_db=80.0,
)
OSHA: Final = DoseRule(
    name="OSHA 1910.95",
    level_db=90.0,
    exchange_db=5.0,
    counted_from_db=90.0,
)
EIGHT_HOURS_MIN: Final = 480.0


def minutes_allowed(level_db: float, rule: DoseRule) -> float:
    """How long a level uses up a whole day's dose.

    Parameters
    ----------
    level_db : float
        A-weighted, decibels.
    rule : DoseRule

    Returns
    -------
    float
        Minutes; infinite for a level that is not counted.

    References
    ----------
    NIOSH 98-126, table 1-1: T = 480 / 2^((L - 85) / 3). OSHA 1910.95, table G-16a:
    T = 480 / 2^((L - 90) / 5).

    Examples
    --------
    >>> minutes_allowed(94.0, NIOSH)
    60.0
    """
    if level_db < rule.counted_from_db:
        return float("inf")
    return float(EIGHT_HOURS_MIN / 2 ** ((level_db - rule.level_db) / rule.exchange_db))
