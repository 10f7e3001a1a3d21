"""How long a cable each mic wants: along the floor to its box, up the stand, and slack.

Cables are laid square to the walls, not across the floor (common practice: nobody walks over
them), so both ways along the floor are added.
"""

import math
from dataclasses import dataclass
from typing import Final

from ringside.gear.locker import CableKind, Locker, bank_of
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
            metres = lead_m(f.mic.position_m, at[bank.id], turn_of(layout))
            made.append(Lead(f.mic.id, bank.name, metres))
    return made


def turn_of(layout: Layout) -> float:
    """How the kit is turned against the walls, radians; 0 where no room is drawn.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    float
    """
    return layout.room.kit_turn_rad if layout.room else 0.0


def lead_m(
    mic: tuple[float, float, float], box: tuple[float, float], turn_rad: float = 0.0
) -> float:
    """From a capsule to a box, metres.

    Parameters
    ----------
    mic : tuple of float, shape (3,)
        Metres.
    box : tuple of float, shape (2,)
        Metres, on the floor.
    turn_rad : float
        Of the kit against the walls.

    Returns
    -------
    float

    Examples
    --------
    >>> lead_m((0.0, 1.0, 1.5), (-3.0, -2.0))
    9.0
    """
    c, s = math.cos(turn_rad), math.sin(turn_rad)
    x, y = mic[0] - box[0], mic[1] - box[1]
    return abs(c * x - s * y) + abs(s * x + c * y) + abs(mic[2]) + SLACK_M


@dataclass(frozen=True, slots=True)
class Laid:
    """Which cable every mic gets, and the leads for which none is left that reaches."""

    cables: dict[str, CableKind]
    """By mic."""
    short: list[Lead]


def laid(wanted: list[Lead], locker: Locker) -> Laid:
    """A cable for every lead: the longest are laid first, each with the shortest that reaches.

    Parameters
    ----------
    wanted : list of Lead
    locker : Locker

    Returns
    -------
    Laid
    """
    kinds = sorted(locker.cables, key=lambda c: c.length_m)
    free = [c for c in kinds for _ in range(c.count)]
    cables: dict[str, CableKind] = {}
    short = []
    for lead in sorted(wanted, key=lambda w: -w.metres):
        fit = next((n for n, c in enumerate(free) if c.length_m >= lead.metres), None)
        if fit is None:
            short.append(lead)
        else:
            cables[lead.mic] = free.pop(fit)
    return Laid(cables, short)


@dataclass(frozen=True, kw_only=True, slots=True)
class LeadRow:
    """What a mic's cable has to reach, and the one that does."""

    mic: str
    bank: str
    """The box, by what it is called."""
    metres: float
    cable: str | None
    """What the locker calls it; empty where none is left that reaches, None where it has none."""


def lead_rows(layout: Layout, locker: Locker) -> list[LeadRow]:
    """Every mic whose box has a known place, with its cable.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    list of LeadRow
        In the order of the mics.
    """
    wanted = leads(layout, locker)
    cables = laid(wanted, locker).cables
    lacking = "" if locker.cables else None
    return [
        LeadRow(
            mic=x.mic,
            bank=x.bank,
            metres=round(x.metres, 2),
            cable=cables[x.mic].name if x.mic in cables else lacking,
        )
        for x in wanted
    ]
