"""Edits of the room, and of where the kit stands in it."""

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from ringside.edits.edited import Edited, checked
from ringside.edits.following import moved
from ringside.errors import RingsideError
from ringside.places.clearance import words_for_all
from ringside.plan.channels import BoxAt
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.room import Room, to_kit, to_room
from ringside.values import Coordinate, Record, unit, vector


class Pose(Record):
    """The kit moved and turned in its room; room mics and boxes stay where they stand."""

    do: Literal["pose"]
    x_m: Coordinate
    y_m: Coordinate
    turn_rad: Annotated[float, Field(strict=True, allow_inf_nan=False)]

    def on(self, layout: Layout) -> Edited:
        """The layout with the kit there.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _pose(layout, self)


class SetRoom(Record):
    """The room as it should be, or none; the kit and every mic stay where they stand in it."""

    do: Literal["room"]
    room: Room | None

    def on(self, layout: Layout) -> Edited:
        """The layout with that room.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _set_room(layout, self.room)


def _set_room(layout: Layout, room: Room | None) -> Edited:
    done = checked(layout, room=room)
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
    boxes = tuple(_box_stays(b, room, new) for b in layout.boxes)
    went = moved(layout, mics)
    words = "Moved the kit in the room"
    return Edited(
        checked(layout, room=new, mics=mics, boxes=boxes),
        words + (f"; {', '.join(went)} stay where they stand" if went else ""),
        went,
    )


def _box_stays(box: BoxAt, old: Room, new: Room) -> BoxAt:
    """A box at the same spot of the room, in the frame of the kit as it stands now."""
    at = vector(to_kit(to_room(np.array([(*box.position_m, 0.0)]), old), new)[0])
    return box.model_copy(update={"position_m": at[:2]})


def _stays(mic: Mic, old: Room, new: Room) -> Mic:
    """A room mic at the same spot of the room, in the frame of the kit as it stands now."""
    at = np.array([mic.position_m])
    turn = old.kit_turn_rad - new.kit_turn_rad
    c, s = np.cos(turn), np.sin(turn)
    x, y, z = mic.aim
    return mic.model_copy(
        update={
            "position_m": vector(to_kit(to_room(at, old), new)[0]),
            "aim": unit(np.array([c * x - s * y, s * x + c * y, z])),
        }
    )
