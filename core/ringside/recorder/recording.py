"""A take of a layout, channel by channel: strokes through the room into mics, preamps and faults.

Deterministic for a seed. What is shared with what measures takes is said in `docs/measuring.md`:
the strokes of :mod:`ringside.voices.drum` and where drums and mics stand, no path, level, sign or
delay.
"""

import json
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from pathlib import Path
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats
from ringside.hear.bands import VOICES, bands
from ringside.plan.channels import Channel
from ringside.plan.kit import Cymbal, Drum
from ringside.plan.layout import Layout
from ringside.recorder.acoustics import ORDER, Face, faces, heard_from, responses
from ringside.recorder.played import Stroke
from ringside.recorder.wrong import CLIPPED_DB, HUM_DB, Wrong, stood
from ringside.voices.drum import stroke

PEAK_DB: Final = -12.0
"""Of full scale, of the loudest hit of a channel (common practice)."""

NOISE_DB: Final = -78.0
"""Of full scale, root mean square, of mic and preamp together (from memory)."""

CORES: Final = 2
RINGS_S: Final = 1.2
MAINS_HZ: Final = 50.0
VARIANTS: Final = 3
"""Strokes of one drum that are not alike; hits take turns."""

Singles = NDArray[np.float32]

Voice = Callable[[Drum | Cymbal, int, int, int], Floats]
"""What a part gives off: the part, the side of it, which stroke, samples a second."""


def simulated(part: Drum | Cymbal, side: int, seed: int, rate_hz: int) -> Floats:
    """One stroke as a face gives it off, first pushed; the far head hears no stick.

    Parameters
    ----------
    part : Drum or Cymbal
    side : int
        -1 the struck head, +1 the other, 0 the struck one from within.
    seed : int
    rate_hz : int

    Returns
    -------
    ndarray, shape (N,)
        Peak 1.
    """
    whole = _stroke(part.kind, bands(part).fundamental, rate_hz, seed)
    if side != 1 or isinstance(part, Cymbal):
        return whole
    f = np.fft.rfftfreq(2 * len(whole), 1 / rate_hz)
    far = np.fft.irfft(np.fft.rfft(whole, 2 * len(whole)) / (1 + 1j * f / 3000.0))
    return np.asarray(far[: len(whole)])


@lru_cache(maxsize=64)
def _stroke(kind: str, fundamental: float, rate_hz: int, seed: int) -> Floats:
    """The same from both sides of a drum."""
    made = stroke(kind, fundamental, RINGS_S, rate_hz, seed)
    made.flags.writeable = False
    return made


