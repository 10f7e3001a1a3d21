"""What two mics make of one drum when they are added: dips, ripple, curve, body.

All of it is |1 ± g·exp(-j2πfΔt)| (interference of two equal waveforms; any acoustics
handbook, for example Kuttruff, Room Acoustics, ch. 7 on comb filtering).
"""

from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Complexes, Floats, Ints

ALMOST_NIL: Final = 1e-3
"""Radians: a sine over its angle is taken by its series under it, exact there to 1e-14."""


def curve_db(
    frequency_hz: ArrayLike, delay_s: ArrayLike, ratio: ArrayLike, sign: ArrayLike
) -> Floats:
    """The sum against the louder of the two alone, decibels.

    Parameters
    ----------
    frequency_hz, delay_s, ratio, sign : array_like
        Broadcast together. `ratio` is the quieter over the louder, 0 to 1; `sign` is +1
        for equal first half-waves, -1 for opposite ones.

    Returns
    -------
    ndarray
        20·log10 |1 + sign·g·exp(-j2πfΔt)|; a perfect null is kept at -80 dB.

    Examples
    --------
    >>> round(float(curve_db(100.0, 0.0, 1.0, 1)), 2)
    6.02
    """
    phase = 2 * np.pi * np.asarray(frequency_hz, dtype=float) * np.asarray(delay_s, dtype=float)
    g = np.asarray(ratio, dtype=float)
    power = 1 + g**2 + 2 * np.asarray(sign, dtype=float) * g * np.cos(phase)
    return np.asarray(10 * np.log10(np.maximum(power, 1e-8)))


def ripple_db(ratio: ArrayLike) -> Floats:
    """Peak to dip of the sum, 20·log10((1+g)/(1-g)) decibels; ratio 1/3 gives 6.0.

    Parameters
    ----------
    ratio : array_like
        Quieter over louder amplitude, 0 to 1, any shape.

    Returns
    -------
    ndarray
        Decibels, of the same shape.
    """
    g = np.asarray(ratio, dtype=float)
    with np.errstate(divide="ignore"):
        return np.asarray(20 * np.log10((1 + g) / np.abs(1 - g)))


def first_dip_hz(delay_s: ArrayLike, sign: ArrayLike, above_hz: ArrayLike | None = None) -> Floats:
    """The lowest dip, or the lowest at or above a frequency; infinite when the delay is nil.

    Dips lie at (2n+1)/(2Δt) in polarity and at n/Δt, n ≥ 1, inverted; the dip an inverted
    sum has at 0 Hz belongs to polarity, not to time, and is counted as body. Where the sign is
    unsure it is the lower of both.

    Parameters
    ----------
    delay_s, sign, above_hz : array_like
        Seconds; +1 or -1, 0 where it is unsure; hertz; broadcast together.

    Returns
    -------
    ndarray
        Hertz, of their common shape.
    """
    dt = np.asarray(np.abs(np.asarray(delay_s, dtype=float)))
    dt[dt < 1e-12] = 1e-12
    way = np.asarray(sign)
    # Dips are a period apart, in polarity from a half, inverted from a whole one on; those of
    # both are half a period apart.
    periods = -0.5 * (way >= 0)
    periods += 1.0
    if above_hz is not None:
        every = 1.0 + (way == 0)
        more = np.ceil((np.asarray(above_hz, dtype=float) * dt - periods) * every)
        periods = periods + np.maximum(more, 0.0) / every
    found = np.asarray(periods / dt)
    found[found > 1e9] = np.inf
    return found


def body_db(
    delay_s: ArrayLike, ratio: ArrayLike, sign: ArrayLike, low_hz: ArrayLike, high_hz: ArrayLike
) -> Floats:
    """Energy of the sum over a band against the louder mic alone, decibels.

    The mean of cos(2πfΔt) from f1 to f2 is cos(2πf₀Δt)·sinc((f2-f1)Δt) about the middle f₀,
    so the band is integrated exactly, with every frequency of it given the same weight.

    Parameters
    ----------
    delay_s, ratio, sign, low_hz, high_hz : array_like
        Seconds; quieter over louder amplitude; +1 or -1; the band in hertz; broadcast together.

    Returns
    -------
    ndarray
        Decibels, of their common shape.

    Examples
    --------
    >>> round(float(body_db(0.0, 1.0, 1, 42.0, 85.0)), 2)
    6.02
    """
    return sums_db(ratio, sign, likeness(delay_s, low_hz, high_hz))[0]


