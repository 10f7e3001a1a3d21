"""Answers that are computed, not stored: what a layout that is being dragged would do."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router
from plans.actions import layout_for
from ringside.answers.board import Board, board
from ringside.answers.following import Follows, Moved, follows
from ringside.places.aims import aim_at
from ringside.places.partner import Spot, place_by_tape
from ringside.plan.thresholds import REASONS, Thresholds
from ringside.standing.stood import analysed

from api.board.schemas import AimIn, AimOut, ComputeIn, FollowIn, Setting, TapeIn
from api.common import Problem
from api.kept import computed
from api.resting import under_hands
from api.told import told

router = Router(tags=["compute"])
WRONG = {400: Problem, 422: Problem}


@router.post("/compute", auth=computed, response={200: Board, **WRONG})
def compute(request: HttpRequest, data: ComputeIn) -> HttpResponse:
    """The analysis of any layout; nothing is stored."""
    return told(board(analysed(data.layout), data.focus.on() if data.focus else None))


@router.post("/follow", auth=computed, response={200: Follows, 409: Problem, **WRONG})
def follow(request: HttpRequest, data: FollowIn) -> HttpResponse:
    """What a move of one mic changes before one's eyes; nothing is stored.

    409: the layout of this name is not known here any more, send it again.
    """
    before = under_hands.before(request, data).analysis
    moved = Moved(data.mic, data.position_m, data.aim)
    focus = data.focus.on() if data.focus else None
    return told(follows(before, moved, focus, words=data.words))


@router.get("/layouts/{pk}/analysis", response={200: Board, 404: Problem})
def saved(request: HttpRequest, pk: int) -> HttpResponse:
    """The analysis of a layout as it is saved."""
    return told(board(analysed(layout_for(request.user, pk).doc())))


@router.post("/place-by-tape", auth=computed, response={200: Spot, **WRONG})
def tape(request: HttpRequest, data: TapeIn) -> Spot:
    """Where a mic stands when snare, kick and height are typed."""
    return place_by_tape(data.layout, data.mic, data.snare_m, data.kick_m, data.height_m)


@router.post("/aim-at", auth=computed, response={200: AimOut, **WRONG})
def aim(request: HttpRequest, data: AimIn) -> dict[str, Any]:
    """The direction that aims a mic at a drum, a cymbal, or straight down or up."""
    return {"aim": aim_at(data.layout, data.mic, data.target)}


@router.post("/thresholds", auth=computed, response=list[Setting])
def thresholds(request: HttpRequest, data: Thresholds) -> list[dict[str, Any]]:
    """The named limits of the verdicts with their reasons."""
    values = data.model_dump()
    return [{"name": k, "value": v, "reason": REASONS[k]} for k, v in values.items()]
