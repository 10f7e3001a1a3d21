"""What is written down on the day: lug readings and spots."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field
from ringside.hear.tuning import DriftRow, DrumNote, TomStep
from ringside.values import Key

from api.common import Strict

Hertz = Annotated[float, Field(ge=20, le=3000)]


class LugsIn(Strict):
    """The pitch beside each lug, round from the one nearest the strike."""

    drum: Key
    key: UUID | None = None
    lugs_hz: Annotated[list[Hertz], Field(min_length=1, max_length=12)]


class LugsOut(Schema):
    """A lug reading as it was written down."""

    id: int
    drum: str
    at: datetime
    lugs_hz: list[float]
    by: str


class TuningOut(Schema):
    """Notes, spread, drift, and what was written down."""

    drums: list[DrumNote]
    steps: list[TomStep]
    spread_words: str
    drift: list[DriftRow]
    log: list[LugsOut]


class SpotIn(Strict):
    """A place of the kit tried by ear."""

    room: Annotated[str, Field(max_length=80)]
    x_m: Annotated[float, Field(ge=0, le=100)]
    y_m: Annotated[float, Field(ge=0, le=100)]
    turn_rad: Annotated[float, Field(ge=-7, le=7)] = 0.0
    rating: Annotated[int, Field(ge=1, le=5)]
    words: Annotated[str, Field(max_length=400)] = ""


class SpotPut(SpotIn):
    """A place to be written down, once for each key."""

    key: UUID | None = None


class SpotOut(SpotIn):
    """A place that was tried, by whom and when."""

    id: int
    by: str
    at: datetime


class ReadingIn(Strict):
    """A tape reading at the kit: between two parts, or from the floor (`b` null) up to one."""

    a: Key
    b: Key | None = None
    metres: Annotated[float, Field(ge=0.01, le=10)]
    key: UUID | None = None


class StrikeIn(Strict):
    """Two ends between which what was read is struck out."""

    a: Key
    b: Key | None = None


class ReadingOut(Schema):
    """A tape reading as it was written down; where it was struck out, when."""

    id: int
    a: str
    b: str | None
    metres: float
    by: str
    at: datetime
    struck_at: datetime | None
