"""The compute endpoints: the core's numbers, shaped as the interface promises."""

import jsonpatch
import orjson
import pytest
from config import requestlog
from ringside.answers.board import FocusOn, board
from ringside.answers.following import Moved, follows
from ringside.files.layout import layout_from
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.plan.room import Room
from ringside.plan.thresholds import REASONS, Thresholds

from tests.server.conftest import Api

LAYOUT = starting_layout("five-piece", "square pair")
DOC = LAYOUT.model_dump(mode="json")
BOX = Room(name="Box", width_m=5.0, length_m=6.0, height_m=3.0, kit_x_m=2.5, kit_y_m=2.0)


def test_the_board_is_the_cores_own_and_has_the_promised_shape(as_owner):
    focus = {"anchor": "OL", "mover": "OR", "source": "kick"}
    status, out = as_owner("POST", "/compute", {"layout": DOC, "focus": focus})
    assert status == 200
    same = board(analyse(layout_from(DOC)), FocusOn("OL", "OR", "kick"))
    assert out == orjson.loads(orjson.dumps(same, option=orjson.OPT_SERIALIZE_NUMPY))


def test_what_follows_a_hand_is_the_cores_own_and_has_the_promised_shape(as_owner):
    place, aim = (0.4, 0.6, 1.7), (0.0, 0.6, -0.8)
    ask = {"layout": DOC, "mic": "OR", "position_m": place, "aim": aim}
    focus = {"anchor": "OL", "mover": "OR", "source": "kick"}
    status, out = as_owner("POST", "/follow", {**ask, "focus": focus})
    assert status == 200
    same = follows(analyse(layout_from(DOC)), Moved("OR", place, aim), FocusOn("OL", "OR", "kick"))
    assert out == orjson.loads(orjson.dumps(same))
    assert as_owner("POST", "/follow", ask)[1]["pair"] is None
    bare = as_owner("POST", "/follow", {**ask, "focus": focus, "words": False})[1]
    assert bare["tape_m"] == out["tape_m"]
    assert (bare["aim"], bare["pair"]["in_words"]) == (None, None)
    ask |= {"mic": "ST", "position_m": (0.1, 0.2, 0.8)}
    assert (
        as_owner("POST", "/follow", ask)[1]["close"]
        == as_owner("POST", "/drum-terms", {"layout": _with("ST", ask), "mic": "ST"})[1]
    )


def _with(name, there):
    """The layout with a mic elsewhere."""
    moved = {key: there[key] for key in ("position_m", "aim")}
    return {**DOC, "mics": [m | moved if m["id"] == name else m for m in DOC["mics"]]}


def test_what_a_hand_asks_is_written_down_only_where_something_is_amiss(
    as_owner, caplog, monkeypatch
):
    def written(way, path, data=None):
        caplog.clear()
        as_owner(way, path, data)
        return [r.getMessage().split(" ", 2)[2].rsplit(" ", 2)[0] for r in caplog.records
                if r.name == "ringside.requests"]  # fmt: skip

    move = {"name": "h", "mic": "OR", "position_m": (0.4, 0.6, 1.7), "aim": (0.0, 0.0, -1.0)}
    assert written("POST", "/follow", move) == ["POST /api/follow 409"]
    assert written("POST", "/follow", {**move, "layout": DOC}) == []
    assert written("POST", "/edit/try", {"name": "h", "edit": {"do": "hand"}}) == []
    assert written("POST", "/thresholds", {}) == ["POST /api/thresholds 200"]
    monkeypatch.setattr(requestlog, "SLOW_S", 0.0)
    as_owner("POST", "/follow", move)
    assert caplog.records[-1].getMessage().endswith(" SLOW")


def test_a_layout_is_sent_once_and_then_named(as_owner, outsider, monkeypatch):
    move = {"name": "here", "mic": "OR", "position_m": [0.4, 0.6, 1.7], "aim": [0, 0, -1]}
    status, problem = as_owner("POST", "/follow", move)
    assert (status, "send it again" in problem["detail"]) == (409, True)
    whole = as_owner("POST", "/follow", {**move, "layout": DOC})
    assert as_owner("POST", "/follow", move) == whole
    assert Api(outsider)("POST", "/follow", move)[0] == 409  # nobody else's name
    monkeypatch.setattr("api.resting.MOST", 2)
    for name in ("there", "yonder"):
        as_owner("POST", "/follow", {**move, "name": name, "layout": DOC})
    assert as_owner("POST", "/follow", move)[0] == 409
    assert as_owner("POST", "/follow", {**move, "name": None})[0] == 409


