"""How far an archive is."""

from typing import Literal

from ninja import Schema


class JobOut(Schema):
    """Long work on its way; what it made can be fetched when it is done."""

    id: int
    state: Literal["waiting", "working", "done", "failed", "cancelled"]
    progress: float
    words: str
