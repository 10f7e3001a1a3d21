"""Saving, undoing, copying: nothing is overwritten and nothing is lost."""

import copy
import io
import json

from ringside.files.layout import write_layout
from ringside.places.starts import starting_layout
from ringside.plan.layout import VERSION

from tests.server.conftest import Api


def doc_of(api, pk):
    _, out = api("GET", f"/layouts/{pk}")
    return out["doc"], out["version"]


def moved(doc, by=0.1, mic="OR"):
    new = copy.deepcopy(doc)
    next(m for m in new["mics"] if m["id"] == mic)["position_m"][0] += by
    return new


def save(api, pk, version, doc, what="Moved OR"):
    return api("PUT", f"/layouts/{pk}", {"version": version, "what": what, "doc": doc})


def test_a_save_counts_up_and_is_there_again(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    status, out = save(as_owner, layout.pk, version, moved(doc))
    assert (status, out["version"], out["can_undo"]) == (200, version + 1, True)
    again, _ = doc_of(as_owner, layout.pk)
    assert again == moved(doc)


def test_an_old_version_is_answered_with_both_and_nothing_is_written(as_owner, member, layout):
    doc, version = doc_of(as_owner, layout.pk)
    other = Api(member)
    assert save(other, layout.pk, version, moved(doc, 0.3, "OL"), "Moved OL")[0] == 200
    status, problem = save(as_owner, layout.pk, version, moved(doc))
    assert status == 409
    assert problem["current"]["doc"] == moved(doc, 0.3, "OL")
    assert problem["current"]["saved_by"] == "member"
    assert {c["what"] for c in problem["changes"]} == {"OL", "OR"}
    assert doc_of(as_owner, layout.pk)[0] == moved(doc, 0.3, "OL")
    status, kept = as_owner(
        "POST", f"/layouts/{layout.pk}/copy", {"name": "Mine", "doc": moved(doc)}
    )
    assert status == 201
    assert kept["doc"]["mics"] == moved(doc)["mics"]


def test_undo_and_redo_walk_through_every_state(as_owner, layout):
    first, version = doc_of(as_owner, layout.pk)
    second, third = moved(first, 0.1), moved(first, 0.2)
    for state in (second, third):
        version = save(as_owner, layout.pk, version, state)[1]["version"]
    seen = []
    for way in ("undo", "undo", "redo", "redo"):
        status, out = as_owner("POST", f"/layouts/{layout.pk}/{way}", {"version": version})
        assert status == 200
        version = out["version"]
        seen.append(out["doc"])
    assert seen == [second, first, second, third]
    status, problem = as_owner("POST", f"/layouts/{layout.pk}/redo", {"version": version})
    assert (status, problem["title"]) == (400, "Nothing to do")


def test_an_edit_after_undo_takes_the_place_of_what_was_undone(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    version = save(as_owner, layout.pk, version, moved(doc, 0.1))[1]["version"]
    version = as_owner("POST", f"/layouts/{layout.pk}/undo", {"version": version})[1]["version"]
    out = save(as_owner, layout.pk, version, moved(doc, 0.5))[1]
    assert not out["can_redo"]
    assert out["can_undo"]


def test_undo_against_an_old_version_is_a_conflict_too(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    save(as_owner, layout.pk, version, moved(doc))
    assert as_owner("POST", f"/layouts/{layout.pk}/undo", {"version": version})[0] == 409


def test_a_decision_is_signed_by_the_server_not_the_browser(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    key = {"a": "OL", "b": "OR", "source": "kick"}
    forged = {**key, "reason": "Kick comes from KI", "by": "somebody else", "at": "1999"}
    doc["decisions"] = [forged]
    _, out = save(as_owner, layout.pk, version, doc)
    signed = out["doc"]["decisions"][0]
    assert signed["by"] == "owner"
    assert signed["at"].startswith("20")
    _, later = save(as_owner, layout.pk, out["version"], moved(out["doc"]))
    assert later["doc"]["decisions"][0] == signed
    _, sessions = as_owner("GET", "/sessions")
    assert sessions[0]["layouts"][0]["summary"]["counts"]["left_on_purpose"] == 1


def test_a_bad_layout_is_refused_with_its_place_and_nothing_changes(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    bad = moved(doc)
    bad["mics"][3]["position_m"][2] = 170
    status, problem = save(as_owner, layout.pk, version, bad)
    assert status == 422
    assert problem["place"].endswith("doc.mics[3].position_m[2]")
    assert "given in cm?" in problem["detail"]
    assert doc_of(as_owner, layout.pk) == (doc, version)


def test_deleted_things_come_back(as_owner, session, layout):
    assert as_owner("DELETE", f"/layouts/{layout.pk}")[0] == 204
    assert as_owner("GET", f"/layouts/{layout.pk}")[0] == 404
    assert as_owner("POST", f"/layouts/{layout.pk}/restore")[0] == 200
    assert as_owner("DELETE", f"/sessions/{session.pk}")[0] == 204
    assert as_owner("GET", "/sessions")[1] == []
    assert as_owner("GET", f"/layouts/{layout.pk}")[0] == 404
    assert as_owner("POST", f"/sessions/{session.pk}/restore")[0] == 200
    assert len(as_owner("GET", "/sessions")[1]) == 1


def test_a_copied_session_is_its_own(as_owner, session, layout):
    status, out = as_owner("POST", f"/sessions/{session.pk}/copy")
    assert (status, out["name"]) == (201, "Day one (copy)")
    doc, version = doc_of(as_owner, out["layouts"][0]["id"])
    save(as_owner, out["layouts"][0]["id"], version, moved(doc))
    assert doc_of(as_owner, layout.pk)[0] == doc


def test_another_layout_begins_from_a_kit_and_a_start(as_owner, session):
    new = {"name": "Layout N", "kit": "left-handed five-piece", "start": "turned pair"}
    status, out = as_owner("POST", f"/sessions/{session.pk}/layouts", new)
    assert (status, out["doc"]["name"]) == (201, "Layout N")
    assert out["doc"]["kit"]["name"] == "Left-handed five-piece"
    assert len(as_owner("GET", "/sessions")[1][0]["layouts"]) == 2


def test_rename(as_owner, session):
    new = {"name": "Day two", "place": "Hall"}
    out = as_owner("PATCH", f"/sessions/{session.pk}", new)[1]
    assert (out["name"], out["place"]) == ("Day two", "Hall")


def upload(api, data):
    file = io.BytesIO(data)
    file.name = "x.json"
    answer = api.client.post("/api/sessions/upload", {"file": file})
    return answer.status_code, answer.json()


def test_a_layout_file_goes_out_and_comes_in_as_a_new_session(as_owner, layout):
    status, data = as_owner("GET", f"/layouts/{layout.pk}/file")
    assert status == 200
    assert as_owner.last["Content-Disposition"].endswith('day-one-layout-a.layout.json"')
    status, out = upload(as_owner, json.dumps(data).encode())
    assert status == 201
    assert doc_of(as_owner, out["layouts"][0]["id"])[0] == doc_of(as_owner, layout.pk)[0]


def test_a_bad_file_says_where_and_why_and_changes_nothing(as_owner, session):
    text = write_layout(starting_layout("four-piece", "square pair"))
    status, problem = upload(as_owner, text.replace('"cardioid"', '"cardiod"', 1).encode())
    assert (status, problem["place"]) == (400, "mics[0].pattern")
    assert "cardiod" in problem["detail"]
    assert upload(as_owner, b"[" * 100_000)[0] == 400
    assert len(as_owner("GET", "/sessions")[1]) == 1


def test_starts_offer_the_studios_own_kits_and_rooms(as_owner, owner):
    studio = owner.studios.get()
    box = {"name": "Hall", "width_m": 6, "length_m": 8, "height_m": 3, "kit_x_m": 3, "kit_y_m": 2}
    room = studio.rooms.create(name="Hall", box=box)
    kit = starting_layout("four-piece", "empty").kit
    studio.kits.create(name="Ours", doc=kit.model_dump(mode="json"))
    starts = as_owner("GET", "/sessions/starts")[1]
    assert starts["own_kits"] == ["Ours"]
    assert starts["rooms"] == [{"id": room.pk, "name": "Hall"}]
    new = {"name": "S", "kit": "Ours", "start": "turned pair", "room_id": room.pk}
    status, out = as_owner("POST", "/sessions", new)
    assert status == 201
    doc = doc_of(as_owner, out["layouts"][0]["id"])[0]
    assert doc["room"]["name"] == "Hall"
    assert doc["kit"]["name"] == "Four-piece"
    assert as_owner("POST", "/sessions", {**new, "kit": "nine-piece"})[0] == 400


def as_version_1(doc):
    """A state as a program before channels stored it: what is of the way stood at the mics."""
    old = copy.deepcopy(doc)
    tracks = {c["mic"]: c for c in old.pop("channels")}
    for field in ("boxes", "options", "balances", "current"):
        del old[field]
    for mic in old["mics"]:
        del mic["pad_db"]
        way = tracks[mic["id"]]
        mic["channel"] = way["input"]
        for field in ("preamp_flip", "track_flip", "track_delay_samples", "low_cut_hz", "pan"):
            mic[field] = way[field]
    old["thresholds"] = {"carried_db": 9.5, "hollow_gain_db": 3.0}
    return {**old, "version": 1}


def test_undo_and_redo_go_across_versions_of_the_format(as_owner, layout):
    # What stands in the table is of the program before; the next save is of this one.
    doc, version = doc_of(as_owner, layout.pk)
    doc["channels"][3]["preamp_flip"] = True
    doc["channels"][5].update(pan=-30.0, low_cut_hz=80.0, track_delay_samples=7)
    _, out = save(as_owner, layout.pk, version, doc, "Flipped SB")
    for revision in layout.revisions.all():
        revision.doc = as_version_1(revision.doc)
        revision.save()
    now, version = doc_of(as_owner, layout.pk)
    assert now == out["doc"]
    now["channels"].append({**now["channels"][0], "id": "KI.2", "input": None})
    status, out = save(as_owner, layout.pk, version, now, "Split KI")
    assert status == 200
    flipped = []
    for _ in range(2):
        status, out = as_owner("POST", f"/layouts/{layout.pk}/undo", {"version": out["version"]})
        assert status == 200
        assert out["doc"]["version"] == VERSION
        flipped.append([c["id"] for c in out["doc"]["channels"] if c["preamp_flip"]])
    assert flipped == [["SB"], []]
    for _ in range(2):
        status, out = as_owner("POST", f"/layouts/{layout.pk}/redo", {"version": out["version"]})
    assert out["doc"]["channels"][-1]["id"] == "KI.2"
    assert out["doc"]["channels"][5]["pan"] == -30.0


def test_a_page_opened_before_the_format_changed_is_understood_once_more(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    old = as_version_1(moved(doc))
    status, out = save(as_owner, layout.pk, version, old)
    assert status == 200
    assert (out["doc"]["version"], len(out["doc"]["channels"])) == (VERSION, len(doc["mics"]))
    status, board = as_owner("POST", "/compute", {"layout": old})
    assert status == 200
    assert board["balance"] is None
    edit = {"layout": old, "edit": {"do": "flip", "mics": ["SB"]}}
    assert as_owner("POST", "/edit", edit)[1]["words"] == "Flipped SB at the preamp"
    old["mics"][2]["preamp_flip"] = "yes"
    status, told = as_owner("POST", "/compute", {"layout": old})
    assert status == 422
    assert "mics[2].preamp_flip" in told["detail"]
