"""A pair on a drum, to be heard: each mic alone, both as wired, one flipped, both aligned.

What a mic hears is the stroke of :mod:`ringside.voices.drum` along every ray that counts as its
own sound, each late by its path and turned by its sign: the very numbers the verdict is made
of, and nothing else. No room, no other drums. Rays are laid by turning phases, so a delay is
exact to a part of a sample. All versions are brought to one loudness (ITU-R BS.1770-4, the
K-weighting at 48 kHz, ungated), so that louder is not taken for better.
"""

import hashlib
import io
import json
import wave
from collections.abc import Callable
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis
from ringside.values import Number, Record, Text, Title
from ringside.voices.drum import stroke

Version = Literal["a", "b", "wired", "flipped", "aligned"]

RATE_HZ: Final = 48_000
HITS: Final = (1.0, 0.7, 0.85, 0.6)
"""Four strokes, none as hard as another."""

EVERY_S: Final = 0.8
PEAK: Final = 0.5
"""Of full scale, of the loudest moment of all versions: 6 dB are left."""

LEAST_LOUD_DB: Final = -120.0
EDITION: Final = 2
"""Counts up when the same numbers would sound otherwise."""

VERSIONS: Final[tuple[Version, ...]] = ("a", "b", "wired", "flipped", "aligned")


class Heard(Record):
    """What one mic hears of the drum: rays with seconds and signed amplitude after gain."""

    id: Title
    times_s: tuple[Number, ...] = Field(min_length=1, max_length=16)
    weights: tuple[Number, ...] = Field(min_length=1, max_length=16)
    turns: tuple[Number, ...] = Field(
        default=(), max_length=16, description="How far each ray's low end is ahead, radians."
    )


class Ask(Record):
    """Everything an example is made of; two layouts that agree on it sound the same."""

    kind: Title
    fundamental_hz: Number
    a: Heard
    b: Heard
    apart_s: Number
    words: Text = ""

    @property
    def key(self) -> str:
        """One name for one sound, whatever the mics are called."""
        told = self.model_dump(exclude={"words": True, "a": {"id"}, "b": {"id"}})
        text = json.dumps([EDITION, told], sort_keys=True)
        return hashlib.sha256(text.encode()).hexdigest()


def ask_of(an: Analysis, a: str, b: str, source: str) -> Ask:
    """What to render for a pair on a drum.

    Parameters
    ----------
    an : Analysis
    a : str
        Short name of a mic.
    b : str
        Short name of the other.
    source : str
        Short name of a drum or cymbal.

    Returns
    -------
    Ask

    Raises
    ------
    RingsideError
        When a mic or the source is not there.
    """
    row, turned, k = an.find(a, b, source)
    ids = [m.id for m in an.layout.mics]
    one, two = (_heard(an, ids.index(m), k) for m in (a, b))
    unsure = int(an.pairs.sign[row, k]) == 0 and bool(an.scene.sources.drum[k])
    part = an.layout.kit.part(source)
    return Ask(
        kind=part.kind,
        fundamental_hz=round(an.scene.sources.bands[k].fundamental, 3),
        a=one,
        b=two,
        apart_s=round((-1 if turned else 1) * float(an.pairs.delay_s[row, k]), 8),
        words="The sign of this pair is unsure: as wired and flipped may be the other way round"
        " on the day." if unsure else "",
    )  # fmt: skip


def _heard(an: Analysis, mic: int, k: int) -> Heard:
    rays, arrived = an.arrivals.rays, an.arrivals
    rows = rays.of(mic)
    size = 10 ** (float(arrived.after_gain_db[mic, k]) / 20) * int(arrived.raw_sign[mic, k])
    return Heard(
        id=an.layout.mics[mic].id,
        times_s=tuple(round(float(t), 8) for t in rays.time_s[rows, k]),
        weights=tuple(round(float(w) * size, 6) for w in rays.weight[rows, k]),
        turns=tuple(round(float(p), 6) for p in rays.turn[rows, k]),
    )


