"""The rules of the brief as a table: an answer, what it is about, how much, and why.

A rule is about a technique or about a slot of the plan (``slot:toms``). Weights add up; the
slots' own worth and the weights are common practice put into numbers from memory. Some rules
also set a number of the technique.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final, Literal

Slot = Literal[
    "picture", "kick", "snare", "toms", "snare bottom", "kick two", "room pair", "room mono",
    "hats", "ride", "far", "odd",
]  # fmt: skip
Family = Literal["spaced", "one point", "unlike", "one mic"]


@dataclass(frozen=True, kw_only=True)
class Rule:
    """One row of the table."""

    question: str
    answer: str
    about: str
    weight: float
    because: str
    numbers: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, kw_only=True)
class Choice:
    """A technique that may fill a slot, with what it is worth before any rule."""

    technique: str
    worth: float
    family: Family = "spaced"


WORTH: Final[dict[Slot, float]] = {
    "picture": 10.0, "kick": 9.0, "snare": 8.0, "toms": 5.0, "snare bottom": 3.5,
    "kick two": 2.5, "room pair": 4.0, "room mono": 1.5, "hats": 2.0, "ride": 1.6, "far": 0.5,
    "odd": -0.5,
}  # fmt: skip
"""What filling a slot is worth; below 0.75 it is left empty however many inputs there are."""

LEAST_WORTH: Final = 0.75

SLOTS: Final[dict[Slot, tuple[Choice, ...]]] = {
    "picture": (
        Choice(technique="pair-turned", worth=1.4),
        Choice(technique="pair-snare", worth=1.2),
        Choice(technique="pair-straight", worth=0.8),
        Choice(technique="wide-centre", worth=0.0),
        Choice(technique="pair-near", worth=1.2, family="one point"),
        Choice(technique="pair-coincident", worth=1.0, family="one point"),
        Choice(technique="pair-mid-side", worth=0.4, family="one point"),
        Choice(technique="pair-crossed-8", worth=0.4, family="one point"),
        Choice(technique="over-and-side", worth=1.0, family="unlike"),
        Choice(technique="over-shoulder", worth=0.9, family="unlike"),
        Choice(technique="mono-over", worth=0.5, family="one mic"),
    ),
    "kick": (
        Choice(technique="kick-port", worth=1.1),
        Choice(technique="kick-inside", worth=1.0),
        Choice(technique="kick-outside", worth=0.8),
        Choice(technique="kick-boundary", worth=0.3),
        Choice(technique="kick-batter", worth=0.1),
    ),
    "kick two": (
        Choice(technique="kick-outside", worth=1.0),
        Choice(technique="kick-woofer", worth=0.2),
        Choice(technique="kick-tunnel", worth=-0.4),
    ),
    "snare": (
        Choice(technique="snare-centre", worth=1.0),
        Choice(technique="snare-edge", worth=0.8),
        Choice(technique="snare-flat", worth=0.3),
        Choice(technique="snare-shell", worth=0.0),
    ),
    "snare bottom": (Choice(technique="snare-bottom", worth=1.0),),
    "toms": (
        Choice(technique="tom-top", worth=1.0),
        Choice(technique="tom-off", worth=0.8),
        Choice(technique="tom-both", worth=-0.4),
        Choice(technique="tom-bottom", worth=-0.6),
        Choice(technique="tom-inside", worth=0.2),
    ),
    "hats": (
        Choice(technique="cymbal-over", worth=1.0),
        Choice(technique="cymbal-under", worth=0.4),
    ),
    "ride": (
        Choice(technique="cymbal-over", worth=0.8),
        Choice(technique="cymbal-under", worth=1.0),
    ),
    "room pair": (
        Choice(technique="room-bar", worth=1.0),
        Choice(technique="room-omnis", worth=0.8),
        Choice(technique="room-crossed-8", worth=0.7),
        Choice(technique="room-mid-side", worth=0.5),
        Choice(technique="floor-pair", worth=0.3),
    ),
    "room mono": (
        Choice(technique="room-mono", worth=1.0),
        Choice(technique="wall-mic", worth=0.5),
        Choice(technique="floor-point", worth=0.4),
    ),
    "far": (
        Choice(technique="room-far-high", worth=0.6),
        Choice(technique="corner-pair", worth=0.5),
        Choice(technique="next-door", worth=0.5),
    ),
    "odd": (
        Choice(technique="under-toms", worth=0.4),
        Choice(technique="talkback", worth=0.3),
        Choice(technique="hose", worth=0.2),
    ),
}

FEW: Final[dict[int, tuple[Choice, ...]]] = {
    1: (
        Choice(technique="one-front", worth=1.0),
        Choice(technique="one-over-kit", worth=1.0),
        Choice(technique="one-over-kick", worth=0.9),
        Choice(technique="one-shoulder", worth=0.7),
        Choice(technique="one-mid-kit", worth=0.4),
    ),
    2: (
        Choice(technique="two-mics", worth=1.0, family="one mic"),
        Choice(technique="over-and-side", worth=0.8, family="unlike"),
        Choice(technique="pair-coincident", worth=0.7, family="one point"),
        Choice(technique="over-shoulder", worth=0.6, family="unlike"),
    ),
    3: (
        Choice(technique="three-pair", worth=1.0),
        Choice(technique="three-mics", worth=0.9, family="one mic"),
        Choice(technique="three-side", worth=0.9, family="unlike"),
    ),
}
"""What fills the whole plan when there are one, two or three inputs."""


def _rules(question: str, *rows: tuple[object, ...]) -> tuple[Rule, ...]:
    found = []
    for answer, about, weight, because, *more in rows:
        numbers = more[0] if more else {}
        found.append(
            Rule(question=question, answer=str(answer), about=str(about), weight=float(weight),  # type: ignore[arg-type]
                 because=str(because), numbers=numbers)  # type: ignore[arg-type]
        )  # fmt: skip
    return tuple(found)


RULES: Final[tuple[Rule, ...]] = (
    *_rules(
        "style",
        ("soft", "slot:toms", -3.0, "Played soft, the picture carries the toms."),
        ("soft", "slot:snare bottom", -1.5, "Played soft, the wires are in the picture."),
        ("soft", "pair-crossed-8", 1.2, "Figure-8 gives a soft kit depth."),
        ("soft", "pair-near", 0.6, "A small kit sits well in a near-coincident pair."),
        ("soft", "pair-turned", -0.6, "A soft kit is small: no width is needed."),
        ("soft", "kick-outside", 0.8, "Outside, the kick is round rather than clicking."),
        ("soft", "one-over-kit", 0.4, "Over the kit every stroke is heard."),
        ("song", "pair-turned", 0.6, "A song wants snare and kick in the middle."),
        ("driving", "slot:snare bottom", 1.0, "Driving playing wants the wires."),
        ("driving", "slot:room pair", 0.8, "A room pair gives a driving kit its size."),
        ("driving", "kick-inside", 0.4, "The beater has to be heard."),
        ("heavy", "slot:toms", 2.0, "Dense music hides toms that have no mic."),
        ("heavy", "pair-straight", 1.6, "Overheads see to the cymbals; close mics are the kit."),
        ("heavy", "kick-inside", 1.0, "The click of the beater cuts through."),
        ("heavy", "slot:kick two", 0.8, "Click inside, weight outside."),
        ("heavy", "slot:hats", -0.5, "There are hats in everything already."),
        ("heavy", "slot:ride", 0.8, "The ride drowns without a mic."),
        ("raw", "slot:toms", -7.0, "Raw means few mics: the picture has the toms."),
        ("raw", "slot:hats", -2.0, "Raw means few mics."),
        ("raw", "slot:ride", -2.0, "Raw means few mics."),
        ("raw", "slot:snare bottom", -2.5, "Raw means few mics."),
        ("raw", "slot:kick two", -2.0, "Raw means few mics."),
        ("raw", "slot:room pair", -3.0, "Raw means few mics: one of the room is enough."),
        ("raw", "slot:room mono", 0.6, "One mic off the kit, to be crushed."),
        ("raw", "slot:odd", 2.0, "An odd mic is half the character."),
        ("raw", "pair-turned", -1.0, "Too well behaved for a raw sound."),
        ("raw", "over-and-side", 1.5, "Two unlike spots make a full kit."),
        ("raw", "mono-over", 1.4, "One mic over the kit is a decision."),
        ("raw", "one-mid-kit", 0.9, "In the middle of the kit it can be crushed."),
        ("raw", "three-side", 0.6, "Three mics, each with its own job."),
    ),
    *_rules(
        "impact",
        ("light", "kick-outside", 1.4, "A light kick is heard whole from outside."),
        ("light", "slot:kick two", -3.0, "One kick mic is enough for a light kick."),
        ("solid", "kick-inside", 0.4, "A hand's length from the beater is body."),
        ("huge", "slot:kick two", 3.0, "A huge kick needs its lowest octave on a fader."),
        ("huge", "kick-inside", 0.8, "Inside carries the hit while the second carries the size."),
        ("huge", "kick-tunnel", 1.0, "A tunnel keeps the lowest octave clean."),
        ("huge", "slot:room mono", 1.0, "Size comes from the room in front of the kick."),
        ("huge", "one-front", 0.6, "In front, low, there is the most kick."),
    ),
    *_rules(
        "space",
        ("dry", "slot:room pair", -5.0, "Dry means no room mics."),
        ("dry", "slot:room mono", -4.0, "Dry means no room mics."),
        ("dry", "slot:far", -4.0, "Dry means no room mics."),
        ("dry", "pair-turned", 0.0, "Nearer overheads are drier.", {"over": 0.9}),
        ("dry", "pair-coincident", 0.3, "Nearer overheads are drier.", {"over": 0.9}),
        ("dry", "pair-crossed-8", -1.0, "A figure-8 lets the room in from behind."),
        ("some", "room-bar", 0.4, "One pair on a bar, not too far."),
        ("roomy", "slot:room pair", 2.0, "A roomy sound is made of room mics."),
        ("roomy", "slot:room mono", 1.5, "One mono mic cannot lean to a side."),
        ("roomy", "slot:far", 2.5, "Something far, as an option."),
        ("roomy", "room-omnis", 0.8, "Omnis keep the low end of the room."),
        ("roomy", "one-front", 0.5, "In front, farther out.", {"out": 1.6}),
        ("roomy", "pair-crossed-8", 0.6, "A figure-8 brings the room with it."),
    ),
    *_rules(
        "tone",
        ("warm", "pair-crossed-8", 1.6, "Figure-8 pairs are smooth on cymbals."),
        ("warm", "room-crossed-8", 1.0, "Figure-8 in the room keeps cymbals smooth."),
        ("warm", "tom-off", 0.8, "A little off, the drum breathes."),
        ("warm", "snare-centre", 0.4, "Over the middle a snare is darker."),
        ("warm", "kick-outside", 0.5, "Outside is round."),
        ("cutting", "snare-edge", 0.7, "At the edge a snare rings brighter."),
        ("cutting", "kick-inside", 0.6, "Nearer the beater is click.", {"back": 0.12}),
        ("cutting", "tom-top", 0.6, "Steep and close is attack."),
        ("cutting", "slot:hats", 0.8, "The hats get an edge of their own."),
        ("cutting", "pair-snare", 0.3, "Aimed at the snare it leads."),
    ),
    *_rules(
        "ride",
        ("little", "slot:ride", -1.5, "The picture has the little ride there is."),
        ("much", "slot:ride", 2.0, "A ride that is played a lot gets a mic."),
        ("much", "slot:hats", 1.0, "And the hats."),
        ("much", "over-and-side", -0.4, "A low side mic looks at the ride from beneath."),
    ),
    *_rules(
        "toms",
        ("little", "slot:toms", -2.0, "Few fills: the picture carries the toms."),
        ("much", "slot:toms", 2.0, "Many fills: a mic on every tom."),
        ("much", "over-and-side", 0.5, "The side mic is a floor tom mic too."),
        ("much", "three-side", 0.4, "The side mic is a floor tom mic too."),
    ),
    *_rules(
        "hitter",
        ("light", "slot:snare bottom", 0.8, "A light hand is heard in the wires."),
        ("light", "pair-near", 0.2, "Nearer overheads for a light hand.", {"over": 0.9}),
        ("light", "tom-off", -0.3, "A light hand needs the mic near."),
        ("hard", "tom-top", 0.4, "Rugged mics close in."),
        ("hard", "slot:room pair", 0.6, "A hard hitter makes the room answer."),
        ("hard", "pair-straight", 0.3, "Loud cymbals: overheads farther up.", {"over": 1.2}),
        ("hard", "kick-boundary", 0.2, "Nothing to be kicked over."),
    ),
    *_rules(
        "mono",
        ("must hold", "pair-coincident", 2.4, "One point sums to mono without a comb."),
        ("must hold", "pair-mid-side", 2.4, "Mid-side in mono is the mid mic alone."),
        ("must hold", "mono-over", 1.6, "One mic is mono already."),
        ("must hold", "pair-near", 0.6, "A hand apart combs only at the top."),
        ("must hold", "pair-straight", -3.0, "A wide pair loses the kick in mono."),
        ("must hold", "pair-snare", -2.0, "A wide pair loses the kick in mono."),
        ("must hold", "pair-turned", -0.6, "Equal on both drums, but cymbals comb."),
        ("must hold", "wide-centre", -2.0, "A wide pair combs in mono."),
        ("must hold", "room-mid-side", 1.2, "Mid-side rooms fold down."),
        ("must hold", "room-omnis", -1.5, "Wide omnis comb in mono."),
        ("must hold", "two-mics", 0.6, "Two mics, both in the middle."),
        ("must hold", "three-mics", 0.8, "Three mics, all in the middle."),
        ("must hold", "three-side", -0.8, "Two unlike spots comb on the toms."),
        ("should hold", "pair-turned", 1.0, "Equal on snare and kick, both hold in mono."),
        ("should hold", "over-shoulder", 0.4, "Equal on snare and kick."),
        ("should hold", "three-pair", 0.4, "Equal on snare and kick."),
        ("no matter", "wide-centre", 1.6, "The widest picture, with its middle filled."),
        ("no matter", "pair-straight", 0.6, "Width before mono."),
        ("no matter", "room-omnis", 0.5, "Wide rooms."),
    ),
    *_rules(
        "method",
        ("tape", "pair-turned", 0.8, "The tape makes snare and kick equal."),
        ("tape", "over-and-side", 0.5, "The cable makes both equal on the snare."),
        ("tape", "over-shoulder", 0.5, "The tape makes both drums equal."),
        ("ear", "pair-coincident", 0.9, "One point cannot be unequal."),
        ("ear", "pair-near", 0.7, "A bar forgives."),
        ("ear", "mono-over", 0.5, "One mic has nothing to be equal to."),
        ("ear", "pair-turned", -1.8, "A turned pair wants the tape."),
        ("ear", "over-and-side", -1.0, "The hardest pair to get right by ear."),
        ("ear", "over-shoulder", -0.8, "Both drums equal wants the tape."),
    ),
    *_rules(
        "timing",
        ("placed", "slot:far", -0.5, "Far mics come late."),
        ("placed", "kick-tunnel", -0.5, "A tunnel is milliseconds behind."),
        ("aligned", "slot:far", 1.0, "Late tracks can be moved."),
        ("aligned", "kick-tunnel", 0.6, "Its track can be moved up."),
        ("aligned", "room-omnis", 0.3, "Distance costs nothing when tracks are moved."),
    ),
    *_rules(
        "first",
        ("overheads", "pair-turned", 0.5, "Overheads are the picture: both drums in its middle."),
        ("overheads", "pair-snare", 0.3, "Overheads are the picture."),
        ("close", "pair-straight", 1.6, "Close mics are the kit; overheads are cymbal mics."),
        ("close", "slot:toms", 1.0, "Close mics are the kit."),
        ("close", "slot:snare bottom", 0.5, "Close mics are the kit."),
    ),
)
