"""The log: what was tried and heard, with the layout as it was then."""

import csv
import io
from datetime import datetime, timedelta
from uuid import UUID, uuid4

import pytest
from accounts.models import User
from django.utils import timezone
from plans import tried
from plans.actions import make_session
from plans.models import Layout, Revision, TriedLog
from takes.actions import FileBegun, begin

from tests.server.conftest import Api
from tests.server.test_layouts import doc_of, moved


def line(doc, words="", verdict="works", song="", **more):
    return {
        "key": str(uuid4()),
        "doc": doc,
        "words": words,
        "verdict": verdict,
        "song": song,
        **more,
    }


def written(api, layout, doc, words="", **more):
    status, row = api("POST", f"/layouts/{layout.pk}/tried", line(doc, words, **more))
    assert status == 201, row
    return row


def words_of(api, session, path=""):
    return [r["words"] for r in api("GET", f"/sessions/{session.pk}/tried{path}")[1]]


def test_a_line_tells_what_changed_since_the_line_before_it_in_tape_terms(as_owner, layout):
    doc, _ = doc_of(as_owner, layout.pk)
    assert written(as_owner, layout, doc, "as it came")["since"] == []
    now = moved(doc, 0.1)
    row = written(as_owner, layout, now, "floor tom fuller", song="Low Water")
    (change,) = row["since"]
    assert (change["what"], change["words"]) == ("OR", "moved")
    assert change["moved_m"] == pytest.approx(0.1)
    assert (row["by"], row["song"], row["layout"]) == ("owner", "Low Water", "Layout A")


