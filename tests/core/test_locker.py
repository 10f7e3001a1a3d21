"""The locker: what runs out, and its CSV."""

import csv
import io

import pytest
from ringside.errors import RingsideError
from ringside.files.locker import LOCKER_COLUMNS, read_locker, write_locker
from ringside.gear.airjet import in_jet
from ringside.gear.locker import CableKind, InputBank, Locker, MicModel, StandModel
from ringside.gear.stock import stock
from ringside.places.starts import starting_layout
from ringside.plan.kit import Port

from tests.core.tracks import with_each

START = starting_layout("five-piece", "square pair")
PENCIL = MicModel(id="pencil", name="Small condenser", phantom=True, count=2, cost=8.0)
BARREL = MicModel(id="barrel", name="Barrel dynamic", kind="moving-coil", count=4)
LONG = MicModel(
    id="long", name="Long ribbon", kind="ribbon", patterns=("figure-8",), fragile=True, count=1
)
LOCKER = Locker(
    mics=(PENCIL, BARREL, LONG),
    stands=(
        StandModel(id="boom", name="Boom stand", low_m=0.9, high_m=1.6, reach_m=0.8, count=3),
        StandModel(id="short", name="Short stand", low_m=0.3, high_m=0.6, reach_m=0.4, count=2),
    ),
    inputs=(InputBank(id="box", name="Stage box", count=8),
            InputBank(id="rack", name="Rack", count=4, phantom="bank")),
    cables=(CableKind(id="c6", name="6 m", count=16),),
)  # fmt: skip


def using(**mics):
    """The start with fields of some mics and their channels changed."""
    return with_each(START, mics)


def words(layout, locker=LOCKER, kind=None):
    return [r.words for r in stock(layout, locker).lacks if kind in (None, r.kind)]


def test_nothing_named_nothing_short():
    assert words(START) == []
    assert stock(START, LOCKER).used.inputs == (10, 12)


def test_mics_run_out():
    three = {i: {"model": "pencil"} for i in ("OL", "OR", "HH")}
    assert words(using(**three)) == ["1 Small condenser short: 3 wanted, 2 there."]
    assert stock(using(**three), LOCKER).used.mics == (3, 7)


def test_stands_run_out_and_reach():
    four = {i: {"stand": "boom"} for i in ("OL", "OR", "HH", "T1")}
    assert "1 Boom stand short: 4 wanted, 3 there." in words(using(**four))
    low = using(OL={"stand": "short"})
    assert words(low) == ["OL: too high for the Short stand, boom and all."]
    high = using(KO={"stand": "boom", "position_m": (0.3, 0.8, 0.05)})
    assert words(high) == ["KO: too low for the Boom stand."]


def test_a_pattern_the_mic_does_not_have():
    assert words(using(OL={"model": "long"}), kind="mics") == [
        "OL: the Long ribbon cannot be set to cardioid; it does figure-8."
    ]


def test_inputs_run_out_and_are_taken_twice():
    twice = using(OL={"input": 1})
    assert words(twice) == ["Input 1 is taken by KI and OL."]
    assert words(using(OR={"input": 13})) == ["1 input short: there are 12."]


def test_phantom_where_there_is_none_and_on_a_ribbons_bank():
    none = LOCKER.model_copy(
        update={"inputs": (InputBank(id="old", name="Old desk", count=16, phantom="none"),)}
    )
    assert words(using(OL={"model": "pencil"}), none) == [
        "OL wants phantom, and Old desk has none."
    ]
    # Inputs 9 to 12 are the rack, whose phantom is one switch.
    both = using(
        OL={"model": "pencil", "input": 9},
        OR={"model": "long", "input": 10, "pattern": "figure-8"},
    )
    assert any("OR is a ribbon on Rack" in w for w in words(both, kind="phantom"))
    alone = using(OR={"model": "long", "input": 10, "pattern": "figure-8"})
    assert words(alone, kind="phantom") == []


def test_unlike_mics_in_a_stereo_pair():
    assert any(
        "wants two alike" in w
        for w in words(using(OL={"model": "pencil"}, OR={"model": "barrel"}), kind="care")
    )


def test_a_fragile_mic_in_the_air_of_the_port():
    kick = START.kit.part("kick").model_copy(update={"port": Port(diameter_m=0.13, right_m=0.12)})
    kit = START.kit.model_copy(update={"drums": (kick, *START.kit.drums[1:])})
    front = 0.25 + kick.depth_m
    at = {"position_m": (0.28 + 0.12, front + 0.1, 0.28), "model": "long", "pattern": "figure-8"}
    layout = using(KO=at).model_copy(update={"kit": kit})
    assert words(layout, kind="care") == [
        "KO: the Long ribbon stands in the air jet of the kick's port; move it aside."
    ]
    beside = using(KO={**at, "position_m": (0.28 - 0.12, front + 0.1, 0.28)})
    assert words(beside.model_copy(update={"kit": kit}), kind="care") == []
    assert not in_jet(layout.mic("OL"), layout)


def test_minutes_budget_and_cables():
    tight = LOCKER.model_copy(
        update={"minutes": 30, "budget": 10.0, "cables": (CableKind(id="c", name="C", count=4),)}
    )
    said = words(using(OL={"model": "pencil"}, OR={"model": "pencil"}), tight)
    assert "6 cables short: there are 4." in said
    # Ten mics at six minutes, and eight for cables and lines.
    assert "Setting up takes about 68 minutes; there are 30." in said
    assert "The day costs 16; there is 10." in said


def test_what_is_not_in_the_locker():
    gone = words(using(OL={"model": "lost", "stand": "gone"}))
    assert gone == [
        "OL: 'lost' is not in the locker; choose another mic.",
        "OL: stand 'gone' is not in the locker; choose another.",
    ]


