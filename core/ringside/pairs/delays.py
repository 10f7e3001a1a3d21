"""A pair's body, attack and air on a drum, as wired and flipped, for any delay.

The curve over delay says whether a move or a flip is the better cure: it shows the body of
the sum for every time one track could be late against how the two stand now. Spot against
overheads is judged this way, because those can never be equal in time.

Bands: body is the octave round the fundamental; attack from the top of the punch to the top
of the attack; air above it to 16 kHz (limits of :mod:`ringside.hear.bands`).
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats, Ints
from ringside.hear.sums import sums_db
from ringside.pairs.analysis import Analysis, alike_at
from ringside.pairs.known import signed_db

CURVE_REACH_S: Final = 5e-3
CURVE_POINTS: Final = 401
AIR_TOP_HZ: Final = 16_000.0
MOVE_S: Final = 1e-3
"""A mic is rarely moved further than sound goes in this, about a third of a metre."""

CLOSE_MOVE_M: Final = 0.1
"""A close mic moved further than a hand is another sound (common practice)."""

CLEAR_DB: Final = 1.0
"""One cure is called better than another from this on (common practice)."""


@dataclass(frozen=True, kw_only=True, slots=True)
class BandRow:
    """The sum over a band, decibels against the louder mic alone."""

    band: Literal["body", "attack", "air"]
    low_hz: float
    high_hz: float
    wired_db: float
    flipped_db: float


@dataclass(frozen=True, kw_only=True, slots=True)
class Fullest:
    """The fullest point within a short move."""

    later_s: float
    metres: float
    samples: float
    body_db: float


@dataclass(frozen=True, kw_only=True, slots=True)
class DelayCurve:
    """Body of the sum against the delay put on the second mic: N points, decibels, seconds."""

    later_s: list[float]
    """From -5 to +5 ms against now."""
    wired_db: list[float]
    flipped_db: list[float]
    now_db: float
    flipped_now_db: float
    equal_s: float | None
    """The delay at which both hear the drum at once; None beyond the chart."""
    best_move: Fullest
    """As wired, within `MOVE_S`; for a close mic within `CLOSE_MOVE_M`."""
    words: str


def bands_db(an: Analysis, row: int, source: int) -> list[BandRow]:
    """Body, attack and air of a pair's sum, against the louder mic alone.

    Parameters
    ----------
    row, source : int
        The pair and the drum by number.

    Returns
    -------
    list of BandRow
    """
    b = an.scene.sources.bands[source]
    edges: dict[Literal["body", "attack", "air"], tuple[float, float]] = {
        "body": (b.body_low, b.body_high),
        "attack": (b.punch_high, b.attack_high),
        "air": (b.attack_high, max(AIR_TOP_HZ, b.attack_high * 1.5)),
    }
    rows = []
    for name, (low, high) in edges.items():
        wired, flipped = _in_band(an, row, source, low, high)
        rows.append(
            BandRow(band=name, low_hz=low, high_hz=high, wired_db=wired, flipped_db=flipped)
        )
    return rows


def _in_band(an: Analysis, row: int, source: int, low: float, high: float) -> tuple[float, float]:
    """The sum over any band as wired and flipped, near surfaces counted in that band."""
    p = an.pairs
    i, j = int(p.first[row]), int(p.second[row])
    one, two, on = np.array([i, i, j]), np.array([i, j, j]), np.full(3, source)
    lows, highs = np.full(3, low), np.full(3, high)
    own_a, cross, own_b = alike_at(an.arrivals.rays, one, two, on, lows, highs)
    more = _screened_db(an, source, low, high)
    a, b = (10 ** ((an.arrivals.after_gain_db[m, source] - more[m]) / 20) for m in (i, j))
    both = 2 * p.raw_sign[row, source] * a * b * cross
    apart = a**2 * own_a + b**2 * own_b
    louder = max(a**2 * own_a, b**2 * own_b, 1e-12)

    def db(power: float) -> float:
        return float(10 * np.log10(max(power / louder, 1e-8)))

    return db(apart + both), db(apart - both)


def _screened_db(an: Analysis, source: int, low: float, high: float) -> Floats:
    """What gobos and walls take in a band more than at the drum's body, decibels by mic (M,)."""
    screens, s = an.arrivals.screens, an.scene.sources
    if screens is None:
        return np.zeros(len(an.layout.mics))
    middle = np.full(len(s.ids), np.sqrt(low * high))
    body = screens.loss_db(s.fundamental_hz, an.scene.speed)
    return np.asarray((screens.loss_db(middle, an.scene.speed) - body)[:, source])


