"""What a studio keeps, and the day's log: kept, refused, and not seen by others."""

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from ringside.places.starts import starting_layout
from ringside.plan.kits import five_piece, six_piece

from tests.server.conftest import Api

DOC = starting_layout("five-piece", "square pair").model_dump(mode="json")
ROOM = {
    "name": "Box", "width_m": 5.0, "length_m": 6.0, "height_m": 3.0, "kit_x_m": 2.5, "kit_y_m": 2.0,
}  # fmt: skip
MIC = {"id": "pencil", "name": "Pencil", "phantom": True, "count": 1}


@pytest.fixture
def studio(owner):
    return owner.studios.get().pk


def upload(api, studio, text):
    file = SimpleUploadedFile("locker.csv", text.encode(), content_type="text/csv")
    answer = api.client.post(f"/api/studios/{studio}/locker.csv", {"file": file})
    return answer.status_code, answer.json()


def test_a_room_is_kept_and_offered_to_the_next_session(as_owner, studio):
    status, room = as_owner("POST", f"/studios/{studio}/rooms", ROOM)
    assert status == 200
    assert room["room"]["surfaces"]["floor"] == "concrete floor"
    as_owner("POST", f"/studios/{studio}/rooms", {**ROOM, "height_m": 3.5})
    rooms = as_owner("GET", f"/studios/{studio}/rooms")[1]
    assert [r["room"]["height_m"] for r in rooms] == [3.5]  # the same name is the same room
    starts = as_owner("GET", "/sessions/starts")[1]
    new = {"name": "N", "kit": "five-piece", "start": "empty", "room_id": starts["rooms"][0]["id"]}
    layout = as_owner("POST", "/sessions", new)[1]["layouts"][0]["id"]
    assert as_owner("GET", f"/layouts/{layout}")[1]["doc"]["room"]["height_m"] == 3.5
    as_owner("DELETE", f"/studios/{studio}/rooms/{rooms[0]['id']}")
    assert as_owner("GET", f"/layouts/{layout}")[1]["doc"]["room"]["height_m"] == 3.5


@pytest.mark.parametrize(
    ("change", "place", "words"),
    [
        ({"height_m": 330}, "height_m", "expected at most 30, got 330 metres; given in cm?"),
        ({"width_m": -2}, "width_m", "expected at least 1.5, got -2"),
        ({"surfaces": {"floor": "lava"}}, "surfaces.floor", "no material 'lava'"),
    ],
)
def test_a_room_that_cannot_be_says_what_and_where(as_owner, studio, change, place, words):
    status, said = as_owner("POST", f"/studios/{studio}/rooms", {**ROOM, **change})
    assert status == 422
    assert said["place"] == place
    assert words in said["detail"]
    assert as_owner("GET", f"/studios/{studio}/rooms")[1] == []


def test_a_kit_is_kept_and_offered(as_owner, studio):
    kit = six_piece().model_copy(update={"name": "Own six"}).model_dump(mode="json")
    assert as_owner("POST", f"/studios/{studio}/kits", kit)[0] == 200
    assert "Own six" in as_owner("GET", "/sessions/starts")[1]["own_kits"]
    row = as_owner("GET", f"/studios/{studio}/kits")[1][0]
    assert row["kit"] == kit
    assert as_owner("DELETE", f"/studios/{studio}/kits/{row['id']}")[0] == 204


def test_a_three_metre_snare_says_what_and_where(as_owner):
    doc = {**DOC, "kit": {**DOC["kit"], "drums": [dict(d) for d in DOC["kit"]["drums"]]}}
    doc["kit"]["drums"][1]["diameter_m"] = 3.0
    status, said = as_owner("POST", "/kit/board", {"layout": doc})
    assert status == 422
    assert said["place"] == "layout.kit.drums[1].diameter_m"
    assert said["detail"] == "expected at most 1, got 3.0 metres; given in cm?"


