"""Sound to a mic next door comes by the door, and in an L round its corner."""

import numpy as np
import pytest
from ringside.hear.bends import KEPT_OUT_DB, bends
from ringside.hear.byair import Doubt
from ringside.pairs.analysis import analyse
from ringside.pairs.delays import bands_db
from ringside.pairs.moving import moved
from ringside.places.aims import aim_words
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.openings import in_one_line, next_door
from ringside.plan.room import Door, Gobo, Notch, Room, Space, to_kit, to_room
from ringside.recorder.acoustics import faces, responses
from ringside.rooms.decay import decay_report

from tests.core.tracks import with_mic

HALL = Space(id="hall", name="Hall", x_m=6.0, y_m=-4.0, width_m=3.0, length_m=12.0, height_m=2.6)
DOOR = Door(wall="right", at_m=5.0, width_m=0.9, height_m=2.0, open=True, leads_to="hall")
ROOM = Room(name="r", width_m=6, length_m=8, height_m=3, kit_x_m=3, kit_y_m=2.5,
            kit_turn_rad=0.2, spaces=(HALL,), doors=(DOOR,))  # fmt: skip
ELL = Room(name="l", width_m=6, length_m=8, height_m=3, kit_x_m=3, kit_y_m=2.5, kit_turn_rad=0.2,
           notch=Notch(corner="front left", width_m=3.0, length_m=3.0))  # fmt: skip
LEFT_OF_ELL = ELL.model_copy(update={"kit_x_m": 2.0})
KICK, SNARE = 0, 1


def at_room(at, room=ROOM, look=(0.0, 0.0, -1.0), pattern="omni"):
    """A layout of one mic that stands and looks so, in room coordinates."""
    here, there = to_kit(np.array([at, np.add(at, look)], dtype=float), room)
    mic = Mic(id="ND", name="Next door", role="room", pattern=pattern,
              position_m=tuple(here.tolist()), aim=tuple((there - here).tolist()))  # fmt: skip
    return Layout(name="t", kit=five_piece(), mics=(mic,), room=room)


def heard(*args, **more):
    return analyse(at_room(*args, **more)).arrivals


def struck(layout):
    return to_room(analyse(layout).scene.sources.strike, layout.room)


@pytest.mark.parametrize("at", [
    (7.0, 2.0, 1.2), (6.5, 7.5, 0.4), (8.5, 5.4, 2.5), (6.2, -3.0, 1.8), (7.0, 5.5, 1.0),
    (6.3, 5.4, 2.5), (6.4, 5.2, 2.4), (6.6, 6.4, 1.9),
])  # fmt: skip
def test_the_way_by_a_door_against_every_point_of_the_doorway(at):
    """And that of its image in the floor, for which the doorway goes on below."""
    layout = at_room(at)
    here = np.array([layout.mics[0].position_m])
    sources = analyse(layout).scene.sources.strike
    ways = bends(ROOM, np.vstack([here, here * (1, 1, -1)]), np.array([0, 0]), sources)
    y, z = np.meshgrid(np.linspace(5.0, 5.9, 451), np.linspace(-2.0, 2.0, 2001), indexing="ij")
    spots = np.stack([np.full_like(y, 6.0), y, z], axis=-1)
    for row, ear in enumerate((np.array(at), np.array(at) * (1, 1, -1))):
        for k, source in enumerate(struck(layout)):
            every = np.linalg.norm(spots - ear, axis=-1) + np.linalg.norm(spots - source, axis=-1)
            straight = np.linalg.norm(sources[k] - ways.capsule[row, k])
            assert straight == pytest.approx(every.min(), abs=5e-6)
            assert ways.turns[row, k] == (every.min() > np.linalg.norm(ear - source) + 5e-6)


