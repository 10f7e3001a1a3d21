"""Where mics stand, from when each hears each drum: one adjustment of all that a take tells.

For drum s a mic hears it τ later than the drum's own mic does, so the way from the stroke to it is
c·τ longer than the way to the own mic. Where the stick lands and where the own mic is are not known
to the millimetre, and what they are off is off for every mic at once. So all lengths are adjusted
together: the mics that are looked for are open, close mics are where they were planned or taped
within a little, strokes land round the middle of the head by what the layout allows for; the close
mics, which hear each other's drums from all sides, then tell much of where those are. Ways are
those of :mod:`ringside.hear.arrivals`, not straight where a shell stands between.

Gauss and Newton, each length weighed by its own spread. How well lengths are read differs from
take to take: it is told by how well they fit each other, together with what trial takes have shown
(the surveyors' variance of unit weight, common practice, with a prior; lengths count for what is
left of them over the unknowns, one less the diagonal of the hat matrix).
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.constants import ZERO_CELSIUS_K
from ringside.hear.arrivals import arrivals
from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import COVERAGE
from ringside.plan.mics import LAID_M
from ringside.standing.stood import AsItStands, covariance_of
from ringside.takes.reading import TakeRead

STRIDE_M: Final = 0.6
"""One standard deviation, each way, of a mic that is looked for."""

CLOSE_M: Final = 0.03
"""The same of a close mic that was set up by the plan and not taped (from memory)."""

CYMBAL: Final = 3.0
"""Times as far from its spot a stick lands on a cymbal as in a head (from memory)."""

FILE_S: Final = 0.05
DETOUR: Final = 1.5
"""One standard deviation of a way round a shell, of what it is longer than the straight one: how
sound goes round an edge is known too badly to place a mic by (from memory)."""

ROUND: Final = 1.4
"""A length whose spread is so many times what it is read with goes round a shell."""

FEWEST: Final = 3
OPEN_M: Final = 0.10
"""A direction in which the place is known no better is still open."""

FITS: Final = 3.5
"""Standard deviations: a length further off is left out."""

LEAST_LEFT: Final = 0.05
"""Of a length nearly all of which only says where its own mic is, at least so much is judged."""

MOST_TRIED: Final = 6
MIDDLE: Final = 0.6745
"""Standard deviations within which half of a normal distribution lies."""

PRIOR: Final = 5.0
"""Lengths that what trial takes have shown of their spread is worth."""

LEAST: Final = 0.3
"""Lengths are never taken to be read better than this share of what trial takes show (2 mm)."""

STEPS: Final = 12
SETTLED_M: Final = 1e-4


@dataclass(frozen=True)
class Known:
    """What tape readings say of a place: metres (3,), and how well, m² (3, 3)."""

    at: Floats
    covariance: Floats


def known_of(stands: AsItStands, mic: str) -> Known | None:
    """What tape readings say of a mic's place.

    Parameters
    ----------
    stands : AsItStands
    mic : str

    Returns
    -------
    Known or None
        None where none was taken at it.
    """
    read = {name for r in stands.stood.readings if not r.at_kit for name in (r.a, r.b, r.like)}
    if mic not in read:
        return None
    n = [m.id for m in stands.mics].index(mic)
    at = 3 * (len(stands.kit.parts) + n)
    spread = covariance_of(stands)[at : at + 3, at : at + 3]
    return Known(np.array(stands.mics[n].position_m, dtype=float), spread)


@dataclass(frozen=True)
class Placed:
    """Where a mic stands by what it hears; L drums."""

    mic: int
    at: Floats  # (3,) metres
    late_s: float
    """What its file is late by; 0 where all tracks share one clock."""
    covariance: Floats  # (3, 3) m²
    sources: tuple[int, ...]
    residual_m: Floats  # (L,)
    left_out: tuple[int, ...]
    """Drums that do not fit the others."""

    @property
    def radius_m(self) -> float:
        """Two standard deviations the worst way, metres."""
        return float(COVERAGE * np.sqrt(np.linalg.eigvalsh(self.covariance)[-1]))

    @property
    def open_way(self) -> Floats | None:
        """The direction in which the place is still open, (3,); None where it is not."""
        size, way = np.linalg.eigh(self.covariance)
        return np.asarray(way[:, -1]) if COVERAGE * np.sqrt(size[-1]) > OPEN_M else None


@dataclass(frozen=True)
class Readings:
    """How much later mics hear drums than the drum's own mic does: R lengths."""

    mic: Ints  # (R,) by number in the layout
    own: Ints  # (R,)
    source: Ints  # (R,)
    lag_s: Floats  # (R,)
    deviation_s: Floats  # (R,) one standard deviation


