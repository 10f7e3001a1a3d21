"""How sound gets from every face of the kit to every capsule: image sources in the room.

A drum is two faces that move as one: what the struck head does to the air above it, the other
head does with the other sign below, later by the travel through the shell. Each face sounds
outward, as a cardioid along the axis, and a mic beside the shell hears both, which is what makes
its sign unsure. A mic inside a shell hears the struck head from within, and other drums through
the shell. Images, patterns and surfaces are those of pyroomacoustics (its documentation has the
method: Allen and Berkley, J. Acoust. Soc. Am. 65 (1979) 943), not those the verdicts are made of.
"""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats
from ringside.constants import SHELL_LOSS_DB
from ringside.hear.bends import bends
from ringside.hear.scene import edge_toward
from ringside.plan.drumframe import off_head
from ringside.plan.kit import Cymbal, Drum, centre_of, depth_of
from ringside.plan.layout import Layout
from ringside.plan.materials import BANDS_HZ, alpha
from ringside.plan.mics import PRESSURE_SHARE, Mic, directivity
from ringside.plan.room import Room, to_room

ORDER: Final = 3
"""Reflections from so many surfaces one after another are rendered."""

FARTHER: Final = 0.005
"""Metres a face lies off the plane of its head, so that it is not in the shell of another."""

WALLS: Final = {
    "west": "left", "east": "right", "south": "back", "north": "front", "floor": "floor",
    "ceiling": "ceiling",
}  # fmt: skip


@dataclass(frozen=True)
class Face:
    """Something that sounds: a head or side of a part, where, which way, and with what sign."""

    part: int
    side: int  # -1 struck, +1 the other; 0 the struck head as it is heard from inside the shell
    at: Floats  # (3,)
    axis: Floats  # (3,) the way it sounds
    late_s: float


def faces(layout: Layout, off_m: Floats | None = None) -> list[Face]:
    """All faces of the kit, two of each part and one more of each shell that holds a mic.

    Parameters
    ----------
    layout : Layout
    off_m : ndarray, shape (3,), optional
        How far off the middle the stick lands, metres.

    Returns
    -------
    list of Face
    """
    made = []
    for n, part in enumerate(layout.kit.parts):
        axis, depth = np.array(part.axis), depth_of(part)
        at = _struck(part, layout) + (0.0 if off_m is None else off_m)
        rear = np.array(centre_of(part)) - depth * axis if depth else at
        through = depth / layout.air.speed
        made.append(Face(n, -1, at + FARTHER * axis, axis, 0.0))
        made.append(Face(n, 1, rear - FARTHER * axis, -axis, through))
        if depth and _holding(layout, part):
            made.append(Face(n, 0, at, axis, 0.0))
    return made


def _struck(part: Drum | Cymbal, layout: Layout) -> Floats:
    if isinstance(part, Drum):
        return np.array(part.batter_m)
    stool = layout.kit.stool
    return edge_toward(part, *(stool.position_m if stool else (0.0, 0.0)))


def _holding(layout: Layout, part: Drum | Cymbal) -> list[int]:
    """Mics inside the shell of a part, by number."""
    axis = np.array(part.axis)
    found = []
    for n, m in enumerate(layout.mics):
        at = off_head(np.array(m.position_m), np.array(centre_of(part)), axis,
                      part.diameter_m / 2, depth_of(part))  # fmt: skip
        if bool(at.inside):
            found.append(n)
    return found


def heard_from(layout: Layout, every: list[Face]) -> Floats:
    """How much of each face each mic may hear, (M, F), amplitude: what is shut in a shell.

    Parameters
    ----------
    layout : Layout
    every : list of Face

    Returns
    -------
    ndarray, shape (M, F)
    """
    shut = np.ones((len(layout.mics), len(every)))
    inside = {n: _holding(layout, p) if depth_of(p) else [] for n, p in
              enumerate(layout.kit.parts)}  # fmt: skip
    within = {m for held in inside.values() for m in held}
    for f, face in enumerate(every):
        for m in range(len(layout.mics)):
            own = m in inside[face.part]
            if face.side == 0:
                shut[m, f] = 1.0 if own else 0.0
            elif own:
                shut[m, f] = 0.0
            elif m in within:
                shut[m, f] = 10 ** (-SHELL_LOSS_DB / 20)
    return shut