def kirchhoff_db(mic, source, hz, c=343.0):
    """What an opening keeps from a mic: Kirchhoff's integral over it and its image in the floor,
    against the free field over the same way (Born and Wolf, Principles of Optics, 8.3). Its lean
    takes too much from far round the jamb, where hard walls send on what comes along them."""
    k, step = 2 * np.pi * hz / c, min(0.03, c / hz / 14)
    y, z = (np.arange(low + step / 2, high, step) for low, high in ((5.0, 5.9), (-2.0, 2.0)))
    spots = np.stack(np.broadcast_arrays(6.0, y[:, None], z), axis=-1)
    near, far = (np.linalg.norm(spots - p, axis=-1) for p in (source, mic))
    lean = (1 / far + 1j * k) * (mic[0] - 6) / far + (1 / near + 1j * k) * (6 - source[0]) / near
    field = (np.exp(-1j * k * (near + far)) / (near * far) * lean).sum() * step**2 / (4 * np.pi)
    return -20 * np.log10(abs(field) * (near + far).min())


@pytest.mark.parametrize(("at", "within"), [
    ((7.5, 6.9, 1.2), 1.5), ((8.5, 7.5, 1.5), 1.5), ((7.0, 6.4, 0.5), 1.5),
    ((7.5, 4.5, 1.2), 6.5), ((8.5, 3.5, 1.5), 6.5), ((6.8, 7.9, 0.5), 2.0),
])  # fmt: skip
def test_what_a_doorway_keeps_out_against_the_integral_over_it(at, within):
    layout = at_room(at)
    source = struck(layout)[SNARE]
    ways = bends(ROOM, np.array([layout.mics[0].position_m]), np.array([0]),
                 analyse(layout).scene.sources.strike)  # fmt: skip
    for hz in (60.0, 120.0, 250.0, 500.0):
        got = ways.loss_db(np.full(len(struck(layout)), hz), 343.0, 1)[0, SNARE]
        assert got == pytest.approx(kirchhoff_db(np.array(at), source, hz), abs=within)


def test_a_low_note_finds_a_door_a_small_hole_and_a_high_one_goes_through():
    open_, free = heard((8.0, 7.3, 1.2)), heard((5.9, 5.45, 1.2))
    lost = free.level_db[0] - open_.level_db[0]
    assert lost[KICK] > lost[SNARE] + 3


@pytest.mark.parametrize("beside", [-0.02, 0.02])
def test_nothing_jumps_where_the_door_goes_out_of_sight(beside):
    source = struck(at_room((7, 2, 1)))[SNARE]
    jamb = np.array([6.0, 5.9, 1.0])
    limit = jamb + (jamb - source) * 0.5
    one, two = (heard(limit + (0, side, 0)) for side in (beside, -beside))
    assert one.path_m[0, SNARE] == pytest.approx(two.path_m[0, SNARE], abs=0.05)
    assert one.level_db[0, SNARE] == pytest.approx(two.level_db[0, SNARE], abs=0.5)


def test_round_the_corner_of_an_l_against_every_point_of_its_edge():
    room = ELL.model_copy(update={"kit_x_m": 1.5, "kit_turn_rad": 0.0})
    at, z = np.array([3.5, 7.5, 1.4]), np.linspace(0, 3, 30_001)
    edge = np.stack([np.full_like(z, 3.0), np.full_like(z, 5.0), z], axis=-1)
    layout = at_room(at, room)
    got, source = analyse(layout).arrivals, struck(layout)[SNARE]
    every = np.linalg.norm(edge - at, axis=1) + np.linalg.norm(edge - source, axis=1)
    assert every.min() > np.linalg.norm(at - source) + 0.05
    assert got.path_m[0, SNARE] == pytest.approx(every.min(), abs=1e-6)
    whole = analyse(at_room(at, room.model_copy(update={"notch": None}))).arrivals
    assert got.level_db[0, SNARE] < whole.level_db[0, SNARE] - 5
    assert got.tape_m[0, SNARE] == whole.tape_m[0, SNARE]


