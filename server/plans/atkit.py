"""What is written down at the kit of one layout: readings of mics, ticks, and what was touched."""

from typing import Any
from uuid import UUID

from accounts.models import User
from django.utils import timezone
from ringside.errors import RingsideError
from ringside.standing.entries import MOST_ENTRIES, Entry

from plans.actions import session_for
from plans.errors import NotThere
from plans.logs import write_once
from plans.models import Session, StandLog


def _rows(session: Session, layout_pk: int) -> Any:
    if not session.layouts.filter(pk=layout_pk).exists():
        raise NotThere
    return session.stand_log.filter(layout_id=layout_pk)


def write_entry(user: User, session_pk: int, layout_pk: int, entry: Entry) -> StandLog:
    """One more line of a layout's log at the kit, once for each key."""
    session = session_for(user, session_pk)
    rows = _rows(session, layout_pk)
    key = UUID(entry.key)
    if rows.count() >= MOST_ENTRIES and not rows.filter(key=key).exists():
        raise RingsideError(f"expected at most {MOST_ENTRIES} entries at the kit of one layout")
    values = {
        "layout_id": layout_pk, "what": entry.what, "mic": entry.mic, "to": entry.to,
        "metres": entry.metres, "by": user,
    }  # fmt: skip
    return write_once(StandLog, session, key, values)


def strike_entry(user: User, session_pk: int, layout_pk: int, key: UUID) -> None:
    """Strike a line out; done twice it is done once."""
    rows = _rows(session_for(user, session_pk), layout_pk).filter(key=key)
    if not rows.exists():
        raise NotThere
    rows.filter(struck_at=None).update(struck_at=timezone.now(), struck_by=user)


def entries_of(user: User, session_pk: int, layout_pk: int) -> list[StandLog]:
    """What counts of a layout's log at the kit, oldest first."""
    rows = _rows(session_for(user, session_pk), layout_pk)
    return list(rows.filter(struck_at=None).select_related("by"))


def tag_of(user: User, session_pk: int, layout_pk: int) -> str:
    """What changes whenever a layout's log at the kit does: how many there are, and struck out."""
    rows = _rows(session_for(user, session_pk), layout_pk)
    return f"{rows.count()}-{rows.exclude(struck_at=None).count()}"
