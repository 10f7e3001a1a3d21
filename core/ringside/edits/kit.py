"""What can be done to the kit of a layout: change, add, take away, swap, mirror, measure.

Every edit makes a new layout. The close mics of a drum follow it in drum terms: the same
height over (or under, or inside) the head, the same way in from the rim, the same bearing,
turned with the head. What was measured at the kit before is marked as no longer sure where
an end of it moved.
"""

from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field, ValidationError

from ringside.arrays import Floats
from ringside.constants import INCH_M
from ringside.errors import RingsideError
from ringside.faults import wording
from ringside.places.clearance import words_for_all
from ringside.plan.drumframe import against, side_of
from ringside.plan.kit import Cymbal, CymbalKind, Drum, DrumKind, Kit, centre_of, depth_of, mirrored
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.room import Room, to_kit, to_room
from ringside.survey.readings import forget, read, solved
from ringside.techniques.taking import rematched, restood
from ringside.values import Coordinate, Key, Record, Vector

Part = Drum | Cymbal


class ChangePart(Record):
    """A part as it should be; `was` is its short name until now."""

    do: Literal["change"]
    was: Key
    part: Drum | Cymbal


class AddPart(Record):
    """One more drum or cymbal of a kind, where there is room for it."""

    do: Literal["add"]
    kind: DrumKind | CymbalKind


class RemovePart(Record):
    """Without a drum or cymbal and the close mics put up for it."""

    do: Literal["remove"]
    id: Key


class SwapKit(Record):
    """Another kit; mics of drums by the same name (or kind and order) follow."""

    do: Literal["swap"]
    kit: Kit


class OtherHand(Record):
    """Mirrored for a drummer who leads with the other hand, mics with it."""

    do: Literal["hand"]


class TakeReading(Record):
    """A tape reading; the kit is solved anew from all of them."""

    do: Literal["reading"]
    a: Key
    b: Key | None = None
    metres: Annotated[float, Field(strict=True, allow_inf_nan=False)]


class ForgetReading(Record):
    """Without the reading between two ends."""

    do: Literal["forget"]
    a: Key
    b: Key | None = None


class Pose(Record):
    """The kit moved and turned in its room; room mics stay where they stand."""

    do: Literal["pose"]
    x_m: Coordinate
    y_m: Coordinate
    turn_rad: Annotated[float, Field(strict=True, allow_inf_nan=False)]


class SetRoom(Record):
    """The room as it should be, or none; the kit and every mic stay where they stand in it."""

    do: Literal["room"]
    room: Room | None


KitEdit = Annotated[
    ChangePart
    | AddPart
    | RemovePart
    | SwapKit
    | OtherHand
    | TakeReading
    | ForgetReading
    | Pose
    | SetRoom,
    Field(discriminator="do"),
]


MOST_WORDS = 120
"""Letters that what was done is told in: it becomes the name of an undo."""


@dataclass(frozen=True)
class Edited:
    """The layout as it is then, what was done in a few words, and the mics that went along."""

    layout: Layout
    words: str
    moved: tuple[str, ...]


def apply(layout: Layout, edit: Any) -> Edited:
    """One edit.

    Raises
    ------
    RingsideError
        When it cannot be done; the message says why. Nothing is changed then.
    """
    done = _apply(layout, edit)
    if len(done.words) <= MOST_WORDS:
        return done
    return replace(done, words=done.words[: MOST_WORDS - 1] + "…")


def _apply(layout: Layout, edit: Any) -> Edited:
    if isinstance(edit, ChangePart):
        return _change(layout, edit)
    if isinstance(edit, AddPart):
        return _add(layout, edit.kind)
    if isinstance(edit, RemovePart):
        return _remove(layout, edit.id)
    if isinstance(edit, SwapKit):
        return _swap(layout, edit.kit)
    if isinstance(edit, OtherHand):
        return _other_hand(layout)
    if isinstance(edit, TakeReading):
        kit = read(layout.kit, edit.a, edit.b, edit.metres)
        return _measured(layout, kit, f"Measured {edit.a} to {edit.b or 'the floor'}")
    if isinstance(edit, ForgetReading):
        kit = forget(layout.kit, edit.a, edit.b)
        return _measured(layout, kit, f"Forgot {edit.a} to {edit.b or 'the floor'}")
    if isinstance(edit, SetRoom):
        return _set_room(layout, edit.room)
    return _pose(layout, edit)