@dataclass(frozen=True)
class Take:
    """A simulated take: ask for its blocks, or have it written to files."""

    layout: Layout
    """As planned."""
    played: tuple[Stroke, ...]
    wrong: Wrong = field(default_factory=Wrong)
    seed: int = 0
    order: int = ORDER
    voice: Voice = simulated
    noise_db: float = NOISE_DB

    @property
    def rate_hz(self) -> int:
        """Samples a second."""
        return self.layout.sample_rate_hz

    @cached_property
    def stood(self) -> Layout:
        """As it was set up."""
        return stood(self.layout, self.wrong)

    @property
    def channels(self) -> list[Channel]:
        """The tracks: those of the layout, or one of each mic where it has none."""
        own = [Channel(id=m.id, name=m.name, mic=m.id) for m in self.layout.mics]
        return list(self.layout.channels) or own

    @property
    def frames(self) -> int:
        """How long it is, samples."""
        last = max((s.at_s for s in self.played), default=0.0)
        return round((last + RINGS_S + 0.4) * self.rate_hz)

    @cached_property
    def _faces(self) -> list[Face]:
        return faces(self.stood)

    @cached_property
    def _struck(self) -> dict[tuple[int, int], Singles]:
        """What one full stroke of a part and variant gives at every mic, (M, N)."""
        every = self._faces
        ways = responses(self.stood, every, self.rate_hz, self.order)
        open_to = heard_from(self.stood, every)
        used = {s.source for s in self.played}
        made: dict[tuple[int, int], Singles] = {}
        for n, part in enumerate(self.layout.kit.parts):
            if part.id in used:
                own = [f for f, face in enumerate(every) if face.part == n]
                for variant, heard in enumerate(self._one(n, own, ways, open_to)):
                    made[n, variant] = heard
        return made

    def _one(self, n: int, own: list[int], ways: list[list[Floats]], open_to: Floats) -> Singles:
        """Every variant of a stroke of one part at every mic, (V, M, N).

        In single precision: what that leaves is far under a preamp's noise.
        """
        from scipy.fft import irfft, next_fast_len, rfft

        part = self._tuned(n)
        length = round((RINGS_S + 0.2) * self.rate_hz)
        longest = max(len(ways[m][f]) for m in range(len(ways)) for f in own)
        size = int(next_fast_len(round(RINGS_S * self.rate_hz) + longest, real=True))
        spectra = np.array([
            [self._spectrum(part, f, v, size) for f in own] for v in range(VARIANTS)
        ])  # fmt: skip
        out = np.zeros((VARIANTS, len(self.layout.mics), length), dtype=np.float32)
        for m in range(out.shape[1]):
            heard = np.zeros((len(own), longest), dtype=np.float32)
            for row, f in enumerate(own):
                heard[row, : len(ways[m][f])] = open_to[m, f] * ways[m][f]
            sums = np.einsum("vfk,fk->vk", spectra, rfft(heard, size, workers=CORES))
            sound = irfft(sums, size, workers=CORES)[:, :length]
            out[:, m, : sound.shape[1]] = sound
        return out

    def _tuned(self, n: int) -> Drum | Cymbal:
        """A part as it was tuned on the day."""
        part = self.stood.kit.parts[n]
        cents = float(self.wrong.retuned.get(part.id, 0.0))
        if not cents or not isinstance(part, Drum):
            return part
        higher = bands(part).fundamental * 2 ** (cents / 1200)
        return part.model_copy(update={"fundamental_hz": higher})

    def _spectrum(self, part: Drum | Cymbal, f: int, variant: int, size: int) -> Any:
        """One stroke as a face gives it off: late, with its sign, as loud as its kind is."""
        from scipy.fft import rfft

        face = self._faces[f]
        sound = self.voice(part, face.side, 100 * self.seed + variant, self.rate_hz)
        sign = -1.0 if face.side == -1 else 1.0
        loud = 10 ** (VOICES[part.kind].peak_db / 20)
        late = np.zeros(round(face.late_s * self.rate_hz))
        whole = sign * loud * np.concatenate([late, sound])
        return rfft(whole.astype(np.float32), size)

    @cached_property
    def gains(self) -> Floats:
        """What brings the loudest stroke of each channel to its peak, (C,)."""
        ids = [m.id for m in self.layout.mics]
        rows = [ids.index(c.mic) for c in self.channels]
        peak = np.full(len(self.layout.mics), 1e-9)
        for made in self._struck.values():
            peak = np.maximum(peak, np.abs(made).max(axis=1))
        size = 10 ** (PEAK_DB / 20) / peak[rows]
        clipped = np.array([c.id in self.wrong.clipped for c in self.channels])
        more = 10 ** ((CLIPPED_DB - PEAK_DB) / 20)
        turned = [self._sign(c) for c in self.channels]
        return np.asarray(size * np.where(clipped, more, 1.0) * turned)

    def _sign(self, channel: Channel) -> int:
        mic = self.layout.mic(channel.mic)
        over = -1 if channel.id in self.wrong.inverted else 1
        preamp = -1 if channel.preamp_flip else 1  # a flip on the track is not in the file
        return mic.sign * preamp * over

    def channel(self, n: int) -> Floats:
        """One track, whole.

        Parameters
        ----------
        n : int
            Its number.

        Returns
        -------
        ndarray, shape (N,)
            Full scale is 1.
        """
        own = self.channels
        names = [c.id for c in own]
        held, gone = {name: k for k, name in enumerate(names)}, set()
        for a, b in self.wrong.swapped:
            held[a], held[b] = held[b], held[a]
        for row in self.wrong.shifted:
            gone.add(row[0])
            held |= dict(zip(row[1:], [held[name] for name in row[:-1]], strict=True))
        source = held[names[n]]
        for a, b in self.wrong.doubled:
            if names[n] == b:
                source = names.index(a)
        silent = names[n] in gone or own[source].id in self.wrong.dead
        made = self._noise(n) if silent else self._sound(source)
        return np.clip(made, -1.0, 1.0 - 2**-23)

    def _noise(self, n: int) -> Floats:
        dice = np.random.default_rng([self.seed, 4, n])
        hiss = dice.standard_normal(self.frames, dtype=np.float32)
        return np.asarray(hiss * 10 ** (self.noise_db / 20), dtype=np.float64)

    def _sound(self, n: int) -> Floats:
        channel, rate = self.channels[n], self.rate_hz
        out = self._noise(n)
        mic = [m.id for m in self.layout.mics].index(channel.mic)
        late = sum(one.samples for one in self.wrong.late if one.channel == channel.id)
        parts = {p.id: k for k, p in enumerate(self.layout.kit.parts)}
        for k, hit in enumerate(self.played):
            heard = self._struck[parts[hit.source], k % VARIANTS][mic]
            begin = round(hit.at_s * rate) + round(late)
            heard = heard[: max(len(out) - begin, 0)]
            out[begin : begin + len(heard)] += heard * self.gains[n] * 10 ** (hit.db / 20)
        if channel.id in self.wrong.hum:
            t = np.arange(len(out)) / rate
            for harmonic, share in ((1, 1.0), (2, 0.5), (3, 0.6), (5, 0.3)):
                wave = np.sin(2 * np.pi * MAINS_HZ * harmonic * t + harmonic)
                out += 10 ** (HUM_DB / 20) * share * wave
        return out


