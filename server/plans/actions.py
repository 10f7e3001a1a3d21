"""Everything that changes a session or a layout: permission, transaction and record in one.

A layout is never overwritten. Each save adds a revision and counts the version up; a save
that names an older version is refused with the newer state, so that both are kept.
"""

from collections import defaultdict
from collections.abc import Callable, Iterable
from typing import TypeVar
from uuid import UUID

from accounts.models import User
from django.db import transaction
from django.db.models import Count, Exists, F, OuterRef, Q, QuerySet, Subquery, Window
from django.db.models.functions import RowNumber
from django.utils import timezone
from ringside.files.stored import LAYOUT
from ringside.pairs.counts import RULES
from ringside.places.starts import Start, starting_layout
from ringside.plan.kits import KITS
from ringside.plan.layout import Decision, SetAside
from ringside.plan.layout import Layout as Doc
from studios.access import studios_of
from studios.errors import Unreadable
from studios.models import Kit, Room, Studio

from plans.errors import Conflict, NothingToDo, NotThere
from plans.models import Layout, Revision, Session
from plans.summary import summary_of

KEPT_REVISIONS = 500
"""States of one layout that can be gone back through."""


def sessions_for(user: User) -> QuerySet[Session]:
    """The sessions somebody may see, newest first; deleted ones apart."""
    return Session.objects.filter(studio__in=studios_of(user)).order_by("-pk")


Said = Decision | SetAside
AnySaid = TypeVar("AnySaid", Decision, SetAside)

SHOWN_LAYOUTS = 12
"""Of each session, in the list; a session of its own shows all."""


def sessions_page(user: User, words: str, before: int | None, most: int) -> list[Session]:
    """The newest sessions by name or place, older than `before`, with their first layouts."""
    rows = sessions_for(user).filter(deleted_at__isnull=True)
    for word in words.split()[:8]:
        rows = rows.filter(Q(name__icontains=word) | Q(place__icontains=word))
    if before is not None:
        rows = rows.filter(pk__lt=before)
    page = list(rows.select_related("studio")[:most])
    living = Layout.objects.filter(session__in=page, deleted_at__isnull=True)
    numbered = living.annotate(
        place=Window(RowNumber(), partition_by="session_id", order_by="pk"),
        of=Window(Count("pk"), partition_by="session_id"),
    )
    # Numbered first and fetched then: a summary is wide, and hundreds would be sorted for twelve.
    first = numbered.filter(place__lte=SHOWN_LAYOUTS).values_list("pk", "session_id", "of")
    of = {session: count for _, session, count in first}
    kept: dict[int, list[Layout]] = defaultdict(list)
    for layout in Layout.objects.filter(pk__in=[pk for pk, _, _ in first]):
        kept[layout.session_id].append(layout)
    for session in page:
        session.shown, session.layouts_in_all = kept[session.pk], of.get(session.pk, 0)
    return page


def session_for(user: User, pk: int, *, deleted: bool = False) -> Session:
    """One of them; NotThere for anybody else's."""
    found = sessions_for(user).filter(pk=pk, deleted_at__isnull=not deleted).first()
    if found is None:
        raise NotThere
    return found


def layout_for(user: User, pk: int, *, deleted: bool = False, lock: bool = False) -> Layout:
    """A layout somebody may see; NotThere for anybody else's."""
    rows = Layout.objects.select_related("session").filter(
        pk=pk,
        session__studio__in=studios_of(user),
        session__deleted_at__isnull=True,
        deleted_at__isnull=not deleted,
    )
    if lock:
        rows = rows.select_for_update(of=("self",))
    found = rows.first()
    if found is None:
        raise NotThere
    return found


def layouts_of(session: Session) -> list[Layout]:
    """The layouts of a session that are not deleted; those fetched with it are not asked again."""
    if session.shown is not None:
        return session.shown
    return list(session.layouts.filter(deleted_at__isnull=True))


def _studio(user: User, pk: int | None) -> Studio:
    mine = studios_of(user)
    found = mine.first() if pk is None else mine.filter(pk=pk).first()
    if found is None:
        raise NotThere
    return found


def add_layout(session: Session, doc: Doc, user: User, what: str) -> Layout:
    """A new layout with its first revision."""
    layout = Layout.objects.create(
        session=session, name=doc.name, summary=summary_of(doc), rules=RULES
    )
    Revision.objects.create(layout=layout, number=1, doc=LAYOUT.pack(doc), what=what, by=user)
    return layout


