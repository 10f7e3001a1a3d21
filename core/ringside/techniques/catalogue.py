"""Every technique there is, in the order of the list, and how to find one."""

from dataclasses import dataclass
from typing import Final

from ringside.errors import RingsideError
from ringside.plan.handsizes import HandSizes
from ringside.plan.kit import Cymbal, Drum, Kit
from ringside.plan.layout import Layout
from ringside.techniques.cymbals import CYMBALS
from ringside.techniques.kick import KICK
from ringside.techniques.oddities import ODDITIES
from ringside.techniques.overheads import OVERHEADS
from ringside.techniques.recipe import GROUPS, HAND_WORDS, Group, Technique, Unit
from ringside.techniques.rooms import ROOMS
from ringside.techniques.singles import SINGLES
from ringside.techniques.snare import SNARE
from ringside.techniques.toms import TOM

_EVERY: Final = (*SINGLES, *OVERHEADS, *KICK, *SNARE, *TOM, *CYMBALS, *ROOMS, *ODDITIES)
TECHNIQUES: Final[dict[str, Technique]] = {
    t.id: t for t in sorted(_EVERY, key=lambda t: GROUPS.index(t.group))
}


def technique(id_: str) -> Technique:
    """The technique of that name.

    Parameters
    ----------
    id_ : str
        Its name in the table.

    Returns
    -------
    Technique

    Raises
    ------
    RingsideError
        When there is none.
    """
    if id_ not in TECHNIQUES:
        raise RingsideError(f"expected a technique of the list, got {id_!r}")
    return TECHNIQUES[id_]


def targets_in(t: Technique, layout: Layout) -> list[str]:
    """The drums, cymbals or spaces of a layout that a technique can be put up for.

    Parameters
    ----------
    t : Technique
    layout : Layout

    Returns
    -------
    list of str
    """
    if "space" in t.over:
        return [s.id for s in layout.room.spaces] if layout.room else []
    return [p.id for p in layout.kit.parts if p.kind in t.over and _suits(t, p)]


def _suits(t: Technique, part: Drum | Cymbal) -> bool:
    if not isinstance(part, Drum) or not t.only:
        return True
    if t.only == "ported":
        return part.port is not None or part.far_head is None
    return (part.far_head is None) == (t.only == "open")


_MISSING: Final = {
    "ported": "No kick here has a hole in its front head.",
    "open": "No tom here is without its bottom head.",
    "two heads": "No tom here has a bottom head.",
}


def lacking(t: Technique, layout: Layout) -> str:
    """Why a technique is not for this layout, in words; empty when it is.

    Parameters
    ----------
    t : Technique
    layout : Layout

    Returns
    -------
    str
    """
    kit: Kit = layout.kit
    for need in t.needs:
        if need == "room" and layout.room is None:
            return "Draw the room first."
        if need == "space" and not (layout.room and layout.room.spaces):
            return "Draw an adjoining space in Room first."
        if need in ("floor", "rack") and not any(d.kind == need for d in kit.drums):
            return f"This kit has no {need} tom."
    if t.over and not targets_in(t, layout):
        return _MISSING.get(t.only, "Nothing in this kit to put it up for.")
    return ""


@dataclass(frozen=True, kw_only=True, slots=True)
class NumberRow:
    """A named number: metres, degrees, hours or a share; `hand` says what it is by hand."""

    id: str
    label: str
    unit: Unit
    default: float
    low: float
    high: float
    hand: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class TechniqueRow:
    """A technique of the list, for a kit, a room and somebody's hand."""

    id: str
    name: str
    group: Group
    gives: str
    watch_for: str
    listen_for: str
    care: str
    also: str
    mics: int
    minutes: float
    keeps_on: list[str]
    targets: list[str]
    takes_target: bool
    lacks: str
    numbers: list[NumberRow]


def listed(layout: Layout, hands: HandSizes) -> list[TechniqueRow]:
    """The whole list for a layout: words, numbers from somebody's hand, targets, what lacks.

    Parameters
    ----------
    layout : Layout
    hands : HandSizes
        Widths of a person's hand, metres.

    Returns
    -------
    list of TechniqueRow
    """
    kick, snare = layout.kit.first("kick"), layout.kit.first("snare")
    leads = -1.0 if kick.batter_m[0] < snare.batter_m[0] else 1.0
    return [_listed(t, layout, hands, leads) for t in TECHNIQUES.values()]


def _listed(t: Technique, layout: Layout, hands: HandSizes, leads: float) -> TechniqueRow:
    return TechniqueRow(
        id=t.id,
        name=t.name,
        group=t.group,
        gives=t.gives,
        watch_for=t.watch_for,
        listen_for=t.listen_for,
        care=t.care,
        also=t.also,
        mics=t.mics,
        minutes=t.minutes,
        keeps_on=list(t.keeps_on),
        targets=targets_in(t, layout),
        takes_target=bool(t.over),
        lacks=lacking(t, layout),
        numbers=[
            NumberRow(
                id=n.id,
                label=n.label,
                unit=n.unit,
                default=n.start(hands, leads),
                low=n.low,
                high=n.high,
                hand=HAND_WORDS[n.hand] if n.hand else None,
            )
            for n in t.numbers
        ],
    )
