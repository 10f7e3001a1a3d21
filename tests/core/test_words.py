"""The sentences: each verdict says its reason, and each number says where it comes from."""

import re

import numpy as np
import pytest
from ringside.answers.board import FocusOn, focus_on
from ringside.answers.sentences import verdict_words, why
from ringside.pairs.analysis import analyse
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.places.starts import starting_layout

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")
TURNED = starting_layout("five-piece", "turned pair")


def sentence(layout, a, b, source):
    an = analyse(layout)
    row, _ = an.pair_index(a, b)
    k = an.scene.sources.ids.index(source)
    return VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, k]))], verdict_words(an, row, k)


def flipped(layout, mic):
    return with_mic(layout, mic, preamp_flip=True)


@pytest.mark.parametrize(
    ("layout", "pair", "verdict", "said"),
    [
        (SQUARE, ("OL", "OR", "kick"), "late", "OL is 0.61 ms late on the kick"),
        (SQUARE, ("ST", "SB", "snare"), "hollow", "pushed opposite ways by the snare"),
        (SQUARE, ("T1", "OL", "rack-1"), "hollow", "pushed the same way, but OL is"),
        (SQUARE, ("KI", "ST", "snare"), "no matter", "After gain KI hears the snare"),
        (SQUARE, ("KO", "OL", "kick"), "ask the ear", "OL is near the plane of the head"),
        (SQUARE, ("KI", "KO", "kick"), "together", "pushed the same way: no dip"),
        (SQUARE, ("OL", "OR", "snare"), "together", "Snare in the middle. In mono it keeps +0.0"),
        (SQUARE, ("SB", "OL", "snare"), "behind", "OL is 3.03 ms behind SB on the snare"),
        (flipped(SQUARE, "SB"), ("ST", "SB", "snare"), "together", "pushed the same way"),
        (SQUARE, ("T1", "T2", "kick"), "no matter", "covers the two"),
    ],
)
def test_a_verdict_gives_its_reason(layout, pair, verdict, said):
    word, words = sentence(layout, *pair)
    assert word == verdict, words
    assert said in words


def test_a_null_is_named_as_the_reason_of_doubt():
    # A figure-8 straight over the snare, lying on its side: the snare is in its null.
    side_on = SQUARE.mic("OL").model_copy(
        update={"pattern": "figure-8", "aim": (0.0, 1.0, 0.0), "position_m": (0.0, 0.0, 1.74),
                "job": "snare"}
    )  # fmt: skip
    word, words = sentence(SQUARE.with_mic(side_on), "ST", "OL", "snare")
    assert word == "ask the ear"
    assert "OL is in the null of its pattern for the snare" in words


def test_no_sentence_names_a_unit_of_length():
    # Lengths are shown beside the sentence in the user's units; a sentence has none of its own.
    for layout in (SQUARE, TURNED):
        an = analyse(layout)
        for row in range(len(an.pairs.first)):
            for k in range(len(an.scene.sources.ids)):
                assert not re.search(r"\d\s?(cm|m|in|ft)\b", verdict_words(an, row, k))


def test_why_gives_values_that_make_the_result():
    an = analyse(SQUARE)
    row, _ = an.pair_index("OL", "OR")
    rows = {r.title: r for r in why(an, row, an.scene.sources.ids.index("kick"))}
    metres = [float(x) for x in re.findall(r"(\d+\.\d+) m /", rows["Arrival"].formula)]
    speed = float(re.search(r"/ (\d+\.\d) m/s", rows["Arrival"].formula).group(1))
    shown = float(re.search(r"= ([+-]\d+\.\d+) ms", rows["Arrival"].formula).group(1))
    assert (metres[0] - metres[1]) / speed * 1e3 == pytest.approx(shown, abs=2e-3)
    assert "819 Hz" in rows["Dip"].formula or "818 Hz" in rows["Dip"].formula
    g = float(re.search(r"g = (\d\.\d+)", rows["Level after gain"].formula).group(1))
    ripple = float(re.search(r"ripple (\d+\.\d) dB", rows["Level after gain"].formula).group(1))
    assert 20 * np.log10((1 + g) / (1 - g)) == pytest.approx(ripple, abs=0.2)
    assert all(r.source for r in rows.values())


def test_detail_opens_the_worst_drum_when_none_is_named():
    an = analyse(SQUARE)
    assert focus_on(an, FocusOn("ST", "SB")).source == "snare"
    assert focus_on(an, FocusOn("OL", "OR")).source == "kick"
    assert focus_on(an, FocusOn("OL", "OR", "ride")).source == "ride"


@pytest.mark.parametrize(("pair", "source", "said"), [
    (("OL", "OR"), "snare", "counts from 163 Hz to 8.0 kHz"),
    (("T1", "OL"), "rack-1", "does not count for these two"),
])  # fmt: skip
def test_the_reason_says_up_to_where_a_dip_counts_or_that_it_does_not(pair, source, said):
    an = analyse(SQUARE)
    row, _ = an.pair_index(*pair)
    rows = {r.title: r.formula for r in why(an, row, an.scene.sources.ids.index(source))}
    assert said in rows["Dip"]
