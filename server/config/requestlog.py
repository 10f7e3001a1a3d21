"""One line for each request: its name, who asked, what came of it, how long it took."""

import logging
import secrets
import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

Answer = Callable[[HttpRequest], HttpResponse]
log = logging.getLogger("ringside.requests")
SLOW_S = 1.0


def _who(request: HttpRequest) -> str:
    """The person, where the request came as far as asking; never asked for the log's sake."""
    known = getattr(getattr(request, "_cached_user", None), "pk", None)
    return str(known or getattr(request, "ringside_person", "-"))


def request_log(get_response: Answer) -> Answer:
    """Name each request, in its answer as well, and write it down when it is answered."""

    def middleware(request: HttpRequest) -> HttpResponse:
        name = secrets.token_hex(4)
        request.ringside_id = name  # type: ignore[attr-defined]
        began = time.perf_counter()
        answer = get_response(request)
        took = time.perf_counter() - began
        answer["X-Request-Id"] = name
        if not request.path.startswith("/static/"):
            log.info(
                "%s person=%s %s %s %d %.0f ms%s", name, _who(request), request.method,
                request.path.replace("\n", " "), answer.status_code, took * 1e3,
                " SLOW" if took >= SLOW_S else "",
            )  # fmt: skip
        return answer

    return middleware
