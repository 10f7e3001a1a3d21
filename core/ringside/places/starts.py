"""Starting layouts: mics put round a kit in drum terms, then moved by hand.

Distances are common practice: kick inside about 20 cm from the beater, snare top a few
centimetres over the head and in from the rim, bottom straight up at the wires, toms over
the outer third, overheads a good metre above the snare.
"""

from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.constants import OVERHEAD_HEIGHT_M
from ringside.errors import RingsideError
from ringside.places.loci import ring_through
from ringside.plan.hanging import with_tracks
from ringside.plan.kit import Drum, Kit
from ringside.plan.kits import KITS
from ringside.plan.layout import Air, Layout, StereoPair
from ringside.plan.mics import Mic, Pattern, Role
from ringside.plan.room import Room
from ringside.values import unit, vector

Start = Literal["empty", "square pair", "turned pair"]
STARTS: Final[dict[str, str]] = {
    "empty": "No mics yet.",
    "square pair": "Close mics, and overheads mirrored across the snare: equal on the snare only.",
    "turned pair": "Close mics, and overheads turned onto the ring: equal on snare and kick.",
}


def _mic(
    id_: str, name: str, at: Floats, look_at: Floats, *, job: str | None,
    pattern: Pattern = "cardioid", role: Role = "close",
) -> Mic:  # fmt: skip
    spot = vector(at)
    return Mic(
        id=id_, name=name, role=role, job=job, pattern=pattern,
        position_m=spot, aim=unit(np.subtract(look_at, spot)),
    )  # fmt: skip


def over_rim(drum: Drum, away: Floats, height_m: float, in_from_rim_m: float) -> Floats:
    """A spot over a head, on the side toward `away`.

    Parameters
    ----------
    drum : Drum
    away : ndarray, shape (3,)
        Any direction that does not run along the drum's axis.
    height_m, in_from_rim_m : float
        Metres.

    Returns
    -------
    ndarray, shape (3,)
        Metres.
    """
    centre, axis = np.array(drum.batter_m), np.array(drum.axis)
    out = away - axis * float(away @ axis)
    out /= np.linalg.norm(out)
    spot = centre + axis * height_m + out * (drum.diameter_m / 2 - in_from_rim_m)
    return np.asarray(spot)


def _close(kit: Kit) -> list[Mic]:
    kick, snare = kit.first("kick"), kit.first("snare")
    hand = float(np.sign(kick.batter_m[0] - snare.batter_m[0]) or 1.0)
    beater, back = np.array(kick.batter_m), -np.array(kick.axis)
    top, axis = np.array(snare.batter_m), np.array(snare.axis)
    wires = top - axis * snare.depth_m
    front = beater + back * kick.depth_m
    side = np.array([0.03, 0.0, 0.01]) * [hand, 1, 1]
    mics = [
        _mic("KI", "Kick in", beater + back * 0.20 + side, beater, job=kick.id),
        _mic("KO", "Kick out", front + back * 0.12 + side, front, job=kick.id),
        _mic("ST", "Snare top", over_rim(snare, np.array([-0.35 * hand, 1.0, 0.0]), 0.045, 0.05),
             top, job=snare.id),
        _mic("SB", "Snare bottom", wires - axis * 0.06 + np.array([0.05 * hand, 0.05, 0.0]),
             wires, job=snare.id),
    ]  # fmt: skip
    for n, drum in enumerate((d for d in kit.drums if d.kind == "snare" and d != snare), 2):
        spot = over_rim(drum, np.array([-0.35 * hand, 1.0, 0.0]), 0.045, 0.05)
        mics.append(_mic(f"S{n}", drum.name, spot, np.array(drum.batter_m), job=drum.id))
    racks = [d for d in kit.drums if d.kind == "rack"]
    floors = [d for d in kit.drums if d.kind == "floor"]
    for n, drum in enumerate(racks, 1):
        spot = over_rim(drum, np.array([0.25 * hand, 1.0, 0.3]), 0.06, 0.05)
        name = drum.name if len(racks) > 1 else "Rack tom"
        mics.append(_mic(f"T{n}", name, spot, np.array(drum.batter_m), job=drum.id))
    for n, drum in enumerate(floors, 1):
        spot = over_rim(drum, np.array([0.5 * hand, 1.0, 0.0]), 0.07, 0.05)
        id_ = "FT" if len(floors) == 1 else f"F{n}"
        mics.append(_mic(id_, drum.name, spot, np.array(drum.batter_m), job=drum.id))
    for c in (c for c in kit.cymbals if c.kind == "hats"):
        spot = np.add(c.centre_m, (-0.10 * hand, 0.10, 0.14))
        look = np.add(c.centre_m, (-0.08 * hand, 0.12, 0.0))
        mics.append(_mic("HH", "Hats", spot, look, job=c.id))
    return mics


