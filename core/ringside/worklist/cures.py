"""What could be done about two mics on a drum: switches, spots, lengths of the way, delays.

Nothing is tried here; that is done on the whole layout by whoever asks.
"""

import math
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.constants import FARTHEST_MOVE_M
from ringside.pairs.analysis import Analysis
from ringside.pairs.delays import CLOSE_MOVE_M, body_by_delay
from ringside.pairs.verdicts import Verdict
from ringside.places.partner import Spot, can_be_equal, places
from ringside.places.steps import LEAST_M
from ringside.plan.channels import Channel
from ringside.plan.feeds import feed
from ringside.plan.layout import Layout
from ringside.plan.mics import LOCKS, Mic
from ringside.plan.spoken import the
from ringside.values import vector

RING_KINDS: Final = ("swing", "same height", "snare only")
FARTHEST_ROUND_RING_M: Final = 1.5
"""Along the ring a mic may go further: it stays as far from snare and kick as its partner."""

OVER: Final = 0.95
"""So much of the time that puts a dip where the band ends: a hand does not stop at a hair."""

ON_SURFACE_M: Final = 0.05
AT_THE_SPOT_M: Final = 0.02
LINE_DB: Final = 1.0
"""A move along the line is only named when it gives this much body."""

RemedyKind = Literal[
    "flip", "swing", "same height", "snare only", "equal", "clear", "line", "delay"
]  # fmt: skip


@dataclass(frozen=True, kw_only=True, slots=True)
class Remedy:
    """One thing to do: which kind, its sentence, and the mics and channels as they would be."""

    kind: RemedyKind
    words: str
    mics: tuple[Mic, ...] = ()
    channels: tuple[Channel, ...] = ()

    @property
    def of(self) -> set[str]:
        """The mics it changes, short names."""
        return {m.id for m in self.mics} | {c.mic for c in self.channels}

    @classmethod
    def at(cls, kind: RemedyKind, words: str, mic: Mic, spot: Spot) -> "list[Remedy]":
        """A move to a spot; none where there is no such spot.

        Parameters
        ----------
        kind : RemedyKind
        words : str
            What the move is for.
        mic : Mic
        spot : Spot

        Returns
        -------
        list of Remedy
        """
        if spot.position_m is None:
            return []
        return [cls(kind=kind, words=words, mics=(_moved(mic, np.array(spot.position_m)),))]


def _moved(mic: Mic, to: Floats) -> Mic:
    return mic.model_copy(update={"position_m": vector(to)})


def _still(mic: Mic) -> bool:
    """Whether any of its three coordinates is held."""
    return any(lock in mic.locks for lock in LOCKS[:3])


def flips_of(layout: Layout, a: Mic, b: Mic) -> list[Remedy]:
    """A flip of either, the second first; what is held, or feeds no track, has none.

    Parameters
    ----------
    layout : Layout
    a, b : Mic
        The one that stands and the one that gives way.

    Returns
    -------
    list of Remedy
    """
    made = []
    for of in (feed(layout, m.id) for m in (b, a)):
        if of.held or of.first is None:
            continue
        where = f", input {of.first.input}" if of.first.input else ""
        act = "Take the flip off" if of.flipped else "Flip"
        made.append(
            Remedy(
                kind="flip",
                words=f"{act} {of.mic.id} at the preamp{where}.",
                channels=tuple(c.turned_over() for c in of.channels),
            )
        )
    return made


def equal_places(an: Analysis, a: Mic, b: Mic) -> list[Remedy]:
    """Spots for the second as far from snare and kick as the first, or from the snare alone.

    Parameters
    ----------
    an : Analysis
    a, b : Mic
        The one that stands and the one that moves.

    Returns
    -------
    list of Remedy
        None where the two are not of a kind that is kept equal, or the second is held.
    """
    layout = an.layout
    if not can_be_equal(layout, a.id, b.id) or _still(b):
        return []
    said = places(layout, a.id, b.id)
    level = Remedy.at(
        "same height", f"Put {b.id} on the ring at the height of {a.id}.", b, said.equal_height
    )
    if _on_surface(an, [m.id for m in layout.mics].index(b.id)):
        return level  # along the floor, not off it
    swing = f"Swing {b.id} round the ring to its nearest point."
    alone = f"Move {b.id} until it is as far from the snare as {a.id}."
    return [
        *Remedy.at("swing", swing, b, said.swing),
        *level,
        *Remedy.at("snare only", alone, b, said.snare_only),
    ]


