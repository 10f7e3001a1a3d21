"""The hearing app."""

from django.apps import AppConfig


class HearingConfig(AppConfig):
    """Settings of the app."""

    name = "hearing"

    def ready(self) -> None:
        """Make its kind of long work known."""
        from jobs.kinds import add

        from hearing.kinds import EXAMPLE

        add(EXAMPLE)
