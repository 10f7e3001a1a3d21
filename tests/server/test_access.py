"""Who may do what: endpoint by role by status, sign-in, and the headers."""

import json
from dataclasses import asdict
from uuid import UUID

import pytest
from accounts.models import User
from carrying.actions import ARCHIVE, FILE, READ_IN
from config.settings import PASSWORD_HASHERS as as_served
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from hearing.actions import ask_for
from jobs.models import Job
from plans.atkit import write_entry
from plans.logs import write_lugs, write_spot
from plans.tried import Line, write_line
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.plan.kits import five_piece
from ringside.plan.room import Room
from ringside.standing.entries import Entry
from ringside.takes.align import Basis
from ringside.takes.asking import HitList
from ringside.takes.compare import Since
from ringside.takes.listening import Listening
from ringside.takes.report import TakeTold
from ringside.takes.waves import DrumWaves
from ringside.techniques.taking import take
from ringside.voices.example import ask_of
from sheets.printing import FILE as SHEET_FILE
from sheets.printing import SHEET
from studios.actions import keep_kit, keep_room
from takes.actions import FileBegun, begin
from takes.kinds import BASIS, COMPARE, LISTEN, MEASURE, RECORD, SINCE, TOLD, WAVES

from tests.server.conftest import PASSWORD, Api

ROOM = {
    "name": "Box", "width_m": 5.0, "length_m": 6.0, "height_m": 3.0, "kit_x_m": 2.5, "kit_y_m": 2.0,
}  # fmt: skip
DOC = starting_layout("five-piece", "square pair").model_dump(mode="json")

TOOK = take(starting_layout("five-piece", "square pair"), "room-bar").layout.model_dump(mode="json")

LINE = "d8a1f4c2-0000-4000-8000-000000000002"

OPTIONS = {
    **DOC,
    "options": [{"id": "rooms", "name": "Rooms", "options": [
        {"name": "Left", "channels": ["OL"]}, {"name": "Right", "channels": ["OR"]},
    ]}],
}  # fmt: skip