def lines_of(an: Analysis, a: Mic, b: Mic, source: int, off: float | None) -> list[Remedy]:
    """Along the way the sound comes: until both hear it at once, or where the body is fullest.

    Parameters
    ----------
    an : Analysis
    a, b : Mic
    source : int
        The drum by number.
    off : float or None
        How much later the second is, seconds; None when that is as good as at once.

    Returns
    -------
    list of Remedy
    """
    ids = [m.id for m in an.layout.mics]
    row, turned = an.pair_index(a.id, b.id)
    name = the(an.scene.sources.names[source])
    spots = a.role == b.role == "close"
    spare = _spare(an, row, source) if spots else None
    made = []
    for mic, way_back, other_way in ((b, -1, False), (a, 1, True)):
        i = ids.index(mic.id)
        to = an.arrivals.toward[i, source]
        reach = float(np.linalg.norm(to))
        if _still(mic) or reach < AT_THE_SPOT_M or _on_surface(an, i):
            continue
        way = -to / reach
        best = body_by_delay(an, row, source, turned != other_way)
        fuller = best.best_move
        steps: list[tuple[RemedyKind, float, str]] = []
        if off is not None:
            steps.append(
                ("equal", way_back * off, f"Move {mic.id} until both hear {name} at once.")
            )
        if off is not None and spare is not None:
            words = f"Move {mic.id} until no dip of the two lies in {name}."
            steps.append(("clear", way_back * math.copysign(abs(off) - spare, off), words))
        sure = bool(an.pairs.sign[row, source]) and bool(an.scene.sources.drum[source])
        if sure and fuller.body_db - best.now_db >= LINE_DB:
            steps.append(("line", fuller.later_s, f"Move {mic.id} to where {name} sums fullest."))
        for kind, seconds, words in steps:
            metres = seconds * an.scene.speed
            if reach + metres < 0.03:
                continue  # it would go through the head
            spot = np.array(mic.position_m) + way * metres
            made.append(Remedy(kind=kind, words=words, mics=(_moved(mic, spot),)))
    return made


def _spare(an: Analysis, row: int, source: int) -> float | None:
    """How late the second may be, either way, with no dip where the pair is judged, seconds.

    None where it is no dip of two equal signs that makes the pair late. The first dip of those is
    at 1/(2t); it is put a little over what is judged.
    """
    p = an.pairs
    if p.verdict[row, source] != Verdict.LATE or p.sign[row, source] != 1:
        return None
    return OVER / (2 * float(p.band_high_hz[row, source])) if p.band_high_hz[row, source] else None


def _on_surface(an: Analysis, mic: int) -> bool:
    """Whether a mic lies on a floor or wall, as boundary mics do: moved off it, it is another."""
    img = an.scene.images
    own = img.gap[img.mic == mic]
    return bool(len(own) and own.min() < ON_SURFACE_M)


def delays_of(layout: Layout, a: Mic, b: Mic, off: float | None) -> list[Remedy]:
    """The earlier put later on its track, until both are heard at once.

    Parameters
    ----------
    layout : Layout
    a, b : Mic
    off : float or None
        How much later the second is, seconds; None when that is as good as at once.

    Returns
    -------
    list of Remedy
    """
    samples = round(abs(off or 0.0) * layout.sample_rate_hz)
    if off is None or samples == 0:
        return []
    late, early = (feed(layout, m.id) for m in ((b, a) if off > 0 else (a, b)))
    back = min(late.delay_samples, samples)
    put = samples - back
    channels: list[Channel] = []
    if back:
        channels += late.delayed(late.delay_samples - back)
    total = early.delay_samples + put
    if total > 20_000 or not early.channels or not late.channels:
        return []
    if put:
        channels += early.delayed(total)
    said = f"Delay {early.mic.id} by {put} samples after recording" if put else ""
    less = f"take {back} samples of delay off {late.mic.id}" if back else ""
    words = " and ".join(w for w in (said, less) if w)
    return [Remedy(kind="delay", words=f"{words[0].upper()}{words[1:]}.", channels=tuple(channels))]


def worth_making(layout: Layout, r: Remedy) -> bool:
    """A move neither too small to make nor too far for a remedy.

    Parameters
    ----------
    layout : Layout
    r : Remedy

    Returns
    -------
    bool
    """
    if not r.mics:
        return True
    far = _how_far(layout, r.mics[0])
    most = FARTHEST_ROUND_RING_M if r.kind in RING_KINDS else FARTHEST_MOVE_M
    if r.mics[0].role == "close":
        most = CLOSE_MOVE_M
    return LEAST_M <= far <= most


def _how_far(layout: Layout, mic: Mic) -> float:
    was = layout.mic(mic.id).position_m
    return float(np.linalg.norm(np.subtract(mic.position_m, was)))
