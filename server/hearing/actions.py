"""Asking for an example, calling it off, hearing it.

The same numbers sound the same, so a studio's example is kept by them: it is rendered once,
whatever the layout is called and however often it is asked for.
"""

from datetime import timedelta

from accounts.models import User
from django.db import transaction
from django.utils import timezone
from plans.actions import layout_for
from ringside.voices.example import Ask
from studios.access import studios_of
from studios.errors import NotThere

from hearing.models import Example
from hearing.tasks import render_example

KEPT_EXAMPLES = 24
"""Of a studio; the oldest go first. One is about two megabytes."""

STALLED = timedelta(seconds=60)
"""A worker that said nothing for so long has gone; the example is given to another."""

State = Example.State


@transaction.atomic
def ask_for(user: User, layout_pk: int, ask: Ask) -> Example:
    """The example of a pair in a layout somebody may see; asked for anew when it is needed."""
    studio = layout_for(user, layout_pk).session.studio
    found, new = Example.objects.select_for_update().get_or_create(
        studio=studio, key=ask.key, defaults={"ask": ask.model_dump(mode="json")}
    )
    if new or _wants_work(found):
        found.state, found.progress = State.WAITING, 0.0
        found.save()
        render_example.defer(example_id=found.pk)
    for old in studio.examples.exclude(pk=found.pk)[KEPT_EXAMPLES - 1 :]:
        old.delete()
    return found


def _wants_work(example: Example) -> bool:
    if example.state in (State.FAILED, State.CANCELLED):
        return True
    quiet = timezone.now() - example.changed_at
    return example.state in (State.WAITING, State.WORKING) and quiet > STALLED


def example_of(user: User, pk: int) -> Example:
    """One of the examples of somebody's studios; NotThere for anybody else's."""
    found = Example.objects.filter(pk=pk, studio__in=studios_of(user)).first()
    if found is None:
        raise NotThere
    return found


def sound_of(user: User, pk: int, version: str) -> bytes:
    """The WAV of one version."""
    found = example_of(user, pk).sounds.filter(version=version).first()
    if found is None:
        raise NotThere
    return bytes(found.wav)


def call_off(user: User, pk: int) -> Example:
    """Nobody waits for it any more; the worker stops at its next step."""
    found = example_of(user, pk)
    Example.objects.filter(pk=pk, state__in=(State.WAITING, State.WORKING)).update(
        state=State.CANCELLED
    )
    found.refresh_from_db()
    return found
