"""Nearness, low cuts and what stands in the way: published values and slow constructions."""

import itertools

import numpy as np
import pytest
from ringside.answers.nearness import nearness
from ringside.answers.whatif import sweep
from ringside.errors import RingsideError
from ringside.hear.barriers import barrier_loss_db, barriers
from ringside.hear.nearfield import curvature_m, low_cut, near_response
from ringside.pairs.analysis import analyse
from ringside.pairs.delays import bands_db
from ringside.places.starts import starting_layout
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.room import Gobo, Room
from ringside.techniques.taking import take

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")


def db(x):
    return 20 * np.log10(np.abs(x))


@pytest.mark.parametrize(("share", "gain"), [(0.0, 20.8), (0.5, 14.9), (1.0, 0.0)])
def test_proximity_of_a_small_source_at_five_centimetres_and_100_hertz(share, gain):
    # |a + (1-a)(1 + 1/(jkr))|: figure-8 +20.8 dB, cardioid +14.9 dB, omni nothing (Eargle).
    assert float(db(near_response(share, 1.0, 100.0, 0.05, 343.2))) == pytest.approx(gain, abs=0.05)


def test_the_low_end_lags_by_a_quarter_at_most_and_from_behind_is_turned_over():
    front, back = (np.angle(near_response(0.0, c, 20.0, 0.02, 343.2)) for c in (1.0, -1.0))
    assert float(front) == pytest.approx(-np.pi / 2, abs=0.02)
    assert float(back) == pytest.approx(np.pi / 2, abs=0.02)


@pytest.mark.parametrize("z", [0.0, 0.05, 0.3])
def test_a_disc_curves_its_wave_as_a_small_source_further_off(z):
    # Rayleigh's integral on the axis of a disc that moves as one, summed ring by ring, well below
    # the frequency where it is large: the gradient over the pressure is one over that distance.
    radius, k = 0.2, 0.01
    rings = (np.arange(200_000) + 0.5) / 200_000 * radius

    def pressure(at):
        r = np.hypot(rings, at)
        return np.sum(rings * np.exp(-1j * k * r) / r)

    step = 1e-4
    slope = (pressure(z + step) - pressure(max(z - step, 0))) / (step + min(step, z))
    ratio = abs(slope / pressure(z + (step if z == 0 else 0) / 2))
    assert 1 / ratio == pytest.approx(float(curvature_m(z, radius)), rel=0.01)


@pytest.mark.parametrize(
    ("hz", "gain", "ahead"), [(80, -3.01, 90), (40, -12.3, 136.7), (800, 0, 8)]
)
def test_a_low_cut_is_a_second_order_butterworth(hz, gain, ahead):
    # -3 dB and a quarter turn at the corner, 12 dB an octave below (any filter handbook).
    got = low_cut(float(hz), 80.0)
    assert float(db(got)) == pytest.approx(gain, abs=0.05)
    assert float(np.degrees(np.angle(got))) == pytest.approx(ahead, abs=0.5)


def test_a_low_cut_against_scipys_filter():
    from scipy.signal import butter, freqs

    b, a = butter(2, 2 * np.pi * 80.0, "highpass", analog=True)
    f = np.array([20.0, 60.0, 100.0, 1000.0])
    assert low_cut(f, 80.0) == pytest.approx(freqs(b, a, 2 * np.pi * f)[1])


def test_nearness_counts_in_level_and_body_and_a_low_cut_against_it():
    omni = with_mic(SQUARE, "T1", pattern="omni")
    cut = with_mic(SQUARE, "T1", low_cut_hz=150.0)
    row = [m.id for m in SQUARE.mics].index("T1")
    k = analyse(SQUARE).scene.sources.ids.index("rack-1")
    near, even, less = (float(analyse(x).arrivals.near_db[row, k]) for x in (SQUARE, omni, cut))
    assert even == 0
    assert near > 2
    assert less < near - 3
    # A cut at the fundamental turns the low end by a quarter: the sum with the overhead changes.
    pair, _ = analyse(SQUARE).pair_index("T1", "OL")
    bodies = [float(analyse(x).pairs.body_db[pair, k]) for x in (SQUARE, cut)]
    assert abs(bodies[0] - bodies[1]) > 1


@pytest.mark.parametrize(("fresnel", "loss"), [(-0.5, 0), (-0.2, 0), (0, 5), (1, 13.1), (10, 23),
                                               (100, 24)])  # fmt: skip
