"""The pieces of a take's files in the storage: kept, joined for a worker, forgotten."""

import io
import tempfile
from bisect import bisect_right
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, BinaryIO

from django.core.files.base import ContentFile
from django.core.files.storage import default_storage

from takes.models import Take, TakeFile
from takes.packing import MOST_AT_ONCE

LONGEST_NAME = 200
"""Bytes of a name without its ending; file systems end at 255."""

BUFFER = 262_144
AT_DIGITS = 12
"""A piece is named by the byte it begins at."""


def keep_piece(file: TakeFile, data: bytes) -> str:
    """Keep a piece; where it is kept."""
    studio = file.take.layout.session.studio_id
    name = f"takes/{studio}/{file.take_id}/{file.number}/{file.received:0{AT_DIGITS}}"
    return default_storage.save(name, ContentFile(data))


class Pieces(io.RawIOBase):
    """A kept file to read from anywhere: only the pieces that are asked for are fetched."""

    def __init__(self, file: TakeFile) -> None:
        self._names = list(file.pieces)
        self._begins = [int(Path(n).name[:AT_DIGITS]) for n in self._names]
        self._size = file.received
        self._at = 0
        self._held: tuple[int, bytes] = (-1, b"")

    def readable(self) -> bool:
        """It is."""
        return True

    def seekable(self) -> bool:
        """It is."""
        return True

    def seek(self, offset: int, whence: int = io.SEEK_SET) -> int:
        """Go to a byte; beyond the end there is nothing to read."""
        start = {io.SEEK_SET: 0, io.SEEK_CUR: self._at, io.SEEK_END: self._size}[whence]
        self._at = max(start + offset, 0)
        return self._at

    def tell(self) -> int:
        """The byte that is read next."""
        return self._at

    def readinto(self, buffer: Any) -> int:
        """What one piece has of it; whoever wants more asks again."""
        if self._at >= self._size:
            return 0
        n = bisect_right(self._begins, self._at) - 1
        inside = self._at - self._begins[n]
        part = self._piece(n)[inside : inside + len(buffer)]
        buffer[: len(part)] = part
        self._at += len(part)
        return len(part)

    def _piece(self, n: int) -> bytes:
        if self._held[0] != n:
            with default_storage.open(self._names[n]) as part:
                self._held = (n, part.read())
        return self._held[1]


def opened(file: TakeFile) -> BinaryIO:
    """A kept file to read from anywhere."""
    return io.BufferedReader(Pieces(file), BUFFER)


@contextmanager
def as_local(take: Take) -> Iterator[list[Path]]:
    """All files of a take in a folder of their own, whole, for as long as they are needed."""
    with tempfile.TemporaryDirectory(prefix="ringside-take-") as folder:
        yield [joined(f, Path(folder)) for f in take.files.all()]


def joined(file: TakeFile, folder: Path) -> Path:
    """A kept file, whole, in a folder of its own there.

    A folder each: two files may have one name, and no name leads out of its folder.
    """
    own = folder / str(file.number)
    own.mkdir()
    path = own / plain_name(file.name)
    with path.open("wb") as out:
        for piece in file.pieces:
            with default_storage.open(piece) as part:
                for block in part.chunks(MOST_AT_ONCE):
                    out.write(block)
    return path


def plain_name(name: str) -> str:
    """A name that any file system takes, with its ending and as much before it as fits."""
    base = Path(Path(name).name.strip(". "))
    stem = base.stem or "sound"
    while len(stem.encode()) > LONGEST_NAME:
        stem = stem[:-1]
    return stem + base.suffix[:9]


def forget(instance: TakeFile, **_: Any) -> None:
    """What was kept of a file goes with it."""
    for piece in instance.pieces:
        default_storage.delete(piece)
