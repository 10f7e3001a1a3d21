"""An archive read in: a new studio with everything in it, or nothing and the reason.

Nothing in it is believed that could be forged: people of elsewhere are named as such, ids and
versions are made anew. Documents of a version that is not known here are kept as they are.
"""

import re
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any
from uuid import UUID

from accounts.models import User
from django.db import transaction
from jobs.kinds import Tell
from plans.models import (
    Happened,
    Layout,
    LugLog,
    Revision,
    Session,
    SpotLog,
    StandLog,
    TapeLog,
    TriedLog,
)
from plans.tried import MOST_LINES
from studios.access import open_studio
from studios.models import Kit, Locker, Room, Studio
from takes.models import LineTake, Take

from carrying import recorded
from carrying.elsewhere import elsewhere, signed
from carrying.errors import NotAnArchive
from carrying.format import FORMAT, MANIFEST, TAKES, VERSION
from carrying.rows import Head, LayoutFile, Named, Row, SessionFile, State, TriedRow
from carrying.unzipped import Archive, made

STEM = re.compile(r"^(sessions/\d{6}/\d{3}-[a-z0-9-]{1,40})\.json$")


@transaction.atomic
def read_in(data: bytes, user: User, tell: Tell) -> Studio:
    """A new studio of this user's from an archive.

    Raises
    ------
    NotAnArchive
        Nothing is kept then; the message says where the fault is and what was expected.
    """
    archive = Archive(data)
    head = made(Head, MANIFEST, archive.json(MANIFEST))
    if head.format != FORMAT or head.version != VERSION:
        raise NotAnArchive(f"{MANIFEST}: expected {FORMAT!r}, version {VERSION}")
    studio = open_studio(user, head.name)
    rooms = _kept(archive, studio)
    sessions = sorted(n for n in archive.names if n.endswith("/session.json"))
    layouts: dict[str, list[str]] = {}
    for name in sorted(archive.names):
        found = STEM.match(name)
        if found:
            layouts.setdefault(name[: name.rindex("/")], []).append(found[1])
    for n, name in enumerate(sessions, 1):
        session = _session(archive, studio, name, rooms)
        folder = name[: name.rindex("/")]
        own = {_number(s): _layout(archive, session, s) for s in layouts.get(folder, [])}
        takes = recorded.read_takes(archive, f"{folder}/{TAKES}", own)
        _log(archive, session, f"{folder}/log.jsonl", own, takes)
        tell(n / len(sessions))
    recorded.check_room(studio)
    return studio


def _kept(archive: Archive, studio: Studio) -> dict[str, Room]:
    rooms: dict[str, Room] = {}
    for name in sorted(archive.names):
        if name.startswith("rooms/") and name.endswith(".json"):
            row = made(Named, name, archive.json(name))
            rooms[row.name] = Room.objects.create(studio=studio, name=row.name, box=row.doc)
        elif name.startswith("kits/") and name.endswith(".json"):
            row = made(Named, name, archive.json(name))
            Kit.objects.create(studio=studio, name=row.name, doc=row.doc)
    if "locker.json" in archive.names:
        doc = archive.json("locker.json")
        if not isinstance(doc, dict):
            raise NotAnArchive("locker.json: expected an object")
        Locker.objects.create(studio=studio, doc=doc)
    return rooms


def _session(archive: Archive, studio: Studio, name: str, rooms: dict[str, Room]) -> Session:
    told = made(SessionFile, name, archive.json(name))
    session = Session.objects.create(
        studio=studio, name=told.name, place=told.place, room=rooms.get(told.room or ""),
        deleted_at=told.deleted_at,
    )  # fmt: skip
    Session.objects.filter(pk=session.pk).update(made_at=told.made_at)
    _written(LugLog, told.lugs, session=session)
    _written(SpotLog, told.spots, session=session)
    _written(TapeLog, told.tape, session=session)
    return session


def _written(model: type[Happened], rows: Sequence[Row], **of: Any) -> None:
    """What happened, as it was written down then."""
    for row in rows:
        values = row.model_dump(exclude={"by"})
        every = model._default_manager
        made = every.create(by_name=elsewhere(row.by), **of, **values)
        every.filter(pk=made.pk).update(at=row.at)


def _number(stem: str) -> int:
    """Of a layout in its session, by the name of its files."""
    return int(stem.rsplit("/", 1)[1][:3])


TOLD_ALIKE = {"key", "at", "struck_at", "song", "words", "verdict", "stood"}


def _log(
    archive: Archive, session: Session, name: str, layouts: dict[int, Layout],
    takes: dict[UUID, Take],
) -> None:  # fmt: skip
    """What was tried and heard; archives of before there was a log have none."""
    if name not in archive.names:
        return
    told = archive.lines(name)
    if len(told) > MOST_LINES:
        raise NotAnArchive(f"{name}: expected at most {MOST_LINES} lines, got {len(told)}")
    rows: dict[UUID, TriedRow] = {}
    for n, line in enumerate(told, 1):
        row = made(TriedRow, f"{name}, line {n}", line)
        if row.layout not in layouts:
            raise NotAnArchive(f"{name}, line {n}: the session has no layout {row.layout}")
        rows[row.key] = row
    lines = TriedLog.objects.bulk_create(
        TriedLog(
            session=session, layout=layouts[row.layout], by_name=elsewhere(row.by),
            kept=signed(row.doc), since=[asdict(c) for c in row.since],
            **row.model_dump(include=TOLD_ALIKE),
        )
        for row in rows.values()
    )  # fmt: skip
    heard = [(line, takes.get(row.take)) for line, row in zip(lines, rows.values(), strict=True)]
    LineTake.objects.bulk_create(LineTake(line=line, take=take) for line, take in heard if take)


def _layout(archive: Archive, session: Session, stem: str) -> Layout:
    about = made(LayoutFile, f"{stem}.json", archive.json(f"{stem}.json"))
    name = f"{stem}.history.jsonl"
    if name not in archive.names:
        raise NotAnArchive(f"{name} is missing")
    states = [made(State, f"{name}, line {n}", v) for n, v in enumerate(archive.lines(name), 1)]
    numbers = [s.number for s in states]
    if about.head not in numbers or len(set(numbers)) < len(numbers):
        raise NotAnArchive(f"{name}: expected each state once, and state {about.head} among them")
    layout = Layout.objects.create(
        session=session, name=about.name, head=about.head, deleted_at=about.deleted_at
    )
    Revision.objects.bulk_create(
        Revision(
            layout=layout, number=s.number, doc=signed(s.doc), what=s.what,
            by_name=elsewhere(s.by),
        )
        for s in states
    )  # fmt: skip
    for s in states:
        Revision.objects.filter(layout=layout, number=s.number).update(at=s.at)
    lines = {row.key: row for row in about.at_kit}
    _written(StandLog, list(lines.values()), session=session, layout=layout)
    return layout
