"""Every edit of a layout by one door: `apply(layout, edit)`.

An edit is a record that can be sent; it makes a new layout and leaves the old as it was.
"""

from dataclasses import replace
from typing import Annotated, Final

from pydantic import Field

from ringside.edits.balances import (
    AddBalance,
    ChooseOptions,
    Fade,
    NameBalance,
    RemoveBalance,
    RoomOptions,
    SetFaders,
    SetOptions,
    UseBalance,
)
from ringside.edits.channels import (
    AddChannel,
    ChangeChannels,
    OrderChannels,
    PlaceBox,
    RemoveChannels,
)
from ringside.edits.edited import Edited
from ringside.edits.kit import ForgetReading, OtherHand, SwapKit, TakeReading, TakeReadings
from ringside.edits.mics import (
    AddMic,
    ChangeMics,
    Decide,
    FlipMics,
    PairMics,
    RemoveMics,
    RenameMic,
    Undecide,
    UnpairMics,
)
from ringside.edits.parts import AddPart, ChangePart, RemovePart
from ringside.edits.room import Pose, SetRoom
from ringside.edits.techniques import ChangeNumbers
from ringside.plan.layout import Layout

MOST_WORDS: Final = 120
"""Letters that what was done is told in: it becomes the name of an undo."""

Edit = Annotated[
    ChangePart | AddPart | RemovePart
    | SwapKit | OtherHand | TakeReading | TakeReadings | ForgetReading
    | Pose | SetRoom
    | ChangeMics | RenameMic | AddMic | RemoveMics | FlipMics
    | PairMics | UnpairMics | Decide | Undecide
    | ChangeChannels | AddChannel | RemoveChannels | OrderChannels | PlaceBox
    | SetFaders | Fade | AddBalance | NameBalance | RemoveBalance | UseBalance
    | SetOptions | ChooseOptions | RoomOptions
    | ChangeNumbers,
    Field(discriminator="do"),
]  # fmt: skip


def apply(layout: Layout, edit: Edit) -> Edited:
    """One edit.

    Parameters
    ----------
    layout : Layout
    edit : Edit

    Returns
    -------
    Edited

    Raises
    ------
    RingsideError
        When it cannot be done; the message says why. Nothing is changed then.
    """
    done = edit.on(layout)
    if len(done.words) <= MOST_WORDS:
        return done
    return replace(done, words=done.words[: MOST_WORDS - 1] + "…")
