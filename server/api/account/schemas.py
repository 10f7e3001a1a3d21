"""Accounts: who is signed in, names and passwords."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field
from ringside.plan.handsizes import HandSizes

from api.common import Name, Strict, Units


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
