"""Recipes against their own promises, by measuring anew: small, large and left-handed kits.

Distances quoted are common practice. The measuring here is done from the kit's own fields, not
with the recipes' helpers.
"""

import re

import numpy as np
import pytest
from ringside.edits.apply import apply
from ringside.edits.kit import OtherHand
from ringside.edits.parts import ChangePart, RemovePart
from ringside.errors import RingsideError
from ringside.files.layout import read_layout, write_layout
from ringside.places.clearance import words_for_all
from ringside.plan.handsizes import HandSizes
from ringside.plan.hanging import with_flips
from ringside.plan.kit import mirrored, reference_point
from ringside.plan.kits import KITS, five_piece
from ringside.plan.layout import Layout
from ringside.plan.room import Room, Space, to_room
from ringside.techniques.catalogue import TECHNIQUES, lacking, listed, targets_in, technique
from ringside.techniques.recipe import GROUPS
from ringside.techniques.standing import OffRow, standing
from ringside.techniques.taking import change, made, take

HALL = Room(
    name="Store", width_m=6.4, length_m=8.2, height_m=3.4, kit_x_m=3.0, kit_y_m=2.2,
    spaces=(Space(id="hall", name="Hallway", x_m=6.6, y_m=1.0, width_m=1.6, length_m=6.0,
                  height_m=2.5),),
)  # fmt: skip
LOW = Room(name="Cellar", width_m=3.6, length_m=4.4, height_m=2.15, kit_x_m=1.6, kit_y_m=1.2,
           kit_turn_rad=0.1)  # fmt: skip


def empty(kit="five-piece", room=None):
    return Layout(name="Blank", kit=KITS[kit](), room=room)


def opened(layout):
    """The same kit with a ported kick and one tom without a bottom head, so all recipes apply."""
    from ringside.plan.kit import Port

    drums = tuple(
        d.model_copy(update={"port": Port(diameter_m=0.12, right_m=0.12)})
        if d.kind == "kick"
        else d.model_copy(update={"far_head": None})
        if d.kind == "rack" and d.id in ("rack", "rack-1")
        else d
        for d in layout.kit.drums
    )
    return layout.model_copy(update={"kit": layout.kit.model_copy(update={"drums": drums})})


def every(layout):
    for t in TECHNIQUES.values():
        if lacking(t, layout):
            continue
        for target in targets_in(t, layout) if t.over else [None]:
            yield t, target


def far(a, b):
    return float(np.linalg.norm(np.subtract(a, b)))


@pytest.mark.parametrize("kit", ["small four-piece", "eight-piece", "left-handed five-piece"])
@pytest.mark.parametrize("room", [None, HALL, LOW], ids=["no room", "hall", "cellar"])
def test_each_recipe_keeps_its_promise_stands_clear_and_stays_inside(kit, room):
    layout = opened(empty(kit, room))
    seen = set()
    for t, target in every(layout):
        took = take(layout, t.id, target)
        mics = took.layout.mics
        seen.add(t.id)
        assert len(mics) == t.mics, t.id
        assert all(abs(far(m.aim, (0, 0, 0)) - 1) < 1e-9 for m in mics), t.id
        cramped = room is LOW and took.notes
        if not cramped:
            blocked = words_for_all([m.position_m for m in mics], took.layout)
            assert not any(blocked), (t.id, target, blocked)
        if room is not None:
            at = to_room(np.array([m.position_m for m in mics]), room)
            assert (at[:, 2] < room.height_m).all(), t.id
        (state,) = standing(took.layout)
        assert state.off == [], t.id
        for row in state.equal:
            assert row.difference_m <= 1e-4, (t.id, row)
        if t.keeps_on and not cramped:
            assert {r.on for r in state.equal} >= set(t.keeps_on) or "swung" in state.numbers, t.id
    wanted = set(TECHNIQUES) if room is HALL else set(TECHNIQUES) - {
        "wall-mic", "corner-pair", "next-door"}  # fmt: skip
    assert seen >= wanted - ({"next-door"} if room is LOW else set())


