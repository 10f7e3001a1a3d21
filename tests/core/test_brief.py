"""The brief as a table of cases: what an answer must lead to, limits kept, reasons given.

Which technique suits which wish is common practice.
"""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ringside.answers.jobs import setup_list
from ringside.brief.plans import AS_PLAYED, HALF, Piece, built, fired, fullest, plans, ranked, table
from ringside.brief.rules import FEW, RULES, SLOTS, WORTH
from ringside.errors import RingsideError
from ringside.gear.locker import Locker, MicModel, StandModel
from ringside.gear.outfit import outfit
from ringside.gear.stock import stock
from ringside.pairs.analysis import analyse
from ringside.pairs.counts import counts
from ringside.places.clearance import words_for_all
from ringside.plan.kits import KITS, five_piece
from ringside.plan.layout import Layout
from ringside.plan.questions import QUESTIONS, Brief
from ringside.plan.room import Room
from ringside.techniques.catalogue import TECHNIQUES
from ringside.techniques.taking import take
from ringside.worklist.build import worklist

ROOM = Room(name="R", width_m=7, length_m=9, height_m=3.2, kit_x_m=3.4, kit_y_m=2.5)
BLANK = Layout(name="B", kit=five_piece(), room=ROOM)


def opened(layout):
    """With a hole in the kick's front head, so that every kick recipe can be chosen."""
    from ringside.plan.kit import Port

    kick = layout.kit.first("kick").model_copy(update={"port": Port(diameter_m=0.12)})
    drums = tuple(kick if d.id == kick.id else d for d in layout.kit.drums)
    return layout.model_copy(update={"kit": layout.kit.model_copy(update={"drums": drums})})


def first(**answers):
    return plans(BLANK, Brief(**answers))[0]


def names(plan):
    return [p.technique for p in plan.pieces]


def slots(plan):
    return {p.slot for p in plan.pieces}


CASES = [
    # answers, technique that must be in the first plan, techniques that must not
    ({"mono": "must hold"}, {"pair-coincident", "pair-mid-side", "mono-over"},
     {"pair-straight", "pair-snare", "wide-centre", "room-omnis"}),
    ({"method": "tape"}, {"pair-turned"}, set()),
    ({"method": "ear", "mono": "no matter", "first": "overheads"},
     {"pair-near", "pair-coincident", "mono-over", "pair-straight", "wide-centre"},
     {"pair-turned", "over-and-side"}),
    ({"style": "heavy", "first": "close"}, {"pair-straight"}, set()),
    ({"style": "soft", "tone": "warm", "toms": "little"}, {"pair-crossed-8", "pair-near"},
     {"tom-top", "tom-off"}),
    ({"space": "dry"}, {"pair-turned"}, {"room-bar", "room-omnis", "room-mono", "room-crossed-8"}),
    ({"space": "roomy", "inputs": 20, "minutes": 240}, {"room-omnis"}, set()),
    ({"impact": "huge", "inputs": 16}, {"kick-outside", "kick-woofer", "kick-tunnel"}, set()),
    ({"impact": "light"}, {"kick-outside"}, {"kick-inside", "kick-woofer", "kick-tunnel"}),
    ({"tone": "cutting"}, {"snare-edge"}, set()),
    ({"tone": "warm"}, {"tom-off"}, {"tom-top"}),
    ({"style": "raw", "inputs": 4}, {"over-and-side", "mono-over"}, {"tom-top"}),
    ({"inputs": 1}, {"one-front", "one-over-kit"}, set()),
    ({"inputs": 2, "mono": "must hold"}, {"two-mics", "pair-coincident"}, set()),
    ({"inputs": 3, "mono": "must hold"}, {"three-mics"}, {"three-side"}),
    ({"inputs": 3, "style": "raw"}, {"three-side"}, set()),
]  # fmt: skip


@pytest.mark.parametrize(("answers", "some_of", "none_of"), CASES)
def test_answers_lead_to_what_the_trade_would_put_up(answers, some_of, none_of):
    chosen = set(names(first(**answers)))
    assert chosen & some_of, chosen
    assert not chosen & none_of, chosen & none_of


