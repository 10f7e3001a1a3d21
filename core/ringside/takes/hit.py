"""One hit, read at every track: when it arrives, which way it goes first, and what adds up.

Arrivals are told against one track, the drum's own mic where it has one. Two ways must agree: the
first half-wave (:mod:`ringside.takes.halfwave`) and the lag of the stick's band
(:mod:`ringside.takes.lag`); the second is finer and is what is told. Which way a track goes against
the first is asked twice, too: of the first half-waves of the low end, and of the sign of the
correlation of the two low ends laid over each other.

What two tracks add up to is not asked of times or signs: the sums of a hit over a band follow
from the products of the tracks' spectra, |X_a ± X_b|² = |X_a|² + |X_b|² ± 2 Re X_a X_b*. They are
kept for three bands: body, attack, air.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.takes.halfwave import HalfWave, first_way, half_wave, low_end, quiet_below
from ringside.takes.lag import Whitened, direct, refined, whitened

BEFORE_S: Final = 0.05
"""What is cut before the first track begins: there it is quiet, but for what rings on."""

MARGIN_S: Final = 0.002
AFTER_S: Final = 0.30
"""What is cut after it: a drum's body (common practice)."""

AGREE_S: Final = 0.00012
"""The two ways agree to this (4 cm; from trial on takes whose truth is known)."""

LEAST_AGREE_S: Final = 0.0005
"""And never to less than this, however slow a flank is in how much noise."""

FLANKS: Final = 3.0
"""Standard deviations of the two flanks that they may differ by."""

OVER_NOISE: Final = 10.0
"""Times over what is there before: a softer half-wave is not read."""

ALIKE: Final = 0.5
"""Correlation of two low ends laid over each other, from where its sign counts."""

OVER_DB: Final = 6.0
"""A band counts where it stands this far over what is there before."""

FEWEST_WAVES: Final = 1.5
BANDS: Final = ("body", "attack", "air")


@dataclass(frozen=True)
class Ranges:
    """The three bands a drum is asked about, hertz: (low, high) each."""

    fundamental: float
    body: tuple[float, float]
    attack: tuple[float, float]
    air: tuple[float, float]

    @property
    def every(self) -> tuple[tuple[float, float], ...]:
        """In the order of `BANDS`."""
        return (self.body, self.attack, self.air)


@dataclass(frozen=True)
class Cut:
    """A hit as it was cut out: C tracks of N samples, and where in it something is played."""

    sound: Floats  # (C, N)
    rate_hz: int
    begins: int
    """The sample the first track begins at, to a millisecond."""
    across: int
    """Samples it may take from the first track to the last."""

    @property
    def quiet(self) -> int:
        """Samples at the beginning in which nothing is played."""
        return max(self.begins - round(MARGIN_S * self.rate_hz), 1)


@dataclass(frozen=True)
class HitRead:
    """What one hit says, (C,) unless said; the track it is told against is `own`."""

    own: int
    lag_s: Floats  # behind the own track; no number where it was not found
    rough_s: Floats  # the same by the first half-waves alone
    agreed: Mask  # both ways agree
    way: Ints  # of the first half-wave: +1 pushed, -1 pulled, 0 unsure
    turned: Ints  # against the own track's low end: +1 alike, -1 turned over, 0 unsure
    over_noise: Floats
    products: Floats  # (3, C, C) of the spectra over each band, real part
    noise: Floats  # (3, C) energy of each band before the hit, over as long


def read_halfwaves(cut: Cut) -> tuple[Floats, list[HalfWave]]:
    """The tracks without what hums, and the first half-wave of each.

    Parameters
    ----------
    cut : Cut

    Returns
    -------
    sound : ndarray, shape (C, N)
    waves : list of HalfWave
    """
    sound = quiet_below(cut.sound, cut.rate_hz)
    until = cut.begins + cut.across
    return sound, [half_wave(track, cut.quiet, until, cut.rate_hz) for track in sound]


def read_hit(
    cut: Cut, own: int, ranges: Ranges, known: Sequence[HalfWave] | None = None,
    later_s: Floats | None = None,
) -> HitRead:  # fmt: skip
    """Everything one hit says.

    Parameters
    ----------
    cut : Cut
    own : int
        The track arrivals are told against.
    ranges : Ranges
    known : sequence of HalfWave, optional
        Of every track, where they were read before.
    later_s : ndarray, shape (C,), optional
        Seconds each track is mixed later than it lies in the cut: what they add up to is told so.

    Returns
    -------
    HitRead
    """
    rate = cut.rate_hz
    sound, waves = (quiet_below(cut.sound, rate), known) if known else read_halfwaves(cut)
    at = np.array([w.at for w in waves])
    over = np.array([w.over_noise for w in waves])
    short = sound[:, : cut.begins + 2 * cut.across]
    lag, agreed = _lags(short, waves, own, rate, cut.across)
    low = low_end(sound, ranges.fundamental, rate)
    wave = rate / ranges.fundamental
    way = np.array([first_way(t, cut.quiet, a, wave) if np.isfinite(a) else 0
                    for t, a in zip(low, at, strict=True)])  # fmt: skip
    products, noise = _products(cut, ranges, later_s)
    return HitRead(
        own=own,
        lag_s=lag / rate,
        rough_s=(at - at[own]) / rate,
        agreed=agreed,
        way=way,
        turned=_turned(low, at, lag, own, wave),
        over_noise=over,
        products=products,
        noise=noise,
    )


