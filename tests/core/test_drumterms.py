"""Drum terms against places worked out by hand on a level drum, and back again."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ringside.answers.sheet import setup_rows
from ringside.errors import RingsideError
from ringside.hear.arrivals import arrivals
from ringside.hear.scene import scene_of
from ringside.places.drumterms import DrumTerms, placed, terms_of
from ringside.places.starts import starting_layout
from ringside.plan.drumframe import disc_gap, nearest_cymbal, side_of
from ringside.plan.kits import KITS
from ringside.plan.layout import Layout
from ringside.techniques.taking import take

FIVE = starting_layout("five-piece", "turned pair")
SNARE = FIVE.kit.first("snare")
R = SNARE.diameter_m / 2


def at(mic_id, **terms):
    base = {"side": "over", "height_m": 0.05, "in_from_rim_m": 0.0, "clock_h": 12.0,
            "tilt_deg": 45.0, "target": "centre"}  # fmt: skip
    return placed(FIVE, mic_id, DrumTerms(**{**base, **terms})).mic(mic_id)


@pytest.mark.parametrize(
    ("clock", "x", "y"),
    [(12.0, 0.0, R), (3.0, R, 0.0), (6.0, 0.0, -R), (9.0, -R, 0.0),
     (1.5, R / np.sqrt(2), R / np.sqrt(2))],
)  # fmt: skip
def test_the_clock_has_12_toward_the_audience_and_3_at_the_drummers_right(clock, x, y):
    mic = at("ST", clock_h=clock)
    assert mic.position_m == pytest.approx((x, y, SNARE.batter_m[2] + 0.05), abs=1e-6)


def test_on_the_kick_12_is_up_and_beyond_the_front_head_is_under():
    kick = FIVE.kit.first("kick")
    mic = at("KO", side="under", height_m=0.1, in_from_rim_m=0.0, clock_h=12.0)
    x, y, z = kick.batter_m
    assert mic.position_m == pytest.approx(
        (x, y + kick.depth_m + 0.1, z + kick.diameter_m / 2), abs=1e-6
    )
    right = at("KO", side="under", height_m=0.1, in_from_rim_m=0.0, clock_h=3.0)
    assert right.position_m[0] == pytest.approx(x + kick.diameter_m / 2, abs=1e-6)


def test_targets_aim_where_they_say_and_tilt_aims_as_steep_as_it_says():
    centre = at("ST", target="centre")
    to = np.subtract(SNARE.batter_m, centre.position_m)
    assert np.dot(centre.aim, to / np.linalg.norm(to)) == pytest.approx(1)
    flat = at("ST", target="free", tilt_deg=0.0)
    assert flat.aim == pytest.approx((0.0, -1.0, 0.0), abs=1e-9)
    steep = at("ST", target="free", tilt_deg=90.0)
    assert steep.aim == pytest.approx((0.0, 0.0, -1.0), abs=1e-9)
    shell = at("ST", target="shell", in_from_rim_m=-0.1, height_m=0.1)
    aimed = np.array(shell.position_m) + np.array(shell.aim) * np.hypot(
        0.1, 0.1 + SNARE.depth_m / 2
    )
    assert aimed == pytest.approx((0, R, SNARE.batter_m[2] - SNARE.depth_m / 2), abs=1e-6)


close = [m.id for m in FIVE.mics if m.job]


@given(
    mic=st.sampled_from(close),
    height=st.floats(0.01, 0.4),
    inward=st.floats(-0.05, 0.1),
    clock=st.floats(0, 11.999),
    tilt=st.floats(-80, 80),
)
def test_said_and_read_back_are_the_same(mic, height, inward, clock, tilt):
    job = FIVE.kit.part(FIVE.mic(mic).job)
    terms = DrumTerms(side="over", height_m=height, in_from_rim_m=inward, clock_h=clock,
                      tilt_deg=tilt)  # fmt: skip
    back = terms_of(placed(FIVE, mic, terms), mic).terms
    assert back.side == "over"
    assert back.height_m == pytest.approx(height, abs=1e-5)
    assert back.in_from_rim_m == pytest.approx(inward, abs=1e-5)
    assert back.tilt_deg == pytest.approx(tilt, abs=1e-3)
    turn = abs(back.clock_h - clock) % 12
    assert min(turn, 12 - turn) * (job.diameter_m / 2 - inward) < 1e-3


def test_the_terms_of_a_recipe_are_its_numbers():
    layout = take(Layout(name="A", kit=KITS["eight-piece"]()), "tom-top", "rack-2").layout
    said = terms_of(layout, layout.mics[0].id).terms
    numbers = layout.techniques[0].numbers
    assert said.height_m == pytest.approx(numbers["height"], abs=1e-6)
    assert said.in_from_rim_m == pytest.approx(numbers["in"], abs=1e-6)
    assert said.clock_h % 12 == pytest.approx(numbers["clock"] % 12, abs=1e-5)


def test_the_gap_to_a_cymbal_is_that_to_the_nearest_of_many_points_of_it():
    ride = FIVE.kit.part("ride")
    axis = np.array(ride.axis)
    one = np.cross(axis, [1.0, 0.0, 0.0])
    one /= np.linalg.norm(one)
    two = np.cross(axis, one)
    rng = np.random.default_rng(4)
    r = np.sqrt(rng.uniform(0, 1, 200_000)) * ride.diameter_m / 2
    turn = rng.uniform(0, 2 * np.pi, 200_000)
    metal = (
        np.array(ride.centre_m)
        + (r * np.cos(turn))[:, None] * one
        + (r * np.sin(turn))[:, None] * two
    )
    for p in rng.uniform(-1, 1.6, (12, 3)):
        slow = np.linalg.norm(metal - p, axis=1).min()
        assert disc_gap(p, ride) == pytest.approx(slow, abs=2e-3)


def test_the_nearest_cymbal_is_named():
    said = terms_of(FIVE, "HH")
    assert said.cymbal == "hats"
    assert said.gap_m == pytest.approx(disc_gap(FIVE.mic("HH").position_m,
                                                   FIVE.kit.part("hats")))  # fmt: skip
    bare = FIVE.kit.model_copy(update={"cymbals": ()})
    assert nearest_cymbal(bare, (0, 0, 1)) is None


@pytest.mark.parametrize(
    ("mic", "terms", "words"),
    [
        ("OL", {}, "for the whole kit"),
        ("XX", {}, "expected a mic of this layout"),
        ("ST", {"height_m": 0.0, "in_from_rim_m": R}, "leave a gap"),
        ("ST", {"height_m": 250.0}, "given in cm"),
        ("HH", {"target": "shell"}, "has no shell"),
    ],
)
def test_terms_that_cannot_be_are_refused_in_words(mic, terms, words):
    with pytest.raises(RingsideError, match=words):
        at(mic, **terms)


def beside_the_shell():
    """A mic 8 cm off the snare's shell, half way down it, by hand on the level drum."""
    x, y, z = SNARE.batter_m
    return (x + R + 0.08, y, z - SNARE.depth_m / 2)


