"""Null aiming: turn a mic so that its dead side faces the loudest neighbour.

A first-order pattern a + (1 - a)·cos θ is nothing at cos θ = -a / (1 - a): 180° for a
cardioid, 125 to 127° super-, 109.5° hypercardioid, 90° figure-8 (IEC 60268-4 quantities as
tabulated in Eargle, The Microphone Book). Omni and wide cardioid have none; they are
quietest at the back. The front stays within a chosen angle of the drum.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.hear.arrivals import Arrivals, arrivals
from ringside.hear.scene import scene_of, sources_of
from ringside.plan.drumframe import nearest_metal
from ringside.plan.kit import Cymbal, Kit
from ringside.plan.layout import Layout
from ringside.plan.mics import PRESSURE_SHARE, directivity
from ringside.plan.spoken import the
from ringside.values import Vector

OFF_DEG: Final = 30.0
"""How far the front of a mic may be turned off its drum to find a null (common practice)."""

FLOOR_DB: Final = -60.0

PLAYED_DB: Final[dict[str, float]] = {
    "hats": 8.0, "ride": 5.0, "crash": 0.0, "splash": -3.0, "china": 0.0, "rack": -10.0,
    "floor": -10.0, "hand drum": -6.0, "percussion": -3.0,
}  # fmt: skip
"""How much more, or less, a neighbour is in the way for how often it is played (from memory):
hats go on all through the song, a tom is a few strokes."""


def null_angle(pressure_share: float) -> float:
    """The angle off the front at which a pattern hears least, radians.

    Parameters
    ----------
    pressure_share : float
        1 for an omni, 0.5 for a cardioid, 0 for a figure-8.

    Returns
    -------
    float
        Radians.
    """
    a = pressure_share
    if a > 0.5:
        return float(np.pi)
    return float(np.arccos(-a / (1 - a)))


def response_db(pressure_share: float, angle: float) -> float:
    """The pattern's theory at an angle off the front, decibels; -60 stands for nothing.

    Parameters
    ----------
    pressure_share : float
        1 for an omni, 0.5 for a cardioid, 0 for a figure-8.
    angle : float
        Off the front, radians.

    Returns
    -------
    float
        Decibels.
    """
    r = abs(float(directivity(pressure_share, np.cos(angle))))
    return max(20 * float(np.log10(max(r, 1e-6))), FLOOR_DB)


def best_way(own: ArrayLike, neighbour: ArrayLike, pressure_share: float, off: float) -> Floats:
    """The aim that hears a neighbour least with the front within an angle of the drum.

    Parameters
    ----------
    own, neighbour : array_like, shape (3,)
        Directions from the capsule, any length.
    pressure_share : float
        The a of the pattern.
    off : float
        How far the front may be from the drum, radians.

    Returns
    -------
    ndarray
        Unit (3,). The best aim lies in the plane of the two directions: off that plane the
        angle to the neighbour can only come nearer to a right angle.
    """
    d = np.asarray(own, dtype=float) / np.linalg.norm(own)
    b = np.asarray(neighbour, dtype=float) / np.linalg.norm(neighbour)
    phi = float(np.arccos(np.clip(d @ b, -1, 1)))
    away = -(b - d * float(d @ b))
    size = float(np.linalg.norm(away))
    if size < 1e-9:
        away = np.cross(d, [0.0, 0.0, 1.0] if abs(d[2]) < 0.9 else [1.0, 0.0, 0.0])
        size = float(np.linalg.norm(away))
    turn = float(np.clip(null_angle(pressure_share) - phi, -off, off))
    return np.asarray(np.cos(turn) * d + np.sin(turn) * away / size)


def loudest_near(kit: Kit, point: ArrayLike, own: str) -> str | None:
    """What is most in the way at a point besides the mic's own drum: peak, distance, how often.

    Common practice: the hats when miking the snare, the crash when miking the ride.

    Parameters
    ----------
    kit : Kit
    point : array_like, shape (3,)
        Metres.
    own : str
        Short name of the drum the mic is for.

    Returns
    -------
    str or None
    """
    src = sources_of(kit)
    away = np.linalg.norm(src.strike - np.asarray(point, dtype=float), axis=1)
    played = np.array([PLAYED_DB.get(p.kind, 0.0) for p in kit.parts])
    loud = src.peak_db + played - 20 * np.log10(np.maximum(away, 0.05))
    ranked = [src.ids[i] for i in np.argsort(-loud, kind="stable") if src.ids[i] != own]
    return ranked[0] if ranked else None


def _row(layout: Layout, mic_id: str) -> int:
    ids = [m.id for m in layout.mics]
    if mic_id not in ids:
        raise RingsideError(f"expected a mic of this layout, got {mic_id!r}")
    return ids.index(mic_id)


@dataclass(frozen=True, kw_only=True, slots=True)
class NullAim:
    """The aim that turns a null to a neighbour, and what it takes out. Decibels, degrees."""

    aim: Vector
    neighbour: str
    off_deg: float
    """Of the new aim to the mic's own drum."""
    taken_db: float
    """How much less of the neighbour there is against the drum."""
    own_db: float
    """What the drum itself loses."""
    theory_db: float
    """What the pattern leaves of the neighbour at that angle, on paper."""
    null_deg: float
    """Where the pattern's null is, off the front."""
    words: str


