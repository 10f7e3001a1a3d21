"""One signed example for each word of direction, each wall, each switch and each school."""

import itertools

import numpy as np
import pytest
from ringside.answers.sentences import verdict_words
from ringside.hear.bands import bands
from ringside.hear.scene import scene_of
from ringside.pairs.analysis import analyse
from ringside.pairs.onebyone import school_order
from ringside.pairs.pans import pan_rows, side_words
from ringside.pairs.stereo import off_centre_words, picture_left, place_percent, positions
from ringside.places.drumterms import terms_of
from ringside.places.starts import starting_layout
from ringside.places.steps import stand_steps
from ringside.plan.drumframe import at_drum, face_of
from ringside.plan.feeds import feed
from ringside.plan.kit import reference_point
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import Mic
from ringside.plan.openings import in_one_line, next_door
from ringside.plan.references import references
from ringside.plan.room import (
    Door,
    Gobo,
    Notch,
    Room,
    Space,
    in_gobos,
    inside_floor,
    to_kit,
    to_room,
    wall_distances,
)

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")
KIT = five_piece()


def mic(id_, at, aim=(0, 0, -1), **more):
    return Mic.model_validate({"id": id_, "name": id_, "position_m": at, "aim": aim, **more})


@pytest.mark.parametrize(("to", "ways"), [
    ((0.0, 0.0, 0.1), ["up"]), ((0.0, 0.0, -0.1), ["down"]),
    ((0.1, 0.0, 0.0), ["boom out"]), ((-0.1, 0.0, 0.0), ["boom in"]),
    ((0.0, 0.1, 0.0), ["toward the audience"]), ((0.0, -0.1, 0.0), ["toward the drummer"]),
    ((0.2, 0.0, 0.1), ["boom out", "up"]), ((-0.1, 0.0, -0.2), ["down", "boom in"]),
])  # fmt: skip
def test_a_move_in_stand_terms(to, ways):
    # A mic a metre to the drummer's right of the snare: out is further right.
    layout = Layout(name="t", kit=KIT, mics=(mic("M", (1.0, 0.0, 1.5)),))
    there = tuple(np.add((1.0, 0.0, 1.5), to))
    steps = stand_steps(layout, "M", there)
    assert [s.way for s in steps] == ways
    assert steps[0].metres == pytest.approx(max(np.abs(to)))


@pytest.mark.parametrize(("by", "way"), [
    ((0.1, 0.0), "to the drummer's right"), ((-0.1, 0.0), "to the drummer's left"),
    ((0.0, 0.1), "toward the audience"), ((0.0, -0.1), "toward the drummer"),
])  # fmt: skip
def test_right_over_the_snare_there_is_no_in_and_out(by, way):
    layout = Layout(name="t", kit=KIT, mics=(mic("M", (0.0, 0.0, 1.5)),))
    assert [s.way for s in stand_steps(layout, "M", (*by, 1.5))] == [way]


@pytest.mark.parametrize(("level", "early", "sign"), [(3, 0, 1), (-3, 0, -1), (0, 0.2, 1),
                                                      (0, -0.2, -1), (0, 0, 0)])  # fmt: skip
def test_louder_or_earlier_on_the_right_is_right(level, early, sign):
    assert np.sign(place_percent(level, early)) == sign


@pytest.mark.parametrize(("view", "left"), [("drummer", -1.0), ("audience", 1.0)])
def test_whose_left_is_left(view, left):
    layout = SQUARE.model_copy(update={"outlook": view})
    assert picture_left(layout).tolist() == [left, 0, 0]


@pytest.mark.parametrize(("first", "second", "hats"), [("OL", "OR", -1), ("OR", "OL", 1)])
def test_a_drum_beside_the_left_mic_is_left(first, second, hats):
    pair = StereoPair(name="Overheads", left=first, right=second)
    layout = SQUARE.model_copy(update={"stereo_pairs": (pair,)})
    an = analyse(layout)
    percent, _ = positions(an, pair)
    s = an.scene.sources.ids
    assert np.sign(percent[s.index("hats")]) == hats
    assert np.sign(percent[s.index("ride")]) == -hats