def test_what_one_edge_takes(fresnel, loss):
    # Kurze and Anderson (1971): 5 dB at grazing, 13 at N = 1, 23 at N = 10, and no more than 24.
    assert float(barrier_loss_db(np.array(fresnel))) == pytest.approx(loss, abs=0.1)


def test_the_ways_round_a_gobo_against_every_point_of_its_edges():
    rng = np.random.default_rng(3)
    for _ in range(20):
        gobo = Gobo(name="g", x_m=3.0, y_m=3.0, width_m=1.1, height_m=0.9, from_m=0.4,
                    turn_rad=float(rng.uniform(0, 3)))  # fmt: skip
        room = Room(
            name="r", width_m=6, length_m=6, height_m=3, kit_x_m=3, kit_y_m=3, gobos=(gobo,)
        )
        across = np.array([-np.sin(gobo.turn_rad), np.cos(gobo.turn_rad)])
        mic = np.append(across * rng.uniform(0.3, 1.5), rng.uniform(0.2, 1.6))
        source = np.append(-across * rng.uniform(0.3, 1.5), rng.uniform(0.2, 1.6))
        got = barriers(room, mic[None], (source - mic)[None, None])
        along = np.array([np.cos(gobo.turn_rad), np.sin(gobo.turn_rad), 0])
        t = np.linspace(-0.55, 0.55, 20_001)[:, None]
        z = np.linspace(0.4, 1.3, 20_001)[:, None] * [0, 0, 1]
        edges = (
            t * along + [0, 0, 1.3],
            t * along + [0, 0, 0.4],
            0.55 * along + z,
            -0.55 * along + z,
        )
        for n, edge in enumerate(edges):
            both = np.linalg.norm(edge - mic, axis=1) + np.linalg.norm(edge - source, axis=1)
            longer = both.min() - np.linalg.norm(source - mic)
            assert abs(got.longer[0, n, 0, 0]) == pytest.approx(longer, abs=1e-6)


def screened(**more):
    """A mic in front, with and without a gobo between it and the kit."""
    room = Room(name="r", width_m=8, length_m=9, height_m=3.5, kit_x_m=4, kit_y_m=2.5)
    mic = Mic(
        id="R", name="R", role="room", pattern="omni", position_m=(0.3, 3.0, 0.7), aim=(0, -1, 0)
    )
    shape = {"x_m": 4.3, "y_m": 4.6, "width_m": 1.6, "height_m": 1.4} | more
    gobo = Gobo(name="g", **shape)
    plain = Layout(name="t", kit=five_piece(), mics=(mic,), room=room)
    return analyse(plain), analyse(
        plain.model_copy(update={"room": room.model_copy(update={"gobos": (gobo,)})})
    )


def test_a_gobo_takes_more_of_the_top_than_of_the_body_and_sound_comes_later():
    free, shut = screened()
    lost = free.arrivals.level_db[0] - shut.arrivals.level_db[0]
    kick, snare = 0, 1
    assert 2 < lost[kick] < lost[snare] < 24
    assert shut.arrivals.path_m[0, snare] > free.arrivals.path_m[0, snare] + 0.02
    assert shut.arrivals.tape_m[0, snare] == free.arrivals.tape_m[0, snare]


@pytest.mark.parametrize("stands", [
    {"height_m": 0.3},  # the way goes over it
    {"x_m": 6.5},  # and beside it
    {"y_m": 6.3}, {"y_m": 1.6, "x_m": 4.0},  # both are on one side of it
])  # fmt: skip
def test_a_gobo_that_is_not_in_the_way_makes_no_way_longer_or_shorter(stands):
    free, there = screened(**stands)
    assert np.array_equal(there.arrivals.path_m[0], free.arrivals.path_m[0])


def test_a_gobo_beside_the_way_takes_nothing_and_one_moved_into_it_takes_no_step():
    free, turned = screened(turn_rad=float(np.pi / 2))
    assert free.arrivals.level_db[0, 1] == pytest.approx(turned.arrivals.level_db[0, 1], abs=0.3)
    room = Room(name="r", width_m=8, length_m=9, height_m=3.5, kit_x_m=4, kit_y_m=2.5)
    mic = Mic(
        id="R", name="R", role="room", pattern="omni", position_m=(0, 3.0, 0.7), aim=(0, -1, 0)
    )
    heard = []
    for x in np.arange(1.5, 6.5, 0.01):
        gobo = Gobo(name="g", x_m=float(x), y_m=4.6)
        layout = Layout(name="t", kit=five_piece(), mics=(mic,),
                        room=room.model_copy(update={"gobos": (gobo,)}))  # fmt: skip
        heard.append(analyse(layout).arrivals.level_db[0, 1])
    assert np.abs(np.diff(heard)).max() < 0.4
    assert max(heard) - min(heard) > 4


