"""Everything the walk at the kit needs: what to read, where each mic stands, what is still open."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.gear.locker import Locker
from ringside.plan.layout import Layout
from ringside.plan.spoken import the
from ringside.standing.asks import AskRow, ask_rows, end_name, end_point, specs
from ringside.standing.entries import CordReading, Entry, Span, Written, span_read, written
from ringside.standing.moves import side_words
from ringside.standing.places import back_words, near_words, place_words
from ringside.standing.stood import AsItStands
from ringside.standing.told import Told, joined
from ringside.standing.truth import Truth, fronts, truth
from ringside.survey.lines import computed
from ringside.survey.net import TAPE_M

KNOWN_M: Final = 0.03
"""A direction in which a mic's place is known to this, one sigma, is not open."""

REACH_M: Final = 6.0
"""The longest reading that is suggested: a tape across a live room."""

StandState = Literal["planned", "open", "known"]


@dataclass(frozen=True, kw_only=True, slots=True)
class MicStands:
    """Where one capsule stands by the readings, metres."""

    mic: str
    state: StandState
    position_m: tuple[float, float, float]
    off_m: tuple[float, float, float]
    """From the plan, in the frame of the kit."""
    sigma_m: tuple[float, float, float]
    """One standard deviation along each axis."""
    covariance_m2: list[list[float]]
    words: Told
    back: Told
    """How it goes back to its plan; empty where it stands there, or nobody knows."""
    open: Told
    """What the readings leave open, and what would close it; empty where nothing."""


@dataclass(frozen=True, kw_only=True, slots=True)
class TapeRow:
    """A reading against where everything stands, metres."""

    key: str
    mic: str
    to: str | None
    like: str | None
    """Of a cord: the mic it is as far as; `metres` is then 0."""
    metres: float
    residual_m: float | None
    """Read less computed; None where it is left out."""
    state: Literal["fits", "misfit", "doubtful", "unsure"]
    taken: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Standing:
    """The state at the kit, worked out from the plan and the log."""

    asks: list[AskRow]
    next: int | None
    """Which of the asks is next; None when all are read or skipped."""
    read: int
    wanted: int
    mics: list[MicStands]
    readings: list[TapeRow]
    gone: list[str]
    """Readings that are kept and count for nothing, each in words."""
    words: str
    layout: AsItStands
    """As it stands."""


def standing(
    layout: Layout, locker: Locker, log: Sequence[Entry], true: Truth | None = None
) -> Standing:
    """What stands where, and what to read next.

    Parameters
    ----------
    layout : Layout
        As planned.
    locker : Locker
    log : sequence of Entry
        Oldest first.
    true : Truth or None
        By the readings of that log, where it is at hand.

    Returns
    -------
    Standing
    """
    kept = written(layout, log)
    true = true or truth(layout, locker, kept.readings)
    asks = ask_rows(layout, locker, kept, _bad(true))
    wanted = len(specs(layout))
    at = next((n for n, a in enumerate(asks) if a.state in ("to read", "again")), None)
    return Standing(
        asks=asks,
        next=at,
        read=sum(a.state in ("good", "off") for a in asks[:wanted]),
        wanted=wanted,
        mics=_mics(layout, locker, true, asks),
        readings=_readings(true, kept),
        gone=[_gone_words(e) for e in kept.gone],
        words=_words(true, kept),
        layout=true.layout,
    )


def _gone_words(e: Entry) -> str:
    to = f"{e.mic} to {e.to or 'the floor'}"
    return f"{to}, {e.metres:.3f} m" if e.metres is not None else f"{to}, {e.cord} as {e.like}"


@dataclass(frozen=True, kw_only=True, slots=True)
class NextReading:
    """The reading to take next, metres: as planned, for a meter that is to be held there."""

    mic: str
    to: str | None
    """None is the floor."""
    to_words: str
    target_m: float
    from_m: tuple[float, float, float]
    """The front of the mic."""
    to_m: tuple[float, float, float]


def next_of(layout: Layout, locker: Locker, log: Sequence[Entry]) -> NextReading | None:
    """The reading to take next, and where both its ends are planned.

    Parameters
    ----------
    layout : Layout
        As planned.
    locker : Locker
    log : sequence of Entry
        Oldest first.

    Returns
    -------
    NextReading or None
        None when all are taken or left.
    """
    stands = standing(layout, locker, log)
    if stands.next is None:
        return None
    ask = stands.asks[stands.next]
    at = dict(zip([m.id for m in layout.mics], fronts(layout, locker), strict=True))
    here = at[ask.mic]
    end = end_point(layout, at, ask.to)
    there = here * (1.0, 1.0, 0.0) if end is None else end
    return NextReading(
        mic=ask.mic, to=ask.to, to_words=ask.to_words, target_m=ask.target_m,
        from_m=_three(here, 6), to_m=_three(there, 6),
    )  # fmt: skip


def _bad(true: Truth) -> frozenset[Span]:
    return frozenset(
        span_read(r)
        for n in (*true.net.suspects, *true.net.rivals)
        if n >= true.kit_readings
        for r in (true.readings[n],)
    )


def _readings(true: Truth, kept: Written) -> list[TapeRow]:
    left = {n: float(r) for n, r in zip(true.net.used, true.net.residual, strict=True)}
    rows = []
    for n, (r, key) in enumerate(zip(kept.readings, kept.keys, strict=True), true.kit_readings):
        rows.append(
            TapeRow(
                key=key,
                mic=r.a,
                to=r.b,
                like=r.like if isinstance(r, CordReading) else None,
                metres=r.metres,
                residual_m=round(left[n], 5) if n in left else None,
                state=_state(true, n, r.sure),
                taken=r.taken,
            )
        )
    return rows


