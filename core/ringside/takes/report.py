"""Everything a take says, told: tracks, strokes, drums, pairs, reasons and places."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.hear.notes import note_of
from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import COVERAGE
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.standing.stood import AsItStands
from ringside.standing.told import Told
from ringside.takes.asking import HitList, hits_wanted
from ringside.takes.faults import FileNote, file_notes
from ringside.takes.files import Reader
from ringside.takes.heardpairs import PairTold, pairs_told
from ringside.takes.judged import Judged, judged
from ringside.takes.matching import By, channels_of
from ringside.takes.overview import loudest_db
from ringside.takes.places import Known, Placed, known_of, places_of, readings_of
from ringside.takes.reading import Corrections, Hit, TakeRead
from ringside.takes.reasons import SHORTEST_M, Cause, causes, kelvin_of, rows_of, turned_over
from ringside.takes.tell import (
    FILE_FAULTS,
    TAPE_DIFFERS,
    TAPE_SAYS_SO,
    ReasonKind,
    apart_words,
    cause_words,
    crossed_words,
    file_words,
    moved_words,
    place_told,
    retuned_words,
    silent_words,
    tape_it,
)
from ringside.takes.uncrossed import Names, held_by, plugged, read_uncrossed

Taped = Literal["none", "joined", "differs"]

QUIET_S: Final = 0.9
ELSEWHERE: Final = 14.2
"""Chi squared of three degrees of freedom: a place is this far off by chance in 3 of 1000."""


@dataclass(frozen=True, slots=True)
class TrackTold:
    """A track that was given."""

    name: str
    channel: str | None
    by: By
    begins_s: float
    stamped: bool
    seconds: float
    container: str
    bits: str
    peak_db: float | None
    """Decibels under full scale; none where it was not measured."""
    notes: list[str]


@dataclass(frozen=True, slots=True)
class ArrivalTold:
    """When a channel hears a drum, behind the drum's own mic."""

    channel: str
    lag_ms: float | None
    samples: float | None
    interval_ms: float | None
    """Two standard deviations either way."""
    planned_ms: float
    sign: int
    """Against the drum's own mic: +1 alike, -1 turned over, 0 unsure."""
    planned_sign: int
    first: int
    """The first half-wave itself: +1 pushed, -1 pulled, 0 unsure."""
    why_not: str
    sign_why: str


@dataclass(frozen=True, slots=True)
class DrumTold:
    """What the hits of one drum say."""

    source: str
    name: str
    hits: int
    own: str
    """The channel arrivals are told against."""
    fundamental_hz: float | None
    interval_hz: float
    planned_hz: float | None
    note: str
    words: str
    """How its pitch is against the plan; empty where it is as planned."""
    arrivals: list[ArrivalTold]


@dataclass(frozen=True, slots=True)
class ReasonTold:
    """Why the take differs from the plan."""

    kind: ReasonKind
    channels: list[str]
    mic: str | None
    words: Told
    do: str
    """What to do about it."""
    samples: float | None
    off_m: tuple[float, float, float] | None


@dataclass(frozen=True, slots=True)
class PlaceTold:
    """Where a mic stands by what it hears."""

    mic: str
    position_m: tuple[float, float, float]
    off_m: tuple[float, float, float]
    covariance_m2: list[list[float]]
    radius_m: float
    """Two standard deviations the worst way."""
    drums: list[str]
    left_out: list[str]
    words: Told
    open: Told
    taped: Taped
    """What a tape says of it is joined with the hits, or does not fit them; or none was held."""
    apart: Told
    """Where it does not fit: how far it is from the hits, which alone are told."""


@dataclass(frozen=True, slots=True)
class TakeTold:
    """A take, told."""

    rate_hz: int
    seconds: float
    tracks: list[TrackTold]
    hits: list[Hit]
    drums: list[DrumTold]
    pairs: list[PairTold]
    reasons: list[ReasonTold]
    places: list[PlaceTold]
    ask: HitList
    open_before: int
    """Verdicts that count which the plan leaves to the ear, on the drums that were hit."""
    settled: int
    words: str


