"""How a room answers: decay by band, the Schroeder frequency, critical distance, plain words.

Sabine and Eyring decay with the absorption of the air, and the critical distance, after
H. Kuttruff, Room Acoustics, ch. 5: T = 24·ln 10·V / (c·(A + 4mV)) with A = Σ S·α (Sabine)
or -S·ln(1 - ᾱ) (Eyring). Schroeder frequency 2000·√(T/V) (M. Schroeder 1962 and 1996, as
given there). Bands 125 Hz to 8 kHz; metres, seconds, hertz.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.plan.air import absorption_db_m
from ringside.plan.kit import Kit
from ringside.plan.layout import Air, Layout
from ringside.plan.materials import BANDS_HZ, alpha
from ringside.plan.mics import PRESSURE_SHARE
from ringside.plan.openings import Reach, next_door, reach_of
from ringside.plan.room import SURFACES, Room, floor_area, inside_floor, to_room, volume

UNMEASURED_HUMIDITY_PCT: Final = 50.0
"""What the air's absorption is worked out for where nobody measured it (common practice)."""

RUG_MATERIAL: Final = "thick carpet"
DRY_S: Final = 0.25
TIGHT_S: Final = 0.45
LIVE_S: Final = 0.8
"""Mid decay, seconds, up to which a room is called dry, tight, live; longer is long (memory)."""

SPLASH_RATIO: Final = 1.25
"""Decay at 2 and 4 kHz over that at 125 and 250 Hz from which cymbals splash (from memory)."""

BOOM_RATIO: Final = 1.6
"""The same the other way round: the low end hangs on (from memory)."""

LOW_M: Final = 2.6
"""A ceiling below this throws the cymbals back at once (common practice)."""


@dataclass(frozen=True, slots=True)
class Area:
    """Square metres of one material, and where."""

    where: str
    material: str
    m2: float


Reached = Reach | Literal["here", "outside"]