def _checked(layout: Layout, **update: Any) -> Layout:
    """A changed layout with every rule asked again; raises RingsideError in words.

    A technique that lost a mic is none any more: the mics that are left stand on their own.
    """
    there = {m.id for m in update.get("mics", layout.mics)}
    techniques = update.get("techniques", layout.techniques)
    update["techniques"] = tuple(t for t in techniques if there >= set(t.mics))
    try:
        return Layout.model_validate({**dict(layout), **update})
    except ValidationError as fault:
        raise RingsideError(wording(fault.errors(include_url=False)[0])) from None


# --- mics that belong to a drum --------------------------------------------------------------


def _turn_between(a: Floats, b: Floats) -> Floats:
    """The smallest rotation that takes one unit vector to another, (3, 3) (Rodrigues)."""
    v, c = np.cross(a, b), float(a @ b)
    if c < -1 + 1e-9:  # turned over: any axis across will do
        u = np.cross(a, [1.0, 0.0, 0.0])
        u = np.cross(a, [0.0, 1.0, 0.0]) if np.linalg.norm(u) < 1e-6 else u
        u = u / np.linalg.norm(u)
        return np.asarray(2 * np.outer(u, u) - np.eye(3))
    k = np.array([[0, -v[2], v[1]], [v[2], 0, -v[0]], [-v[1], v[0], 0]])
    return np.asarray(np.eye(3) + k + k @ k / (1 + c))


def _rounded(p: Floats) -> Vector:
    x, y, z = (float(v) + 0.0 for v in np.round(p, 6))
    return (x, y, z)


def follow(mic: Mic, old: Part, new: Part) -> Mic:
    """The mic where it stands to the new part as it stood to the old one."""
    c1 = np.array(centre_of(new))
    a0, a1 = np.array(old.axis), np.array(new.axis)
    turn = _turn_between(a0, a1)
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
            "position_m": _rounded(c1 + flat + height * a1),
            "aim": _rounded(turn @ np.array(mic.aim)),
        }
    )


def _shape(part: Part) -> tuple[Any, ...]:
    return (centre_of(part), part.axis, part.diameter_m, depth_of(part))


def _followed(mics: tuple[Mic, ...], pairs: dict[str, tuple[Part, Part]]) -> tuple[Mic, ...]:
    """Mics with each close one moved with the part it is put up for: old, new by short name."""
    out = []
    for mic in mics:
        ends = pairs.get(mic.job or "")
        if mic.role != "close" or ends is None or _shape(ends[0]) == _shape(ends[1]):
            out.append(mic)
        else:
            out.append(follow(mic, *ends))
    return tuple(out)


def _moved(before: Layout, after: tuple[Mic, ...]) -> tuple[str, ...]:
    was = {m.id: m.position_m for m in before.mics}
    return tuple(m.id for m in after if m.id in was and m.position_m != was[m.id])


# --- the edits ---------------------------------------------------------------------------------


def _with_parts(kit: Kit, parts: list[Part], **update: Any) -> Kit:
    """A kit of these parts, checked; a wrong one is refused in words."""
    try:
        return Kit.model_validate(
            {
                **dict(kit),
                "drums": tuple(p for p in parts if isinstance(p, Drum)),
                "cymbals": tuple(p for p in parts if isinstance(p, Cymbal)),
                **update,
            }
        )
    except ValidationError as fault:
        raise RingsideError(wording(fault.errors(include_url=False)[0])) from None


def _old(layout: Layout, part_id: str) -> Part:
    try:
        return layout.kit.part(part_id)
    except KeyError:
        raise RingsideError(f"expected a drum or cymbal of the kit, got {part_id!r}") from None


