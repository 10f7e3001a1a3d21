"""The whole interface under made-up requests: never a fault of ours, never an answer untold.

schemathesis makes them from the interface's own description, good and bad. A sample runs with every
test; `RINGSIDE_FUZZ=10000 ./ringside test tests/server/test_fuzz.py` makes as many.
"""

import copy
import itertools
import os
import random
from dataclasses import dataclass

import pytest
import schemathesis
from accounts.models import User
from api.routes import PROBLEM, api
from config.wsgi import application
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings
from plans.actions import make_session
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import content_type_conformance, status_code_conformance
from studios.access import open_studio

from tests.server.conftest import Api
from tests.server.test_access import ENDPOINTS, NAMES, kept

CASES = int(os.environ.get("RINGSIDE_FUZZ", "600"))
SCHEMA = schemathesis.openapi.from_dict(dict(api.get_openapi_schema(path_prefix="/api/")))
SCHEMA.app = application
LEAVES = {"POST /api/account/sign-out", "POST /api/account/password"}
"""Whoever signs out, or changes the password, is out of the test."""

FOUND = {f"{o.ok().method.upper()} {o.ok().path}": o.ok() for o in SCHEMA.get_all_operations()}
OPERATIONS = {name: op for name, op in FOUND.items() if name not in LEAVES}
TOKEN = "t" * 32
EACH = max(CASES // len(OPERATIONS), 1)


MAY_BE_STRANGERS = {"POST /api/account/sign-in", "GET /api/meter", "POST /api/meter"}
"""Where a wrong word is answered as a stranger is; anywhere else the test would test nothing."""


@dataclass
class Someone:
    """Somebody with a session: their cookies, and ids that are there."""

    cookies: dict[str, str]
    ids: dict[str, int]

    def ask(self, case, real):
        """A made-up request, signed in; with an id that is there where `real`."""
        for key in [k for k in case.headers or {} if k.lower() in ("cookie", "x-csrftoken")]:
            del case.headers[key]
        case.cookies = {}
        kind = case.path.split("/")[2]
        if real and kind in self.ids and "pk" in (case.path_parameters or {}):
            case.path_parameters["pk"] = self.ids[kind]
        return case.call(headers={"X-CSRFToken": TOKEN}, cookies=self.cookies)


@pytest.fixture
def someone(db, settings):
    """Somebody who is signed in, in the test's own transaction."""
    settings.ALLOWED_HOSTS = ["*"]
    user = User.objects.create_user("fuzz", password="long-enough-and-odd-7")
    open_studio(user, "Fuzz")
    session = make_session(user, name="Fuzz", kit="four-piece", start="square pair")
    client = Client()
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    # Requests that come from outside close the connection that the test's own work is in.
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    ids = {"layouts": session.layouts.get().pk, "sessions": session.pk,
           "studios": session.studio_id}  # fmt: skip
    yield Someone({"sessionid": client.cookies["sessionid"].value, "csrftoken": TOKEN}, ids)
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


@pytest.mark.filterwarnings("ignore")
@pytest.mark.parametrize("name", OPERATIONS)
def test_no_request_meets_a_fault_or_an_answer_that_is_not_told(someone, name):
    turns = itertools.cycle((True, False))

    @settings(
        max_examples=EACH, deadline=None, database=None, derandomize=CASES <= 600,
        phases=[Phase.generate], suppress_health_check=list(HealthCheck),
    )  # fmt: skip
    @given(case=OPERATIONS[name].as_strategy())
    def ask(case):
        answer = someone.ask(case, next(turns))
        case.validate_response(
            answer,
            checks=[not_a_server_error, status_code_conformance, content_type_conformance],
        )
        assert answer.status_code != 401 or name in MAY_BE_STRANGERS
        if answer.status_code >= 400:
            assert answer.headers["content-type"][0] == PROBLEM
            assert answer.json()["detail"]

    ask()


ODD = [
    None, True, 0, -1, 1e-300, 1e300, 2**70, -(2**70), "", " ", "x" * 5000, "\x00", "\ud800",
    "'; drop", "💥", [], {}, [[[]]], [None] * 70, {"a": {"b": 1}}, 0.1, 3, "kick", "M0", 99.999,
]  # fmt: skip


def places(value, at=()):
    """Every place in parsed JSON, the whole among them."""
    yield at
    for key, inner in value.items() if isinstance(value, dict) else enumerate(value):
        if isinstance(inner, (dict, list)):
            yield from places(inner, (*at, key))
        else:
            yield (*at, key)


def spoilt(data, dice):
    """A good request with one or two things in it changed."""
    new = copy.deepcopy(data)
    for _ in range(dice.choice([1, 1, 1, 2])):
        found = [p for p in places(new) if p]
        if not found:
            break
        *way, last = dice.choice(found)
        there = new
        for step in way:
            there = there[step]
        act = dice.random()
        if act < 0.15:
            del there[last]
        elif act < 0.3 and isinstance(there, list):
            there.extend(copy.deepcopy(there) * dice.choice([1, 3]))
        elif act < 0.45 and isinstance(there[last], (int, float)):
            there[last] = there[last] * dice.choice([-1, 0, 2, 10, 1e-9, 1e9])
        else:
            there[last] = copy.deepcopy(dice.choice(ODD))
    return new


@pytest.mark.filterwarnings("ignore")
@pytest.mark.parametrize("at", [n for n, e in enumerate(ENDPOINTS) if e[2]], ids=lambda n: NAMES[n])
def test_a_good_request_spoilt_is_refused_or_answered_never_a_fault(at, owner, session, layout):
    method, path, data, _ = ENDPOINTS[at]
    place = path.format(session=session.pk, layout=layout.pk, **kept(owner, session))
    api, dice = Api(owner), random.Random(CASES + at)
    for _ in range(max(EACH, 6)):
        sent = spoilt(data, dice)
        status, told = api(method, place, sent)
        assert status < 500, sent
        if status >= 400:
            assert api.last.headers["Content-Type"] == PROBLEM, sent
            assert told["detail"], sent
