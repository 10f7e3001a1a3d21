"""What can go wrong with somebody's plans, in terms the interface turns into answers."""

from studios.errors import NotThere, Unreadable

from plans.models import Layout

__all__ = ["Conflict", "NotThere", "NothingToDo", "Unreadable"]


class Conflict(Exception):
    """A save against a version that is no longer the newest; carries the layout as it is."""

    def __init__(self, layout: Layout) -> None:
        super().__init__("the layout was changed elsewhere")
        self.layout = layout


class NothingToDo(Exception):
    """Nothing left to undo or redo."""
