"""The first pass over a take: what each track holds in every millisecond, and what is wrong with
it as a file: nothing on it, clipped, not numbers, hum.

A stroke shows first in the change from sample to sample, which leaves out what rings and hums on;
so onsets are looked for in the energy of the first difference, levels are told of the sound
itself.
"""

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path
from threading import Lock
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats, Ints
from ringside.takes.files import LOUDEST, Track, blocks

HOP_S: Final = 0.001
FULL_SCALE: Final = 0.999
"""At or over it a sample is taken for clipped where the next one is, too."""

AT_ONCE: Final = 2
PARTS: Final = 8
"""What is read at once are so many stretches at least, so that no processor waits for the last."""

SHORTEST: Final = 2000
"""Hops of a stretch that is worth reading by itself."""

BLOCK: Final = 4096
"""Hops of all channels of a file together that are read at once."""

Small = NDArray[np.float32]


@dataclass(frozen=True)
class Overview:
    """C tracks in H hops of a millisecond."""

    rate_hz: int
    hop: int
    """Samples a hop."""
    peak: Small  # (C, H) the largest sample
    edge: Small  # (C, H) mean square of the difference from sample to sample
    clipped: Ints  # (C,) samples at full scale with another one behind
    broken: Ints  # (C,) samples that are no numbers

    @property
    def hops(self) -> int:
        """How many."""
        return int(self.peak.shape[1])


def overview(tracks: Sequence[Track], told: Callable[[float], None] = lambda _: None) -> Overview:
    """One pass over all tracks, on two processors.

    Parameters
    ----------
    tracks : sequence of Track
    told : callable
        Called with a share from 0 to 1.

    Returns
    -------
    Overview
    """
    rate = tracks[0].rate_hz
    hop = round(HOP_S * rate)
    hops = -(-max(t.ends for t in tracks) // hop)
    made = _Made.empty(rate, hop, len(tracks), hops)
    stretches = _stretches(tracks, hops)
    pool = ThreadPoolExecutor(AT_ONCE)
    try:
        waiting = [pool.submit(made.read, tracks, *s) for s in stretches]
        for n, one in enumerate(waiting):
            one.result()
            told((n + 1) / len(waiting))
    finally:
        pool.shutdown(cancel_futures=True)
    return Overview(rate, hop, made.peak, made.edge, made.clipped, made.broken)


def _stretches(tracks: Sequence[Track], hops: int) -> list[tuple[list[int], int, int]]:
    """What is read at once: the tracks of a file by number, from hop to hop."""
    by_file: dict[Path, list[int]] = {}
    for n, t in enumerate(tracks):
        by_file.setdefault(t.path, []).append(n)
    parts = max(min(-(-PARTS // len(by_file)), hops // SHORTEST), 1)
    edges = [hops * k // parts for k in range(parts + 1)]
    return [(rows, a, b) for rows in by_file.values() for a, b in pairwise(edges) if b > a]


@dataclass(frozen=True)
class _Made:
    """The overview while it is made."""

    rate: int
    hop: int
    peak: Small
    edge: Small
    clipped: Ints
    broken: Ints
    lock: Lock

    @classmethod
    def empty(cls, rate: int, hop: int, tracks: int, hops: int) -> "_Made":
        def counts() -> Ints:
            return np.zeros(tracks, dtype=np.int64)

        def levels() -> Small:
            return np.zeros((tracks, hops), dtype=np.float32)

        return cls(rate, hop, levels(), levels(), counts(), counts(), Lock())

    def read(self, tracks: Sequence[Track], rows: list[int], first: int, end: int) -> None:
        """Fill in a stretch of the tracks of one file."""
        own = [tracks[n] for n in rows]
        last = np.zeros(len(rows), dtype=np.float32)
        if first:  # the sample before, so that a stretch does not begin with a step
            for _, before in blocks(own, first * self.hop - 1, first * self.hop, 1):
                last = _numbers(before[0])
        step = max(BLOCK // len(rows), 128) * self.hop
        for begin, block in blocks(own, first * self.hop, end * self.hop, step):
            sound = self._cleaned(block, rows)
            at = slice(begin // self.hop, begin // self.hop + len(sound) // self.hop)
            for c, n in enumerate(rows):
                one = np.ascontiguousarray(sound[:, c])
                self.peak[n, at], self.edge[n, at] = _in_hops(one, float(last[c]), self.hop)
                if self.peak[n, at].max(initial=0.0) >= FULL_SCALE:
                    over = np.abs(one) >= FULL_SCALE
                    with self.lock:
                        self.clipped[n] += int((over[1:] & over[:-1]).sum())
            last = sound[-1]

    def _cleaned(self, block: Any, rows: list[int]) -> Small:
        """The block with noughts for what is no number, which is counted."""
        if block.max(initial=0.0) <= LOUDEST and block.min(initial=0.0) >= -LOUDEST:
            return np.asarray(block, dtype=np.float32)  # what is no number is neither
        bad = ~np.isfinite(block)
        with self.lock:
            self.broken[rows] += bad.sum(axis=0)
        return _numbers(block)


def _numbers(sound: Any) -> Small:
    """The same with noughts for what is no number, and nothing louder than a file can mean."""
    clean = np.nan_to_num(sound, nan=0.0, posinf=0.0, neginf=0.0)
    return np.asarray(np.clip(clean, -LOUDEST, LOUDEST), dtype=np.float32)


def _in_hops(sound: Small, last: float, hop: int) -> tuple[Small, Small]:
    """Peak and energy of change in every hop of one track, (H,) each."""
    step = np.empty_like(sound)
    step[0] = sound[0] - np.float32(last)
    np.subtract(sound[1:], sound[:-1], out=step[1:])
    step = step.reshape(-1, hop)
    energy = np.einsum("hk,hk->h", step, step) / np.float32(hop)
    # The longer axis last: a fourth of the time.
    cut = np.ascontiguousarray(sound.reshape(-1, hop).T)
    return np.maximum(cut.max(axis=0), -cut.min(axis=0)), energy


def loudest_db(seen: Overview) -> Floats:
    """The largest sample of every track, decibels under full scale, (C,).

    Parameters
    ----------
    seen : Overview

    Returns
    -------
    ndarray, shape (C,)
    """
    return np.asarray(20 * np.log10(np.maximum(seen.peak.max(axis=1), 1e-9)), dtype=np.float64)


def moved(seen: Overview, late: Ints) -> Overview:
    """The same with tracks laid earlier, to the hop.

    Parameters
    ----------
    seen : Overview
    late : ndarray of int, shape (C,)
        Samples.

    Returns
    -------
    Overview
    """
    if not late.any():
        return seen
    hops = np.round(late / seen.hop).astype(int)
    peak, edge = seen.peak.copy(), seen.edge.copy()
    for n, by in enumerate(hops):
        peak[n], edge[n] = np.roll(peak[n], -by), np.roll(edge[n], -by)
    return replace(seen, peak=peak, edge=edge)
