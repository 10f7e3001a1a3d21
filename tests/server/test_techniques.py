"""Techniques, fitting and the brief over the interface: units, the hand, the locker, errors."""

import pytest
from ringside.gear.locker import Locker, MicModel, StandModel
from ringside.places.starts import starting_layout
from ringside.plan.handsizes import HandSizes
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.techniques.taking import take
from studios.actions import locker_of, save_locker

from tests.server.conftest import Api

BLANK = Layout(name="Blank", kit=five_piece())
DOC = BLANK.model_dump(mode="json")


def took(name, target=None, layout=BLANK, **numbers):
    return take(layout, name, target, numbers).layout.model_dump(mode="json")


def test_the_list_is_by_the_hand_of_who_asks(owner, layout):
    api = Api(owner)
    api("PUT", "/account/hand", {"two_fingers_m": 0.041})
    rows = {r["id"]: r for r in api("POST", "/techniques", {"layout": DOC})[1]}
    numbers = {n["id"]: n for n in rows["snare-centre"]["numbers"]}
    assert numbers["height"]["default"] == 0.041
    assert numbers["height"]["hand"] == "two fingers"
    body = {"layout": DOC, "technique": "snare-centre"}
    status, out = api("POST", f"/layouts/{layout.pk}/take", body)
    assert status == 200
    assert out["standing"]["numbers"]["height"] == 0.041
    assert HandSizes().two_fingers_m != 0.041


def test_take_change_and_taking_away_follow_each_other(owner, layout):
    api = Api(owner)
    body = {"layout": DOC, "technique": "pair-turned"}
    _, one = api("POST", f"/layouts/{layout.pk}/take", body)
    assert one["what"] == "Took Turned pair"
    assert {e["on"] for e in one["standing"]["equal"]} == {"snare", "kick"}
    wider = {"do": "numbers", "taken": one["id"], "numbers": {"width": 1.5}}
    _, two = api("POST", "/edit", {"layout": one["layout"], "edit": wider})
    assert two["layout"]["techniques"][0]["numbers"]["width"] == 1.5
    mics = [m["id"] for m in two["layout"]["mics"]]
    away = {"do": "remove-mics", "mics": mics}
    _, three = api("POST", "/edit", {"layout": two["layout"], "edit": away})
    assert three["words"] == "Took OL, OR away"
    for field in ("mics", "techniques", "stereo_pairs"):
        assert three["layout"][field] == []


@pytest.mark.parametrize(
    ("path", "body", "words"),
    [
        ("/layouts/{layout}/take", {"technique": "unheard-of"}, "expected a technique of the list"),
        (
            "/layouts/{layout}/take",
            {"technique": "pair-turned", "numbers": {"width": 120}},
            "in cm?",
        ),
        ("/layouts/{layout}/take", {"technique": "wall-mic"}, "draw the room first"),
        ("/techniques/what-if", {"taken": "x", "number": "y"}, "technique of this layout"),
        ("/drum-terms", {"mic": "OL"}, "whole kit"),
        ("/null-aim", {"mic": "OL"}, "only a close mic"),
    ],
)
def test_what_cannot_be_is_said_and_nothing_is_stored(owner, layout, path, body, words):
    doc = took("pair-turned")
    place = path.format(layout=layout.pk)
    status, said = Api(owner)("POST", place, {"layout": doc, **body})
    assert status == 400
    assert words in said["detail"]


def test_a_range_is_told_in_the_users_units(owner, layout):
    api, place = Api(owner), f"/layouts/{layout.pk}/take"
    body = {"layout": DOC, "technique": "pair-turned", "numbers": {"width": 9.0}}
    assert "240" in api("POST", place, body)[1]["detail"]
    api("PUT", "/account/units", {"units": "ft-in"})
    assert "7′ 10½″" in api("POST", place, body)[1]["detail"]


def test_a_technique_takes_its_mics_and_stands_from_the_locker_or_says_what_is_short(owner, layout):
    studio = layout.session.studio
    stock = Locker(
        mics=(MicModel(id="pencil", name="Pencil", count=2, matched=True),),
        stands=(StandModel(id="boom", name="Boom", low_m=0.9, high_m=1.8, reach_m=1.0, count=1),),
    )
    save_locker(owner, studio.pk, locker_of(studio).version, stock)
    body = {"layout": DOC, "technique": "pair-turned"}
    _, out = Api(owner)("POST", f"/layouts/{layout.pk}/take", body)
    assert [m["model"] for m in out["layout"]["mics"]] == ["pencil", "pencil"]
    assert [m["stand"] for m in out["layout"]["mics"]] == ["boom", None]
    assert out["short"] == ["No stand left in the locker reaches OR."]


