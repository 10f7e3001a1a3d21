"""Readings as arrays: lengths between points, and differences of two, with their slopes."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ringside.arrays import Floats, Ints, Mask

Ends = tuple[int, int | None]


@dataclass(frozen=True)
class Lines:
    """Readings as arrays: part by part, `floor` where the other end is the floor; (R,) each."""

    one: Ints
    two: Ints
    floor: Mask

    def lengths(self, points: Floats) -> tuple[Floats, Floats]:
        """What each reading should be, and the way it runs.

        Parameters
        ----------
        points : ndarray, shape (P, 3)
            Where the tape is held at each part, metres.

        Returns
        -------
        said : ndarray, shape (R,)
            Metres.
        way : ndarray, shape (R, 3)
            From the second end to the first, metres.
        """
        way = points[self.one] - points[self.two]
        far = np.sqrt(np.einsum("ri,ri->r", way, way))
        return np.where(self.floor, points[self.one, 2], far), way

    def slopes(self, said: Floats, way: Floats, parts: int) -> Floats:
        """The slope of each reading over all coordinates, metres per metre.

        Parameters
        ----------
        said : ndarray, shape (R,)
        way : ndarray, shape (R, 3)
        parts : int

        Returns
        -------
        ndarray, shape (R, 3P)
        """
        rows = np.arange(len(said))
        unit = way / np.maximum(said, 1e-6)[:, None]
        unit[self.floor] = (0.0, 0.0, 1.0)
        slope = np.zeros((len(said), parts, 3))
        slope[rows, self.one] = unit
        slope[rows[~self.floor], self.two[~self.floor]] = -unit[~self.floor]
        return np.asarray(slope.reshape(len(said), 3 * parts))


def lines_of(ends: Sequence[Ends]) -> Lines:
    """Readings between parts by number; None is the floor.

    Parameters
    ----------
    ends : sequence of Ends
        Numbers of parts; none for the floor.

    Returns
    -------
    Lines
    """
    one = np.array([a for a, _ in ends], dtype=int)
    two = np.array([a if b is None else b for a, b in ends], dtype=int)
    return Lines(one, two, np.array([b is None for _, b in ends], dtype=bool))


@dataclass(frozen=True)
class Observed:
    """What was read: a length, or how much longer one length is than another; R readings."""

    lines: Lines
    less: Lines  # of those that are differences: the length that is taken away
    at: Ints  # which those are

    def said(self, points: Floats) -> Floats:
        """What each reading should be.

        Parameters
        ----------
        points : ndarray, shape (P, 3)
            Metres.

        Returns
        -------
        ndarray, shape (R,)
            Metres.
        """
        said = self.lines.lengths(points)[0]
        if len(self.at):
            said[self.at] -= self.less.lengths(points)[0]
        return said

    def sloped(self, points: Floats) -> tuple[Floats, Floats]:
        """The same, and its slope over all coordinates.

        Parameters
        ----------
        points : ndarray, shape (P, 3)
            Metres.

        Returns
        -------
        said : ndarray, shape (R,)
            Metres.
        slope : ndarray, shape (R, 3P)
            Metres per metre.
        """
        said, way = self.lines.lengths(points)
        slope = self.lines.slopes(said, way, len(points))
        if len(self.at):
            other, way = self.less.lengths(points)
            slope[self.at] -= self.less.slopes(other, way, len(points))
            said[self.at] -= other
        return said, slope


def observed(ends: Sequence[Ends], less: Sequence[Ends | None] = ()) -> Observed:
    """Readings as arrays.

    Parameters
    ----------
    ends : sequence of Ends
        Numbers of parts; none for the floor.
    less : sequence of Ends or None
        Of each reading that is a difference: the ends of what is taken away. Empty where none is.

    Returns
    -------
    Observed
    """
    at = [(n, e) for n, e in enumerate(less) if e is not None]
    return Observed(lines_of(ends), lines_of([e for _, e in at]), np.array([n for n, _ in at], int))


def computed(
    points: Floats, ends: Sequence[Ends], less: Sequence[Ends | None] = ()
) -> tuple[Floats, Floats]:
    """What each reading should be, and its slope over all coordinates.

    Parameters
    ----------
    points : ndarray, shape (P, 3)
        Where the tape is held at each part, metres.
    ends : list of (int, int or None)
        Parts by number; None is the floor.
    less : sequence of Ends or None
        Of each reading that is a difference: the ends of what is taken away. Empty where none is.

    Returns
    -------
    said : ndarray, shape (R,)
        Metres.
    slope : ndarray, shape (R, 3P)
        Metres per metre.
    """
    return observed(ends, less).sloped(points)
