"""The log at the kit: written once, read by all of the studio, and by nobody else."""

import csv
import io
from uuid import uuid4

import pytest
from plans.models import StandLog

from tests.server.conftest import Api


def line(**more):
    return {"key": str(uuid4()), "what": "reading", "mic": "OL",
            "to": "snare", "metres": 1.32, **more}  # fmt: skip


def rows(api, layout):
    status, found = api("GET", f"/layouts/{layout.pk}/at-kit")
    assert status == 200
    assert api("GET", f"/layouts/{layout.pk}/at-kit/tag")[1]["tag"] == found["tag"]
    return found


def test_a_line_sent_twice_is_there_once_and_seen_by_others(as_owner, member, layout):
    one = line()
    path = f"/layouts/{layout.pk}/at-kit"
    first = as_owner("POST", path, one)
    assert (first[0], first[1]["by"]) == (201, "owner")
    assert as_owner("POST", path, one)[1] == first[1]
    assert Api(member)("POST", path, line(mic="OR"))[0] == 201
    found = rows(Api(member), layout)
    assert [(r["mic"], r["metres"], r["by"]) for r in found["rows"]] == [
        ("OL", 1.32, "owner"), ("OR", 1.32, "member"),
    ]  # fmt: skip
    assert rows(as_owner, layout) == found


def test_what_is_struck_out_counts_no_more_and_the_tag_changes(as_owner, layout):
    path = f"/layouts/{layout.pk}/at-kit"
    one, two = line(), line(what="tick", to=None, metres=None)
    for each in (one, two):
        assert as_owner("POST", path, each)[0] == 201
    before = rows(as_owner, layout)["tag"]
    strike = {"key": one["key"]}
    assert [as_owner("POST", f"{path}/strike", strike)[0] for _ in range(2)] == [204, 204]
    after = rows(as_owner, layout)
    assert [r["what"] for r in after["rows"]] == ["tick"]
    assert after["tag"] != before
    # Sent again it stays struck out.
    assert as_owner("POST", path, one)[0] == 201
    assert rows(as_owner, layout) == after
    assert StandLog.objects.count() == 2
    gone = {"key": str(uuid4())}
    assert as_owner("POST", f"{path}/strike", gone)[0] == 404


def test_a_layout_says_whether_it_was_measured(as_owner, layout):
    path = f"/layouts/{layout.pk}"
    cord = {"what": "cord", "metres": None, "like": "OR"}
    says = []
    for each in (
        line(what="tick", to=None, metres=None), line(**cord, cord="nearer"),
        line(**cord, cord="same"), line(),
    ):  # fmt: skip
        assert as_owner("POST", f"{path}/at-kit", each)[0] == 201
        says.append(as_owner("GET", path)[1]["measured"])
        if says[-1]:
            assert as_owner("POST", f"{path}/at-kit/strike", {"key": each["key"]})[0] == 204
            assert as_owner("GET", path)[1]["measured"] is False
    assert says == [False, False, True, True]


def test_a_tag_is_of_its_own_layout_and_gone_with_it(as_owner, layout):
    path = f"/layouts/{layout.pk}"
    status, other = as_owner("POST", f"{path}/copy", {"name": "Another"})
    assert status == 201
    as_owner("POST", f"{path}/at-kit", line())
    tags = [
        as_owner("GET", f"/layouts/{pk}/at-kit/tag")[1]["tag"] for pk in (layout.pk, other["id"])
    ]
    assert tags == ["1-0", "0-0"]
    assert as_owner("DELETE", path)[0] == 204
    assert as_owner("GET", f"{path}/at-kit/tag")[0] == 404


def test_nobody_of_another_studio_sees_or_writes(outsider, as_owner, layout):
    as_stranger = Api(outsider)
    path = f"/layouts/{layout.pk}/at-kit"
    one = line()
    as_owner("POST", path, one)
    assert as_stranger("GET", path)[0] == 404
    assert as_stranger("GET", f"{path}/tag")[0] == 404
    assert as_stranger("POST", path, line())[0] == 404
    strike = {"key": one["key"]}
    assert as_stranger("POST", f"{path}/strike", strike)[0] == 404
    assert as_owner("GET", f"/layouts/{layout.pk + 1000}/at-kit")[0] == 404
    assert StandLog.objects.filter(struck_at=None).count() == 1