# Each endpoint with what it answers a member of the studio; strangers and members of other
# studios are answered alike everywhere: 401, and 404 as if it were not there.
ENDPOINTS = [
    ("GET", "/account/me", None, 200),
    ("PUT", "/account/units", {"units": "ft-in"}, 200),
    ("GET", "/sessions", None, 200),
    ("GET", "/sessions/starts", None, 200),
    ("POST", "/sessions", {"name": "N", "kit": "four-piece", "start": "empty"}, 201),
    ("POST", "/sessions/lines", {"layouts": [1]}, 200),
    ("GET", "/sessions/{session}", None, 200),
    ("PATCH", "/sessions/{session}", {"name": "N"}, 200),
    ("POST", "/sessions/{session}/copy", None, 201),
    (
        "POST", "/sessions/{session}/layouts",
        {"name": "N", "kit": "four-piece", "start": "turned pair"}, 201,
    ),
    ("DELETE", "/sessions/{session}", None, 204),
    ("GET", "/layouts/{layout}", None, 200),
    ("PUT", "/layouts/{layout}", {"version": 1, "what": "w", "doc": DOC}, 200),
    ("POST", "/layouts/{layout}/copy", {"name": "N"}, 201),
    ("POST", "/layouts/{layout}/undo", {"version": 1}, 400),
    ("POST", "/layouts/{layout}/redo", {"version": 1}, 400),
    ("DELETE", "/layouts/{layout}", None, 204),
    ("GET", "/layouts/{layout}/analysis", None, 200),
    ("GET", "/layouts/{layout}/sheet", None, 200),
    ("GET", "/layouts/{layout}/inputs", None, 200),
    ("POST", "/layouts/{layout}/pdf", None, 200),
    ("GET", "/prints/{print}", None, 200),
    ("GET", "/prints/{print}/sheet.pdf", None, 200),
    ("DELETE", "/prints/{print}", None, 200),
    ("GET", "/layouts/{layout}/sheet.csv", None, 200),
    ("GET", "/layouts/{layout}/inputs.csv", None, 200),
    ("GET", "/layouts/{layout}/tracks.txt", None, 200),
    ("GET", "/layouts/{layout}/labels", None, 200),
    ("GET", "/layouts/{layout}/file", None, 200),
    ("POST", "/compute", {"layout": DOC}, 200),
    (
        "POST", "/follow",
        {"layout": DOC, "mic": "OR", "position_m": [0.4, 0.6, 1.7], "aim": [0, 0, -1]}, 200,
    ),
    ("GET", "/hand", None, 426),
    ("POST", "/thresholds", {}, 200),
    ("POST", "/aim-at", {"layout": DOC, "mic": "OR", "target": "kick"}, 200),
    (
        "POST", "/place-by-tape",
        {"layout": DOC, "mic": "OR", "snare_m": 1.3, "kick_m": 1.6, "height_m": 1.7}, 200,
    ),
]  # fmt: skip
ENDPOINTS += [
    ("GET", "/account/devices", None, 200),
    ("PUT", "/account/hand", {"fist_m": 0.1}, 200),
    ("GET", "/kits", None, 200),
    ("POST", "/edit", {"layout": DOC, "edit": {"do": "hand"}}, 200),
    ("POST", "/edit/try", {"layout": DOC, "edit": {"do": "hand"}}, 200),
    ("POST", "/kit/board", {"layout": DOC}, 200),
    ("POST", "/kit/pitch", {"text": "A2"}, 200),
    ("POST", "/room/board", {"layout": {**DOC, "room": ROOM}}, 200),
    ("POST", "/room/here", {"room": ROOM, "layout": DOC}, 200),
    ("GET", "/room/materials", None, 200),
    ("POST", "/effects", {"before": DOC, "after": DOC}, 200),
    ("GET", "/studios/{studio}/rooms", None, 200),
    ("POST", "/studios/{studio}/rooms", ROOM, 200),
    ("DELETE", "/studios/{studio}/rooms/{room}", None, 204),
    ("GET", "/studios/{studio}/kits", None, 200),
    ("POST", "/studios/{studio}/kits", DOC["kit"], 200),
    ("DELETE", "/studios/{studio}/kits/{kit}", None, 204),
    ("GET", "/studios/{studio}/locker", None, 200),
    ("PUT", "/studios/{studio}/locker", {"version": 1, "locker": {}}, 200),
    ("GET", "/studios/{studio}/locker.csv", None, 200),
    ("POST", "/sessions/{session}/tuning", DOC["kit"], 200),
    ("POST", "/sessions/{session}/lugs", {"drum": "snare", "lugs_hz": [330.0]}, 201),
    ("DELETE", "/sessions/{session}/lugs/{lugs}", None, 204),
    ("GET", "/sessions/{session}/spots", None, 200),
    (
        "POST", "/sessions/{session}/spots",
        {"room": "R", "x_m": 1.0, "y_m": 2.0, "rating": 4}, 201,
    ),
    ("DELETE", "/sessions/{session}/spots/{spot}", None, 204),
    ("POST", "/layouts/{layout}/stock", {"layout": DOC}, 200),
    ("GET", "/layouts/{layout}/at-kit", None, 200),
    ("GET", "/layouts/{layout}/at-kit/tag", None, 200),
    (
        "POST", "/layouts/{layout}/at-kit",
        {"key": "d8a1f4c2-0000-4000-8000-000000000001", "what": "tick", "mic": "OL"}, 201,
    ),
    ("POST", "/layouts/{layout}/at-kit/strike", {"key": LINE}, 204),
    ("POST", "/arc", {"layout": DOC, "mic": "OR"}, 200),
    ("POST", "/layouts/{layout}/meter", None, 201),
    ("DELETE", "/layouts/{layout}/meter", None, 204),
    ("POST", "/layouts/{layout}/standing", {"layout": DOC, "log": []}, 200),
    (
        "POST", "/layouts/{layout}/judge",
        {"layout": DOC, "log": [], "mic": "OL", "to": "snare", "metres": 1.3}, 200,
    ),
]  # fmt: skip
ENDPOINTS += [
    ("POST", "/techniques", {"layout": DOC}, 200),
    ("POST", "/layouts/{layout}/take", {"layout": DOC, "technique": "room-bar"}, 200),
    ("POST", "/techniques/standing", {"layout": TOOK}, 200),
    (
        "POST", "/techniques/what-if",
        {"layout": TOOK, "taken": "room-bar", "number": "out", "points": 3}, 200,
    ),
    ("POST", "/drum-terms", {"layout": DOC, "mic": "ST"}, 200),
    ("POST", "/nearness", {"layout": DOC, "mic": "ST"}, 200),
    (
        "POST", "/drum-terms/place",
        {"layout": DOC, "mic": "ST", "terms": {"side": "over", "height_m": 0.05,
         "in_from_rim_m": 0.03, "clock_h": 11.0, "tilt_deg": 40.0, "target": "centre"}}, 200,
    ),
    ("POST", "/null-aim", {"layout": DOC, "mic": "ST"}, 200),
    ("POST", "/layouts/{layout}/fit", {"layout": DOC}, 200),
    ("POST", "/layouts/{layout}/patch", {"layout": DOC}, 200),
    ("GET", "/brief", None, 200),
    ("POST", "/layouts/{layout}/plans", {"layout": DOC, "brief": {"inputs": 2}}, 200),
    ("POST", "/layouts/{layout}/build", {"layout": DOC, "brief": {}, "pieces": []}, 200),
]  # fmt: skip
ENDPOINTS += [
    ("POST", "/pair-rows", {"layout": DOC, "source": "snare"}, 200),
    ("POST", "/pair-in-depth", {"layout": DOC, "a": "ST", "b": "SB"}, 200),
    ("POST", "/best-flips", {"layout": DOC}, 200),
    ("POST", "/worklist", {"layout": DOC}, 200),
    ("POST", "/one-by-one", {"layout": DOC, "first": "kick"}, 200),
    ("POST", "/options", {"layout": OPTIONS, "set": "rooms"}, 200),
    ("POST", "/picture", {"layout": DOC}, 200),
    ("GET", "/layouts/{layout}/pairs.csv", None, 200),
    (
        "POST",
        "/layouts/{layout}/examples",
        {"layout": DOC, "a": "ST", "b": "SB", "source": "snare"},
        200,
    ),
    ("GET", "/examples/{example}", None, 200),
    ("DELETE", "/examples/{example}", None, 200),
    ("GET", "/examples/{example}/wired.wav", None, 200),
    ("POST", "/studios/{studio}/archive", None, 200),
    ("GET", "/sessions/{session}/tape", None, 200),
    ("POST", "/sessions/{session}/tape", {"a": "snare", "b": "kick", "metres": 0.6}, 201),
    ("POST", "/sessions/{session}/tape/strike", {"a": "snare", "b": "kick"}, 204),
    ("POST", "/sessions/{session}/tape/elsewhere", five_piece().model_dump(mode="json"), 200),
    ("GET", "/archives/{archive}", None, 200),
    ("GET", "/archives/{archive}/studio.zip", None, 200),
    ("DELETE", "/archives/{archive}", None, 200),
    ("GET", "/read-ins/{read}", None, 200),
    ("GET", "/layouts/{layout}/takes", None, 200),
    ("GET", "/layouts/{layout}/heard", None, 200),
    ("GET", "/sessions/{session}/takes", None, 200),
    (
        "POST",
        "/layouts/{layout}/takes",
        {"key": LINE, "name": "N", "files": [{"name": "a.wav", "size": 9}]},
        201,
    ),
    ("POST", "/layouts/{layout}/takes/simulated", {"key": LINE}, 200),
    ("GET", "/recordings/{recording}", None, 200),
    ("PUT", "/takes/{take}/files/0?at=0", {"any": "bytes"}, 200),
    ("GET", "/takes/{take}/files.zip", None, 400),
    ("GET", "/studios/{studio}/recorded", None, 200),
    ("GET", "/studios/{studio}/recorded.zip", None, 200),
    ("PUT", "/takes/{take}/said", {"drums": {"0": "snare"}}, 200),
    ("POST", "/takes/{take}/measure", None, 400),
    ("DELETE", "/takes/{take}", None, 204),
    ("GET", "/measures/{measure}", None, 200),
    ("DELETE", "/measures/{measure}", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/told", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/waves/snare", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/align?to=OL", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/align.csv?to=OL&on=snare", None, 400),
    ("GET", "/takes/{take}/measures/{measure}/aligned.zip?to=OL&on=snare", None, 400),
    ("POST", "/takes/{take}/measures/{measure}/effect?to=OL&on=snare", None, 400),
    ("GET", "/takes/{take}/measures/{measure}/effect/{measure}", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/listening", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/against/{take}/{measure}", None, 200),
    ("GET", "/takes/{take}/measures/{measure}/sound?group=0&begin=0&count=10", None, 400),
    ("POST", "/takes/{take}/since/{take}", None, 400),
    ("GET", "/comparisons/{comparison}", None, 200),
    ("GET", "/comparisons/{comparison}/since", None, 200),
    ("GET", "/sessions/{session}/tried", None, 200),
    ("GET", "/sessions/{session}/tried.csv", None, 200),
    ("GET", "/sessions/{session}/tried/elsewhere", None, 200),
    ("POST", "/layouts/{layout}/tried", {"key": LINE, "verdict": "works", "doc": DOC}, 201),
    ("POST", "/layouts/{layout}/tried/since", {"layout": DOC}, 200),
    ("GET", "/tried/{line}", None, 200),
    ("POST", "/tried/{line}/way-to", {"layout": DOC}, 200),
    ("POST", "/tried/{line}/otherwise", {"key": LINE, "verdict": "no"}, 201),
    ("POST", "/tried/{line}/strike", None, 204),
    ("POST", "/tried/{line}/restore", None, 204),
    ("POST", "/sessions/{session}/tried/{line}/layout", {"name": "Again"}, 201),
]
NAMES = [f"{m} {p}" for m, p, _, _ in ENDPOINTS]


