"""The named settings behind the verdicts, each with the reason for its value.

They can be changed per layout; the reasons are shown beside them.
"""

from typing import Annotated, Final

from pydantic import Field

from ringside.values import Record


class Thresholds(Record):
    """Limits of the verdicts. Decibels, degrees."""

    no_matter_level_db: Annotated[float, Field(strict=True, ge=3, le=40)] = 9.5
    takes_db: Annotated[float, Field(strict=True, ge=0.5, le=20)] = 2.0
    picture_takes_db: Annotated[float, Field(strict=True, ge=0, le=20)] = 1.0
    hollow_gain_db: Annotated[float, Field(strict=True, ge=1, le=12)] = 3.0
    head_plane_deg: Annotated[float, Field(strict=True, ge=0, le=45)] = 15.0
    same_angle_deg: Annotated[float, Field(strict=True, ge=0, le=20)] = 5.0
    behind_ms: Annotated[float, Field(strict=True, ge=0, le=20)] = 1.0
    echo_ms: Annotated[float, Field(strict=True, ge=10, le=100)] = 30.0
    null_db: Annotated[float, Field(strict=True, ge=10, le=40)] = 20.0
    near_surface_m: Annotated[float, Field(strict=True, ge=0, le=1)] = 0.4
    reflection_db: Annotated[float, Field(strict=True, ge=-6, le=12)] = 0.0
    under_full_db: Annotated[float, Field(strict=True, ge=0, le=40)] = 12.0
    tape_error_m: Annotated[float, Field(strict=True, ge=0, le=0.1)] = 0.005
    air_error_c: Annotated[float, Field(strict=True, ge=0, le=10)] = 1.0
    strike_spread_m: Annotated[float, Field(strict=True, ge=0, le=0.2)] = 0.01


REASONS: Final[dict[str, str]] = {
    "no_matter_level_db": (
        "Distance ratio 3 is 9.5 dB; beyond it the ripple of the sum stays under 6 dB peak to"
        " peak (the 3-to-1 rule, common practice)."
    ),
    "takes_db": (
        "What two mics can take from a drum in the mix, between their best and their worst, before"
        " anybody looks for it: twice the smallest change of one drum's level that is noticed in a"
        " mix, 1 dB (common practice)."
    ),
    "picture_takes_db": (
        "The same for the two of a stereo pair. They are heard left and right of all the others,"
        " and what they keep equal they keep for the picture: a decibel is enough (from memory)."
    ),
    "hollow_gain_db": "A flip that gains 3 dB of body is heard at once (common practice).",
    "behind_ms": (
        "Up to about a millisecond two arrivals make one sound at one place; beyond it the first"
        " leads and the later one is heard as distance (summing localisation and precedence:"
        " Blauert, Spatial Hearing, ch. 3; Litovsky et al., J. Acoust. Soc. Am. 106 (1999) 1633)."
    ),
    "echo_ms": (
        "From about here a second stroke is heard apart from the first (Haas 1951: 30 ms and more"
        " for speech; clicks split sooner, long sounds later, Litovsky et al. 1999; for a drum from"
        " memory)."
    ),
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
        "About this near to the floor, a wall or the ceiling, what the surface sends back is part"
        " of the mic's own sound: its first dip, near c/(4h), lies above 200 Hz. It counts whole"
        " up to three quarters of this and fades until half as far again (image principle; the"
        " limits are from memory)."
    ),
    "reflection_db": (
        "A reflection of opposite sign within the first half-wave, no more than 6 dB under what"
        " leads, makes the sign unsure; this moves the 6 dB, up for fewer doubts."
    ),
    "under_full_db": (
        "Gain is set so that usual peaks lie this far under full scale: hard hits and a drummer who"
        " warms up stay under it (common practice)."
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
