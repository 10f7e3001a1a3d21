"""A take to listen to: where each channel's sound lies, how loud it is in the mix, what to loop.

The faders of a balance count from the gain that brings a mic's own drum to a common peak. So what
was recorded is first brought there, by the peaks of the hits that count; a mic whose own drum was
not hit is brought to what the plan has of the drums that were.
"""

import io
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, BinaryIO, Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.hear.mix import ups
from ringside.pairs.pans import pan_rows
from ringside.plan.layout import Layout
from ringside.takes.matching import channels_of
from ringside.takes.reading import Hit, TakeRead

COMMON_DB: Final = -15.0
"""Full scale is 0: where a mic's own drum peaks with its fader highest. Several that add up in
phase stay under full scale."""

MOST_UP_DB: Final = 60.0
"""A track is brought up by no more: there is nothing on it but noise."""

RINGS_S: Final = 0.08
"""A hit's peak is looked for so long after it begins."""

LEAD_S: Final = 0.06
"""A loop begins so long before the stroke,"""
TAIL_S: Final = 1.4
"""and ends so long after, or before the next stroke."""

BEFORE_NEXT_S: Final = 0.03
MOST_LOOPED: Final = 8
SHORTEST_S: Final = 0.15

GROUP: Final = 8
"""Channels a piece of sound holds: as many as FLAC takes."""

LONGEST_S: Final = 6.0
"""Of one piece of sound."""


@dataclass(frozen=True, slots=True)
class Source:
    """Where a channel's sound lies."""

    file: int
    """The file's number among those of the take."""
    channel: int
    begins: int
    """Samples on the take's own time."""
    frames: int


@dataclass(frozen=True, slots=True)
class HeardTrack:
    """A channel, as it is heard in the current balance."""

    channel: str
    gain_db: float
    """To what was recorded: to the common peak, and its fader."""
    pan: float
    """-100 left to 100 right; where nobody chose, where the main pair hears it."""
    side: bool
    """Of a mid-side pair the side: it is added on the left and taken away on the right."""
    heard: bool
    why: str
    """Why it is not heard; empty where it is."""
    flip: bool
    """On the track, as planned."""
    later: int
    """Samples, on the track, as planned."""
    source: Source


@dataclass(frozen=True, slots=True)
class Loop:
    """The hits of one drum, to be heard over and over."""

    source: str
    name: str
    spans: list[tuple[int, int]]
    """Where each begins, and how long it is, samples on the take's time."""
    level_db: list[float] = field(default_factory=list)
    """How loud each is on the drum's own track, under full scale; none of takes of before."""


@dataclass(frozen=True, slots=True)
class Listening:
    """What is needed to listen to a take."""

    rate_hz: int
    samples: int
    group: int
    """Channels a piece of sound holds, in their order."""
    tracks: list[HeardTrack]
    loops: list[Loop]
    first: int | None = None
    """The sample the first stroke begins at; None of takes of before."""


def listening(take: TakeRead) -> Listening:
    """What is needed to listen to a take.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    Listening
        Its tracks are those that were matched to channels, in the order of the files.
    """
    gains = _gains(take)
    by_id = {c.id: c for c in channels_of(take.analysis.layout)}
    files = list(dict.fromkeys(t.path for t in take.tracks))
    layout = take.analysis.layout
    every = {u.id: u for u in ups(layout)}
    pans = {r.channel or r.mic: r.usual for r in pan_rows(take.analysis)}
    sides = _sides(layout)
    per_sample = take.rate_hz / layout.sample_rate_hz
    tracks = []
    for row, n in enumerate(take.rows):
        t, name = take.tracks[n], str(take.matched[n].channel)
        own, up = by_id[name], every.get(name)
        tracks.append(HeardTrack(
            channel=name, gain_db=round(float(gains[row]), 2),
            pan=round(pans.get(name, 0.0) if own.pan is None else own.pan, 1),
            side=name in sides,
            heard=up.heard if up else True, why=up.why if up and not up.heard else "",
            flip=own.track_flip, later=round(own.track_delay_samples * per_sample),
            source=Source(files.index(t.path), t.channel, t.begins, t.frames),
        ))  # fmt: skip
    end = max((t.ends for t in take.tracks), default=0)
    first = min((round(h.at_s * take.rate_hz) for h in take.hits), default=None)
    return Listening(take.rate_hz, end, GROUP, tracks, _loops(take, end), first)


def _sides(layout: Layout) -> set[str]:
    """Channels that are a mid-side pair's side; one that is decoded on two tracks is panned."""
    mics = {p.right for p in layout.stereo_pairs if p.coding == "mid-side"}
    every = [c for c in channels_of(layout) if c.mic in mics]
    return {c.id for c in every if sum(o.mic == c.mic for o in every) == 1}


