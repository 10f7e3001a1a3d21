"""The set-up sheet: page, PDF and table say the same, in the chosen units."""

import csv
import io
import json
import re
from pathlib import Path

import pytest
from jobs.working import work_on
from sheets.units import length_text

from tests.server.test_layouts import doc_of, save

CASES = json.loads((Path(__file__).parents[1] / "length_cases.json").read_text())


@pytest.mark.parametrize("case", CASES, ids=lambda c: str(c["metres"]))
def test_lengths_are_worded_as_the_shared_table_says(case):
    assert length_text(case["metres"], "cm") == case["cm"] + " cm"
    assert length_text(case["metres"], "ft-in") == case["ft-in"]
    assert length_text(case["metres"], "hand") == case["hand"]


def table(api, pk, units):
    _, body = api("GET", f"/layouts/{pk}/sheet.csv?units={units}")
    return {r["Mic"]: r for r in csv.DictReader(io.StringIO(body.decode()))}


def test_csv_has_a_row_for_every_input(as_owner, layout):
    rows = table(as_owner, layout.pk, "cm")
    assert len(rows) == 10
    assert rows["OL"]["To snare"] == rows["OR"]["To snare"] == "127.1 cm"
    assert rows["KI"]["Where"].startswith("inside, 20.0 cm from the batter")
    assert table(as_owner, layout.pk, "ft-in")["OL"]["To snare"] == "4′ 2″"


def test_page_shows_flips_and_decisions_and_escapes_names(as_owner, layout):
    _, out = as_owner("GET", f"/layouts/{layout.pk}")
    doc = out["doc"]
    doc["channels"][3]["preamp_flip"] = True
    doc["mics"][3]["name"] = "<script>x</script>"
    doc["mics"][4]["name"] = "=1+1"
    doc["decisions"] = [{"a": "OL", "b": "OR", "source": "kick", "reason": "KI carries it"}]
    save = {"version": out["version"], "what": "w", "doc": doc}
    assert as_owner("PUT", f"/layouts/{layout.pk}", save)[0] == 200
    page = as_owner("GET", f"/layouts/{layout.pk}/sheet")[1].decode()
    assert "flip at the preamp" in page
    assert "KI carries it" in page
    assert "<script>x" not in page
    assert "&lt;script&gt;x" in page
    assert "nobody underneath" in page  # care for people
    assert table(as_owner, layout.pk, "cm")["T1"]["Name"] == "'=1+1"


def test_page_says_who_left_a_pair_when_and_that_it_has_changed_since(as_owner, layout):
    _, out = as_owner("GET", f"/layouts/{layout.pk}")
    doc = out["doc"]
    stood = {"verdict": "together", "delay_s": 0.0, "body_db": 6.0}
    left = {"a": "OL", "b": "OR", "source": "kick", "reason": "KI carries it", "stood": stood}
    doc["decisions"] = [left]
    doc["channels"][9]["track_delay_samples"] = 7
    save = {"version": out["version"], "what": "w", "doc": doc}
    at = as_owner("PUT", f"/layouts/{layout.pk}", save)[1]["doc"]["decisions"][0]["at"]
    page = as_owner("GET", f"/layouts/{layout.pk}/sheet")[1].decode()
    assert f"(owner, {at[:10]})" in page
    assert "It was together when it was left; now it is late. Look again." in page
    assert "track delayed by 7 samples" in table(as_owner, layout.pk, "cm")["OR"]["Flips"]


def test_one_mic_and_its_track_are_counted_as_one_and_no_pairs_are_headed(as_owner, layout):
    out = as_owner("GET", f"/layouts/{layout.pk}")[1]
    gone = [m["id"] for m in out["doc"]["mics"] if m["id"] != "OL"]
    edit = {"layout": out["doc"], "edit": {"do": "remove-mics", "mics": gone}}
    save = {
        "version": out["version"],
        "what": "w",
        "doc": as_owner("POST", "/edit", edit)[1]["layout"],
    }
    assert as_owner("PUT", f"/layouts/{layout.pk}", save)[0] == 200
    page = as_owner("GET", f"/layouts/{layout.pk}/sheet")[1].decode()
    assert "· 1 mic ·" in page
    assert "<h2>Pairs</h2>" not in page
    assert "<p>1 track in" in as_owner("GET", f"/layouts/{layout.pk}/inputs")[1].decode()


