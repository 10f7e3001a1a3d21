"""Tuning: notes and frequencies, the spread of the toms, lug readings and their drift.

Notes are equal-tempered on A4 = 440 Hz (ISO 16:1975). The lowest modes of an ideal circular
membrane lie at the zeros of the Bessel functions (Fletcher & Rossing, The Physics of Musical
Instruments, ch. 3): the pitch heard when tapping beside a lug is the (1,1) mode.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from typing import Annotated, Final

import numpy as np
from pydantic import Field

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.hear.bands import bands
from ringside.hear.notes import A4_HZ, note_of
from ringside.plan.kit import HIGHEST_HZ, LOWEST_HZ, Drum, Kit
from ringside.values import Key, Record, Text

LETTERS: Final = {"C": 0, "D": 2, "E": 4, "F": 5, "G": 7, "A": 9, "B": 11}

MEMBRANE_ZEROS: Final = (2.404826, 3.831706, 5.135622, 5.520078, 6.380162, 7.015587)
"""First zeros of J0, J1, J2, J0 (second), J3, J1 (second): modes 01, 11, 21, 02, 31, 12
(Abramowitz & Stegun, Handbook of Mathematical Functions, table 9.5)."""

LUG_RATIO: Final = MEMBRANE_ZEROS[1] / MEMBRANE_ZEROS[0]
"""The (1,1) mode over the fundamental of an ideal membrane: 1.594. Air and the second head
move it on a real drum; a fundamental worked out this way is an estimate."""

DRIFT_CENTS: Final = 20.0
"""A lug that has moved this far is heard against the others (from memory)."""

UNEVEN_CENTS: Final = 35.0
"""Lugs of one head further apart than this beat against each other (from memory)."""

RECHECK_MINUTES: Final = 90.0
"""Tuning is looked at again after this long of playing (from memory)."""

EVEN_CENTS: Final = 60.0
"""Steps between toms that differ by no more than this sound even (from memory)."""

INTERVALS: Final = (
    "unison", "semitone", "whole tone", "minor third", "major third", "fourth", "tritone",
    "fifth", "minor sixth", "major sixth", "minor seventh", "major seventh", "octave",
)  # fmt: skip


def membrane_ratios() -> Floats:
    """The first six modes of an ideal membrane over its fundamental, (6,).

    Examples
    --------
    >>> [round(float(x), 3) for x in membrane_ratios()]
    [1.0, 1.593, 2.136, 2.295, 2.653, 2.917]
    """
    return np.array(MEMBRANE_ZEROS) / MEMBRANE_ZEROS[0]


def hz_of(note: str) -> float:
    """The frequency of a note such as ``A2``, ``Bb1`` or ``F♯3``, hertz.

    Parameters
    ----------
    note : str

    Returns
    -------
    float
        Hertz.

    Raises
    ------
    RingsideError
        When it cannot be read as a note.

    Examples
    --------
    >>> hz_of("A2"), round(hz_of("Bb1"), 2)
    (110.0, 58.27)
    """
    found = re.fullmatch(r"\s*([A-Ga-g])([#♯b♭]?)(-?\d)\s*", note)
    if not found:
        raise RingsideError(f"expected a note with its octave, as A2 or Bb1, got {note!r}")
    letter, sign, octave = found.groups()
    step = LETTERS[letter.upper()] + {"#": 1, "♯": 1, "b": -1, "♭": -1}.get(sign, 0)
    return float(A4_HZ * 2.0 ** ((step - 9) / 12 + int(octave) - 4))


def fundamental_of(text: str) -> float:
    """A fundamental as somebody types it: hertz (``82``, ``82 Hz``) or a note (``E2``).

    Parameters
    ----------
    text : str

    Returns
    -------
    float
        Hertz.

    Raises
    ------
    RingsideError
        When it is neither, or outside what a drum can be tuned to.
    """
    plain = text.strip().removesuffix("Hz").removesuffix("hz").strip().replace(",", ".")
    try:
        hz = float(plain)
    except ValueError:
        hz = hz_of(text)
    if not LOWEST_HZ <= hz <= HIGHEST_HZ:
        raise RingsideError(
            f"a drum's fundamental lies between {LOWEST_HZ:g} and {HIGHEST_HZ:g} Hz, got {hz:g}"
        )
    return round(hz, 3)


def interval_words(cents: float) -> str:
    """An interval by its nearest name: ``major third``, ``octave and a fourth``.

    Parameters
    ----------
    cents : float
        Hundredths of a semitone.

    Returns
    -------
    str
    """
    steps = round(abs(cents) / 100)
    octaves, rest = divmod(steps, 12)
    if octaves == 0:
        return INTERVALS[rest]
    plain = "octave" if octaves == 1 else f"{octaves} octaves"
    return plain if rest == 0 else f"{plain} and a {INTERVALS[rest]}"


@dataclass(frozen=True, kw_only=True, slots=True)
class TomStep:
    """From one tom to the next lower one."""

    high: str
    low: str
    cents: int
    words: str
    sure: bool
    """Both are tuned or measured, not estimated."""


@dataclass(frozen=True, slots=True)
class Spread:
    """Steps between neighbouring toms, and whether they are even."""

    steps: tuple[TomStep, ...]
    spread_cents: float
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class DrumNote:
    """A drum's fundamental as a note, and its body band, hertz."""

    id: str
    name: str
    fundamental_hz: float
    note: str
    cents: float
    known: bool
    body_low_hz: float
    body_high_hz: float


