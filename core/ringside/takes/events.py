"""Strokes found in a take: onsets of every track, gathered into events over all tracks.

An onset is a hop in which the energy of change rises far over what was there just before, and over
what the track holds when nobody plays. An event is everything that begins within the time sound
takes across the layout; what begins later is the next one.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ringside.arrays import Mask
from ringside.takes.overview import HOP_S, Overview

RISE_DB: Final = 9.0
"""An onset rises so much over the loudest of the hops before it."""

OVER_QUIET_DB: Final = 15.0
"""And stands so much over what the track holds for most of the time."""

BEFORE: Final = 10
"""Hops that are looked at before one."""

QUIET_SHARE: Final = 0.2
DEAF_DB: Final = -90.0
"""Energy of change under which a track is taken for silent, decibels of full scale."""

REST_HOPS: Final = 12
"""Of two onsets of one track nearer than this the first counts."""


@dataclass(frozen=True, slots=True)
class Event:
    """Something was struck: when, hops from the beginning, and how loud."""

    hop: int
    """Of the first track that has it."""
    level_db: tuple[float, ...]
    """Peak of every track in the event, decibels under full scale."""


def onsets(seen: Overview) -> Mask:
    """Where every track begins to sound.

    Parameters
    ----------
    seen : Overview

    Returns
    -------
    ndarray of bool, shape (C, H)
    """
    return np.array([_onsets(track) for track in seen.edge])


def _onsets(edge: Any) -> Mask:
    """Where one track does, (H,)."""
    level = 10 * np.log10(np.maximum(edge, np.float32(1e-14)))
    floor = float(np.quantile(level, QUIET_SHARE))
    before = np.full_like(level, -140.0)
    for back in range(1, BEFORE + 1):
        np.maximum(before[back:], level[:-back], out=before[back:])
    rises = level - np.maximum(before, floor)
    found = (rises >= RISE_DB) & (level >= max(floor + OVER_QUIET_DB, DEAF_DB))
    last = -REST_HOPS
    for hop in np.flatnonzero(found):
        if hop - last < REST_HOPS:
            found[hop] = False
        else:
            last = int(hop)
    return np.asarray(found)


def events(seen: Overview, across_s: float, close: Sequence[bool]) -> list[Event]:
    """Everything that was struck, in order of time.

    Parameters
    ----------
    seen : Overview
    across_s : float
        The longest time from the first track to the last that hears one stroke.
    close : sequence of bool
        By track, whether it is of a mic close to a drum: where any is, a stroke begins at one.

    Returns
    -------
    list of Event
    """
    found = onsets(seen)
    near = np.array(close, dtype=bool)
    leads = found[near] if near.any() else found
    hops = np.flatnonzero(leads.any(axis=0))
    span, made = max(round(across_s / HOP_S), 2), []
    k = 0
    while k < len(hops):
        begin = int(hops[k])
        made.append(_event(seen, begin, span))
        k = int(np.searchsorted(hops, begin + span))
    return made


def _event(seen: Overview, begin: int, span: int) -> Event:
    peak = seen.peak[:, begin : begin + span + 20].max(axis=1)
    level = 20 * np.log10(np.maximum(peak, 1e-9))
    return Event(begin, tuple(round(float(v), 2) for v in level))
