"""Rows of the database as the interface gives them."""

from typing import Any

from accounts.models import User
from plans.actions import layouts_of, state_of
from plans.atkit import is_measured
from plans.lines import known
from plans.models import Layout, Session
from pydantic import ValidationError
from studios.access import roles_of

from api.sessions.schemas import Summary

NOT_YET = "Its verdicts are being counted anew."


def me_out(user: User) -> dict[str, Any]:
    """Who is signed in."""
    return {
        "username": user.get_username(),
        "units": user.units,
        "hand": user.hand_sizes,
        "hand_fault": user.hand_fault,
        "studios": roles_of(user),
    }


def layout_row(layout: Layout) -> dict[str, Any]:
    """A layout in a list."""
    try:
        summary, why = Summary.model_validate(layout.summary), ""
    except ValidationError:
        summary, why = None, str(layout.summary.get("unreadable", NOT_YET))
    return {
        "id": layout.pk,
        "name": layout.name,
        "summary": summary,
        "lines": known(layout),
        "why_not": why,
        "changed_at": layout.changed_at,
    }


def session_out(session: Session) -> dict[str, Any]:
    """A session with its layouts."""
    layouts = layouts_of(session)
    return {
        "id": session.pk,
        "name": session.name,
        "place": session.place,
        "studio": session.studio.name,
        "made_at": session.made_at,
        "layouts": [layout_row(one) for one in layouts],
        "layouts_in_all": session.layouts_in_all or len(layouts),
    }


def layout_out(layout: Layout) -> dict[str, Any]:
    """A layout in full."""
    state = state_of(layout)
    return {
        "id": layout.pk,
        "studio_id": layout.session.studio_id,
        "session_id": layout.session_id,
        "session_name": layout.session.name,
        "place": layout.session.place,
        "version": layout.version,
        "can_undo": state.can_undo,
        "can_redo": state.redo_what is not None,
        "undo_what": state.what if state.can_undo else "",
        "redo_what": state.redo_what or "",
        "saved_by": state.by.get_username() if state.by else state.by_name,
        "saved_at": state.at,
        "head_key": state.key,
        "measured": is_measured(layout),
        "doc": layout.doc(state),
    }