@pytest.mark.parametrize("kit", list(KITS))
@pytest.mark.parametrize(
    "name",
    ["pair-turned", "pair-coincident", "pair-near", "pair-crossed-8", "over-shoulder",
     "wide-centre", "pair-mid-side", "room-bar", "floor-pair", "room-crossed-8"],
)  # fmt: skip
def test_pairs_that_keep_both_drums_measure_equal_with_a_tape(kit, name):
    """Measured here from the tape's own points: batter centres of snare and kick."""
    on_line = {"swung": 0.0} if TECHNIQUES[name].group == "Room" else {}
    layout = take(empty(kit), name, numbers=on_line).layout
    a, b = (layout.mic(i) for i in (layout.stereo_pairs[0].left, layout.stereo_pairs[0].right))
    for drum in (layout.kit.first("snare"), layout.kit.first("kick")):
        to = reference_point(drum)
        assert abs(far(a.position_m, to) - far(b.position_m, to)) < 1e-4, (name, drum.id)


ROOM_PAIRS = [t for t in TECHNIQUES if "swung" in {n.id for n in TECHNIQUES[t].numbers}]


@pytest.mark.parametrize("kit", ["five-piece", "left-handed five-piece", "eight-piece"])
@pytest.mark.parametrize("name", ROOM_PAIRS)
def test_room_pairs_start_in_front_of_the_kick_with_the_snare_equal(kit, name):
    # Common practice: in front of the kick, turned until the snare is equal.
    took = take(empty(kit), name)
    layout = took.layout
    pair = layout.stereo_pairs[0]
    left, right = layout.mic(pair.left), layout.mic(pair.right)
    snare, kick = layout.kit.first("snare").batter_m, layout.kit.first("kick")
    assert abs(far(left.position_m, snare) - far(right.position_m, snare)) < 1e-4
    middle = np.add(left.position_m, right.position_m) / 2
    front = np.array(kick.batter_m) - kick.depth_m * np.array(kick.axis)
    assert abs(middle[0] - front[0]) < 0.02
    assert middle[1] > front[1] + 0.3
    apart = abs(far(left.position_m, kick.batter_m) - far(right.position_m, kick.batter_m))
    said = [n for n in took.notes if n.startswith("Equal on the snare; the kick reaches")]
    assert len(said) == (apart > 0.0075)


def test_what_a_room_pair_leaves_on_the_kick():
    # 50 cm on a bar 2.7 m out leave about 5 cm on the kick.
    layout = take(empty("five-piece"), "room-bar", numbers={"width": 0.5, "out": 2.7}).layout
    kick = layout.kit.first("kick").batter_m
    gap = far(layout.mic("RL").position_m, kick) - far(layout.mic("RR").position_m, kick)
    assert gap == pytest.approx(0.05, abs=0.01)  # the right one stands nearer, beyond the snare


@pytest.mark.parametrize("name", ["pair-straight", "pair-snare", "over-and-side", "three-side"])
def test_pairs_that_keep_the_snare_only_are_equal_there(name):
    layout = take(empty(), name).layout
    p = layout.stereo_pairs[0]
    to = layout.kit.first("snare").batter_m
    gap = far(layout.mic(p.left).position_m, to) - far(layout.mic(p.right).position_m, to)
    assert abs(gap) < 1e-4


@pytest.mark.parametrize(
    ("name", "numbers", "angle", "apart"),
    [
        ("pair-near", {}, 110.0, 0.17),  # 17 cm and 110°: common practice
        ("pair-near", {"angle": 90.0, "apart": 0.3}, 90.0, 0.30),
        ("pair-coincident", {}, 90.0, 0.025),
        ("pair-coincident", {"angle": 120.0, "apart": 0.0}, 120.0, 0.0),
        ("pair-crossed-8", {}, 90.0, 0.03),
        ("room-crossed-8", {}, 90.0, 0.03),
        ("floor-point", {"angle": 100.0}, 100.0, 0.025),
        ("room-bar", {"angle": 40.0, "width": 0.5}, 40.0, 0.5),
    ],
)
def test_angles_and_spacings_are_what_was_asked(name, numbers, angle, apart):
    layout = take(empty(), name, numbers=numbers).layout
    a, b = layout.mics
    assert np.degrees(np.arccos(np.dot(a.aim, b.aim))) == pytest.approx(angle, abs=1e-6)
    assert far(a.position_m, b.position_m) == pytest.approx(apart, abs=1e-6)


