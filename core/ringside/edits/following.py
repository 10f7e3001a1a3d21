"""Close mics go with the drum or cymbal they are put up for."""

from typing import Any

import numpy as np

from ringside.arrays import Floats
from ringside.plan.drumframe import against, side_of
from ringside.plan.kit import Cymbal, Drum, centre_of, depth_of
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.values import unit, vector

Part = Drum | Cymbal


def turn_between(a: Floats, b: Floats) -> Floats:
    """The smallest rotation that takes one unit vector to another (Rodrigues' formula).

    Parameters
    ----------
    a, b : ndarray, shape (3,)
        Unit vectors.

    Returns
    -------
    ndarray, shape (3, 3)
        Multiplies column vectors from the left.
    """
    v, c = np.cross(a, b), float(a @ b)
    if c < -1 + 1e-9:  # turned over: any axis across will do
        u = np.cross(a, [1.0, 0.0, 0.0])
        u = np.cross(a, [0.0, 1.0, 0.0]) if np.linalg.norm(u) < 1e-6 else u
        u = u / np.linalg.norm(u)
        return np.asarray(2 * np.outer(u, u) - np.eye(3))
    k = np.array([[0, -v[2], v[1]], [v[2], 0, -v[0]], [-v[1], v[0], 0]])
    return np.asarray(np.eye(3) + k + k @ k / (1 + c))


def follow(mic: Mic, old: Part, new: Part) -> Mic:
    """The mic where it stands to the new part as it stood to the old one.

    Parameters
    ----------
    mic : Mic
    old : Part
        As it was.
    new : Part
        As it is now.

    Returns
    -------
    Mic
    """
    c1 = np.array(centre_of(new))
    a0, a1 = np.array(old.axis), np.array(new.axis)
    turn = turn_between(a0, a1)
    at, side = against(old, mic.position_m), side_of(old, mic.position_m)
    height, radial = float(at.height), float(at.radial)
    r0, r1 = old.diameter_m / 2, new.diameter_m / 2
    if side == "under":
        height -= depth_of(new) - depth_of(old)
    elif side != "over":
        height = max(height, -depth_of(new))
    keep = max(radial + r1 - r0, 0.0) if radial > r0 / 2 else radial
    flat = turn @ at.flat * (keep / radial if radial > 1e-9 else 1.0)
    return mic.model_copy(
        update={
            "position_m": vector(c1 + flat + height * a1),
            "aim": unit(turn @ np.array(mic.aim)),
        }
    )


def shape_of(part: Part) -> tuple[Any, ...]:
    """What of a part moves its mics when it changes: place, lean, size, depth.

    Parameters
    ----------
    part : Part

    Returns
    -------
    tuple of object
    """
    return (centre_of(part), part.axis, part.diameter_m, depth_of(part))


def followed(mics: tuple[Mic, ...], pairs: dict[str, tuple[Part, Part]]) -> tuple[Mic, ...]:
    """Mics with each close one moved with the part it is put up for: old, new by short name.

    Parameters
    ----------
    mics : tuple of Mic
    pairs : dict of str to (Part, Part)
        Old and new by short name.

    Returns
    -------
    tuple of Mic
    """
    out = []
    for mic in mics:
        ends = pairs.get(mic.job or "")
        if mic.role != "close" or ends is None or shape_of(ends[0]) == shape_of(ends[1]):
            out.append(mic)
        else:
            out.append(follow(mic, *ends))
    return tuple(out)


def moved(before: Layout, after: tuple[Mic, ...]) -> tuple[str, ...]:
    """The mics that stand elsewhere than before, by name.

    Parameters
    ----------
    before : Layout
        As it was.
    after : tuple of Mic
        As they are now.

    Returns
    -------
    tuple of str
    """
    was = {m.id: m.position_m for m in before.mics}
    return tuple(m.id for m in after if m.id in was and m.position_m != was[m.id])
