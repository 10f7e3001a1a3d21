"""A mic with all the channels it feeds: what of them leads, and what turns it over on the way."""

from collections.abc import Sequence
from typing import Literal, NamedTuple

from ringside.plan.channels import CHANNEL_SWITCHES, Channel
from ringside.plan.layout import Layout
from ringside.plan.mics import MIC_SWITCHES, Mic


class Feed(NamedTuple):
    """A mic and its channels, in the order of the tracks."""

    mic: Mic
    channels: tuple[Channel, ...]

    @property
    def first(self) -> Channel | None:
        """The channel the mic is meant by; None where it feeds none."""
        return self.channels[0] if self.channels else None

    @property
    def input(self) -> int | None:
        """The socket the mic's first channel is plugged into."""
        return self.first.input if self.first else None

    @property
    def flipped(self) -> bool:
        """Whether it is turned over at the preamp."""
        return self.first is not None and self.first.preamp_flip

    @property
    def held(self) -> bool:
        """Whether nothing may turn it over: its polarity is held, or it has no switch."""
        return not self.channels or "polarity" in self.mic.locks

    @property
    def switch_sign(self) -> int:
        """+1, or -1 when an odd number of inversions lie between capsule and track."""
        return self.mic.sign * (self.first.sign if self.first else 1)

    @property
    def delay_samples(self) -> int:
        """What is put on the track."""
        return self.first.track_delay_samples if self.first else 0

    def switched(self) -> list[str]:
        """The inversions on the way from capsule to track, in words.

        Returns
        -------
        list of str
        """
        every = ((self.mic, MIC_SWITCHES), (self.first, CHANNEL_SWITCHES))
        return [words for of, names in every for f, words in names.items() if getattr(of, f, False)]

    def on_the_way(self) -> list[str]:
        """Every inversion from capsule to track, and what is put on the track, in words.

        Returns
        -------
        list of str
        """
        late = self.delay_samples
        return [*self.switched(), *([f"track delayed by {late} samples"] if late else [])]

    def delayed(self, samples: int) -> tuple[Channel, ...]:
        """Its channels with so much put on the tracks.

        Parameters
        ----------
        samples : int

        Returns
        -------
        tuple of Channel
        """
        return tuple(c.model_copy(update={"track_delay_samples": samples}) for c in self.channels)


def feeds(layout: Layout) -> list[Feed]:
    """Every mic with its channels.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of Feed
        In the order of the mics.
    """
    of: dict[str, list[Channel]] = {m.id: [] for m in layout.mics}
    for c in layout.channels:
        # A layout under work may be less some mics for a while.
        if c.mic in of:
            of[c.mic].append(c)
    return [Feed(m, tuple(of[m.id])) for m in layout.mics]


def feed(layout: Layout, mic: str) -> Feed:
    """One mic with its channels.

    Parameters
    ----------
    layout : Layout
    mic : str
        Its short name.

    Returns
    -------
    Feed

    Raises
    ------
    KeyError
        When there is none.
    """
    return Feed(layout.mic(mic), tuple(c for c in layout.channels if c.mic == mic))


Plugging = Literal["loose", "twice", "done"]


def plugging(channels: Sequence[Channel]) -> Plugging:
    """Whether every channel has an input of its own, or one is taken twice.

    Parameters
    ----------
    channels : sequence of Channel

    Returns
    -------
    str
        "loose" also where there are no channels.
    """
    taken = [c.input for c in channels if c.input is not None]
    if len(set(taken)) < len(taken):
        return "twice"
    return "done" if taken and len(taken) == len(channels) else "loose"
