"""Takes: begun, filled piece by piece, corrected, measured, told."""

import json
from typing import Annotated, Any

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from jobs.actions import call_off, file_of, job_of
from ninja import Query, Router
from ninja.responses import Status
from plans.actions import layout_for
from pydantic import Field
from ringside.pairs.analysis import analyse
from ringside.takes.against import Against
from ringside.takes.align import AlignRow, Basis, align_csv, align_table
from ringside.takes.asking import HitList, hits_wanted
from ringside.takes.compare import Since
from ringside.takes.effect import AlignEffect
from ringside.takes.listening import Listening
from ringside.takes.report import TakeTold
from ringside.takes.waves import DrumWaves
from takes import actions
from takes.actions import FileBegun
from takes.aligned import aligned_copies
from takes.kinds import COMPARE, MEASURE, RECORD, SINCE, TOLD, WAVES
from takes.models import Take
from takes.recorded import Recorded, recorded_in, sound_of_studio, sound_of_take
from takes.telling import LastHeard, last_heard, told_of

from api.common import LayoutOnly, Problem
from api.longwork import JobOut, job_out
from api.takes.schemas import (
    AlignAsk,
    CorrectIn,
    PieceOut,
    RecordIn,
    SoundAsk,
    TakeBegin,
    TakeNamed,
    TakeOut,
    TakesOut,
)
from api.takes.shapes import packed, take_named

router = Router(tags=["takes"])
GONE: dict[int, Any] = {404: Problem}
WRONG: dict[int, Any] = {400: Problem, 404: Problem, 422: Problem}


def _out(take: Take) -> dict[str, Any]:
    return {
        "id": take.pk, "key": take.key, "name": take.name, "made_at": take.made_at,
        "by": take.who, "files": list(take.files.all()),
        "channels": take.channels, "drums": take.drums, "truth": take.truth,
    }  # fmt: skip


@router.get("/layouts/{pk}/takes", response={200: TakesOut, **GONE})
def takes(request: HttpRequest, pk: int) -> dict[str, Any]:
    """The takes of a layout, newest first."""
    rows = actions.takes_of(request.user, pk)
    kept, most = actions.room_of(layout_for(request.user, pk).session.studio)
    return {"takes": [_out(t) for t in rows], "kept": kept, "most": most}


@router.get("/sessions/{pk}/takes", response={200: list[TakeNamed], **GONE})
def takes_in(request: HttpRequest, pk: int) -> list[dict[str, Any]]:
    """What can be listened to in a session: whole takes of all its layouts, newest first."""
    return [take_named(t) for t in actions.takes_in(request.user, pk)]


@router.get("/layouts/{pk}/heard", response={200: LastHeard | None, **GONE})
def heard(request: HttpRequest, pk: int) -> LastHeard | None:
    """What the newest take that was measured says of the pairs of a layout."""
    return last_heard(request.user, pk)


@router.post("/layouts/{pk}/takes", response={201: TakeOut, **WRONG})
def begin(request: HttpRequest, pk: int, data: TakeBegin) -> Status[dict[str, Any]]:
    """Begin a take; its files come in pieces."""
    files = [FileBegun(f.name, f.size) for f in data.files]
    return Status(201, _out(actions.begin(request.user, pk, data.key, data.name, files)))


@router.post("/layouts/{pk}/takes/simulated", response={200: JobOut, **WRONG})
def record(request: HttpRequest, pk: int, data: RecordIn) -> dict[str, Any]:
    """Have the simulated recorder play the layout, set up right or wrong."""
    return job_out(actions.record(request.user, pk, data.key, data.seed, list(data.wrong)))


