"""The verdict on every pair and drum as measured, beside the plan's, by the same rule.

What the plan takes from geometry is taken from the recording where it says: levels in the balance
(each mic's own job at one peak, then the faders), what the two add up to as wired and flipped,
how late one is. The rule itself is :func:`ringside.pairs.verdicts.verdicts`. Sums need no sign and
no arrival, so a pair whose first half-wave nobody could plan is settled by what it adds up to.

A verdict is sure where it stays the same over two standard deviations of every figure in it. Where
an arrival is refused and the verdict would hang on it, there is none: "ask the ear", with why.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats, Ints, Mask
from ringside.hear.sums import first_dip_hz
from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import COVERAGE
from ringside.pairs.verdicts import Facts, Kind, Verdict, verdicts
from ringside.plan.feeds import feeds
from ringside.takes.pooled import DrumRead
from ringside.takes.reading import TakeRead

BODY: Final = 0
FAINT: Final = 1e-9


@dataclass(frozen=True)
class Judged:
    """Pairs on the drums that were hit; P pairs of the analysis, D drums read, (P, D)."""

    take: TakeRead
    rows: Ints  # (M,) the track each mic is read from, -1 where it has none
    there: Mask  # both mics are on tracks, and both are heard over what was there before
    delay_s: Floats  # the second after the first, at the track; no number where refused
    deviation_s: Floats  # one standard deviation of it
    sign: Ints  # of the first half-waves: +1 equal, -1 opposite, 0 refused
    level_difference_db: Floats  # after gain, the second against the first
    sums_db: Floats  # (2, 3, P, D) as wired and flipped, by band, against the louder alone
    gain_db: Floats  # what a flip gains in body
    gain_spread_db: Floats  # one standard deviation of it, over the hits
    alike: Floats  # correlation over the body band, as wired, -1 to 1
    verdict: NDArray[np.int8]
    sure: Mask
    time_missing: Mask  # the verdict would hang on an arrival that was refused


def judged(take: TakeRead) -> Judged:
    """Every pair on every drum that was hit.

    Parameters
    ----------
    take : TakeRead

    Returns
    -------
    Judged
    """
    an = take.analysis
    rows = _rows(take)
    way = np.array([-1 if f.first and f.first.track_flip else 1 for f in feeds(an.layout)] or [1])
    amplitude = _amplitudes(take, rows)
    made = [_drum(take, d, rows, way, amplitude[:, n]) for n, d in enumerate(take.drums)]
    stacked = {k: np.stack([m[k] for m in made], axis=-1) for k in made[0]} if made else {}
    return _with_verdicts(take, rows, amplitude, stacked)


def _rows(take: TakeRead) -> Ints:
    """The track of each mic: of the channel it is meant by, or the first there is."""
    an = take.analysis
    by_channel = {take.matched[n].channel: row for row, n in enumerate(take.rows)}
    own = {m: row for row, m in reversed(list(enumerate(take.mics)))}
    made = []
    for n, feed in enumerate(feeds(an.layout)):
        lead = by_channel.get(feed.first.id) if feed.first else None
        made.append(lead if lead is not None else own.get(n, -1))
    return np.array(made, dtype=np.int64)


def _amplitudes(take: TakeRead, rows: Ints) -> Floats:
    """Size of each drum in each mic, in the balance, (M, D): as measured, else as planned."""
    an = take.analysis
    drums = [d.source for d in take.drums]
    planned = an.arrivals.after_gain_db[:, drums]
    made = 10 ** (planned / 20)
    if drums:
        raw = np.array([d.energy_db[BODY] for d in take.drums]).T  # (C, D)
        for m, row in enumerate(rows):
            if row >= 0:
                own = _job(an, m, drums, raw[row])
                if own is not None:
                    under = raw[row] - raw[row, own]
                    start = an.scene.fader_db[m]
                    made[m] = 10 ** ((start + under) / 20)
                else:  # its own drum was not hit: brought to the plan by the drums that were
                    made[m] = 10 ** ((raw[row] + np.median(planned[m] - raw[row])) / 20)
    return np.asarray(np.where(an.scene.heard[:, None], made, 0.0))


def _job(an: Analysis, mic: int, drums: list[int], raw: Floats) -> int | None:
    """Which of the drums read is the mic's own: for one of the whole kit its loudest."""
    job = int(an.scene.job[mic])
    if job < 0:
        return int(np.argmax(raw))
    return drums.index(job) if job in drums else None


