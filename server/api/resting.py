"""Layouts that somebody is moving a mic of: what is known of them, kept for the next move.

In memory and per web process, under a name the client chose, for the one person who sent it; a few
hands at once. One that is not known here any more is sent again by the client.
"""

import threading
from collections import OrderedDict

from ringside.pairs.analysis import Analysis
from ringside.plan.layout import Layout
from ringside.standing.stood import analysed

MOST = 16


class Unknown(Exception):
    """A layout that this process does not know, or knows no more."""


class Resting:
    """The layouts under somebody's hand, the least used forgotten first."""

    def __init__(self) -> None:
        self._known: OrderedDict[tuple[int, str], Analysis] = OrderedDict()
        self._lock = threading.Lock()

    def before(self, person: int, name: str | None, layout: Layout | None) -> Analysis:
        """What is known of a layout before the move; Unknown where it must be sent."""
        key = (person, name or "")
        if layout is None:
            with self._lock:
                if name is None or key not in self._known:
                    raise Unknown
                self._known.move_to_end(key)
                return self._known[key]
        found = analysed(layout)
        if name is not None:
            with self._lock:
                self._known[key] = found
                self._known.move_to_end(key)
                while len(self._known) > MOST:
                    self._known.popitem(last=False)
        return found


under_hands = Resting()
