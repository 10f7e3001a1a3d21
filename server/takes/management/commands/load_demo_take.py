"""The demo's take: hits on Layout B as it was set up, one overhead 6 cm off, the bottom of the
snare not flipped. A worker records it, so that nobody waits for it."""

from typing import Any
from uuid import UUID

from accounts.models import User
from django.core.management.base import BaseCommand
from plans.models import Layout
from ringside.recorder.wrong import Moved, Wrong

from takes.actions import record

KEY = UUID("7d3c1a52-9a0f-4c6e-8b1d-5a17f0c0b001")
NAME = "Morning hits, simulated"
SET_UP = Wrong(moved=(Moved(mic="OR", by_m=(0.055, -0.022, -0.012)),))


class Command(BaseCommand):
    """`manage.py load_demo_take`: does nothing when it is there, or its layout is not."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Have it recorded."""
        demo = User.objects.filter(username="demo").first()
        layout = Layout.objects.filter(
            session__studio__members=demo, name="Layout B", deleted_at=None,
            session__deleted_at=None, session__name="Tern & Tallow",
        ).first()  # fmt: skip
        if demo is None or layout is None or layout.takes.exists():
            return
        record(demo, layout.pk, KEY, 1, [], set_up=SET_UP, name=NAME)
        self.stdout.write("the demo's take is being recorded")