def _drum(
    take: TakeRead, drum: DrumRead, rows: Ints, way: Ints, amplitude: Floats
) -> dict[str, Floats]:
    """The figures of every pair on one drum, (P,) each."""
    p, late = take.analysis.pairs, take.analysis.scene.track_delay
    a, b = rows[p.first], rows[p.second]
    both = (a >= 0) & (b >= 0) & drum.heard[BODY][a] & drum.heard[BODY][b]
    turn = way[p.first] * way[p.second]
    delay = drum.lag_s[b] - drum.lag_s[a] + late[p.second] - late[p.first]
    apart = np.hypot(drum.deviation_s[a], drum.deviation_s[b])
    own = (a == drum.own) | (b == drum.own)
    single = np.where(a == drum.own, drum.deviation_s[b], drum.deviation_s[a])
    sums, gain, spread, alike = _sums(drum, a, b, turn, amplitude[p.first], amplitude[p.second])
    return {
        "there": both.astype(float),
        "delay_s": np.where(both, delay, np.nan),
        "deviation_s": np.where(both, np.where(own, single, apart), np.nan),
        "sign": np.where(both, drum.sign[a] * drum.sign[b] * turn, 0).astype(float),
        "sums_db": np.where(both, sums, np.nan),
        "gain_db": np.where(both, gain, np.nan),
        "gain_spread_db": np.where(both, spread, np.nan),
        "alike": np.where(both, alike, np.nan),
    }


def _sums(
    drum: DrumRead, a: Ints, b: Ints, turn: Ints, size_a: Floats, size_b: Floats
) -> tuple[Floats, Floats, Floats, Floats]:
    """Sums of pairs, (2, 3, P) decibels; gain of a flip in body, its spread, likeness, (P,)."""
    hits = drum.products  # (H, 3, C, C)
    one, two = hits[..., a, a], hits[..., b, b]  # (H, 3, P)
    cross = hits[..., a, b] * turn
    # Both are brought to their size in the balance by their body; other bands go with it.
    scale_a = size_a**2 / np.maximum(one[:, BODY].mean(axis=0), FAINT)
    scale_b = size_b**2 / np.maximum(two[:, BODY].mean(axis=0), FAINT)
    first, second = one * scale_a, two * scale_b
    both = 2 * cross * np.sqrt(scale_a * scale_b)
    louder = np.maximum(np.maximum(first, second), FAINT)
    made = [
        10 * np.log10(np.maximum((first + second + s * both) / louder, 1e-6)) for s in (1.0, -1.0)
    ]
    gain = made[1][:, BODY] - made[0][:, BODY]
    spread = gain.std(axis=0, ddof=1) if len(gain) > 1 else np.full(gain.shape[1], 1.0)
    alike = cross[:, BODY].mean(axis=0) / np.sqrt(
        np.maximum(one[:, BODY].mean(axis=0) * two[:, BODY].mean(axis=0), FAINT**2)
    )
    sums = np.stack([np.median(m, axis=0) for m in made])
    return sums, np.median(gain, axis=0), spread, np.clip(alike, -1, 1)


