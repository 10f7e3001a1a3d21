"""A take read from its files: tracks matched, strokes found and named, drums measured.

What somebody corrected is taken as said: the channel of a track, the drum of a stroke, a stroke
that is left out.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.errors import RingsideError
from ringside.hear.bands import OCTAVE_EDGE, PUNCH_OCTAVES
from ringside.hear.scene import Sources
from ringside.pairs.analysis import Analysis
from ringside.takes.events import Event, events
from ringside.takes.files import Reader, Track, tracks_of
from ringside.takes.halfwave import HalfWave
from ringside.takes.hit import AFTER_S, BEFORE_S, Cut, HitRead, Ranges, read_halfwaves, read_hit
from ringside.takes.matching import Matched, channels_of, matched
from ringside.takes.misfit import Strokes
from ringside.takes.naming import Expected, Named, expected, named
from ringside.takes.overview import AT_ONCE, HOP_S, Overview, loudest_db, moved, overview
from ringside.takes.pitch import fundamental
from ringside.takes.pooled import DrumRead, pooled, shifted

SLACK_S: Final = 0.016
"""A track may be so late on top of the way through the air."""

SOFT_DB: Final = 14.0
"""A stroke so much under the loudest of its drum is a ghost note (from memory)."""

FLAM_S: Final = 0.06
"""Two strokes of a drum nearer than this are a flam (common practice: 20 to 40 ms)."""

NEAR_S: Final = 0.12
"""Another stroke within this, before or after, is in the way."""

MISFIT: Final = 1.6
"""Squared standard deviations a mic on average: above, more than one drum was struck at once."""

LATE_S: Final = 0.002
"""A track later than the plan by more than this on all drums is laid right before it is read."""

SAME_MS: Final = 12
"""What is said of a stroke is said of the one that begins within so many milliseconds."""

HIGHEST_HZ: Final = 18_000.0
MOST_HITS: Final = 8
"""Of one drum, the first: more tell nothing new."""


@dataclass(frozen=True)
class Corrections:
    """What somebody says about a take."""

    channels: Mapping[str, str | None] = field(default_factory=dict)
    """By the name of a track; None leaves it out."""
    drums: Mapping[int, str | None] = field(default_factory=dict)
    """By the millisecond a stroke begins at; None leaves it out. Not by its number: where a track
    is given to another channel, strokes may be found that were not before."""


@dataclass(frozen=True, slots=True)
class Hit:
    """A stroke of the take: when, on what, whether it counts, and why not."""

    number: int
    ms: int
    """When it begins, to the millisecond: what it is corrected by."""
    at_s: float
    source: str | None
    sure: bool
    rival: str | None
    said: bool
    """Somebody named it."""
    out: str
    """Why it is left out; empty where it counts."""
    level_db: float
    """Of its drum's own track, decibels under full scale."""


@dataclass(frozen=True)
class TakeRead:
    """A take, measured. C tracks that are matched."""

    analysis: Analysis
    """Of the layout it is held against."""
    tracks: tuple[Track, ...]
    matched: tuple[Matched, ...]
    """Of every track that was given, in their order."""
    rows: tuple[int, ...]
    """Of each measured track: its number among those given."""
    mics: tuple[int, ...]
    """Of each measured track: its mic by number."""
    seen: Overview
    hits: tuple[Hit, ...]
    drums: tuple[DrumRead, ...]
    each: Mapping[int, tuple[HitRead, ...]]
    """Hits that count, by the number of their drum."""
    strokes: Strokes
    """All of them, as each track has them."""
    late: tuple[int, ...] = ()
    """Samples each measured track was laid earlier by to be read; arrivals are told with them."""

    @property
    def rate_hz(self) -> int:
        """Samples a second."""
        return self.seen.rate_hz

    def channel(self, track: int) -> str:
        """The name of the channel a measured track is of.

        Parameters
        ----------
        track : int

        Returns
        -------
        str
        """
        return str(self.matched[self.rows[track]].channel)

    def drum(self, source: str) -> DrumRead | None:
        """What the hits of a drum say, or None where none count.

        Parameters
        ----------
        source : str

        Returns
        -------
        DrumRead or None
        """
        ids = self.analysis.scene.sources.ids
        return next((d for d in self.drums if ids[d.source] == source), None)


