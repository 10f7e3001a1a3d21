"""A zip that is read with care, and what is made of its files."""

import io
import json
import zipfile
from typing import Any

from pydantic import ValidationError
from ringside.faults import place_of, wording
from ringside.plain import first_fault

from carrying.errors import NotAnArchive
from carrying.format import MANIFEST

MOST_FILES = 120_000
MOST_BYTES = 1_500_000_000
"""Unpacked."""


class Archive:
    """A zip that is read with care: no more than it says, and every text plain."""

    def __init__(self, data: bytes) -> None:
        try:
            self.zipped = zipfile.ZipFile(io.BytesIO(data))
            files = self.zipped.infolist()
        except (zipfile.BadZipFile, ValueError, NotImplementedError) as fault:
            raise NotAnArchive(f"this is no zip file: {fault}") from None
        if len(files) > MOST_FILES or sum(f.file_size for f in files) > MOST_BYTES:
            raise NotAnArchive("it holds more than a studio can: is it another kind of file?")
        self.names = {f.filename: f.file_size for f in files}
        if MANIFEST not in self.names:
            raise NotAnArchive(f"it has no {MANIFEST}; expected an archive of a studio")

    def _text(self, name: str) -> str:
        try:
            with self.zipped.open(name) as file:
                body = file.read(self.names[name] + 1)
            if len(body) > self.names[name]:
                raise NotAnArchive(f"{name} is longer than the archive says")
            return body.decode()
        except (zipfile.BadZipFile, OSError, RuntimeError, UnicodeDecodeError, EOFError) as fault:
            raise NotAnArchive(f"{name} cannot be unpacked: {fault}") from None

    def json(self, name: str) -> Any:
        """One file."""
        return _checked(name, self._text(name))

    def lines(self, name: str) -> list[Any]:
        """A file of one value each line."""
        rows = enumerate(self._text(name).splitlines(), 1)
        return [_checked(f"{name}, line {n}", line) for n, line in rows if line.strip()]


def _checked(where: str, text: str) -> Any:
    try:
        value = json.loads(text)
    except (ValueError, RecursionError) as fault:
        raise NotAnArchive(f"{where} is not JSON: {fault}") from None
    fault = first_fault(value)
    if fault:
        raise NotAnArchive(f"{where}: {place_of(fault[0])}: {fault[1]}")
    return value


def made(model: Any, where: str, value: Any) -> Any:
    """What a file or a line says, as a row; a fault is told with where it is."""
    try:
        return model.model_validate(value)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        raise NotAnArchive(f"{where}: {place_of(first['loc'])}: {wording(first)}") from None
