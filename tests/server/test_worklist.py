"""The list of what to do over the interface: promised, kept, set aside, counted for the list of
sessions; nobody sees another studio's."""

import pytest
from plans.lines import known
from plans.models import Layout
from ringside.worklist.build import LIST_RULES, worklist

from tests.server.conftest import Api
from tests.server.test_layouts import doc_of, save

pytestmark = pytest.mark.django_db


def listed(api, doc):
    status, found = api("POST", "/worklist", {"layout": doc})
    assert status == 200
    return found


def test_the_list_is_that_of_the_core_and_all_of_it_is_one_edit(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    found = listed(as_owner, doc)
    core = worklist(layout.doc())
    assert [x["words"] for x in found["lines"]] == [x.words for x in core.lines]
    edits = [e for x in found["lines"] for e in x["edits"]]
    status, done = as_owner(
        "POST", "/edit", {"layout": doc, "edit": {"do": "several", "edits": edits, "why": "All"}}
    )
    assert (status, done["words"]) == (200, "All")
    save(as_owner, layout.pk, version, done["layout"])
    assert listed(as_owner, doc_of(as_owner, layout.pk)[0])["before"] == found["after"]


def test_who_set_a_line_aside_is_known_by_the_server_only(as_owner, layout):
    doc, version = doc_of(as_owner, layout.pk)
    line = listed(as_owner, doc)["lines"][0]
    away = {"do": "put-aside", "kind": line["kind"], "of": line["of"], "reason": "By ear."}
    _, done = as_owner("POST", "/edit", {"layout": doc, "edit": away})
    forged = done["layout"]
    forged["set_aside"][0] |= {"by": "somebody else", "at": "1999-01-01"}
    save(as_owner, layout.pk, version, forged)
    row = listed(as_owner, doc_of(as_owner, layout.pk)[0])["aside"][0]
    assert (row["reason"], row["by"]) == ("By ear.", "owner")
    assert row["at"] > "2020"
    # Saved again, it stays theirs, and when it was said.
    doc, version = doc_of(as_owner, layout.pk)
    save(as_owner, layout.pk, version, doc | {"notes": "later"})
    assert listed(as_owner, doc_of(as_owner, layout.pk)[0])["aside"][0] == row


def test_the_list_of_sessions_knows_how_long_each_list_is(as_owner, outsider, layout):
    asked = {"layouts": [layout.pk, 10_000_000]}
    assert Api(outsider)("POST", "/sessions/lines", asked) == (200, [])
    rows = as_owner("GET", "/sessions")[1]
    assert rows[0]["layouts"][0]["lines"] is None
    expected = len(worklist(layout.doc()).lines)
    assert as_owner("POST", "/sessions/lines", asked)[1] == [{"id": layout.pk, "lines": expected}]
    assert as_owner("GET", "/sessions")[1][0]["layouts"][0]["lines"] == expected
    # A change of the layout, or of the rules, and it is asked for anew.
    kept = Layout.objects.get(pk=layout.pk)
    kept.summary["list"] = {"lines": 3, "rules": LIST_RULES - 1}
    assert known(kept) is None
    doc, version = doc_of(as_owner, layout.pk)
    save(as_owner, layout.pk, version, doc | {"notes": "n"})
    assert as_owner("GET", "/sessions")[1][0]["layouts"][0]["lines"] is None


@pytest.mark.parametrize(
    ("asked", "status"),
    [({"layouts": list(range(1, 14))}, 422), ({"layouts": ["x"]}, 422), ({"layouts": []}, 200)],
)
def test_too_much_at_once_is_refused_in_words(as_owner, layout, asked, status):
    assert as_owner("POST", "/sessions/lines", asked)[0] == status
