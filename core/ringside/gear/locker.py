"""What a studio has to put up: mics, stands, inputs, cables; and whether a layout's needs fit.

A layout names the mic and stand model each of its mics uses; what is not named is not
counted. Lengths in metres, levels in decibels, sensitivity in mV/Pa.
"""

from collections import Counter
from typing import Annotated, Any, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from ringside.plan.kit import reference_point
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic, MicKind, Pattern
from ringside.values import Flag, Key, Record, Text, Title, length

Count = Annotated[int, Field(strict=True, ge=0, le=500)]
Amount = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=1e7)]
JET_M = 0.35
"""How far the air of a kick's port still hits like a gust (common practice)."""


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


class CableKind(Record):
    """Cables of one length."""

    id: Key
    name: Title
    length_m: Annotated[float, length(0.2, 200, "Metres.")] = 6.0
    count: Count = 1


class Locker(Record):
    """Everything a studio can put up, and what it allows itself."""

    mics: tuple[MicModel, ...] = Field(default=(), max_length=300)
    stands: tuple[StandModel, ...] = Field(default=(), max_length=100)
    inputs: tuple[InputBank, ...] = Field(default=(), max_length=32)
    cables: tuple[CableKind, ...] = Field(default=(), max_length=50)
    budget: Amount | None = Field(default=None, description="For a day, in the studio's money.")
    minutes: Annotated[int, Field(strict=True, ge=1, le=2000)] | None = Field(
        default=None, description="To set up in."
    )
    minutes_per_mic: Annotated[float, Field(strict=True, ge=0.5, le=60)] = 6.0
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


def _lack(kind: str, words: str, *mics: str) -> dict[str, Any]:
    return {"kind": kind, "words": words, "mics": list(mics)}


def stock(layout: Layout, locker: Locker) -> dict[str, Any]:
    """Whether the locker can put this layout up.

    Returns
    -------
    dict
        ``lacks``: list of ``kind`` (mics, stands, inputs, phantom, cables, budget, minutes,
        care), ``words`` and the ``mics`` concerned; ``used``: how many of how many mics,
        stands, inputs and cables; ``minutes`` and ``cost``.
    """
    models = {m.id: m for m in locker.mics}
    stands = {s.id: s for s in locker.stands}
    lacks = [
        *_mics_out(layout, models),
        *_stands_out(layout, stands),
        *_inputs_out(layout, locker, models),
        *_cables_out(layout, locker),
        *_care(layout, models),
        *_limits(layout, locker, models, stands),
    ]
    inputs = sum(b.count for b in locker.inputs)
    return {
        "lacks": lacks,
        "used": {
            "mics": [
                sum(m.model in models for m in layout.mics),
                sum(m.count for m in locker.mics),
            ],
            "stands": [
                sum(m.stand in stands for m in layout.mics),
                sum(s.count for s in locker.stands),
            ],
            "inputs": [len({m.channel for m in layout.mics if m.channel}), inputs],
            "cables": [len(layout.mics), sum(c.count for c in locker.cables)],
        },
        "minutes": round(len(layout.mics) * locker.minutes_per_mic),
        "cost": _cost(layout, models, stands),
    }


def _mics_out(layout: Layout, models: dict[str, MicModel]) -> list[dict[str, Any]]:
    found = []
    wanted = Counter(m.model for m in layout.mics if m.model)
    for id_, n in wanted.items():
        who = [m.id for m in layout.mics if m.model == id_]
        if id_ not in models:
            words = f"{', '.join(who)}: {id_!r} is not in the locker; choose another mic."
            found.append(_lack("mics", words, *who))
        elif n > models[id_].count:
            short = n - models[id_].count
            words = f"{short} {models[id_].name} short: {n} wanted, {models[id_].count} there."
            found.append(_lack("mics", words, *who))
    for m in layout.mics:
        model = models.get(m.model or "")
        if model and m.pattern not in model.patterns:
            can = " or ".join(model.patterns)
            words = f"{m.id}: the {model.name} cannot be set to {m.pattern}; it does {can}."
            found.append(_lack("mics", words, m.id))
    for p in layout.stereo_pairs:
        a, b = layout.mic(p.left), layout.mic(p.right)
        if a.model and b.model and a.model != b.model:
            words = (
                f"{p.name}: {a.id} and {b.id} are different mics; a stereo pair wants two alike."
            )
            found.append(_lack("care", words, a.id, b.id))
    return found


def _stands_out(layout: Layout, stands: dict[str, StandModel]) -> list[dict[str, Any]]:
    found = []
    for id_, n in Counter(m.stand for m in layout.mics if m.stand).items():
        who = [m.id for m in layout.mics if m.stand == id_]
        if id_ not in stands:
            words = f"{', '.join(who)}: stand {id_!r} is not in the locker; choose another."
            found.append(_lack("stands", words, *who))
        elif n > stands[id_].count:
            short = n - stands[id_].count
            words = f"{short} {stands[id_].name} short: {n} wanted, {stands[id_].count} there."
            found.append(_lack("stands", words, *who))
    for m in layout.mics:
        stand = stands.get(m.stand or "")
        if stand and m.position_m[2] > stand.high_m + stand.reach_m:
            words = f"{m.id}: too high for the {stand.name}, boom and all."
            found.append(_lack("stands", words, m.id))
        elif stand and m.position_m[2] < stand.low_m - stand.reach_m:
            found.append(_lack("stands", f"{m.id}: too low for the {stand.name}.", m.id))
    return found