SLOT_CASES = [
    ({"toms": "much", "inputs": 9}, {"toms"}, set()),
    ({"toms": "little", "style": "soft", "inputs": 9}, set(), {"toms"}),
    ({"ride": "much", "inputs": 16}, {"ride", "hats"}, set()),
    ({"ride": "little", "inputs": 16}, set(), {"ride"}),
    ({"style": "driving"}, {"snare-bottom", "room-pair"}, set()),
    ({"style": "raw", "inputs": 8}, {"odd"}, {"toms", "hats", "ride"}),
    ({"space": "roomy", "timing": "aligned", "inputs": 24, "minutes": 300}, {"far"}, set()),
    ({"space": "dry", "inputs": 24}, set(), {"far", "room-pair", "room-mono"}),
]


@pytest.mark.parametrize(("answers", "filled", "empty"), SLOT_CASES)
def test_answers_fill_and_leave_slots(answers, filled, empty):
    got = slots(first(**answers))
    assert got >= filled, got
    assert not got & empty, got & empty


def test_every_rule_is_about_something_there_is_and_can_be_set_off():
    values = {(q.id, a.value) for q in QUESTIONS for a in q.answers}
    somewhere = {c.technique for s in SLOTS.values() for c in s} | {
        c.technique for few in FEW.values() for c in few
    }
    for r in RULES:
        assert (r.question, r.answer) in values, r
        assert r.because.endswith("."), r
        if r.about.startswith("slot:"):
            assert r.about.removeprefix("slot:") in WORTH, r
        else:
            assert r.about in somewhere, r
            known = {n.id: n for n in TECHNIQUES[r.about].numbers}
            for name, value in r.numbers.items():
                assert known[name].low <= value <= known[name].high


def test_every_answer_is_a_value_of_the_brief_and_says_what_it_changes():
    for q in QUESTIONS:
        for a in q.answers:
            assert getattr(Brief(**{q.id: a.value}), q.id) == a.value
            assert a.changes.endswith("."), a
    assert set(Brief().model_dump()) >= {q.id for q in QUESTIONS}


def test_the_table_can_be_read():
    rows = table()
    assert len(rows) == len(RULES)
    assert rows[0].question == "What is it?"
    assert all(r.about and r.because for r in rows)


@pytest.mark.parametrize("rule", [r for r in RULES if r.weight != 0], ids=lambda r: r.because[:40])
def test_each_rule_moves_what_it_is_about(rule):
    """Set off by its answer and by no other; its technique rises or falls in its slot with it."""
    with_ = fired(Brief(**{rule.question: rule.answer}))
    assert rule in with_
    layout = opened(BLANK)
    for slot, choices in SLOTS.items():
        if rule.about in [c.technique for c in choices]:
            order = [c.technique for c in ranked(slot, layout, with_)]
            before = [c.technique for c in ranked(slot, layout, [r for r in with_ if r != rule])]
            if rule.about not in order:
                continue  # a tom without its head has no bottom to be miked
            moved = before.index(rule.about) - order.index(rule.about)
            assert moved * rule.weight >= 0
    others = [a.value for q in QUESTIONS if q.id == rule.question for a in q.answers]
    for other in others:
        if other != rule.answer:
            assert rule not in fired(Brief(**{rule.question: other}))


def test_three_plans_differ_in_their_picture_and_the_last_is_small():
    three = plans(BLANK, Brief(inputs=16))
    pictures = [p.pieces[0].technique for p in three]
    assert len(set(pictures)) == 3
    assert [p.score for p in three] == sorted((p.score for p in three), reverse=True)
    assert min(p.inputs for p in three) <= 8


answer_sets = st.fixed_dictionaries(
    {q.id: st.sampled_from([a.value for a in q.answers]) for q in QUESTIONS}
)


@given(answers=answer_sets, inputs=st.integers(1, 24), minutes=st.integers(15, 300),
       kit=st.sampled_from(sorted(KITS)))  # fmt: skip
@settings(max_examples=40)
def test_any_brief_gets_layouts_within_its_limits_and_clear(answers, inputs, minutes, kit):
    layout = Layout(name="B", kit=KITS[kit](), room=ROOM)
    brief = Brief(**answers, inputs=inputs, minutes=minutes)
    found = plans(layout, brief)
    if minutes >= 35:
        assert found
    for plan in found:
        made = plan.layout
        assert len(made.mics) == plan.inputs <= inputs
        assert plan.minutes <= minutes
        assert plan.reasons
        assert plan.gives_up or plan.watch_for
        assert made.brief == brief
        assert not any(words_for_all([m.position_m for m in made.mics], made))
    assert found == plans(layout, brief)


