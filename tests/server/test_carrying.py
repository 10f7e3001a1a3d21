"""A studio carried away and read in elsewhere: everything in it, or nothing and the reason."""

import io
import json
import zipfile
from uuid import UUID

import pytest
from carrying import recorded as carried
from carrying import unzipped
from carrying.actions import ARCHIVE, READ_IN
from django.core.files.storage import default_storage
from django.core.files.uploadedfile import SimpleUploadedFile
from jobs.models import Job
from jobs.working import work_on
from plans.actions import add_layout
from plans.models import Layout, LugLog, Session, TriedLog
from ringside.gear.locker import Locker as LockerDoc
from ringside.plan.kits import five_piece
from studios import actions as keeping
from studios.models import Studio
from takes.models import Take
from takes.recorded import _whole

from tests.server.conftest import Api
from tests.server.test_keeping import decided, save
from tests.server.test_layouts import doc_of, moved
from tests.server.test_takes import sent as piece


@pytest.fixture
def full(owner, session, layout):
    """A studio with something of everything, its histories and logs among it."""
    api, studio = Api(owner), owner.studios.get()
    doc, version = doc_of(api, layout.pk)
    for n in (1, 2, 3):
        version = save(api, layout.pk, version, decided(moved(doc, n / 10)))[1]["version"]
    api("POST", f"/layouts/{layout.pk}/undo", {"version": version})
    api("POST", f"/sessions/{session.pk}/copy")
    api("DELETE", f"/sessions/{Session.objects.latest('pk').pk}")
    spot = {"room": "Box", "x_m": 1.0, "y_m": 1.0, "rating": 3, "words": "dry – and „low“"}
    api("POST", f"/sessions/{session.pk}/spots", spot)
    for hz in (190.0, 200.0):
        api("POST", f"/sessions/{session.pk}/lugs", {"drum": "snare", "lugs_hz": [hz]})
    api("DELETE", f"/sessions/{session.pk}/lugs/{LugLog.objects.latest('pk').pk}")
    take = recorded(api, layout.pk, "Take 1", ("OL.wav", b"left"), ("OL.wav", b"right"))
    api("PUT", f"/takes/{take}/said", {"channels": {"OL.wav": None}, "drums": {"1000": "snare"}})
    recorded(api, layout.pk, "Half", ("KI.wav", b"ki"), cut=1)
    for n, words in enumerate(("fuller – „low“", "thin")):
        line = {"key": str(UUID(int=n)), "verdict": "works", "words": words, "stood": n == 1,
                "take": take if n == 0 else None, "doc": decided(moved(doc, n / 10))}  # fmt: skip
        api("POST", f"/layouts/{layout.pk}/tried", line)
    api("POST", f"/tried/{TriedLog.objects.latest('pk').pk}/strike")
    keeping.keep_kit(owner, studio.pk, five_piece())
    keeping.save_locker(owner, studio.pk, 1, LockerDoc(minutes=77))
    return studio


def recorded(api, layout, name, *files, cut=0):
    """A take of these files; the last bytes of each do not come."""
    told = [{"name": n, "size": len(sound)} for n, sound in files]
    key = str(UUID(int=len(name)))
    begun = {"key": key, "name": name, "files": told}
    pk = api("POST", f"/layouts/{layout}/takes", begun)[1]["id"]
    for n, (_, sound) in enumerate(files):
        assert piece(api, pk, n, 0, sound[: len(sound) - cut])[0] == 200
    return pk


def archived(api, studio):
    job = api("POST", f"/studios/{studio.pk}/archive")[1]
    work_on(job["id"])
    assert api("GET", f"/archives/{job['id']}")[1]["state"] == "done"
    return api("GET", f"/archives/{job['id']}/studio.zip")[1]


def sent(api, data, **more):
    file = SimpleUploadedFile("studio.zip", data)
    answer = api.client.post("/api/read-ins", {"file": file, **more})
    return answer.status_code, answer.json()


def read(api, data):
    status, job = sent(api, data)
    assert status == 200, job
    work_on(job["id"])
    assert not default_storage.exists(Job.objects.get(pk=job["id"]).ask["path"])
    return api("GET", f"/read-ins/{job['id']}")[1]