def _gains(take: TakeRead) -> Floats:
    """Decibels each track is brought up by, (C,)."""
    an = take.analysis
    peaks = _peaks(take)
    every = {u.id: u for u in ups(an.layout)}
    top = max((u.db for u in every.values() if u.heard), default=0.0)
    drums = [d.source for d in take.drums]
    made = np.zeros(len(take.rows))
    for row, n in enumerate(take.rows):
        mic, channel = take.mics[row], str(take.matched[n].channel)
        fader = every[channel].db - top if channel in every else float(an.scene.fader_db[mic])
        job = int(an.scene.job[mic])
        if not drums:
            made[row] = fader
        elif job < 0 or job in drums:
            own = float(peaks[row].max()) if job < 0 else float(peaks[row, drums.index(job)])
            made[row] = COMMON_DB + fader - own
        else:
            planned = an.arrivals.after_gain_db[mic, drums] - an.scene.fader_db[mic]
            made[row] = COMMON_DB + fader + float(np.median(planned - peaks[row]))
    return np.minimum(made, MOST_UP_DB)


def _peaks(take: TakeRead) -> Floats:
    """Decibels under full scale each drum that was hit peaks at in each track, (C, D)."""
    seen = take.seen
    long = round(RINGS_S * take.rate_hz / seen.hop)
    made = np.full((len(take.rows), len(take.drums)), -120.0)
    for n, d in enumerate(take.drums):
        name = take.analysis.scene.sources.ids[d.source]
        begins = [h.ms for h in take.hits if h.source == name and not h.out]
        if begins:
            each = [seen.peak[:, b : b + long].max(axis=1) for b in begins]
            made[:, n] = 20 * np.log10(np.maximum(np.median(each, axis=0), 1e-6))
    return made


def _loops(take: TakeRead, end: int) -> list[Loop]:
    s = take.analysis.scene.sources
    made = []
    for d in take.drums:
        own = [h for h in take.hits if h.source == s.ids[d.source] and not h.out]
        spans = [(h, _span(take, h, end)) for h in own[:MOST_LOOPED]]
        kept = [(h, span) for h, span in spans if span[1] > 0]
        levels = [round(h.level_db, 2) for h, _ in kept]
        made.append(Loop(s.ids[d.source], s.names[d.source], [x for _, x in kept], levels))
    return [loop for loop in made if loop.spans]


def _span(take: TakeRead, hit: Hit, end: int) -> tuple[int, int]:
    """Where a hit's part of a loop begins, and how long it is."""
    rate = take.rate_hz
    after = min((h.at_s for h in take.hits if h.at_s > hit.at_s), default=np.inf)
    begin = max(round((hit.at_s - LEAD_S) * rate), 0)
    until = min(hit.at_s + TAIL_S, max(after - BEFORE_NEXT_S, hit.at_s + SHORTEST_S))
    return begin, max(min(round(until * rate), end) - begin, 0)


def sound_of(
    files: Sequence[BinaryIO], sources: Sequence[Source], begin: int, count: int, rate_hz: int
) -> bytes:
    """A stretch of up to `GROUP` channels as FLAC of 16 bits, to be heard in a browser.

    Parameters
    ----------
    files : sequence of binary files
        One of each source, open; the same one where several lie in it.
    sources : sequence of Source
    begin : int
        Sample on the take's own time; what lies before or after a file is silence.
    count : int
    rate_hz : int

    Returns
    -------
    bytes

    Raises
    ------
    RingsideError
        When the stretch is too long or too many channels are asked for, or a file is damaged.
    """
    import soundfile

    if not 1 <= len(sources) <= GROUP:
        raise RingsideError(f"expected 1 to {GROUP} channels at once, got {len(sources)}")
    if not 0 < count <= LONGEST_S * rate_hz:
        raise RingsideError(f"expected a stretch of up to {LONGEST_S:g} s")
    out = np.zeros((count, len(sources)), dtype=np.float32)
    for file in dict.fromkeys(files):
        rows = [n for n, f in enumerate(files) if f is file]
        try:
            with soundfile.SoundFile(file) as sound:
                _laid(out, sound, rows, sources, begin)
        except (soundfile.LibsndfileError, RuntimeError) as fault:
            raise RingsideError("a file of the take is damaged; take it in again") from fault
    clean = np.clip(np.nan_to_num(out, nan=0.0, posinf=1.0, neginf=-1.0), -1.0, 1.0)
    made = io.BytesIO()
    soundfile.write(made, clean, rate_hz, format="FLAC", subtype="PCM_16")
    return made.getvalue()


def _laid(out: Any, sound: Any, rows: Sequence[int], sources: Sequence[Source], begin: int) -> None:
    """Put what a file holds of a stretch where it belongs; its channels begin at one time."""
    start = sources[rows[0]].begins
    low, high = max(begin, start), min(begin + len(out), start + sound.frames)
    if low >= high:
        return
    sound.seek(low - start)
    read = sound.read(high - low, dtype="float32", always_2d=True)
    at = slice(low - begin, low - begin + len(read))
    out[at, rows] = read[:, [sources[r].channel for r in rows]]
