"""What is wrong with a patch is said, and patching done for one follows the rules of the trade."""

import numpy as np
import pytest
from ringside.edits.apply import apply
from ringside.edits.channels import AddChannel, ChangeChannels, OrderChannels, RemoveChannels
from ringside.edits.room import Pose
from ringside.errors import LayoutFileError, RingsideError
from ringside.files.layout import layout_from
from ringside.gear.leads import SLACK_M, Lead, laid, lead_m
from ringside.gear.locker import CableKind, InputBank, Locker, MicModel
from ringside.gear.patching import patch
from ringside.gear.stock import stock
from ringside.places.starts import starting_layout
from ringside.plan.channels import BoxAt
from ringside.plan.feeds import plugging
from ringside.plan.room import Room

from tests.core.tracks import with_each, with_mic

START = starting_layout("five-piece", "turned pair")
HOT = MicModel(id="hot", name="Hot condenser", phantom=True, sensitivity_mv_pa=40.0,
               max_spl_db=160.0, pads_db=(10.0, 20.0))  # fmt: skip
PENCIL = MicModel(id="pencil", name="Pencil", phantom=True, sensitivity_mv_pa=10.0, count=8)
RIBBON = MicModel(id="rib", name="Heron ribbon", kind="ribbon", patterns=("figure-8", "cardioid"),
                  sensitivity_mv_pa=1.0, count=4)  # fmt: skip
MICS = (HOT, PENCIL, RIBBON)


def box(id_, count, **more):
    return InputBank(id=id_, name=id_.capitalize(), count=count, **more)


def locker(*boxes, **more):
    return Locker(mics=MICS, inputs=boxes, **more)


def unplugged(layout=START, **mics):
    off = {m.id: {"input": None} for m in layout.mics}
    return with_each(layout, {n: {**off[n], **mics.get(n, {})} for n in off})


def inputs(patched):
    return {c.id: c.input for c in patched.layout.channels}


def reason(patched, name):
    return next(m.words for m in patched.moves if name in m.channels)


def words(layout, with_, kind):
    return [r.words for r in stock(layout, with_).lacks if r.kind == kind]


def test_what_is_well_plugged_stays_and_said_to():
    found = patch(START, locker(box("desk", 16)))
    assert found.layout == START
    assert found.words == "Everything is well plugged in: nothing was moved."


def test_unplugged_tracks_go_in_their_order_with_pairs_side_by_side():
    found = patch(unplugged(), locker(box("desk", 16)))
    at = inputs(found)
    assert [at[n] for n in ("KI", "KO", "ST", "SB")] == [1, 2, 3, 4]
    assert at["OR"] == at["OL"] + 1
    assert found.without == []
    assert found.words == "10 tracks plugged in."
    assert patch(unplugged(), locker(box("desk", 16))) == found  # same input, same answer


def test_a_pair_goes_to_matched_inputs():
    found = patch(unplugged(), locker(box("desk", 12), box("twins", 2, matched=True)))
    assert (inputs(found)["OL"], inputs(found)["OR"]) == (13, 14)
    assert reason(found, "OL").endswith("a pair, on matched inputs side by side.")


def test_a_ribbon_keeps_away_from_a_fed_bank_and_takes_the_quietest():
    layout = unplugged(ST={"model": "pencil"}, HH={"model": "rib"})
    two = locker(box("bank", 8, phantom="bank", noise_dbu=-130.0), box("single", 8))
    found = patch(layout, two)
    assert inputs(found)["HH"] > 8  # with a switch of its own
    assert words(found.layout, two, "phantom") == []
    quiet = locker(box("loud", 12, noise_dbu=-118.0), box("quiet", 4, noise_dbu=-129.0))
    assert inputs(patch(layout, quiet))["HH"] == 13
    assert reason(patch(layout, quiet), "HH").endswith("a ribbon, on the quietest input.")


def test_phantom_and_a_high_limit_for_a_hot_condenser():
    layout = unplugged(ST={"model": "hot"})
    found = patch(layout, locker(box("old", 12, phantom="none"), box("new", 4)))
    assert inputs(found)["ST"] == 13
    assert reason(found, "ST").endswith("it wants phantom.")
    # 40 mV/Pa at some 131 dB: +11 dBu, hard hits 6 dB more.
    limits = locker(box("low", 12, max_level_dbu=10.0), box("high", 4, max_level_dbu=26.0))
    found = patch(layout, limits)
    assert inputs(found)["ST"] == 13
    assert reason(found, "ST").endswith("hot where it stands, and this input takes +26 dBu.")