def ranges_of(sources: Sources, k: int, fundamental_hz: float | None, rate_hz: int) -> Ranges:
    """The three bands a drum is asked about, at its own fundamental.

    Parameters
    ----------
    sources : Sources
    k : int
    fundamental_hz : float or None
        As measured; None takes the planned one.
    rate_hz : int

    Returns
    -------
    Ranges
    """
    f = fundamental_hz or sources.fundamentals[k]
    top = min(HIGHEST_HZ, 0.45 * rate_hz)
    attack = min(float(sources.attack_high[k]), top - 1000)
    low = min(f * 2**PUNCH_OCTAVES, attack / 2)
    return Ranges(f, (f / OCTAVE_EDGE, f * OCTAVE_EDGE), (low, attack), (attack, top))


def read_take(
    paths: Sequence[Path], analysis: Analysis, said: Corrections | None = None,
    told: Callable[[float, str], None] = lambda _, __: None,
) -> TakeRead:  # fmt: skip
    """Measure a take.

    Parameters
    ----------
    paths : sequence of Path
        One file of many channels, or one of each channel.
    analysis : Analysis
        Of the layout it was recorded with.
    said : Corrections, optional
    told : callable
        Called with a share from 0 to 1 and what is done.

    Returns
    -------
    TakeRead

    Raises
    ------
    RingsideError
        When a file cannot be used, no track is a channel, or what is said names what is not there.
    """
    said = said or Corrections()
    tracks = tracks_of(paths)
    found = matched(tracks, analysis.layout, said.channels)
    rows = [n for n, m in enumerate(found) if m.channel is not None]
    if not rows:
        raise RingsideError("no file could be matched to a channel of this layout")
    if not analysis.layout.kit.parts:
        raise RingsideError("expected a kit with drums, got one without")
    mic_of = {c.id: c.mic for c in channels_of(analysis.layout)}
    ids = [m.id for m in analysis.layout.mics]
    mics = [ids.index(mic_of[str(found[n].channel)]) for n in rows]
    used = [tracks[n] for n in rows]
    seen = overview(used, lambda share: told(0.6 * share, "looking through the files"))
    shift = np.zeros(len(rows), dtype=np.int64)
    while True:
        read = _measured(used, shift, analysis, mics, seen, said, told)
        more = late_tracks(analysis, mics, read[1], seen.rate_hz)
        if shift.any() or not more.any():
            break
        shift = more  # laid right first, so that no stroke is cut before it begins
    hits, drums, each, strokes = read
    told_again = tuple(shifted(d, shift / seen.rate_hz) for d in drums)
    return TakeRead(
        analysis, tuple(tracks), tuple(found), tuple(rows), tuple(mics), seen, tuple(hits),
        told_again, each, strokes, tuple(int(s) for s in shift),
    )  # fmt: skip


def _measured(
    used: Sequence[Track], shift: Ints, analysis: Analysis, mics: list[int], seen: Overview,
    said: Corrections, told: Callable[[float, str], None],
) -> tuple[list[Hit], list[DrumRead], dict[int, tuple[HitRead, ...]], Strokes]:  # fmt: skip
    laid = [replace(t, begins=t.begins - int(s)) for t, s in zip(used, shift, strict=True)]
    with Reader(laid) as reader, ThreadPoolExecutor(AT_ONCE) as pool:
        # Mixed as the files have them, and by what the plan puts on the tracks.
        later_s = shift / seen.rate_hz + analysis.scene.track_delay[mics]
        work = _Work(reader, pool, analysis, mics, moved(seen, shift), said, later_s)
        hits = work.hits()
        told(0.7, "strokes found")
        drums = work.drums(hits, lambda share: told(0.7 + 0.3 * share, "measuring"))
        return hits, *drums, work.strokes(loudest_db(seen), shift / seen.rate_hz)


def late_tracks(
    analysis: Analysis, mics: Sequence[int], drums: Sequence[DrumRead], rate_hz: int
) -> Ints:
    """Samples that tracks are late by beyond any way through the air, 0 for most.

    Parameters
    ----------
    analysis : Analysis
    mics : sequence of int
        Of each track, by number.
    drums : sequence of DrumRead
    rate_hz : int

    Returns
    -------
    ndarray of int, shape (C,)
    """
    plan = analysis.arrivals.time_s - analysis.scene.track_delay[:, None]
    off = []
    for d in drums:
        want = plan[list(mics), d.source]
        row = d.lag_s - (want - want[d.own])
        row[d.own] = np.nan
        off.append(row - (np.nanmedian(row) if np.isfinite(row).any() else 0.0))
    made = np.zeros(len(mics), dtype=np.int64)
    for n, column in enumerate(np.array(off).T if off else ()):
        known = column[np.isfinite(column)]
        if len(known) >= 2:
            middle = float(np.median(known))
            if abs(middle) > LATE_S and float(np.median(np.abs(known - middle))) < LATE_S / 2:
                made[n] = round(middle * rate_hz)
    return made


