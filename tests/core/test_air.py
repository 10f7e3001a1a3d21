"""Speed of sound against ISO 9613-1:1993 figures."""

import pytest
from ringside.errors import RingsideError
from ringside.plan.air import speed_of_sound


# ISO 9613-1:1993: reference 343.2 m/s at 20 °C; the other two follow in the tables of the trade.
@pytest.mark.parametrize(("celsius", "speed"), [(0, 331.3), (20, 343.2), (30, 349.0)])
def test_published_speeds(celsius, speed):
    assert speed_of_sound(celsius) == pytest.approx(speed, abs=0.05)


def test_slope_is_the_engineers_rule_of_thumb():
    # Common practice: about 0.6 m/s more for each degree.
    assert speed_of_sound(21) - speed_of_sound(20) == pytest.approx(0.6, abs=0.03)


@pytest.mark.parametrize("celsius", [68, -40, float("nan")])
def test_other_temperatures_are_refused_with_the_likely_slip(celsius):
    with pytest.raises(RingsideError, match="given in Fahrenheit"):
        speed_of_sound(celsius)