def test_crossed_capsules_look_across_each_other_and_spread_ones_look_out():
    crossed = take(empty(), "pair-coincident").layout
    left, right = crossed.mic("OL"), crossed.mic("OR")
    assert left.aim[0] < right.aim[0]
    assert left.position_m[0] > right.position_m[0]
    spread = take(empty(), "pair-near").layout
    left, right = spread.mic("OL"), spread.mic("OR")
    assert left.position_m[0] < right.position_m[0]
    assert left.aim[0] < right.aim[0]


def test_mid_side_has_its_dead_side_on_snare_and_kick():
    """The side figure-8 hears nothing of what lies in its plane (theory: a + (1-a)cos, a = 0)."""
    for name in ("pair-mid-side", "room-mid-side"):
        on_line = {"swung": 0.0} if name == "room-mid-side" else {}
        layout = take(empty(), name, numbers={"apart": 0.0, **on_line}).layout
        side = next(m for m in layout.mics if m.pattern == "figure-8")
        for drum in (layout.kit.first("snare"), layout.kit.first("kick")):
            to = np.subtract(reference_point(drum), side.position_m)
            assert abs(np.dot(side.aim, to) / np.linalg.norm(to)) < 1e-6


def test_a_room_side_mic_in_front_has_the_snare_in_its_dead_side():
    layout = take(empty(), "room-mid-side", numbers={"apart": 0.0}).layout
    side = next(m for m in layout.mics if m.pattern == "figure-8")
    to = np.subtract(layout.kit.first("snare").batter_m, side.position_m)
    assert abs(np.dot(side.aim, to) / np.linalg.norm(to)) < 1e-6


def with_wires(kit, turn):
    drums = tuple(
        d.model_copy(update={"wires_rad": turn}) if d.kind == "snare" else d for d in kit.drums
    )
    return kit.model_copy(update={"drums": drums})


@pytest.mark.parametrize(("turn", "hour"), [(0.0, 9.0), (np.pi / 2, 12.0), (np.pi * 2 / 3, 11.0),
                                            (-np.pi / 6, 10.0)])  # fmt: skip
def test_the_bottom_mic_stands_in_line_with_the_wires(turn, hour):
    # Wires from nine to three o'clock run across; the end nearer to eleven is where a stand is.
    layout = empty().model_copy(update={"kit": with_wires(five_piece(), turn)})
    took = take(layout, "snare-bottom").layout
    x, y, _ = np.subtract(took.mic("SB").position_m, took.kit.first("snare").batter_m)
    assert np.degrees(np.arctan2(x, y)) / 30 % 12 == pytest.approx(hour % 12, abs=0.01)
    # Seen from above, the mic and the wires lie on one line.
    assert x * np.sin(turn) - y * np.cos(turn) == pytest.approx(0, abs=1e-6)


def test_a_top_mic_stands_in_line_with_the_wires_when_there_is_none_under_the_snare():
    layout = empty().model_copy(update={"kit": with_wires(five_piece(), np.pi / 2)})
    alone = take(layout, "snare-centre").layout.techniques[0].numbers["clock"]
    below = take(layout, "snare-bottom").layout
    beside = take(below, "snare-centre").layout.techniques[1].numbers["clock"]
    unknown = take(empty(), "snare-centre").layout.techniques[0].numbers["clock"]
    assert (alone % 12, beside, unknown) == (0.0, 11.0, 11.0)


@pytest.mark.parametrize("name", sorted(TECHNIQUES))
def test_a_mirrored_kit_gets_mirrored_mics(name):
    """What is right for a right-handed drummer is right, mirrored, for a left-handed one."""
    right = opened(Layout(name="R", kit=five_piece()))
    left = right.model_copy(update={"kit": mirrored(right.kit, "L")})
    t = technique(name)
    if lacking(t, right):
        pytest.skip("needs a room; the pose of a room is not mirrored")
    for target in targets_in(t, right) if t.over else [None]:
        ours = [m.position_m for m in take(right, name, target).layout.mics]
        theirs = [m.position_m for m in take(left, name, target).layout.mics]
        flipped = {tuple(np.round((-x + 0.0, y, z), 5)) for x, y, z in ours}
        assert {tuple(np.round(p, 5)) for p in theirs} == flipped, (name, target)


