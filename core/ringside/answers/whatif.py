"""What if: one number of a technique swept over its range, with what would be heard.

For each value the technique is placed anew and the whole layout analysed. Levels are what the
technique's mics hear of the kick, the snare, the toms and the cymbals (energy mean over the
mics, decibels re 1 m on axis plus the drum's peak, before any gain) and of the room. The room
level is the reverberant field of the snare: as loud as the direct sound at the critical
distance 0.057·√(V/T) (Kuttruff, Room Acoustics), weighed by the pattern's random energy
efficiency (Eargle). Without a room it is left out.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.errors import RingsideError
from ringside.hear.bands import VOICES
from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import Verdict
from ringside.places.clearance import words_for_all
from ringside.plan.layout import Layout, Taken
from ringside.plan.mics import PRESSURE_SHARE
from ringside.rooms.decay import decay_report, random_energy
from ringside.standing.stood import analysed
from ringside.techniques.catalogue import technique
from ringside.techniques.recipe import Named, Unit
from ringside.techniques.standing import EqualRow, standing_of
from ringside.techniques.taking import change, in_use
from ringside.values import Vector

HeardGroup = Literal["kick", "snare", "toms", "cymbals"]
SWEEP_POINTS: Final = 41
HEARD_GROUPS: Final[dict[HeardGroup, tuple[str, ...]]] = {
    "kick": ("kick",),
    "snare": ("snare",),
    "toms": ("rack", "floor", "hand drum"),
    "cymbals": ("hats", "crash", "ride", "splash", "china", "percussion"),
}


def _number(kept: Taken, number: str) -> Named:
    for n in technique(kept.technique).numbers:
        if n.id == number:
            return n
    raise RingsideError(f"{technique(kept.technique).name} has no number called {number!r}")


@dataclass(frozen=True, kw_only=True, slots=True)
class Stand:
    """A mic as it would stand."""

    id: str
    position_m: Vector
    aim: Vector


@dataclass(frozen=True, kw_only=True, slots=True)
class EqualCurve:
    """A promise over the N values, metres."""

    a: str
    b: str
    on: str
    difference_m: list[float]


@dataclass(frozen=True, kw_only=True, slots=True)
class WorstCounts:
    """Pairs that a mic of the technique is in, by their worst verdict."""

    no_matter: int
    behind: int
    together: int
    ask_the_ear: int
    late: int
    hollow: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Sweep:
    """Curves over N values of one number of a technique."""

    number: str
    label: str
    unit: Unit
    values: list[float]
    """In the number's unit."""
    now: float
    levels_db: dict[HeardGroup, list[float | None]]
    room_db: list[float] | None
    low_db: list[float | None]
    """What nearness and low cuts make of the low end of its close mics' own drums, the mean; None
    where it has none."""
    equal: list[EqualCurve]
    verdicts: list[WorstCounts]
    blocked: list[str]
    mics: list[list[Stand]]
    best: int
    """Where the fewest pairs are hollow or late among the clear values; the nearest to now."""
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class _AtValue:
    levels: dict[HeardGroup, float | None]
    low: float | None
    equal: list[EqualRow]
    verdicts: WorstCounts
    blocked: str
    mics: list[Stand]


MOST_ANALYSED: Final = 1600
FEWEST_POINTS: Final = 15
"""Values times mics that are worked out: with many mics a curve has fewer points."""


