"""Limits, queries and upkeep: what must hold as studios and histories grow."""

import io
import json
import time

import pytest
from api.kept import KEPT_S, Kept, kept
from django.contrib.sessions.models import Session as SignIn
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from plans import actions
from plans.models import Layout, Revision, Session
from ringside.files.layout import layout_from, write_layout
from ringside.places.starts import starting_layout
from studios.access import open_studio

from tests.server.conftest import Api
from tests.server.test_layouts import doc_of, moved, save


def queries(work):
    with CaptureQueriesContext(
        connection,
    ) as seen:
        work()
    return len(seen)


def test_the_list_asks_no_more_of_the_database_for_more_sessions(as_owner, owner, session):
    few = queries(lambda: as_owner("GET", "/sessions"))
    for n in range(5):
        actions.make_session(owner, name=f"S{n}", kit="four-piece", start="empty")
    assert len(as_owner("GET", "/sessions")[1]) == 6
    assert queries(lambda: as_owner("GET", "/sessions")) == few


def test_computing_touches_the_database_only_to_know_who_asks(as_owner, layout):
    doc = layout.doc().model_dump(mode="json")
    kept.forget(as_owner.client.session.session_key)
    assert queries(lambda: as_owner("POST", "/compute", {"layout": doc})) <= 2
    assert queries(lambda: as_owner("POST", "/compute", {"layout": doc})) == 0


def test_who_asks_is_kept_for_seconds_and_forgotten_at_the_door(as_owner, layout, monkeypatch):
    ask = ("POST", "/compute", {"layout": layout.doc().model_dump(mode="json")})
    assert as_owner(*ask)[0] == 200
    SignIn.objects.all().delete()  # signed out elsewhere
    assert as_owner(*ask)[0] == 200
    assert as_owner("GET", f"/layouts/{layout.pk}")[0] == 401  # what is stored is asked each time
    now = time.monotonic()
    monkeypatch.setattr(time, "monotonic", lambda: now + KEPT_S + 0.1)
    assert as_owner(*ask)[0] == 401


def test_somebody_who_signs_out_here_is_a_stranger_at_once(as_owner, layout):
    ask = ("POST", "/compute", {"layout": layout.doc().model_dump(mode="json")})
    assert as_owner(*ask)[0] == 200
    cookies = as_owner.client.cookies.copy()
    as_owner("POST", "/account/sign-out")
    as_owner.client.cookies.update(cookies)
    assert as_owner(*ask)[0] == 401


def test_no_more_persons_are_kept_than_there_is_room_for(monkeypatch):
    monkeypatch.setattr("api.kept.MOST", 2)
    few = Kept()
    for name in "abc":
        few.keep(name, 7)
    assert [few.person(name) for name in "abc"] == [None, None, 7]


def test_history_is_kept_to_its_length_and_the_newest_stays(as_owner, layout, monkeypatch):
    monkeypatch.setattr(actions, "KEPT_REVISIONS", 4)
    doc, version = doc_of(as_owner, layout.pk)
    for n in range(1, 9):
        version = save(as_owner, layout.pk, version, moved(doc, n / 100))[1]["version"]
    assert Revision.objects.filter(layout=layout).count() == 4
    back = 0
    while as_owner("POST", f"/layouts/{layout.pk}/undo", {"version": version})[0] == 200:
        version += 1
        back += 1
    assert back == 3
    assert doc_of(as_owner, layout.pk)[0] == moved(doc, 5 / 100)


def test_a_save_is_whole_or_not_at_all(as_owner, layout, monkeypatch):
    doc, version = doc_of(as_owner, layout.pk)

    def broken(_):
        raise RuntimeError("the disk is full")

    monkeypatch.setattr(actions, "summary_of", broken)
    with pytest.raises(RuntimeError):
        save(as_owner, layout.pk, version, moved(doc))
    fresh = Layout.objects.get(pk=layout.pk)
    assert (fresh.version, fresh.head, fresh.revisions.count()) == (1, 1, 1)


def test_two_saves_of_one_version_leave_one_winner(as_owner, member, layout):
    doc, version = doc_of(as_owner, layout.pk)
    first = save(as_owner, layout.pk, version, moved(doc, 0.1))
    second = save(Api(member), layout.pk, version, moved(doc, 0.2))
    assert (first[0], second[0]) == (200, 409)
    assert Revision.objects.filter(layout=layout).count() == 2


def test_a_file_too_large_is_refused_before_it_is_read(as_owner):
    file = io.BytesIO(b" " * 1_000_001)
    file.name = "big.json"
    answer = as_owner.client.post("/api/sessions/upload", {"file": file})
    assert answer.status_code == 400
    assert "larger than" in answer.json()["detail"]


@pytest.mark.parametrize(
    ("body", "status"),
    [(b"{", 400), (b"[]", 422), (b"null", 422), (b'{"layout": 3}', 422), (b"\xff", 400)],
)
def test_a_body_that_is_no_request_is_a_plain_refusal(as_owner, body, status):
    answer = as_owner.client.post("/api/compute", body, content_type="application/json")
    assert answer.status_code == status
    assert answer["Content-Type"].startswith("application/problem+json")
    assert answer.json()["detail"]


@pytest.mark.parametrize(
    "change",
    [{"name": ""}, {"name": "x" * 81}, {"kit": ""}, {"start": "odd pair"}, {"extra": 1},
     {"room_id": "x"}],
)  # fmt: skip
def test_a_session_that_cannot_be_made_is_refused_and_none_is_left(as_owner, change):
    new = {"name": "N", "kit": "four-piece", "start": "empty", **change}
    assert as_owner("POST", "/sessions", new)[0] == 422
    assert as_owner("GET", "/sessions")[1] == []


