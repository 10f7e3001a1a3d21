"""What the board is asked."""

from typing import Annotated

from ninja import Schema
from pydantic import Field
from ringside.answers.board import FocusOn
from ringside.plan.kit import Direction
from ringside.values import Key, Place

from api.common import LayoutOnly, Point, Strict
from api.resting import UnderHand


class FocusIn(Strict):
    """The pair to open: the anchor stands, the mover moves."""

    anchor: str
    mover: str
    source: str | None = None

    def on(self) -> FocusOn:
        """As the core takes it."""
        return FocusOn(self.anchor, self.mover, self.source)


class ComputeIn(LayoutOnly):
    """A layout that need not be stored, and the pair to open."""

    focus: FocusIn | None = None


class FollowIn(UnderHand):
    """The mic under the hand where it is now, and the pair that is open."""

    mic: Key
    position_m: Place
    aim: Direction
    focus: FocusIn | None = None
    words: bool = Field(default=True, strict=True, description="With what is read, not seen.")


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
