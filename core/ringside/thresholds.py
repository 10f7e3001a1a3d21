"""The named settings behind the verdicts, each with the reason for its value.

They can be changed per layout; the reasons are shown beside them.
"""

from typing import Annotated, Final

from pydantic import Field

from ringside.values import Record


class Thresholds(Record):
    """Limits of the verdicts. Decibels, degrees."""

    no_matter_level_db: Annotated[float, Field(strict=True, ge=3, le=40)] = 9.5
    carried_db: Annotated[float, Field(strict=True, ge=6, le=60)] = 9.5
    hollow_gain_db: Annotated[float, Field(strict=True, ge=1, le=12)] = 3.0
    head_plane_deg: Annotated[float, Field(strict=True, ge=0, le=45)] = 15.0
    same_angle_deg: Annotated[float, Field(strict=True, ge=0, le=20)] = 5.0
    null_db: Annotated[float, Field(strict=True, ge=10, le=40)] = 20.0


REASONS: Final[dict[str, str]] = {
    "no_matter_level_db": (
        "Distance ratio 3 is 9.5 dB; beyond it the ripple of the sum stays under 6 dB peak to"
        " peak (the 3-to-1 rule, common practice)."
    ),
    "carried_db": (
        "When both mics hear a drum this far under the peak of the drum's own mic, that one"
        " carries the drum and covers the comb of the two bleeds (the 3-to-1 figure again)."
    ),
    "hollow_gain_db": "A flip that gains 3 dB of body is heard at once (common practice).",
    "head_plane_deg": (
        "Near the plane of a head the two faces cancel and the first half-wave may go either"
        " way (a head moves as a dipole; common practice puts the doubt at about 15°)."
    ),
    "same_angle_deg": (
        "Two mics that see a head from the same side at nearly the same angle get the same"
        " first half-wave, whichever it is: the first mode has no angle round its axis."
    ),
    "null_db": (
        "This far down a pattern's null, what reaches the capsule first is a reflection and"
        " its sign cannot be planned."
    ),
}
