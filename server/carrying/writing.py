"""A studio as one open archive: a zip of JSON, described in docs/formats/studio.md."""

import io
import json
import re
import zipfile
from collections.abc import Iterator
from typing import Any

from django.utils import timezone
from jobs.kinds import Tell
from plans.models import Happened, Layout, Revision, Session
from studios.actions import locker_of
from studios.models import Membership, Studio

from carrying.format import FORMAT, MANIFEST, TAKES, VERSION
from carrying.recorded import heard_in, lines_of


def _name(row: Revision | Happened) -> str:
    return row.by.get_username() if row.by else row.by_name


def _text(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, indent=1, default=str) + "\n"


def _slug(name: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or "layout"


def _happened(rows: Any, *fields: str) -> list[dict[str, Any]]:
    return [
        {
            **{f: getattr(r, f) for f in fields},
            "key": r.key, "by": _name(r), "at": r.at.isoformat(),
            "struck_at": r.struck_at and r.struck_at.isoformat(),
        }
        for r in rows.select_related("by")
    ]  # fmt: skip


def _session(session: Session) -> dict[str, Any]:
    return {
        "name": session.name,
        "place": session.place,
        "made_at": session.made_at.isoformat(),
        "deleted_at": session.deleted_at and session.deleted_at.isoformat(),
        "room": session.room.name if session.room else None,
        "lugs": _happened(session.lug_log, "drum", "lugs_hz"),
        "spots": _happened(session.spot_log, "room", "x_m", "y_m", "turn_rad", "rating", "words"),
        "tape": _happened(session.tape_log, "a", "b", "metres"),
    }


def _history(layout: Layout) -> Iterator[str]:
    for row in layout.revisions.select_related("by"):
        line = {
            "number": row.number, "what": row.what, "by": _name(row), "at": row.at.isoformat(),
            "doc": row.doc,
        }  # fmt: skip
        yield json.dumps(line, ensure_ascii=False) + "\n"


def _log(session: Session, numbers: dict[int, int]) -> Iterator[str]:
    """What was tried and heard, a line each; layouts by their number in the session."""
    heard = heard_in(session)
    fields = ("song", "words", "verdict", "stood", "kept", "since", "layout_id")
    for row in _happened(session.tried_log.order_by("pk"), *fields):
        layout, doc = numbers[row.pop("layout_id")], row.pop("kept")
        take = heard.get(row["key"])
        line = {**row, "key": str(row["key"]), "layout": layout, "take": take, "doc": doc}
        yield json.dumps(line, ensure_ascii=False) + "\n"


def manifest_of(studio: Studio) -> dict[str, Any]:
    """What stands at the head of an archive."""
    members = Membership.objects.filter(studio=studio).select_related("user").order_by("pk")
    return {
        "format": FORMAT,
        "version": VERSION,
        "name": studio.name,
        "made_at": timezone.now().isoformat(timespec="seconds"),
        "members": [{"name": m.user.get_username(), "role": m.role} for m in members],
    }


def archive_of(studio: Studio, tell: Tell) -> bytes:
    """The whole of a studio as a zip."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as zipped:
        zipped.writestr(MANIFEST, _text(manifest_of(studio)))
        for n, room in enumerate(studio.rooms.order_by("pk"), 1):
            zipped.writestr(f"rooms/{n:04}.json", _text({"name": room.name, "doc": room.box}))
        for n, kit in enumerate(studio.kits.order_by("pk"), 1):
            zipped.writestr(f"kits/{n:04}.json", _text({"name": kit.name, "doc": kit.doc}))
        zipped.writestr("locker.json", _text(locker_of(studio).doc))
        sessions = studio.sessions.order_by("pk").select_related("room")
        count = max(sessions.count(), 1)
        for n, session in enumerate(sessions.iterator(), 1):
            folder = f"sessions/{n:06}"
            zipped.writestr(f"{folder}/session.json", _text(_session(session)))
            layouts = list(enumerate(session.layouts.order_by("pk"), 1))
            for m, layout in layouts:
                _write_layout(zipped, f"{folder}/{m:03}-{_slug(layout.name)}", layout)
            log = _log(session, {layout.pk: m for m, layout in layouts})
            zipped.writestr(f"{folder}/log.jsonl", "".join(log))
            zipped.writestr(f"{folder}/{TAKES}", "".join(lines_of(session, n)))
            tell(n / count)
    return out.getvalue()


def _write_layout(zipped: zipfile.ZipFile, stem: str, layout: Layout) -> None:
    """The state it is in as a layout file of its own, and all states as lines."""
    zipped.writestr(f"{stem}.layout.json", _text(layout.state.doc))
    zipped.writestr(f"{stem}.history.jsonl", "".join(_history(layout)))
    about = {
        "name": layout.name, "head": layout.head,
        "deleted_at": layout.deleted_at and layout.deleted_at.isoformat(),
        "at_kit": _happened(layout.stand_log, "what", "mic", "to", "metres", "like", "cord"),
    }  # fmt: skip
    zipped.writestr(f"{stem}.json", _text(about))