def test_a_name_is_known_whatever_is_asked_of_the_layout(as_owner):
    edit = {"do": "pose", "x_m": 2.0, "y_m": 1.5, "turn_rad": 0.5}
    doc = starting_layout("five-piece", "square pair", room=BOX).model_dump(mode="json")
    for path, more in (("/edit/try", {"edit": edit}), ("/room/here", {"room": doc["room"]})):
        assert as_owner("POST", path, {"name": "any", **more})[0] == 409
    status, patch = as_owner("POST", "/edit/try", {"name": "any", "layout": doc, "edit": edit})
    assert status == 200
    made = as_owner("POST", "/edit", {"layout": doc, "edit": edit})[1]["layout"]
    assert jsonpatch.apply_patch(doc, patch) == made
    assert as_owner("POST", "/edit/try", {"name": "any", "edit": edit}) == (200, patch)
    here = {"name": "any", "room": made["room"]}
    board = as_owner("POST", "/room/board", {"layout": made})[1]
    assert as_owner("POST", "/room/here", here) == (200, board["spots"]["here"])
    move = {"name": "any", "mic": "OR", "position_m": [0.4, 0.6, 1.7], "aim": [0, 0, -1]}
    assert as_owner("POST", "/follow", move)[0] == 200


@pytest.mark.parametrize(("change", "status", "words"), [
    ({"mic": "XX"}, 400, "a mic of this layout, got 'XX'"),
    ({"position_m": [0, 0, 1e300]}, 422, "position_m"),
    ({"aim": [0, 0, 0]}, 422, "aim"),
    ({"focus": {"anchor": "OR", "mover": "XX"}}, 400, "two mics"),
])  # fmt: skip
def test_a_move_that_cannot_be_says_what_is_wrong(as_owner, change, status, words):
    ask = {"layout": DOC, "mic": "OR", "position_m": [0.4, 0.6, 1.7], "aim": [0, 0, -1], **change}
    got, problem = as_owner("POST", "/follow", ask)
    assert got == status
    assert words in f"{problem.get('place')}: {problem['detail']}"


def test_the_saved_analysis_is_of_what_is_saved(as_owner, layout):
    status, out = as_owner("GET", f"/layouts/{layout.pk}/analysis")
    assert status == 200
    assert out["tape_m"] == board(analyse(layout.doc())).tape_m
    assert out["focus"] is None


@pytest.mark.parametrize(
    ("focus", "words"),
    [
        ({"anchor": "OL", "mover": "OL"}, "two mics"),
        ({"anchor": "OL", "mover": "XX"}, "two mics"),
        ({"anchor": "OL", "mover": "OR", "source": "gong"}, "a drum or cymbal"),
    ],
)
def test_a_focus_that_is_not_there_says_so(as_owner, focus, words):
    status, problem = as_owner("POST", "/compute", {"layout": DOC, "focus": focus})
    assert status == 400
    assert words in problem["detail"]


def test_faults_are_problem_json_with_their_place(as_owner):
    bad = {**DOC, "air": {"temperature_c": "warm"}}
    status, problem = as_owner("POST", "/compute", {"layout": bad})
    assert status == 422
    assert as_owner.last["Content-Type"] == "application/problem+json"
    assert problem["place"].endswith("layout.air.temperature_c")
    assert problem["detail"] == 'expected a number, got "warm"'


def test_distances_that_cannot_be_say_what_is_possible(as_owner):
    ask = {"layout": DOC, "mic": "OR", "snare_m": 0.1, "kick_m": 0.1, "height_m": 1}
    status, problem = as_owner("POST", "/place-by-tape", ask)
    assert status == 400
    assert "further apart" in problem["detail"]


@pytest.mark.parametrize(
    ("path", "more"),
    [("/place-by-tape", {"snare_m": 1.3, "kick_m": 1.6, "height_m": 1.7}),
     ("/aim-at", {"target": "kick"})],
)  # fmt: skip
def test_a_mic_that_is_not_there_is_refused_not_a_fault(as_owner, path, more):
    status, problem = as_owner("POST", path, {"layout": DOC, "mic": "XX", **more})
    assert status == 400
    assert "a mic of this layout, got 'XX'" in problem["detail"]


def test_lengths_in_an_answer_are_in_the_users_units(as_owner, owner):
    ask = {"layout": DOC, "mic": "OR", "snare_m": 1.2, "kick_m": 1.52, "height_m": 2.7}
    assert " cm above the floor" in as_owner("POST", "/place-by-tape", ask)[1]["detail"]
    as_owner("PUT", "/account/units", {"units": "ft-in"})
    detail = as_owner("POST", "/place-by-tape", ask)[1]["detail"]
    assert "″ above the floor" in detail
    assert "cm" not in detail


def test_every_threshold_has_a_reason(as_owner):
    rows = as_owner("POST", "/thresholds", {})[1]
    assert {r["name"] for r in rows} == set(Thresholds.model_fields) == set(REASONS)
    assert all(len(r["reason"]) > 40 for r in rows)