FORMATS: Final = {"WAV": "wav", "RF64": "wav", "W64": "w64", "FLAC": "flac", "AIFF": "aif"}


def write(
    take: Take, folder: Path, *, container: str = "WAV", bits: str = "PCM_24",
    one_file: bool = False, told: Callable[[float], None] = lambda _: None,
) -> list[Path]:  # fmt: skip
    """The take as files, and `truth.json` with everything that was set up wrong.

    Parameters
    ----------
    take : Take
    folder : Path
        Made if it is not there.
    container : str
        One of `FORMATS`.
    bits : str
        As soundfile names them: PCM_16, PCM_24, PCM_32, FLOAT.
    one_file : bool
        All channels in one file, rather than one each.
    told : callable
        Called with a share from 0 to 1.

    Returns
    -------
    list of Path
        The sound files, in the order of the tracks.
    """
    import soundfile

    folder.mkdir(parents=True, exist_ok=True)
    end, own, made = FORMATS[container], take.channels, []
    count = len(own)
    tracks: list[Floats] = []
    for n, c in enumerate(own):
        sound = take.channel(n)
        if one_file:
            tracks.append(sound.astype(np.float32))
        else:
            made.append(folder / f"{n + 1:02} {c.name}.{end}".replace("/", "-"))
            soundfile.write(made[-1], sound, take.rate_hz, bits, format=container)
        told((n + 1) / count)
    if one_file:
        made = [folder / f"take.{end}"]
        soundfile.write(made[0], np.stack(tracks, axis=1), take.rate_hz, bits, format=container)
    (folder / "truth.json").write_text(json.dumps(truth(take), indent=1) + "\n")
    return made


def truth(take: Take) -> dict[str, object]:
    """What was played and set up wrong, as it is written beside the files.

    Parameters
    ----------
    take : Take

    Returns
    -------
    dict
    """
    return {
        "layout": take.layout.name,
        "seed": take.seed,
        "channels": [c.id for c in take.channels],
        "wrong": take.wrong.model_dump(mode="json"),
        "mics": {m.id: list(m.position_m) for m in take.stood.mics},
        "temperature_c": take.stood.air.temperature_c,
        "strokes": [
            {"source": s.source, "at_s": s.at_s, "db": s.db, "how": s.how} for s in take.played
        ],
    }