PRACTICE = [
    ("kick-inside", "back", 0.20, 0.25),  # 20 to 25 cm back from the beater
    ("kick-outside", "off", 0.07, 0.12),  # a fist from the front head
    ("kick-tunnel", "long", 2.0, 2.5),
    ("one-front", "out", 1.2, 1.2),
    ("room-mono", "out", 3.0, 3.7),
    ("room-crossed-8", "out", 1.5, 2.5),
    ("room-bar", "out", 2.0, 3.0),
    ("room-omnis", "height", 1.8, 2.2),
    ("floor-pair", "height", 0.0003, 0.0006),  # a card
    ("pair-near", "apart", 0.17, 0.17),
    ("cymbal-over", "away", 0.15, 0.22),  # a hand away
    ("tom-top", "height", 0.05, 0.06),  # three fingers
    ("snare-centre", "height", 0.025, 0.045),  # two fingers
]


@pytest.mark.parametrize(("name", "number", "low", "high"), PRACTICE)
def test_defaults_are_common_practice(name, number, low, high):
    rows = {t.id: t for t in listed(opened(empty(room=HALL)), HandSizes())}
    found = {n.id: n.default for n in rows[name].numbers}[number]
    assert low - 1e-9 <= found <= high + 1e-9


def test_defaults_told_by_hand_follow_the_hand():
    big = HandSizes(two_fingers_m=0.045, three_fingers_m=0.07, fist_m=0.11, hand_m=0.23)
    mic = take(empty(), "snare-centre", hands=big).layout.mics[0]
    top = empty().kit.first("snare")
    assert mic.position_m[2] - top.batter_m[2] == pytest.approx(0.045, abs=1e-6)
    radial = np.hypot(*np.subtract(mic.position_m, top.batter_m)[:2])
    assert top.diameter_m / 2 - radial == pytest.approx(0.045, abs=1e-6)


def test_the_mic_outside_is_never_in_the_air_of_the_port():
    from ringside.gear.airjet import in_jet

    layout = opened(empty())
    for aside in (-0.2, -0.1, 0.0, 0.05, 0.1, 0.2):
        for off in (0.05, 0.1, 0.3):
            after = take(layout, "kick-outside", numbers={"aside": aside, "off": off}).layout
            assert not in_jet(after.mics[0], after), (aside, off)


def test_the_equidistant_mic_is_as_far_from_three_drums_and_near_it_for_the_fourth():
    layout = take(empty("four-piece"), "equidistant").layout
    at, kit = layout.mics[0].position_m, layout.kit
    three = [far(at, reference_point(kit.first(k))) for k in ("snare", "kick", "floor")]
    assert max(three) - min(three) < 1e-4
    free = take(empty("four-piece"), "equidistant", numbers={"along": 0.0}).layout.mics[0]
    rack = far(free.position_m, reference_point(kit.first("rack")))
    assert rack == pytest.approx(far(free.position_m, kit.first("snare").batter_m), abs=1e-6)


def test_a_near_wall_draws_a_pair_in_and_says_so():
    took = take(empty(room=LOW), "room-omnis", numbers={"out": 6.0})
    assert any("nearer" in n for n in took.notes)
    assert took.layout.mics[0].position_m[2] <= LOW.height_m - 0.15 + 1e-9


def test_next_door_stands_in_the_space_and_faces_its_wall():
    layout = take(empty(room=HALL), "next-door").layout
    mic = layout.mics[0]
    at = to_room(np.array([mic.position_m]), HALL)[0]
    space = HALL.spaces[0]
    assert space.x_m < at[0] < space.x_m + space.width_m
    assert space.y_m < at[1] < space.y_m + space.length_m
    ahead = to_room(np.array([np.add(mic.position_m, np.multiply(mic.aim, 0.11))]), HALL)[0]
    inside = (space.x_m < ahead[0] < space.x_m + space.width_m) and (
        space.y_m < ahead[1] < space.y_m + space.length_m
    )
    assert not inside  # a hand ahead of it is the wall


def test_the_wall_mic_is_as_far_off_the_wall_as_asked():
    layout = take(empty(room=HALL), "wall-mic", numbers={"gap": 0.05}).layout
    at = to_room(np.array([layout.mics[0].position_m]), HALL)[0]
    assert HALL.length_m - at[1] == pytest.approx(0.05, abs=1e-6)


# --- the list -----------------------------------------------------------------------------


