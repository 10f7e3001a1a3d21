"""All hits of a drum together: what they agree on, how far they differ, and what is refused.

A figure is given where most hits agree on it, with an interval of two standard deviations; else it
is refused with the reason. Nothing is averaged over hits that contradict each other.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.takes.hit import AGREE_S, OVER_DB, OVER_NOISE, HitRead

MOST: Final = 0.6
"""The share of the hits that must agree."""

FLOOR_S: Final = 0.00002
"""One standard deviation of an arrival that hits alike do not show: two mics hear the beginning of
a stroke in two shapes (7 mm; from trial on takes whose truth is known)."""

CLEAR: Final = 0.8
"""Of the signs that were read, so many must be the same."""


@dataclass(frozen=True)
class DrumRead:
    """What the hits of one drum say together; H hits, C tracks, (C,) unless said."""

    source: int
    own: int
    """The track arrivals are told against."""
    hits: int
    lag_s: Floats  # behind the own track; no number where refused
    deviation_s: Floats  # one standard deviation of it
    sign: Ints  # against the own track: +1 alike, -1 turned over, 0 refused
    way: Ints  # of the first half-wave: +1 pushed, -1 pulled, 0 unsure
    late_why: tuple[str, ...]  # why an arrival is refused; empty where it is given
    sign_why: tuple[str, ...]
    products: Floats  # (H, 3, C, C) over the energy of the own track's body
    energy_db: Floats  # (3, C) of every band, decibels, as the hits were played
    heard: Mask  # (3, C) the band stands over what is there before
    fundamental_hz: float | None
    fundamental_spread_hz: float


def pooled(source: int, reads: Sequence[HitRead], fundamentals: Sequence[float | None]) -> DrumRead:
    """The hits of one drum together.

    Parameters
    ----------
    source : int
    reads : sequence of HitRead
        At least one; all against one track.
    fundamentals : sequence of float or None
        Hertz, of every hit.

    Returns
    -------
    DrumRead
    """
    own, count = reads[0].own, len(reads)
    lag, deviation, late = _arrivals(reads)
    sign, why = _signs(reads)
    way, _ = _voted(np.array([r.way for r in reads]))
    body = np.array([max(float(r.products[0, own, own]), 1e-30) for r in reads])
    products = np.array([r.products for r in reads]) / body[:, None, None, None]
    energy = np.array([np.einsum("bcc->bc", r.products) for r in reads])
    over = energy > 10 ** (OVER_DB / 10) * np.array([r.noise for r in reads])
    known = [f for f in fundamentals if f is not None]
    return DrumRead(
        source=source,
        own=own,
        hits=count,
        lag_s=lag,
        deviation_s=deviation,
        sign=sign,
        way=way,
        late_why=late,
        sign_why=why,
        products=products,
        energy_db=10 * np.log10(np.maximum(np.median(energy, axis=0), 1e-30)),
        heard=over.mean(axis=0) >= MOST,
        fundamental_hz=float(np.median(known)) if 2 * len(known) > count else None,
        fundamental_spread_hz=float(np.std(known)) if known else 0.0,
    )


def _arrivals(reads: Sequence[HitRead]) -> tuple[Floats, Floats, tuple[str, ...]]:
    lags = np.array([r.lag_s for r in reads])
    agreed = np.array([r.agreed for r in reads])
    soft = np.array([r.over_noise for r in reads]) < OVER_NOISE
    hits, tracks = lags.shape
    lag, deviation = np.full(tracks, np.nan), np.full(tracks, np.nan)
    why = []
    for n in range(tracks):
        good = lags[agreed[:, n], n]
        middle = float(np.median(good)) if len(good) else np.nan
        near = good[np.abs(good - middle) <= AGREE_S] if len(good) else good
        if len(near) >= max(MOST * hits, min(2, hits)):
            lag[n] = float(np.mean(near))
            spread = float(np.std(near, ddof=1)) if len(near) > 1 else AGREE_S / 2
            deviation[n] = float(np.hypot(spread / np.sqrt(len(near)), FLOOR_S))
            why.append("")
        elif soft[:, n].sum() > hits / 2:
            why.append("too soft over what is there before")
        elif len(good) >= MOST * hits:
            why.append("the hits do not agree with each other")
        else:
            why.append("its first half-wave and its stick do not come at one time")
    return lag, deviation, tuple(why)


def _signs(reads: Sequence[HitRead]) -> tuple[Ints, tuple[str, ...]]:
    """Signs against the own track that both ways agree on, and why the others are refused."""
    own = reads[0].own
    way = np.array([r.way * r.way[own] for r in reads])
    turned = np.array([r.turned for r in reads])
    both = np.where(way == turned, turned, 0)
    sign, votes = _voted(both)
    why = []
    for n in range(len(sign)):
        if sign[n]:
            why.append("")
        elif (votes[n] == 0) and (np.abs(turned[:, n]).sum() == 0):
            why.append("its low end is not like that of the drum's own mic")
        else:
            why.append("its first half-wave goes one way, the rest of its low end the other")
    return sign, tuple(why)


def _voted(signs: Ints) -> tuple[Ints, Ints]:
    """The sign most hits have, or 0; and how many said one at all."""
    said = (signs != 0).sum(axis=0)
    total = signs.sum(axis=0)
    enough = (said >= MOST * len(signs)) & (np.abs(total) >= (2 * CLEAR - 1) * said)
    return np.where(enough, np.sign(total), 0).astype(np.int64), said


def shifted(drum: DrumRead, late_s: Floats) -> DrumRead:
    """The same with arrivals as the files have them, where tracks were laid earlier to be read.

    Parameters
    ----------
    drum : DrumRead
    late_s : ndarray, shape (C,)
        Seconds each track was laid earlier by.

    Returns
    -------
    DrumRead
    """
    return replace(drum, lag_s=drum.lag_s + late_s - late_s[drum.own])
