"""Edits of one drum or cymbal: as it should be, one more, one less."""

from typing import Any, Literal

import numpy as np
from pydantic import ValidationError

from ringside.constants import INCH_M
from ringside.edits.edited import Edited, checked
from ringside.edits.following import Part, followed, moved, shape_of
from ringside.errors import RingsideError
from ringside.faults import wording
from ringside.plan.hanging import without_mics
from ringside.plan.kit import Cymbal, CymbalKind, Drum, DrumKind, Kit, centre_of
from ringside.plan.layout import Layout
from ringside.techniques.taking import restood
from ringside.values import Key, Record, vector


class ChangePart(Record):
    """A part as it should be; `was` is its short name until now."""

    do: Literal["change"]
    was: Key
    part: Drum | Cymbal

    def on(self, layout: Layout) -> Edited:
        """The layout with the part as it should be, its close mics gone along.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _change(layout, self)


class AddPart(Record):
    """One more drum or cymbal of a kind, where there is room for it."""

    do: Literal["add"]
    kind: DrumKind | CymbalKind

    def on(self, layout: Layout) -> Edited:
        """The layout with one more part.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _add(layout, self.kind)


class RemovePart(Record):
    """Without a drum or cymbal and the close mics put up for it."""

    do: Literal["remove"]
    id: Key

    def on(self, layout: Layout) -> Edited:
        """The layout without the part.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _remove(layout, self.id)


def with_parts(kit: Kit, parts: list[Part], **update: Any) -> Kit:
    """A kit of these parts, checked; a wrong one is refused in words.

    Parameters
    ----------
    kit : Kit
    parts : list of Part
        Drums and cymbals.

    Returns
    -------
    Kit

    Raises
    ------
    RingsideError
        When the parts make no kit; the message says what is wrong.
    """
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


def part_of(layout: Layout, part_id: str) -> Part:
    """The drum or cymbal of that name; RingsideError when there is none.

    Parameters
    ----------
    layout : Layout
    part_id : str
        Its short name.

    Returns
    -------
    Part
    """
    try:
        return layout.kit.part(part_id)
    except KeyError:
        raise RingsideError(f"expected a drum or cymbal of the kit, got {part_id!r}") from None


def _change(layout: Layout, edit: ChangePart) -> Edited:
    old, new = part_of(layout, edit.was), edit.part
    if isinstance(old, Drum) != isinstance(new, Drum):
        raise RingsideError("a drum stays a drum; take it away and add a cymbal instead")
    touched = shape_of(old) != shape_of(new)

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
    kit = with_parts(layout.kit, parts, readings=readings, drawn=drawn)
    mics = followed(layout.mics, {edit.was: (old, new)})
    mics = tuple(m.model_copy(update={"job": name(m.job)}) for m in mics)
    decisions = tuple(d.model_copy(update={"source": name(d.source)}) for d in layout.decisions)
    taken = tuple(t.model_copy(update={"target": name(t.target)}) for t in layout.techniques)
    done = checked(layout, kit=kit, mics=mics, decisions=decisions, techniques=taken)
    done = restood(layout, done)
    went = moved(layout, done.mics)
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
    at = vector((x, y, _HEIGHTS[kind]))
    axis = (0.0, -1.0, 0.0) if kind == "kick" else (0.0, 0.0, 1.0)
    shared = {"id": id_, "name": name, "kind": kind, "diameter_m": inches * INCH_M, "axis": axis}
    part: Part = (
        Drum.model_validate({**shared, "depth_m": deep * INCH_M, "batter_m": at})
        if drum
        else Cymbal.model_validate({**shared, "centre_m": at})
    )
    done = checked(layout, kit=with_parts(kit, [*kit.parts, part]))
    return Edited(done, f"Added {name}", (), id_)


def _remove(layout: Layout, part_id: str) -> Edited:
    old = part_of(layout, part_id)
    parts = [p for p in layout.kit.parts if p.id != part_id]
    readings = tuple(r for r in layout.kit.readings if part_id not in (r.a, r.b))
    drawn = tuple(d for d in layout.kit.drawn if d.id != part_id)
    kit = with_parts(layout.kit, parts, readings=readings, drawn=drawn)
    gone = {m.id for m in layout.mics if m.job == part_id and m.role == "close"}
    known = set(kit.source_ids)
    left = without_mics(layout, gone)
    done = checked(
        left,
        kit=kit,
        mics=tuple(m if m.job in known else m.model_copy(update={"job": None}) for m in left.mics),
        decisions=tuple(d for d in left.decisions if d.source in known),
    )
    words = f"Took {old.name} away"
    return Edited(done, words + (f" with {', '.join(sorted(gone))}" if gone else ""), ())
