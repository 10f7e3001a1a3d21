"""Where a mic stands, from when it hears each drum, joined with what a tape says of its place.

For drum s the mic hears it τ later than the drum's own mic does, so the way from the drum to it is
c·τ longer than the way to the own mic, which stands close and is known: one length a drum, along
the path of :mod:`ringside.hear.arrivals`, not straight where a shell is in the way. Three
coordinates from three drums or more, and one unknown more where the file may be late by itself.
Gauss and Newton, each length weighed by its own spread, from what is known before: the place and
covariance of the net of tape readings where there are some, which is one adjustment of all of them;
else the planned place with a doubt of a stride, so that what is open does not run away.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.constants import ZERO_CELSIUS_K
from ringside.hear.arrivals import arrivals
from ringside.hear.scene import at_spots, scene_of
from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import COVERAGE
from ringside.standing.stood import AsItStands, covariance_of
from ringside.takes.reading import TakeRead

OWN_S: Final = 0.00002
"""One standard deviation of a drum's own mic's and stick's place, as time (7 mm)."""

STRIDE_M: Final = 0.6
FILE_S: Final = 0.05
STEP_M: Final = 0.002
STEPS: Final = 12
SETTLED_M: Final = 1e-5
FEWEST: Final = 3
OPEN_M: Final = 0.10
"""A direction in which the place is known no better is still open."""

FITS: Final = 3.5
"""Standard deviations: a length further off is left out."""


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
class Heard:
    """How a mic hears some drums: arrivals behind each drum's own mic, N drums."""

    sources: tuple[int, ...]
    lag_s: Floats  # (N,)
    deviation_s: Floats  # (N,)
    own_s: Floats  # (N,) the way to the own mic, by the plan


def heard_by(take: TakeRead, mic: int, late_s: Floats | None = None) -> Heard:
    """How a mic of a take hears the drums.

    Parameters
    ----------
    take : TakeRead
    mic : int
    late_s : ndarray, shape (C,), optional
        What each track is late by itself, as far as it was found out.

    Returns
    -------
    Heard
        Empty where it is on no track.
    """
    an = take.analysis
    if mic not in take.mics:
        return Heard((), np.zeros(0), np.zeros(0), np.zeros(0))
    track = take.mics.index(mic)
    plan = an.arrivals.time_s - an.scene.track_delay[:, None]
    late = np.zeros(len(take.mics)) if late_s is None else late_s
    rows = [d for d in take.drums if d.own != track and np.isfinite(d.lag_s[track])]
    return Heard(
        tuple(d.source for d in rows),
        np.array([d.lag_s[track] - late[track] + late[d.own] for d in rows]),
        np.array([np.hypot(d.deviation_s[track], OWN_S) for d in rows]),
        np.array([plan[take.mics[d.own], d.source] for d in rows]),
    )


def placed(
    an: Analysis, mic: int, heard: Heard, *, one_clock: bool = True, known: Known | None = None,
) -> Placed | None:  # fmt: skip
    """Where a mic stands.

    Parameters
    ----------
    an : Analysis
        Of the layout as planned.
    mic : int
        By number.
    heard : Heard
    one_clock : bool
        No track is late by itself; else that is found out, too.
    known : Known, optional
        What tape readings say of its place.

    Returns
    -------
    Placed or None
        None with fewer than three lengths, or none where a tape says where it is.
    """
    used = list(range(len(heard.sources)))
    out: list[int] = []
    system = _System(an, mic, heard, one_clock, known)
    while True:
        if len(used) < (FEWEST if known is None else 1):
            return None
        x, covariance, residual, sigma = system.solved(used)
        size = np.abs(residual) / sigma
        free = len(used) + (0 if known is None else 3) - len(x)
        if free < 1 or size.max() <= FITS:
            break
        out.append(used.pop(int(size.argmax())))
    return Placed(
        mic=mic, at=x[:3], late_s=float(x[3]) if len(x) > 3 else 0.0,
        covariance=covariance[:3, :3], sources=tuple(heard.sources[n] for n in used),
        residual_m=residual, left_out=tuple(heard.sources[n] for n in out),
    )  # fmt: skip


class _System:
    """The equations of one mic."""

    def __init__(
        self, an: Analysis, mic: int, heard: Heard, one_clock: bool, known: Known | None
    ) -> None:
        one = an.layout.model_copy(
            update={"mics": (an.layout.mics[mic],), "channels": (), "stereo_pairs": (),
                    "techniques": (), "decisions": (), "options": (), "balances": (),
                    "current": None, "order": ()}
        )  # fmt: skip
        self.scene, self.limits = scene_of(one), an.layout.thresholds
        planned = np.array(an.layout.mics[mic].position_m, dtype=float)
        before = known or Known(planned, np.eye(3) * STRIDE_M**2)
        self.heard = heard
        self.late = not one_clock
        self.speed = an.scene.speed
        self.start = np.concatenate([before.at, [0.0] if self.late else []])
        self.told = np.zeros((len(self.start), len(self.start)))
        self.told[:3, :3] = np.linalg.inv(before.covariance)
        if self.late:
            self.told[3, 3] = (FILE_S * self.speed) ** -2
        kelvin = an.layout.air.temperature_c + ZERO_CELSIUS_K
        self.air = self.limits.air_error_c / (2 * kelvin)

    def paths(self, spots: Floats) -> Floats:
        """The way from every heard drum to spots, (N, L), metres."""
        n = len(spots)
        aim = np.repeat(self.scene.aim, n, axis=0)
        share = np.repeat(self.scene.pressure_share, n)
        every = arrivals(at_spots(self.scene, spots, aim, share), self.limits)
        return np.asarray(every.path_m[:, list(self.heard.sources)])

    def solved(self, used: list[int]) -> tuple[Floats, Floats, Floats, Floats]:
        """Place, covariance, residuals and their sigmas, metres."""
        x: Floats = self.start
        sigma = self._sigma(used)
        for _ in range(STEPS):
            said, slope = self._sloped(x, used)
            off = self._read(used) - said
            normal = slope.T @ (slope / sigma[:, None] ** 2) + self.told
            pull = slope.T @ (off / sigma**2) - self.told @ (x - self.start)
            step = np.linalg.solve(normal, pull)
            x = x + np.clip(step, -0.3, 0.3)
            if np.abs(step).max() < SETTLED_M:
                break
        said, slope = self._sloped(x, used)
        told = x.copy()
        if self.late:
            told[3] = x[3] / self.speed
        return told, np.asarray(np.linalg.inv(normal)), self._read(used) - said, sigma

    def _sigma(self, used: list[int]) -> Floats:
        lag = self.heard.lag_s[used]
        return np.asarray(np.hypot(self.heard.deviation_s[used], self.air * lag) * self.speed)

    def _read(self, used: list[int]) -> Floats:
        h = self.heard
        return np.asarray((h.lag_s[used] + h.own_s[used]) * self.speed)

    def _sloped(self, x: Floats, used: list[int]) -> tuple[Floats, Floats]:
        at = x[:3]
        steps = np.vstack([np.zeros(3), np.eye(3) * STEP_M, -np.eye(3) * STEP_M])
        ways = self.paths(at + steps)[:, used]
        slope = (ways[1:4] - ways[4:7]).T / (2 * STEP_M)
        if not self.late:
            return ways[0], slope
        return ways[0] + x[3], np.column_stack([slope, np.ones(len(used))])
