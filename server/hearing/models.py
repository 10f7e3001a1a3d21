"""Examples and their sounds."""

from django.db import models
from studios.models import Studio


class Example(models.Model):
    """What was asked for once by a studio, by the numbers it is made of, and how far it is."""

    class State(models.TextChoices):
        """Where it is on its way."""

        WAITING = "waiting"
        WORKING = "working"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="examples")
    key = models.CharField(max_length=64)
    ask = models.JSONField()
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    progress = models.FloatField(default=0.0)
    asked_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-pk"]
        constraints = [models.UniqueConstraint(fields=["studio", "key"], name="one_per_sound")]


class Sound(models.Model):
    """One version of an example as WAV."""

    example = models.ForeignKey(Example, on_delete=models.CASCADE, related_name="sounds")
    version = models.CharField(max_length=10)
    wav = models.BinaryField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["example", "version"], name="one_per_version")
        ]
