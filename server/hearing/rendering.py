"""What a worker does with an example that was asked for."""

from django.db import transaction
from django.utils import timezone
from ringside.voices.example import Ask, rendered

from hearing.models import Example, Sound

State = Example.State


class CalledOff(Exception):
    """Nobody wants the example any more."""


def work_on(pk: int) -> None:
    """Render an example that waits, telling how far it is; whatever happens is written down."""
    taken = Example.objects.filter(pk=pk, state=State.WAITING).update(
        state=State.WORKING, changed_at=timezone.now()
    )
    if not taken:
        return  # called off, deleted, or in other hands
    example = Example.objects.get(pk=pk)

    def told(share: float) -> None:
        there = Example.objects.filter(pk=pk, state=State.WORKING).update(
            progress=share, changed_at=timezone.now()
        )
        if not there:
            raise CalledOff

    try:
        made = rendered(Ask.model_validate(example.ask), told)
    except CalledOff:
        return
    except Exception:
        Example.objects.filter(pk=pk).update(state=State.FAILED)
        raise
    with transaction.atomic():
        wanted = Example.objects.filter(pk=pk, state=State.WORKING).update(
            state=State.DONE, progress=1.0, changed_at=timezone.now()
        )
        if not wanted:
            return
        Sound.objects.filter(example=example).delete()
        Sound.objects.bulk_create(
            Sound(example=example, version=name, wav=body) for name, body in made.items()
        )