def test_an_edit_of_the_kit_comes_back_with_what_went_along(as_owner):
    snare = {**DOC["kit"]["drums"][1], "batter_m": [0.0, 0.0, 0.70]}
    edit = {"do": "change", "was": "snare", "part": snare}
    status, done = as_owner("POST", "/edit", {"layout": DOC, "edit": edit})
    assert status == 200
    assert done["words"] == "Moved Snare with ST, SB"
    heights = {m["id"]: m["position_m"][2] for m in done["layout"]["mics"]}
    before = {m["id"]: m["position_m"][2] for m in DOC["mics"]}
    assert heights["ST"] == pytest.approx(before["ST"] + 0.04)
    assert heights["OL"] == before["OL"]


def test_a_reading_in_the_users_units_when_refused(as_owner):
    as_owner("PUT", "/account/units", {"units": "ft-in"})
    edit = {"do": "reading", "a": "snare", "b": "kick", "metres": 52.0}
    status, said = as_owner("POST", "/edit", {"layout": DOC, "edit": edit})
    assert status == 400
    assert said["detail"] == "expected a reading of 0⅜″ to 32′ 9¾″, got 170′ 7¼″"


def test_the_walk_asks_for_the_next_reading(as_owner):
    tape = as_owner("POST", "/kit/board", {"layout": DOC})[1]["tape"]
    assert tape["next"] == {
        "a": "snare", "b": None, "stage": "place", "words": "From the floor up to the snare."
    }  # fmt: skip
    edit = {"do": "reading", "a": "snare", "metres": 0.67}
    layout = as_owner("POST", "/edit", {"layout": DOC, "edit": edit})[1]["layout"]
    after = as_owner("POST", "/kit/board", {"layout": layout})[1]["tape"]
    assert after["next"]["a"] == "snare"
    assert after["next"]["b"] == "kick"
    assert after["readings"][0]["off_m"] == pytest.approx(0, abs=0.001)


def test_the_room_answers_and_says_when_there_is_none(as_owner):
    status, board = as_owner("POST", "/room/board", {"layout": {**DOC, "room": ROOM}})
    assert status == 200
    assert board["modes"][0]["hz"] == pytest.approx(343.2 / 12, abs=0.01)  # half a wave in 6 m
    assert len(board["decay"]["eyring_s"]) == 7
    body = {"layout": DOC, "room": ROOM}
    assert as_owner("POST", "/room/here", body) == (200, board["spots"]["here"])
    status, said = as_owner("POST", "/room/board", {"layout": DOC})
    assert (status, said["detail"]) == (400, "this layout has no room yet; draw one first")


def test_ten_degrees_more_are_told(as_owner):
    warm = {**DOC, "air": {"temperature_c": 30.0, "humidity_pct": None}}
    said = as_owner("POST", "/effects", {"before": DOC, "after": warm})[1]
    assert said["words"].startswith("Sound goes 349.0 m/s instead of 343.2.")


def test_the_locker_is_kept_with_its_version(as_owner, studio, outsider):
    status, empty = as_owner("GET", f"/studios/{studio}/locker")
    assert empty["version"] == 1
    locker = {"mics": [MIC]}
    status, saved = as_owner("PUT", f"/studios/{studio}/locker", {"version": 1, "locker": locker})
    assert (status, saved["version"]) == (200, 2)
    status, said = as_owner("PUT", f"/studios/{studio}/locker", {"version": 1, "locker": {}})
    assert status == 409
    assert "Nothing was overwritten" in said["detail"]
    assert as_owner("GET", f"/studios/{studio}/locker")[1]["locker"]["mics"][0]["id"] == "pencil"
    assert Api(outsider)("GET", f"/studios/{studio}/locker")[0] == 404