def signals(ask: Ask, progress: Callable[[float], None] = lambda _: None) -> dict[Version, Floats]:
    """The five versions at one loudness, each (N,) at `RATE_HZ`.

    Parameters
    ----------
    progress : callable
        Told how much is done, 0 to 1.

    Returns
    -------
    dict of str to ndarray, shape (N,)
        Full scale is 1.
    """
    late = max(*ask.a.times_s, *ask.b.times_s)
    early = min(*ask.a.times_s, *ask.b.times_s)
    length = round((EVERY_S * len(HITS) + late - early + 0.2) * RATE_HZ)
    dry = np.zeros(length)
    for n, hard in enumerate(HITS):
        room = EVERY_S * (len(HITS) - n)
        hit = stroke(ask.kind, ask.fundamental_hz, room, RATE_HZ, seed=n) * hard
        start = round((EVERY_S * n + 0.02) * RATE_HZ)
        hit = hit[: length - start]
        dry[start : start + len(hit)] += hit
        progress(0.5 * (n + 1) / len(HITS))
    spectrum = np.asarray(np.fft.rfft(dry), dtype=np.complex128)
    f = np.asarray(np.fft.rfftfreq(length, 1 / RATE_HZ), dtype=np.float64)
    one, two = (
        np.asarray(spectrum * _response(h, f, early), dtype=np.complex128) for h in (ask.a, ask.b)
    )
    # Aligned: the later one is moved back until both hear the stroke at once, in the fuller way.
    back = two * np.exp(2j * np.pi * f * ask.apart_s)
    same, other = (float(np.sum(np.abs(one + s * back) ** 2)) for s in (1, -1))
    spectra: dict[Version, NDArray[np.complex128]] = {
        "a": one, "b": two, "wired": one + two, "flipped": one - two,
        "aligned": one + (back if same >= other else -back),
    }  # fmt: skip
    made: dict[Version, Floats] = {}
    for n, name in enumerate(VERSIONS):
        made[name] = np.asarray(np.fft.irfft(spectra[name], length))
        progress(0.5 + 0.4 * (n + 1) / len(VERSIONS))
    return _matched(made)


def _response(heard: Heard, f: Floats, early: float) -> NDArray[np.complex128]:
    made = np.zeros(len(f), dtype=np.complex128)
    turns = heard.turns or (0.0,) * len(heard.times_s)
    for t, w, turn in zip(heard.times_s, heard.weights, turns, strict=True):
        made += w * np.exp(-2j * np.pi * f * (t - early) + 1j * turn)
    return made


def loudness_db(signal: Floats) -> float:
    """Loudness of a mono signal at 48 kHz, LUFS, ungated.

    Parameters
    ----------
    signal : ndarray, shape (N,)
        Full scale is 1.

    Returns
    -------
    float
        LUFS.

    References
    ----------
    ITU-R BS.1770-4, tables 1 and 2 (the two filters), equation 2.

    Examples
    --------
    >>> t = np.arange(48000) / 48000
    >>> round(loudness_db(np.sin(2 * np.pi * 997 * t)), 1)
    -3.0
    """
    spectrum = np.fft.rfft(signal, 2 * len(signal))
    z = np.exp(-2j * np.pi * np.arange(len(spectrum)) / (2 * len(signal)))
    shelf = (1.53512485958697 - 2.69169618940638 * z + 1.19839281085285 * z**2) / (
        1 - 1.69065929318241 * z + 0.73248077421585 * z**2
    )
    high = (1 - 2 * z + z**2) / (1 - 1.99004745483398 * z + 0.99007225036621 * z**2)
    weighted = np.fft.irfft(spectrum * shelf * high)[: len(signal)]
    power = float(np.mean(weighted**2))
    return max(-0.691 + 10 * float(np.log10(max(power, 1e-15))), LEAST_LOUD_DB)


def _matched(made: dict[Version, Floats]) -> dict[Version, Floats]:
    even = {}
    for name, signal in made.items():
        loud = loudness_db(signal)
        # What cancels to next to nothing stays next to nothing.
        even[name] = signal * 10 ** (-loud / 20) if loud > LEAST_LOUD_DB / 2 else signal
    peak = max(float(np.abs(s).max()) for s in even.values())
    return {name: s * (PEAK / max(peak, 1e-12)) for name, s in even.items()}


def wav(signal: Floats) -> bytes:
    """A mono signal as WAV: 16 bit at 48 kHz, with triangular dither of one step.

    Parameters
    ----------
    signal : ndarray, shape (N,)
        Full scale is 1.

    Returns
    -------
    bytes
    """
    dice = np.random.default_rng(0)
    dither = dice.uniform(-0.5, 0.5, len(signal)) + dice.uniform(-0.5, 0.5, len(signal))
    steps = np.clip(np.round(signal * 32767 + dither), -32768, 32767).astype("<i2")
    out = io.BytesIO()
    with wave.open(out, "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(2)
        file.setframerate(RATE_HZ)
        file.writeframes(steps.tobytes())
    return out.getvalue()


def rendered(ask: Ask, progress: Callable[[float], None] = lambda _: None) -> dict[Version, bytes]:
    """The five versions as WAV.

    Parameters
    ----------
    ask : Ask
    progress : callable
        Called with a share from 0 to 1.

    Returns
    -------
    dict of Version to bytes
    """
    made = {name: wav(s) for name, s in signals(ask, progress).items()}
    progress(1.0)
    return made
