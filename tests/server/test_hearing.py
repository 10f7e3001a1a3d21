"""Examples to hear: rendered by a worker, kept by their numbers, called off, another's unseen."""

import io
import wave
from datetime import timedelta

import numpy as np
import pytest
from django.utils import timezone
from hearing import actions, rendering
from hearing.models import Example
from plans.actions import make_session
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server.conftest import Api

ASK = {"a": "ST", "b": "SB", "source": "snare"}


def asked(api, layout, **more):
    body = {"layout": layout.doc().model_dump(mode="json"), **ASK, **more}
    return api("POST", f"/layouts/{layout.pk}/examples", body)[1]


def jobs():
    return ProcrastinateJob.objects.filter(task_name="render_example")


def samples(body):
    with wave.open(io.BytesIO(body)) as file:
        assert (file.getframerate(), file.getnchannels(), file.getsampwidth()) == (48000, 1, 2)
        return np.frombuffer(file.readframes(file.getnframes()), dtype="<i2") / 32768


@pytest.mark.django_db(transaction=True)
def test_a_worker_takes_up_what_was_asked_for(owner, layout):
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
    assert jobs().count() == 1
    rendering.work_on(one["id"])
    assert asked(api, layout)["state"] == "done"
    assert asked(api, layout, source="kick")["id"] != one["id"]
    assert jobs().count() == 2


def test_called_off_it_is_left_and_can_be_asked_for_again(owner, layout):
    api = Api(owner)
    out = asked(api, layout)
    assert api("DELETE", f"/examples/{out['id']}")[1]["state"] == "cancelled"
    rendering.work_on(out["id"])
    assert not Example.objects.get(pk=out["id"]).sounds.exists()
    assert asked(api, layout)["state"] == "waiting"
    assert jobs().count() == 2


def test_called_off_while_it_is_being_rendered_nothing_is_kept(owner, layout, monkeypatch):
    out = asked(Api(owner), layout)

    def rendered(ask, told):
        told(0.3)
        assert Example.objects.get(pk=out["id"]).progress == 0.3
        actions.call_off(owner, out["id"])
        told(0.6)
        raise AssertionError("went on though it was called off")

    monkeypatch.setattr(rendering, "rendered", rendered)
    rendering.work_on(out["id"])
    found = Example.objects.get(pk=out["id"])
    assert (found.state, found.sounds.count()) == ("cancelled", 0)


def test_called_off_at_the_last_moment_nothing_is_kept(owner, layout, monkeypatch):
    out = asked(Api(owner), layout)

    def rendered(ask, told):
        told(1.0)
        actions.call_off(owner, out["id"])
        return {"wired": b"RIFF"}

    monkeypatch.setattr(rendering, "rendered", rendered)
    rendering.work_on(out["id"])
    found = Example.objects.get(pk=out["id"])
    assert (found.state, found.sounds.count()) == ("cancelled", 0)


def test_a_failure_is_said_and_tried_again_when_asked_again(owner, layout, monkeypatch):
    out = asked(Api(owner), layout)
    with monkeypatch.context() as m:
        m.setattr(rendering, "rendered", lambda ask, told: 1 / 0)
        with pytest.raises(ZeroDivisionError):
            rendering.work_on(out["id"])
    assert Api(owner)("GET", f"/examples/{out['id']}")[1]["state"] == "failed"
    assert asked(Api(owner), layout)["state"] == "waiting"


def test_what_a_worker_dropped_is_handed_to_another(owner, layout):
    out = asked(Api(owner), layout)
    long_ago = timezone.now() - timedelta(seconds=61)
    Example.objects.filter(pk=out["id"]).update(state="working", changed_at=long_ago)
    assert asked(Api(owner), layout)["state"] == "waiting"
    assert jobs().count() == 2


def test_only_so_many_are_kept(owner, layout, monkeypatch):
    monkeypatch.setattr(actions, "KEPT_EXAMPLES", 2)
    for source in ("kick", "snare", "floor"):
        asked(Api(owner), layout, source=source)
    assert Example.objects.count() == 2


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
