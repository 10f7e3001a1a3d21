"""Edits as answers that are computed, not stored: one door for every kind of edit."""

from django.http import HttpRequest, HttpResponse
from ninja import Router
from ringside.edits.apply import Edit, apply
from ringside.edits.changes import Replaced, changes
from ringside.edits.edited import Edited
from ringside.plan.layout import Layout

from api.common import Problem
from api.edits.schemas import EditIn, TryIn
from api.heavy import work
from api.heavy.pool import heavy
from api.kept import computed
from api.resting import under_hands
from api.told import told

router = Router(tags=["edits"])
WRONG = {400: Problem, 422: Problem}
FEW_READINGS = 12
"""From more on a tape net that does not fit takes too long to work out in place."""


def _made(request: HttpRequest, layout: Layout, edit: Edit) -> Edited:
    if len(layout.kit.readings) > FEW_READINGS:
        return heavy(request, work.apply_edit, layout, edit)
    return apply(layout, edit)


@router.post("/edit", auth=computed, response={200: Edited, **WRONG})
def edit(request: HttpRequest, data: EditIn) -> Edited:
    """A layout with one edit made; nothing is stored."""
    return _made(request, data.layout, data.edit)


@router.post("/edit/try", auth=computed, response={200: list[Replaced], 409: Problem, **WRONG})
def tried(request: HttpRequest, data: TryIn) -> HttpResponse:
    """What one edit would change of a layout, as a JSON Patch (RFC 6902); nothing is stored.

    409: the layout of this name is not known here any more, send it again.
    """
    layout = under_hands.before(request, data).layout
    return told(changes(layout, _made(request, layout, data.edit).layout))
