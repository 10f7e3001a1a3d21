"""Records as they are kept for years: each carries its kind and version, old ones are brought up.

What was written before versions were kept counts as version 0. A step takes the plain JSON of
one version to the next; a sample of every version ever written is in tests/core/versions.
"""

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any, Final, Generic, TypeVar

from pydantic import BeforeValidator, Field, ValidationError, WrapValidator

from ringside.errors import LayoutFileError
from ringside.faults import place_of, short, wording
from ringside.gear.locker import Locker
from ringside.plain import first_fault
from ringside.plan.channels import LAST_INPUT, Input
from ringside.plan.handsizes import HandSizes
from ringside.plan.kit import Kit
from ringside.plan.layout import FORMAT, VERSION, Layout
from ringside.plan.room import Room
from ringside.standing.stood import AsItStands
from ringside.values import Flag, Record

Plain = dict[str, Any]
R = TypeVar("R", bound=Record)


@dataclass(frozen=True, slots=True)
class Kind(Generic[R]):
    """A kind of record that is kept: its name in the file, its newest version, the steps to it."""

    format: str
    model: type[R]
    version: int
    first: int
    steps: tuple[Callable[[Plain], Plain], ...] = ()
    mend: Callable[[Plain], Plain] = lambda value: value
    """What was once let in and is refused now, put right in what is already kept."""

    def pack(self, record: R) -> Plain:
        """The record as plain JSON with its kind and version.

        Parameters
        ----------
        record : R

        Returns
        -------
        Plain
        """
        return {"format": self.format, "version": self.version, **record.model_dump(mode="json")}

    def unpack(self, value: Any, *, kept: bool = False) -> R:
        """The record of plain JSON of any version that was ever written.

        Parameters
        ----------
        value : object
            As parsed from JSON.
        kept : bool
            It was let in before; what newer rules refuse is put right.

        Returns
        -------
        R

        Raises
        ------
        LayoutFileError
            With the place of the fault and what was expected.
        """
        fault = first_fault(value) if isinstance(value, dict) else None
        if fault:
            raise LayoutFileError(place_of(fault[0]), fault[1])
        new = self.brought_up(value)
        if kept:
            new = self.mend(new)
        own = self.model.model_fields
        body = {k: v for k, v in new.items() if k in own or k not in ("format", "version")}
        try:
            return self.model.model_validate_json(json.dumps(body))
        except ValidationError as refused:
            first = refused.errors(include_url=False)[0]
            raise LayoutFileError(place_of(first["loc"]), wording(first)) from None

    def brought_up(self, value: Any) -> Plain:
        """Plain JSON of any version as the newest has it, unchecked but for its version.

        Parameters
        ----------
        value : object
            As parsed from JSON.

        Returns
        -------
        Plain

        Raises
        ------
        LayoutFileError
            When it is of no version that is known.
        """
        if not isinstance(value, dict):
            raise LayoutFileError("", f"expected an object, got {short(value)}")
        version = value.get("version", 0)
        if self.first == 0 and "format" not in value and "version" not in value:
            version = 0
        elif value.get("format") != self.format:
            raise LayoutFileError(
                "format", f"expected {self.format!r}, got {short(value.get('format'))}"
            )
        known = isinstance(version, int) and not isinstance(version, bool)
        if not known or not self.first <= version <= self.version:
            raise LayoutFileError("version", self._unknown(version))
        for step in self.steps[version - self.first :]:
            value = step(value)
        return {**value, "format": self.format, "version": self.version}

    def _unknown(self, version: Any) -> str:
        wanted = " or ".join(str(v) for v in range(max(self.first, 1), self.version + 1))
        return (
            f"expected {wanted}, got {short(version)};"
            " write the file again with a program that knows this version"
        )


def _as_it_was(value: Plain) -> Plain:
    """Nothing that was there has changed: the next version says more."""
    return value


def _each_once(rows: Any, of: Callable[[Any], Any] = lambda row: row) -> Any:
    """A list without what it has twice; anything else as it is."""
    if not isinstance(rows, list):
        return rows
    return [row for n, row in enumerate(rows) if of(row) not in [of(x) for x in rows[:n]]]


def _mended_kit(value: Plain) -> Plain:
    drums = value.get("drums")
    if isinstance(drums, list):
        drums = [
            {**d, "damping": _each_once(d["damping"])}
            if isinstance(d, dict) and "damping" in d
            else d
            for d in drums
        ]
        value = {**value, "drums": drums}
    if "drawn" in value:
        drawn = _each_once(value["drawn"], lambda d: d.get("id") if isinstance(d, dict) else d)
        value = {**value, "drawn": drawn}
    return value


