"""Examples to hear: rendered by a worker, kept by their numbers, called off, another's unseen."""

import io
import threading
import time
import wave
from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest
from django.core.files.storage import default_storage
from django.utils import timezone
from jobs import actions, kinds, working
from jobs.models import Job
from jobs.working import work_on
from plans.actions import make_session
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server.conftest import Api

ASK = {"a": "ST", "b": "SB", "source": "snare"}


def asked(api, layout, **more):
    body = {"layout": layout.doc().model_dump(mode="json"), **ASK, **more}
    return api("POST", f"/layouts/{layout.pk}/examples", body)[1]


def handed_out():
    return ProcrastinateJob.objects.filter(task_name="run_job")


def samples(body):
    with wave.open(io.BytesIO(body)) as file:
        assert (file.getframerate(), file.getnchannels(), file.getsampwidth()) == (48000, 1, 2)
        return np.frombuffer(file.readframes(file.getnframes()), dtype="<i2") / 32768


@pytest.mark.django_db(transaction=True)
def test_a_worker_takes_up_what_was_asked_for(owner, layout, monkeypatch):
    monkeypatch.setattr(app.periodic_registry, "periodic_tasks", {})  # not by the minute
    api = Api(owner)
    out = asked(api, layout)
    assert (out["state"], out["versions"]) == ("waiting", [])
    worker = app.with_connector(app.connector.get_worker_connector())
    worker.run_worker(wait=False, install_signal_handlers=False, listen_notify=False)
    out = api("GET", f"/examples/{out['id']}")[1]
    assert (out["state"], out["progress"]) == ("done", 1.0)
    heard = {v: samples(api("GET", f"/examples/{out['id']}/{v}.wav")[1]) for v in out["versions"]}
    assert set(heard) == {"a", "b", "wired", "flipped", "aligned"}
    assert api.last["Content-Type"] == "audio/wav"
    assert len({len(s) for s in heard.values()}) == 1
    # As wired the two snare mics cancel in the body; flipped they do not.
    low = slice(120 * 4, 300 * 4)
    body = {v: (np.abs(np.fft.rfft(s))[low] ** 2).sum() for v, s in heard.items()}
    assert body["flipped"] > 1.5 * body["wired"]  # though both are equally loud


def test_the_same_numbers_are_rendered_once(owner, layout):
    api = Api(owner)
    one, two = asked(api, layout), asked(api, layout)
    assert one["id"] == two["id"]
    assert handed_out().count() == 1
    work_on(one["id"])
    assert asked(api, layout)["state"] == "done"
    assert asked(api, layout, source="kick")["id"] != one["id"]
    assert handed_out().count() == 2


def test_called_off_it_is_left_and_can_be_asked_for_again(owner, layout):
    api = Api(owner)
    out = asked(api, layout)
    assert api("DELETE", f"/examples/{out['id']}")[1]["state"] == "cancelled"
    work_on(out["id"])
    assert Job.objects.get(pk=out["id"]).files == {}
    assert asked(api, layout)["state"] == "waiting"
    assert handed_out().count() == 2


@pytest.fixture
def doing(monkeypatch):
    """Put other work in the place of rendering."""

    def put(work, **more):
        kind = replace(kinds.KINDS["example"], work=work, **more)
        monkeypatch.setitem(kinds.KINDS, "example", kind)

    return put


def stored(pk):
    folder = f"jobs/{Job.objects.get(pk=pk).studio_id}"
    if not default_storage.exists(folder):
        return []
    return default_storage.listdir(folder)[0]


def test_called_off_while_it_is_being_rendered_nothing_is_kept(owner, layout, doing):
    out = asked(Api(owner), layout)

    def work(ask, tell):
        tell(0.3)
        assert Job.objects.get(pk=out["id"]).progress == 0.3
        actions.call_off(owner, "example", out["id"])
        tell(0.6)
        raise AssertionError("went on though it was called off")

    doing(work)
    work_on(out["id"])
    assert Job.objects.get(pk=out["id"]).state == "cancelled"


def test_called_off_at_the_last_moment_nothing_is_kept(owner, layout, doing):
    out = asked(Api(owner), layout)

    def work(ask, tell):
        tell(1.0)
        actions.call_off(owner, "example", out["id"])
        return {"wired.wav": b"RIFF"}

    doing(work)
    work_on(out["id"])
    found = Job.objects.get(pk=out["id"])
    assert (found.state, found.files) == ("cancelled", {})
    kept = [default_storage.listdir(f"jobs/{found.studio_id}/{f}")[1] for f in stored(found.pk)]
    assert not any(kept)


def test_a_failure_is_said_and_tried_again_when_asked_again(owner, layout, doing):
    out = asked(Api(owner), layout)
    good = kinds.KINDS["example"].work
    doing(lambda ask, tell: 1 / 0)
    with pytest.raises(ZeroDivisionError):
        work_on(out["id"])
    told = Api(owner)("GET", f"/examples/{out['id']}")[1]
    assert (told["state"], "went wrong" in told["trouble"]) == ("failed", True)
    doing(good)
    assert asked(Api(owner), layout)["state"] == "waiting"


