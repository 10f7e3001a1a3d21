"""Sound files as tracks: opened with distrust, read block by block, never whole.

WAV, RF64, W64, AIFF and FLAC through libsndfile; 16, 24 or 32 bit integers or floats. What came
through a lossy codec is refused, for it moves the first half-wave. A broadcast WAV says when it
begins, in samples since midnight: the TimeReference of its `bext` chunk (EBU Tech 3285, section
2.3); tracks of one take are laid by it where all of them have one.
"""

import struct
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from threading import Lock
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError

CONTAINERS: Final = ("WAV", "WAVEX", "RF64", "W64", "AIFF", "FLAC")
SUBTYPES: Final = ("PCM_16", "PCM_24", "PCM_32", "FLOAT", "DOUBLE")
RATES_HZ: Final = (44_100, 48_000, 88_200, 96_000, 176_400, 192_000)
MOST_TRACKS: Final = 64
MOST_SECONDS: Final = 1800.0
"""A take of test hits is minutes long; half an hour is a slip, or a bomb."""

MOST_TOGETHER_S: Final = 14_400.0
"""Of all tracks: 24 of ten minutes, which fit into the memory a take may have."""

MOST_APART_S: Final = 60.0
"""Tracks that begin further apart than this are not of one take."""

LOUDEST: Final = 64.0
"""Times full scale: a float file that says more says nothing."""

BEXT_TIME_REFERENCE: Final = 338
"""Bytes before it in the chunk: 256 + 32 + 32 + 10 + 8 (EBU Tech 3285)."""

MOST_CHUNKS: Final = 200
LONGEST_BEXT: Final = 1_000_000
"""Bytes: its history is text that programs add to."""


class SoundFileError(RingsideError):
    """A sound file that cannot be used; the message begins with its name."""


@dataclass(frozen=True, slots=True)
class Track:
    """One channel of one file."""

    name: str
    """As it is told: the file's name, and which channel of several."""
    path: Path
    channel: int
    channels: int
    rate_hz: int
    frames: int
    begins: int
    """Samples after the first track of the take."""
    stamped: bool
    """The file says itself when it begins."""
    container: str
    bits: str

    @property
    def ends(self) -> int:
        """Samples after the first track's beginning."""
        return self.begins + self.frames


def tracks_of(paths: Sequence[Path]) -> list[Track]:
    """Every channel of every file, laid on one time.

    Parameters
    ----------
    paths : sequence of Path

    Returns
    -------
    list of Track
        In the order of the files, then of their channels.

    Raises
    ------
    SoundFileError
        For a file that is no sound, damaged, lossy, far too long, or of another rate.
    """
    if not paths:
        raise SoundFileError("expected at least one sound file, got none")
    found: list[tuple[Track, int | None]] = []
    for path in paths:
        found += _tracks_in(path)
        if len(found) > MOST_TRACKS:
            raise SoundFileError(
                f"{path.name}: with it there are more than {MOST_TRACKS} tracks; expected a take of"
                " one kit"
            )
    together = sum(t.frames / t.rate_hz for t, _ in found)
    if together > MOST_TOGETHER_S:
        raise SoundFileError(
            f"{len(found)} tracks are {together / 60:.0f} minutes together; expected at most"
            f" {MOST_TOGETHER_S / 60:.0f}. Cut the test hits out of them"
        )
    rates = sorted({t.rate_hz for t, _ in found})
    if len(rates) > 1:
        told = " and ".join(f"{r} Hz" for r in rates)
        raise SoundFileError(
            f"the files are of {told}; expected one rate. Export all of them at the session's rate"
        )
    return _laid(found)


def _tracks_in(path: Path) -> list[tuple[Track, int | None]]:
    with _opened(path) as file:
        rate, frames, count = file.samplerate, file.frames, file.channels
        container, bits = file.format, file.subtype
    name = path.name
    if container not in CONTAINERS or bits not in SUBTYPES:
        raise SoundFileError(
            f"{name}: is {container} {bits}; expected WAV, RF64, W64, AIFF or FLAC with 16, 24 or"
            " 32 bits. A lossy codec moves the first half-wave"
        )
    if rate not in RATES_HZ:
        raise SoundFileError(f"{name}: is of {rate} Hz; expected one of 44100 to 192000 Hz")
    if frames <= 0:
        raise SoundFileError(f"{name}: holds no sound")
    if frames > MOST_SECONDS * rate:
        raise SoundFileError(
            f"{name}: is {frames / rate / 60:.0f} minutes long; expected at most"
            f" {MOST_SECONDS / 60:.0f}. Cut the test hits out of it"
        )
    stamp = start_of(path)
    one = Track(name, path, 0, count, rate, frames, 0, stamp is not None, container, bits)
    if count == 1:
        return [(one, stamp)]
    return [
        (Track(f"{name}, {n + 1}", path, n, count, rate, frames, 0, stamp is not None, container,
               bits), stamp)
        for n in range(min(count, MOST_TRACKS + 1))
    ]  # fmt: skip


def _laid(found: list[tuple[Track, int | None]]) -> list[Track]:
    """Tracks with where they begin: by their stamps where all have one, together otherwise."""
    stamps = [s for _, s in found if s is not None]
    if len(stamps) < len(found):
        return [t for t, _ in found]
    first = min(stamps)
    made = []
    for track, stamp in found:
        late = (stamp or 0) - first
        if late > MOST_APART_S * track.rate_hz:
            raise SoundFileError(
                f"{track.name}: begins {late / track.rate_hz:.0f} s after the first file, by its"
                " own start time; expected files of one take"
            )
        made.append(replace(track, begins=late))
    return made


