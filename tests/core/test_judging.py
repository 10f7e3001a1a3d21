"""What is asked of two mics: by what they are to each other, how sure, and in which words."""

from dataclasses import replace

import numpy as np
import pytest
from ringside.answers.rows import Sure, pair_row
from ringside.answers.sentences import verdict_words
from ringside.hear.bands import TUNING_SPREAD, tuning_from
from ringside.pairs.analysis import analyse
from ringside.pairs.flips import best_flips
from ringside.pairs.gram import drum_ids, grams
from ringside.pairs.known import signed_db, told_db
from ringside.pairs.uncertainty import tips
from ringside.pairs.verdicts import VERDICT_WORDS, Facts, Kind, Verdict, verdicts
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_flips, with_tracks
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import Mic
from ringside.plan.room import Room
from ringside.plan.thresholds import Thresholds
from ringside.techniques.taking import take

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")
LIMITS = Thresholds()
HALL = Room(name="Hall", width_m=30.0, length_m=40.0, height_m=9.0, kit_x_m=15.0, kit_y_m=4.0)


def fact(**more):
    plain = {"kind": Kind.APART, "drum": True, "level": 0.0, "share": 0.9, "alike": 1.0,
             "delay": 0.0, "sign": 1, "gain": -5.0, "dips": False}  # fmt: skip
    return Facts(**{k: np.array([v]) for k, v in {**plain, **more}.items()})


@pytest.mark.parametrize(
    ("facts", "verdict"),
    [
        # A threshold a little under and a little over, one of each.
        ({"level": 9.4}, "together"), ({"level": 9.6}, "no matter"),
        ({"level": -9.4}, "together"), ({"level": -9.6}, "no matter"),
        # 2 dB between best and worst: a share s of a drum's energy swings by (1 + s)/(1 - s).
        ({"share": 0.23}, "together"), ({"share": 0.22}, "no matter"),  # 2.03 and 1.94 dB
        ({"share": 0.12, "kind": Kind.PICTURE}, "together"),  # 1.05 dB
        ({"share": 0.11, "kind": Kind.PICTURE}, "no matter"),  # 0.96 dB
        # Of its body they take as much as they are alike in it.
        ({"share": 0.4, "alike": -0.6, "gain": 3.1}, "hollow"),
        ({"share": 0.4, "alike": 0.5, "gain": 3.1}, "no matter"),
        ({"share": 0.4, "alike": 0.5, "gain": 3.1, "dips": True}, "late"),
        ({"share": 0.4, "alike": 0.5, "sign": 0}, "no matter"),
        # A second stroke is no comb: it is heard until it is far under.
        ({"share": 0.1, "delay": 30.1e-3}, "late"), ({"share": 0.1, "delay": 29.9e-3}, "no matter"),
        ({"share": 0.0, "delay": 30.1e-3}, "no matter"),
        ({"gain": 2.9}, "together"), ({"gain": 3.1}, "hollow"),
        ({"delay": 0.99e-3}, "together"), ({"delay": 1.01e-3}, "behind"),
        ({"delay": -0.99e-3}, "together"), ({"delay": -1.01e-3}, "behind"),
        ({"delay": 29.9e-3}, "behind"), ({"delay": 30.1e-3}, "late"),
        ({"delay": -30.1e-3}, "late"),
        # A cymbal rings on: no second stroke, no body to be hollow.
        ({"delay": 30.1e-3, "drum": False}, "behind"), ({"gain": 9.0, "drum": False}, "together"),
        # An unsure sign is asked about where a flip would be heard, whichever way it goes.
        ({"sign": 0, "gain": 3.1}, "ask the ear"), ({"sign": 0, "gain": -3.1}, "ask the ear"),
        ({"sign": 0, "gain": 2.9}, "together"), ({"sign": 0, "gain": -2.9}, "together"),
        ({"sign": 0, "gain": 2.0, "delay": 0.004}, "behind"),
        ({"sign": 0, "gain": 9.0, "drum": False}, "together"),
        # What goes before what.
        ({"level": 12.0, "gain": 9.0}, "no matter"), ({"gain": 9.0, "dips": True}, "hollow"),
        ({"gain": 9.0, "delay": 0.05}, "hollow"), ({"dips": True, "delay": 0.004}, "late"),
        # Two for one drum, and a stereo pair, are never merely behind.
        ({"kind": Kind.SAME, "delay": 0.004}, "together"),
        ({"kind": Kind.PICTURE, "delay": 0.004}, "together"),
        ({"kind": Kind.SAME, "dips": True}, "late"), ({"kind": Kind.PICTURE, "dips": True}, "late"),
        ({"kind": Kind.PICTURE, "gain": 3.1}, "hollow"),
        # A mid and its side: no sign, no level, only time; a side with others nothing at all.
        ({"kind": Kind.DECODED, "gain": 9.0}, "together"),
        ({"kind": Kind.DECODED, "sign": 0, "gain": 9.0}, "together"),
        ({"kind": Kind.DECODED, "level": 20.0}, "together"),
        ({"kind": Kind.DECODED, "dips": True}, "late"),
        ({"kind": Kind.DECODED, "dips": True, "share": 0.11}, "no matter"),
        ({"kind": Kind.SIDE, "gain": 9.0, "dips": True}, "no matter"),
    ],
)  # fmt: skip
def test_each_rule_and_what_goes_before_it(facts, verdict):
    assert VERDICT_WORDS[Verdict(int(verdicts(LIMITS, fact(**facts))[0]))] == verdict


