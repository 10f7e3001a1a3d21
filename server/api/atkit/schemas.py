"""What is written down at the kit, and what is asked about it."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field
from ringside.answers.jobs import JobOrder, SetupList
from ringside.answers.recheck import RecheckRow
from ringside.answers.stands import Compared
from ringside.files.stored import AnyLayout
from ringside.standing.entries import LONGEST_M, MOST_ENTRIES, SHORTEST_M, Cord, Entry, What
from ringside.standing.report import Standing
from ringside.standing.since import SinceTouched
from ringside.values import Key

from api.common import LayoutOnly, Strict, Word

Log = Annotated[list[Entry], Field(max_length=MOST_ENTRIES)]


class EntryIn(Strict):
    """A line of a layout's log at the kit."""

    key: UUID
    what: What
    mic: Key
    to: Key | None = None
    metres: Annotated[float, Field(ge=SHORTEST_M, le=LONGEST_M, allow_inf_nan=False)] | None = None
    like: Key | None = None
    cord: Cord | None = None


class StrikeEntryIn(Strict):
    """A line that is struck out, by the key it was written under."""

    key: UUID


class EntryOut(Schema):
    """A line as it was written down, by whom and when."""

    key: UUID
    what: What
    mic: str
    to: str | None
    metres: float | None
    like: str | None
    cord: Cord | None
    by: str
    at: datetime


class AtKitOut(Schema):
    """What counts of a layout's log, in the state of the tag."""

    tag: str
    rows: list[EntryOut]


class StandingIn(Strict):
    """A layout with the log at its kit, sent or not."""

    layout: AnyLayout
    log: Log
    order: JobOrder = "overheads first"


class JudgeIn(Strict):
    """A reading that is being typed."""

    layout: AnyLayout
    log: Log
    mic: Key
    to: Key | None = None
    metres: Annotated[float, Field(allow_inf_nan=False)]  # any: what cannot be is told


class ArcIn(LayoutOnly):
    """A side mic, by its short name."""

    mic: Word


@dataclass(frozen=True, kw_only=True, slots=True)
class AtKit:
    """Where everything stands, what that changes, and the set-up list."""

    standing: Standing
    compared: Compared
    recheck: list[RecheckRow]
    """What was measured and is worth measuring again, the most worth first."""
    since: list[SinceTouched]
    setup: SetupList
