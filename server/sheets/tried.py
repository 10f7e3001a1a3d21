"""The log of a session as CSV: what was tried, what it did, what had changed for it."""

from collections.abc import Mapping, Sequence
from typing import Final

from plans.models import TriedLog
from pydantic import TypeAdapter
from ringside.answers.changes import Change

from sheets.table import as_csv
from sheets.units import Ruler

HEADINGS: Final = (
    "When",
    "Song",
    "Layout",
    "How it is",
    "What it did",
    "What changed",
    "Take",
    "By",
)
CHANGES: Final = TypeAdapter(list[Change])


def change_words(change: Change, ruler: Ruler) -> str:
    """One difference as a sentence in tape terms; the browser words it the same way."""
    told = f"{change.what}: {change.words}"
    if change.moved_m is None:
        return told
    told = f"{told} {ruler.text(change.moved_m)}"
    if change.snare_m is None or change.kick_m is None:
        return told
    snare, kick = (
        f"{ruler.text(was)} → {ruler.text(now)}" for was, now in (change.snare_m, change.kick_m)
    )
    return f"{told}; snare {snare}, kick {kick}"


def tried_csv(lines: Sequence[TriedLog], ruler: Ruler, takes: Mapping[int, str]) -> str:
    """The lines, newest first, as a table, oldest first; takes by their lines' numbers."""
    return as_csv(HEADINGS, [_row(x, ruler, takes.get(x.pk, "")) for x in reversed(lines)])


def _row(line: TriedLog, ruler: Ruler, take: str) -> dict[str, str]:
    since = CHANGES.validate_python(line.since)
    values = (
        line.at.isoformat(timespec="seconds"), line.song, line.layout.name, line.verdict,
        line.words, "\n".join(change_words(c, ruler) for c in since), take, line.who,
    )  # fmt: skip
    return dict(zip(HEADINGS, values, strict=True))
