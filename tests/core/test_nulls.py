"""Null aiming against pattern theory and a search over every direction there is."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.nulls import best_way, loudest_near, null_aim, null_angle, response_db
from ringside.plan.kits import KITS
from ringside.plan.layout import Layout
from ringside.plan.mics import PRESSURE_SHARE
from ringside.techniques.taking import take

KIT = Layout(name="N", kit=KITS["five-piece"]())


@pytest.mark.parametrize(
    ("pattern", "degrees"),
    [("cardioid", 180.0), ("supercardioid", 125.3), ("hypercardioid", 109.5), ("figure-8", 90.0)],
)
def test_nulls_are_where_the_handbook_has_them(pattern, degrees):
    """Eargle, The Microphone Book, table of first-order patterns (125 to 127° for super-)."""
    assert np.degrees(null_angle(PRESSURE_SHARE[pattern])) == pytest.approx(degrees, abs=0.1)


@pytest.mark.parametrize(
    ("pattern", "degrees", "db"),
    [("cardioid", 90, -6.0), ("supercardioid", 90, -8.7), ("hypercardioid", 90, -12.0),
     ("hypercardioid", 180, -6.0), ("figure-8", 60, -6.0), ("omni", 180, 0.0)],
)  # fmt: skip
def test_responses_are_those_of_the_handbook(pattern, degrees, db):
    """Eargle, the same table; figure-8 at 60° is cos 60°."""
    assert response_db(PRESSURE_SHARE[pattern], np.radians(degrees)) == pytest.approx(db, abs=0.1)


def _sphere(n):
    k = np.arange(n) + 0.5
    z = 1 - 2 * k / n
    turn = np.pi * (1 + 5**0.5) * k
    return np.column_stack([np.sqrt(1 - z**2) * np.cos(turn), np.sqrt(1 - z**2) * np.sin(turn), z])


EVERYWHERE = _sphere(40_000)
unit = st.floats(-1, 1)
direction = st.tuples(unit, unit, unit).filter(lambda v: np.linalg.norm(v) > 0.2)


@given(own=direction, other=direction, pattern=st.sampled_from(sorted(PRESSURE_SHARE)),
       off=st.floats(5, 80))  # fmt: skip
def test_no_aim_within_the_angle_hears_the_neighbour_less(own, other, pattern, off):
    d, b = np.array(own) / np.linalg.norm(own), np.array(other) / np.linalg.norm(other)
    a = PRESSURE_SHARE[pattern]
    way = best_way(d, b, a, np.radians(off))
    assert np.linalg.norm(way) == pytest.approx(1)
    assert np.degrees(np.arccos(np.clip(way @ d, -1, 1))) <= off + 1e-6
    allowed = EVERYWHERE[EVERYWHERE @ d >= np.cos(np.radians(off))]
    slow = np.abs(a + (1 - a) * (allowed @ b)).min()
    assert abs(a + (1 - a) * (way @ b)) <= slow + 1e-9


def test_turning_a_snare_mic_takes_hats_out_as_arithmetic_says():
    layout = take(KIT, "snare-centre").layout
    said = null_aim(layout, "ST", "hats", 30.0)
    mic = layout.mic("ST")
    turned = layout.with_mic(mic.model_copy(update={"aim": said.aim}))
    ids = layout.kit.source_ids
    was, now = (analyse(x).arrivals.level_db[0] for x in (layout, turned))
    hats, snare = ids.index("hats"), ids.index("snare")
    taken = (was[hats] - was[snare]) - (now[hats] - now[snare])
    assert said.taken_db == pytest.approx(taken, abs=1e-9)
    assert said.off_deg <= 30.0 + 1e-6
    assert f"{taken:.1f} dB less" in said.words
    assert said.null_deg == pytest.approx(180)


def test_a_tighter_pattern_reaches_its_null_where_a_cardioid_cannot():
    layout = take(KIT, "snare-centre").layout
    mic = layout.mic("ST").model_copy(update={"pattern": "hypercardioid"})
    said = null_aim(layout.with_mic(mic), "ST", "hats", 60.0)
    assert said.theory_db < -25  # on paper the null itself


@pytest.mark.parametrize(
    ("technique", "target", "neighbour"),
    [
        ("snare-centre", None, {"hats"}),  # common practice: the hat when miking the snare
        ("cymbal-under", "ride", {"crash-r", "snare"}),
        ("cymbal-over", "hats", {"snare"}),
        ("tom-top", "rack-2", {"ride", "crash-r", "snare"}),
    ],
)
def test_without_a_name_what_is_most_in_the_way_is_meant(technique, target, neighbour):
    layout = take(KIT, technique, target).layout
    mic = layout.mics[0]
    said = null_aim(layout, mic.id)
    assert said.neighbour in neighbour
    assert said.neighbour == loudest_near(layout.kit, mic.position_m, mic.job)


def test_the_crash_is_in_the_way_of_a_mic_over_the_ride():
    """Common practice."""
    ride = KIT.kit.part("ride")
    over = np.add(ride.centre_m, (0.1, 0.2, 0.19))
    assert loudest_near(KIT.kit, over, "ride") == "crash-r"


def test_a_cymbal_mic_is_turned_from_where_the_metal_is_nearest():
    layout = take(KIT, "cymbal-over", "hats").layout
    mic = layout.mics[0]
    hats = KIT.kit.part("hats")
    said = null_aim(layout, mic.id, "snare", 0.0)
    rng = np.random.default_rng(1)
    turn, r = rng.uniform(0, 2 * np.pi, 50_000), np.sqrt(rng.uniform(0, 1, 50_000))
    flat = (r * hats.diameter_m / 2)[:, None] * np.column_stack([np.cos(turn), np.sin(turn)])
    metal = np.column_stack([flat, np.zeros(len(r))]) + np.array(hats.centre_m)
    away = metal - np.array(mic.position_m)
    nearest = away[np.linalg.norm(away, axis=1).argmin()]
    assert np.dot(said.aim, nearest / np.linalg.norm(nearest)) > 0.999


@pytest.mark.parametrize(
    ("mic", "neighbour", "off", "words"),
    [
        ("OL", None, 30.0, "only a close mic"),
        ("ST", "snare", 30.0, "another drum or cymbal"),
        ("ST", "gong", 30.0, "another drum or cymbal"),
        ("ST", None, 120.0, "0 to 90 degrees"),
        ("XX", None, 30.0, "expected a mic"),
    ],
)
def test_what_cannot_be_turned_is_refused_in_words(mic, neighbour, off, words):
    layout = take(take(KIT, "snare-centre").layout, "pair-turned").layout
    with pytest.raises(RingsideError, match=words):
        null_aim(layout, mic, neighbour, off)
