"""Accounts: who is signed in, names and passwords."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field
from ringside.plan.handsizes import HandSizes

from api.common import LARGEST_ID, Name, Strict, Units


class StudioOut(Schema):
    """A studio somebody belongs to."""

    id: int
    name: str
    role: Literal["owner", "member"]


class MeOut(Schema):
    """Who is signed in."""

    username: str
    units: Units
    hand: HandSizes
    hand_fault: str
    studios: list[StudioOut]


class SignIn(Strict):
    """Name and password."""

    username: Annotated[str, Field(min_length=1, max_length=150)]
    password: Annotated[str, Field(min_length=1, max_length=200)]


class SignUp(SignIn):
    """A new account with its studio."""

    studio: Name


class PasswordIn(Strict):
    """Old and new password."""

    old: Annotated[str, Field(max_length=200)]
    new: Annotated[str, Field(max_length=200)]


class UnitsIn(Strict):
    """Units of display."""

    units: Units


class LinkIn(Strict):
    """The layout a phone is to open."""

    layout: Annotated[int, Field(ge=1, le=LARGEST_ID)]


class Way(Schema):
    """One address of a link: what the code says, and the code as a picture."""

    origin: str
    url: str
    qr: str


class LinkOut(Schema):
    """A link for one phone. Its word is told this once."""

    id: int
    ends_at: datetime
    ways: list[Way]


class LinkState(Schema):
    """What became of a link."""

    state: Literal["waiting", "used", "ended"]


class WordIn(Strict):
    """The word of a link."""

    word: Annotated[str, Field(min_length=1, max_length=100)]


class Opened(Schema):
    """Who is signed in now, and where the link leads."""

    me: MeOut
    leads_to: str


class DeviceOut(Schema):
    """A browser somebody is signed in with."""

    id: int
    kind: Literal["phone", "computer"]
    by_link: bool
    made_at: datetime
    seen_at: datetime
    here: bool