def told(layout, a, b, source):
    an = analyse(layout)
    row, _ = an.pair_index(a, b)
    k = an.scene.sources.ids.index(source)
    word = VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, k]))]
    return word, verdict_words(an, row, k), Kind(int(an.pairs.kind[row]))


def mic(id_, at, aim, **more):
    return Mic.model_validate({"id": id_, "name": id_, "position_m": at, "aim": aim, **more})


def with_room_mic(y):
    """The kick's mic and one in front of the kit, as loud."""
    far = mic("RM", (0.28, y, 1.2), (0, -1, 0), role="overhead", pattern="omni")
    mics = (SQUARE.mic("KI"), far)
    return SQUARE.model_copy(
        update={"channels": (), "mics": mics, "stereo_pairs": (), "room": HALL}
    )


@pytest.mark.parametrize(("y", "verdict", "said"), [
    (6.5, "behind", "heard as distance, not as a comb"),
    (12.5, "late", "heard as a second stroke"),
])  # fmt: skip
def test_a_room_mic_is_behind_on_purpose_until_it_is_an_echo(y, verdict, said):
    word, words, kind = told(with_room_mic(y), "KI", "RM", "kick")
    assert (word, kind) == (verdict, Kind.APART)
    assert said in words
    assert words.startswith("RM is")
    assert "behind KI" in words


def test_overheads_are_behind_a_spot_and_not_late():
    for overhead in ("OL", "OR"):
        word, words, _ = told(SQUARE, "T2", overhead, "rack-2")
        assert word in ("behind", "hollow", "ask the ear"), words
        word, words, _ = told(SQUARE, "SB", overhead, "snare")
        assert word == "behind"
        assert words.startswith(f"{overhead} is 3.0")


MID_SIDE = take(Layout(name="t", kit=five_piece(), room=HALL), "room-mid-side").layout


def test_a_mid_and_its_side_are_judged_as_decoded():
    # In mono the side is gone; turned over, it changes left and right over and nothing else.
    mid, side = (m.id for m in MID_SIDE.mics)
    for source in ("snare", "kick", "floor", "hats"):
        word, words, kind = told(MID_SIDE, mid, side, source)
        assert (word, kind) == ("together", Kind.DECODED)
        assert words.endswith(f"Flipping {side} changes left and right over.")
        assert f"mono is {mid} alone" in words
        assert told(with_flips(MID_SIDE, {side}), mid, side, source)[0] == "together"


def test_a_side_apart_from_its_mid_combs_in_each_speaker():
    mid, side = (m.id for m in MID_SIDE.mics)
    moved = MID_SIDE.mic(side)
    x, y, z = moved.position_m
    away = MID_SIDE.with_mic(moved.model_copy(update={"position_m": (x, y + 0.3, z)}))
    word, words, _ = told(away, mid, side, "snare")
    assert word == "late"
    assert words.startswith(f"{side} is 0.8")
    assert "decoded, each speaker dips at" in words


