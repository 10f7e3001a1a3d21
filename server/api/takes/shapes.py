"""Takes as they are told."""

from typing import Any

from takes.models import Take


def take_named(take: Take) -> dict[str, Any]:
    """A take by its name, and the layout it is of."""
    return {
        "id": take.pk, "name": take.name, "made_at": take.made_at,
        "layout_id": take.layout_id, "layout": take.layout.name,
    }  # fmt: skip
