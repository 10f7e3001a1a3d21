"""The set of flips an engineer would throw: as good as the best, with the fewest switches.

The best set by body alone (:mod:`ringside.pairs.flips`) may turn over both overheads where one
spot does as well, or one of a pair. Here a stereo pair is one, two mics of one drum push it
together, nothing is taken off the snare or the kick, and of all sets within `ALIKE_DB` of the best
of those the cheapest wins (:mod:`ringside.pairs.trade`). A flip that the signs left open may turn
into a loss is not proposed.
"""

from collections.abc import Collection
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.pairs.analysis import Analysis
from ringside.pairs.doubts import Turned, mix_of
from ringside.pairs.flips import LEAST_FLIP_DB, Problem, best_sets, climb
from ringside.pairs.gram import meant
from ringside.pairs.kinds import side_mics
from ringside.pairs.onebyone import HEARD_DB
from ringside.pairs.trade import couples, switch_cost
from ringside.pairs.verdicts import Kind
from ringside.plan.feeds import feed

ALIKE_DB: Final = 0.3
"""Sets whose mean bodies differ by less are one to the ear (common practice)."""

LIKELY: Final = 0.75
"""A set is proposed when so many of all ways the open signs may fall still gain by it."""

EVERY_SET: Final = 20
"""Up to so many units every set is tried; it takes a tenth of what the most of `best_sets` do."""

STARTS: Final = 24
"""Of more units so many sets by chance are made better flip by flip."""


@dataclass(frozen=True, slots=True)
class _Units:
    """What is turned over as one: which units stay, and how each mic goes with its own."""

    stay: Mask  # (U,)
    spread: Floats  # (U, M) +1 or -1 where the mic is of the unit, 0 elsewhere
    cost: Floats  # (M,) of a switch

    def signs(self, units: Floats) -> Floats:
        """Signs of units as signs of mics."""
        return np.asarray(units @ self.spread)


def turning(an: Analysis, leave: Collection[str] = ()) -> Turned | None:
    """The cheapest set of flips within `ALIKE_DB` of the best; None where none is worth it.

    Parameters
    ----------
    an : Analysis
    leave : collection of str
        Mics that stay as they are, beside those whose polarity is held.

    Returns
    -------
    Turned or None
    """
    if not an.layout.mics or not an.scene.sources.drum.any():
        return None
    units = _units(an, leave)
    if units.stay.all() and (units.spread >= 0).all():
        return None
    ask = _Asked(an, units)
    chosen = ask.chosen()
    while chosen is not None:
        told = ask.told(chosen)
        if told.sure >= LIKELY:
            return told if told.mean_db >= LEAST_FLIP_DB else None
        chosen = ask.without_doubt(chosen)
    return None


def _units(an: Analysis, leave: Collection[str]) -> _Units:
    """Mics tied to each other: a stereo pair, and two of one drum."""
    layout, ids = an.layout, [m.id for m in an.layout.mics]
    still = ~an.scene.heard
    still[side_mics(layout)] = True  # turned over, it changes left and right over, no body
    for i, m in enumerate(layout.mics):
        still[i] |= feed(layout, m.id).held or m.id in leave
    ties = _Ties(len(ids))
    for held in np.flatnonzero(still):
        ties.tie(int(held), len(ids), 1)
    for a, b in couples(layout):
        ties.tie(ids.index(a), ids.index(b), 1)
    for i, j, way in _of_one_drum(an):
        ties.tie(i, j, way)
    roots = [ties.root(i) for i in range(len(ids) + 1)]
    units = sorted({r for r, _ in roots[:-1]})
    spread = np.zeros((len(units), len(ids)))
    fixed, way_of_fixed = roots[-1]
    for i, (r, way) in enumerate(roots[:-1]):
        spread[units.index(r), i] = way * (way_of_fixed if r == fixed else 1)
    stay = np.array([r == fixed for r in units])
    return _Units(stay, spread, np.array([switch_cost(layout, m) for m in layout.mics]))


class _Ties:
    """Which mics go together, and which way round; the last node is what stays."""

    def __init__(self, count: int) -> None:
        self.up = [(i, 1) for i in range(count + 1)]

    def root(self, i: int) -> tuple[int, int]:
        """The first of those it is tied to, and which way it goes with that."""
        way = 1
        while self.up[i][0] != i:
            i, by = self.up[i]
            way *= by
        return i, way

    def tie(self, i: int, j: int, way: int) -> None:
        """Two tied; nothing where they are tied already, one way or the other."""
        (one, by_one), (two, by_two) = self.root(i), self.root(j)
        if one != two:
            low, high = min(one, two), max(one, two)
            self.up[high] = (low, by_one * by_two * way)


def _of_one_drum(an: Analysis) -> list[tuple[int, int, int]]:
    """Two mics of one drum that push it together or, turned over, would; the loudest first.

    By the two alone, however far the balance has one of them down. The third says whether they go
    together as wired (+1) or one turned over (-1).
    """
    p, s = an.pairs, an.scene.sources
    own = (p.kind == Kind.SAME)[:, None] & (an.scene.job[p.first][:, None] == np.arange(len(s.ids)))
    gain = p.flipped_body_db - p.body_db
    clear = np.abs(gain) >= an.layout.thresholds.hollow_gain_db
    rows, k = np.nonzero(own & s.drum & clear & (p.sign != 0))
    order = np.argsort(-p.share[rows, k], kind="stable")
    return [
        (int(p.first[r]), int(p.second[r]), -1 if gain[r, c] > 0 else 1)
        for r, c in zip(rows[order], k[order], strict=True)
    ]