def test_gain_for_what_is_soft_and_a_cable_that_reaches():
    layout = unplugged(HH={"model": "rib"})
    gains = locker(box("low", 12, full_scale_dbu=24.0, most_gain_db=20.0),
                   box("high", 4, full_scale_dbu=24.0, most_gain_db=75.0))  # fmt: skip
    assert inputs(patch(layout, gains))["HH"] == 13
    assert reason(patch(layout, gains), "HH").endswith("and this input has the gain.")
    at = (BoxAt(bank="far", position_m=(9.0, 9.0)), BoxAt(bank="near", position_m=(1.0, 0.0)))
    far = unplugged().model_copy(update={"boxes": at})
    short = (CableKind(id="c6", name="6 m", length_m=6.0, count=20),)
    both = locker(box("far", 12), box("near", 12), cables=short)
    found = patch(far, both)
    assert min(inputs(found).values()) == 13
    assert words(found.layout, both, "cables") == []


def test_what_is_held_is_left_alone_and_too_few_inputs_are_said():
    layout = with_mic(unplugged(), "OL", input=1, fixed=True)
    found = patch(layout, locker(box("desk", 16)))
    assert inputs(found)["OL"] == 1
    assert 1 not in [n for c, n in inputs(found).items() if c != "OL"]
    few = patch(unplugged(), locker(box("desk", 8)))
    assert len(few.without) == 2
    assert "no input is left for" in few.words
    assert all(inputs(few)[n] is None for n in few.without)
    # Half of a pair is of no use.
    nine = patch(unplugged(), locker(box("desk", 9)))
    assert nine.without == ["OL", "OR"]


def test_what_no_box_takes_pulls_nothing_else_out():
    # The hot mic overloads wherever it is; the rest, in an order of its own, is well plugged.
    order = {m.id: {"input": 16 - n} for n, m in enumerate(START.mics)}
    layout = with_each(START, {**order, "ST": {**order["ST"], "model": "hot"}})
    found = patch(layout, locker(box("desk", 16, max_level_dbu=0.0)))
    kept = {c: n for c, n in inputs(found).items() if c != "ST"}
    assert kept == {c.id: c.input for c in layout.channels if c.id != "ST"}


def test_the_last_socket_is_one_and_the_next_is_not():
    desk = locker(box("desk", 16))
    assert words(with_mic(START, "OL", input=16), desk, "inputs") == []
    assert words(with_mic(START, "OL", input=17), desk, "inputs") == [
        "1 input short: there are 16."
    ]


def test_a_socket_taken_twice_is_put_right_by_moving_one():
    twice = with_mic(START, "OL", input=1)
    assert words(twice, locker(box("desk", 16)), "inputs") == ["Input 1 is taken by KI and OL."]
    found = patch(twice, locker(box("desk", 16)))
    assert [m.channels for m in found.moves] == [["OL"]]
    assert words(found.layout, locker(box("desk", 16)), "inputs") == []


def split(layout, mic, **way):
    layout = apply(layout, AddChannel(do="add-channel", mic=mic)).layout
    copy = layout.channels[-1].model_copy(update=way)
    return apply(layout, ChangeChannels(do="channels", channels=(copy,))).layout


@pytest.mark.parametrize(("way", "said"), [
    ({}, []),
    ({"preamp_flip": True}, ["KI and KI.2 are of one mic and turned against each other: they"
                             " cancel. Flip one."]),
    ({"preamp_flip": True, "track_flip": True}, []),
    ({"track_delay_samples": 5}, ["KI and KI.2 are of one mic and delayed unlike each other: they"
                                  " comb."]),
])  # fmt: skip
def test_copies_of_one_capsule_are_at_one_place(way, said):
    assert words(split(START, "KI", **way), Locker(), "splits") == said


