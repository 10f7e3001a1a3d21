"""One line for each request: its name, who asked, what came of it, how long it took."""

import logging
import secrets
import time
from collections.abc import Callable

from api.hand.questions import QUESTIONS
from django.http import HttpRequest, HttpResponse

Answer = Callable[[HttpRequest], HttpResponse]
log = logging.getLogger("ringside.requests")
SLOW_S = 1.0
OFTEN = frozenset(QUESTIONS)
"""Asked sixty times a second by each hand: written down only where something is amiss."""


def _who(request: HttpRequest) -> str:
    """The person, where the request came as far as asking; never asked for the log's sake."""
    known = getattr(getattr(request, "_cached_user", None), "pk", None)
    return str(known or getattr(request, "ringside_person", "-"))


def _passed_over(path: str, status: int, took_s: float) -> bool:
    return path.startswith("/static/") or (path in OFTEN and status < 400 and took_s < SLOW_S)


def request_log(get_response: Answer) -> Answer:
    """Name each request, in its answer as well, and write it down when it is answered."""

    def middleware(request: HttpRequest) -> HttpResponse:
        name = secrets.token_hex(4)
        request.ringside_id = name  # type: ignore[attr-defined]
        began = time.perf_counter()
        answer = get_response(request)
        took = time.perf_counter() - began
        answer["X-Request-Id"] = name
        if not _passed_over(request.path, answer.status_code, took):
            log.info(
                "%s person=%s %s %s %d %.0f ms%s", name, _who(request), request.method,
                request.path.replace("\n", " "), answer.status_code, took * 1e3,
                " SLOW" if took >= SLOW_S else "",
            )  # fmt: skip
        return answer

    return middleware
