"""Two studios that must not see each other, and clients that speak JSON."""

import json

import pytest
from accounts.models import User
from django.test import Client
from plans.actions import make_session
from studios.access import open_studio
from studios.models import Membership

PASSWORD = "long-enough-and-odd-7"


class Api:
    """A client for one person; every call is JSON and returns status and body."""

    def __init__(self, user=None, csrf=False):
        self.client = Client(enforce_csrf_checks=csrf)
        if user:
            self.client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")

    def __call__(self, method, path, data=None):
        body = (
            {} if data is None else {"data": json.dumps(data), "content_type": "application/json"}
        )
        self.last = getattr(self.client, method.lower())(f"/api{path}", **body)
        if self.last.streaming:
            return self.last.status_code, b"".join(self.last.streaming_content)
        spoken = self.last.content and "json" in self.last.headers.get("Content-Type", "")
        return self.last.status_code, self.last.json() if spoken else self.last.content


@pytest.fixture(autouse=True)
def quick_passwords(settings):
    """Argon2 is slow on purpose, and nothing here is about how passwords are stored."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture(autouse=True)
def files_of_its_own(settings, tmp_path):
    """What is stored as files goes with the test."""
    settings.MEDIA_ROOT = str(tmp_path / "files")


@pytest.fixture
def owner(db):
    user = User.objects.create_user("owner", password=PASSWORD)
    open_studio(user, "Own studio")
    return user


@pytest.fixture
def member(owner):
    user = User.objects.create_user("member", password=PASSWORD)
    Membership.objects.create(studio=owner.studios.get(), user=user)
    return user


@pytest.fixture
def outsider(db):
    user = User.objects.create_user("outsider", password=PASSWORD)
    open_studio(user, "Other studio")
    return user


@pytest.fixture
def session(owner):
    return make_session(owner, name="Day one", place="Store", kit="five-piece", start="square pair")


@pytest.fixture
def layout(session):
    return session.layouts.get()


@pytest.fixture
def as_owner(owner):
    return Api(owner)
