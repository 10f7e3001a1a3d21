"""The set-up list: every mic once, in the order asked for, with the care each stand wants."""

import numpy as np
import pytest
from ringside.answers.jobs import ORDERS, setup_list
from ringside.gear.doorways import WAY_M, doors_crossed
from ringside.gear.locker import CableKind, InputBank, Locker, MicModel, StandModel
from ringside.places.starts import starting_layout
from ringside.plan.channels import BoxAt
from ringside.plan.kit import Port, reference_point
from ringside.plan.room import Door, Room
from ringside.techniques.taking import take

from tests.core.tracks import with_each, with_mic

START = starting_layout("five-piece", "turned pair")
ROOM = Room(
    name="R", width_m=6.0, length_m=8.0, height_m=3.0, kit_x_m=3.0, kit_y_m=2.0,
    doors=(Door(wall="left", at_m=3.0, width_m=1.0),),
)  # fmt: skip
LOCKER = Locker(
    mics=(MicModel(id="rib", name="Heron ribbon", kind="ribbon", patterns=("figure-8",)),
          MicModel(id="pen", name="Pencil", phantom=True, pads_db=(10.0,))),
    stands=(StandModel(id="boom", name="Tall boom", high_m=2.0, reach_m=0.9),
            StandModel(id="post", name="Post", high_m=2.0)),
    inputs=(InputBank(id="wall", name="Wall box", count=8),
            InputBank(id="rack", name="Rack", count=8)),
    cables=(CableKind(id="c10", name="Black 10", length_m=10.0, count=20),),
    minutes_per_mic=5.0, minutes=40,
)  # fmt: skip


def jobs(layout, order="overheads first", locker=LOCKER):
    return setup_list(layout, locker, order).jobs


def names(layout, order):
    return [m.row.id for j in jobs(layout, order) for m in j.mics]


@pytest.mark.parametrize(("order", "first", "last"), [
    ("overheads first", ["OL", "OR", "KI", "KO", "ST", "SB"], "RM"),
    ("kick first", ["KI", "KO", "ST", "SB", "T1", "T2"], "RM"),
])  # fmt: skip
def test_the_order_is_the_one_asked_for_and_every_mic_is_in_it_once(order, first, last):
    layout = take(START, "room-mono").layout
    layout = with_mic(layout, layout.mics[-1].id)
    told = names(layout, order)
    assert told[: len(first)] == first
    assert layout.mic(told[-1]).role == "room"
    for any_order in ORDERS:
        assert sorted(names(layout, any_order)) == sorted(m.id for m in layout.mics)


def test_by_stand_keeps_stands_together_and_round_the_kit_goes_from_left_to_right():
    layout = with_each(START, {"OL": {"stand": "boom"}, "OR": {"stand": "boom"},
                               "T1": {"stand": "post"}, "HH": {"stand": "boom"}})  # fmt: skip
    told = [j.stand for j in jobs(layout, "by stand")]
    assert told[:4] == ["Tall boom", "Tall boom", "Tall boom", "Post"]
    assert set(told[4:]) == {""}
    round_it = names(layout, "round the kit")
    assert round_it.index("HH") < round_it.index("KO") < round_it.index("FT")


def test_mics_of_a_bar_are_one_job_and_minutes_are_counted():
    """Nine minutes for the pair, by hands that take five for a usual six, and eight of lines."""
    layout = take(starting_layout("five-piece", "empty"), "room-bar").layout
    one, two = (m.id for m in layout.mics)
    barred = with_mic(layout, one, stand="boom")
    close = with_mic(barred, two, position_m=tuple(
        c + d for c, d in zip(barred.mic(one).position_m, (0.2, 0, 0), strict=True)
    ))  # fmt: skip
    (job,) = jobs(close)
    assert ([m.row.id for m in job.mics], job.stand, job.minutes) == ([one, two], "Tall boom", 15.5)
    apart = with_mic(close, two, stand="boom")
    assert [j.minutes for j in jobs(apart)] == [7.8, 7.8]
    told = setup_list(apart, LOCKER, "by stand")
    assert (told.minutes, told.there) == (16, 40)
    assert "Ear protection" in told.cautions[0]


def test_a_job_says_how_the_mic_is_plugged_in_and_which_cable_reaches():
    layout = with_each(START, {"OL": {"model": "pen", "input": 9, "pad_db": 10.0},
                               "HH": {"input": None}})  # fmt: skip
    layout = layout.model_copy(update={"boxes": (BoxAt(bank="rack", position_m=(-2.0, 1.0)),)})
    of = {m.row.id: m for j in jobs(layout) for m in j.mics}
    assert (of["OL"].model, of["OL"].pad_db) == ("Pencil", 10.0)
    assert of["OL"].plug == "Rack, input 1, phantom on"
    assert of["OL"].cable.startswith("Black 10, for ")
    assert (of["HH"].plug, of["HH"].cable) == ("no input yet", "")
    bare = LOCKER.model_copy(update={"cables": (CableKind(id="s", name="S", length_m=1.0),)})
    assert "no cable left that reaches" in next(
        m.cable for j in jobs(layout, locker=bare) for m in j.mics if m.row.id == "OL"
    )


