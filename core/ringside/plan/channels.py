"""A channel: a track, and everything on the way to it from the mic it comes from.

What is of the mic (its wiring, its cable) stays with the mic. One mic may feed several channels,
a split: they add as amplitudes with their signs, for they are of one capsule. A mic that feeds
none is put up but not recorded.
"""

from typing import Annotated, Final

import numpy as np
from pydantic import Field

from ringside.arrays import Floats
from ringside.values import Coordinate, Flag, Key, Record, Title

MOST_CHANNELS: Final = 64
MOST_BOXES: Final = 32
LAST_INPUT: Final = 256
Decibels = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-20, le=100)]
Input = Annotated[int, Field(strict=True, ge=1, le=LAST_INPUT)]

CHANNEL_SWITCHES: Final = {
    "preamp_flip": "flip at the preamp",
    "track_flip": "flip on the track",
}


class BoxAt(Record):
    """Where the inputs of a bank stand on the floor."""

    bank: Key
    position_m: tuple[Coordinate, Coordinate] = Field(
        description="Metres, in the frame of the kit: to the drummer's right, to the audience."
    )


class Crush(Record):
    """What a compressor on the way to the track does, as a static curve.

    Up to the threshold nothing, above it one decibel for every `ratio`; what is taken from the
    peaks of the mic's own job is given back to everything.
    """

    threshold_db: Annotated[float, Field(strict=True, ge=1, le=60)] = Field(
        default=30.0, description="How far under the peak of the mic's own job it begins."
    )
    ratio: Annotated[float, Field(strict=True, ge=1, le=100)] = 20.0

    def after(self, under_db: Floats) -> Floats:
        """Levels against the peak of the mic's own job, compressed.

        Parameters
        ----------
        under_db : ndarray
            Decibels; below 0 is quieter than the job's peak.

        Returns
        -------
        ndarray
            Of the same shape; 0 stays 0.

        Examples
        --------
        >>> Crush(threshold_db=20, ratio=4).after(np.array([0.0, -8.0, -30.0])).tolist()
        [0.0, -2.0, -15.0]
        """
        above = under_db / self.ratio
        below = under_db + self.threshold_db * (1 - 1 / self.ratio)
        return np.asarray(np.where(under_db >= -self.threshold_db, above, below))


class Channel(Record):
    """One track: the mic it comes from and every switch on the way.

    The order of the channels is the order of the tracks.
    """

    id: Key
    name: Title
    mic: Key
    input: Input | None = Field(
        default=None, description="The socket, counted on from box to box; null is not plugged in."
    )
    fixed: Flag = Field(default=False, description="No patching done for one moves it.")
    phantom: Flag | None = Field(
        default=None, description="At the input; null is as the mic wants it."
    )
    pad_db: Annotated[float, Field(strict=True, ge=1, le=60)] | None = Field(
        default=None, description="The pad switched in at the input; that at the mic is the mic's."
    )
    gain_db: Decibels | None = None
    low_cut_hz: Annotated[float, Field(strict=True, ge=10, le=500)] | None = Field(
        default=None,
        description="Corner of the low cut in use, at the mic or the preamp, 12 dB per octave.",
    )
    preamp_flip: Flag = False
    crush: Crush | None = Field(default=None, description="Compressed while recording.")
    track_flip: Flag = False
    track_delay_samples: Annotated[int, Field(strict=True, ge=0, le=20_000)] = Field(
        default=0, description="Put on the track after recording, at the session's rate."
    )
    pan: Annotated[float, Field(strict=True, ge=-100, le=100)] | None = Field(
        default=None, description="Per cent: -100 left, 0 middle, 100 right; null is not chosen."
    )
    group: Title | None = Field(default=None, description="Faded together with others of it.")

    @property
    def sign(self) -> int:
        """-1 where one of its two switches turns it over, +1 otherwise."""
        return -1 if self.preamp_flip ^ self.track_flip else 1

    def turned_over(self) -> "Channel":
        """The channel with its preamp switch the other way."""
        return self.model_copy(update={"preamp_flip": not self.preamp_flip})