def responses(layout: Layout, every: list[Face], rate_hz: int, order: int = ORDER) -> list[Any]:
    """The impulse response from each face to each mic.

    Parameters
    ----------
    layout : Layout
        Without a room everything is in the open.
    every : list of Face
    rate_hz : int
    order : int
        Reflections one after another.

    Returns
    -------
    list of list of ndarray, shape (N,)
        By mic, then by face; an impulse at nought is sound that arrives at once.
    """
    import pyroomacoustics as pra  # 2.5 s to import

    room = layout.room
    space = _space(pra, room, rate_hz, order)
    space.set_sound_speed(layout.air.speed)
    kit = room if isinstance(space, pra.ShoeBox) else None
    at = _placed(np.array([f.at for f in every]), kit)
    for f, where in zip(every, at, strict=True):
        way = _pattern(pra, f.axis, kit, 0.5) if f.side else None
        space.add_source(where, directivity=way)
    ears = [_ear(layout, np.array(m.position_m), m) for m in layout.mics]
    spots = _placed(np.array([e.at for e in ears]), kit)
    ways = [
        _pattern(pra, np.array(m.aim), kit, PRESSURE_SHARE[m.pattern]) if e.gain is None else None
        for m, e in zip(layout.mics, ears, strict=True)
    ]
    space.add_microphone_array(spots.T, directivity=ways)
    # Its high-pass runs both ways in time: a drum would be heard before it is struck.
    filtered = pra.constants.get("rir_hpf_enable")
    pra.constants.set("rir_hpf_enable", False)
    try:
        space.compute_rir()
    finally:
        pra.constants.set("rir_hpf_enable", filtered)
    begins = pra.constants.get("frac_delay_length") // 2
    return [
        [e.from_there(np.asarray(h)[begins:], rate_hz) for h in row]
        for e, row in zip(ears, space.rir, strict=True)
    ]


@dataclass(frozen=True)
class Ear:
    """Where the sound of a room is picked up for a mic, and what becomes of it from there on.

    In the room it is the mic itself. Next door, and round the corner of an L, which the room that
    is rendered has not, it is the doorway or the edge, and the mic hears what comes from there.
    """

    at: Floats  # (3,)
    late_s: float = 0.0
    gain: float | None = None

    def from_there(self, response: Floats, rate_hz: int) -> Floats:
        """A response at the doorway, as it comes to the mic.

        Parameters
        ----------
        response : ndarray, shape (N,)
            Samples.
        rate_hz : int

        Returns
        -------
        ndarray
            Longer by what it is late.
        """
        if self.gain is None:
            return response
        size = len(response) + int(np.ceil(self.late_s * rate_hz)) + 1
        spectrum = np.fft.rfft(response, size)
        turned = np.exp(-2j * np.pi * np.fft.rfftfreq(size, 1 / rate_hz) * self.late_s)
        return np.asarray(self.gain * np.fft.irfft(spectrum * turned, size))


def _ear(layout: Layout, mic: Floats, of: Mic) -> Ear:
    snare = np.array(layout.kit.first("snare").batter_m)
    way = bends(layout.room, mic[None], np.zeros(1, dtype=np.int64), snare[None])
    leaves = mic if way is None else way.edge[0, 0]
    if np.allclose(leaves, mic):
        leaves = _leaves(layout.room, snare, mic)
    if np.allclose(leaves, mic):
        return Ear(mic)
    back = leaves - mic
    on, before = (float(np.linalg.norm(v)) for v in (back, snare - leaves))
    cos = float(back @ np.array(of.aim)) / (on * float(np.linalg.norm(of.aim)))
    heard = directivity(np.array(PRESSURE_SHARE[of.pattern]), np.array(cos))
    shut = 10 ** (-float(0.0 if way is None else way.shut_db[0]) / 20)
    return Ear(leaves, on / layout.air.speed, float(heard) * shut * before / (before + on))


def _leaves(room: Room | None, inside: Floats, point: Floats) -> Floats:
    """Where the straight line to a point leaves the room; the point itself where it does not."""
    if room is None:
        return point
    one, two = to_room(np.array([inside, point]), room)
    size = np.array([room.width_m, room.length_m, room.height_m])
    out = (two < 0) | (two > size)
    if not out.any():
        return point
    wall = np.where(two < 0, 0.0, size)
    share = ((wall - one)[out] / (two - one)[out]).min()
    return inside + max(float(share), 0.0) * (point - inside)


def _space(pra: Any, room: Room | None, rate_hz: int, order: int) -> Any:
    if room is None:
        return pra.AnechoicRoom(3, fs=rate_hz)
    surfaces = room.surfaces
    walls = {
        theirs: pra.Material(energy_absorption={
            "coeffs": list(alpha(getattr(surfaces, ours))), "center_freqs": list(BANDS_HZ),
        })
        for theirs, ours in WALLS.items()
    }  # fmt: skip
    size = [room.width_m, room.length_m, room.height_m]
    return pra.ShoeBox(size, fs=rate_hz, materials=walls, max_order=order)


def _placed(points: Floats, room: Room | None) -> Floats:
    """Points in the frame of the room, kept a centimetre off its surfaces."""
    if room is None:
        return points
    size = np.array([room.width_m, room.length_m, room.height_m])
    return np.asarray(np.clip(to_room(points, room), 0.01, size - 0.01))


def _pattern(pra: Any, way: Floats, room: Room | None, share: float) -> Any:
    turn = room.kit_turn_rad if room is not None else 0.0
    azimuth = float(np.arctan2(way[1], way[0])) + turn
    colatitude = float(np.arccos(np.clip(way[2] / np.linalg.norm(way), -1, 1)))
    looks = pra.directivities.DirectionVector(azimuth, colatitude, degrees=False)
    return pra.directivities.CardioidFamily(orientation=looks, p=share)