@pytest.mark.parametrize("room", [ELL, ELL.model_copy(update={"kit_turn_rad": 1.0})])
def test_nothing_jumps_at_the_corner_of_an_l_which_takes_5_db_of_what_just_passes(room):
    """5 dB at grazing: Kurze and Anderson (1971)."""
    room = room.model_copy(update={"kit_x_m": 1.5})
    source = struck(at_room((1, 1, 1), room))[SNARE]
    corner = np.array([3.0, 5.0, 1.2])
    limit = corner + (corner - source) * (0.7, 0.7, 0)
    dark, light = (heard(limit + (side, 0, 0), room=room) for side in (-0.01, 0.01))
    free_of = room.model_copy(update={"notch": None})
    free = heard(limit, room=free_of)
    assert dark.path_m[0, SNARE] == pytest.approx(light.path_m[0, SNARE], abs=0.02)
    for one in (dark, light):
        assert free.level_db[0, SNARE] - one.level_db[0, SNARE] == pytest.approx(5, abs=0.7)
    beside = heard(limit + (0.5, 0, 0), room=room).level_db[0, KICK]
    assert beside < heard(limit + (0.5, 0, 0), room=free_of).level_db[0, KICK] - 0.5
    clear = heard(limit + (2.0, -1.0, 0), room=room).level_db[0, SNARE]
    assert clear == heard(limit + (2.0, -1.0, 0), room=free_of).level_db[0, SNARE]


@pytest.mark.parametrize("corner", ["front left", "front right", "back left", "back right"])
def test_an_l_is_in_the_way_on_the_side_that_is_cut(corner):
    room = ELL.model_copy(update={"notch": Notch(corner=corner, width_m=3.0, length_m=3.0),
                                  "kit_turn_rad": 0.0})  # fmt: skip
    x, y = 3.0, 5.0 if "front" in corner else 3.0
    out, up = (-1 if "left" in corner else 1), (1 if "front" in corner else -1)

    def sees(back):
        """From one arm to the other, beside the corner: through it where that is less than 1 m."""
        one = np.array([x + out, y - up * back, 1.0])
        two = np.array([x - out, y + up, 1.0])
        return in_one_line(room, one, two), in_one_line(room, two, one)

    assert sees(0.95) == (False, False)
    assert sees(1.05) == (True, True)


@pytest.mark.parametrize(("one", "two", "free"), [
    ((7.0, 6.5, 1.0), (5.0, 4.4, 1.0), True),  # at 5.45 m, in the middle of the door
    ((7.0, 6.5, 1.0), (5.0, 3.4, 1.0), False),  # at 4.95 m, beside it
    ((7.0, 6.5, 1.0), (3.0, 2.4, 1.0), True),
    ((7.0, 5.5, 2.5), (4.0, 5.5, 0.7), True),  # 1.9 m up, under its head
    ((7.0, 5.5, 2.5), (4.0, 5.5, 1.3), False),
])  # fmt: skip
def test_a_slanting_line_is_free_where_it_meets_the_wall_in_the_doorway(one, two, free):
    ends = np.array(one), np.array(two)
    assert in_one_line(ROOM, *ends) is free
    assert in_one_line(ROOM, *ends[::-1]) is free


def test_two_spots_on_one_side_of_an_l_s_corner_see_each_other():
    assert in_one_line(ELL, np.array([3.2, 4.7, 1.0]), np.array([4.2, 3.5, 1.0]))


def test_from_one_space_to_another_nothing_is_straight():
    yard = Space(id="yard", name="Yard", x_m=-3.0, y_m=0.0, width_m=3.0, length_m=8.0, height_m=2.6)
    to_yard = DOOR.model_copy(update={"wall": "left", "leads_to": "yard"})
    for spaces in ((HALL, yard), (yard, HALL)):
        room = ROOM.model_copy(update={"spaces": spaces, "doors": (DOOR, to_yard)})
        ends = np.array([[7.0, 5.4, 1.0], [-1.0, 5.4, 1.0]])
        assert not in_one_line(room, *ends)
        assert not in_one_line(room, *ends[::-1])


