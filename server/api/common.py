"""What several topics of the interface share."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import BaseModel, ConfigDict, Field
from ringside.files.stored import AnyState

Name = Annotated[str, Field(min_length=1, max_length=80)]
Word = Annotated[str, Field(min_length=1, max_length=16)]
LARGEST_ID = 2**63 - 1
Id = Annotated[int, Field(ge=1, le=LARGEST_ID)]
Units = Literal["cm", "ft-in", "hand"]
Point = tuple[float, float, float]


class Strict(BaseModel):
    """Unknown fields are refused, so that a slip of the keys is not lost.

    A plain model: a `Schema` that forbids fields reads what it is sent twice.
    """

    model_config = ConfigDict(extra="forbid")


class Problem(Schema):
    """An error as application/problem+json (RFC 9457)."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    place: str | None = None


class LayoutOnly(Strict):
    """A layout that need not be stored."""

    layout: AnyState
