"""Lines of what was tried and heard."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from plans.tried import Heard
from pydantic import AwareDatetime, Field
from ringside.answers.changes import Change
from ringside.files.stored import AnyLayout, AnyState

from api.common import Id, Name, Strict
from api.takes.schemas import TakeNamed


class SaidIn(Strict):
    """What is said of what was heard; sent again under its key it is one line."""

    key: UUID
    song: Annotated[str, Field(max_length=80)] = ""
    words: Annotated[str, Field(max_length=1000)] = ""
    verdict: Heard
    take: Id | None = Field(default=None, description="The take it was heard in, if there is one.")

    def said(self) -> dict[str, Any]:
        """As a line says it."""
        song, words = self.song.strip(), self.words.strip()
        return {"song": song, "words": words, "verdict": self.verdict}


class TriedIn(SaidIn):
    """A line of the log, with the layout as it was heard."""

    stood: bool = Field(default=False, description="As it stands by the tape, not as planned.")
    at: AwareDatetime | None = Field(default=None, description="When it was written; null is now.")
    doc: AnyLayout


class TriedOut(Schema):
    """A line as it was written down, and what had changed since the line before it."""

    id: int
    session_id: int
    session: str
    layout_id: int
    layout: str
    song: str
    words: str
    verdict: Heard
    stood: bool
    since: list[Change]
    take: TakeNamed | None = Field(description="The take it was heard in.")
    by: str
    at: datetime


class SinceLast(Schema):
    """The newest line of a layout, if there is one, and what changed since."""

    last: TriedOut | None
    changes: list[Change]


class ComingFromIn(Strict):
    """Where one comes from to a line: a layout, or another line."""

    layout: AnyState | None = None
    other: Id | None = None


class KeptOut(Schema):
    """The layout of a line, as it was."""

    doc: AnyLayout


class AsLayoutIn(Strict):
    """What a line's layout is called where it is put up."""

    name: Name
