"""Who asks, kept for a few seconds: for answers that are computed many times a second.

To look up a session and its person takes two thirds of such an answer. So it is done once in
`KEPT_S` seconds for each session and web process. Only answers that read and write nothing that is
stored may ask this way: somebody who was signed out elsewhere can go on computing with what is on
their own screen for those seconds, no more.
"""

import threading
import time
from typing import Any

from django.contrib.auth import get_user
from django.contrib.auth.signals import user_logged_out
from django.contrib.sessions.backends.db import SessionStore
from django.db import close_old_connections
from django.http import HttpRequest
from ninja.security import SessionAuth

KEPT_S = 5.0
MOST = 2_000


class Kept:
    """Persons by session, each until a moment."""

    def __init__(self) -> None:
        self._known: dict[str, tuple[int, float]] = {}
        self._lock = threading.Lock()

    def person(self, session: str) -> int | None:
        """The person, if somebody asked for this session lately."""
        pk, until = self._known.get(session, (0, 0.0))
        return pk if time.monotonic() < until else None

    def keep(self, session: str, person: int) -> None:
        """From now on, for a while; when there are too many, all are forgotten."""
        with self._lock:
            if len(self._known) >= MOST:
                self._known.clear()
            self._known[session] = person, time.monotonic() + KEPT_S

    def forget(self, session: str | None) -> None:
        """At once."""
        with self._lock:
            self._known.pop(session or "", None)


kept = Kept()


def _signed_out(request: HttpRequest, **_: Any) -> None:
    kept.forget(request.session.session_key)


user_logged_out.connect(_signed_out, dispatch_uid="kept")


class KeptAuth(SessionAuth):
    """Signed in, as it was found a few seconds ago at most; the token is checked each time."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The number of the person, or None."""
        person = kept.person(key) if key else None
        if person is None:
            user = super().authenticate(request, key)
            if user is None or not key:
                return None
            person = user.pk
            kept.keep(key, person)
        request.ringside_person = person  # type: ignore[attr-defined]
        return person


computed = KeptAuth()


def still(session: str) -> int | None:
    """The person of a session, as it was found a few seconds ago at most; None for nobody."""
    person = kept.person(session)
    if person is not None:
        return person
    request = HttpRequest()
    request.session = SessionStore(session)
    try:
        user = get_user(request)
    finally:
        close_old_connections()
    if user.pk is None:
        return None
    kept.keep(session, user.pk)
    return int(user.pk)


def person_of(request: HttpRequest) -> int:
    """The number of who asks, for answers that ask by `computed`."""
    return int(request.ringside_person)  # type: ignore[attr-defined]
