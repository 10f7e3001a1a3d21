"""Aligned copies of a take, packed while they are sent: one file at a time lies on the disk."""

import io
import tempfile
import threading
import zipfile
from collections.abc import Iterator, Sequence
from pathlib import Path

from ringside.takes.align import AlignRow
from ringside.takes.copies import aligned_copy, longest_of
from ringside.takes.listening import Listening

from takes.errors import TooManyCopies
from takes.files import MOST_AT_ONCE, joined
from takes.models import Take, TakeFile

AT_ONCE = 2
"""Packed at once by one web process; each holds one of its threads for as long as it is fetched."""

TABLE = "aligned.csv"
"""What was done to each track, beside the copies."""

_places = threading.BoundedSemaphore(AT_ONCE)


class _Out(io.RawIOBase):
    """What the archive writes, to be taken from it; it cannot go back."""

    def __init__(self) -> None:
        self._parts: list[bytes] = []

    def writable(self) -> bool:
        return True

    def write(self, data: bytes) -> int:  # type: ignore[override]
        self._parts.append(bytes(data))
        return len(data)

    def taken(self) -> bytes:
        made, self._parts = b"".join(self._parts), []
        return made


class AlignedCopies:
    """A ZIP of aligned copies, bit by bit; `close` is called however it ends.

    Raises
    ------
    TooManyCopies
        When others are being packed.
    """

    def __init__(self, take: Take, heard: Listening, rows: Sequence[AlignRow], table: str) -> None:
        if not _places.acquire(blocking=False):
            raise TooManyCopies
        self._open = True
        self._parts = _zipped(list(take.files.all()), heard, rows, table)

    def __iter__(self) -> Iterator[bytes]:
        return self._parts

    def close(self) -> None:
        """Make room for the next."""
        if self._open:
            self._open = False
            self._parts.close()  # type: ignore[attr-defined]
            _places.release()


def _zipped(
    files: Sequence[TakeFile], heard: Listening, rows: Sequence[AlignRow], table: str
) -> Iterator[bytes]:
    out = _Out()
    by_channel = {r.channel: r for r in rows}
    longest = longest_of(rows)
    names = {TABLE}
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        archive.writestr(TABLE, table)
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
                with to.open("rb") as made, archive.open(name, "w", force_zip64=True) as entry:
                    while data := made.read(MOST_AT_ONCE):
                        entry.write(data)
                        yield out.taken()
    yield out.taken()
