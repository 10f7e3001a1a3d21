"""Measuring and recording as kinds of long work."""

import json
import tempfile
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import UUID

from accounts.models import User
from django.db import transaction
from jobs.errors import Refused
from jobs.kinds import Kind, Tell
from plans import lines
from plans.models import Layout, TriedLog
from ringside.errors import RingsideError
from ringside.files.stored import LAYOUT
from ringside.pairs.analysis import analyse
from ringside.standing.stood import AsItStands
from studios.stored import unpacked

from takes.files import as_local, keep_piece
from takes.models import LineTake, Take, TakeFile
from takes.packing import MOST_AT_ONCE

if TYPE_CHECKING:
    from ringside.takes.reading import Corrections

TOLD, WAVES, BASIS, SINCE = "told.json", "waves.json", "basis.json", "since.json"
LISTEN = "listen.json"


def _files_of(pk: int) -> Take:
    take = Take.objects.filter(pk=pk).first()
    if take is None:
        raise Refused("The take was deleted.")
    return take


def _said(ask: dict[str, Any]) -> "Corrections":
    from ringside.takes.reading import Corrections

    return Corrections(ask["channels"], {int(n): d for n, d in ask["drums"].items()})


def _stands(ask: dict[str, Any]) -> AsItStands | None:
    """The layout as the tape has it, where one was held."""
    told = ask.get("stands")
    return AsItStands.model_validate_json(json.dumps(told)) if told else None


def _json(what: Any) -> bytes:
    return json.dumps(what, allow_nan=False).encode()


def _measure(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    from ringside.takes.align import basis_of
    from ringside.takes.listening import listening
    from ringside.takes.report import told_take
    from ringside.takes.waves import waves_of

    analysis = analyse(unpacked(LAYOUT, ask["layout"], "The layout"))
    with as_local(_files_of(ask["take"])) as paths:
        try:
            told, read, _ = told_take(
                paths, analysis, _said(ask), lambda share, _: tell(0.95 * share), _stands(ask)
            )
            waves = waves_of(read)
        except RingsideError as fault:
            raise Refused(f"{fault}.") from None
    return {
        TOLD: _json(asdict(told)),
        WAVES: _json({w.source: asdict(w) for w in waves}),
        BASIS: _json(asdict(basis_of(read))),
        LISTEN: _json(asdict(listening(read))),
    }


def _compare(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    from ringside.takes.compare import since
    from ringside.takes.report import told_take

    analysis = analyse(unpacked(LAYOUT, ask["layout"], "The layout"))
    reads = []
    for n, one in enumerate((ask["earlier"], ask["later"])):
        with as_local(_files_of(one["take"])) as paths:
            try:
                reads.append(told_take(paths, analysis, _said(one))[1])
            except RingsideError as fault:
                raise Refused(f"{fault}.") from None
        tell(0.45 * (n + 1))
    return {SINCE: _json(asdict(since(*reads)))}


def _record(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    from ringside.recorder.played import hit_list
    from ringside.recorder.recording import Take as Simulated
    from ringside.recorder.recording import truth, write
    from ringside.recorder.wrong import Wrong, drawn

    layout = Layout.objects.filter(pk=ask["layout"]).first()
    if layout is None:
        raise Refused("The layout was deleted.")
    doc = layout.doc()
    if not doc.kit.drums or not doc.mics:
        raise Refused("A layout needs a drum and a mic to be recorded.")
    told = ask.get("set")
    wrong = Wrong.model_validate(told) if told else drawn(doc, ask["seed"], tuple(ask["wrong"]))
    played = tuple(hit_list(doc.kit, seed=ask["seed"]))
    made = Simulated(doc, played, wrong, ask["seed"])
    with tempfile.TemporaryDirectory(prefix="ringside-record-") as folder:
        tell(0.05)
        paths = write(made, Path(folder), told=lambda share: tell(0.05 + 0.85 * share))
        take = _kept(layout, ask, paths, truth(made), LAYOUT.pack(doc))
    return {"take.json": json.dumps({"take": take.pk}).encode()}


@transaction.atomic
def _kept(
    layout: Layout, ask: dict[str, Any], paths: list[Path], told: dict[str, Any], plan: Any
) -> Take:
    """The take with its files; one that a worker left half done before is made anew."""
    key = UUID(ask["key"])
    layout.takes.filter(key=key).delete()
    user = User.objects.filter(pk=ask["user"]).first()
    take = Take.objects.create(
        layout=layout, key=key, name=ask["name"], by=user, truth=told, plan=plan
    )
    lines.forget(layout)
    if TriedLog.objects.filter(pk=ask.get("line"), session=layout.session_id).exists():
        LineTake.objects.get_or_create(line_id=ask["line"], defaults={"take": take})
    for n, path in enumerate(paths):
        file = TakeFile(take=take, number=n, name=path.name, size=path.stat().st_size)
        with path.open("rb") as source:
            while data := source.read(MOST_AT_ONCE):
                file.pieces.append(keep_piece(file, data))
                file.received += len(data)
        file.save()
    return take


MEASURE = Kind("measure", _measure, longest_s=600.0, kept=60)
COMPARE = Kind("compare", _compare, longest_s=900.0, kept=24)
RECORD = Kind("record", _record, longest_s=600.0, kept=12)
