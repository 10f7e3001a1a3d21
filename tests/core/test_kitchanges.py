"""What was tried at the instrument: each change of a kit, its room or its air in words."""

from math import cos, radians, sin

import pytest
from ringside.answers.changes import by_tape_m, changes
from ringside.places.starts import starting_layout
from ringside.plan.kit import Head, Port
from ringside.plan.layout import Air, Decision
from ringside.plan.room import Gobo, Room

from tests.core.tracks import with_mic

START = starting_layout("five-piece", "square pair")
ROOM = Room(name="Box", width_m=5, length_m=6, height_m=3, kit_x_m=2.5, kit_y_m=2)


def with_part(layout, part_id, **change):
    kit = layout.kit
    swap = lambda parts: tuple(  # noqa: E731
        p.model_copy(update=change) if p.id == part_id else p for p in parts
    )
    parts = {"drums": swap(kit.drums), "cymbals": swap(kit.cymbals)}
    return layout.model_copy(update={"kit": kit.model_copy(update=parts)})


def in_room(room):
    return START.model_copy(update={"room": room})


def told(before, after):
    return [(c.what, c.words) for c in changes(before, after)]


SNARE = START.kit.part("snare")


@pytest.mark.parametrize(
    ("part", "change", "words"),
    [
        ("snare", {"fundamental_hz": 182.4},
         ("Snare", "tuned to 182 Hz (what its size has before)")),
        ("snare", {"head": Head(finish="clear", plies=2)},
         ("Snare", "batter head clear 2-ply (coated 1-ply before)")),
        ("floor", {"far_head": None}, ("Floor tom", "far head none (clear 1-ply before)")),
        ("snare", {"damping": ("gel pads", "ring")},
         ("Snare", "damping: gel pads, ring (none before)")),
        ("kick", {"beater": "wood"}, ("Kick", "beater: wood (not told before)")),
        ("kick", {"port": Port(diameter_m=0.1)}, ("Kick", "the hole in the front head changed")),
        ("kick", {"reference": "front"}, ("Kick", "tape held to the front head")),
        ("snare", {"wires_rad": 0.5}, ("Snare", "wires turned")),
        ("snare", {"diameter_m": 0.33}, ("Snare", "another size")),
        ("snare", {"depth_m": 0.2}, ("Snare", "another size")),
        ("ride", {"diameter_m": 0.55}, ("Ride", "another size")),
        ("ride", {"axis": (0.0, 0.1, 0.995)}, ("Ride", "leans another way")),
        ("ride", {"name": "Dark ride"}, ("Dark ride", "was called Ride")),
    ],
)  # fmt: skip
def test_what_was_done_to_a_part_is_told_by_its_name(part, change, words):
    assert told(START, with_part(START, part, **change)) == [words]


def test_a_part_that_moved_says_how_far():
    x, y, z = SNARE.batter_m
    (row,) = changes(START, with_part(START, "snare", batter_m=(x + 0.03, y + 0.04, z)))
    assert (row.what, row.words) == ("Snare", "moved")
    assert row.moved_m == pytest.approx(0.05)


@pytest.mark.parametrize(("by", "rows"), [(0.0004, 0), (0.0006, 1)])
def test_what_would_be_told_as_no_length_is_not_told(by, rows):
    x, y, z = SNARE.batter_m
    assert len(changes(START, with_part(START, "snare", batter_m=(x, y, z + by)))) == rows
    near = ROOM.model_copy(update={"kit_y_m": ROOM.kit_y_m + by})
    assert len(changes(in_room(ROOM), in_room(near))) == rows
    at = START.mic("OR").position_m
    mic = with_mic(START, "OR", position_m=(at[0], at[1] - by, at[2]))
    assert len(changes(START, mic)) == rows


@pytest.mark.parametrize(("deg", "rows"), [(0.4, []), (0.6, ["turned 1°"]), (30.0, ["turned 30°"])])
def test_how_far_a_mic_was_turned(deg, rows):
    level, turned = (with_mic(START, "OR", aim=(cos(a), sin(a), 0.0)) for a in (0.0, radians(deg)))
    assert [c.words for c in changes(level, turned)] == rows
    lean, more = (with_part(START, "ride", axis=(0.0, sin(a), cos(a))) for a in (0.0, radians(deg)))
    assert len(changes(lean, more)) == len(rows)
    room = ROOM.model_copy(update={"kit_turn_rad": radians(-deg)})
    assert len(changes(in_room(ROOM), in_room(room))) == len(rows)


