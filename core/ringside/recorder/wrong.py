"""What was set up otherwise than planned: drawn from a seed, written down, and rendered."""

from typing import Annotated, Final, Literal

import numpy as np
from pydantic import Field

from ringside.plan.layout import Layout
from ringside.values import Key, Number, Record, Vector, vector

Faulty = Literal[
    "moved", "inverted", "late", "swapped", "shifted", "dead", "doubled", "hum",
    "clipped",
]  # fmt: skip
MOVED_M: Final = (0.05, 0.15)
"""How far a mic is off when nobody held a tape to it, least and most (from memory)."""

LATE_SAMPLES: Final = (16, 600)
"""What a converter or a plug-in puts on one track, least and most (common practice)."""

CLIPPED_DB: Final = 9.0
"""How far a gain that was set too high drives the loudest hit over full scale."""

SHIFTED: Final = 6
"""Channels of a row that is one socket on."""

HUM_DB: Final = -50.0
"""Of full scale, of the mains on a bad cable."""


class Moved(Record):
    """A mic that stands elsewhere than planned."""

    mic: Key
    by_m: Vector = Field(description="Metres, in the frame of the kit.")


class Late(Record):
    """A channel that is late on its track."""

    channel: Key
    samples: Annotated[float, Field(strict=True, ge=-5000, le=5000)]


class Wrong(Record):
    """Everything that is otherwise than planned; nothing where it is empty."""

    moved: tuple[Moved, ...] = ()
    inverted: tuple[Key, ...] = Field(default=(), description="Channels turned over once more.")
    late: tuple[Late, ...] = ()
    swapped: tuple[tuple[Key, Key], ...] = Field(
        default=(), description="Channels that hold each other's sound, changed over in turn."
    )
    shifted: tuple[tuple[Key, ...], ...] = Field(
        default=(),
        description="Rows of channels one socket on: each is on the track of the next, the last on"
        " none, and that of the first holds nothing.",
    )
    dead: tuple[Key, ...] = ()
    doubled: tuple[tuple[Key, Key], ...] = Field(
        default=(), description="The second holds what the first does."
    )
    hum: tuple[Key, ...] = ()
    clipped: tuple[Key, ...] = ()
    retuned: dict[Key, Number] = Field(default_factory=dict, description="Drums, by so many cents.")
    temperature_c: Number | None = None


def drawn(layout: Layout, seed: int, kinds: tuple[Faulty, ...] = ("moved", "inverted")) -> Wrong:
    """One fault of each kind asked for, on channels and mics that the seed picks.

    Parameters
    ----------
    layout : Layout
    seed : int
    kinds : tuple of str
        Which faults.

    Returns
    -------
    Wrong
    """
    dice = np.random.default_rng([seed, 3])
    channels = [c.id for c in layout.channels] or [m.id for m in layout.mics]
    off_kit = [m.id for m in layout.mics if m.role != "close"] or [m.id for m in layout.mics]

    def one(names: list[str]) -> str:
        return names[int(dice.integers(len(names)))]

    told: dict[str, object] = {}
    for kind in kinds:
        if kind == "moved":
            way = dice.normal(size=3)
            way *= dice.uniform(*MOVED_M) / np.linalg.norm(way)
            told["moved"] = (Moved(mic=one(off_kit), by_m=vector(way)),)
        elif kind == "late":
            samples = float(dice.integers(*LATE_SAMPLES))
            told["late"] = (Late(channel=one(channels), samples=samples),)
        elif kind == "shifted":
            rows = _rows(layout, channels)
            told[kind] = (rows[int(dice.integers(len(rows)))],) if rows else ()
        elif kind in ("swapped", "doubled"):
            a, b = dice.choice(len(channels), 2, replace=False)
            told[kind] = ((channels[int(a)], channels[int(b)]),)
        else:
            told[kind] = (one(channels),)
    return Wrong.model_validate(told)


def _rows(layout: Layout, channels: list[str]) -> list[tuple[str, ...]]:
    """Channels side by side, as many at once as there are up to six; where none is plugged, any."""
    plugged = {c.input: c.id for c in layout.channels if c.input is not None}
    plugged = plugged or dict(enumerate(channels))
    for many in range(SHIFTED, 1, -1):
        rows = [tuple(plugged.get(n + k, "") for k in range(many)) for n in sorted(plugged)]
        if rows := [row for row in rows if all(row)]:
            return rows
    return []


def stood(layout: Layout, wrong: Wrong) -> Layout:
    """The layout as it was set up: mics where they were moved to, drums as they were tuned.

    Parameters
    ----------
    layout : Layout
    wrong : Wrong

    Returns
    -------
    Layout
    """
    by = {m.mic: np.array(m.by_m) for m in wrong.moved}
    mics = tuple(
        m.model_copy(update={"position_m": vector(np.array(m.position_m) + by[m.id])})
        if m.id in by
        else m
        for m in layout.mics
    )
    air = layout.air
    if wrong.temperature_c is not None:
        air = air.model_copy(update={"temperature_c": float(wrong.temperature_c)})
    return layout.model_copy(update={"mics": mics, "air": air})