def _bank_of(locker: Locker, channel: int) -> InputBank | None:
    end = 0
    for bank in locker.inputs:
        end += bank.count
        if channel <= end:
            return bank
    return None


def _inputs_out(
    layout: Layout, locker: Locker, models: dict[str, MicModel]
) -> list[dict[str, Any]]:
    found = []
    for channel, n in Counter(m.channel for m in layout.mics if m.channel).items():
        if n > 1:
            who = [m.id for m in layout.mics if m.channel == channel]
            words = f"Input {channel} is taken by {' and '.join(who)}."
            found.append(_lack("inputs", words, *who))
    if not locker.inputs:
        return found
    total = sum(b.count for b in locker.inputs)
    over = [m for m in layout.mics if m.channel and m.channel > total]
    if over:
        words = f"{len(over)} inputs short: there are {total}."
        found.append(_lack("inputs", words, *[m.id for m in over]))
    for m in layout.mics:
        bank = _bank_of(locker, m.channel) if m.channel else None
        model = models.get(m.model or "")
        if bank is None or model is None:
            continue
        if model.phantom and bank.phantom == "none":
            words = f"{m.id} wants phantom, and {bank.name} has none."
            found.append(_lack("phantom", words, m.id))
        if (
            model.kind == "ribbon"
            and bank.phantom == "bank"
            and _bank_feeds(layout, locker, models, bank)
        ):
            words = (
                f"{m.id} is a ribbon on {bank.name}, whose phantom is on for all its inputs:"
                " patch it elsewhere."
            )
            found.append(_lack("phantom", words, m.id))
    return found


def _bank_feeds(
    layout: Layout, locker: Locker, models: dict[str, MicModel], bank: InputBank
) -> bool:
    """Whether another mic on the bank needs its phantom on."""
    return any(
        models[m.model].phantom
        for m in layout.mics
        if m.model in models and m.channel and _bank_of(locker, m.channel) is bank
    )


def _cables_out(layout: Layout, locker: Locker) -> list[dict[str, Any]]:
    if not locker.cables:
        return []
    there = sum(c.count for c in locker.cables)
    if len(layout.mics) > there:
        return [_lack("cables", f"{len(layout.mics) - there} cables short: there are {there}.")]
    return []


def _care(layout: Layout, models: dict[str, MicModel]) -> list[dict[str, Any]]:
    """Fragile mics in the air of a port, and ribbons near it."""
    found = []
    for m in layout.mics:
        model = models.get(m.model or "")
        if model and model.fragile and in_jet(m, layout):
            words = (
                f"{m.id}: the {model.name} stands in the air jet of the kick's port; move it aside."
            )
            found.append(_lack("care", words, m.id))
    return found


def in_jet(mic: Mic, layout: Layout) -> bool:
    """Whether a mic is straight in front of a kick's port, near enough to be blown at."""
    for d in layout.kit.drums:
        if d.port is None:
            continue
        axis = np.array(d.axis)
        right = np.cross(-axis, [0.0, 0.0, 1.0])
        right = right / max(float(np.linalg.norm(right)), 1e-9)
        front = np.array(reference_point(d.model_copy(update={"reference": "front"})))
        hole = front + right * d.port.right_m + np.array([0.0, 0.0, d.port.up_m])
        out = np.array(mic.position_m) - hole
        ahead = float(out @ -axis)
        aside = float(np.linalg.norm(out + ahead * axis))
        if 0 <= ahead <= JET_M and aside <= d.port.diameter_m / 2 + 0.2 * ahead:
            return True
    return False


def _cost(layout: Layout, models: dict[str, MicModel], stands: dict[str, StandModel]) -> float:
    return sum(models[m.model].cost for m in layout.mics if m.model in models) + sum(
        stands[m.stand].cost for m in layout.mics if m.stand in stands
    )


def _limits(
    layout: Layout, locker: Locker, models: dict[str, MicModel], stands: dict[str, StandModel]
) -> list[dict[str, Any]]:
    found = []
    minutes = round(len(layout.mics) * locker.minutes_per_mic)
    if locker.minutes is not None and minutes > locker.minutes:
        words = f"Setting up takes about {minutes} minutes; there are {locker.minutes}."
        found.append(_lack("minutes", words))
    cost = _cost(layout, models, stands)
    if locker.budget is not None and cost > locker.budget:
        words = f"The day costs {cost:g}; there is {locker.budget:g}."
        found.append(_lack("budget", words))
    return found
