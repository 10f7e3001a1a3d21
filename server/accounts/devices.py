"""Which browsers somebody is signed in with, and ending one of them."""

from importlib import import_module

from django.conf import settings
from django.contrib.auth.signals import user_logged_in, user_logged_out
from django.contrib.sessions.models import Session
from django.http import HttpRequest
from django.utils import timezone

from accounts.models import Device, User

engine = import_module(settings.SESSION_ENGINE)


def kind_of(agent: str) -> str:
    """Phone or computer, by the word that browsers of phones carry."""
    return Device.Kind.PHONE if "Mobi" in agent else Device.Kind.COMPUTER


def note(request: HttpRequest, user: User) -> Device:
    """This request's session is one of the user's devices, seen now."""
    if not request.session.session_key:
        request.session.save()  # its key is made when it is first stored
    now = timezone.now()
    device, _ = Device.objects.update_or_create(
        session_key=request.session.session_key,
        defaults={"user": user, "seen_at": now},
        create_defaults={
            "user": user, "seen_at": now, "kind": kind_of(request.headers.get("User-Agent", "")),
        },
    )  # fmt: skip
    return device


def devices_of(user: User) -> list[Device]:
    """Where somebody is signed in, the one seen last first; what has ended is forgotten."""
    keys = user.devices.values_list("session_key", flat=True)
    alive = Session.objects.filter(
        session_key__in=list(keys), expire_date__gt=timezone.now()
    ).values_list("session_key", flat=True)
    user.devices.exclude(session_key__in=list(alive)).delete()
    return list(user.devices.all())


def end(user: User, pk: int) -> str | None:
    """Sign one of somebody's devices out; the key of its session, None when it is not theirs."""
    device = user.devices.filter(pk=pk).first()
    if device is None:
        return None
    engine.SessionStore(device.session_key).delete()
    device.delete()
    return device.session_key


def came_by_link(request: HttpRequest) -> None:
    """This request's device was let in by a link."""
    Device.objects.filter(session_key=request.session.session_key).update(by_link=True)


def changed_key(old: str, request: HttpRequest) -> None:
    """The same device goes on under another key, as after a new password."""
    Device.objects.filter(session_key=old).update(session_key=request.session.session_key)


def end_others(user: User, request: HttpRequest) -> None:
    """Every other device of somebody is signed out, as a new password does by itself."""
    for device in user.devices.exclude(session_key=request.session.session_key):
        end(user, device.pk)


def _signed_in(request: HttpRequest, user: User, **_: object) -> None:
    note(request, user)


def _signed_out(request: HttpRequest, **_: object) -> None:
    Device.objects.filter(session_key=request.session.session_key).delete()


user_logged_in.connect(_signed_in, dispatch_uid="devices")
user_logged_out.connect(_signed_out, dispatch_uid="devices")
