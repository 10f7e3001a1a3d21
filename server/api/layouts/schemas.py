"""A layout in full, its saves and conflicts."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field
from ringside.answers.changes import Change
from ringside.files.stored import AnyLayout
from ringside.plan.layout import Layout as LayoutDoc

from api.common import Name, Problem, Strict


class LayoutOut(Schema):
    """A layout in full, with what is needed to save it safely."""

    id: int
    studio_id: int
    session_id: int
    session_name: str
    place: str
    version: int
    can_undo: bool
    can_redo: bool
    undo_what: str
    redo_what: str
    saved_by: str
    saved_at: datetime
    head_key: UUID | None
    measured: Annotated[bool, Field(description="It can be shown as it stands, too.")]
    doc: LayoutDoc


class LayoutSave(Strict):
    """A new state, made from version `version`; sent again under its key it is kept once."""

    version: int
    key: UUID | None = None
    what: Annotated[str, Field(min_length=1, max_length=120)]
    doc: AnyLayout


class VersionIn(Strict):
    """The version the browser holds; sent again under its key a step is done once."""

    version: int
    key: UUID | None = None


class CopyIn(Strict):
    """A copy's name, and the state to keep when it could not be saved over the newest."""

    name: Name
    doc: AnyLayout | None = None


class ConflictOut(Problem):
    """The layout as it is now, and how it differs from what was sent."""

    current: LayoutOut
    changes: list[Change]