def test_a_side_is_decoded_by_two_tracks_turned_and_panned_apart():
    from ringside.techniques.taking import take

    layout = take(starting_layout("five-piece", "empty"), "pair-mid-side").layout
    side = layout.stereo_pairs[0].right
    both = split(layout, side)
    assert "to decode it, flip one of them" in words(both, Locker(), "splits")[0]
    turned = split(layout, side, preamp_flip=True, pan=100.0)
    assert "pan one hard left, the other hard right" in words(turned, Locker(), "splits")[0]
    assert words(with_mic(turned, side, pan=None), Locker(), "splits") != []
    left = turned.channels[-2].model_copy(update={"pan": -100.0})
    done = apply(turned, ChangeChannels(do="channels", channels=(left,))).layout
    assert words(done, Locker(), "splits") == []


@pytest.mark.parametrize(("mics", "kind", "said"), [
    ({"ST": {"model": "hot", "pad_db": 15.0}}, "level", "ST: the Hot condenser has no 15 dB pad; it"
     " has 10 or 20 dB."),
    ({"ST": {"model": "pencil", "phantom": False}}, "phantom", "ST wants phantom, and it is off at"
     " its input: switch it on."),
    ({"HH": {"model": "rib", "phantom": True}}, "phantom", "HH is a ribbon with phantom on: switch"
     " it off before you plug it in."),
])  # fmt: skip
def test_what_is_switched_wrong_is_said(mics, kind, said):
    assert said in words(with_each(START, mics), locker(box("desk", 16)), kind)


def test_a_pad_that_is_in_cures_the_overload_it_was_named_for():
    desk = locker(box("desk", 16, max_level_dbu=10.0))
    hot = with_mic(START, "ST", model="hot")
    (loud,) = words(hot, desk, "level")
    assert "Desk overloads even at least gain: switch its 10 dB pad in." in loud
    padded = with_mic(hot, "ST", pad_db=10.0)
    assert words(padded, desk, "level") == []
    (row,) = [h for h in stock(padded, desk).headroom if h.mic == "ST"]
    assert (row.state, row.pad_in) == ("fits", True)
    assert "With its 10 dB pad in" in row.words


def test_cables_are_too_short_along_the_floor_or_too_few_that_reach():
    at = START.model_copy(update={"boxes": (BoxAt(bank="desk", position_m=(4.0, 4.0)),)})
    kinds = (CableKind(id="a", name="5 m", length_m=5.0, count=20),)
    said = words(at, locker(box("desk", 16), cables=kinds), "cables")
    assert any("the longest cable is 5 m. Couple two, or take a nearer box." in w for w in said)
    two = (*kinds, CableKind(id="b", name="20 m", length_m=20.0, count=2))
    said = words(at, locker(box("desk", 16), cables=two), "cables")
    assert all("the cables that reach it are all in use." in w for w in said)
    assert len(said) == 8


def test_the_longest_lead_takes_the_shortest_cable_that_reaches_it():
    kinds = [CableKind(id=n, name=f"{n} m", length_m=float(n), count=1) for n in ("9", "5", "20")]
    three = [Lead("A", "Desk", 4.0), Lead("B", "Desk", 8.0), Lead("C", "Desk", 5.0)]
    got = laid([*three, Lead("D", "Desk", 6.0)], Locker(cables=kinds))
    assert {m: c.id for m, c in got.cables.items()} == {"B": "9", "D": "20", "C": "5"}
    assert [x.mic for x in got.short] == ["A"]


def test_cables_follow_the_walls_and_boxes_stay_when_the_kit_is_turned():
    # 3-4-5: along the kit's own axes 7 m, in line with a wall of a kit turned by the angle 5 m.
    assert lead_m((3.0, 4.0, 0.0), (0.0, 0.0)) == pytest.approx(7.0 + SLACK_M)
    assert lead_m((0.0, 1.0, 0.0), (0.5, 3.0)) == pytest.approx(2.5 + SLACK_M)
    turn = np.arctan2(3, 4)
    assert lead_m((3.0, 4.0, 0.0), (0.0, 0.0), turn) == pytest.approx(5.0 + SLACK_M)
    room = Room(name="R", width_m=8.0, length_m=9.0, height_m=3.0, kit_x_m=4.0, kit_y_m=3.0)
    at = START.model_copy(
        update={"room": room, "boxes": (BoxAt(bank="desk", position_m=(1.0, 2.0)),)}
    )
    turned = apply(at, Pose(do="pose", x_m=5.0, y_m=2.0, turn_rad=np.pi / 2)).layout
    # In the room it is at 5, 5: then straight in front of the snare, which looks to the left.
    assert turned.boxes[0].position_m == pytest.approx((3.0, 0.0), abs=1e-5)
    desk = locker(box("desk", 16))
    (row,) = [r for r in stock(turned, desk).leads if r.mic == "ST"]
    x, y, z = turned.mic("ST").position_m
    assert row.metres == pytest.approx(abs(x - 3) + abs(y) + z + SLACK_M, abs=0.01)
    assert row.cable is None
    short = desk.model_copy(update={"cables": (CableKind(id="s", name="S", length_m=1.0),)})
    assert {r.cable for r in stock(turned, short).leads} == {""}


