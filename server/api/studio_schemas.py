"""What the interface takes and gives of a studio: rooms, kits, the locker, and the day's logs."""

from datetime import datetime
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field
from ringside.gear.locker import Locker as LockerDoc
from ringside.plan.kit import Kit as KitDoc
from ringside.plan.room import Room as RoomDoc

from api.schemas import Strict

Hertz = Annotated[float, Field(ge=20, le=3000)]


class KeptRoom(Schema):
    """A room a studio keeps."""

    id: int
    name: str
    room: RoomDoc


class KeptKit(Schema):
    """A kit a studio keeps."""

    id: int
    name: str
    kit: KitDoc


class PresetOut(Schema):
    """A starting kit."""

    name: str
    kit: KitDoc


class LockerOut(Schema):
    """A locker with the version to save it over."""

    version: int
    locker: LockerDoc


class LockerIn(Strict):
    """A locker made from a version."""

    version: int
    locker: LockerDoc


class FaultOut(Schema):
    """A row of a file that was not read."""

    line: int
    column: str
    words: str


class LockerRead(LockerOut):
    """The locker after a file was read into it, and the rows that were left out."""

    faults: list[FaultOut]


class Lack(Schema):
    """Something the locker cannot put up."""

    kind: str
    words: str
    mics: list[str]


class StockOut(Schema):
    """Whether a layout can be put up: what is short, and used of what is there."""

    lacks: list[Lack]
    used: dict[str, tuple[int, int]]
    minutes: int
    cost: float


class LugsIn(Strict):
    """The pitch beside each lug, round from the one nearest the strike."""

    drum: Annotated[str, Field(min_length=1, max_length=16)]
    lugs_hz: Annotated[list[Hertz], Field(min_length=1, max_length=12)]


class LugsOut(Schema):
    """A lug reading as it was written down."""

    id: int
    drum: str
    at: datetime
    lugs_hz: list[float]
    by: str


class DrumPitch(Schema):
    """A drum's fundamental as a note, known or estimated from its size."""

    id: str
    name: str
    fundamental_hz: float
    note: str
    cents: float
    known: bool
    body_low_hz: float
    body_high_hz: float


class TomStep(Schema):
    """The interval between two neighbouring toms."""

    high: str
    low: str
    cents: int
    words: str
    sure: bool


class DriftOut(Schema):
    """One drum through the day."""

    drum: str
    times: int
    drift_cents: list[float]
    uneven_cents: float
    worst_lug: int
    fundamental_hz: float
    minutes: int
    recheck: bool
    words: str


class TuningOut(Schema):
    """Notes, spread, drift, and what was written down."""

    drums: list[DrumPitch]
    steps: list[TomStep]
    spread_words: str
    drift: list[DriftOut]
    log: list[LugsOut]


class SpotIn(Strict):
    """A place of the kit tried by ear."""

    room: Annotated[str, Field(max_length=80)]
    x_m: Annotated[float, Field(ge=0, le=100)]
    y_m: Annotated[float, Field(ge=0, le=100)]
    turn_rad: Annotated[float, Field(ge=-7, le=7)] = 0.0
    rating: Annotated[int, Field(ge=1, le=5)]
    words: Annotated[str, Field(max_length=400)] = ""


class SpotOut(SpotIn):
    """A place that was tried, by whom and when."""

    id: int
    by: str
    at: datetime


class PitchIn(Strict):
    """A fundamental as it is typed: hertz or a note."""

    text: Annotated[str, Field(max_length=40)]


class PitchOut(Schema):
    """It in hertz and as the nearest note."""

    hz: float
    note: str
    cents: float


def kept(row: Any, field: str, doc: Any) -> dict[str, Any]:
    """A kept room or kit as the interface gives it."""
    return {"id": row.pk, "name": row.name, field: doc}
