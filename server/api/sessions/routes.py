"""Sessions: list, make, rename, copy, delete with a way back, and a layout file as a new one."""

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import File, Query, Router, UploadedFile
from ninja.responses import Status
from plans import actions, lines
from ringside.errors import LayoutFileError
from ringside.files.layout import BIGGEST_LAYOUT, read_layout
from ringside.places.starts import STARTS
from ringside.plan.kits import KITS
from studios.access import studios_of
from studios.models import Kit, Room
from takes.telling import settled_of

from api.common import LARGEST_ID, Problem
from api.heavy import work
from api.heavy.pool import heavy
from api.layouts.schemas import LayoutOut
from api.sessions.schemas import (
    LayoutIn,
    LayoutLines,
    LinesIn,
    SessionIn,
    SessionOut,
    SessionRename,
    StartOut,
)
from api.shapes import layout_out, session_out

router = Router(tags=["sessions"])
MISSING = {404: Problem}


Words = Annotated[str, Query(max_length=120, description="Words of the name or the place.")]
Before = Annotated[
    int | None, Query(ge=1, le=LARGEST_ID, description="Older than the session of this id.")
]
Most = Annotated[int, Query(ge=1, le=100)]


@router.get("", response={200: list[SessionOut], 422: Problem})
def sessions(
    request: HttpRequest, q: Words = "", before: Before = None, most: Most = 24
) -> list[dict[str, Any]]:
    """The sessions of one's studios, newest first, a page at a time."""
    return [session_out(s) for s in actions.sessions_page(request.user, q, before, most)]


@router.post("", response={201: SessionOut, 400: Problem, 404: Problem, 422: Problem})
def make(request: HttpRequest, data: SessionIn) -> Status[dict[str, Any]]:
    """A session from a starting kit and a starting layout."""
    return Status(201, session_out(actions.make_session(request.user, **data.model_dump())))


@router.get("/starts", response=StartOut)
def starts(request: HttpRequest) -> dict[str, Any]:
    """What a new session can begin with."""
    mine = studios_of(request.user)
    return {
        "kits": list(KITS),
        "own_kits": list(Kit.objects.filter(studio__in=mine).values_list("name", flat=True)),
        "starts": STARTS,
        "rooms": list(Room.objects.filter(studio__in=mine).values("id", "name")),
    }


@router.post("/upload", response={201: SessionOut, 400: Problem})
def upload(request: HttpRequest, file: File[UploadedFile]) -> Status[dict[str, Any]]:
    """A layout file made elsewhere becomes a session of its own; a bad one changes nothing."""
    if (file.size or 0) > BIGGEST_LAYOUT:
        raise LayoutFileError("", f"larger than {BIGGEST_LAYOUT} bytes; a layout file is smaller")
    doc = read_layout(file.read())
    return Status(201, session_out(actions.session_from_file(request.user, doc)))


@router.post("/lines", response={200: list[LayoutLines], 422: Problem})
def lengths(request: HttpRequest, data: LinesIn) -> list[dict[str, int]]:
    """How long the list of what to do is for some layouts; those one may not see are left out."""
    mine = lines.asked_for(request.user, data.layouts)
    told = {layout.pk: lines.known(layout) for layout in mine}
    wanted = lines.readable(mine)
    if wanted:
        asked = [(doc, settled_of(request.user, layout.pk)) for layout, doc in wanted]
        found = heavy(request, work.lengths, asked)
        for (layout, _), count in zip(wanted, found, strict=True):
            told[layout.pk] = count
            lines.keep(layout, count)
    return [{"id": pk, "lines": count} for pk, count in told.items() if count is not None]


@router.get("/{pk}", response={200: SessionOut, **MISSING})
def one(request: HttpRequest, pk: int) -> dict[str, Any]:
    """One session."""
    return session_out(actions.session_for(request.user, pk))


@router.patch("/{pk}", response={200: SessionOut, **MISSING})
def rename(request: HttpRequest, pk: int, data: SessionRename) -> dict[str, Any]:
    """Change name and place."""
    return session_out(actions.rename_session(request.user, pk, data.name, data.place))


@router.post("/{pk}/layouts", response={201: LayoutOut, 400: Problem, 422: Problem, **MISSING})
def make_layout(request: HttpRequest, pk: int, data: LayoutIn) -> Status[dict[str, Any]]:
    """Another layout in the session, from a starting kit and layout."""
    return Status(201, layout_out(actions.make_layout(request.user, pk, **data.model_dump())))


@router.post("/{pk}/copy", response={201: SessionOut, **MISSING})
def copy(request: HttpRequest, pk: int) -> Status[dict[str, Any]]:
    """A second session with the same layouts."""
    return Status(201, session_out(actions.copy_session(request.user, pk)))


@router.delete("/{pk}", response={204: None, **MISSING})
def delete(request: HttpRequest, pk: int) -> Status[None]:
    """Put away; restore brings it back."""
    actions.delete_session(request.user, pk)
    return Status(204, None)


@router.post("/{pk}/restore", response={200: SessionOut, **MISSING})
def restore(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Bring back a deleted session."""
    return session_out(actions.restore_session(request.user, pk))