@dataclass(frozen=True, kw_only=True, slots=True)
class DirectRow:
    """A mic off the kit against its critical distance."""

    mic: str
    distance_m: float
    reach_m: float
    direct_db: float
    reached: Reached
    """In the room; or by what the kit is heard in an adjoining space, where the room's own decay
    says nothing; or neither."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Decay:
    """Decay in seven octave bands, seconds, and what follows from it."""

    bands_hz: list[float]
    sabine_s: list[float]
    eyring_s: list[float]
    mid_s: float
    volume_m3: float
    surface_m2: float
    schroeder_hz: float
    critical_m: float
    areas: list[Area]
    words: list[str]
    mics: list[DirectRow]


def wall_area(room: Room, wall: str) -> float:
    """Square metres of a wall; what an L cuts from one stretch it adds as an inner wall.

    Parameters
    ----------
    room : Room
    wall : str

    Returns
    -------
    float
        m².
    """
    return (room.width_m if wall in ("back", "front") else room.length_m) * room.height_m


def areas(room: Room, kit: Kit | None = None) -> list[Area]:
    """Every surface with what covers it; the rug covers floor and a door covers wall.

    Parameters
    ----------
    room : Room
    kit : Kit or None
        Which stands on the floor, if one does.

    Returns
    -------
    list of Area
    """
    rug = 0.0
    if kit is not None and kit.rug is not None:
        rug = min(kit.rug.width_m * kit.rug.length_m, floor_area(room))
    parts = []
    for name in SURFACES:
        material = getattr(room.surfaces, name)
        if name in ("floor", "ceiling"):
            parts.append(Area(name, material, floor_area(room) - (rug if name == "floor" else 0)))
            continue
        doors = [d for d in room.doors if d.wall == name]
        bare = wall_area(room, name) - sum(d.width_m * d.height_m for d in doors)
        parts.append(Area(name, material, max(bare, 0.0)))
        parts += [
            Area(f"door, {name}", "open" if d.open else "wooden door", d.width_m * d.height_m)
            for d in doors
        ]
    if rug:
        parts.append(Area("rug", RUG_MATERIAL, rug))
    parts += [Area(g.name, g.material, 2 * g.width_m * g.height_m) for g in room.gobos]
    return parts


def air_m(air: Air) -> Floats:
    """Energy attenuation of the air in each band.

    Parameters
    ----------
    air : Air

    Returns
    -------
    ndarray, shape (7,)
        Per metre.
    """
    humidity = UNMEASURED_HUMIDITY_PCT if air.humidity_pct is None else air.humidity_pct
    return np.asarray(
        absorption_db_m(BANDS_HZ, air.temperature_c, humidity) / (10 * np.log10(np.e))
    )


def decay(parts: list[Area], cubic_m: float, speed: float, air: Floats) -> tuple[Floats, Floats]:
    """Sabine and Eyring decay times in each band.

    Parameters
    ----------
    parts : list of Area
    cubic_m : float
        Volume, m³.
    speed : float
        Speed of sound, m/s.
    air : ndarray, shape (7,)
        Energy attenuation of the air, 1/m.

    Returns
    -------
    (ndarray, ndarray)
        Seconds for 60 dB, each (7,). Eyring is 0 where everything is open.
    """
    size = np.array([p.m2 for p in parts])
    taken = np.array([alpha(p.material) for p in parts])
    total = size @ taken
    mean = np.minimum(total / size.sum(), 1 - 1e-9)
    const = 24 * np.log(10) * cubic_m / speed
    sabine = const / (total + 4 * air * cubic_m)
    eyring = const / (-size.sum() * np.log1p(-mean) + 4 * air * cubic_m)
    return np.asarray(sabine), np.asarray(eyring)


def schroeder_hz(decay_s: float, cubic_m: float) -> float:
    """Above it single modes are no longer heard, hertz: 2000·√(T/V).

    Parameters
    ----------
    decay_s : float
        Decay over 60 dB, seconds.
    cubic_m : float
        Volume, m³.

    Returns
    -------
    float
        Hertz.
    """
    return float(2000 * np.sqrt(decay_s / cubic_m))


def critical_distance(cubic_m: float, decay_s: float, q: float = 1.0) -> float:
    """Where direct and reverberant sound are equal, metres: 0.057·√(Q·V/T).

    Parameters
    ----------
    cubic_m : float
        Volume, m³.
    decay_s : float
        Decay over 60 dB, seconds.
    q : float
        Directivity of the source; 1 for one that sends alike to all sides.

    Returns
    -------
    float
        Metres.
    """
    return float(0.057 * np.sqrt(q * cubic_m / decay_s))


def random_energy(pressure_share: float) -> float:
    """Share of a diffuse field a first-order mic takes up: a² + (1 - a)²/3 (Eargle).

    Parameters
    ----------
    pressure_share : float
        1 for an omni, 0.5 for a cardioid, 0 for a figure-8.

    Returns
    -------
    float
        From 0 to 1.
    """
    return pressure_share**2 + (1 - pressure_share) ** 2 / 3


def words_for_decay(room: Room, times: Floats) -> list[str]:
    """What the room will do to a kit, in plain words.

    Parameters
    ----------
    room : Room
    times : ndarray, shape (7,)
        Decay in each of `BANDS_HZ`, seconds.

    Returns
    -------
    list of str
    """
    mid = float(times[2:4].mean())
    low, high = float(times[:2].mean()), float(times[4:6].mean())
    said = []
    if mid < DRY_S:
        said.append("Dry: the room mics will hear little but the kit itself.")
    elif mid < TIGHT_S:
        said.append("Tight: enough room to add, and gone before the next beat.")
    elif mid < LIVE_S:
        said.append("Live: the room mics will carry weight; watch fast playing.")
    else:
        said.append("Long: suits big, slow sounds; close mics will hear it too.")
    if high > low * SPLASH_RATIO:
        said.append("Splashy: the top rings on longer than the bottom.")
    if low > high * BOOM_RATIO:
        said.append("The low end hangs on after the top is gone.")
    if room.height_m < LOW_M:
        said.append("The low ceiling throws the cymbals back early: treat it over the kit.")
    return said


def decay_report(layout: Layout) -> Decay | None:
    """Decay by band and what follows from it; None without a room.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Decay or None
    """
    room = layout.room
    if room is None:
        return None
    parts, cubic = areas(room, layout.kit), volume(room)
    sabine, eyring = decay(parts, cubic, layout.air.speed, air_m(layout.air))
    mid = float(eyring[2:4].mean())
    return Decay(
        bands_hz=list(BANDS_HZ),
        sabine_s=[round(float(t), 3) for t in sabine],
        eyring_s=[round(float(t), 3) for t in eyring],
        mid_s=mid,
        volume_m3=cubic,
        surface_m2=sum(p.m2 for p in parts),
        schroeder_hz=schroeder_hz(mid, cubic),
        critical_m=critical_distance(cubic, mid),
        areas=parts,
        words=words_for_decay(room, eyring),
        mics=_direct_to_room(layout, cubic, mid),
    )


def _direct_to_room(layout: Layout, cubic: float, mid: float) -> list[DirectRow]:
    """Each mic in the room that is no close mic: how far beyond the critical distance it is."""
    room = layout.room
    if room is None:
        return []
    away = [m for m in layout.mics if m.role != "close"]
    if not away:
        return []
    snare = np.array(layout.kit.first("snare").batter_m)
    rows = []
    for m in away:
        at = to_room(np.array([m.position_m]), room)
        distance = float(np.linalg.norm(np.array(m.position_m) - snare))
        q = 1 / random_energy(PRESSURE_SHARE[m.pattern])
        reach = critical_distance(cubic, mid, q)
        rows.append(
            DirectRow(
                mic=m.id,
                distance_m=distance,
                reach_m=reach,
                direct_db=float(20 * np.log10(reach / max(distance, 0.05))),
                reached=_reached(at, room),
            )
        )
    return rows


def _reached(at: Floats, room: Room) -> Reached:
    """How the kit is heard at a point, (1, 3), in room coordinates."""
    if inside_floor(at[:, 0], at[:, 1], room)[0]:
        return "here"
    space = int(next_door(at, room)[0])
    return reach_of(space, room) if space >= 0 else "outside"