def _square(kit: Kit) -> tuple[Floats, Floats]:
    """Mirrored across the plane through the snare: equal on the snare, not on the kick."""
    s = kit.first("snare").batter_m
    left = np.array([s[0] - 0.60, s[1] + 0.30, OVERHEAD_HEIGHT_M])
    return left, np.array([s[0] + 0.60, s[1] + 0.30, OVERHEAD_HEIGHT_M])


def _turned(kit: Kit) -> tuple[Floats, Floats]:
    """One mic over the far crash, its partner at the ring's other spot of the same height."""
    s, k = np.array(kit.first("snare").batter_m), np.array(kit.first("kick").batter_m)
    hand = float(np.sign(k[0] - s[0]) or 1.0)
    one = np.array([s[0] - 0.45 * hand, s[1] + 0.60, OVERHEAD_HEIGHT_M])
    answer = ring_through(s, k, one)
    if answer.ring is None:
        raise RingsideError(f"no turned pair fits this kit: {answer.words}")
    spots = answer.ring.at_height(OVERHEAD_HEIGHT_M)
    other = spots[int(np.linalg.norm(spots - one, axis=1).argmax())]
    return (one, other) if one[0] < other[0] else (other, one)


def starting_mics(kit: Kit, start: Start) -> tuple[tuple[Mic, ...], tuple[StereoPair, ...]]:
    """The mics and stereo pairs of a starting layout for any kit.

    Parameters
    ----------
    kit : Kit
    start : Start

    Returns
    -------
    tuple[tuple[Mic, ...], tuple[StereoPair, ...]]
    """
    if start == "empty":
        return (), ()
    left, right = (_square if start == "square pair" else _turned)(kit)
    snare = np.array(kit.first("snare").batter_m)
    mics = _close(kit)
    for id_, name, spot in (("OL", "Left overhead", left), ("OR", "Right overhead", right)):
        mics.append(_mic(id_, name, spot, snare, job=None, role="overhead"))
    return tuple(mics), (StereoPair(name="Overheads", left="OL", right="OR"),)


def starting_layout(
    kit: str | Kit, start: Start, *, name: str | None = None,
    room: Room | None = None, air: Air | None = None,
) -> Layout:  # fmt: skip
    """A whole layout from a starting kit and a starting layout.

    Parameters
    ----------
    kit : str or Kit
        A kit, or the name of a starting one.
    start : Start
    name : str or None
        What the layout is called.
    room : Room or None
        The room; none stands for one too large to matter.
    air : Air or None
        The air; as usual where it is left out.

    Returns
    -------
    Layout

    Raises
    ------
    RingsideError
        When either name is not known; the message lists those that are.
    """
    if isinstance(kit, str):
        if kit not in KITS:
            raise RingsideError(f"no starting kit {kit!r}; expected one of {', '.join(KITS)}")
        kit = KITS[kit]()
    if start not in STARTS:
        raise RingsideError(f"no starting layout {start!r}; expected one of {', '.join(STARTS)}")
    mics, pairs = starting_mics(kit, start)
    made = Layout(
        name=name or start.capitalize(), kit=kit, room=room, air=air or Air(), mics=mics,
        stereo_pairs=pairs,
    )  # fmt: skip
    return with_tracks(made)