def kept(owner, session):
    """One of each thing that is kept, by the name its place has in a path."""
    studio = owner.studios.get().pk
    spot = {"room": "Box", "x_m": 1.0, "y_m": 1.0, "rating": 3}
    layout = session.layouts.get()
    write_entry(owner, layout.pk, Entry(key=LINE, what="tick", mic="OL"))
    take = begin(owner, layout.pk, UUID(int=1), "Take 1", [FileBegun("a.wav", 99)])
    return {
        "studio": studio,
        "room": keep_room(owner, studio, Room.model_validate(ROOM)).pk,
        "kit": keep_kit(owner, studio, five_piece()).pk,
        "lugs": write_lugs(owner, session.pk, "snare", [330.0]).pk,
        "spot": write_spot(owner, session.pk, **spot).pk,
        "example": an_example(owner, session.layouts.get()).pk,
        "archive": a_job(owner, ARCHIVE.name, FILE),
        "print": a_job(owner, SHEET.name, SHEET_FILE),
        "read": a_job(owner, READ_IN.name, "told.json"),
        "take": take.pk,
        "line": write_line(
            owner, layout.pk, Line(words="dry", verdict="works", doc=layout.doc()), UUID(int=1)
        ).pk,
        "recording": a_job(owner, RECORD.name, "take.json"),
        "measure": a_measure(owner, take),
        "comparison": a_job(owner, COMPARE.name, SINCE, asdict(Since([], [], [], ""))),
    }


