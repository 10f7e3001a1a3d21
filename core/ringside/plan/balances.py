"""What of a layout is up in the mix, and how far: balances, and channels that stand in for others.

A balance says only what somebody set; the rest is what is common practice for the role.
"""

from typing import Annotated, Final

from pydantic import Field

from ringside.values import Flag, Key, Record, Title

MOST_BALANCES: Final = 16
MOST_SETS: Final = 8
HIGHEST_DB: Final = 12.0
LOWEST_DB: Final = -60.0


Level = Annotated[float, Field(strict=True, ge=LOWEST_DB, le=HIGHEST_DB)]


class Fader(Record):
    """How far one channel is up in a balance; what is null is as usual for its role."""

    channel: Key
    db: Level | None = Field(
        default=None, description="Against the gain that brings its own job to the common peak."
    )
    muted: Flag | None = None


class Balance(Record):
    """A named mix of one layout: dry verse, rooms up in the chorus."""

    id: Key
    name: Title
    faders: tuple[Fader, ...] = Field(default=(), max_length=64)


class Option(Record):
    """Channels that are used together or not at all: a room pair."""

    name: Title
    channels: tuple[Key, ...] = Field(min_length=1, max_length=8)


class OptionSet(Record):
    """Options of which one is used, rarely two; unless set otherwise it is the first."""

    id: Key
    name: Title
    options: tuple[Option, ...] = Field(min_length=2, max_length=12)