def _change(layout: Layout, edit: ChangePart) -> Edited:
    old, new = _old(layout, edit.was), edit.part
    if isinstance(old, Drum) != isinstance(new, Drum):
        raise RingsideError("a drum stays a drum; take it away and add a cymbal instead")
    touched = _shape(old) != _shape(new)

    def name(end: str | None) -> str | None:
        return new.id if end == edit.was else end

    readings = tuple(
        r.model_copy(
            update={
                "a": name(r.a),
                "b": name(r.b),
                "sure": r.sure and not (touched and edit.was in (r.a, r.b)),
            }
        )
        for r in layout.kit.readings
    )
    parts = [new if p.id == edit.was else p for p in layout.kit.parts]
    # A part that was moved by hand stands drawn where it is now.
    drawn = tuple(
        d.model_copy(update={"id": name(d.id)})
        for d in layout.kit.drawn
        if not (touched and d.id == edit.was)
    )
    kit = _with_parts(layout.kit, parts, readings=readings, drawn=drawn)
    mics = _followed(layout.mics, {edit.was: (old, new)})
    mics = tuple(m.model_copy(update={"job": name(m.job)}) for m in mics)
    decisions = tuple(d.model_copy(update={"source": name(d.source)}) for d in layout.decisions)
    taken = tuple(t.model_copy(update={"target": name(t.target)}) for t in layout.techniques)
    done = _checked(layout, kit=kit, mics=mics, decisions=decisions, techniques=taken)
    done = restood(layout, done)
    went = _moved(layout, done.mics)
    words = f"{'Moved' if touched else 'Changed'} {new.name}"
    return Edited(done, words + (f" with {', '.join(went)}" if went else ""), went)


_SIZES: dict[str, tuple[float, float]] = {
    "kick": (22, 16), "snare": (14, 5.5), "rack": (12, 8), "floor": (16, 15), "hand drum": (8, 7),
    "hats": (14, 0), "crash": (16, 0), "ride": (20, 0), "splash": (10, 0), "china": (18, 0),
    "percussion": (6, 0),
}  # fmt: skip
"""Inches: common sizes of each kind."""

_HEIGHTS: dict[str, float] = {
    "kick": 0.28, "snare": 0.66, "rack": 0.87, "floor": 0.62, "hand drum": 0.95, "hats": 0.90,
    "crash": 1.24, "ride": 1.02, "splash": 1.20, "china": 1.20, "percussion": 1.0,
}  # fmt: skip
_NAMES = {
    "kick": "Kick", "snare": "Snare", "rack": "Rack", "floor": "Floor", "hand drum": "Hand drum",
    "hats": "Hats", "crash": "Crash", "ride": "Ride", "splash": "Splash", "china": "China",
    "percussion": "Percussion",
}  # fmt: skip


def _free_place(kit: Kit, radius: float, *, drum: bool) -> tuple[float, float]:
    """The spot nearest the middle of the kit that touches no other of its sort in plan."""
    others = [p for p in kit.parts if isinstance(p, Drum) == drum]
    at = np.array([centre_of(p)[:2] for p in others]).reshape(-1, 2)
    size = np.array([p.diameter_m / 2 for p in others])
    grid = np.arange(-1.4, 1.41, 0.05)
    spots = np.array([(x, y) for y in grid for x in grid])
    stool = kit.stool.position_m if kit.stool else (0.24, -0.5)
    gap = np.linalg.norm(spots[:, None] - at, axis=2) - size - radius
    from_stool = np.linalg.norm(spots - np.array(stool), axis=1)
    clear = (gap.min(axis=1) > 0.03) & (from_stool > 0.42 + radius)
    if not clear.any():
        raise RingsideError("there is no free spot round this kit; move something first")
    away = np.linalg.norm(spots - at.mean(axis=0), axis=1) + 0.3 * (spots[:, 1] < -0.3)
    best = spots[np.where(clear, away, np.inf).argmin()]
    return float(best[0]), float(best[1])


