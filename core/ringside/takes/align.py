"""For those who align afterwards: by how many samples each track goes later, and which is flipped.

Every track is brought to a reference, on its own drum where it is a close mic's, over all drums
where it hears the kit: there no one delay fits all, and what is left on each drum is told. Tracks
only go later, never earlier, so that no start is lost. A track that is flipped adds up with the
reference in the body of the drum it is aligned on; of a set of flips and its opposite, which sound
the same, the one that turns fewer is taken.
"""

import csv
import io
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ringside.errors import RingsideError
from ringside.plan.feeds import feeds
from ringside.takes.reading import TakeRead

NOT_HEARD: Final = "no drum it is for was heard in both"
FURTHEST: Final = 20_000
"""Samples; a track further off is not of this take."""


@dataclass(frozen=True, slots=True)
class AlignRow:
    """What is done to a track."""

    channel: str
    later: float
    """Samples; never below 0."""
    flip: bool
    on: tuple[str, ...]
    """The drums it is aligned on."""
    left_ms: tuple[float, ...]
    """What is left on each of them afterwards, milliseconds."""
    why_not: str = ""
    """Why it stays as it is; empty where it is aligned."""
    by_plan: bool = False
    """Its own drum was not hit: by when the plan has it there."""


@dataclass(frozen=True, slots=True)
class HeardDrum:
    """What aligning needs to know of a drum that was hit; by track, None where refused."""

    source: str
    body: bool
    """It has heads, and so a sign to go by."""
    lag_s: list[float | None]
    sign: list[int]
    planned: bool = False
    """It was not hit: all of it is the plan's."""


@dataclass(frozen=True, slots=True)
class Basis:
    """What aligning needs to know of a take."""

    rate_hz: int
    channels: list[str]
    jobs: list[str | None]
    """The drum each track's mic is put up for; None is the kit."""
    drums: list[HeardDrum]


def basis_of(take: TakeRead) -> Basis:
    """What aligning needs to know of a take.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    Basis
    """
    an = take.analysis
    ids, mics = an.scene.sources.ids, an.layout.mics
    hit = {d.source for d in take.drums}
    jobs = {an.source_index(m.job) for m in mics if m.job and m.role == "close"}
    drums = [
        HeardDrum(
            ids[d.source], bool(an.scene.sources.drum[d.source]),
            [round(float(v), 8) if np.isfinite(v) else None for v in d.lag_s],
            [int(v) for v in d.sign],
        )
        for d in take.drums
    ]  # fmt: skip
    drums += [_planned(take, k) for k in sorted(jobs - hit)]
    channels = [str(take.matched[n].channel) for n in take.rows]
    return Basis(take.rate_hz, channels, [mics[m].job for m in take.mics], drums)


def _planned(take: TakeRead, k: int) -> HeardDrum:
    """A drum that was not hit, as the plan has it; arrivals as the files would have them."""
    an, mics = take.analysis, list(take.mics)
    at = (an.arrivals.time_s[:, k] - an.scene.track_delay)[mics]
    way = [-1 if f.first and f.first.track_flip else 1 for f in feeds(an.layout)]
    sign = an.arrivals.sign[mics, k] * np.array(way)[mics]
    lag = [round(float(v), 8) for v in at - at.min()]
    body = bool(an.scene.sources.drum[k])
    return HeardDrum(an.scene.sources.ids[k], body, list(lag), [int(v) for v in sign], True)


def align_table(
    basis: Basis, reference: str, *, on: str | None = None, whole: bool = True,
    flips: bool = True,
) -> list[AlignRow]:  # fmt: skip
    """What brings all tracks to one.

    Parameters
    ----------
    basis : Basis
    reference : str
        The channel others are brought to.
    on : str, optional
        One drum for all tracks; each its own, or the best over all, where it is left out.
    whole : bool
        Whole samples, which change no sound; else parts of one.
    flips : bool
        Tracks that take away are flipped.

    Returns
    -------
    list of AlignRow
        In the order of the tracks.

    Raises
    ------
    RingsideError
        When the reference or the drum was not measured.
    """
    if reference not in basis.channels:
        raise RingsideError(
            f"{reference!r} is no channel of this take; expected one of {', '.join(basis.channels)}"
        )
    hit = [d.source for d in basis.drums if not d.planned]
    if on is not None and on not in hit:
        raise RingsideError(f"{on!r} was not hit in this take; expected one of {', '.join(hit)}")
    to = basis.channels.index(reference)
    rows = [_row(basis, t, to, on) for t in range(len(basis.channels))]
    least = min((r[0] for r in rows if r[0] is not None), default=0.0)
    made = []
    for t, (later, names, left, flip) in enumerate(rows):
        channel = basis.channels[t]
        if later is None:
            made.append(AlignRow(channel, 0.0, False, (), (), NOT_HEARD))
            continue
        samples = (later - least) * basis.rate_hz
        samples = float(round(samples)) if whole else round(samples, 2)
        if samples > FURTHEST:
            made.append(AlignRow(channel, 0.0, False, (), (), "too far off to be of this take"))
            continue
        planned = any(d.planned and d.source in names for d in basis.drums)
        made.append(AlignRow(channel, samples, bool(flip and flips), names, left, "", planned))
    return _fewest(made)


def _fewest(rows: list[AlignRow]) -> list[AlignRow]:
    """The same flips, or all the others, whichever are fewer."""
    known = [r for r in rows if not r.why_not]
    if 2 * sum(r.flip for r in known) <= len(known):
        return rows
    return [r if r.why_not else replace(r, flip=not r.flip) for r in rows]


def _row(
    basis: Basis, track: int, reference: int, on: str | None
) -> tuple[float | None, tuple[str, ...], tuple[float, ...], bool]:
    """Seconds a track goes later to meet the reference, on which drums, what is left, flipped."""
    if track == reference:
        return 0.0, (), (), False
    job = basis.jobs[track]
    want = on or job  # a close mic waits for nothing but its own drum
    known: list[HeardDrum] = []
    ahead: list[float] = []
    for d in basis.drums:
        if d.planned if want is None else d.source != want:
            continue
        here, there = d.lag_s[track], d.lag_s[reference]
        if here is not None and there is not None:
            known.append(d)
            ahead.append(there - here)
    if not known:
        return None, (), (), False
    later = float(np.median(ahead))
    signs = sum(d.sign[track] * d.sign[reference] for d in known if d.body)
    left = tuple(round((a - later) * 1e3, 3) for a in ahead)
    return later, tuple(d.source for d in known), left, signs < 0


def align_csv(basis: Basis, rows: Sequence[AlignRow]) -> str:
    """The table as CSV (RFC 4180): channel, samples, milliseconds, flip, and why not.

    Parameters
    ----------
    basis : Basis
    rows : sequence of AlignRow

    Returns
    -------
    str
    """
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(["channel", "samples later", "ms later", "flip", "on", "left as it is because",
                    "by the plan"])  # fmt: skip
    for r in rows:
        ms = 1e3 * r.later / basis.rate_hz
        flip = "flip" if r.flip else ""
        table.writerow([r.channel, f"{r.later:g}", f"{ms:.3f}", flip, " ".join(r.on),
                        r.why_not, "by the plan" if r.by_plan else ""])  # fmt: skip
    return out.getvalue()
