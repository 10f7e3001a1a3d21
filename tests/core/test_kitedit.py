"""Edits of the kit: what follows, what is no longer sure, and what is refused."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter
from ringside.edits.apply import Edit, apply
from ringside.edits.following import follow
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.clearance import words_for_all
from ringside.places.starts import starting_layout
from ringside.plan.kit import Kit, Port
from ringside.plan.kits import KITS, eight_piece, five_piece, four_piece, six_piece
from ringside.plan.room import Room

EDIT = TypeAdapter(Edit)
ROOM = Room(name="R", width_m=6.4, length_m=8.2, height_m=3.3, kit_x_m=3.1, kit_y_m=2.6)
START = starting_layout("five-piece", "square pair", room=ROOM)


def do(layout, **edit):
    return apply(layout, EDIT.validate_python(edit))


def changed(layout, part_id, **change):
    part = layout.kit.part(part_id)
    new = type(part).model_validate({**dict(part), **change})
    return do(layout, do="change", was=part_id, part=new)


def drum_terms(mic, drum):
    """Height over the head and in from the rim, metres."""
    out = np.array(mic.position_m) - np.array(drum.batter_m)
    height = float(out @ np.array(drum.axis))
    return height, drum.diameter_m / 2 - float(np.linalg.norm(out - height * np.array(drum.axis)))


def test_a_moved_drum_takes_its_mic_along():
    x, y, z = START.kit.part("floor").batter_m
    after = changed(START, "floor", batter_m=(x + 0.10, y - 0.05, z + 0.02))
    assert after.moved == ("FT",)
    assert after.words == "Moved Floor tom with FT"
    was, now = START.mic("FT"), after.layout.mic("FT")
    assert np.subtract(now.position_m, was.position_m) == pytest.approx([0.10, -0.05, 0.02])
    assert now.aim == pytest.approx(was.aim)
    assert [m for m in after.layout.mics if m.id != "FT"] == [m for m in START.mics if m.id != "FT"]


def test_every_number_follows():
    before = analyse(START).arrivals.time_s
    x, y, z = START.kit.part("floor").batter_m
    after = analyse(changed(START, "floor", batter_m=(x + 0.3, y, z)).layout).arrivals.time_s
    k = START.kit.source_ids.index("floor")
    assert not np.allclose(before[:, k], after[:, k])
    ids = [m.id for m in START.mics]
    assert after[ids.index("FT"), k] == pytest.approx(before[ids.index("FT"), k])


def test_a_larger_drum_keeps_its_mic_in_from_the_rim():
    drum = START.kit.part("floor")
    after = changed(START, "floor", diameter_m=drum.diameter_m + 0.0508)
    mic, new = after.layout.mic("FT"), after.layout.kit.part("floor")
    assert drum_terms(mic, new) == pytest.approx(drum_terms(START.mic("FT"), drum), abs=1e-6)


def test_a_deeper_snare_keeps_its_bottom_mic_under_the_wires():
    drum = START.kit.part("snare")
    after = changed(START, "snare", depth_m=drum.depth_m + 0.03)
    was, now = START.mic("SB"), after.layout.mic("SB")
    assert now.position_m[2] == pytest.approx(was.position_m[2] - 0.03)
    assert after.layout.mic("ST").position_m == pytest.approx(START.mic("ST").position_m)


@settings(max_examples=40, deadline=None)
@given(
    st.tuples(*[st.floats(-0.5, 0.5)] * 3),
    st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.floats(0.2, 1)),
)
def test_following_keeps_drum_terms_whatever_the_move(shift, axis):
    drum, mic = START.kit.part("rack-1"), START.mic("T1")
    at = tuple(float(a + b) for a, b in zip(drum.batter_m, shift, strict=True))
    new = type(drum).model_validate({**dict(drum), "batter_m": at, "axis": axis})
    after = follow(mic, drum, new)
    assert drum_terms(after, new) == pytest.approx(drum_terms(mic, drum), abs=2e-5)
    assert np.dot(after.aim, new.axis) == pytest.approx(np.dot(mic.aim, drum.axis), abs=1e-5)
    back = follow(after, new, drum)
    assert back.position_m == pytest.approx(mic.position_m, abs=2e-5)


def test_what_was_measured_is_no_longer_sure_where_an_end_moved():
    layout = do(START, do="reading", a="snare", b="kick", metres=0.55).layout
    layout = do(layout, do="reading", a="snare", b="floor", metres=0.70).layout
    after = changed(layout, "floor", batter_m=(0.9, 0.0, 0.62)).layout
    assert [(r.a, r.b, r.sure) for r in after.kit.readings] == [
        ("snare", "kick", True), ("snare", "floor", False),
    ]  # fmt: skip
    # A new head moves nothing and spoils nothing.
    same = changed(layout, "floor", damping=("gel pads",)).layout
    assert all(r.sure for r in same.kit.readings)
    again = do(after, do="reading", a="floor", b="snare", metres=0.9).layout
    assert all(r.sure for r in again.kit.readings)


def test_a_reading_moves_the_kit_and_its_mics():
    before = START.mic("FT")
    after = do(START, do="reading", a="snare", b="floor", metres=0.80)
    s, f = after.layout.kit.part("snare"), after.layout.kit.part("floor")
    assert math.dist(s.batter_m, f.batter_m) == pytest.approx(0.80, abs=0.002)
    assert "FT" in after.moved
    gone = np.subtract(f.batter_m, START.kit.part("floor").batter_m)
    assert np.subtract(after.layout.mic("FT").position_m, before.position_m) == pytest.approx(
        gone, abs=1e-5
    )
    assert do(after.layout, do="forget", a="snare", b="floor").layout.kit.readings == ()


def test_renaming_a_drum_renames_it_everywhere():
    layout = do(START, do="reading", a="snare", b="floor", metres=0.65).layout
    after = changed(layout, "floor", id="big").layout
    assert after.mic("FT").job == "big"
    assert after.kit.readings[0].b == "big"


@pytest.mark.parametrize("kind", ["rack", "snare", "crash", "percussion", "hand drum"])
def test_an_added_part_touches_no_other(kind):
    after = do(START, do="add", kind=kind).layout
    new = after.kit.part(next(i for i in after.kit.source_ids if i not in START.kit.source_ids))
    peers = after.kit.drums if hasattr(new, "batter_m") else after.kit.cymbals
    at = new.batter_m if hasattr(new, "batter_m") else new.centre_m
    for p in peers:
        if p.id != new.id:
            there = p.batter_m if hasattr(p, "batter_m") else p.centre_m
            assert math.dist(at[:2], there[:2]) > (p.diameter_m + new.diameter_m) / 2
    analyse(after)


def test_taking_a_drum_away_takes_its_mic_and_what_names_it():
    layout = do(START, do="reading", a="snare", b="floor", metres=0.65).layout
    after = do(layout, do="remove", id="floor")
    assert after.words == "Took Floor tom away with FT"
    assert "FT" not in [m.id for m in after.layout.mics]
    assert after.layout.kit.readings == ()


@pytest.mark.parametrize("part", ["snare", "kick"])
def test_snare_and_kick_cannot_be_taken_away(part):
    with pytest.raises(RingsideError, match=f"expected a {part} among the drums"):
        do(START, do="remove", id=part)


def test_swapping_kits_keeps_what_has_a_counterpart():
    after = do(START, do="swap", kit=four_piece())
    ids = [m.id for m in after.layout.mics]
    assert "T1" in ids
    assert "T2" not in ids
    assert "T2 had no drum left" in after.words
    assert after.layout.mic("T1").job == "rack"
    assert drum_terms(after.layout.mic("T1"), after.layout.kit.part("rack")) == pytest.approx(
        drum_terms(START.mic("T1"), START.kit.part("rack-1")), abs=1e-5
    )
    back = do(after.layout, do="swap", kit=six_piece()).layout
    assert back.mic("FT").job == "floor-1"
    assert back.mic("OL") == START.mic("OL")


def test_the_other_hand_twice_is_the_same_layout():
    left = do(START, do="hand")
    assert left.layout.kit.hand == "left"
    assert left.layout.kit.name == "Left-handed five-piece"
    assert left.layout.stereo_pairs[0].left == "OR"
    assert left.layout.kit.part("floor").batter_m[0] == -START.kit.part("floor").batter_m[0]
    assert do(left.layout, do="hand").layout == START
    # Mirrored as a whole, nothing changes in time or level.
    np.testing.assert_allclose(
        analyse(left.layout).arrivals.path_m, analyse(START).arrivals.path_m, atol=1e-9
    )


def test_moving_the_kit_leaves_room_mics_where_they_stand():
    layout = START.model_copy(
        update={
            "channels": (),
            "mics": (
                *START.mics,
                START.mic("OL").model_copy(update={"id": "RM", "role": "room"}),
            ),
        }
    )
    from ringside.plan.room import to_room

    spot = to_room(np.array([layout.mic("RM").position_m]), ROOM)[0]
    after = do(layout, do="pose", x_m=2.0, y_m=3.5, turn_rad=0.4)
    assert after.words == "Moved the kit in the room; RM stay where they stand"
    now = to_room(np.array([after.layout.mic("RM").position_m]), after.layout.room)[0]
    assert now == pytest.approx(spot, abs=1e-5)
    assert after.layout.mic("OL") == layout.mic("OL")
    assert after.layout.room.kit_turn_rad == pytest.approx(0.4)


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        ({"do": "pose", "x_m": 9.0, "y_m": 1.0, "turn_rad": 0.0}, "outside the room"),
        ({"do": "remove", "id": "cow"}, "expected a drum or cymbal of the kit, got 'cow'"),
        ({"do": "reading", "a": "snare", "b": "kick", "metres": 55.0}, "expected a reading of"),
    ],
)
def test_edits_that_cannot_be_are_refused_in_words(edit, words):
    with pytest.raises(RingsideError, match=words):
        do(START, **edit)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"diameter_m": 3.0}, "less than or equal to 1"),
        ({"depth_m": -0.1}, "greater than or equal to 0.03"),
        ({"port": {"diameter_m": 0.4, "right_m": 0.2}}, "over the edge of its head"),
        ({"port": {"diameter_m": 0.1}, "far_head": None}, "no front head to cut it in"),
        ({"beater": "felt", "kind": "floor"}, "no kick, so it has no beater"),
    ],
)
def test_drums_that_cannot_be_are_refused_in_words(change, words):
    kick = five_piece().part("kick")
    with pytest.raises(ValueError, match=words):
        type(kick).model_validate({**kick.model_dump(), **change})


@pytest.mark.parametrize("name", list(KITS))
def test_every_preset_stands_apart_and_is_playable(name):
    kit = KITS[name]()
    for a in kit.drums:
        for b in kit.drums:
            if a.id < b.id and a.kind != "kick" and b.kind != "kick":
                gap = math.dist(a.batter_m[:2], b.batter_m[:2]) - (a.diameter_m + b.diameter_m) / 2
                assert gap > -0.02, (a.id, b.id)
    assert Kit.model_validate(kit.model_dump()) == kit
    for start in ("square pair", "turned pair"):
        layout = starting_layout(name, start)
        assert {d.id for d in kit.drums} <= {m.job for m in layout.mics}
        assert set(words_for_all([m.position_m for m in layout.mics], layout)) == {""}


def test_the_largest_preset_has_eight_drums():
    assert len(eight_piece().drums) == 8


def test_a_port_is_mirrored_with_its_kit():
    kick = (
        five_piece().part("kick").model_copy(update={"port": Port(diameter_m=0.13, right_m=0.12)})
    )
    kit = five_piece()
    kit = kit.model_copy(update={"drums": (kick, *kit.drums[1:])})
    layout = START.model_copy(update={"kit": kit})
    assert do(layout, do="hand").layout.kit.part("kick").port.right_m == -0.12


def test_a_ceiling_under_the_overheads_is_told_at_once():
    low = ROOM.model_copy(update={"height_m": 1.6})
    after = do(START, do="room", room=low)
    assert after.words == "Changed the room; OL, OR are no longer inside or clear"
    assert after.layout.mics == START.mics
    assert do(after.layout, do="room", room=None).words == "Took the room away"


# --- properties --------------------------------------------------------------------------------

spots = st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.floats(0.1, 1.5))


@settings(max_examples=25, deadline=None)
@given(spots, st.sampled_from(["floor", "rack-1", "rack-2", "snare"]))
def test_moving_there_and_back_leaves_every_mic_where_it_was(to, part):
    home = START.kit.part(part).batter_m
    there = changed(START, part, batter_m=tuple(float(v) for v in to)).layout
    back = changed(there, part, batter_m=home).layout
    for mic in START.mics:
        assert back.mic(mic.id).position_m == pytest.approx(mic.position_m, abs=5e-6)
        assert back.mic(mic.id).aim == pytest.approx(mic.aim, abs=5e-6)


@settings(max_examples=25, deadline=None)
@given(
    st.floats(0.5, 5.9), st.floats(0.5, 7.5), st.floats(-3, 3),
    st.floats(0.5, 5.9), st.floats(0.5, 7.5), st.floats(-3, 3),
)  # fmt: skip
def test_a_room_mic_stays_put_through_any_moves(x0, y0, t0, x1, y1, t1):
    far = START.mic("OL").model_copy(update={"id": "RM", "role": "room"})
    layout = START.model_copy(update={"channels": (), "mics": (*START.mics, far)})
    moved = do(layout, do="pose", x_m=x0, y_m=y0, turn_rad=t0).layout
    moved = do(moved, do="pose", x_m=x1, y_m=y1, turn_rad=t1).layout
    home = do(moved, do="pose", x_m=ROOM.kit_x_m, y_m=ROOM.kit_y_m, turn_rad=0.0).layout
    assert home.mic("RM").position_m == pytest.approx(far.position_m, abs=2e-3)
    assert home.mic("RM").aim == pytest.approx(far.aim, abs=1e-4)


@pytest.mark.parametrize("name", list(KITS))
@pytest.mark.parametrize("other", list(KITS))
def test_any_kit_can_take_the_place_of_any_other(name, other):
    layout = starting_layout(name, "turned pair")
    after = do(layout, do="swap", kit=KITS[other]()).layout
    assert after.kit == KITS[other]()
    jobs = {m.job for m in after.mics if m.job}
    assert jobs <= set(after.kit.source_ids)
    assert {"KI", "KO", "ST", "SB"} <= {m.id for m in after.mics}
    snare = after.kit.part("snare")
    assert drum_terms(after.mic("ST"), snare) == pytest.approx(
        drum_terms(layout.mic("ST"), layout.kit.part("snare")), abs=1e-5
    )
    analyse(after)


def test_a_decision_about_a_drum_that_goes_is_dropped_and_others_stay():
    kept = {"a": "OL", "b": "OR", "source": "kick", "reason": "wide on purpose"}
    gone = {"a": "OL", "b": "OR", "source": "floor", "reason": "no matter"}
    layout = type(START).model_validate({**START.model_dump(), "decisions": [kept, gone]})
    after = do(layout, do="remove", id="floor").layout
    assert [d.source for d in after.decisions] == ["kick"]
    renamed = changed(layout, "kick", id="big").layout
    assert [d.source for d in renamed.decisions] == ["big", "floor"]


def test_what_was_drawn_is_dropped_for_a_part_moved_by_hand():
    layout = do(START, do="reading", a="snare", b="floor", metres=0.8).layout
    assert {d.id for d in layout.kit.drawn} == set(layout.kit.source_ids)
    moved = changed(layout, "floor", batter_m=(0.9, 0.1, 0.6)).layout
    assert "floor" not in {d.id for d in moved.kit.drawn}
    again = do(moved, do="reading", a="snare", b="floor", metres=0.9).layout
    places = {d.id: d.at_m for d in again.kit.drawn}
    assert places["floor"] == (0.9, 0.1, 0.6)
    # Forgetting the only reading puts the rest back where it was drawn.
    back = do(again, do="forget", a="floor", b="snare").layout
    assert back.kit.part("rack-1").batter_m == START.kit.part("rack-1").batter_m
    assert back.kit.part("floor").batter_m == pytest.approx((0.9, 0.1, 0.6))


def test_what_was_done_stays_short_enough_to_be_the_name_of_an_undo():
    long = "A floor tom with a name that somebody wrote out in full, all of eighty letters!!"
    mics = tuple(START.mic("FT").model_copy(update={"id": f"FLOORTOM-{n}"}) for n in range(20))
    layout = START.model_copy(update={"channels": (), "mics": (*START.mics, *mics)})
    after = changed(layout, "floor", name=long[:80], batter_m=(0.9, 0.0, 0.62))
    assert len(after.moved) == 21
    assert len(after.words) == 120
    assert after.words.endswith("…")