def contents(data):
    zipped = zipfile.ZipFile(io.BytesIO(data))
    return {n: zipped.read(n).decode() for n in zipped.namelist()}


def test_what_is_carried_away_and_read_in_is_the_same(full, owner, outsider):
    first = archived(Api(owner), full)
    there = Api(outsider)
    assert read(there, first)["state"] == "done"
    fresh = Studio.objects.latest("pk")
    assert [s["name"] for s in there("GET", "/account/me")[1]["studios"]][-1] == full.name
    second = archived(there, fresh)
    one, two = contents(first), contents(second)
    assert list(one) == list(two)
    for name in one:
        if name == "ringside-studio.json":
            continue
        # People are named as of elsewhere; ids of rows are not carried, so they are empty.
        told = one[name].replace('"owner"', '"owner (elsewhere)"')
        strip = lambda text: "\n".join(w for w in text.splitlines() if '"key"' not in w)  # noqa: E731
        assert strip(two[name]) == strip(told), name
    for log in ("sessions/000001/log.jsonl", "sessions/000001/takes.jsonl"):
        assert one[log].count("\n") == 2
        assert two[log] == one[log].replace('"owner"', '"owner (elsewhere)"')
    assert Session.objects.filter(studio=fresh, deleted_at=None).count() == 1
    layout = Layout.objects.filter(session__studio=fresh, session__deleted_at=None).get()
    assert (layout.head, layout.revisions.count()) == (3, 4)
    assert json.loads(one["ringside-studio.json"])["members"] == [
        {"name": "owner", "role": "owner"}
    ]
    assert LugLog.objects.filter(session__studio=fresh, struck_at=None).count() == 1


def test_the_newest_state_is_a_layout_file_of_its_own(full, owner, layout):
    from ringside.files.layout import read_layout

    inside = contents(archived(Api(owner), full))
    name = next(n for n in inside if n.endswith(".layout.json"))
    assert read_layout(inside[name]) == Layout.objects.get(pk=layout.pk).doc()


def test_an_archive_is_read_once_under_its_key(full, owner, outsider):
    data = archived(Api(owner), full)
    key = "0f8fad5b-d9cb-469f-a165-70867728950e"
    one, two = (sent(Api(outsider), data, key=key)[1] for _ in range(2))
    assert one["id"] == two["id"]


def changed(data, name, change):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as zipped:
        for n, text in contents(data).items():
            if change is not None or n != name:
                zipped.writestr(n, change(text) if n == name and change else text)
    return out.getvalue()


def first_of(data, ending):
    return next(n for n in contents(data) if n.endswith(ending))


@pytest.mark.parametrize(
    ("ending", "change", "words"),
    [
        ("session.json", lambda t: t.replace('"Day one"', '""'), "name"),
        ("session.json", lambda t: t.replace("Day one", "Day \\u0000 one"), "U+0000"),
        ("session.json", lambda t: t[:40], "not JSON"),
        (".history.jsonl", lambda t: t + t, "each state once"),
        (".history.jsonl", lambda t: t.replace('"number": 3', '"number": 99'), "state 3 among"),
        (".history.jsonl", lambda t: "[1]\n", "line 1"),
        (".history.jsonl", None, "is missing"),
        ("/log.jsonl", lambda t: t.replace('"layout": 1', '"layout": 7'), "no layout 7"),
        ("/log.jsonl", lambda t: t.replace('"works"', '"so so"'), "line 1: verdict"),
        ("/log.jsonl", lambda t: t * 251, "at most 500 lines"),
        ("/takes.jsonl", lambda t: t.replace('"layout": 1', '"layout": 7'), "no layout 7"),
        ("/takes.jsonl", lambda t: t.replace('"size": 4', '"size": 0'), "line 1: files[0].size"),
        (
            "/takes.jsonl",
            lambda t: t.replace("KI.wav", "../KI.wav"),
            "files[0].name: expected a file's name without / and",
        ),
        ("/takes.jsonl", lambda t: t + t, "line 3: expected each take once"),
        ("/takes.jsonl", lambda t: t.replace('"1000"', '"noon"'), "line 1: drums"),
        (
            "/takes.jsonl",
            lambda t: t.replace('"truth": null', '"truth": {"wrong": {"late": 3}}'),
            "line 1: late",
        ),
        ("rooms/0001.json", lambda t: "[]", "rooms/0001.json"),
        ("locker.json", lambda t: "3", "expected an object"),
    ],
)
def test_a_broken_archive_says_where_and_leaves_nothing_behind(
    full, owner, outsider, ending, change, words
):
    keeping.keep_room(owner, full.pk, five_room())
    data = archived(Api(owner), full)
    before = Studio.objects.count()
    told = read(Api(outsider), changed(data, first_of(data, ending), change))
    assert told["state"] == "failed"
    assert words in told["words"]
    assert "Nothing was read in" in told["words"]
    assert Studio.objects.count() == before


