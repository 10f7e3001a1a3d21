"""What is written down on the day: lug readings, and spots of the kit tried by ear."""

from datetime import datetime
from typing import Any

from accounts.models import User
from django.utils import timezone
from ringside.hear.tuning import LugReading, tuning_report
from ringside.plan.kit import Kit

from plans.actions import session_for
from plans.errors import NotThere
from plans.models import LugLog, SpotLog


def lug_readings(user: User, session_pk: int) -> list[LugLog]:
    """The lug readings of a session, oldest first."""
    return list(session_for(user, session_pk).lug_log.select_related("by"))


def write_lugs(
    user: User, session_pk: int, drum: str, lugs_hz: list[float], at: datetime | None = None
) -> LugLog:
    """One more reading; the core's record checks it."""
    session, when = session_for(user, session_pk), at or timezone.now()
    checked = LugReading(drum=drum, at=when.isoformat(), lugs_hz=tuple(lugs_hz))
    return LugLog.objects.create(
        session=session, drum=checked.drum, lugs_hz=list(checked.lugs_hz), by=user, at=when
    )


def drop_lugs(user: User, session_pk: int, pk: int) -> None:
    """Without a reading."""
    found = session_for(user, session_pk).lug_log.filter(pk=pk).first()
    if found is None:
        raise NotThere
    found.delete()


def tuning_of(user: User, session_pk: int, kit: Kit) -> dict[str, Any]:
    """Notes, spread and drift of a kit by the session's readings, and the readings."""
    rows = lug_readings(user, session_pk)
    readings = [
        LugReading(drum=r.drum, at=r.at.isoformat(), lugs_hz=tuple(r.lugs_hz)) for r in rows
    ]
    log = [
        {"id": r.pk, "drum": r.drum, "at": r.at, "lugs_hz": r.lugs_hz,
         "by": r.by.get_username() if r.by else ""}
        for r in rows
    ]  # fmt: skip
    told = tuning_report(kit, readings, timezone.now())
    return {
        "drums": told.drums, "steps": told.steps, "spread_words": told.spread_words,
        "drift": told.drift, "log": log,
    }  # fmt: skip


def spots_of(user: User, session_pk: int) -> list[SpotLog]:
    """The spots tried in a session, newest first."""
    return list(session_for(user, session_pk).spot_log.select_related("by"))


def write_spot(user: User, session_pk: int, **values: Any) -> SpotLog:
    """One more spot tried by ear."""
    return SpotLog.objects.create(session=session_for(user, session_pk), by=user, **values)


def drop_spot(user: User, session_pk: int, pk: int) -> None:
    """Without a spot."""
    found = session_for(user, session_pk).spot_log.filter(pk=pk).first()
    if found is None:
        raise NotThere
    found.delete()
