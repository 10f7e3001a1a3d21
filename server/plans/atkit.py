"""What is written down at the kit of one layout: readings of mics, ticks, and what was touched."""

from dataclasses import dataclass
from functools import cache
from typing import Any, Literal
from uuid import UUID

from accounts.models import User
from django.db import connection
from django.db.models import Count, Q
from django.utils import timezone
from ringside.errors import RingsideError
from ringside.plan.layout import Layout as LayoutDoc
from ringside.standing.entries import MOST_ENTRIES, Entry, written
from ringside.standing.truth import truth
from studios.actions import stock_of

from plans.actions import layout_for
from plans.errors import NotThere
from plans.logs import write_once
from plans.meters import FRESH, Sent
from plans.models import Layout, StandLog

State = Literal["planned", "stands"]


def write_entry(user: User, layout_pk: int, entry: Entry) -> StandLog:
    """One more line of a layout's log at the kit, once for each key."""
    layout = layout_for(user, layout_pk)
    rows, key = layout.stand_log.all(), UUID(entry.key)
    if rows.count() >= MOST_ENTRIES and not rows.filter(key=key).exists():
        raise RingsideError(f"expected at most {MOST_ENTRIES} entries at the kit of one layout")
    values = {
        "layout": layout, "what": entry.what, "mic": entry.mic, "to": entry.to,
        "metres": entry.metres, "like": entry.like, "cord": entry.cord, "by": user,
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


def is_measured(layout: Layout) -> bool:
    """Whether anything that counts of its log at the kit says where a mic stands."""
    counts = layout.stand_log.filter(struck_at=None)
    return counts.filter(Q(what="reading") | Q(cord="same")).exists()


def doc_in(layout: Layout, state: State) -> LayoutDoc:
    """A layout as it is planned, or as it stands by what was read at its kit."""
    doc = layout.doc()
    if state == "planned":
        return doc
    rows = layout.stand_log.filter(struck_at=None)
    log = [r.entry() for r in rows]
    return truth(doc, stock_of(layout.session.studio), written(doc, log).readings).layout


@dataclass(frozen=True, slots=True)
class Tag:
    """What tells one state of a log from another, and what a meter has just sent."""

    tag: str
    meter: Sent | None


_LAYOUT, _PERSON = -1, -2
"""What stands for the two in the question, until it is asked."""


@cache
def _question() -> tuple[str, tuple[Any, ...]]:
    """How many lines a layout's log has, and what its meter sent, if this person may see it.

    Put together by the ORM once: that takes it three times as long as the database the answer.
    """
    found = (
        Layout.objects.filter(
            pk=_LAYOUT,
            session__studio__membership__user_id=_PERSON,
            session__deleted_at=None,
            deleted_at=None,
        )
        .annotate(lines=Count("stand_log"), struck=Count("stand_log__struck_at"))
        .values_list("lines", "struck", "meter__last_key", "meter__last_metres", "meter__last_at")
    )
    sql, values = found.query.sql_with_params()
    return str(sql), tuple(values)


def tag_of(person: int, layout_pk: int) -> Tag:
    """What changes whenever a layout's log at the kit does: how many there are, and struck out.

    One question to the database: fifty screens ask it without end.
    """
    sql, values = _question()
    told = {_LAYOUT: layout_pk, _PERSON: person}
    with connection.cursor() as cursor:
        cursor.execute(sql, [told.get(v, v) for v in values])
        found = cursor.fetchone()
    if found is None:
        raise NotThere
    lines, struck, key, metres, at = found
    fresh = at is not None and at > timezone.now() - FRESH
    return Tag(f"{lines}-{struck}", Sent(key, metres) if fresh else None)
