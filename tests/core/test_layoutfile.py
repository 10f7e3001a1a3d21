"""The layout file: reads back what it wrote, refuses the rest with the place and the reason."""

import copy
import json
import subprocess
import sys
from pathlib import Path

import jsonschema
import pytest
from ringside.errors import LayoutFileError
from ringside.files.layout import read_layout, write_layout
from ringside.places.starts import starting_layout

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
    (("version",), 2, "version: expected 1, got 2"),
    (("format",), "other", "format: expected 'ringside-layout'"),
    (("mics", 3, "position_m", 1), "12", "mics[3].position_m[1]: expected a number, got \"12\""),
    (("mics", 3, "position_m", 2), 170, "mics[3].position_m[2]: expected at most 100, got 170"
     " metres; given in cm?"),
    (("mics", 0, "pattern"), "cardiod", "mics[0].pattern: "),
    (("mics", 0, "aim"), [0, 0, 0], "mics[0].aim: expected a direction"),
    (("mics", 0, "preamp_flip"), 1, "mics[0].preamp_flip: expected true or false, got 1"),
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
    (json.dumps(GOOD).replace("0.66", "1" * 5000, 1), "too many digits"),
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
    from ringside.plan.layout import Layout

    assert {k: v for k, v in SCHEMA.items() if k not in ("$id", "$schema")} == (
        Layout.model_json_schema()
    )


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
