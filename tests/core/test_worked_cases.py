"""The worked cases: what a practitioner would expect of each (common practice)."""

import pytest
from ringside.handbook.cases import CASES, cases
from ringside.handbook.pages import cases_page

FOUND = {c.id: c.values for c in cases()}


def test_the_bottom_of_the_snare_is_flipped():
    v = FOUND["snare"]
    assert v["before"].verdict == "hollow"
    assert v["before"].sign == -1
    assert v["after"].verdict == "together"
    # Shell depth 14 cm less what the two gaps differ by: a good fifth of a millisecond.
    assert 0.1 < abs(v["after"].delay_ms) < 0.5
    assert v["before"].flipped_body_db - v["before"].body_db > 10


def test_both_kick_mics_are_pushed_alike_and_need_no_flip():
    v = FOUND["kick"]["pair"]
    assert v.sign == 1
    assert v.delay_ms > 0.3  # the outer one is later
    assert v.verdict == "together"
    assert v.body_db > v.flipped_body_db + 6


def test_overheads_are_equal_on_the_snare_and_late_on_the_kick():
    v = FOUND["overheads"]
    assert v["snare"].verdict == "together"
    assert v["snare"].delay_ms == pytest.approx(0, abs=0.01)
    assert v["kick"].verdict == "late"
    assert v["snare_at"].percent == pytest.approx(0, abs=2)
    assert v["snare_at"].fold_body_db == pytest.approx(0, abs=0.1)


def test_over_and_side_is_equal_by_tape_and_yet_a_question_for_the_ear():
    v = FOUND["over-and-side"]
    assert v["tape_m"] < 1e-3
    assert v["pair"].verdict == "ask the ear"
    assert v["pair"].sign == 0


def test_a_front_mic_is_pushed_by_the_kick_and_not_by_the_snare():
    v = FOUND["front"]
    assert v["kick"].sign == 1
    # Nobody knows which way the snare pushes it, and five milliseconds on it makes no difference.
    assert (v["snare"].verdict, v["snare"].sign) == ("behind", 0)
    assert abs(v["snare"].flipped_body_db - v["snare"].body_db) < 3
    assert v["pushed"] == {"kick": 1, "snare": 0}


def test_a_floor_pair_gains_its_image_and_has_no_comb_to_hear():
    v = FOUND["floor"]
    # Six decibels for an even pattern; a cardioid that looks at the floor has its best side
    # toward the image.
    assert 5.5 < v["added_db"] < 8.5
    assert v["dip_hz"] > 20_000
    assert v["pair"].verdict == "together"


def test_a_crossed_pair_is_together_and_takes_in_70_to_76_degrees():
    v = FOUND["crossed"]
    assert v["pair"].verdict == "together"
    assert 68 <= v["recording_deg"] <= 77
    assert v["snare_at"].percent == pytest.approx(0, abs=7)


def test_twins_are_one():
    v = FOUND["twins"]["pair"]
    assert (v.verdict, v.sign) == ("together", 1)
    assert abs(v.delay_ms) < 0.01
    assert v.body_db == pytest.approx(6.0, abs=0.1)


def test_all_bottoms_are_flipped_to_go_with_the_overheads():
    v = FOUND["bottoms"]
    assert set(v["signs"].values()) == {1}
    assert all(s == [-1, -1] for s in v["tops"].values())
    assert set(v["same"]) == {1}
    assert v["best"].mean_db >= 0


def test_a_mic_that_faces_the_wall_hears_the_wall_and_knows_what_it_does_not():
    v = FOUND["wall"]
    assert "snare" in v["by_wall"]
    assert v["unsure"]  # the heads lie level with it


def test_room_omnis_are_behind_on_purpose():
    v = FOUND["omnis"]
    assert 7 < v["left"].delay_ms < 12
    assert {v["left"].verdict, v["right"].verdict} <= {"behind", "ask the ear"}
    assert v["between"].verdict in ("together", "ask the ear")
    assert v["between"].delay_ms == pytest.approx(0, abs=0.01)


def test_a_side_turned_over_changes_left_and_right_over():
    v = FOUND["mid-side"]
    assert (v["wired"].verdict, v["turned"].verdict) == ("together", "together")
    assert v["floor"][0] < -5  # the audience has the drummer's right on its left
    assert v["floor"][1] == pytest.approx(-v["floor"][0])


def test_a_near_coincident_pair_is_late_on_nothing():
    assert {x.verdict for x in FOUND["near"].values()} == {"together"}
    assert 0.05 < abs(FOUND["near"]["hats"].delay_ms) < 0.6


def test_a_floor_fades_in():
    added = FOUND["fade"]["added"]
    assert added[0.02] == pytest.approx(6, abs=0.3)
    assert added[0.8] == 0
    assert list(added.values()) == sorted(added.values(), reverse=True)


def test_every_case_is_on_the_page_with_what_was_expected():
    page = cases_page()
    assert len(CASES) == 14
    for case in cases():
        assert f"## {case.title}" in page
        assert case.expected in page
