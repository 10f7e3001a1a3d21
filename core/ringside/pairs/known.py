"""Decibels of a sum as they are told: no further than they are known.

Two that cancel on paper leave a thousandth of their energy in the air (common practice); what lies
beyond is not known and not told.
"""

from typing import Final

MOST_DB: Final = 30.0


def told_db(value: float) -> str:
    """A gain in decibels.

    Parameters
    ----------
    value : float
        Decibels, above zero.

    Returns
    -------
    str
    """
    return f"more than {MOST_DB:.0f} dB" if value > MOST_DB else f"{value:.1f} dB"


def signed_db(value: float) -> str:
    """A level of a sum in decibels, with its sign.

    Parameters
    ----------
    value : float
        Decibels.

    Returns
    -------
    str
    """
    if abs(value) > MOST_DB:
        return f"{'over +' if value > 0 else 'under -'}{MOST_DB:.0f} dB"
    return f"{value:+z.1f} dB"
