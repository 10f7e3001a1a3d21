"""What kinds of long work there are: each app adds its own when it starts."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

Tell = Callable[[float], None]
"""Told how far it is, 0 to 1; raises when the work should stop."""

Work = Callable[[dict[str, Any], Tell], dict[str, bytes]]
"""From what was asked to the files that were made, by name."""


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of long work, how long one try may take, and how many of it a studio keeps."""

    name: str
    work: Work
    longest_s: float
    kept: int


KINDS: dict[str, Kind] = {}


def add(kind: Kind) -> None:
    """Make a kind known."""
    KINDS[kind.name] = kind
