"""Load the demo once: the quartet Tern & Tallow at Saltpan House, an old salt store."""

import json
from datetime import timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

from accounts.models import User
from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone
from ringside.files.layout import read_layout
from ringside.files.locker import read_locker
from ringside.files.stored import KIT, LOCKER, ROOM
from ringside.gear.locker import Locker as LockerDoc
from ringside.standing.entries import Entry
from studios.access import open_studio
from studios.models import Kit, Locker, Membership, Room

from plans.actions import add_layout
from plans.atkit import write_entry
from plans.logs import write_lugs, write_spot
from plans.models import Session
from plans.tried import Line, write_line

DEMO = Path(settings.ROOT) / "demo"


HOUSE = LockerDoc(budget=120.0, minutes=90)
"""What the demo studio allows itself for a day; its things are in demo/locker.csv."""


def _day(session: Session, user: User) -> None:
    """What was written down on the day: lug readings of some hours ago, and spots tried."""
    day = json.loads((DEMO / "day.json").read_text())
    now = timezone.now()
    for row in day["lugs"]:
        at = now - timedelta(hours=row["hours_ago"])
        write_lugs(user, session.pk, row["drum"], row["lugs_hz"], at)
    for row in day["spots"]:
        write_spot(user, session.pk, **row)


def _at_kit(session: Session, user: User) -> None:
    """What was ticked and read at the kit of the second layout: one reading of it is wrong."""
    layout = session.layouts.all()[1]
    for row in json.loads((DEMO / "day.json").read_text())["at_kit"]:
        write_entry(user, layout.pk, Entry(key=str(uuid4()), **row))


def _tried(session: Session, user: User) -> None:
    """What was tried on the second layout and what it did; mics stood so far off the plan then."""
    layout = session.layouts.all()[1]
    now, plan = timezone.now(), layout.doc()
    for row in json.loads((DEMO / "day.json").read_text())["tried"]:
        doc = plan
        for mic in plan.mics:
            off = row["off_m"].get(mic.id, (0.0, 0.0, 0.0))
            at = tuple(a + b for a, b in zip(mic.position_m, off, strict=True))
            doc = doc.with_mic(mic.model_copy(update={"position_m": at}))
        at_hour = now - timedelta(hours=row["hours_ago"])
        said = {k: row[k] for k in ("song", "words", "verdict")}
        line = Line(**said, doc=doc, at=at_hour)
        write_line(user, layout.pk, line, uuid4())


class Command(BaseCommand):
    """`manage.py load_demo`: does nothing when the demo is there."""

    help = __doc__

    def add_arguments(self, parser: Any) -> None:
        """The demo's password."""
        parser.add_argument("--password", required=True)

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Make the people, the studio and its session."""
        if User.objects.filter(username="demo").exists():
            self.stdout.write("the demo is already there")
            return
        demo = User.objects.create_user("demo", password=options["password"])
        second = User.objects.create_user("assistant", password=options["password"])
        studio = open_studio(demo, "Saltpan House")
        Membership.objects.create(studio=studio, user=second, role=Membership.Role.MEMBER)
        docs = [read_layout(p.read_bytes()) for p in sorted(DEMO.glob("*.layout.json"))]
        box = ROOM.pack(docs[0].room) if docs[0].room else {}
        room = Room.objects.create(studio=studio, name=box["name"], box=box)
        Kit.objects.create(studio=studio, name="House five-piece", doc=KIT.pack(docs[0].kit))
        session = Session.objects.create(
            studio=studio, name="Tern & Tallow", place="Salt store, day one", room=room
        )
        for doc in docs:
            add_layout(session, doc, demo, "made")
        locker, faults = read_locker((DEMO / "locker.csv").read_bytes(), HOUSE)
        assert not faults, faults
        Locker.objects.create(studio=studio, doc=LOCKER.pack(locker))
        _day(session, demo)
        _at_kit(session, demo)
        _tried(session, demo)
        self.stdout.write(f"{len(docs)} layouts")