def _add(layout: Layout, kind: str) -> Edited:
    kit = layout.kit
    same = [p for p in kit.parts if p.kind == kind]
    n = len(same) + 1
    stem = kind.replace(" ", "-")
    taken = set(kit.source_ids)
    id_ = next(k for k in (stem, *(f"{stem}-{i}" for i in range(2, 40))) if k not in taken)
    name = _NAMES[kind] if n == 1 else f"{_NAMES[kind]} {n}"
    inches, deep = _SIZES[kind]
    drum = kind in ("kick", "snare", "rack", "floor", "hand drum")
    x, y = _free_place(kit, inches * INCH_M / 2, drum=drum)
    at = (round(x, 4), round(y, 4), _HEIGHTS[kind])
    axis = (0.0, -1.0, 0.0) if kind == "kick" else (0.0, 0.0, 1.0)
    shared = {"id": id_, "name": name, "kind": kind, "diameter_m": inches * INCH_M, "axis": axis}
    part: Part = (
        Drum.model_validate({**shared, "depth_m": deep * INCH_M, "batter_m": at})
        if drum
        else Cymbal.model_validate({**shared, "centre_m": at})
    )
    return Edited(_checked(layout, kit=_with_parts(kit, [*kit.parts, part])), f"Added {name}", ())


def _remove(layout: Layout, part_id: str) -> Edited:
    old = _old(layout, part_id)
    parts = [p for p in layout.kit.parts if p.id != part_id]
    readings = tuple(r for r in layout.kit.readings if part_id not in (r.a, r.b))
    drawn = tuple(d for d in layout.kit.drawn if d.id != part_id)
    kit = _with_parts(layout.kit, parts, readings=readings, drawn=drawn)
    gone = {m.id for m in layout.mics if m.job == part_id and m.role == "close"}
    done = _without(layout, kit, gone)
    words = f"Took {old.name} away"
    return Edited(done, words + (f" with {', '.join(sorted(gone))}" if gone else ""), ())


def _without(layout: Layout, kit: Kit, gone: set[str]) -> Layout:
    """The layout on another kit, less some mics and what names them; lost jobs become none."""
    known = set(kit.source_ids)
    return _checked(
        layout,
        kit=kit,
        mics=tuple(
            m if m.job is None or m.job in known else m.model_copy(update={"job": None})
            for m in layout.mics
            if m.id not in gone
        ),
        stereo_pairs=tuple(p for p in layout.stereo_pairs if not gone & {p.left, p.right}),
        decisions=tuple(d for d in layout.decisions if d.source in known and not gone & {d.a, d.b}),
    )


def _counterparts(old: Kit, new: Kit) -> dict[str, Part]:
    """For each old part the new one it becomes: the same name and kind, or kind and order."""
    found = {p.id: new.part(p.id) for p in old.parts if p.id in new.source_ids}
    found = {k: p for k, p in found.items() if p.kind == old.part(k).kind}
    spare = [p for p in new.parts if p not in found.values()]
    for part in old.parts:
        twin = next((p for p in spare if p.kind == part.kind), None)
        if part.id not in found and twin is not None:
            found[part.id] = twin
            spare.remove(twin)
    return found


def _swap(layout: Layout, kit: Kit) -> Edited:
    found = _counterparts(layout.kit, kit)
    ends = {p.id: (p, found[p.id]) for p in layout.kit.parts if p.id in found}
    mics = _followed(layout.mics, ends)
    gone = {m.id for m in mics if m.role == "close" and m.job is not None and m.job not in found}
    mics = tuple(
        m.model_copy(update={"job": found[m.job].id if m.job in found else None})
        if m.job is not None and m.id not in gone
        else m
        for m in mics
        if m.id not in gone
    )
    decisions = tuple(
        d.model_copy(update={"source": found[d.source].id})
        for d in layout.decisions
        if d.source in found and not gone & {d.a, d.b}
    )
    pairs = tuple(p for p in layout.stereo_pairs if not gone & {p.left, p.right})
    taken = tuple(
        t.model_copy(update={"target": found[t.target].id}) if t.target in found else t
        for t in layout.techniques
    )
    done = _checked(
        layout, kit=kit, mics=mics, decisions=decisions, stereo_pairs=pairs, techniques=taken
    )
    words = f"Took the kit {kit.name}"
    if gone:
        words += f"; {', '.join(sorted(gone))} had no drum left"
    return Edited(done, words, _moved(layout, mics))