def a_measure(owner, take):
    """A take of nothing, told."""
    none = HitList([], 0.0, "", "")
    told = asdict(TakeTold(48000, 1.0, [], [], [], [], [], [], none, 0, 0, ""))
    waves = {"snare": asdict(DrumWaves("snare", 0.0, 0.1, []))}
    basis = asdict(Basis(48000, ["OL"], [None], []))
    heard = asdict(Listening(48000, 48000, 8, [], []))
    made = ((TOLD, told), (WAVES, waves), (BASIS, basis), (LISTEN, heard))
    files = {
        name: default_storage.save(name, ContentFile(json.dumps(what).encode()))
        for name, what in made
    }
    ask = {"take": take.pk, "layout": {}}
    studio = owner.studios.get()
    return Job.objects.create(
        studio=studio, kind=MEASURE.name, key="m", ask=ask, files=files, state="done"
    ).pk


def a_job(owner, kind, name, made=None):
    """One that is done."""
    body = json.dumps(made).encode() if made else b"PK"
    files = {name: default_storage.save(name, ContentFile(body))}
    studio = owner.studios.get()
    return Job.objects.create(studio=studio, kind=kind, key="k", ask={}, files=files).pk


def an_example(owner, layout):
    """One that is rendered, of a few samples."""
    made = ask_for(owner, layout.pk, ask_of(analyse(layout.doc()), "OL", "OR", "kick"))
    made.files = {"wired.wav": default_storage.save("wired.wav", ContentFile(b"RIFF"))}
    made.save()
    return made


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
@pytest.mark.parametrize(("method", "path", "data", "good"), ENDPOINTS, ids=NAMES)
def test_endpoint_by_role(method, path, data, good, owner, member, outsider, session, layout):
    place = path.format(session=session.pk, layout=layout.pk, **kept(owner, session))
    assert Api()(method, place, data)[0] == 401
    theirs = 404 if "{" in path else good
    assert Api(outsider)(method, place, data)[0] == theirs
    assert Api(member)(method, place, data)[0] == good