def test_a_member_of_two_studios_sees_both_and_makes_in_the_one_named(as_owner, owner, session):
    other = open_studio(owner, "Second studio")
    new = {"name": "Elsewhere", "kit": "four-piece", "start": "empty", "studio_id": other.pk}
    assert as_owner("POST", "/sessions", new)[1]["studio"] == "Second studio"
    names = {s["studio"] for s in as_owner("GET", "/sessions")[1]}
    assert names == {"Own studio", "Second studio"}


def test_the_stored_summary_is_that_of_the_stored_layout(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    doc["channels"][3]["preamp_flip"] = True
    save(as_owner, layout.pk, version, doc)
    row = as_owner("GET", "/sessions")[1][0]["layouts"][0]["summary"]
    board = as_owner("GET", f"/layouts/{layout.pk}/analysis")[1]
    assert row["counts"] == board["counts"]
    assert [m["id"] for m in row["mics"]] == board["mic_ids"]


def test_a_downloaded_file_is_what_the_core_would_write(as_owner, layout):
    as_owner("GET", f"/layouts/{layout.pk}/file")
    assert as_owner.last.content.decode() == write_layout(layout.doc())


@pytest.mark.parametrize("name", ['Böse "x"', "../../etc", "a\r\nX-Evil: 1", "…"])
def test_a_strange_name_makes_a_plain_file_name(as_owner, session, layout, name):
    as_owner("PATCH", f"/sessions/{session.pk}", {"name": name})
    as_owner("GET", f"/layouts/{layout.pk}/sheet.csv")
    said = as_owner.last["Content-Disposition"]
    assert said.isascii()
    assert ".." not in said
    assert "X-Evil" not in as_owner.last
    assert said.endswith('layout-a.csv"')


def test_sixty_four_mics_are_taken_and_sixty_five_are_not(as_owner):
    start = starting_layout("five-piece", "square pair").model_dump(mode="json")
    one = start["mics"][0]
    start["mics"] = [{**one, "id": f"M{n}"} for n in range(64)]
    start["stereo_pairs"] = start["channels"] = []
    assert len(layout_from(start).mics) == 64
    assert as_owner("POST", "/compute", {"layout": start})[0] == 200
    start["mics"].append({**one, "id": "M64"})
    status, problem = as_owner("POST", "/compute", {"layout": start})
    assert status == 422
    assert problem["place"] == "layout.mics"


def many(owner, count):
    studio = owner.studios.get()
    made = Session.objects.bulk_create(
        Session(studio=studio, name=f"Day {n}", place="Salt store" if n % 3 else "Boat shed")
        for n in range(count)
    )
    Layout.objects.bulk_create(Layout(session=s, name="Layout A", summary={}) for s in made)
    return made


def test_the_list_comes_a_page_at_a_time_and_nothing_is_shown_twice_or_left_out(as_owner, owner):
    many(owner, 60)
    seen, before = [], ""
    while True:
        _, page = as_owner("GET", f"/sessions?most=25{before}")
        seen += [s["name"] for s in page]
        if len(page) < 25:
            break
        before = f"&before={page[-1]['id']}"
    assert seen == [f"Day {n}" for n in reversed(range(60))]


def test_the_list_is_searched_by_words_of_name_and_place(as_owner, owner):
    many(owner, 30)
    _, found = as_owner("GET", "/sessions?q=boat%20day&most=100")
    assert [s["name"] for s in found] == [f"Day {n}" for n in reversed(range(0, 30, 3))]
    assert as_owner("GET", "/sessions?q=day%2012")[1][0]["name"] == "Day 12"
    assert as_owner("GET", "/sessions?q=zither")[1] == []
    assert as_owner("GET", "/sessions?q=%25")[1] == []  # a sign of the database's, not of ours
    assert as_owner("GET", "/sessions?q=a%00b")[0] == 422
    assert as_owner("GET", f"/sessions?before={2**70}")[0] == 422


def test_a_session_of_many_layouts_shows_the_first_and_says_how_many(as_owner, owner):
    (session,) = many(owner, 1)
    Layout.objects.bulk_create(
        Layout(session=session, name=f"Layout {n}", summary={}) for n in range(40)
    )
    Layout.objects.filter(name="Layout 3").update(deleted_at=timezone.now())
    _, (row,) = as_owner("GET", "/sessions")
    assert [one["name"] for one in row["layouts"][:3]] == ["Layout A", "Layout 0", "Layout 1"]
    assert (len(row["layouts"]), row["layouts_in_all"]) == (12, 40)
    _, whole = as_owner("GET", f"/sessions/{session.pk}")
    assert (len(whole["layouts"]), whole["layouts_in_all"]) == (40, 40)


def test_what_is_read_is_packed_and_what_is_computed_is_not(as_owner, owner, layout):
    many(owner, 5)
    got = as_owner.client.get("/api/sessions", headers={"Accept-Encoding": "gzip"})
    assert got.headers["Content-Encoding"] == "gzip"
    doc = layout.doc().model_dump(mode="json")
    body = {"data": json.dumps({"layout": doc}), "content_type": "application/json"}
    got = as_owner.client.post("/api/compute", headers={"Accept-Encoding": "gzip"}, **body)
    assert "Content-Encoding" not in got.headers


def test_a_zip_is_not_packed_once_more(as_owner, owner):
    path = f"/api/studios/{owner.studios.get().pk}/recorded.zip"
    got = as_owner.client.get(path, headers={"Accept-Encoding": "gzip"})
    assert got.status_code == 200
    assert "Content-Encoding" not in got.headers
    assert b"".join(got.streaming_content)[:2] == b"PK"
