"""A step that could be a line: what it changes, and what it takes to do it."""

from dataclasses import dataclass, field

from ringside.edits.apply import OneEdit
from ringside.pairs.trade import TradeKey
from ringside.plan.layout import Layout, LineKind
from ringside.worklist.lines import Drummer, Surety


@dataclass(frozen=True, kw_only=True, slots=True)
class Step:
    """One thing to do, before it is known what comes of it."""

    kind: LineKind
    of: tuple[str, ...]
    words: str
    because: TradeKey
    edits: list[OneEdit] = field(default_factory=list)
    minutes: float = 0.0
    drummer: Drummer = "plays on"
    cost: str = ""
    sure: Surety = "sure"
    sure_words: str = ""
    low_db: float = 0.0
    high_db: float = 0.0
    """Of the body, less what it is on average."""
    settles: int = 0


def left(layout: Layout, kind: LineKind) -> list[frozenset[str]]:
    """What lines of a kind are about that somebody set aside.

    Parameters
    ----------
    layout : Layout
    kind : str

    Returns
    -------
    list of frozenset of str
    """
    return [frozenset(s.of) for s in layout.set_aside if s.kind == kind]
