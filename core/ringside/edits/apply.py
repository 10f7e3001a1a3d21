"""Every edit of a layout by one door: `apply(layout, edit)`.

An edit is a record that can be sent; it makes a new layout and leaves the old as it was.
"""

from dataclasses import replace
from typing import Annotated, Final, Literal

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
    UsualOrder,
)
from ringside.edits.edited import Edited
from ringside.edits.kit import ForgetReading, OtherHand, SwapKit, TakeReading, TakeReadings
from ringside.edits.lines import BringBack, DelayTracks, PutAside
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
from ringside.values import Record, Text

MOST_AT_ONCE: Final = 16
MOST_WORDS: Final = 120
"""Letters that what was done is told in: it becomes the name of an undo."""

OneEdit = Annotated[
    ChangePart | AddPart | RemovePart
    | SwapKit | OtherHand | TakeReading | TakeReadings | ForgetReading
    | Pose | SetRoom
    | ChangeMics | RenameMic | AddMic | RemoveMics | FlipMics
    | PairMics | UnpairMics | Decide | Undecide
    | ChangeChannels | AddChannel | RemoveChannels | OrderChannels | UsualOrder | PlaceBox
    | SetFaders | Fade | AddBalance | NameBalance | RemoveBalance | UseBalance
    | SetOptions | ChooseOptions | RoomOptions
    | ChangeNumbers | PutAside | BringBack | DelayTracks,
    Field(discriminator="do"),
]  # fmt: skip


class Several(Record):
    """Several edits as one: one save, one undo."""

    do: Literal["several"]
    edits: Annotated[tuple[OneEdit, ...], Field(min_length=1, max_length=MOST_AT_ONCE)]
    why: Text = ""

    def on(self, layout: Layout) -> Edited:
        """The layout with all of them made in their order, or none.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When one cannot be done; the message says why.
        """
        moved: dict[str, None] = {}
        words = []
        for edit in self.edits:
            done = edit.on(layout)
            layout = done.layout
            moved |= dict.fromkeys(done.moved)
            words.append(done.words)
        return Edited(layout, self.why or "; ".join(words), tuple(moved))


Edit = Annotated[OneEdit | Several, Field(discriminator="do")]


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
