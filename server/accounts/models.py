"""People, and how they like their numbers shown."""

from django.contrib.auth.models import AbstractUser
from django.db import models


class User(AbstractUser):
    """Somebody who signs in."""

    class Units(models.TextChoices):
        """Units of display; everything is stored in metres."""

        CM = "cm", "cm"
        FT_IN = "ft-in", "ft-in"

    units = models.CharField(max_length=8, choices=Units, default=Units.CM)
