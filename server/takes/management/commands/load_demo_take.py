"""The demo's takes: hits on Layout B with its overheads low, as the log has it, then as it was set
up, one overhead 6 cm off. A worker records them, so that nobody waits for them."""

from itertools import zip_longest
from typing import Any
from uuid import UUID

from accounts.models import User
from django.core.management.base import BaseCommand
from plans.models import Layout
from ringside.recorder.wrong import Moved, Wrong

from takes.actions import record

LOW_KEY = UUID("7d3c1a52-9a0f-4c6e-8b1d-5a17f0c0b002")
LOW = Wrong(moved=tuple(Moved(mic=m, by_m=(0.0, 0.0, -0.2)) for m in ("OL", "OR")))
KEY = UUID("7d3c1a52-9a0f-4c6e-8b1d-5a17f0c0b001")
SET_UP = Wrong(moved=(Moved(mic="OR", by_m=(0.055, -0.022, -0.012)),))
TAKES = ((LOW_KEY, 2, LOW, "Overheads low, simulated"),
         (KEY, 1, SET_UP, "Morning hits, simulated"))  # fmt: skip
"""The oldest first, each of a line of the log."""


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
        lines = layout.tried_log.order_by("at").values_list("pk", flat=True)
        for line, (key, seed, set_up, name) in zip_longest(lines[:2], TAKES):
            record(demo, layout.pk, key, seed, [], set_up=set_up, name=name, line=line)
        self.stdout.write("the demo's takes are being recorded")
