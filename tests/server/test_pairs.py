"""Pairs in depth over the interface: the core's answers, errors in words, the table."""

import csv
import io
from dataclasses import asdict

import pytest
from ringside.answers.depth import in_depth
from ringside.files.pairs import PAIR_COLUMNS
from ringside.pairs.analysis import analyse
from ringside.pairs.flips import best_flips
from ringside.pairs.onebyone import school_order
from ringside.places.starts import starting_layout
from ringside.plan.layout import Decision, Stood

LAYOUT = starting_layout("five-piece", "square pair")
DOC = LAYOUT.model_dump(mode="json")


def test_a_pair_in_depth_is_the_cores_own(as_owner):
    status, out = as_owner(
        "POST", "/pair-in-depth", {"layout": DOC, "a": "OL", "b": "OR", "source": "kick"}
    )
    assert status == 200
    same = in_depth(LAYOUT, "OL", "OR", "kick")
    assert [r["words"] for r in out["remedies"]] == [r.words for r in same.remedies]
    assert out["by_delay"] == asdict(same.by_delay)
    assert out["remedies"][0]["mics"][0]["id"] in ("OL", "OR")


@pytest.mark.parametrize(
    ("path", "body", "words"),
    [
        ("/pair-in-depth", {"a": "OL", "b": "XX"}, "two mics of this layout"),
        ("/pair-in-depth", {"a": "OL", "b": "OR", "source": "gong"}, "drum or cymbal"),
        (
            "/best-flips",
            {"layout": {**DOC, "mics": [], "channels": [], "stereo_pairs": []}},
            "1 to 32 mics",
        ),
    ],
)
def test_what_cannot_be_is_said(as_owner, path, body, words):
    status, said = as_owner("POST", path, {"layout": DOC, **body})
    assert status == 400
    assert words in said["detail"]


def test_rows_are_each_pair_on_its_worst_or_all_on_one(as_owner):
    _, worst = as_owner("POST", "/pair-rows", {"layout": DOC})
    _, kick = as_owner("POST", "/pair-rows", {"layout": DOC, "source": "kick"})
    assert len(worst) == len(kick) == 45
    assert {r["source"] for r in kick} == {"kick"}
    top = next(r for r in worst if (r["a"], r["b"]) == ("ST", "SB"))
    assert (top["source"], top["verdict"]) == ("snare", "hollow")
    status, said = as_owner("POST", "/pair-rows", {"layout": DOC, "source": "gong"})
    assert (status, "drum or cymbal" in said["detail"]) == (400, True)


def test_flips_order_and_picture_are_the_cores_own(as_owner):
    _, out = as_owner("POST", "/best-flips", {"layout": DOC})
    assert out["best"]["flip"] == best_flips(analyse(LAYOUT)).best.flip
    for first in ("kick", "overheads"):
        _, rows = as_owner("POST", "/one-by-one", {"layout": DOC, "first": first})
        assert [r["mic"] for r in rows] == school_order(LAYOUT, first)
    own = {**DOC, "order": ["FT"]}
    assert as_owner("POST", "/one-by-one", {"layout": own})[1][0]["mic"] == "FT"
    _, seen = as_owner("POST", "/picture", {"layout": DOC})
    assert [p["name"] for p in seen["pairs"]] == ["Overheads"]
    assert {r["state"] for r in seen["pans"]} == {"not chosen"}


def test_the_table_of_pairs_has_every_pair_on_every_drum(as_owner, layout):
    status, body = as_owner("GET", f"/layouts/{layout.pk}/pairs.csv")
    assert status == 200
    assert as_owner.last["Content-Disposition"].endswith('-pairs.csv"')
    rows = list(csv.DictReader(io.StringIO(body.decode())))
    assert tuple(rows[0]) == PAIR_COLUMNS
    assert len(rows) == 45 * 9
    an = analyse(layout.doc())
    row, _ = an.pair_index("OL", "OR")
    kick = next(r for r in rows if (r["a"], r["b"], r["source"]) == ("OL", "OR", "kick"))
    assert float(kick["delay_s"]) == pytest.approx(float(an.pairs.delay_s[row, 0]), abs=1e-8)
    assert kick["verdict"] == "late"


def test_what_a_decision_stood_on_is_kept_with_who_and_flagged_later(as_owner, layout):
    doc = layout.doc()
    an = analyse(doc)
    row, _ = an.pair_index("OL", "OR")
    stood = Stood(
        verdict="late", delay_s=float(an.pairs.delay_s[row, 0]),
        body_db=float(an.pairs.body_db[row, 0]),
    )  # fmt: skip
    kept = Decision(a="OL", b="OR", source="kick", reason="carried by KI", stood=stood)
    body = {"version": 1, "what": "left", "doc": {
        **doc.model_dump(mode="json"), "decisions": [kept.model_dump(mode="json")],
    }}  # fmt: skip
    status, out = as_owner("PUT", f"/layouts/{layout.pk}", body)
    assert status == 200
    saved = out["doc"]["decisions"][0]
    assert (saved["by"], saved["stood"]["verdict"]) == ("owner", "late")
    moved = out["doc"]
    moved["mics"][9]["position_m"][0] += 0.2
    _, board = as_owner("POST", "/compute", {"layout": moved})
    assert board["decisions"][0]["stale"]
    assert "Look again" in board["decisions"][0]["words"]
