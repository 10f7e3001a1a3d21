"""What a studio has to put up: mics, stands, inputs, cables.

Lengths in metres, levels in decibels, sensitivity in mV/Pa.
"""

from typing import Annotated, Final, Literal, Self

from pydantic import Field, model_validator

from ringside.plan.mics import MicKind, Pattern
from ringside.values import Flag, Key, Record, Text, Title, length

USUAL_MIN_PER_MIC: Final = 6.0
"""Minutes, of a practised pair of hands (from memory)."""

MOST: Final = {"mics": 300, "stands": 100, "inputs": 32, "cables": 50}
"""Kinds of each that a locker holds."""

Count = Annotated[int, Field(strict=True, ge=0, le=500)]
Amount = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=1e7)]


class MicModel(Record):
    """A kind of mic in the locker, under the studio's own name for it."""

    id: Key
    name: Title
    kind: MicKind = "condenser"
    patterns: tuple[Pattern, ...] = Field(default=("cardioid",), min_length=1, max_length=6)
    setback_m: Annotated[float, length(0, 0.3, "Capsule behind the front of the body, metres.")] = 0
    phantom: Flag = False
    pads_db: tuple[Annotated[float, Field(strict=True, ge=1, le=40)], ...] = Field(
        default=(), max_length=4
    )
    low_cuts_hz: tuple[Annotated[float, Field(strict=True, ge=10, le=500)], ...] = Field(
        default=(), max_length=4
    )
    sensitivity_mv_pa: Annotated[float, Field(strict=True, gt=0, le=200)] | None = None
    max_spl_db: Annotated[float, Field(strict=True, ge=80, le=180)] | None = None
    fragile: Flag = Field(default=False, description="Hurt by a blast of air.")
    matched: Flag = Field(default=False, description="Bought as matched pairs.")
    count: Count = 1
    cost: Amount = 0.0


class StandModel(Record):
    """A kind of stand: how low and high the clip goes, how far the boom reaches."""

    id: Key
    name: Title
    low_m: Annotated[float, length(0, 5, "Lowest clip, metres.")] = 0.5
    high_m: Annotated[float, length(0.05, 6, "Highest clip, metres.")] = 1.6
    reach_m: Annotated[float, length(0, 4, "Boom, metres; 0 is straight.")] = 0.0
    weight_kg: Annotated[float, Field(strict=True, ge=0, le=200)] = 3.0
    count: Count = 1
    cost: Amount = 0.0

    @model_validator(mode="after")
    def _upright(self) -> Self:
        if self.high_m < self.low_m:
            raise ValueError(f"stand {self.id!r}: its highest clip is under its lowest")
        return self


class InputBank(Record):
    """Preamps in a row, numbered on from the bank before."""

    id: Key
    name: Title
    count: Annotated[int, Field(strict=True, ge=1, le=256)] = 8
    phantom: Literal["each", "bank", "none"] = Field(
        default="each", description="Switched for each input, for the bank at once, or not there."
    )
    max_level_dbu: Annotated[float, Field(strict=True, ge=-40, le=40)] | None = None
    full_scale_dbu: Annotated[float, Field(strict=True, ge=-20, le=40)] | None = Field(
        default=None, description="What fills the converter behind it at no gain."
    )
    most_gain_db: Annotated[float, Field(strict=True, ge=0, le=100)] | None = None
    noise_dbu: Annotated[float, Field(strict=True, ge=-140, le=-60)] | None = Field(
        default=None, description="Of the input itself, at full gain, 20 Hz to 20 kHz, 150 ohms."
    )
    pads_db: tuple[Annotated[float, Field(strict=True, ge=1, le=60)], ...] = Field(
        default=(), max_length=4
    )
    matched: Flag = Field(default=False, description="All alike, as a stereo pair wants two.")


class CableKind(Record):
    """Cables of one length."""

    id: Key
    name: Title
    length_m: Annotated[float, length(0.2, 200, "Metres.")] = 6.0
    count: Count = 1


class Locker(Record):
    """Everything a studio can put up, and what it allows itself."""

    mics: tuple[MicModel, ...] = Field(default=(), max_length=MOST["mics"])
    stands: tuple[StandModel, ...] = Field(default=(), max_length=MOST["stands"])
    inputs: tuple[InputBank, ...] = Field(default=(), max_length=MOST["inputs"])
    cables: tuple[CableKind, ...] = Field(default=(), max_length=MOST["cables"])
    budget: Amount | None = Field(default=None, description="For a day, in the studio's money.")
    minutes: Annotated[int, Field(strict=True, ge=1, le=2000)] | None = Field(
        default=None, description="To set up in."
    )
    minutes_per_mic: Annotated[float, Field(strict=True, ge=0.5, le=60)] = USUAL_MIN_PER_MIC
    notes: Text = ""

    @model_validator(mode="after")
    def _unique(self) -> Self:
        for what in ("mics", "stands", "inputs", "cables"):
            seen: set[str] = set()
            for row in getattr(self, what):
                if row.id in seen:
                    raise ValueError(f"two {what} are called {row.id!r}; rename one")
                seen.add(row.id)
        return self


def socket_of(locker: Locker, channel: int | None) -> tuple[InputBank, int] | None:
    """The preamps that an input is of, and which of theirs it is.

    Parameters
    ----------
    locker : Locker
    channel : int or None
        Counted on from bank to bank, from 1.

    Returns
    -------
    (InputBank, int) or None
        None for one that the locker has not got; sockets count from 1.
    """
    before = 0
    for bank in locker.inputs:
        if channel is not None and before < channel <= before + bank.count:
            return bank, channel - before
        before += bank.count
    return None


def bank_of(locker: Locker, channel: int | None) -> InputBank | None:
    """The preamps of `socket_of`.

    Parameters
    ----------
    locker : Locker
    channel : int or None

    Returns
    -------
    InputBank or None
    """
    found = socket_of(locker, channel)
    return found[0] if found else None
