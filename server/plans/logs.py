"""What is written down on the day: lug readings, and spots of the kit tried by ear."""

from datetime import datetime
from typing import Any, TypeVar
from uuid import UUID

from accounts.models import User
from django.db.models import Q, QuerySet
from django.utils import timezone
from ringside.hear.tuning import LugReading, tuning_report
from ringside.plan.kit import Kit
from ringside.survey.readings import not_in

from plans.actions import session_for
from plans.errors import NotThere
from plans.models import Happened, LugLog, Session, SpotLog, TapeLog

H = TypeVar("H", bound=Happened)


def write_once(model: type[H], session: Session, key: UUID | None, values: dict[str, Any]) -> H:
    """A row of the log; one that was sent before under the same key is there already."""
    if key is None:
        return model._default_manager.create(session=session, **values)
    return model._default_manager.get_or_create(session=session, key=key, defaults=values)[0]


def _strike(rows: QuerySet[Any], user: User, pk: int) -> None:
    """Strike a row out; one that is struck out already stays as it was."""
    if not rows.filter(pk=pk).exists():
        raise NotThere
    rows.filter(pk=pk, struck_at=None).update(struck_at=timezone.now(), struck_by=user)


def lug_readings(user: User, session_pk: int) -> list[LugLog]:
    """The lug readings of a session, oldest first."""
    rows = session_for(user, session_pk).lug_log.filter(struck_at=None)
    return list(rows.select_related("by"))


def write_lugs(
    user: User, session_pk: int, drum: str, lugs_hz: list[float], at: datetime | None = None,
    key: UUID | None = None,
) -> LugLog:  # fmt: skip
    """One more reading, once for each key; the core's record checks it."""
    session, when = session_for(user, session_pk), at or timezone.now()
    checked = LugReading(drum=drum, at=when.isoformat(), lugs_hz=tuple(lugs_hz))
    values = {"drum": checked.drum, "lugs_hz": list(checked.lugs_hz), "by": user, "at": when}
    return write_once(LugLog, session, key, values)


def drop_lugs(user: User, session_pk: int, pk: int) -> None:
    """Strike a reading out."""
    _strike(session_for(user, session_pk).lug_log.all(), user, pk)


def write_tape(
    user: User, session_pk: int, a: str, b: str | None, metres: float, key: UUID | None = None
) -> TapeLog:
    """One more tape reading at the session's kit, once for each key."""
    session = session_for(user, session_pk)
    return write_once(TapeLog, session, key, {"a": a, "b": b, "metres": metres, "by": user})


def tape_of(user: User, session_pk: int) -> list[TapeLog]:
    """Every tape reading of a session, struck out or not, oldest first."""
    return list(session_for(user, session_pk).tape_log.select_related("by", "struck_by"))


def strike_tape(user: User, session_pk: int, a: str, b: str | None) -> int:
    """Strike out what was read between two ends; how many there were."""
    rows = session_for(user, session_pk).tape_log.filter(struck_at=None)
    between = rows.filter(Q(a=a, b=b) | Q(a=b, b=a)) if b else rows.filter(a=a, b=None)
    return between.update(struck_at=timezone.now(), struck_by=user)


def tape_elsewhere(user: User, session_pk: int, kit: Kit) -> list[TapeLog]:
    """What was read at the session's kit and this layout's does not stand on."""
    rows = [r for r in tape_of(user, session_pk) if r.struck_at is None]
    return [rows[n] for n in not_in(kit, [(r.a, r.b, r.metres) for r in rows])]


def tuning_of(user: User, session_pk: int, kit: Kit) -> dict[str, Any]:
    """Notes, spread and drift of a kit by the session's readings, and the readings."""
    rows = lug_readings(user, session_pk)
    readings = [
        LugReading(drum=r.drum, at=r.at.isoformat(), lugs_hz=tuple(r.lugs_hz)) for r in rows
    ]
    log = [
        {"id": r.pk, "drum": r.drum, "at": r.at, "lugs_hz": r.lugs_hz,
         "by": r.who}
        for r in rows
    ]  # fmt: skip
    told = tuning_report(kit, readings, timezone.now())
    return {
        "drums": told.drums, "steps": told.steps, "spread_words": told.spread_words,
        "drift": told.drift, "log": log,
    }  # fmt: skip


def spots_of(user: User, session_pk: int) -> list[SpotLog]:
    """The spots tried in a session, newest first."""
    rows = session_for(user, session_pk).spot_log.filter(struck_at=None)
    return list(rows.select_related("by"))


def write_spot(user: User, session_pk: int, **values: Any) -> SpotLog:
    """One more spot tried by ear, once for each `key` among the values."""
    key = values.pop("key", None)
    return write_once(SpotLog, session_for(user, session_pk), key, {**values, "by": user})


def drop_spot(user: User, session_pk: int, pk: int) -> None:
    """Strike a spot out."""
    _strike(session_for(user, session_pk).spot_log.all(), user, pk)
