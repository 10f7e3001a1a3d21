"""Channels on each other's tracks, found by how every stroke lies in all tracks.

With two plugs changed over, or a row of them one socket on, many a stroke no longer reaches all
mics as one: it is left out, and with it goes what would tell of them. So every stroke is asked,
whether it counts or not (:mod:`ringside.takes.misfit`): with tracks given to each other's mics the
strokes fit better, or they do not. What fits best is laid right, and all are asked again.

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
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.takes.hit import BANDS
from ringside.takes.misfit import CAP, Strokes, gains, middle
from ringside.takes.naming import Expected
from ringside.takes.pooled import DrumRead

CROSSED: Final = 20.0
"""Squared standard deviations the strokes must fit better by.
Of 1600 trials on simulated takes of 10 and 28 mics, each mic 4 cm off, each drum in each mic by
3 cm and 4.5 dB, and one silent, three elsewhere or two late in four of five, one has two crossed
that are not: two rooms, late by each other's way (from trial)."""

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

Ring = tuple[int, ...]

MOST_STROKES: Final = 160
MOST_CELLS: Final = 2_000_000
"""Evenly over the take: more tell nothing new. Of a great many tracks fewer, so that what is held
of them all at once stays small."""


def crossed(
    want: Expected, strokes: Strokes, mics: Sequence[int], drums: Sequence[DrumRead] = (),
    sockets: Sequence[int] | None = None,
) -> list[Ring]:  # fmt: skip
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
    sockets : sequence of int, optional
        The tracks as they are plugged, side by side; as they are numbered where it is left out.

    Returns
    -------
    list of tuple of int
        By number, the lowest first. What the mic of each should hold is on the track of the next,
        and the last one's on the first.
    """
    count = len(want.job)
    heard = strokes.some(min(MOST_STROKES, MOST_CELLS // (count**2 * want.at_s.shape[1]) + 1))
    places = np.arange(count) if sockets is None else np.array(sockets)
    want = Expected(want.at_s[places], want.under_db[places], want.job[places])
    free = ~np.equal.outer(*[np.array(mics)[places]] * 2)
    tracks = places.copy()  # those that are in each place
    been = []
    while len(heard.at_s):
        been.append(tracks.tolist())
        turn = _likeliest(want, heard.of(tracks), drums, tracks, free)
        # What is crossed makes others look so: asked again with these where they belong. Where it
        # comes round again, strokes and arrivals say opposite things.
        if turn is None or tracks[turn].tolist() in been:
            break
        tracks = tracks[turn]
    order = np.empty_like(tracks)
    order[places] = tracks
    return rings(order)


def rings(order: Ints) -> list[Ring]:
    """What has changed places, each time round until one is back where it began.

    Parameters
    ----------
    order : ndarray of int, shape (C,)
        Of each place: what is there.

    Returns
    -------
    list of tuple of int
        What should be in each place is in the next.
    """
    made: list[Ring] = []
    left = set(np.flatnonzero(order != np.arange(len(order))).tolist())
    while left:
        ring = [min(left)]
        while (then := int(order[ring[-1]])) != ring[0]:
            ring.append(then)
        left -= set(ring)
        made.append(tuple(ring))
    return made


def _likeliest(
    want: Expected, heard: Strokes, drums: Sequence[DrumRead], tracks: Ints, free: Mask
) -> Ints | None:
    """What to put in each place so that all fits better, surely; None where nothing does."""
    likely = gains(want, heard)
    fine, leaning = _fine(want, drums, tracks), _leaning(want, drums, tracks)
    surely = likely > CROSSED
    both = np.array([likely[0], fine])
    alike = (both > np.reshape(ALIKE_EACH, (2, 1, 1))).all(axis=0)
    surely[0] |= (alike & (both.sum(axis=0) > ALIKE)) | (leaning > CROSSED)
    surely[0] &= free
    likely[0] += fine + leaning
    likely[~surely] = -np.inf
    kind, a, b = (int(n) for n in np.unravel_index(likely.argmax(), likely.shape))
    if not surely[kind, a, b]:
        return None
    turn = np.arange(len(free))
    if kind:
        turn[a : b + 1] = np.roll(turn[a : b + 1], (-1, 1)[kind - 1])
    else:
        turn[[a, b]] = b, a
    return turn


def _fine(want: Expected, drums: Sequence[DrumRead], tracks: Ints) -> Floats:
    """By how much the order fits better in which two have each drum, (C, C)."""
    if not drums:
        return np.zeros((len(want.job), len(want.job)))
    planned = want.at_s[:, [d.source for d in drums]].T
    lag = np.array([d.lag_s[tracks] for d in drums])
    off, order = (v[:, :, None] - v[:, None, :] for v in (lag, planned))
    one = np.equal.outer(want.job, want.job)
    own = one & (np.array([d.source for d in drums])[:, None, None] == want.job)
    fits, turned = (off - way * order for way in (1, -1))
    enough = np.isfinite(off).sum(axis=0) >= FEWEST_DRUMS
    made = np.where(own, _squared(fits) - _squared(turned), 0.0).sum(axis=0)
    fits, turned = (_squared(v - middle(v)).sum(axis=0) for v in (fits, turned))
    return np.asarray(np.where(enough, made + fits - turned, made))


def _leaning(want: Expected, drums: Sequence[DrumRead], tracks: Ints) -> Floats:
    """By how much it fits better how drums lean to one or other of two at one point, (C, C)."""
    sources = [d.source for d in drums]
    if len(sources) < FEWEST_DRUMS:
        return np.zeros((len(want.job), len(want.job)))
    levels = [np.where(d.heard, d.energy_db, np.nan)[:AIR].mean(axis=0) for d in drums]
    heard = np.array(levels)[:, tracks]
    at, planned = (v[:, sources].T for v in (want.at_s, want.under_db))
    off, order, apart = (v[:, :, None] - v[:, None, :] for v in (heard, planned, at))
    off, order = off - middle(off), order - middle(order)
    near = (want.job < 0) & (at.max(axis=0) < NEAR_S)
    at_one = (np.abs(apart).max(axis=0) < FINE_S) & np.logical_and.outer(near, near)
    fits, turned = (_squared(off - way * order, LEAN_DB, LEAN_CAP) for way in (1, -1))
    made, count = fits - turned, np.isfinite(off).sum(axis=0)
    known = at_one & (count >= FEWEST_DRUMS) & (turned.sum(axis=0) < LEAN_LEFT * count)
    return np.asarray(np.where(known, made.sum(axis=0), 0.0))


def _squared(off: Floats, deviation: float = FINE_S, most: float = CAP) -> Floats:
    """Squared standard deviations of an order; of what was not heard none."""
    return np.asarray(np.nan_to_num(np.minimum((off / deviation) ** 2, most)))