def track_of(doc, name):
    return next(c for c in doc["channels"] if c["id"] == name)


def printed(api, layout, paper="A4"):
    """The job of a sheet, done by a worker where it was not done yet."""
    job = api("POST", f"/layouts/{layout.pk}/pdf?paper={paper}")[1]
    if job["state"] == "waiting":
        work_on(job["id"])
    return api("GET", f"/prints/{job['id']}")[1]


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
def test_a_sheet_is_printed_once_until_something_of_it_changes(as_owner, layout):
    first = printed(as_owner, layout)
    assert (first["state"], first["progress"]) == ("done", 1.0)
    assert printed(as_owner, layout) == first
    out = as_owner("GET", f"/layouts/{layout.pk}")[1]
    out["doc"]["mics"][0]["name"] = "Kick, well inside"
    save = {"version": out["version"], "what": "w", "doc": out["doc"]}
    as_owner("PUT", f"/layouts/{layout.pk}", save)
    assert printed(as_owner, layout)["id"] != first["id"]


def test_a_sheet_called_off_is_not_printed_and_can_be_asked_for_again(as_owner, layout):
    job = as_owner("POST", f"/layouts/{layout.pk}/pdf")[1]
    assert as_owner("DELETE", f"/prints/{job['id']}")[1]["state"] == "cancelled"
    work_on(job["id"])
    assert as_owner("GET", f"/prints/{job['id']}/sheet.pdf")[0] == 404
    again = as_owner("POST", f"/layouts/{layout.pk}/pdf")[1]
    assert (again["id"], again["state"]) == (job["id"], "waiting")


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
@pytest.mark.parametrize(("paper", "size"), [("A4", (842, 595)), ("Letter", (792, 612))])
def test_pdf_is_on_the_chosen_paper_and_names_every_mic(as_owner, layout, paper, size):
    from pypdf import PdfReader

    job = printed(as_owner, layout, paper)
    reader = PdfReader(io.BytesIO(as_owner("GET", f"/prints/{job['id']}/sheet.pdf")[1]))
    box = reader.pages[0].mediabox
    assert (round(float(box.width)), round(float(box.height))) == size
    text = "".join(p.extract_text() for p in reader.pages)
    for mic in layout.doc().mics:
        assert mic.id in text
    assert "127.1 cm" in text
    assert len(reader.pages) == 1