def test_a_kit_that_was_turned_before_is_turned_by_the_rest():
    for was, now, words in (
        (10.0, 10.6, "0.6° counter-clockwise"), (10.0, 9.4, "0.6° clockwise"),
        (-170.0, 170.0, "20.0° clockwise"), (90.0, 120.0, "30.0° counter-clockwise"),
    ):  # fmt: skip
        rooms = [ROOM.model_copy(update={"kit_turn_rad": radians(d)}) for d in (was, now)]
        assert told(*map(in_room, rooms)) == [("kit", f"turned {words}, from above")]


def test_a_mic_that_was_turned_about_is_turned_by_half_a_circle():
    front, back = (with_mic(START, "OR", aim=(x, 0.0, 0.0)) for x in (1.0, -1.0))
    assert told(front, back) == [("OR", "turned 180°")]


def test_a_size_that_is_shared_by_a_drum_and_a_cymbal():
    """What becomes a cymbal under its name has no depth: that is another size."""
    ride = START.kit.part("ride")
    drum = START.kit.part("floor").model_copy(
        update={"id": "ride", "name": "Ride", "batter_m": ride.centre_m, "axis": ride.axis,
                "diameter_m": ride.diameter_m, "depth_m": 0.1}
    )  # fmt: skip
    kit = START.kit.model_copy(
        update={"drums": (*START.kit.drums, drum), "cymbals": START.kit.cymbals[:-1]}
    )
    assert ("Ride", "another size") in told(START, START.model_copy(update={"kit": kit}))


@pytest.mark.parametrize(
    ("mic", "change", "words"),
    [
        ("OL", {"wired_inverted": True}, "wiring inverted on"),
        ("OL", {"cable_inverted": True}, "inverting cable on"),
        ("OL", {"preamp_flip": True}, "flip at the preamp on"),
        ("OL", {"track_flip": True}, "flip on the track on"),
        ("OL", {"pattern": "omni"}, "pattern: omni"),
        ("ST", {"job": None}, "job: whole kit"),
        ("OL", {"job": "snare"}, "job: snare"),
        ("OL", {"role": "room"}, "role: room"),
        ("OL", {"input": 12}, "input: 12"),
        ("OL", {"input": None}, "input: none"),
        ("OL", {"track_delay_samples": 40.0}, "track delay: 40 samples"),
        ("OL", {"low_cut_hz": 80.0}, "low cut: 80 Hz"),
        ("OL", {"gain_db": 0.0}, "gain: 0 dB"),
        ("OL", {"gain_db": 32.5}, "gain: 32.5 dB"),
        ("OL", {"pan": -30.0}, "pan changed"),
    ],
)
def test_what_was_switched_and_set_says_what_it_is_now(mic, change, words):
    now = with_mic(START, mic, **change)
    assert told(START, now) == [(mic, words)]
    back = [w for _, w in told(now, START)]
    assert len(back) == 1
    if words.endswith(" on"):
        assert back == [words.removesuffix("on") + "off"]
    if words.split(": ")[0] in ("low cut", "gain", "track delay"):
        assert back == [words.split(": ")[0] + (": 0 samples" if "delay" in words else ": none")]


def test_tracks_come_and_go_by_themselves_and_with_their_mics():
    one = START.channels[-1]
    twin = one.model_copy(update={"id": "OR2", "name": "OR2", "input": None})
    more = START.model_copy(update={"channels": (*START.channels, twin)})
    assert told(START, more) == [("OR2", "one more track")]
    assert told(more, START) == [("OR2", "not recorded")]
    fewer = START.model_copy(
        update={"mics": START.mics[:-1], "channels": START.channels[:-1], "stereo_pairs": ()}
    )
    # A mic that is taken away takes its tracks with it; that is one thing.
    assert (one.mic, "taken away") in told(START, fewer)
    assert (one.mic, "added") in told(fewer, START)
    assert not [w for _, w in told(START, fewer) + told(fewer, START) if "track" in w]
    assert not [w for _, w in told(START, fewer) + told(fewer, START) if "recorded" in w]


