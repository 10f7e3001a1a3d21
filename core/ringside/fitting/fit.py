"""Fit: move what is free so that, in this order, every mic is clear and within its stand's
reach, pairs are equal on snare and then kick, twins are level, nulls face the loudest
neighbour, and bleed is as low as a slide round the rim makes it.

A later wish never breaks an earlier one. Nothing is random and nothing depends on the clock:
the same layout gives the same answer, and fitting a fitted layout moves nothing. Metres,
degrees, decibels.
"""

from dataclasses import dataclass

import numpy as np

from ringside.arrays import Floats
from ringside.fitting.bleed import lower_bleed, turn_nulls
from ringside.fitting.clear import make_clear
from ringside.fitting.equal import make_equal, make_level
from ringside.fitting.work import WISHES, FitAsk, GaveUp, Work
from ringside.gear.locker import Locker
from ringside.plan.layout import Layout
from ringside.plan.references import references

__all__ = ["WISHES", "FitAsk", "fit"]


@dataclass(frozen=True, kw_only=True, slots=True)
class MoveRow:
    """What a fit did to a mic; snare and kick before and after, metres."""

    mic: str
    moved_m: float
    turned_deg: float
    snare_m: tuple[float, float]
    kick_m: tuple[float, float]
    why: list[str]


@dataclass(frozen=True, kw_only=True, slots=True)
class Fitted:
    """A fitted layout and the account of it."""

    layout: Layout
    moves: list[MoveRow]
    gave_up: list[GaveUp]
    words: str


def fit(layout: Layout, ask: FitAsk | None = None, locker: Locker | None = None) -> Fitted:
    """A layout fitted, with what was moved and what was given up.

    Parameters
    ----------
    layout : Layout
        Locks on its mics are kept.
    ask : FitAsk, optional
        Wishes and tolerances.
    locker : Locker, optional
        The stands the mics name; without it reach is not looked at.

    Returns
    -------
    Fitted
    """
    ask = ask or FitAsk()
    stands = {s.id: s for s in locker.stands} if locker else {}
    work = Work(layout, ask, stands)
    if "clear" in ask.wishes:
        make_clear(work)
    if "equal" in ask.wishes:
        make_equal(work)
    if "level" in ask.wishes:
        make_level(work)
    if "nulls" in ask.wishes:
        turn_nulls(work)
    if "bleed" in ask.wishes:
        lower_bleed(work)
    return _told(layout, work)


def _told(before: Layout, work: Work) -> Fitted:
    ref, rows = references(before), []
    for old, new in zip(before.mics, work.layout.mics, strict=True):
        was, now = np.array(old.position_m), np.array(new.position_m)
        moved = float(np.linalg.norm(now - was))
        cos = float(np.clip(np.dot(old.aim, new.aim), -1, 1))
        turned = float(np.degrees(np.arccos(cos))) if old.aim != new.aim else 0.0
        if moved < 1e-6 and turned < 0.05:
            continue
        rows.append(
            MoveRow(
                mic=old.id,
                moved_m=moved,
                turned_deg=turned,
                snare_m=(_gap(was, ref.snare), _gap(now, ref.snare)),
                kick_m=(_gap(was, ref.kick), _gap(now, ref.kick)),
                why=list(dict.fromkeys(work.why.get(old.id, []))),
            )
        )
    words = _summary(rows, work.gave_up)
    return Fitted(layout=work.layout, moves=rows, gave_up=work.gave_up, words=words)


def _gap(a: Floats, b: Floats) -> float:
    return float(np.linalg.norm(a - b))


def _summary(rows: list[MoveRow], gave_up: list[GaveUp]) -> str:
    if not rows and not gave_up:
        return "Everything already fits: nothing was moved."
    moved = sum(r.moved_m >= 1e-6 for r in rows)
    turned = len(rows) - moved
    said = []
    if moved:
        said.append(f"{moved} {'mic' if moved == 1 else 'mics'} moved")
    if turned:
        said.append(f"{turned} turned in place")
    if gave_up:
        said.append(f"{len(gave_up)} wish{'es' if len(gave_up) > 1 else ''} given up")
    return ", ".join(said) + "."
