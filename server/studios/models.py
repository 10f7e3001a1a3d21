"""A studio owns rooms, kits and sessions; only its members see them."""

from django.conf import settings
from django.db import models
from ringside.files.stored import KIT, LOCKER, ROOM
from ringside.gear.locker import Locker as LockerDoc
from ringside.plan.kit import Kit as KitDoc
from ringside.plan.room import Room as RoomDoc

from studios.stored import unpacked


class Studio(models.Model):
    """A place of work with its members."""

    name = models.CharField(max_length=80)
    members = models.ManyToManyField(
        settings.AUTH_USER_MODEL, through="Membership", related_name="studios"
    )

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """Somebody's place in a studio."""

    class Role(models.TextChoices):
        """What a member is."""

        OWNER = "owner", "owner"
        MEMBER = "member", "member"

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    role = models.CharField(max_length=8, choices=Role, default=Role.MEMBER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["studio", "user"], name="once_per_studio")]


class Room(models.Model):
    """A room of the studio: the core's Room as JSON."""

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="rooms")
    name = models.CharField(max_length=80)
    box = models.JSONField()

    def room(self) -> RoomDoc:
        """The room as the core knows it; Unreadable when it was kept in no known form."""
        return unpacked(ROOM, self.box, f"The room {self.name!r}")


class Kit(models.Model):
    """A kit of the studio: the core's Kit as JSON."""

    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="kits")
    name = models.CharField(max_length=80)
    doc = models.JSONField()

    def kit(self) -> KitDoc:
        """The kit as the core knows it; Unreadable when it was kept in no known form."""
        return unpacked(KIT, self.doc, f"The kit {self.name!r}")


class Locker(models.Model):
    """What a studio can put up: the core's Locker as JSON, counted up at every save."""

    studio = models.OneToOneField(Studio, on_delete=models.CASCADE, related_name="locker")
    doc = models.JSONField()
    version = models.PositiveIntegerField(default=1)

    def contents(self) -> LockerDoc:
        """The locker as the core knows it; Unreadable when it was kept in no known form."""
        return unpacked(LOCKER, self.doc, "The locker")
