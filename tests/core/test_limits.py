"""Each limit a little below and a little above, each sign once, each offer within its range."""

import numpy as np
import pytest
from ringside.answers.nearness import nearness
from ringside.answers.remedies import remedies
from ringside.answers.sentences import why
from ringside.files.layout import layout_from
from ringside.fitting.fit import fit
from ringside.fitting.work import FitAsk
from ringside.hear.bands import bands
from ringside.pairs.analysis import analyse
from ringside.pairs.delays import CLOSE_MOVE_M, body_by_delay
from ringside.pairs.flips import Problem
from ringside.pairs.gram import LEAST_SHARE, grams
from ringside.pairs.pictures import pictures
from ringside.places.starts import starting_layout
from ringside.plan.drumframe import face_of
from ringside.plan.hanging import with_flips
from ringside.plan.kit import Drum, reference_point
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.plan.mics import LOCKS, Mic
from ringside.plan.room import Notch, Room
from ringside.techniques.catalogue import TECHNIQUES
from ringside.techniques.taking import take

from tests.core.tracks import with_each

KIT = five_piece()
SQUARE = starting_layout("five-piece", "square pair")


def mic(id_, at, aim=(0, 0, -1), **more):
    at = tuple(float(x) for x in at)
    return Mic.model_validate({"id": id_, "name": id_, "position_m": at, "aim": aim, **more})


@pytest.mark.parametrize("t", TECHNIQUES.values(), ids=lambda t: t.id)
def test_every_way_a_technique_is_tried_is_within_its_own_numbers(t):
    numbers = {n.id: n for n in t.numbers}
    for n in t.numbers:
        assert n.low <= n.default <= n.high
        assert n.unit != "clock" or (n.low >= 0 and n.high <= 12)
    for some in t.tries:
        for name, value in some.items():
            assert numbers[name].low <= value <= numbers[name].high, (name, value)


def test_a_flat_snare_mic_looks_across_the_head_and_down_on_it():
    layout = take(Layout(name="T", kit=KIT), "snare-flat", numbers={"tilt": 20.0}).layout
    flat, face = layout.mics[0], face_of(KIT.first("snare"), "over")
    inward = face.centre - np.array(flat.position_m)
    level = inward - face.out * float(inward @ face.out)
    assert float(np.array(flat.aim) @ level) / np.linalg.norm(level) == pytest.approx(
        np.cos(np.radians(20)), abs=1e-6
    )
    assert float(np.array(flat.aim) @ face.out) == pytest.approx(-np.sin(np.radians(20)), abs=1e-6)


@pytest.mark.parametrize("turn", [-25.0, 0.0, 25.0])
def test_a_room_pair_is_suggested_in_front_of_the_kick_wherever_that_looks(turn):
    c, s = np.cos(np.radians(turn)), np.sin(np.radians(turn))
    drums = tuple(
        d.model_copy(update={"axis": (float(-s), float(-c), 0.0)}) if d.kind == "kick" else d
        for d in KIT.drums
    )
    layout = Layout(name="T", kit=KIT.model_copy(update={"drums": drums}))
    took = take(layout, "room-bar").layout
    middle = np.mean([m.position_m for m in took.mics], axis=0)
    kick = took.kit.first("kick")
    to = middle[:2] - np.array(kick.batter_m)[:2]
    ahead = -np.array(kick.axis)[:2]
    assert to @ ahead > 1.5
    assert abs(to[0] * ahead[1] - to[1] * ahead[0]) < (0.35 if turn else 0.1)


@pytest.mark.parametrize("side", ["width_m", "length_m"])
def test_a_corner_cut_away_leaves_half_a_metre(side):
    base = {"name": "L", "width_m": 5.0, "length_m": 6.0, "height_m": 3.0, "kit_x_m": 0.2,
            "kit_y_m": 0.2}  # fmt: skip
    whole = {"width_m": 5.0, "length_m": 6.0}[side]
    cut = {"corner": "front right", "width_m": 1.0, "length_m": 1.0}
    assert Room(**base, notch=Notch(**{**cut, side: whole - 0.51})) is not None
    with pytest.raises(ValueError, match="half a metre"):
        Room(**base, notch=Notch(**{**cut, side: whole - 0.49}))


@pytest.mark.parametrize("axis", [(0.6, -0.8, 0.0), (0.0, -0.8, 0.6)])
def test_the_tape_on_a_front_head_is_held_a_shell_further_along_the_axis(axis):
    kick = KIT.first("kick").model_copy(update={"axis": axis, "reference": "front"})
    there = np.array(kick.batter_m) - kick.depth_m * np.array(axis)
    assert reference_point(kick) == pytest.approx(tuple(there))


def test_a_hand_drum_of_eight_inches_sounds_at_260_hertz():
    drum = KIT.first("rack").model_copy(update={"kind": "hand drum", "diameter_m": 8 * 0.0254})
    assert bands(Drum.model_validate(drum.model_dump())).fundamental == pytest.approx(260, rel=1e-3)


