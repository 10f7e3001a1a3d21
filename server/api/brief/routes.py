"""The brief: its questions and rules, and starting layouts made from the answers."""

from typing import Any

from django.http import HttpRequest
from ninja import Router
from plans.actions import layout_for
from ringside.brief.plans import PlanRow, built, plans, table
from ringside.plan.questions import QUESTIONS, Brief
from studios.actions import stock_of

from api.brief.schemas import BriefOut, BuildIn, PlansIn
from api.common import LayoutOnly, Problem
from api.heavy.pool import heavy

router = Router(tags=["brief"])
WRONG = {400: Problem, 404: Problem, 422: Problem}


@router.get("/brief", response=BriefOut)
def brief(request: HttpRequest) -> dict[str, Any]:
    """The questions, and the rules as a table."""
    return {"questions": list(QUESTIONS), "start": Brief(), "rules": table()}


@router.post("/layouts/{pk}/plans", response={200: list[PlanRow], **WRONG})
def starting(request: HttpRequest, pk: int, data: PlansIn) -> list[PlanRow]:
    """Up to three starting layouts; nothing is stored."""
    locker = stock_of(layout_for(request.user, pk).session.studio)
    return heavy(request, plans, data.layout, data.brief, locker, request.user.hand_sizes)


@router.post("/layouts/{pk}/build", response={200: LayoutOnly, **WRONG})
def build(request: HttpRequest, pk: int, data: BuildIn) -> dict[str, Any]:
    """A layout of chosen pieces, for a plan or a mix of two; nothing is stored."""
    locker = stock_of(layout_for(request.user, pk).session.studio)
    hand = request.user.hand_sizes
    made = heavy(request, built, data.layout, data.brief, data.pieces, locker, hand)
    return {"layout": made}
