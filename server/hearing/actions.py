"""Asking for an example, calling it off, hearing it."""

from accounts.models import User
from jobs import actions
from jobs.models import Job
from plans.actions import layout_for
from ringside.voices.example import Ask

from hearing.kinds import EXAMPLE


def ask_for(user: User, layout_pk: int, ask: Ask) -> Job:
    """The example of a pair in a layout somebody may see; asked for anew when it is needed."""
    studio = layout_for(user, layout_pk).session.studio
    return actions.ask_for(studio, EXAMPLE.name, ask.key, ask.model_dump(mode="json"))


def example_of(user: User, pk: int) -> Job:
    """One of the examples of somebody's studios; NotThere for anybody else's."""
    return actions.job_of(user, EXAMPLE.name, pk)


def sound_of(user: User, pk: int, version: str) -> bytes:
    """The WAV of one version."""
    return actions.file_of(user, EXAMPLE.name, pk, f"{version}.wav")


def call_off(user: User, pk: int) -> Job:
    """Nobody waits for it any more; the worker stops at its next step."""
    return actions.call_off(user, EXAMPLE.name, pk)
