"""Two channels on each other's tracks, found by how every stroke lies in all tracks.

With two plugs changed over, many a stroke no longer reaches all mics as one: it is left out, and
with it goes what would tell of them. So every stroke is asked, whether it counts or not. For each
drum it may have been, what each track holds is held against what the plan has for each mic; with
two tracks given to each other's mics the strokes fit better, or they do not. Which drum a stroke
was is free on either side, and each drum counts once however often it was struck. No single track
says much (misfits are capped), so that one that is silent, late or elsewhere does not look like
two.

A track that is late by itself, or two mics that stand elsewhere, must not look so either: what is
found must hold, too, where each track may be late and loud by whatever suits it.

Two mics on one drum, over it and under it, and rooms side by side are too alike for that. What
tells them is which of the two has each drum first and by how much, by its finer arrivals
(:mod:`ringside.takes.pooled`), but for what all drums have in common, which a stand a hand off
changes; over and under one drum, it is which has that drum first. Strokes must fit better all the
same.

Two capsules at one point over or before the kit have each drum at once. What tells them is how the
drums lean to one or the other, by their patterns: as long as they are near, for farther off the
room says as much.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.takes.hit import BANDS
from ringside.takes.naming import HARDEST_DB, HEARD, SOFTEST_DB, Expected
from ringside.takes.pooled import DrumRead

TIME_S: Final = 0.0004
LEVEL_DB: Final = 8.0
CAP: Final = 9.0
"""How well time and level of a drum in a mic are planned where a mic is looked for at all, and
the squared standard deviations a single one of them can say (from memory)."""

CROSSED: Final = 20.0
"""Squared standard deviations the strokes must fit better by. Of 1680 trials on simulated takes of
10 to 28 mics, each mic 4 cm off, each drum in each mic by 3 cm and 4.5 dB, none has two crossed
that are not (from trial)."""

ALIKE: Final = 14.0
ALIKE_EACH: Final = (4.0, 6.0)
"""The same for two that are alike: of strokes and finer arrivals together, and of each."""

FINE_S: Final = 0.00012
"""One standard deviation of which of two has a drum first by how much: each of them put up to
3 cm (common practice)."""

FEWEST_DRUMS: Final = 4
"""That two must have, where they are not on one, before their order is asked."""

AIR: Final = BANDS.index("air")
"""What lies above the attack leans as cymbals do that ring along."""

LEAN_DB: Final = 1.5
"""One standard deviation of how a drum leans to one of two capsules at one point: patterns as they
are, and the room (from memory)."""

LEAN_CAP: Final = 16.0
LEAN_LEFT: Final = 2.0
"""What one drum can say of it, squared standard deviations: two toms to the sides are often all
that lean, and no single one decides. And what may be left for each drum, or nothing is known: of
16,000 trials of drums that lean 1 to 2 dB otherwise than planned, six are told wrongly."""

NEAR_S: Final = 0.006
"""To the farthest drum; two metres (common practice: from there on the room is as loud)."""

MOST_STROKES: Final = 160
MOST_CELLS: Final = 2_000_000
"""Evenly over the take: more tell nothing new. Of a great many tracks fewer, so that what is held
of them all at once stays small."""


@dataclass(frozen=True, slots=True)
class Strokes:
    """What was heard of E strokes in C tracks."""

    at_s: Floats  # (E, C) from any moment of each stroke; not a number where it was not heard
    over_noise: Floats  # (E, C) how far it stands over what was there before, times
    under_db: Floats  # (E, C) its peak against the loudest of the take in that track

    def some(self, most: int) -> "Strokes":
        """Those that any track has, and of them so many evenly over the take.

        Parameters
        ----------
        most : int

        Returns
        -------
        Strokes
        """
        heard = np.isfinite(self.at_s) & (self.over_noise >= HEARD)
        kept = np.flatnonzero(heard.any(axis=1))
        if len(kept) > most:
            kept = kept[np.linspace(0, len(kept) - 1, most).round().astype(int)]
        at = np.where(heard, self.at_s, np.nan)
        return Strokes(at[kept], self.over_noise[kept], self.under_db[kept])

    def turned(self, a: int, b: int) -> "Strokes":
        """With two tracks changed over.

        Parameters
        ----------
        a, b : int

        Returns
        -------
        Strokes
        """
        order = np.arange(self.at_s.shape[1])
        order[[a, b]] = b, a
        return Strokes(self.at_s[:, order], self.over_noise[:, order], self.under_db[:, order])


def crossed(
    want: Expected, strokes: Strokes, mics: Sequence[int], drums: Sequence[DrumRead] = ()
) -> list[tuple[int, int]]:
    """Tracks that hold each other's sound.

    Parameters
    ----------
    want : Expected
        Of C tracks.
    strokes : Strokes
    mics : sequence of int
        The mic of each track, by number: two of one mic hold the same.
    drums : sequence of DrumRead, optional
        As they were measured.

    Returns
    -------
    list of (int, int)
        By number; likeliest first, each track once.
    """
    tracks, sources = want.at_s.shape
    heard = strokes.some(min(MOST_STROKES, MOST_CELLS // (tracks**2 * sources) + 1))
    free = ~np.equal.outer(mics, mics)
    fine, leaning = _fine(want, drums), _leaning(want, drums)
    made: list[tuple[int, int]] = []
    while len(heard.at_s):
        gain = np.where(free, _gain(want, heard), 0.0)
        both = np.array([gain, fine])
        alike = (both > np.reshape(ALIKE_EACH, (2, 1, 1))).all(axis=0)
        total = both.sum(axis=0) + leaning
        surely = (gain > CROSSED) | (alike & (both.sum(axis=0) > ALIKE))
        surely |= free & (leaning > CROSSED)
        if not surely.any():
            break
        likeliest = np.where(surely, total, -np.inf).argmax()
        a, b = sorted(int(n) for n in np.unravel_index(likeliest, gain.shape))
        made.append((a, b))
        # Two that are crossed make others look so: asked again with these where they belong.
        heard = heard.turned(a, b)
        free[[a, b]] = free[:, [a, b]] = False
    return made


def _fine(want: Expected, drums: Sequence[DrumRead]) -> Floats:
    """By how much the order fits better in which two have each drum, (C, C)."""
    if not drums:
        return np.zeros((len(want.job), len(want.job)))
    planned = want.at_s[:, [d.source for d in drums]].T
    lag = np.array([d.lag_s for d in drums])
    off, order = (v[:, :, None] - v[:, None, :] for v in (lag, planned))
    one = np.equal.outer(want.job, want.job)
    own = one & (np.array([d.source for d in drums])[:, None, None] == want.job)
    fits, turned = (off - way * order for way in (1, -1))
    enough = np.isfinite(off).sum(axis=0) >= FEWEST_DRUMS
    made = np.where(own, _squared(fits) - _squared(turned), 0.0).sum(axis=0)
    fits, turned = (_squared(v - _middle(v)).sum(axis=0) for v in (fits, turned))
    return np.asarray(np.where(enough, made + fits - turned, made))


def _leaning(want: Expected, drums: Sequence[DrumRead]) -> Floats:
    """By how much it fits better how drums lean to one or other of two at one point, (C, C)."""
    sources = [d.source for d in drums]
    if len(sources) < FEWEST_DRUMS:
        return np.zeros((len(want.job), len(want.job)))
    heard = np.array([np.where(d.heard, d.energy_db, np.nan)[:AIR].mean(axis=0) for d in drums])
    at, planned = (v[:, sources].T for v in (want.at_s, want.under_db))
    off, order, apart = (v[:, :, None] - v[:, None, :] for v in (heard, planned, at))
    off, order = off - _middle(off), order - _middle(order)
    near = (want.job < 0) & (at.max(axis=0) < NEAR_S)
    at_one = (np.abs(apart).max(axis=0) < FINE_S) & np.logical_and.outer(near, near)
    fits, turned = (_squared(off - way * order, LEAN_DB, LEAN_CAP) for way in (1, -1))
    made, count = fits - turned, np.isfinite(off).sum(axis=0)
    known = at_one & (count >= FEWEST_DRUMS) & (turned.sum(axis=0) < LEAN_LEFT * count)
    return np.asarray(np.where(known, made.sum(axis=0), 0.0))


def _squared(off: Floats, deviation: float = FINE_S, most: float = CAP) -> Floats:
    """Squared standard deviations of an order; of what was not heard none."""
    return np.asarray(np.nan_to_num(np.minimum((off / deviation) ** 2, most)))


def _gain(want: Expected, heard: Strokes) -> Floats:
    """By how much the strokes fit better with two tracks changed over, (C, C)."""
    late, louder = _late(want, heard), _louder(want, heard)
    misfit = _misfit(late, TIME_S) + _misfit(louder, LEVEL_DB)
    drum: Ints = np.einsum("eccs->es", misfit).argmin(axis=1)
    own = _misfit(late - _own(late, drum), TIME_S) + _misfit(louder - _own(louder, drum), LEVEL_DB)
    return np.where(_gains(own, drum) > 0, _gains(misfit, drum), 0.0)


def _late(want: Expected, heard: Strokes) -> Any:
    """Seconds each track has each stroke later than each mic would each drum, (E, C, C, S)."""
    struck = np.nanmedian(heard.at_s[:, :, None] - want.at_s, axis=1)
    since = heard.at_s[:, :, None, None] - struck[:, None, None, :]
    return (since - want.at_s).astype(np.float32)


def _louder(want: Expected, heard: Strokes) -> Any:
    """Decibels each track has each stroke louder than each mic would each drum, (E, C, C, S)."""
    known = np.where(np.isfinite(heard.at_s), heard.under_db, np.nan)
    hard = np.nanmedian(known[:, :, None] - want.under_db, axis=1)
    hard = np.clip(hard, SOFTEST_DB, HARDEST_DB)
    off = heard.under_db[:, :, None, None] - hard[:, None, None, :] - want.under_db
    return off.astype(np.float32)


def _misfit(off: Any, deviation: float) -> Any:
    """Squared standard deviations, capped; what was not heard says nothing."""
    return np.nan_to_num(np.minimum((off / np.float32(deviation)) ** 2, np.float32(CAP)))


def _own(off: Any, drum: Ints) -> Any:
    """By what each track is off each mic on most drums, (1, C, C, 1)."""
    of_its = off[np.arange(len(drum)), :, :, drum]
    each = [_middle(of_its[drum == k]) for k in np.unique(drum)]
    return np.nan_to_num(_middle(np.array(each)))[None, :, :, None]


def _middle(values: Any) -> Any:
    """The median along the first axis of what there is; not a number where there is nothing."""
    ordered = np.sort(values, axis=0)  # what is no number comes last
    count = np.isfinite(ordered).sum(axis=0)
    two = np.stack([np.maximum(count - 1, 0) // 2, np.minimum(count // 2, len(ordered) - 1)])
    return np.take_along_axis(ordered, two, axis=0).mean(axis=0)


def _gains(misfit: Any, drum: Ints) -> Floats:
    """The same by squared standard deviations, (E, C, C, S)."""
    misfit = np.ascontiguousarray(misfit.transpose(1, 2, 0, 3))  # (track, mic, stroke, drum)
    count = len(misfit)
    straight = np.einsum("cces->es", misfit)
    best = straight.min(axis=1)
    weight = 1 / np.bincount(drum)[drum]
    made = np.zeros((count, count))
    for a in range(count):
        for b in range(a + 1, count):
            turned = straight - misfit[a, a] - misfit[b, b] + misfit[a, b] + misfit[b, a]
            made[a, b] = made[b, a] = float((weight * (best - turned.min(axis=1))).sum())
    return made
