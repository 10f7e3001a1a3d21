"""Edits of a technique in use: its numbers, and its mics with them."""

from typing import Literal

from pydantic import Field

from ringside.edits.edited import Edited
from ringside.edits.following import moved
from ringside.plan.layout import Layout
from ringside.techniques.taking import change
from ringside.values import Key, Number, Record


class ChangeNumbers(Record):
    """Numbers of a technique changed; none at all puts its mics back where they belong."""

    do: Literal["numbers"]
    taken: Key
    numbers: dict[Key, Number] = Field(default_factory=dict, max_length=12)

    def on(self, layout: Layout) -> Edited:
        """The layout with the technique's mics where the numbers put them.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        done = change(layout, self.taken, self.numbers)
        return Edited(done.layout, done.what, moved(layout, done.layout.mics))
