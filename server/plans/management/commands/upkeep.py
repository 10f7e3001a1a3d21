"""Hand to the worker what wants doing after a new version was put in."""

from contextlib import suppress
from typing import Any

from django.core.management.base import BaseCommand
from procrastinate.exceptions import AlreadyEnqueued

from plans.tasks import renew_summaries
from plans.upkeep import stale


class Command(BaseCommand):
    """`manage.py upkeep`: quick, and harmless when nothing wants doing."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Have old summaries made anew."""
        old = stale()
        if old:
            with suppress(AlreadyEnqueued):
                renew_summaries.defer()
        self.stdout.write(f"{old} summaries to make anew")