def _mended_layout(value: Plain) -> Plain:
    """An order without mics that have gone, and a kit without what it has twice."""
    if isinstance(value.get("kit"), dict):
        value = {**value, "kit": _mended_kit(value["kit"])}
    mics, order = value.get("mics"), value.get("order")
    if isinstance(mics, list) and isinstance(order, list):
        ids = [m.get("id") for m in mics if isinstance(m, dict)]
        value = {**value, "order": [m for m in _each_once(order) if m in ids]}
    return value


class _MicsWay(Record):
    """What version 1 said of a mic and is now said of its channel."""

    channel: Input | None = None
    preamp_flip: Flag = False
    track_flip: Flag = False
    track_delay_samples: Annotated[int, Field(strict=True, ge=0, le=20_000)] = 0
    low_cut_hz: Annotated[float, Field(strict=True, ge=10, le=500)] | None = None
    pan: Annotated[float, Field(strict=True, ge=-100, le=100)] | None = None


def _with_channels(value: Plain) -> Plain:
    """Version 1 had one input, one pan and two of the switches at each mic itself."""
    mics, limits = value.get("mics"), value.get("thresholds")
    if isinstance(limits, dict):  # how far a third mic carries two others is part of the mix now
        value = {**value, "thresholds": {k: v for k, v in limits.items() if k != "carried_db"}}
    if not isinstance(mics, list) or not all(isinstance(m, dict) for m in mics):
        return value
    ways = [_way_of(n, m) for n, m in enumerate(mics)]
    order = sorted(range(len(mics)), key=lambda n: (ways[n].channel or LAST_INPUT + 1, n))
    tracks = []
    for m, way in ((mics[n], ways[n]) for n in order):
        rest = way.model_dump(exclude={"channel"})
        tracks.append({"id": m.get("id"), "name": m.get("name"), "mic": m.get("id"),
                       "input": way.channel, **rest})  # fmt: skip
    own = set(_MicsWay.model_fields)
    kept = [{k: v for k, v in m.items() if k not in own} for m in mics]
    return {**value, "mics": kept, "channels": tracks}


def _way_of(n: int, mic: Plain) -> _MicsWay:
    said = {k: v for k, v in mic.items() if k in _MicsWay.model_fields}
    try:
        return _MicsWay.model_validate_json(json.dumps(said))
    except ValidationError as refused:
        first = refused.errors(include_url=False)[0]
        raise LayoutFileError(place_of(("mics", n, *first["loc"])), wording(first)) from None


LAYOUT: Final = Kind(FORMAT, Layout, VERSION, 1, (_with_channels, _as_it_was), mend=_mended_layout)


def _newest(value: Any) -> Any:
    """The plain JSON of a layout of an older version, brought up; anything else as it is."""
    old = isinstance(value, dict) and value.get("format") == FORMAT
    if not old or value.get("version") == VERSION:
        return value
    try:
        return LAYOUT.brought_up(value)
    except LayoutFileError as fault:
        raise ValueError(str(fault)) from None


def _stands(value: Any, otherwise: Callable[[Any], Layout]) -> Layout:
    """As it stands where it says what was measured, else a layout of any version."""
    if not isinstance(value, dict) or "stood" not in value:
        return otherwise(value)
    try:
        return AsItStands.model_validate_json(json.dumps(value))
    except ValidationError as refused:
        first = refused.errors(include_url=False)[0]
        raise ValueError(f"{place_of(first['loc'])}: {wording(first)}") from None


AnyLayout = Annotated[Layout, BeforeValidator(_newest)]
"""A layout as a page may send it that was opened before the program was renewed."""

AnyState = Annotated[AnyLayout, WrapValidator(_stands)]
"""A layout to be looked at: planned, or as it stands, with `stood` of what was measured."""

KIT: Final = Kind("ringside-kit", Kit, 1, 0, (_as_it_was,), mend=_mended_kit)
ROOM: Final = Kind("ringside-room", Room, 1, 0, (_as_it_was,))
LOCKER: Final = Kind("ringside-locker", Locker, 1, 0, (_as_it_was,))
HAND: Final = Kind("ringside-hand", HandSizes, 1, 0, (_as_it_was,))
KINDS: Final = (LAYOUT, KIT, ROOM, LOCKER, HAND)
