"""What a studio keeps: rooms, kits, the locker with its CSV."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, UploadedFile
from ninja.responses import Status
from ringside.errors import RingsideError
from ringside.files.locker import BIGGEST_LOCKER, write_locker
from ringside.files.stored import KIT, ROOM
from ringside.plan.kit import Kit
from ringside.plan.room import Room
from studios import actions
from studios.models import Kit as KitRow
from studios.models import Room as RoomRow
from studios.stored import unread

from api.common import Problem
from api.studios.schemas import KeptKit, KeptRoom, LockerIn, LockerOut, LockerRead


def _room(row: RoomRow) -> dict[str, Any]:
    room, why = unread(ROOM, row.box, f"The room {row.name!r}")
    return {"id": row.pk, "name": row.name, "room": room, "why_not": why}


def _kit(row: KitRow) -> dict[str, Any]:
    kit, why = unread(KIT, row.doc, f"The kit {row.name!r}")
    return {"id": row.pk, "name": row.name, "kit": kit, "why_not": why}


router = Router(tags=["studios"])
GONE = {404: Problem}
WRONG = {400: Problem, 404: Problem, 422: Problem}


@router.get("/{pk}/rooms", response={200: list[KeptRoom], **GONE})
def rooms(request: HttpRequest, pk: int) -> list[dict[str, Any]]:
    """The rooms of a studio."""
    return [_room(r) for r in actions.rooms_of(request.user, pk)]


@router.post("/{pk}/rooms", response={200: KeptRoom, **WRONG})
def keep_room(request: HttpRequest, pk: int, data: Room) -> dict[str, Any]:
    """Keep a room; one by the same name is replaced."""
    return _room(actions.keep_room(request.user, pk, data))


@router.delete("/{pk}/rooms/{room}", response={204: None, **GONE})
def drop_room(request: HttpRequest, pk: int, room: int) -> Status[None]:
    """Forget a room; layouts keep theirs."""
    actions.drop_room(request.user, pk, room)
    return Status(204, None)


@router.get("/{pk}/kits", response={200: list[KeptKit], **GONE})
def kits(request: HttpRequest, pk: int) -> list[dict[str, Any]]:
    """The kits of a studio."""
    return [_kit(k) for k in actions.kits_of(request.user, pk)]


@router.post("/{pk}/kits", response={200: KeptKit, **WRONG})
def keep_kit(request: HttpRequest, pk: int, data: Kit) -> dict[str, Any]:
    """Keep a kit; one by the same name is replaced."""
    return _kit(actions.keep_kit(request.user, pk, data))


@router.delete("/{pk}/kits/{kit}", response={204: None, **GONE})
def drop_kit(request: HttpRequest, pk: int, kit: int) -> Status[None]:
    """Forget a kit; layouts keep theirs."""
    actions.drop_kit(request.user, pk, kit)
    return Status(204, None)


@router.get("/{pk}/locker", response={200: LockerOut, **GONE})
def locker(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Mics, stands, inputs and cables of a studio."""
    row = actions.locker_for(request.user, pk)
    return {"version": row.version, "locker": row.contents()}


@router.put("/{pk}/locker", response={200: LockerOut, 409: Problem, **WRONG})
def save_locker(request: HttpRequest, pk: int, data: LockerIn) -> dict[str, Any]:
    """Save the locker; an older version is refused, never put over a newer one."""
    row = actions.save_locker(request.user, pk, data.version, data.locker)
    return {"version": row.version, "locker": row.contents()}


@router.get("/{pk}/locker.csv", response={200: str, **GONE})
def locker_csv(request: HttpRequest, pk: int) -> HttpResponse:
    """The locker as CSV."""
    row = actions.locker_for(request.user, pk)
    answer = HttpResponse(write_locker(row.contents()), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="locker.csv"'
    return answer


@router.post("/{pk}/locker.csv", response={200: LockerRead, **WRONG})
def read_csv(request: HttpRequest, pk: int, file: File[UploadedFile]) -> dict[str, Any]:
    """Rows of a CSV file put into the locker; broken ones are named and left out."""
    if (file.size or 0) > BIGGEST_LOCKER:
        raise RingsideError(f"larger than {BIGGEST_LOCKER} bytes; a locker is smaller")
    row, faults = actions.read_into_locker(request.user, pk, file.read())
    return {
        "version": row.version,
        "locker": row.contents(),
        "faults": faults,
    }
