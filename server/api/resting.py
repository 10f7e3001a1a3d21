"""Layouts that somebody has something of under the hand: they are sent once, and not at each move.

In memory and per web process, under a name the client chose, for the one person who sent it; a few
hands at once. One that is not known here any more is sent again by the client.
"""

import threading
from collections import OrderedDict
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated

from django.http import HttpRequest
from pydantic import Field
from ringside.files.stored import AnyState
from ringside.pairs.analysis import Analysis
from ringside.plan.layout import Layout
from ringside.standing.stood import analysed

from api.common import Strict
from api.kept import person_of

MOST = 16


class UnderHand(Strict):
    """A question of a hand that moves something.

    The layout as it stood is sent once, with a name of the client's own; then the name will do.
    """

    name: Annotated[str, Field(min_length=1, max_length=64)] | None = None
    layout: AnyState | None = None


class Unknown(Exception):
    """A layout that this process does not know, or knows no more."""


@dataclass(frozen=True)
class Known:
    """A layout before the move."""

    layout: Layout

    @cached_property
    def analysis(self) -> Analysis:
        """Everything computed from it: once for a hand, and only where that is asked."""
        return analysed(self.layout)


class Resting:
    """The layouts under somebody's hand, the least used forgotten first."""

    def __init__(self) -> None:
        self._known: OrderedDict[tuple[int, str], Known] = OrderedDict()
        self._lock = threading.Lock()

    def before(self, request: HttpRequest, asked: UnderHand) -> Known:
        """What is known of a layout before the move; Unknown where it must be sent."""
        key = (person_of(request), asked.name or "")
        if asked.layout is None:
            with self._lock:
                if asked.name is None or key not in self._known:
                    raise Unknown
                self._known.move_to_end(key)
                return self._known[key]
        found = Known(asked.layout)
        if asked.name is not None:
            with self._lock:
                self._known[key] = found
                self._known.move_to_end(key)
                while len(self._known) > MOST:
                    self._known.popitem(last=False)
        return found


under_hands = Resting()
