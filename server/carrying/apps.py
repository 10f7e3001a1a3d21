"""The carrying app."""

from django.apps import AppConfig


class CarryingConfig(AppConfig):
    """Settings of the app."""

    name = "carrying"

    def ready(self) -> None:
        """Make its kinds of long work known."""
        from jobs.kinds import add

        from carrying.actions import ARCHIVE, READ_IN

        add(ARCHIVE)
        add(READ_IN)
