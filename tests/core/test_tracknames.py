"""Files named as people name them (common practice), each taken for the channel it is of."""

from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_tracks
from ringside.plan.layout import Layout
from ringside.takes.files import Track
from ringside.takes.matching import matched
from ringside.takes.tracknames import spoken
from ringside.techniques.taking import take

FIVE = with_tracks(starting_layout("five-piece", "turned pair"))
SIX = with_tracks(starting_layout("six-piece", "square pair"))


def track(name: str) -> Track:
    return Track(f"{name}.wav", Path(f"{name}.wav"), 0, 1, 48_000, 100, 0, False, "WAV", "PCM_24")


def told(layout: Layout, *names: str) -> list[str | None]:
    return [m.channel for m in matched([track(n) for n in names], layout)]


@pytest.mark.parametrize(
    ("name", "channel"),
    [
        ("KickIn", "KI"),
        ("kickin", "KI"),
        ("K In", "KI"),
        ("KickInMic", "KI"),
        ("Kick_Inside_01", "KI"),
        ("01 KIK IN", "KI"),
        ("K Out", "KO"),
        ("BD outside", "KO"),
        ("Bass Drum Out", "KO"),
        ("01_Bass_Drum_In_02", "KI"),
        ("BassDrumOut", "KO"),
        ("03_Hi_Hat", "HH"),
        ("SNR TOP", "ST"),
        ("snaretop", "ST"),
        ("SnTop_02", "ST"),
        ("SN_Btm", "SB"),
        ("Snare Under", "SB"),
        ("SnareBot-03", "SB"),
        ("Tom1", "T1"),
        ("Tom 2", "T2"),
        ("TOM_02", "T2"),
        ("Tom3", "FT"),
        ("T2_take4", "T2"),
        ("Rack Tom 1", "T1"),
        ("Hi Tom", "T1"),
        ("Mid Tom", "T2"),
        ("Low Tom", "FT"),
        ("Low Floor", "FT"),
        ("Lo Rack", "T2"),
        ("Tom 12", "T1"),  # inches
        ("Tom 13", "T2"),
        ("Floor_02", "FT"),
        ("Tom 16", "FT"),
        ("Flr Tom", "FT"),
        ("FloorTom", "FT"),
        ("Floor", "FT"),
        ("Hi-Hat", "HH"),
        ("HiHat_01", "HH"),
        ("Hat", "HH"),
        ("OHL", "OL"),
        ("OH_R", "OR"),
        ("OH-Left", "OL"),
        ("Overhead R", "OR"),
        ("ovh l", "OL"),
        ("OH 2", "OR"),
    ],
)
def test_a_name_of_the_trade_is_the_channel_it_means(name, channel):
    assert told(FIVE, name, "Mystery", "Other") == [channel, None, None]


@pytest.mark.parametrize(
    "name",
    [
        "Kick",  # in or out
        "Snare Verb",
        "Kick Trig",
        "Drum Bus",
        "Kick Snare",  # of two drums
        "Tom",
        "Overheads",
        "Room L",  # there is none
        "Ride",  # has no mic of its own
        "Snare shell",
        "Tom 4",
        "Mid Rack",  # of two
        "Gtr In",
        "Vox",
    ],
)
def test_what_may_be_two_or_none_is_left_for_somebody_to_say(name):
    assert told(FIVE, name, "Hat") == [None, "HH"]


@settings(max_examples=60, deadline=None, database=None, derandomize=True)
@given(st.lists(st.text(max_size=40), min_size=1, max_size=4))
def test_no_name_is_a_fault_and_no_channel_is_given_twice(names):
    names = [n.replace("/", "").replace("\0", "") or "x" for n in names]
    found = [c for c in told(FIVE, *dict.fromkeys(names)) if c]
    assert len(found) == len(set(found))
    assert set(found) <= {c.id for c in FIVE.channels}


def test_a_whole_session_is_matched_whatever_its_order():
    names = ["OH R", "OH L", "Hat", "Floor", "Tom2", "Tom1", "Snare", "Sn Btm", "Kick", "Kick In"]
    want = ["OR", "OL", "HH", "FT", "T2", "T1", "ST", "SB", "KO", "KI"]
    assert told(FIVE, *names) == want
    assert told(FIVE, *names[::-1]) == want[::-1]


def test_a_name_that_meant_two_is_told_as_what_is_left():
    """A plain name beside one that is said in full: likely, and for somebody to look at."""
    got = matched([track(n) for n in ("Kick", "Kick Out", "Snare", "Tom 1")], FIVE)
    assert [(m.channel, m.by) for m in got] == [
        ("KI", "left"), ("KO", "name"), ("ST", "name"), ("T1", "name"),
    ]  # fmt: skip
    # One that means one alone is taken for it before what is left is given away.
    got = matched([track(n) for n in ("Kick", "KickIn")], FIVE)
    assert [(m.channel, m.by) for m in got] == [("KO", "left"), ("KI", "name")]


def test_a_plain_snare_is_the_mic_over_its_head():
    assert told(FIVE, "Snare", "Mystery") == ["ST", None]