@dataclass(frozen=True, kw_only=True, slots=True)
class DriftRow:
    """A drum's first lug reading of the day against its last."""

    drum: str
    times: int
    drift_cents: list[float]
    """Lug by lug."""
    uneven_cents: float
    """Spread of the last reading."""
    worst_lug: int
    """From 1."""
    fundamental_hz: float
    """Worked out from the last reading."""
    minutes: int
    """Since the last reading."""
    recheck: bool
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Tuning:
    """Notes of every drum, the spread of the toms, and what drifted today."""

    drums: list[DrumNote]
    steps: list[TomStep]
    spread_words: str
    drift: list[DriftRow]


def spread_of(kit: Kit) -> Spread:
    """How the toms are spread, high to low, from their known or estimated fundamentals.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Spread
    """
    toms = [d for d in kit.drums if d.kind in ("rack", "floor")]
    known = [d for d in toms if d.fundamental_hz is not None]
    pitched = sorted(toms, key=lambda d: -bands(d).fundamental)
    steps = tuple(_tom_step(a, b) for a, b in pairwise(pitched))
    if len(steps) < 1:
        return Spread(steps, 0.0, "One tom has no neighbour to be spread from.")
    sizes = [s.cents for s in steps]
    width = float(max(sizes) - min(sizes))
    if len(known) < len(toms):
        missing = ", ".join(d.name for d in toms if d.fundamental_hz is None)
        return Spread(steps, width, f"Estimated from size; type a note for {missing}.")
    if len(steps) == 1:
        return Spread(steps, 0.0, f"A {steps[0].words} between the two toms.")
    if width <= EVEN_CENTS:
        names = {s.words for s in steps}
        way = f"in {names.pop()}s" if len(names) == 1 else "evenly"
        return Spread(steps, width, f"The toms are spread {way}.")
    wide = max(steps, key=lambda s: s.cents)
    high, low = kit.part(wide.high).name, kit.part(wide.low).name
    return Spread(
        steps, width,
        f"Uneven by {width:.0f} cents: the step {high} to {low} is the widest.",
    )  # fmt: skip


