"""Takes on the server: pieces, cut lines, room, corrections, a worker, other studios."""

import io
import json
import uuid
import zipfile

import pytest
import soundfile
from accounts.models import User
from django.core.files.storage import default_storage
from django.core.management import call_command
from jobs.models import Job
from jobs.working import work_on
from plans.actions import add_layout
from plans.atkit import write_entry
from plans.lines import known
from plans.models import Layout
from ringside.recorder.wrong import Moved, Wrong
from ringside.standing.entries import Entry
from takes.actions import LARGEST_PIECE
from takes.files import as_local
from takes.models import Take, TakeFile

from tests.core.takes import demo_layout, recorded
from tests.server.conftest import Api

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def demo(as_owner, layout):
    """The owner's layout is the demo's, in the open: a room takes its time to be heard."""
    doc = demo_layout().model_copy(update={"room": None}).model_dump(mode="json")
    assert (
        as_owner("PUT", f"/layouts/{layout.pk}", {"version": 1, "what": "w", "doc": doc})[0] == 200
    )
    return layout


def begun(api, layout, *files, key=None):
    names = [{"name": n, "size": s} for n, s in files]
    return api("POST", f"/layouts/{layout.pk}/takes",
               {"key": str(key or uuid.uuid4()), "name": "Take 1", "files": names})  # fmt: skip


def sent(api, take, number, at, data):
    api.last = api.client.put(
        f"/api/takes/{take}/files/{number}?at={at}",
        data=data,
        content_type="application/octet-stream",
    )
    return api.last.status_code, api.last.json()


def test_a_file_comes_in_pieces_once_and_goes_on_where_it_was_cut(as_owner, layout):
    key = uuid.uuid4()
    status, take = begun(as_owner, layout, ("one.wav", 25), key=key)
    assert (status, take["files"][0]["received"]) == (201, 0)
    assert begun(as_owner, layout, ("one.wav", 25), key=key)[1]["id"] == take["id"]
    pk = take["id"]
    assert sent(as_owner, pk, 0, 0, b"0123456789") == (200, {"received": 10})
    # Sent again, or too far on: nothing changes, and where it goes on is told.
    assert sent(as_owner, pk, 0, 0, b"0123456789") == (200, {"received": 10})
    assert sent(as_owner, pk, 0, 20, b"x") == (200, {"received": 10})
    status, told = sent(as_owner, pk, 0, 10, b"y" * 16)
    assert (status, told["detail"][:34]) == (400, "one.wav: is longer than the 25 byt")
    assert as_owner("POST", f"/takes/{pk}/measure")[1]["detail"].startswith("one.wav has not come")
    assert sent(as_owner, pk, 0, 10, b"abcdefghijklmno") == (200, {"received": 25})
    file = TakeFile.objects.get(take_id=pk)
    with as_local(file.take) as paths:
        assert [p.read_bytes() for p in paths] == [b"0123456789abcdefghijklmno"]
    # Forgotten with everything that was kept of it.
    assert as_owner("DELETE", f"/takes/{pk}")[0] == 204
    assert not any(default_storage.exists(p) for p in file.pieces)
    assert as_owner("GET", f"/layouts/{layout.pk}/takes")[1]["takes"] == []


def test_what_is_too_large_or_too_many_is_told_before_anything_is_kept(as_owner, layout, settings):
    settings.TAKES_BYTES = 1_000_000_000
    assert begun(as_owner, layout, ("a.wav", 900_000_000))[0] == 201
    status, told = begun(as_owner, layout, ("b.wav", 200_000_000))
    assert status == 400
    assert told["detail"].startswith("these files are 0.20 GB and the studio has 0.10 of 1 GB left")
    assert begun(as_owner, layout, *[(f"{n}.wav", 1) for n in range(65)])[0] == 422
    assert begun(as_owner, layout, ("../../etc/passwd", 1))[0] == 422
    assert begun(as_owner, layout, ("none.wav", 0))[0] == 422
    pk = Take.objects.get().pk
    status, told = sent(as_owner, pk, 0, 0, b"x" * (LARGEST_PIECE + 1))
    assert (status, "expected a piece of 1 to 1000000 bytes" in told["detail"]) == (400, True)
    assert sent(as_owner, pk, 7, 0, b"x")[0] == 404