def test_work_that_takes_too_long_is_stopped_and_says_so(owner, layout, doing):
    out = asked(Api(owner), layout)

    def work(ask, tell):
        tell(0.1)
        raise AssertionError("went on over its time")

    doing(work, longest_s=-1.0)
    work_on(out["id"])
    told = Api(owner)("GET", f"/examples/{out['id']}")[1]
    assert (told["state"], "stopped" in told["trouble"]) == ("failed", True)


def silent(pk, **more):
    long_ago = timezone.now() - actions.SILENT - timedelta(seconds=1)
    Job.objects.filter(pk=pk).update(state="working", beat_at=long_ago, **more)


def test_what_a_worker_dropped_is_taken_up_again_done_once_and_said(owner, layout, doing):
    """A worker is killed half way; the one that comes back late changes nothing."""
    api = Api(owner)
    out = asked(api, layout)

    def late(ask, tell):
        silent(out["id"])
        told = api("GET", f"/examples/{out['id']}")[1]
        assert (told["state"], "begun again" in told["trouble"]) == ("waiting", True)
        doing(lambda ask, tell: {"wired.wav": b"second"})
        work_on(out["id"])
        return {"wired.wav": b"first, too late"}

    doing(late)
    work_on(out["id"])
    assert handed_out().count() == 2
    assert api("GET", f"/examples/{out['id']}")[1]["state"] == "done"
    assert api("GET", f"/examples/{out['id']}/wired.wav")[1] == b"second"
    assert Job.objects.get(pk=out["id"]).tries == 2


def test_a_worker_that_lives_is_left_alone_and_one_that_never_does_given_up(owner, layout):
    out = asked(Api(owner), layout)
    Job.objects.filter(pk=out["id"]).update(state="working", beat_at=timezone.now())
    assert actions.take_up_again() == 0
    for tries, state in ((1, "waiting"), (2, "waiting"), (3, "failed")):
        silent(out["id"], tries=tries)
        assert actions.take_up_again() == 1
        assert Job.objects.get(pk=out["id"]).state == state
    assert "went away" in Job.objects.get(pk=out["id"]).words


@pytest.mark.django_db(transaction=True)
def test_a_silent_stretch_of_work_still_shows_life(owner, layout, doing, monkeypatch):
    monkeypatch.setattr(working, "BEAT_S", 0.05)
    out = asked(Api(owner), layout)
    beats = []

    def work(ask, tell):
        silent(out["id"])
        for _ in range(100):
            time.sleep(0.05)
            if timezone.now() - Job.objects.get(pk=out["id"]).beat_at < timedelta(seconds=5):
                beats.append(1)
                break
        return {}

    doing(work)
    work_on(out["id"])
    assert beats


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize(("longest_s", "grace_s", "off", "leaves", "state"), [
    (0.1, 0.1, False, True, "failed"),
    (60.0, 0.1, True, True, "cancelled"),
    (0.1, 60.0, False, False, "done"),
    (60.0, 60.0, True, False, "cancelled"),
    (60.0, 0.1, False, False, "done"),
])  # fmt: skip
def test_work_that_hangs_ends_its_worker_but_not_what_takes_a_while(
    owner, layout, doing, monkeypatch, longest_s, grace_s, off, leaves, state
):
    left = threading.Event()
    monkeypatch.setattr(working, "BEAT_S", 0.02)
    monkeypatch.setattr(working, "GRACE_S", grace_s)
    monkeypatch.setattr(working, "_leave", left.set)
    out = asked(Api(owner), layout)

    def work(ask, tell):
        if off:
            actions.call_off(owner, "example", out["id"])
        assert left.wait(10.0 if leaves else 0.5) == leaves
        return {"wired.wav": b"late"}

    doing(work, longest_s=longest_s)
    work_on(out["id"])
    found = Job.objects.get(pk=out["id"])
    assert (found.state, bool(found.files)) == (state, state == "done")
    if state == "failed":
        assert "and was stopped" in found.words


def test_only_so_many_are_kept_and_their_files_go_with_them(owner, layout, doing):
    doing(lambda ask, tell: {"wired.wav": b"RIFF"}, kept=2)
    paths = []
    for source in ("kick", "snare", "floor"):
        out = asked(Api(owner), layout, source=source)
        work_on(out["id"])
        paths += Job.objects.get(pk=out["id"]).files.values()
    assert Job.objects.count() == 2
    assert [default_storage.exists(p) for p in paths] == [False, True, True]


def test_another_studios_example_is_not_there(owner, outsider, layout):
    out = asked(Api(owner), layout)
    other = Api(outsider)
    for method, path in (("GET", ""), ("DELETE", ""), ("GET", "/wired.wav")):
        assert other(method, f"/examples/{out['id']}{path}")[0] == 404
    theirs = make_session(
        outsider, name="Theirs", place="", kit="five-piece", start="square pair"
    ).layouts.get()  # fmt: skip
    assert asked(other, theirs)["id"] != out["id"]


def test_a_mic_or_drum_that_is_not_there_is_said(owner, layout):
    body = {"layout": layout.doc().model_dump(mode="json"), **ASK}
    for wrong, words in (({"a": "XX"}, "two mics"), ({"source": "gong"}, "drum or cymbal")):
        status, said = Api(owner)("POST", f"/layouts/{layout.pk}/examples", {**body, **wrong})
        assert (status, words in said["detail"]) == (400, True)
