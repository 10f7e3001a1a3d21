"""Whether what a studio owns can put a layout up: mics, stands, inputs, phantom, cables, care.

What a layout does not name is not counted.
"""

from collections import Counter
from dataclasses import dataclass

from ringside.gear.airjet import in_jet
from ringside.gear.headroom import Headroom, headroom
from ringside.gear.lacks import LackRow, lack
from ringside.gear.leads import LeadRow, lead_rows
from ringside.gear.locker import Locker, MicModel, StandModel
from ringside.gear.pace import minutes_in_all
from ringside.gear.patch import cables_wanted, patch_lacks
from ringside.plan.layout import Layout
from ringside.plan.usual import usual_channels


@dataclass(frozen=True, kw_only=True, slots=True)
class Used:
    """How many of how many."""

    mics: tuple[int, int]
    stands: tuple[int, int]
    inputs: tuple[int, int]
    cables: tuple[int, int]


@dataclass(frozen=True, kw_only=True, slots=True)
class Stock:
    """Whether a locker can put a layout up."""

    lacks: list[LackRow]
    headroom: list[Headroom]
    leads: list[LeadRow]
    used: Used
    usual_order: bool
    """Whether the tracks are where they are looked for."""
    minutes: int
    cost: float


def stock(layout: Layout, locker: Locker) -> Stock:
    """Whether the locker can put this layout up, what it falls short of, and what is used.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    Stock
    """
    models = {m.id: m for m in locker.mics}
    stands = {s.id: s for s in locker.stands}
    levels = headroom(layout, locker)
    lacks = [
        *_mics_out(layout, models),
        *_stands_out(layout, stands),
        *patch_lacks(layout, locker, levels),
        *_care(layout, models),
        *_limits(layout, locker, models, stands),
    ]
    inputs = sum(b.count for b in locker.inputs)
    return Stock(
        lacks=lacks,
        headroom=levels,
        leads=lead_rows(layout, locker),
        usual_order=layout.channels == usual_channels(layout),
        used=Used(
            mics=(sum(m.model in models for m in layout.mics), sum(m.count for m in locker.mics)),
            stands=(
                sum(m.stand in stands for m in layout.mics),
                sum(s.count for s in locker.stands),
            ),
            inputs=(len({c.input for c in layout.channels if c.input}), inputs),
            cables=(cables_wanted(layout), sum(c.count for c in locker.cables)),
        ),
        minutes=minutes_in_all(layout, locker),
        cost=_cost(layout, models, stands),
    )


def _mics_out(layout: Layout, models: dict[str, MicModel]) -> list[LackRow]:
    lacks: list[LackRow] = []
    wanted = Counter(m.model for m in layout.mics if m.model)
    for id_, n in wanted.items():
        who = [m.id for m in layout.mics if m.model == id_]
        if id_ not in models:
            words = f"{', '.join(who)}: {id_!r} is not in the locker; choose another mic."
            lacks.append(lack("mics", words, *who))
        elif n > models[id_].count:
            short = n - models[id_].count
            words = f"{short} {models[id_].name} short: {n} wanted, {models[id_].count} there."
            lacks.append(lack("mics", words, *who))
    for m in layout.mics:
        model = models.get(m.model or "")
        if model and m.pattern not in model.patterns:
            can = " or ".join(model.patterns)
            words = f"{m.id}: the {model.name} cannot be set to {m.pattern}; it does {can}."
            lacks.append(lack("mics", words, m.id))
    for p in layout.stereo_pairs:
        a, b = layout.mic(p.left), layout.mic(p.right)
        if a.model and b.model and a.model != b.model:
            words = (
                f"{p.name}: {a.id} and {b.id} are different mics; a stereo pair wants two alike."
            )
            lacks.append(lack("care", words, a.id, b.id))
    return lacks


def _stands_out(layout: Layout, stands: dict[str, StandModel]) -> list[LackRow]:
    lacks: list[LackRow] = []
    for id_, n in Counter(m.stand for m in layout.mics if m.stand).items():
        who = [m.id for m in layout.mics if m.stand == id_]
        if id_ not in stands:
            words = f"{', '.join(who)}: stand {id_!r} is not in the locker; choose another."
            lacks.append(lack("stands", words, *who))
        elif n > stands[id_].count:
            short = n - stands[id_].count
            words = f"{short} {stands[id_].name} short: {n} wanted, {stands[id_].count} there."
            lacks.append(lack("stands", words, *who))
    for m in layout.mics:
        stand = stands.get(m.stand or "")
        if stand and m.position_m[2] > stand.high_m + stand.reach_m:
            words = f"{m.id}: too high for the {stand.name}, boom and all."
            lacks.append(lack("stands", words, m.id))
        elif stand and m.position_m[2] < stand.low_m - stand.reach_m:
            lacks.append(lack("stands", f"{m.id}: too low for the {stand.name}.", m.id))
    return lacks


def _care(layout: Layout, models: dict[str, MicModel]) -> list[LackRow]:
    """Fragile mics in the air of a port, and ribbons near it."""
    lacks: list[LackRow] = []
    for m in layout.mics:
        model = models.get(m.model or "")
        if model and model.fragile and in_jet(m, layout):
            words = (
                f"{m.id}: the {model.name} stands in the air jet of the kick's port; move it aside."
            )
            lacks.append(lack("care", words, m.id))
    return lacks


def _cost(layout: Layout, models: dict[str, MicModel], stands: dict[str, StandModel]) -> float:
    return sum(models[m.model].cost for m in layout.mics if m.model in models) + sum(
        stands[m.stand].cost for m in layout.mics if m.stand in stands
    )


def _limits(
    layout: Layout, locker: Locker, models: dict[str, MicModel], stands: dict[str, StandModel]
) -> list[LackRow]:
    lacks: list[LackRow] = []
    minutes = minutes_in_all(layout, locker)
    if locker.minutes is not None and minutes > locker.minutes:
        words = f"Setting up takes about {minutes} minutes; there are {locker.minutes}."
        lacks.append(lack("minutes", words))
    cost = _cost(layout, models, stands)
    if locker.budget is not None and cost > locker.budget:
        words = f"The day costs {cost:g}; there is {locker.budget:g}."
        lacks.append(lack("budget", words))
    return lacks