def told_take(
    paths: Sequence[Path], analysis: Analysis, said: Corrections | None = None,
    told: Callable[[float, str], None] = lambda _, __: None, stands: AsItStands | None = None,
) -> tuple[TakeTold, TakeRead, Judged]:  # fmt: skip
    """Measure a take and tell it.

    Two channels found on each other's tracks are laid right before the rest is told.

    Parameters
    ----------
    paths : sequence of Path
    analysis : Analysis
        Of the layout it was recorded with.
    said : Corrections, optional
    told : callable
        Called with a share from 0 to 1 and what is done.
    stands : AsItStands, optional
        The layout as the tape has it.

    Returns
    -------
    (TakeTold, TakeRead, Judged)
    """
    take, rings = read_uncrossed(paths, analysis, said or Corrections(), told)
    seen = judged(take)
    return _told(take, seen, rings, stands), take, seen


def _told(
    take: TakeRead, seen: Judged, rings: Sequence[Names], stands: AsItStands | None
) -> TakeTold:
    notes = file_notes(take, _quiet(take))
    silent = [take.channel(n.track) for n in notes if n.kind == "dead"]
    # What only silent tracks say of each other is nothing.
    rings = [ring for ring in rings if not set(ring) <= set(silent)]
    crossed = _crossed(rings, [take.channel(t) for t in plugged(take)], silent)
    # Of what is plugged elsewhere the ring tells that it is not heard.
    silent = [name for name in silent if not any(name in ring for ring in rings)]
    lost = {n.track for n in notes if n.kind == "doubled" and n.sure}
    heard, seen = _without(take, lost), _unpaired(seen, lost)
    found = causes(rows_of(heard), len(take.mics), kelvin_of(take))
    late = np.zeros(len(take.mics))
    for c in found:
        if c.kind == "late":
            late[c.track] = c.late_s
    pairs = pairs_told(seen, stands)
    asked = [p for p in pairs if p.counts and p.planned == VERDICT_WORDS[Verdict.ASK_THE_EAR]]
    settled = sum(p.settled for p in asked)
    places = _places(heard, late, stands)
    every = [
        *_file_reasons(take, notes, silent), *crossed, *_reasons(heard, found, rings),
        *_also_moved(heard, found, places),
    ]  # fmt: skip
    reasons = [_taped(r, places) for r in every]
    return TakeTold(
        rate_hz=take.rate_hz,
        seconds=round(max(t.ends for t in take.tracks) / take.rate_hz, 3),
        tracks=_tracks(take, notes),
        hits=list(take.hits),
        drums=[_drum(take, n) for n in range(len(take.drums))],
        pairs=pairs,
        reasons=reasons,
        places=places,
        ask=hits_wanted(take.analysis, seen),
        open_before=len(asked),
        settled=settled,
        words=_summary(take, len(asked), settled, not reasons, notes),
    )


def _without(take: TakeRead, lost: set[int]) -> TakeRead:
    """The take without what tracks say that hold another's sound."""
    if not lost:
        return take
    gone = np.isin(np.arange(len(take.mics)), list(lost))
    drums = (
        replace(d, lag_s=np.where(gone, np.nan, d.lag_s), sign=np.where(gone, 0, d.sign))
        for d in take.drums
        if d.own not in lost
    )
    return replace(take, drums=tuple(drums))


def _unpaired(seen: Judged, lost: set[int]) -> Judged:
    p, mics = seen.take.analysis.pairs, [seen.take.mics[t] for t in lost]
    gone = np.isin(p.first, mics) | np.isin(p.second, mics)
    return replace(seen, there=seen.there & ~gone[:, None])


def _file_reasons(take: TakeRead, notes: Sequence[FileNote], silent: list[str]) -> list[ReasonTold]:
    made = []
    if silent and take.drums:
        words, do = silent_words(silent)
        made.append(ReasonTold("dead", silent, None, words, do, None, None))
    for note in notes:
        if note.kind not in FILE_FAULTS:
            continue
        name = take.channel(note.track)
        other = "" if note.other is None else take.channel(note.other)
        words, do = file_words(note, name, other)
        mic = take.analysis.layout.mics[take.mics[note.track]].id
        made.append(ReasonTold(FILE_FAULTS[note.kind], [name], mic, words, do, None, None))
    return made


def _summary(
    take: TakeRead, asked: int, settled: int, as_planned: bool, notes: Sequence[FileNote]
) -> str:
    used = sum(1 for h in take.hits if not h.out)
    if not used:
        return "No stroke of this take can be used; why is told at each of them."
    drums = len(take.drums)
    words = f"{used} of {len(take.hits)} strokes count, on {drums} drum{'s' * (drums != 1)}."
    if asked == 1:
        words += f" The verdict that was left to the ear is {'' if settled else 'not '}settled."
    elif asked:
        is_ = "is" if settled == 1 else "are"
        words += f" {settled} of {asked} verdicts that were left to the ear {is_} settled."
    if as_planned:
        words += " Everything is as planned, as far as these hits can tell."
        looked = list(dict.fromkeys(take.channel(n.track) for n in notes))
        words += f" {', '.join(looked)}: see Tracks." if looked else ""
    return words