@pytest.mark.parametrize(("percent", "words"), [
    (-50, "Tom 15° left of the middle: half way left."),
    (50, "Tom 15° right of the middle: half way right."),
    (-100, "Tom at the left speaker."), (100, "Tom at the right speaker."),
    (-20, "Tom 6° left of the middle: a little left."), (6.9, "Tom in the middle."),
    (7.1, "Tom 2° right of the middle: a little right."),
    (80, "Tom 24° right of the middle: far right."),
])  # fmt: skip
def test_where_a_drum_appears_in_words(percent, words):
    assert off_centre_words("Tom", percent, True) == words


def test_a_pan_in_words_and_the_side_it_is_on():
    assert "left" in side_words(-40)
    assert "right" in side_words(40)
    panned = with_mic(SQUARE, "FT", pan=-70.0)
    row = next(r for r in pan_rows(analyse(panned)) if r.mic == "FT")
    assert (row.state, np.sign(row.heard)) == ("other side", 1)


@pytest.mark.parametrize("switches", list(itertools.product((False, True), repeat=4)))
def test_polarity_at_the_track_is_the_product_of_four_switches(switches):
    names = ("wired_inverted", "cable_inverted", "preamp_flip", "track_flip")
    layout = Layout(name="t", kit=KIT, mics=(mic("M", (0, 0, 1)),))
    wired = with_mic(layout, "M", **dict(zip(names, switches, strict=True)))
    assert feed(wired, "M").switch_sign == (-1) ** sum(switches)
    assert scene_of(wired).switch_sign[0] == (-1) ** sum(switches)


@pytest.mark.parametrize(("shift", "late", "early"), [(0.7, "B", "A"), (-0.7, "A", "B")])
def test_the_further_mic_is_the_later_one(shift, late, early):
    mics = (mic("A", (0.3, 1.8, 0.9), (0, -1, 0), role="room"),
            mic("B", (0.3, 1.8 + shift, 0.9), (0, -1, 0), role="overhead"))  # fmt: skip
    an = analyse(Layout(name="t", kit=KIT, mics=mics))
    k = an.scene.sources.ids.index("hats")
    assert verdict_words(an, 0, k).startswith(f"{late} is ")
    assert f"behind {early}" in verdict_words(an, 0, k)


@pytest.mark.parametrize(("first", "begins"), [("overheads", ["OL", "OR"]), ("kick", ["KI", "KO"])])
def test_which_school_begins_with_what(first, begins):
    room = mic("RM", (0, 3, 1.2), role="room")
    order = school_order(
        SQUARE.model_copy(update={"channels": (), "mics": (room, *SQUARE.mics)}), first
    )
    assert order[:2] == begins
    assert order[-1] == "RM"
    others = [m for m in order if m in ("KI", "ST", "T1", "FT", "HH")]
    assert others == ["KI", "ST", "T1", "FT", "HH"]


def test_where_the_tapes_are_held():
    kick = KIT.first("kick")
    front = kick.model_copy(update={"reference": "front"})
    x, y, z = kick.batter_m
    assert reference_point(kick) == (x, y, z)
    assert reference_point(front) == pytest.approx((x, y + kick.depth_m, z))
    assert references(SQUARE).kick.tolist() == pytest.approx(
        reference_point(SQUARE.kit.first("kick"))
    )
    assert references(SQUARE).snare[2] == KIT.first("snare").batter_m[2]


@pytest.mark.parametrize(
    ("dx", "dy", "hour"), [(0, 0.1, 0), (0.1, 0, 3), (0, -0.1, 6), (-0.1, 0, 9)]
)
def test_the_clock_of_a_snare_has_twelve_at_the_audience_and_three_at_the_right(dx, dy, hour):
    snare = KIT.first("snare")
    x, y, z = snare.batter_m
    assert at_drum(snare, (x + dx, y + dy, z + 0.05)).clock_h % 12 == pytest.approx(hour, abs=1e-6)
    assert at_drum(snare, (x + dx, y + dy, z + 0.05)).side == "over"
    assert at_drum(snare, (x + dx, y + dy, z - snare.depth_m - 0.05)).side == "under"
    assert at_drum(snare, (x + dx, y + dy, z - 0.05)).side == "inside"
    assert at_drum(snare, (x + 5 * dx, y + 5 * dy, z - 0.05)).side == "beside"
    face = face_of(snare, "under")
    assert face.out.tolist() == [0, 0, -1]


