"""What a name is answered that rests after too many wrong tries."""

from typing import Any

from django.http import HttpRequest, HttpResponse

from api.problems import answer

LOCKED = "Too many wrong tries. Wait a quarter of an hour, then try again."


def locked_out(request: HttpRequest, *_: Any, **__: Any) -> HttpResponse:
    """The try that was one too many, answered as every other error is."""
    return answer(429, "Too many at once", LOCKED)
