"""What an edit is asked."""

from ringside.edits.apply import Edit

from api.common import LayoutOnly
from api.resting import UnderHand


class EditIn(LayoutOnly):
    """An edit of a layout that need not be stored."""

    edit: Edit


class TryIn(UnderHand):
    """An edit that is only shown while the hand moves on."""

    edit: Edit
