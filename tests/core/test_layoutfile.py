"""The layout file: reads back what it wrote, refuses the rest with the place and the reason."""

import copy
import json
import subprocess
import sys
from pathlib import Path

import jsonschema
import pytest
from ringside.answers.report import report
from ringside.errors import LayoutFileError
from ringside.files.layout import layout_schema, read_layout, write_layout
from ringside.pairs.analysis import analyse
from ringside.places.kitplace import kit_words
from ringside.places.starts import starting_layout
from ringside.plan.room import Notch, Room

ROOT = Path(__file__).resolve().parents[2]
GOOD = json.loads(write_layout(starting_layout("five-piece", "turned pair")))
SCHEMA = json.loads((ROOT / "docs/formats/layout.schema.json").read_text())


def changed(path, value):
    data = copy.deepcopy(GOOD)
    here = data
    for step in path[:-1]:
        here = here[step]
    if value is None:
        del here[path[-1]]
    else:
        here[path[-1]] = value
    return data


BAD = [
    (("version",), 4, "version: expected 1 or 2 or 3, got 4"),
    (("format",), "other", "format: expected 'ringside-layout'"),
    (("mics", 3, "position_m", 1), "12", "mics[3].position_m[1]: expected a number, got \"12\""),
    (("mics", 3, "position_m", 2), 170, "mics[3].position_m[2]: expected at most 100, got 170"
     " metres; given in cm?"),
    (("mics", 0, "pattern"), "cardiod", "mics[0].pattern: "),
    (("mics", 0, "aim"), [0, 0, 0], "mics[0].aim: expected a direction"),
    (("channels", 0, "preamp_flip"), 1, "channels[0].preamp_flip: expected true or false, got 1"),
    (("mics", 0, "job"), "gong", "mic 'KI' is put up for 'gong', which is not in the kit"),
    (("mics", 1, "id"), "KI", "two mics are called 'KI'; rename one"),
    (("mics", 1, "colour"), "red", "mics[1].colour: not a field of this format"),
    (("kit", "drums", 0, "diameter_m"), -0.3, "kit.drums[0].diameter_m: expected at least 0.1"),
    (("kit", "drums", 0, "depth_m"), None, "kit.drums[0].depth_m: missing"),
    (("kit", "drums"), [], "expected a snare among the drums"),
    (("kit", "cymbals", 0, "id"), "snare", "two drums or cymbals are called 'snare'"),
    (("air", "temperature_c"), 68, "air.temperature_c: expected at most 50, got 68"),
    (("sample_rate_hz",), 44000, "sample_rate_hz: "),
    (("stereo_pairs", 0, "right"), "XX", "names mic 'XX', which is not in the layout"),
    (("stereo_pairs", 0, "right"), "OL", "names 'OL' twice"),
]  # fmt: skip


@pytest.mark.parametrize(("path", "value", "message"), BAD)
def test_a_fault_is_named_with_its_place(path, value, message):
    with pytest.raises(LayoutFileError) as caught:
        read_layout(json.dumps(changed(path, value)))
    assert message in str(caught.value)


RAW = [
    ("not json", "line 1, column 1: not JSON"),
    ("[" * 900_000, "nested too deep"),
    ("x" * 1_000_001, "larger than"),
    ("[]", "not a layout file"),
    (b"\xff\xfe{", "not UTF-8"),
    ('{"format": "ringside-layout", "format": 1}', "format: the same field is given twice"),
    (json.dumps(GOOD).replace("0.66", "NaN", 1), "expected a finite number"),
    (json.dumps(GOOD).replace("0.66", "1e999", 1), "expected a finite number"),
    (json.dumps(GOOD).replace("0.66", "1" * 5000, 1), "a number of at most 400 digits"),
]


@pytest.mark.parametrize(("text", "message"), RAW, ids=[m for _, m in RAW])
def test_what_is_no_layout_file_at_all_is_refused(text, message):
    with pytest.raises(LayoutFileError) as caught:
        read_layout(text)
    assert message in str(caught.value)


