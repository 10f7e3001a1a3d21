"""A ZIP that is made while it is sent: nothing of it lies whole in memory or on the disk."""

import io
import threading
import weakref
import zipfile
from collections.abc import Callable, Generator, Iterator
from typing import BinaryIO

from takes.errors import TooManyPacked

AT_ONCE = 2
"""Packed at once by one web process; each holds one of its threads for as long as it is fetched."""

MOST_AT_ONCE = 1_000_000

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


class Zipping:
    """A ZIP in the making: what is put in is there to be sent at once, and not kept."""

    def __init__(self) -> None:
        self._out = _Out()
        self._zipped = zipfile.ZipFile(self._out, "w", zipfile.ZIP_STORED)

    def text(self, name: str, text: str) -> bytes:
        """A small file, whole."""
        self._zipped.writestr(name, text)
        return self._out.taken()

    def file(self, name: str, source: BinaryIO) -> Iterator[bytes]:
        """A file of any length."""
        with self._zipped.open(name, "w", force_zip64=True) as entry:
            while data := source.read(MOST_AT_ONCE):
                entry.write(data)
                yield self._out.taken()

    def end(self) -> bytes:
        """What tells where everything is."""
        self._zipped.close()
        return self._out.taken()


class Packed:
    """A ZIP bit by bit, in one of few places; `close` is called however it ends.

    Raises
    ------
    TooManyPacked
        When others are being packed.
    """

    def __init__(self, parts: Callable[[], Generator[bytes, None, None]]) -> None:
        if not _places.acquire(blocking=False):
            raise TooManyPacked
        self._parts = parts()
        self._leave = weakref.finalize(self, _places.release)  # once, also where nobody closes it

    def __iter__(self) -> Iterator[bytes]:
        return self._parts

    def close(self) -> None:
        """Make room for the next."""
        try:
            self._parts.close()
        finally:
            self._leave()
