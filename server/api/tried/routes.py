"""The log: what was tried, what it did, and the way back to it."""

from typing import Annotated, Any

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router
from ninja.responses import Status
from plans import tried
from plans.actions import session_for
from plans.models import TriedLog
from ringside.answers.changes import Change
from ringside.errors import RingsideError
from sheets.tried import tried_csv
from sheets.units import Ruler
from takes.heardlines import AS_IT_WAS, say_otherwise, takes_of_lines, write_line
from takes.models import Take

from api.common import Id, LayoutOnly, Problem, Units
from api.layouts.schemas import LayoutOut
from api.shapes import layout_out
from api.takes.shapes import take_named
from api.tried.schemas import (
    AsLayoutIn,
    ComingFromIn,
    KeptOut,
    SaidIn,
    SinceLast,
    TriedIn,
    TriedOut,
)

Most = Annotated[int, Query(ge=1, le=100)]

router = Router(tags=["the log"])
GONE = {404: Problem}
WRONG = {404: Problem, 422: Problem}


def _out(row: TriedLog, take: Take | None) -> dict[str, Any]:
    return {
        "id": row.pk, "session_id": row.session_id, "session": row.session.name,
        "layout_id": row.layout_id, "layout": row.layout.name, "song": row.song,
        "words": row.words, "verdict": row.verdict, "stood": row.stood, "since": row.since,
        "by": row.who, "at": row.at, "take": take_named(take) if take else None,
    }  # fmt: skip


def _every(rows: list[TriedLog]) -> list[dict[str, Any]]:
    takes = takes_of_lines(rows)
    return [_out(r, takes.get(r.pk)) for r in rows]


def _one(row: TriedLog) -> dict[str, Any]:
    return _every([row])[0]


@router.get("/sessions/{pk}/tried", response={200: list[TriedOut], **GONE})
def lines(request: HttpRequest, pk: int) -> list[dict[str, Any]]:
    """The log of a session, newest first."""
    return _every(tried.lines_of(request.user, pk))


@router.get("/sessions/{pk}/tried.csv", response={200: str, **GONE})
def as_csv(request: HttpRequest, pk: int, units: Units = "cm") -> HttpResponse:
    """The log of a session as a table, oldest first."""
    session = session_for(request.user, pk)
    rows = tried.lines_of(request.user, pk)
    takes = {line: take.name for line, take in takes_of_lines(rows).items()}
    body = tried_csv(rows, Ruler(units, request.user.hand_sizes), takes)
    answer = HttpResponse(body, content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{session.file_name}-log.csv"'
    return answer


@router.get("/sessions/{pk}/tried/elsewhere", response={200: list[TriedOut], **WRONG})
def elsewhere(
    request: HttpRequest, pk: int, words: str = "", before: Id | None = None, most: Most = 40
) -> list[dict[str, Any]]:
    """Lines of the studio's other sessions that hold every word; `before` goes on from a line."""
    return _every(tried.elsewhere(request.user, pk, words[:200], before, most))


@router.post("/layouts/{pk}/tried", response={201: TriedOut, 400: Problem, **WRONG})
def write(request: HttpRequest, pk: int, data: TriedIn) -> Status[dict[str, Any]]:
    """Write down what was tried and what it did."""
    line = tried.Line(**data.said(), doc=data.doc, stood=data.stood, at=data.at)
    return Status(201, _one(write_line(request.user, pk, line, data.key, data.take)))


@router.post("/layouts/{pk}/tried/since", response={200: SinceLast, **WRONG})
def since(request: HttpRequest, pk: int, data: LayoutOnly) -> dict[str, Any]:
    """What changed from the newest line of a layout to the layout as it is on the screen."""
    last, changed = tried.since_last(request.user, pk, data.layout)
    return {"last": _one(last) if last else None, "changes": changed}


@router.get("/tried/{pk}", response={200: KeptOut, **GONE})
def kept(request: HttpRequest, pk: int) -> dict[str, Any]:
    """The layout of a line, as it was heard."""
    return {"doc": tried.line_for(request.user, pk).doc()}


@router.post("/tried/{pk}/way-to", response={200: list[Change], 400: Problem, **WRONG})
def way_to(request: HttpRequest, pk: int, data: ComingFromIn) -> list[Change]:
    """What is to be changed to come to a line, from a layout on the screen or another line."""
    if (data.layout is None) == (data.other is None):
        raise RingsideError("expected either a layout or another line to come from")
    if data.layout is not None:
        return tried.way_to(request.user, pk, data.layout)
    other = tried.line_for(request.user, data.other or 0)
    return tried.way_to(request.user, pk, other.doc(), other.stood)


@router.post("/tried/{pk}/strike", response={204: None, **GONE})
def strike(request: HttpRequest, pk: int) -> Status[None]:
    """Strike a line out; done twice it is done once."""
    tried.strike(request.user, pk)
    return Status(204, None)


@router.post("/tried/{pk}/otherwise", response={201: TriedOut, 400: Problem, **WRONG})
def otherwise(request: HttpRequest, pk: int, data: SaidIn) -> Status[dict[str, Any]]:
    """Strike a line out for one that says otherwise of the same layout."""
    said = tried.Said(**data.said())
    # Whoever does not speak of the take leaves it as it was.
    take = data.take if "take" in data.model_fields_set else AS_IT_WAS
    return Status(201, _one(say_otherwise(request.user, pk, said, data.key, take)))


@router.post("/tried/{pk}/restore", response={204: None, **GONE})
def restore(request: HttpRequest, pk: int) -> Status[None]:
    """Let a line count again."""
    tried.restore(request.user, pk)
    return Status(204, None)


@router.post("/sessions/{pk}/tried/{line}/layout", response={201: LayoutOut, **WRONG})
def as_layout(request: HttpRequest, pk: int, line: int, data: AsLayoutIn) -> Status[dict[str, Any]]:
    """A line's layout as one more layout of a session of the same studio."""
    return Status(201, layout_out(tried.as_layout(request.user, line, pk, data.name)))
