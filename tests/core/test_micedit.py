"""Edits of mics: what each does, what goes along, what it is called, and what is refused."""

import pytest
from pydantic import TypeAdapter
from ringside.edits.apply import Edit, apply
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.techniques.taking import take

EDIT = TypeAdapter(Edit)
START = starting_layout("five-piece", "turned pair")
TAKEN = take(
    START.model_copy(update={"channels": (), "mics": (), "stereo_pairs": ()}), "pair-turned"
).layout
TAKEN = TAKEN.model_copy(update={"order": ("OR", "OL")})


def done(layout, **edit):
    return apply(layout, EDIT.validate_python(edit))


def changed(layout, mic, why="", **fields):
    return done(layout, do="mics", mics=(layout.mic(mic).model_copy(update=fields),), why=why)


@pytest.mark.parametrize(
    ("fields", "words"),
    [
        ({"position_m": (0.1, 0.2, 1.3)}, "Moved OL"),
        ({"aim": (0.0, 0.0, -1.0)}, "Aimed OL"),
        ({"cable_inverted": True}, "Inverting cable on, OL"),
        ({"pattern": "omni"}, "OL: omni"),
        ({"job": "snare"}, "OL for snare"),
        ({"pad_db": 10.0}, "Pad at OL: 10.0 dB"),
        ({"locks": ("aim", "height")}, "Held OL: aim, height"),
        ({}, "Changed OL"),
    ],
)
def test_a_changed_mic_is_called_by_what_changed(fields, words):
    after = changed(START, "OL", **fields)
    assert after.words == words
    assert after.layout.mic("OR") == START.mic("OR")
    assert after.moved == (("OL",) if "position_m" in fields else ())


def test_a_step_with_a_name_of_its_own_keeps_it():
    assert changed(START, "OL", why="Swung OL onto the ring", pattern="omni").words == (
        "Swung OL onto the ring"
    )


def test_a_place_is_kept_to_a_tenth_of_a_micrometre_whoever_wrote_it():
    raw = {**START.mic("OL").model_dump(), "position_m": (0.123456789, 0.2, 1.0)}
    after = done(START, do="mics", mics=[raw])
    assert after.layout.mic("OL").position_m == (0.1234568, 0.2, 1.0)


def test_another_name_is_followed_wherever_the_mic_is_mentioned():
    decided = done(TAKEN, do="decide", a="OL", b="OR", source="kick", reason="by ear").layout
    after = done(decided, do="rename", was="OL", to="LEFT").layout
    assert [m.id for m in after.mics] == ["LEFT", "OR"]
    assert after.stereo_pairs[0].left == "LEFT"
    assert (after.decisions[0].a, after.techniques[0].mics) == ("LEFT", ("LEFT", "OR"))
    assert after.order == ("OR", "LEFT")
    with pytest.raises(RingsideError, match="two mics are called 'OR'"):
        done(TAKEN, do="rename", was="OL", to="OR")


def test_what_hangs_on_a_mic_goes_with_it_and_its_partner_stands_alone():
    decided = done(TAKEN, do="decide", a="OL", b="OR", source="kick", reason="by ear").layout
    after = done(decided, do="remove-mics", mics=("OL",))
    assert after.words == "Took OL away"
    left = after.layout
    assert [m.id for m in left.mics] == ["OR"]
    assert (left.stereo_pairs, left.decisions, left.techniques, left.order) == ((), (), (), ("OR",))


def test_what_hangs_on_other_mics_stays():
    two = take(TAKEN, "snare-centre").layout
    left = done(two, do="remove-mics", mics=("OL",)).layout
    assert [t.mics for t in left.techniques] == [("ST",)]
    assert [c.id for c in left.channels] == ["OR", "ST"]