def _lags(
    sound: Floats, waves: Sequence[HalfWave], own: int, rate: int, across: int
) -> tuple[Floats, Mask]:
    """Lags behind the own track, samples, and whether both ways agree on them.

    What is softer and earlier goes first, if the stick's band has it there, too.
    """
    count, first = len(sound), waves[own]
    lag, agreed = np.full(count, np.nan), np.zeros(count, dtype=bool)
    lag[own] = 0.0
    if not np.isfinite(first.at):
        return lag, agreed
    agreed[own] = first.over_noise >= OVER_NOISE
    ready: Whitened = whitened(sound, rate, across)
    begins = direct(sound[own], first.at, rate, ready)
    for n, wave in enumerate(waves):
        if n == own or not np.isfinite(wave.at) or wave.over_noise < OVER_NOISE:
            continue
        peaks = ready.peaks(begins, n, -across, across)
        unsure = FLANKS * float(np.hypot(wave.spread, first.spread))
        near = min(max(AGREE_S * rate, unsure), LEAST_AGREE_S * rate)
        lag[n] = wave.at - first.at
        for at in (wave.early, wave.at):
            best = min(peaks, key=lambda p: abs(p.lag - (at - first.at)), default=None)
            if best is not None and abs(best.lag - (at - first.at)) <= near:
                lag[n] = refined(sound[own], first.at, sound[n], best.lag, rate)
                agreed[n] = True
                break
    return lag, agreed


def _turned(low: Floats, at: Floats, lag: Floats, own: int, wave: float) -> Ints:
    """Signs of the low ends against the own track's, laid over each other."""
    made = np.zeros(len(low), dtype=np.int64)
    if not np.isfinite(at[own]):
        return made
    length = max(round(FEWEST_WAVES * wave), 8)
    start = max(round(float(at[own])) - 2, 0)
    first = low[own, start : start + length]
    for n in range(len(low)):
        if not np.isfinite(lag[n]):
            continue
        begin = start + round(float(lag[n]))
        other = low[n, max(begin, 0) : max(begin, 0) + length]
        if begin < 0 or len(other) < len(first) or len(first) < length:
            continue
        size = float(np.sqrt((first @ first) * (other @ other)))
        like = float(first @ other) / size if size > 0 else 0.0
        made[n] = int(np.sign(like)) if abs(like) >= ALIKE else 0
    return made


def _products(cut: Cut, ranges: Ranges, later_s: Floats | None) -> tuple[Floats, Floats]:
    rate = cut.rate_hz
    later = np.zeros(len(cut.sound)) if later_s is None else later_s - later_s.min()
    hit = cut.sound[:, cut.quiet :]
    fade = np.clip((hit.shape[1] - np.arange(hit.shape[1])) / (0.2 * hit.shape[1]), 0, 1)
    from scipy.fft import next_fast_len

    # Room for the latest, so that none of it comes round to the beginning.
    room = min(round(float(later.max()) * rate), hit.shape[1])
    long, short = (int(next_fast_len(n, real=True)) for n in (hit.shape[1] + room, cut.quiet))
    spectrum = np.fft.rfft(hit * fade, long)
    before = np.fft.rfft(cut.sound[:, : cut.quiet], short)
    f, g = (np.fft.rfftfreq(n, 1 / rate) for n in (long, short))
    if room:
        away = np.minimum(later, hit.shape[1] / rate)[:, None]
        spectrum *= np.exp(-2j * np.pi * f * away)
    products, noise = [], []
    longer = (long / short) * (hit.shape[1] / short)
    for low, high in ranges.every:
        part = spectrum[:, (f >= low) & (f < high)]
        products.append((part @ part.conj().T).real)
        # The low band may lie between two lines of so short a cut: the nearest is taken.
        lines = (g >= low) & (g < high)
        lines[np.abs(g - (low + high) / 2).argmin()] = True
        share = (high - low) / (lines.sum() * (g[1] - g[0]))
        noise.append((np.abs(before[:, lines]) ** 2).sum(axis=1) * share * longer)
    return np.array(products), np.array(noise)
