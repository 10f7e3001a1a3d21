"""Everything that changes a session or a layout: permission, transaction and record in one.

A layout is never overwritten. Each save adds a revision and counts the version up; a save
that names an older version is refused with the newer state, so that both are kept.
"""

from collections.abc import Callable

from accounts.models import User
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone
from ringside.places.starts import Start, starting_layout
from ringside.plan.kit import Kit as KitDoc
from ringside.plan.kits import KITS
from ringside.plan.layout import Decision
from ringside.plan.layout import Layout as Doc
from ringside.plan.room import Room as Box
from studios.access import studios_of
from studios.models import Kit, Room, Studio

from plans.errors import Conflict, NothingToDo, NotThere
from plans.models import Layout, Revision, Session
from plans.summary import summary_of

KEPT_REVISIONS = 500
"""States of one layout that can be gone back through."""


def sessions_for(user: User) -> QuerySet[Session]:
    """The sessions somebody may see, newest first; deleted ones apart."""
    return Session.objects.filter(studio__in=studios_of(user)).order_by("-made_at", "-pk")


def session_for(user: User, pk: int, *, deleted: bool = False) -> Session:
    """One of them; NotThere for anybody else's."""
    found = sessions_for(user).filter(pk=pk, deleted_at__isnull=not deleted).first()
    if found is None:
        raise NotThere
    return found


def layout_for(user: User, pk: int, *, deleted: bool = False, lock: bool = False) -> Layout:
    """A layout somebody may see; NotThere for anybody else's."""
    rows = Layout.objects.filter(
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
    """The layouts of a session that are not deleted; rows fetched with it are not asked again."""
    return [one for one in session.layouts.all() if one.deleted_at is None]


def _studio(user: User, pk: int | None) -> Studio:
    mine = studios_of(user)
    found = mine.first() if pk is None else mine.filter(pk=pk).first()
    if found is None:
        raise NotThere
    return found


def add_layout(session: Session, doc: Doc, user: User, what: str) -> Layout:
    """A new layout with its first revision."""
    layout = Layout.objects.create(session=session, name=doc.name, summary=summary_of(doc))
    Revision.objects.create(
        layout=layout, number=1, doc=doc.model_dump(mode="json"), what=what, by=user
    )
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
    box = Box.model_validate(room.box) if room else None
    on = KitDoc.model_validate(own.doc) if own else kit
    return starting_layout(on, start, name=name, room=box)


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
    add_layout(session, doc, user, "read from a file")
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
    for layout in layouts_of(old):
        add_layout(new, layout.doc(), user, f"copied from {old.name[:60]}")
    return new


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
    fresh = (doc or old.doc()).model_copy(update={"name": name})
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
def save_layout(user: User, pk: int, version: int, doc: Doc, what: str) -> Layout:
    """Save a new state.

    Raises
    ------
    Conflict
        When `version` is not the newest: nothing is written.
    """
    layout = layout_for(user, pk, lock=True)
    if layout.version != version:
        raise Conflict(layout)
    before = {(d.a, d.b, d.source, d.reason) for d in layout.doc().decisions}
    doc = doc.model_copy(
        update={"decisions": tuple(_signed(d, before, user) for d in doc.decisions)}
    )
    layout.revisions.filter(number__gt=layout.head).delete()
    layout.head += 1
    Revision.objects.create(
        layout=layout, number=layout.head, doc=doc.model_dump(mode="json"), what=what, by=user
    )
    layout.revisions.filter(number__lte=layout.head - KEPT_REVISIONS).delete()
    return _moved_on(layout, doc)


def _signed(decision: Decision, before: set[tuple[str, str, str, str]], user: User) -> Decision:
    """Who decided and when is the server's to say, not the browser's."""
    known = (decision.a, decision.b, decision.source, decision.reason) in before
    if known and decision.at:
        return decision
    now = timezone.now().isoformat(timespec="seconds")
    return decision.model_copy(update={"by": user.get_username(), "at": now})


def _moved_on(layout: Layout, doc: Doc) -> Layout:
    layout.version += 1
    layout.name, layout.summary = doc.name, summary_of(doc)
    layout.save()
    return layout


@transaction.atomic
def _step(user: User, pk: int, version: int, pick: Callable[[Layout], Revision | None]) -> Layout:
    layout = layout_for(user, pk, lock=True)
    if layout.version != version:
        raise Conflict(layout)
    target = pick(layout)
    if target is None:
        raise NothingToDo
    layout.head = target.number
    return _moved_on(layout, layout.doc())


def before_head(layout: Layout) -> Revision | None:
    """The state one undo leads to."""
    return layout.revisions.filter(number__lt=layout.head).last()


def after_head(layout: Layout) -> Revision | None:
    """The state one redo leads to."""
    return layout.revisions.filter(number__gt=layout.head).first()


def undo(user: User, pk: int, version: int) -> Layout:
    """Go back one state; raises Conflict or NothingToDo."""
    return _step(user, pk, version, before_head)


def redo(user: User, pk: int, version: int) -> Layout:
    """Go forward one state; raises Conflict or NothingToDo."""
    return _step(user, pk, version, after_head)
