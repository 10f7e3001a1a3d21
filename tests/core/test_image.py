"""The stereo picture: published recording angles, mono, and pans against the overheads."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ringside.pairs.analysis import analyse
from ringside.pairs.pans import main_pair, pan_rows
from ringside.pairs.pictures import pictures
from ringside.pairs.stereo import (
    fold_down_db,
    kit_angle_deg,
    place_percent,
    positions,
    recording_angle_deg,
)
from ringside.places.starts import starting_layout
from ringside.plan.hanging import track_of
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import Mic
from ringside.techniques.taking import take

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")


def angle(share, degrees, metres):
    half = np.radians(degrees / 2)
    left, right = (
        np.array([-np.sin(half), np.cos(half), 0]),
        np.array([np.sin(half), np.cos(half), 0]),
    )
    return recording_angle_deg((share, share), (left, right), (metres, 0, 0), 343.2)


@pytest.mark.parametrize(
    ("share", "between", "apart", "published"),
    [
        (0.5, 110, 0.17, 96),  # Williams; Wittek and Theile 2002
        (0.5, 90, 0.0, 180),  # the same
        (0.0, 90, 0.0, 72),  # crossed figure-8: 70 to 76
        (0.5, 90, 0.30, 81),  # from memory of the same charts
        (0.5, 90, 0.20, 101),  # from memory of the same charts
        (1.0, 0, 0.50, 74),  # spaced omnis, from memory of the same charts
    ],
)
def test_recording_angles_of_standard_pairs(share, between, apart, published):
    assert angle(share, between, apart) == pytest.approx(published, abs=3)


def test_an_angle_in_words_is_the_one_beside_it():
    """92.5 degrees: a screen writes 93, and so do the words."""
    an = analyse(take(starting_layout("five-piece", "turned pair"), "room-bar").layout)
    (room,) = (p for p in pictures(an).pairs if p.name == "Room pair")
    assert room.recording_deg == 92.5
    assert any("of the 93° this pair takes in" in note for note in room.notes)


def test_two_omnis_at_one_point_take_in_no_angle():
    assert recording_angle_deg((1.0, 1.0), ((0, 1, 0), (0, 1, 0)), (0, 0, 0), 343.2) is None


@given(st.floats(-40, 40), st.floats(-3, 3))
def test_places_are_even_monotone_and_end_at_the_speakers(level, early):
    here = float(place_percent(level, early))
    assert -100 <= here <= 100
    assert float(place_percent(-level, -early)) == pytest.approx(-here)
    assert float(place_percent(level + 1, early)) >= here
    assert float(place_percent(level, early + 0.1)) >= here


def test_slopes_near_the_middle():
    # Wittek and Theile (2002): 7.5 % per dB, 13 % per 0.1 ms.
    assert float(place_percent(1.0, 0.0)) == pytest.approx(7.5)
    assert float(place_percent(0.0, 0.1)) == pytest.approx(13.0)
    assert float(place_percent(2.0, -0.1)) == pytest.approx(2.0)


def test_an_equal_snare_is_in_the_middle_and_the_rest_on_its_side():
    an = analyse(SQUARE)
    percent, _ = positions(an, SQUARE.stereo_pairs[0])
    by = dict(zip(an.scene.sources.ids, percent, strict=True))
    assert by["snare"] == pytest.approx(0, abs=0.1)
    assert by["hats"] < -50  # drummer's view: hats left, floor tom right (common practice)
    assert by["floor"] > 50


def test_an_audience_view_wants_the_pair_the_other_way_round():
    seen = pictures(analyse(SQUARE))
    assert seen.seen_from == "drummer"  # as its own pair stands
    other = SQUARE.model_copy(update={"outlook": "audience"})
    notes = pictures(analyse(other)).pairs[0].notes
    assert "OL stands on the right" in notes[0]
    swapped = other.model_copy(
        update={"stereo_pairs": (StereoPair(name="Overheads", left="OR", right="OL"),)}
    )
    row = pictures(analyse(swapped)).pairs[0]
    assert not any("stands on the right" in n for n in row.notes)
    floor = next(s for s in row.sources if s.source == "floor")
    assert floor.percent < -50


def test_mono_keeps_all_of_the_middle_half_of_one_side_and_nothing_of_opposites():
    # Facts: a source alike in both keeps 0 dB, one in a single speaker -3 dB.
    an = analyse(SQUARE)
    pair = SQUARE.stereo_pairs[0]
    snare = an.scene.sources.ids.index("snare")
    fold = fold_down_db(an, pair)
    assert fold["body"][snare] == pytest.approx(0, abs=0.01)
    assert fold["attack"][snare] == pytest.approx(0, abs=0.05)
    flipped = with_mic(SQUARE, "OR", preamp_flip=True)
    assert fold_down_db(analyse(flipped), pair)["body"][snare] < -40
    an = analyse(flipped)
    nowhere = positions(an, pair)[1]
    assert nowhere[snare]
    said = pictures(an).pairs[0].sources[snare].words
    assert said == "Snare has no place: the two speakers push opposite ways."


def one_sided():
    kit = SQUARE.kit
    near = Mic(id="L", name="Left", role="overhead", pattern="omni", position_m=(0.7, 0, 0.75),
               aim=(0, 0, -1))  # fmt: skip
    far = Mic(id="R", name="Right", role="overhead", pattern="omni", position_m=(-4, 0, 2.9),
              aim=(0, 0, -1))  # fmt: skip
    pair = StereoPair(name="Odd", left="L", right="R")
    return Layout(name="Odd", kit=kit, mics=(near, far), stereo_pairs=(pair,))


def test_where_the_sign_is_unsure_the_place_is_conditional():
    turned = starting_layout("five-piece", "turned pair")
    rows = {r.source: r for r in pictures(analyse(turned)).pairs[0].sources}
    assert not rows["kick"].sure
    assert rows["kick"].words == "Kick in the middle. If both are pushed alike."
    assert rows["snare"].words == "Snare in the middle."
    assert not any("alike" in rows[c].words for c in ("hats", "crash-l", "ride"))


def test_a_drum_in_one_speaker_only_keeps_three_decibels_less_in_mono():
    an = analyse(one_sided())
    floor = an.scene.sources.ids.index("floor")
    fold = fold_down_db(an, an.layout.stereo_pairs[0])
    assert fold["attack"][floor] == pytest.approx(-3.0, abs=0.2)


def test_mid_side_is_the_mid_in_mono_and_widens_with_the_side():
    layout = take(
        SQUARE.model_copy(update={"channels": (), "mics": (), "stereo_pairs": ()}), "pair-mid-side"
    ).layout
    pair = layout.stereo_pairs[0]
    assert pair.coding == "mid-side"
    assert layout.mic(pair.right).pattern == "figure-8"
    an = analyse(layout)
    narrow, wide = (positions(an, pair.model_copy(update={"width": w}))[0] for w in (0.3, 1.0))
    floor = an.scene.sources.ids.index("floor")
    assert 0 < abs(narrow[floor]) < abs(wide[floor])
    none = positions(an, pair.model_copy(update={"width": 0.0}))[0]
    assert none == pytest.approx(np.zeros(len(none)), abs=1e-9)
    fold = fold_down_db(an, pair.model_copy(update={"width": 0.0}))
    assert fold["body"] == pytest.approx(np.zeros(len(none)), abs=1e-9)
    row = pictures(an).pairs[0]
    assert row.recording_deg == pytest.approx(77, abs=2)


def test_the_picture_is_the_overheads():
    assert main_pair(SQUARE).name == "Overheads"
    both = take(SQUARE, "room-bar").layout
    assert len(both.stereo_pairs) == 2
    turned = both.model_copy(update={"stereo_pairs": both.stereo_pairs[::-1]})
    assert main_pair(turned).name == "Overheads"
    assert main_pair(SQUARE.model_copy(update={"stereo_pairs": ()})) is None


def panned(layout, **pans):
    for mic, pan in pans.items():
        layout = with_mic(layout, mic, pan=pan)
    return {r.channel: r for r in pan_rows(analyse(layout))}


def test_pans_against_the_overheads():
    # Common practice: toms and hats are panned the same way as the overheads.
    rows = panned(SQUARE, FT=80.0, HH=90.0, T1=40.0, T2=20.0, ST=0.0)
    assert rows["FT"].state == "agrees"
    assert rows["HH"].state == "other side"
    assert "is panned to 90 % right, but Overheads hear the drum at" in rows["HH"].words
    assert rows["T1"].state == "agrees"
    assert rows["T2"].state == "apart"
    assert rows["ST"].state == "agrees"
    assert rows["SB"].state == "not chosen"
    assert pan_rows(analyse(SQUARE.model_copy(update={"stereo_pairs": ()}))) == []


def test_kick_and_snare_go_to_the_middle_and_a_pair_that_hears_them_elsewhere_is_moved():
    """Common practice; toms, hats and ride follow the picture."""
    rows = panned(SQUARE)
    assert rows["KI"].heard > 60
    assert [rows[m].usual for m in ("KI", "KO", "ST", "SB")] == [0.0] * 4
    assert all(rows[m].usual == rows[m].heard for m in ("T1", "FT", "HH", "OL", "OR"))
    advice = "turn or move Overheads, not the pan"
    assert advice in rows["KI"].words
    assert advice not in rows["ST"].words + rows["FT"].words
    assert advice in panned(SQUARE, KI=0.0)["KI"].words
    assert advice not in panned(SQUARE, KI=rows["KI"].heard)["KI"].words
    turned = pan_rows(analyse(starting_layout("five-piece", "turned pair")))
    assert all(advice not in r.words for r in turned)


def test_the_sides_of_a_pair_and_every_copy_are_looked_at():
    rows = panned(SQUARE)
    assert [(rows[m].state, rows[m].heard) for m in ("OL", "OR")] == [
        ("not chosen", -100), ("not chosen", 100),
    ]  # fmt: skip
    assert rows["OL"].words == "It is the left of Overheads."
    turned = panned(SQUARE, OL=100.0, OR=-100.0)
    assert (turned["OL"].state, turned["OR"].state) == ("other side", "other side")
    assert "OL is the left of Overheads and panned to 100 % right" in turned["OL"].words
    closed = panned(SQUARE, OL=-5.0, OR=0.0)
    assert closed["OR"].state == "closed"
    assert "OR and OL are both at the middle" in closed["OR"].words
    assert panned(SQUARE, OL=-60.0, OR=60.0)["OL"].state == "agrees"
    # Floor tom well to the right: a copy panned left splits it, whatever the first does.
    one = with_mic(SQUARE, "FT", pan=80.0)
    copy = track_of(one.channels, one.mic("FT")).model_copy(update={"pan": -80.0})
    both = panned(one.model_copy(update={"channels": (*one.channels, copy)}))
    assert (both["FT"].state, both["FT.2"].state) == ("agrees", "other side")
    assert "FT.2 is panned to 80 % left" in both["FT.2"].words


def test_a_far_pair_sees_the_kit_under_an_angle_and_overheads_do_not():
    room = tuple(
        Mic(id=i, name=i, role="room", position_m=(x, 3.5, 1.4), aim=(0.6 * s, -1, 0))
        for i, x, s in (("RL", 0.1, -1), ("RR", 0.4, 1))
    )
    pair = StereoPair(name="Rooms", left="RL", right="RR")
    layout = SQUARE.model_copy(
        update={
            "channels": (),
            "mics": (*SQUARE.mics, *room),
            "stereo_pairs": (*SQUARE.stereo_pairs, pair),
        }
    )
    an = analyse(layout)
    assert kit_angle_deg(an, SQUARE.stereo_pairs[0]) is None
    heads = pictures(an).pairs[0]
    assert heads.recording_deg is None
    assert "stands round the kit" in heads.notes[-1]
    seen = kit_angle_deg(an, pair)
    # Hats to ride are 1.2 m apart, some 3.4 m off: twice atan(0.6 / 3.4).
    assert seen == pytest.approx(2 * np.degrees(np.arctan(0.65 / 3.3)), abs=5)
    assert "will sound narrower" in pictures(an).pairs[1].notes[-1]
