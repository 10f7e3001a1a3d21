"""What a worker does with a job: in its own turn, showing that it lives, whole or not at all."""

import logging
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
        with _beating(pk, turn):
            made = kind.work(job.ask, _teller(pk, turn, kind.longest_s))
    except CalledOff:
        return
    except Refused as fault:
        mine.update(state=State.FAILED, words=str(fault)[:400])
        return
    except TooLong:
        words = f"It took longer than {kind.longest_s:.0f} s and was stopped."
        mine.update(state=State.FAILED, words=words)
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


@contextmanager
def _beating(pk: int, turn: uuid.UUID) -> Iterator[None]:
    """Show that this worker lives, also while the work says nothing for a while."""
    done = threading.Event()

    def beat() -> None:
        while not done.wait(BEAT_S):
            try:
                Job.objects.filter(pk=pk, turn=turn).update(beat_at=timezone.now())
            except DatabaseError:
                log.warning("job %d: no beat, the database does not answer", pk)
            finally:
                connection.close()

    thread = threading.Thread(target=beat, daemon=True)
    thread.start()
    try:
        yield
    finally:
        done.set()
        thread.join()