def _tracks(take: TakeRead, noted: Sequence[FileNote]) -> list[TrackTold]:
    notes: dict[int, list[str]] = {}
    for note in noted:
        other = f" {take.channel(note.other)}" if note.other is not None else ""
        notes.setdefault(note.track, []).append(note.words + other)
    row_of = {n: row for row, n in enumerate(take.rows)}
    silent = {take.rows[n.track] for n in noted if n.kind == "dead"}
    loudest = loudest_db(take.seen)
    made = []
    for n, (t, m) in enumerate(zip(take.tracks, take.matched, strict=True)):
        row = row_of.get(n)
        made.append(TrackTold(
            name=t.name, channel=m.channel,
            by="left" if n in silent and m.by == "heard" else m.by,  # it holds nothing
            begins_s=round(t.begins / t.rate_hz, 6),
            stamped=t.stamped, seconds=round(t.frames / t.rate_hz, 3), container=t.container,
            bits=t.bits, notes=notes.get(-1 if row is None else row, []),
            peak_db=None if row is None else round(float(loudest[row]), 1),
        ))  # fmt: skip
    return made


def _quiet(take: TakeRead) -> Floats | None:
    """What is there before anybody plays."""
    first = take.hits[0].at_s if take.hits else 0.0
    if first < QUIET_S / 2:
        return None
    with Reader([take.tracks[n] for n in take.rows]) as reader:
        return reader.cut(0, round((min(first, 3.0) - 0.05) * take.rate_hz))


def _drum(take: TakeRead, n: int) -> DrumTold:
    d, an = take.drums[n], take.analysis
    s = an.scene.sources
    planned = s.fundamentals[d.source] if s.drum[d.source] else None
    arrivals = [_arrival(take, n, t) for t in range(len(take.mics)) if t != d.own]
    f = d.fundamental_hz
    return DrumTold(
        source=s.ids[d.source], name=s.names[d.source], hits=d.hits, own=take.channel(d.own),
        fundamental_hz=None if f is None else round(f, 2),
        interval_hz=round(COVERAGE * d.fundamental_spread_hz, 2), planned_hz=planned,
        note="" if f is None else note_of(f)[0],
        words="" if f is None or planned is None else retuned_words(s.names[d.source], f, planned,
                                                                    float(s.tuning[d.source])),
        arrivals=arrivals,
    )  # fmt: skip


def _arrival(take: TakeRead, n: int, t: int) -> ArrivalTold:
    d, an = take.drums[n], take.analysis
    plan = an.arrivals.time_s - an.scene.track_delay[:, None]
    mic, own = take.mics[t], take.mics[d.own]
    known = bool(np.isfinite(d.lag_s[t]))
    lag = float(d.lag_s[t])
    return ArrivalTold(
        channel=take.channel(t),
        lag_ms=round(lag * 1e3, 4) if known else None,
        samples=round(lag * take.rate_hz, 2) if known else None,
        interval_ms=round(COVERAGE * float(d.deviation_s[t]) * 1e3, 4) if known else None,
        planned_ms=round(float(plan[mic, d.source] - plan[own, d.source]) * 1e3, 4),
        sign=int(d.sign[t]),
        planned_sign=int(an.arrivals.sign[mic, d.source] * an.arrivals.sign[own, d.source]),
        first=int(d.way[t]),
        why_not=d.late_why[t],
        sign_why=d.sign_why[t],
    )


def _crossed(
    rings: Sequence[Names], sockets: Sequence[str], silent: Sequence[str]
) -> list[ReasonTold]:
    made = []
    for names in rings:
        why, do = crossed_words(names, sockets, silent)
        made.append(ReasonTold("swapped", list(names), None, why, do, None, None))
    return made


def _turned_by_socket(take: TakeRead, rings: Sequence[Names]) -> set[str]:
    """Channels that are turned over, if they are, because the socket they are in is."""
    flip = {c.id: c.preamp_flip for c in channels_of(take.analysis.layout)}
    return {name for ring in rings for name, on in held_by(ring) if flip[name] != flip[on]}


