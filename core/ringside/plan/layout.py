"""A layout: the room, the air, the kit and every mic, as one value.

It is what is stored, sent and written to the layout file. Everything is checked when it
is made, so no other module has to ask whether names are unique or a pair exists.
"""

from typing import Annotated, Any, Final, Literal, Self

from pydantic import Field, ValidationInfo, field_validator, model_validator

from ringside.plan.air import COLDEST_C, HOTTEST_C, humidity_words, speed_of_sound
from ringside.plan.balances import MOST_BALANCES, MOST_SETS, Balance, OptionSet
from ringside.plan.channels import MOST_BOXES, MOST_CHANNELS, BoxAt, Channel
from ringside.plan.kit import Kit
from ringside.plan.mics import Mic
from ringside.plan.questions import Brief, Outlook, Timing
from ringside.plan.room import Room
from ringside.plan.thresholds import Thresholds
from ringside.values import Key, Number, Record, Text, Title

FORMAT: Final = "ringside-layout"
VERSION: Final = 3
MOST_MICS: Final = 64
MOST_ASIDE: Final = 100
VerdictWord = Literal["no matter", "behind", "together", "ask the ear", "late", "hollow"]


class Air(Record):
    """The air of the room."""

    temperature_c: Annotated[
        float,
        Field(
            strict=True,
            allow_inf_nan=False,
            ge=COLDEST_C,
            le=HOTTEST_C,
            description="Degrees Celsius.",
        ),
    ] = 20.0
    humidity_pct: Annotated[float, Field(strict=True, ge=0, le=100)] | None = Field(
        default=None,
        description="Relative humidity, per cent; null is not measured and not counted.",
    )

    @model_validator(mode="after")
    def _countable(self) -> Self:
        words = humidity_words(self.temperature_c, self.humidity_pct)
        if words:
            raise ValueError(words)
        return self

    @property
    def speed(self) -> float:
        """Speed of sound in this air, m/s."""
        return speed_of_sound(self.temperature_c, self.humidity_pct)


class StereoPair(Record):
    """Two mics that make one stereo picture."""

    name: Title
    left: Key
    right: Key
    coding: Literal["left-right", "mid-side"] = Field(
        default="left-right", description="In mid-side `left` is the mid mic, `right` the side."
    )
    width: Annotated[float, Field(strict=True, ge=0, le=2)] = Field(
        default=1.0, description="Mid-side: how much of the side goes to each speaker."
    )


class Stood(Record):
    """What a decision was made on: the pair as it was that day."""

    verdict: VerdictWord
    delay_s: Number
    body_db: Number


class Decision(Record):
    """A pair left as it is on purpose, and why."""

    a: Key
    b: Key
    source: Key
    reason: Annotated[str, Field(strict=True, min_length=1, max_length=400)]
    by: Text = ""
    at: Annotated[str, Field(strict=True, max_length=40)] = Field(
        default="", description="When, ISO 8601; empty when not known."
    )
    stood: Stood | None = Field(default=None, description="The pair when it was decided.")


LineKind = Literal["choose", "flip", "move", "delay", "tape", "hits", "decide"]


class SetAside(Record):
    """A line of what to do that somebody put off, or will not do, and why."""

    kind: LineKind
    of: Annotated[
        tuple[Key, ...],
        Field(
            min_length=1,
            max_length=MOST_MICS,
            description="The mics, drums or set of options it is about.",
        ),
    ]
    words: Text = Field(default="", description="As it was told.")
    reason: Text = Field(default="", description="Empty is put off.")
    by: Text = ""
    at: Annotated[str, Field(strict=True, max_length=40)] = Field(
        default="", description="When, ISO 8601; empty when not known."
    )


class Taken(Record):
    """A technique in use: the mics it placed and the numbers it stands on."""

    id: Key
    technique: Key
    target: Key | None = Field(default=None, description="The drum, cymbal or space it is over.")
    numbers: dict[Key, Number] = Field(
        default_factory=dict,
        max_length=12,
        description="Metres, degrees, hours of the clock or a share, by name.",
    )
    mics: tuple[Key, ...] = Field(min_length=1, max_length=8)


def _named(info: ValidationInfo) -> set[str]:
    """The mics of the layout under validation, by name."""
    return {m.id for m in info.data.get("mics", ())}


def _once(names: list[str], what: str) -> None:
    """Refuses a name that is there twice."""
    for n, name in enumerate(names):
        if name in names[:n]:
            raise ValueError(f"two {what} are called {name!r}; expected each once")