def test_of_one_mic_some_drums_are_round_the_corner_and_some_are_not():
    across = ELL.model_copy(update={"kit_x_m": 2.9, "kit_y_m": 4.6, "kit_turn_rad": 0.0})
    mic = (3.1, 7.8, 1.5)
    path = heard(mic, room=across).path_m[0]
    straight = np.linalg.norm(struck(at_room(mic, room=across)) - mic, axis=1)
    crash = next(i for i, c in enumerate(five_piece().parts) if c.name == "Crash R")
    assert path[SNARE] > straight[SNARE] + 1e-4
    assert path[crash] == pytest.approx(straight[crash], abs=1e-3)


def test_the_side_of_a_head_is_that_by_which_the_sound_leaves_it():
    """Behind the drummer next door, with the door in front of the kick: its front head is heard."""
    behind = (7.0, -2.0, 1.0)
    by_door = heard(behind)
    through = heard(behind, room=ROOM.model_copy(update={"doors": ()}))
    assert (by_door.face_side[0, KICK], through.face_side[0, KICK]) == (1, -1)
    assert (by_door.raw_sign[0, KICK], through.raw_sign[0, KICK]) == (1, -1)


def test_a_mic_next_door_hears_the_kit_from_the_door():
    at, door = np.array([7.0, 2.0, 1.2]), np.array([6.0, 5.0, 1.1])
    toward = door - at
    kit = struck(at_room(at))[SNARE] - at
    facing = {name: heard(at, look=way, pattern="cardioid").level_db[0, SNARE]
              for name, way in (("door", toward), ("kit", kit), ("away", -toward))}  # fmt: skip
    assert facing["door"] > facing["kit"] + 2
    assert facing["kit"] > facing["away"] + 6
    square = (-toward[1], toward[0], 0.0)
    null = heard(at, look=square, pattern="figure-8")
    assert null.doubt[0, SNARE] & Doubt.NULL


def test_a_shut_door_is_the_way_as_well_and_a_wall_none():
    at = (7.0, 2.0, 1.2)
    shut = ROOM.model_copy(update={"doors": (DOOR.model_copy(update={"open": False}),)})
    blank = ROOM.model_copy(update={"doors": (DOOR.model_copy(update={"leads_to": None}),)})
    free = ROOM.model_copy(update={"doors": (), "spaces": ()})
    open_, closed, wall, air = (heard(at, room=r) for r in (ROOM, shut, blank, free))
    assert closed.path_m[0].tolist() == open_.path_m[0].tolist()
    assert open_.level_db[0] - closed.level_db[0] == pytest.approx(KEPT_OUT_DB["shut door"])
    assert wall.path_m[0].tolist() == air.path_m[0].tolist()
    assert air.level_db[0] - wall.level_db[0] == pytest.approx(KEPT_OUT_DB["wall"])
    assert open_.path_m[0, SNARE] > air.path_m[0, SNARE] + 1


def test_the_shortest_way_counts_and_an_open_door_before_a_shut_one():
    def path(*doors, at=(7.0, 2.0, 1.2)):
        return heard(at, room=ROOM.model_copy(update={"doors": doors})).path_m[0, SNARE]

    near = DOOR.model_copy(update={"at_m": 2.0})
    assert path(near) < path(DOOR) - 1
    assert path(DOOR, near) == path(near, DOOR) == path(near)
    assert path(DOOR, near.model_copy(update={"open": False})) == path(DOOR)
    beside, far = DOOR.model_copy(update={"at_m": 7.0}), (8.9, 7.8, 1.2)  # beside the mic
    assert path(beside, DOOR, at=far) == path(DOOR, at=far) < path(beside, at=far) - 0.1
    by_kit, at_mic = near.model_copy(update={"at_m": 1.0}), (7.0, 5.5, 1.2)
    assert path(by_kit, DOOR, at=at_mic) == path(DOOR, at=at_mic) < path(by_kit, at=at_mic) - 0.5
    assert path(DOOR, near.model_copy(update={"leads_to": None})) == path(DOOR)

    def from_the_front(*doors):
        room = ROOM.model_copy(update={"doors": doors, "kit_y_m": 7.0})
        return heard((7.0, 4.0, 1.2), room=room).path_m[0, SNARE]

    assert from_the_front(near, DOOR) == from_the_front(DOOR) < from_the_front(near) - 1


