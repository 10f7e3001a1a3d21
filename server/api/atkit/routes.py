"""At the kit: its log, where everything stands by it, and a reading as it is typed."""

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from ninja.responses import Status
from plans import atkit
from plans.actions import layout_for
from plans.models import StandLog
from ringside.answers.arc import Arc, arc
from ringside.standing.entries import Entry
from ringside.standing.judged import Judged
from studios.actions import stock_of

from api.atkit.schemas import (
    ArcIn,
    AtKit,
    AtKitOut,
    EntryIn,
    EntryOut,
    JudgeIn,
    StandingIn,
    StrikeEntryIn,
)
from api.common import Problem
from api.heavy import work
from api.heavy.pool import heavy
from api.kept import computed, person_of

router = Router(tags=["at the kit"])
GONE = {404: Problem}
WRONG = {400: Problem, 404: Problem, 422: Problem}


def _entry(row: StandLog) -> dict[str, Any]:
    return {**dict(row.entry()), "by": row.who}


@router.get("/layouts/{pk}/at-kit", response={200: AtKitOut, **GONE})
def at_kit(request: HttpRequest, pk: int) -> dict[str, Any]:
    """What counts of a layout's log at the kit, oldest first, with the tag of that state."""
    # The tag first: what is written in between is then looked for once more, and nothing missed.
    tag = atkit.tag_of(int(request.user.pk), pk).tag
    return {"tag": tag, "rows": [_entry(r) for r in atkit.entries_of(request.user, pk)]}


@router.get("/layouts/{pk}/at-kit/tag", auth=computed, response={200: atkit.Tag, **GONE})
def tag(request: HttpRequest, pk: int) -> atkit.Tag:
    """What changes whenever the log at the kit does; every open screen looks for it."""
    return atkit.tag_of(person_of(request), pk)


@router.post("/layouts/{pk}/at-kit", response={201: EntryOut, **WRONG})
def write(request: HttpRequest, pk: int, data: EntryIn) -> Status[dict[str, Any]]:
    """Write a line down; sent again under its key it is written once."""
    entry = Entry(**{**data.model_dump(), "key": str(data.key)})
    return Status(201, _entry(atkit.write_entry(request.user, pk, entry)))


@router.post("/layouts/{pk}/at-kit/strike", response={204: None, **WRONG})
def strike(request: HttpRequest, pk: int, data: StrikeEntryIn) -> Status[None]:
    """Strike a line out; done twice it is done once."""
    atkit.strike_entry(request.user, pk, data.key)
    return Status(204, None)


@router.post("/layouts/{pk}/standing", response={200: AtKit, **WRONG})
def stands(request: HttpRequest, pk: int, data: StandingIn) -> dict[str, Any]:
    """Where everything stands by a log, what that changes of the plan, and the set-up list."""
    locker = stock_of(layout_for(request.user, pk).session.studio)
    return heavy(request, work.at_kit, data.layout, locker, data.log, data.order, timezone.now())


@router.post("/layouts/{pk}/judge", response={200: Judged, **WRONG})
def judge(request: HttpRequest, pk: int, data: JudgeIn) -> Judged:
    """A reading before it is kept: whether it can be, is right, and what to do at the stand."""
    locker = stock_of(layout_for(request.user, pk).session.studio)
    return heavy(
        request, work.reading, data.layout, locker, data.log, data.mic, data.to, data.metres
    )


@router.post("/arc", auth=computed, response={200: Arc, 400: Problem, 422: Problem})
def arc_of(request: HttpRequest, data: ArcIn) -> Arc:
    """Every spot of a side mic that is as far from the snare, at its height."""
    return arc(data.layout, data.mic)
