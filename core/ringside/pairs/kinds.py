"""What two mics are to each other, and up to where a dip counts against them."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.hear.scene import Scene
from ringside.pairs.verdicts import Kind
from ringside.plan.layout import Layout

NEAR_COINCIDENT_M: Final = 0.35
"""Capsules of a pair nearer than this tell left from right by level and by a few tenths of a
millisecond at once (common practice: 17 to 30 cm); further apart the pair is kept equal."""


@dataclass(frozen=True, slots=True)
class Roles:
    """What the mics of each pair are to each other, wherever they stand; by pair (P,)."""

    first: Ints  # index of the first mic
    second: Ints
    kind: Ints  # values of `Kind`
    counts: Mask  # (P, S) the sources the two are put up for

    def at(self, rows: Ints) -> "Roles":
        """Of some pairs alone.

        Parameters
        ----------
        rows : ndarray of int
            The pairs by number.

        Returns
        -------
        Roles
        """
        return Roles(self.first[rows], self.second[rows], self.kind[rows], self.counts[rows])


def roles_of(layout: Layout, scene: Scene) -> Roles:
    """What the mics of every pair are to each other, in the order of `numpy.triu_indices`.

    Parameters
    ----------
    layout : Layout
    scene : Scene

    Returns
    -------
    Roles
        Kept, and not to be written to.
    """
    sources = tuple(scene.sources.reference.tolist())
    return _roles(tuple(scene.job.tolist()), tuple(_couples(layout)), sources)


@lru_cache(maxsize=64)
def _roles(
    jobs: tuple[int, ...], couples: tuple[tuple[int, int, str], ...], reference: tuple[bool, ...]
) -> Roles:
    job = np.array(jobs, dtype=np.int64)
    first, second = (at.astype(np.int64) for at in np.triu_indices(len(jobs), 1))
    whole = (job[first] < 0) & (job[second] < 0)
    counts = whole[:, None] & np.array(reference)
    for of in (job[first], job[second]):
        own = np.flatnonzero(of >= 0)
        counts[own, of[own]] = True
    roles = Roles(first, second, _kinds(job, couples, first, second), counts)
    for array in (first, second, roles.kind, counts):
        array.flags.writeable = False
    return roles


def _kinds(job: Ints, couples: tuple[tuple[int, int, str], ...], first: Ints, second: Ints) -> Ints:
    same = (job[first] == job[second]) & (job[first] >= 0)
    kind = np.where(same, int(Kind.SAME), int(Kind.APART))
    for side in _sides(couples):
        kind[(first == side) | (second == side)] = Kind.SIDE
    for a, b, coding in couples:
        couple = Kind.DECODED if coding == "mid-side" else Kind.PICTURE
        kind[(first == min(a, b)) & (second == max(a, b))] = couple
    return kind


def _couples(layout: Layout) -> list[tuple[int, int, str]]:
    """The stereo pairs by number, left and right or mid and side, with their coding."""
    ids = {m.id: k for k, m in enumerate(layout.mics)}
    return [(ids[p.left], ids[p.right], p.coding) for p in layout.stereo_pairs]


def side_mics(layout: Layout) -> list[int]:
    """The sides of mid-side pairs by number: with opposite signs in both speakers.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of int
    """
    return _sides(_couples(layout))


def _sides(couples: Iterable[tuple[int, int, str]]) -> list[int]:
    return [side for _, side, coding in couples if coding == "mid-side"]


def with_band(kind: Ints) -> Ints:
    """The pairs of which a dip counts up to some frequency, on some source.

    Parameters
    ----------
    kind : ndarray of int, shape (P,)
        Values of `Kind`.

    Returns
    -------
    ndarray of int
        Rows.
    """
    return np.flatnonzero(~Kind.APART.of(kind) & ~Kind.SIDE.of(kind))


def judged(scene: Scene, roles: Roles) -> Floats:
    """Up to where a dip counts against each pair on each source, hertz.

    Parameters
    ----------
    scene : Scene
    roles : Roles

    Returns
    -------
    ndarray, shape (P, S)
        Hertz; 0 where none does.
    """
    s = scene.sources
    top = np.zeros(roles.counts.shape)
    rows = with_band(roles.kind)
    first, second, kind = roles.first[rows], roles.second[rows], roles.kind[rows]
    gap = scene.capsule[second] - scene.capsule[first]
    spaced = np.einsum("pi,pi->p", gap, gap) > NEAR_COINCIDENT_M**2
    same = Kind.SAME.of(kind)
    own = scene.job[first[same]]
    top[rows[same], own] = np.where(s.drum, s.punch_high, 0.0)[own]
    kept = rows[Kind.PICTURE.of(kind) & spaced]
    top[kept] = np.where(s.reference, s.attack_high, 0.0)
    top[rows[Kind.DECODED.of(kind)]] = s.attack_high
    return top
