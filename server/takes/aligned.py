"""Aligned copies of a take, packed while they are sent: one file at a time lies on the disk."""

import tempfile
from collections.abc import Generator, Sequence
from pathlib import Path

from ringside.takes.align import AlignRow
from ringside.takes.copies import aligned_copy, longest_of
from ringside.takes.listening import Listening

from takes.files import joined
from takes.models import Take
from takes.packing import Packed, Zipping

TABLE = "aligned.csv"
"""What was done to each track, beside the copies."""


def aligned_copies(take: Take, heard: Listening, rows: Sequence[AlignRow], table: str) -> Packed:
    """A ZIP of aligned copies, and the table of what was done.

    Raises
    ------
    TooManyPacked
        When others are being packed.
    """
    files = list(take.files.all())
    by_channel = {r.channel: r for r in rows}
    longest = longest_of(rows)

    def parts() -> Generator[bytes, None, None]:
        zipping, names = Zipping(), {TABLE}
        yield zipping.text(TABLE, table)
        for n, file in enumerate(files):
            own = {t.source.channel: by_channel[t.channel] for t in heard.tracks
                   if t.source.file == n}  # fmt: skip
            with tempfile.TemporaryDirectory(prefix="ringside-aligned-") as folder:
                path = joined(file, Path(folder))
                to = Path(folder) / path.name
                aligned_copy(path, to, own, longest)
                path.unlink()
                # Two files of a take may have one name; the second is told apart by its number.
                name = path.name if path.name not in names else f"{n + 1} {path.name}"
                names.add(name)
                with to.open("rb") as made:
                    yield from zipping.file(name, made)
        yield zipping.end()

    return Packed(parts)