def _alike(
    an: Analysis, row: int, source: int, low: float, high: float, later: float | Floats
) -> Floats:
    """Likeness over the body band for each delay put on the second mic, (N,)."""
    shift = np.atleast_1d(np.asarray(later, dtype=float))
    n = len(shift)
    one: Ints = np.full(n, an.pairs.first[row])
    two: Ints = np.full(n, an.pairs.second[row])
    on: Ints = np.full(n, source)
    return alike_at(an.arrivals.rays, one, two, on, np.full(n, low), np.full(n, high), shift)


def _both(an: Analysis, row: int, source: int, alike: Floats) -> tuple[Floats, Floats]:
    ratio = an.pairs.ratio[row, source]
    raw = an.pairs.raw_sign[row, source]
    return sums_db(ratio, raw, alike)


def body_by_delay(an: Analysis, row: int, source: int, turned: bool = False) -> DelayCurve:
    """The body of a pair's sum against the delay put on its second mic.

    Parameters
    ----------
    row, source : int
        The pair and the drum by number.
    turned : bool
        The first mic is meant as the second.

    Returns
    -------
    DelayCurve
    """
    b = an.scene.sources.bands[source]
    later = np.linspace(-CURVE_REACH_S, CURVE_REACH_S, CURVE_POINTS)
    way = -1.0 if turned else 1.0
    wired, flipped = _both(an, row, source, _alike(an, row, source, b.body_low, b.body_high,
                                                    way * later))  # fmt: skip
    middle = CURVE_POINTS // 2
    delay = way * float(an.pairs.delay_s[row, source])
    near = np.flatnonzero(np.abs(later) <= _short_s(an, row, turned) + 1e-9)
    best = int(near[np.argmax(wired[near] - 1e-6 * np.abs(later[near]))])
    move = Fullest(
        later_s=float(later[best]),
        metres=float(abs(later[best]) * an.scene.speed),
        samples=float(later[best] * an.layout.sample_rate_hz),
        body_db=float(wired[best]),
    )
    now, other = float(wired[middle]), float(flipped[middle])
    return DelayCurve(
        later_s=np.round(later, 8).tolist(),
        wired_db=np.round(wired, 3).tolist(),
        flipped_db=np.round(flipped, 3).tolist(),
        now_db=now,
        flipped_now_db=other,
        equal_s=-delay if abs(delay) <= CURVE_REACH_S else None,
        best_move=move,
        words=_words(an, row, source, turned, now, other, move),
    )


def _short_s(an: Analysis, row: int, turned: bool) -> float:
    """How far the second mic may be moved, as the time sound takes for it, seconds."""
    mover = an.layout.mics[int((an.pairs.first if turned else an.pairs.second)[row])]
    return CLOSE_MOVE_M / an.scene.speed if mover.role == "close" else MOVE_S


def _words(
    an: Analysis, row: int, source: int, turned: bool, now: float, flipped: float,
    move: Fullest,
) -> str:  # fmt: skip
    first, second = (an.layout.mics[int(i[row])].id for i in (an.pairs.first, an.pairs.second))
    mover = first if turned else second
    if not an.scene.sources.drum[source]:
        return "A cymbal has no body to lose; only the time matters."
    if an.pairs.sign[row, source] == 0:
        return "The sign is unsure: the ear or a test take tells which of the two lines holds."
    by_flip, by_move = flipped - now, move.body_db - now
    if max(by_flip, by_move) < CLEAR_DB:
        return "Neither a flip nor a short move gives a decibel: leave it."
    way = "later" if move.later_s > 0 else "sooner"
    ms = f"{abs(move.later_s) * 1e3:.2f} ms {way}"
    if by_flip >= by_move + CLEAR_DB:
        return (
            f"The flip is the better cure: {signed_db(by_flip)}, against {signed_db(by_move)} by a"
            " move."
        )
    if by_move >= by_flip + CLEAR_DB:
        return (
            f"The move is the better cure: {mover} {ms} gives {signed_db(by_move)},"
            f" against {signed_db(by_flip)} by a flip."
        )
    return (
        f"As good either way: a flip gives {signed_db(by_flip)}, {mover} {ms} {signed_db(by_move)}."
    )
