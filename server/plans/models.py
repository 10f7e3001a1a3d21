"""Sessions, their layouts, and every state a layout has been in."""

from django.conf import settings
from django.db import models
from ringside.plan.layout import Layout as LayoutDoc
from studios.models import Room, Studio


class Session(models.Model):
    """A recording session: a name, a place, and layouts to choose from."""

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="sessions")
    name = models.CharField(max_length=80)
    place = models.CharField(max_length=120, blank=True)
    room = models.ForeignKey(Room, on_delete=models.SET_NULL, null=True, blank=True)
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)


class Layout(models.Model):
    """One layout of a session. `head` is the state it is in; states after it can be redone."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="layouts")
    name = models.CharField(max_length=80)
    version = models.PositiveIntegerField(default=1)
    head = models.PositiveIntegerField(default=1)
    summary = models.JSONField(default=dict)
    changed_at = models.DateTimeField(auto_now=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]

    @property
    def state(self) -> "Revision":
        """The revision the layout is in."""
        return self.revisions.get(number=self.head)

    def doc(self) -> LayoutDoc:
        """The layout as the core knows it."""
        return LayoutDoc.model_validate(self.state.doc)


class Revision(models.Model):
    """One saved state of a layout, with what was done, by whom and when."""

    layout = models.ForeignKey(Layout, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    doc = models.JSONField()
    what = models.CharField(max_length=120)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["layout", "number"], name="one_per_number")]


class LugLog(models.Model):
    """One reading of a drum's lugs on the day: the core's LugReading in columns."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="lug_log")
    drum = models.CharField(max_length=16)
    lugs_hz = models.JSONField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    at = models.DateTimeField()

    class Meta:
        ordering = ["at", "pk"]


class SpotLog(models.Model):
    """One place of the kit that was tried by ear."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="spot_log")
    room = models.CharField(max_length=80)
    x_m = models.FloatField()
    y_m = models.FloatField()
    turn_rad = models.FloatField(default=0.0)
    rating = models.PositiveSmallIntegerField()
    words = models.CharField(max_length=400, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at", "-pk"]
