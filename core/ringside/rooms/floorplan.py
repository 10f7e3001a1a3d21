"""Standing waves of an L-shaped floor plan: its wave numbers, by spectral elements.

The floor plan is a membrane with free edges. It is cut into rectangles that meet at the inner
corner, at most `PER_WAVE` of the shortest wave across, each with polynomials of degree
`DEGREE` on Gauss-Lobatto points (Patera, J. Comput. Phys. 54 (1984) 468; Karniadakis & Sherwin,
Spectral/hp Element Methods, ch. 2). With the same points for the integrals the mass matrix is
diagonal, so the wave numbers are plain eigenvalues. Beside the inner corner, where the field is
not smooth, a thin rectangle is put on either side.
"""

from functools import lru_cache
from typing import TYPE_CHECKING, Final

import numpy as np
from numpy.polynomial import legendre

from ringside.arrays import Floats
from ringside.plan.room import Room

if TYPE_CHECKING:
    from scipy.sparse import csc_array

DEGREE: Final = 6
PER_WAVE: Final = 1.3
"""Errors of a wave number stay under a thousandth."""

GRADED: Final = 0.15
"""The thin rectangles beside the inner corner, as a share of the others."""

PLAN_CACHE: Final = 64
MOST_PLAN: Final = 100
"""Plan modes that are worked out; a larger room has single modes only lower down."""


@lru_cache(maxsize=1)
def _points() -> tuple[Floats, Floats, Floats]:
    """Gauss-Lobatto points and weights, and the stiffness of one element of length 2."""
    p = DEGREE
    top = np.eye(p + 1)[p]
    x = np.concatenate([[-1.0], np.sort(legendre.legroots(legendre.legder(top))), [1.0]])
    value = legendre.legval(x, top)
    weight = 2 / (p * (p + 1) * value**2)
    gap = x[:, None] - x[None, :] + np.eye(p + 1)
    slope = value[:, None] / value[None, :] / gap
    np.fill_diagonal(slope, 0.0)
    slope[0, 0], slope[p, p] = -p * (p + 1) / 4, p * (p + 1) / 4
    return x, weight, slope.T @ (weight[:, None] * slope)


def _edges(whole: float, at: float, size: float) -> Floats:
    """Element edges along one side: even stretches, with thin ones on both sides of the corner."""
    first = np.linspace(0, at, int(np.ceil(at / size)) + 1)
    rest = np.linspace(at, whole, int(np.ceil((whole - at) / size)) + 1)
    thin = GRADED * min(first[-1] - first[-2], rest[1] - rest[0])
    return np.concatenate([first[:-1], [at - thin, at, at + thin], rest[1:]])


def _matrix(ex: Floats, ey: Floats, cut: tuple[float, float]) -> "csc_array":
    """Stiffness of all elements outside the cut corner (at the origin), by its mass: (N, N)."""
    from scipy.sparse import coo_array

    p, (_, weight, stiff) = DEGREE, _points()
    across, along = (len(ex) - 1) * p + 1, (len(ey) - 1) * p + 1
    number = np.arange(across * along).reshape(across, along)
    mass = np.zeros((across, along))
    i, j, v = [], [], []
    for a, b in np.ndindex(len(ex) - 1, len(ey) - 1):
        if ex[a + 1] <= cut[0] + 1e-9 and ey[b + 1] <= cut[1] + 1e-9:
            continue
        hx, hy = (ex[a + 1] - ex[a]) / 2, (ey[b + 1] - ey[b]) / 2
        here = np.s_[a * p : a * p + p + 1, b * p : b * p + p + 1]
        mass[here] += np.outer(weight, weight) * hx * hy
        grid = number[here]
        for lines, w in ((grid.T, hy / hx), (grid, hx / hy)):
            i.append(np.repeat(lines, p + 1, axis=1).ravel())
            j.append(np.tile(lines, (1, p + 1)).ravel())
            v.append((w * weight[:, None, None] * stiff).ravel())
    there = mass.ravel() > 0
    place = np.cumsum(there) - 1
    rows, cols = place[np.concatenate(i)], place[np.concatenate(j)]
    root = np.sqrt(mass.ravel()[there])
    values = np.concatenate(v) / root[rows] / root[cols]
    return coo_array((values, (rows, cols)), shape=(len(root), len(root))).tocsc()


def counted(area_m2: float, edge_m: float, top: float) -> float:
    """About how many wave numbers a floor plan has up to `top`, rad/m: Weyl's law with edges.

    Parameters
    ----------
    area_m2, edge_m : float
        Of the floor, square metres; round it, metres.
    top : float

    Returns
    -------
    float
    """
    return area_m2 * top**2 / (4 * np.pi) + edge_m * top / (4 * np.pi)


@lru_cache(maxsize=PLAN_CACHE)
def _plan_numbers(outline: tuple[float, ...], top: float) -> tuple[float, ...]:
    from scipy.sparse.linalg import eigsh

    width, length, cut_w, cut_l = outline
    size = PER_WAVE * 2 * np.pi / top
    matrix = _matrix(_edges(width, cut_w, size), _edges(length, cut_l, size), (cut_w, cut_l))
    n = matrix.shape[0]
    about = counted(width * length - cut_w * cut_l, 2 * (width + length), top)
    count = min(int(about) + 6, n - 2)
    start = np.ones(n) + 0.01 * np.arange(n) / n  # fixed, so that the same room answers the same
    squares = eigsh(matrix, k=count, sigma=-0.1, which="LM", v0=start, return_eigenvectors=False)
    found = np.sqrt(np.maximum(np.sort(squares), 0.0))
    return tuple(float(k) for k in found if k <= top)


def plan_top(room: Room) -> float:
    """Up to which wave number the plan of a room has about `MOST_PLAN` modes, rad/m.

    Parameters
    ----------
    room : Room

    Returns
    -------
    float
        rad/m.
    """
    n = room.notch
    area = room.width_m * room.length_m - (n.width_m * n.length_m if n else 0.0)
    edge = 2 * (room.width_m + room.length_m)
    return float((np.sqrt(edge**2 + 16 * np.pi * MOST_PLAN * area) - edge) / (2 * area))


def plan_wave_numbers(room: Room, top: float) -> tuple[float, ...]:
    """Wave numbers of the floor plan of an L up to `top`, rad/m, the uniform one (0) first.

    Whichever corner is cut the plan is the same, turned over.

    Parameters
    ----------
    room : Room
    top : float
        Wave number, rad/m.

    Returns
    -------
    tuple of float
        rad/m.
    """
    n = room.notch
    assert n is not None
    return _plan_numbers((room.width_m, room.length_m, n.width_m, n.length_m), top)
