"""Takes as they are told."""

from typing import Any

from django.http import StreamingHttpResponse
from django.utils.http import content_disposition_header
from takes.models import Take
from takes.packing import Packed


def take_named(take: Take) -> dict[str, Any]:
    """A take by its name, and the layout it is of."""
    return {
        "id": take.pk, "name": take.name, "made_at": take.made_at,
        "layout_id": take.layout_id, "layout": take.layout.name,
    }  # fmt: skip


def packed(parts: Packed, name: str) -> StreamingHttpResponse:
    """A ZIP that is made while it is sent, to be kept under a name."""
    answer = StreamingHttpResponse(parts, content_type="application/zip")
    answer["Content-Disposition"] = content_disposition_header(True, name)
    return answer