def test_since_is_of_the_newest_line_that_counts_of_this_layout(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    written(as_owner, layout, doc, "first")
    second = written(as_owner, layout, moved(doc, 0.3), "second")
    other = as_owner("POST", f"/layouts/{layout.pk}/copy", {"name": "B"})[1]
    written(as_owner, Layout.objects.get(pk=other["id"]), moved(doc, 0.7), "of another layout")
    ask = {"layout": moved(doc, 0.3)}
    told = as_owner("POST", f"/layouts/{layout.pk}/tried/since", ask)[1]
    assert (told["last"]["words"], told["changes"]) == ("second", [])
    as_owner("POST", f"/tried/{second['id']}/strike")
    told = as_owner("POST", f"/layouts/{layout.pk}/tried/since", ask)[1]
    assert told["last"]["words"] == "first"
    assert told["changes"][0]["moved_m"] == pytest.approx(0.3)


def test_a_line_sent_twice_is_one_and_keeps_what_it_said(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    sent = line(doc, "dry")
    ids = {as_owner("POST", f"/layouts/{layout.pk}/tried", sent)[1]["id"] for _ in range(2)}
    assert len(ids) == 1
    assert words_of(as_owner, session) == ["dry"]


@pytest.mark.parametrize(
    ("ago", "kept"),
    [(timedelta(hours=3), True), (timedelta(days=13), True), (timedelta(days=15), False),
     (-timedelta(hours=1), False)],
)  # fmt: skip
def test_a_late_line_keeps_the_hour_it_was_written_at_where_that_can_be(
    as_owner, layout, ago, kept
):
    doc, _ = doc_of(as_owner, layout.pk)
    at = timezone.now() - ago
    row = written(as_owner, layout, doc, at=at.isoformat())
    told = datetime.fromisoformat(row["at"])
    wanted = at if kept else timezone.now()
    assert abs(told - wanted) < timedelta(seconds=30)


def test_lines_are_newest_first_by_when_they_were_written(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    written(as_owner, layout, doc, "now")
    written(as_owner, layout, doc, "late", at=(timezone.now() - timedelta(hours=1)).isoformat())
    assert words_of(as_owner, session) == ["now", "late"]


def test_a_line_that_was_struck_out_counts_again_when_it_is_let(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    row = written(as_owner, layout, doc, "dry")
    for _ in range(2):
        assert as_owner("POST", f"/tried/{row['id']}/strike")[0] == 204
    assert words_of(as_owner, session) == []
    as_owner("POST", f"/tried/{row['id']}/restore")
    assert words_of(as_owner, session) == ["dry"]


def test_a_line_says_otherwise_and_what_it_said_is_struck_out(as_owner, member, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    written(as_owner, layout, doc, "as it came")
    at = (timezone.now() - timedelta(hours=2)).isoformat()
    row = written(as_owner, layout, moved(doc, 0.1), "fuller", song="Low Water", stood=True, at=at)
    said = {"key": str(uuid4()), "words": "too full", "verdict": "no", "song": "Rope Walk"}
    for _ in range(2):
        status, now = Api(member)("POST", f"/tried/{row['id']}/otherwise", said)
    assert (status, now["by"]) == (201, "member")
    assert (now["words"], now["verdict"], now["song"]) == ("too full", "no", "Rope Walk")
    for same in ("at", "since", "stood", "layout_id"):
        assert now[same] == row[same]
    assert words_of(as_owner, session) == ["as it came", "too full"]
    kept = as_owner("GET", f"/tried/{now['id']}")[1]["doc"]
    assert kept["mics"] == moved(doc, 0.1)["mics"]
    assert TriedLog.objects.get(pk=row["id"]).struck_by == member


def test_a_line_that_was_struck_out_meanwhile_says_nothing_otherwise(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    row = written(as_owner, layout, doc, "dry")
    as_owner("POST", f"/tried/{row['id']}/strike")
    said = {"key": str(uuid4()), "verdict": "no"}
    status, told = as_owner("POST", f"/tried/{row['id']}/otherwise", said)
    assert (status, "struck out meanwhile" in told["detail"]) == (400, True)
    assert words_of(as_owner, session) == []


def test_what_changed_is_since_the_line_before_it_whatever_comes_and_goes(
    as_owner, layout, session
):
    doc, _ = doc_of(as_owner, layout.pk)

    def since():
        rows = as_owner("GET", f"/sessions/{session.pk}/tried")[1]
        return [[round(c["moved_m"], 3) for c in r["since"]] for r in reversed(rows)]

    hour = lambda ago: (timezone.now() - timedelta(hours=ago)).isoformat()  # noqa: E731
    written(as_owner, layout, doc, at=hour(4))
    written(as_owner, layout, moved(doc, 0.5), at=hour(1))
    assert since() == [[], [0.5]]
    late = written(as_owner, layout, moved(doc, 0.2), at=hour(2))  # had no network until now
    assert since() == [[], [0.2], [0.3]]
    as_owner("POST", f"/tried/{late['id']}/strike")
    assert since() == [[], [0.5]]
    as_owner("POST", f"/tried/{late['id']}/restore")
    assert since() == [[], [0.2], [0.3]]


def test_what_a_line_is_called_and_its_limits_are_no_part_of_what_is_heard(as_owner, layout):
    doc, _ = doc_of(as_owner, layout.pk)
    row = written(as_owner, layout, doc)
    limits = {**doc["thresholds"], "tape_error_m": 0.02}
    now = {**doc, "name": "B", "notes": "wetter", "thresholds": limits}
    assert as_owner("POST", f"/tried/{row['id']}/way-to", {"layout": now})[1] == []
    assert written(as_owner, layout, now)["since"] == []


def test_a_line_of_a_layout_that_was_put_away_meanwhile_is_kept(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    assert as_owner("DELETE", f"/layouts/{layout.pk}")[0] == 204
    row = written(as_owner, layout, doc, "came late")
    said = {"key": str(uuid4()), "words": "late", "verdict": "maybe"}
    assert as_owner("POST", f"/tried/{row['id']}/otherwise", said)[0] == 201
    assert words_of(as_owner, session) == ["late"]


def test_the_way_to_a_line_is_told_from_a_layout_and_from_another_line(as_owner, layout):
    doc, _ = doc_of(as_owner, layout.pk)
    one, two = (written(as_owner, layout, moved(doc, by)) for by in (0.0, 0.2))
    (to,) = as_owner("POST", f"/tried/{one['id']}/way-to", {"layout": moved(doc, 0.5)})[1]
    assert to["moved_m"] == pytest.approx(0.5)
    assert to["snare_m"] == pytest.approx([1.570, 1.271], abs=1e-3)  # from where it is, to there
    (there,) = as_owner("POST", f"/tried/{one['id']}/way-to", {"other": two["id"]})[1]
    (back,) = as_owner("POST", f"/tried/{two['id']}/way-to", {"other": one["id"]})[1]
    assert there["snare_m"] == back["snare_m"][::-1]
    for none in ({}, {"layout": doc, "other": two["id"]}):
        assert as_owner("POST", f"/tried/{one['id']}/way-to", none)[0] == 400


def test_the_layout_of_a_line_comes_back_as_it_was_heard(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    row = written(as_owner, layout, moved(doc, 0.2), "works for the slow one")
    assert as_owner("GET", f"/tried/{row['id']}")[1]["doc"]["mics"] == moved(doc, 0.2)["mics"]
    path = f"/sessions/{session.pk}/tried/{row['id']}/layout"
    status, made = as_owner("POST", path, {"name": "The slow one"})
    assert (status, made["doc"]["name"]) == (201, "The slow one")
    assert made["doc"]["mics"] == moved(doc, 0.2)["mics"]
    assert Revision.objects.get(layout=made["id"]).what == "from the log of Day one"


def test_what_worked_elsewhere_is_found_by_its_words_and_put_up_here(as_owner, owner, layout):
    doc, _ = doc_of(as_owner, layout.pk)
    written(as_owner, layout, doc, "dry and short", song="Rope Walk")
    row = written(as_owner, layout, moved(doc, 0.2), "fuller", song="Low Water")
    new = make_session(owner, name="Day two", kit="five-piece", start="empty")
    assert words_of(as_owner, new) == []
    assert words_of(as_owner, new, "/elsewhere") == ["fuller", "dry and short"]
    assert words_of(as_owner, new, "/elsewhere?words=ROPE+short") == ["dry and short"]
    assert words_of(as_owner, new, "/elsewhere?words=rope+fuller") == []
    assert words_of(as_owner, new, "/elsewhere?words=OR+low") == ["fuller"]  # what was moved
    assert words_of(as_owner, new, "/elsewhere?words=kick_m") == []
    assert words_of(as_owner, new, f"/elsewhere?before={row['id']}") == ["dry and short"]
    assert words_of(as_owner, new, "/elsewhere?most=1") == ["fuller"]
    assert words_of(as_owner, layout.session, "/elsewhere") == []
    assert as_owner("GET", f"/sessions/{new.pk}/tried/elsewhere?words=%00")[0] < 500
    made = as_owner("POST", f"/sessions/{new.pk}/tried/{row['id']}/layout", {"name": "Again"})[1]
    assert made["session_id"] == new.pk


def test_a_line_is_not_put_up_in_another_studio(as_owner, owner, outsider, layout):
    doc, _ = doc_of(as_owner, layout.pk)
    row = written(as_owner, layout, doc)
    theirs = make_session(outsider, name="Theirs", kit="five-piece", start="empty")
    both = outsider.studios.get()
    both.members.add(owner)
    path = f"/sessions/{theirs.pk}/tried/{row['id']}/layout"
    assert as_owner("POST", path, {"name": "N"})[0] == 404
    assert Api(outsider)("GET", f"/sessions/{theirs.pk}/tried/elsewhere")[1] == []


def test_the_log_as_a_table_is_oldest_first_and_runs_nothing(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    written(as_owner, layout, doc, "=1+1", verdict="no")
    written(as_owner, layout, moved(doc, 0.1), "better", song="Low Water")
    body = as_owner("GET", f"/sessions/{session.pk}/tried.csv?units=cm")[1].decode()
    one, two = csv.DictReader(io.StringIO(body))
    assert (one["What it did"], one["How it is"]) == ("'=1+1", "no")
    assert two["What changed"].startswith("OR: moved 10.0 cm; snare 127.1 cm → ")
    assert (two["Song"], two["By"]) == ("Low Water", "owner")


def test_a_log_has_an_end_and_says_so(as_owner, layout, monkeypatch):
    monkeypatch.setattr(tried, "MOST_LINES", 1)
    doc, _ = doc_of(as_owner, layout.pk)
    sent = line(doc, "one")
    assert as_owner("POST", f"/layouts/{layout.pk}/tried", sent)[0] == 201
    status, told = as_owner("POST", f"/layouts/{layout.pk}/tried", line(doc, "two"))
    assert (status, "at most 1 lines" in told["detail"]) == (400, True)
    status, again = as_owner("POST", f"/layouts/{layout.pk}/tried", sent)
    assert status == 201  # it is there
    said = {"key": str(uuid4()), "verdict": "no"}
    assert as_owner("POST", f"/tried/{again['id']}/otherwise", said)[0] == 400
    assert words_of(as_owner, layout.session) == ["one"]


@pytest.mark.parametrize(
    ("change", "place"),
    [({"verdict": "so so"}, "verdict"), ({"words": "x" * 1001}, "words"),
     ({"song": "x" * 81}, "song"), ({"doc": {}}, "doc"), ({"key": "k"}, "key"),
     ({"tune": ""}, "tune"), ({"at": "2026-01-01T00:00:00"}, "at")],
)  # fmt: skip
def test_a_line_that_is_not_as_it_should_be_says_where(as_owner, layout, change, place):
    doc, _ = doc_of(as_owner, layout.pk)
    status, told = as_owner("POST", f"/layouts/{layout.pk}/tried", {**line(doc), **change})
    assert status == 422
    assert place in told["place"]
    assert not TriedLog.objects.exists()


def test_whoever_decides_in_a_line_is_who_wrote_it(as_owner, layout):
    doc, _ = doc_of(as_owner, layout.pk)
    forged = {"a": "OL", "b": "OR", "source": "kick", "reason": "so", "by": "somebody", "at": "x"}
    row = written(as_owner, layout, {**doc, "decisions": [forged]})
    (kept,) = as_owner("GET", f"/tried/{row['id']}")[1]["doc"]["decisions"]
    assert kept["by"] == "owner"
    assert UUID(str(TriedLog.objects.get().key))


@pytest.mark.parametrize(("by", "told"), [(0.009, 0), (0.011, 1)])
def test_by_tape_only_what_moved_further_than_it_can_tell_is_told(as_owner, layout, by, told):
    doc, _ = doc_of(as_owner, layout.pk)
    plan = written(as_owner, layout, doc)
    stands = written(as_owner, layout, moved(doc, by), stood=True)
    assert (len(stands["since"]), stands["stood"]) == (told, True)
    for one, other in ((plan, stands), (stands, plan)):
        way = as_owner("POST", f"/tried/{one['id']}/way-to", {"other": other["id"]})[1]
        assert len(way) == told
    # Of two plans every millimetre is meant.
    near = as_owner("POST", f"/tried/{plan['id']}/way-to", {"layout": moved(doc, 0.001)})[1]
    assert len(near) == 1


def a_take(api, layout, name="Take 1"):
    user = User.objects.get(pk=api.client.session["_auth_user_id"])
    return begin(user, layout.pk, uuid4(), name, [FileBegun("a.wav", 9)]).pk


def test_a_line_is_about_the_take_it_was_heard_in(as_owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    one, two = a_take(as_owner, layout), a_take(as_owner, layout, "Take 2")
    sent = line(doc, "fuller", take=one)
    path = f"/layouts/{layout.pk}/tried"
    assert as_owner("POST", path, sent)[1]["take"]["name"] == "Take 1"
    # Sent twice it stays as it was sent first.
    row = as_owner("POST", path, {**sent, "take": two})[1]
    assert (row["take"]["id"], row["take"]["layout_id"]) == (one, layout.pk)
    assert as_owner("POST", path + "/since", {"layout": doc})[1]["last"]["take"]["id"] == one

    def otherwise(pk, **more):
        told = {"key": str(uuid4()), "verdict": "no", **more}
        status, row = as_owner("POST", f"/tried/{pk}/otherwise", told)
        assert status == 201
        return row

    # Who says nothing of the take leaves it; another one or none is said.
    row = otherwise(row["id"])
    assert row["take"]["id"] == one
    row = otherwise(row["id"], take=two)
    assert row["take"]["id"] == two
    table = as_owner.client.get(f"/api/sessions/{session.pk}/tried.csv").content.decode()
    (told,) = csv.DictReader(io.StringIO(table))
    assert (told["Take"], told["By"]) == ("Take 2", "owner")
    assert otherwise(row["id"], take=None)["take"] is None


def test_a_take_that_is_not_there_takes_no_line_with_it(as_owner, owner, layout, session):
    doc, _ = doc_of(as_owner, layout.pk)
    path = f"/layouts/{layout.pk}/tried"
    mine = a_take(as_owner, layout)
    assert as_owner("POST", path, line(doc, take=mine))[1]["take"]["id"] == mine
    assert as_owner("DELETE", f"/takes/{mine}")[0] == 204
    # Late, or of another session: the words count.
    copy = as_owner("POST", f"/sessions/{session.pk}/copy")[1]
    elsewhere = a_take(as_owner, Layout.objects.filter(session=copy["id"]).first())
    for gone in (mine, elsewhere):
        status, row = as_owner("POST", path, line(doc, "late", take=gone))
        assert (status, row["take"]) == (201, None)
    lines = as_owner("GET", f"/sessions/{session.pk}/tried")[1]
    assert [r["take"] for r in lines] == [None] * 3
    assert as_owner("POST", path, line(doc, take=0))[0] == 422
