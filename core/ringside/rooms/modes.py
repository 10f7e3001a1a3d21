"""The modes of a room: which frequencies stand between its walls.

A box: f = c/2·√((nx/Lx)² + (ny/Ly)² + (nz/Lz)²) (Kuttruff, Room Acoustics, ch. 3). An L has
no such formula: its floor plan is solved as a membrane with free edges (`floorplan`) and the
height is added as for a box, because walls are upright: f = √(f_plan² + (c·nz/2Lz)²).

Modes are listed one by one as far as single ones can matter; above that they are counted
(Weyl's law: Kuttruff, eq. 3.20 in substance).
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.plan.room import Room, volume
from ringside.rooms.floorplan import plan_top, plan_wave_numbers

MODES_TOP_HZ: Final = 200.0
"""Modes are listed up to here: above it no small room has single ones."""

MOST_LISTED: Final = 400
"""A list longer than this is of use to nobody: its modes lie several to the hertz."""

TOGETHER_HZ: Final = 2.0
"""Modes closer than this pile up into one (from memory)."""

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

    Returns
    -------
    list of Mode

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


def l_modes(room: Room, speed: float, top_hz: float) -> list[Mode]:
    """Modes of an L-shaped room up to a frequency; the order counts (plan, height).

    Parameters
    ----------
    room : Room
    speed : float
        Speed of sound, m/s.
    top_hz : float
        Up to which frequency, hertz.

    Returns
    -------
    list of Mode
    """
    top = 2 * np.pi * top_hz / speed
    rows = []
    for p, k in enumerate(plan_wave_numbers(room, float(top))):
        for q in range(int(2 * top_hz * room.height_m / speed) + 1):
            hz = speed / (2 * np.pi) * float(np.hypot(k, np.pi * q / room.height_m))
            if 0 < hz <= top_hz and (p or q):
                kind: ModeKind = "plan" if q == 0 else "upright" if p == 0 else "mixed"
                rows.append(Mode(hz=hz, order=[p, q], kind=kind))
    return sorted(rows, key=lambda r: r.hz)


def counted(room: Room, speed: float, top_hz: float) -> float:
    """About how many modes a room has up to a frequency.

    Parameters
    ----------
    room : Room
    speed : float
        Speed of sound, m/s.
    top_hz : float
        Up to which frequency, hertz.

    Returns
    -------
    float

    References
    ----------
    Kuttruff, Room Acoustics, eq. 3.20: 4π/3·V(f/c)³ + π/4·S(f/c)² + L/8·(f/c), the surface
    and edges those of the box round the room.
    """
    a, b, c = room.width_m, room.length_m, room.height_m
    f = top_hz / speed
    surface, edges = 2 * (a * b + b * c + a * c), 4 * (a + b + c)
    return 4 * np.pi / 3 * volume(room) * f**3 + np.pi / 4 * surface * f**2 + edges / 8 * f


def listed_top_hz(room: Room, speed: float) -> float:
    """Up to where modes are listed one by one: 200 Hz, or lower in a large room, whole hertz.

    Parameters
    ----------
    room : Room
    speed : float
        Speed of sound, m/s.

    Returns
    -------
    float
        Hertz.
    """
    tops = np.arange(10.0, MODES_TOP_HZ + 1)
    few = [t for t in tops if counted(room, speed, float(t)) <= MOST_LISTED]
    top = few[-1] if few else tops[0]
    if room.notch is not None:
        top = min(top, plan_top(room) * speed / (2 * np.pi))
    return float(np.floor(top))


def modes(room: Room, speed: float, top_hz: float | None = None) -> list[Mode]:
    """The modes of a room, lowest first, up to where single ones matter or to `top_hz`.

    Parameters
    ----------
    room : Room
    speed : float
        Speed of sound, m/s.
    top_hz : float or None
        Up to which frequency, hertz.

    Returns
    -------
    list of Mode
    """
    top = listed_top_hz(room, speed) if top_hz is None else top_hz
    if room.notch is None:
        return box_modes((room.width_m, room.length_m, room.height_m), speed, top)
    return l_modes(room, speed, top)


def beyond_words(room: Room, speed: float) -> list[str]:
    """What is said of the modes that are counted and not listed; nothing where all are.

    Parameters
    ----------
    room : Room
    speed : float
        Speed of sound, m/s.

    Returns
    -------
    list of str
    """
    top = listed_top_hz(room, speed)
    if top >= MODES_TOP_HZ:
        return []
    more = counted(room, speed, MODES_TOP_HZ) - counted(room, speed, top)
    each = counted(room, speed, top) - counted(room, speed, top - 1)
    return [
        f"Above {top:.0f} Hz they lie {each:.0f} to the hertz or closer, about {more:.0f} more up"
        f" to {MODES_TOP_HZ:.0f} Hz: none is heard alone, so they are not listed."
    ]


def modes_words(rows: list[Mode]) -> list[str]:
    """Where modes pile up and where the widest gap between low ones is.

    Parameters
    ----------
    rows : list of Mode
        Lowest first.

    Returns
    -------
    list of str
    """
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
