"""What a close source does to a pattern's low end, and what a low cut takes off it again.

The pressure-gradient share of a pattern grows near a small source by 1 + 1/(jkr), because the
wave is curved there: +20.8 dB for a figure-8 and +14.9 dB for a cardioid on axis at 5 cm and
100 Hz, nothing for an omni (Eargle, The Microphone Book, proximity effect).

A drum is not small: on the axis of a vibrating disc of radius R, well below the frequency where
it is large against the wave, the pressure at a distance z goes with √(z²+R²) - z, so the ratio
of gradient to pressure is that of a small source √(z²+R²) away (from the Rayleigh integral of a
piston; Kinsler et al., Fundamentals of Acoustics, the field of a plane circular piston). A mic
touching a head has R for its distance, not nothing. The head is taken as a disc that moves as
one; the first mode of a membrane moves less at its edge, so what is told near it is rather too
little than too much. Off the axis the same distance is taken.
"""

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Complexes, Floats


def curvature_m(distance_m: ArrayLike, radius_m: ArrayLike) -> Floats:
    """The distance of the small source whose wave is curved as a disc's is.

    Parameters
    ----------
    distance_m, radius_m : array_like
        Metres from the disc and its radius; broadcast together.

    Returns
    -------
    ndarray
        Metres.
    """
    return np.asarray(np.hypot(np.asarray(distance_m, float), np.asarray(radius_m, float)))


def near_response(
    pressure_share: ArrayLike, cos_theta: ArrayLike, frequency_hz: ArrayLike, reach_m: ArrayLike,
    speed: float,
) -> Complexes:  # fmt: skip
    """A first-order pattern's response to a small source, far off and on axis being 1.

    Parameters
    ----------
    pressure_share, cos_theta : array_like
        The a of each pattern; cosine of the angle off the front; broadcast together.
    frequency_hz : array_like
        Hertz.
    reach_m : array_like
        How far the source is, metres, as `curvature_m` gives it for a drum.
    speed : float
        Of sound, m/s.

    Returns
    -------
    ndarray of complex
        The size is a ratio, the angle is how much the low end leads (above 0) or lags, radians.

    Examples
    --------
    >>> round(float(20 * np.log10(abs(near_response(0.5, 1.0, 100.0, 0.05, 343.2)))), 1)
    14.9
    """
    a = np.asarray(pressure_share, dtype=float)
    gradient = (1 - a) * np.asarray(cos_theta, dtype=float)
    kr = 2 * np.pi * np.asarray(frequency_hz, dtype=float) * np.asarray(reach_m, float) / speed
    return np.asarray(a + gradient - 1j * gradient / kr)


def low_cut(frequency_hz: ArrayLike, corner_hz: ArrayLike) -> Complexes:
    """A low cut of 12 dB per octave, as most mics and preamps have it (second-order Butterworth).

    Parameters
    ----------
    frequency_hz, corner_hz : array_like
        Hertz; a corner of 0 cuts nothing; broadcast together.

    Returns
    -------
    ndarray of complex
        -3 dB and a quarter turn ahead at the corner.

    Examples
    --------
    >>> round(float(20 * np.log10(abs(low_cut(80.0, 80.0)))), 2)
    -3.01
    """
    x = np.asarray(corner_hz, dtype=float) / np.asarray(frequency_hz, dtype=float)
    return np.asarray(1 / (1 - x**2 - 1j * np.sqrt(2) * x))
