"""What a fit works on: the layout as it is so far, what it may do with a mic, what it tells."""

from dataclasses import dataclass, field
from typing import Annotated, Final, Literal

import numpy as np
from pydantic import Field

from ringside.arrays import Floats, Mask
from ringside.gear.locker import StandModel
from ringside.gear.stands import aside_m, reached
from ringside.hear.scene import sources_of
from ringside.places.aims import AIMED_DEG
from ringside.places.clearance import blocked
from ringside.places.nulls import OFF_DEG
from ringside.plan.layout import Layout
from ringside.plan.mics import LOCKS, Mic
from ringside.techniques.taking import APART_M
from ringside.values import Record, unit, vector

Wish = Literal["clear", "equal", "level", "nulls", "bleed"]
WISHES: Final[tuple[Wish, ...]] = ("clear", "equal", "level", "nulls", "bleed")


class FitAsk(Record):
    """What a fit should do and how exact it must be."""

    wishes: tuple[Wish, ...] = Field(default=WISHES, max_length=5)
    snare_tolerance_m: Annotated[float, Field(strict=True, ge=0.0001, le=0.1)] = 0.005
    kick_tolerance_m: Annotated[float, Field(strict=True, ge=0.0001, le=0.2)] = 0.01
    off_deg: Annotated[float, Field(strict=True, ge=0, le=60)] = OFF_DEG


@dataclass(frozen=True, kw_only=True, slots=True)
class GaveUp:
    """A wish a fit could not keep, and what is left of it, metres (None when no distance)."""

    mics: list[str]
    words: str
    left_m: float | None


@dataclass
class Work:
    """The layout as it is being fitted, and what is told about it."""

    layout: Layout
    ask: FitAsk
    stands: dict[str, StandModel]
    why: dict[str, list[str]] = field(default_factory=dict)
    gave_up: list[GaveUp] = field(default_factory=list)

    def spot(self, mic: str) -> Floats:
        """Where a mic is by now, metres (3,).

        Parameters
        ----------
        mic : str
            Its short name.

        Returns
        -------
        ndarray, shape (3,)
            Metres.
        """
        return np.array(self.layout.mic(mic).position_m)

    def stand(self, mic: Mic) -> StandModel | None:
        """The stand that holds it, where the locker knows it.

        Parameters
        ----------
        mic : Mic

        Returns
        -------
        StandModel or None
        """
        return self.stands.get(mic.stand or "")

    def free(self, mic: Mic) -> Mask:
        """Which coordinates may move, (3,).

        Parameters
        ----------
        mic : Mic

        Returns
        -------
        ndarray of bool, shape (3,)
            False where a coordinate is held.
        """
        return np.array([name not in mic.locks for name in LOCKS[:3]])

    def put(self, mic: Mic, at: Floats, why: str) -> None:
        """Move a mic; what it was aimed at it stays aimed at.

        Parameters
        ----------
        mic : Mic
        at : ndarray, shape (3,)
            Metres.
        why : str
            Told beside the mic.
        """
        aim = mic.aim if "aim" in mic.locks else unit(self._still_at(mic, at))
        self.layout = self.layout.with_mic(
            mic.model_copy(update={"position_m": vector(at), "aim": aim})
        )
        self.why.setdefault(mic.id, []).append(why)

    def _still_at(self, mic: Mic, at: Floats) -> Floats:
        """The aim from a new place: at the drum it was aimed at, else the same direction."""
        old, way = np.array(mic.position_m), np.array(mic.aim)
        if abs(way[2]) > 0.999:
            return way
        src = sources_of(self.layout.kit)
        to = src.centre - old
        reach = np.linalg.norm(to, axis=1)
        cos = (to @ way) / np.maximum(reach, 1e-9)
        k = int(cos.argmax())
        if cos[k] < np.cos(np.radians(AIMED_DEG)):
            return way
        seen = old + way * float(to[k] @ way)
        out = seen - at
        return out if float(np.linalg.norm(out)) > 1e-6 else way

    def fine(self, points: Floats, mic: Mic, apart_from: tuple[str, ...] = ()) -> Mask:
        """Which points a mic can be at: clear, held by its stand, not in another mic.

        Parameters
        ----------
        points : ndarray, shape (N, 3)
            Metres.
        mic : Mic
        apart_from : tuple of str
            Mics that may be where they are: they will move too.

        Returns
        -------
        ndarray of bool, shape (N,)
        """
        stand = self.stand(mic)
        if stand is not None and (aside_m(points[:, 2], stand) < 0).all():
            return np.zeros(len(points), bool)  # no height it could be held at: ask no more
        ok = ~blocked(points, self.layout)
        skip = {mic.id, *apart_from}
        others = np.array([m.position_m for m in self.layout.mics if m.id not in skip])
        if len(others):
            now = np.linalg.norm(others - np.array(mic.position_m), axis=1)
            others = others[now >= APART_M]  # who already shares its place goes on sharing it
        if len(others):
            gaps = np.linalg.norm(points[:, None] - others, axis=-1)
            ok &= gaps.min(axis=1) >= APART_M
        if stand is not None and ok.any():
            ok[ok] = reached(points[ok], stand, self.layout)
        return np.asarray(ok)