@pytest.mark.parametrize(("wrong", "said"), [
    ({"metres": 0}, "metres"), ({"metres": -1.0}, "metres"), ({"metres": 31.0}, "metres"),
    ({"metres": None}, "expected metres with a reading"),
    ({"what": "tick"}, "expected metres with a reading"),
    ({"key": "no key"}, "key"), ({"what": "shout"}, "what"),
])  # fmt: skip
def test_a_line_that_cannot_be_is_refused_and_nothing_is_kept(as_owner, layout, wrong, said):
    status, answer = as_owner("POST", f"/layouts/{layout.pk}/at-kit", line(**wrong))
    assert status in (400, 422)
    assert said in f"{answer.get('place')} {answer['detail']}"
    assert StandLog.objects.count() == 0


def test_too_many_lines_are_refused_with_words(as_owner, layout, monkeypatch):
    monkeypatch.setattr("plans.atkit.MOST_ENTRIES", 2)
    path = f"/layouts/{layout.pk}/at-kit"
    one = line()
    assert [as_owner("POST", path, each)[0] for each in (one, line())] == [201, 201]
    status, answer = as_owner("POST", path, line())
    assert (status, "at most 2 entries" in answer["detail"]) == (400, True)
    assert as_owner("POST", path, one)[0] == 201  # it is there


def test_where_everything_stands_is_told_with_the_set_up_list(as_owner, layout):
    doc = as_owner("GET", f"/layouts/{layout.pk}")[1]["doc"]
    log = [{"key": "a", "what": "reading", "mic": "OL", "to": "snare", "metres": 1.32}]
    asked = {"layout": doc, "log": log, "order": "kick first"}
    status, found = as_owner("POST", f"/layouts/{layout.pk}/standing", asked)
    assert status == 200
    assert found["standing"]["read"] == 1
    assert found["standing"]["asks"][0]["read_m"] == 1.32
    assert found["setup"]["jobs"][0]["mics"][0]["row"]["id"] == "KI"
    assert found["compared"]["open"] > 0
    typed = {"layout": doc, "log": log, "mic": "OR", "to": "snare", "metres": 1.36}
    status, said = as_owner("POST", f"/layouts/{layout.pk}/judge", typed)
    assert (status, said["state"], said["words"]["text"]) == (200, "off", "Bring it {} closer")
    assert said["words"]["lengths_m"] == [pytest.approx(0.04)]
    assert said["target_words"] == "as OL reads"
    status, said = as_owner("POST", f"/layouts/{layout.pk}/judge", {**typed, "metres": 17360})
    assert (status, said["state"]) == (200, "impossible")
    assert as_owner("POST", f"/layouts/{layout.pk}/judge", {**typed, "mic": "XX"})[0] == 400


def test_a_studio_is_carried_with_what_was_read_at_its_kits(as_owner, owner, layout):
    from carrying.reading import read_in
    from carrying.writing import archive_of

    path = f"/layouts/{layout.pk}/at-kit"
    kept, struck = line(), line(mic="OR")
    for each in (kept, struck):
        as_owner("POST", path, each)
    as_owner("POST", f"{path}/strike", {"key": struck["key"]})
    made = read_in(archive_of(layout.session.studio, lambda _: None), owner, lambda _: None)
    there = made.sessions.get().layouts.get(name=layout.name)
    assert [(r.mic, r.metres, r.struck_at is None) for r in there.stand_log.all()] == [
        ("OL", 1.32, True), ("OR", 1.32, False),
    ]  # fmt: skip
    assert {str(r.key) for r in there.stand_log.all()} == {kept["key"], struck["key"]}
    assert Api(owner)("GET", f"/layouts/{there.pk}/at-kit")[0] == 200


def test_the_sheet_as_it_stands_has_what_was_read_and_says_so(as_owner, layout):
    path = f"/layouts/{layout.pk}"
    as_owner("POST", f"{path}/at-kit", line(mic="OL", to="snare", metres=1.41))
    planned = as_owner("GET", f"{path}/sheet.csv")[1].decode()
    stands = as_owner("GET", f"{path}/sheet.csv?state=stands")[1].decode()

    def to_snare(table):
        (row,) = [r for r in csv.DictReader(io.StringIO(table)) if r["Mic"] == "OL"]
        return float(row["To snare"].split()[0])

    assert to_snare(stands) == pytest.approx(141.0, abs=0.6)
    assert to_snare(planned) < 139
    assert "As it stands by the tape" in as_owner("GET", f"{path}/sheet?state=stands")[1].decode()
    assert "As it stands" not in as_owner("GET", f"{path}/sheet")[1].decode()
    assert as_owner("GET", f"{path}/sheet?state=dreamt")[0] == 422
    assert as_owner("POST", f"{path}/pdf?state=stands")[0] == 200
