"""Everything that changes what a studio keeps: rooms, kits, the locker.

Each takes the person first and answers only for studios that person belongs to. What is
saved over carries the version it was made from; an older one is refused with the newer.
"""

from typing import Any

from accounts.models import User
from django.db import transaction
from ringside.files.locker import Fault, read_locker
from ringside.files.stored import KIT, LOCKER, ROOM
from ringside.gear.locker import Locker as LockerDoc
from ringside.plan.kit import Kit as KitDoc
from ringside.plan.room import Room as RoomDoc

from studios.access import studios_of
from studios.errors import LockerChanged, NotThere, Unreadable
from studios.models import Kit, Locker, Room, Studio


def studio_for(user: User, pk: int) -> Studio:
    """A studio somebody belongs to; NotThere for any other."""
    found = studios_of(user).filter(pk=pk).first()
    if found is None:
        raise NotThere
    return found


def _kept(user: User, studio_pk: int, model: Any, pk: int) -> Any:
    found = model.objects.filter(studio=studio_for(user, studio_pk), pk=pk).first()
    if found is None:
        raise NotThere
    return found


# --- rooms ---------------------------------------------------------------------------------


def rooms_of(user: User, studio_pk: int) -> list[Room]:
    """The rooms of a studio, oldest first."""
    return list(studio_for(user, studio_pk).rooms.order_by("pk"))


def keep_room(user: User, studio_pk: int, doc: RoomDoc) -> Room:
    """A room for next time; one by the same name is replaced."""
    studio = studio_for(user, studio_pk)
    values = {"box": ROOM.pack(doc)}
    return Room.objects.update_or_create(studio=studio, name=doc.name, defaults=values)[0]


def drop_room(user: User, studio_pk: int, pk: int) -> None:
    """Without a room; layouts keep the copy they were drawn with."""
    _kept(user, studio_pk, Room, pk).delete()


# --- kits ----------------------------------------------------------------------------------


def kits_of(user: User, studio_pk: int) -> list[Kit]:
    """The kits of a studio, oldest first."""
    return list(studio_for(user, studio_pk).kits.order_by("pk"))


def keep_kit(user: User, studio_pk: int, doc: KitDoc) -> Kit:
    """A kit for next time; one by the same name is replaced."""
    studio = studio_for(user, studio_pk)
    values = {"doc": KIT.pack(doc)}
    return Kit.objects.update_or_create(studio=studio, name=doc.name, defaults=values)[0]


def drop_kit(user: User, studio_pk: int, pk: int) -> None:
    """Without a kit; layouts keep the copy they were drawn with."""
    _kept(user, studio_pk, Kit, pk).delete()


# --- the locker ----------------------------------------------------------------------------


def locker_of(studio: Studio) -> Locker:
    """The studio's locker; an empty one when nothing was put in yet."""
    return Locker.objects.get_or_create(studio=studio, defaults={"doc": {}})[0]


def stock_of(studio: Studio) -> LockerDoc:
    """What the studio can put up; nothing when its locker cannot be read, which its page says."""
    try:
        return locker_of(studio).contents()
    except Unreadable:
        return LockerDoc()


def locker_for(user: User, studio_pk: int) -> Locker:
    """The locker of a studio somebody belongs to."""
    return locker_of(studio_for(user, studio_pk))


@transaction.atomic
def save_locker(user: User, studio_pk: int, version: int, doc: LockerDoc) -> Locker:
    """The whole locker anew.

    Raises
    ------
    LockerChanged
        When somebody saved it since `version`: nothing is written.
    """
    studio = studio_for(user, studio_pk)
    locker_of(studio)
    locker = Locker.objects.select_for_update().get(studio=studio)
    if locker.version != version:
        raise LockerChanged
    locker.doc, locker.version = LOCKER.pack(doc), version + 1
    locker.save()
    return locker


@transaction.atomic
def read_into_locker(user: User, studio_pk: int, data: bytes) -> tuple[Locker, list[Fault]]:
    """The good rows of a CSV file put in; the faults of the others come back."""
    studio = studio_for(user, studio_pk)
    locker_of(studio)
    locker = Locker.objects.select_for_update().get(studio=studio)
    doc, faults = read_locker(data, locker.contents())
    locker.doc, locker.version = LOCKER.pack(doc), locker.version + 1
    locker.save()
    return locker, faults
