"""A studio as one archive: asked for, fetched, and another read in."""

from typing import Annotated, Any
from uuid import UUID

from carrying import actions
from carrying.actions import ARCHIVE, BIGGEST_ARCHIVE, FILE, READ_IN
from carrying.errors import NotAnArchive
from django.http import HttpRequest, HttpResponse
from jobs.actions import call_off, file_of, job_of
from ninja import File, Form, Router, UploadedFile

from api.common import Problem
from api.longwork import JobOut, job_out

router = Router(tags=["carrying"])
GONE: dict[int, Any] = {404: Problem}
WRONG: dict[int, Any] = {400: Problem, 404: Problem, 422: Problem}


@router.post("/studios/{pk}/archive", response={200: JobOut, **GONE})
def ask(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Ask for everything of a studio as one archive."""
    return job_out(actions.ask_for_archive(request.user, pk))


@router.get("/archives/{pk}", response={200: JobOut, **GONE})
def progress(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far it is."""
    return job_out(job_of(request.user, ARCHIVE.name, pk))


@router.delete("/archives/{pk}", response={200: JobOut, **GONE})
def stop(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Nobody waits for it any more."""
    return job_out(call_off(request.user, ARCHIVE.name, pk))


@router.get("/archives/{pk}/studio.zip", response={200: bytes, **GONE})
def fetch(request: HttpRequest, pk: int) -> HttpResponse:
    """The archive itself."""
    body = file_of(request.user, ARCHIVE.name, pk, FILE)
    answer = HttpResponse(body, content_type="application/zip")
    answer["Content-Disposition"] = 'attachment; filename="studio.zip"'
    return answer


@router.post("/read-ins", response={200: JobOut, **WRONG})
def read(
    request: HttpRequest, file: File[UploadedFile], key: Annotated[UUID | None, Form()] = None
) -> dict[str, Any]:
    """Read an archive in as a new studio; sent again under its key it is read once."""
    if (file.size or 0) > BIGGEST_ARCHIVE:
        raise NotAnArchive(f"larger than {BIGGEST_ARCHIVE} bytes; ask who runs this server")
    return job_out(actions.ask_to_read_in(request.user, file.read(), key))


@router.get("/read-ins/{pk}", response={200: JobOut, **GONE})
def read_progress(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far it is."""
    return job_out(job_of(request.user, READ_IN.name, pk))