def likeness(
    delay_s: ArrayLike, low_hz: ArrayLike, high_hz: ArrayLike, turn: ArrayLike = 0.0
) -> Floats:
    """How alike a sound and its late copy are over a band, -1 to 1.

    The mean of cos(2πfΔt - φ) over the band; 1 at no delay and no turn.

    Parameters
    ----------
    delay_s, low_hz, high_hz : array_like
        Seconds and hertz; broadcast together.
    turn : array_like
        How far the copy's phase is ahead besides its delay, radians.

    Returns
    -------
    ndarray
        Of their common shape, no unit.
    """
    dt = np.asarray(delay_s, dtype=float)
    low, high = np.asarray(low_hz, dtype=float), np.asarray(high_hz, dtype=float)
    # As numpy's sinc, which takes thrice as long: nil is put a hair off.
    half = np.pi * (high - low) * dt
    half = np.where(half == 0, 1e-20, half)
    middle = np.pi * (low + high) * dt - np.asarray(turn, dtype=float)
    return np.asarray(np.cos(middle) * (np.sin(half) / half))


class Turns(NamedTuple):
    """How far each of some sounds has turned in a band: R of them, on S sources, (R, S)."""

    middle: Complexes  # w·exp(j2πf₀t - jφ) at the middle of the band
    edge: Complexes  # exp(jπ(f2-f1)t), from there to its edge
    half: Floats  # that angle, radians


def turns_of(
    time_s: Floats, low_hz: Floats, high_hz: Floats, ahead: Floats, weight: Floats
) -> Turns:
    """The turns of sounds, for `likeness_of`.

    Parameters
    ----------
    time_s : ndarray, shape (R, S)
        When each arrives.
    low_hz, high_hz : ndarray, shape (S,)
        The band of each source.
    ahead : ndarray, shape (R, S)
        How far each phase is ahead besides its time, radians.
    weight : ndarray, shape (R, S)
        Signed; the likeness of two is weighted with both.

    Returns
    -------
    Turns
    """
    half = np.pi * (high_hz - low_hz) * time_s
    middle = np.pi * (low_hz + high_hz) * time_s - ahead
    return Turns(weight * np.exp(1j * middle), np.exp(1j * half), half)


def likeness_of(turns: Turns, one: Ints, two: Ints) -> Floats:
    """`likeness` of sounds, two by two: of many pairs of few sounds no sine is taken anew.

    Parameters
    ----------
    turns : Turns
    one, two : ndarray of int, shape (N,)
        Sounds by number.

    Returns
    -------
    ndarray, shape (N, S)
        -1 to 1, times the weights.
    """
    middle, edge, half = turns
    angle = half.take(two, 0)
    angle -= half.take(one, 0)
    nil = np.abs(angle) < ALMOST_NIL
    small, angle[nil] = angle[nil], 1.0
    turned, back = edge.take(two, 0), edge.conj().take(one, 0)
    turned *= back
    share = np.divide(turned.imag, angle, out=angle)
    share[nil] = 1 - small**2 / 6
    # In the same memory: to come by as much again takes as long as the products.
    np.take(middle, two, 0, out=turned, mode="clip")
    np.take(middle.conj(), one, 0, out=back, mode="clip")
    turned *= back
    share *= turned.real
    return share


def sums_db(ratio: ArrayLike, sign: ArrayLike, alike: ArrayLike) -> tuple[Floats, Floats]:
    """Energy of the sum of two sounds against the louder alone, as they are and one turned over.

    Parameters
    ----------
    ratio, sign, alike : array_like
        Quieter over louder; +1 or -1; `likeness` of the two.

    Returns
    -------
    (ndarray, ndarray)
        Decibels, of their common shape: with this sign, and with the other.
    """
    g = np.asarray(ratio, dtype=float)
    apart = g * g
    apart += 1
    crossed = g * np.asarray(alike, dtype=float) * np.asarray(sign)
    crossed *= 2
    return _db(apart + crossed), _db(apart - crossed)


def _db(power: ArrayLike) -> Floats:
    kept = np.asarray(power, dtype=float)
    kept[kept < 1e-8] = 1e-8
    np.log10(kept, out=kept)
    kept *= 10
    return kept
