"""An archive read in: a new studio with everything in it, or nothing and the reason.

Nothing in it is believed that could be forged: people of elsewhere are named as such, ids and
versions are made anew. Documents of a version that is not known here are kept as they are.
"""

import io
import json
import re
import zipfile
from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime
from typing import Any, Self
from uuid import UUID, uuid4

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
from plans.tried import MOST_CHANGES, MOST_LINES, Heard
from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator
from ringside.answers.changes import Change
from ringside.faults import place_of, wording
from ringside.plain import first_fault
from ringside.standing.entries import Cord, Entry, What
from studios.access import open_studio
from studios.models import Kit, Locker, Room, Studio

from carrying.errors import NotAnArchive
from carrying.writing import FORMAT, MANIFEST, VERSION

MOST_FILES = 120_000
MOST_BYTES = 1_500_000_000
"""Unpacked."""

ELSEWHERE = " (elsewhere)"
STEM = re.compile(r"^(sessions/\d{6}/\d{3}-[a-z0-9-]{1,40})\.json$")


class Strict(BaseModel):
    """Fields beyond these are let pass: a later version may have more."""

    model_config = ConfigDict(extra="ignore")


class Head(Strict):
    """The manifest."""

    format: str
    version: int
    name: str = Field(min_length=1, max_length=80)


class Named(Strict):
    """A room or kit."""

    name: str = Field(min_length=1, max_length=80)
    doc: dict[str, Any]


class Row(Strict):
    """What every row of a log says."""

    by: str = Field(default="", max_length=150)
    at: datetime
    struck_at: datetime | None = None


class LugRow(Row):
    """A lug reading."""

    drum: str = Field(max_length=16)
    lugs_hz: list[float] = Field(max_length=12)


class SpotRow(Row):
    """A spot tried by ear."""

    room: str = Field(max_length=80)
    x_m: float
    y_m: float
    turn_rad: float = 0.0
    rating: int = Field(ge=1, le=5)
    words: str = Field(default="", max_length=400)


class TapeRow(Row):
    """A tape reading."""

    a: str = Field(max_length=16)
    b: str | None = Field(default=None, max_length=16)
    metres: float


class StandRow(Row):
    """A line of a layout's log at the kit, known by its key."""

    key: UUID = Field(default_factory=uuid4)
    what: What
    mic: str = Field(max_length=16)
    to: str | None = Field(default=None, max_length=16)
    metres: float | None = None
    like: str | None = Field(default=None, max_length=16)
    cord: Cord | None = None

    @model_validator(mode="after")
    def _is_an_entry(self) -> Self:
        """What the core would not take is refused here, not when it is shown."""
        Entry(key=str(self.key), **self.model_dump(exclude={"key", "by", "struck_at"}))
        return self


class TriedRow(Row):
    """A line of the log: what was tried and heard, of the session's layout of that number."""

    key: UUID = Field(default_factory=uuid4)
    layout: int = Field(ge=1)
    song: str = Field(default="", max_length=80)
    words: str = Field(default="", max_length=1000)
    verdict: Heard
    stood: bool = False
    since: list[Change] = Field(default=[], max_length=MOST_CHANGES)
    doc: dict[str, Any]


class SessionFile(Strict):
    """A session with its logs."""

    name: str = Field(min_length=1, max_length=80)
    place: str = Field(default="", max_length=120)
    made_at: datetime
    deleted_at: datetime | None = None
    room: str | None = None
    lugs: list[LugRow] = []
    spots: list[SpotRow] = []
    tape: list[TapeRow] = []


class LayoutFile(Strict):
    """What is said of a layout beside its states."""

    name: str = Field(min_length=1, max_length=80)
    head: int = Field(ge=1)
    deleted_at: datetime | None = None
    at_kit: list[StandRow] = []


class State(Strict):
    """One state of a layout."""

    number: int = Field(ge=1, le=2_000_000_000)
    what: str = Field(min_length=1, max_length=120)
    by: str = Field(default="", max_length=150)
    at: datetime
    doc: dict[str, Any]


class Archive:
    """A zip that is read with care: no more than it says, and every text plain."""

    def __init__(self, data: bytes) -> None:
        try:
            self.zipped = zipfile.ZipFile(io.BytesIO(data))
            files = self.zipped.infolist()
        except (zipfile.BadZipFile, ValueError, NotImplementedError) as fault:
            raise NotAnArchive(f"this is no zip file: {fault}") from None
        if len(files) > MOST_FILES or sum(f.file_size for f in files) > MOST_BYTES:
            raise NotAnArchive("it holds more than a studio can: is it another kind of file?")
        self.names = {f.filename: f.file_size for f in files}
        if MANIFEST not in self.names:
            raise NotAnArchive(f"it has no {MANIFEST}; expected an archive of a studio")

    def _text(self, name: str) -> str:
        try:
            with self.zipped.open(name) as file:
                body = file.read(self.names[name] + 1)
            if len(body) > self.names[name]:
                raise NotAnArchive(f"{name} is longer than the archive says")
            return body.decode()
        except (zipfile.BadZipFile, OSError, RuntimeError, UnicodeDecodeError, EOFError) as fault:
            raise NotAnArchive(f"{name} cannot be unpacked: {fault}") from None

    def json(self, name: str) -> Any:
        """One file."""
        return _checked(name, self._text(name))

    def lines(self, name: str) -> list[Any]:
        """A file of one value each line."""
        rows = enumerate(self._text(name).splitlines(), 1)
        return [_checked(f"{name}, line {n}", line) for n, line in rows if line.strip()]