def test_the_list_says_what_each_gives_and_takes():
    rows = listed(empty(), HandSizes())
    assert {r.group for r in rows} == set(GROUPS)
    for r in rows:
        for words in (r.gives, r.watch_for, r.listen_for):
            assert words[-1] in ".?", r.id
            assert not re.search(r"\d\s*(cm|mm|m|in|ft)\b", words), (r.id, words)
        for n in r.numbers:
            assert n.low <= n.default <= n.high, (r.id, n.id)
    lacks = {r.id: r.lacks for r in rows}
    assert "room" in lacks["wall-mic"].lower()
    assert lacks["pair-turned"] == ""
    assert "hole" in lacks["kick-port"]


@pytest.mark.parametrize("name", sorted(TECHNIQUES))
def test_every_corner_of_its_numbers_places_mics_or_says_why_not(name):
    layout = opened(empty(room=HALL))
    t = technique(name)
    target = targets_in(t, layout)[0] if t.over else None
    start = dict(standing(take(layout, name, target).layout)[0].numbers)
    placed = 0
    for n in t.numbers:
        for value in (n.low, n.high):
            try:
                found = made(layout, t, target, {**start, n.id: value})
            except RingsideError:
                continue
            placed += 1
            assert np.isfinite([p.at for p in found.puts]).all()
            assert all(np.linalg.norm(p.way) > 1e-6 for p in found.puts), (n.id, value)
    assert placed or not t.numbers


# --- taking, changing -----------------------------------------------------------


def test_two_of_one_kind_get_names_and_inputs_of_their_own():
    one = take(empty(room=HALL), "room-bar").layout
    two = take(one, "room-omnis").layout
    ids = [m.id for m in two.mics]
    assert len(set(ids)) == 4
    assert [(c.mic, c.input) for c in two.channels] == list(zip(ids, (1, 2, 3, 4), strict=True))
    assert len(two.stereo_pairs) == 2
    assert [t.id for t in two.techniques] == ["room-bar", "room-omnis"]


def test_of_several_room_pairs_put_up_to_choose_from_no_two_are_called_alike():
    layout = empty(room=HALL)
    rooms = [t.id for t in TECHNIQUES.values() if t.group == "Room" and t.needs in ((), ("room",))]
    for name in rooms:
        layout = take(layout, name).layout
    names = [c.name for c in layout.channels]
    assert len(rooms) > 7
    assert len(set(names)) == len(names), names
    pairs = [p.name for p in layout.stereo_pairs]
    assert len(set(pairs)) == len(pairs), pairs


def test_toms_are_taken_one_after_the_other_without_being_named():
    layout = empty()
    for _ in range(3):
        layout = take(layout, "tom-top").layout
    assert [m.job for m in layout.mics] == ["rack-1", "rack-2", "floor"]


def test_a_changed_number_moves_the_whole_technique_and_nothing_else():
    layout = take(take(empty(), "pair-turned").layout, "snare-centre").layout
    wider = change(layout, "pair-turned", {"width": 1.6})
    a, b = (wider.layout.mic(i).position_m for i in ("OL", "OR"))
    assert far(a, b) == pytest.approx(1.6, abs=1e-6)
    assert wider.layout.mic("ST") == layout.mic("ST")
    assert wider.what == "Turned pair: pair apart"
    assert standing(wider.layout)[0].numbers["width"] == 1.6


def test_switches_models_and_locks_stay_when_a_number_changes():
    layout = take(empty(), "pair-turned").layout
    held = layout.mic("OL").model_copy(update={"model": "pencil", "locks": ("height", "aim")})
    wired = with_flips(layout.with_mic(held), {"OL"})
    after = change(wired, "pair-turned", {"over": 1.3, "width": 1.0}).layout
    mic = after.mic("OL")
    assert after.channels == wired.channels
    assert mic.model == "pencil"
    assert mic.position_m[2] == held.position_m[2]
    assert mic.aim == held.aim
    assert mic.position_m[0] != held.position_m[0]
    assert after.mic("OR").position_m[2] == pytest.approx(0.66 + 1.3)


def test_a_dragged_mic_is_said_to_be_off_its_numbers_and_can_be_put_back():
    layout = take(empty(), "pair-turned").layout
    mic = layout.mic("OR")
    x, y, z = mic.position_m
    moved = layout.with_mic(mic.model_copy(update={"position_m": (x + 0.05, y, z)}))
    (state,) = standing(moved)
    assert state.off == [OffRow(mic="OR", moved_m=pytest.approx(0.05, abs=1e-6))]
    assert state.equal[0].difference_m > 0.01
    back = change(moved, "pair-turned", {})
    assert back.layout.mics == layout.mics
    assert back.what == "Turned pair back on its numbers"


