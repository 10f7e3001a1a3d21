"""What the board is asked."""

from typing import Annotated

from ninja import Schema
from pydantic import Field

from api.common import LayoutOnly, Point, Strict


class FocusIn(Strict):
    """The pair to open: the anchor stands, the mover moves."""

    anchor: str
    mover: str
    source: str | None = None


class ComputeIn(LayoutOnly):
    """A layout that need not be stored, and the pair to open."""

    focus: FocusIn | None = None


class TapeIn(LayoutOnly):
    """Typed distances for one mic, metres."""

    mic: str
    snare_m: Annotated[float, Field(gt=0, le=100)]
    kick_m: Annotated[float, Field(gt=0, le=100)]
    height_m: Annotated[float, Field(ge=0, le=30)]


class AimIn(LayoutOnly):
    """A mic to be aimed at a drum or cymbal by name, or straight ``down`` or ``up``."""

    mic: str
    target: str


class AimOut(Schema):
    """A unit direction."""

    aim: Point


class Setting(Schema):
    """A named threshold with its value and reason."""

    name: str
    value: float
    reason: str
