"""What a technique is: a recipe from a kit, a room and a few named numbers to mics.

A recipe places capsules and aims, names its stereo pairs, and says what must be equal. It
keeps three sentences about itself: what it gives, what to watch for, what to listen for.
Lengths in metres, angles in degrees, clocks in hours.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Final, Literal

from ringside.arrays import Floats
from ringside.plan.handsizes import HandSizes
from ringside.plan.mics import MicKind, Pattern, Role
from ringside.techniques.around import Around

Unit = Literal["m", "deg", "clock", "share"]
Hand = Literal["two_fingers_m", "three_fingers_m", "fist_m", "hand_m", "card_m"]
Group = Literal[
    "One mic", "Two and three", "Overheads", "Kick", "Snare", "Toms", "Hats and cymbals", "Room",
    "Oddities",
]  # fmt: skip
GROUPS: Final[tuple[Group, ...]] = Group.__args__  # type: ignore[attr-defined]
HAND_WORDS: Final[dict[Hand, str]] = {
    "two_fingers_m": "two fingers",
    "three_fingers_m": "three fingers",
    "fist_m": "a fist",
    "hand_m": "a hand",
    "card_m": "a card",
}
Numbers = Mapping[str, float]


@dataclass(frozen=True, kw_only=True)
class Named:
    """One number of a technique: what it is, where it starts and how far it goes."""

    id: str
    label: str
    default: float
    low: float
    high: float
    unit: Unit = "m"
    hand: Hand | None = None

    def start(self, hands: HandSizes, leads: float) -> float:
        """Its default for somebody's hand, on a right-handed (+1) or left-handed (-1) kit.

        Parameters
        ----------
        hands : HandSizes
            Widths of a person's hand, metres.
        leads : float
            +1 right-handed, -1 left-handed.

        Returns
        -------
        float
        """
        value = self.default if self.hand is None else float(getattr(hands, self.hand))
        if self.unit == "clock" and leads < 0:
            value = (12.0 - value) % 12.0
        return min(max(value, self.low), self.high)


@dataclass(frozen=True, kw_only=True)
class Put:
    """One mic of a recipe: where, which way (a direction of any length), and what it is."""

    id: str
    name: str
    at: Floats
    way: Floats
    pattern: Pattern = "cardioid"
    role: Role = "close"
    job: str | None = None
    flip: bool = False  # at the preamp: a mic on the other side of the head (common practice)


@dataclass(frozen=True, kw_only=True)
class Couple:
    """Two of the recipe's mics, by position in its list, that make one stereo picture."""

    name: str
    left: int
    right: int


@dataclass(frozen=True, kw_only=True)
class Equal:
    """A promise: two mics as far from a point, or one mic as far from two points.

    ``a`` and ``b`` are positions in the recipe's list (the same one twice for one mic);
    ``to_a`` and ``to_b`` are metres (3,).
    """

    on: str
    a: int
    b: int
    to_a: Floats
    to_b: Floats


@dataclass(frozen=True, kw_only=True)
class Made:
    """What a recipe placed, what it promises, and what it had to leave out."""

    puts: tuple[Put, ...]
    couples: tuple[Couple, ...] = ()
    equals: tuple[Equal, ...] = ()
    notes: tuple[str, ...] = ()  # what had to be left out; a try without goes before one with
    told: tuple[str, ...] = ()  # what is worth knowing of it


@dataclass(frozen=True, kw_only=True)
class Technique:
    """A technique as it is chosen from the list."""

    id: str
    name: str
    group: Group
    place: Callable[[Around, Numbers], Made]
    gives: str
    watch_for: str
    listen_for: str
    numbers: tuple[Named, ...] = ()
    over: tuple[str, ...] = ()  # kinds of drum or cymbal it is put up for; empty: the whole kit
    only: Literal["", "ported", "open", "two heads"] = ""  # which of those drums
    needs: tuple[str, ...] = ()  # drum kinds the kit must have, "room", "space"
    suggest: Callable[[Around], Mapping[str, float]] | None = None  # starts that the kit tells
    tries: tuple[Mapping[str, float], ...] = ()  # other numbers, in order, until all is clear
    wants: tuple[MicKind, ...] = ("condenser",)  # kinds of mic that suit it, best first
    mics: int = 1
    minutes: float = 6.0  # a practised pair of hands, from memory
    care: str = ""  # the usual caution, where somebody or something can be hurt
    also: str = ""  # other words it is looked for by
    keeps_on: tuple[str, ...] = field(default=())  # what it keeps equal: "snare", "kick", ...


def number(
    id_: str, label: str, default: float, low: float, high: float, *, unit: Unit = "m",
    hand: Hand | None = None,
) -> Named:  # fmt: skip
    """A named number, written on one line.

    Parameters
    ----------
    id_ : str
        Its name in the table.
    label : str
        As it is shown.
    default : float
        Where it starts, in its unit.
    low : float
        Least value.
    high : float
        Greatest value.
    unit : Unit
    hand : Hand or None
        The width that gives the default.

    Returns
    -------
    Named
    """
    return Named(id=id_, label=label, default=default, low=low, high=high, unit=unit, hand=hand)
