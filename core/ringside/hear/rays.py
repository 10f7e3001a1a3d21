"""What counts as a mic's own sound: what comes straight, and what surfaces beside it send."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.hear.sums import likeness


@dataclass(frozen=True, kw_only=True)
class Rays:
    """Everything that counts as a mic's own sound: R rays, the M straight ones first.

    Weights are signed, with the lead's sign taken as plus, and for each mic and drum scaled
    so that the rays together have an energy of one over the body band.
    """

    mic: Ints  # (R,)
    time_s: Floats  # (R, S)
    weight: Floats  # (R, S)
    turn: Floats  # (R, S) how far the low end is ahead of the travel time, radians
    several: Mask  # (M,) mics with more than their straight ray

    @cached_property
    def by_mic(self) -> tuple[Ints, Ints, Ints]:
        """Rays in the order of the mics (R,), and where each mic's begin and how many (M,)."""
        count = np.bincount(self.mic, minlength=len(self.several))
        start = np.concatenate([[0], np.cumsum(count)[:-1]])
        return np.argsort(self.mic, kind="stable"), start.astype(np.int64), count

    def every_two(self, first: Ints, second: Ints) -> tuple[Ints, Ints, Ints, Ints]:
        """Every ray of the first mic of a pair with every ray of its second, pair after pair.

        Parameters
        ----------
        first, second : ndarray of int, shape (P,)
            Mics by number.

        Returns
        -------
        (ndarray, ndarray, ndarray, ndarray) of int
            Where each pair begins (P,); then of each two rays their pair, the one and the
            other (N,).
        """
        order, start, count = self.by_mic
        many = count[first] * count[second]
        begin = np.concatenate([[0], np.cumsum(many)[:-1]]).astype(np.int64)
        of = np.repeat(np.arange(len(first)), many)
        mine, others = np.divmod(np.arange(len(of)) - begin[of], count[second][of])
        one = order[start[first][of] + mine]
        two = order[start[second][of] + others]
        return begin, of, one, two

    def of(self, mic: int) -> Ints:
        """Rows of the rays of a mic.

        Parameters
        ----------
        mic : int
            By number.

        Returns
        -------
        ndarray of int, shape (R,)
        """
        return np.flatnonzero(self.mic == mic)

    def energy(self, low: Floats, high: Floats) -> Floats:
        """Of all rays of each mic together over a band, as they are weighted.

        Parameters
        ----------
        low, high : ndarray, shape (S,)
            The band of each source, hertz.

        Returns
        -------
        ndarray, shape (M, S)
            One where there is the straight ray alone.
        """
        t, turn, some = self.time_s, self.turn, np.flatnonzero(self.several)
        energy = np.ones((len(self.several), t.shape[1]))
        begin, _, one, two = self.every_two(some, some)
        alike = likeness(t[two] - t[one], low, high, turn[two] - turn[one])
        terms = self.weight[one] * self.weight[two] * alike
        energy[some] = np.maximum(np.add.reduceat(terms, begin), 1e-8)
        return energy
