"""Opening a line for a hand."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router
from wsproto.utilities import ProtocolError

from api.common import Problem
from api.hand import TAKE_OVER
from api.hand.talk import Talk, held, opened
from api.kept import computed, person_of
from api.problems import answer

router = Router(tags=["compute"])
SWITCHING = 101
BUSY = "Enough lines are open here already; ask by requests."


def _from_here(request: HttpRequest) -> bool:
    """Whether a page of this server asks: a browser sends cookies along for any page."""
    own = f"{request.scheme}://{request.get_host()}"
    return request.headers.get("Origin") in (own, *settings.CSRF_TRUSTED_ORIGINS)


@router.get("/hand", auth=computed, response={426: Problem, 403: Problem, 429: Problem})
def hand(request: HttpRequest) -> HttpResponse:
    """Open a WebSocket over which what follows a hand is asked; docs/formats/hand.md.

    426: this server, or something before it, takes no such lines; ask by requests.
    """
    take_over = request.META.get(TAKE_OVER)
    try:
        line = opened(request) if take_over else None
    except ProtocolError:
        line = None
    if line is None:
        words = "Expected the opening of a WebSocket, at a server that takes one; ask by requests."
        return answer(426, "No line here", words)
    if not _from_here(request):
        return answer(403, "Refused", "Expected a page of this server to ask.")
    person = person_of(request)
    if not held.take(person):
        return answer(429, "Busy", BUSY)
    try:
        Talk(take_over(), line, request, person).begin()
    except (OSError, RuntimeError):  # there is no handle more, or no thread
        held.leave(person)
        return answer(429, "Busy", BUSY)
    return HttpResponse(status=SWITCHING)
