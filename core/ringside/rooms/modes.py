"""The modes of a room: which frequencies stand between its walls.

A box: f = c/2·√((nx/Lx)² + (ny/Ly)² + (nz/Lz)²) (Kuttruff, Room Acoustics, ch. 3). An L has
no such formula: its floor plan is solved as a membrane with free edges on a grid of squares
(five-point Laplacian, whole cells between walls) and the height is added as for a box,
because walls are upright: f = √(f_plan² + (c·nz/2Lz)²).
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.plan.room import Room

MODES_TOP_HZ: Final = 200.0
"""Modes are listed up to here: above it no small room has single ones."""

CELL_M: Final = 0.1
"""Size of a grid cell of an L, metres: a fifteenth of the shortest wave in the list."""

TOGETHER_HZ: Final = 2.0
"""Modes closer than this pile up into one (from memory)."""

PLAN_CACHE: Final = 16


ModeKind = Literal["axial", "tangential", "oblique", "plan", "upright", "mixed"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Mode:
    """A mode of a room; the order counts half waves by direction (in an L: plan, height)."""

    hz: float
    order: list[int]
    kind: ModeKind


def box_modes(size_m: tuple[float, float, float], speed: float, top_hz: float) -> list[Mode]:
    """Modes of a box up to a frequency, lowest first.

    Parameters
    ----------
    size_m : (float, float, float)
        Metres.
    speed, top_hz : float
        Speed of sound, m/s; the highest frequency, hertz.

    References
    ----------
    Kuttruff, Room Acoustics, ch. 3.
    """
    most = [int(2 * top_hz * length / speed) + 1 for length in size_m]
    grid = np.stack(np.meshgrid(*[np.arange(n + 1) for n in most], indexing="ij"), -1)
    order = grid.reshape(-1, 3)[1:]
    hz = speed / 2 * np.sqrt(((order / np.array(size_m)) ** 2).sum(axis=1))
    keep = hz <= top_hz
    rows = [
        Mode(hz=float(f), order=[int(v) for v in n], kind=_kind(int((n > 0).sum())))
        for f, n in zip(hz[keep], order[keep], strict=True)
    ]
    return sorted(rows, key=lambda r: r.hz)


def _kind(directions: int) -> ModeKind:
    kinds: tuple[ModeKind, ...] = ("axial", "tangential", "oblique")
    return kinds[directions - 1]


@lru_cache(maxsize=PLAN_CACHE)
def _plan_numbers(outline: tuple[float, ...], corner: str, top: float) -> tuple[float, ...]:
    """Wave numbers of the floor plan up to `top`, rad/m, lowest (0) first."""
    from scipy.sparse import coo_array
    from scipy.sparse.linalg import eigsh

    width, length, cut_w, cut_l = outline
    # Cells are fitted to the walls: whole numbers of them across each stretch.
    xs = _edges(width, cut_w if "left" in corner else width - cut_w)
    ys = _edges(length, cut_l if "back" in corner else length - cut_l)
    dx, dy = np.diff(xs), np.diff(ys)
    mx, my = (xs[:-1] + xs[1:]) / 2, (ys[:-1] + ys[1:]) / 2
    x, y = np.meshgrid(mx, my, indexing="ij")
    out_x = x < cut_w if "left" in corner else x > width - cut_w
    out_y = y < cut_l if "back" in corner else y > length - cut_l
    inside = ~(out_x & out_y)
    number = np.full(inside.shape, -1)
    number[inside] = np.arange(int(inside.sum()))
    area = np.outer(dx, dy)[inside]
    rows, cols, values = [], [], []
    diagonal = np.zeros(len(area))
    for axis in (0, 1):
        a = number[:-1, :] if axis == 0 else number[:, :-1]
        b = number[1:, :] if axis == 0 else number[:, 1:]
        if axis == 0:
            flow = np.outer(2 / (dx[:-1] + dx[1:]), dy)
        else:
            flow = np.outer(dx, 2 / (dy[:-1] + dy[1:]))
        both = (a >= 0) & (b >= 0)
        i, j, g = a[both], b[both], flow[both]
        # Symmetric in the weights of the cells: D^-1/2 K D^-1/2.
        scale = g / np.sqrt(area[i] * area[j])
        rows += [i, j]
        cols += [j, i]
        values += [-scale, -scale]
        np.add.at(diagonal, i, g / area[i])
        np.add.at(diagonal, j, g / area[j])
    n = len(area)
    every = np.arange(n)
    matrix = coo_array(
        (np.concatenate([*values, diagonal]),
         (np.concatenate([*rows, every]), np.concatenate([*cols, every]))), shape=(n, n),
    ).tocsc()  # fmt: skip
    floor = width * length - cut_w * cut_l
    # Weyl's law with the edge term tells how many there will be.
    about = floor * top**2 / (4 * np.pi) + 2 * (width + length) * top / (4 * np.pi)
    count = min(int(about) + 6, n - 2)
    start = np.ones(n) + 0.01 * np.arange(n) / n  # fixed, so that the same room answers the same
    squares = eigsh(matrix, k=count, sigma=-0.1, which="LM", v0=start, return_eigenvectors=False)
    found = np.sqrt(np.maximum(np.sort(squares), 0.0))
    return tuple(float(k) for k in found if k <= top)


def _edges(whole: float, at: float) -> Floats:
    """Cell edges along one side, with one at the inner wall."""
    first = np.linspace(0, at, max(round(at / CELL_M), 2) + 1)
    rest = np.linspace(at, whole, max(round((whole - at) / CELL_M), 2) + 1)
    return np.concatenate([first, rest[1:]])


def plan_wave_numbers(room: Room, top: float) -> tuple[float, ...]:
    """Wave numbers of the floor plan of an L up to `top`, rad/m, the uniform one (0) first."""
    n = room.notch
    assert n is not None
    outline = (room.width_m, room.length_m, n.width_m, n.length_m)
    return _plan_numbers(outline, n.corner, top)


def l_modes(room: Room, speed: float, top_hz: float) -> list[Mode]:
    """Modes of an L-shaped room up to a frequency; the order counts (plan, height)."""
    top = 2 * np.pi * top_hz / speed
    rows = []
    for p, k in enumerate(plan_wave_numbers(room, float(top))):
        for q in range(int(2 * top_hz * room.height_m / speed) + 1):
            hz = speed / (2 * np.pi) * float(np.hypot(k, np.pi * q / room.height_m))
            if 0 < hz <= top_hz and (p or q):
                kind: ModeKind = "plan" if q == 0 else "upright" if p == 0 else "mixed"
                rows.append(Mode(hz=hz, order=[p, q], kind=kind))
    return sorted(rows, key=lambda r: r.hz)


def modes(room: Room, speed: float, top_hz: float = MODES_TOP_HZ) -> list[Mode]:
    """The modes of a room, lowest first."""
    if room.notch is None:
        return box_modes((room.width_m, room.length_m, room.height_m), speed, top_hz)
    return l_modes(room, speed, top_hz)


def modes_words(rows: list[Mode]) -> list[str]:
    """Where modes pile up and where the widest gap between low ones is."""
    low = [r.hz for r in rows if r.hz <= 120]
    if len(low) < 2:
        return ["So small a room has hardly a mode under 120 Hz: it will sound thin and boxy."]
    gaps = np.diff(low)
    wide = int(gaps.argmax())
    said = [
        f"The lowest stands at {low[0]:.0f} Hz; the widest gap is from {low[wide]:.0f} to"
        f" {low[wide + 1]:.0f} Hz."
    ]
    piled = [
        (a + c) / 2
        for a, b, c in zip(low, low[1:], low[2:], strict=False)
        if c - a <= TOGETHER_HZ and b
    ]
    if piled:
        said.append(f"Three pile up near {piled[0]:.0f} Hz: a kick tuned there will boom.")
    return said
