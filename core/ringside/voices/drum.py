"""One stroke of a drum or cymbal, as a face of it radiates: the pressure that pushes first.

A drum is the modes of a circular membrane, ratios 1 1.594 2.136 2.296 2.653 2.918 (Fletcher and
Rossing, The Physics of Musical Instruments, ch. 3), each a sine that begins at nothing and dies
away, higher ones sooner; a stroke off the centre wakes them all. The stick adds a short burst of
noise; snare wires a longer one. A cymbal is a hundred and more close modes. How long each kind
rings and how loud its stick is are from memory; the pitch is the drum's own.

Deterministic for a seed.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.hear.tuning import membrane_ratios

MODE_SHARES: Final = (1.0, 0.55, 0.35, 0.28, 0.22, 0.15)
CYMBAL_MODES: Final = 160


@dataclass(frozen=True, kw_only=True)
class Ring:
    """How a kind rings: seconds to die by 60 dB, the stick's share and seconds, the wires'."""

    seconds: float
    stick: float
    stick_s: float
    wires: float = 0.0
    wires_s: float = 0.0


RINGS: Final[dict[str, Ring]] = {
    "kick": Ring(seconds=0.35, stick=0.25, stick_s=0.012),
    "snare": Ring(seconds=0.30, stick=0.35, stick_s=0.008, wires=0.45, wires_s=0.22),
    "rack": Ring(seconds=0.70, stick=0.20, stick_s=0.008),
    "floor": Ring(seconds=0.90, stick=0.18, stick_s=0.009),
    "hand drum": Ring(seconds=0.40, stick=0.20, stick_s=0.008),
    "hats": Ring(seconds=0.25, stick=0.30, stick_s=0.006),
    "crash": Ring(seconds=2.2, stick=0.20, stick_s=0.010),
    "ride": Ring(seconds=2.5, stick=0.45, stick_s=0.006),
    "splash": Ring(seconds=0.9, stick=0.25, stick_s=0.006),
    "china": Ring(seconds=1.6, stick=0.25, stick_s=0.008),
    "percussion": Ring(seconds=0.4, stick=0.40, stick_s=0.005),
}
_LN_1000: Final = 6.907755


def stroke(kind: str, fundamental_hz: float, seconds: float, rate_hz: int, seed: int = 0) -> Floats:
    """One stroke, first pushed, peak 1.

    Parameters
    ----------
    kind : str
        A kind of drum or cymbal.
    fundamental_hz : float
    seconds : float
        How long to render.
    rate_hz : int
        Samples a second.
    seed : int
        The same stroke for the same seed.

    Returns
    -------
    ndarray
        Shape (seconds·rate_hz,).

    Examples
    --------
    >>> s = stroke("snare", 208.0, 0.5, 48000)
    >>> s.shape, float(abs(s).max())
    ((24000,), 1.0)
    """
    ring, dice = RINGS[kind], np.random.default_rng(seed)
    t = np.arange(round(seconds * rate_hz)) / rate_hz
    if kind in ("kick", "snare", "rack", "floor", "hand drum"):
        made = _membrane(fundamental_hz, ring.seconds, len(t), rate_hz)
    else:
        made = _plate(fundamental_hz, ring.seconds, t, dice)
    made = made + _burst(ring.stick, ring.stick_s, 2500.0, t, rate_hz, dice)
    if ring.wires:
        made = made + _burst(ring.wires, ring.wires_s, 1800.0, t, rate_hz, dice)
    return np.asarray(made / max(float(np.abs(made).max()), 1e-12))


@lru_cache(maxsize=32)
def _membrane(f: float, seconds: float, count: int, rate_hz: int) -> Floats:
    """What rings is the same in every stroke; only stick and wires differ."""
    t = np.arange(count) / rate_hz
    made = np.zeros_like(t)
    for ratio, share in zip(membrane_ratios(), MODE_SHARES, strict=True):
        dying = np.exp(-_LN_1000 * t / seconds * ratio)
        made += share * np.sin(2 * np.pi * f * ratio * t) * dying
    made.flags.writeable = False
    return made


def _plate(f: float, seconds: float, t: Floats, dice: np.random.Generator) -> Floats:
    """Close modes from the fundamental to 14 kHz, the highest dying three times as fast."""
    modes = np.sort(f * (14_000 / f) ** dice.uniform(0, 1, CYMBAL_MODES))
    share = dice.uniform(0.3, 1.0, CYMBAL_MODES) / np.sqrt(CYMBAL_MODES)
    phase = dice.uniform(0, 2 * np.pi, CYMBAL_MODES)
    made = np.zeros_like(t)
    for k in range(CYMBAL_MODES):
        faster = 1 + 2 * k / CYMBAL_MODES
        dying = np.exp(-_LN_1000 * t / seconds * faster)
        made += share[k] * np.sin(2 * np.pi * modes[k] * t + phase[k]) * dying
    return made * np.minimum(t / 0.0004, 1.0)


def _burst(
    size: float, seconds: float, above_hz: float, t: Floats, rate_hz: int,
    dice: np.random.Generator,
) -> Floats:  # fmt: skip
    """Noise above a frequency that dies away, a third of a millisecond in rising."""
    noise = np.fft.rfft(dice.normal(size=len(t)))
    f = np.fft.rfftfreq(len(t), 1 / rate_hz)
    noise *= 1 / (1 + (above_hz / np.maximum(f, 1.0)) ** 4)
    made = np.fft.irfft(noise, len(t))
    made /= max(float(np.abs(made).max()), 1e-12)
    return np.asarray(size * made * np.exp(-_LN_1000 * t / seconds) * np.minimum(t / 0.0003, 1.0))
