"""The six verdicts on two mics and a drum: their order, words and weights, and how one is reached.

What is asked depends on what the two are to each other (:class:`Kind`). In the order they are
asked: no matter, ask the ear, hollow, late, behind, together (:mod:`ringside.pairs.analysis`
says what each means)."""

from collections.abc import Iterator
from enum import IntEnum
from typing import Final, NamedTuple, TypeVar

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ringside.arrays import Floats, Ints, Mask, Signs
from ringside.plan.layout import VerdictWord
from ringside.plan.thresholds import Thresholds

T = TypeVar("T", bound=np.generic)


class Verdict(IntEnum):
    """Ordered by how much it wants attention."""

    NO_MATTER = 0
    BEHIND = 1
    TOGETHER = 2
    ASK_THE_EAR = 3
    LATE = 4
    HOLLOW = 5


VERDICT_WORDS: Final[dict[Verdict, VerdictWord]] = {
    Verdict.NO_MATTER: "no matter",
    Verdict.BEHIND: "behind",
    Verdict.TOGETHER: "together",
    Verdict.ASK_THE_EAR: "ask the ear",
    Verdict.LATE: "late",
    Verdict.HOLLOW: "hollow",
}


WEIGHT: dict[Verdict, float] = {
    Verdict.NO_MATTER: 0.0, Verdict.BEHIND: 0.0, Verdict.TOGETHER: 0.0, Verdict.ASK_THE_EAR: 1.0,
    Verdict.LATE: 2.0, Verdict.HOLLOW: 4.0,
}  # fmt: skip
"""How much each verdict weighs when whole layouts are compared (from memory): hollow is heard
at once, late at the second look, and what the ear must be asked about may be nothing."""


class Kind(IntEnum):
    """What two mics are to each other, and so what is asked of them."""

    APART = 0
    """Of unlike jobs: never equal in time; polarity, and how far one is behind."""
    SAME = 1
    """Put up for one drum: judged up to its punch."""
    PICTURE = 2
    """A stereo pair, left and right: one picture, and its mono."""
    DECODED = 3
    """A mid with its side: judged as decoded, where their signs only change the sides over."""
    SIDE = 4
    """One of them is a side: it is in both speakers with opposite signs, and gone in mono."""

    def of(self, kind: Ints | Signs) -> Mask:
        """Where pairs are of this kind; of an enum numpy asks long what it is.

        Parameters
        ----------
        kind : ndarray of int

        Returns
        -------
        ndarray of bool
            Of the same shape.
        """
        return np.asarray(kind == int(self))


class Facts(NamedTuple):
    """What the verdict on each pair and source is reached from; shapes broadcast together."""

    kind: Ints  # of Kind
    drum: Mask  # has heads, and so a body
    level: Floats  # the difference of the two after gain, decibels
    share: Floats  # of the drum's energy in the mix that the two could add, 0 to 1
    alike: Floats  # likeness of the two over the body band, -1 to 1
    delay: Floats  # seconds
    sign: Ints | Signs  # +1, -1, or 0 where it is unsure
    gain: Floats  # what a flip would gain in body, decibels; asked of drums alone
    dips: Mask  # a dip lies within the band the pair is judged in


def swing_db(share: Floats) -> Floats:
    """What two mics can take from a drum in the mix: between their best and their worst.

    All that is heard of the drum has the energy E, the two add 2ab to it at their best and take
    as much at their worst; the others are added as energies, for no two pairs line up alike.

    Parameters
    ----------
    share : ndarray
        2ab/E, 0 to 1; 1 for two alike and nothing else.

    Returns
    -------
    ndarray
        Decibels; for two alone the ripple of their comb.

    Examples
    --------
    >>> round(float(swing_db(np.array(0.6))), 2)
    6.02
    """
    most = np.minimum(share, 1 - 1e-12)
    return np.asarray(10 * np.log10((1 + most) / (1 - most)))


