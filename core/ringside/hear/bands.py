"""How each kind of drum sounds, as far as the arithmetic needs it.

Peak levels, attack limits and typical fundamentals are figures from memory (common
practice); they only weigh mics against each other and choose the band a dip is looked
for in. A drum's own known fundamental always goes before the estimate.
"""

from dataclasses import dataclass
from typing import Final, Literal

from ringside.constants import INCH_M
from ringside.hear.notes import note_of
from ringside.plan.kit import Cymbal, Drum


@dataclass(frozen=True, kw_only=True)
class Voice:
    """What a kind of source is like: hertz, metres, decibels."""

    fundamental_hz: float
    at_diameter_m: float
    attack_hz: float
    peak_db: float


VOICES: Final[dict[str, Voice]] = {
    "kick": Voice(fundamental_hz=60, at_diameter_m=22 * INCH_M, attack_hz=6000, peak_db=112),
    "snare": Voice(fundamental_hz=230, at_diameter_m=14 * INCH_M, attack_hz=8000, peak_db=115),
    "rack": Voice(fundamental_hz=140, at_diameter_m=12 * INCH_M, attack_hz=6000, peak_db=111),
    "floor": Voice(fundamental_hz=85, at_diameter_m=16 * INCH_M, attack_hz=6000, peak_db=111),
    "hand drum": Voice(fundamental_hz=260, at_diameter_m=8 * INCH_M, attack_hz=8000, peak_db=108),
    "hats": Voice(fundamental_hz=500, at_diameter_m=14 * INCH_M, attack_hz=10000, peak_db=100),
    "crash": Voice(fundamental_hz=400, at_diameter_m=16 * INCH_M, attack_hz=10000, peak_db=108),
    "ride": Voice(fundamental_hz=450, at_diameter_m=20 * INCH_M, attack_hz=10000, peak_db=100),
    "splash": Voice(fundamental_hz=700, at_diameter_m=10 * INCH_M, attack_hz=10000, peak_db=103),
    "china": Voice(fundamental_hz=450, at_diameter_m=18 * INCH_M, attack_hz=10000, peak_db=108),
    "percussion": Voice(fundamental_hz=800, at_diameter_m=0.15, attack_hz=10000, peak_db=105),
}

OCTAVE_EDGE: Final = 2.0**0.5
"""The body band is the octave centred on the fundamental."""

PUNCH_OCTAVES: Final = 2.5
"""The thump of a stick or beater lives within this much above the fundamental (from memory).

It also allows for the shell: top and bottom mics of a snare are never equal in time, and
once one is flipped nobody calls them late (common practice)."""


@dataclass(frozen=True, kw_only=True)
class Bands:
    """The three bands a source is judged in, hertz."""

    fundamental: float
    body_low: float
    body_high: float
    punch_high: float
    attack_high: float


def bands(part: Drum | Cymbal) -> Bands:
    """The bands of one drum or cymbal.

    A membrane's modes rise as its diameter falls (f proportional to 1/d at one tension
    per length; Fletcher & Rossing, The Physics of Musical Instruments, ch. 18), so the
    typical figure is scaled from the typical size.

    Parameters
    ----------
    part : Drum or Cymbal

    Returns
    -------
    Bands
    """
    voice = VOICES[part.kind]
    known = part.fundamental_hz if isinstance(part, Drum) else None
    f = known or voice.fundamental_hz * voice.at_diameter_m / part.diameter_m
    attack = max(voice.attack_hz, 4 * f)
    return Bands(
        fundamental=f,
        body_low=f / OCTAVE_EDGE,
        body_high=f * OCTAVE_EDGE,
        punch_high=min(f * 2**PUNCH_OCTAVES, attack),
        attack_high=attack,
    )


TuningFrom = Literal["estimated", "note", "measured"]
TUNING_SPREAD: Final[dict[TuningFrom, float]] = {
    "estimated": 0.12,
    "note": 0.017,
    "measured": 0.01,
}
"""How well a fundamental is known, one standard deviation as a share of it.

Estimated from kind and size: one size is tuned anywhere within about a fifth (common practice),
and a range of a fifth taken as evenly filled has ln(1.5)/√12 = 0.117. As a note: to the nearest
semitone, 100/√12 = 29 cents. Measured in hertz: the lugs of a drum in tune differ by a hundredth
(common practice)."""

NOTE_CENTS: Final = 0.6
"""A fundamental this close to a note was typed as one; hertz are kept to a hundredth."""


def tuning_from(part: Drum | Cymbal) -> TuningFrom:
    """Where the fundamental of a part comes from.

    Parameters
    ----------
    part : Drum or Cymbal

    Returns
    -------
    TuningFrom
    """
    known = part.fundamental_hz if isinstance(part, Drum) else None
    if known is None:
        return "estimated"
    return "note" if abs(note_of(known)[1]) <= NOTE_CENTS else "measured"