@pytest.mark.parametrize("kit", ["four-piece", "left-handed five-piece"])
def test_round_trip_is_exact(kit):
    layout = starting_layout(kit, "square pair")
    assert read_layout(write_layout(layout)) == layout


def test_published_schema_is_that_of_the_code():
    assert {k: v for k, v in SCHEMA.items() if k not in ("$id", "$schema")} == layout_schema()


@pytest.mark.parametrize("field", ["format", "version", "name", "kit"])
def test_the_schema_requires_what_the_program_requires(field):
    less = {k: v for k, v in GOOD.items() if k != field}
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(less, SCHEMA)
    with pytest.raises(LayoutFileError):
        read_layout(json.dumps(less))


def test_an_outside_validator_agrees_on_good_and_bad():
    jsonschema.validate(GOOD, SCHEMA)
    for path, value, _ in (BAD[2], BAD[3], BAD[4], BAD[9], BAD[10], BAD[11], BAD[14]):
        with pytest.raises(jsonschema.ValidationError):
            jsonschema.validate(changed(path, value), SCHEMA)


def run(path):
    return subprocess.run(
        [sys.executable, "-m", "ringside", str(path)],
        capture_output=True, text=True, cwd=ROOT / "core", check=False,
    )  # fmt: skip


@pytest.mark.parametrize(
    "demo", sorted((ROOT / "demo").glob("*.layout.json")), ids=lambda p: p.name
)
def test_analyse_prints_a_documented_report_of_every_demo_layout(demo):
    done = run(demo)
    assert done.returncode == 0, done.stderr
    found = json.loads(done.stdout)
    documented = (ROOT / "docs/formats/report.md").read_text()
    rows = [found, *(found[key][0] for key in ("sources", "arrivals", "pairs", "rings"))]
    missing = [key for row in rows for key in row if f"`{key}`" not in documented]
    assert missing == []


def test_analyse_of_a_bad_file_exits_2_with_one_line_and_the_place(tmp_path):
    bad = tmp_path / "bad.json"
    bad.write_text(json.dumps(changed(("mics", 3, "position_m", 1), "12")))
    done = run(bad)
    assert done.returncode == 2
    assert done.stdout == ""
    assert done.stderr.count("\n") == 1
    assert "mics[3].position_m[1]" in done.stderr
    assert run(tmp_path / "none.json").returncode == 2


LONG = "9" * 5000


@pytest.mark.parametrize(("path", "message"), [
    (("mics", 0, "position_m", 0), "mics[0].position_m[0]: expected a number of at most 400 digits,"
     " got one of 5000"),
    (("kit", "drums", 1, "diameter_m"), "kit.drums[1].diameter_m: expected a number of at most"),
    (("version",), "version: expected a number of at most 400 digits, got one of 5000"),
])  # fmt: skip
def test_a_number_of_five_thousand_digits_is_told_with_its_place(path, message):
    text = json.dumps(changed(path, "HERE")).replace('"HERE"', LONG)
    with pytest.raises(LayoutFileError) as caught:
        read_layout(text)
    assert message in str(caught.value)


TWO = [{"id": "snare", "at_m": [0, 0, 0.6]}, {"id": "snare", "at_m": [0, 0, 0.7]}]
TAKEN = {"id": "t", "technique": "pair-turned", "mics": ["OL", "ZZ"]}


@pytest.mark.parametrize(("path", "value", "message"), [
    (("version",), True, "version: expected 1 or 2 or 3, got true"),
    (("order",), ["XX"], "order: names 'XX', which is not in the layout"),
    (("order",), ["OL", "KI", "OL"], "order: names 'OL' twice"),
    (("techniques",), [TAKEN], "techniques: technique 't' names mic 'ZZ'"),
    (("techniques",), [{**TAKEN, "mics": []}], "techniques[0].mics: expected at least 1 of them"),
    (("techniques",), [{**TAKEN, "mics": ["OL"], "numbers": {"width": 1e300}}],
     "techniques[0].numbers.width: expected at most 1e+06, got 1e+300"),
    (("mics", 0, "position_m", 0), 1e300, "mics[0].position_m[0]: expected at most 100, got"),
    (("kit", "drums", 1, "damping"), ["ring", "ring"], "kit.drums[1].damping: has 'ring' twice"),
    (("kit", "drawn"), TWO, "kit.drawn: gives the place of 'snare' twice"),
    (("mics", 0, "position_m"), [0.1] * 9, "mics[0].position_m: expected at most 3 of them, got 9"),
    (("mics", 0, "id"), "a b", "mics[0].id: expected one word of up to 16 letters"),
    (("mics", 0, "role"), "spot", "mics[0].role: expected 'close', 'overhead' or 'room', got"),
    (("mics", 0, "name"), "", "mics[0].name: expected at least 1 letters"),
])  # fmt: skip
def test_what_cannot_be_meant_is_refused_with_its_place(path, value, message):
    with pytest.raises(LayoutFileError) as caught:
        read_layout(json.dumps(changed(path, value)))
    assert message in str(caught.value)


