"""Sessions, their layouts, and every state a layout has been in."""

import re

from django.conf import settings
from django.db import models
from ringside.files.stored import LAYOUT
from ringside.plan.layout import Layout as LayoutDoc
from ringside.standing.entries import Entry
from studios.models import Room, Studio
from studios.stored import unpacked


def _file_name(words: str, otherwise: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", words.lower()).strip("-") or otherwise


class Session(models.Model):
    """A recording session: a name, a place, and layouts to choose from."""

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="sessions")
    name = models.CharField(max_length=80)
    place = models.CharField(max_length=120, blank=True)
    room = models.ForeignKey(Room, on_delete=models.SET_NULL, null=True, blank=True)
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    shown: "list[Layout] | None" = None
    """Its first layouts, where they were fetched with it."""

    layouts_in_all: int | None = None

    @property
    def file_name(self) -> str:
        """What a file of it is called, without an ending: letters, digits and hyphens."""
        return _file_name(self.name, "session")

    class Meta:
        indexes = [
            models.Index(
                fields=["studio", "-id"], condition=models.Q(deleted_at=None), name="newest_first"
            )
        ]


class Layout(models.Model):
    """One layout of a session. `head` is the state it is in; states after it can be redone.

    `rules` says by which rules its summary was made; `step_key` names the last undo or redo.
    """

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="layouts")
    name = models.CharField(max_length=80)
    version = models.PositiveIntegerField(default=1)
    head = models.PositiveIntegerField(default=1)
    summary = models.JSONField(default=dict)
    rules = models.PositiveIntegerField(default=0)
    step_key = models.UUIDField(null=True)
    changed_at = models.DateTimeField(auto_now=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]

    @property
    def state(self) -> "Revision":
        """The revision the layout is in."""
        return self.revisions.get(number=self.head)

    @property
    def file_name(self) -> str:
        """What a file of it is called, without an ending: letters, digits and hyphens."""
        return _file_name(f"{self.session.name} {self.name}", "layout")

    def doc(self, state: "Revision | None" = None) -> LayoutDoc:
        """The layout as the core knows it, in its state, or in one that was fetched before.

        Unreadable when it was kept in no known form.
        """
        return unpacked(LAYOUT, (state or self.state).doc, f"The layout {self.name!r}")


class Revision(models.Model):
    """One saved state of a layout, with what was done, by whom and when.

    `by_name` names somebody who is not of this installation.
    """

    layout = models.ForeignKey(Layout, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    doc = models.JSONField()
    what = models.CharField(max_length=120)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    at = models.DateTimeField(auto_now_add=True)
    key = models.UUIDField(null=True)
    by_name = models.CharField(max_length=150, blank=True)

    # As `plans.actions.state_of` finds it.
    can_undo: bool
    redo_what: str | None

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["layout", "number"], name="one_per_number"),
            models.UniqueConstraint(fields=["layout", "key"], name="one_per_save"),
        ]


class Happened(models.Model):
    """What was done on the day, written down once and struck out rather than deleted.

    `key` is made where it was written, so that what is sent twice is kept once.
    """

    key = models.UUIDField(null=True)
    by = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+"
    )
    by_name = models.CharField(max_length=150, blank=True)
    struck_at = models.DateTimeField(null=True, blank=True)
    struck_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+"
    )

    @property
    def who(self) -> str:
        """Who wrote it down."""
        return self.by.get_username() if self.by else self.by_name

    class Meta:
        abstract = True
        constraints = [
            models.UniqueConstraint(fields=["session", "key"], name="%(class)s_written_once")
        ]


class LugLog(Happened):
    """One reading of a drum's lugs on the day: the core's LugReading in columns."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="lug_log")
    drum = models.CharField(max_length=16)
    lugs_hz = models.JSONField()
    at = models.DateTimeField()

    class Meta(Happened.Meta):
        ordering = ["at", "pk"]


class SpotLog(Happened):
    """One place of the kit that was tried by ear."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="spot_log")
    room = models.CharField(max_length=80)
    x_m = models.FloatField()
    y_m = models.FloatField()
    turn_rad = models.FloatField(default=0.0)
    rating = models.PositiveSmallIntegerField()
    words = models.CharField(max_length=400, blank=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta(Happened.Meta):
        ordering = ["-at", "-pk"]


class TapeLog(Happened):
    """One tape reading at the kit: between two parts, or (`b` null) from the floor up to one."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="tape_log")
    a = models.CharField(max_length=16)
    b = models.CharField(max_length=16, null=True)
    metres = models.FloatField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta(Happened.Meta):
        ordering = ["pk"]


class StandLog(Happened):
    """One line of the log at the kit of a layout: the core's Entry in columns."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="stand_log")
    layout = models.ForeignKey(Layout, on_delete=models.CASCADE, related_name="stand_log")
    what = models.CharField(max_length=8)
    mic = models.CharField(max_length=16)
    to = models.CharField(max_length=16, null=True)
    metres = models.FloatField(null=True)
    like = models.CharField(max_length=16, null=True)
    cord = models.CharField(max_length=8, null=True)

    def entry(self) -> Entry:
        """As the core's record."""
        return Entry(
            key=str(self.key), what=self.what, mic=self.mic, to=self.to, metres=self.metres,
            like=self.like, cord=self.cord, at=self.at,
        )  # fmt: skip

    at = models.DateTimeField(auto_now_add=True)

    class Meta(Happened.Meta):
        ordering = ["pk"]


class TriedLog(Happened):
    """One line of what was tried and heard, with the layout as it was then.

    The layout is kept whole in the line: a line that comes hours late, from a phone that had no
    network, is still of what was heard. `since` is what had changed since the line before
    it that counts; `stood` says that the layout is as it stood by the tape, not as it was planned.
    """

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="tried_log")
    layout = models.ForeignKey(Layout, on_delete=models.CASCADE, related_name="tried_log")
    song = models.CharField(max_length=80, blank=True)
    words = models.CharField(max_length=1000, blank=True)
    verdict = models.CharField(max_length=8)
    stood = models.BooleanField(default=False)
    kept = models.JSONField()
    since = models.JSONField(default=list)
    at = models.DateTimeField()

    def doc(self) -> LayoutDoc:
        """The layout as it was; Unreadable when it was kept in no known form."""
        return unpacked(LAYOUT, self.kept, "The layout of this line")

    class Meta(Happened.Meta):
        ordering = ["-at", "-pk"]


class Meter(models.Model):
    """A distance meter that may send readings for one layout, and the last it sent.

    Only a digest of its word is kept. A new one for the layout takes its place.
    """

    layout = models.OneToOneField(Layout, on_delete=models.CASCADE, related_name="meter")
    digest = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    last_key = models.UUIDField(null=True)
    last_metres = models.FloatField(null=True)
    last_at = models.DateTimeField(null=True)