def test_the_sheet_names_mics_and_stands_of_the_locker(as_owner, owner, layout):
    studio = owner.studios.get().pk
    locker = {
        "mics": [
            {"id": "slate", "name": "Slate condenser", "max_spl_db": 136.0, "pads_db": [10.0]},
            {"id": "hot", "name": "Hot", "max_spl_db": 120.0, "pads_db": [10.0, 20.0]},
        ],
        "stands": [{"id": "tall", "name": "Tall boom"}],
        "inputs": [
            {"id": "wall", "name": "Wall box", "count": 4},
            {"id": "spare", "name": "Spare box", "count": 32},
            {"id": "shelf", "name": "On the shelf"},
        ],
        "cables": [
            {"id": "c10", "name": "Black", "length_m": 10.0, "count": 2},
            {"id": "c6", "name": "6 m blue", "length_m": 6.0, "count": 1},
        ],
    }
    as_owner("PUT", f"/studios/{studio}/locker", {"version": 1, "locker": locker})
    found = as_owner("GET", f"/layouts/{layout.pk}")[1]
    for mic in found["doc"]["mics"]:
        if mic["id"] in ("OL", "OR"):
            mic.update(model="slate", stand="tall")
        elif mic["id"] == "KI":
            mic.update(model="gone")
        elif mic["id"] == "SB":
            mic.update(model="hot")
            track_of(found["doc"], "SB").update(low_cut_hz=80.0)
    save = {"version": found["version"], "what": "chose mics", "doc": found["doc"]}
    found["doc"]["boxes"] = [{"bank": "wall", "position_m": [-2.0, 0.0]}]
    plugged = {c["mic"]: c["input"] for c in found["doc"]["channels"]}
    assert as_owner("PUT", f"/layouts/{layout.pk}", save)[0] == 200
    rows = table(as_owner, layout.pk, "cm")
    assert rows["OL"]["Pattern"] == "Slate condenser, cardioid"
    assert rows["OL"]["Height"] == "174.0 cm on Tall boom"
    assert rows["KI"]["Pattern"] == "gone, cardioid"
    assert rows["ST"]["Pattern"] == "cardioid"
    assert rows["SB"]["Pattern"] == "Hot, cardioid, low cut 80 Hz, 20 dB pad in"
    page = as_owner("GET", f"/layouts/{layout.pk}/sheet")[1].decode()
    assert "2 Slate condenser: OL, OR" in page
    assert "2 Tall boom: OL, OR" in page
    assert "1 gone: KI" in page
    near = [m for m, n in plugged.items() if n <= 4]
    assert len(near) == 4
    assert f"Wall box, 4 of 4 inputs used; Spare box, {len(plugged) - 4} of 32" in page
    assert "On the shelf" not in page
    # Two metres to the box and one up the stand want more than 6 m for some, and three cables are
    # not four.
    assert "1 × 6 m blue: " in page
    assert "2 × Black (10 m): " in page
    assert "no cable left that reaches: " in page
    assert f"{len(plugged) - 4} more cables: " in page


def test_paper_holds_so_many_decisions_and_says_how_many_more(as_owner, layout, monkeypatch):
    from sheets import page

    monkeypatch.setattr(page, "MOST_DECISIONS", 2)
    doc, version = doc_of(as_owner, layout.pk)
    rows = [{"a": "OL", "b": "OR", "source": "snare", "reason": f"reason {n}"} for n in range(5)]
    save(as_owner, layout.pk, version, {**doc, "decisions": rows})
    told = as_owner.client.get(f"/api/layouts/{layout.pk}/sheet").content.decode()
    assert "reason 1" in told
    assert "reason 2" not in told
    assert "and 3 more, in the layout file" in told


