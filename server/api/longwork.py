"""How far long work is, for every topic that has some."""

from typing import Any, Literal

from jobs.models import Job
from ninja import Schema


class JobOut(Schema):
    """Long work on its way; what it made can be fetched when it is done."""

    id: int
    state: Literal["waiting", "working", "done", "failed", "cancelled"]
    progress: float
    words: str


def job_out(job: Job) -> dict[str, Any]:
    """A job as it is told."""
    return {"id": job.pk, "state": job.state, "progress": job.progress, "words": job.words}