@transaction.atomic
def make_session(
    user: User, *, name: str, place: str = "", kit: str, start: Start,
    studio_id: int | None = None, room_id: int | None = None,
) -> Session:  # fmt: skip
    """A session with its first layout, from a starting kit (or a studio's) and layout."""
    studio = _studio(user, studio_id)
    room = None
    if room_id is not None:
        room = Room.objects.filter(studio=studio, pk=room_id).first()
        if room is None:
            raise NotThere
    doc = _starting_doc(studio, room, "Layout A", kit, start)
    session = Session.objects.create(studio=studio, name=name, place=place, room=room)
    add_layout(session, doc, user, "made")
    return session


def _starting_doc(studio: Studio, room: Room | None, name: str, kit: str, start: Start) -> Doc:
    """A starting layout on a starting kit, or on a kit of the studio by that name."""
    own = None if kit in KITS else Kit.objects.filter(studio=studio, name=kit).first()
    box = room.room() if room else None
    return starting_layout(own.kit() if own else kit, start, name=name, room=box)


@transaction.atomic
def make_layout(user: User, session_pk: int, *, name: str, kit: str, start: Start) -> Layout:
    """Another layout in a session."""
    session = session_for(user, session_pk)
    doc = _starting_doc(session.studio, session.room, name, kit, start)
    return add_layout(session, doc, user, "made")


@transaction.atomic
def session_from_file(user: User, doc: Doc, studio_id: int | None = None) -> Session:
    """A session of its own for a layout that was made elsewhere."""
    session = Session.objects.create(
        studio=_studio(user, studio_id), name=doc.name, place=doc.room.name if doc.room else ""
    )
    add_layout(session, signed(doc, (), user), user, "read from a file")
    return session


def rename_session(user: User, pk: int, name: str, place: str) -> Session:
    """Change a session's name and place."""
    session = session_for(user, pk)
    session.name, session.place = name, place
    session.save(update_fields=["name", "place"])
    return session


@transaction.atomic
def copy_session(user: User, pk: int) -> Session:
    """A second session with the same layouts, each beginning a history of its own."""
    old = session_for(user, pk)
    name = f"{old.name[:70]} (copy)"
    new = Session.objects.create(studio=old.studio, name=name, place=old.place, room=old.room)
    _copy_as_they_are(layouts_of(old), new, user, f"copied from {old.name[:60]}")
    return new


def _copy_as_they_are(old: list[Layout], to: Session, user: User, what: str) -> None:
    """Copies of what is kept, also where this version cannot read it; hundreds at once."""
    states = {
        r.layout_id: r.doc
        for r in Revision.objects.filter(layout__in=old, number=F("layout__head"))
    }
    new = Layout.objects.bulk_create(
        Layout(session=to, name=o.name, summary=o.summary, rules=o.rules) for o in old
    )
    Revision.objects.bulk_create(
        Revision(layout=n, number=1, doc=states[o.pk], what=what, by=user)
        for o, n in zip(old, new, strict=True)
    )


def delete_session(user: User, pk: int) -> None:
    """Put a session away; `restore_session` brings it back."""
    session = session_for(user, pk)
    session.deleted_at = timezone.now()
    session.save(update_fields=["deleted_at"])


def restore_session(user: User, pk: int) -> Session:
    """Bring a deleted session back."""
    session = session_for(user, pk, deleted=True)
    session.deleted_at = None
    session.save(update_fields=["deleted_at"])
    return session


def copy_layout(user: User, pk: int, name: str, doc: Doc | None = None) -> Layout:
    """A copy beside the layout, or (with `doc`) a state that could not be saved over it."""
    old = layout_for(user, pk)
    fresh = signed(doc, decided(old), user) if doc else old.doc()
    fresh = fresh.model_copy(update={"name": name})
    with transaction.atomic():
        return add_layout(old.session, fresh, user, f"copied from {old.name}")


def delete_layout(user: User, pk: int) -> None:
    """Put a layout away."""
    layout = layout_for(user, pk)
    layout.deleted_at = timezone.now()
    layout.save(update_fields=["deleted_at"])


def restore_layout(user: User, pk: int) -> Layout:
    """Bring a deleted layout back."""
    layout = layout_for(user, pk, deleted=True)
    layout.deleted_at = None
    layout.save(update_fields=["deleted_at"])
    return layout


