"""What the interface takes and gives of kit and room: edits, the tape walk, the room's sound."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field
from ringside.edits.kit import KitEdit
from ringside.plan.layout import Layout as LayoutDoc

from api.schemas import Point, Strict, VerdictWord

Point2 = tuple[float, float]


class KitEditIn(Strict):
    """An edit of the kit of a layout."""

    layout: LayoutDoc
    edit: KitEdit


class KitEditOut(Schema):
    """The layout as it is then, what was done, and the mics that went along."""

    layout: LayoutDoc
    words: str
    moved: list[str]


class LayoutOnly(Strict):
    """A layout that need not be stored."""

    layout: LayoutDoc


class KitBoardIn(LayoutOnly):
    """A layout, and the readings that cannot be taken, each by its two ends."""

    skip: Annotated[list[tuple[str, str | None]], Field(max_length=300)] = []


class ReadingRow(Schema):
    """A tape reading against the plan, metres."""

    a: str
    b: str | None
    metres: float
    says_m: float
    off_m: float
    state: Literal["fits", "misfit", "doubtful", "unsure"]


class PartDoubt(Schema):
    """How well a part's place is known, metres, one sigma; where the tape is held."""

    id: str
    plan_m: float
    height_m: float
    placed: bool
    held_at: str


class AskOut(Schema):
    """The reading to take next; `b` null is the floor."""

    a: str
    b: str | None
    stage: Literal["place", "check", "again"]
    words: str


class TapeReport(Schema):
    """The walk round the kit."""

    readings: list[ReadingRow]
    parts: list[PartDoubt]
    next: AskOut | None
    placed: int
    guarded: int
    words: str


class KitBoard(Schema):
    """The walk, and the zones of sticks and feet for the drawing, metres."""

    tape: TapeReport
    sweeps_m: list[tuple[Point, Point]]
    pedals_m: list[tuple[Point2, Point2]]
    pedal_wide_m: float


class ModeRow(Schema):
    """A mode of the room."""

    hz: float
    order: list[int]
    kind: str


class AreaRow(Schema):
    """A surface and what covers it."""

    where: str
    material: str
    m2: float


class DirectRow(Schema):
    """A mic off the kit against its critical distance."""

    mic: str
    distance_m: float
    reach_m: float
    direct_db: float
    elsewhere: bool


class DecayOut(Schema):
    """Decay by octave band and what follows."""

    bands_hz: list[float]
    sabine_s: list[float]
    eyring_s: list[float]
    mid_s: float
    volume_m3: float
    surface_m2: float
    schroeder_hz: float
    critical_m: float
    areas: list[AreaRow]
    words: list[str]
    mics: list[DirectRow]


class MapSpot(Schema):
    """A spot half a metre from the next, and how rough the low end is there."""

    x_m: float
    y_m: float
    roughness_db: float
    smooth: bool


class SpotBoard(Schema):
    """The boundary response where the kit stands, and the map."""

    frequency_hz: list[float]
    curves: dict[str, list[float]]
    roughness_db: float | None
    walls_m: dict[str, float]
    smoothest_db: float | None
    spots: list[MapSpot]


class RoomBoard(Schema):
    """Everything the room step shows."""

    decay: DecayOut
    modes: list[ModeRow]
    modes_words: list[str]
    spots: SpotBoard


class MaterialRow(Schema):
    """A row of the material table."""

    name: str
    about: str
    alpha: list[float]


class MaterialsOut(Schema):
    """The material table with its source; bands in hertz."""

    source: str
    bands_hz: list[float]
    materials: list[MaterialRow]


class EffectsIn(Strict):
    """Two states of a layout."""

    before: LayoutDoc
    after: LayoutDoc


class ArrivalChange(Schema):
    """The largest change of an arrival, seconds."""

    mic: str
    source: str
    before_s: float
    after_s: float


class VerdictChange(Schema):
    """A verdict that turned over."""

    a: str
    b: str
    source: str
    before: VerdictWord
    after: VerdictWord


class EffectsOut(Schema):
    """What a change did."""

    speed_before_m_s: float
    speed_after_m_s: float
    arrivals: ArrivalChange | None
    verdicts: list[VerdictChange]
    turned: int
    words: str