def _state(true: Truth, n: int, sure: bool) -> Literal["fits", "misfit", "doubtful", "unsure"]:
    if n in true.net.suspects:
        return "misfit"
    if n in true.net.rivals:
        return "doubtful"
    return "fits" if sure else "unsure"


def _mics(layout: Layout, locker: Locker, true: Truth, asks: list[AskRow]) -> list[MicStands]:
    at = {m.id: true.point(i) for i, m in enumerate(layout.mics)}
    planned = fronts(layout, locker)
    by_drum = {a.mic: a.off_m for a in asks if a.off_m is not None and a.to == _job(layout, a.mic)}
    rows = []
    for i, mic in enumerate(layout.mics):
        spread = true.spread(i)
        off = at[mic.id] - planned[i] if mic.id in true.measured else np.zeros(3)
        # A close mic stands by its own drum: where round it, nobody needs to know.
        own = by_drum.get(mic.id) if mic.role == "close" else None
        loose = 0 if own is not None else _loose(spread)
        state: StandState = (
            "planned" if mic.id not in true.measured else "open" if loose else "known"
        )
        rows.append(
            MicStands(
                mic=mic.id,
                state=state,
                position_m=true.layout.mics[i].position_m,
                off_m=_three(off, 5),
                sigma_m=_three(np.sqrt(np.diag(spread)), 5),
                covariance_m2=np.round(spread, 9).tolist(),
                words=_words_of(state, off, spread) if own is None else near_words(own),
                back=Told() if own is not None or state == "planned" else back_words(off, spread),
                open=_open_words(true, layout, at, i, loose),
            )
        )
    return rows


def _job(layout: Layout, mic: str) -> str | None:
    return layout.mic(mic).job


def _words_of(state: StandState, off: Floats, spread: Floats) -> Told:
    if state == "planned":
        return Told("Not measured: as planned, by eye.")
    return place_words(off, spread, likely=state == "open")


def _three(v: Floats, digits: int) -> tuple[float, float, float]:
    x, y, z = (round(float(c), digits) + 0.0 for c in v)
    return x, y, z


def _loose(spread: Floats) -> int:
    """In how many directions a place is still open."""
    return int((np.linalg.eigvalsh(spread) > KNOWN_M**2).sum())


def _open_words(true: Truth, layout: Layout, at: dict[str, Floats], i: int, loose: int) -> Told:
    mic = layout.mics[i].id
    if mic not in true.measured or (loose == 0 and mic not in true.mirrored):
        return Told()
    best = _closing(true, layout, at, i)
    wants = Told(f"A reading to {best} tells most." if best else "")
    if mic in true.mirrored:
        by = true.mirrored[mic] - true.point(i)
        words = "It may as well stand on the other side, {} " + f"{side_words(by)}."
        return joined([Told(words, (float(np.linalg.norm(by)),), True), wants])
    what = {3: "Nothing of its place is sure yet.", 2: "It is somewhere on a ball round one end.",
            1: f"It is somewhere along an arc, {arc_words(true.spread(i))}."}[loose]  # fmt: skip
    return joined([Told(what), wants])


def arc_words(spread: Floats) -> str:
    """Along which way a place is open.

    Parameters
    ----------
    spread : ndarray, shape (3, 3)
        Its covariance, m².

    Returns
    -------
    str
    """
    way = np.linalg.eigh(spread)[1][:, -1]
    if abs(way[2]) > 0.8:
        return "up and down"
    level = "left and right" if abs(way[0]) > abs(way[1]) else "forward and back"
    return f"{level}, and in height" if abs(way[2]) > 0.4 else level


def _closing(true: Truth, layout: Layout, at: dict[str, Floats], i: int) -> str:
    """The end a further reading is worth most to, as it is told."""
    own = true.parts + i
    taken = {b if a == own else a for a, b in true.task.ends if own in (a, b)}
    names: list[tuple[int | None, str]] = [
        (n, the(p.name)) for n, p in enumerate(layout.kit.parts) if n not in taken
    ]
    if None not in taken:
        names.append((None, "the floor"))
    here = at[layout.mics[i].id]
    near = []
    for end, name in names:
        point = None if end is None else end_point(true.layout, at, layout.kit.parts[end].id)
        if point is None or float(np.linalg.norm(point - here)) <= REACH_M:
            near.append((end, name))
    if not near:
        return ""
    slopes = computed(true.net.points, [(own, end) for end, _ in near])[1]
    spread = slopes @ true.net.covariance
    variance = np.einsum("ri,ri->r", spread, slopes) + TAPE_M**2
    gain = (spread[:, 3 * own : 3 * own + 3] ** 2).sum(axis=1) / variance
    end, name = near[int(gain.argmax())]
    return name


def _words(true: Truth, kept: Written) -> str:
    bad = sorted(span_words(true, n) for n in true.net.suspects)
    if not kept.readings:
        return "Nothing is measured yet: everything stands as planned, by eye."
    if bad:
        do, be = ("does", "is") if len(bad) == 1 else ("do", "are")
        return f"{', '.join(bad)} {do} not fit the other readings and {be} left out."
    if not all(r.sure for r in kept.readings):
        return "A mic was touched since it was measured: its readings are asked for again."
    return "All readings fit one another."


def span_words(true: Truth, n: int) -> str:
    """A reading by its two ends: OL–snare.

    Parameters
    ----------
    true : Truth
    n : int
        Its number among all readings.

    Returns
    -------
    str
    """
    r = true.readings[n]
    if isinstance(r, CordReading):
        return f"{r.a} as far as {r.like}–{end_name(true.layout, r.b)}"
    one = r.a if n >= true.kit_readings else end_name(true.layout, r.a)
    return f"{one}–{end_name(true.layout, r.b)}"
