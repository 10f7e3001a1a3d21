"""Kit and room: edits, the tape walk, the sound of the room."""

from typing import Annotated

from ninja import Schema
from pydantic import Field
from ringside.plan.kit import Kit
from ringside.plan.layout import Layout as LayoutDoc
from ringside.plan.room import Room
from ringside.rooms.boundary import SpotBoard
from ringside.rooms.decay import Decay
from ringside.rooms.modes import Mode
from ringside.survey.report import TapeReport

from api.common import LayoutOnly, Point, Strict
from api.resting import UnderHand

Point2 = tuple[float, float]


class KitBoardIn(LayoutOnly):
    """A layout, and the readings that cannot be taken, each by its two ends."""

    skip: Annotated[list[tuple[str, str | None]], Field(max_length=300)] = []


class KitBoard(Schema):
    """The walk, and the zones of sticks and feet for the drawing, metres."""

    tape: TapeReport
    sweeps_m: list[tuple[Point, Point]]
    pedals_m: list[tuple[Point2, Point2]]
    pedal_wide_m: float


class RoomBoard(Schema):
    """Everything the room step shows."""

    decay: Decay
    modes: list[Mode]
    modes_words: list[str]
    spots: SpotBoard


class HereIn(UnderHand):
    """The room as it is under the hand, which moves the kit, a gobo or a wall of it."""

    room: Room


class MaterialRow(Schema):
    """A row of the material table."""

    name: str
    about: str
    alpha: list[float]


class MaterialsOut(Schema):
    """The material table with its source; bands in hertz."""

    source: str
    bands_hz: list[float]
    materials: list[MaterialRow]


class EffectsIn(Strict):
    """Two states of a layout."""

    before: LayoutDoc
    after: LayoutDoc


class PresetOut(Schema):
    """A starting kit."""

    name: str
    kit: Kit


class PitchIn(Strict):
    """A fundamental as it is typed: hertz or a note."""

    text: Annotated[str, Field(max_length=40)]


class PitchOut(Schema):
    """It in hertz and as the nearest note."""

    hz: float
    note: str
    cents: float