def test_the_csv_reads_back_to_the_same_locker():
    back, faults = read_locker(write_locker(LOCKER), Locker())
    assert faults == []
    assert back == LOCKER


def test_the_csv_is_what_any_reader_of_csv_sees():
    rows = list(csv.DictReader(io.StringIO(write_locker(LOCKER))))
    assert tuple(rows[0]) == LOCKER_COLUMNS
    assert [r["what"] for r in rows] == ["mic"] * 3 + ["stand"] * 2 + ["input"] * 2 + ["cable"]
    assert rows[2]["patterns"] == "figure-8"


def test_a_broken_row_is_named_and_the_rest_is_kept():
    text = "\n".join([
        "what;id;name;count;patterns;high_m",
        "mic;a1;First;2;cardioid;",
        "mic;a2;Second;many;cardioid;",
        "tripod;t;Third;1;;",
        "stand;s1;Stand;3;;22",
        "mic;a3;Last;1;cardioid;omni;",
        "",
        "mic;a4;Good;1;omni;",
    ])  # fmt: skip
    locker, faults = read_locker(text, LOCKER)
    assert [(f.line, f.column) for f in faults] == [(3, "count"), (4, "what"), (5, "high_m")]
    assert faults[0].words == "expected a number, got 'many'"
    assert faults[1].words == "expected one of mic, stand, input, cable, got 'tripod'"
    assert "given in cm?" in faults[2].words
    assert [m.id for m in locker.mics] == ["pencil", "barrel", "long", "a1", "a3", "a4"]
    assert locker.stands == LOCKER.stands


def test_a_row_of_a_known_name_takes_its_place():
    locker, _ = read_locker("what,id,name,count\nmic,pencil,Small condenser,5\n", LOCKER)
    assert locker.mics[0].count == 5
    assert len(locker.mics) == 3


def test_a_text_that_looks_like_a_formula_is_disarmed():
    nasty = Locker(mics=(MicModel(id="x", name="=1+1"),))
    assert "'=1+1" in write_locker(nasty)
    assert read_locker(write_locker(nasty), Locker())[0] == nasty


@pytest.mark.parametrize(
    ("data", "words_"),
    [
        (b"\xff\xfe\x00", "not UTF-8"),
        ("a,b,c\n1,2,3\n", "expected a header line with a column 'what'"),
        ("", "expected a header line"),
        ("x" * 600_000, "larger than"),
    ],
)
def test_a_file_that_is_no_locker(data, words_):
    with pytest.raises(RingsideError, match=words_):
        read_locker(data, LOCKER)


# --- the whole table of lacks --------------------------------------------------------------------


@pytest.mark.parametrize(
    ("phantom", "kind", "wants", "said"),
    [
        ("each", "condenser", True, []),
        ("each", "ribbon", False, []),
        ("bank", "condenser", True, []),
        ("none", "condenser", True, ["phantom"]),
        ("none", "moving-coil", False, []),
        ("none", "ribbon", False, []),
    ],
)
def test_phantom_by_bank_and_mic(phantom, kind, wants, said):
    locker = Locker(
        mics=(MicModel(id="m", name="M", kind=kind, phantom=wants, count=9),),
        inputs=(InputBank(id="b", name="B", count=24, phantom=phantom),),
    )
    layout = using(OL={"model": "m"})
    assert [r.kind for r in stock(layout, locker).lacks] == said


def test_every_lack_names_the_mics_it_is_about():
    layout = using(
        OL={"model": "pencil", "stand": "short"},
        OR={"model": "pencil", "stand": "short"},
        HH={"model": "pencil"},
    )
    for row in stock(layout, LOCKER).lacks:
        assert set(row.mics) <= {m.id for m in layout.mics}
        assert row.words[-1] == "."
        if row.kind == "mics":
            assert set(row.mics) == {"OL", "OR", "HH"}


def test_an_empty_locker_counts_nothing_and_complains_of_nothing():
    found = stock(START, Locker())
    assert found.lacks == []
    assert found.used.stands == (0, 0)
    assert found.cost == 0


@pytest.mark.parametrize(
    ("row", "words_"),
    [
        ("mic,x,X,1,,sometimes", "phantom: expected yes or no, got 'sometimes'"),
        ("mic,x y,X,1,,", "id: expected one word of up to 16 letters"),
        ("mic,,X,1,,", "id: missing; expected a value here"),
        ("mic,x,X,-3,,", "count: expected at least 0, got -3"),
        ("mic,x,X,1,shotgun,", "patterns: expected 'omni', 'wide cardioid'"),
    ],
)
def test_each_kind_of_broken_cell_is_named(row, words_):
    text = f"what,id,name,count,patterns,phantom\n{row}\nmic,good,Good,2,omni,no\n"
    locker, faults = read_locker(text, Locker())
    assert [f.line for f in faults] == [2]
    assert f"{faults[0].column}: {faults[0].words}".startswith(words_)
    assert [m.id for m in locker.mics] == ["good"]


def test_a_file_of_more_than_a_locker_holds_is_read_as_far_as_it_goes():
    rows = "".join(f"mic,m{n},Mic {n},condenser\n" for n in range(10_000))
    locker, faults = read_locker("what,id,name,kind\n" + rows, Locker())
    assert len(locker.mics) == 300
    assert (faults[0].line, faults[0].words) == (302, "a locker holds at most 300 mics")
    assert len(faults) == 9_700
    again, faults = read_locker("what,id,name,kind\nmic,m7,Other,ribbon\n", locker)
    assert (again.mics[7].name, len(again.mics), faults) == ("Other", 300, [])
