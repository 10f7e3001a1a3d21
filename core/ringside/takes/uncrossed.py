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
from ringside.takes.crossed import Ring, crossed, rings
from ringside.takes.matching import Matched, channels_of
from ringside.takes.naming import expected
from ringside.takes.reading import Corrections, TakeRead, read_take
from ringside.takes.reasons import Cause, Rows, causes, kelvin_of, rows_of

ABOUT: Final = (0.5, 1.5)
"""How much of the way to the other's place a mic seems to have come, where the two may be crossed;
a pair on a bar is found to a few centimetres, half of a narrow one's width (from trial)."""

READINGS: Final = 4
"""At most, with tracks laid right by what each told; most need one, some a second (from trial)."""

Names = tuple[str, ...]


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
    (TakeRead, list of tuple of str)
        And the channels that were on each other's tracks: the sound of each on the track of the
        next, the last one's on the first.
    """
    first = take = read_take(paths, analysis, said, told)
    for _ in range(READINGS):
        found = _crossed(take)
        if not found:
            break
        # Read again, drums and strokes are what they are, and tell of what was left.
        said = _turned(take, said, [_names(take, ring) for ring in found])
        take = read_take(paths, analysis, said, told)
    rows = rows_of(take)
    for two in exchanged(_causes(take, rows), _planned(take)):
        names = _names(take, two)
        turned = read_take(paths, analysis, _turned(take, said, [names]), told)
        after = rows_of(turned)
        left = {c.track for c in _causes(turned, after)} & set(two)
        # What is no longer heard is not explained.
        if not left and _heard(after, two) >= _heard(rows, two):
            take = turned
            break
    return replace(take, matched=_found_by(first, take)), _rings(first, take)


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


def held_by(ring: Names) -> list[tuple[str, str]]:
    """Whose sound is on whose track.

    Parameters
    ----------
    ring : tuple of str

    Returns
    -------
    list of (str, str)
        Each channel, and the one on whose track it is.
    """
    return list(zip(ring, [*ring[1:], ring[0]], strict=True))


def plugged(take: TakeRead) -> list[int]:
    """Tracks as their channels are plugged, those that are not behind the others.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    list of int
        By number.
    """
    channels = channels_of(take.analysis.layout)
    place = {c.id: (c.input is None, c.input or 0, n) for n, c in enumerate(channels)}
    return sorted(range(len(take.mics)), key=lambda t: place[take.channel(t)])


def _crossed(take: TakeRead) -> list[Ring]:
    want = expected(take.analysis, list(take.mics))
    return crossed(want, take.strokes, take.mics, take.drums, plugged(take))


def _names(take: TakeRead, tracks: Sequence[int]) -> Names:
    return tuple(take.channel(track) for track in tracks)


def _found_by(first: TakeRead, last: TakeRead) -> tuple[Matched, ...]:
    """What each track is taken for, and how that was found at first where it still is."""
    both = zip(first.matched, last.matched, strict=True)
    return tuple(a if a.channel == b.channel else replace(b, by="heard") for a, b in both)


def _rings(first: TakeRead, last: TakeRead) -> list[Names]:
    """What changed places between two readings of the same tracks."""
    was, now = ([m.channel for m in take.matched if m.channel] for take in (first, last))
    order = np.arange(len(was))
    order[[was.index(name) for name in now]] = np.arange(len(was))
    return [tuple(was[n] for n in ring) for ring in rings(order)]


def _causes(take: TakeRead, rows: Rows) -> list[Cause]:
    return causes(rows, len(take.mics), kelvin_of(take))


def _heard(rows: Rows, two: tuple[int, int]) -> int:
    """Arrivals there are of two tracks."""
    return int(np.isin(rows.track, two).sum())


def _planned(take: TakeRead) -> Floats:
    return np.asarray(take.analysis.scene.capsule[list(take.mics)])


def _turned(take: TakeRead, said: Corrections, rings: Sequence[Names]) -> Corrections:
    other = {on: name for ring in rings for name, on in held_by(ring)}
    channels = {
        m.track: other.get(m.channel or "", m.channel) for m in take.matched if m.channel
    } | {t: c for t, c in said.channels.items() if c is None}
    return replace(said, channels=channels)
