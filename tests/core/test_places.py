"""Better places, typed distances, starts, differences and the sheet's words."""

import numpy as np
import pytest
from ringside.answers.board import FocusOn, focus_on
from ringside.answers.changes import Change, changes
from ringside.answers.sheet import setup_rows
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.aims import aim_at, aim_words
from ringside.places.clearance import blocked, words_for
from ringside.places.partner import can_be_equal, place_by_tape, places
from ringside.places.starts import STARTS, starting_layout
from ringside.plan.kits import KITS
from ringside.plan.room import Room, to_room

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")
ROOM = Room(name="Box", width_m=5, length_m=6, height_m=3, kit_x_m=2.5, kit_y_m=2)


def moved(layout, mic, to):
    return with_mic(layout, mic, position_m=tuple(to))


@pytest.mark.parametrize(("answer", "both"), [("swing", 1), ("equal_height", 1), ("snare_only", 0)])
def test_taking_a_place_gives_the_tapes_it_promised(answer, both):
    spot = getattr(places(SQUARE, "OL", "OR"), answer)
    an = analyse(moved(SQUARE, "OR", spot.position_m))
    row, _ = an.pair_index("OL", "OR")
    difference = np.abs(an.pairs.tape_difference_m[row, :2])
    ids = list(an.scene.sources.ids)
    kick, snare = ids.index("kick"), ids.index("snare")
    assert difference[snare] < 1e-4
    assert (difference[kick] < 1e-4) == bool(both)
    mic = [m.id for m in an.layout.mics].index("OR")
    assert an.arrivals.tape_m[mic, snare] == pytest.approx(spot.snare_m, abs=1e-4)
    assert an.arrivals.tape_m[mic, kick] == pytest.approx(spot.kick_m, abs=1e-4)


@pytest.mark.parametrize(
    ("a", "b", "equal"), [("OL", "OR", True), ("T1", "OL", False), ("KI", "KO", False)]
)
def test_better_places_are_offered_only_to_mics_that_can_be_equal(a, b, equal):
    assert (focus_on(analyse(SQUARE), FocusOn(a, b)).places is not None) == equal


def test_two_room_mics_can_be_equal_without_being_named_a_pair():
    rooms = tuple(
        m.model_copy(update={"id": i, "role": "room"})
        for m, i in zip(SQUARE.mics[-2:], "AB", strict=True)
    )
    layout = SQUARE.model_copy(update={"channels": (), "mics": rooms, "stereo_pairs": ()})
    assert can_be_equal(layout, "A", "B")


def test_equal_height_keeps_the_height():
    assert places(SQUARE, "OL", "OR").equal_height.position_m[2] == pytest.approx(1.74)


def test_ring_is_dashed_where_a_mic_cannot_go():
    found = places(SQUARE, "OL", "OR").ring
    points, clear = np.array(found.points_m), np.array(found.clear)
    assert clear.any()
    assert (points[clear][:, 2] >= 1.26).all()  # above the highest cymbal
    assert not clear[points[:, 2] < 0].any()


def test_a_mic_on_the_snare_kick_line_has_no_ring_and_says_so():
    s, k = np.array([0, 0, 0.66]), np.array([0.28, 0.25, 0.28])
    found = places(moved(SQUARE, "OL", s + 1.5 * (s - k)), "OL", "OR")
    assert found.ring.kind == "point"
    assert "Only one spot" in found.ring.words


@pytest.mark.parametrize(
    ("point", "words"),
    [
        ((0, 0, -0.1), "under the floor"),
        ((3, 0, 1), "outside the room"),
        ((0, 0, 0.6), "inside a drum's shell"),
        ((0.8, 0.22, 1.03), "swing of a cymbal"),
        ((0.24, -0.5, 1.0), "drummer sits"),
        ((0, 0.3, 1.74), ""),
        ((0.28, 0.45, 0.28), ""),  # inside the kick is a place for a mic
    ],
)
def test_where_a_mic_cannot_be(point, words):
    layout = SQUARE.model_copy(update={"room": ROOM})
    said = words_for(point, layout)
    assert (words in said) if words else said == ""
    assert bool(blocked(point, layout)[0]) == bool(words)


def test_room_coordinates_turn_with_the_kit():
    turned = ROOM.model_copy(update={"kit_turn_rad": np.pi / 2})
    at = to_room(np.array([[0.0, 1.0, 0.5]]), turned)[0]
    assert at == pytest.approx([1.5, 2.0, 0.5])


def test_typed_distances_move_the_mic_there_or_say_what_is_possible():
    spot = place_by_tape(SQUARE, "OR", 1.25, 1.60, 1.70)
    assert spot.snare_m == pytest.approx(1.25)
    assert spot.kick_m == pytest.approx(1.60)
    assert spot.position_m[2] == pytest.approx(1.70)
    with pytest.raises(RingsideError, match="further apart"):
        place_by_tape(SQUARE, "OR", 0.1, 0.1, 1.7)


