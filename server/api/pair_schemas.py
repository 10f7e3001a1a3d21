"""What the interface takes and gives of pairs in depth: remedies, flips, order, picture."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field
from ringside.plan.mics import Mic

from api.kit_schemas import LayoutOnly
from api.schemas import VerdictWord

Word = Annotated[str, Field(min_length=1, max_length=16)]


class PairIn(LayoutOnly):
    """A pair on a drum: `a` stands, `b` rather moves; without a source its worst."""

    a: Word
    b: Word
    source: Word | None = None


class RowsIn(LayoutOnly):
    """All pairs on one source, or each on its worst."""

    source: Word | None = None


class BandRow(Schema):
    """The sum over a band, decibels against the louder mic alone."""

    band: Literal["body", "attack", "air"]
    low_hz: float
    high_hz: float
    wired_db: float
    flipped_db: float


class FullestRow(Schema):
    """The fullest point within a short move."""

    later_s: float
    metres: float
    samples: float
    body_db: float


class DelayCurve(Schema):
    """Body of the sum against the delay put on the second mic."""

    later_s: list[float]
    wired_db: list[float]
    flipped_db: list[float]
    now_db: float
    flipped_now_db: float
    equal_s: float | None
    best_move: FullestRow
    words: str


class EffectRow(Schema):
    """What becomes of another pair."""

    a: str
    b: str
    source: str
    before: VerdictWord
    after: VerdictWord


class StandStep(Schema):
    """One part of a move in stand terms, metres."""

    way: str
    metres: float


class RemedyRow(Schema):
    """One thing to do, tried on the whole layout."""

    kind: Literal["flip", "swing", "same height", "snare only", "equal", "line", "delay"]
    words: str
    mics: list[Mic]
    verdict: VerdictWord
    delay_s: float
    body_db: float
    body_gain_db: float | None
    own: float
    score: float
    improves: list[EffectRow]
    spoils: list[EffectRow]
    steps: list[StandStep]
    blocked: str


class PairDepth(Schema):
    """One pair in depth."""

    a: str
    b: str
    source: str
    verdict: VerdictWord
    school: Literal["placed", "aligned"]
    remedies: list[RemedyRow]
    words: str
    bands: list[BandRow]
    by_delay: DelayCurve


class DrumGain(Schema):
    """What a set of flips gives a drum, decibels against as wired."""

    source: str
    gain_db: float


class FlipSet(Schema):
    """Mics to turn over, and what it gives."""

    flip: list[str]
    mean_db: float
    drums: list[DrumGain]


class PairName(Schema):
    """A pair on a drum."""

    a: str
    b: str
    source: str


class FlipsOut(Schema):
    """The best set of flips, the runner-up, and what is proven."""

    best: FlipSet
    runner_up: FlipSet | None
    behind_db: float | None
    proven: bool
    bound_db: float
    held: list[str]
    unsure: list[PairName]
    words: str


class OrderIn(LayoutOnly):
    """The layout's own order of adding, or a school's."""

    first: Literal["overheads", "kick"] | None = None


class StepDrum(Schema):
    """What a newcomer does to a drum's body, decibels; null for the first mic."""

    source: str
    wired_db: float | None
    flipped_db: float | None
    heard: bool


class StepRow(Schema):
    """One mic added."""

    mic: str
    drums: list[StepDrum]
    mean_db: float | None
    flipped_mean_db: float | None
    flip: bool
    words: str


class PlaceRow(Schema):
    """Where a drum appears: percent and degrees, left below zero; what mono keeps of it."""

    source: str
    percent: float
    degrees: float
    placed: bool
    fold_body_db: float
    fold_attack_db: float
    sure: bool
    words: str


class PictureRow(Schema):
    """The picture of one stereo pair."""

    name: str
    left: str
    right: str
    coding: Literal["left-right", "mid-side"]
    width: float
    recording_deg: float | None
    kit_deg: float | None
    sources: list[PlaceRow]
    notes: list[str]


class PanRow(Schema):
    """A close mic's pan against the picture."""

    mic: str
    source: str
    pan: float | None
    heard: float
    state: Literal["agrees", "other side", "apart", "not chosen"]
    words: str


class PictureOut(Schema):
    """All stereo pairs, and the pans."""

    seen_from: Literal["audience", "drummer"]
    main: str | None
    pairs: list[PictureRow]
    pans: list[PanRow]
