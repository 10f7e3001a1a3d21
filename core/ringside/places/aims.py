"""What the front of a capsule points at, in words, and how to point it at something."""

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.errors import RingsideError
from ringside.hear.scene import Scene, scene_of
from ringside.plan.drumframe import off_head
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.openings import in_sight
from ringside.plan.spoken import the
from ringside.values import Vector

LEVEL_DEG = 15.0


STEEP_DEG = 60.0


AIMED_DEG = 18.0
"""A mic is said to be aimed at a drum when its front points within this much of it."""


_FAR_FACE = {"kick": "front head", "snare": "wires"}


_AROUND = (
    "audience", "right front", "right", "right back", "drummer", "left back", "left", "left front",
)  # fmt: skip


def _to_faces(scene: Scene) -> tuple[Floats, Mask]:
    """From each capsule to the face of each source on its side (M, S, 3), and which are far."""
    s = scene.sources
    at = off_head(scene.capsule[:, None], s.centre, s.axis, s.radius, s.depth)
    far = (at.behind > 0) & s.drum
    face = np.where(far[..., None], s.centre - s.depth[:, None] * s.axis, s.centre)
    return face - scene.capsule[:, None], far


def aim_at(layout: Layout, mic: str, target: str) -> Vector:
    """The unit direction from a mic to the nearer face of a drum, or to a cymbal's bell.

    Parameters
    ----------
    target : str
        Name of a drum or cymbal, or ``down`` or ``up``.

    Returns
    -------
    tuple of float, shape (3,)

    Raises
    ------
    RingsideError
        When there is no such mic or target, or the capsule stands on the spot itself.
    """
    ids, sources = [m.id for m in layout.mics], layout.kit.source_ids
    if mic not in ids:
        raise RingsideError(f"expected a mic of this layout, got {mic!r}")
    if target in ("down", "up"):
        return (0.0, 0.0, -1.0 if target == "down" else 1.0)
    if target not in sources:
        raise RingsideError(f"expected a drum or cymbal of the kit, got {target!r}")
    to = _to_faces(scene_of(layout))[0][ids.index(mic), sources.index(target)]
    reach = float(np.linalg.norm(to))
    if reach < 1e-6:
        raise RingsideError(f"{mic} stands on the very spot; move it before aiming it there")
    x, y, z = (float(v) for v in to / reach)
    return (x, y, z)


def aim_words(layout: Layout, scene: Scene | None = None) -> list[str]:
    """What the front of each capsule points at, or how it is turned; one text per mic.

    Parameters
    ----------
    layout : Layout
    scene : Scene or None
        Its arrays, where they are at hand.

    Returns
    -------
    list of str
    """
    scene, mics = scene or scene_of(layout), layout.mics
    if not mics:
        return []
    to, far = _to_faces(scene)
    reach = np.linalg.norm(to, axis=-1)
    cos = np.einsum("msi,mi->ms", to, scene.aim) / np.maximum(reach, 1e-9)
    best = cos.argmax(axis=1)
    near = cos.max(axis=1) > np.cos(np.radians(AIMED_DEG))
    return [
        _at(layout, mic, int(best[i]), to[i, best[i]], far=bool(far[i, best[i]]))
        if near[i]
        else _turned(mic.aim)
        for i, mic in enumerate(mics)
    ]


def _at(layout: Layout, mic: Mic, source: int, to: Floats, *, far: bool) -> str:
    """That a mic points at a source; a wall between is no reason against it, but it is said."""
    words = f"at {_face_name(layout, source, far)}"
    at = np.asarray(mic.position_m)
    return words if in_sight(layout.room, at, at + to) else f"{words}, a wall between"


def _face_name(layout: Layout, source: int, far: bool) -> str:
    part = layout.kit.parts[source]
    name = the(part.name)
    return f"{name} {_FAR_FACE.get(part.kind, 'bottom head')}" if far else name


def _turned(aim: Vector) -> str:
    """How an aim is turned that points at no drum."""
    up = float(np.degrees(np.arcsin(np.clip(aim[2], -1, 1))))
    if abs(up) >= STEEP_DEG:
        return "straight down" if up < 0 else "straight up"
    where = _AROUND[round(float(np.degrees(np.arctan2(aim[0], aim[1]))) / 45) % 8]
    tilt = "" if abs(up) < LEVEL_DEG else ", tilted down" if up < 0 else ", tilted up"
    return f"toward the {where}{tilt}"
