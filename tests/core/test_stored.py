"""What is kept for years: every version ever written is read, and unfit text never gets in."""

import json
from dataclasses import asdict
from pathlib import Path

import pytest
from ringside.errors import LayoutFileError
from ringside.files.layout import layout_from, read_layout
from ringside.files.locker import read_locker
from ringside.files.stored import HAND, KINDS, KIT, LAYOUT, Kind
from ringside.gear.locker import Locker
from ringside.pairs.analysis import analyse
from ringside.pairs.counts import RULES, counts
from ringside.plain import fault_of, first_fault, suspect
from ringside.plan.handsizes import HandSizes

VERSIONS = Path(__file__).parent / "versions"


def sample(kind, version):
    return json.loads(
        (VERSIONS / f"{kind.format.removeprefix('ringside-')}-{version}.json").read_text()
    )


EVERY = [(kind, v) for kind in KINDS for v in range(kind.first, kind.version + 1)]


@pytest.mark.parametrize(("kind", "version"), EVERY)
def test_every_version_ever_written_is_read(kind, version):
    record = kind.unpack(sample(kind, version))
    packed = kind.pack(record)
    assert kind.unpack(packed) == record
    assert_holds(packed, sample(kind, kind.version))


def assert_holds(now, then):
    """Everything that was written is there; what a record has gained since has its default."""
    if isinstance(then, dict):
        assert then.keys() <= now.keys()
        for key, value in then.items():
            assert_holds(now[key], value)
    elif isinstance(then, list):
        assert len(now) == len(then)
        for one, other in zip(now, then, strict=True):
            assert_holds(one, other)
    else:
        assert now == then


def test_a_step_is_taken_from_each_version_to_the_next():
    def fists(old):
        return {**old, "fist_m": old["fist_m"] + 0.01}

    def hands(old):
        return {**old, "hand_m": old["fist_m"] + 0.1}

    newer = Kind("ringside-hand", HandSizes, 2, 0, (fists, hands))
    assert newer.unpack({"fist_m": 0.1}).hand_m == pytest.approx(0.21)
    one = newer.unpack({"format": "ringside-hand", "version": 1, "fist_m": 0.1})
    assert (one.fist_m, one.hand_m) == (0.1, pytest.approx(0.2))
    two = newer.unpack({"format": "ringside-hand", "version": 2, "fist_m": 0.1})
    assert (two.fist_m, two.hand_m) == (0.1, HandSizes().hand_m)


@pytest.mark.parametrize(
    ("change", "place"),
    [
        ({"version": 2}, "version"), ({"version": -1}, "version"), ({"version": True}, "version"),
        ({"version": "1"}, "version"), ({"format": "ringside-kit"}, "format"),
        ({"fist_m": 3.0}, "fist_m"), ({"thumb_m": 0.02}, "thumb_m"),
    ],
)  # fmt: skip
def test_what_cannot_be_read_says_where(change, place):
    with pytest.raises(LayoutFileError) as told:
        HAND.unpack({**HAND.pack(HandSizes()), **change})
    assert told.value.place == place


@pytest.mark.parametrize("value", [None, 3, "kit", []])
def test_what_is_no_object_is_refused(value):
    with pytest.raises(LayoutFileError, match="expected an object"):
        KIT.unpack(value)


GOOD = ["", "Tom, 12 in", "line\nand line", "a\ttab", "Ångström ♭ 𝄞", "\u200fmark", "\u2065"]
BAD = {
    "\x00": "U+0000", "\x08": "U+0008", "\x0b": "U+000B", "\x1f": "U+001F", "\x7f": "U+007F",
    "\x9f": "U+009F", "\u202a": "U+202A", "\u202e": "U+202E", "\u2066": "U+2066",
    "\u2069": "U+2069", chr(0xD800): "U+D800", chr(0xDFFF): "U+DFFF",
}  # fmt: skip


@pytest.mark.parametrize("text", GOOD)
def test_ordinary_text_of_any_language_is_kept(text):
    assert fault_of(text) is None


@pytest.mark.parametrize("char", BAD)
def test_what_no_database_or_reader_can_keep_is_refused_with_its_place(char):
    assert f"{BAD[char]}) at letter 3" in fault_of(f"ab{char}c")
    at, words = first_fault({"mics": [{"name": "good"}, {"name": f"x{char}"}]})
    assert at == ("mics", 1, "name")
    assert BAD[char] in words
    assert first_fault({"a": {f"k{char}": 1}})[0] == ("a",)


@pytest.mark.parametrize("char", BAD)
@pytest.mark.parametrize("escaped", [True, False])
def test_the_quick_look_never_misses_one(char, escaped):
    if not escaped and (ord(char) >= 0xD800 and ord(char) <= 0xDFFF):
        return  # no UTF-8 holds it
    text = json.dumps({"name": f"ab{char}c"}, ensure_ascii=escaped)
    assert suspect(text.encode())
    assert suspect(text.upper().replace("\\U", "\\u").encode()) or "\\u" not in text


@pytest.mark.parametrize("text", GOOD)
def test_the_quick_look_passes_ordinary_text(text):
    assert not suspect(json.dumps({"name": text}, ensure_ascii=False).encode())


def test_the_first_fault_in_reading_order_is_told():
    assert first_fault({"a": ["x", "\x00"], "b": "\x01"})[0] == ("a", 1)


def test_a_file_nested_without_end_is_refused():
    deep = "x"
    for _ in range(200):
        deep = [deep]
    assert "deep" in first_fault(deep)[1]


def test_a_layout_file_with_unfit_text_is_refused_whole_with_the_place():
    value = sample(LAYOUT, 1)
    value["mics"][1]["name"] = "Over\u202ehead"
    with pytest.raises(LayoutFileError) as told:
        layout_from(value)
    assert told.value.place == "mics[1].name"
    with pytest.raises(LayoutFileError, match="half a character"):
        read_layout(json.dumps({**sample(LAYOUT, 1), "notes": "\ud800"}))


def test_a_row_of_the_locker_with_unfit_text_is_left_out_with_its_place():
    rows = "what,id,name,kind\nmic,c1,Small\x01 one,condenser\nmic,c2,Small two,condenser\n"
    locker, faults = read_locker(rows, Locker())
    assert "c1" not in [m.id for m in locker.mics]
    assert (faults[0].line, faults[0].column) == (2, "name")
    assert "U+0001" in faults[0].words


def test_verdicts_that_change_are_of_other_rules():
    """What the lists show is made anew only when `RULES` is counted up: it must not be forgotten.

    The counts are this program's own, written down when the rules were last counted up.
    """
    kept = json.loads((Path(__file__).parent / "rules.json").read_text())
    told = kept[str(RULES)]
    assert str(RULES + 1) not in kept
    for name, wanted in told.items():
        (file,) = (VERSIONS.parents[2] / "demo").glob(f"{name}.layout.json")
        assert asdict(counts(analyse(read_layout(file.read_text())))) == wanted, name