def sweep(layout: Layout, taken_id: str, number: str, points: int = SWEEP_POINTS) -> Sweep:
    """One number of a technique over its range.

    Parameters
    ----------
    taken_id : str
        The technique in the layout.
    number : str
        Which of its numbers.
    points : int
        How many values, 3 to 121, evenly over the range; the value it has now is added.

    Returns
    -------
    Sweep

    Raises
    ------
    RingsideError
        When the technique or its number is not there.
    """
    if not 3 <= points <= 121:
        raise RingsideError("expected 3 to 121 points")
    points = min(points, max(MOST_ANALYSED // max(len(layout.mics), 1), FEWEST_POINTS))
    kept = in_use(layout, taken_id)
    n = _number(kept, number)
    now = float(kept.numbers.get(number, n.default))
    values = np.unique(np.round([*np.linspace(n.low, n.high, points), now], 6))
    ok, rows = [], []
    for v in values:
        try:
            rows.append(_at(change(layout, taken_id, {number: float(v)}).layout, kept))
            ok.append(float(v))
        except RingsideError:
            continue  # a value no recipe exists for has no point on the curve
    if not rows:
        raise RingsideError(f"{n.label}: no value of its range can be placed on this kit")
    at = int(np.abs(np.array(ok) - now).argmin())
    best = _best(rows, at)
    return Sweep(
        number=number,
        label=n.label,
        unit=n.unit,
        values=ok,
        now=now,
        levels_db={k: [r.levels[k] for r in rows] for k in HEARD_GROUPS},
        room_db=_room_db(layout, kept, len(rows)),
        low_db=[r.low for r in rows],
        equal=_equal_curves([r.equal for r in rows]),
        verdicts=[r.verdicts for r in rows],
        blocked=[r.blocked for r in rows],
        mics=[r.mics for r in rows],
        best=best,
        words=_words(rows, at, best),
    )


def _at(layout: Layout, kept: Taken) -> _AtValue:
    an = analysed(layout)
    ids = [m.id for m in layout.mics]
    own = [ids.index(m) for m in kept.mics]
    said = words_for_all(an.scene.capsule[own], layout)
    stands = [layout.mic(m) for m in kept.mics]
    return _AtValue(
        levels=_levels(an, own),
        low=_low(an, own),
        equal=standing_of(layout, in_use(layout, kept.id)).equal,
        verdicts=_verdicts(an, own),
        blocked=next((w for w in said if w), ""),
        mics=[Stand(id=m.id, position_m=m.position_m, aim=m.aim) for m in stands],
    )


def _levels(an: Analysis, own: list[int]) -> dict[HeardGroup, float | None]:
    heard = an.arrivals.level_db[own] + an.scene.sources.peak_db
    kinds = [p.kind for p in an.layout.kit.parts]
    levels: dict[HeardGroup, float | None] = {}
    for name, which in HEARD_GROUPS.items():
        cols = [k for k, kind in enumerate(kinds) if kind in which]
        energy = 10 ** (heard[:, cols] / 10)
        levels[name] = float(10 * np.log10(energy.mean())) if cols else None
    return levels


def _low(an: Analysis, own: list[int]) -> float | None:
    jobs, drum = an.scene.job, an.scene.sources.drum
    near = [float(an.arrivals.near_db[i, jobs[i]]) for i in own if jobs[i] >= 0 and drum[jobs[i]]]
    return round(sum(near) / len(near), 2) if near else None


def _room_db(layout: Layout, kept: Taken, count: int) -> list[float] | None:
    """One level for every value: the reverberant field is the same all over the room."""
    said = decay_report(layout)
    if said is None:
        return None
    shares = [random_energy(PRESSURE_SHARE[layout.mic(m).pattern]) for m in kept.mics]
    peak = VOICES["snare"].peak_db
    field = peak - 20 * np.log10(said.critical_m) + 10 * np.log10(np.mean(shares))
    return [float(field)] * count


def _verdicts(an: Analysis, own: list[int]) -> WorstCounts:
    p = an.pairs
    mine = np.isin(p.first, own) | np.isin(p.second, own)
    tally = np.bincount(p.worst[mine], minlength=len(Verdict)).tolist()
    return WorstCounts(
        no_matter=tally[Verdict.NO_MATTER],
        behind=tally[Verdict.BEHIND],
        together=tally[Verdict.TOGETHER],
        ask_the_ear=tally[Verdict.ASK_THE_EAR],
        late=tally[Verdict.LATE],
        hollow=tally[Verdict.HOLLOW],
    )


def _equal_curves(rows: list[list[EqualRow]]) -> list[EqualCurve]:
    curves = []
    for k, first in enumerate(rows[0]):
        gaps = [r[k].difference_m for r in rows if len(r) > k]
        if len(gaps) == len(rows):
            curves.append(EqualCurve(a=first.a, b=first.b, on=first.on, difference_m=gaps))
    return curves


def _trouble(row: _AtValue) -> tuple[int, int, int]:
    return (1 if row.blocked else 0, row.verdicts.hollow, row.verdicts.late)


def _best(rows: list[_AtValue], now: int) -> int:
    ranked = sorted(range(len(rows)), key=lambda i: (_trouble(rows[i]), abs(i - now), i))
    return ranked[0]


def _words(rows: list[_AtValue], now: int, best: int) -> str:
    here, there = _trouble(rows[now]), _trouble(rows[best])
    if here == there:
        return "No other value of it has fewer hollow or late pairs."
    if here[0]:
        return "Where it is now is not clear; the marked value is the nearest that is."
    return (
        f"Pairs at the marked value: {there[1]} hollow, {there[2]} late,"
        f" instead of {here[1]} and {here[2]}."
    )
