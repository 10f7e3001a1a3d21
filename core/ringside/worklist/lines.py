"""The lines of the list: what to do, what it gains and costs, how sure it is, what else it does."""

from dataclasses import dataclass
from typing import Literal

from ringside.edits.apply import OneEdit
from ringside.pairs.counts import Counts
from ringside.pairs.effects import EffectRow
from ringside.places.steps import StandStep
from ringside.plan.layout import LineKind
from ringside.plan.questions import Timing

Surety = Literal["sure", "likely", "open"]
Drummer = Literal["plays on", "stops", "hits"]


@dataclass(frozen=True, kw_only=True, slots=True)
class LineGain:
    """What a line gives a drum in the current balance, decibels."""

    source: str
    body_db: float
    """Of its body in the sum of all."""
    comb_db: float
    """Of what late arrivals can take from it between their best and their worst."""


@dataclass(frozen=True, kw_only=True, slots=True)
class StandMove:
    """A mic that moves, step by step."""

    mic: str
    steps: list[StandStep]


@dataclass(frozen=True, kw_only=True, slots=True)
class LineCost:
    """What a line takes."""

    minutes: float
    stands: list[str]
    """Mics whose stands are touched."""
    drummer: Drummer
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Line:
    """One thing to do, after all the lines before it."""

    kind: LineKind
    of: list[str]
    """The mics, drums or set it is about: what sets it aside goes by these."""
    words: str
    because: str
    """The rule of the trade it follows."""
    edits: list[OneEdit]
    """What takes it; empty where it is done at the kit."""
    gain_db: float
    """On average over the drums: of body, and of what late arrivals could take."""
    low_db: float
    high_db: float
    """The body's part of it, in eight of ten ways that what is open may fall, and the rest."""
    drums: list[LineGain]
    moves: list[StandMove]
    cost: LineCost
    sure: Surety
    sure_words: str
    settles: int
    """Open verdicts that are known after it."""
    better: list[EffectRow]
    worse: list[EffectRow]


@dataclass(frozen=True, kw_only=True, slots=True)
class AsideRow:
    """A line that was put off, or dismissed with a reason."""

    kind: LineKind
    of: list[str]
    words: str
    reason: str
    by: str
    at: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Worklist:
    """What to do now, in order; and how everything stands before and after all of it."""

    lines: list[Line]
    aside: list[AsideRow]
    before: Counts
    after: Counts
    gains: list[LineGain]
    """What all lines together give each drum."""
    gain_db: float
    school: Timing
    heard: str
    """The take whose hits have settled a sign that the plan leaves open; empty where none has."""
    words: str
    """The whole in a sentence; why, where there is nothing to do."""
