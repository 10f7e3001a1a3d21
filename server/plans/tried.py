"""What was tried and heard, line by line: written down, found again, gone back to."""

from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from typing import Final, Literal
from uuid import UUID

from accounts.models import User
from django.db import transaction
from django.db.models import Func, Q, QuerySet, TextField
from django.db.models.functions import Cast
from django.utils import timezone
from ringside.answers.changes import Change, by_tape_m, changes
from ringside.answers.kitchanges import LEAST_M
from ringside.errors import RingsideError
from ringside.files.stored import LAYOUT
from ringside.plan.layout import Layout as Doc
from ringside.standing.stood import AsItStands
from studios.access import studios_of
from studios.errors import Unreadable

from plans.actions import add_layout, decided, layout_for, session_for, signed
from plans.errors import NotThere
from plans.models import Layout, Session, TriedLog

Heard = Literal["works", "maybe", "no"]

MOST_LINES = 500
"""Of one session, struck out or not: a line every two minutes of a long day."""

MOST_CHANGES = 60
"""Told of one line; another layout altogether has more than anybody reads."""

OLDEST = timedelta(days=14)
"""A line may come so late and keep the hour it was written at."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Said:
    """What somebody says of what was heard."""

    song: str = ""
    words: str = ""
    verdict: Heard


@dataclass(frozen=True, slots=True, kw_only=True)
class Line(Said):
    """What somebody writes down: with the layout, and when."""

    doc: Doc
    stood: bool = False
    """By the tape, and not as planned."""
    at: datetime | None = None


def lines_of(user: User, session_pk: int) -> list[TriedLog]:
    """The lines of a session that count, newest first, without their layouts."""
    return list(_listed(session_for(user, session_pk).tried_log.filter(struck_at=None)))


def _listed(rows: QuerySet[TriedLog]) -> QuerySet[TriedLog]:
    return rows.defer("kept").select_related("by", "layout", "session")


CHANGED: Final = Cast(
    Func("since", template="jsonb_path_query_array(%(expressions)s, '$[*].what')"), TextField()
)
"""The names of what had changed for a line: of mics, drums, room; and none of the record's own."""


def elsewhere(
    user: User, session_pk: int, words: str, before: int | None, most: int
) -> list[TriedLog]:
    """Lines of the studio's other sessions that hold every word, newest written first."""
    session = session_for(user, session_pk)
    rows = TriedLog.objects.filter(
        session__studio=session.studio_id, session__deleted_at=None, struck_at=None
    ).exclude(session=session)
    rows = rows.annotate(changed=CHANGED)
    for word in words.split()[:8]:
        rows = rows.filter(
            Q(words__icontains=word) | Q(song__icontains=word) | Q(session__name__icontains=word)
            | Q(session__place__icontains=word) | Q(layout__name__icontains=word)
            | Q(changed__icontains=word)
        )  # fmt: skip
    if before is not None:
        rows = rows.filter(pk__lt=before)
    return list(_listed(rows).order_by("-pk")[:most])


@transaction.atomic
def write_line(user: User, layout_pk: int, line: Line, key: UUID) -> TriedLog:
    """One more line of a layout, once for each key.

    Raises
    ------
    RingsideError
        When the session holds as many as it can.
    """
    layout = _layout(user, layout_pk)
    there = _there(layout.session, key)
    if there is not None:
        return there
    doc = signed(line.doc, decided(layout), user)
    made = TriedLog.objects.create(
        session=layout.session, layout=layout, key=key, by=user, song=line.song, words=line.words,
        verdict=line.verdict, stood=line.stood, kept=LAYOUT.pack(doc), at=_when(line.at),
    )  # fmt: skip
    _told_anew(made)
    _after_told_anew(made)
    return made


def _layout(user: User, pk: int) -> Layout:
    """A layout, put away or not: what was heard of it is kept though it was deleted meanwhile."""
    try:
        return layout_for(user, pk)
    except NotThere:
        return layout_for(user, pk, deleted=True)


def _there(session: Session, key: UUID) -> TriedLog | None:
    """The line that was written under this key before; else there must be room for one.

    One writes at a time: two at once would find room for one, or each be told before the other.
    """
    Session.objects.select_for_update().get(pk=session.pk)
    rows = TriedLog.objects.filter(session=session)
    there = rows.filter(key=key).first()
    if there is None and rows.count() >= MOST_LINES:
        raise RingsideError(f"expected at most {MOST_LINES} lines in the log of one session")
    return there


def _when(written: datetime | None) -> datetime:
    """When a line was written, where that can be; else now."""
    now = timezone.now()
    return written if written is not None and now - OLDEST < written <= now else now