def _opened(path: Path) -> Any:
    import soundfile

    try:
        return soundfile.SoundFile(str(path))
    except (soundfile.LibsndfileError, TypeError, ValueError) as fault:
        raise SoundFileError(f"{path.name}: {_why_not(path)}") from fault
    except OSError as fault:
        raise SoundFileError(f"{path.name}: cannot be read: {fault.strerror}") from fault


def _why_not(path: Path) -> str:
    """What is wrong with a file that the library does not open."""
    try:
        with path.open("rb") as file:
            head = file.read(12)
    except OSError as fault:
        return f"cannot be read: {fault.strerror}"
    if not head:
        return "is empty"
    if head[:4] in (b"RIFF", b"RF64", b"fLaC", b"FORM", b"riff"):
        return "is damaged; expected a whole WAV, RF64, W64, AIFF or FLAC. Export it again"
    return "is no sound file that can be measured; expected WAV, RF64, W64, AIFF or FLAC"


def start_of(path: Path) -> int | None:
    """When a broadcast WAV begins, samples since midnight; None where it does not say.

    Parameters
    ----------
    path : Path

    Returns
    -------
    int or None
    """
    try:
        chunk = bext_of(path)
    except OSError:
        return None
    stamp = (chunk or b"")[8 + BEXT_TIME_REFERENCE : 16 + BEXT_TIME_REFERENCE]
    return int(struct.unpack("<Q", stamp)[0]) if len(stamp) == 8 else None


def bext_of(path: Path) -> bytes | None:
    """The broadcast extension of a WAV, name and length and all; None where it has none.

    Parameters
    ----------
    path : Path

    Returns
    -------
    bytes or None
    """
    with path.open("rb") as file:
        head = file.read(12)
        if head[:4] not in (b"RIFF", b"RF64") or head[8:12] != b"WAVE":
            return None
        size = path.stat().st_size
        for _ in range(MOST_CHUNKS):
            head = file.read(8)
            if len(head) < 8:
                return None
            length = struct.unpack("<I", head[4:])[0]
            after = file.tell() + length + length % 2
            if after > size:
                return None  # RF64 with more than 4 GB, or a length that lies
            if head[:4] == b"bext" and length <= LONGEST_BEXT:
                return head + file.read(length + length % 2)
            file.seek(after)
    return None


def blocks(own: Sequence[Track], begin: int, end: int, step: int) -> Iterator[tuple[int, Any]]:
    """Channels of one file, block by block on the take's own time; silence where it has none.

    Parameters
    ----------
    own : sequence of Track
        All of one file.
    begin, end : int
        The stretch that is read, samples on the take's time.
    step : int
        Samples a block.

    Returns
    -------
    iterator of (int, ndarray)
        The sample each begins at, and float32 values of shape (N, C); full scale is 1. What is no
        number in a file is none here.
    """
    with _opened(own[0].path) as file:
        for at in range(begin, end, step):
            out = np.zeros((min(step, end - at), len(own)), dtype=np.float32)
            _filled(out, file, own, list(range(len(own))), at)
            yield at, out


def _filled(out: Any, file: Any, tracks: Sequence[Track], rows: list[int], begin: int) -> None:
    """Put what a file holds of a block where it belongs; its tracks begin at one time."""
    one = tracks[rows[0]]
    low, high = max(begin, one.begins), min(begin + len(out), one.ends)
    if low >= high:
        return
    read = _read(file, one, low - one.begins, high - low)
    at = slice(low - begin, low - begin + len(read))
    for n in rows:  # one by one: a list of columns is copied twice
        out[at, n] = read[:, tracks[n].channel]


def _read(file: Any, track: Track, begin: int, count: int) -> Any:
    import soundfile

    try:
        if file.tell() != begin:
            file.seek(begin)
        read = file.read(count, dtype="float32", always_2d=True)
    except (soundfile.LibsndfileError, RuntimeError) as fault:
        raise SoundFileError(
            f"{track.path.name}: is damaged {begin / track.rate_hz:.1f} s in; export it again"
        ) from fault
    return read


class Reader:
    """Cuts of a take, from files that stay open."""

    def __init__(self, tracks: Sequence[Track]) -> None:
        self.tracks = list(tracks)
        # Channels of one file may be laid at different times, where one of them is late by itself.
        self._rows: dict[tuple[Path, int], list[int]] = {}
        for n, t in enumerate(tracks):
            self._rows.setdefault((t.path, t.begins), []).append(n)
        self._files = {path: _opened(path) for path in dict.fromkeys(t.path for t in tracks)}
        self._lock = Lock()

    def __enter__(self) -> "Reader":
        return self

    def __exit__(self, *_: object) -> None:
        for file in self._files.values():
            file.close()

    def cut(self, begin: int, count: int) -> Floats:
        """A stretch of every track.

        Parameters
        ----------
        begin : int
            Sample on the take's time; what lies before or after a track is silence.
        count : int

        Returns
        -------
        ndarray, shape (C, count)
            Full scale is 1; what is no number is nought.
        """
        out = np.zeros((count, len(self.tracks)), dtype=np.float32)
        with self._lock:  # a file has one place it is read at
            for (path, _), rows in self._rows.items():
                _filled(out, self._files[path], self.tracks, rows, begin)
        clean = np.nan_to_num(out.T, nan=0.0, posinf=0.0, neginf=0.0)
        return np.ascontiguousarray(np.clip(clean, -LOUDEST, LOUDEST), dtype=np.float64)