def uploaded(api, layout, folder, wrong=None, **how):
    files, _ = recorded(folder, wrong, **how)
    _, take = begun(api, layout, *[(f.name, f.stat().st_size) for f in files])
    for n, path in enumerate(files):
        data = path.read_bytes()
        for at in range(0, len(data), LARGEST_PIECE):
            assert sent(api, take["id"], n, at, data[at : at + LARGEST_PIECE])[0] == 200
    return take["id"]


def measured(api, pk):
    _, job = api("POST", f"/takes/{pk}/measure")
    if job["state"] == "waiting":
        work_on(job["id"])
    _, job = api("GET", f"/measures/{job['id']}")
    assert job["state"] == "done", job["words"]
    return job["id"], api("GET", f"/takes/{pk}/measures/{job['id']}/told")[1]


def test_a_take_is_measured_by_a_worker_corrected_and_measured_again(as_owner, demo, tmp_path):
    pk = uploaded(as_owner, demo, tmp_path, Wrong(inverted=("SB",)), sources=("snare", "kick"))
    job, told = measured(as_owner, pk)
    assert [(d["source"], d["hits"]) for d in told["drums"]] == [("kick", 3), ("snare", 3)]
    assert [(r["kind"], r["channels"]) for r in told["reasons"]] == [("turned over", ["SB"])]
    status, waves = as_owner("GET", f"/takes/{pk}/measures/{job}/waves/snare")
    assert (status, len(waves["rows"])) == (200, 10)
    assert all(len(h) == 160 and max(map(abs, h)) <= 100 for r in waves["rows"] for h in r["hits"])
    assert as_owner("GET", f"/takes/{pk}/measures/{job}/waves/gong")[0] == 404
    # Asked again nothing is done again; corrected it is.
    assert measured(as_owner, pk)[0] == job
    first, second = (str(h["ms"]) for h in told["hits"][:2])
    said = {"channels": {}, "drums": {first: None, second: "floor"}}
    assert as_owner("PUT", f"/takes/{pk}/said", said)[0] == 200
    again, told = measured(as_owner, pk)
    assert again != job
    assert [(h["source"], h["said"]) for h in told["hits"][:2]] == [(None, True), ("floor", True)]
    heard = as_owner("GET", f"/layouts/{demo.pk}/heard")[1]
    assert (heard["take"], heard["current"], heard["pairs"]) == (pk, True, told["pairs"])
    # With a tape held at a mic it is told how that stands, too.
    assert {p["stands"] for p in told["pairs"]} == {None}
    line = Entry(key=str(uuid.uuid4()), what="reading", mic="OR", to="snare", metres=1.31)
    write_entry(User.objects.get(username="owner"), demo.pk, line)
    taped, told = measured(as_owner, pk)
    assert taped != again
    assert {p["stands"] is None for p in told["pairs"] if "OR" in (p["a"], p["b"])} == {False}


def test_a_file_that_is_none_fails_in_words(as_owner, demo):
    _, take = begun(as_owner, demo, ("notes.wav", 11))
    sent(as_owner, take["id"], 0, 0, b"not a sound")
    _, job = as_owner("POST", f"/takes/{take['id']}/measure")
    work_on(job["id"])
    _, job = as_owner("GET", f"/measures/{job['id']}")
    assert job["state"] == "failed"
    assert job["words"].startswith("notes.wav: is no sound file that can be measured")


