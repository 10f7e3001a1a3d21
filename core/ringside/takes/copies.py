"""Aligned copies of a take: each track later by its samples, flipped where that is said.

Whole samples move bits and change none. Parts of a sample are read between the samples by a
windowed sinc of `TAPS` taps (Kaiser, 80 dB: J. F. Kaiser, Proc. IEEE Int. Symp. Circuits Syst.
(1974) 20); what is then kept in 16 or 24 bits is dithered with a triangle of one step either way
(Lipshitz, Wannamaker and Vanderkooy, J. Audio Eng. Soc. 40 (1992) 355). A broadcast WAV keeps its
`bext` chunk, and with it its start time. The files of the take are only read.
"""

import struct
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.takes.align import AlignRow
from ringside.takes.files import Track, bext_of

TAPS: Final = 64
KAISER: Final = 8.0
AHEAD: Final = TAPS // 2 - 1
BLOCK: Final = 65_536
STEP_BITS: Final = {"PCM_16": 15, "PCM_24": 23}


def aligned_copies(tracks: Sequence[Track], rows: Sequence[AlignRow], folder: Path) -> list[Path]:
    """Write every file of a take anew, aligned.

    Parameters
    ----------
    tracks : sequence of Track
        Those that were measured.
    rows : sequence of AlignRow
        One of each track.
    folder : Path
        Made if it is not there; none of the take's files may be in it.

    Returns
    -------
    list of Path

    Raises
    ------
    RingsideError
        When a file of the take would be written over.
    """
    folder.mkdir(parents=True, exist_ok=True)
    if any(t.path.resolve().parent == folder.resolve() for t in tracks):
        raise RingsideError("the copies would lie among the take's own files; name another folder")
    longest = longest_of(rows)
    made: list[Path] = []
    for path in dict.fromkeys(t.path for t in tracks):
        own = {t.channel: rows[n] for n, t in enumerate(tracks) if t.path == path}
        made.append(folder / path.name)
        aligned_copy(path, made[-1], own, longest)
    return made


def longest_of(rows: Sequence[AlignRow]) -> int:
    """Samples that every copy is longer by, so that none loses its end.

    Parameters
    ----------
    rows : sequence of AlignRow
        Of all tracks of the take.

    Returns
    -------
    int
    """
    return int(np.ceil(max((r.later for r in rows), default=0.0)))


def aligned_copy(path: Path, to: Path, rows: Mapping[int, AlignRow], longest: int) -> None:
    """Write one file anew, aligned.

    Parameters
    ----------
    path : Path
    to : Path
        Written over.
    rows : mapping of int to AlignRow
        By the channel of the file; one that is not there stays as it is.
    longest : int
        Samples that are put behind.
    """
    import soundfile

    dice = np.random.default_rng(0)
    with soundfile.SoundFile(str(path)) as source:
        whole = all(float(r.later).is_integer() for r in rows.values())
        kind = "float64" if not whole or source.subtype in ("FLOAT", "DOUBLE") else "int32"
        steps = STEP_BITS.get(source.subtype) if not whole else None
        ahead = 0 if whole else AHEAD
        lines = [_Line(rows.get(c), kind, ahead) for c in range(source.channels)]
        with soundfile.SoundFile(str(to), "w", source.samplerate, source.channels,
                                 source.subtype, format=source.format) as out:  # fmt: skip
            for block in _with_tail(source, kind, longest + ahead):
                made = np.stack([ln.next(block[:, c]) for c, ln in enumerate(lines)], axis=1)
                made, ahead = made[ahead:], max(ahead - len(made), 0)
                if steps is not None:
                    shape = made.shape
                    dither = dice.uniform(-0.5, 0.5, shape) + dice.uniform(-0.5, 0.5, shape)
                    made = made + 2.0**-steps * dither
                out.write(made)
    _stamped(path, to)


def _with_tail(source: Any, kind: str, tail: int) -> Iterator[Any]:
    """The blocks of a file, then so much silence."""
    while len(block := source.read(BLOCK, dtype=kind, always_2d=True)):
        yield block
    yield np.zeros((tail, source.channels), dtype=kind)


class _Line:
    """A delay line for one channel: whole samples as they are, parts through a sinc.

    All lines of a file are `ahead` samples later than they should, since a sinc looks ahead.
    """

    def __init__(self, row: AlignRow | None, kind: str, ahead: int) -> None:
        later = row.later if row else 0.0
        part = later - int(later)
        self.sign = -1 if row and row.flip else 1
        self.taps: Floats | None = _sinc(part) if part else None
        self.held: Any = np.zeros(int(later) + (0 if part else ahead), dtype=kind)
        self.past: Any = np.zeros(TAPS - 1, dtype=kind)

    def next(self, block: Any) -> Any:
        """The block that comes out for one that goes in, of one length."""
        if self.taps is not None:
            joined = np.concatenate([self.past, block])
            self.past = joined[-(TAPS - 1) :]
            block = np.convolve(joined, self.taps, mode="valid")
        self.held = np.concatenate([self.held, block])
        out, self.held = self.held[: len(block)], self.held[len(block) :]
        if self.sign < 0:
            # The lowest value of an integer has no counterpart above.
            out = -np.maximum(out, -(2**31) + 1) if out.dtype == np.int32 else -out
        return out


def _sinc(part: float) -> Floats:
    n = np.arange(TAPS) - AHEAD - part
    window = np.i0(KAISER * np.sqrt(np.maximum(1 - (n / (TAPS / 2)) ** 2, 0))) / np.i0(KAISER)
    taps = np.sinc(n) * window
    return np.asarray(taps / taps.sum())


def _stamped(path: Path, to: Path) -> None:
    """Carry the `bext` chunk of a WAV over to its copy."""
    chunk = bext_of(path)
    if chunk is None:
        return
    with to.open("r+b") as file:
        head = file.read(12)
        if head[:4] != b"RIFF":
            return
        size = struct.unpack("<I", head[4:8])[0]
        file.seek(0, 2)
        file.write(chunk)
        file.seek(4)
        file.write(struct.pack("<I", size + len(chunk)))
