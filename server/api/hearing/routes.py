"""Hear it: examples asked for, their progress, and their sounds."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from hearing import actions
from jobs.models import Job
from ninja import Router
from ringside.standing.stood import analysed
from ringside.voices.example import VERSIONS, Ask, Version, ask_of

from api.common import Problem
from api.hearing.schemas import ExampleIn, ExampleOut

router = Router(tags=["hearing"])
WRONG: dict[int, Any] = {400: Problem, 404: Problem, 422: Problem}


def _out(example: Job) -> dict[str, Any]:
    return {
        "id": example.pk,
        "state": example.state,
        "progress": example.progress,
        "versions": list(VERSIONS) if example.state == Job.State.DONE else [],
        "trouble": example.words,
        "words": Ask.model_validate(example.ask).words,
    }


@router.post("/layouts/{pk}/examples", response={200: ExampleOut, **WRONG})
def ask(request: HttpRequest, pk: int, data: ExampleIn) -> dict[str, Any]:
    """Ask for the example of a pair; one that was rendered before is there at once."""
    wanted = ask_of(analysed(data.layout), data.a, data.b, data.source)
    return _out(actions.ask_for(request.user, pk, wanted))


@router.get("/examples/{pk}", response={200: ExampleOut, **WRONG})
def progress(request: HttpRequest, pk: int) -> dict[str, Any]:
    """How far it is."""
    return _out(actions.example_of(request.user, pk))


@router.delete("/examples/{pk}", response={200: ExampleOut, **WRONG})
def call_off(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Nobody waits for it any more."""
    return _out(actions.call_off(request.user, pk))


@router.get("/examples/{pk}/{version}.wav", response={200: bytes, **WRONG})
def sound(request: HttpRequest, pk: int, version: Version) -> HttpResponse:
    """One version as WAV."""
    answer = HttpResponse(actions.sound_of(request.user, pk, version), content_type="audio/wav")
    answer["Cache-Control"] = "private, max-age=3600"
    return answer