def test_a_mic_at_the_shell_is_beside_it_for_terms_sheet_and_arrivals_alike():
    mic = FIVE.mic("ST").model_copy(update={"position_m": beside_the_shell()})
    layout = FIVE.with_mic(mic)
    terms = terms_of(layout, "ST").terms
    assert (terms.side, terms.clock_h) == ("beside", pytest.approx(3.0))
    assert terms.height_m == pytest.approx(SNARE.depth_m / 2)  # down from the batter
    assert terms.in_from_rim_m == pytest.approx(-0.08)
    row = next(r for r in setup_rows(layout) if r.id == "ST")
    assert row.from_head is not None
    assert dict(row.from_head) == {k: v for k, v in dict(terms).items() if k in dict(row.from_head)}
    # By air it hears the batter round the rim: from the centre out, then over the edge.
    heard = arrivals(scene_of(layout), layout.thresholds)
    k = layout.kit.source_ids.index("snare")
    path = heard.path_m[[m.id for m in layout.mics].index("ST"), k]
    assert path == pytest.approx(R + np.hypot(0.08, SNARE.depth_m / 2))


@pytest.mark.parametrize(
    ("off", "down", "side"),
    [(-0.01, -0.001, "over"), (-0.01, 0.001, "inside"), (0.01, 0.001, "beside"),
     (0.01, SNARE.depth_m + 0.001, "under"), (-0.01, SNARE.depth_m + 0.001, "under")],
)  # fmt: skip
def test_the_sides_meet_at_the_planes_of_the_heads_and_at_the_shell(off, down, side):
    x, y, z = SNARE.batter_m
    assert side_of(SNARE, (x + R + off, y, z - down)) == side