@pytest.mark.parametrize(("at", "dips"), [((0.1, 0.2, 1.2), "(2n+1)"), ((0.1, 0.2, 0.35), "n/Δt")])
def test_where_the_dips_of_a_sum_lie_is_told_by_its_sign(at, dips):
    mics = (mic("A", (0.3, -0.1, 1.1)), mic("B", at, (0, 0, 1) if at[2] < 0.5 else (0, 0, -1)))
    an = analyse(Layout(name="T", kit=KIT, mics=mics))
    assert why(an, 0, an.source_index("snare"))[2].formula.startswith(dips)


def test_a_spot_is_moved_by_a_little_and_an_overhead_by_much():
    an = analyse(SQUARE)
    row, turned, k = an.find("ST", "OL", "snare")
    reach = CLOSE_MOVE_M / an.scene.speed + 1e-6
    moves = {way: abs(body_by_delay(an, row, k, way).best_move.later_s) for way in (False, True)}
    spot_moves, overhead_moves = moves[not turned], moves[turned]
    assert spot_moves <= reach < overhead_moves


def test_what_a_mic_hears_twenty_decibels_down_has_a_hundredth_of_the_energy():
    an = analyse(SQUARE)
    gram = grams(an)
    drums = np.flatnonzero(an.scene.sources.drum)
    for d, k in enumerate(drums):
        energy = np.diag(gram[d])
        assert 10 * np.log10(energy) == pytest.approx(an.arrivals.after_gain_db[:, k])


def test_a_form_that_can_go_below_nothing_has_slack_for_it():
    gram = np.array([[[1.0, -2.0], [-2.0, 1.0]]])  # its least is -1
    assert Problem(gram, np.array([1])).slack == pytest.approx([LEAST_SHARE + 2.0])
    assert Problem(np.eye(2)[None], np.array([1])).slack == pytest.approx([LEAST_SHARE])


@pytest.mark.parametrize(("view", "to_the_left", "said"), [
    ("drummer", True, False), ("drummer", False, True), ("audience", True, True),
    ("audience", False, False), (None, True, False), (None, False, False),
])  # fmt: skip
def test_a_side_that_looks_to_the_right_is_said_to_change_the_channels_over(
    view, to_the_left, said
):
    layout = take(Layout(name="T", kit=KIT), "pair-mid-side").layout
    side = layout.mic(layout.stereo_pairs[0].right)
    assert side.aim[0] < -0.5  # a side is put up looking to the drummer's left
    aim = side.aim if to_the_left else tuple(-x for x in side.aim)
    mics = (layout.mics[0], side.model_copy(update={"aim": aim}))
    layout = layout.model_copy(update={"mics": mics, "outlook": view})
    notes = pictures(analyse(layout)).pairs[0].notes
    assert any("change the decoded channels over" in n for n in notes) == said
    if view is None:  # as it stands, so is the picture
        assert layout.seen_from == ("drummer" if to_the_left else "audience")


def test_a_fit_keeps_what_a_technique_promises():
    layout = take(Layout(name="T", kit=KIT), "room-bar").layout
    layout = layout.model_copy(update={"stereo_pairs": ()})
    one, two = layout.mics
    off = one.model_copy(update={"position_m": tuple(np.add(one.position_m, (0.0, 0.05, 0.0)))})
    done = fit(layout.model_copy(update={"mics": (off, two)}), FitAsk(wishes=("equal",)))
    snare = reference_point(KIT.first("snare"))
    far = [float(np.linalg.norm(np.subtract(m.position_m, snare))) for m in done.layout.mics]
    assert abs(far[0] - far[1]) < 0.0051
    assert done.moves


def test_nearness_is_told_from_a_centimetre_to_forty():
    heights = nearness(SQUARE, "ST").heights_m
    assert (heights[0], heights[-1]) == pytest.approx((0.01, 0.4))


@pytest.mark.parametrize("what", ["readings", "drawn"])
def test_who_is_not_in_the_kit_is_told_so(what):
    doc = SQUARE.model_dump(mode="json")
    doc["kit"][what] = {
        "readings": [{"a": "snare", "b": "gong", "metres": 1.0}],
        "drawn": [{"id": "gong", "at_m": [0, 0, 1]}],
    }[what]
    with pytest.raises(Exception, match="'gong', which is not in the kit"):
        layout_from(doc)


def test_a_remedy_that_only_shifts_the_harm_is_said_to_do_so():
    said = {}
    for seed in range(40):
        dice = np.random.default_rng(seed)
        an = analyse(with_flips(SQUARE, {m.id for m in SQUARE.mics if dice.integers(2)}))
        for row in np.flatnonzero(an.pairs.worst >= 4)[:4]:
            a, b = (SQUARE.mics[int(i[row])].id for i in (an.pairs.first, an.pairs.second))
            told = remedies(an, a, b)
            first = told.remedies[0]
            key = (np.sign(first.score), np.sign(first.own))
            said.setdefault(key, told.words)
    assert "does the most good" in said[(-1, -1)]
    assert "does others as much harm" in said[(0, -1)]
    assert "does others as much harm" in said[(1, -1)]


