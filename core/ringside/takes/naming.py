"""Which drum an event was: the one whose sound would come to all mics in that order and that loud.

For every drum and cymbal the plan says when each mic has it and how loud it is there against the
loudest thing that mic ever has. What was heard is held against both; how hard the hit was, and
when, is free. No single mic can say much (misfits are capped), so one that stands elsewhere,
hangs on another track or is late does not name a drum wrongly.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.pairs.analysis import Analysis

TIME_S: Final = 0.0004
"""How well a mic's time is planned and heard, one standard deviation (from memory: a hand's
breadth of place and a soft beginning)."""

LEVEL_DB: Final = 7.0
"""How well a mic's level on a drum is planned (from memory)."""

CAP: Final = 9.0
"""Squared standard deviations a single time can speak against a drum."""

LEVEL_CAP: Final = 4.0
HEARD: Final = 10.0
"""Times over its noise, from where on a track's onset counts."""

SOFTEST_DB: Final = -40.0
HARDEST_DB: Final = 3.0
"""How far a hit may be under the loudest of its drum, and over what the plan has of it."""

SURE: Final = 4.0
"""Squared standard deviations the next likely drum is behind: a ratio of seven to one."""

FITS: Final = 4.0
"""Squared standard deviations a mic on average, above which an event was no drum of this kit."""


@dataclass(frozen=True, slots=True)
class Named:
    """The drum an event is taken for."""

    source: int | None
    """By number; None where it fits none."""
    sure: bool
    rival: int | None
    """The next likely."""
    misfit: float
    with_it: int | None = None
    """Another drum that sounded at once, by its own mic."""


ANOTHER_DB: Final = 16.0
"""A drum's own mic so much louder than the named one makes it: that drum sounded, too."""


@dataclass(frozen=True)
class Expected:
    """What the plan expects of C tracks and S drums and cymbals."""

    at_s: Floats  # (C, S)
    under_db: Floats  # (C, S) against the loudest that track ever has
    job: Ints  # (C,) the drum or cymbal a track's mic is put up for, -1 for none


def expected(an: Analysis, mics: list[int]) -> Expected:
    """What the plan expects of tracks.

    Parameters
    ----------
    an : Analysis
    mics : list of int
        The mic of each track, by number.

    Returns
    -------
    Expected
    """
    late = an.scene.track_delay[:, None]
    level = an.arrivals.level_db + an.scene.sources.peak_db
    under = level - level.max(axis=1, keepdims=True)
    return Expected((an.arrivals.time_s - late)[mics], under[mics], an.scene.job[mics])


def named(want: Expected, at_s: Floats, over_noise: Floats, under_db: Floats) -> Named:
    """The drum one event was.

    Parameters
    ----------
    want : Expected
    at_s : ndarray, shape (C,)
        When each track has it, from any moment; not a number where it has not.
    over_noise : ndarray, shape (C,)
        How far it stands over what was there before, times.
    under_db : ndarray, shape (C,)
        Its peak against the loudest of the take in that track.

    Returns
    -------
    Named
    """
    counts = np.isfinite(at_s) & (over_noise >= HEARD)
    if counts.sum() == 0:
        return Named(None, False, None, np.inf)
    late = at_s[counts, None] - want.at_s[counts]
    late = late - _middle(late)
    time = np.minimum((late / TIME_S) ** 2, CAP).sum(axis=0)
    soft = under_db[:, None] - want.under_db
    soft = soft - np.clip(_middle(soft[counts]), SOFTEST_DB, HARDEST_DB)
    level = np.minimum((soft / LEVEL_DB) ** 2, LEVEL_CAP).sum(axis=0)
    misfit = time + level
    order = np.argsort(misfit, kind="stable")
    best = int(order[0])
    rival = int(order[1]) if len(order) > 1 else None
    apart = float(misfit[rival] - misfit[best]) if rival is not None else np.inf
    on_average = float(misfit[best]) / (int(counts.sum()) + len(under_db))
    if on_average > FITS:
        return Named(None, False, best, on_average)
    return Named(best, apart >= SURE, rival, on_average, _with_it(want, best, soft[:, best]))


def _with_it(want: Expected, best: int, louder_db: Floats) -> int | None:
    """The drum whose own mic is far louder than what was named makes it."""
    own = (want.job >= 0) & (want.job != best) & (want.under_db[:, best] < -ANOTHER_DB / 2)
    over = np.where(own, louder_db, -np.inf)
    worst = int(np.argmax(over))
    return int(want.job[worst]) if over[worst] > ANOTHER_DB else None


def _middle(values: Floats) -> Floats:
    return np.asarray(np.median(values, axis=0))
