"""Takes of a layout, and their files as they come in."""

from django.conf import settings
from django.db import models
from plans.models import Layout, TriedLog


class Take(models.Model):
    """Test hits recorded with a layout. `key` is made where it was begun: sent twice it is one."""

    layout = models.ForeignKey(Layout, on_delete=models.CASCADE, related_name="takes")
    key = models.UUIDField()
    name = models.CharField(max_length=80)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    by_name = models.CharField(max_length=150, blank=True)
    """Somebody who is not of this installation."""
    made_at = models.DateTimeField(auto_now_add=True)
    channels = models.JSONField(default=dict)
    """What somebody said: channels by the name of a track, null leaves it out."""
    drums = models.JSONField(default=dict)
    """And drums by the millisecond a stroke begins at."""
    plan = models.JSONField(null=True)
    """The layout as it was when the take was begun; none of takes of before this was kept."""
    truth = models.JSONField(null=True)
    """Of a simulated take: what was set up wrong."""

    class Meta:
        ordering = ["-pk"]
        constraints = [models.UniqueConstraint(fields=["layout", "key"], name="one_take_per_key")]

    @property
    def who(self) -> str:
        """Who recorded it."""
        return self.by.get_username() if self.by else self.by_name


class TakeFile(models.Model):
    """One sound file, in pieces as they came."""

    take = models.ForeignKey(Take, on_delete=models.CASCADE, related_name="files")
    number = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=120)
    size = models.BigIntegerField()
    received = models.BigIntegerField(default=0)
    pieces = models.JSONField(default=list)
    """Where each piece is kept, in order."""

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["take", "number"], name="one_file_per_take")]

    @property
    def whole(self) -> bool:
        """Whether all of it has come."""
        return self.received == self.size


class LineTake(models.Model):
    """The take that a line of the log is about: what was heard can be heard again."""

    line = models.OneToOneField(TriedLog, on_delete=models.CASCADE, related_name="+")
    take = models.ForeignKey(Take, on_delete=models.CASCADE, related_name="lines")