class _Asked:
    """Sets of one layout, compared."""

    def __init__(self, an: Analysis, units: _Units) -> None:
        self.mix, self.units = mix_of(an), units
        self.small = np.einsum("ui,dij,vj->duv", units.spread, self.mix.gram, units.spread)
        s = an.scene.sources
        self.keeps = s.reference[s.drum][meant(an)]
        self._known: dict[bytes, Floats] = {}

    def gains(self, signs: Floats) -> Floats:
        """Decibels of each drum (D,) by signs of units."""
        key = signs.tobytes()
        if key not in self._known:
            self._known[key] = self.mix.gains(self.units.signs(signs))
        return self._known[key]

    def allowed(self, signs: Floats) -> bool:
        """Whether snare and kick lose nothing that is heard."""
        return bool((self.gains(signs)[self.keeps] > -HEARD_DB).all())

    def cost(self, signs: Floats) -> float:
        return float(self.units.cost[self.units.signs(signs) < 0].sum())

    def mean(self, signs: Floats) -> float:
        return float(self.gains(signs).mean())

    def chosen(self) -> Floats | None:
        """The cheapest of all sets found within `ALIKE_DB` of the best; None where as wired."""
        sets = [s for s in self._found() if self.allowed(s)]
        if not sets:
            return None
        best = max(self.mean(s) for s in sets)
        near = [self._fewer(s, best) for s in sets if self.mean(s) >= best - ALIKE_DB]
        near.sort(key=lambda s: (round(self.cost(s), 6), -round(self.mean(s), 6)))
        first = self._worthwhile(near[0])
        return first if (self.units.signs(first) < 0).any() else None

    def _found(self) -> list[Floats]:
        """As wired, the best sets, and each turned over altogether where nothing is held."""
        ones = np.ones(len(self.units.stay))
        if (~self.units.stay).sum() <= EVERY_SET:
            sets = best_sets(self.small, self.units.stay).signs
        else:
            sets = self._climbed(ones)
        if not self.units.stay.any():
            sets = [*sets, *(-s for s in sets)]
        return [ones, *sets, *self._one_by_one(ones)]

    def _climbed(self, ones: Floats) -> list[Floats]:
        trace = np.maximum(np.einsum("dii->d", self.small), 1e-12)
        free = np.flatnonzero(~self.units.stay)
        problem = Problem(self.small / trace[:, None, None], free)
        rng = np.random.default_rng(1)
        starts = [ones]
        for _ in range(STARTS):
            there = ones.copy()
            there[free] = rng.choice([-1.0, 1.0], len(free))
            starts.append(there)
        return [climb(problem, s, free) for s in starts]

    def _one_by_one(self, ones: Floats) -> list[Floats]:
        """From as wired, the unit that gains most for its switches each time; every step a set."""
        at = ones
        sets: list[Floats] = []
        while True:
            now = self.mean(at)
            steps = [s for s in self._turned(at) if self.allowed(s) and self.mean(s) > now + 1e-9]
            if not steps:
                return sets
            at = max(steps, key=self.mean)
            sets.append(at)

    def _turned(self, at: Floats, *, back: bool = False) -> list[Floats]:
        """Every set with one unit turned over that costs more so, or with one that costs less."""
        made = []
        for u in np.flatnonzero(~self.units.stay):
            there = at.copy()
            there[u] *= -1
            if (self.cost(there) < self.cost(at)) == back:
                made.append(there)
        return made

    def _fewer(self, at: Floats, best: float) -> Floats:
        """Switches taken back as long as the set stays within `ALIKE_DB` of the best."""
        while True:
            less = [
                s for s in self._turned(at, back=True)
                if self.mean(s) >= best - ALIKE_DB and self.allowed(s)
            ]  # fmt: skip
            if not less:
                return at
            at = min(less, key=lambda s: (round(self.cost(s), 6), -round(self.mean(s), 6)))

    def _worthwhile(self, at: Floats) -> Floats:
        """Without the units that give next to nothing."""
        while True:
            now = self.mean(at)
            idle = [
                s for s in self._turned(at, back=True)
                if now - self.mean(s) < LEAST_FLIP_DB and self.allowed(s)
            ]  # fmt: skip
            if not idle:
                return at
            at = max(idle, key=self.mean)

    def told(self, signs: Floats) -> Turned:
        """A set with what it gives, however the open signs fall."""
        return self.mix.told(self.units.signs(signs))

    def without_doubt(self, signs: Floats) -> Floats | None:
        """The set less the unit whose loss makes it surest; None where nothing is left."""
        fewer = [s for s in self._turned(signs, back=True) if self.allowed(s)]
        fewer = [s for s in fewer if (self.units.signs(s) < 0).any()]
        return max(fewer, key=lambda s: self.told(s).sure) if fewer else None
