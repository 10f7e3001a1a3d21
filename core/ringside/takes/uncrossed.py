"""A take with every track at its own mic: two that hold each other's sound are laid right.

Most are found by how every stroke lies in all tracks (:mod:`ringside.takes.crossed`). Two mics that
stand a hand or two apart, as on one bar, are too alike for that: what is found then is that both
moved, each to where the other should be. Two plugs changed over are likelier than two stands that
took each other's place to the centimetre (common practice), so that is tried: it is told where
nothing is left to be said of either afterwards.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from itertools import combinations
from pathlib import Path
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis
from ringside.takes.crossed import crossed
from ringside.takes.naming import expected
from ringside.takes.reading import Corrections, TakeRead, read_take
from ringside.takes.reasons import Cause, Rows, causes, kelvin_of, rows_of

ABOUT: Final = (0.5, 1.5)
"""How much of the way to the other's place a mic seems to have come, where the two may be crossed;
a pair on a bar is found to a few centimetres, half of a narrow one's width (from trial)."""

Names = tuple[str, str]


def read_uncrossed(
    paths: Sequence[Path], analysis: Analysis, said: Corrections,
    told: Callable[[float, str], None],
) -> tuple[TakeRead, list[Names]]:  # fmt: skip
    """Measure a take, each track as of the mic whose sound it holds.

    Parameters
    ----------
    paths : sequence of Path
    analysis : Analysis
        Of the layout it was recorded with.
    said : Corrections
    told : callable
        Called with a share from 0 to 1 and what is done.

    Returns
    -------
    (TakeRead, list of (str, str))
        And the channels that were on each other's tracks.
    """
    take = read_take(paths, analysis, said, told)
    want = expected(analysis, list(take.mics))
    found = [_names(take, *two) for two in crossed(want, take.strokes, take.mics, take.drums)]
    if found:
        said = _turned(take, said, found)
        take = read_take(paths, analysis, said, told)
    rows = rows_of(take)
    for two in exchanged(_causes(take, rows), _planned(take)):
        names = _names(take, *two)
        turned = read_take(paths, analysis, _turned(take, said, [names]), told)
        after = rows_of(turned)
        left = {c.track for c in _causes(turned, after)} & set(two)
        # What is no longer heard is not explained.
        if not left and _heard(after, two) >= _heard(rows, two):
            return turned, [*found, names]
    return take, found


def exchanged(found: Sequence[Cause], planned: Floats) -> Iterator[tuple[int, int]]:
    """Tracks of two mics that seem to stand where the other should.

    Parameters
    ----------
    found : sequence of Cause
    planned : ndarray, shape (C, 3)
        Where the mic of each track should stand, metres.

    Returns
    -------
    iterator of (int, int)
        By number.
    """
    for a, b in combinations((c for c in found if c.kind == "moved"), 2):
        way = planned[b.track] - planned[a.track]
        far = max(float(way @ way), 1e-9)
        come = float(a.by_m @ way) / far, float(b.by_m @ -way) / far
        if ABOUT[0] < min(come) and max(come) < ABOUT[1]:
            one, other = sorted((a.track, b.track))
            yield one, other


def _names(take: TakeRead, a: int, b: int) -> Names:
    of = [str(take.matched[take.rows[track]].channel) for track in (a, b)]
    return of[0], of[1]


def _causes(take: TakeRead, rows: Rows) -> list[Cause]:
    return causes(rows, len(take.mics), kelvin_of(take))


def _heard(rows: Rows, two: tuple[int, int]) -> int:
    """Arrivals there are of two tracks."""
    return int(np.isin(rows.track, two).sum())


def _planned(take: TakeRead) -> Floats:
    return np.asarray(take.analysis.scene.capsule[list(take.mics)])


def _turned(take: TakeRead, said: Corrections, two: Sequence[Names]) -> Corrections:
    other = dict(two) | {b: a for a, b in two}
    channels = {
        m.track: other.get(m.channel or "", m.channel) for m in take.matched if m.channel
    } | {t: c for t, c in said.channels.items() if c is None}
    return replace(said, channels=channels)
