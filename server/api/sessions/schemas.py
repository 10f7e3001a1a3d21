"""Sessions with what their list shows of each layout."""

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import BaseModel, Field
from ringside.pairs.counts import Counts
from ringside.places.starts import Start

from api.common import Id, Name, Strict

MOST_LISTS = 12
"""Lists that are worked out for one question."""


# A list holds hundreds of these: plain models, since each `Schema` is read by way of Python code.
class SketchDrum(BaseModel):
    """A drum in plan, metres."""

    x: float
    y: float
    r: float
    kind: str
    depth: float
    ax: float
    ay: float


class SketchCymbal(BaseModel):
    """A cymbal in plan, metres."""

    x: float
    y: float
    r: float


class SketchMic(BaseModel):
    """A mic in plan, metres."""

    id: str
    x: float
    y: float
    role: str


class Summary(BaseModel):
    """What the list shows of a layout."""

    counts: Counts
    drums: list[SketchDrum]
    cymbals: list[SketchCymbal]
    mics: list[SketchMic]


class LayoutRow(BaseModel):
    """A layout in a list; where it has no summary `why_not` says why."""

    id: int
    name: str
    summary: Summary | None
    lines: int | None
    """How long its list of what to do is; None where it was not asked for since the last change."""
    why_not: str
    changed_at: datetime


class SessionOut(BaseModel):
    """A session with its layouts; in a list with the first of them, and how many there are."""

    id: int
    name: str
    place: str
    studio: str
    made_at: datetime
    layouts: list[LayoutRow]
    layouts_in_all: int


class LinesIn(Strict):
    """Layouts whose lists are asked for, by id."""

    layouts: Annotated[list[Id], Field(max_length=MOST_LISTS)]


class LayoutLines(BaseModel):
    """How long the list of what to do is for a layout."""

    id: int
    lines: int


class SessionIn(Strict):
    """A new session."""

    name: Name
    place: Annotated[str, Field(max_length=120)] = ""
    kit: Name
    start: Start
    studio_id: int | None = None
    room_id: int | None = None


class LayoutIn(Strict):
    """A new layout of a session, from a starting kit and a starting layout."""

    name: Name
    kit: Name
    start: Start


class SessionRename(Strict):
    """A session's name and place."""

    name: Name
    place: Annotated[str, Field(max_length=120)] = ""


class RoomOut(Schema):
    """A room of a studio."""

    id: int
    name: str


class StartOut(Schema):
    """What a new session can begin with."""

    kits: list[str]
    own_kits: list[str]
    starts: dict[str, str]
    rooms: list[RoomOut]
