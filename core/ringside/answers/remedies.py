"""What can be done about a pair on a drum, each with what it does to every other pair.

Flips, moves (round the ring, to the same height on it, to the snare's sphere, along the line
to the drum), and delays put on a track after recording. Every remedy is tried on the whole
layout and all pairs are judged anew; nothing is taken from the pair alone.

What a stereo pair keeps equal, on the snare and the kick, is not given up for a single drum: a
remedy that would comes after those that would not (common practice).

Two schools (common practice): placed until it is in phase, or aligned after recording. Of
remedies that do as much, the one of the layout's school comes first.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.constants import FARTHEST_MOVE_M
from ringside.pairs.analysis import Analysis
from ringside.pairs.delays import CLOSE_MOVE_M, body_by_delay
from ringside.pairs.keeping import pair_broken
from ringside.pairs.uncertainty import COVERAGE, deviation_s
from ringside.pairs.verdicts import WEIGHT, WORDS_BY_VALUE, Verdict
from ringside.places.clearance import words_for_all
from ringside.places.partner import Spot, can_be_equal, places
from ringside.plan.channels import Channel
from ringside.plan.feeds import feed
from ringside.plan.hanging import with_channels, with_mics
from ringside.plan.layout import Layout, VerdictWord
from ringside.plan.mics import LOCKS, Mic
from ringside.plan.questions import Timing
from ringside.plan.references import references
from ringside.standing.stood import analysed
from ringside.values import Vector, vector

RING_KINDS: Final = ("swing", "same height", "snare only")
FARTHEST_ROUND_RING_M: Final = 1.5
"""Along the ring a mic may go further: it stays as far from snare and kick as its partner."""

LEAST_M: Final = 0.002
SAME_DB: Final = 0.5
SAME_SPOT_M: Final = 0.003
ON_SURFACE_M: Final = 0.05
AT_THE_SPOT_M: Final = 0.02
LINE_DB: Final = 1.0
"""A move along the line is only named when it gives this much body."""


RemedyKind = Literal["flip", "swing", "same height", "snare only", "equal", "line", "delay"]


@dataclass(frozen=True, kw_only=True, slots=True)
class EffectRow:
    """What becomes of another pair, by its worst verdict."""

    a: str
    b: str
    source: str
    before: VerdictWord
    after: VerdictWord


@dataclass(frozen=True, kw_only=True, slots=True)
class StandStep:
    """One part of a move in stand terms; metres, above zero."""

    way: str
    metres: float


@dataclass(frozen=True, kw_only=True, slots=True)
class RemedyRow:
    """One thing to do, tried on the whole layout; the pair as it would be then."""

    kind: RemedyKind
    words: str
    mics: list[Mic]
    channels: list[Channel]
    """Both as they would be; a move changes mics, a flip or a delay their channels."""
    verdict: VerdictWord
    delay_s: float
    body_db: float
    body_gain_db: float | None
    """None while a sign is unsure."""
    own: float
    """By weight of verdict for this pair; below zero is better."""
    score: float
    """The same over all pairs."""
    improves: list[EffectRow]
    spoils: list[EffectRow]
    steps: list[StandStep]
    blocked: str
    """What stands in the way, in words; empty when nothing does."""
    breaks: str
    """Which stereo pair would no longer keep what it keeps, in words; empty when none would."""


@dataclass(frozen=True, kw_only=True, slots=True)
class PairRemedies:
    """Everything that could be done about a pair on a drum, the best first."""

    a: str
    b: str
    source: str
    verdict: VerdictWord
    school: Timing
    remedies: list[RemedyRow]
    words: str


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


def _flips(layout: Layout, a: Mic, b: Mic) -> list[Remedy]:
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


def _equal_places(an: Analysis, a: Mic, b: Mic) -> list[Remedy]:
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


def _lines(an: Analysis, a: Mic, b: Mic, source: int, off: float | None) -> list[Remedy]:
    """Along the way the sound comes: until both hear it at once, or where the body is fullest.

    `off`: how much later the second is, seconds; None when that is as good as at once.
    """
    ids = [m.id for m in an.layout.mics]
    row, turned = an.pair_index(a.id, b.id)
    name = an.scene.sources.names[source].lower()
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
                ("equal", way_back * off, f"Move {mic.id} until both hear the {name} at once.")
            )
        sure = bool(an.pairs.sign[row, source]) and bool(an.scene.sources.drum[source])
        if sure and fuller.body_db - best.now_db >= LINE_DB:
            steps.append(
                ("line", fuller.later_s, f"Move {mic.id} to where the {name} sums fullest.")
            )
        for kind, seconds, words in steps:
            metres = seconds * an.scene.speed
            if reach + metres < 0.03:
                continue  # it would go through the head
            spot = np.array(mic.position_m) + way * metres
            made.append(Remedy(kind=kind, words=words, mics=(_moved(mic, spot),)))
    return made


def _on_surface(an: Analysis, mic: int) -> bool:
    """Whether a mic lies on a floor or wall, as boundary mics do: moved off it, it is another."""
    img = an.scene.images
    own = img.gap[img.mic == mic]
    return bool(len(own) and own.min() < ON_SURFACE_M)


def _delays(layout: Layout, a: Mic, b: Mic, off: float | None) -> list[Remedy]:
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


def remedies(an: Analysis, a: str, b: str, source: str | None = None) -> PairRemedies:
    """Everything that could be done about a pair on a drum, the best first.

    Parameters
    ----------
    a, b : str
        The mic that stands and the one that rather moves.
    source : str, optional
        The drum; the pair's worst when not given.

    Returns
    -------
    PairRemedies

    Raises
    ------
    RingsideError
        When a mic or the source is not there.
    """
    row, turned, k = an.find(a, b, source)
    layout, p = an.layout, an.pairs
    delay = (-1 if turned else 1) * float(p.delay_s[row, k])
    # What is nearer than half the interval is as good as at once.
    off = delay if abs(delay) > COVERAGE * float(deviation_s(an)[row, k]) else None
    one, two = layout.mic(a), layout.mic(b)
    every = [
        *_flips(layout, one, two), *_equal_places(an, one, two), *_lines(an, one, two, k, off),
        *_delays(layout, one, two, off),
    ]  # fmt: skip
    rows = [_tried(an, r, row, k) for r in every if _worth(layout, r)]
    rows = _without_twins(rows)
    rows.sort(key=lambda r: _rank(r, layout.school))
    return PairRemedies(
        a=a,
        b=b,
        source=an.scene.sources.ids[k],
        verdict=_word(an.pairs.verdict[row, k]),
        school=layout.school,
        remedies=rows,
        words=_summary(an, row, k, rows),
    )


def _word(verdict: int) -> VerdictWord:
    return WORDS_BY_VALUE[int(verdict)]


def _worth(layout: Layout, r: Remedy) -> bool:
    """A move neither too small to make nor too far for a remedy."""
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


def _without_twins(rows: list[RemedyRow]) -> list[RemedyRow]:
    """Two moves that end within millimetres of each other are one."""
    kept: list[RemedyRow] = []
    for r in rows:
        if not any(_same_move(k, r) for k in kept):
            kept.append(r)
    return kept


def _same_move(one: RemedyRow, two: RemedyRow) -> bool:
    if not one.mics or not two.mics:
        return False
    a, b = one.mics[0], two.mics[0]
    apart = float(np.linalg.norm(np.subtract(a.position_m, b.position_m)))
    return a.id == b.id and apart < SAME_SPOT_M


def _tried(an: Analysis, r: Remedy, row: int, k: int) -> RemedyRow:
    layout = with_channels(with_mics(an.layout, r.mics), r.channels)
    after = analysed(layout)
    was, now = an.pairs.worst, after.pairs.worst
    weight = np.array([WEIGHT[v] for v in sorted(WEIGHT)])
    change = weight[now] - weight[was]
    blocked = ""
    steps: list[StandStep] = []
    if r.mics:
        mic = r.mics[0]
        blocked = words_for_all([mic.position_m], layout)[0]
        steps = stand_steps(an.layout, mic.id, mic.position_m)
    own = weight[after.pairs.verdict[row, k]] - weight[an.pairs.verdict[row, k]]
    return RemedyRow(
        kind=r.kind,
        words=r.words,
        mics=list(r.mics),
        channels=list(r.channels),
        verdict=_word(after.pairs.verdict[row, k]),
        delay_s=float(after.pairs.delay_s[row, k]),
        body_db=float(after.pairs.body_db[row, k]),
        body_gain_db=_body_gain(an, after, row, k),
        own=float(own),
        score=float(change.sum()),
        improves=_changed(an, after, change < 0),
        spoils=_changed(an, after, change > 0),
        steps=steps,
        blocked=blocked,
        breaks=pair_broken(an, after, r.of),
    )


def _body_gain(an: Analysis, after: Analysis, row: int, k: int) -> float | None:
    """What the pair's own body gains, decibels; None while a sign is unsure."""
    if an.pairs.sign[row, k] == 0 or after.pairs.sign[row, k] == 0:
        return None
    return float(after.pairs.body_db[row, k] - an.pairs.body_db[row, k])