def test_a_side_with_any_other_mic_is_no_matter_and_moves_no_best_flip():
    layout = take(MID_SIDE, "snare-centre", "snare").layout
    layout = take(layout, "snare-bottom", "snare").layout
    mid, side = (m.id for m in MID_SIDE.mics)
    word, words, kind = told(layout, "ST", side, "snare")
    assert (word, kind) == ("no matter", Kind.SIDE)
    assert words.startswith(f"{side} is a side")
    assert told(layout, "ST", mid, "snare")[2] == Kind.APART
    an = analyse(layout)
    i = [m.id for m in layout.mics].index(side)
    assert not grams(an)[:, i].any()
    assert side not in best_flips(an).best.flip
    assert drum_ids(an)[0] == "kick"


def near_pair(apart, shift=0.0):
    """Two cardioids at 110°, over the kit, a little to the side of it."""
    half, lean = apart / 2, np.radians(55)
    aims = [(-np.sin(lean), 0.3, -np.cos(lean)), (np.sin(lean), 0.3, -np.cos(lean))]
    mics = tuple(
        mic(i, (shift + s * half, -0.2, 1.7), a, role="overhead")
        for i, s, a in zip(("OL", "OR"), (-1, 1), aims, strict=True)
    )
    pair = StereoPair(name="Overheads", left="OL", right="OR")
    return Layout(name="t", kit=five_piece(), mics=mics, stereo_pairs=(pair,))


@pytest.mark.parametrize("source", ["hats", "ride", "snare", "floor"])
def test_a_near_coincident_pair_is_not_late_for_what_makes_its_picture(source):
    # 17 cm make up to half a millisecond at the sides, by which it tells left from right.
    word, words, kind = told(near_pair(0.17, 0.25), "OL", "OR", source)
    assert (word, kind) == ("together", Kind.PICTURE)
    assert "late" not in words


def test_a_spaced_pair_is_kept_equal_on_snare_and_kick_and_nowhere_else():
    wide = near_pair(0.9, 0.25)
    assert told(wide, "OL", "OR", "snare")[0] == "late"
    for source in ("hats", "rack-1", "floor"):
        assert told(wide, "OL", "OR", source)[0] in ("together", "ask the ear")
    assert told(near_pair(0.34, 0.25), "OL", "OR", "snare")[0] == "together"
    assert told(near_pair(0.36, 0.25), "OL", "OR", "snare")[0] == "late"


def test_a_pair_wired_opposite_ways_is_hollow_in_mono():
    word, words, _ = told(with_flips(with_tracks(near_pair(0.17)), {"OR"}), "OL", "OR", "snare")
    assert word == "hollow"
    assert "flipping one gains" in words


def test_the_picture_of_a_pair_is_in_its_words():
    _, words, _ = told(near_pair(0.17, 0.0), "OL", "OR", "hats")
    assert words.endswith("left.")
    _, words, _ = told(near_pair(0.17, 0.0), "OL", "OR", "floor")
    assert "right" in words
    assert "In mono it keeps" in words


def tuned(hz):
    kit = five_piece()
    drums = tuple(
        d.model_copy(update={"fundamental_hz": hz}) if d.id == "rack-1" else d for d in kit.drums
    )
    return kit.model_copy(update={"drums": drums})


@pytest.mark.parametrize(("hz", "how"), [(None, "estimated"), (110.0, "note"), (138.59, "note"),
                                         (111.0, "measured"), (137.0, "measured")])  # fmt: skip
def test_how_well_a_tuning_is_known(hz, how):
    part = tuned(hz).part("rack-1")
    assert tuning_from(part) == how
    assert TUNING_SPREAD["estimated"] == pytest.approx(np.log(1.5) / np.sqrt(12), rel=0.03)
    assert TUNING_SPREAD["note"] == pytest.approx(2 ** (100 / np.sqrt(12) / 1200) - 1, rel=0.02)


def test_a_doubtful_tuning_tips_what_a_measured_one_holds():
    # T1 with OL on its own drum: found hollow by its estimated fundamental, just so.
    an = analyse(SQUARE)
    row, _ = an.pair_index("T1", "OL")
    k = an.scene.sources.ids.index("rack-1")
    assert an.pairs.verdict[row, k] == Verdict.HOLLOW
    assert tips(an)[row, k] == Verdict.BEHIND
    f = an.scene.sources.fundamentals[k]
    known = SQUARE.model_copy(update={"kit": SQUARE.kit.model_copy(
        update={"drums": tuned(round(f * 0.93, 2)).drums})})  # fmt: skip
    same = analyse(known)
    sure = replace(same.scene.sources, tuning=np.full(9, 0.01))
    vague = replace(same.scene.sources, tuning=np.full(9, 0.12))
    held, tipped = (
        tips(replace(same, scene=replace(same.scene, sources=s)))[row, k] for s in (sure, vague)
    )
    assert held == same.pairs.verdict[row, k]
    assert tipped != held