def five_room():
    from ringside.plan.room import Room

    return Room(
        name="Box", width_m=5.0, length_m=6.0, height_m=3.0, kit_x_m=2.0, kit_y_m=2.0
    )  # fmt: skip


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"no zip at all", "no zip file"),
        (changed(b"PK\x05\x06" + bytes(18), "x", None), "ringside-studio.json"),
    ],
)
def test_what_is_no_archive_is_refused_at_once(outsider, data, words):
    status, told = sent(Api(outsider), data)
    assert (status, words in told["detail"]) == (400, True)
    assert Job.objects.count() == 0


def test_a_zip_that_unpacks_without_end_is_not_unpacked(outsider, monkeypatch):
    monkeypatch.setattr(unzipped, "MOST_BYTES", 1000)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as zipped:
        zipped.writestr("ringside-studio.json", b"{}" + b" " * 5000)
    status, told = sent(Api(outsider), out.getvalue())
    assert (status, "more than a studio can" in told["detail"]) == (400, True)


def test_a_take_read_in_waits_for_its_files_and_is_whole_with_them(full, owner, outsider):
    data = archived(Api(owner), full)
    there = Api(outsider)
    assert read(there, data)["state"] == "done"
    fresh = Studio.objects.latest("pk")
    session = fresh.sessions.earliest("pk")
    (layout,) = session.layouts.all()
    _, kept = there("GET", f"/layouts/{layout.pk}/takes")
    half, take = kept["takes"]
    assert [(t["name"], t["by"]) for t in (half, take)] == [
        ("Half", "owner (elsewhere)"), ("Take 1", "owner (elsewhere)"),
    ]  # fmt: skip
    first = Take.objects.get(layout__session__studio=full, name="Take 1")
    assert Take.objects.get(pk=take["id"]).made_at == first.made_at
    assert (take["channels"], take["drums"]) == ({"OL.wav": None}, {"1000": "snare"})
    assert [(f["name"], f["size"], f["received"]) for f in take["files"]] == [
        ("OL.wav", 4, 0), ("OL.wav", 5, 0),
    ]  # fmt: skip
    assert kept["kept"] == 11
    # It is not listened to before its sound is there, and the log knows it already.
    path = f"/sessions/{session.pk}"
    assert there("GET", f"{path}/takes")[1] == []
    (line,) = there("GET", f"{path}/tried")[1]
    assert (line["words"], line["take"]["id"]) == ("fuller – „low“", take["id"])
    # The sound lies where the archive says it does; the second of one name in its number.
    row = json.loads(contents(data)["sessions/000001/takes.jsonl"].splitlines()[0])
    sounds = contents(Api(owner)("GET", f"/studios/{full.pk}/recorded.zip")[1])
    names = [f"{row['folder']}{n}" for n in ("OL.wav", "2/OL.wav")]
    assert sounds == dict(zip(names, ("left", "right"), strict=True))
    assert Api(owner)("GET", f"/studios/{full.pk}/recorded")[1] == {"takes": 1, "size": 9}
    status, told = there("GET", f"/takes/{take['id']}/files.zip")
    assert (status, told["detail"][:33]) == (400, "OL.wav has not come whole yet; se")
    for n, name in enumerate(names):
        assert piece(there, take["id"], n, 0, sounds[name].encode())[0] == 200
    assert [t["id"] for t in there("GET", f"{path}/takes")[1]] == [take["id"]]
    _, alone = there("GET", f"/takes/{take['id']}/files.zip")
    assert contents(alone) == {"OL.wav": "left", "2/OL.wav": "right"}