def _changed(an: Analysis, after: Analysis, which: Mask) -> list[EffectRow]:
    ids, p = [m.id for m in an.layout.mics], an.pairs
    names = an.scene.sources.ids
    rows = []
    for r in np.flatnonzero(which):
        worse = after if after.pairs.worst[r] > p.worst[r] else an
        rows.append(
            EffectRow(
                a=ids[p.first[r]],
                b=ids[p.second[r]],
                source=names[worse.worst_source[r]],
                before=_word(p.worst[r]),
                after=_word(after.pairs.worst[r]),
            )
        )
    return rows


def _rank(row: RemedyRow, school: Timing) -> tuple[float, ...]:
    later = {"placed": "delay", "aligned": "move"}[school]
    kind = row.kind if row.kind in ("flip", "delay") else "move"
    return (
        1.0 if row.blocked else 0.0,
        1.0 if row.breaks else 0.0,  # what a stereo pair keeps equal goes before any single drum
        max(row.own, 0.0),  # what makes this very pair worse is no remedy for it
        row.score,
        1.0 if kind == later else 0.0,
        -round((row.body_gain_db or 0.0) / SAME_DB),
        sum(s.metres for s in row.steps),
    )


def stand_steps(layout: Layout, mic_id: str, to: Vector) -> list[StandStep]:
    """A move in stand terms: up or down, boom in or out (level, to or from the snare), round.

    The longest step comes first; steps under 2 mm are left out.

    Parameters
    ----------
    layout : Layout
    mic_id : str
        Its short name.
    to : tuple of float, shape (3,)
        Where it should stand, metres.

    Returns
    -------
    list of StandStep
    """
    was = np.array(layout.mic(mic_id).position_m)
    by = np.array(to) - was
    out = was - references(layout).snare
    out[2] = 0.0
    size = float(np.linalg.norm(out))
    steps = [("up" if by[2] > 0 else "down", abs(float(by[2])))]
    if size > 0.15:
        out /= size
        boom, level = float(by @ out), by - np.array([0, 0, by[2]])
        level = level - out * boom
        steps.append(("boom out" if boom > 0 else "boom in", abs(boom)))
        steps += _level_steps(level)
    else:  # right over the snare, in and out mean nothing
        steps += _level_steps(by)
    return [
        StandStep(way=way, metres=metres)
        for way, metres in sorted(steps, key=lambda s: -s[1])
        if metres >= LEAST_M
    ]


