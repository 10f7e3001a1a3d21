"""Examples to hear."""

from typing import Literal

from ninja import Schema
from ringside.voices.example import Version

from api.common import LayoutOnly, Word


class ExampleIn(LayoutOnly):
    """A pair on a drum."""

    a: Word
    b: Word
    source: Word


class ExampleOut(Schema):
    """An example on its way; its sounds are there when it is done."""

    id: int
    state: Literal["waiting", "working", "done", "failed", "cancelled"]
    progress: float
    versions: list[Version]
    words: str
    trouble: str