def test_a_card_of_foam_keeps_the_hats_top_from_the_snare_mic_and_leaves_the_low_end():
    layout = SQUARE
    st, hats = np.array(layout.mic("ST").position_m), layout.kit.part("hats")
    edge = np.array(
        analyse(layout).scene.sources.strike[analyse(layout).scene.sources.ids.index("hats")]
    )
    middle, way = (st + edge) / 2, edge - st
    card = Gobo(name="Foam", x_m=4 + float(middle[0]), y_m=2.5 + float(middle[1]), width_m=0.25,
                height_m=0.25, from_m=float(middle[2]) - 0.125, thickness_m=0.03,
                turn_rad=float(np.arctan2(way[1], way[0]) + np.pi / 2))  # fmt: skip
    room = Room(name="r", width_m=8, length_m=9, height_m=3.5, kit_x_m=4, kit_y_m=2.5)
    plain, with_card = (
        analyse(layout.model_copy(update={"room": room.model_copy(update={"gobos": g})}))
        for g in ((), (card,))
    )
    row, k = [m.id for m in layout.mics].index("ST"), plain.scene.sources.ids.index(hats.id)
    at = with_card.arrivals.screens
    body, air = (float(at.loss_db(np.full(9, f), 343.2)[row, k]) for f in (500.0, 8000.0))
    assert 1 < body < 4
    assert air > 8
    own = plain.scene.sources.ids.index("snare")
    assert plain.arrivals.level_db[row, own] == with_card.arrivals.level_db[row, own]
    pair, _ = plain.pair_index("ST", "HH")
    tops = [bands_db(x, pair, k)[2].wired_db for x in (plain, with_card)]
    assert all(np.isfinite(tops))


def test_over_the_height_the_low_end_falls_and_the_neighbours_come_up():
    said = nearness(SQUARE, "FT")
    assert {p.pattern for p in said.patterns} == {
        "omni", "wide cardioid", "cardioid", "supercardioid", "hypercardioid", "figure-8"
    }  # fmt: skip
    by = {p.pattern: p for p in said.patterns}
    assert said.heights_m[said.now] == pytest.approx(0.07, abs=0.001)
    assert set(by["omni"].low_db) == {0.0}
    far = len(said.heights_m) - 1
    for name, curve in by.items():
        assert curve.attack_db[far] < curve.attack_db[0] - 6
        assert curve.neighbours_db[far] > curve.neighbours_db[0] + 6
        if name != "omni":
            assert curve.low_db[far] < curve.low_db[0] - 1
    for less, more in itertools.pairwise(
        ["wide cardioid", "cardioid", "supercardioid", "figure-8"]
    ):
        assert by[less].low_db[said.now] < by[more].low_db[said.now]
    assert by["cardioid"].attack_db[said.now] == 0
    assert said.words.startswith("Its nearness swells the low end by")


def test_the_curve_says_what_the_analysis_says():
    said = nearness(SQUARE, "T2")
    an = analyse(SQUARE)
    row, k = [m.id for m in SQUARE.mics].index("T2"), an.scene.sources.ids.index("rack-2")
    curve = next(p for p in said.patterns if p.pattern == SQUARE.mic("T2").pattern)
    assert curve.low_db[said.now] == pytest.approx(float(an.arrivals.near_db[row, k]), abs=0.01)
    after = np.delete(10 ** (an.arrivals.after_gain_db[row] / 10), k)
    assert curve.neighbours_db[said.now] == pytest.approx(10 * np.log10(after.sum()), abs=0.05)


@pytest.mark.parametrize("mic", ["OL", "HH", "XX"])
def test_a_mic_of_no_drum_has_no_such_curve(mic):
    with pytest.raises(RingsideError, match="a mic put up for a drum"):
        nearness(SQUARE, mic)


def test_what_if_tells_the_low_end_over_the_height():
    layout = take(Layout(name="t", kit=five_piece()), "tom-top", "floor").layout
    over = sweep(layout, layout.techniques[0].id, "height", 9)
    assert over.low_db[0] > over.low_db[-1] + 1
    pair = take(Layout(name="t", kit=five_piece()), "pair-turned").layout
    assert set(sweep(pair, pair.techniques[0].id, "width", 5).low_db) == {None}
