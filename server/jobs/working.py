"""What a worker does with a job: in its own turn, showing that it lives, whole or not at all."""

import logging
import os
import threading
import time
import uuid
from collections.abc import Iterator
from contextlib import contextmanager

from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.db import DatabaseError, connection
from django.db.models import F
from django.utils import timezone

from jobs.errors import CalledOff, Refused, TooLong
from jobs.kinds import KINDS, Tell
from jobs.models import Job

BEAT_S = 3.0
GRACE_S = 60.0
"""For so long after its time, or after it was called off, work may say nothing. After that it
hangs, and only another worker gets on: this one ends, and the watcher starts one."""

HANGS = 70
"""What a worker ends with that hangs: an internal fault (sysexits.h)."""

log = logging.getLogger("ringside.jobs")
State = Job.State


def work_on(pk: int) -> None:
    """Do a job that waits; whatever happens is written down, and only what is whole is kept."""
    turn = uuid.uuid4()
    taken = Job.objects.filter(pk=pk, state=State.WAITING).update(
        state=State.WORKING, turn=turn, tries=F("tries") + 1, beat_at=timezone.now()
    )
    if not taken:
        return  # called off, deleted, or in other hands
    job = Job.objects.get(pk=pk)
    kind = KINDS[job.kind]
    mine = Job.objects.filter(pk=pk, state=State.WORKING, turn=turn)
    try:
        with _beating(pk, turn, kind.longest_s):
            made = kind.work(job.ask, _teller(pk, turn, kind.longest_s))
    except CalledOff:
        return
    except Refused as fault:
        mine.update(state=State.FAILED, words=str(fault)[:400])
        return
    except TooLong:
        mine.update(state=State.FAILED, words=_too_long(kind.longest_s))
        return
    except Exception:
        mine.update(state=State.FAILED, words="Something went wrong in it; the log says what.")
        raise
    _keep(job, turn, made)


def _keep(job: Job, turn: uuid.UUID, made: dict[str, bytes]) -> None:
    folder = f"jobs/{job.studio_id}/{job.pk}-{turn.hex[:8]}"
    files = {
        name: default_storage.save(f"{folder}/{name}", ContentFile(body))
        for name, body in made.items()
    }
    wanted = Job.objects.filter(pk=job.pk, state=State.WORKING, turn=turn).update(
        state=State.DONE, progress=1.0, files=files, words="", turn=None
    )
    if not wanted:
        for path in files.values():
            default_storage.delete(path)


def _teller(pk: int, turn: uuid.UUID, longest_s: float) -> Tell:
    until = time.monotonic() + longest_s

    def tell(share: float) -> None:
        if time.monotonic() > until:
            raise TooLong
        there = Job.objects.filter(pk=pk, state=State.WORKING, turn=turn).update(
            progress=share, beat_at=timezone.now()
        )
        if not there:
            raise CalledOff

    return tell


def _too_long(longest_s: float) -> str:
    return f"It took longer than {longest_s:.0f} s and was stopped."


@contextmanager
def _beating(pk: int, turn: uuid.UUID, longest_s: float) -> Iterator[None]:
    """Show that this worker lives, also while the work says nothing; but not for ever."""
    done = threading.Event()
    mine = Job.objects.filter(pk=pk, turn=turn)

    def beat() -> None:
        until = time.monotonic() + longest_s
        while not done.wait(BEAT_S):
            now = time.monotonic()
            try:
                if not mine.update(beat_at=timezone.now()):
                    until = min(until, now)  # called off, or in other hands
                if now > until + GRACE_S:
                    mine.update(state=State.FAILED, words=_too_long(longest_s), turn=None)
            except DatabaseError:
                log.warning("job %d: no beat, the database does not answer", pk)
            finally:
                connection.close()
            if now > until + GRACE_S:
                log.error("job %d hangs; this worker ends, and with it the job", pk)
                _leave()
                return

    thread = threading.Thread(target=beat, daemon=True)
    thread.start()
    try:
        yield
    finally:
        done.set()
        thread.join()


def _leave() -> None:
    os._exit(HANGS)
