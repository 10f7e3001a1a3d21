"""Notes and frequencies: equal-tempered on A4 = 440 Hz (ISO 16:1975)."""

from typing import Final

import numpy as np

from ringside.errors import RingsideError

A4_HZ: Final = 440.0
"""ISO 16:1975."""

NAMES: Final = ("C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B")


def note_of(hz: float) -> tuple[str, float]:
    """The nearest note and how far above it, cents.

    Examples
    --------
    >>> note_of(440.0), note_of(65.41)[0]
    (('A4', 0.0), 'C2')

    Parameters
    ----------
    hz : float
        Hertz.

    Returns
    -------
    (str, float)
        Name, and cents above it.

    Raises
    ------
    RingsideError
        When the frequency is not above nothing.
    """
    if not hz > 0:
        raise RingsideError(f"expected a frequency above nothing, got {hz:g} Hz")
    steps = 12 * float(np.log2(hz / A4_HZ))
    nearest = round(steps)
    octave, name = divmod(nearest + 57, 12)
    return f"{NAMES[name]}{octave}", round(100 * (steps - nearest), 1) + 0.0
