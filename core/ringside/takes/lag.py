"""How much later one track hears a stroke than another: generalised cross-correlation.

The other of the two ways an arrival is found. Both spectra are brought to one size at every
frequency (phase transform: Knapp and Carter, IEEE Trans. Acoust. Speech Signal Process. 24 (1976)
320), so that what counts is when, not how loud; the band is that of the stick. The first of the
two is cut to its direct sound. Where a lag was found the other is cut to the same stretch of its
own, and the two are correlated once more: for one shape at two times nothing is left but the lag.
It is read `FINEST` times between the samples with a parabola through the highest three; what that
and the cut leave is under 0.05 samples (measured on shifted recordings).

A room sends later copies that may be larger, so all peaks not far under the highest are kept, and
which one is the first is asked of :mod:`ringside.takes.halfwave`.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Complexes, Floats, Ints

BAND_HZ: Final = (300.0, 700.0, 7_000.0, 10_000.0)
"""Where the band begins to open, is open, begins to close, is closed."""

FINER: Final = 2
"""Times a sample the first look is read; what it finds is looked at once more."""

FINEST: Final = 8
DIRECT_S: Final = (0.001, 0.006)
"""Of the first track: before its onset and after it (from memory: the first reflection comes
later, or is part of the mic's own sound)."""

OF_HIGHEST: Final = 0.25
"""Peaks of the correlation that are kept, of the highest."""

EITHER_WAY: Final = 3
"""Samples a lag is looked for once more."""

OVER_REST: Final = 5.0
"""Times the root mean square of the correlation: less is no peak."""


@dataclass(frozen=True, slots=True)
class Peak:
    """A likely lag, samples, and its height with its sign, 1 for two alike."""

    lag: float
    height: float


@dataclass(frozen=True)
class Whitened:
    """Spectra of C tracks at one size, over the band of the stick."""

    phase: Complexes  # (C, F)
    band: Floats  # (F,)
    size: int

    def peaks(self, first: Complexes, track: int, low: int, high: int) -> list[Peak]:
        """Likely lags of a track behind the first.

        Parameters
        ----------
        first : ndarray of complex, shape (F,)
            Of the first track's direct sound, whitened.
        track : int
        low, high : int
            The lags that are looked at, samples.

        Returns
        -------
        list of Peak
            The highest first.
        """
        return _peaks(self.correlated(first, track, low, high, FINER), low)

    def correlated(self, first: Complexes, track: int, low: int, high: int, finer: int) -> Floats:
        """The correlation of a track with the first, from lag to lag.

        Parameters
        ----------
        first : ndarray of complex, shape (F,)
        track : int
        low, high : int
            Samples.
        finer : int
            How often a sample it is told.

        Returns
        -------
        ndarray, shape ((high - low)·finer + 1,)
            1 for two alike.
        """
        cross = self.phase[track] * first.conj() * self.band
        wave = np.fft.irfft(cross, self.size * finer) * (self.size * finer / 2 / self.band.sum())
        span = np.arange(low * finer, high * finer + 1)
        return np.asarray(wave[span % len(wave)])


def whitened(cut: Floats, rate_hz: int, most: int) -> Whitened:
    """Tracks made ready.

    Parameters
    ----------
    cut : ndarray, shape (C, N)
    rate_hz : int
    most : int
        The longest lag that is looked at, samples.

    Returns
    -------
    Whitened
    """
    from scipy.fft import next_fast_len

    size = int(next_fast_len(cut.shape[1] + most, real=True))
    f = np.fft.rfftfreq(size, 1 / rate_hz)
    a, b, c, d = BAND_HZ
    band = np.clip((f - a) / (b - a), 0, 1) * np.clip((d - f) / (d - c), 0, 1)
    return Whitened(_white(np.fft.rfft(cut, size)), np.asarray(band), size)


def direct(track: Floats, begins: float, rate_hz: int, ready: Whitened) -> Complexes:
    """The direct sound of a track, whitened.

    Parameters
    ----------
    track : ndarray, shape (N,)
    begins : float
        Where it begins to sound, samples.
    rate_hz : int
    ready : Whitened

    Returns
    -------
    ndarray of complex, shape (F,)
    """
    before, after = (round(s * rate_hz) for s in DIRECT_S)
    t = np.arange(len(track)) - (int(begins) - before)
    return _white(np.fft.rfft(track * _window(t, before, after), ready.size))


def refined(one: Floats, begins: float, other: Floats, lag: float, rate_hz: int) -> float:
    """A lag once more, both tracks cut to their direct sound alike.

    Parameters
    ----------
    one, other : ndarray, shape (N,)
    begins : float
        Where the first begins to sound, samples.
    lag : float
        Of the other behind it, as it was found, samples.
    rate_hz : int

    Returns
    -------
    float
        Samples; the lag itself where the cut would reach beyond the tracks.
    """
    before, after = (round(s * rate_hz) for s in DIRECT_S)
    starts = (int(begins) - before, int(begins) - before + round(lag))
    length = before + after
    if min(starts) < 0 or max(starts) + length > len(one):
        return lag
    window = _window(np.arange(length), before, after)
    cuts = np.array([t[a : a + length] for t, a in zip((one, other), starts, strict=True)])
    ready = whitened(cuts * window, rate_hz, length)
    wave = ready.correlated(ready.phase[0], 1, -EITHER_WAY, EITHER_WAY, FINEST)
    k = int(np.abs(wave).argmax())
    if k in (0, len(wave) - 1):
        return lag
    return round(lag) + _peak(np.abs(wave), k, -EITHER_WAY, FINEST)[0]


def _window(t: Ints, before: int, after: int) -> Floats:
    """Rises before the onset, falls towards the end of the direct sound."""
    rise = np.clip(t / before, 0, 1)
    fall = np.clip((before + after - t) / (after / 2), 0, 1)
    return np.asarray(np.sin(np.pi / 2 * rise) ** 2 * np.sin(np.pi / 2 * fall) ** 2)


def _white(spectrum: Complexes) -> Complexes:
    return np.asarray(spectrum / np.maximum(np.abs(spectrum), 1e-20))


def _peaks(wave: Floats, low: int) -> list[Peak]:
    size = np.abs(wave)
    least = max(OF_HIGHEST * float(size.max()), OVER_REST * float(np.sqrt(np.mean(size**2))))
    inner = size[1:-1]
    at = np.flatnonzero((inner >= size[:-2]) & (inner > size[2:]) & (inner >= least)) + 1
    made = []
    for k in at:
        lag, height = _peak(size, int(k), low, FINER)
        made.append(Peak(lag, float(np.sign(wave[k])) * height))
    return sorted(made, key=lambda p: -abs(p.height))


def _peak(size: Floats, k: int, low: int, finer: int) -> tuple[float, float]:
    """Lag and height of a peak, by a parabola through three."""
    left, mid, right = (float(size[k + n]) for n in (-1, 0, 1))
    bent = left - 2 * mid + right
    off = 0.5 * (left - right) / bent if bent < 0 else 0.0
    return low + (k + off) / finer, mid