def _told(before: Doc, after: Doc, by_tape: bool) -> list[Change]:
    """What changed; by tape only what moved further than it can tell.

    Names, notes and limits are no part of what is heard: whoever goes back to a line keeps them.
    """
    own = {f: getattr(after, f) for f in ("name", "notes", "thresholds")}
    before = before.model_copy(update=own)
    return changes(before, after, by_tape_m(after) if by_tape else LEAST_M)[:MOST_CHANGES]


def _since(last: TriedLog | None, doc: Doc, stood: bool) -> list[Change]:
    """What changed from a line; nothing where there is none, or it cannot be read any more."""
    if last is None:
        return []
    try:
        return _told(last.doc(), doc, stood or last.stood)
    except Unreadable:
        return []


def since_last(user: User, layout_pk: int, doc: Doc) -> tuple[TriedLog | None, list[Change]]:
    """The newest line of a layout, and what changed from it to this state."""
    rows = layout_for(user, layout_pk).tried_log.filter(struck_at=None)
    last = rows.select_related("by", "session").first()
    return last, _since(last, doc, isinstance(doc, AsItStands))


def _told_anew(line: TriedLog) -> None:
    """What had changed for a line since the one that counts before it."""
    rows = line.layout.tried_log.filter(struck_at=None)
    last = rows.filter(Q(at__lt=line.at) | Q(at=line.at, pk__lt=line.pk)).first()
    try:
        line.since = [asdict(c) for c in _since(last, line.doc(), line.stood)]
    except Unreadable:
        return  # it stays as it was told
    line.save(update_fields=["since"])


def _after_told_anew(line: TriedLog) -> None:
    """The line after one that has come or gone: it is another that it follows now."""
    rows = line.layout.tried_log.filter(struck_at=None)
    after = rows.filter(Q(at__gt=line.at) | Q(at=line.at, pk__gt=line.pk)).last()
    if after is not None:
        _told_anew(after)


def line_for(user: User, pk: int) -> TriedLog:
    """A line of a session somebody may see, struck out or not; NotThere for anybody else's."""
    found = (
        TriedLog.objects.select_related("session", "layout", "by")
        .filter(pk=pk, session__studio__in=studios_of(user), session__deleted_at=None)
        .first()
    )
    if found is None:
        raise NotThere
    return found


def way_to(user: User, pk: int, other: Doc, stood: bool = False) -> list[Change]:
    """What is to be changed to come from a layout, or how it `stood`, to a line's."""
    line = line_for(user, pk)
    return _told(other, line.doc(), stood or line.stood or isinstance(other, AsItStands))


@transaction.atomic
def strike(user: User, pk: int) -> None:
    """Strike a line out; done twice it is done once."""
    line = line_for(user, pk)
    _strike(line, user)
    _after_told_anew(line)


def _strike(line: TriedLog, user: User) -> None:
    now = timezone.now()
    TriedLog.objects.filter(pk=line.pk, struck_at=None).update(struck_at=now, struck_by=user)


@transaction.atomic
def say_otherwise(user: User, pk: int, said: Said, key: UUID) -> TriedLog:
    """Strike a line out for one that says otherwise of the same layout at the same hour.

    Raises
    ------
    RingsideError
        When the session holds as many lines as it can, or the line was struck out meanwhile.
    """
    there = _there(line_for(user, pk).session, key)
    if there is not None:
        return there
    old = line_for(user, pk)
    if old.struck_at is not None:
        raise RingsideError("expected a line that counts; this one was struck out meanwhile")
    _strike(old, user)
    return TriedLog.objects.create(
        session=old.session, layout=old.layout, key=key, by=user, song=said.song, words=said.words,
        verdict=said.verdict, stood=old.stood, kept=old.kept, since=old.since, at=old.at,
    )  # fmt: skip


@transaction.atomic
def restore(user: User, pk: int) -> None:
    """Let a line count again."""
    line = line_for(user, pk)
    TriedLog.objects.filter(pk=line.pk).update(struck_at=None, struck_by=None)
    _told_anew(line)
    _after_told_anew(line)


@transaction.atomic
def as_layout(user: User, pk: int, session_pk: int, name: str) -> Layout:
    """A line's layout as one more layout of a session of the same studio.

    Raises
    ------
    NotThere
        When the session is of another studio: kits and lockers are not the same there.
    """
    line, session = line_for(user, pk), session_for(user, session_pk)
    if line.session.studio_id != session.studio_id:
        raise NotThere
    return add_layout(session, _mine(line, user, name), user, _from(line))


def _mine(line: TriedLog, user: User, name: str) -> Doc:
    """What was decided then was decided by whom it says: it was signed as the line was kept."""
    doc = line.doc()
    return signed(doc, (*doc.decisions, *doc.set_aside), user).model_copy(update={"name": name})


def _from(line: TriedLog) -> str:
    return f"from the log of {line.session.name[:60]}"
