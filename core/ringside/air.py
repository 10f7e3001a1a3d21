"""How fast sound travels in the room's air.

Source: ISO 9613-1:1993, reference speed 343.2 m/s at 293.15 K, scaled with the square
root of the absolute temperature. Humidity changes the result by less than 0.4 % indoors
and is not counted here.
"""

from math import sqrt

from ringside.constants import (
    REFERENCE_SPEED_OF_SOUND,
    REFERENCE_TEMPERATURE_K,
    ZERO_CELSIUS_K,
)
from ringside.errors import RingsideError

COLDEST_C = -20.0
HOTTEST_C = 50.0


def speed_of_sound(temperature_c: float) -> float:
    """Speed of sound in air.

    Parameters
    ----------
    temperature_c : float
        Air temperature in degrees Celsius, -20 to 50 (the range ISO 9613-1 tabulates).

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
    ISO 9613-1:1993, equation A.5 in substance.

    Examples
    --------
    >>> round(speed_of_sound(20.0), 1)
    343.2
    """
    if not COLDEST_C <= temperature_c <= HOTTEST_C:
        raise RingsideError(
            f"the air temperature must be {COLDEST_C:g} to {HOTTEST_C:g} °C, got {temperature_c:g}"
            " (given in Fahrenheit?)"
        )
    return REFERENCE_SPEED_OF_SOUND * sqrt(
        (temperature_c + ZERO_CELSIUS_K) / REFERENCE_TEMPERATURE_K
    )