def test_next_door_to_an_l_is_by_the_door_and_not_round_its_corner_as_well():
    """The line to the kit comes by close to the corner."""
    box = ROOM.model_copy(update={"kit_x_m": 2.0, "kit_y_m": 4.5})
    room = box.model_copy(update={"notch": ELL.notch})
    at = (7.0, 6.2, 1.2)
    sources = analyse(at_room(at, room=room)).scene.sources.strike
    here = to_kit(np.array([at]), room)
    assert bends(room, here, np.array([0]), sources).rows.tolist() == [0]
    by_door = heard(at, room=box).path_m[0, SNARE]
    assert heard(at, room=room).path_m[0, SNARE] == pytest.approx(by_door)


def test_by_a_door_and_round_a_corner_each_loses_what_it_does_alone():
    box = ROOM.model_copy(update={"kit_x_m": 1.5, "kit_turn_rad": 0.0})
    room = box.model_copy(update={"notch": ELL.notch})
    ends = ((7.0, 2.0, 1.2), (3.5, 7.5, 1.4))  # next door, and in the foot of the L
    by_door, round_it = (at_room(at, room=room) for at in ends)
    other = round_it.mics[0].model_copy(update={"id": "RC"})
    level = analyse(by_door.model_copy(update={"mics": (*by_door.mics, other)})).arrivals
    for row, alone in enumerate((by_door, round_it)):
        assert level.level_db[row] == pytest.approx(analyse(alone).arrivals.level_db[0])
    assert level.level_db[1, SNARE] < heard(ends[1], room=box).level_db[0, SNARE] - 3


def test_in_a_pair_s_attack_a_corner_takes_more_than_of_its_body():
    """By how much: Kurze and Anderson (1971), their fit for an edge in the way."""
    room = ELL.model_copy(update={"kit_x_m": 1.5, "kit_turn_rad": 0.0})
    over = Mic(id="ST", name="Snare top", role="close", pattern="omni",
               position_m=(0.0, 0.1, 0.9), aim=(0, 0, -1))  # fmt: skip

    def layout(notch):
        far = at_room((3.5, 7.5, 1.4), room.model_copy(update={"notch": notch}))
        return far.model_copy(update={"mics": (over, *far.mics)})

    def beside(an):
        """The far mic against the near one by band, out of the two ways their sum comes out."""
        rows = {r.band: r for r in bands_db(an, 0, SNARE)}
        power = {b: 10 ** (r.wired_db / 10) + 10 ** (r.flipped_db / 10) for b, r in rows.items()}
        middle = {b: np.sqrt(r.low_hz * r.high_hz) for b, r in rows.items()}
        return {b: 10 * np.log10(p / 2 - 1) for b, p in power.items()}, middle

    def edge_db(hz, longer_m, c):
        root = np.sqrt(2 * np.pi * 2 * longer_m * hz / c)
        return 5 + 20 * np.log10(root / np.tanh(root))

    cut, whole = analyse(layout(ELL.notch)), analyse(layout(None))
    longer = cut.arrivals.path_m[1, SNARE] - whole.arrivals.path_m[1, SNARE]
    (now, middle), (free, _) = beside(cut), beside(whole)
    body_hz = cut.scene.sources.fundamental_hz[SNARE]
    taken = [edge_db(hz, longer, cut.scene.speed) for hz in (body_hz, middle["attack"])]
    more = (free["attack"] - now["attack"]) - (free["body"] - now["body"])
    assert more == pytest.approx(taken[1] - taken[0], abs=1.5)
    assert more > 4