@pytest.mark.parametrize(("aim_at", "target"), [
    ((0.0, 0.0, 0.0), "centre"), ((0.0, 0.15, 0.0), "edge"), ((0.3, 0.3, 0.4), "free"),
])  # fmt: skip
def test_what_a_close_mic_is_aimed_at(aim_at, target):
    snare = np.array(KIT.first("snare").batter_m)
    at = snare + (0, 0.19, 0.06)
    way = snare + aim_at - at
    one = mic("M", tuple(at), tuple(way), job="snare")
    assert terms_of(Layout(name="t", kit=KIT, mics=(one,)), "M").terms.target == target


ROOM = Room(name="r", width_m=6.0, length_m=8.0, height_m=3.0, kit_x_m=2.0, kit_y_m=3.0,
            kit_turn_rad=float(np.pi / 2))  # fmt: skip


def test_the_kit_turned_a_quarter_looks_to_the_left_wall():
    # Counter-clockwise from above: what was ahead is now on the left.
    there = to_room(np.array([[0.0, 1.0, 0.5], [1.0, 0.0, 0.5]]), ROOM)
    assert there == pytest.approx(np.array([[1.0, 3.0, 0.5], [2.0, 4.0, 0.5]]))
    assert to_kit(there, ROOM) == pytest.approx(np.array([[0.0, 1.0, 0.5], [1.0, 0.0, 0.5]]))


@pytest.mark.parametrize(("corner", "x", "y", "inside"), [
    ("back left", 1.0, 1.0, False), ("back left", 5.0, 1.0, True), ("back right", 5.0, 1.0, False),
    ("front left", 1.0, 7.0, False), ("front right", 5.0, 7.0, False),
    ("front right", 1.0, 7.0, True),
])  # fmt: skip
def test_which_corner_an_l_leaves_out(corner, x, y, inside):
    room = ROOM.model_copy(update={"notch": Notch(corner=corner, width_m=2.0, length_m=2.0)})
    assert bool(inside_floor(np.array([x]), np.array([y]), room)[0]) == inside


def test_how_far_each_wall_is():
    assert wall_distances(1.0, 3.0, ROOM) == {"left": 1.0, "right": 5.0, "back": 3.0, "front": 5.0}
    cut = ROOM.model_copy(update={"notch": Notch(corner="front left", width_m=2.0, length_m=2.0)})
    assert wall_distances(1.0, 3.0, cut)["front"] == 3.0
    assert wall_distances(3.0, 7.0, cut)["left"] == 1.0


@pytest.mark.parametrize(("wall", "at"), [("left", (-0.1, 1.2)), ("right", (6.1, 1.2)),
                                          ("back", (1.2, -0.1)),
                                          ("front", (1.2, 8.1))])  # fmt: skip
def test_a_doorway_is_just_past_its_wall(wall, at):
    hall = Space(id="hall", name="Hall", x_m=-3, y_m=-3, width_m=2, length_m=2, height_m=2.5)
    door = Door(wall=wall, at_m=1.0, open=True, leads_to="hall")
    room = ROOM.model_copy(update={"doors": (door,), "spaces": (hall,)})

    def through(point, z=1.0):
        return bool(next_door(np.array([[*point, z]]), room)[0] >= 0)

    assert through(at)
    assert not through(at, 2.1)
    assert not through((0.7, 0.7))
    beside = (at[0], 0.9) if wall in ("left", "right") else (0.9, at[1])
    assert not through(beside)


