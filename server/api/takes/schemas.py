"""Takes on their way in, and what is said of them."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import Field
from ringside.recorder.wrong import Faulty
from ringside.values import FileName
from takes.said import Channels, Drums, ShortName

from api.common import Name, Strict


class FileIn(Strict):
    """A file that is to come."""

    name: FileName
    size: Annotated[int, Field(strict=True, ge=1, le=4_000_000_000)]


class TakeBegin(Strict):
    """A take that is begun; sent again under its key it is one."""

    key: UUID
    name: Name
    files: Annotated[list[FileIn], Field(min_length=1, max_length=64)]


class CorrectIn(Strict):
    """What somebody says of a take: all of it, each time."""

    channels: Channels = {}
    drums: Drums = {}


class RecordIn(Strict):
    """What the simulated recorder plays."""

    key: UUID
    seed: Annotated[int, Field(strict=True, ge=0, le=1_000_000)] = 1
    wrong: Annotated[list[Faulty], Field(max_length=9)] = []


class FileOut(Schema):
    """A file, and how much of it has come."""

    number: int
    name: str
    size: int
    received: int


class TakeOut(Schema):
    """A take."""

    id: int
    key: UUID
    name: str
    by: str
    made_at: datetime
    files: list[FileOut]
    channels: dict[str, str | None]
    drums: dict[str, str | None]
    truth: dict[str, Any] | None


class TakeNamed(Schema):
    """A take by its name, and the layout it is of."""

    id: int
    name: str
    made_at: datetime
    layout_id: int
    layout: str


class TakesOut(Schema):
    """The takes of a layout, and the room its studio has for them, bytes."""

    takes: list[TakeOut]
    kept: int
    most: int


class PieceOut(Schema):
    """How much of a file has come."""

    received: int


class AlignAsk(Schema):
    """How tracks are aligned."""

    to: ShortName
    on: ShortName | None = None
    whole: bool = True
    flips: bool = True


class SoundAsk(Schema):
    """A stretch of sound: which group of channels, from which sample, how many."""

    group: Annotated[int, Field(ge=0, le=7)]
    begin: Annotated[int, Field(ge=0, le=2**31)]
    count: Annotated[int, Field(ge=1, le=2**21)]