def _turned(numbers: dict[str, float]) -> dict[str, float]:
    """A technique's numbers on the mirrored kit: only the hour of a clock changes side."""
    return {k: (12.0 - v) % 12.0 if k == "clock" else v for k, v in numbers.items()}


def _other_hand(layout: Layout) -> Edited:
    def flip(v: Vector) -> Vector:
        return (-v[0] + 0.0, v[1], v[2])

    hand = "left" if layout.kit.hand == "right" else "right"
    name = layout.kit.name.removeprefix("Left-handed ")
    name = name[:1].upper() + name[1:]
    if hand == "left":
        name = f"Left-handed {name[:1].lower()}{name[1:]}"[:80]
    mics = tuple(
        m.model_copy(update={"position_m": flip(m.position_m), "aim": flip(m.aim)})
        for m in layout.mics
    )
    pairs = tuple(
        p.model_copy(update={"left": p.right, "right": p.left}) for p in layout.stereo_pairs
    )
    taken = tuple(t.model_copy(update={"numbers": _turned(t.numbers)}) for t in layout.techniques)
    done = _checked(
        layout, kit=mirrored(layout.kit, name), mics=mics, stereo_pairs=pairs, techniques=taken
    )
    done = rematched(done)
    return Edited(done, f"Turned round for a {hand}-handed drummer", _moved(layout, mics))


def _measured(layout: Layout, kit: Kit, words: str) -> Edited:
    now = solved(kit)
    ends = {p.id: (p, now.part(p.id)) for p in layout.kit.parts}
    mics = _followed(layout.mics, ends)
    return Edited(_checked(layout, kit=now, mics=mics), words, _moved(layout, mics))


def _set_room(layout: Layout, room: Room | None) -> Edited:
    done = _checked(layout, room=room)
    spots = np.array([m.position_m for m in layout.mics]).reshape(-1, 3)
    was, now = words_for_all(spots, layout), words_for_all(spots, done)
    lost = [m.id for m, a, b in zip(layout.mics, was, now, strict=True) if b and not a]
    words = "Changed the room" if room else "Took the room away"
    if lost:
        verb = "is" if len(lost) == 1 else "are"
        words += f"; {', '.join(lost)} {verb} no longer inside or clear"
    return Edited(done, words, ())


def _pose(layout: Layout, pose: Pose) -> Edited:
    room = layout.room
    if room is None:
        raise RingsideError("draw the room first: there is none to move the kit in")
    if not (0 <= pose.x_m <= room.width_m and 0 <= pose.y_m <= room.length_m):
        raise RingsideError("the snare would stand outside the room")
    turn = float((pose.turn_rad + np.pi) % (2 * np.pi) - np.pi)
    new = Room.model_validate(
        {**dict(room), "kit_x_m": round(pose.x_m, 4), "kit_y_m": round(pose.y_m, 4),
         "kit_turn_rad": round(turn, 6)}
    )  # fmt: skip
    mics = tuple(_stays(m, room, new) if m.role == "room" else m for m in layout.mics)
    went = _moved(layout, mics)
    words = "Moved the kit in the room"
    return Edited(
        _checked(layout, room=new, mics=mics),
        words + (f"; {', '.join(went)} stay where they stand" if went else ""),
        went,
    )


def _stays(mic: Mic, old: Room, new: Room) -> Mic:
    """A room mic at the same spot of the room, in the frame of the kit as it stands now."""
    at = np.array([mic.position_m])
    turn = old.kit_turn_rad - new.kit_turn_rad
    c, s = np.cos(turn), np.sin(turn)
    x, y, z = mic.aim
    return mic.model_copy(
        update={
            "position_m": _rounded(to_kit(to_room(at, old), new)[0]),
            "aim": _rounded(np.array([c * x - s * y, s * x + c * y, z])),
        }
    )
