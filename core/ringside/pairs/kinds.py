"""What two mics are to each other, and up to where a dip counts against them."""

from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.hear.scene import Scene
from ringside.pairs.verdicts import Kind
from ringside.plan.layout import Layout

NEAR_COINCIDENT_M: Final = 0.35
"""Capsules of a pair nearer than this tell left from right by level and by a few tenths of a
millisecond at once (common practice: 17 to 30 cm); further apart the pair is kept equal."""


def kinds(layout: Layout, scene: Scene, first: Ints, second: Ints) -> Ints:
    """What the mics of each pair are to each other.

    Parameters
    ----------
    layout : Layout
    scene : Scene
    first, second : ndarray of int, shape (P,)
        The mics of each pair by number.

    Returns
    -------
    ndarray of int, shape (P,)
        Values of `Kind`.
    """
    job = scene.job
    same = (job[first] == job[second]) & (job[first] >= 0)
    kind = np.where(same, Kind.SAME, Kind.APART)
    for side in side_mics(layout):
        kind[(first == side) | (second == side)] = Kind.SIDE
    for a, b, coding in _couples(layout):
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
    return [side for _, side, coding in _couples(layout) if coding == "mid-side"]


def judged(scene: Scene, kind: Ints, first: Ints, second: Ints) -> Floats:
    """Up to where a dip counts against each pair on each source, hertz.

    Parameters
    ----------
    scene : Scene
    kind : ndarray of int, shape (P,)
    first, second : ndarray of int, shape (P,)
        The mics of each pair by number.

    Returns
    -------
    ndarray, shape (P, S)
        Hertz; 0 where none does.
    """
    s = scene.sources
    gap = scene.capsule[second] - scene.capsule[first]
    spaced = np.einsum("pi,pi->p", gap, gap) > NEAR_COINCIDENT_M**2
    own = (kind == Kind.SAME)[:, None] & (scene.job[first][:, None] == np.arange(len(s.ids)))
    kept = ((kind == Kind.PICTURE) & spaced)[:, None] & s.reference
    decoded = (kind == Kind.DECODED)[:, None]
    top = np.where(own & s.drum, s.punch_high, 0.0)
    return np.asarray(np.where(kept | decoded, s.attack_high, top))
