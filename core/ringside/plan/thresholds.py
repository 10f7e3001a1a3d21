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
    near_surface_m: Annotated[float, Field(strict=True, ge=0, le=1)] = 0.4
    reflection_db: Annotated[float, Field(strict=True, ge=-6, le=12)] = 0.0
    tape_error_m: Annotated[float, Field(strict=True, ge=0, le=0.1)] = 0.005
    air_error_c: Annotated[float, Field(strict=True, ge=0, le=10)] = 1.0
    strike_spread_m: Annotated[float, Field(strict=True, ge=0, le=0.2)] = 0.01


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
    "near_surface_m": (
        "Nearer than this to the floor, a wall or the ceiling, what the surface sends back is"
        " part of the mic's own sound: its first dip, near c/(4h), lies above 200 Hz (image"
        " principle; the limit is from memory)."
    ),
    "reflection_db": (
        "When a surface sends an overhead or room mic more than the drum does straight, by this"
        " much, the reflection may lead and the sign is unsure."
    ),
    "tape_error_m": (
        "One distance read with a tape is good to about this, one standard deviation"
        " (common practice)."
    ),
    "air_error_c": "The air is not as warm at the cymbals as at the kick (common practice).",
    "strike_spread_m": (
        "No drummer hits the same spot twice: an even one lands about a finger off the centre"
        " (from memory)."
    ),
}