def test_audience_view_names_left_what_the_audience_sees_left():
    from ringside.plan.questions import Brief

    seen = empty().model_copy(update={"brief": Brief(outlook="audience")})
    for name in ("pair-turned", "room-bar", "pair-coincident"):
        theirs, ours = take(seen, name).layout, take(empty(), name).layout
        pair, drummer = theirs.stereo_pairs[0], ours.stereo_pairs[0]
        assert (pair.left, pair.right) == (drummer.left, drummer.right)  # called alike
        left, right = theirs.mic(pair.left), theirs.mic(pair.right)
        assert "Left" in left.name
        assert left.position_m == ours.mic(drummer.right).position_m  # seen from the other side
        assert right.aim == ours.mic(drummer.left).aim
        assert standing(theirs)[0].off == []
        wider = change(theirs, name, {}).layout
        assert wider.mics == theirs.mics
    side = take(seen, "over-and-side").layout.stereo_pairs[0]
    assert (side.left, side.right) == ("SD", "OV")


@pytest.mark.parametrize(
    ("call", "words"),
    [
        (lambda: take(empty(), "nonsense"), "expected a technique of the list"),
        (lambda: take(empty(), "wall-mic"), "draw the room first"),
        (lambda: take(empty(), "kick-port"), "hole in its front head"),
        (lambda: take(empty(), "tom-top", "snare"), "not for 'snare'"),
        (lambda: take(empty(), "pair-turned", "snare"), "for the whole kit"),
        (lambda: take(empty(), "pair-turned", numbers={"width": 120.0}), "given in cm"),
        (lambda: take(empty(), "pair-near", numbers={"angle": 10.0}), "expected 60 to 150"),
        (lambda: take(empty(), "pair-near", numbers={"tilt": 1.0}), "no number called 'tilt'"),
        (lambda: change(empty(), "pair-turned", {}), "expected a technique of this layout"),
    ],
)
def test_what_cannot_be_is_refused_in_words(call, words):
    with pytest.raises(RingsideError, match=re.escape(words)):
        call()


def test_a_layout_is_full_at_sixty_four():
    layout = empty()
    for _ in range(16):
        layout = take(layout, "wide-crossed").layout
    with pytest.raises(RingsideError, match="at most 64 mics"):
        take(layout, "one-front")


# --- with the kit -------------------------------------------------------------------------


def test_a_moved_drum_takes_its_technique_along_on_its_numbers():
    layout = take(empty(), "snare-centre").layout
    snare = layout.kit.first("snare")
    x, y, z = snare.batter_m
    moved = snare.model_copy(update={"batter_m": (x - 0.04, y + 0.03, z + 0.02)})
    after = apply(layout, ChangePart(do="change", was="snare", part=moved)).layout
    (state,) = standing(after)
    assert state.off == []
    assert after.mics[0].position_m != layout.mics[0].position_m


def test_a_tilted_and_a_larger_drum_keep_their_mics_on_the_numbers():
    layout = take(take(empty(), "tom-top", "rack-2").layout, "tom-bottom", "rack-2").layout
    rack = layout.kit.part("rack-2")
    changed = type(rack).model_validate(
        {**dict(rack), "axis": (0.25, -0.4, 0.9), "diameter_m": 0.36, "depth_m": 0.25}
    )
    after = apply(layout, ChangePart(do="change", was="rack-2", part=changed)).layout
    for state in standing(after):
        assert state.off == [], state.id
    head = after.kit.part("rack-2")
    top = after.mics[0]
    height = np.dot(np.subtract(top.position_m, head.batter_m), head.axis)
    assert height == pytest.approx(layout.techniques[0].numbers["height"], abs=1e-6)


def test_a_mic_turned_by_hand_is_not_turned_back_when_its_drum_moves():
    layout = take(empty(), "snare-centre").layout
    mic = layout.mics[0].model_copy(update={"aim": (0.0, 0.0, -1.0)})
    layout = layout.with_mic(mic)
    snare = layout.kit.first("snare")
    moved = snare.model_copy(update={"batter_m": (0.05, 0.0, snare.batter_m[2])})
    after = apply(layout, ChangePart(do="change", was="snare", part=moved)).layout
    assert after.mics[0].aim == pytest.approx((0.0, 0.0, -1.0))


