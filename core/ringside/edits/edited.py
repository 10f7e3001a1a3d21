"""What an edit gives: a whole new layout, every rule asked again, and what was done in words."""

from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from ringside.errors import RingsideError
from ringside.faults import wording
from ringside.plan.layout import Layout


@dataclass(frozen=True, slots=True)
class Edited:
    """The layout as it is then, what was done in a few words, and the mics that went along."""

    layout: Layout
    words: str
    moved: tuple[str, ...]
    made: str | None = None
    """The mic or part that was added."""


def checked(layout: Layout, **update: Any) -> Layout:
    """A changed layout with every rule asked again; raises RingsideError in words.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Layout
    """
    try:
        return Layout.model_validate({**layout.fields(), **update})
    except ValidationError as fault:
        raise RingsideError(wording(fault.errors(include_url=False)[0])) from None
