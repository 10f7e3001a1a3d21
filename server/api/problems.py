"""Every error leaves as problem+json with a sentence that says what to do."""

import json
import logging
from typing import Any

import orjson
import pydantic
from carrying.errors import NotAnArchive
from django.core.exceptions import RequestDataTooBig
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from plans.errors import Conflict, NothingToDo, NotThere, Unreadable
from ringside.answers.changes import changes
from ringside.errors import LayoutFileError, RingsideError
from ringside.faults import place_of, wording
from ringside.plan.layout import Layout
from sheets.units import Ruler
from studios.errors import LockerChanged
from takes.errors import TooManyPacked

from api.heavy.pool import LONGEST_S, Busy, GaveUp, TooLong
from api.reading import UnfitText
from api.resting import Unknown
from api.shapes import layout_out

log = logging.getLogger("ringside.problems")


def _plain_of(value: Any) -> Any:
    return value.model_dump(mode="json") if isinstance(value, pydantic.BaseModel) else str(value)


def answer(status: int, title: str, detail: str, **more: Any) -> HttpResponse:
    """A problem+json response (RFC 9457)."""
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, **more}
    return HttpResponse(
        orjson.dumps(body, default=_plain_of),
        status=status,
        content_type="application/problem+json",
    )


def _sent_doc(request: HttpRequest) -> Layout | None:
    """The layout a refused save carried, if it did."""
    try:
        return Layout.model_validate_json(json.dumps(json.loads(request.body)["doc"]))
    except (KeyError, TypeError, ValueError):
        return None


def _missing(request: HttpRequest, exc: NotThere) -> HttpResponse:
    return answer(404, "Not found", "There is no such thing here, or it is not yours to see.")


def _nothing(request: HttpRequest, exc: NothingToDo) -> HttpResponse:
    return answer(400, "Nothing to do", "There is nothing further to undo or redo.")


def _conflict(request: HttpRequest, exc: Conflict) -> HttpResponse:
    try:
        mine, current = _sent_doc(request), exc.layout.doc()
    except Unreadable as fault:
        return answer(400, "Cannot be read", str(fault))
    return answer(
        409,
        "Changed elsewhere",
        "Somebody saved this layout since you opened it. Nothing was overwritten: keep"
        " theirs, put yours on top, or keep both.",
        current=layout_out(exc.layout),
        changes=changes(current, mine) if mine else [],
    )


def _locker(request: HttpRequest, exc: LockerChanged) -> HttpResponse:
    return answer(
        409,
        "Changed elsewhere",
        "Somebody saved the locker since you opened it. Nothing was overwritten: read it"
        " again and put your change in once more.",
    )


def _unknown(request: HttpRequest, exc: Unknown) -> HttpResponse:
    return answer(
        409,
        "Not known any more",
        "Expected a layout that was sent under this name a short while ago; send it again.",
    )


def _stranger(request: HttpRequest, exc: AuthenticationError) -> HttpResponse:
    get_token(request)  # so that the sign-in that follows can send it back
    return answer(401, "Not signed in", "Sign in and try again; nothing was changed.")


def _bad_file(request: HttpRequest, exc: LayoutFileError) -> HttpResponse:
    return answer(400, "Not a layout", exc.message, place=exc.place)


def _refused(request: HttpRequest, exc: RingsideError) -> HttpResponse:
    user = request.user  # lengths as this user reads them
    ruler = Ruler(user.units, user.hand_sizes) if user.is_authenticated else Ruler()
    return answer(400, "Cannot be done", exc.worded(ruler.text))


def _invalid(request: HttpRequest, exc: ValidationError) -> HttpResponse:
    first: Any = exc.errors[0]
    return answer(422, "Not understood", wording(first), place=place_of(first["loc"][1:]))


def _away(request: HttpRequest, exc: Exception) -> HttpResponse:
    log.warning("the database does not answer: %s", str(exc).split("\n")[0])
    return answer(503, "Not now", "The database does not answer. Nothing was changed; try again.")


def _busy(request: HttpRequest, exc: Busy) -> HttpResponse:
    words = "Several long answers are being worked out already. Try again in a moment."
    busy = answer(429, "Busy", words)
    busy["Retry-After"] = "2"
    return busy


def _copying(request: HttpRequest, exc: TooManyPacked) -> HttpResponse:
    words = "Others are having sound packed. Try again when theirs has come."
    return answer(429, "Busy", words)


def _too_long(request: HttpRequest, exc: TooLong) -> HttpResponse:
    words = (
        f"This took longer than {LONGEST_S:.0f} s and was stopped. Nothing was changed. It may"
        " be quicker with fewer mics, readings or values, or a smaller room."
    )
    return answer(503, "Stopped", words)


def _gave_up(request: HttpRequest, exc: GaveUp) -> HttpResponse:
    return answer(408, "Given up", "Whoever asked has gone.")


def _unfit(request: HttpRequest, exc: UnfitText) -> HttpResponse:
    return answer(422, "Not understood", str(exc), place=exc.place)


def _unmade(request: HttpRequest, exc: pydantic.ValidationError) -> HttpResponse:
    first = exc.errors(include_url=False)[0]
    return answer(422, "Not understood", wording(first), place=place_of(first["loc"]))


def _no_archive(request: HttpRequest, exc: NotAnArchive) -> HttpResponse:
    return answer(400, "Not an archive", f"Nothing was read in: {exc}.")


def _unreadable(request: HttpRequest, exc: Unreadable) -> HttpResponse:
    return answer(400, "Cannot be read", str(exc))


def _plain(request: HttpRequest, exc: HttpError) -> HttpResponse:
    if isinstance(exc.__cause__, UnfitText):
        return _unfit(request, exc.__cause__)
    if isinstance(exc.__cause__, RequestDataTooBig):
        return answer(413, "Too large", "This is larger than anything that can be kept here.")
    if isinstance(exc.__cause__, ValueError):
        return answer(400, "Not understood", f"This is not JSON: {exc.__cause__}.")
    return answer(exc.status_code, "Refused", str(exc))


ANSWERS: dict[type[Exception], Any] = {
    NotThere: _missing,
    NothingToDo: _nothing,
    Conflict: _conflict,
    LockerChanged: _locker,
    Unknown: _unknown,
    AuthenticationError: _stranger,
    LayoutFileError: _bad_file,
    RingsideError: _refused,
    ValidationError: _invalid,
    OperationalError: _away,
    InterfaceError: _away,
    Busy: _busy,
    TooManyPacked: _copying,
    TooLong: _too_long,
    GaveUp: _gave_up,
    UnfitText: _unfit,
    pydantic.ValidationError: _unmade,
    NotAnArchive: _no_archive,
    Unreadable: _unreadable,
    HttpError: _plain,
}


def install(api: NinjaAPI) -> None:
    """Register the answers."""
    for kind, told in ANSWERS.items():
        api.add_exception_handler(kind, told)