def test_a_ribbon_with_an_amplifier_inside_wants_phantom_and_is_not_kept_from_it():
    active = RIBBON.model_copy(update={"id": "active", "phantom": True})
    desk = Locker(mics=(*MICS, active), inputs=(box("desk", 16, phantom="bank"),))
    assert words(with_mic(START, "HH", model="active", phantom=True), desk, "phantom") == []
    beside = with_each(START, {"HH": {"model": "rib"}, "ST": {"model": "active"}})
    assert "HH is a ribbon on Desk, whose phantom is on" in words(beside, desk, "phantom")[0]
    off = with_mic(beside, "ST", phantom=False)
    assert not any(w.startswith("HH") for w in words(off, desk, "phantom"))


def test_what_is_wrong_on_the_way_is_told_from_what_is_wrong_at_the_stands():
    twice = with_mic(with_mic(START, "HH", input=2), "KI", input=2, model="gone")
    rows = {r.kind: r.on_the_way for r in stock(twice, locker(box("desk", 16))).lacks}
    assert (rows["inputs"], rows["mics"]) == (True, False)
    assert plugging(twice.channels) == "twice"
    assert plugging(START.channels) == "done"
    assert plugging(with_mic(START, "KI", input=None).channels) == plugging(()) == "loose"


# --- edits --------------------------------------------------------------------------------


def test_tracks_are_split_put_in_order_and_taken_away():
    once = apply(START, AddChannel(do="add-channel", mic="KI"))
    assert (once.made, once.words) == ("KI.2", "Split KI")
    assert (once.layout.channels[-1].mic, once.layout.channels[-1].input) == ("KI", None)
    moved = apply(once.layout, OrderChannels(do="tracks", order=("KI.2", "OL"))).layout
    assert [c.id for c in moved.channels[:3]] == ["KI.2", "OL", "KI"]
    assert len(moved.channels) == 11
    left = apply(moved, RemoveChannels(do="remove-channels", channels=("KI.2", "OL")))
    assert left.words == "KI.2, OL no longer recorded"
    assert [m.id for m in left.layout.mics] == [m.id for m in START.mics]
    back = apply(left.layout, AddChannel(do="add-channel", mic="OL"))
    assert (back.made, back.words, back.layout.channels[-1].input) == ("OL", "A track for OL", 11)


@pytest.mark.parametrize(("change", "said"), [
    ({"input": 5}, "KI to input 5"), ({"input": None}, "KI to input none"),
    ({"gain_db": 30.0}, "Gain of KI: 30 dB"), ({"phantom": True}, "Phantom for KI: on"),
    ({"track_flip": True}, "Flip on the track on, KI"), ({"name": "Kick"}, "Track KI named Kick"),
])  # fmt: skip
def test_a_changed_track_is_called_by_what_changed(change, said):
    channel = START.channels[0].model_copy(update=change)
    assert apply(START, ChangeChannels(do="channels", channels=(channel,))).words == said


def test_sixty_five_channels_and_a_gain_of_no_number_are_refused_with_their_place():
    plain = START.model_dump(mode="json")
    many = [{**plain["channels"][0], "id": f"C{n}"} for n in range(65)]
    with pytest.raises(LayoutFileError, match="channels: expected at most 64"):
        layout_from({**plain, "channels": many})
    broken = [{**plain["channels"][0], "gain_db": float("nan")}, *plain["channels"][1:]]
    with pytest.raises(LayoutFileError, match=r"channels\[0\].gain_db"):
        layout_from({**plain, "channels": broken})
    full = START
    for _ in range(54):
        full = apply(full, AddChannel(do="add-channel", mic="KI")).layout
    with pytest.raises(RingsideError, match="at most 64 channels"):
        apply(full, AddChannel(do="add-channel", mic="KI"))
