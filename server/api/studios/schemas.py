"""What a studio keeps: rooms, kits, the locker."""

from ninja import Schema
from ringside.files.locker import Fault
from ringside.gear.locker import Locker as LockerDoc
from ringside.plan.kit import Kit as KitDoc
from ringside.plan.room import Room as RoomDoc

from api.common import Strict


class KeptRoom(Schema):
    """A room a studio keeps."""

    id: int
    name: str
    room: RoomDoc | None
    why_not: str


class KeptKit(Schema):
    """A kit a studio keeps."""

    id: int
    name: str
    kit: KitDoc | None
    why_not: str


class LockerOut(Schema):
    """A locker with the version to save it over."""

    version: int
    locker: LockerDoc


class LockerIn(Strict):
    """A locker made from a version."""

    version: int
    locker: LockerDoc


class LockerRead(LockerOut):
    """The locker after a file was read into it, and the rows that were left out."""

    faults: list[Fault]
