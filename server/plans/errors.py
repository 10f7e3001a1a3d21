"""What can go wrong with somebody's plans, in terms the interface turns into answers."""

from plans.models import Layout


class NotThere(Exception):
    """No such thing for this person: another studio's data is answered the same way."""


class Conflict(Exception):
    """A save against a version that is no longer the newest; carries the layout as it is."""

    def __init__(self, layout: Layout) -> None:
        super().__init__("the layout was changed elsewhere")
        self.layout = layout


class NothingToDo(Exception):
    """Nothing left to undo or redo."""