def test_care_is_said_where_it_belongs():
    layout = with_each(START, {"OL": {"stand": "boom"}, "OR": {"stand": "post"},
                               "T1": {"stand": "boom"}, "HH": {"model": "rib"}})  # fmt: skip
    of = {j.mics[0].row.id: " ".join(j.cautions) for j in jobs(layout)}
    assert "counterweight or sandbag on" in of["OL"]
    assert "weigh its foot down" in of["OR"]
    assert "heads" not in of["T1"]
    assert "HH is a ribbon: phantom off before you plug it in" in of["HH"]
    low = with_mic(layout, "OL", position_m=(0.0, 0.0, 1.29))
    assert "heads" not in " ".join(jobs(low)[0].cautions)


@pytest.mark.parametrize(("box", "crossed"), [
    ((-2.9, 4.0), ["left"]),  # along the left wall past the door, whichever way it is laid
    ((-2.9, 0.5), []),  # the same wall, on the near side of the door
    ((2.5, 4.0), []),  # the other wall
])  # fmt: skip
def test_a_cable_in_the_way_of_a_door_is_told(box, crossed):
    layout = START.model_copy(update={"room": ROOM})
    # The mic stands near the left wall short of the door, which is 3 to 4 m from the back.
    assert doors_crossed(layout, (-2.9, 0.0, 0.5), box) == crossed
    assert doors_crossed(START, (-2.9, 0.0, 0.5), box) == []
    wired = layout.model_copy(update={"boxes": (BoxAt(bank="wall", position_m=box),)})
    there = with_mic(wired, "KI", position_m=(-2.9, 0.0, 0.5), input=1)
    said = [c for j in jobs(there) for c in j.cautions if c.startswith("The cable of KI")]
    assert bool(said) == bool(crossed)
    assert all("door in the left wall: tape it down or lead it over" in c for c in said)


@pytest.mark.parametrize(("wall", "along", "across"), [
    ("left", (-2.5, 0.0), (-2.5, 4.0)), ("right", (2.5, 0.0), (2.5, 4.0)),
    ("back", (-1.5, -1.5), (2.5, -1.5)), ("front", (-1.5, 5.5), (2.5, 5.5)),
])  # fmt: skip
def test_a_door_of_any_wall_has_its_way(wall, along, across):
    # The room is 6 by 8 m, the snare 3 m from the left wall and 2 m from the back one.
    at = 2.8 if wall in ("back", "front") else 3.5
    door = Door(wall=wall, at_m=at, width_m=1.0)
    layout = START.model_copy(update={"room": ROOM.model_copy(update={"doors": (door,)})})
    assert doors_crossed(layout, (*along, 0.5), across) == [wall]
    inward = {"left": (1, 0), "right": (-1, 0), "back": (0, 1), "front": (0, -1)}[wall]
    off = [tuple(c + 1.0 * i for c, i in zip(p, inward, strict=True)) for p in (along, across)]
    assert doors_crossed(layout, (*off[0], 0.5), off[1]) == []


def test_care_of_one_mic_is_told_with_it_and_of_two_is_not():
    port = Port(diameter_m=0.12)
    kick = START.kit.first("kick").model_copy(update={"port": port})
    kit = START.kit.model_copy(
        update={"drums": tuple(kick if d.kind == "kick" else d for d in START.kit.drums)}
    )
    front = np.array(reference_point(kick.model_copy(update={"reference": "front"})))
    out = front - 0.15 * np.array(kick.axis)
    locker = LOCKER.model_copy(
        update={"mics": (*LOCKER.mics, MicModel(id="frail", name="Frail", fragile=True))}
    )
    layout = with_each(
        START.model_copy(update={"kit": kit}),
        {"KO": {"model": "frail", "position_m": tuple(out.tolist())},
         "OL": {"model": "pen"}, "OR": {"model": "frail"}},
    )  # fmt: skip
    of = {j.mics[0].row.id: " ".join(j.cautions) for j in jobs(layout, locker=locker)}
    assert "KO: the Frail stands in the air jet" in of["KO"]
    assert "different mics" not in of["OL"] + of["OR"]


def test_the_way_in_front_of_a_door_ends():
    layout = START.model_copy(update={"room": ROOM})
    # Both legs 1.3 m off the wall pass in front of it; the way is 1.2 m deep.
    x = -3.0 + WAY_M
    assert doors_crossed(layout, (x + 0.1, 0.0, 0.5), (x + 0.1, 4.0)) == []
    assert doors_crossed(layout, (x - 0.1, 0.0, 0.5), (x - 0.1, 4.0)) == ["left"]
