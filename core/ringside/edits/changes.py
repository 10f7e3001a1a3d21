"""What an edit changed of a layout, as a JSON Patch: who asked knows all the rest already."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from ringside.plan.layout import Layout
from ringside.values import Record


@dataclass(frozen=True, slots=True, kw_only=True)
class Replaced:
    """One operation of a JSON Patch (RFC 6902): what is there now in the place of what was."""

    path: str
    """Where, as a JSON Pointer (RFC 6901): names of fields and numbers of items."""
    value: Any
    """A record, or what a field of one holds."""
    op: Literal["replace"] = "replace"


def changes(before: Layout, now: Layout) -> list[Replaced]:
    """What makes one layout of another: records and fields that differ, and no others.

    Parameters
    ----------
    before, now : Layout
        What was measured of one that stands is left out: no edit changes it.

    Returns
    -------
    list of Replaced
        In any order they come to the same: none lies within another.
    """
    was, is_now = before.fields(), now.fields()
    return [c for name in is_now for c in _changes(f"/{name}", was[name], is_now[name])]


def _changes(path: str, before: Any, now: Any) -> Iterator[Replaced]:
    if before is now or before == now:
        return
    if isinstance(now, Record) and type(before) is type(now):
        for name in type(now).model_fields:
            yield from _changes(f"{path}/{name}", getattr(before, name), getattr(now, name))
    elif _as_many_records(before, now):
        for n, (one, other) in enumerate(zip(before, now, strict=True)):
            yield from _changes(f"{path}/{n}", one, other)
    else:
        yield Replaced(path=path, value=now)


def _as_many_records(before: Any, now: Any) -> bool:
    """Whether item by item says it: what is not of records is short, and goes whole."""
    if not isinstance(before, tuple) or not isinstance(now, tuple) or len(before) != len(now):
        return False
    return all(isinstance(item, Record) for item in now)