def test_a_step_that_leaves_the_pair_as_it_is_cures_nothing():
    # Snare top and bottom, held: all that is left is to delay one, and they push opposite ways.
    held = with_each(SQUARE, {m: {"locks": LOCKS} for m in ("ST", "SB")})
    found = remedies(analyse(held), "ST", "SB")
    assert [r.kind for r in found.remedies] == ["delay"]
    assert (found.remedies[0].own, found.remedies[0].score) == (0, 0)
    assert found.words.startswith("No single step makes the whole better.")


def test_two_in_the_null_at_one_point_are_no_surer_for_being_there_together():
    snare = KIT.first("snare")
    at = np.add(snare.batter_m, (0.0, 0.0, 0.6))
    pair = [mic(n, at, (1, 0, 0), pattern="figure-8", role="room") for n in "AB"]
    an = analyse(Layout(name="T", kit=KIT, mics=tuple(pair)))
    k = an.source_index("snare")
    assert an.arrivals.null[:, k].all()
    assert an.pairs.sign[0, k] == 0
    facing = [m.model_copy(update={"aim": (0.0, 0.0, -1.0)}) for m in pair]
    an = analyse(Layout(name="T", kit=KIT, mics=tuple(facing)))
    assert not an.arrivals.null[:, k].any()
    assert an.pairs.sign[0, k] == 1


@pytest.mark.parametrize(("name", "numbers", "said"), [
    ("room-omnis", {"out": 1.6, "width": 3.0}, "pile up at the speakers"),
    ("room-bar", {"out": 6.5}, "narrower than the speakers"),
    ("room-bar", {"out": 1.5}, "narrower than the speakers"),  # it takes in 1.31 times the kit
    ("room-bar", {"out": 1.42}, ""),  # 1.22 times
    ("room-bar", {"out": 1.13}, ""),  # 0.93 times
    ("room-bar", {"out": 1.08}, "pile up at the speakers"),  # 0.88 times
])  # fmt: skip
def test_a_pair_too_near_or_too_far_for_what_it_takes_in_is_said_to_be(name, numbers, said):
    layout = take(Layout(name="T", kit=KIT), name, numbers=numbers).layout
    seen = pictures(analyse(layout)).pairs[0]
    told = [n for n in seen.notes if "takes in" in n]
    assert len(told) == bool(said), (seen.recording_deg, seen.kit_deg)
    assert all(said in n for n in told)


@pytest.mark.parametrize(("pattern", "turned"), [
    ("supercardioid", True), ("hypercardioid", True), ("cardioid", True), ("wide cardioid", False),
    ("omni", False),
])  # fmt: skip
def test_only_what_has_a_null_is_turned_by_it(pattern, turned):
    layout = starting_layout("eight-piece", "turned pair")
    mics = tuple(
        m.model_copy(update={"pattern": pattern}) if m.role == "close" else m for m in layout.mics
    )
    moves = fit(layout.model_copy(update={"mics": mics}), FitAsk(wishes=("nulls",))).moves
    assert any(m.turned_deg > 0 for m in moves) == turned


def test_a_mic_beside_the_shell_is_level_with_its_middle_and_looks_at_it():
    layout = take(Layout(name="T", kit=KIT), "snare-shell").layout
    snare, beside = KIT.first("snare"), layout.mics[0]
    middle = np.array(snare.batter_m) - np.array(snare.axis) * snare.depth_m / 2
    off = np.subtract(beside.position_m, middle)
    assert abs(off @ np.array(snare.axis)) < snare.depth_m / 2 + 1e-6
    assert np.linalg.norm(off) > snare.diameter_m / 2
    assert np.array(beside.aim) @ off / np.linalg.norm(off) < -0.9


def test_the_move_that_cures_a_pair_is_told_by_its_way():
    """A mic that hears the drum early is put later by going away, and one that is late sooner."""
    told = {}
    for name, further in (("early", -0.5), ("late", 0.5)):
        near = mic("A", (0.0, 0.0, 1.9), role="overhead")
        off = mic("B", (0.3, 0.0, 1.9 + further), role="overhead")
        an = analyse(Layout(name="T", kit=KIT, mics=(near, off)))
        row, turned, k = an.find("A", "B", "snare")
        told[name] = body_by_delay(an, row, k, turned)
    assert told["early"].best_move.later_s > 0 > told["late"].best_move.later_s
    assert "later" in told["early"].words
    assert "sooner" in told["late"].words


def test_a_head_that_rises_less_than_half_stands_and_its_clock_has_twelve_up():
    lying, standing = (
        KIT.first("floor").model_copy(update={"axis": ((1 - s * s) ** 0.5, 0.0, s)})
        for s in (0.51, 0.49)
    )
    np.testing.assert_allclose(face_of(lying, "over").twelve, (0, 1, 0), atol=1e-9)
    twelve = face_of(standing, "over").twelve
    np.testing.assert_allclose(twelve, (-0.49, 0, (1 - 0.49**2) ** 0.5), atol=1e-9)
