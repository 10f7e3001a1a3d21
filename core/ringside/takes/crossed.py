"""Two channels on each other's tracks, found by how every stroke lies in all tracks.

With two plugs changed over, many a stroke no longer reaches all mics as one: it is left out, and
with it goes what would tell of them. So every stroke is asked, whether it counts or not. For each
drum it may have been, what each track holds is held against what the plan has for each mic; with
two tracks given to each other's mics the strokes fit better, or they do not. Which drum a stroke
was is free on either side, and each drum counts once however often it was struck. No single track
says much (misfits are capped), so that one that is silent, late or elsewhere does not look like
two.

A track that is late by itself, or two mics that stand elsewhere, must not look so either: what is
found must hold, too, where each track may be late by whatever suits it.

Two mics on one drum, over it and under it, are too alike for that. What tells them is which of the
two has the drum first, by its finer arrivals (:mod:`ringside.takes.pooled`); strokes must fit
better all the same.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.takes.naming import HARDEST_DB, HEARD, SOFTEST_DB, Expected
from ringside.takes.pooled import DrumRead

TIME_S: Final = 0.0004
LEVEL_DB: Final = 8.0
CAP: Final = 9.0
"""How well time and level of a drum in a mic are planned where a mic is looked for at all, and
the squared standard deviations a single one of them can say (from memory)."""

CROSSED: Final = 20.0
"""Squared standard deviations the strokes must fit better by. Of simulated takes of ten and of
28 mics, each drum in each mic off by 5 dB and 0.1 ms and each mic by 0.2 ms, one in 200 passes
where nothing is crossed, and 96 in 100 where two are (from trial)."""

ON_ONE_DRUM: Final = 14.0
ON_ONE_DRUM_EACH: Final = (4.0, 6.0)
"""The same for two mics on one drum: of strokes and finer arrivals together, and of each."""

FINE_S: Final = 0.00012
"""One standard deviation of which of two on a drum has it first by how much: each of them put up
to 3 cm (common practice)."""

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
    fine = _fine(want, drums)
    made: list[tuple[int, int]] = []
    while len(heard.at_s):
        gain = np.where(free, _gain(want, heard), 0.0)
        both = np.array([gain, fine])
        alike = (both > np.reshape(ON_ONE_DRUM_EACH, (2, 1, 1))).all(axis=0)
        surely = (gain > CROSSED) | (alike & (both.sum(axis=0) > ON_ONE_DRUM))
        if not surely.any():
            break
        likeliest = np.where(surely, both.sum(axis=0), 0.0).argmax()
        a, b = sorted(int(n) for n in np.unravel_index(likeliest, gain.shape))
        made.append((a, b))
        # Two that are crossed make others look so: asked again with these where they belong.
        heard = heard.turned(a, b)
        free[[a, b]] = free[:, [a, b]] = False
    return made


def _fine(want: Expected, drums: Sequence[DrumRead]) -> Floats:
    """By how much the order fits better in which two on one drum have each drum, (C, C)."""
    made = np.zeros((len(want.job), len(want.job)))
    one = np.equal.outer(want.job, want.job) & (want.job >= 0)
    for d in drums:
        planned = want.at_s[:, d.source]
        off = np.subtract.outer(d.lag_s, d.lag_s)
        fits, turned = (
            np.minimum(((off - way * np.subtract.outer(planned, planned)) / FINE_S) ** 2, CAP)
            for way in (1, -1)
        )
        made += np.nan_to_num(fits - turned)
    return np.where(one, made, 0.0)


def _gain(want: Expected, heard: Strokes) -> Floats:
    """By how much the strokes fit better with two tracks changed over, (C, C)."""
    late, level = _late(want, heard), _level(want, heard)
    drum: Ints = np.einsum("eccs->es", _misfit(late) + level).argmin(axis=1)
    own = _gains(_misfit(late - _own_s(late, drum)[None, :, :, None]) + level, drum)
    return np.where(own > 0, _gains(_misfit(late) + level, drum), 0.0)


def _late(want: Expected, heard: Strokes) -> Any:
    """Seconds each track has each stroke later than each mic would each drum, (E, C, C, S)."""
    struck = np.nanmedian(heard.at_s[:, :, None] - want.at_s, axis=1)
    since = heard.at_s[:, :, None, None] - struck[:, None, None, :]
    return (since - want.at_s).astype(np.float32)


def _level(want: Expected, heard: Strokes) -> Any:
    """Squared standard deviations of the level of each track from each mic's, (E, C, C, S)."""
    known = np.where(np.isfinite(heard.at_s), heard.under_db, np.nan)
    hard = np.nanmedian(known[:, :, None] - want.under_db, axis=1)
    hard = np.clip(hard, SOFTEST_DB, HARDEST_DB)
    off = heard.under_db[:, :, None, None] - hard[:, None, None, :] - want.under_db
    return np.minimum((off / LEVEL_DB) ** 2, CAP).astype(np.float32)


def _misfit(late: Any) -> Any:
    """Squared standard deviations of times; what was not heard says nothing."""
    return np.nan_to_num(np.minimum((late / np.float32(TIME_S)) ** 2, np.float32(CAP)))


def _own_s(late: Any, drum: Ints) -> Any:
    """By what each track is later than each mic on most drums, (C, C)."""
    of_its = late[np.arange(len(drum)), :, :, drum]
    each = [_middle(of_its[drum == k]) for k in np.unique(drum)]
    return np.nan_to_num(_middle(np.array(each)))


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
