"""The pieces of a take's files in the storage: kept, joined for a worker, forgotten."""

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from django.core.files.base import ContentFile
from django.core.files.storage import default_storage

from takes.models import Take, TakeFile

MOST_AT_ONCE = 1_000_000
LONGEST_NAME = 200
"""Bytes of a name without its ending; file systems end at 255."""


def keep_piece(file: TakeFile, data: bytes) -> str:
    """Keep a piece; where it is kept."""
    studio = file.take.layout.session.studio_id
    name = f"takes/{studio}/{file.take_id}/{file.number}/{file.received:012}"
    return default_storage.save(name, ContentFile(data))


@contextmanager
def as_local(take: Take) -> Iterator[list[Path]]:
    """All files of a take in a folder of their own, whole, for as long as they are needed."""
    with tempfile.TemporaryDirectory(prefix="ringside-take-") as folder:
        yield [_joined(f, Path(folder)) for f in take.files.all()]


def _joined(file: TakeFile, folder: Path) -> Path:
    # A folder each: two files may have one name, and no name leads out of its folder.
    own = folder / str(file.number)
    own.mkdir()
    path = own / _safe(file.name)
    with path.open("wb") as out:
        for piece in file.pieces:
            with default_storage.open(piece) as part:
                for block in part.chunks(MOST_AT_ONCE):
                    out.write(block)
    return path


def _safe(name: str) -> str:
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
