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
