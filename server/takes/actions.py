"""Everything done with takes: begun, filled, corrected, measured, forgotten.

A file comes in pieces. A piece that was sent before, or does not go on where the file ends, changes
nothing and is told where it does, so that a cut line goes on where it was cut.
"""

import hashlib
import json
from collections.abc import Sequence
from contextlib import ExitStack
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from accounts.models import User
from django.conf import settings
from django.db import transaction
from django.db.models import Sum
from jobs import actions as jobs
from jobs.models import Job
from plans import lines
from plans.actions import layout_for, session_for
from plans.atkit import doc_in
from plans.errors import NotThere
from plans.models import Layout
from pydantic import TypeAdapter
from ringside.errors import RingsideError
from ringside.files.stored import LAYOUT
from ringside.recorder.wrong import Wrong
from ringside.standing.stood import AsItStands
from ringside.takes.against import Against, against
from ringside.takes.align import AlignRow, Basis, HeardDrum
from ringside.takes.effect import AlignEffect, aligned_layout, effect
from ringside.takes.files import MOST_TRACKS
from ringside.takes.listening import Listening, sound_of
from studios.models import Studio
from studios.stored import unpacked

from takes.access import check_whole, take_for
from takes.files import keep_piece, opened
from takes.kinds import BASIS, COMPARE, LISTEN, MEASURE, RECORD, TOLD
from takes.models import Take, TakeFile
from takes.telling import EDITION, PAIRS, told_of

MOST_TAKES = 60
"""Of one layout: a day of them."""

LARGEST_FILE = 4_000_000_000
LARGEST_PIECE = 1_000_000

LISTENING = TypeAdapter(Listening)


@dataclass(frozen=True, slots=True)
class FileBegun:
    """A file that is to come: its name and size in bytes."""

    name: str
    size: int


def takes_of(user: User, layout_pk: int) -> list[Take]:
    """The takes of a layout, newest first."""
    rows = layout_for(user, layout_pk).takes.select_related("by").prefetch_related("files")
    return list(rows)


def takes_in(user: User, session_pk: int) -> list[Take]:
    """The takes of all layouts of a session that have come whole, newest first."""
    rows = Take.objects.filter(layout__session=session_for(user, session_pk))
    rows = rows.filter(layout__deleted_at=None).select_related("layout", "by").order_by("-pk")
    return [t for t in rows.prefetch_related("files") if all(f.whole for f in t.files.all())]


def room_of(studio: Studio) -> tuple[int, int]:
    """Bytes of takes a studio keeps, and may keep."""
    kept = TakeFile.objects.filter(take__layout__session__studio=studio).aggregate(n=Sum("size"))
    return int(kept["n"] or 0), int(settings.TAKES_BYTES)


@transaction.atomic
def begin(user: User, layout_pk: int, key: UUID, name: str, files: list[FileBegun]) -> Take:
    """A take whose files are to come, once for each key.

    Raises
    ------
    RingsideError
        When there are too many, a file is too large, or the studio's room does not hold them.
    """
    layout = layout_for(user, layout_pk)
    found = layout.takes.filter(key=key).first()
    if found is not None:
        return found
    _checked(layout, files)
    take = layout.takes.create(key=key, name=name, by=user, plan=layout.state.doc)
    lines.forget(layout)
    TakeFile.objects.bulk_create(
        TakeFile(take=take, number=n, name=f.name, size=f.size) for n, f in enumerate(files)
    )
    return take


def _checked(layout: Layout, files: list[FileBegun]) -> None:
    if layout.takes.count() >= MOST_TAKES:
        raise RingsideError(f"expected at most {MOST_TAKES} takes of a layout; delete some first")
    if not 1 <= len(files) <= MOST_TRACKS:
        raise RingsideError(f"expected 1 to {MOST_TRACKS} files, got {len(files)}")
    for f in files:
        if not 0 < f.size <= LARGEST_FILE:
            raise RingsideError(f"{f.name}: expected a file of 1 byte to 4 GB")
    # One at a time: two takes begun at once do not both get what room is left.
    studio = Studio.objects.select_for_update().get(pk=layout.session.studio_id)
    kept, most = room_of(studio)
    more = sum(f.size for f in files)
    if kept + more > most:
        left = max(most - kept, 0)
        raise RingsideError(
            f"these files are {more / 1e9:.2f} GB and the studio has {left / 1e9:.2f} of"
            f" {most / 1e9:.0f} GB left; delete old takes first"
        )


@transaction.atomic
def add_piece(user: User, take_pk: int, number: int, at: int, data: bytes) -> TakeFile:
    """One more piece of a file; one that does not begin where the file ends changes nothing.

    Raises
    ------
    RingsideError
        When it is larger than a piece may be, or than the file is said to be.
    """
    take = take_for(user, take_pk)
    file = take.files.select_for_update().filter(number=number).first()
    if file is None:
        raise NotThere
    if at != file.received:
        return file
    if not 0 < len(data) <= LARGEST_PIECE:
        raise RingsideError(f"expected a piece of 1 to {LARGEST_PIECE} bytes, got {len(data)}")
    if file.received + len(data) > file.size:
        raise RingsideError(f"{file.name}: is longer than the {file.size} bytes it was said to be")
    file.take = take
    file.pieces.append(keep_piece(file, data))
    file.received += len(data)
    file.save()
    return file


def correct(
    user: User, take_pk: int, channels: dict[str, str | None], drums: dict[str, str | None]
) -> Take:
    """Say which channel a track is, or which drum a stroke."""
    take = take_for(user, take_pk)
    take.channels, take.drums = channels, drums
    take.save(update_fields=["channels", "drums"])
    return take


