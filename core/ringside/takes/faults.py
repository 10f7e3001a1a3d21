"""What is wrong with the files themselves: nothing on a track, clipped, the same as another, hum,
samples that are no numbers, a clock that jumped.

Each is told with how far it goes, so that nobody acts on a trifle. A split of one mic is meant to
be twice the same and is no fault.
"""

from dataclasses import dataclass
from typing import Any, Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.takes.overview import loudest_db
from ringside.takes.reading import TakeRead
from ringside.takes.reasons import REFLECTED_S

FileFault = Literal["dead", "clipped", "doubled", "hum", "broken", "jumped", "unmatched"]

DEAD_DB: Final = -70.0
"""A track whose loudest sample is under this holds no drum."""

STANDS_OUT_DB: Final = 14.0
"""Nor does one in which nothing stands so much over the rest: noise alone peaks 8 dB over its
usual millisecond in a minute, a hum nothing."""

SAME: Final = 0.99995
"""Correlation of two tracks over a hit, from where they are one: noise of two preamps alone makes
less of it (a signal 40 dB over its noise gives 0.9999)."""

ALIKE: Final = 0.97
"""The same of the body alone, in the usual hit, where each has noise of its own: a signal 15 dB
over it gives as much."""

ONE_PLACE_S: Final = 0.00005
TWO_PLACES_S: Final = 0.0003
"""Two tracks hear every drum so nearly at once, where the plan has them so far apart on one."""

OFF_PLAN: Final = 2.0
OFF_PLAN_S: Final = 0.0002
"""Of two tracks that hold one sound the one that is so many times, and so much, further off its own
arrivals has lost its own (from trial)."""

FEW_CLIPPED: Final = 3
JUMP_S: Final = 0.0005
HUM_HZ: Final = (50.0, 60.0)
HUM_OVER_DB: Final = 20.0
HUM_LEAST_DB: Final = -75.0
"""Of full scale: softer is never heard under drums."""


@dataclass(frozen=True, slots=True)
class FileNote:
    """One fault of a file: which kind, of which tracks, how far, in words."""

    kind: FileFault
    track: int
    """By number among the measured."""
    other: int | None
    figure: float
    words: str
    sure: bool = True
    """Of two tracks that hold one sound: that it is the other's, and this one's own is missing."""


def file_notes(take: TakeRead, quiet: Floats | None = None) -> list[FileNote]:
    """Everything wrong with the files of a take.

    Parameters
    ----------
    take : TakeRead
    quiet : ndarray, shape (C, N), optional
        A stretch in which nobody plays.

    Returns
    -------
    list of FileNote
    """
    made = [*_by_level(take), *_doubled(take), *_jumped(take)]
    if quiet is not None and quiet.shape[1] > 0:
        made += _hum(quiet, take.rate_hz)
    return made


def _by_level(take: TakeRead) -> list[FileNote]:
    seen, made = take.seen, []
    loudest = loudest_db(seen)
    for n in range(len(take.rows)):
        top = float(loudest[n])
        if seen.broken[n]:
            words = f"{seen.broken[n]} samples are no numbers; they are taken for silence"
            made.append(FileNote("broken", n, None, float(seen.broken[n]), words))
        if top < DEAD_DB or 20 * np.log10(_stands_out(seen.peak[n])) < STANDS_OUT_DB:
            words = "holds no drum: a cable, a mute, phantom, or the wrong input"
            made.append(FileNote("dead", n, None, top, words))
        elif seen.clipped[n] >= FEW_CLIPPED:
            words = f"clips, {seen.clipped[n]} samples; levels and sums of it are too small"
            made.append(FileNote("clipped", n, None, float(seen.clipped[n]), words))
    return made


def _stands_out(peak: Any) -> float:
    """The loudest millisecond over the usual one, times."""
    usual = max(float(np.median(peak)), 1e-9)
    return max(float(peak.max()), 1e-9) / usual


def _doubled(take: TakeRead) -> list[FileNote]:
    made = []
    for a in range(len(take.rows)):
        for b in range(a + 1, len(take.rows)):
            one = _same(take, a, b) or _of_one_place(take, a, b)
            if take.mics[a] != take.mics[b] and one:
                made.append(_double(take, a, b))
    return made


def _double(take: TakeRead, a: int, b: int) -> FileNote:
    """Which of two tracks that hold one sound has lost its own: what is on it comes at no time of
    its mic's."""
    off_a, off_b = _off_plan_s(take, a, b), _off_plan_s(take, b, a)
    lost, own = (b, a) if off_b >= off_a else (a, b)
    sure = max(off_a, off_b) > OFF_PLAN * min(off_a, off_b) + OFF_PLAN_S
    return FileNote("doubled", lost, own, max(off_a, off_b), "holds the same sound as", sure)