def test_what_was_left_out_is_said_with_the_reason():
    tight = first(inputs=6)
    assert any("inputs are used up" in w for w in tight.gives_up)
    hurried = plans(BLANK, Brief(inputs=16, minutes=40))[0]
    assert any("no time" in w for w in hurried.gives_up)


def test_the_small_plan_says_that_it_is_small_on_purpose():
    """Half of twelve inputs are still free: none is used up."""
    three = plans(BLANK, Brief(inputs=12))
    small = min(three, key=lambda p: p.inputs)
    said = " ".join(small.gives_up)
    assert small.inputs <= 6
    assert "this one does with 6 of the 12 inputs" in said
    assert "used up" not in said
    assert [HALF in p.reasons for p in three] == [p is small for p in three]


@pytest.mark.parametrize(("inputs", "as_played"), [(1, True), (2, True), (3, False), (4, False)])
def test_with_no_mic_of_its_own_no_drum_can_be_turned_up(inputs, as_played):
    """Common practice: one or two mics are balanced by the drummer, a third may be the kick's."""
    best = first(inputs=inputs)
    assert (AS_PLAYED in best.gives_up) is as_played
    assert best.watch_for == TECHNIQUES[best.pieces[0].technique].watch_for


@pytest.mark.parametrize("per_mic", [3.0, 6.0, 12.0])
def test_a_plan_takes_as_long_as_the_locker_and_the_set_up_list_say(per_mic):
    """Its techniques' minutes by the pace of these hands, and the lines, which wait for nobody."""
    locker = Locker(minutes_per_mic=per_mic)
    for plan in plans(BLANK, Brief(inputs=12, minutes=600, from_locker=False), locker):
        techniques = sum(TECHNIQUES[p.technique].minutes for p in plan.pieces)
        assert plan.minutes == round(8 + techniques * per_mic / 6)
        assert stock(plan.layout, locker).minutes == plan.minutes
        listed = setup_list(plan.layout, locker, "kick first")
        assert listed.minutes == plan.minutes
        assert sum(j.minutes for j in listed.jobs) == pytest.approx(plan.minutes, abs=1)


def test_slow_hands_put_up_less_in_the_same_time():
    slow, quick = (
        plans(BLANK, Brief(inputs=16, minutes=60), Locker(minutes_per_mic=m))[0] for m in (12, 3)
    )
    assert slow.minutes <= 60
    assert slow.inputs < quick.inputs


def test_a_plan_built_from_its_pieces_is_the_plan():
    plan = first(inputs=10)
    brief = Brief(inputs=10)
    again = built(BLANK, brief, plan.pieces)
    assert again.mics == plan.layout.mics
    assert again.stereo_pairs == plan.layout.stereo_pairs


def test_two_plans_can_be_mixed():
    one, two = plans(BLANK, Brief(inputs=16))[:2]
    mixed = [p for p in one.pieces if p.slot == "picture"]
    mixed += [p for p in two.pieces if p.slot != "picture"]
    made = built(BLANK, Brief(inputs=16), mixed)
    ids = {t.technique for t in made.techniques}
    assert one.pieces[0].technique in ids
    assert {p.technique for p in two.pieces[1:]} <= ids


def test_a_piece_that_cannot_be_placed_is_refused():
    with pytest.raises(RingsideError, match="expected a technique of the list"):
        built(BLANK, Brief(), [Piece(slot="kick", technique="nothing")])


def test_what_a_kit_lacks_is_never_chosen():
    no_floor = BLANK.kit.model_copy(
        update={"drums": tuple(d for d in BLANK.kit.drums if d.kind != "floor")}
    )
    layout = BLANK.model_copy(update={"kit": no_floor, "room": None})
    rules = fired(Brief(style="raw"))
    assert "over-and-side" not in [c.technique for c in ranked("picture", layout, rules)]
    for plan in plans(layout, Brief(style="raw", inputs=8)):
        assert "over-and-side" not in names(plan)
        assert "wall-mic" not in names(plan)


# --- with a locker --------------------------------------------------------------------------

SMALL = Locker(
    mics=(
        MicModel(id="dyn", name="Dynamic", kind="moving-coil", count=3),
        MicModel(id="cond", name="Condenser", kind="condenser", patterns=("cardioid", "omni"),
                 count=2, matched=True),
        MicModel(id="rib", name="Ribbon", kind="ribbon", patterns=("figure-8",), fragile=True,
                 count=1),
    ),
    stands=(
        StandModel(id="low", name="Low", low_m=0.1, high_m=0.7, reach_m=0.6, count=4),
        StandModel(id="boom", name="Boom", low_m=0.9, high_m=1.8, reach_m=1.0, weight_kg=6,
                   count=4),
    ),
)  # fmt: skip