def readings_of(take: TakeRead, late_s: Floats | None = None) -> Readings:
    """What the tracks of a take say of where their mics stand.

    Parameters
    ----------
    take : TakeRead
    late_s : ndarray, shape (C,), optional
        What each track is late by itself, as far as it was found out.

    Returns
    -------
    Readings
        One for each mic and drum; of a mic on several tracks those of its first.
    """
    late = np.zeros(len(take.mics)) if late_s is None else late_s
    rows = [
        (m, take.mics[d.own], d.source, d.lag_s[t] - late[t] + late[d.own], d.deviation_s[t])
        for d in take.drums
        for t, m in enumerate(take.mics)
        if m != take.mics[d.own] and take.mics.index(m) == t and np.isfinite(d.lag_s[t])
    ]
    mic, own, source, lag, deviation = zip(*rows, strict=True) if rows else ((),) * 5
    return Readings(
        np.array(mic, dtype=np.int64), np.array(own, dtype=np.int64),
        np.array(source, dtype=np.int64), np.array(lag, dtype=float),
        np.array(deviation, dtype=float),
    )  # fmt: skip


def places_of(
    an: Analysis, readings: Readings, known: Mapping[int, Known] | None = None,
    late: frozenset[int] = frozenset(),
) -> list[Placed]:  # fmt: skip
    """Where the mics stand that are not close to a drum.

    Parameters
    ----------
    an : Analysis
        Of the layout as planned.
    readings : Readings
    known : mapping of int to Known, optional
        What tape readings say of the places of mics, by number.
    late : frozenset of int
        Mics whose file may be late by itself: that is found out, too.

    Returns
    -------
    list of Placed
        Of each with three lengths or more, or with one where a tape says where it is.
    """
    known = known or {}
    net = _Net(an, readings, known, sorted(late))
    fit = net.fitted()
    made = []
    for m in net.far:
        rows = readings.mic == m
        used = np.flatnonzero(rows & fit.used)
        if len(used) < (1 if m in known else FEWEST):
            continue
        at = net.place(m)
        made.append(Placed(
            mic=m, at=fit.x[at],
            late_s=float(fit.x[net.lateness(m)]) / an.scene.speed if m in late else 0.0,
            covariance=fit.covariance[at, at], residual_m=fit.off_m[used],
            sources=tuple(readings.source[used].tolist()),
            left_out=tuple(readings.source[rows & ~fit.used].tolist()),
        ))  # fmt: skip
    return made


@dataclass(frozen=True)
class _Fit:
    """An adjustment; U unknowns, R lengths."""

    x: Floats  # (U,) metres
    covariance: Floats  # (U, U) m²
    off_m: Floats  # (R,) read less what the unknowns say
    share: Floats  # (R,) what a length says of itself: diagonal of the hat matrix
    used: Mask  # (R,)


