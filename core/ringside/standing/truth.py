"""Where capsules truly stand: kit and mics as one net of readings, in one adjustment.

The tape ends at the front of a mic, the sound at its capsule behind: `setback_m` of the locker's
model lies between the two, along the aim. Readings from mics and those of the kit are adjusted
together, so that a drum that is not where it was drawn does not put a mic in the wrong place.
What is not read stands as planned, with the doubt of something put up by eye.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.gear.locker import Locker
from ringside.plan.kit import Cymbal, Drum, Kit, Reading
from ringside.plan.layout import Layout
from ringside.standing.entries import CordReading, span_read
from ringside.standing.stood import (
    AsItStands,
    Stood,
    StoodReading,
    ahead,
    by_eye,
    ends_among,
    standing_layout,
)
from ringside.survey.net import (
    MISFIT,
    Net,
    Task,
    fitted_task,
    held_task,
    misfit,
    solved_task,
)
from ringside.survey.readings import placed_at
from ringside.values import vector

MIRROR_M: Final = 0.10
"""Two places as far apart as this are two places."""

MIRROR_COST: Final = 6.0
"""Squared sigmas: a mirror image that fits to within this is as likely (a ratio of twenty)."""


@dataclass(frozen=True)
class Truth:
    """Kit and mics as they stand. M mics, P parts; the net's points are parts, then mics."""

    layout: AsItStands
    """With every part and every capsule where the readings put it."""
    net: Net
    task: Task
    readings: tuple[Reading, ...]
    """Those of the kit, then those at mics; the net counts through both."""
    kit_readings: int
    parts: int
    measured: frozenset[str]
    """Mics that a reading which counts ends at."""
    mirrored: dict[str, Floats]
    """Mics that may as well stand elsewhere: where."""

    def point(self, mic: int) -> Floats:
        """The front of a mic, where the tape is held, (3,), metres.

        Parameters
        ----------
        mic : int
            By number in the layout.

        Returns
        -------
        ndarray, shape (3,)
        """
        return np.asarray(self.net.points[self.parts + mic])

    def spread(self, mic: int) -> Floats:
        """Covariance of a mic's place seen from snare and kick, (3, 3), m².

        Parameters
        ----------
        mic : int
            By number in the layout.

        Returns
        -------
        ndarray, shape (3, 3)
        """
        at = 3 * (self.parts + mic)
        return np.asarray(self.net.covariance[at : at + 3, at : at + 3])


def setbacks(layout: Layout, locker: Locker) -> Floats:
    """How far each capsule lies behind its front, metres (M,); 0 where nobody says.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    ndarray, shape (M,)
    """
    models = {m.id: m.setback_m for m in locker.mics}
    return np.array([models.get(m.model or "", 0.0) for m in layout.mics], dtype=float)


def fronts(layout: Layout, locker: Locker) -> Floats:
    """Where the tape is held at every mic as planned, metres (M, 3).

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    ndarray, shape (M, 3)
    """
    at = np.array([m.position_m for m in layout.mics], dtype=float).reshape(-1, 3)
    return np.asarray(at + ahead(layout, setbacks(layout, locker)))


def truth(layout: Layout, locker: Locker, readings: Sequence[Reading]) -> Truth:
    """Kit and mics as readings put them.

    Parameters
    ----------
    layout : Layout
        As planned.
    locker : Locker
    readings : sequence of Reading
        At mics: `a` is one, `b` a part, another mic, or None for the floor; or of a cord.

    Returns
    -------
    Truth
    """
    task = _task(layout, locker, readings)
    every = (*layout.kit.readings, *readings)
    sure = [n for n, r in enumerate(every) if r.sure]
    net = fitted_task(task, sure)
    parts = len(layout.kit.parts)
    measured = frozenset(
        end for n in net.used for end in span_read(every[n]) if n >= len(layout.kit.readings)
    )
    placed = _placed(layout, locker, net, measured)
    own = len(layout.kit.readings)
    stood = Stood.model_construct(
        readings=tuple(
            StoodReading.model_construct(
                a=every[n].a, b=every[n].b, at_kit=n < own, like=getattr(every[n], "like", None)
            )
            for n in net.used
        ),
        setback_m=tuple(float(s) for s in setbacks(layout, locker)),
    )
    ids = {m.id for m in layout.mics}
    made = Truth(
        standing_layout(placed, stood), net, task, every, len(layout.kit.readings), parts,
        frozenset(m for m in measured if m in ids), {},
    )  # fmt: skip
    made.mirrored.update(_mirrored(made))
    return made