def test_a_worker_that_went_away_leaves_one_take_when_it_is_begun_again(as_owner, demo):
    """The simulated recorder, killed after its take was kept and before the job was."""
    key = str(uuid.uuid4())
    ask = {"key": key, "seed": 3, "wrong": ["inverted"]}
    _, job = as_owner("POST", f"/layouts/{demo.pk}/takes/simulated", ask)
    assert as_owner("POST", f"/layouts/{demo.pk}/takes/simulated", ask)[1]["id"] == job["id"]
    work_on(job["id"])
    Job.objects.filter(pk=job["id"]).update(state="waiting")
    work_on(job["id"])
    assert as_owner("GET", f"/recordings/{job['id']}")[1]["state"] == "done"
    (take,) = as_owner("GET", f"/layouts/{demo.pk}/takes")[1]["takes"]
    assert (take["key"], take["name"], len(take["files"])) == (key, "Simulated, seed 3", 10)
    assert all(f["received"] == f["size"] > 1000 for f in take["files"])
    inverted = take["truth"]["wrong"]["inverted"]
    _, told = measured(as_owner, take["id"])
    assert [r["channels"] for r in told["reasons"] if r["kind"] == "turned over"] == [inverted]


def test_nobody_of_another_studio_sees_or_touches_a_take(as_owner, outsider, layout, tmp_path):
    _, take = begun(as_owner, layout, ("a.wav", 5))
    other, pk = Api(outsider), take["id"]
    assert other("GET", f"/layouts/{layout.pk}/takes")[0] == 404
    assert sent(other, pk, 0, 0, b"abcde")[0] == 404
    assert other("DELETE", f"/takes/{pk}")[0] == 404
    assert other("POST", f"/takes/{pk}/measure")[0] == 404
    assert other("PUT", f"/takes/{pk}/said", {})[0] == 404
    # Nor by one's own take and another's job.
    sent(as_owner, pk, 0, 0, b"abcde")
    _, job = as_owner("POST", f"/takes/{pk}/measure")
    Job.objects.filter(pk=job["id"]).update(state="done", files={"told.json": "x"})
    assert other("GET", f"/takes/{pk}/measures/{job['id']}/told")[0] == 404
    assert other("GET", f"/measures/{job['id']}")[0] == 404


def test_the_hits_to_play_are_told_for_a_layout(as_owner):
    doc = json.loads(demo_layout().model_dump_json())
    status, told = as_owner("POST", "/hit-list", {"layout": doc})
    assert status == 200
    assert told["rows"][0]["settles"] > 0
    assert told["words"].startswith("Play: 5 single hits on each of ")


def test_tracks_are_aligned_by_what_was_measured_and_two_takes_are_compared(
    as_owner, demo, tmp_path
):
    first = uploaded(as_owner, demo, tmp_path / "one", sources=("snare", "kick", "floor"))
    wrong = Wrong(moved=(Moved(mic="OR", by_m=(0.0, 0.0, 0.12)),))
    second = uploaded(as_owner, demo, tmp_path / "two", wrong, sources=("snare", "kick", "floor"))
    job, _ = measured(as_owner, first)
    base = f"/takes/{first}/measures/{job}"
    status, rows = as_owner("GET", f"{base}/align?to=OL")
    assert status == 200
    later = {r["channel"]: r["later"] for r in rows}
    assert later["ST"] > later["OL"] >= 0  # the close mic waits for the overhead
    assert all(float(v).is_integer() for v in later.values())
    status, text = as_owner("GET", f"{base}/align.csv?to=OL&on=snare&whole=false")
    assert (status, text.decode().splitlines()[0][:22]) == (200, "channel,samples later,")
    status, told = as_owner("GET", f"{base}/align?to=XX")
    assert (status, told["detail"][:39]) == (400, "'XX' is no channel of this take; expect")
    # What it does to every pair is measured, as if the tracks were so.
    _, as_if = as_owner("POST", f"{base}/effect?to=OL")
    work_on(as_if["id"])
    status, told = as_owner("GET", f"{base}/effect/{as_if['id']}")
    assert status == 200
    assert ("ST", "SB") in [(c["a"], c["b"]) for c in told["cured"]]  # flipped with the rest
    assert told["words"].startswith("Marked pairs on drums go from")
    # Which is of no layout that is there: Pairs goes on showing the take as it came.
    _, heard = as_owner("GET", f"/layouts/{demo.pk}/heard")
    assert heard is None or heard["take"] != second
    measured(as_owner, second)
    _, heard = as_owner("GET", f"/layouts/{demo.pk}/heard")
    assert (heard["take"], heard["current"]) == (second, True)
    # Whichever is asked first, the earlier one comes first; twice the same is no comparison.
    _, job = as_owner("POST", f"/takes/{second}/since/{first}")
    assert as_owner("POST", f"/takes/{first}/since/{second}")[1]["id"] == job["id"]
    work_on(job["id"])
    status, told = as_owner("GET", f"/comparisons/{job['id']}/since")
    assert status == 200
    assert [w["text"][:30] for w in told["moved"]] == ["OR is not where it was before,"]
    assert as_owner("POST", f"/takes/{first}/since/{first}")[0] == 400


