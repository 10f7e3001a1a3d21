"""Distance meters: let in for one layout, and able to do two things."""

from datetime import timedelta
from uuid import uuid4

import pytest
from django.test import Client
from django.utils import timezone
from plans.models import Meter

from tests.server.conftest import Api


@pytest.fixture
def word(as_owner, layout):
    status, made = as_owner("POST", f"/layouts/{layout.pk}/meter")
    assert status == 201
    assert made["address"] == "http://testserver/api/meter"
    return made["word"]


class FromMeter:
    """A client that has the word and nothing else."""

    def __init__(self, word):
        self.client = Client(enforce_csrf_checks=True, headers={"Authorization": f"Bearer {word}"})

    def get(self):
        answer = self.client.get("/api/meter")
        return answer.status_code, answer.json()

    def send(self, **body):
        body = {"key": str(uuid4()), "metres": 1.318, **body}
        return self.client.post("/api/meter", body, content_type="application/json").status_code


def told(api, layout):
    return api("GET", f"/layouts/{layout.pk}/at-kit/tag")[1]["meter"]


def test_a_reading_stands_on_every_screen_until_the_next_or_for_a_while(
    as_owner, member, layout, word
):
    assert told(as_owner, layout) is None
    meter, key = FromMeter(word), str(uuid4())
    assert [meter.send(key=key), meter.send(key=key, metres=9.0)] == [204, 204]
    assert told(as_owner, layout) == told(Api(member), layout) == {"key": key, "metres": 1.318}
    assert meter.send(metres=1.4) == 204
    assert told(as_owner, layout)["metres"] == 1.4
    Meter.objects.update(last_at=timezone.now() - timedelta(seconds=21))
    assert told(as_owner, layout) is None
    # Nothing is written down by itself.
    assert as_owner("GET", f"/layouts/{layout.pk}/at-kit")[1]["rows"] == []


def test_it_is_told_what_to_measure(as_owner, layout, word):
    status, said = FromMeter(word).get()
    assert (status, said["layout"]) == (200, layout.name)
    assert (said["next"]["mic"], said["next"]["to"]) == ("OL", "snare")
    span = sum((a - b) ** 2 for a, b in zip(said["next"]["from_m"], said["next"]["to_m"],
                                            strict=True)) ** 0.5  # fmt: skip
    assert span == pytest.approx(said["next"]["target_m"], abs=1e-3)
    line = {"key": str(uuid4()), "what": "reading", "mic": "OL", "to": "snare", "metres": 1.3}
    as_owner("POST", f"/layouts/{layout.pk}/at-kit", line)
    assert FromMeter(word).get()[1]["next"]["mic"] == "OR"


def test_a_word_opens_nothing_else_and_ends_with_the_next_one(as_owner, layout, word):
    meter = FromMeter(word)
    assert meter.client.get(f"/api/layouts/{layout.pk}").status_code == 401
    assert meter.client.get("/api/account/me").status_code == 401
    assert FromMeter("made up").send() == 401
    assert Client().get("/api/meter").status_code == 401
    as_owner("POST", f"/layouts/{layout.pk}/meter")
    assert meter.send() == 401
    assert word not in Meter.objects.get().digest


def test_let_go_it_sends_no_more_nor_for_what_its_maker_no_longer_sees(
    as_owner, owner, layout, word
):
    assert FromMeter(word).send() == 204
    as_owner("DELETE", f"/layouts/{layout.pk}")
    assert FromMeter(word).send() == 401
    as_owner("POST", f"/layouts/{layout.pk}/restore")
    assert FromMeter(word).send() == 204
    assert as_owner("DELETE", f"/layouts/{layout.pk}/meter")[0] == 204
    assert FromMeter(word).send() == 401


@pytest.mark.parametrize("body", [
    {"metres": 0}, {"metres": -1.2}, {"metres": 31}, {"metres": "far"}, {"key": "one"},
    {"more": 1},
])  # fmt: skip
def test_what_no_meter_reads_is_refused(as_owner, layout, word, body):
    assert FromMeter(word).send(**body) == 422
    assert told(as_owner, layout) is None