HALLS = {"left": (-3.0, 0.0), "right": (7.0, 0.0), "back": (0.0, -3.0), "front": (0.0, 9.0)}


@pytest.mark.parametrize(("wall", "beyond"), [
    ("left", (-1.5, 1.5)), ("right", (7.5, 1.5)), ("back", (1.5, -1.5)), ("front", (1.5, 9.5)),
])  # fmt: skip
def test_a_straight_line_next_door_goes_through_an_open_door_or_not_at_all(wall, beyond):
    along = 1 if wall in ("left", "right") else 0
    halls = tuple(
        Space(id=name, name=name, x_m=x, y_m=y, width_m=8 if x == 0 else 2,
              length_m=8 if y == 0 else 2, height_m=2.5)
        for name, (x, y) in HALLS.items()
    )  # fmt: skip
    door = Door(wall=wall, at_m=1.0, width_m=0.9, height_m=2.0, open=True, leads_to=wall)

    def sees(beside=0.0, up=0.0, **more):
        room = ROOM.model_copy(update={"spaces": halls, "doors": (door.model_copy(update=more),)})
        one, two = np.array([*beyond, 1.0 + up]), np.array([3.0, 3.0, 1.0 + up])
        one[along] += beside
        two[along] = one[along]  # square to the wall
        return in_one_line(room, one, two) and in_one_line(room, two, one)

    assert sees()
    assert (sees(-0.49), sees(-0.51), sees(0.39), sees(0.41)) == (True, False, True, False)
    assert (sees(up=0.99), sees(up=1.01)) == (True, False)
    assert not sees(open=False)
    assert not sees(leads_to="left" if wall != "left" else "right")
    room = ROOM.model_copy(update={"spaces": halls, "doors": (door,)})
    other = "right" if wall in ("left", "back", "front") else "left"
    next_door = np.array([*HALLS[other], 0.0]) + 1.0
    assert not in_one_line(room, np.array([*beyond, 1.0]), next_door)
    assert in_one_line(room, np.array([*beyond, 1.0]), np.array([*beyond, 2.0]))
    assert in_one_line(room, np.array([1.0, 1.0, 1.0]), np.array([5.0, 7.0, 1.0]))


@pytest.mark.parametrize(("point", "inside"), [
    ((3.0, 3.0, 0.9), True), ((3.0, 3.0, 0.4), False), ((3.0, 3.0, 1.6), False),
    ((3.0, 3.5, 0.9), True), ((3.5, 3.0, 0.9), False), ((3.04, 3.55, 0.9), True),
])  # fmt: skip
def test_what_is_inside_a_hanging_gobo(point, inside):
    gobo = Gobo(name="g", x_m=3.0, y_m=3.0, width_m=1.2, height_m=1.0, from_m=0.5,
                turn_rad=float(np.pi / 2))  # fmt: skip
    room = ROOM.model_copy(update={"gobos": (gobo,)})
    assert bool(in_gobos(np.array([point]), room)[0]) == inside


@pytest.mark.parametrize(("part", "low", "high", "punch", "attack"), [
    # An octave round the fundamental, two and a half octaves over it, the attack's own limit.
    ("kick", 60 / 2**0.5, 60 * 2**0.5, 60 * 2**2.5, 6000),
    ("snare", 230 / 2**0.5, 230 * 2**0.5, 230 * 2**2.5, 8000),
])  # fmt: skip
def test_where_the_bands_lie(part, low, high, punch, attack):
    b = bands(KIT.first(part))
    scale = b.fundamental / (60 if part == "kick" else 230)
    got = (b.body_low / scale, b.body_high / scale, b.punch_high / scale, b.attack_high)
    assert got == pytest.approx((low, high, punch, attack))


def test_a_very_high_drum_has_its_attack_four_times_over():
    high = KIT.first("snare").model_copy(update={"fundamental_hz": 1900.0, "kind": "hand drum"})
    assert bands(high).attack_high == max(8000, 4 * 1900.0)
    assert bands(high).punch_high == pytest.approx(min(1900.0 * 2**2.5, bands(high).attack_high))
