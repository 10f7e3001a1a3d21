"""The whole analysis of a layout, one object per row, for files and other programs.

Field names, units and signs are documented in docs/formats/report.md.
"""

from dataclasses import dataclass
from typing import Literal

from ringside.answers.rows import PairRow, SourceRow, Sure, pair_row, source_rows
from ringside.pairs.analysis import Analysis
from ringside.pairs.counts import Counts, counts
from ringside.places.clearance import words_for_all
from ringside.places.kitplace import kit_words
from ringside.places.partner import ring_of
from ringside.plan.layout import Layout, VerdictWord
from ringside.values import Vector

REPORT_FORMAT: Literal["ringside-report"] = "ringside-report"
REPORT_VERSION: Literal[1] = 1


@dataclass(frozen=True, kw_only=True, slots=True)
class ArrivalRow:
    """One mic on one source: by tape, by air, how loud, which way."""

    mic: str
    source: str
    tape_m: float
    path_m: float
    arrival_s: float
    level_db: float
    after_gain_db: float
    sign: int
    surface_db: float


@dataclass(frozen=True, kw_only=True, slots=True)
class WorstRow:
    """A pair on the source that gives it its worst verdict."""

    a: str
    b: str
    source: str
    verdict: VerdictWord
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class RingRow:
    """The ring of a stereo pair through its left mic; metres. Without one, why."""

    stereo_pair: str
    through: str
    kind: Literal["circle", "point", "none"]
    words: str | None = None
    centre_m: Vector | None = None
    radius_m: float | None = None
    axis: Vector | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class BlockedRow:
    """A mic that cannot stand where it is, and why."""

    mic: str
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Report:
    """Everything about a layout."""

    format: Literal["ringside-report"]
    version: Literal[1]
    layout: str
    speed_of_sound_m_s: float
    sample_rate_hz: int
    sources: list[SourceRow]
    arrivals: list[ArrivalRow]
    pairs: list[PairRow]
    worst: list[WorstRow]
    rings: list[RingRow]
    blocked: list[BlockedRow]
    kit: list[str]
    """What is wrong with where the kit stands, in words."""
    counts: Counts


def _arrival_rows(an: Analysis) -> list[ArrivalRow]:
    f, s = an.arrivals, an.scene.sources
    return [
        ArrivalRow(
            mic=mic.id,
            source=s.ids[k],
            tape_m=float(f.tape_m[i, k]),
            path_m=float(f.path_m[i, k]),
            arrival_s=float(f.time_s[i, k]),
            level_db=float(f.level_db[i, k]),
            after_gain_db=float(f.after_gain_db[i, k]),
            sign=int(f.sign[i, k]),
            surface_db=float(f.surface_db[i, k]),
        )
        for i, mic in enumerate(an.layout.mics)
        for k in range(len(s.ids))
    ]


def _ring_row(layout: Layout, name: str, anchor: str) -> RingRow:
    answer = ring_of(layout, anchor)
    if answer.ring is None:
        return RingRow(stereo_pair=name, through=anchor, kind=answer.kind, words=answer.words)
    r = answer.ring
    (cx, cy, cz), (ax, ay, az) = r.centre.tolist(), r.axis.tolist()
    return RingRow(
        stereo_pair=name,
        through=anchor,
        kind=answer.kind,
        centre_m=(cx, cy, cz),
        radius_m=r.radius,
        axis=(ax, ay, az),
    )


def report(an: Analysis) -> Report:
    """Everything, one object per row.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    Report
    """
    sure, ids = Sure.of(an), an.scene.sources.ids
    every = [[pair_row(an, r, k, sure) for k in range(len(ids))] for r in range(len(sure.half_s))]
    worst = [rows[int(k)] for rows, k in zip(every, an.worst_source, strict=True)]
    blocked = words_for_all(an.scene.capsule, an.layout)
    return Report(
        format=REPORT_FORMAT,
        version=REPORT_VERSION,
        layout=an.layout.name,
        speed_of_sound_m_s=an.scene.speed,
        sample_rate_hz=an.layout.sample_rate_hz,
        sources=source_rows(an),
        arrivals=_arrival_rows(an),
        pairs=[row for rows in every for row in rows],
        worst=[
            WorstRow(a=w.a, b=w.b, source=w.source, verdict=w.verdict, words=w.words) for w in worst
        ],
        rings=[_ring_row(an.layout, p.name, p.left) for p in an.layout.stereo_pairs],
        kit=kit_words(an.layout),
        blocked=[
            BlockedRow(mic=m.id, words=words)
            for m, words in zip(an.layout.mics, blocked, strict=True)
            if words
        ],
        counts=counts(an),
    )