def test_a_plan_never_uses_more_than_the_locker_has():
    for plan in plans(BLANK, Brief(inputs=16), SMALL):
        used = [m.model for m in plan.layout.mics]
        assert None not in used
        assert used.count("dyn") <= 3
        assert used.count("cond") <= 2
        assert used.count("rib") <= 1
        assert any("locker" in w for w in plan.gives_up) or plan.inputs <= 8
    free = plans(BLANK, Brief(inputs=16, from_locker=False), SMALL)[0]
    assert free.inputs > 6


def test_a_pair_gets_two_alike_and_a_kick_a_rugged_one():
    layout = take(take(BLANK, "pair-turned").layout, "kick-inside").layout
    got = outfit(layout, SMALL).layout
    assert got.mic("OL").model == got.mic("OR").model == "cond"
    assert got.mic("KI").model == "dyn"
    assert got.mic("OL").stand == "boom"


def test_what_the_locker_has_nothing_for_is_named():
    layout = take(BLANK, "pair-crossed-8").layout
    got = outfit(layout, SMALL)
    assert set(got.no_mic) == {"OL", "OR"}
    assert got.layout.mic("OL").model is None


def test_a_bar_needs_one_stand_and_the_floor_none():
    bar = outfit(take(BLANK, "pair-near").layout, SMALL).layout
    assert sum(m.stand is not None for m in bar.mics) == 1
    floor = outfit(take(BLANK, "floor-pair").layout, SMALL).layout
    assert [m.stand for m in floor.mics] == [None, None]


def test_an_empty_locker_is_asked_for_nothing():
    layout = take(BLANK, "pair-turned").layout
    assert outfit(layout, Locker()).layout == layout
    assert plans(BLANK, Brief(), Locker())[0].layout == plans(BLANK, Brief())[0].layout


def test_the_demos_layout_from_the_brief_stands_on_its_numbers_and_is_clear():
    from pathlib import Path

    from ringside.files.layout import read_layout
    from ringside.techniques.standing import standing

    file = Path(__file__).resolve().parents[2] / "demo" / "c-from-the-brief.layout.json"
    layout = read_layout(file.read_bytes())
    assert layout.brief is not None
    assert layout.brief.style == "driving"
    assert not any(words_for_all([m.position_m for m in layout.mics], layout))
    for state in standing(layout):
        assert state.off == [], state.id
        assert all(e.difference_m < 1e-4 for e in state.equal)


def test_a_plan_begins_with_the_fullest_polarity_and_says_so():
    # Common practice: overheads and close mics push opposite ways until one side is flipped.
    for plan in plans(BLANK, Brief(inputs=12)):
        layout = plan.layout
        assert any(c.preamp_flip for c in layout.channels if "bottom" not in c.name.lower())
        assert plan.reasons[-1].startswith("Polarity by body over all drums")
        assert not any(x.kind == "flip" for x in worklist(layout).lines)
        plain = layout.model_copy(
            update={
                "channels": tuple(
                    c.model_copy(update={"preamp_flip": "bottom" in c.name.lower()})
                    for c in layout.channels
                )
            }
        )
        assert counts(analyse(layout)).hollow <= counts(analyse(plain)).hollow
        pieces = [Piece.model_validate(p) for p in plan.pieces]
        again = built(BLANK, Brief(inputs=12), pieces)
        assert again.channels == layout.channels


def test_a_plan_comes_as_an_input_list_is_read():
    # Common practice: kick and snare first, overheads after the close mics, left before right.
    for plan in plans(BLANK, Brief(inputs=16)):
        tracks = plan.layout.channels
        assert [c.mic for c in tracks] == [m.id for m in plan.layout.mics]
        assert [c.input for c in tracks] == list(range(1, len(tracks) + 1))
        ids = [c.id for c in tracks]
        assert ids[0].startswith("K")
        assert all(ids.index(p.right) == ids.index(p.left) + 1 for p in plan.layout.stereo_pairs)
        roles = [m.role for m in plan.layout.mics]
        assert roles == sorted(roles, key=["close", "overhead", "room"].index)


def test_nothing_is_turned_over_without_mics_or_for_nothing():
    assert fullest(BLANK) == (BLANK, "")
    one = built(BLANK, Brief(inputs=1), [])
    assert fullest(one)[1] == ""
