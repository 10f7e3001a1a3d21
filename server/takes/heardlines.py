"""Lines of the log with the takes they are about, so that what was heard can be heard again."""

from collections.abc import Sequence
from typing import Literal
from uuid import UUID

from accounts.models import User
from django.db import transaction
from plans import tried
from plans.models import TriedLog
from plans.tried import Line, Said

from takes.models import LineTake, Take


def takes_of_lines(rows: Sequence[TriedLog]) -> dict[int, Take]:
    """The take of each line that has one, by the line's number."""
    every = LineTake.objects.filter(line__in=rows, take__layout__deleted_at=None)
    return {b.line_id: b.take for b in every.select_related("take__layout")}


@transaction.atomic
def write_line(
    user: User, layout_pk: int, line: Line, key: UUID, take_pk: int | None = None
) -> TriedLog:
    """One more line of the log, of what was heard in a take, once for each key.

    A take that is not there any more takes no words with it: the line is written without one.
    """
    row = tried.write_line(user, layout_pk, line, key)
    _bound(row, take_pk)
    return row


def _bound(row: TriedLog, take_pk: int | None) -> None:
    """Of the line's own session; what was bound under its key before stays."""
    take = Take.objects.filter(pk=take_pk, layout__session=row.session_id).first()
    if take is not None:
        LineTake.objects.get_or_create(line=row, defaults={"take": take})


AsItWas = Literal["as it was"]
AS_IT_WAS: AsItWas = "as it was"


@transaction.atomic
def say_otherwise(
    user: User, pk: int, said: Said, key: UUID, take_pk: int | AsItWas | None
) -> TriedLog:
    """Strike a line out for one that says otherwise, of a take or of none."""
    row = tried.say_otherwise(user, pk, said, key)
    if take_pk == AS_IT_WAS:
        take_pk = LineTake.objects.filter(line=pk).values_list("take", flat=True).first()
    _bound(row, take_pk)
    return row