@router.get("/recordings/{pk}", response={200: JobOut, **GONE})
def recording(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far the simulated recorder is."""
    return job_out(job_of(request.user, RECORD.name, pk))


@router.put("/takes/{pk}/files/{number}", response={200: PieceOut, **WRONG})
def piece(
    request: HttpRequest, pk: int, number: int, at: Annotated[int, Query(), Field(ge=0)]
) -> Any:
    """One more piece of a file, as it is; what is answered is where the file goes on."""
    file = actions.add_piece(request.user, pk, number, at, request.body)
    return {"received": file.received}


@router.get("/takes/{pk}/files.zip", response={200: bytes, **WRONG, 429: Problem})
def files(request: HttpRequest, pk: int) -> StreamingHttpResponse:
    """The files of a take as they came."""
    take, sound = sound_of_take(request.user, pk)
    return packed(sound, f"{take.name}.zip")


@router.get("/studios/{pk}/recorded", response={200: Recorded, **GONE})
def recorded(request: HttpRequest, pk: int) -> Recorded:
    """How much was recorded in a studio, and came whole."""
    return recorded_in(request.user, pk)


@router.get("/studios/{pk}/recorded.zip", response={200: bytes, **GONE, 429: Problem})
def recorded_files(request: HttpRequest, pk: int) -> StreamingHttpResponse:
    """All that was recorded in a studio and came whole, to go with its archive."""
    return packed(sound_of_studio(request.user, pk), "recorded.zip")


@router.put("/takes/{pk}/said", response={200: TakeOut, **WRONG})
def correct(request: HttpRequest, pk: int, data: CorrectIn) -> dict[str, Any]:
    """Say which channel a track is, or which drum a stroke; measured anew when asked."""
    return _out(actions.correct(request.user, pk, dict(data.channels), dict(data.drums)))


@router.delete("/takes/{pk}", response={204: None, **GONE})
def delete(request: HttpRequest, pk: int) -> Status[None]:
    """Forget a take and its files."""
    actions.delete(request.user, pk)
    return Status(204, None)


@router.post("/takes/{pk}/measure", response={200: JobOut, **WRONG})
def measure(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Have it measured against the layout as planned now; what was done before is there."""
    return job_out(actions.measure(request.user, pk))


@router.get("/measures/{pk}", response={200: JobOut, **GONE})
def progress(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far measuring is."""
    return job_out(job_of(request.user, MEASURE.name, pk))


@router.delete("/measures/{pk}", response={200: JobOut, **GONE})
def stop(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Nobody waits for it any more."""
    return job_out(call_off(request.user, MEASURE.name, pk))


@router.get("/takes/{pk}/measures/{job}/told", response={200: TakeTold, **GONE})
def told(request: HttpRequest, pk: int, job: int) -> Any:
    """Everything a take says."""
    return json.loads(told_of(request.user, pk, job, TOLD))


@router.get("/takes/{pk}/measures/{job}/waves/{source}", response={200: DrumWaves, **GONE})
def waves(request: HttpRequest, pk: int, job: int, source: str) -> Any:
    """The first half-waves of one drum's hits."""
    every = json.loads(told_of(request.user, pk, job, WAVES))
    if source not in every:
        raise actions.NotThere
    return every[source]


def _rows(request: HttpRequest, pk: int, job: int, how: AlignAsk) -> tuple[Basis, list[AlignRow]]:
    basis = actions.basis_of(request.user, pk, job)
    return basis, align_table(basis, how.to, on=how.on, whole=how.whole, flips=how.flips)


@router.get("/takes/{pk}/measures/{job}/align", response={200: list[AlignRow], **WRONG})
def align(request: HttpRequest, pk: int, job: int, how: Query[AlignAsk]) -> list[AlignRow]:
    """By how many samples each track goes later to meet one of them."""
    return _rows(request, pk, job, how)[1]


@router.get("/takes/{pk}/measures/{job}/align.csv", response={200: bytes, **WRONG})
def align_file(request: HttpRequest, pk: int, job: int, how: Query[AlignAsk]) -> HttpResponse:
    """The same as CSV."""
    basis, rows = _rows(request, pk, job, how)
    answer = HttpResponse(align_csv(basis, rows), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="align.csv"'
    return answer


@router.get("/takes/{pk}/measures/{job}/aligned.zip", response={200: bytes, **WRONG, 429: Problem})
def aligned(request: HttpRequest, pk: int, job: int, how: Query[AlignAsk]) -> StreamingHttpResponse:
    """Aligned copies of all files, of the same format, with their start times, and the table."""
    basis, rows = _rows(request, pk, job, how)
    take = actions.take_for(request.user, pk)
    heard = actions.listening_of(request.user, pk, job)
    copies = aligned_copies(take, heard, rows, align_csv(basis, rows))
    return packed(copies, "aligned.zip")


@router.post("/takes/{pk}/measures/{job}/effect", response={200: JobOut, **WRONG})
def ask_effect(request: HttpRequest, pk: int, job: int, how: Query[AlignAsk]) -> dict[str, Any]:
    """Have the take measured as it would be mixed aligned."""
    rows = _rows(request, pk, job, how)[1]
    return job_out(actions.measure_aligned(request.user, pk, job, rows))


@router.get("/takes/{pk}/measures/{job}/effect/{other}", response={200: AlignEffect, **GONE})
def effect(request: HttpRequest, pk: int, job: int, other: int) -> AlignEffect:
    """What aligning does to every pair."""
    return actions.effect_of(request.user, pk, job, other)


@router.get("/takes/{pk}/measures/{job}/listening", response={200: Listening, **GONE})
def listening(request: HttpRequest, pk: int, job: int) -> Any:
    """What is needed to listen to a measured take: channels in the balance, and loops."""
    return actions.listening_of(request.user, pk, job)


@router.get(
    "/takes/{pk}/measures/{job}/against/{other}/{other_job}", response={200: Against, **GONE}
)
def against(request: HttpRequest, pk: int, job: int, other: int, other_job: int) -> Against:
    """Which hits of another measured take are heard for which of this one."""
    return actions.against_of(request.user, (pk, job), (other, other_job))


@router.get("/takes/{pk}/measures/{job}/sound", response={200: bytes, **WRONG})
def sound(request: HttpRequest, pk: int, job: int, what: Query[SoundAsk]) -> HttpResponse:
    """A stretch of a group of channels, as FLAC."""
    made = actions.sound(request.user, pk, job, what.group, what.begin, what.count)
    return HttpResponse(made, content_type="audio/flac")


@router.post("/takes/{pk}/since/{other}", response={200: JobOut, **WRONG})
def compare(request: HttpRequest, pk: int, other: int) -> dict[str, Any]:
    """Have two takes of a layout held against each other."""
    return job_out(actions.compare(request.user, pk, other))


@router.get("/comparisons/{pk}", response={200: JobOut, **GONE})
def comparing(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far comparing is."""
    return job_out(job_of(request.user, COMPARE.name, pk))


@router.get("/comparisons/{pk}/since", response={200: Since, **GONE})
def compared(request: HttpRequest, pk: int) -> Any:
    """What changed between the two."""
    return json.loads(file_of(request.user, COMPARE.name, pk, SINCE))


@router.post("/hit-list", response={200: HitList, 400: Problem, 422: Problem})
def hit_list(request: HttpRequest, data: LayoutOnly) -> HitList:
    """Which hits to ask the drummer for."""
    return hits_wanted(analyse(data.layout))