def test_every_endpoint_of_the_interface_is_in_the_table():
    from api.routes import api

    named = {"{session}": "{pk}", "{layout}": "{pk}", "{studio}": "{pk}", "{lugs}": "{row}",
             "{spot}": "{row}", "{example}": "{pk}", "/wired.wav": "/{version}.wav",
             "{archive}": "{pk}", "{read}": "{pk}", "{print}": "{pk}",
             "/against/{take}/{measure}": "/against/{other}/{other_job}",
             "/since/{take}": "/since/{other}", "{take}": "{pk}",
             "{recording}": "{pk}", "/measures/{measure}/": "/measures/{job}/",
             "/tried/{line}/layout": "/tried/{there}/layout", "{line}": "{pk}",
             "{there}": "{line}", "{measure}": "{pk}", "/waves/snare": "/waves/{source}",
             "/files/0?at=0": "/files/{number}", "/align?to=OL": "/align", "{comparison}": "{pk}",
             "/align.csv?to=OL&on=snare": "/align.csv",
             "/effect?to=OL&on=snare": "/effect", "/effect/{pk}": "/effect/{other}",
             "/aligned.zip?to=OL&on=snare": "/aligned.zip",
             "/sound?group=0&begin=0&count=10": "/sound"}  # fmt: skip
    known = set()
    for method, path, _, _ in ENDPOINTS:
        plain = path
        for name, there in named.items():
            plain = plain.replace(name, there)
        known.add((method, plain))
    elsewhere = {
        ("POST", "/account/sign-in"), ("POST", "/account/sign-up"), ("POST", "/account/sign-out"),
        ("POST", "/account/password"), ("POST", "/sessions/upload"),
        ("GET", "/meter"), ("POST", "/meter"),
        ("POST", "/account/phone"), ("POST", "/account/phone-links"),
        ("GET", "/account/phone-links/{pk}"), ("DELETE", "/account/devices/{pk}"),
        ("POST", "/read-ins"), ("POST", "/hit-list"),
        ("POST", "/studios/{pk}/locker.csv"),
        ("POST", "/sessions/{pk}/restore"), ("POST", "/layouts/{pk}/restore"),
    }  # fmt: skip
    paths = api.get_openapi_schema()["paths"]
    there = {(m.upper(), p.removeprefix("/api")) for p, ways in paths.items() for m in ways}
    assert there == known | elsewhere


@pytest.mark.parametrize("path", ["/sessions/{}/restore", "/layouts/{}/restore"])
def test_nobody_restores_what_another_studio_deleted(path, owner, outsider, session, layout):
    pk = session.pk if "sessions" in path else layout.pk
    Api(owner)("DELETE", path.format(pk).removesuffix("/restore"))
    assert Api()("POST", path.format(pk))[0] == 401
    assert Api(outsider)("POST", path.format(pk))[0] == 404
    assert Api(owner)("POST", path.format(pk))[0] == 200