class _Net:
    """The equations: places of mics (3M), of strokes in the head (2S), files that are late (L)."""

    def __init__(
        self, an: Analysis, readings: Readings, known: Mapping[int, Known], late: list[int]
    ) -> None:
        self.an, self.rows, self.late = an, readings, late
        mics, sources = an.layout.mics, an.scene.sources
        self.far = [m for m in sorted(set(readings.mic.tolist())) if mics[m].role != "close"]
        before = an.scene.capsule.copy()
        m, s = len(mics), len(sources.ids)
        self.strokes, self.lates = 3 * m, 3 * m + 2 * s
        told = np.zeros((self.lates + len(late), self.lates + len(late)))
        for n in range(m):
            if n in known:
                before[n] = known[n].at
                told[self.place(n), self.place(n)] = np.linalg.inv(known[n].covariance)
            else:
                near = CLOSE_M if mics[n].role == "close" else STRIDE_M
                high = LAID_M if mics[n].lies else near
                told[self.place(n), self.place(n)] = np.diag([near**-2, near**-2, high**-2])
        spread = max(an.layout.thresholds.strike_spread_m, 1e-4) / np.sqrt(2)
        wide = spread * np.where(sources.drum, 1.0, CYMBAL)
        k = np.arange(self.strokes, self.lates)
        told[k, k] = np.repeat(wide, 2) ** -2
        k = np.arange(self.lates, len(told))
        told[k, k] = (FILE_S * an.scene.speed) ** -2
        self.told = told
        self.start = np.concatenate([before.ravel(), np.zeros(2 * s + len(late))])
        longer, r = self._longer(self.start), readings
        # Of where all is thought to stand: else a mic would be led to where nothing is sure.
        self.bent = DETOUR * np.hypot(longer[r.mic, r.source], longer[r.own, r.source])
        # Two ways in each head, across its axis.
        self.across = np.linalg.svd(sources.axis[:, None, :])[2][:, 1:]

    def place(self, mic: int) -> slice:
        """Where the place of a mic is among the unknowns."""
        return slice(3 * mic, 3 * mic + 3)

    def lateness(self, mic: int) -> int:
        """Where what the file of a mic is late by is among them."""
        return self.lates + self.late.index(mic)

    def fitted(self) -> _Fit:
        """All lengths that fit each other, weighed by how well they do."""
        fit = self._settled(self.start, np.ones(len(self.rows.mic), dtype=bool), 1.0)
        while fit.used.any():
            size = np.where(fit.used, self._size(fit), 0.0)
            # Where all are read worse than usual, the worst of them is none that does not fit.
            usual = max(1.0, float(np.median(size[fit.used])) / MIDDLE)
            if size.max() <= FITS * usual:
                break
            fit = self._without_one(fit, size)
        free = PRIOR
        for _ in range(3):
            scale, free = self._read_like(fit)
            fit = self._settled(fit.x, fit.used, scale)
        # As wide as a scale that is itself estimated asks for.
        return replace(fit, covariance=fit.covariance * free / (free - 2))

    def _size(self, fit: _Fit) -> Floats:
        """How many standard deviations lengths are off, for what others say of them."""
        sure = np.sqrt(np.maximum(1 - fit.share, LEAST_LEFT)) * self._sigma(1.0)
        return np.asarray(np.abs(fit.off_m) / sure)

    def _without_one(self, fit: _Fit, size: Floats) -> _Fit:
        """Without the one length of the mic that fits worst without which all fits best.

        A mic that is looked for bends to a wrong one, and then another looks wrong: so several are
        tried, and from the beginning, for what did not fit may have led far away.
        """
        mic = self.rows.mic[size.argmax()]
        mine = np.flatnonzero(fit.used & (self.rows.mic == mic))
        most = MOST_TRIED if mic in self.far else 1
        tried = mine[np.argsort(size[mine])[::-1][:most]]
        every = np.arange(len(size))
        fits = [self._settled(self.start, fit.used & (every != n), 1.0) for n in tried]
        return min(fits, key=self._strain)

    def _strain(self, fit: _Fit) -> float:
        """Squared standard deviations of all that is off."""
        read = (fit.off_m / self._sigma(1.0))[fit.used]
        off = fit.x - self.start
        return float(read @ read + off @ self.told @ off)

    def _read_like(self, fit: _Fit) -> tuple[float, float]:
        """How well lengths are read, of what trial takes show, and by how many that is told."""
        sigma = self._sigma(1.0)
        # Of a way round a shell the detour decides, not how well it is read.
        plain = fit.used & (sigma < ROUND * self._read(1.0))
        ours = float(np.sum((fit.off_m / sigma)[plain] ** 2))
        free = PRIOR + float(np.sum(1 - fit.share[plain]))
        return max(float(np.sqrt((PRIOR + ours) / free)), LEAST), free

    def _settled(self, x: Floats, used: Mask, scale: float) -> _Fit:
        weight = used / self._sigma(scale) ** 2
        # Detours change by leaps where another edge, or head, comes first: followed step by step
        # they lead a mic to where nothing fits. So they are those of the place it starts from.
        longer = self._longer(x)
        for _ in range(STEPS):
            slope, off = self._sloped(x, longer)
            normal = slope.T @ (slope * weight[:, None]) + self.told
            pull = slope.T @ (weight * off) - self.told @ (x - self.start)
            step = np.linalg.solve(normal, pull)
            x = x + np.clip(step, -0.3, 0.3)
            if np.abs(step).max() < SETTLED_M:
                break
        spread = np.linalg.inv(normal)
        share = np.einsum("ru,ru->r", slope @ spread, slope) * weight
        return _Fit(x, np.asarray(spread), np.asarray(off - slope @ step), share, used)

    def _read(self, scale: float) -> Floats:
        """One standard deviation of each length, metres, read so many times as trial takes show."""
        r, an = self.rows, self.an
        kelvin = an.layout.air.temperature_c + ZERO_CELSIUS_K
        air = an.layout.thresholds.air_error_c / (2 * kelvin) * r.lag_s
        return np.asarray(np.hypot(r.deviation_s * scale, air) * an.scene.speed)

    def _sigma(self, scale: float) -> Floats:
        return np.asarray(np.hypot(self._read(scale), self.bent))

    def _straight(self, x: Floats) -> Floats:
        """From the middle of every head to every mic, (M, S, 3), metres."""
        return x[: self.strokes].reshape(-1, 1, 3) - self.an.scene.sources.strike

    def _longer(self, x: Floats) -> Floats:
        """What the way of the sound is longer than that, (M, S), metres."""
        an, at = self.an, x[: self.strokes].reshape(-1, 3)
        path = arrivals(replace(an.scene, capsule=at), an.layout.thresholds).path_m
        return np.asarray(path - np.linalg.norm(self._straight(x), axis=-1))

    def _sloped(self, x: Floats, longer: Floats) -> tuple[Floats, Floats]:
        """How each length changes with the unknowns, (R, U), and what it was read more, (R,)."""
        r, an = self.rows, self.an
        hit = x[self.strokes : self.lates].reshape(-1, 2)
        struck = self._straight(x) - np.einsum("sk,ski->si", hit, self.across)
        way = np.linalg.norm(struck, axis=-1)
        unit = struck / np.maximum(way, 1e-3)[..., None]
        path = way + longer
        rows = np.arange(len(r.mic))
        slope = np.zeros((len(rows), len(x)))
        to, by = unit[r.mic, r.source], unit[r.own, r.source]
        for axis in range(3):
            slope[rows, 3 * r.mic + axis] = to[:, axis]
            slope[rows, 3 * r.own + axis] = -by[:, axis]
        for k in range(2):
            over = self.strokes + 2 * r.source + k
            slope[rows, over] = np.einsum("ri,ri->r", by - to, self.across[r.source, k])
        said = path[r.mic, r.source] - path[r.own, r.source]
        for mic in self.late:
            # What is told against it is early by as much.
            late = (r.mic == mic) * 1.0 - (r.own == mic)
            slope[:, self.lateness(mic)] = late
            said = said + late * x[self.lateness(mic)]
        return slope, r.lag_s * an.scene.speed - said