def _level_steps(by: Floats) -> list[tuple[str, float]]:
    """Over the floor, by the drummer's right and the audience."""
    x, y = float(by[0]), float(by[1])
    return [
        ("to the drummer's right" if x > 0 else "to the drummer's left", abs(x)),
        ("toward the audience" if y > 0 else "toward the drummer", abs(y)),
    ]


def _summary(an: Analysis, row: int, k: int, rows: list[RemedyRow]) -> str:
    verdict = Verdict(int(an.pairs.verdict[row, k]))
    if verdict == Verdict.NO_MATTER:
        return "Nothing to cure: in this balance nobody hears what the two do to each other."
    if verdict == Verdict.BEHIND:
        return "Nothing to cure: it is further away on purpose. What follows is for the curious."
    if verdict == Verdict.TOGETHER:
        return "Nothing to cure; what follows is for the curious."
    if verdict == Verdict.ASK_THE_EAR:
        return "The sign is unsure: try what is said beside it, and leave the answer with a reason."
    if rows and rows[0].score < 0 and rows[0].own <= 0 and not rows[0].blocked:
        return f"{rows[0].words} It does the most good over all pairs."
    if rows and rows[0].own < 0 and not rows[0].blocked:
        return (
            f"{rows[0].words} It cures this pair and does others as much harm;"
            " look at the best set of flips."
        )
    return "No single step makes the whole better. Leaving it with a reason is an answer too."
