"""Asking for long work, looking how far it is, calling it off, having what it made.

The same numbers make the same thing, so a studio's job is kept by them: it is done once, however
often it is asked for. A worker that went away half way is noticed by its silence; the job is then
given to another, three times at most.
"""

from datetime import timedelta
from typing import Any

from accounts.models import User
from django.core.files.storage import default_storage
from django.db import transaction
from django.db.models import Q
from django.utils import timezone
from studios.access import studios_of
from studios.errors import NotThere
from studios.models import Studio

from jobs.kinds import KINDS
from jobs.models import Job
from jobs.tasks import run_job

SILENT = timedelta(seconds=15)
"""A worker that showed no life for so long has gone; it shows some every three seconds."""

MOST_TRIES = 3
State = Job.State
GAVE_UP = f"Its worker went away {MOST_TRIES} times; ask for it again if you still want it."


@transaction.atomic
def ask_for(studio: Studio, kind: str, key: str, ask: dict[str, Any]) -> Job:
    """A job of a studio; handed to a worker when it is not there or on its way already."""
    found, new = Job.objects.select_for_update().get_or_create(
        studio=studio, kind=kind, key=key, defaults={"ask": ask}
    )
    if not new and found.state in (State.FAILED, State.CANCELLED):
        found.state, found.progress, found.words, found.tries = State.WAITING, 0.0, "", 0
        found.save()
        new = True
    if new:
        _hand_out(found)
    for old in studio.jobs.filter(kind=kind).exclude(pk=found.pk)[KINDS[kind].kept - 1 :]:
        old.delete()
    return found


def _hand_out(job: Job) -> None:
    """To any worker, once this transaction holds."""
    run_job.defer(job_id=job.pk)


def job_of(user: User, kind: str, pk: int) -> Job:
    """One of the jobs of somebody's studios; NotThere for anybody else's."""
    found = Job.objects.filter(pk=pk, kind=kind, studio__in=studios_of(user)).first()
    if found is None:
        raise NotThere
    if _silent(found):
        take_up_again()
        found.refresh_from_db()
    return found


def file_of(user: User, kind: str, pk: int, name: str) -> bytes:
    """Something a job made."""
    path = job_of(user, kind, pk).files.get(name)
    if path is None or not default_storage.exists(path):
        raise NotThere
    with default_storage.open(path) as file:
        body: bytes = file.read()
    return body


def call_off(user: User, kind: str, pk: int) -> Job:
    """Nobody waits for it any more; the worker stops at its next step."""
    found = job_of(user, kind, pk)
    Job.objects.filter(pk=pk, state__in=(State.WAITING, State.WORKING)).update(
        state=State.CANCELLED, turn=None
    )
    found.refresh_from_db()
    return found


def _silent(job: Job) -> bool:
    return job.state == State.WORKING and (
        job.beat_at is None or timezone.now() - job.beat_at > SILENT
    )


def take_up_again() -> int:
    """Hand out again what a worker left half done; how many there were."""
    silent = Q(beat_at=None) | Q(beat_at__lt=timezone.now() - SILENT)
    taken = 0
    for pk in Job.objects.filter(silent, state=State.WORKING).values_list("pk", flat=True):
        with transaction.atomic():
            job = Job.objects.select_for_update().filter(silent, pk=pk, state=State.WORKING).first()
            if job is None:
                continue
            given_up = job.tries >= MOST_TRIES
            job.state, job.turn = (State.FAILED if given_up else State.WAITING), None
            job.words = GAVE_UP if given_up else "Its worker went away; it is begun again."
            job.progress = 0.0
            job.save()
            if not given_up:
                _hand_out(job)
            taken += 1
    return taken
