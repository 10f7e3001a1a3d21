"""How long a cable each mic wants: along the floor to its box, up the stand, and slack.

Cables are laid square to the walls, not across the floor (common practice: nobody walks over
them), so both ways along the floor are added.
"""

from dataclasses import dataclass
from typing import Final

from ringside.gear.locker import Locker, bank_of
from ringside.plan.feeds import feeds
from ringside.plan.layout import Layout

SLACK_M: Final = 1.5
"""A loop at the stand and one at the box (common practice)."""


@dataclass(frozen=True, slots=True)
class Lead:
    """What a mic's cable has to reach, metres."""

    mic: str
    bank: str
    metres: float


def leads(layout: Layout, locker: Locker) -> list[Lead]:
    """Every mic whose box has a known place, with what its cable has to reach.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    list of Lead
        In the order of the mics.
    """
    at = {b.bank: b.position_m for b in layout.boxes}
    made = []
    for f in feeds(layout):
        bank = bank_of(locker, f.input)
        if bank is not None and bank.id in at:
            made.append(Lead(f.mic.id, bank.name, lead_m(f.mic.position_m, at[bank.id])))
    return made


def lead_m(mic: tuple[float, float, float], box: tuple[float, float]) -> float:
    """From a capsule to a box, metres.

    Parameters
    ----------
    mic : tuple of float, shape (3,)
        Metres.
    box : tuple of float, shape (2,)
        Metres, on the floor.

    Returns
    -------
    float

    Examples
    --------
    >>> lead_m((0.0, 1.0, 1.5), (-3.0, -2.0))
    9.0
    """
    return abs(mic[0] - box[0]) + abs(mic[1] - box[1]) + abs(mic[2]) + SLACK_M


def too_short(wanted: list[Lead], locker: Locker) -> list[Lead]:
    """The leads for which no cable is left that reaches: the longest are laid first.

    Parameters
    ----------
    wanted : list of Lead
    locker : Locker

    Returns
    -------
    list of Lead
    """
    free = sorted(c.length_m for c in locker.cables for _ in range(c.count))
    short = []
    for lead in sorted(wanted, key=lambda w: -w.metres):
        fit = next((n for n, length in enumerate(free) if length >= lead.metres), None)
        if fit is None:
            short.append(lead)
        else:
            del free[fit]
    return short