def test_where_two_spaces_are_drawn_over_one_another_the_first_counts():
    again = HALL.model_copy(update={"id": "again", "name": "Again"})
    room = ROOM.model_copy(update={"spaces": (HALL, again)})
    assert next_door(np.array([[7.0, 2.0, 1.0]]), room).tolist() == [0]


def test_a_gobo_counts_where_the_way_goes_and_not_in_the_wall_s_shadow():
    at = (7.0, 2.0, 1.2)
    source = struck(at_room(at))[SNARE]

    def level(spot, turn):
        gobo = Gobo(name="g", x_m=spot[0], y_m=spot[1], width_m=1.6, height_m=2.0, turn_rad=turn)
        room = ROOM.model_copy(update={"gobos": (gobo,)})
        return heard(at, room=room).level_db[0, SNARE]

    free = heard(at).level_db[0, SNARE]
    to_door = (source[:2] + (6.0, 5.0)) / 2
    across = float(np.arctan2(5.0 - source[1], 6.0 - source[0])) + np.pi / 2
    assert level(to_door, across) < free - 5
    assert level((5.5, 2.3), np.pi / 2) == pytest.approx(free, abs=0.1)


def test_one_mic_asked_again_hears_what_the_whole_layout_says_and_the_others_what_they_did():
    start = at_room((7.0, 2.0, 1.2))
    over = Mic(id="OH", name="Over", role="overhead", pattern="cardioid",
               position_m=(0.2, 0.3, 1.9), aim=(0, 0, -1))  # fmt: skip
    both = start.model_copy(update={"mics": (over, *start.mics)})
    there = tuple(to_kit(np.array([[6.4, 6.6, 0.9]]), ROOM)[0].tolist())
    after = with_mic(both, "ND", position_m=there)
    again, whole = moved(analyse(both), after, 1), analyse(after)
    alone = analyse(both.model_copy(update={"mics": (over,)}))
    for name in ("path_m", "time_s", "level_db", "raw_sign", "toward"):
        assert np.array_equal(getattr(again.arrivals, name), getattr(whole.arrivals, name)), name
        one, first = (getattr(a.arrivals, name)[0] for a in (alone, whole))
        assert np.array_equal(one, first), name


def recorded(at, look, doors=(DOOR,)):
    """What a simulated recording has of one stroke on the snare, in the open but for the doors."""
    layout = at_room(at, look=look, pattern="cardioid",
                     room=ROOM.model_copy(update={"doors": doors}))  # fmt: skip
    every = faces(layout)
    snare = next(n for n, f in enumerate(every) if f.part == SNARE and f.side == -1)
    response = responses(layout, every, 48_000, order=0)[0][snare]
    planned = analyse(layout).arrivals
    return np.argmax(np.abs(response)) / 48_000, 20 * np.log10(np.linalg.norm(response)), planned


def test_a_simulated_recording_hears_a_mic_next_door_by_the_door():
    to_door, shut = (-1.0, 3.0, 0.0), DOOR.model_copy(update={"open": False})
    at_s, loud, planned = recorded((7.0, 2.0, 1.2), to_door)
    assert at_s == pytest.approx(planned.time_s[0, SNARE], abs=5e-5)
    assert recorded((7.0, 2.0, 1.2), to_door, doors=(shut,))[1] == pytest.approx(loud - 25, abs=0.1)
    assert recorded((7.0, 2.0, 1.2), (1.0, -3.0, 0.0))[1] < loud - 20
    _, further, there = recorded((8.0, -1.0, 1.2), to_door)
    ratio = there.path_m[0, SNARE] / planned.path_m[0, SNARE]
    assert loud - further == pytest.approx(20 * np.log10(ratio), abs=0.3)