@pytest.mark.parametrize("kit", KITS)
@pytest.mark.parametrize("start", STARTS)
def test_every_start_fits_every_kit_with_no_mic_in_the_way(kit, start):
    layout = starting_layout(kit, start)
    an = analyse(layout)
    inputs = [(c.mic, c.input) for c in layout.channels]
    assert inputs == [(m.id, n) for n, m in enumerate(layout.mics, 1)]
    assert [words_for(m.position_m, layout) for m in layout.mics] == [""] * len(layout.mics)
    if start == "turned pair":
        row, _ = an.pair_index("OL", "OR")
        assert np.abs(an.pairs.tape_difference_m[row, :2]).max() < 1e-4


def test_left_handed_kit_mirrors_every_distance():
    right = analyse(starting_layout("five-piece", "turned pair"))
    left = analyse(starting_layout("left-handed five-piece", "turned pair"))
    order = [m.id for m in right.layout.mics]
    swap = {"OL": "OR", "OR": "OL"}
    other = [order.index(swap.get(i, i)) for i in order]
    # Starts are rounded to 0.1 mm before they are mirrored.
    assert np.allclose(right.arrivals.tape_m, left.arrivals.tape_m[other], atol=2e-4)


def test_unknown_starts_list_the_known_ones():
    with pytest.raises(RingsideError, match="four-piece"):
        starting_layout("nine-piece", "empty")
    with pytest.raises(RingsideError, match="square pair"):
        starting_layout("five-piece", "odd")  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("mic", "target", "centre"),
    [
        ("ST", "snare", (0, 0, 0.66)),
        ("OL", "kick", (0.28, 0.25, 0.28)),
        ("HH", "hats", (-0.40, 0.12, 0.90)),
        # From beneath or in front, the nearer head is the far one.
        ("SB", "snare", (0, 0, 0.66 - 5.5 * 0.0254)),
        ("KO", "kick", (0.28, 0.25 + 16 * 0.0254, 0.28)),
    ],
)
def test_aiming_at_a_drum_by_name_points_at_the_head_on_the_mics_side(mic, target, centre):
    aim = np.array(aim_at(SQUARE, mic, target))
    away = np.array(centre) - np.array(SQUARE.mic(mic).position_m)
    assert np.linalg.norm(aim) == pytest.approx(1)
    assert np.linalg.norm(np.cross(aim, away)) < 1e-9
    assert aim @ away > 0
    aimed = with_mic(SQUARE, mic, aim=tuple(aim))
    words = dict(zip([m.id for m in aimed.mics], aim_words(aimed), strict=True))
    assert words[mic].startswith(f"at the {target}")


def test_aiming_up_down_and_at_nothing():
    assert aim_at(SQUARE, "OL", "down") == (0, 0, -1)
    assert aim_at(SQUARE, "OL", "up") == (0, 0, 1)
    with pytest.raises(RingsideError, match="a drum or cymbal of the kit"):
        aim_at(SQUARE, "OL", "gong")
    on_it = moved(SQUARE, "OL", (0.0, 0.0, 0.66))
    with pytest.raises(RingsideError, match="the very spot"):
        aim_at(on_it, "OL", "snare")


def test_changes_are_told_in_tape_terms():
    other = moved(SQUARE, "OR", (0.7, 0.3, 1.74)).model_copy(update={"name": "Other"})
    other = with_mic(other, "SB", preamp_flip=True)
    rows = {(r.what, r.words): r for r in changes(SQUARE, other)}
    assert rows[("OR", "moved")].moved_m == pytest.approx(0.1)
    assert rows[("OR", "moved")].snare_m[0] == pytest.approx(1.271, abs=1e-3)
    assert ("SB", "flip at the preamp on") in rows
    assert ("layout", "renamed") in rows
    assert changes(SQUARE, SQUARE) == []


def test_changes_name_mics_that_came_and_went():
    fewer = SQUARE.model_copy(update={"channels": (), "mics": SQUARE.mics[1:]})
    assert Change(what="KI", words="taken away") in changes(SQUARE, fewer)
    assert Change(what="KI", words="added") in changes(fewer, SQUARE)


def test_sheet_tells_each_mic_so_that_it_can_be_put_there():
    rows = {r.id: r for r in setup_rows(SQUARE)}
    assert list(rows) == [m.id for m in SQUARE.mics]
    assert rows["SB"].aim == "at the snare wires"
    assert rows["OL"].aim == "at the snare"
    assert rows["ST"].from_head.side == "over"
    assert rows["ST"].from_head.height_m == pytest.approx(0.045, abs=1e-3)
    assert rows["ST"].from_head.in_from_rim_m == pytest.approx(0.05, abs=1e-3)
    assert rows["KI"].from_head.side == "inside"
    assert rows["SB"].from_head.side == "under"
    assert rows["OR"].snare_m == pytest.approx(rows["OL"].snare_m, abs=1e-4)
