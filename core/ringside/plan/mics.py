"""What a microphone is to the layout, and how its pattern weighs a direction.

First-order patterns are a + (1 - a)·cos θ, θ measured from the front of the capsule.
Values of a: 1 omni, 0.7 wide cardioid, 0.5 cardioid, 0.366 supercardioid, 0.25
hypercardioid, 0 figure-8 (IEC 60268-4 quantities as tabulated in microphone handbooks:
Eargle, The Microphone Book). The result is signed: a rear lobe is inverted.
"""

from typing import Annotated, Final, Literal, Self

import numpy as np
from numpy.typing import ArrayLike
from pydantic import Field, model_validator

from ringside.arrays import Floats
from ringside.plan.kit import Direction
from ringside.values import Flag, Key, Place, Record, Title

Pattern = Literal["omni", "wide cardioid", "cardioid", "supercardioid", "hypercardioid", "figure-8"]
Role = Literal["close", "overhead", "room"]
Lock = Literal["right", "front", "height", "aim", "polarity"]
LOCKS: Final[tuple[Lock, ...]] = ("right", "front", "height", "aim", "polarity")
"""What of a mic can be held: its three coordinates, in the order of the frame, its aim, and
its polarity."""

PRESSURE_SHARE: Final[dict[str, float]] = {
    "omni": 1.0,
    "wide cardioid": 0.7,
    "cardioid": 0.5,
    "supercardioid": 0.366,
    "hypercardioid": 0.25,
    "figure-8": 0.0,
}


LIES_M: Final = 0.03
"""A capsule so near the floor is on no stand (common practice),"""
LAID_M: Final = 0.01
"""and wherever it was put or knocked to, its height is what it was: one standard deviation."""


class Mic(Record):
    """One microphone: where it is, where it points, and what is of the mic itself.

    What lies between its cable and the tracks is of its channels
    (:mod:`ringside.plan.channels`).
    """

    id: Key
    name: Title
    role: Role = "close"
    job: Key | None = Field(
        default=None, description="The drum or cymbal it is put up for; null is the whole kit."
    )
    pattern: Pattern = "cardioid"
    position_m: Place = Field(description="The capsule, metres.")
    aim: Direction
    model: Key | None = Field(default=None, description="Which mic of the studio's locker it is.")
    stand: Key | None = Field(default=None, description="Which stand of the locker holds it.")
    locks: tuple[Lock, ...] = Field(
        default=(), max_length=5, description="What no fit and no change of numbers may move."
    )
    wired_inverted: Flag = Field(
        default=False,
        description="The mic itself is wired against IEC 61938 (pin 2 negative for pressure).",
    )
    cable_inverted: Flag = False
    pad_db: Annotated[float, Field(strict=True, ge=1, le=40)] | None = Field(
        default=None, description="The pad switched in at the mic itself."
    )

    @property
    def sign(self) -> int:
        """-1 where its wiring or its cable turns it over, +1 otherwise."""
        return -1 if self.wired_inverted ^ self.cable_inverted else 1

    @property
    def lies(self) -> bool:
        """Whether it lies on the floor, or on its plate: wherever it goes its height stays."""
        return self.position_m[2] <= LIES_M

    @model_validator(mode="after")
    def _locked_once(self) -> Self:
        if len(set(self.locks)) < len(self.locks):
            raise ValueError(f"mic {self.id!r} has one lock twice; expected each at most once")
        return self


def directivity(pressure_share: ArrayLike, cos_theta: ArrayLike) -> Floats:
    """Signed response of a first-order capsule, 1 at the front.

    Parameters
    ----------
    pressure_share : array_like
        The a of each pattern, 0 to 1; broadcasts with `cos_theta`.
    cos_theta : array_like
        Cosine of the angle between the aim and the direction to the source.

    Returns
    -------
    ndarray
        Ratio; negative in an inverted rear lobe.

    References
    ----------
    IEC 60268-4; Eargle, The Microphone Book, table of first-order patterns.

    Examples
    --------
    >>> float(directivity(0.5, 0.0))
    0.5
    """
    a = np.asarray(pressure_share, dtype=float)
    return np.asarray(a + (1.0 - a) * np.asarray(cos_theta, dtype=float))


MicKind = Literal["moving-coil", "condenser", "ribbon", "boundary"]


MIC_SWITCHES: Final = {
    "wired_inverted": "wiring inverted",
    "cable_inverted": "inverting cable",
}
