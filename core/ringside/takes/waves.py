"""The first half-waves of a drum's hits as they can be drawn: every hit, every track, low end only.

Each is laid so that the drum's own mic begins at nought, and sized to its own highest, so that what
is seen is when and which way, not how loud.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.takes.files import Reader
from ringside.takes.halfwave import half_wave, low_end, quiet_below
from ringside.takes.hit import BEFORE_S, MARGIN_S
from ringside.takes.reading import TakeRead

FROM_S: Final = -0.002
WAVES: Final = 1.5
"""What is drawn after the last track begins, waves of the fundamental."""

POINTS: Final = 160
DRAWN: Final = 6
"""Hits of a drum that are drawn; more are a smear."""


@dataclass(frozen=True, slots=True)
class WaveRow:
    """One channel: every drawn hit as `points` heights, -100 to 100."""

    channel: str
    hits: list[list[int]]


@dataclass(frozen=True, slots=True)
class DrumWaves:
    """The half-waves of one drum."""

    source: str
    from_ms: float
    step_ms: float
    rows: list[WaveRow]


def waves_of(take: TakeRead) -> list[DrumWaves]:
    """Every drum's half-waves.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    list of DrumWaves
    """
    with Reader([take.tracks[n] for n in take.rows]) as reader:
        return [_drum(take, reader, n) for n in range(len(take.drums))]


def _drum(take: TakeRead, reader: Reader, n: int) -> DrumWaves:
    drum, an = take.drums[n], take.analysis
    name = an.scene.sources.ids[drum.source]
    f = drum.fundamental_hz or an.scene.sources.fundamentals[drum.source]
    latest = float(np.nanmax(np.where(np.isfinite(drum.lag_s), drum.lag_s, 0.0)))
    until = max(latest, 0.0) + WAVES / f
    at = np.linspace(FROM_S, until, POINTS)
    when = [h.at_s for h in take.hits if h.source == name and not h.out][:DRAWN]
    heights = [_hit(take, reader, s, drum.own, f, at) for s in when]
    rows = [
        WaveRow(str(take.matched[row].channel), [_whole(h[t]) for h in heights])
        for t, row in enumerate(take.rows)
    ]
    step = (until - FROM_S) / (POINTS - 1)
    return DrumWaves(name, round(FROM_S * 1e3, 3), round(step * 1e3, 5), rows)


def _hit(take: TakeRead, reader: Reader, at_s: float, own: int, f: float, at: Floats) -> Floats:
    """One hit of every track at the drawn times, (C, POINTS)."""
    rate = take.rate_hz
    before = round(BEFORE_S * rate)
    cut = reader.cut(round(at_s * rate) - before, before + round((float(at[-1]) + 0.02) * rate))
    sound = quiet_below(cut, rate)
    quiet = before - round(MARGIN_S * rate)
    begins = half_wave(sound[own], quiet, sound.shape[1], rate).at
    if not np.isfinite(begins):
        begins = float(before)
    low = low_end(sound, f, rate)
    places = begins + at * rate
    n = np.arange(low.shape[1])
    return np.array([np.interp(places, n, track) for track in low])


def _whole(track: Sequence[float] | Floats) -> list[int]:
    size = float(np.max(np.abs(track)))
    return [round(float(100 * v / size)) for v in track] if size > 0 else [0] * len(track)
