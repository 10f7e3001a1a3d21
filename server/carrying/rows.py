"""What the files of an archive say, row by row."""

from datetime import datetime
from typing import Annotated, Any, Self
from uuid import UUID, uuid4

from plans.tried import MOST_CHANGES, Heard
from pydantic import BaseModel, ConfigDict, Field, model_validator
from ringside.answers.changes import Change
from ringside.recorder.wrong import Wrong
from ringside.standing.entries import Cord, Entry, What
from ringside.takes.files import MOST_TRACKS
from ringside.values import FileName
from takes.actions import LARGEST_FILE
from takes.said import Channels, Drums


class Strict(BaseModel):
    """Fields beyond these are let pass: a later version may have more."""

    model_config = ConfigDict(extra="ignore")


class Head(Strict):
    """The manifest."""

    format: str
    version: int
    name: str = Field(min_length=1, max_length=80)


class Named(Strict):
    """A room or kit."""

    name: str = Field(min_length=1, max_length=80)
    doc: dict[str, Any]


class Row(Strict):
    """What every row of a log says."""

    by: str = Field(default="", max_length=150)
    at: datetime
    struck_at: datetime | None = None


class LugRow(Row):
    """A lug reading."""

    drum: str = Field(max_length=16)
    lugs_hz: list[float] = Field(max_length=12)


class SpotRow(Row):
    """A spot tried by ear."""

    room: str = Field(max_length=80)
    x_m: float
    y_m: float
    turn_rad: float = 0.0
    rating: int = Field(ge=1, le=5)
    words: str = Field(default="", max_length=400)


class TapeRow(Row):
    """A tape reading."""

    a: str = Field(max_length=16)
    b: str | None = Field(default=None, max_length=16)
    metres: float


class StandRow(Row):
    """A line of a layout's log at the kit, known by its key."""

    key: UUID = Field(default_factory=uuid4)
    what: What
    mic: str = Field(max_length=16)
    to: str | None = Field(default=None, max_length=16)
    metres: float | None = None
    like: str | None = Field(default=None, max_length=16)
    cord: Cord | None = None

    @model_validator(mode="after")
    def _is_an_entry(self) -> Self:
        """What the core would not take is refused here, not when it is shown."""
        Entry(key=str(self.key), **self.model_dump(exclude={"key", "by", "struck_at"}))
        return self


class TriedRow(Row):
    """A line of the log: what was tried and heard, of the session's layout of that number."""

    key: UUID = Field(default_factory=uuid4)
    layout: int = Field(ge=1)
    song: str = Field(default="", max_length=80)
    words: str = Field(default="", max_length=1000)
    verdict: Heard
    stood: bool = False
    since: list[Change] = Field(default=[], max_length=MOST_CHANGES)
    take: UUID | None = None
    doc: dict[str, Any]


class SessionFile(Strict):
    """A session with its logs."""

    name: str = Field(min_length=1, max_length=80)
    place: str = Field(default="", max_length=120)
    made_at: datetime
    deleted_at: datetime | None = None
    room: str | None = None
    lugs: list[LugRow] = []
    spots: list[SpotRow] = []
    tape: list[TapeRow] = []


class LayoutFile(Strict):
    """What is said of a layout beside its states."""

    name: str = Field(min_length=1, max_length=80)
    head: int = Field(ge=1)
    deleted_at: datetime | None = None
    at_kit: list[StandRow] = []


class State(Strict):
    """One state of a layout."""

    number: int = Field(ge=1, le=2_000_000_000)
    what: str = Field(min_length=1, max_length=120)
    by: str = Field(default="", max_length=150)
    at: datetime
    doc: dict[str, Any]


class SoundFile(Strict):
    """A sound file of a take: what it is called and how long it is, not what is in it."""

    name: FileName
    size: Annotated[int, Field(strict=True, ge=1, le=LARGEST_FILE)]


class TakeRow(Strict):
    """A take without its sound, of the session's layout of that number."""

    key: UUID
    layout: int = Field(ge=1)
    name: str = Field(min_length=1, max_length=80)
    by: str = Field(default="", max_length=150)
    made_at: datetime
    channels: Channels = {}
    drums: Drums = {}
    plan: dict[str, Any] | None = None
    truth: dict[str, Any] | None = None
    files: list[SoundFile] = Field(min_length=1, max_length=MOST_TRACKS)

    @model_validator(mode="after")
    def _was_set_up(self) -> Self:
        """What was set up wrong is refused here where it cannot be shown."""
        Wrong.model_validate((self.truth or {}).get("wrong") or {})
        return self
