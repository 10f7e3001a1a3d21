"""Where a mic stands, from when it hears each drum, joined with what a tape read at it.

For drum s the mic hears it τ later than the drum's own mic does, so the way from the drum to it is
c·τ longer than the way to the own mic, which stands close and is known: one length a drum, along
the path of :mod:`ringside.hear.arrivals`, not straight where a shell is in the way. Three
coordinates from three drums or more, and one unknown more where the file may be late by itself.
A tape reading is one more length of the same system. Gauss and Newton from the planned place, each
length weighed by its own spread; what the lengths leave open is told by the covariance, with a weak
prior of a stride so that nothing runs away.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.constants import ZERO_CELSIUS_K
from ringside.hear.arrivals import arrivals
from ringside.hear.scene import at_spots, scene_of
from ringside.pairs.analysis import Analysis
from ringside.pairs.uncertainty import COVERAGE
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


@dataclass(frozen=True, slots=True)
class Taped:
    """A tape reading at the mic: to which point, metres (3,), how long, how well."""

    to: tuple[float, float, float]
    metres: float
    error_m: float


@dataclass(frozen=True)
class Placed:
    """Where a mic stands by what it hears; L lengths, the drums' first."""

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
    an: Analysis, mic: int, heard: Heard, *, one_clock: bool = True, taped: Sequence[Taped] = (),
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
    taped : sequence of Taped
        Tape readings at its capsule.

    Returns
    -------
    Placed or None
        None with fewer than three lengths.
    """
    used = list(range(len(heard.sources)))
    out: list[int] = []
    system = _System(an, mic, heard, one_clock, tuple(taped))
    while True:
        if len(used) + len(taped) < FEWEST:
            return None
        x, covariance, residual, sigma = system.solved(used)
        size = np.abs(residual[: len(used)]) / sigma[: len(used)]
        free = len(used) + len(taped) - len(x)
        if free < 1 or len(used) == 0 or size.max() <= FITS:
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
        self, an: Analysis, mic: int, heard: Heard, one_clock: bool, taped: tuple[Taped, ...]
    ) -> None:
        one = an.layout.model_copy(
            update={"mics": (an.layout.mics[mic],), "channels": (), "stereo_pairs": (),
                    "techniques": (), "decisions": (), "options": (), "balances": (),
                    "current": None, "order": ()}
        )  # fmt: skip
        self.scene, self.limits = scene_of(one), an.layout.thresholds
        self.start = np.array(an.layout.mics[mic].position_m)
        self.heard, self.taped = heard, taped
        self.late = not one_clock
        self.speed = an.scene.speed
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
        x: Floats = self._begin()
        prior = np.array([STRIDE_M] * 3 + ([FILE_S * self.speed] if self.late else []))
        sigma = self._sigma(used)
        for _ in range(STEPS):
            said, slope = self._sloped(x, used)
            off = self._read(used) - said
            normal = slope.T @ (slope / sigma[:, None] ** 2) + np.diag(prior**-2.0)
            pull = slope.T @ (off / sigma**2) - (x - self._begin()) / prior**2
            step = np.linalg.solve(normal, pull)
            x = x + np.clip(step, -0.3, 0.3)
            if np.abs(step).max() < SETTLED_M:
                break
        said, slope = self._sloped(x, used)
        told = x.copy()
        if self.late:
            told[3] = x[3] / self.speed
        return told, np.asarray(np.linalg.inv(normal)), self._read(used) - said, sigma

    def _begin(self) -> Floats:
        return np.concatenate([self.start, [0.0] if self.late else []])

    def _sigma(self, used: list[int]) -> Floats:
        lag = self.heard.lag_s[used]
        drums = np.hypot(self.heard.deviation_s[used], self.air * lag) * self.speed
        return np.concatenate([drums, [t.error_m for t in self.taped]])

    def _read(self, used: list[int]) -> Floats:
        h = self.heard
        drums = (h.lag_s[used] + h.own_s[used]) * self.speed
        return np.concatenate([drums, [t.metres for t in self.taped]])

    def _sloped(self, x: Floats, used: list[int]) -> tuple[Floats, Floats]:
        at = x[:3]
        steps = np.vstack([np.zeros(3), np.eye(3) * STEP_M, -np.eye(3) * STEP_M])
        ways = self.paths(at + steps)[:, used]
        slope = (ways[1:4] - ways[4:7]).T / (2 * STEP_M)
        to = at - np.array([t.to for t in self.taped]).reshape(-1, 3)
        far = np.linalg.norm(to, axis=1)
        said = np.concatenate([ways[0], far])
        every = np.vstack([slope, to / np.maximum(far, 1e-6)[:, None]])
        if self.late:
            said[: len(used)] += x[3]
            offset = np.concatenate([np.ones(len(used)), np.zeros(len(self.taped))])
            every = np.column_stack([every, offset])
        return said, every
