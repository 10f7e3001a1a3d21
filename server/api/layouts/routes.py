"""Layouts: read, save with a version, undo, redo, copy, delete with a way back."""

from typing import Any

from django.http import HttpRequest
from ninja import Router
from ninja.responses import Status
from plans import actions

from api.common import Problem
from api.layouts.schemas import ConflictOut, CopyIn, LayoutOut, LayoutSave, VersionIn
from api.shapes import layout_out

router = Router(tags=["layouts"])
CHANGED = {200: LayoutOut, 400: Problem, 404: Problem, 409: ConflictOut, 422: Problem}


@router.get("/{pk}", response={200: LayoutOut, 404: Problem})
def one(request: HttpRequest, pk: int) -> dict[str, Any]:
    """A layout in full."""
    return layout_out(actions.layout_for(request.user, pk))


@router.put("/{pk}", response=CHANGED)
def save(request: HttpRequest, pk: int, data: LayoutSave) -> dict[str, Any]:
    """Save a new state; an older version is answered with both states, never overwritten."""
    made = (data.version, data.doc, data.what, data.key)
    return layout_out(actions.save_layout(request.user, pk, *made))


@router.post("/{pk}/undo", response=CHANGED)
def undo(request: HttpRequest, pk: int, data: VersionIn) -> dict[str, Any]:
    """One state back."""
    return layout_out(actions.undo(request.user, pk, data.version, data.key))


@router.post("/{pk}/redo", response=CHANGED)
def redo(request: HttpRequest, pk: int, data: VersionIn) -> dict[str, Any]:
    """One state forward."""
    return layout_out(actions.redo(request.user, pk, data.version, data.key))


@router.post("/{pk}/copy", response={201: LayoutOut, 404: Problem, 422: Problem})
def copy(request: HttpRequest, pk: int, data: CopyIn) -> Status[dict[str, Any]]:
    """A copy beside it."""
    return Status(201, layout_out(actions.copy_layout(request.user, pk, data.name, data.doc)))


@router.delete("/{pk}", response={204: None, 404: Problem})
def delete(request: HttpRequest, pk: int) -> Status[None]:
    """Put away; restore brings it back."""
    actions.delete_layout(request.user, pk)
    return Status(204, None)


@router.post("/{pk}/restore", response={200: LayoutOut, 404: Problem})
def restore(request: HttpRequest, pk: int) -> dict[str, Any]:
    """Bring back a deleted layout."""
    return layout_out(actions.restore_layout(request.user, pk))