def test_lists_hold_only_ones_own(owner, outsider, session):
    assert Api(outsider)("GET", "/sessions")[1] == []
    starts = Api(outsider)("GET", "/sessions/starts")[1]
    assert starts["own_kits"] == starts["rooms"] == []


def test_a_session_cannot_be_put_into_another_studio(owner, outsider):
    new = {"name": "N", "kit": "four-piece", "start": "empty", "studio_id": owner.studios.get().pk}
    assert Api(outsider)("POST", "/sessions", new)[0] == 404


def test_sign_up_in_out_and_password(db, settings):
    settings.PASSWORD_HASHERS = as_served
    api = Api()
    account = {"username": "fresh", "password": PASSWORD, "studio": "Fresh studio"}
    status, me = api("POST", "/account/sign-up", account)
    assert (status, me["studios"][0]["name"]) == (201, "Fresh studio")
    assert User.objects.get(username="fresh").password.startswith("argon2")
    assert api("POST", "/account/sign-up", account)[1]["detail"].startswith("That name is taken")
    bad = {"old": "wrong", "new": PASSWORD + "x"}
    assert api("POST", "/account/password", bad)[0] == 400
    short = {"old": PASSWORD, "new": "123"}
    assert "too short" in api("POST", "/account/password", short)[1]["detail"]
    assert api("POST", "/account/password", {"old": PASSWORD, "new": PASSWORD + "x"})[0] == 204
    assert api("GET", "/account/me")[0] == 200
    assert api("POST", "/account/sign-out")[0] == 204
    assert api("GET", "/account/me")[0] == 401
    known = {"username": "fresh", "password": PASSWORD + "x"}
    assert api("POST", "/account/sign-in", known)[0] == 200


def test_wrong_tries_are_stopped_even_for_the_right_password(owner):
    api = Api()
    tries = [api("POST", "/account/sign-in", {"username": "owner", "password": "no"})
             for _ in range(5)]  # fmt: skip
    assert [status for status, _ in tries] == [401] * 4 + [429]
    # Also the try that was one too many is answered in words.
    assert "quarter of an hour" in tries[-1][1]["detail"]
    status, problem = api("POST", "/account/sign-in", {"username": "owner", "password": PASSWORD})
    assert status == 429
    assert "quarter of an hour" in problem["detail"]


def test_a_made_up_address_in_a_header_does_not_open_the_door(owner):
    api = Api()
    for n in range(5):
        api.client.post(
            "/api/account/sign-in", {"username": "owner", "password": "no"},
            content_type="application/json", headers={"X-Forwarded-For": f"10.0.0.{n}"},
        )  # fmt: skip
    assert api("POST", "/account/sign-in", {"username": "owner", "password": PASSWORD})[0] == 429


@pytest.mark.parametrize("path", ["/account/sign-in", "/account/sign-up", "/sessions", "/compute"])
def test_a_post_from_another_site_is_refused(path, owner):
    assert Api(owner, csrf=True)("POST", path, {})[0] == 403


def test_headers_keep_the_page_to_itself(client, settings, tmp_path):
    from config import page

    (tmp_path / "index.html").write_text('<meta name="nonce" content="__NONCE__">')
    settings.WEB_DIST = tmp_path
    page._built.cache_clear()
    answer = client.get("/layouts/1/place")
    page._built.cache_clear()
    policy = answer["Content-Security-Policy"]
    nonce = answer.content.decode().split('content="')[1].split('"')[0]
    assert len(nonce) > 10
    assert f"style-src 'self' 'nonce-{nonce}'" in policy
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    assert answer["X-Content-Type-Options"] == "nosniff"
    assert answer["X-Frame-Options"] == "SAMEORIGIN"
    assert answer["Referrer-Policy"] == "same-origin"


@pytest.mark.parametrize("path", ["/layouts/1/place", "/static/nothing.js", "/api/me"])
def test_every_answer_lets_a_page_share_memory_with_its_workers(client, path):
    """Both headers: what browsers ask for (the standard HTML, cross-origin isolation)."""
    answer = client.get(path)
    assert answer["Cross-Origin-Embedder-Policy"] == "require-corp"
    assert answer["Cross-Origin-Opener-Policy"] == "same-origin"
