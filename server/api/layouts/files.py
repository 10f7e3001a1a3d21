"""A layout as something to carry away: set-up sheet, PDF, CSV, layout file."""

import json
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router
from plans.actions import layout_for
from plans.atkit import State, doc_in
from plans.errors import Unreadable
from plans.models import Layout
from ringside.files.layout import write_layout
from sheets.inputs import LabelWidth, Printed, inputs_csv, inputs_html, labels_html, tracks_text
from sheets.page import Paper, sheet_html
from sheets.printing import ask_to_print
from sheets.table import sheet_csv
from sheets.units import Ruler
from studios.actions import stock_of

from api.common import Problem, Units
from api.heavy import work
from api.heavy.pool import heavy
from api.longwork import JobOut, job_out

router = Router(tags=["files"])
GONE: dict[int, Any] = {404: Problem}


def _ruler(request: HttpRequest, units: Units) -> Ruler:
    return Ruler(units, request.user.hand_sizes)


def _file(layout: Layout, body: str | bytes, kind: str, ending: str) -> HttpResponse:
    answer = HttpResponse(body, content_type=kind)
    answer["Content-Disposition"] = f'attachment; filename="{layout.file_name}{ending}"'
    return answer


@router.get("/{pk}/sheet", response={200: str, **GONE})
def sheet(
    request: HttpRequest, pk: int, units: Units = "cm", paper: Paper = "A4",
    state: State = "planned",
) -> HttpResponse:  # fmt: skip
    """The set-up sheet as a page to print, as planned or as everything stands by the tape."""
    layout = layout_for(request.user, pk)
    return HttpResponse(sheet_html(layout, doc_in(layout, state), _ruler(request, units), paper))


@router.post("/{pk}/pdf", response={200: JobOut, **GONE})
def pdf(
    request: HttpRequest, pk: int, units: Units = "cm", paper: Paper = "A4",
    what: Printed = "sheet", state: State = "planned",
) -> dict[str, Any]:  # fmt: skip
    """Ask for the set-up sheet, or the list of inputs alone, as PDF; what was printed before is
    there at once."""
    return job_out(ask_to_print(request.user, pk, _ruler(request, units), paper, what, state))


@router.get("/{pk}/inputs", response={200: str, **GONE})
def input_list(request: HttpRequest, pk: int, paper: Paper = "A4") -> HttpResponse:
    """The list of inputs alone, as a page to print."""
    return HttpResponse(inputs_html(layout_for(request.user, pk), paper))


@router.get("/{pk}/sheet.csv", response={200: str, **GONE})
def csv(
    request: HttpRequest, pk: int, units: Units = "cm", state: State = "planned"
) -> HttpResponse:
    """The set-up sheet as a table, as planned or as everything stands by the tape."""
    layout = layout_for(request.user, pk)
    stock = stock_of(layout.session.studio)
    body = sheet_csv(doc_in(layout, state), _ruler(request, units), stock)
    ending = "-stands.csv" if state == "stands" else ".csv"
    return _file(layout, body, "text/csv; charset=utf-8", ending)


@router.get("/{pk}/inputs.csv", response={200: str, **GONE})
def inputs(request: HttpRequest, pk: int) -> HttpResponse:
    """The list of inputs: track, mic, preamp, phantom, pad, low cut, flips, stand."""
    layout = layout_for(request.user, pk)
    body = inputs_csv(layout.doc(), stock_of(layout.session.studio))
    return _file(layout, body, "text/csv; charset=utf-8", "-inputs.csv")


@router.get("/{pk}/labels", response={200: str, **GONE})
def labels(request: HttpRequest, pk: int, width: LabelWidth = "25") -> HttpResponse:
    """Labels for the inputs as a page to print and cut; so many millimetres each."""
    return HttpResponse(labels_html(layout_for(request.user, pk), width))


@router.get("/{pk}/tracks.txt", response={200: str, **GONE})
def tracks(request: HttpRequest, pk: int) -> HttpResponse:
    """The names of the tracks in the order of recording, one a line."""
    layout = layout_for(request.user, pk)
    return _file(layout, tracks_text(layout.doc()), "text/plain; charset=utf-8", "-tracks.txt")


@router.get("/{pk}/pairs.csv", response={200: str, **GONE})
def pairs(request: HttpRequest, pk: int) -> HttpResponse:
    """Every pair on every drum as a table, metres and seconds."""
    layout = layout_for(request.user, pk)
    body = heavy(request, work.pairs_table, layout.doc())
    return _file(layout, body, "text/csv; charset=utf-8", "-pairs.csv")


@router.get("/{pk}/file", response={200: str, **GONE})
def file(request: HttpRequest, pk: int) -> HttpResponse:
    """The open layout file; where it cannot be read here, what is kept, as it is."""
    layout = layout_for(request.user, pk)
    try:
        text = write_layout(layout.doc())
    except Unreadable:
        text = json.dumps(layout.state.doc, indent=2, ensure_ascii=False)
    return _file(layout, text, "application/json", ".layout.json")
