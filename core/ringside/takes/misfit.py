"""By how much the strokes of a take fit the plan better with tracks changed over.

For each drum a stroke may have been, what each track holds is held against what the plan has for
each mic. Which drum it was is free on either side, and each drum counts once however often it was
struck. No single track says much (misfits are capped), so that one that is silent, late or
elsewhere does not look like two that are crossed.

A track that is late by itself, or two mics that stand elsewhere, must not look so either: what fits
better must do so, too, where each track may be late and loud by whatever suits it.
"""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.takes.naming import HARDEST_DB, HEARD, SOFTEST_DB, Expected

TIME_S: Final = 0.0004
LEVEL_DB: Final = 8.0
CAP: Final = 9.0
"""How well time and level of a drum in a mic are planned where a mic is looked for at all, and
the squared standard deviations a single one of them can say (from memory)."""


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

    def of(self, order: Ints) -> "Strokes":
        """With its tracks in another order.

        Parameters
        ----------
        order : ndarray of int, shape (C,)
            Of each place: the track that is put there.

        Returns
        -------
        Strokes
        """
        return Strokes(self.at_s[:, order], self.over_noise[:, order], self.under_db[:, order])


def gains(want: Expected, heard: Strokes) -> Floats:
    """By how much strokes fit better with tracks in other places.

    Parameters
    ----------
    want : Expected
        Of C places.
    heard : Strokes
        Of the tracks that are in them.

    Returns
    -------
    ndarray, shape (3, C, C)
        Squared standard deviations. First with any two changed over; then, from one place to
        another two behind it or more, with the track of the next in each and that of the first in
        the last, and with the track of the one before in each and that of the last in the first.
    """
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
    each = [middle(of_its[drum == k]) for k in np.unique(drum)]
    return np.nan_to_num(middle(np.array(each)))[None, :, :, None]


def middle(values: Any) -> Any:
    """The median along the first axis of what there is; not a number where there is nothing.

    Parameters
    ----------
    values : ndarray, shape (N, ...)

    Returns
    -------
    ndarray, shape (...)
    """
    ordered = np.sort(values, axis=0)  # what is no number comes last
    count = np.isfinite(ordered).sum(axis=0)
    two = np.stack([np.maximum(count - 1, 0) // 2, np.minimum(count // 2, len(ordered) - 1)])
    return np.take_along_axis(ordered, two, axis=0).mean(axis=0)


def _gains(misfit: Any, drum: Ints) -> Floats:
    """The same by squared standard deviations, (E, C, C, S)."""
    misfit = np.ascontiguousarray(misfit.transpose(1, 2, 0, 3))  # (track, place, stroke, drum)
    count = len(misfit)
    here = np.arange(count)
    straight = np.einsum("cces->es", misfit)
    best = straight.min(axis=1)
    weight = 1 / np.bincount(drum)[drum]
    held = _summed(misfit[here, here])
    next_s, last_s = _summed(misfit[here[1:], here[:-1]]), _summed(misfit[here[:-1], here[1:]])

    def gain(turned: Any) -> float:
        return float((weight * (best - turned.min(axis=1))).sum())

    made = np.zeros((3, count, count))
    for a in range(count):
        for b in range(a + 1, count):
            two = misfit[a, b] + misfit[b, a] - misfit[a, a] - misfit[b, b]
            made[0, a, b] = made[0, b, a] = gain(straight + two)
            if b == a + 1:
                continue  # no row
            rest = straight - held[b + 1] + held[a]
            made[1, a, b] = gain(rest + next_s[b] - next_s[a] + misfit[a, b])
            made[2, a, b] = gain(rest + last_s[b] - last_s[a] + misfit[b, a])
    return made


def _summed(each: Any) -> Any:
    """Of those before each, and of all."""
    return np.concatenate([np.zeros_like(each[:1]), np.cumsum(each, axis=0)])
