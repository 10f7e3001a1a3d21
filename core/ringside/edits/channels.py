"""Edits of channels: as they should be, one more of a mic, fewer, in another order."""

from typing import Annotated, Final, Literal

from pydantic import Field

from ringside.edits.edited import Edited, checked
from ringside.errors import RingsideError
from ringside.plan.channels import CHANNEL_SWITCHES, MOST_CHANNELS, BoxAt, Channel
from ringside.plan.hanging import track_of, with_channels, without_channels
from ringside.plan.layout import Layout
from ringside.plan.usual import usual_channels
from ringside.values import Coordinate, Key, Record, Text

Some = Annotated[tuple[Key, ...], Field(min_length=1, max_length=MOST_CHANNELS)]

FIELD_WORDS: Final = {
    "name": "Track {0} named {1}", "mic": "{0} from {1}", "input": "{0} to input {1}",
    "phantom": "Phantom for {0}: {1}", "pad_db": "Pad for {0}: {1} dB",
    "gain_db": "Gain of {0}: {1} dB", "low_cut_hz": "Low cut of {0}: {1} Hz",
    "track_delay_samples": "{0} delayed by {1} samples on the track", "pan": "Panned {0}",
    "group": "{0} in group {1}", "crush": "Compression of {0} changed",
}  # fmt: skip
"""How a change of one field is called; {0} is the channel, {1} the new value."""


class ChangeChannels(Record):
    """Channels as they should be, by their short names; `why` names the step where it has one."""

    do: Literal["channels"]
    channels: tuple[Channel, ...] = Field(min_length=1, max_length=MOST_CHANNELS)
    why: Text = ""

    def on(self, layout: Layout) -> Edited:
        """The layout with these channels replaced.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        old = {c.id: channel_of(layout, c.id) for c in self.channels}
        done = checked(layout, channels=with_channels(layout, self.channels).channels)
        return Edited(done, self.why or _words(old, self.channels), ())


class AddChannel(Record):
    """A track for a mic: its first, or one more copy of it, a split."""

    do: Literal["add-channel"]
    mic: Key

    def on(self, layout: Layout) -> Edited:
        """The layout with the channel at its end.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When there are as many as there can be, or no such mic.
        """
        if self.mic not in [m.id for m in layout.mics]:
            raise RingsideError(f"expected a mic of this layout, got {self.mic!r}")
        if len(layout.channels) >= MOST_CHANNELS:
            raise RingsideError(f"expected at most {MOST_CHANNELS} channels; take some away first")
        again = any(c.mic == self.mic for c in layout.channels)
        made = track_of(layout.channels, layout.mic(self.mic))
        done = checked(layout, channels=(*layout.channels, made))
        return Edited(done, f"{'Split' if again else 'A track for'} {self.mic}", (), made.id)


class RemoveChannels(Record):
    """Without some channels; their mics stay up."""

    do: Literal["remove-channels"]
    channels: Some

    def on(self, layout: Layout) -> Edited:
        """The layout without them.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        for name in self.channels:
            channel_of(layout, name)
        left = without_channels(layout, set(self.channels))
        done = checked(left)
        return Edited(done, f"{', '.join(self.channels)} no longer recorded", ())


class OrderChannels(Record):
    """The tracks in this order; those not named follow as they were."""

    do: Literal["tracks"]
    order: Some

    def on(self, layout: Layout) -> Edited:
        """The layout with its tracks in that order.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        first = [channel_of(layout, name) for name in dict.fromkeys(self.order)]
        rest = [c for c in layout.channels if c not in first]
        return Edited(checked(layout, channels=(*first, *rest)), "Put the tracks in order", ())


class UsualOrder(Record):
    """The tracks where they are looked for: kick, snare, hats, toms, cymbals, overheads, rooms."""

    do: Literal["usual-tracks"]

    def on(self, layout: Layout) -> Edited:
        """The layout with its tracks in that order; what is plugged in stays where it is.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        done = checked(layout, channels=usual_channels(layout))
        return Edited(done, "Put the tracks in the usual order", ())


class PlaceBox(Record):
    """Where a box stands on the floor; none forgets it."""

    do: Literal["box"]
    bank: Key
    position_m: tuple[Coordinate, Coordinate] | None

    def on(self, layout: Layout) -> Edited:
        """The layout with the box there.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        others = tuple(b for b in layout.boxes if b.bank != self.bank)
        if self.position_m is None:
            return Edited(checked(layout, boxes=others), f"Nobody knows where {self.bank} is", ())
        at = BoxAt(bank=self.bank, position_m=self.position_m)
        return Edited(checked(layout, boxes=(*others, at)), f"Put {self.bank} there", ())


def channel_of(layout: Layout, name: str) -> Channel:
    """The channel of a short name; RingsideError where there is none.

    Parameters
    ----------
    layout : Layout
    name : str

    Returns
    -------
    Channel
    """
    for c in layout.channels:
        if c.id == name:
            return c
    raise RingsideError(f"expected a channel of this layout, got {name!r}")


def _words(old: dict[str, Channel], new: tuple[Channel, ...]) -> str:
    """What was done to channels, in a few words."""
    if len(new) > 1:
        return f"Changed {', '.join(c.id for c in new)}"
    (channel,), was = new, old[new[0].id]
    for field, words in CHANNEL_SWITCHES.items():
        if (on := getattr(channel, field)) != getattr(was, field):
            return f"{words[0].upper()}{words[1:]} {'on' if on else 'off'}, {channel.id}"
    for field, words in FIELD_WORDS.items():
        if (value := getattr(channel, field)) != getattr(was, field):
            return words.format(channel.id, _told(value))
    return f"Changed {channel.id}"


def _told(value: object) -> str:
    if isinstance(value, bool):
        return "on" if value else "off"
    if value is None:
        return "none"
    return f"{value:g}" if isinstance(value, float) else str(value)