@pytest.mark.parametrize(("at", "kept_out"), [((7.5, 2.5, 1.2), 45), ((12.0, 2.5, 1.2), 0)])
def test_a_simulated_recording_hears_through_a_wall_where_no_door_leads(at, kept_out):
    """When the mic would, further off by what the way is longer, and weaker by the wall."""
    to_kit_side = (-1.0, 0.0, 0.0)
    at_s, loud, planned = recorded(at, to_kit_side, doors=())
    assert at_s == pytest.approx(planned.time_s[0, SNARE], abs=6e-5)
    snare = struck(at_room(at))[SNARE]
    within = snare + 2.8 / (at[0] - snare[0]) * (at - snare)  # in the same line
    _, near, here = recorded(within, to_kit_side)
    further = 20 * np.log10(planned.path_m[0, SNARE] / here.path_m[0, SNARE])
    assert near - loud == pytest.approx(further + kept_out, abs=0.3)


@pytest.mark.parametrize("at", [
    (-3.0, 2.5, 1.2), (3.0, -3.0, 1.2), (3.5, 12.0, 1.2), (3.5, 2.5, 5.0), (-2.0, 11.0, 1.2),
])  # fmt: skip
def test_whichever_wall_is_between_a_simulated_recording_is_as_late_as_the_way_is_long(at):
    at_s, _, planned = recorded(at, np.subtract((3.0, 2.5, 0.66), at), doors=())
    assert at_s == pytest.approx(planned.time_s[0, SNARE], abs=6e-5)


@pytest.mark.parametrize(("at", "number"), [
    ((7.0, 2.0, 1.2), 0), ((6.1, 5.4, 1.2), 0), ((6.1, 4.0, 1.2), -1), ((5.5, 2.0, 1.2), -1),
    ((7.0, 2.0, 2.7), -1), ((10.0, 2.0, 1.2), -1),
])  # fmt: skip
def test_what_counts_as_next_door(at, number):
    """In the space or the doorway to it, and not what of a space is drawn over the room."""
    behind_a_wall = HALL.model_copy(update={"x_m": 6.3})
    over_the_room = HALL.model_copy(update={"id": "x", "x_m": 5.0, "width_m": 0.9})
    room = ROOM.model_copy(update={"spaces": (behind_a_wall, over_the_room)})
    assert next_door(np.array([at, (7.0, 3.0, 1.0)]), room).tolist() == [number, 0]


def test_room_says_by_what_each_mic_off_the_kit_hears_it():
    def reached(at, **door):
        doors = (DOOR.model_copy(update=door),) if door else ()
        (row,) = decay_report(at_room(at, room=ROOM.model_copy(update={"doors": doors}))).mics
        return row.reached

    assert reached((7.0, 2.0, 1.2), open=True) == "open door"
    assert reached((7.0, 2.0, 1.2), open=False) == "shut door"
    assert reached((7.0, 2.0, 1.2)) == "wall"
    assert reached((5.0, 2.0, 1.2), open=True) == "here"
    assert reached((12.0, 2.0, 1.2), open=True) == "outside"


@pytest.mark.parametrize(("at", "room", "between"), [
    ((7.0, 2.0, 1.2), ROOM, True),  # the hall's wall
    ((5.0, 2.0, 1.2), ROOM, False),
    ((3.2, 7.8, 0.7), LEFT_OF_ELL, True),  # the corner of the L
    ((5.5, 7.8, 0.7), LEFT_OF_ELL, False),
])  # fmt: skip
def test_what_a_mic_points_at_behind_a_wall_is_said_to_be_there(at, room, between):
    plain = at_room(at, room=room)
    aimed = at_room(at, room=room, look=struck(plain)[SNARE] - at)
    (words,) = aim_words(aimed)
    assert words.startswith("at the ")
    assert words.endswith(", a wall between") is between
