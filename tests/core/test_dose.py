"""The day's dose against the two published tables, and how loud a kit is for people."""

import pytest
from ringside.gear.dose import NIOSH, OSHA, minutes_allowed
from ringside.gear.loudness import PEAK_OVER_AVERAGE_DB, loudness
from ringside.places.starts import starting_layout
from ringside.plan.questions import Brief

LAYOUT = starting_layout("five-piece", "turned pair")


@pytest.mark.parametrize(("level", "minutes"), [
    # NIOSH 98-126, table 1-1: level, hours and minutes.
    (80, 25 * 60 + 24), (82, 16 * 60), (85, 8 * 60), (88, 4 * 60), (91, 2 * 60), (94, 60),
    (97, 30), (100, 15), (103, 7.5), (106, 3.75),
])  # fmt: skip
def test_the_recommended_times(level, minutes):
    assert minutes_allowed(level, NIOSH) == pytest.approx(minutes, rel=0.003)


@pytest.mark.parametrize(("level", "hours"), [
    # OSHA 29 CFR 1910.95, table G-16.
    (90, 8), (92, 6), (95, 4), (97, 3), (100, 2), (102, 1.5), (105, 1), (110, 0.5), (115, 0.25),
])  # fmt: skip
def test_the_permitted_times(level, hours):
    # The table rounds: 6.06 h stands as 6, 3.03 as 3, 1.52 as 1.5.
    assert minutes_allowed(level, OSHA) == pytest.approx(60 * hours, rel=0.02)


def test_what_is_not_loud_is_not_counted():
    assert minutes_allowed(79.9, NIOSH) == float("inf")
    assert minutes_allowed(89.9, OSHA) == float("inf")


def test_the_drummer_gets_most_of_it():
    ears, beside = loudness(LAYOUT)
    assert (ears.place, beside.place) == ("at the drummer's ears", "beside the kit")
    assert ears.average_db > beside.average_db + 3
    assert 90 < beside.average_db < ears.average_db < 110  # drummers measure so (common practice)
    assert ears.average_db == pytest.approx(ears.peak_db - PEAK_OVER_AVERAGE_DB, abs=0.11)
    hard = loudness(LAYOUT.model_copy(update={"brief": Brief(hitter="hard")}))
    assert hard[0].average_db == pytest.approx(ears.average_db + 4)


def test_without_a_stool_only_who_stands_by_is_told_of():
    kit = LAYOUT.kit.model_copy(update={"stool": None})
    assert [p.place for p in loudness(LAYOUT.model_copy(update={"kit": kit}))] == ["beside the kit"]


def test_the_words_tell_both_rules_and_how_far_they_can_be_off():
    ears, beside = loudness(LAYOUT)
    # 98.3 dB and 5 either way: 480 / 2^(13.3 / 3) = 22 min, 7 at 103.3, 70 at 93.3.
    assert ears.average_db == 98.3
    assert ears.words == (
        "At the drummer's ears about 98 ± 5 dB(A): a day's dose in 22 min (7 min to 70 min) by"
        " NIOSH 98-126, 3 h (75 min to 5 h) by OSHA 1910.95."
    )
    assert "8 h (4 h to no end) by OSHA" in beside.words  # under 90 dB that counts nothing
