"""The page takes nothing from elsewhere: browsers then let it share memory with its workers.

With the opener policy that Django sends anyway. What follows a hand comes by such memory.
"""

from collections.abc import Callable

from django.http import HttpRequest
from django.http.response import HttpResponseBase

Respond = Callable[[HttpRequest], HttpResponseBase]


def isolated(respond: Respond) -> Respond:
    """Pages, scripts and frames say so alike, for one that does not is refused by the others."""

    def answer(request: HttpRequest) -> HttpResponseBase:
        made = respond(request)
        made["Cross-Origin-Embedder-Policy"] = "require-corp"
        return made

    return answer
