"""Techniques, drum terms, nulls, fitting and what-if, as answers that are computed, not stored."""

from dataclasses import replace
from typing import Any

from django.http import HttpRequest
from ninja import Router
from plans.actions import layout_for
from ringside.answers.nearness import Nearness, nearness
from ringside.answers.whatif import Sweep, sweep
from ringside.fitting.fit import Fitted, fit
from ringside.gear.outfit import outfit
from ringside.gear.patching import Patched, patch
from ringside.places.drumterms import CloseTerms, placed, terms_of
from ringside.places.nulls import NullAim, null_aim
from ringside.techniques.catalogue import TechniqueRow, listed
from ringside.techniques.standing import StandingRow, standing
from ringside.techniques.taking import Took, take
from studios.actions import stock_of

from api.common import LayoutOnly, Problem
from api.heavy.pool import heavy
from api.techniques.schemas import (
    FitIn,
    NullIn,
    PutIn,
    SweepIn,
    TakeIn,
    TermsIn,
    TookOut,
)

router = Router(tags=["techniques"])
WRONG = {400: Problem, 422: Problem}


@router.post("/techniques", response={200: list[TechniqueRow], **WRONG})
def techniques(request: HttpRequest, data: LayoutOnly) -> list[TechniqueRow]:
    """The list for a layout's kit and room, its defaults by this user's hand."""
    return listed(data.layout, request.user.hand_sizes)


def _took(done: Took) -> dict[str, Any]:
    return {
        "layout": done.layout,
        "id": done.id,
        "what": done.what,
        "notes": list(done.notes),
        "short": [],
        "standing": next((s for s in standing(done.layout) if s.id == done.id), None),
    }


def _short(what: str, mics: tuple[str, ...]) -> list[str]:
    return [f"{what} {' and '.join(mics)}."] if mics else []


@router.post("/layouts/{pk}/take", response={200: TookOut, 404: Problem, **WRONG})
def taken(request: HttpRequest, pk: int, data: TakeIn) -> dict[str, Any]:
    """The layout with one more technique, held by what is left in the studio's locker."""
    locker = stock_of(layout_for(request.user, pk).session.studio)
    hands = request.user.hand_sizes
    done = take(data.layout, data.technique, data.target, data.numbers, hands)
    held = outfit(done.layout, locker, frozenset({done.id}))
    return {
        **_took(replace(done, layout=held.layout)),
        "short": [
            *_short("The locker has no mic left that suits", held.no_mic),
            *_short("No stand left in the locker reaches", held.no_stand),
        ],
    }


@router.post("/techniques/standing", response={200: list[StandingRow], **WRONG})
def in_use(request: HttpRequest, data: LayoutOnly) -> list[StandingRow]:
    """The techniques of a layout as they stand now."""
    return standing(data.layout)


@router.post("/techniques/what-if", response={200: Sweep, **WRONG})
def what_if(request: HttpRequest, data: SweepIn) -> Sweep:
    """One number of a technique over its range."""
    return heavy(request, sweep, data.layout, data.taken, data.number, data.points)


@router.post("/drum-terms", response={200: CloseTerms, **WRONG})
def in_terms(request: HttpRequest, data: TermsIn) -> CloseTerms:
    """A close mic in the terms of its drum."""
    return terms_of(data.layout, data.mic)


@router.post("/drum-terms/place", response={200: LayoutOnly, **WRONG})
def by_terms(request: HttpRequest, data: PutIn) -> dict[str, Any]:
    """The layout with a close mic where its drum terms say."""
    return {"layout": placed(data.layout, data.mic, data.terms)}


@router.post("/null-aim", response={200: NullAim, **WRONG})
def turned(request: HttpRequest, data: NullIn) -> NullAim:
    """The aim that turns a mic's null to a neighbour."""
    return null_aim(data.layout, data.mic, data.neighbour, data.off_deg)


@router.post("/nearness", response={200: Nearness, **WRONG})
def near(request: HttpRequest, data: TermsIn) -> Nearness:
    """Low end, attack and neighbours of a close mic over its height, pattern by pattern."""
    return nearness(data.layout, data.mic)


@router.post("/layouts/{pk}/patch", response={200: Patched, 404: Problem, **WRONG})
def patched(request: HttpRequest, pk: int, data: LayoutOnly) -> Patched:
    """The layout plugged into the inputs of the studio's locker; nothing is stored."""
    studio = layout_for(request.user, pk).session.studio
    return heavy(request, patch, data.layout, stock_of(studio))


@router.post("/layouts/{pk}/fit", response={200: Fitted, 404: Problem, **WRONG})
def fitted(request: HttpRequest, pk: int, data: FitIn) -> Fitted:
    """The layout fitted, with the stands of the studio's locker; nothing is stored."""
    studio = layout_for(request.user, pk).session.studio
    return heavy(request, fit, data.layout, data.ask, stock_of(studio))
