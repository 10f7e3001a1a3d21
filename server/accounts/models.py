"""People, and how they like their numbers shown."""

from django.contrib.auth.models import AbstractUser
from django.db import models
from ringside.errors import LayoutFileError
from ringside.files.stored import HAND
from ringside.plan.handsizes import HandSizes


class User(AbstractUser):
    """Somebody who signs in."""

    class Units(models.TextChoices):
        """Units of display; everything is stored in metres."""

        CM = "cm", "cm"
        FT_IN = "ft-in", "ft-in"
        HAND = "hand", "hand"

    units = models.CharField(max_length=8, choices=Units, default=Units.CM)
    hand = models.JSONField(default=dict, blank=True)

    @property
    def hand_sizes(self) -> HandSizes:
        """The sizes of this person's hand; defaults where nothing readable was measured."""
        try:
            return HAND.unpack(self.hand)
        except LayoutFileError:
            return HandSizes()

    @property
    def hand_fault(self) -> str:
        """Why what was measured cannot be read; empty when it can."""
        try:
            HAND.unpack(self.hand)
        except LayoutFileError as fault:
            return f"Your hand sizes cannot be read ({fault}); usual sizes stand in for them."
        return ""


class Device(models.Model):
    """A browser somebody is signed in with: one of their sessions, so that it can be ended."""

    class Kind(models.TextChoices):
        """What it is, as far as its browser tells."""

        PHONE = "phone", "Phone"
        COMPUTER = "computer", "Computer"

    user = models.ForeignKey(User, models.CASCADE, related_name="devices")
    session_key = models.CharField(max_length=40, unique=True)
    kind = models.CharField(max_length=8, choices=Kind)
    by_link = models.BooleanField(default=False)
    made_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField()

    class Meta:
        ordering = ["-seen_at", "pk"]


class PhoneLink(models.Model):
    """A link that signs one phone in, once, within minutes. Only a digest of its word is kept."""

    user = models.ForeignKey(User, models.CASCADE, related_name="phone_links")
    digest = models.CharField(max_length=64, unique=True)
    leads_to = models.CharField(max_length=200)
    ends_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)