def null_aim(
    layout: Layout, mic_id: str, neighbour: str | None = None, off_deg: float = OFF_DEG
) -> NullAim:
    """Turn a close mic's null toward a neighbour, and say what that takes out.

    Parameters
    ----------
    neighbour : str, optional
        The drum or cymbal to turn away from; the loudest at the capsule when not given.
    off_deg : float
        How far the front may be from the mic's own drum, degrees.

    Returns
    -------
    NullAim

    Raises
    ------
    RingsideError
        When the mic is for the whole kit, or the neighbour is not in the kit.
    """
    row, mic = _row(layout, mic_id), layout.mic(mic_id)
    if mic.job is None:
        raise RingsideError(f"{mic_id} is for the whole kit; only a close mic has a neighbour")
    if not 0 <= off_deg <= 90:
        raise RingsideError("expected an angle of 0 to 90 degrees off the drum")
    scene = scene_of(layout)
    ids, before = scene.sources.ids, arrivals(scene, layout.thresholds)
    own = ids.index(mic.job)
    wanted = neighbour or loudest_near(layout.kit, mic.position_m, mic.job)
    if wanted not in ids or wanted == mic.job:
        raise RingsideError(f"expected another drum or cymbal of the kit, got {wanted!r}")
    other = ids.index(wanted)
    share = PRESSURE_SHARE[mic.pattern]
    part = layout.kit.part(mic.job)
    to_own, to_other = before.toward[row, own], before.toward[row, other]
    if isinstance(part, Cymbal):  # a plate is miked where it is nearest, not where it is struck
        to_own = nearest_metal(mic.position_m, part) - np.array(mic.position_m)
    if min(np.linalg.norm(to_own), np.linalg.norm(to_other)) < 1e-6:
        raise RingsideError(f"{mic_id} stands on the very drum; move it before aiming it")
    way = best_way(to_own, to_other, share, float(np.radians(off_deg)))
    aim: Vector = (float(way[0]), float(way[1]), float(way[2]))
    turned = layout.with_mic(mic.model_copy(update={"aim": aim}))
    after = arrivals(scene_of(turned), layout.thresholds)
    off = float(np.arccos(np.clip(to_own @ way / np.linalg.norm(to_own), -1, 1)))
    return _told(before, after, row, own, other, ids, share, way, layout, off)


def _told(
    before: Arrivals, after: Arrivals, row: int, own: int, other: int, ids: tuple[str, ...],
    share: float, way: Floats, layout: Layout, off: float,
) -> NullAim:  # fmt: skip
    def angle(k: int) -> float:
        to = after.toward[row, k]
        return float(np.arccos(np.clip(to @ way / np.linalg.norm(to), -1, 1)))

    lost = float(before.level_db[row, own] - after.level_db[row, own])
    gone = float(before.level_db[row, other] - after.level_db[row, other])
    names = {p.id: the(p.name) for p in layout.kit.parts}
    theory = response_db(share, angle(other))
    mic = layout.mics[row].id
    taken = gone - lost
    if abs(taken) < 0.05:
        words = f"{mic} cannot be turned to hear less of {names[ids[other]]}."
    else:
        words = (
            f"Turned {np.degrees(off):.0f}° off {names[ids[own]]}, {mic} hears"
            f" {names[ids[other]]} {taken:.1f} dB less against it; on paper the pattern leaves"
            f" {theory:.1f} dB of it."
        )
    x, y, z = (float(v) for v in way)
    return NullAim(
        aim=(x, y, z),
        neighbour=ids[other],
        off_deg=float(np.degrees(off)),
        taken_db=taken,
        own_db=lost,
        theory_db=theory,
        null_deg=float(np.degrees(null_angle(share))),
        words=words,
    )
