"""Documents of the database, read through the core's versions."""

from typing import Any, TypeVar

from ringside.errors import LayoutFileError
from ringside.files.stored import Kind
from ringside.values import Record

from studios.errors import Unreadable

R = TypeVar("R", bound=Record)


def unpacked(kind: Kind[R], value: Any, what: str) -> R:
    """The record of a stored document.

    Raises
    ------
    Unreadable
        When no version of the program that is known here wrote it; `what` begins the sentence.
    """
    try:
        return kind.unpack(value, kept=True)
    except LayoutFileError as fault:
        raise Unreadable(what, str(fault)) from None


def unread(kind: Kind[R], value: Any, what: str) -> tuple[R | None, str]:
    """The record, or nothing and the sentence that says why."""
    try:
        return unpacked(kind, value, what), ""
    except Unreadable as fault:
        return None, str(fault)