def share_that_takes(db: ArrayLike) -> Floats:
    """The share from which two mics can take so much from a drum; `swing_db` turned round.

    Parameters
    ----------
    db : array_like
        Decibels, 0 or more.

    Returns
    -------
    ndarray
        0 to 1, of the same shape.

    Examples
    --------
    >>> round(float(share_that_takes(6.02)), 2)
    0.6
    """
    most = 10 ** (np.asarray(db, dtype=float) / 10)
    return np.asarray((most - 1) / (most + 1))


def verdicts(limits: Thresholds, f: Facts) -> NDArray[np.int8]:
    """The verdict on each pair and source; the first that holds.

    Parameters
    ----------
    limits : Thresholds
    f : Facts
        Of shape (P, S), or any that broadcast to one.

    Returns
    -------
    ndarray of int8
        Values of `Verdict`.
    """
    shape = np.shape(f.level)
    kind, drum = _spread(f.kind.astype(np.int8), shape), _spread(f.drum, shape)
    decoded, apart = Kind.DECODED.of(kind), Kind.APART.of(kind)
    size = np.empty(shape)  # one for all: memory that is not at hand takes as long as the sums
    asked = drum & (np.abs(f.gain, out=size) >= limits.hollow_gain_db)
    little, enough = _taken(limits, f, size)
    matters = asked & enough
    uneven = np.abs(f.level, out=size) >= limits.no_matter_level_db
    delay = np.abs(f.delay, out=size)
    echo = (delay >= limits.echo_ms / 1e3) & drum & apart
    late = f.dips | echo

    # From the last that is asked to the first, so that the first has the last word. Each is made
    # when it is its turn: all of them at once would be memory that is not at hand.
    def cases() -> Iterator[tuple[Mask, Verdict]]:
        yield apart & (delay >= limits.behind_ms / 1e3), Verdict.BEHIND
        yield late, Verdict.LATE
        yield asked & ~matters & ~late, Verdict.NO_MATTER
        yield matters & (f.gain >= limits.hollow_gain_db), Verdict.HOLLOW
        yield matters & (f.sign == 0), Verdict.ASK_THE_EAR
        yield uneven, Verdict.NO_MATTER
        yield decoded, Verdict.TOGETHER
        yield decoded & f.dips, Verdict.LATE
        yield little & ~echo, Verdict.NO_MATTER
        yield (f.share <= 0) | Kind.SIDE.of(kind), Verdict.NO_MATTER

    # The last that holds is the greatest of their places, each of which carries its verdict.
    last = np.full(shape, int(Verdict.TOGETHER), dtype=np.uint8)
    for place, (holds, verdict) in enumerate(cases(), 1):
        np.maximum(last, holds.view(np.uint8) * np.uint8(8 * place + verdict), out=last)
    last &= 7
    return last.view(np.int8)


def _taken(limits: Thresholds, f: Facts, size: Floats) -> tuple[Mask, Mask]:
    """Whether the two take little from the drum at most; and enough of its body, as they stand.

    Worked out in `size`, whose values are lost.
    """
    pictured = Kind.PICTURE.of(f.kind) | Kind.DECODED.of(f.kind)
    few, fewer = share_that_takes([limits.takes_db, limits.picture_takes_db])
    least = _spread(np.where(pictured, fewer, few), size.shape)
    np.multiply(f.share, np.abs(f.alike, out=size), out=size)
    return f.share < least, size >= least


def _spread(of: NDArray[T], shape: tuple[int, ...]) -> NDArray[T]:
    """One for each pair and source: masks of one shape are put together ten times as fast."""
    if of.shape == (*shape[:-1], 1):
        return np.repeat(of, shape[-1], axis=-1)
    return np.broadcast_to(of, shape).copy()


WORDS_BY_VALUE: Final[tuple[VerdictWord, ...]] = tuple(
    VERDICT_WORDS[v] for v in sorted(VERDICT_WORDS)
)
"""The words in the order of the numbers, because a table of them is made many times a second."""
