"""A phone gets there: one-use links with their QR code, and where somebody is signed in."""

from typing import Any

import segno
from accounts import devices, phonelinks
from accounts.elsewhere import from_elsewhere
from accounts.models import PhoneLink
from django.conf import settings
from django.contrib.auth import login
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from ninja.errors import HttpError
from ninja.responses import Status
from plans.actions import layout_for
from plans.errors import NotThere

from api.account.door import open_door
from api.account.schemas import DeviceOut, LinkIn, LinkOut, LinkState, Opened, WordIn
from api.common import Problem
from api.kept import kept
from api.shapes import me_out

router = Router(tags=["account"])
GONE = {404: Problem}
NOT_REACHED = (
    "Ringside answers only on this computer now, so no phone can reach it. Run ./ringside up --lan"
    " on it: it opens Ringside to the studio's own network and says how."
)
USED_UP = (
    "This link was used already, or its ten minutes are over. Choose Open on a phone once more"
    " and read the new code."
)


def _origins(request: HttpRequest) -> list[str]:
    """Where a phone reaches this installation: as this request did, if that was from elsewhere."""
    if from_elsewhere(request):
        return [request.build_absolute_uri("/").rstrip("/")]
    return list(settings.LAN_ADDRESSES)


def _way(origin: str, word: str) -> dict[str, str]:
    # After the #, so that the word is in no log and no referrer.
    url = f"{origin}/on-a-phone#{word}"
    code = segno.make(url, error="m", micro=False)
    picture = code.svg_data_uri(border=4, dark="#000", light="#fff")
    return {"origin": origin, "url": url, "qr": picture}


@router.post("/phone-links", response={201: LinkOut, 400: Problem, **GONE})
def make_link(request: HttpRequest, data: LinkIn) -> Status[dict[str, Any]]:
    """A link that signs one phone in as who asks, once, within ten minutes; then to a layout."""
    layout_for(request.user, data.layout)
    origins = _origins(request)
    if not origins:
        raise HttpError(400, NOT_REACHED)
    link, word = phonelinks.make_link(request.user, f"/layouts/{data.layout}/tape")
    ways = [_way(origin, word) for origin in origins]
    return Status(201, {"id": link.pk, "ends_at": link.ends_at, "ways": ways})


@router.get("/phone-links/{pk}", response={200: LinkState, **GONE})
def link_state(request: HttpRequest, pk: int) -> dict[str, str]:
    """Whether a link still waits for its phone."""
    link = request.user.phone_links.filter(pk=pk).first()
    if link is None:
        raise NotThere
    return {"state": _state(link)}


def _state(link: PhoneLink) -> str:
    if link.used_at is not None:
        return "used"
    return "waiting" if link.ends_at > timezone.now() else "ended"


@router.post("/phone", auth=open_door, response={200: Opened, 410: Problem})
def open_on_phone(request: HttpRequest, data: WordIn) -> dict[str, Any]:
    """Sign this phone in by the word of a link; the word is used up."""
    link = phonelinks.use_link(data.word)
    if link is None:
        raise HttpError(410, USED_UP)
    login(request, link.user, backend="django.contrib.auth.backends.ModelBackend")
    devices.came_by_link(request)
    return {"me": me_out(link.user), "leads_to": link.leads_to}


@router.get("/devices", response=list[DeviceOut])
def devices_here(request: HttpRequest) -> list[dict[str, Any]]:
    """Where one is signed in, the device seen last first."""
    here = devices.note(request, request.user).pk
    return [
        {
            "id": d.pk, "kind": d.kind, "by_link": d.by_link, "made_at": d.made_at,
            "seen_at": d.seen_at, "here": d.pk == here,
        }
        for d in devices.devices_of(request.user)
    ]  # fmt: skip


@router.delete("/devices/{pk}", response={204: None, **GONE})
def end_device(request: HttpRequest, pk: int) -> Status[None]:
    """Sign a device out; what it has not sent yet stays on it."""
    ended = devices.end(request.user, pk)
    if ended is None:
        raise NotThere
    kept.forget(ended)
    return Status(204, None)
