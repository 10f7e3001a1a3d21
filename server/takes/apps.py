"""The takes app."""

from django.apps import AppConfig


class TakesConfig(AppConfig):
    """Settings of the app."""

    name = "takes"

    def ready(self) -> None:
        """Make its kinds of long work known, and how its files go."""
        from django.db.models.signals import post_delete
        from jobs.kinds import add

        from takes.files import forget
        from takes.kinds import COMPARE, MEASURE, RECORD
        from takes.models import TakeFile

        add(MEASURE)
        add(RECORD)
        add(COMPARE)
        post_delete.connect(forget, sender=TakeFile)