def test_a_new_mic_stands_in_front_on_the_kicks_side_and_looks_at_the_snare():
    after = done(START, do="add-mic")
    mic = after.layout.mic("M1")
    assert (after.made, after.words) == ("M1", "Added M1")
    assert (after.layout.channels[-1].mic, after.layout.channels[-1].input) == ("M1", 11)
    snare = START.kit.first("snare").batter_m
    assert mic.position_m[0] > snare[0]
    assert mic.position_m[1] > START.kit.first("kick").batter_m[1]
    way = [s - p for s, p in zip(snare, mic.position_m, strict=True)]
    reach = sum(w * w for w in way) ** 0.5
    assert mic.aim == pytest.approx([w / reach for w in way])
    lefty = apply(START, EDIT.validate_python({"do": "hand"})).layout
    assert done(lefty, do="add-mic").layout.mics[-1].position_m[0] < snare[0]


def test_a_copy_stands_a_hand_to_the_right_under_the_next_number():
    twice = done(done(START, do="add-mic", like="T1").layout, do="add-mic", like="T1")
    assert (twice.made, twice.words) == ("T4", "Copied T1")
    one, two = START.mic("T1"), twice.layout.mic("T4")
    assert two.position_m[0] - one.position_m[0] == pytest.approx(0.1)
    assert (two.job, two.pattern) == (one.job, one.pattern)
    assert [(c.id, c.input) for c in twice.layout.channels[-2:]] == [("T3", 11), ("T4", 12)]


def test_flips_turn_the_preamp_switch_over_and_back():
    once = done(START, do="flip", mics=("SB",))
    assert once.words == "Flipped SB at the preamp"
    assert [c.id for c in once.layout.channels if c.preamp_flip] == ["SB"]
    back = done(once.layout, do="flip", mics=("SB",))
    assert back.words == "Took the flip off SB at the preamp"
    assert back.layout == START
    some = done(START, do="flip", mics=("SB", "KI"))
    assert some.words == "Turned over SB, KI"
    held = changed(START, "SB", locks=("polarity",)).layout
    with pytest.raises(RingsideError, match="polarity of SB is held"):
        done(held, do="flip", mics=("SB", "KI"))


def test_a_pair_is_made_and_undone():
    made = done(START, do="pair", left="T1", right="FT").layout
    assert made.stereo_pairs[-1].name == "T1 and FT"
    assert done(made, do="unpair", a="FT", b="T1").layout == START
    with pytest.raises(RingsideError, match="twice"):
        done(START, do="pair", left="T1", right="T1")


def test_a_decision_keeps_what_it_was_made_on_and_replaces_the_one_before():
    an = analyse(START)
    row, _ = an.pair_index("OL", "OR")
    k = an.scene.sources.ids.index("kick")
    first = done(START, do="decide", a="OR", b="OL", source="kick", reason="on purpose").layout
    (kept,) = first.decisions
    assert kept.stood.delay_s == pytest.approx(-float(an.pairs.delay_s[row, k]))
    again = done(first, do="decide", a="OL", b="OR", source="kick", reason="still").layout
    assert [d.reason for d in again.decisions] == ["still"]
    assert done(again, do="undecide", a="OR", b="OL", source="kick").layout.decisions == ()


def test_numbers_of_a_technique_move_its_mics():
    after = done(TAKEN, do="numbers", taken="pair-turned", numbers={"width": 1.6})
    assert after.words == "Turned pair: pair apart"
    assert set(after.moved) == {"OL", "OR"}


@pytest.mark.parametrize(
    "edit",
    [
        {"do": "remove-mics", "mics": ("XX",)},
        {"do": "rename", "was": "XX", "to": "YY"},
        {"do": "add-mic", "like": "XX"},
        {"do": "flip", "mics": ("XX",)},
        {"do": "mics", "mics": (START.mic("OL").model_copy(update={"id": "XX"}),)},
    ],
)
def test_a_mic_that_is_not_there_is_named(edit):
    with pytest.raises(RingsideError, match="expected a mic of this layout, got 'XX'"):
        done(START, **edit)
