"""Equal and level: pairs as far from snare and kick, twins level over their head.

Each group of mics has rules in an order; all are tried, then all but the last, and so on, by
the smallest move that is clear. What is left over is given up and said.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.constants import FARTHEST_MOVE_M
from ringside.fitting.least import Rule, SameDistance, SameHeight, least_move
from ringside.fitting.work import GaveUp, Work
from ringside.plan.drumframe import face_of, side_of
from ringside.plan.kit import Drum
from ringside.plan.layout import Taken
from ringside.plan.mics import Mic
from ringside.plan.references import references
from ringside.techniques.catalogue import TECHNIQUES
from ringside.techniques.taking import remade

TWIN_M: Final = 0.10
"""Two close mics on one side of a drum within this are twins (common practice: taped)."""


@dataclass(frozen=True)
class _Group:
    """Mics that must be equal, with the rules in their order and the tolerance of each."""

    mics: tuple[str, ...]
    rules: tuple[Rule, ...]
    names: tuple[str, ...]
    tolerances_m: tuple[float, ...]


def _groups(work: Work) -> list[_Group]:
    groups: list[_Group] = []
    covered: set[str] = set()
    for kept in work.layout.techniques:
        group = _promised(work, kept)
        if group is not None:
            groups.append(group)
            covered.update(kept.mics)
    ref = references(work.layout)
    for p in work.layout.stereo_pairs:
        a, b = work.layout.mic(p.left), work.layout.mic(p.right)
        if {a.id, b.id} <= covered or "close" in (a.role, b.role):
            continue
        rules = tuple(SameDistance(0, 1, to, to) for to in (ref.snare, ref.kick))
        groups.append(_Group((a.id, b.id), rules, ("snare", "kick"), _limits(work, rules)))
    return groups


def _limits(work: Work, rules: tuple[Rule, ...]) -> tuple[float, ...]:
    ask = work.ask
    return (ask.snare_tolerance_m, *([ask.kick_tolerance_m] * (len(rules) - 1)))


def _promised(work: Work, kept: Taken) -> _Group | None:
    """What a technique in use promises, as rules over its mics."""
    t = TECHNIQUES.get(kept.technique)
    if t is None or not t.keeps_on or "own head" in t.keeps_on:
        return None
    made = remade(work.layout, kept)
    if made is None or not made.equals:
        return None
    ordered = sorted(made.equals, key=lambda e: e.on != "snare")
    rules = tuple(SameDistance(e.a, e.b, e.to_a, e.to_b) for e in ordered)
    limits = tuple(
        work.ask.snare_tolerance_m if e.on.startswith("snare") else work.ask.kick_tolerance_m
        for e in ordered
    )
    return _Group(kept.mics, rules, tuple(e.on for e in ordered), limits)


def _held(group: _Group, x: Floats, upto: int) -> bool:
    return all(
        abs(r.value(x)) <= t + 1e-9
        for r, t in zip(group.rules[:upto], group.tolerances_m, strict=False)
    )


def make_equal(work: Work) -> None:
    """Every pair and every promise of a technique, snare before kick.

    Parameters
    ----------
    work : Work
        What is being fitted; it is changed in place.
    """
    for group in _groups(work):
        _keep(work, group, "equal on")


def _keep(work: Work, group: _Group, said: str) -> None:
    x = np.array([work.spot(m) for m in group.mics])
    count = len(group.rules)
    if _held(group, x, count):
        return
    for upto in range(count, 0, -1):
        spots = x if _held(group, x, upto) else _solved(work, group, x, upto)
        if spots is None:
            continue
        for mic, at, was in zip(group.mics, spots, x, strict=True):
            if float(np.linalg.norm(at - was)) > 1e-7:
                work.put(work.layout.mic(mic), at, f"{said} {_and(group.names[:upto])}")
        x = spots
        break
    for rule, name, limit in zip(group.rules, group.names, group.tolerances_m, strict=True):
        left = abs(rule.value(x))
        if left > limit + 1e-9:
            who = _and(group.mics)
            work.gave_up.append(
                GaveUp(
                    mics=list(group.mics),
                    left_m=left,
                    words=f"{who} stay apart on {name}: no clear spot near by keeps it.",
                )
            )


def _and(names: tuple[str, ...]) -> str:
    return " and ".join(dict.fromkeys(names))


def _solved(work: Work, group: _Group, x: Floats, upto: int) -> Floats | None:
    """The clear spots with the smallest move that keep the first rules, or None."""
    mics = [work.layout.mic(m) for m in group.mics]
    free = np.array([work.free(m) for m in mics])
    rules = list(group.rules[:upto])
    # A mic that no clear spot was found for is not asked to have one here.
    asked = [bool(work.fine(p[None], m, group.mics)[0]) for p, m in zip(x, mics, strict=True)]
    best: tuple[float, Floats] | None = None
    for start in _starts(x, free):
        spots = least_move(start, free, rules)
        if spots is None:
            continue
        moved = np.linalg.norm(spots - x, axis=1)
        if moved.max() > FARTHEST_MOVE_M:
            continue
        size = float(np.sqrt((moved**2).sum()))
        if best is not None and size >= best[0] - 1e-9:
            continue
        if all(
            not must or work.fine(p[None], m, group.mics)[0]
            for p, m, must in zip(spots, mics, asked, strict=True)
        ):
            best = (size, spots)
            if start is x:
                break
    return best[1] if best else None


def _starts(x: Floats, free: Mask) -> list[Floats]:
    """Where to begin: as it is, then each mic shifted each way, deterministic."""
    shifts = [x]
    for step in (0.05, 0.12, 0.25, 0.4):
        for k in range(len(x)):
            for axis in range(3):
                for sign in (1.0, -1.0):
                    if free[k, axis]:
                        shifted = x.copy()
                        shifted[k, axis] += sign * step
                        shifts.append(shifted)
    return shifts


def twins(work: Work) -> list[tuple[Mic, Mic, Drum]]:
    """Pairs of close mics side by side on one side of a drum.

    Parameters
    ----------
    work : Work
        What is being fitted; it is changed in place.

    Returns
    -------
    list of (Mic, Mic, Drum)
    """
    twice = []
    close = [m for m in work.layout.mics if m.role == "close" and m.job]
    for i, a in enumerate(close):
        for b in close[i + 1 :]:
            if a.job != b.job:
                continue
            part = work.layout.kit.part(a.job or "")
            near = float(np.linalg.norm(np.subtract(a.position_m, b.position_m))) < TWIN_M
            if (
                isinstance(part, Drum)
                and near
                and side_of(part, a.position_m) == side_of(part, b.position_m)
            ):
                twice.append((a, b, part))
    return twice


def make_level(work: Work) -> None:
    """Twins as high over their head and as far from its centre.

    Parameters
    ----------
    work : Work
        What is being fitted; it is changed in place.
    """
    for a, b, drum in twins(work):
        face = face_of(drum, side_of(drum, a.position_m))
        rules: tuple[Rule, ...] = (
            SameDistance(0, 1, face.centre, face.centre),
            SameHeight(0, 1, np.array(drum.axis)),
        )
        group = _Group((a.id, b.id), rules, ("its head", "height"), (1e-3, 1e-3))
        _keep(work, group, "level twins:")
