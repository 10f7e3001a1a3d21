"""Takes in an archive: all that is said of them. Their sound is carried by itself."""

import json
from collections.abc import Iterator
from typing import Any
from uuid import UUID

from plans.models import Layout, Session
from studios.models import Studio
from takes.actions import MOST_TAKES, room_of
from takes.models import LineTake, Take, TakeFile
from takes.recorded import folder_of

from carrying.elsewhere import elsewhere, signed
from carrying.errors import NotAnArchive
from carrying.rows import TakeRow
from carrying.unzipped import Archive, made


def lines_of(session: Session, number: int) -> Iterator[str]:
    """The takes of the layouts of a session, which is of that number in its archive."""
    for m, layout in enumerate(session.layouts.order_by("pk"), 1):
        takes = layout.takes.order_by("pk").select_related("by").prefetch_related("files")
        for t, take in enumerate(takes, 1):
            line = {**_told(take), "layout": m, "folder": folder_of(number, m, t)}
            yield json.dumps(line, ensure_ascii=False) + "\n"


def _told(take: Take) -> dict[str, Any]:
    return {
        "key": str(take.key), "name": take.name, "by": take.who,
        "made_at": take.made_at.isoformat(), "channels": take.channels, "drums": take.drums,
        "plan": take.plan, "truth": take.truth,
        "files": [{"name": f.name, "size": f.size} for f in take.files.all()],
    }  # fmt: skip


def heard_in(session: Session) -> dict[UUID, str]:
    """The keys of the takes that lines of a session's log are about, by the keys of the lines."""
    pairs = LineTake.objects.filter(line__session=session).values_list("line__key", "take__key")
    return {line: str(take) for line, take in pairs}


def read_takes(archive: Archive, name: str, layouts: dict[int, Layout]) -> dict[UUID, Take]:
    """The takes of a session, each waiting for its files; by their keys."""
    if name not in archive.names:
        return {}
    read: dict[UUID, Take] = {}
    there: set[tuple[int, UUID]] = set()
    counts: dict[int, int] = {}
    for n, line in enumerate(archive.lines(name), 1):
        where = f"{name}, line {n}"
        row = made(TakeRow, where, line)
        if row.layout not in layouts:
            raise NotAnArchive(f"{where}: the session has no layout {row.layout}")
        if (row.layout, row.key) in there:
            raise NotAnArchive(f"{where}: expected each take once")
        there.add((row.layout, row.key))
        counts[row.layout] = counts.get(row.layout, 0) + 1
        if counts[row.layout] > MOST_TAKES:
            raise NotAnArchive(f"{where}: expected at most {MOST_TAKES} takes of a layout")
        read[row.key] = _made(row, layouts[row.layout])
    return read


def _made(row: TakeRow, layout: Layout) -> Take:
    take = layout.takes.create(
        key=row.key, name=row.name, by_name=elsewhere(row.by), channels=row.channels,
        drums=row.drums, plan=row.plan and signed(row.plan), truth=row.truth,
    )  # fmt: skip
    Take.objects.filter(pk=take.pk).update(made_at=row.made_at)
    TakeFile.objects.bulk_create(
        TakeFile(take=take, number=n, name=f.name, size=f.size) for n, f in enumerate(row.files)
    )
    return take


def check_room(studio: Studio) -> None:
    """Refuse what this server would not keep: files are waited for only where they may come."""
    kept, most = room_of(studio)
    if kept > most:
        raise NotAnArchive(
            f"its takes are {kept / 1e9:.1f} GB, and {most / 1e9:.0f} GB of a studio are kept"
            " here; ask who runs this server, or delete old takes before you carry it away"
        )