def _both(a: str, b: str, ids: set[str], what: str) -> None:
    if a == b:
        raise ValueError(f"{what} names {a!r} twice; expected two different mics")
    for name in (a, b):
        if name not in ids:
            raise ValueError(f"{what} names mic {name!r}, which is not in the layout")


class Layout(Record):
    """Everything the analysis needs, and nothing about who owns it."""

    format: Literal["ringside-layout"] = FORMAT
    version: Literal[3] = VERSION
    name: Title
    notes: Text = ""
    sample_rate_hz: Literal[44100, 48000, 88200, 96000, 176400, 192000] = 48000
    air: Air = Air()
    room: Room | None = None
    kit: Kit
    mics: tuple[Mic, ...] = Field(default=(), max_length=MOST_MICS)
    channels: tuple[Channel, ...] = Field(
        default=(), max_length=MOST_CHANNELS, description="In the order of the tracks."
    )
    boxes: tuple[BoxAt, ...] = Field(
        default=(), max_length=MOST_BOXES, description="Where the inputs stand, as far as known."
    )
    stereo_pairs: tuple[StereoPair, ...] = Field(default=(), max_length=MOST_MICS // 2)
    decisions: tuple[Decision, ...] = Field(default=(), max_length=2000)
    set_aside: tuple[SetAside, ...] = Field(
        default=(), max_length=MOST_ASIDE, description="Lines of what to do that are not done."
    )
    techniques: tuple[Taken, ...] = Field(default=(), max_length=MOST_MICS)
    brief: Brief | None = Field(default=None, description="What the recording is to be.")
    outlook: Outlook | None = Field(
        default=None, description="Whose view the picture is; null follows the brief or the pairs."
    )
    timing: Timing | None = Field(
        default=None, description="Placed, or aligned afterwards; null follows the brief."
    )
    order: tuple[Key, ...] = Field(
        default=(), max_length=MOST_MICS, description="Mics in the order they are added by ear."
    )
    options: tuple[OptionSet, ...] = Field(default=(), max_length=MOST_SETS)
    balances: tuple[Balance, ...] = Field(default=(), max_length=MOST_BALANCES)
    current: Key | None = Field(
        default=None,
        description="The balance all is judged under; null is the usual one.",
    )
    thresholds: Thresholds = Thresholds()

    @field_validator("order", mode="after")
    @classmethod
    def _each_once(cls, order: tuple[str, ...], info: ValidationInfo) -> tuple[str, ...]:
        ids = _named(info)
        for n, name in enumerate(order):
            if name not in ids:
                raise ValueError(f"names {name!r}, which is not in the layout; take it out")
            if name in order[:n]:
                raise ValueError(f"names {name!r} twice; expected each mic at most once")
        return order

    @field_validator("mics", mode="after")
    @classmethod
    def _each_its_own(cls, mics: tuple[Mic, ...], info: ValidationInfo) -> tuple[Mic, ...]:
        ids, kit = [m.id for m in mics], info.data.get("kit")
        for i, name in enumerate(ids):
            if name in ids[:i]:
                raise ValueError(f"two mics are called {name!r}; rename one")
        for m in mics:
            if kit is not None and m.job is not None and m.job not in kit.source_ids:
                raise ValueError(f"mic {m.id!r} is put up for {m.job!r}, which is not in the kit")
        return mics

    @field_validator("channels", mode="after")
    @classmethod
    def _of_a_mic(cls, channels: tuple[Channel, ...], info: ValidationInfo) -> tuple[Channel, ...]:
        mics, ids = _named(info), [c.id for c in channels]
        for n, c in enumerate(channels):
            if c.id in ids[:n]:
                raise ValueError(f"two channels are called {c.id!r}; rename one")
            if c.mic not in mics:
                raise ValueError(f"channel {c.id!r} is of mic {c.mic!r}, which is not there")
        return channels

    @field_validator("boxes", mode="after")
    @classmethod
    def _each_at_one_place(cls, boxes: tuple[BoxAt, ...]) -> tuple[BoxAt, ...]:
        _once([b.bank for b in boxes], "boxes")
        return boxes

    @field_validator("options", mode="after")
    @classmethod
    def _each_in_one(
        cls, sets: tuple[OptionSet, ...], info: ValidationInfo
    ) -> tuple[OptionSet, ...]:
        ids, used = {c.id for c in info.data.get("channels", ())}, set[str]()
        _once([s.id for s in sets], "sets of options")
        for s in sets:
            for name in (c for o in s.options for c in o.channels):
                if name not in ids:
                    raise ValueError(f"{s.name!r} names {name!r}, which is not recorded")
                if name in used:
                    raise ValueError(f"channel {name!r} is in two options; expected one")
                used.add(name)
        return sets

    @field_validator("balances", mode="after")
    @classmethod
    def _of_channels(
        cls, balances: tuple[Balance, ...], info: ValidationInfo
    ) -> tuple[Balance, ...]:
        ids = {c.id for c in info.data.get("channels", ())}
        _once([b.id for b in balances], "balances")
        for b in balances:
            _once([f.channel for f in b.faders], f"faders of {b.name!r}")
            for f in b.faders:
                if f.channel not in ids:
                    raise ValueError(f"balance {b.name!r} names {f.channel!r}, not recorded")
        return balances

    @field_validator("current", mode="after")
    @classmethod
    def _a_balance(cls, current: str | None, info: ValidationInfo) -> str | None:
        if current is not None and current not in {b.id for b in info.data.get("balances", ())}:
            raise ValueError(f"no balance is called {current!r}; expected one of the layout's")
        return current

    @field_validator("stereo_pairs", mode="after")
    @classmethod
    def _of_two(cls, pairs: tuple[StereoPair, ...], info: ValidationInfo) -> tuple[StereoPair, ...]:
        for p in pairs:
            _both(p.left, p.right, _named(info), f"stereo pair {p.name!r}")
        return pairs

    @field_validator("decisions", mode="after")
    @classmethod
    def _on_what_there_is(
        cls, decisions: tuple[Decision, ...], info: ValidationInfo
    ) -> tuple[Decision, ...]:
        kit = info.data.get("kit")
        for d in decisions:
            _both(d.a, d.b, _named(info), "a decision")
            if kit is not None and d.source not in kit.source_ids:
                raise ValueError(f"a decision names {d.source!r}, which is not in the kit")
        return decisions

    @field_validator("techniques", mode="after")
    @classmethod
    def _of_mics(cls, techniques: tuple[Taken, ...], info: ValidationInfo) -> tuple[Taken, ...]:
        used: set[str] = set()
        ids, names = _named(info), [t.id for t in techniques]
        if len(set(names)) < len(names):
            raise ValueError("two techniques have one short name; rename one")
        for t in techniques:
            for name in t.mics:
                if name not in ids:
                    raise ValueError(
                        f"technique {t.id!r} names mic {name!r}, which is not in the layout"
                    )
                if name in used:
                    raise ValueError(f"mic {name!r} belongs to two techniques; expected one")
                used.add(name)
        return techniques

    @property
    def seen_from(self) -> Outlook:
        """Whose view the picture is: as chosen, as in the brief, or as the first pair stands."""
        if self.outlook:
            return self.outlook
        if self.brief:
            return self.brief.outlook
        named = (self.named_from(p) for p in self.stereo_pairs)
        return next((side for side in named if side), "audience")

    def named_from(self, pair: StereoPair) -> Outlook | None:
        """From whose side a pair's left is on the left; None where it has none of its own.

        Parameters
        ----------
        pair : StereoPair

        Returns
        -------
        str or None
        """
        left, right = self.mic(pair.left), self.mic(pair.right)
        gap = right.position_m[0] - left.position_m[0]
        if pair.coding == "mid-side":
            gap = -right.aim[0]  # a side is put up to look to the left
        if abs(gap) <= 0.05:
            return None
        return "drummer" if gap > 0 else "audience"

    @property
    def school(self) -> Timing:
        """Placed until it is in phase, or aligned after recording."""
        return self.timing or (self.brief.timing if self.brief else "placed")

    def mic(self, mic_id: str) -> Mic:
        """The mic of that name.

        Parameters
        ----------
        mic_id : str
            Its short name.

        Returns
        -------
        Mic

        Raises
        ------
        KeyError
            When there is none.
        """
        for m in self.mics:
            if m.id == mic_id:
                return m
        raise KeyError(mic_id)

    def with_channel(self, channel: Channel) -> "Layout":
        """The same layout with the channel of that name replaced.

        Parameters
        ----------
        channel : Channel

        Returns
        -------
        Layout
        """
        every = tuple(channel if c.id == channel.id else c for c in self.channels)
        return self.model_copy(update={"channels": every})

    def fields(self) -> dict[str, Any]:
        """What a plan consists of, by name; what was measured of one that stands is not of it.

        Returns
        -------
        dict
        """
        return {name: getattr(self, name) for name in Layout.model_fields}

    def with_mic(self, mic: Mic) -> "Layout":
        """The same layout with the mic of that name replaced.

        Parameters
        ----------
        mic : Mic

        Returns
        -------
        Layout
        """
        mics = tuple(mic if m.id == mic.id else m for m in self.mics)
        return self.model_copy(update={"mics": mics})