def _task(layout: Layout, locker: Locker, readings: Sequence[Reading]) -> Task:
    kit = held_task(layout.kit)
    at = fronts(layout, locker)
    ends = tuple(ends_among(layout, r.a, r.b) for r in readings)
    eye = np.diag(by_eye(layout))
    return Task(
        start=np.vstack([kit.start, at]),
        weight=_joined(kit.told, eye),
        ends=(*kit.ends, *ends),
        read=np.concatenate([kit.read, [r.metres for r in readings]]),
        taken=(*kit.taken, *(r.taken for r in readings)),
        told=_joined(kit.told, eye),
        less=(
            *[None] * len(kit.ends),
            *(ends_among(layout, r.like, r.b) if isinstance(r, CordReading) else None
              for r in readings),
        ),
    )  # fmt: skip


def _joined(one: Floats, two: Floats) -> Floats:
    """Two square blocks on a diagonal."""
    n = len(one)
    out = np.zeros((n + len(two), n + len(two)))
    out[:n, :n], out[n:, n:] = one, two
    return out


def _placed(layout: Layout, locker: Locker, net: Net, measured: frozenset[str | None]) -> Layout:
    """The layout with parts and measured mics at the net's points."""
    parts = layout.kit.parts
    kit = layout.kit
    if any(p.id in measured for p in parts):
        kit = _kit_at(layout.kit, net.points[: len(parts)])
    front = ahead(layout, setbacks(layout, locker))
    mics = tuple(
        m.model_copy(update={"position_m": vector(net.points[len(parts) + i] - front[i])})
        if m.id in measured
        else m
        for i, m in enumerate(layout.mics)
    )
    return layout.model_copy(update={"kit": kit, "mics": mics})


def _kit_at(kit: Kit, points: Floats) -> Kit:
    def moved(part: Drum | Cymbal, i: int) -> dict[str, object]:
        field = "batter_m" if isinstance(part, Drum) else "centre_m"
        return {field: placed_at(part, points[i])}

    n = len(kit.drums)
    return kit.model_copy(
        update={
            "drums": tuple(d.model_copy(update=moved(d, i)) for i, d in enumerate(kit.drums)),
            "cymbals": tuple(
                c.model_copy(update=moved(c, n + i)) for i, c in enumerate(kit.cymbals)
            ),
        }
    )


def _mirrored(made: Truth) -> dict[str, Floats]:
    """Mics whose readings fit as well at the image of their place in the plane of their ends."""
    found = {}
    for i, mic in enumerate(made.layout.mics):
        if mic.id not in made.measured:
            continue
        image = _image(made, i)
        if image is None:
            continue
        start = made.net.points.copy()
        start[made.parts + i] = image
        other = solved_task(made.task, list(made.net.used), start)
        there = other.points[made.parts + i]
        far = float(np.linalg.norm(there - made.point(i)))
        fits = misfit(other).max() <= MISFIT
        if far > MIRROR_M and fits and other.cost < made.net.cost + MIRROR_COST:
            found[mic.id] = np.asarray(there)
    return found


def _image(made: Truth, mic: int) -> Floats | None:
    """The place of a mic mirrored in the upright plane its readings' ends lie in."""
    own = made.parts + mic
    ends = [
        a if b == own else b
        for a, b in (made.task.ends[n] for n in made.net.used)
        if own in (a, b) and b is not None
    ]
    if len(ends) < 2:
        return None
    at = made.net.points[ends][:, :2]
    middle = at.mean(axis=0)
    _, size, way = np.linalg.svd(at - middle)
    if len(ends) > 2 and size[1] > MIRROR_M:
        return None  # three ends that are not in one plane tell the sides apart
    across = np.array([-way[0][1], way[0][0]])
    here: Floats = made.net.points[own].copy()
    here[:2] -= 2 * float((here[:2] - middle) @ across) * across
    return here
