"""Nothing is done twice, nothing is forged, and what cannot be read stands beside the rest."""

import io
import json
import uuid

import pytest
from plans import upkeep
from plans.models import Layout, LugLog, Revision, SpotLog
from ringside.files.layout import read_layout, write_layout
from ringside.pairs.analysis import analyse
from ringside.pairs.counts import RULES, counts
from studios.models import Kit, Locker, Room

from tests.server.conftest import PASSWORD, Api
from tests.server.test_layouts import doc_of, moved

BAD_TEXTS = ["a\x00b", "\ud800", "turned \u202ename", "bell\x07"]


def key():
    return str(uuid.uuid4())


def save(api, pk, version, doc, name=None, what="Moved OR"):
    data = {"version": version, "what": what, "doc": doc, "key": name}
    return api("PUT", f"/layouts/{pk}", data)


def test_a_save_whose_answer_was_lost_is_found_and_not_done_twice(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    name = key()
    first = save(as_owner, layout.pk, version, moved(doc), name)
    again = save(as_owner, layout.pk, version, moved(doc), name)
    assert (first[0], again[0]) == (200, 200)
    assert again[1]["version"] == first[1]["version"] == version + 1
    assert again[1]["head_key"] == name
    assert Revision.objects.filter(layout=layout).count() == 2


def test_a_save_found_again_after_another_shows_the_other(as_owner, member, layout):
    doc, version = doc_of(as_owner, layout.pk)
    mine, theirs = key(), key()
    save(as_owner, layout.pk, version, moved(doc, 0.1), mine)
    save(Api(member), layout.pk, version + 1, moved(doc, 0.2), theirs)
    status, out = save(as_owner, layout.pk, version, moved(doc, 0.1), mine)
    assert (status, out["version"], out["head_key"]) == (200, version + 2, theirs)
    assert out["doc"] == moved(doc, 0.2)


@pytest.mark.parametrize(("way", "left"), [("undo", 1), ("redo", 3)])
def test_a_step_whose_answer_was_lost_is_not_taken_twice(as_owner, layout, way, left):
    doc, version = doc_of(as_owner, layout.pk)
    for n in (1, 2):
        version = save(as_owner, layout.pk, version, moved(doc, n / 10))[1]["version"]
    if way == "redo":
        version = as_owner("POST", f"/layouts/{layout.pk}/undo", {"version": version})[1]["version"]
    else:
        left = 2
    asked = {"version": version, "key": key()}
    for _ in range(3):
        status, out = as_owner("POST", f"/layouts/{layout.pk}/{way}", asked)
        assert (status, out["version"]) == (200, version + 1)
    assert Layout.objects.get(pk=layout.pk).head == left


def test_what_happened_is_written_once_and_struck_out_not_deleted(as_owner, owner, session):
    lugs = {"drum": "snare", "lugs_hz": [190.0, 192.0], "key": key()}
    spot = {"room": "Store", "x_m": 1.0, "y_m": 2.0, "rating": 4, "key": key()}
    for _ in range(2):
        assert as_owner("POST", f"/sessions/{session.pk}/lugs", lugs)[0] == 201
        assert as_owner("POST", f"/sessions/{session.pk}/spots", spot)[0] == 201
    assert (LugLog.objects.count(), SpotLog.objects.count()) == (1, 1)
    for kind, model in (("lugs", LugLog), ("spots", SpotLog)):
        row = model.objects.get()
        for _ in range(2):
            assert as_owner("DELETE", f"/sessions/{session.pk}/{kind}/{row.pk}")[0] == 204
        row.refresh_from_db()
        assert row.struck_by == owner
    assert as_owner("GET", f"/sessions/{session.pk}/spots")[1] == []


@pytest.mark.parametrize("text", BAD_TEXTS)
def test_text_that_cannot_be_kept_is_refused_with_its_place(as_owner, session, layout, text):
    doc, version = doc_of(as_owner, layout.pk)
    doc["mics"][0]["name"] = text
    asked = [
        ("POST", "/sessions", {"name": text, "kit": "five-piece", "start": "empty"}, "name"),
        ("PUT", f"/layouts/{layout.pk}", {"version": version, "what": "x", "doc": doc},
         "doc.mics[0].name"),
        ("POST", f"/sessions/{session.pk}/spots",
         {"room": "S", "x_m": 1, "y_m": 1, "rating": 1, "words": text}, "words"),
    ]  # fmt: skip
    for method, path, data, place in asked:
        status, told = as_owner(method, path, data)
        assert (status, told["place"]) == (422, place)
        assert "expected plain text" in told["detail"]
    file = io.BytesIO(json.dumps(doc).encode())
    file.name = "x.json"
    assert as_owner.client.post("/api/sessions/upload", {"file": file}).status_code == 400


@pytest.mark.parametrize("text", BAD_TEXTS)
@pytest.mark.parametrize("path", ["sign-in", "sign-up"])
def test_a_strangers_unfit_text_is_refused_at_the_door(db, path, text):
    api = Api()
    api.client.get("/")
    api.client.cookies["csrftoken"] = "x" * 32
    data = {"username": text, "password": PASSWORD}
    data |= {"studio": "Mine"} if path == "sign-up" else {}
    assert api("POST", f"/account/{path}", data)[0] == 422


def test_a_drum_by_no_possible_name_is_refused_in_a_lug_reading(as_owner, session):
    data = {"drum": '"a b"', "lugs_hz": [200.0]}
    status, told = as_owner("POST", f"/sessions/{session.pk}/lugs", data)
    assert (status, told["place"]) == (422, "drum")


def decided(doc, by="Somebody else", at="1999-01-01"):
    row = {"a": "OL", "b": "OR", "source": "snare", "reason": "wide on purpose", "by": by, "at": at}
    return {**doc, "decisions": [row]}


def test_nobody_forges_who_decided(as_owner, owner, member, layout):
    doc, version = doc_of(as_owner, layout.pk)
    _, out = save(as_owner, layout.pk, version, decided(doc))
    first = out["doc"]["decisions"][0]
    assert first["by"] == "owner"
    assert first["at"] > "2020"
    # Saved on by another with other names in it: who decided stays who decided.
    _, out = save(Api(member), layout.pk, out["version"], decided(moved(doc)))
    assert out["doc"]["decisions"][0] == first
    copied = {"name": "Copy", "doc": decided(doc)}
    _, copy = Api(member)("POST", f"/layouts/{layout.pk}/copy", copied)
    assert copy["doc"]["decisions"][0] == first
    file = io.BytesIO(json.dumps(decided(doc)).encode())
    file.name = "x.json"
    made = Api(member).client.post("/api/sessions/upload", {"file": file}).json()
    got = Layout.objects.get(pk=made["layouts"][0]["id"]).doc().decisions[0]
    assert got.by == "member"
    assert got.at > "2020"


def spoil(layout):
    state = layout.state
    state.doc = {**state.doc, "version": 99}
    state.save()


def test_what_cannot_be_read_is_shown_beside_the_others_and_can_be_carried_away(
    as_owner, owner, session, layout
):
    spoil(layout)
    Layout.objects.filter(pk=layout.pk).update(summary={"odd": 1}, rules=0)
    status, rows = as_owner("GET", "/sessions")
    assert status == 200
    assert rows[0]["layouts"][0]["summary"] is None
    assert "counted anew" in rows[0]["layouts"][0]["why_not"]
    assert upkeep.renew_some() == 1
    _, rows = as_owner("GET", "/sessions")
    assert "expected 1 or 2 or 3, got 99" in rows[0]["layouts"][0]["why_not"]
    status, told = as_owner("GET", f"/layouts/{layout.pk}")
    assert (status, told["title"]) == (400, "Cannot be read")
    raw = as_owner.client.get(f"/api/layouts/{layout.pk}/file")
    assert json.loads(raw.content)["version"] == 99
    assert as_owner("POST", f"/sessions/{session.pk}/copy")[0] == 201


def test_a_hand_a_room_a_kit_and_a_locker_that_cannot_be_read_close_no_door(
    as_owner, owner, session, layout
):
    studio = owner.studios.get()
    owner.hand = {"format": "ringside-hand", "version": 7}
    owner.save()
    Room.objects.create(studio=studio, name="Odd room", box={"version": 9})
    Kit.objects.create(studio=studio, name="Odd kit", doc={"drums": 3})
    Locker.objects.update_or_create(studio=studio, defaults={"doc": {"mics": "no"}})
    status, me = as_owner("GET", "/account/me")
    assert status == 200
    assert "cannot be read" in me["hand_fault"]
    for kind in ("rooms", "kits"):
        _, rows = as_owner("GET", f"/studios/{studio.pk}/{kind}")
        assert rows[-1][kind[:-1]] is None
        assert "cannot be read" in rows[-1]["why_not"]
    status, told = as_owner("GET", f"/studios/{studio.pk}/locker")
    assert (status, told["title"]) == (400, "Cannot be read")
    doc, _ = doc_of(as_owner, layout.pk)
    take = {"layout": doc, "technique": "one-front"}
    assert as_owner("POST", f"/layouts/{layout.pk}/take", take)[0] == 200


def test_summaries_of_older_rules_are_made_anew(as_owner, layout):
    doc = layout.doc()
    old = {**layout.summary, "counts": {**layout.summary["counts"], "hollow": 99}}
    Layout.objects.filter(pk=layout.pk).update(summary=old, rules=RULES - 1)
    assert (upkeep.renew_some(), upkeep.renew_some()) == (1, 0)
    fresh = Layout.objects.get(pk=layout.pk)
    assert fresh.summary["counts"]["hollow"] == counts(analyse(doc)).hollow
    assert fresh.version == layout.version


def test_a_layout_file_says_its_version_and_reads_back(layout):
    assert read_layout(write_layout(layout.doc())) == layout.doc()


def kit_of(layout):
    return layout.doc().kit.model_dump(mode="json")


def test_a_reading_belongs_to_the_session_and_is_told_to_its_other_layouts(
    as_owner, owner, member, session, layout
):
    place = f"/sessions/{session.pk}/tape"
    reading = {"a": "snare", "b": "kick", "metres": 0.612, "key": key()}
    for _ in range(2):
        assert as_owner("POST", place, reading)[0] == 201
    Api(member)("POST", place, {"a": "snare", "metres": 0.655})
    Api(member)("POST", place, {"a": "snare", "b": "gone", "metres": 1.0})  # of another kit
    _, rows = as_owner("POST", f"{place}/elsewhere", kit_of(layout))
    told = [(r["a"], r["b"], r["metres"], r["by"]) for r in rows]
    assert told == [("snare", "kick", 0.612, "owner"), ("snare", None, 0.655, "member")]
    readings = [{"a": r["a"], "b": r["b"], "metres": r["metres"]} for r in rows]
    doc, _ = doc_of(as_owner, layout.pk)
    edit = {"layout": doc, "edit": {"do": "readings", "readings": readings}}
    status, made = as_owner("POST", "/edit", edit)
    assert (status, made["words"]) == (200, "Took in 2 readings")
    kept = {(r["a"], r["b"]): r["metres"] for r in made["layout"]["kit"]["readings"]}
    assert kept == {("snare", "kick"): 0.612, ("snare", None): 0.655}
    assert as_owner("POST", f"{place}/elsewhere", made["layout"]["kit"])[1] == []


def test_a_struck_reading_stays_in_the_log_and_is_offered_no_more(as_owner, session, layout):
    place = f"/sessions/{session.pk}/tape"
    as_owner("POST", place, {"a": "snare", "b": "kick", "metres": 0.612})
    for _ in range(2):
        assert as_owner("POST", f"{place}/strike", {"a": "kick", "b": "snare"})[0] == 204
    assert as_owner("POST", f"{place}/elsewhere", kit_of(layout))[1] == []
    _, rows = as_owner("GET", place)
    assert [(r["metres"], r["struck_at"] is not None) for r in rows] == [(0.612, True)]


def test_only_the_newest_reading_between_two_ends_counts(as_owner, session, layout):
    place = f"/sessions/{session.pk}/tape"
    for a, b, metres in (("snare", "kick", 0.6), ("kick", "snare", 0.7)):
        as_owner("POST", place, {"a": a, "b": b, "metres": metres})
    _, rows = as_owner("POST", f"{place}/elsewhere", kit_of(layout))
    assert [r["metres"] for r in rows] == [0.7]
