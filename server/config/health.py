"""`/healthz`, for whoever watches over this server: answered before anything else is asked."""

import logging
from collections.abc import Callable

from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse, JsonResponse

Answer = Callable[[HttpRequest], HttpResponse]
log = logging.getLogger("ringside.health")


def answered_by_database() -> bool:
    """Whether the database answers."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("select 1")
    except DatabaseError as fault:
        log.warning("the database does not answer: %s", str(fault).splitlines()[0])
        return False
    return True


def health(get_response: Answer) -> Answer:
    """200 when this process and its database answer, else 503; whatever the host is called."""

    def middleware(request: HttpRequest) -> HttpResponse:
        if request.path != "/healthz":
            return get_response(request)
        good = answered_by_database()
        words = {"web": "good", "database": "good" if good else "does not answer"}
        answer = JsonResponse(words, status=200 if good else 503)
        answer["Cache-Control"] = "no-store"
        return answer

    return middleware