def _reasons(take: TakeRead, found: Sequence[Cause], rings: Sequence[Names]) -> list[ReasonTold]:
    made = []
    by_socket = _turned_by_socket(take, rings)
    mics = take.analysis.layout.mics
    for t, heard, say in turned_over(take):
        name = take.channel(t)
        if name in by_socket:
            continue
        how = f"{say} of {heard} comparisons" if heard > 1 else "the one comparison there is"
        words = f"{name} is turned over against the plan, by {how}."
        made.append(ReasonTold("turned over", [name], mics[take.mics[t]].id, Told(words),
                               f"Flip {name} at its preamp, or find the cable that does.", None,
                               None))  # fmt: skip
    for c in found:
        name = take.channel(c.track) if c.track >= 0 else ""
        why, do = cause_words(c, name, take.rate_hz)
        x, y, z = (round(float(v), 4) for v in c.by_m)
        made.append(ReasonTold(
            c.kind, [name] if name else [], mics[take.mics[c.track]].id if name else None, why,
            do, round(c.late_s * take.rate_hz, 1) if c.kind == "late" else None,
            (x, y, z) if c.kind == "moved" else None,
        ))  # fmt: skip
    return made


def _places(take: TakeRead, late: Floats, stands: AsItStands | None) -> list[PlaceTold]:
    an, readings = take.analysis, readings_of(take, late)
    taped = {
        m: known
        for m in take.mics
        if stands and (known := known_of(stands, an.layout.mics[m].id)) is not None
    }
    close = {m: known for m, known in taped.items() if an.layout.mics[m].role == "close"}
    alone = {p.mic: p for p in places_of(an, readings, close)}
    # A mic whose tape and hits cannot both hold is told by the hits.
    held = {m: known for m, known in taped.items() if m not in alone or _fit(known, alone[m])}
    joined = {p.mic: p for p in places_of(an, readings, held)} if held != close else alone
    made = []
    # A mic may be placed one way only: beside what the tapes say, other lengths may not fit.
    for m, found in sorted((alone | joined).items()):
        if m in held and m in joined:
            made.append(_place(take, found, "joined", Told()))
        elif m in taped and m in alone:
            apart = apart_words(alone[m].at - taped[m].at)
            made.append(_place(take, alone[m], "differs", apart))
        else:
            made.append(_place(take, found, "none", Told()))
    return made


def _fit(known: Known, alone: Placed) -> bool:
    """Whether the tape and the hits may mean one place."""
    off = alone.at - known.at
    return bool(off @ np.linalg.solve(known.covariance + alone.covariance, off) <= ELSEWHERE)


def _also_moved(
    take: TakeRead, found: Sequence[Cause], places: Sequence[PlaceTold]
) -> list[ReasonTold]:
    """Mics that stand elsewhere by their places, where no cause tells it yet."""
    told = {take.mics[c.track] for c in found if c.track >= 0}
    mics = take.analysis.layout.mics
    made = []
    for p in places:
        m = next(n for n, mic in enumerate(mics) if mic.id == p.mic)
        off = np.array(p.off_m)
        far = float(off @ np.linalg.solve(np.array(p.covariance_m2), off))
        if m in told or far < ELSEWHERE or float(np.linalg.norm(off)) < SHORTEST_M:
            continue
        name = take.channel(take.mics.index(m))
        words = moved_words(name, off, len(p.drums))
        made.append(ReasonTold("moved", [name], p.mic, words, tape_it(name), None, p.off_m))
    return made


def _taped(reason: ReasonTold, places: Sequence[PlaceTold]) -> ReasonTold:
    """A mic that moved, told with what the tape says of it already."""
    by = next((p.taped for p in places if p.mic == reason.mic), "none")
    if reason.kind != "moved" or by == "none":
        return reason
    return replace(reason, do=TAPE_SAYS_SO if by == "joined" else TAPE_DIFFERS)


def _place(take: TakeRead, found: Placed, taped: Taped, apart: Told) -> PlaceTold:
    an = take.analysis
    mic, ids = an.layout.mics[found.mic], an.scene.sources.ids
    off = found.at - np.array(mic.position_m)
    words, still = place_told(off, found)
    x, y, z = (round(float(v), 4) for v in found.at)
    dx, dy, dz = (round(float(v), 4) for v in off)
    return PlaceTold(
        mic=mic.id, position_m=(x, y, z), off_m=(dx, dy, dz),
        covariance_m2=[[float(f"{v:.4g}") for v in row] for row in found.covariance],
        radius_m=round(found.radius_m, 4), drums=[ids[k] for k in found.sources],
        left_out=[ids[k] for k in found.left_out], words=words, open=still, taped=taped,
        apart=apart,
    )  # fmt: skip
