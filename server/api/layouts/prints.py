"""Set-up sheets on their way to paper: how far they are, and the PDF itself."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from jobs.actions import call_off, file_of, job_of
from ninja import Router
from sheets.printing import FILE, SHEET

from api.common import Problem
from api.longwork import JobOut, job_out

router = Router(tags=["files"])
GONE: dict[int, Any] = {404: Problem}


@router.get("/{pk}", response={200: JobOut, **GONE})
def progress(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far it is."""
    return job_out(job_of(request.user, SHEET.name, pk))


@router.delete("/{pk}", response={200: JobOut, **GONE})
def stop(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Nobody waits for it any more."""
    return job_out(call_off(request.user, SHEET.name, pk))


@router.get("/{pk}/sheet.pdf", response={200: bytes, **GONE})
def fetch(request: HttpRequest, pk: int) -> HttpResponse:
    """The set-up sheet as PDF."""
    body = file_of(request.user, SHEET.name, pk, FILE)
    called = job_of(request.user, SHEET.name, pk).ask.get("called", "layout")
    answer = HttpResponse(body, content_type="application/pdf")
    answer["Content-Disposition"] = f'attachment; filename="{called}.pdf"'
    return answer
