"""What turning mics over gives, in every way the signs left open may fall.

Where a sign is unsure its terms are left out of the gram (:mod:`ringside.pairs.gram`), which is
right on average and says nothing of how far it may be off. Here each mic's open sign on each drum
falls one way or the other, and all its pairs with it, so many times; what a set of flips gives is
told with where nine of ten of those lie, and in how many of them it gains at all.
"""

from collections.abc import Collection
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis
from ringside.pairs.gram import LEAST_SHARE, body_of, grams, meant
from ringside.pairs.kinds import side_mics

GAINS_DB: Final = 0.1
"""A way the open signs may fall gains by a set from here on."""

DRAWS: Final = 64


@dataclass(frozen=True, slots=True)
class Turned:
    """A set of flips and what it gives; decibels of body against as wired."""

    flip: list[str]
    mean_db: float
    low_db: float
    """The mean, in nine of ten ways the open signs may fall, is more than this."""
    high_db: float
    drums_db: Floats  # (D,) of the drums that are meant
    sure: float
    """In what share of the ways it gains."""


@dataclass(frozen=True)
class Mix:
    """All mics on the drums that are meant, as far as signs are known, and in every way they fall.

    A set that was thrown already is given by signs as well, (M,) of +1 and -1.
    """

    ids: list[str]
    gram: Floats  # (D, M, M)
    ways: Floats  # (N, D, M, M)

    def gains(self, signs: Floats, thrown: Floats | None = None) -> Floats:
        """Decibels of body of each drum (D,) by a set, against as wired, or as thrown.

        Parameters
        ----------
        signs : ndarray, shape (M,)
        thrown : ndarray, shape (M,), optional

        Returns
        -------
        ndarray, shape (D,)
        """
        return np.asarray(self._gains(self.gram[None], signs, thrown)[0])

    def told(self, signs: Floats, thrown: Floats | None = None) -> Turned:
        """A set with what it gives, however the open signs fall.

        Parameters
        ----------
        signs : ndarray, shape (M,)
        thrown : ndarray, shape (M,), optional

        Returns
        -------
        Turned
        """
        gains = self.gains(signs, thrown)
        ways = self._gains(self.ways, signs, thrown).mean(axis=1)
        low, high = np.quantile(ways, [0.1, 0.9])
        mean = float(gains.mean())
        return Turned(
            flip=[self.ids[i] for i in np.flatnonzero(signs < 0)],
            mean_db=mean,
            low_db=min(float(low), mean),
            high_db=max(float(high), mean),
            drums_db=gains,
            sure=float((ways >= GAINS_DB).mean()),
        )

    def signs(self, flip: Collection[str]) -> Floats:
        """A set by names as signs, (M,).

        Parameters
        ----------
        flip : collection of str

        Returns
        -------
        ndarray, shape (M,)
        """
        return np.array([-1.0 if m in flip else 1.0 for m in self.ids])

    def _gains(self, grams_: Floats, signs: Floats, thrown: Floats | None) -> Floats:
        before = np.ones(len(self.ids)) if thrown is None else thrown
        least = LEAST_SHARE * np.maximum(np.einsum("ndii->nd", grams_), 1e-12)
        now, then = (np.maximum((grams_ @ x) @ x, least) for x in (before, before * signs))
        return np.asarray(10 * np.log10(then / now))


def mix_of(an: Analysis) -> Mix:
    """The mics of a layout on the drums that are meant; worked out once for an analysis.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    Mix
    """
    if "mix" not in an.kept:
        gram = grams(an)[meant(an)]
        extra = _draws(an)
        ways = gram[None] if extra is None else gram[None] + extra
        an.kept["mix"] = Mix([m.id for m in an.layout.mics], gram, ways)
    made: Mix = an.kept["mix"]
    return made


def _draws(an: Analysis) -> Floats | None:
    """What the pairs of open sign may add to the grams, (N, D, M, M); None where none is open.

    Each mic's sign on each drum falls one way or the other, and all its pairs with it.
    """
    p, s = an.pairs, an.scene.sources
    drums = np.flatnonzero(s.drum)[meant(an)]
    open_now = p.sign[:, drums] == 0
    amplitude = 10 ** (an.arrivals.after_gain_db[:, drums] / 20)
    amplitude[~an.scene.heard] = 0.0
    amplitude[side_mics(an.layout)] = 0.0
    term = p.raw_sign[:, drums] * p.alike[:, drums] * amplitude[p.first] * amplitude[p.second]
    term = np.where(open_now, term, 0.0)
    whole = np.maximum((amplitude**2).sum(axis=0), 1e-12)
    if not (np.abs(term) > 1e-3 * whole).any():
        return None
    unsure = an.arrivals.sign[:, drums] == 0
    rng = np.random.default_rng(7)
    count = len(an.layout.mics)
    way = np.where(unsure, rng.choice([-1.0, 1.0], (DRAWS, *unsure.shape)), 1.0)
    rows = (term * way[:, p.first] * way[:, p.second]).transpose(0, 2, 1)
    made = np.zeros((DRAWS, len(drums), count, count))
    made[:, :, p.first, p.second] = rows
    made[:, :, p.second, p.first] = rows
    return made


def body_db(an: Analysis) -> Floats:
    """How full every drum is in the sum of all, (D,), decibels against its mics as energies.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    ndarray, shape (D,)
    """
    gram = grams(an)
    ones = np.ones(len(an.layout.mics))
    whole = np.maximum(np.einsum("dii->d", gram), 1e-12)
    kept = np.maximum(body_of(gram, ones), LEAST_SHARE * whole)
    return np.asarray(10 * np.log10(kept / whole))