def test_tuning_moves_a_body_as_delay_does():
    # A body a tenth higher, by tuning, against the same body a tenth later: one and the same.
    an = analyse(SQUARE)
    row, _ = an.pair_index("T2", "OR")
    k = an.scene.sources.ids.index("rack-2")
    f = an.scene.sources.fundamentals[k]
    from ringside.pairs.analysis import alike_at

    def alike(factor, shift):
        return float(
            alike_at(
                an.arrivals.rays, an.pairs.first[[row]], an.pairs.second[[row]], np.array([k]),
                np.array([f * factor / 2**0.5]), np.array([f * factor * 2**0.5]),
                np.array([shift]),
            )[0]
        )  # fmt: skip

    assert alike(1.1, 0.0) == pytest.approx(alike(1.0, 0.1 * an.pairs.delay_s[row, k]), abs=1e-9)


@pytest.mark.parametrize(("value", "said"), [(29.94, "29.9 dB"), (30.1, "more than 30 dB"),
                                             (86.0, "more than 30 dB")])  # fmt: skip
def test_figures_end_where_they_are_known(value, said):
    assert told_db(value) == said


@pytest.mark.parametrize(("value", "said"), [(-29.9, "-29.9 dB"), (-30.1, "under -30 dB"),
                                             (30.1, "over +30 dB"), (0.04, "+0.0 dB"),
                                             (-0.04, "+0.0 dB")])  # fmt: skip
def test_levels_end_where_they_are_known(value, said):
    assert signed_db(value) == said


def test_two_that_cancel_are_told_no_further_than_is_known():
    two = tuple(
        mic(i, (0.02 * n, 0.05, 0.75), (0, 0, -1), job="snare") for n, i in enumerate(("A", "B"))
    )
    layout = with_mic(Layout(name="t", kit=five_piece(), mics=two), "B", preamp_flip=True)
    word, words, _ = told(layout, "A", "B", "snare")
    assert word == "hollow"
    assert "more than 30 dB" in words


def test_no_sentence_says_flip_where_the_flip_ruins_another_drum():
    # Both kick mics go together: flipping one of them alone would cancel the other.
    word, words, _ = told(SQUARE, "KO", "OL", "kick")
    assert word == "ask the ear"
    assert "flip KI and KO together, listen" in words
    assert "flip one" not in words


def test_one_alone_is_free_to_be_flipped():
    lone = SQUARE.model_copy(update={
        "channels": (), "mics": tuple(m for m in SQUARE.mics if m.id in ("KO", "OL")),
        "stereo_pairs": (),
    })  # fmt: skip
    word, words, _ = told(lone, "KO", "OL", "kick")
    assert word == "ask the ear"
    assert words.endswith("flip one, listen, keep the fuller.")


def test_each_reason_names_the_mic_it_is_of():
    # One in the null of its pattern, the other in the plane of the head.
    x, y, z = five_piece().part("snare").batter_m
    null = mic("N", (x, y, z + 0.5), (1, 0, 0), role="overhead", pattern="figure-8")
    plane = mic("P", (x + 0.5, y, z + 0.03), (-1, 0, 0), role="overhead")
    _, words, _ = told(Layout(name="t", kit=five_piece(), mics=(null, plane)), "N", "P", "snare")
    if "either way" in words:
        assert "N is in the null of its pattern" in words
        assert "P is near the plane of the head" in words


def test_an_unsure_pair_has_no_sure_body_in_its_row():
    an = analyse(SQUARE)
    row, _ = an.pair_index("KO", "OL")
    k = an.scene.sources.ids.index("kick")
    told_row = pair_row(an, row, k, Sure.of(an))
    assert told_row.sign == 0
    assert told_row.could_tip is None


def test_drums_that_are_counted_have_no_article_in_any_verdict():
    an = analyse(starting_layout("five-piece", "square pair"))
    rows, names = len(an.pairs.first), an.scene.sources.names
    said = [verdict_words(an, r, k) for r in range(rows) for k in range(len(names))]
    assert any("rack 1" in words for words in said)
    assert any("the floor tom" in words for words in said)
    assert not [words for words in said if "the rack" in words.lower()]
