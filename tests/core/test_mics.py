"""First-order patterns against Eargle, The Microphone Book (IEC 60268-4 quantities)."""

import numpy as np
import pytest
from ringside.plan.mics import PRESSURE_SHARE, Mic, directivity
from scipy.integrate import quad
from scipy.optimize import brentq


def response(pattern, degrees):
    return float(directivity(PRESSURE_SHARE[pattern], np.cos(np.radians(degrees))))


# Eargle, The Microphone Book, first-order characteristics: pattern, null, level at 90°,
# random energy efficiency, distance factor, -3 dB arc.
TABLE = [
    ("cardioid", 180.0, -6.0, 0.333, 1.7, 131),
    ("supercardioid", 126.0, -8.7, 0.268, 1.9, 115),
    ("hypercardioid", 109.5, -12.0, 0.250, 2.0, 105),
    ("figure-8", 90.0, None, 0.333, 1.7, 90),
]


@pytest.mark.parametrize(("pattern", "null", "side", "ree", "distance", "arc"), TABLE)
def test_handbook_table(pattern, null, side, ree, distance, arc):
    assert abs(response(pattern, null)) < 0.016  # 125 to 127° for the supercardioid
    if side is not None:
        assert 20 * np.log10(abs(response(pattern, 90))) == pytest.approx(side, abs=0.06)
    energy = quad(lambda t: response(pattern, np.degrees(t)) ** 2 * np.sin(t) / 2, 0, np.pi)[0]
    assert energy == pytest.approx(ree, abs=0.001)
    assert 1 / np.sqrt(energy) == pytest.approx(distance, abs=0.05)
    half = brentq(lambda d: response(pattern, d) - 10 ** (-3 / 20), 0, 89.9)
    assert 2 * half == pytest.approx(arc, abs=1.0)


def test_omni_hears_every_way_alike():
    assert [response("omni", d) for d in (0, 90, 180)] == [1.0, 1.0, 1.0]


@pytest.mark.parametrize(
    ("pattern", "sign"),
    [("omni", 1), ("wide cardioid", 1), ("supercardioid", -1), ("hypercardioid", -1),
     ("figure-8", -1)],
)  # fmt: skip
def test_rear_lobe_is_inverted_where_theory_says(pattern, sign):
    assert np.sign(response(pattern, 180)) == sign


def test_switches_multiply():
    base = {"id": "A", "name": "A", "position_m": (0, 0, 1), "aim": (0, 0, -2)}
    assert Mic(**base).sign == 1
    assert Mic(**base, cable_inverted=True).sign == -1
    assert Mic(**base, wired_inverted=True, cable_inverted=True).sign == 1
    assert Mic(**base).aim == (0.0, 0.0, -1.0)
