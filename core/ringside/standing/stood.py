"""A layout as it stands, with what was measured of it, so that it can be judged like any other.

It is the plan with every measured capsule and part where the readings put it. What was read goes
along, for it says how sure each place is. It is worked out to be looked at, and never kept.
"""

from dataclasses import replace
from typing import Annotated, Self

import numpy as np
from pydantic import Field, model_validator

from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis, analyse
from ringside.plan.layout import Layout
from ringside.plan.mics import LAID_M
from ringside.survey.lines import computed
from ringside.survey.net import TAPE_M, held_at, held_task
from ringside.values import Key, Record, length

BY_EYE_M = 0.10
"""How far from its plan a mic stands that was put up by eye, metres in each direction, one sigma
(common practice: a hand's breadth and more; the figure is from memory)."""

MOST_READINGS = 2000


class StoodReading(Record):
    """A reading that fixes where something stands."""

    a: Key = Field(description="A mic, or of a reading between drums and cymbals one of those.")
    b: Key | None = Field(description="The other end; null is the floor.")
    at_kit: bool = Field(strict=True, description="Between parts, not at a mic.")
    like: Key | None = Field(
        default=None, description="Of a cord: the other mic, which is as far from the end."
    )


class Stood(Record):
    """What was measured of a layout that stands."""

    readings: Annotated[tuple[StoodReading, ...], Field(max_length=MOST_READINGS)]
    setback_m: tuple[Annotated[float, length(0, 0.5, "Capsule behind front, metres.")], ...]
    """Of every mic, in the order of the layout."""


class AsItStands(Layout):
    """A layout with everything that was measured where it stands."""

    stood: Stood

    @model_validator(mode="after")
    def _of_one_layout(self) -> Self:
        mics, parts = {m.id for m in self.mics}, set(self.kit.source_ids)
        if len(self.stood.setback_m) != len(self.mics):
            raise ValueError("expected one setback for each mic")
        for r in self.stood.readings:
            there = parts if r.at_kit else mics | parts
            known = r.a in (parts if r.at_kit else mics) and (r.b is None or r.b in there)
            if not known or (r.like is not None and r.like not in mics):
                raise ValueError(f"expected ends of this layout, got {r.a!r} to {r.b!r}")
        return self


def standing_layout(layout: Layout, stood: Stood) -> AsItStands:
    """A layout with what was measured of it.

    Parameters
    ----------
    layout : Layout
        With everything where it stands.
    stood : Stood

    Returns
    -------
    AsItStands
    """
    return AsItStands.model_construct(**layout.fields(), stood=stood)


def ahead(layout: Layout, setback_m: Floats) -> Floats:
    """From each capsule to the front of its mic, where the tape is held, metres (M, 3).

    Parameters
    ----------
    layout : Layout
    setback_m : ndarray, shape (M,)
        How far each capsule lies behind its front.

    Returns
    -------
    ndarray, shape (M, 3)
    """
    aims = np.array([m.aim for m in layout.mics], dtype=float).reshape(-1, 3)
    return np.asarray(aims * setback_m[:, None])


def ends_among(layout: Layout, a: str, b: str | None) -> tuple[int, int | None]:
    """The ends of a reading at a mic, by number among parts and then mics.

    A mic called like a part is the mic at its own end and the part at the other.

    Parameters
    ----------
    layout : Layout
    a : str
        A mic.
    b : str or None
        A part or another mic; None is the floor.

    Returns
    -------
    tuple of int and int or None
    """
    parts = layout.kit.source_ids
    mics = [m.id for m in layout.mics]
    here = len(parts) + mics.index(a)
    if b is None:
        return here, None
    return here, parts.index(b) if b in parts else len(parts) + mics.index(b)


def analysed(layout: Layout) -> Analysis:
    """Everything computed from a layout, as sure as it is known: planned, or as it stands.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Analysis
    """
    an = analyse(layout)
    if not isinstance(layout, AsItStands):
        return an
    return replace(an, doubt_m=_doubt_m(an, covariance_of(layout)))


def by_eye(layout: Layout) -> Floats:
    """One over the variance of places that nobody measured: of every mic its three coordinates.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    ndarray, shape (3M,), one over m²
    """
    spread = np.full((len(layout.mics), 3), BY_EYE_M)
    spread[[m.lies for m in layout.mics], 2] = LAID_M
    return np.asarray(spread.ravel() ** -2)


def covariance_of(layout: AsItStands) -> Floats:
    """How sure the places of parts and then mics are, seen from snare and kick.

    Parameters
    ----------
    layout : AsItStands

    Returns
    -------
    ndarray, shape (3(P+M), 3(P+M)), m²
    """
    kit, stood = layout.kit, layout.stood
    told = held_task(kit).told
    n = len(kit.parts)
    points = np.zeros((n + len(layout.mics), 3))
    points[:n] = [held_at(p) for p in kit.parts]
    at = np.array([m.position_m for m in layout.mics], dtype=float).reshape(-1, 3)
    points[n:] = at + ahead(layout, np.array(stood.setback_m, dtype=float))
    ids = kit.source_ids
    ends = [
        (ids.index(r.a), None if r.b is None else ids.index(r.b))
        if r.at_kit
        else ends_among(layout, r.a, r.b)
        for r in stood.readings
    ]
    weight = np.zeros((points.size, points.size))
    weight[: 3 * n, : 3 * n] = told
    weight[3 * n :, 3 * n :] = np.diag(by_eye(layout))
    if ends:
        less = [ends_among(layout, r.like, r.b) if r.like else None for r in stood.readings]
        slopes = computed(points, ends, less)[1]
        weight += slopes.T @ slopes / TAPE_M**2
    return np.asarray(np.linalg.inv(weight), dtype=np.float64)


def _doubt_m(an: Analysis, covariance: Floats) -> Floats:
    """One standard deviation of the difference of every pair's two ways, metres (P, S).

    A reading from a mic to a drum says their distance well though neither place is known well:
    what counts is the covariance of all of them together.
    """
    to = an.arrivals.toward
    unit = to / np.maximum(np.linalg.norm(to, axis=-1, keepdims=True), 1e-9)
    parts, m = len(an.layout.kit.parts), len(an.layout.mics)
    n = parts + m
    block = covariance.reshape(n, 3, n, 3).transpose(0, 2, 1, 3)
    i, j = an.pairs.first, an.pairs.second
    out = np.empty((len(i), unit.shape[1]))
    among = block[parts:, parts:]
    for k in range(unit.shape[1]):
        u = unit[:, k]
        both = np.einsum("mi,mnij,nj->mn", u, among, u)
        apart = u[j] - u[i]
        own = np.einsum("pi,ij,pj->p", apart, block[k, k], apart)
        cross = np.einsum("mi,mij->mj", u, block[parts:, k])
        with_part = np.einsum("pj,pj->p", cross[j] - cross[i], apart)
        out[:, k] = both[j, j] + both[i, i] - 2 * both[i, j] + own - 2 * with_part
    return np.sqrt(np.maximum(out, 0.0))