def test_by_tape_a_mic_is_told_from_twice_its_error_on():
    limits = START.thresholds.model_copy(update={"tape_error_m": 0.004})
    layout = START.model_copy(update={"thresholds": limits})
    assert by_tape_m(layout) == pytest.approx(0.008)


def test_what_is_the_same_in_words_is_not_told():
    tuned = [with_part(START, "snare", fundamental_hz=f) for f in (182.1, 182.4, 182.6)]
    assert told(tuned[0], tuned[1]) == []
    assert told(tuned[1], tuned[2]) == [("Snare", "tuned to 183 Hz (182 Hz before)")]
    air = [START.model_copy(update={"air": Air(temperature_c=t, humidity_pct=h)})
           for t, h in ((20.01, 40.1), (20.04, 40.4), (20.06, 40.6))]  # fmt: skip
    assert told(air[0], air[1]) == []
    assert told(air[1], air[2]) == [
        ("air", "20.1 °C (20.0 °C before)"), ("air", "humidity 41 % (40 % before)"),
    ]  # fmt: skip


def test_parts_come_and_go():
    fewer = START.model_copy(update={"kit": START.kit.model_copy(update={"cymbals": ()})})
    assert ("Ride", "taken from the kit") in told(START, fewer)
    assert ("Ride", "added to the kit") in told(fewer, START)


def test_a_cymbal_whose_name_a_drum_has_now_is_no_fault():
    drum = START.kit.part("floor").model_copy(update={"id": "ride", "name": "Ride"})
    kit = START.kit.model_copy(
        update={"drums": (*START.kit.drums, drum), "cymbals": START.kit.cymbals[:-1]}
    )
    assert START.kit.cymbals[-1].id == "ride"
    assert ("Ride", "another size") in told(START, START.model_copy(update={"kit": kit}))


@pytest.mark.parametrize(
    ("before", "after", "rows"),
    [
        (None, ROOM, [("room", "drawn")]),
        (ROOM, None, [("room", "taken away")]),
        (ROOM, {"kit_x_m": 2.8, "kit_y_m": 2.4}, [("kit", "moved in the room")]),
        (ROOM, {"kit_turn_rad": 0.1}, [("kit", "turned 5.7° counter-clockwise, from above")]),
        (ROOM, {"kit_turn_rad": -0.1}, [("kit", "turned 5.7° clockwise, from above")]),
        (ROOM, {"kit_turn_rad": radians(355.0)}, [("kit", "turned 5.0° clockwise, from above")]),
        (ROOM, {"gobos": (Gobo(name="Side", x_m=1, y_m=1),)}, [("room", "gobos changed")]),
        (ROOM, {"height_m": 2.4}, [("room", "changed")]),
        (ROOM, {"name": "Hall", "height_m": 5.0}, [("room", "another: Hall")]),
    ],
)  # fmt: skip
def test_what_was_tried_in_the_room(before, after, rows):
    now = before.model_copy(update=after) if isinstance(after, dict) else after
    made = changes(in_room(before), in_room(now))
    assert [(c.what, c.words) for c in made] == rows
    if rows[0][1] == "moved in the room":
        assert made[0].moved_m == pytest.approx(0.5)


def test_the_air_is_told_before_and_after():
    warm = START.model_copy(update={"air": Air(temperature_c=23.5, humidity_pct=40.0)})
    assert told(START, warm) == [
        ("air", "23.5 °C (20.0 °C before)"), ("air", "humidity 40 % (not told before)"),
    ]  # fmt: skip
    assert changes(warm, warm) == []


def test_tape_readings_and_the_stool_are_of_the_whole_kit():
    kit = START.kit.model_copy(update={"stool": None, "hand": "left", "rug": None})
    assert told(START, START.model_copy(update={"kit": kit})) == [
        ("kit", "the other hand leads"), ("kit", "the stool or its zone changed"),
        ("kit", "the rug changed"),
    ]  # fmt: skip


def test_a_decision_is_the_same_whoever_signed_it():
    one = Decision(a="OL", b="OR", source="kick", reason="so", by="demo", at="then")
    two, other = one.model_copy(update={"by": "assistant"}), one.model_copy(update={"reason": "no"})
    by = [START.model_copy(update={"decisions": (d,)}) for d in (one, two, other)]
    assert told(by[0], by[1]) == []
    assert told(by[0], by[2]) == [("layout", "decisions changed")]