def test_sound_lies_where_the_archive_says_of_every_layout(
    full, owner, outsider, session, django_assert_num_queries
):
    api = Api(owner)
    twin = add_layout(session, session.layouts.earliest("pk").doc(), owner, "twin")
    # The key of the first layout's take: a key is of its layout alone.
    recorded(api, twin.pk, "Take 2", ("OL.wav", b"twin"))
    recorded(api, twin.pk, "Take three", ("OL.wav", b"three"))
    inside = contents(archived(api, full))
    rows = [json.loads(r) for r in inside["sessions/000001/takes.jsonl"].splitlines()]
    sounds = contents(api("GET", f"/studios/{full.pk}/recorded.zip")[1])
    said = {
        sounds[f"{r['folder']}OL.wav"]: (r["name"], r["layout"]) for r in rows if "T" in r["name"]
    }
    assert said == {"left": ("Take 1", 1), "twin": ("Take 2", 2), "three": ("Take three", 2)}
    assert read(Api(outsider), archived(api, full))["state"] == "done"
    # However many sessions a studio has.
    with django_assert_num_queries(4):
        _whole(full)
    assert api("GET", f"/studios/{full.pk}/recorded")[1] == {"takes": 3, "size": 18}


def test_takes_of_more_than_is_kept_here_are_refused_with_the_archive(
    full, owner, outsider, settings
):
    data = archived(Api(owner), full)
    settings.TAKES_BYTES = 10
    told = read(Api(outsider), data)
    assert (told["state"], "0 GB of a studio are kept here" in told["words"]) == ("failed", True)
    settings.TAKES_BYTES = 11
    assert read(Api(outsider), data)["state"] == "done"


def test_more_takes_of_a_layout_than_are_kept_are_refused(full, owner, outsider, monkeypatch):
    data = archived(Api(owner), full)
    monkeypatch.setattr(carried, "MOST_TAKES", 1)
    told = read(Api(outsider), data)
    assert "takes.jsonl, line 2: expected at most 1 takes of a layout" in told["words"]
    monkeypatch.setattr(carried, "MOST_TAKES", 2)
    assert read(Api(outsider), data)["state"] == "done"


@pytest.mark.parametrize("ending", ["/takes.jsonl", "/log.jsonl"])
def test_an_archive_of_before_takes_were_carried_is_read(full, owner, outsider, ending):
    data = changed(archived(Api(owner), full), f"sessions/000001{ending}", None)
    assert read(Api(outsider), data)["state"] == "done"
    fresh = Studio.objects.latest("pk")
    assert TriedLog.objects.filter(session__studio=fresh).exists() == (ending == "/takes.jsonl")
    assert Take.objects.filter(layout__session__studio=fresh).exists() == (ending == "/log.jsonl")


def test_a_document_of_a_later_version_is_kept_as_it_is(full, owner, outsider):
    data = archived(Api(owner), full)
    name = first_of(data, ".history.jsonl")
    later = changed(data, name, lambda t: t.replace('"version": 3', '"version": 8'))
    assert read(Api(outsider), later)["state"] == "done"
    layout = Layout.objects.filter(session__studio=Studio.objects.latest("pk")).first()
    assert layout.state.doc["version"] == 8


def test_anothers_archive_is_not_there(full, owner, outsider):
    api = Api(owner)
    job = api("POST", f"/studios/{full.pk}/archive")[1]
    for method, path in (("GET", ""), ("DELETE", ""), ("GET", "/studio.zip")):
        assert Api(outsider)(method, f"/archives/{job['id']}{path}")[0] == 404
    assert {ARCHIVE.kept, READ_IN.kept} == {2, 4}
