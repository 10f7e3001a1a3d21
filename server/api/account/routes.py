"""Signing up, in and out; the password; the units of display."""

from typing import Any

from accounts import devices
from accounts.elsewhere import from_elsewhere
from accounts.models import User
from axes.handlers.proxy import AxesProxyHandler
from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router
from ninja.errors import HttpError
from ninja.responses import Status
from ringside.files.stored import HAND
from ringside.plan.handsizes import HandSizes
from studios.access import open_studio

from api.account.door import open_door
from api.account.locked import LOCKED
from api.account.schemas import MeOut, PasswordIn, SignIn, SignUp, UnitsIn
from api.common import Problem
from api.shapes import me_out

router = Router(tags=["account"])


PUBLISHED = (
    "This password is published with the demo, so it opens only on the computer Ringside runs on."
    " Sign in there, then use Open on a phone, or choose a password of your own under Account."
)


@router.get("/me", response={200: MeOut, 401: Problem})
def me(request: HttpRequest) -> dict[str, Any]:
    """Who is signed in; a token for what is sent next comes with the answer."""
    get_token(request)
    devices.note(request, request.user)
    return me_out(request.user)


@router.post(
    "/sign-in", auth=open_door, response={200: MeOut, 401: Problem, 403: Problem, 429: Problem}
)
def sign_in(request: HttpRequest, data: SignIn) -> dict[str, Any]:
    """Sign in; after five wrong tries the name rests for a quarter of an hour."""
    if data.password == settings.PUBLISHED_PASSWORD and from_elsewhere(request):
        raise HttpError(403, PUBLISHED)
    known = {"username": data.username}
    if not AxesProxyHandler.is_allowed(request, known):
        raise HttpError(429, LOCKED)
    user = authenticate(request, username=data.username, password=data.password)
    if user is None:
        if not AxesProxyHandler.is_allowed(request, known):
            raise HttpError(429, LOCKED)
        raise HttpError(401, "The name or the password is not right.")
    login(request, user)
    return me_out(user)


@router.post("/sign-up", auth=open_door, response={201: MeOut, 400: Problem})
def sign_up(request: HttpRequest, data: SignUp) -> Status[dict[str, Any]]:
    """A new account and its studio."""
    fresh = User(username=data.username)
    _check_password(data.password, fresh)
    try:
        with transaction.atomic():
            user = User.objects.create_user(data.username, password=data.password)
            open_studio(user, data.studio)
    except IntegrityError:
        raise HttpError(400, "That name is taken; choose another.") from None
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return Status(201, me_out(user))


@router.post("/sign-out", response={204: None})
def sign_out(request: HttpRequest) -> Status[None]:
    """Sign out."""
    logout(request)
    return Status(204, None)


@router.post("/password", response={204: None, 400: Problem})
def password(request: HttpRequest, data: PasswordIn) -> Status[None]:
    """Change the password; other devices are signed out, this one stays."""
    user = request.user
    if not user.check_password(data.old):
        raise HttpError(400, "The old password is not right; nothing was changed.")
    _check_password(data.new, user)
    user.set_password(data.new)
    user.save(update_fields=["password"])
    before = request.session.session_key
    update_session_auth_hash(request, user)
    devices.changed_key(before, request)
    devices.end_others(user, request)
    return Status(204, None)


@router.put("/units", response=MeOut)
def units(request: HttpRequest, data: UnitsIn) -> dict[str, Any]:
    """Choose the units of display."""
    request.user.units = data.units
    request.user.save(update_fields=["units"])
    return me_out(request.user)


@router.put("/hand", response={200: MeOut, 422: Problem})
def hand(request: HttpRequest, data: HandSizes) -> dict[str, Any]:
    """Keep the sizes of one's own hand."""
    request.user.hand = HAND.pack(data)
    request.user.save(update_fields=["hand"])
    return me_out(request.user)


def _check_password(text: str, user: User) -> None:
    if text == settings.PUBLISHED_PASSWORD:
        raise HttpError(400, "That password is published with the demo; choose one of your own.")
    try:
        validate_password(text, user)
    except ValidationError as fault:
        raise HttpError(400, " ".join(fault.messages)) from None