def _tom_step(a: Drum, b: Drum) -> TomStep:
    cents = _cents(bands(b).fundamental, bands(a).fundamental)
    return TomStep(
        high=a.id,
        low=b.id,
        cents=round(cents),
        words=interval_words(cents),
        sure=a.fundamental_hz is not None and b.fundamental_hz is not None,
    )


class LugReading(Record):
    """The pitch beside each lug of a drum's batter head at one time, round from the strike."""

    drum: Key
    at: Annotated[str, Field(strict=True, max_length=40, description="ISO 8601 with zone.")]
    lugs_hz: tuple[Annotated[float, Field(strict=True, ge=LOWEST_HZ, le=3000)], ...] = Field(
        min_length=1, max_length=12
    )
    by: Text = ""


def _cents(a: float, b: float) -> float:
    return 1200 * float(np.log2(b / a))


def drift(readings: Sequence[LugReading], drum: Drum, now: datetime) -> DriftRow:
    """One drum through the day: first reading against last, lug by lug.

    Parameters
    ----------
    readings : sequence of LugReading
        Of this drum, in order of time.
    drum : Drum
    now : datetime
        With a zone; the core has no clock of its own.

    Returns
    -------
    DriftRow
    """
    first, last = readings[0], readings[-1]
    same = len(first.lugs_hz) == len(last.lugs_hz)
    moved = [_cents(a, b) for a, b in zip(first.lugs_hz, last.lugs_hz, strict=False)]
    uneven = _cents(min(last.lugs_hz), max(last.lugs_hz))
    worst = int(np.argmax(np.abs(moved)))
    minutes = (now - datetime.fromisoformat(last.at)).total_seconds() / 60
    recheck = minutes >= RECHECK_MINUTES
    return DriftRow(
        drum=drum.id,
        times=len(readings),
        drift_cents=[round(c, 1) + 0.0 for c in moved],
        uneven_cents=round(uneven, 1),
        worst_lug=worst + 1,
        fundamental_hz=round(float(np.median(last.lugs_hz)) / LUG_RATIO, 1),
        minutes=max(0, round(minutes)),
        recheck=recheck,
        words=_drift_words(drum, moved, worst, uneven, recheck, same),
    )


def _drift_words(
    drum: Drum, moved: list[float], worst: int, uneven: float, recheck: bool, same: bool
) -> str:
    said = []
    if not same:
        said.append("the first and the last reading have different numbers of lugs")
    if abs(moved[worst]) >= DRIFT_CENTS:
        way = "down" if moved[worst] < 0 else "up"
        said.append(f"lug {worst + 1} has gone {way} {abs(moved[worst]):.0f} cents")
    if uneven > UNEVEN_CENTS:
        said.append(f"the lugs are {uneven:.0f} cents apart")
    if recheck:
        said.append("it is time to check it again")
    if not said:
        return f"{drum.name} holds."
    text = "; ".join(said)
    return f"{drum.name}: {text}."


def tuning_report(kit: Kit, readings: Sequence[LugReading], now: datetime) -> Tuning:
    """Notes of every drum, the spread of the toms, and the drift of what was read today.

    Parameters
    ----------
    readings : sequence of LugReading
        Of any drums of the kit, in order of time.
    now : datetime
        With a zone.

    Returns
    -------
    Tuning
    """
    spread = spread_of(kit)
    by_drum = [(d, [r for r in readings if r.drum == d.id]) for d in kit.drums]
    return Tuning(
        drums=[_drum_note(d) for d in kit.drums],
        steps=list(spread.steps),
        spread_words=spread.words,
        drift=[drift(rs, d, now) for d, rs in by_drum if rs],
    )


def _drum_note(d: Drum) -> DrumNote:
    b = bands(d)
    note, cents = note_of(b.fundamental)
    return DrumNote(
        id=d.id,
        name=d.name,
        fundamental_hz=b.fundamental,
        note=note,
        cents=cents,
        known=d.fundamental_hz is not None,
        body_low_hz=b.body_low,
        body_high_hz=b.body_high,
    )
