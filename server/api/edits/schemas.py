"""What an edit is asked."""

from ringside.edits.apply import Edit

from api.common import LayoutOnly


class EditIn(LayoutOnly):
    """An edit of a layout that need not be stored."""

    edit: Edit