def _checked(where: str, text: str) -> Any:
    try:
        value = json.loads(text)
    except (ValueError, RecursionError) as fault:
        raise NotAnArchive(f"{where} is not JSON: {fault}") from None
    fault = first_fault(value)
    if fault:
        raise NotAnArchive(f"{where}: {place_of(fault[0])}: {fault[1]}")
    return value


def _made(model: Any, where: str, value: Any) -> Any:
    try:
        return model.model_validate(value)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        raise NotAnArchive(f"{where}: {place_of(first['loc'])}: {wording(first)}") from None


def _elsewhere(name: str) -> str:
    return f"{name.removesuffix(ELSEWHERE)[:130]}{ELSEWHERE}" if name else ""


def _signed(doc: dict[str, Any]) -> dict[str, Any]:
    """Decisions made elsewhere say so: nobody here is named for them."""
    told = {}
    for field in ("decisions", "set_aside"):
        rows = doc.get(field)
        if isinstance(rows, list):
            told[field] = [
                {**r, "by": _elsewhere(r["by"])} if isinstance(r, dict) and r.get("by") else r
                for r in rows
            ]
    return {**doc, **told}


@transaction.atomic
def read_in(data: bytes, user: User, tell: Tell) -> Studio:
    """A new studio of this user's from an archive.

    Raises
    ------
    NotAnArchive
        Nothing is kept then; the message says where the fault is and what was expected.
    """
    archive = Archive(data)
    head = _made(Head, MANIFEST, archive.json(MANIFEST))
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
        made = {_number(s): _layout(archive, session, s) for s in layouts.get(folder, [])}
        _log(archive, session, f"{folder}/log.jsonl", made)
        tell(n / len(sessions))
    return studio


def _kept(archive: Archive, studio: Studio) -> dict[str, Room]:
    rooms: dict[str, Room] = {}
    for name in sorted(archive.names):
        if name.startswith("rooms/") and name.endswith(".json"):
            row = _made(Named, name, archive.json(name))
            rooms[row.name] = Room.objects.create(studio=studio, name=row.name, box=row.doc)
        elif name.startswith("kits/") and name.endswith(".json"):
            row = _made(Named, name, archive.json(name))
            Kit.objects.create(studio=studio, name=row.name, doc=row.doc)
    if "locker.json" in archive.names:
        doc = archive.json("locker.json")
        if not isinstance(doc, dict):
            raise NotAnArchive("locker.json: expected an object")
        Locker.objects.create(studio=studio, doc=doc)
    return rooms


def _session(archive: Archive, studio: Studio, name: str, rooms: dict[str, Room]) -> Session:
    told = _made(SessionFile, name, archive.json(name))
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
        made = every.create(by_name=_elsewhere(row.by), **of, **values)
        every.filter(pk=made.pk).update(at=row.at)


def _number(stem: str) -> int:
    """Of a layout in its session, by the name of its files."""
    return int(stem.rsplit("/", 1)[1][:3])


TOLD_ALIKE = {"key", "at", "struck_at", "song", "words", "verdict", "stood"}


def _log(archive: Archive, session: Session, name: str, layouts: dict[int, Layout]) -> None:
    """What was tried and heard; archives of before there was a log have none."""
    if name not in archive.names:
        return
    lines = archive.lines(name)
    if len(lines) > MOST_LINES:
        raise NotAnArchive(f"{name}: expected at most {MOST_LINES} lines, got {len(lines)}")
    rows: dict[UUID, TriedRow] = {}
    for n, line in enumerate(lines, 1):
        row = _made(TriedRow, f"{name}, line {n}", line)
        if row.layout not in layouts:
            raise NotAnArchive(f"{name}, line {n}: the session has no layout {row.layout}")
        rows[row.key] = row
    TriedLog.objects.bulk_create(
        TriedLog(
            session=session, layout=layouts[row.layout], by_name=_elsewhere(row.by),
            kept=_signed(row.doc), since=[asdict(c) for c in row.since],
            **row.model_dump(include=TOLD_ALIKE),
        )
        for row in rows.values()
    )  # fmt: skip


def _layout(archive: Archive, session: Session, stem: str) -> Layout:
    about = _made(LayoutFile, f"{stem}.json", archive.json(f"{stem}.json"))
    name = f"{stem}.history.jsonl"
    if name not in archive.names:
        raise NotAnArchive(f"{name} is missing")
    states = [_made(State, f"{name}, line {n}", v) for n, v in enumerate(archive.lines(name), 1)]
    numbers = [s.number for s in states]
    if about.head not in numbers or len(set(numbers)) < len(numbers):
        raise NotAnArchive(f"{name}: expected each state once, and state {about.head} among them")
    layout = Layout.objects.create(
        session=session, name=about.name, head=about.head, deleted_at=about.deleted_at
    )
    Revision.objects.bulk_create(
        Revision(
            layout=layout, number=s.number, doc=_signed(s.doc), what=s.what,
            by_name=_elsewhere(s.by),
        )
        for s in states
    )  # fmt: skip
    for s in states:
        Revision.objects.filter(layout=layout, number=s.number).update(at=s.at)
    lines = {row.key: row for row in about.at_kit}
    _written(StandLog, list(lines.values()), session=session, layout=layout)
    return layout
