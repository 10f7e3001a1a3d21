"""How fast sound travels in the room's air, and what the air takes from it on the way.

Sources: ISO 9613-1:1993 for the reference speed (343.2 m/s at 293.15 K, scaled with the
square root of the absolute temperature) and for absorption; Cramer, J. Acoust. Soc. Am. 93
(1993) 2510 for the speed in moist air. Pressure is the standard atmosphere throughout.
"""

from math import exp, sqrt
from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats
from ringside.constants import (
    REFERENCE_SPEED_OF_SOUND,
    REFERENCE_TEMPERATURE_K,
    STANDARD_PRESSURE_PA,
    ZERO_CELSIUS_K,
)
from ringside.errors import RingsideError

COLDEST_C = -20.0
HOTTEST_C = 50.0
MOIST_COLDEST_C = 0.0
MOIST_HOTTEST_C = 30.0
"""Cramer's equation is fitted to 0 to 30 °C."""

CO2_FRACTION: Final = 0.000314
"""Mole fraction of carbon dioxide Cramer takes for ordinary air."""


def speed_of_sound(temperature_c: float, humidity_pct: float | None = None) -> float:
    """Speed of sound in air.

    Parameters
    ----------
    temperature_c : float
        Air temperature in degrees Celsius, -20 to 50 (the range ISO 9613-1 tabulates);
        0 to 30 when a humidity is given.
    humidity_pct : float, optional
        Relative humidity, per cent, 0 to 100. None is not measured: the reference formula.

    Returns
    -------
    float
        Metres per second.

    Raises
    ------
    RingsideError
        Outside that range; 68 is more likely Fahrenheit.

    References
    ----------
    ISO 9613-1:1993, equation A.5 in substance; Cramer (1993), equation 15.

    Examples
    --------
    >>> round(speed_of_sound(20.0), 1), round(speed_of_sound(20.0, 50.0), 2)
    (343.2, 343.99)
    """
    if not COLDEST_C <= temperature_c <= HOTTEST_C:
        raise RingsideError(
            f"the air temperature must be {COLDEST_C:g} to {HOTTEST_C:g} °C, got {temperature_c:g}"
            " (given in Fahrenheit?)"
        )
    if humidity_pct is not None:
        return _moist(temperature_c, humidity_pct)
    return REFERENCE_SPEED_OF_SOUND * sqrt(
        (temperature_c + ZERO_CELSIUS_K) / REFERENCE_TEMPERATURE_K
    )


def humidity_words(temperature_c: float, humidity_pct: float | None) -> str:
    """Why a humidity cannot be counted at a temperature; empty when it can.

    Parameters
    ----------
    temperature_c : float
        Degrees Celsius.
    humidity_pct : float or None
        Relative, per cent.

    Returns
    -------
    str
    """
    if humidity_pct is None:
        return ""
    if not 0 <= humidity_pct <= 100:
        return f"the relative humidity must be 0 to 100 %, got {humidity_pct:g}"
    if not MOIST_COLDEST_C <= temperature_c <= MOIST_HOTTEST_C:
        return (
            f"humidity can be counted from {MOIST_COLDEST_C:g} to {MOIST_HOTTEST_C:g} °C;"
            f" at {temperature_c:g} °C leave it empty"
        )
    return ""


def _moist(t: float, humidity_pct: float) -> float:
    words = humidity_words(t, humidity_pct)
    if words:
        raise RingsideError(words)
    p, kelvin = STANDARD_PRESSURE_PA, t + ZERO_CELSIUS_K
    # Saturation vapour pressure and enhancement factor: Cramer's equations 16 and 17.
    saturation = exp(
        1.2811805e-5 * kelvin**2 - 1.9509874e-2 * kelvin + 34.04926034 - 6353.6311 / kelvin
    )
    enhancement = 1.00062 + 3.14e-8 * p + 5.6e-7 * t**2
    w, c = humidity_pct / 100 * enhancement * saturation / p, CO2_FRACTION
    return (
        331.5024
        + 0.603055 * t
        - 0.000528 * t**2
        + (51.471935 + 0.1495874 * t - 0.000782 * t**2) * w
        + (-1.82e-7 + 3.73e-8 * t - 2.93e-10 * t**2) * p
        + (-85.20931 - 0.228525 * t + 5.91e-5 * t**2) * c
        - 2.835149 * w**2
        - 2.15e-13 * p**2
        + 29.179762 * c**2
        + 0.000486 * w * p * c
    )


def absorption_db_m(frequency_hz: ArrayLike, temperature_c: float, humidity_pct: float) -> Floats:
    """What the air takes from a plane wave, decibels per metre.

    Parameters
    ----------
    frequency_hz : array_like
        Any shape, hertz.
    temperature_c, humidity_pct : float

    Returns
    -------
    ndarray
        Decibels per metre, of the same shape.

    References
    ----------
    ISO 9613-1:1993, equations 3 to 5 and B.1 to B.3.

    Examples
    --------
    >>> round(float(absorption_db_m(1000.0, 20.0, 70.0)) * 1000, 1)
    5.0
    """
    f = np.asarray(frequency_hz, dtype=float)
    kelvin = temperature_c + ZERO_CELSIUS_K
    warm = kelvin / REFERENCE_TEMPERATURE_K
    # Molar concentration of water, per cent, at the standard pressure (B.1 to B.3).
    water = humidity_pct * 10 ** (-6.8346 * (273.16 / kelvin) ** 1.261 + 4.6151)
    oxygen = 24 + 4.04e4 * water * (0.02 + water) / (0.391 + water)
    nitrogen = warm**-0.5 * (9 + 280 * water * exp(-4.170 * (warm ** (-1 / 3) - 1)))
    relaxation = 0.01275 * exp(-2239.1 / kelvin) / (oxygen + f**2 / oxygen)
    relaxation = relaxation + 0.1068 * exp(-3352.0 / kelvin) / (nitrogen + f**2 / nitrogen)
    return np.asarray(8.686 * f**2 * (1.84e-11 * warm**0.5 + warm**-2.5 * relaxation))
