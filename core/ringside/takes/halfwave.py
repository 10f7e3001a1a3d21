"""The first half-wave of a stroke in a track: when it begins and which way it goes.

One of the two ways an arrival is found; it knows nothing of any other track. The sound is cut
below `LOW_HZ` by a filter that only looks back, the same one for all tracks, so that what hums
does not count and differences stay. The half-wave is the first that stands over the noise before
and over a tenth of what follows. Where a softer one stands out before it (a mic that looks away
hears the room louder than the drum), that is told, too. The flank, read between samples
(band-limited, `FINER` times), is drawn on to nothing from where it crosses a fifth and a half of
its height: for one shape at two sizes the difference is exact, whatever the size.

Which way it goes is asked of the low end alone, below three times the drum's fundamental: the stick
and the wires may start either way.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats

LOW_HZ: Final = 60.0
FINER: Final = 8
OVER_NOISE: Final = 6.0
"""Times the root mean square of what is there before (one in 10⁹ samples of plain noise)."""

OF_PEAK: Final = 0.1
"""Of what comes in the next hundredth of a second or so: less is what a room or a stand sends."""

FLANK: Final = (0.2, 0.5)
SMALLEST: Final = 1e-7
ROUND_S: Final = 0.0005
"""On either side of a flank that is read finer, seconds."""

OF_PEAK_EARLY: Final = 0.02
"""The same for what may come before."""

BODY_HIGH: Final = 3.0
"""Times the fundamental: the low end ends here."""

BODY_OF_PEAK: Final = 0.2
SIGN_WAVES: Final = 1.5
"""Waves of the fundamental in which the low end's first half-wave is looked for."""


@dataclass(frozen=True, slots=True)
class HalfWave:
    """When a track begins to sound, samples in the cut, and how far it is over the noise."""

    at: float
    early: float
    """Where something softer begins, `at` where nothing does."""
    over_noise: float
    """Times; 0 where nothing was found."""
    peak: float
    spread: float
    """One standard deviation of `at`, samples: what the noise before does to its flank."""


NOTHING: Final = HalfWave(float("nan"), float("nan"), 0.0, 0.0, 0.0)


@lru_cache(maxsize=64)
def _filter(kind: str, hz: float, rate_hz: int) -> Any:
    from scipy.signal import butter

    return butter(2, min(hz, 0.45 * rate_hz), kind, fs=rate_hz, output="sos")


def _filtered(cut: Floats, kind: str, hz: float, rate_hz: int) -> Floats:
    from scipy.signal import sosfilt

    return np.asarray(sosfilt(_filter(kind, hz, rate_hz), cut, axis=-1))


def quiet_below(cut: Floats, rate_hz: int) -> Floats:
    """Tracks without what hums, by a filter that only looks back.

    Parameters
    ----------
    cut : ndarray, shape (C, N)
    rate_hz : int

    Returns
    -------
    ndarray, shape (C, N)
    """
    return _filtered(cut, "highpass", LOW_HZ, rate_hz)


def low_end(cut: Floats, fundamental_hz: float, rate_hz: int) -> Floats:
    """Tracks with their low end alone, by a filter that only looks back.

    Parameters
    ----------
    cut : ndarray, shape (C, N)
        As `quiet_below` gives it.
    fundamental_hz : float
    rate_hz : int

    Returns
    -------
    ndarray, shape (C, N)
    """
    return _filtered(cut, "lowpass", BODY_HIGH * fundamental_hz, rate_hz)


def half_wave(track: Floats, quiet: int, until: int, rate_hz: int) -> HalfWave:
    """The first half-wave of a track.

    Parameters
    ----------
    track : ndarray, shape (N,)
    quiet : int
        Samples at the beginning in which nothing is played.
    until : int
        The last sample it may begin at.
    rate_hz : int

    Returns
    -------
    HalfWave
        `NOTHING` where nothing stands out.
    """
    size = np.abs(track)
    noise = max(float(np.sqrt(np.mean(track[:quiet] ** 2))), SMALLEST)
    peak = float(size[quiet:until].max(initial=0.0))
    firsts = [
        np.flatnonzero(size[quiet:until] > max(OVER_NOISE * noise, share * peak))
        for share in (OF_PEAK, OF_PEAK_EARLY)
    ]
    if len(firsts[0]) == 0:
        return NOTHING
    first, soft = (quiet + int(f[0]) for f in firsts)
    around = round(ROUND_S * rate_hz)
    at, slope = _flank(track, first, around)
    early = at if first - soft < around else _flank(track, soft, around)[0]
    return HalfWave(at, early, peak / noise, peak, noise / slope)


def _flank(track: Floats, first: int, around: int) -> tuple[float, float]:
    """Where the flank that a sample lies on comes from nothing, samples; its rise a sample."""
    way = np.sign(track[first])
    top = first
    while top + 1 < len(track) and way * track[top + 1] >= way * track[top]:
        top += 1
    low, high = max(first - around, 0), min(top + around, len(track))
    fine = way * _finer(track[low:high])
    peak = _near(fine, (top - low) * FINER)
    fifth, half = (_crossed(fine, peak, share) for share in FLANK)
    steps = max(half - fifth, 1e-6)
    rise = (FLANK[1] - FLANK[0]) * float(fine[peak]) / (steps / FINER)
    return low + (fifth - steps * FLANK[0] / (FLANK[1] - FLANK[0])) / FINER, max(rise, 1e-12)


def _finer(cut: Floats) -> Floats:
    """The same between the samples, by its spectrum; ends are mirrored so that nothing jumps."""
    n = len(cut)
    whole = np.concatenate([cut, cut[::-1]])
    return np.asarray(np.fft.irfft(np.fft.rfft(whole), 2 * n * FINER)[: n * FINER] * FINER)


def _near(fine: Floats, top: int) -> int:
    low = max(top - FINER, 0)
    return low + int(np.argmax(fine[low : top + FINER + 1]))


def _crossed(fine: Floats, peak: int, share: float) -> float:
    """Where the flank before a peak last rises through a share of it, in fine steps."""
    level = share * fine[peak]
    under = np.flatnonzero(fine[:peak] <= level)
    if len(under) == 0:
        return 0.0
    k = int(under[-1])
    return k + float((level - fine[k]) / (fine[k + 1] - fine[k]))


def first_way(low: Floats, quiet: int, begins: float, wave: float) -> int:
    """Which way the low end of a track goes first.

    Parameters
    ----------
    low : ndarray, shape (N,)
        Of `low_end`.
    quiet : int
        Samples at the beginning in which nothing is played.
    begins : float
        Where the track begins to sound, samples.
    wave : float
        Samples in a wave of the fundamental.

    Returns
    -------
    int
        +1 pushed, -1 pulled, 0 where it does not stand out.
    """
    noise = max(float(np.sqrt(np.mean(low[:quiet] ** 2))), SMALLEST)
    start = max(int(begins) - 1, 0)
    cut = low[start : start + max(round(SIGN_WAVES * wave), 8)]
    size = np.abs(cut)
    over = np.flatnonzero(size > max(OVER_NOISE * noise, BODY_OF_PEAK * float(size.max(initial=0))))
    return int(np.sign(cut[over[0]])) if len(over) else 0
