"""Answers that are computed, not stored: what a layout that is being dragged would do."""

from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from ninja import Router
from plans.actions import layout_for
from ringside.answers.board import Board, FocusOn, board
from ringside.pairs.analysis import analyse
from ringside.places.aims import aim_at
from ringside.places.partner import Spot, place_by_tape
from ringside.plan.layout import Layout
from ringside.plan.thresholds import REASONS, Thresholds

from api.board.schemas import AimIn, AimOut, ComputeIn, Setting, TapeIn
from api.common import Problem

router = Router(tags=["compute"])
WRONG = {400: Problem, 422: Problem}


def _board(layout: Layout, focus: FocusOn | None) -> HttpResponse:
    """Straight to bytes: checking the reply again would cost more than computing it."""
    body = orjson.dumps(board(analyse(layout), focus), option=orjson.OPT_SERIALIZE_NUMPY)
    return HttpResponse(body, content_type="application/json")


@router.post("/compute", response={200: Board, **WRONG})
def compute(request: HttpRequest, data: ComputeIn) -> HttpResponse:
    """The analysis of any layout; nothing is stored."""
    f = data.focus
    return _board(data.layout, FocusOn(f.anchor, f.mover, f.source) if f else None)


@router.get("/layouts/{pk}/analysis", response={200: Board, 404: Problem})
def saved(request: HttpRequest, pk: int) -> HttpResponse:
    """The analysis of a layout as it is saved."""
    return _board(layout_for(request.user, pk).doc(), None)


@router.post("/place-by-tape", response={200: Spot, **WRONG})
def tape(request: HttpRequest, data: TapeIn) -> Spot:
    """Where a mic stands when snare, kick and height are typed."""
    return place_by_tape(data.layout, data.mic, data.snare_m, data.kick_m, data.height_m)


@router.post("/aim-at", response={200: AimOut, **WRONG})
def aim(request: HttpRequest, data: AimIn) -> dict[str, Any]:
    """The direction that aims a mic at a drum, a cymbal, or straight down or up."""
    return {"aim": aim_at(data.layout, data.mic, data.target)}


@router.post("/thresholds", response=list[Setting])
def thresholds(request: HttpRequest, data: Thresholds) -> list[dict[str, Any]]:
    """The named limits of the verdicts with their reasons."""
    values = data.model_dump()
    return [{"name": k, "value": v, "reason": REASONS[k]} for k, v in values.items()]
