"""What is written down at the kit of one layout: readings of mics, ticks, and what was touched."""

from uuid import UUID

from accounts.models import User
from django.db.models import Count
from django.utils import timezone
from ringside.errors import RingsideError
from ringside.standing.entries import MOST_ENTRIES, Entry

from plans.actions import layout_for
from plans.errors import NotThere
from plans.logs import write_once
from plans.models import Layout, StandLog


def write_entry(user: User, layout_pk: int, entry: Entry) -> StandLog:
    """One more line of a layout's log at the kit, once for each key."""
    layout = layout_for(user, layout_pk)
    rows, key = layout.stand_log.all(), UUID(entry.key)
    if rows.count() >= MOST_ENTRIES and not rows.filter(key=key).exists():
        raise RingsideError(f"expected at most {MOST_ENTRIES} entries at the kit of one layout")
    values = {
        "layout": layout, "what": entry.what, "mic": entry.mic, "to": entry.to,
        "metres": entry.metres, "by": user,
    }  # fmt: skip
    return write_once(StandLog, layout.session, key, values)


def strike_entry(user: User, layout_pk: int, key: UUID) -> None:
    """Strike a line out; done twice it is done once."""
    rows = layout_for(user, layout_pk).stand_log.filter(key=key)
    if not rows.exists():
        raise NotThere
    rows.filter(struck_at=None).update(struck_at=timezone.now(), struck_by=user)


def entries_of(user: User, layout_pk: int) -> list[StandLog]:
    """What counts of a layout's log at the kit, oldest first."""
    rows = layout_for(user, layout_pk).stand_log
    return list(rows.filter(struck_at=None).select_related("by"))


def tag_of(person: int, layout_pk: int) -> str:
    """What changes whenever a layout's log at the kit does: how many there are, and struck out.

    One question to the database: fifty screens ask it without end.
    """
    found = (
        Layout.objects.filter(
            pk=layout_pk,
            session__studio__membership__user_id=person,
            session__deleted_at=None,
            deleted_at=None,
        )
        .annotate(lines=Count("stand_log"), struck=Count("stand_log__struck_at"))
        .values_list("lines", "struck")
        .first()
    )
    if found is None:
        raise NotThere
    return "{}-{}".format(*found)
