"""What is written down on the day: lug readings and spots; and whether the locker suffices."""

from typing import Any

from django.http import HttpRequest
from ninja import Router
from ninja.responses import Status
from plans import logs
from plans.actions import layout_for
from plans.models import SpotLog, TapeLog
from ringside.gear.stock import Stock, stock
from ringside.plan.kit import Kit
from studios.actions import stock_of

from api.common import LayoutOnly, Problem
from api.log.schemas import LugsIn, ReadingIn, ReadingOut, SpotOut, SpotPut, StrikeIn, TuningOut

router = Router(tags=["the day's log"])
GONE = {404: Problem}
WRONG = {404: Problem, 422: Problem}


@router.post("/sessions/{pk}/tuning", response={200: TuningOut, **WRONG})
def tuning(request: HttpRequest, pk: int, data: Kit) -> dict[str, Any]:
    """Notes, spread and drift of a kit by the session's lug readings."""
    return logs.tuning_of(request.user, pk, data)


@router.post("/sessions/{pk}/lugs", response={201: None, **WRONG})
def write_lugs(request: HttpRequest, pk: int, data: LugsIn) -> Status[None]:
    """Write down a lug reading."""
    logs.write_lugs(request.user, pk, data.drum, data.lugs_hz, key=data.key)
    return Status(201, None)


@router.delete("/sessions/{pk}/lugs/{row}", response={204: None, **GONE})
def drop_lugs(request: HttpRequest, pk: int, row: int) -> Status[None]:
    """Strike a lug reading out."""
    logs.drop_lugs(request.user, pk, row)
    return Status(204, None)


def _spot(row: SpotLog) -> dict[str, Any]:
    return {
        "id": row.pk, "room": row.room, "x_m": row.x_m, "y_m": row.y_m, "turn_rad": row.turn_rad,
        "rating": row.rating, "words": row.words, "by": row.who, "at": row.at,
    }  # fmt: skip


@router.get("/sessions/{pk}/spots", response={200: list[SpotOut], **GONE})
def spots(request: HttpRequest, pk: int) -> list[dict[str, Any]]:
    """The spots tried by ear, newest first."""
    return [_spot(r) for r in logs.spots_of(request.user, pk)]


@router.post("/sessions/{pk}/spots", response={201: SpotOut, **WRONG})
def write_spot(request: HttpRequest, pk: int, data: SpotPut) -> Status[dict[str, Any]]:
    """Write down a spot and how it sounded."""
    return Status(201, _spot(logs.write_spot(request.user, pk, **data.model_dump())))


@router.delete("/sessions/{pk}/spots/{row}", response={204: None, **GONE})
def drop_spot(request: HttpRequest, pk: int, row: int) -> Status[None]:
    """Strike a spot out."""
    logs.drop_spot(request.user, pk, row)
    return Status(204, None)


def _tape(row: TapeLog) -> dict[str, Any]:
    return {
        "id": row.pk, "a": row.a, "b": row.b, "metres": row.metres, "by": row.who, "at": row.at,
        "struck_at": row.struck_at,
    }  # fmt: skip


@router.get("/sessions/{pk}/tape", response={200: list[ReadingOut], **GONE})
def tape(request: HttpRequest, pk: int) -> list[dict[str, Any]]:
    """Every tape reading at the session's kit, struck out or not, oldest first."""
    return [_tape(r) for r in logs.tape_of(request.user, pk)]


@router.post("/sessions/{pk}/tape", response={201: ReadingOut, **WRONG})
def write_tape(request: HttpRequest, pk: int, data: ReadingIn) -> Status[dict[str, Any]]:
    """Write down a tape reading; sent again under its key it is written once."""
    return Status(201, _tape(logs.write_tape(request.user, pk, **data.model_dump())))


@router.post("/sessions/{pk}/tape/strike", response={204: None, **WRONG})
def strike_tape(request: HttpRequest, pk: int, data: StrikeIn) -> Status[None]:
    """Strike out what was read between two ends; done twice it is done once."""
    logs.strike_tape(request.user, pk, data.a, data.b)
    return Status(204, None)


@router.post("/sessions/{pk}/tape/elsewhere", response={200: list[ReadingOut], **WRONG})
def tape_elsewhere(request: HttpRequest, pk: int, data: Kit) -> list[dict[str, Any]]:
    """What was read on the session's other layouts and this kit does not stand on."""
    return [_tape(r) for r in logs.tape_elsewhere(request.user, pk, data)]


@router.post("/layouts/{pk}/stock", response={200: Stock, **WRONG})
def in_stock(request: HttpRequest, pk: int, data: LayoutOnly) -> Stock:
    """Whether the studio's locker can put up the layout as it is on the screen."""
    studio = layout_for(request.user, pk).session.studio
    return stock(data.layout, stock_of(studio))