def test_a_renamed_drum_stays_the_target_and_a_lost_one_takes_its_technique():
    layout = take(empty(), "tom-top", "floor").layout
    renamed = layout.kit.part("floor").model_copy(update={"id": "low-tom"})
    after = apply(layout, ChangePart(do="change", was="floor", part=renamed)).layout
    assert after.techniques[0].target == "low-tom"
    gone = apply(layout, RemovePart(do="remove", id="floor")).layout
    assert gone.techniques == ()
    assert gone.mics == ()


def test_turned_for_the_other_hand_everything_still_stands_on_its_numbers():
    layout = empty()
    for name in ("pair-turned", "snare-centre", "kick-inside", "over-and-side", "cymbal-over"):
        layout = take(layout, name).layout
    after = apply(layout, OtherHand(do="hand")).layout
    for state in standing(after):
        assert state.off == [], state.id


def test_techniques_survive_the_layout_file():
    layout = take(take(empty(), "pair-turned").layout, "tom-both", "floor").layout
    again = read_layout(write_layout(layout))
    assert again == layout
    assert again.techniques[1].numbers == layout.techniques[1].numbers


def test_a_technique_from_a_newer_file_is_kept_and_said_to_be_unknown():
    layout = take(empty(), "pair-turned").layout
    strange = layout.techniques[0].model_copy(update={"technique": "new-idea"})
    after = layout.model_copy(update={"techniques": (strange,)})
    assert "expected a technique" in standing(after)[0].notes[0]


@pytest.mark.parametrize(
    ("change_", "words"),
    [
        ({"mics": ["OL", "XX"]}, "not in the layout"),
        ({"id": "second"}, "belongs to two techniques"),
    ],
)
def test_a_file_whose_techniques_do_not_hold_together_is_refused(change_, words):
    import json

    layout = take(empty(), "pair-turned").layout
    raw = json.loads(write_layout(layout))
    raw["techniques"].append({**raw["techniques"][0], **change_})
    if "mics" in change_:
        raw["techniques"].pop(0)
    with pytest.raises(RingsideError, match=words):
        read_layout(json.dumps(raw))


def test_in_an_l_the_corner_pair_takes_real_corners_ahead_of_the_kit():
    from ringside.plan.room import Notch, inside_floor

    room = HALL.model_copy(
        update={"notch": Notch(corner="front left", width_m=2.0, length_m=2.5), "spaces": ()}
    )
    layout = take(empty(room=room), "corner-pair", numbers={"off": 0.4}).layout
    at = to_room(np.array([m.position_m for m in layout.mics]), room)
    assert inside_floor(at[:, 0], at[:, 1], room).all()
    left, right = sorted(at.tolist())
    # The walls' meeting points worked out by hand: where the notch ends, and the far right.
    assert np.hypot(left[0] - 2.0, left[1] - 8.2) == pytest.approx(0.4, abs=1e-6)
    assert np.hypot(right[0] - 6.4, right[1] - 8.2) == pytest.approx(0.4, abs=1e-6)


@pytest.mark.parametrize("kit", list(KITS))
def test_the_shoulder_mic_is_behind_the_drums_on_the_kicks_side_and_well_apart(kit):
    layout = take(empty(kit), "over-shoulder").layout
    over, back = layout.mic("OV").position_m, layout.mic("SH").position_m
    side = np.sign(layout.kit.first("kick").batter_m[0])
    assert far(over, back) > 0.6
    assert back[1] < layout.kit.stool.position_m[1] + 0.1
    assert back[0] * side > 0
    assert back[2] < over[2]


def test_on_a_left_handed_kit_the_other_end_of_the_wires_is_where_a_stand_comes_in():
    from ringside.plan.kit import mirrored

    kit = mirrored(with_wires(five_piece(), 0.0), "L")
    took = take(empty().model_copy(update={"kit": kit}), "snare-bottom").layout
    x, _, _ = np.subtract(took.mic("SB").position_m, took.kit.first("snare").batter_m)
    assert x > 0.03  # three o'clock, where a right-handed kit has nine
