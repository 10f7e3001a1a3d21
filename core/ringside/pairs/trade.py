"""What engineers do first and what they never do: one table, each rule with its reason.

Whatever proposes a remedy asks here: the best set of flips, the remedies of a pair, the list of
what to do. Costs are in switches: one stands for a spot's own, thrown without a thought.
"""

from dataclasses import dataclass
from typing import Final, Literal

from ringside.plan.drumframe import side_of
from ringside.plan.feeds import feed
from ringside.plan.kit import Drum
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

TradeKey = Literal[
    "flip first", "second before first", "spot before pair", "pair together", "one drum",
    "pair keeps", "no lone drum", "kit stays", "fewest", "one set", "keeps snare and kick",
    "aligned", "placed", "one room", "unsure to the ear", "tape before moving", "nothing better",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class TradeRule:
    """One rule and why it holds."""

    key: TradeKey
    words: str
    because: str


TRADE: Final[tuple[TradeRule, ...]] = (
    TradeRule(
        "flip first", "A flip before a move.",
        "A switch costs nothing and is taken back at once; a stand has to be found again.",
    ),
    TradeRule(
        "second before first", "A bottom mic before a top, a second mic before the first.",
        "The top mic and the overheads are the drum; what is added to it gives way.",
    ),
    TradeRule(
        "spot before pair", "A switch on a spot before one on both overheads.",
        "The overheads are the picture every spot is fitted to; turned over, all spots change.",
    ),
    TradeRule(
        "pair together", "A stereo pair is turned over and moved as one.",
        "One of two alone pulls the picture apart and is gone in mono.",
    ),
    TradeRule(
        "one drum", "Two mics of one drum push it together.",
        "Top and bottom, in and out are one sound: opposed, the drum is thin in every mix.",
    ),
    TradeRule(
        "pair keeps", "What a pair keeps equal on snare and kick stays equal.",
        "The snare leaves the middle as soon as one of the two is further from it.",
    ),
    TradeRule(
        "no lone drum", "An overhead is not moved for one tom.",
        "It hears the whole kit; the tom has a mic of its own to move.",
    ),
    TradeRule(
        "kit stays", "Nobody moves a drum for a mic.",
        "The kit stands as its drummer plays it; mics come and go.",
    ),
    TradeRule(
        "fewest", "Of sets within 0.3 dB the fewest and cheapest switches.",
        "Nobody hears the difference, and every switch thrown has to be remembered.",
    ),
    TradeRule(
        "one set", "A set and its complete opposite are one.",
        "Turned over altogether a mix sounds the same; tops and overheads are left alone.",
    ),
    TradeRule(
        "keeps snare and kick", "No set takes a decibel off the snare or the kick.",
        "They carry the record; more tom is not bought with them.",
    ),
    TradeRule(
        "placed", "Placed: a stand is moved, nothing is delayed.",
        "What stands right needs no cure on any track, in any balance.",
    ),
    TradeRule(
        "aligned", "Aligned afterwards: tracks are delayed, no stand is moved for time.",
        "A delay is exact and can be taken off; it is chosen when the song is mixed.",
    ),
    TradeRule(
        "one room", "Rooms that stand in for each other are not all up at once.",
        "Each is put up to be chosen from; all together are what no mix will use.",
    ),
    TradeRule(
        "unsure to the ear", "What no plan can know is hit and listened to.",
        "Near a head's plane or in a null the first half-wave goes either way.",
    ),
    TradeRule(
        "tape before moving", "Read with the tape before a stand is touched.",
        "What was put up by eye may already stand right.",
    ),
    TradeRule(
        "nothing better", "What nothing makes better is decided, with a reason.",
        "Left open it is asked again by everyone who opens the session.",
    ),
)  # fmt: skip
"""Common practice, in the order in which the list asks them."""

BECAUSE: Final[dict[TradeKey, str]] = {r.key: r.because for r in TRADE}

SwitchKind = Literal["second", "spot", "first", "room", "overhead"]

COSTS: Final[dict[SwitchKind, float]] = {
    "second": 1.0, "spot": 1.6, "room": 2.0, "overhead": 2.5, "first": 3.0,
}  # fmt: skip
"""What a switch costs, in switches of a second mic (from memory): a spot alone on its drum, one of
a pair of rooms or overheads, and the first mic of a drum that has a second."""


def switch_kind(layout: Layout, mic: Mic) -> SwitchKind:
    """What a mic is when somebody thinks of turning it over.

    Parameters
    ----------
    layout : Layout
    mic : Mic
        Of that layout.

    Returns
    -------
    str
    """
    if mic.role != "close":
        return "overhead" if mic.role == "overhead" else "room"
    if is_second(layout, mic):
        return "second"
    others = (m for m in layout.mics if m.id != mic.id and m.job == mic.job)
    return "first" if any(is_second(layout, m) for m in others) else "spot"


def switch_cost(layout: Layout, mic: Mic) -> float:
    """What it costs to turn a mic over, in switches of a second mic.

    Parameters
    ----------
    layout : Layout
    mic : Mic
        Of that layout.

    Returns
    -------
    float
    """
    return COSTS[switch_kind(layout, mic)]


def is_second(layout: Layout, mic: Mic) -> bool:
    """Whether a spot is added to another of its drum: under it, or behind the first in the list.

    Parameters
    ----------
    layout : Layout
    mic : Mic
        Of that layout.

    Returns
    -------
    bool
    """
    others = [m for m in layout.mics if m.role == "close" and m.job == mic.job and mic.job]
    if mic.role != "close" or len(others) < 2:
        return False
    part = layout.kit.part(mic.job or "")
    if isinstance(part, Drum) and part.kind != "kick":
        under = [side_of(part, m.position_m) == "under" for m in others]
        if any(under) and not all(under):
            return side_of(part, mic.position_m) == "under"
    return others[0].id != mic.id


def couples(layout: Layout) -> list[tuple[str, str]]:
    """Stereo pairs, left and right, that push the same way by their switches.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of (str, str)
    """
    return [
        (p.left, p.right)
        for p in layout.stereo_pairs
        if p.coding == "left-right"
        and feed(layout, p.left).switch_sign == feed(layout, p.right).switch_sign
    ]
