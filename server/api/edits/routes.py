"""Edits as answers that are computed, not stored: one door for every kind of edit."""

from django.http import HttpRequest
from ninja import Router
from ringside.edits.apply import apply
from ringside.edits.edited import Edited

from api.common import Problem
from api.edits.schemas import EditIn
from api.heavy import work
from api.heavy.pool import heavy
from api.kept import computed

router = Router(tags=["edits"])
FEW_READINGS = 12
"""From more on a tape net that does not fit takes too long to work out in place."""


@router.post("/edit", auth=computed, response={200: Edited, 400: Problem, 422: Problem})
def edit(request: HttpRequest, data: EditIn) -> Edited:
    """A layout with one edit made; nothing is stored."""
    if len(data.layout.kit.readings) > FEW_READINGS:
        return heavy(request, work.apply_edit, data.layout, data.edit)
    return apply(data.layout, data.edit)
