"""What the interface takes and gives of techniques, drum terms, fitting and the brief."""

from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field
from ringside.brief.plans import Piece
from ringside.fitting.fit import FitAsk
from ringside.places.drumterms import DrumTerms
from ringside.plan.layout import Layout as LayoutDoc
from ringside.plan.questions import Brief
from ringside.techniques.recipe import Group, Unit

from api.kit_schemas import LayoutOnly
from api.schemas import Counts, Point

Word = Annotated[str, Field(min_length=1, max_length=16)]
Numbers = Annotated[dict[str, float], Field(max_length=12)]


class NumberRow(Schema):
    """A named number: metres, degrees, hours or a share; `hand` says what it is by hand."""

    id: str
    label: str
    unit: Unit
    default: float
    low: float
    high: float
    hand: str | None


class TechniqueRow(Schema):
    """A technique of the list, for this kit and this user's hand."""

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


class TakeIn(LayoutOnly):
    """A technique to take; without a target the first free one."""

    technique: Word
    target: Word | None = None
    numbers: Numbers = {}


class ChangeIn(LayoutOnly):
    """Numbers of a technique in use; none at all puts its mics back where they belong."""

    taken: Word
    numbers: Numbers = {}


class DropIn(LayoutOnly):
    """A technique in use to take away with its mics."""

    taken: Word


class OffRow(Schema):
    """A mic that left its numbers, and how far, metres."""

    mic: str
    moved_m: float


class EqualRow(Schema):
    """A promise as measured now, metres."""

    a: str
    b: str
    on: str
    difference_m: float


class StandingRow(Schema):
    """A technique in use."""

    id: str
    technique: str
    name: str
    target: str | None
    mics: list[str]
    numbers: dict[str, float]
    off: list[OffRow]
    equal: list[EqualRow]
    notes: list[str]


class TookOut(Schema):
    """The layout as it would be; nothing is stored."""

    layout: LayoutDoc
    id: str
    what: str
    notes: list[str]
    short: list[str]
    standing: StandingRow | None


class TermsIn(LayoutOnly):
    """A close mic."""

    mic: str


class TermsOut(Schema):
    """A close mic in drum terms, and the metal nearest to it, metres."""

    terms: DrumTerms
    cymbal: str | None
    gap_m: float | None


class PutIn(TermsIn):
    """A close mic and where it should be in drum terms."""

    terms: DrumTerms


class NullIn(TermsIn):
    """A close mic, whom to turn away from, and how far its front may leave the drum, degrees."""

    neighbour: Word | None = None
    off_deg: Annotated[float, Field(ge=0, le=90)] = 30.0


class NullOut(Schema):
    """The aim, and what it takes out, decibels and degrees."""

    aim: Point
    neighbour: str
    off_deg: float
    taken_db: float
    own_db: float
    theory_db: float
    null_deg: float
    words: str


class FitIn(LayoutOnly):
    """A layout to fit, and how."""

    ask: FitAsk = FitAsk()


class MoveRow(Schema):
    """What a fit did to a mic; snare and kick before and after, metres."""

    mic: str
    moved_m: float
    turned_deg: float
    snare_m: tuple[float, float]
    kick_m: tuple[float, float]
    why: list[str]


class GaveUpRow(Schema):
    """A wish a fit could not keep, and what is left of it, metres."""

    mics: list[str]
    words: str
    left_m: float | None


class FitOut(Schema):
    """A fitted layout and the account of it."""

    layout: LayoutDoc
    moves: list[MoveRow]
    gave_up: list[GaveUpRow]
    words: str


class SweepIn(LayoutOnly):
    """A technique in use, one of its numbers, and how many values."""

    taken: Word
    number: Word
    points: Annotated[int, Field(ge=3, le=121)] = 41


class Stand(Schema):
    """A mic as it would stand."""

    id: str
    position_m: Point
    aim: Point


class EqualCurve(Schema):
    """A promise over the values, metres."""

    a: str
    b: str
    on: str
    difference_m: list[float]


class SweepOut(Schema):
    """Curves over the values of one number."""

    number: str
    label: str
    unit: Unit
    values: list[float]
    now: float
    levels_db: dict[Literal["kick", "snare", "toms", "cymbals"], list[float | None]]
    room_db: list[float] | None
    equal: list[EqualCurve]
    verdicts: list[dict[str, int]]
    blocked: list[str]
    mics: list[list[Stand]]
    best: int
    words: str


class AnswerRow(Schema):
    """One answer and what it changes."""

    value: str
    label: str
    changes: str


class QuestionRow(Schema):
    """A question of the brief."""

    id: str
    label: str
    answers: list[AnswerRow]


class RuleRow(Schema):
    """A row of the table of rules."""

    question: str
    answer: str
    about: str
    weight: float
    because: str


class BriefOut(Schema):
    """The questions, where they start, and the table."""

    questions: list[QuestionRow]
    start: Brief
    rules: list[RuleRow]


class PlansIn(LayoutOnly):
    """A layout whose kit and room are used, and the answers."""

    brief: Brief


class PlanRow(Schema):
    """A starting layout."""

    title: str
    layout: LayoutDoc
    pieces: list[Piece]
    reasons: list[str]
    gives_up: list[str]
    inputs: int
    stands: int
    minutes: int
    counts: Counts
    score: float


class BuildIn(PlansIn):
    """Pieces to build a layout of."""

    pieces: Annotated[list[Piece], Field(max_length=40)]


def row_of(rows: list[dict[str, Any]], taken: str) -> dict[str, Any] | None:
    """The technique in use of that name among the rows."""
    return next((r for r in rows if r["id"] == taken), None)
