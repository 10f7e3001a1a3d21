"""Long work as a studio asked for it."""

from typing import Any

from django.core.files.storage import default_storage
from django.db import models
from django.db.models.signals import post_delete
from django.dispatch import receiver
from studios.models import Studio


class Job(models.Model):
    """A piece of long work, by what it is made from, and how far it is.

    `turn` names the try that is under way, so that a worker thought dead that comes back changes
    nothing; `beat_at` is when that worker last showed that it lives. `files` holds what was made:
    where each is kept in Django's storage, by name.
    """

    class State(models.TextChoices):
        """Where it is on its way."""

        WAITING = "waiting"
        WORKING = "working"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=24)
    key = models.CharField(max_length=64)
    ask = models.JSONField()
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    progress = models.FloatField(default=0.0)
    words = models.CharField(max_length=400, blank=True)
    tries = models.PositiveSmallIntegerField(default=0)
    turn = models.UUIDField(null=True)
    beat_at = models.DateTimeField(null=True)
    files = models.JSONField(default=dict)
    asked_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        constraints = [
            models.UniqueConstraint(fields=["studio", "kind", "key"], name="once_by_its_numbers")
        ]


@receiver(post_delete, sender=Job)
def _without_files(sender: type[Job], instance: Job, **_: Any) -> None:
    for path in instance.files.values():
        default_storage.delete(path)