PLACES = [
    ("mics",), ("kit",), ("room",), ("air",), ("name",), ("thresholds",), ("mics", 0),
    ("kit", "drums"), ("kit", "drums", 0), ("mics", 0, "aim"), ("mics", 0, "locks"),
    ("sample_rate_hz",), ("stereo_pairs",), ("decisions",), ("brief",),
]  # fmt: skip
JARGON = ("tuple", "string should", "input should", "pattern '", "dict", "valid ")


@pytest.mark.parametrize("path", PLACES)
def test_no_message_is_in_a_developers_language(path):
    said = []
    for value in (7, "x", [], {}, [[]], True, {"x": 1}, [1], ["x"], -1e9, "x" * 900):
        try:
            read_layout(json.dumps(changed((*path,), value)))
        except LayoutFileError as fault:
            said.append(str(fault).lower())
    assert said
    assert not [words for words in said if any(j in words for j in JARGON)]


def test_what_was_let_in_before_is_put_right_in_what_is_kept():
    from ringside.files.stored import LAYOUT

    old = changed(("order",), ["OL", "XX", "OL"])
    old["kit"]["drums"][1]["damping"] = ["ring", "ring"]
    old["kit"]["drawn"] = TWO
    mended = LAYOUT.unpack(old, kept=True)
    assert mended.order == ("OL",)
    assert mended.kit.drums[1].damping == ("ring",)
    assert mended.kit.drawn[0].at_m == (0, 0, 0.6)


@pytest.mark.parametrize(("change", "said"), [
    ({}, []),
    ({"drum": -1.0}, ["Snare reaches under the floor: look at the height."]),
    ({"cymbal": -0.2}, ["Hats reaches under the floor: look at the height."]),
    ({"room": (9.5, 2.0)}, ["The kit stands outside the room, beyond the right wall: move it in."]),
    ({"room": (2.0, 9.0)}, ["The kit stands outside the room, beyond the front wall: move it in."]),
    ({"room": (0.5, 7.5)}, ["The kit stands in the corner that the room leaves out: move it in."]),
    ({"room": (2.0, 2.0)}, []),
])  # fmt: skip
def test_a_kit_that_cannot_stand_there_is_told_as_such(change, said):
    layout = read_layout(json.dumps(GOOD))
    kit = layout.kit
    if "drum" in change:
        snare = kit.first("snare")
        low = snare.model_copy(update={"batter_m": (0, 0, change["drum"])})
        kit = kit.model_copy(update={"drums": tuple(low if d is snare else d for d in kit.drums)})
    if "cymbal" in change:
        first = kit.cymbals[0].model_copy(update={"centre_m": (-0.4, 0.2, change["cymbal"])})
        kit = kit.model_copy(update={"cymbals": (first, *kit.cymbals[1:])})
    room = None
    if "room" in change:
        x, y = change["room"]
        notch = Notch(corner="front left", width_m=2.0, length_m=2.0)
        room = Room(name="L", width_m=8.0, length_m=8.0, height_m=3.0, kit_x_m=x, kit_y_m=y,
                    notch=notch)  # fmt: skip
    there = layout.model_copy(update={"kit": kit, "room": room})
    assert kit_words(there) == said
    assert report(analyse(there)).kit == said