@transaction.atomic
def save_layout(
    user: User, pk: int, version: int, doc: Doc, what: str, key: UUID | None = None
) -> Layout:
    """Save a new state.

    A save that comes again under its `key`, because its answer was lost, is not done twice:
    the layout comes back as it is now.

    Raises
    ------
    Conflict
        When `version` is not the newest: nothing is written.
    """
    layout = layout_for(user, pk, lock=True)
    if key and layout.revisions.filter(key=key).exists():
        return layout
    if layout.version != version:
        raise Conflict(layout)
    doc = signed(doc, decided(layout), user)
    layout.revisions.filter(number__gt=layout.head).delete()
    layout.head += 1
    Revision.objects.create(
        layout=layout, number=layout.head, doc=LAYOUT.pack(doc), what=what, by=user, key=key
    )
    layout.revisions.filter(number__lte=layout.head - KEPT_REVISIONS).delete()
    return _moved_on(layout, doc)


def decided(layout: Layout) -> tuple[Said, ...]:
    """What was decided and set aside of a layout as it is kept; none where it cannot be read."""
    try:
        doc = layout.doc()
    except Unreadable:
        return ()
    return (*doc.decisions, *doc.set_aside)


def signed(doc: Doc, before: Iterable[Said], user: User) -> Doc:
    """A layout whose decisions say who decided and when as the server knows it.

    What came in a file or from a browser is not believed: a decision, or a line set aside, is of
    those that were kept `before`, or it was made now by this user.
    """
    kept = {_said(d): d for d in before}
    now = timezone.now().isoformat(timespec="seconds")

    def one(d: AnySaid) -> AnySaid:
        old = kept.get(_said(d))
        by, at = (old.by, old.at) if old and old.at else (user.get_username(), now)
        return d.model_copy(update={"by": by, "at": at})

    return doc.model_copy(
        update={
            "decisions": tuple(one(d) for d in doc.decisions),
            "set_aside": tuple(one(s) for s in doc.set_aside),
        }
    )


def _said(d: Said) -> tuple[object, ...]:
    """What a decision or a line set aside is known by."""
    if isinstance(d, Decision):
        return (d.a, d.b, d.source, d.reason)
    return (d.kind, *d.of, d.reason)


def _moved_on(layout: Layout, doc: Doc) -> Layout:
    layout.version += 1
    layout.name, layout.summary, layout.rules = doc.name, summary_of(doc), RULES
    layout.save()
    return layout


@transaction.atomic
def _step(
    user: User, pk: int, version: int, key: UUID | None, pick: Callable[[Layout], Revision | None]
) -> Layout:
    layout = layout_for(user, pk, lock=True)
    if key and layout.step_key == key:
        return layout  # it was done, and only the answer was lost
    if layout.version != version:
        raise Conflict(layout)
    target = pick(layout)
    if target is None:
        raise NothingToDo
    layout.head, layout.step_key = target.number, key
    return _moved_on(layout, layout.doc())


def state_of(layout: Layout) -> Revision:
    """The state a layout is in and by whom, with what lies either side of it.

    `can_undo` says whether there is one before, `redo_what` what comes next; None where nothing.
    """
    others = Revision.objects.filter(layout=OuterRef("layout"))
    after = others.filter(number__gt=OuterRef("number")).order_by("number")
    found: Revision = (
        layout.revisions.select_related("by")
        .annotate(
            can_undo=Exists(others.filter(number__lt=OuterRef("number"))),
            redo_what=Subquery(after.values("what")[:1]),
        )
        .get(number=layout.head)
    )
    return found


def before_head(layout: Layout) -> Revision | None:
    """The state one undo leads to."""
    return layout.revisions.filter(number__lt=layout.head).last()


def after_head(layout: Layout) -> Revision | None:
    """The state one redo leads to."""
    return layout.revisions.filter(number__gt=layout.head).first()


def undo(user: User, pk: int, version: int, key: UUID | None = None) -> Layout:
    """Go back one state, once for each key; raises Conflict or NothingToDo."""
    return _step(user, pk, version, key, before_head)


def redo(user: User, pk: int, version: int, key: UUID | None = None) -> Layout:
    """Go forward one state, once for each key; raises Conflict or NothingToDo."""
    return _step(user, pk, version, key, after_head)
