"""The brief: what is known before the first mic, as answers to short questions.

Each question has a few answers, and each answer says what it changes; the rules that act on
them are in :mod:`ringside.brief`.
"""

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pydantic import Field

from ringside.values import Flag, Record

Style = Literal["soft", "song", "driving", "heavy", "raw"]
Impact = Literal["light", "solid", "huge"]
Space = Literal["dry", "some", "roomy"]
Tone = Literal["warm", "even", "cutting"]
Use = Literal["little", "much"]
Hitter = Literal["light", "even", "hard"]
Mono = Literal["must hold", "should hold", "no matter"]
Outlook = Literal["audience", "drummer"]
Method = Literal["tape", "ear"]
Timing = Literal["placed", "aligned"]
First = Literal["overheads", "close"]


class Brief(Record):
    """The answers; every one has a value to begin with, none is final."""

    style: Style = "song"
    impact: Impact = "solid"
    space: Space = "some"
    tone: Tone = "even"
    ride: Use = "little"
    toms: Use = "much"
    hitter: Hitter = "even"
    mono: Mono = "should hold"
    outlook: Outlook = "audience"
    inputs: Annotated[int, Field(strict=True, ge=1, le=32)] = 12
    from_locker: Flag = Field(
        default=True, description="Only mics and stands of the studio's locker, where it has any."
    )
    minutes: Annotated[int, Field(strict=True, ge=10, le=600)] = 120
    method: Method = "tape"
    timing: Timing = "placed"
    first: First = "overheads"


@dataclass(frozen=True, kw_only=True)
class Answer:
    """One answer to a question: its value, its words, and what it changes."""

    value: str
    label: str
    changes: str


@dataclass(frozen=True, kw_only=True)
class Question:
    """A question of the brief."""

    id: str
    label: str
    answers: tuple[Answer, ...]


def _ask(id_: str, label: str, *rows: tuple[str, str, str]) -> Question:
    answers = tuple(Answer(value=v, label=name, changes=text) for v, name, text in rows)
    return Question(id=id_, label=label, answers=answers)


QUESTIONS: Final[tuple[Question, ...]] = (
    _ask("style", "What is it?",
         ("soft", "Soft, played with air", "The picture carries the kit; few close mics."),
         ("song", "A song with a band", "Picture and close mics share the work."),
         ("driving", "Driving", "Close mics lead; bottom snare mic and a room pair come early."),
         ("heavy", "Heavy and dense", "Every tom gets a mic; overheads see to the cymbals."),
         ("raw", "Raw, few mics", "One to four mics; character before control.")),
    _ask("impact", "How big is the kick?",
         ("light", "Light", "One mic outside does."),
         ("solid", "Solid", "Inside for the body, or at the port."),
         ("huge", "Huge", "Two kick mics, and something far off for the lowest octave.")),
    _ask("space", "Dry or roomy?",
         ("dry", "Dry", "No room mics; overheads nearer."),
         ("some", "Some room", "One room pair, not too far."),
         ("roomy", "Roomy", "Several room mics as options, farther out.")),
    _ask("tone", "Warm or cutting?",
         ("warm", "Warm", "Figure-8 pairs, mics off the edge of the head, a little off."),
         ("even", "Even", "Nothing is leaned on."),
         ("cutting", "Cutting", "Close and steep, at the centre, a mic for the hats.")),
    _ask("ride", "How much ride and hats?",
         ("little", "Little", "The picture has them; their inputs go elsewhere."),
         ("much", "Much", "Each gets a mic of its own.")),
    _ask("toms", "How many tom fills?",
         ("little", "Few", "The picture carries the toms when inputs are short."),
         ("much", "Many", "A mic on every tom before any room mic.")),
    _ask("hitter", "How hard does this drummer play?",
         ("light", "Light", "Nearer overheads, bottom mic for the wires."),
         ("even", "Evenly", "Nothing is leaned on."),
         ("hard", "Hard", "Moving-coils close in; room mics, because the room answers.")),
    _ask("mono", "Must it hold in mono?",
         ("must hold", "It must", "Coincident, mid-side or single mics; no wide spaced pair."),
         ("should hold", "It should", "Pairs equal on snare and kick."),
         ("no matter", "No matter", "The widest picture may win.")),
    _ask("outlook", "Whose view is the picture?",
         ("audience", "Audience", "Pairs are named left and right as the audience sees them."),
         ("drummer", "Drummer", "Pairs are named left and right as the drummer sits.")),
    _ask("method", "Measured or by ear?",
         ("tape", "Tape", "Spots that must be equal to the centimetre are offered."),
         ("ear", "By ear", "Spots that forgive: coincident pairs, one mic over the kit.")),
    _ask("timing", "Placed, or aligned afterwards?",
         ("placed", "Placed until it is in phase", "Equal distances count; few mics far apart."),
         ("aligned", "Tracks are moved later", "Far room mics and odd spots cost nothing.")),
    _ask("first", "What comes first?",
         ("overheads", "Overheads", "They are the picture of the kit; built first."),
         ("close", "Close mics", "They are the kit; overheads are cymbal mics, straight down.")),
)  # fmt: skip
"""The questions with a choice; inputs, minutes and the locker are asked as numbers beside."""