class _Work:
    """The steps of measuring, with what they share."""

    def __init__(
        self, reader: Reader, pool: Executor, analysis: Analysis, mics: list[int], seen: Overview,
        said: Corrections, later_s: Floats,
    ) -> None:  # fmt: skip
        self.later_s = later_s
        self.reader, self.pool, self.analysis = reader, pool, analysis
        self.mics, self.seen, self.said = mics, seen, said
        self.rate = seen.rate_hz
        self.want: Expected = expected(analysis, mics)
        self.across_s = float(self.want.at_s.max() - self.want.at_s.min()) + SLACK_S
        roles = [analysis.layout.mics[m].role for m in mics]
        self.waves: dict[int, list[HalfWave]] = {}
        self.events: list[Event] = events(seen, self.across_s, [r == "close" for r in roles])

    def cut(self, event: Event, after_s: float) -> Cut:
        """A stretch round an event."""
        before = round(BEFORE_S * self.rate)
        begin = event.hop * self.seen.hop - before
        sound = self.reader.cut(begin, before + round(after_s * self.rate))
        return Cut(sound, self.rate, before, round(self.across_s * self.rate))

    def hits(self) -> list[Hit]:
        """Every stroke, named, with why it is left out."""
        ids = self.analysis.scene.sources.ids
        loudest = loudest_db(self.seen)
        made = []
        names = _plain(self.pool.map(lambda n: self._named(n, loudest), range(len(self.events))))
        for n, (event, name) in enumerate(zip(self.events, names, strict=True)):
            said = self._said(event.hop)
            told = said is not None
            source = self.said.drums[said] if said is not None else _id(ids, name.source)
            if source is not None and source not in ids:
                raise RingsideError(
                    f"the stroke at {event.hop} ms is said to be {source!r}, which is not in the"
                    " kit"
                )
            rival = _id(ids, name.rival)
            out = ("left out" if source is None else "") if told else _out(name, ids)
            level = self._level(event, source)
            made.append(Hit(n, event.hop, event.hop * HOP_S, source, told or name.sure, rival, told,
                            out, level))  # fmt: skip
        return _thinned(made)

    def strokes(self, loudest: Floats, late_s: Floats) -> Strokes:
        """Every stroke as each track has it, once they are named.

        Late tracks are told as late as they are: so would be an overhead that holds a room.
        """
        waves = [self.waves[n] for n in range(len(self.events))]
        shape = (len(waves), len(self.mics))
        return Strokes(
            np.reshape([[w.at for w in each] for each in waves], shape) / self.rate + late_s,
            np.reshape([[w.over_noise for w in each] for each in waves], shape),
            np.reshape([e.level_db for e in self.events], shape) - loudest,
        )

    def _said(self, ms: int) -> int | None:
        """The millisecond under which something is said of a stroke; None where nothing is."""
        near = min(self.said.drums, key=lambda said: abs(said - ms), default=None)
        return near if near is not None and abs(near - ms) <= SAME_MS else None

    def _named(self, n: int, loudest: Floats) -> Named:
        event = self.events[n]
        _, waves = read_halfwaves(self.cut(event, self.across_s + 0.02))
        self.waves[n] = waves
        at = np.array([w.at for w in waves]) / self.rate
        over = np.array([w.over_noise for w in waves])
        return named(self.want, at, over, np.array(event.level_db) - loudest)

    def _level(self, event: Event, source: str | None) -> float:
        if source is None:
            return max(event.level_db)
        k = self.analysis.source_index(source)
        return event.level_db[own_track(self.want, self.analysis, k, None)]

    def drums(
        self, hits: Sequence[Hit], told: Callable[[float], None]
    ) -> tuple[list[DrumRead], dict[int, tuple[HitRead, ...]]]:
        """Every drum and cymbal that was hit."""
        made, each = [], {}
        names = self.analysis.scene.sources.ids
        for k, name in enumerate(names):
            own = [h for h in hits if h.source == name and not h.out][:MOST_HITS]
            if own:
                read = self._drum(k, [h.number for h in own])
                made.append(read[0])
                each[k] = read[1]
            told((k + 1) / len(names))
        return made, each

    def _drum(self, k: int, found: Sequence[int]) -> tuple[DrumRead, tuple[HitRead, ...]]:
        cuts = list(self.pool.map(lambda n: self.cut(self.events[n], AFTER_S), found))
        loud = np.median([np.abs(c.sound).max(axis=1) for c in cuts], axis=0)
        own = own_track(self.want, self.analysis, k, loud)
        sources = self.analysis.scene.sources
        pitches = [None] * len(cuts) if not sources.drum[k] else [
            fundamental(c.sound[own], c.begins, sources.fundamentals[k], self.rate) for c in cuts
        ]  # fmt: skip
        known = [p for p in pitches if p is not None]
        pitch = float(np.median(known)) if 2 * len(known) > len(cuts) else None
        ranges = ranges_of(sources, k, pitch, self.rate)
        waves = [self.waves[n] for n in found]
        reads = tuple(self.pool.map(
            lambda c, w: read_hit(c, own, ranges, w, self.later_s), cuts, waves))  # fmt: skip
        return pooled(k, reads, pitches), reads


