"""What-if curves against the analysis of the very layout each point stands for."""

import re
from dataclasses import asdict

import numpy as np
import pytest
from ringside.answers.whatif import sweep
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.plan.kits import KITS, five_piece
from ringside.plan.layout import Layout
from ringside.plan.room import Room
from ringside.rooms.decay import decay_report
from ringside.techniques.taking import change, take

ROOM = Room(name="R", width_m=7, length_m=9, height_m=3.2, kit_x_m=3.4, kit_y_m=2.5)
BASE = Layout(name="W", kit=five_piece(), room=ROOM)


def row(curve, value):
    return int(np.abs(np.array(curve.values) - value).argmin())


def test_each_point_is_the_layout_with_that_value():
    layout = take(take(BASE, "one-front").layout, "snare-centre").layout
    curve = sweep(layout, "one-front", "height", 11)
    for i in (0, 5, 10):
        value = curve.values[i]
        there = change(layout, "one-front", {"height": value}).layout
        an = analyse(there)
        kick = an.scene.sources.ids.index("kick")
        heard = an.arrivals.level_db[0, kick] + an.scene.sources.peak_db[kick]
        assert curve.levels_db["kick"][i] == pytest.approx(heard)
        (mic,) = curve.mics[i]
        assert mic.position_m == there.mic("MM").position_m
        assert sum(asdict(curve.verdicts[i]).values()) == 1


def test_lower_in_front_is_more_kick_and_higher_more_cymbals():
    """Common practice: lower, more kick, fewer cymbals; higher, more cymbals."""
    layout = take(BASE, "one-front").layout
    curve = sweep(layout, "one-front", "height", 21)
    low, high = row(curve, 0.4), row(curve, 1.6)
    kick, cymbals = curve.levels_db["kick"], curve.levels_db["cymbals"]
    assert kick[low] - cymbals[low] > kick[high] - cymbals[high] + 1.0


def test_further_out_every_drum_falls_by_the_inverse_distance_and_the_room_stays():
    layout = take(BASE, "room-mono", numbers={"height": 0.5}).layout
    curve = sweep(layout, "room-mono", "out", 15)
    kick = curve.levels_db["kick"]
    near, far_ = row(curve, 1.5), row(curve, 3.6)
    assert kick[near] > kick[far_] + 3
    assert len(set(curve.room_db)) == 1
    critical = decay_report(layout).critical_m
    # A cardioid takes up a third of a diffuse field (Eargle): -4.8 dB.
    expected = 115 - 20 * np.log10(critical) - 4.77
    assert curve.room_db[0] == pytest.approx(expected, abs=0.01)


def test_a_turned_pair_stays_equal_whatever_its_width_and_a_straight_one_loses_the_kick():
    turned = sweep(take(BASE, "pair-turned").layout, "pair-turned", "width", 9)
    assert {e.on for e in turned.equal} == {"snare", "kick"}
    for e in turned.equal:
        assert max(e.difference_m) < 1e-6
    straight = sweep(take(BASE, "pair-straight").layout, "pair-straight", "width", 9)
    assert {e.on for e in straight.equal} == {"snare"}


def test_the_value_it_has_now_is_on_the_curve_and_marked_values_are_clear():
    layout = take(BASE, "pair-turned", numbers={"over": 0.77}).layout
    curve = sweep(layout, "pair-turned", "over", 12)
    assert 0.77 in curve.values
    assert curve.now == 0.77
    assert curve.blocked[curve.best] == ""
    assert any(curve.blocked)  # low down it is in the cymbals
    assert curve.words.endswith(".")
    assert not re.search(r"\d (cm|m)\b", curve.words)


def test_no_value_within_the_range_is_better_than_the_marked_one():
    layout = take(take(BASE, "one-front").layout, "kick-inside").layout
    curve = sweep(layout, "one-front", "out", 31)

    def trouble(i):
        v = curve.verdicts[i]
        return (bool(curve.blocked[i]), v.hollow, v.late)

    assert trouble(curve.best) == min(trouble(i) for i in range(len(curve.values)))


def test_without_a_room_there_is_no_room_curve():
    layout = take(Layout(name="W", kit=KITS["small four-piece"]()), "one-over-kit").layout
    assert sweep(layout, "one-over-kit", "over", 5).room_db is None


@pytest.mark.parametrize(
    ("taken", "number", "points", "words"),
    [
        ("gone", "height", 9, "expected a technique of this layout"),
        ("one-front", "width", 9, "no number called 'width'"),
        ("one-front", "height", 2, "3 to 121 points"),
    ],
)
def test_what_cannot_be_swept_is_refused_in_words(taken, number, points, words):
    layout = take(BASE, "one-front").layout
    with pytest.raises(RingsideError, match=words):
        sweep(layout, taken, number, points)


@pytest.mark.parametrize(("mics", "points"), [(13, 121), (40, 40), (64, 25)])
def test_with_many_mics_a_curve_has_fewer_points(mics, points):
    """Values times mics stay under 1,600; the value it has now is on the curve besides."""
    layout = take(BASE, "one-front").layout
    more = tuple(
        layout.mics[0].model_copy(update={"id": f"M{n}", "position_m": (1.0, 0.1 * n, 2.0)})
        for n in range(mics - 1)
    )
    layout = layout.model_copy(update={"channels": (), "mics": (*layout.mics, *more)})
    curve = sweep(layout, "one-front", "height", 121)
    assert len(curve.values) in (points, points + 1)