def test_a_take_is_heard_piece_by_piece_and_fetched_aligned(as_owner, demo, tmp_path):
    pk = uploaded(as_owner, demo, tmp_path, sources=("snare", "kick"), one_file=True)
    (job, _), (whole,) = measured(as_owner, pk), tmp_path.glob("*.wav")
    base = f"/takes/{pk}/measures/{job}"
    status, told = as_owner("GET", f"{base}/listening")
    assert (status, [x["source"] for x in told["loops"]]) == (200, ["kick", "snare"])
    assert [t["source"]["channel"] for t in told["tracks"]] == list(range(10))
    # From the middle, over the end of a piece and the end of the file.
    for begin in (LARGEST_PIECE // 30 - 50, soundfile.info(whole).frames - 60):
        status, flac = as_owner("GET", f"{base}/sound?group=1&begin={begin}&count=100")
        assert status == 200
        heard, rate = soundfile.read(io.BytesIO(flac))
        there, _ = soundfile.read(whole, start=begin, frames=100, fill_value=0.0)
        assert (heard.shape, rate) == ((100, 2), told["rate_hz"])
        assert heard == pytest.approx(there[:, 8:], abs=2**-15)
    assert as_owner("GET", f"{base}/sound?group=2&begin=0&count=100")[0] == 400
    assert as_owner("GET", f"{base}/sound?group=0&begin=0&count={10**6}")[0] == 400
    # The copies are those of the table, which lies beside them.
    _, rows = as_owner("GET", f"{base}/align?to=OL")
    status, body = as_owner("GET", f"{base}/aligned.zip?to=OL")
    archive = zipfile.ZipFile(io.BytesIO(body))
    assert (status, archive.namelist()) == (200, ["aligned.csv", whole.name])
    table = archive.read("aligned.csv").decode().splitlines()
    assert [line.split(",")[0] for line in table[1:]] == [r["channel"] for r in rows]
    made, _ = soundfile.read(io.BytesIO(archive.read(whole.name)), dtype="int32")
    kept, _ = soundfile.read(whole, dtype="int32")
    for n, row in enumerate(rows):
        later = int(row["later"])
        moved = made[later : later + len(kept), n]
        assert (moved == (-kept[:, n] if row["flip"] else kept[:, n])).all()
    assert as_owner("GET", f"{base}/aligned.zip?to=XX")[0] == 400


def test_two_takes_of_two_layouts_are_heard_against_each_other(as_owner, demo, tmp_path):
    first = uploaded(as_owner, demo, tmp_path, sources=("snare", "kick"))
    doc = Layout.objects.get(pk=demo.pk).doc().model_copy(update={"name": "Twin"})
    twin = add_layout(demo.session, doc, User.objects.get(), "twin")
    second = uploaded(as_owner, twin, tmp_path, sources=("snare",), each=3)
    (one, _), (two, _) = measured(as_owner, first), measured(as_owner, second)
    status, told = as_owner("GET", f"/takes/{first}/measures/{one}/against/{second}/{two}")
    assert (status, [x["source"] for x in told["loops"]]) == (200, ["snare"])
    (loop,) = told["loops"]
    assert len(loop["first"]) == len(loop["second"]) > 1
    assert [n for _, n in loop["first"]] == [n for _, n in loop["second"]]
    # A measurement is of its own take.
    assert as_owner("GET", f"/takes/{first}/measures/{two}/against/{second}/{two}")[0] == 404
    assert begun(as_owner, twin, ("half.wav", 9))[0] == 201
    _, every = as_owner("GET", f"/sessions/{demo.session_id}/takes")
    assert [(t["id"], t["layout"]) for t in every] == [(second, "Twin"), (first, "Layout B")]
    as_owner("DELETE", f"/layouts/{twin.pk}")
    assert [t["id"] for t in as_owner("GET", f"/sessions/{demo.session_id}/takes")[1]] == [first]


def test_who_goes_away_from_aligned_copies_makes_room_for_the_next(as_owner, demo, tmp_path):
    pk = uploaded(as_owner, demo, tmp_path, sources=("snare",), each=1, one_file=True)
    job, _ = measured(as_owner, pk)
    path = f"/api/takes/{pk}/measures/{job}/aligned.zip?to=OL"
    held = [as_owner.client.get(path) for _ in range(2)]
    assert [h.status_code for h in held] == [200, 200]
    next(iter(held[0].streaming_content))
    told = as_owner.client.get(path)
    assert (told.status_code, told.json()["detail"][:11]) == (429, "Others are ")
    for h in held:  # one half way, one never begun
        h.close()
        h.close()
    again = as_owner.client.get(path)
    assert again.status_code == 200
    again.close()


def test_the_demos_takes_are_recorded_once_the_newer_with_its_overhead_off(db):
    call_command("load_demo", "--password", "salt")
    call_command("load_demo_take")
    for job in Job.objects.filter(kind="record").order_by("pk"):
        work_on(job.pk)
    call_command("load_demo_take")
    take, low = Take.objects.all()
    assert [(t.name, t.files.count()) for t in (take, low)] == [
        ("Morning hits, simulated", 10), ("Overheads low, simulated", 10)
    ]  # fmt: skip
    demo = Api(User.objects.get(username="demo"))
    _, log = demo("GET", f"/sessions/{take.layout.session_id}/tried")
    assert [(x["words"][:9], x["take"] and x["take"]["id"]) for x in log] == [
        ("Kick mic ", None), ("20 cm hig", take.pk), ("Overheads", low.pk)
    ]  # fmt: skip
    assert take.truth["wrong"]["moved"][0]["mic"] == "OR"
    _, told = measured(Api(User.objects.get(username="demo")), take.pk)
    assert [(r["kind"], r["mic"]) for r in told["reasons"]] == [("moved", "OR")]
    pair = next(p for p in told["pairs"] if (p["a"], p["b"], p["source"]) == ("ST", "SB", "snare"))
    assert (pair["planned"], pair["measured"]) == ("hollow", "hollow")
    what_is_settled_is_not_asked_again(take.layout, told)


def what_is_settled_is_not_asked_again(layout, told):
    demo = Api(User.objects.get(username="demo"))
    settled = {p["source"] for p in told["pairs"] if p["settled"]}
    assert settled
    ask = {"layout": layout.state.doc}
    lists = [demo("POST", "/worklist", ask | of)[1] for of in ({}, {"of": layout.pk})]
    before, after = ({d for x in w["lines"] if x["kind"] == "hits" for d in x["of"]} for w in lists)
    assert before - after == settled - after != set()
    assert "as the take “Morning hits, simulated” has heard them" in lists[1]["words"]
    # The list of sessions counts the same lines, and never from before the take was measured.
    lengths = demo("POST", "/sessions/lines", {"layouts": [layout.pk]})[1]
    assert lengths == [{"id": layout.pk, "lines": len(lists[1]["lines"])}]
    layout.refresh_from_db()
    assert known(layout) is None
    # What was told is gone from the storage: there is a list all the same.
    job = Job.objects.filter(kind="measure").latest("pk")
    told_in = job.files.pop("told.json")
    job.save()
    assert demo("POST", "/worklist", ask | {"of": layout.pk}) == (200, lists[0])
    job.files["told.json"] = told_in
    job.save()
    # Of before takes kept the plan of their day, nothing is settled.
    Take.objects.update(plan=None)
    assert demo("POST", "/worklist", ask | {"of": layout.pk})[1] == lists[0]


def test_nobody_hears_of_the_takes_of_another_studio(as_owner, outsider, layout):
    doc = layout.state.doc
    assert as_owner("POST", "/worklist", {"layout": doc, "of": layout.pk})[0] == 200
    assert Api(outsider)("POST", "/worklist", {"layout": doc, "of": layout.pk})[0] == 404


def test_a_length_is_forgotten_when_a_take_is_begun(as_owner, layout):
    as_owner("POST", "/sessions/lines", {"layouts": [layout.pk]})
    layout.refresh_from_db()
    assert known(layout) is not None
    begin = {"key": str(uuid.uuid4()), "name": "hits", "files": [{"name": "a.wav", "size": 9}]}
    assert as_owner("POST", f"/layouts/{layout.pk}/takes", begin)[0] == 201
    layout.refresh_from_db()
    assert known(layout) is None
    as_owner("POST", "/sessions/lines", {"layouts": [layout.pk]})
    layout.refresh_from_db()
    assert known(layout) is None


@pytest.fixture
def bucket(settings, monkeypatch):
    """A stand-in for an S3-compatible storage, on loopback."""
    boto3 = pytest.importorskip("boto3")
    from moto.server import ThreadedMotoServer

    for name in ("AWS_ACCESS_KEY_ID", "AWS_SECRET_ACCESS_KEY"):
        monkeypatch.setenv(name, "stand-in")
    server = ThreadedMotoServer("127.0.0.1", 0, verbose=False)
    server.start()
    host, port = server.get_host_and_port()
    where = {"endpoint_url": f"http://{host}:{port}", "region_name": "us-east-1"}
    client = boto3.client("s3", **where)
    client.create_bucket(Bucket="takes")
    options = {**settings.S3["OPTIONS"], "bucket_name": "takes", **where}
    settings.STORAGES = {**settings.STORAGES, "default": {**settings.S3, "OPTIONS": options}}
    yield lambda: [o["Key"] for o in client.list_objects_v2(Bucket="takes").get("Contents", [])]
    server.stop()


@pytest.mark.filterwarnings("ignore::ResourceWarning", "ignore::DeprecationWarning")
@pytest.mark.filterwarnings("ignore::pytest.PytestUnraisableExceptionWarning")
def test_takes_are_kept_in_an_s3_compatible_storage_where_one_is_set(
    as_owner, demo, tmp_path, bucket
):
    pk = uploaded(as_owner, demo, tmp_path, sources=("snare",), each=2, one_file=True)
    studio = demo.session.studio_id
    assert [k.rsplit("/", 1)[0] for k in bucket()[:1]] == [f"takes/{studio}/{pk}/0"]
    _, told = measured(as_owner, pk)
    assert [(d["source"], d["hits"]) for d in told["drums"]] == [("snare", 2)]
    assert any(k.startswith("jobs/") and k.endswith("told.json") for k in bucket())
    assert as_owner("DELETE", f"/takes/{pk}")[0] == 204
    assert [k for k in bucket() if k.startswith("takes/")] == []


@pytest.mark.parametrize(
    ("name", "kept"),
    [
        ("..", "sound"),
        ("ST.wav", "ST.wav"),
        ("é" * 118 + ".w", "é" * 100 + ".w"),
        ("OL", "OL"),
        ("a b.c.flac", "a b.c.flac"),
    ],
)
def test_no_name_leads_out_of_its_folder_or_is_too_long_for_one(as_owner, layout, name, kept):
    _, take = begun(as_owner, layout, (name, 5))
    sent(as_owner, take["id"], 0, 0, b"abcde")
    with as_local(Take.objects.get()) as paths:
        assert [(p.name, p.parent.name, p.read_bytes()) for p in paths] == [(kept, "0", b"abcde")]
