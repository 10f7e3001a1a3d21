"""The set-up sheet's content: every mic so that somebody with a tape can put it there.

A close mic is told in drum terms (over or under the head, in from the rim) and by tape to
its own drum; every mic by tape to snare and kick and its height over the floor. The plan
is worded from the drummer's stool, as the frame is.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.pairs.pans import side_words
from ringside.places.aims import aim_words
from ringside.plan.channels import MOST_CHANNELS
from ringside.plan.drumframe import AtDrum, at_drum
from ringside.plan.feeds import Feed, feeds
from ringside.plan.kit import Cymbal, CymbalKind, Drum, DrumKind, reference_point
from ringside.plan.layout import Layout
from ringside.plan.references import references


@dataclass(frozen=True, kw_only=True, slots=True)
class SetupRow:
    """One mic as somebody with a tape puts it up; distances in metres, words for the rest."""

    id: str
    name: str
    channel: int | None
    pattern: str
    low_cut_hz: float | None
    model: str | None
    stand: str | None
    job: str
    job_kind: DrumKind | CymbalKind | None
    snare_m: float
    kick_m: float
    own_m: float | None
    """To its own drum or cymbal; None for the whole kit."""
    height_m: float
    from_head: AtDrum | None
    side: str
    """Of a mic for no drum, where two tapes and a height leave two spots: which of them."""
    in_line: bool
    """With a snare's wires, where it is known how they run."""
    aim: str
    flips: list[str]
    """Switches that are on and what is put on the track."""
    tracks: list[str]
    """Where it is panned, and what else it is split into."""


def setup_rows(layout: Layout) -> list[SetupRow]:
    """One row per mic in the order of the channels, those without one last.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of SetupRow
    """
    every = {p.id: p for p in layout.kit.parts}
    aims = aim_words(layout)
    track = {c.id: n for n, c in enumerate(layout.channels)}

    def place(of: tuple[int, Feed]) -> tuple[int, int]:
        first = of[1].first
        return (track[first.id] if first else MOST_CHANNELS, of[0])

    ordered = sorted(enumerate(feeds(layout)), key=place)
    return [_row(layout, f, every.get(f.mic.job or ""), aims[i]) for i, f in ordered]


def _row(layout: Layout, of: Feed, job: Drum | Cymbal | None, aim: str) -> SetupRow:
    mic, first = of.mic, of.first
    ref, at = references(layout), np.array(mic.position_m)
    return SetupRow(
        id=mic.id,
        name=mic.name,
        channel=first.input if first else None,
        pattern=mic.pattern,
        low_cut_hz=first.low_cut_hz if first else None,
        model=mic.model,
        stand=mic.stand,
        job=job.name if job else "Whole kit",
        job_kind=job.kind if job else None,
        snare_m=float(np.linalg.norm(at - ref.snare)),
        kick_m=float(np.linalg.norm(at - ref.kick)),
        own_m=_own(at, job),
        height_m=mic.position_m[2],
        from_head=None if job is None else at_drum(job, at),
        side="" if job else side_of_line(layout, at),
        in_line=_in_line(at, job),
        aim=aim,
        flips=of.on_the_way(),
        tracks=_tracks(of),
    )


ON_LINE_M: Final = 0.03
"""Nearer than this a mic stands on the line (from memory)."""


def side_of_line(layout: Layout, at: np.ndarray) -> str:
    """Which side of the line from snare to kick a spot is on, and before or behind the snare.

    Its distances to snare and kick and its height hold at two spots, which mirror each other in
    that line.

    Parameters
    ----------
    layout : Layout
    at : ndarray, shape (3,)
        Metres.

    Returns
    -------
    str
        Seen from the drummer.
    """
    ref = references(layout)
    along, to = (ref.kick - ref.snare)[:2], (at - ref.snare)[:2]
    size = float(np.hypot(*along))
    off = float(along[0] * to[1] - along[1] * to[0]) / max(size, 1e-9)
    front = "audience's side" if to[1] > 0 else "drummer's side"
    if size < ON_LINE_M or abs(off) < ON_LINE_M:
        return f"on the line from snare to kick, {front}"
    return f"{'left' if off > 0 else 'right'} of the line from snare to kick, {front}"


IN_LINE_DEG: Final = 10.0
"""A mic this near to the line of the wires stands in line with them (from memory)."""


def _in_line(at: np.ndarray, job: Drum | Cymbal | None) -> bool:
    """Whether a snare's mic stands in line with its wires, at either end."""
    if not isinstance(job, Drum) or job.wires_rad is None:
        return False
    out = (at - np.array(job.batter_m))[:2]
    size = float(np.hypot(*out))
    way = np.array([np.cos(job.wires_rad), np.sin(job.wires_rad)])
    return size > 0.01 and abs(float(out @ way)) / size > np.cos(np.radians(IN_LINE_DEG))


def _tracks(of: Feed) -> list[str]:
    if of.first is None:
        return ["not recorded"]
    pan = of.first.pan
    copies = [c.name for c in of.channels[1:]]
    return [
        *([] if pan is None else [f"panned to {side_words(pan)}"]),
        *([f"split: {', '.join(copies)}"] if copies else []),
    ]


def _own(at: np.ndarray, job: Drum | Cymbal | None) -> float | None:
    if job is None:
        return None
    to = reference_point(job) if isinstance(job, Drum) else job.centre_m
    return float(np.linalg.norm(at - np.array(to)))
