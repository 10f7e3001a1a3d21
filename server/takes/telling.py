"""What was told of takes when they were measured."""

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from accounts.models import User
from jobs import actions as jobs
from jobs.models import Job
from plans.actions import layout_for
from plans.errors import NotThere
from plans.models import Layout
from pydantic import TypeAdapter
from ringside.files.stored import LAYOUT
from ringside.takes.heardpairs import PairTold
from ringside.worklist.settled import Settled, SettledPair
from studios.errors import Unreadable
from studios.stored import unpacked

from takes.access import take_for
from takes.kinds import MEASURE, TOLD
from takes.models import Take

EDITION = 8
"""Counts up when the same files would be told otherwise."""

PAIRS = TypeAdapter(list[PairTold])


def told_of(user: User, take_pk: int, job_pk: int, name: str) -> bytes:
    """A file that measuring a take made."""
    take_for(user, take_pk)
    job = jobs.job_of(user, MEASURE.name, job_pk)
    if job.ask.get("take") != take_pk:
        raise NotThere
    return jobs.file_of(user, MEASURE.name, job_pk, name)


@dataclass(frozen=True, slots=True)
class LastHeard:
    """What the newest take that was measured says of the pairs of its layout."""

    take: int
    name: str
    made_at: datetime
    current: bool
    """Of the layout as it is planned now; else of an earlier state of it."""
    pairs: list[PairTold]


def last_heard(user: User, layout_pk: int) -> LastHeard | None:
    """The newest take of a layout that was measured, or None.

    Its newest measurement is told: asked for again it may be of another state of the layout.
    """
    layout = layout_for(user, layout_pk)
    found = _newest(layout)
    if found is None:
        return None
    take, job = found
    return LastHeard(take.pk, take.name, take.made_at, job.ask["layout"] == layout.state.doc,
                     PAIRS.validate_python(_pairs(user, job)))  # fmt: skip


def settled_of(user: User, layout_pk: int) -> Settled | None:
    """What the newest take that was measured has settled of a layout, for its list; or None."""
    found = _newest(layout_for(user, layout_pk))
    if found is None or found[0].plan is None:
        return None
    take, job = found
    try:
        told = _pairs(user, job)
        recorded = unpacked(LAYOUT, take.plan, "The layout")
        measured = unpacked(LAYOUT, job.ask["layout"], "The layout")
    except (NotThere, Unreadable):
        return None  # what is lost of a take is no reason to have no list
    pairs = tuple(
        SettledPair(p["a"], p["b"], p["source"], p["alike"]) for p in told if p["settled"]
    )
    return Settled(take.name, recorded, measured, pairs) if pairs else None


def _newest(layout: Layout) -> tuple[Take, Job] | None:
    # What an older program told may lack what is told now.
    done = Job.objects.filter(
        studio=layout.session.studio, kind=MEASURE.name, state=Job.State.DONE, ask__edition=EDITION
    ).order_by("-pk")
    for take in layout.takes.all():
        for job in done.filter(ask__take=take.pk):
            if not job.ask.get("as_if"):
                return take, job
    return None


def _pairs(user: User, job: Job) -> list[dict[str, Any]]:
    told = json.loads(jobs.file_of(user, MEASURE.name, job.pk, TOLD))
    pairs: list[dict[str, Any]] = told["pairs"]
    return pairs