def test_one_channel_of_a_drum_is_not_its_other_end():
    layout = FIVE.model_copy(
        update={"channels": tuple(
            c.model_copy(update={"name": "Snare"}) if c.id == "ST" else c
            for c in FIVE.channels if c.id != "SB"
        )}
    )  # fmt: skip
    assert told(layout, "Snare Bot", "Snare Top", "Mystery") == [None, "ST", None]


def renamed(layout: Layout, **names: str) -> Layout:
    """Mics and their channels by other names."""
    mics = [m.model_copy(update={"name": names.get(m.id, m.name)}) for m in layout.mics]
    tracks = [c.model_copy(update={"name": names.get(c.mic, c.name)}) for c in layout.channels]
    return layout.model_copy(update={"mics": tuple(mics), "channels": tuple(tracks)})


def test_where_a_mic_stands_tells_what_its_name_does_not():
    layout = renamed(FIVE, ST="Depth", SB="Wires", OL="Over A", OR="Over B")
    names = ["Snare Bot", "Snare Top", "OH L", "OH R"]
    assert told(layout, *names) == ["SB", "ST", "OL", "OR"]


def test_a_mid_and_its_side_are_no_left_and_right():
    coded = FIVE.stereo_pairs[0].model_copy(update={"coding": "mid-side"})
    layout = renamed(FIVE, OL="Mid", OR="Side").model_copy(update={"stereo_pairs": (coded,)})
    assert told(layout, "OH L", "Side") == [None, "OR"]


def test_a_mic_that_is_more_than_the_name_says_is_still_that_mic():
    layout = renamed(FIVE, KO="Kick sub")
    assert told(layout, "Kick Out", "Mystery") == ["KO", None]
    assert told(layout, "KickSub", "Mystery") == ["KO", None]


def test_of_two_crashes_and_of_toms_by_size_the_number_tells():
    first, *rest = (c for c in FIVE.kit.cymbals if c.kind == "crash")
    second = (rest or [first.model_copy(update={"id": "crash-9", "name": "Crash 9"})])[0]
    cymbals = (*(c for c in FIVE.kit.cymbals if c.id not in (first.id, second.id)), first, second)
    drums = tuple(
        d.model_copy(update={"diameter_m": 8 * 0.0254}) if d.id == "rack-1" else d
        for d in FIVE.kit.drums
    )
    more = [
        FIVE.mic("HH").model_copy(update={"id": f"C{n}", "name": f"Edge {n}", "job": c.id})
        for n, c in enumerate((first, second), 1)
    ]
    kit = FIVE.kit.model_copy(update={"cymbals": cymbals, "drums": drums})
    layout = with_tracks(FIVE.model_copy(update={"kit": kit, "mics": (*FIVE.mics, *more)}))
    assert told(layout, "Crash 2", "Crash 1", "Mystery") == ["C2", "C1", None]
    assert told(layout, "Crash", "Tom 8", "Mystery") == [None, "T1", None]


def test_of_several_floor_toms_the_number_tells():
    kit = SIX.kit
    floors = [d for d in kit.drums if d.kind == "floor"]
    want = next(c.id for c in SIX.channels if SIX.mic(c.mic).job == floors[-1].id)
    racks = len([d for d in kit.drums if d.kind == "rack"])
    number = racks + len(floors)
    assert told(SIX, f"Tom {number}", "Mystery") == [want, None]
    assert told(SIX, f"Floor {len(floors)}", "Mystery") == [want, None]


def test_rooms_are_told_by_side_and_by_their_own_words():
    layout = take(take(FIVE, "room-far-high", None).layout, "room-bar", None).layout
    names = ["Room L", "Rm R", "Room Far L", "Amb far R", "Mystery"]
    assert told(layout, *names) == ["RL", "RR", "HL", "HR", None]
    # A far pair and a wide one, and the name says neither.
    two = take(take(FIVE, "room-far-high", None).layout, "room-omnis", None).layout
    assert told(two, "Amb L", "Wide room R") == [None, "WR"]


def test_numbers_in_front_count_only_where_names_bear_them_out():
    # A bass on track 2 is not the kick's outer mic because that is the second channel.
    assert told(FIVE, "05 Kick In", "02 Bass", "09 Snare Top") == ["KI", None, "ST"]
    assert told(FIVE, "01 Kick In", "02", "03 Snare Top") == ["KI", "KO", "ST"]


@pytest.mark.parametrize(
    ("name", "what", "number", "where", "side"),
    [
        ("Tom_01", "tom", 1, set(), ""),
        ("Snare_01", "snare", None, set(), ""),
        ("Snare 2", "snare", 2, set(), ""),
        ("Kick Out 3", "kick", None, {"out"}, ""),
        ("OHs", "overhead", None, set(), ""),
        ("Tom ²", "tom", None, set(), ""),
        ("RoomR", "room", None, set(), "right"),
        ("Hi Hat L", "hats", None, set(), "left"),
    ],
)
def test_what_a_name_says(name, what, number, where, side):
    said = spoken(name)
    assert (said.what, said.number, set(said.where), said.side) == (what, number, where, side)
