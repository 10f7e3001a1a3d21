"""Edits as answers that are computed, not stored: one door for every kind of edit."""

from django.http import HttpRequest
from ninja import Router
from ringside.edits.apply import apply
from ringside.edits.edited import Edited

from api.common import Problem
from api.edits.schemas import EditIn

router = Router(tags=["edits"])


@router.post("/edit", response={200: Edited, 400: Problem, 422: Problem})
def edit(request: HttpRequest, data: EditIn) -> Edited:
    """A layout with one edit made; nothing is stored."""
    return apply(data.layout, data.edit)