def test_drum_terms_go_there_and_back(owner):
    api = Api(owner)
    layout = took("snare-centre")
    _, said = api("POST", "/drum-terms", {"layout": layout, "mic": "ST"})
    terms = {**said["terms"], "clock_h": 9.0, "height_m": 0.08, "target": "edge"}
    _, out = api("POST", "/drum-terms/place", {"layout": layout, "mic": "ST", "terms": terms})
    _, again = api("POST", "/drum-terms", {"layout": out["layout"], "mic": "ST"})
    assert again["terms"]["clock_h"] == pytest.approx(9.0)
    assert again["terms"]["height_m"] == pytest.approx(0.08)
    assert again["terms"]["target"] == "edge"
    assert again["cymbal"] == "hats"


def test_a_fit_looks_at_the_stands_of_the_studio(owner, layout):
    studio = layout.session.studio
    short = StandModel(id="short", name="Short", low_m=0.9, high_m=1.4, reach_m=0.6)
    save_locker(owner, studio.pk, locker_of(studio).version, Locker(stands=(short,)))
    doc = took("pair-turned", over=1.6)
    for mic in doc["mics"]:
        mic["stand"] = "short"
    _, out = Api(owner)("POST", f"/layouts/{layout.pk}/fit", {"layout": doc})
    assert max(m["position_m"][2] for m in out["layout"]["mics"]) <= 2.0
    assert any("reach" in w for row in out["moves"] for w in row["why"])
    assert out["words"].endswith(".")


def test_wishes_can_be_chosen(owner, layout):
    square = starting_layout("five-piece", "square pair").model_dump(mode="json")
    ask = {"wishes": ["equal"]}
    _, out = Api(owner)("POST", f"/layouts/{layout.pk}/fit", {"layout": square, "ask": ask})
    assert {m["mic"] for m in out["moves"]} == {"OL", "OR"}
    status, _ = Api(owner)("POST", f"/layouts/{layout.pk}/fit",
                           {"layout": square, "ask": {"wishes": ["luck"]}})  # fmt: skip
    assert status == 422


def test_curves_have_a_value_for_every_point(owner):
    body = {"layout": took("one-front"), "taken": "one-front", "number": "height", "points": 9}
    _, out = Api(owner)("POST", "/techniques/what-if", body)
    n = len(out["values"])
    assert n in (9, 10)
    assert all(len(c) == n for c in out["levels_db"].values())
    assert len(out["verdicts"]) == len(out["blocked"]) == len(out["mics"]) == n
    assert out["room_db"] is None


def test_the_brief_has_questions_and_a_table(owner):
    _, out = Api(owner)("GET", "/brief")
    assert len(out["questions"]) == 12
    assert out["start"]["inputs"] == 12
    assert len(out["rules"]) > 80


def test_plans_use_the_locker_only_when_asked_to(owner, layout):
    studio = layout.session.studio
    one = Locker(mics=(MicModel(id="dyn", name="Dynamic", kind="moving-coil", count=1),))
    save_locker(owner, studio.pk, locker_of(studio).version, one)
    place = f"/layouts/{layout.pk}/plans"
    _, short = Api(owner)("POST", place, {"layout": DOC, "brief": {"inputs": 8}})
    assert all(p["inputs"] <= 1 for p in short)
    brief = {"inputs": 8, "from_locker": False}
    _, free = Api(owner)("POST", place, {"layout": DOC, "brief": brief})
    assert max(p["inputs"] for p in free) == 8
    assert free[0]["layout"]["brief"]["inputs"] == 8


def test_pieces_of_two_plans_make_one_layout(owner, layout):
    api = Api(owner)
    brief = {"inputs": 16, "from_locker": False}
    _, found = api("POST", f"/layouts/{layout.pk}/plans", {"layout": DOC, "brief": brief})
    pieces = [p for p in found[0]["pieces"] if p["slot"] == "picture"]
    pieces += [p for p in found[1]["pieces"] if p["slot"] != "picture"]
    body = {"layout": DOC, "brief": brief, "pieces": pieces}
    _, out = api("POST", f"/layouts/{layout.pk}/build", body)
    used = [t["technique"] for t in out["layout"]["techniques"]]
    assert used == [p["technique"] for p in pieces]
    assert out["layout"]["kit"] == DOC["kit"]


def test_a_layout_with_techniques_is_saved_and_read_back(owner, layout):
    api = Api(owner)
    _, now = api("GET", f"/layouts/{layout.pk}")
    doc = took("pair-turned")
    body = {"version": now["version"], "what": "Took Turned pair", "doc": doc}
    assert api("PUT", f"/layouts/{layout.pk}", body)[0] == 200
    _, again = api("GET", f"/layouts/{layout.pk}")
    assert again["doc"]["techniques"] == doc["techniques"]
    doc["techniques"][0]["mics"] = ["OL", "nobody"]
    body = {"version": again["version"], "what": "x", "doc": doc}
    status, said = api("PUT", f"/layouts/{layout.pk}", body)
    assert status == 422
    assert "not in the layout" in str(said)
