"""Distance meters: a word that lets one send readings for a layout, and what it sent last."""

from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from accounts.models import User
from accounts.words import digest_of, fresh_word
from django.utils import timezone

from plans.actions import layout_for
from plans.errors import NotThere
from plans.models import Meter

FRESH = timedelta(seconds=20)
"""So long a reading waits for a screen that asks for it."""


@dataclass(frozen=True, slots=True)
class Sent:
    """What a meter sent."""

    key: UUID
    metres: float


def make_meter(user: User, layout_pk: int) -> str:
    """A word for a meter, told this once; one that was there before is no longer known."""
    layout = layout_for(user, layout_pk)
    word = fresh_word()
    fresh = {
        "digest": digest_of(word), "made_by": user,
        "last_key": None, "last_metres": None, "last_at": None,
    }  # fmt: skip
    Meter.objects.update_or_create(layout=layout, defaults=fresh)
    return word


def end_meter(user: User, layout_pk: int) -> None:
    """No meter sends for this layout any more."""
    Meter.objects.filter(layout=layout_for(user, layout_pk)).delete()


def meter_of(word: str) -> Meter | None:
    """The meter of a word, while whoever made it still sees the layout."""
    meter = Meter.objects.filter(digest=digest_of(word)).select_related("made_by").first()
    if meter is None:
        return None
    try:
        meter.layout = layout_for(meter.made_by, meter.layout_id)
    except NotThere:
        return None
    return meter


def take_reading(meter: Meter, key: UUID, metres: float) -> None:
    """Keep what a meter sent for the screen that asks for it; sent twice it is there once."""
    rows = Meter.objects.filter(pk=meter.pk).exclude(last_key=key)
    rows.update(last_key=key, last_metres=metres, last_at=timezone.now())
