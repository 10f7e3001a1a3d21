"""Asking for a studio's archive, and for one to be read in; both are long work."""

import json
import uuid
from typing import Any

from accounts.models import User
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from jobs import actions
from jobs.errors import Refused
from jobs.kinds import Kind, Tell
from jobs.models import Job
from studios.actions import studio_for
from studios.models import Studio

from carrying.errors import NotAnArchive
from carrying.reading import Archive, read_in
from carrying.writing import archive_of

BIGGEST_ARCHIVE = 100_000_000
FILE = "studio.zip"


def _write(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    return {FILE: archive_of(Studio.objects.get(pk=ask["studio"]), tell)}


def _read(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    with default_storage.open(ask["path"]) as file:
        data = file.read()
    try:
        studio = read_in(data, User.objects.get(pk=ask["user"]), tell)
    except NotAnArchive as fault:
        default_storage.delete(ask["path"])
        raise Refused(f"Nothing was read in: {fault}.") from None
    default_storage.delete(ask["path"])  # kept until here: a killed worker's job is begun again
    return {"told.json": json.dumps({"studio": studio.pk, "name": studio.name}).encode()}


ARCHIVE = Kind("archive", _write, longest_s=600.0, kept=2)
READ_IN = Kind("read-in", _read, longest_s=900.0, kept=4)


def ask_for_archive(user: User, studio_pk: int) -> Job:
    """A fresh archive of a studio somebody belongs to."""
    studio = studio_for(user, studio_pk)
    return actions.ask_for(studio, ARCHIVE.name, uuid.uuid4().hex, {"studio": studio.pk})


def ask_to_read_in(user: User, data: bytes, key: uuid.UUID | None) -> Job:
    """A studio of an archive's, once for each key; a file that is none is refused at once.

    Raises
    ------
    NotAnArchive
        When the file is no archive of a studio.
    """
    Archive(data)
    studio = user.studios.order_by("pk").first()
    if studio is None:
        raise NotAnArchive("you belong to no studio; open one first")
    name = (key or uuid.uuid4()).hex
    path = default_storage.save(f"read-in/{name}.zip", ContentFile(data))
    ask = {"path": path, "user": user.pk}
    return actions.ask_for(studio, READ_IN.name, name, ask)
