"""Distance meters: how one is let in, what it is told to measure, and what it sends.

The meter's own two answers are an open interface, told in docs/formats/meter.md.
"""

from typing import Annotated, Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.responses import Status
from ninja.security import HttpBearer
from plans import meters
from plans.models import Meter
from pydantic import Field
from ringside.standing.entries import LONGEST_M
from ringside.standing.report import NextReading
from studios.actions import stock_of

from api.common import Problem, Strict
from api.heavy import work
from api.heavy.pool import heavy

router = Router(tags=["distance meter"])
GONE = {404: Problem}


class ByWord(HttpBearer):
    """By the word that was told when the meter was let in."""

    def authenticate(self, request: HttpRequest, token: str) -> Meter | None:
        """The meter, or None."""
        return meters.meter_of(token)


by_word = ByWord()


class MeterMade(Schema):
    """A meter is let in. Its word is told this once."""

    word: str
    address: str


class ReadingIn(Strict):
    """What a meter read."""

    key: UUID
    metres: Annotated[float, Field(gt=0, le=LONGEST_M, allow_inf_nan=False)]


class WhatToRead(Schema):
    """What is to be measured now; null when everything is."""

    layout: str
    next: NextReading | None


@router.post("/layouts/{pk}/meter", response={201: MeterMade, **GONE})
def let_in(request: HttpRequest, pk: int) -> Status[dict[str, str]]:
    """Let a distance meter send readings for a layout; one that was let in before is let go."""
    word = meters.make_meter(request.user, pk)
    return Status(201, {"word": word, "address": request.build_absolute_uri("/api/meter")})


@router.delete("/layouts/{pk}/meter", response={204: None, **GONE})
def let_go(request: HttpRequest, pk: int) -> Status[None]:
    """No meter sends for this layout any more."""
    meters.end_meter(request.user, pk)
    return Status(204, None)


@router.get("/meter", auth=by_word, response=WhatToRead)
def what_to_read(request: HttpRequest) -> dict[str, Any]:
    """What is to be measured now, for a meter that shows it."""
    layout = request.auth.layout  # type: ignore[attr-defined]
    rows = layout.stand_log.filter(struck_at=None)
    locker = stock_of(layout.session.studio)
    asked = heavy(request, work.next_reading, layout.doc(), locker, [r.entry() for r in rows])
    return {"layout": layout.name, "next": asked}


@router.post("/meter", auth=by_word, response={204: None, 422: Problem})
def send(request: HttpRequest, data: ReadingIn) -> Status[None]:
    """A reading for whoever measures: it stands on their screen, and is kept when they keep it."""
    meters.take_reading(request.auth, data.key, data.metres)  # type: ignore[attr-defined]
    return Status(204, None)
