"""A drum's fundamental from its hits: the highest line of the spectrum near what is planned."""

from typing import Final

import numpy as np

from ringside.arrays import Floats

RANGE: Final = (0.6, 1.6)
"""Times the planned fundamental; the next mode of a membrane lies at 1.594 (Fletcher and Rossing,
The Physics of Musical Instruments, ch. 3)."""

SETTLES_S: Final = 0.02
"""After the stroke, while the stick is in it."""

OVER_DB: Final = 15.0
AROUND: Final = (0.3, 5.0)
"""The line stands so much over the median from so many times the planned fundamental to so many:
of plain noise the highest of a range stands 8 dB over it, seldom 12."""


def fundamental(track: Floats, begins: int, planned_hz: float, rate_hz: int) -> float | None:
    """The fundamental in one track of one hit.

    Parameters
    ----------
    track : ndarray, shape (N,)
    begins : int
        The sample it begins at.
    planned_hz : float
    rate_hz : int

    Returns
    -------
    float or None
        Hertz; None where no line stands out.
    """
    cut = track[begins + round(SETTLES_S * rate_hz) :]
    if len(cut) * planned_hz < 4 * rate_hz:
        return None
    size = 8 * len(cut)
    # It only falls: a drum's pitch sinks as it dies away, and what is loud is what is heard.
    fall = np.cos(np.pi / 2 * np.arange(len(cut)) / len(cut)) ** 2
    power = np.abs(np.fft.rfft(cut * fall, size))
    f = np.fft.rfftfreq(size, 1 / rate_hz)
    inside = np.flatnonzero((f >= RANGE[0] * planned_hz) & (f <= RANGE[1] * planned_hz))
    if len(inside) < 5:
        return None
    k = int(inside[np.argmax(power[inside])])
    if k in (inside[0], inside[-1]):
        return None
    around = power[(f >= AROUND[0] * planned_hz) & (f <= AROUND[1] * planned_hz)]
    if 20 * np.log10(power[k] / max(float(np.median(around)), 1e-12)) < OVER_DB:
        return None
    a, b, c = (float(np.log(max(power[k + n], 1e-12))) for n in (-1, 0, 1))
    return float((k + 0.5 * (a - c) / (a - 2 * b + c)) * (f[1] - f[0]))