HOLDS: Final = 1e-4
HOLDS_OF_LOUDEST: Final = 0.01
"""A track that peaks lower than this, full scale being 1, or than this share of the loudest, has
nothing of a drum in front of its mic: it is noise (from memory: 40 dB)."""


def own_track(want: Expected, an: Analysis, k: int, loud: Floats | None) -> int:
    """The track arrivals of a drum are told against: of its own mics the first to have it.

    Parameters
    ----------
    want : Expected
    an : Analysis
    k : int
        The drum by number.
    loud : ndarray, shape (C,), optional
        Peaks, full scale being 1: a track that holds nothing is not taken.

    Returns
    -------
    int
        Without a mic of its own, the track that has it first of all.
    """
    own: Ints = np.flatnonzero(want.job == k)
    every = np.arange(len(want.job))
    holds = every >= 0 if loud is None else loud > max(HOLDS, HOLDS_OF_LOUDEST * float(loud.max()))
    own = own[holds[own]]
    if len(own) == 0:
        own = every[holds] if holds.any() else every
    return int(own[np.argmin(want.at_s[own, k])])


def _id(ids: Sequence[str], k: int | None) -> str | None:
    return ids[k] if k is not None else None


def _plain(found: Iterable[Named]) -> list[Named]:
    """Names without what most strokes have in common: that is of a channel, not of a stroke."""
    names = list(found)
    with_it = [n.with_it for n in names if n.source is not None]
    always = {k for k in set(with_it) if k is not None and with_it.count(k) > len(with_it) / 3}
    misfits = [n.misfit for n in names if n.source is not None]
    usual = max(float(np.median(misfits)) - MISFIT / 2, 0.0) if misfits else 0.0
    return [
        replace(n, with_it=None if n.with_it in always else n.with_it, misfit=n.misfit - usual)
        for n in names
    ]


def _out(name: Named, ids: Sequence[str]) -> str:
    """Why a stroke is left out for what it sounds like."""
    if name.source is None:
        return "it does not reach the mics as a drum of this kit would"
    if name.with_it is not None:
        return f"{ids[name.with_it]} sounds at the same time"
    if name.misfit > MISFIT:
        return "it does not reach all mics as one stroke: another may sound at the same time"
    if not name.sure:
        return "which drum it is, is not sure"
    return ""


def _thinned(hits: list[Hit]) -> list[Hit]:
    """Without ghost notes, flams, and strokes that others are in the way of."""
    top: dict[str, float] = {}
    for h in hits:
        if h.source and not h.out:
            top[h.source] = max(top.get(h.source, -200.0), h.level_db)
    made = []
    for n, h in enumerate(hits):
        if h.out or h.said or h.source is None:
            made.append(h)
            continue
        made.append(replace(h, out=_in_the_way(hits, n, top[h.source])))
    return made


def _in_the_way(hits: Sequence[Hit], n: int, top_db: float) -> str:
    h = hits[n]
    for other in (hits[n - 1] if n else None, hits[n + 1] if n + 1 < len(hits) else None):
        gap = abs(other.at_s - h.at_s) if other else 9.0
        if other and gap < FLAM_S and other.source in (h.source, None):
            return "a flam: two strokes in one"
        if gap < NEAR_S:
            return "another stroke comes too near it"
    return "a ghost note, far softer than the others" if h.level_db < top_db - SOFT_DB else ""