def _off_plan_s(take: TakeRead, track: int, other: int) -> float:
    """How far a track is off its planned arrivals, seconds; 0 where it has none.

    On the mean of all drums: two that are equal on snare and kick differ on the others alone. What
    is told against one of the two says of both alike that they are one.
    """
    plan = take.analysis.arrivals.time_s - take.analysis.scene.track_delay[:, None]
    mic, mics = take.mics[track], take.mics
    off = [
        min(abs(d.lag_s[track] - plan[mic, d.source] + plan[mics[d.own], d.source]), REFLECTED_S)
        for d in take.drums
        if d.own not in (track, other) and np.isfinite(d.lag_s[track])
    ]
    return float(np.mean(off)) if off else 0.0


def _same(take: TakeRead, a: int, b: int) -> bool:
    """Whether two tracks are one in every band of every drum, whatever their gains."""
    likes = []
    for d in take.drums:
        p = d.products
        size = np.sqrt(p[..., a, a] * p[..., b, b])
        likes.append(np.min(np.abs(p[..., a, b]) / np.maximum(size, 1e-30)))
    lags = [d.lag_s[a] - d.lag_s[b] for d in take.drums]
    known = [abs(x) for x in lags if np.isfinite(x)]
    return bool(likes) and bool(min(likes) > SAME) and (not known or max(known) < 1e-6)


def _of_one_place(take: TakeRead, a: int, b: int) -> bool:
    """Whether two tracks are alike, and at once, as two mics where these stand never are."""
    plan = take.analysis.arrivals.time_s - take.analysis.scene.track_delay[:, None]
    apart, wanted, likes = [], [], []
    for d in take.drums:
        if np.isfinite(lag := d.lag_s[a] - d.lag_s[b]):
            apart.append(abs(float(lag)))
            wanted.append(abs(float(plan[take.mics[a], d.source] - plan[take.mics[b], d.source])))
            p = d.products[:, 0]
            size = np.maximum(np.sqrt(p[:, a, a] * p[:, b, b]), 1e-30)
            likes.append(float(np.median(p[:, a, b] / size)))
    if len(apart) < 2:
        return False
    return max(apart) < ONE_PLACE_S and max(wanted) > TWO_PLACES_S and min(likes) > ALIKE


def _jumped(take: TakeRead) -> list[FileNote]:
    """Tracks whose arrivals, held against the plan, step somewhere in the take."""
    an, made = take.analysis, []
    plan = (an.arrivals.time_s - an.scene.track_delay[:, None])[list(take.mics)]
    ids = an.scene.sources.ids
    when = {k: [h.at_s for h in take.hits if not h.out and h.source == ids[k]] for k in take.each}
    for n in range(len(take.rows)):
        seen = [
            (at, k, float(r.lag_s[n] - plan[n, k] + plan[r.own, k]))
            for k, reads in take.each.items()
            for at, r in zip(when[k], reads, strict=False)
            # In its null a mic hears walls, and those of one drum later than those of another.
            if r.agreed[n] and r.own != n and not an.arrivals.null[take.mics[n], k]
        ]
        step = _step(sorted(seen))
        if step is not None:
            words = f"jumps by {step[1] * 1e3:.1f} ms about {step[0]:.1f} s in"
            made.append(FileNote("jumped", n, None, step[0], words))
    return made


def _step(seen: list[tuple[float, int, float]]) -> tuple[float, float] | None:
    """When arrivals step, and by how much; None where they do not.

    Each side of it must be told by two drums that agree: the plan of a single one may be off.
    """
    best, size = None, JUMP_S
    for k in range(2, len(seen) - 1):
        before, after = seen[:k], seen[k:]
        if min(len({d for _, d, _ in side}) for side in (before, after)) < 2:
            continue
        one, two = ([off for _, _, off in side] for side in (before, after))
        by = float(np.median(two) - np.median(one))
        if abs(by) > size and max(np.ptp(one), np.ptp(two)) < abs(by) / 2:
            best, size = ((seen[k - 1][0] + seen[k][0]) / 2, by), abs(by)
    return best


def _hum(quiet: Floats, rate_hz: int) -> list[FileNote]:
    """Lines of the mains that stand over what is around them."""
    n = quiet.shape[1]
    window = np.hanning(n)
    power: Floats = np.abs(np.fft.rfft(quiet * window)) ** 2 / (window.sum() / 2) ** 2 / 2
    f: Floats = np.fft.rfftfreq(n, 1 / rate_hz).astype(np.float64)
    made = []
    for track, row in enumerate(power):
        for mains in HUM_HZ:
            lines = [_line(row, f, mains * k) for k in (1, 2, 3)]
            size, around = max(lines)
            over = 10 * np.log10(size / max(around, 1e-20))
            level = 10 * np.log10(max(size, 1e-20))
            if over > HUM_OVER_DB and level > HUM_LEAST_DB:
                words = f"hums at {mains:.0f} Hz, {-level:.0f} dB under full scale"
                made.append(FileNote("hum", track, None, round(level, 1), words))
                break
    return made


def _line(power: Floats, f: Floats, hz: float) -> tuple[float, float]:
    near = np.abs(f - hz) < max(2.0, 2.5 * float(f[1]))
    around = (np.abs(f - hz) < 20.0) & ~near
    return float(power[near].max(initial=0.0)), float(np.median(power[around]))