@transaction.atomic
def delete(user: User, take_pk: int) -> None:
    """Forget a take and its files."""
    take_for(user, take_pk, lock=True).delete()


def measure(user: User, take_pk: int) -> Job:
    """Have a take measured against its layout as it is planned now; done once for the same.

    Raises
    ------
    RingsideError
        When not all of its files have come.
    """
    take = take_for(user, take_pk)
    ask = {**_as_said(take), "layout": take.layout.state.doc, "stands": _stands(take.layout),
           "edition": EDITION}  # fmt: skip
    return jobs.ask_for(take.layout.session.studio, MEASURE.name, _named(ask), ask)


def _stands(layout: Layout) -> dict[str, Any] | None:
    """The layout as it stands, where a tape was held at a mic."""
    doc = doc_in(layout, "stands")
    if not isinstance(doc, AsItStands) or all(r.at_kit for r in doc.stood.readings):
        return None
    return doc.model_dump(mode="json")


def compare(user: User, take_pk: int, other_pk: int) -> Job:
    """Have two takes of one layout held against each other, the earlier one first.

    Raises
    ------
    RingsideError
        When they are of two layouts, or not all of their files have come.
    """
    takes = sorted((take_for(user, take_pk), take_for(user, other_pk)), key=lambda t: t.pk)
    earlier, later = takes
    if earlier.layout_id != later.layout_id or earlier.pk == later.pk:
        raise RingsideError("expected two different takes of one layout")
    ask = {"earlier": _as_said(earlier), "later": _as_said(later),
           "layout": later.layout.state.doc}  # fmt: skip
    return jobs.ask_for(later.layout.session.studio, COMPARE.name, _named(ask), ask)


def _as_said(take: Take) -> dict[str, Any]:
    """A whole take with what somebody said of it."""
    check_whole(take)
    return {"take": take.pk, "channels": take.channels, "drums": take.drums}


def _named(ask: dict[str, Any]) -> str:
    text = json.dumps([EDITION, ask], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()


def basis_of(user: User, take_pk: int, job_pk: int) -> Basis:
    """What aligning needs to know of a measured take."""
    told = json.loads(told_of(user, take_pk, job_pk, BASIS))
    drums = [HeardDrum(**d) for d in told.pop("drums")]
    return Basis(**told, drums=drums)


def measure_aligned(user: User, take_pk: int, job_pk: int, rows: Sequence[AlignRow]) -> Job:
    """Have a measured take measured once more, as if its tracks were aligned."""
    take = take_for(user, take_pk)
    basis = basis_of(user, take_pk, job_pk)
    ask = jobs.job_of(user, MEASURE.name, job_pk).ask
    layout = unpacked(LAYOUT, ask["layout"], "The layout")
    changed = aligned_layout(layout, rows, basis.rate_hz)
    ask = {**ask, "layout": LAYOUT.pack(changed), "stands": None, "as_if": True}
    return jobs.ask_for(take.layout.session.studio, MEASURE.name, _named(ask), ask)


def effect_of(user: User, take_pk: int, job_pk: int, aligned_pk: int) -> AlignEffect:
    """What aligning does to every pair, by two measurements of one take."""
    told = (PAIRS.validate_python(json.loads(told_of(user, take_pk, pk, TOLD))["pairs"])
            for pk in (job_pk, aligned_pk))  # fmt: skip
    return effect(*told)


def listening_of(user: User, take_pk: int, job_pk: int) -> Listening:
    """What listening needs to know of a measured take."""
    return LISTENING.validate_json(told_of(user, take_pk, job_pk, LISTEN))


def against_of(user: User, measured: tuple[int, int], other: tuple[int, int]) -> Against:
    """Two measured takes, each with its measurement, to be heard in the place of each other."""
    return against(listening_of(user, *measured), listening_of(user, *other))


def sound(user: User, take_pk: int, job_pk: int, group: int, begin: int, count: int) -> bytes:
    """A stretch of some channels as FLAC.

    Raises
    ------
    RingsideError
        When there is no such group, or the stretch is too long.
    """
    heard = listening_of(user, take_pk, job_pk)
    tracks = heard.tracks[group * heard.group : (group + 1) * heard.group]
    kept = list(take_for(user, take_pk).files.all())
    with ExitStack() as stack:
        files = {n: stack.enter_context(opened(kept[n])) for n in {t.source.file for t in tracks}}
        own = [files[t.source.file] for t in tracks]
        return sound_of(own, [t.source for t in tracks], begin, count, heard.rate_hz)


@transaction.atomic
def record(
    user: User, layout_pk: int, key: UUID, seed: int, wrong: list[str], *,
    set_up: Wrong | None = None, name: str = "", line: int | None = None,
) -> Job:  # fmt: skip
    """Have the simulated recorder play a layout; the take it makes has this key.

    What is set up wrong is drawn from the seed, one of each kind asked for, or else as told. A line
    of the log may be about it before it is there.
    """
    layout = layout_for(user, layout_pk)
    _checked(layout, [FileBegun("simulated", 1)])
    ask = {
        "layout": layout.pk, "user": user.pk, "key": str(key), "seed": seed, "wrong": wrong,
        "set": set_up.model_dump(mode="json") if set_up else None,
        "name": name or f"Simulated, seed {seed}", "line": line,
    }  # fmt: skip
    return jobs.ask_for(layout.session.studio, RECORD.name, key.hex, ask)