def _with_verdicts(
    take: TakeRead, rows: Ints, amplitude: Floats, had: dict[str, NDArray[np.float64]]
) -> Judged:
    an = take.analysis
    p, drums = an.pairs, [d.source for d in take.drums]
    if not drums:
        none = np.zeros((len(p.first), 0))
        had = dict.fromkeys(
            ("there", "delay_s", "deviation_s", "sign", "gain_db", "gain_spread_db", "alike"), none
        ) | {"sums_db": np.zeros((2, 3, len(p.first), 0))}  # fmt: skip
    size = np.maximum(amplitude, 1e-6)
    level = 20 * np.log10(size[p.second] / size[p.first])
    asked = _Asked(take, amplitude, level, had, drums)
    verdict = asked.at(0.0, 0.0)
    sure = had["there"] > 0
    for gain, time in ((1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0)):
        sure = sure & (asked.at(gain, time) == verdict)
    missing = ~np.isfinite(had["delay_s"]) & (had["there"] > 0) & asked.hangs_on_time(verdict)
    return Judged(
        take=take,
        rows=rows,
        there=had["there"] > 0,
        delay_s=had["delay_s"],
        deviation_s=had["deviation_s"],
        sign=had["sign"].astype(np.int64),
        level_difference_db=level,
        sums_db=had["sums_db"],
        gain_db=had["gain_db"],
        gain_spread_db=had["gain_spread_db"],
        alike=had["alike"],
        verdict=np.where(missing, int(Verdict.ASK_THE_EAR), verdict).astype(np.int8),
        sure=sure & ~missing,
        time_missing=missing,
    )


@dataclass(frozen=True)
class _Asked:
    """The rule, asked of measured figures at any place within their intervals."""

    take: TakeRead
    amplitude: Floats
    level: Floats
    had: dict[str, NDArray[np.float64]]
    drums: list[int]

    def at(self, gain: float, time: float) -> NDArray[np.int8]:
        """Verdicts with the gain of a flip, and the delay, so many intervals off."""
        return self._at(gain, self._delay() + time * COVERAGE * self._apart())

    def hangs_on_time(self, verdict: NDArray[np.int8]) -> Mask:
        """Whether another delay within what mics of a kit can be apart gives another verdict."""
        delay, worst = self._delay(), np.zeros(verdict.shape, dtype=bool)
        for late in (0.0, 0.002, 0.006, 0.02):
            worst |= self._at(0.0, np.full(delay.shape, late)) != verdict
        return worst

    def _delay(self) -> Floats:
        planned = self.take.analysis.pairs.delay_s[:, self.drums]
        return np.asarray(np.where(np.isfinite(self.had["delay_s"]), self.had["delay_s"], planned))

    def _apart(self) -> Floats:
        return np.asarray(np.nan_to_num(self.had["deviation_s"], nan=0.0))

    def _at(self, gain_off: float, delay: Floats) -> NDArray[np.int8]:
        an = self.take.analysis
        p, s = an.pairs, an.scene.sources
        drum = s.drum[self.drums]
        kind = p.kind[:, None]
        alike = np.nan_to_num(self.had["alike"])
        sign = np.where(alike < 0, -1, 1)
        hits = np.array([d.hits for d in self.take.drums])
        spread = np.nan_to_num(self.had["gain_spread_db"]) / np.sqrt(np.maximum(hits, 1))
        gain = np.nan_to_num(self.had["gain_db"]) + gain_off * COVERAGE * spread
        told = self.had["sign"].astype(np.int64)
        time_sign = np.where(told == 0, sign, told)
        either = np.where(kind == Kind.DECODED, 0, time_sign)
        dips = first_dip_hz(delay, either, s.body_low[self.drums])
        every = np.maximum((self.amplitude**2).sum(axis=0), 1e-30)
        share = 2 * self.amplitude[p.first] * self.amplitude[p.second] / every
        facts = Facts(
            kind, drum, self.level, share, np.abs(alike), delay, sign, gain,
            dips <= p.band_high_hz[:, self.drums],
        )  # fmt: skip
        return verdicts(an.layout.thresholds, facts)
