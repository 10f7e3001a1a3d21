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
from plans.models import StandLog


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


def tag_of(user: User, layout_pk: int) -> str:
    """What changes whenever a layout's log at the kit does: how many there are, and struck out."""
    rows = layout_for(user, layout_pk).stand_log
    found = rows.aggregate(all=Count("pk"), struck=Count("struck_at"))
    return f"{found['all']}-{found['struck']}"