def test_the_list_of_inputs_says_what_is_patched_where_and_switched(as_owner, owner, layout):
    studio = owner.studios.get().pk
    locker = {
        "mics": [
            {"id": "hot", "name": "Hot", "phantom": True, "max_spl_db": 120.0, "pads_db": [20.0],
             "sensitivity_mv_pa": 1.0},
            {"id": "tough", "name": "=Tough", "kind": "moving-coil", "max_spl_db": 160.0},
        ],
        "inputs": [
            {"id": "a", "name": "Box", "count": 2},
            {"id": "b", "name": "Rack", "count": 4, "full_scale_dbu": 20.0},
        ],
    }  # fmt: skip
    as_owner("PUT", f"/studios/{studio}/locker", {"version": 1, "locker": locker})
    found = as_owner("GET", f"/layouts/{layout.pk}")[1]
    by_name = {m["id"]: m for m in found["doc"]["mics"]}
    for mic in by_name.values():
        mic.update(model=None, stand=None)
    by_name["SB"].update(model="hot", stand="low")
    by_name["ST"].update(model="tough")
    tracks = {n: track_of(found["doc"], n) for n in ("ST", "SB", "KI")}
    tracks["SB"].update(input=4, low_cut_hz=80.0, preamp_flip=True, pan=-20.0)
    tracks["ST"].update(input=2, name="Snare bottom", pad_db=10.0)
    tracks["KI"].update(input=7)
    copy = {**tracks["KI"], "id": "KI.2", "name": "Kick crushed", "input": None, "crush": {}}
    found["doc"]["channels"] = [*tracks.values(), copy]
    save = {"version": found["version"], "what": "patched", "doc": found["doc"]}
    assert as_owner("PUT", f"/layouts/{layout.pk}", save)[0] == 200
    body = as_owner("GET", f"/layouts/{layout.pk}/inputs.csv")[1].decode()
    rows = list(csv.reader(io.StringIO(body)))
    assert rows[1:] == [
        ["1", "2", "Snare bottom", "ST", "'=Tough", "cardioid", "Box", "2", "off", "", "10", "",
         "", "", "", "", ""],
        ["2", "4", "Snare bottom", "SB", "Hot", "cardioid", "Rack", "2", "on", "20", "", "47", "80",
         "", "flip at the preamp", "low", ""],
        ["3", "7", "Kick in", "KI", "", "cardioid", "", "", "", "", "", "", "", "", "", "", ""],
        ["4", "", "Kick crushed", "KI", "", "cardioid", "", "", "", "", "", "", "", "yes", "", "",
         "Kick in"],
    ]  # fmt: skip
    names = as_owner("GET", f"/layouts/{layout.pk}/tracks.txt")[1].decode()
    assert names == "Snare bottom ST\nSnare bottom SB\nKick in\nKick crushed\n"
    page = as_owner("GET", f"/layouts/{layout.pk}/labels?width=30")[1].decode()
    assert re.findall(r"<b>(\d+)</b> ([^<]+)", page) == [
        ("2", "Snare bottom ST"), ("4", "Snare bottom SB"), ("7", "Kick in"),
    ]  # fmt: skip
    assert 'class="labels w30"' in page
    assert as_owner("GET", f"/layouts/{layout.pk}/labels?width=31")[0] == 422


def test_labels_without_inputs_say_what_to_do(as_owner, layout):
    found = as_owner("GET", f"/layouts/{layout.pk}")[1]
    for track in found["doc"]["channels"]:
        track.update(input=None)
    save = {"version": found["version"], "what": "unpatched", "doc": found["doc"]}
    assert as_owner("PUT", f"/layouts/{layout.pk}", save)[0] == 200
    page = as_owner("GET", f"/layouts/{layout.pk}/labels")[1].decode()
    assert "No track has an input yet" in page
    names = as_owner("GET", f"/layouts/{layout.pk}/tracks.txt")[1].decode().splitlines()
    assert len(names) == len(found["doc"]["mics"])


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
def test_the_list_of_inputs_alone_is_a_page_and_a_pdf(as_owner, layout):
    from pypdf import PdfReader

    doc, version = doc_of(as_owner, layout.pk)
    doc["channels"][4].update(name="<b>Rack</b>", pan=-30.0)
    doc["channels"].append({**doc["channels"][0], "id": "KI.2", "name": "Kick crushed",
                            "input": None, "crush": {}})  # fmt: skip
    assert save(as_owner, layout.pk, version, doc)[0] == 200
    page = as_owner("GET", f"/layouts/{layout.pk}/inputs?paper=Letter")[1].decode()
    assert "11 tracks in the order of recording" in page
    assert "&lt;b&gt;Rack&lt;/b&gt;" in page
    assert "Compressed" in page  # one track is
    assert "Low cut" not in page  # none has
    job = as_owner("POST", f"/layouts/{layout.pk}/pdf?what=inputs")[1]
    work_on(job["id"])
    reader = PdfReader(io.BytesIO(as_owner("GET", f"/prints/{job['id']}/sheet.pdf")[1]))
    text = "".join(p.extract_text() for p in reader.pages)
    assert "Kick crushed" in text
    assert len(reader.pages) == 1
    assert as_owner.last.headers["Content-Disposition"].endswith('-inputs.pdf"')
    # The set-up sheet says where a track is panned and what a mic is split into.
    rows = table(as_owner, layout.pk, "cm")
    assert rows["T1"]["Flips"] == "panned to 30 % left"
    assert rows["KI"]["Flips"] == "split: Kick crushed"