def test_the_locker_as_csv_out_and_in(as_owner, studio, outsider):
    locker = {"mics": [MIC]}
    as_owner("PUT", f"/studios/{studio}/locker", {"version": 1, "locker": locker})
    text = as_owner("GET", f"/studios/{studio}/locker.csv")[1].decode()
    assert text.splitlines()[1].startswith("mic,pencil,Pencil,1,condenser,cardioid")
    broken = "what,id,name,count\nmic,stub,Stub,4\nmic,bad,Bad,lots\nstand,s,Stand,2\n"
    status, said = upload(as_owner, studio, broken)
    assert status == 200
    assert said["faults"] == [
        {"line": 3, "column": "count", "words": "expected a number, got 'lots'"}
    ]
    assert [m["id"] for m in said["locker"]["mics"]] == ["pencil", "stub"]
    assert said["locker"]["stands"][0]["count"] == 2
    assert upload(Api(outsider), studio, broken)[0] == 404
    assert upload(Api(), studio, broken)[0] == 401
    status, said = upload(as_owner, studio, "no,head\n1,2\n")
    assert status == 400
    assert "expected a header line" in said["detail"]


def test_a_layout_says_what_the_locker_lacks(as_owner, studio, layout):
    locker = {"mics": [MIC], "inputs": [{"id": "box", "name": "Box", "count": 8}]}
    as_owner("PUT", f"/studios/{studio}/locker", {"version": 1, "locker": locker})
    doc = {**DOC, "mics": [dict(m) for m in DOC["mics"]]}
    for m in doc["mics"]:
        if m["id"] in ("OL", "OR"):
            m["model"] = "pencil"
    said = as_owner("POST", f"/layouts/{layout.pk}/stock", {"layout": doc})[1]
    assert [r["words"] for r in said["lacks"]] == [
        "1 Pencil short: 2 wanted, 1 there.", "2 inputs short: there are 8.",
    ]  # fmt: skip
    assert said["used"]["inputs"] == [10, 8]


def test_lug_readings_are_written_down_with_who(as_owner, session):
    kit = five_piece().model_dump(mode="json")
    path = f"/sessions/{session.pk}"
    for lugs in ([330.0] * 8, [330.0] * 7 + [318.0]):
        assert as_owner("POST", f"{path}/lugs", {"drum": "snare", "lugs_hz": lugs})[0] == 201
    said = as_owner("POST", f"{path}/tuning", kit)[1]
    assert said["drift"][0]["words"].startswith("Snare: lug 8 has gone down 64 cents")
    assert [r["by"] for r in said["log"]] == ["owner", "owner"]
    as_owner("DELETE", f"{path}/lugs/{said['log'][1]['id']}")
    assert as_owner("POST", f"{path}/tuning", kit)[1]["drift"][0]["words"] == "Snare holds."


def test_spots_are_written_down_with_who(as_owner, session):
    spot = {"room": "Box", "x_m": 2.0, "y_m": 1.5, "rating": 4, "words": "Even."}
    path = f"/sessions/{session.pk}/spots"
    made = as_owner("POST", path, spot)[1]
    assert (made["by"], made["rating"]) == ("owner", 4)
    assert as_owner("POST", path, {**spot, "rating": 9})[0] == 422
    assert [s["words"] for s in as_owner("GET", path)[1]] == ["Even."]


def test_hand_sizes_are_ones_own(as_owner, layout, owner):
    sizes = {"two_fingers_m": 0.04, "three_fingers_m": 0.06, "fist_m": 0.1, "hand_m": 0.2}
    assert as_owner("PUT", "/account/hand", sizes)[1]["hand"]["fist_m"] == 0.1
    assert as_owner("PUT", "/account/units", {"units": "hand"})[1]["units"] == "hand"
    body = as_owner("GET", f"/layouts/{layout.pk}/sheet.csv?units=hand")[1].decode()
    assert "6 h 3½ f" in body  # 127.1 cm is six hands of 20 cm and 7.1 cm: three and a half fingers
    status, said = as_owner("PUT", "/account/hand", {**sizes, "fist_m": 0.05})
    assert status == 422
    assert "grow in this order" in said["detail"]
