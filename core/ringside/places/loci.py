"""Where a mic can go and still be equal: the ring, the sphere, and equal-height answers.

All points at distance a from the snare S and b from the kick K form a circle round the
line S-K: the ring. With d = |SK| its plane stands t = (a² - b² + d²)/(2d) from S along the
line and its radius is √(a² - t²) (intersection of two spheres, elementary geometry).
Two spheres may also touch in one point or not meet; then the answer says which, in words,
and gives the nearest possible point. Lengths in metres, exact to rounding.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats
from ringside.errors import RingsideError

TOUCH_M = 1e-6


@dataclass(frozen=True)
class Ring:
    """A circle: its centre (3,), radius, and three unit vectors axis, u, v (3,).

    u is the level direction and v the highest one; the angle runs from u toward v, so
    the top of the ring stands at a quarter turn.
    """

    centre: Floats
    radius: float
    axis: Floats
    u: Floats
    v: Floats

    def at(self, angle: ArrayLike) -> Floats:
        """Points of the ring at angles.

        Parameters
        ----------
        angle : array_like, shape (N,)
            Radians from `u` toward `v`.

        Returns
        -------
        ndarray, shape (N, 3)
            Metres.
        """
        t = np.asarray(angle, dtype=float)[..., None]
        return np.asarray(self.centre + self.radius * (np.cos(t) * self.u + np.sin(t) * self.v))

    def angle_of(self, point: ArrayLike) -> float:
        """The angle of the ring point nearest to a point, radians.

        Parameters
        ----------
        point : array_like, shape (3,)
            Metres.

        Returns
        -------
        float
            Radians.
        """
        p = np.asarray(point, dtype=float) - self.centre
        return float(np.arctan2(p @ self.v, p @ self.u))

    def nearest(self, point: ArrayLike) -> Floats:
        """The ring point nearest to a point; on the axis all are as near and u is given.

        Parameters
        ----------
        point : array_like, shape (3,)
            Metres.

        Returns
        -------
        ndarray, shape (3,)
            Metres.
        """
        return self.at(self.angle_of(point))

    def at_height(self, z: float) -> Floats:
        """The ring's points at a height.

        Parameters
        ----------
        z : float
            Metres.

        Returns
        -------
        ndarray, shape (2, 3), (1, 3) or (0, 3)
            Metres; one point where it touches the height.
        """
        rise = self.radius * float(self.v[2])
        if abs(rise) < 1e-12:
            return np.empty((0, 3))
        s = (z - float(self.centre[2])) / rise
        if abs(s) > 1 + 1e-9:
            return np.empty((0, 3))
        t = float(np.arcsin(np.clip(s, -1, 1)))
        if abs(abs(s) - 1) < 1e-9:
            return self.at(np.array([t]))
        return self.at(np.array([t, np.pi - t]))


@dataclass(frozen=True)
class RingAnswer:
    """The ring, or why there is none and the nearest possible point."""

    kind: Literal["circle", "point", "none"]
    ring: Ring | None
    point: Floats | None
    words: str


def _frame(axis: Floats) -> tuple[Floats, Floats]:
    up = np.array([0.0, 0.0, 1.0])
    level = np.cross(axis, up)
    if np.linalg.norm(level) < 1e-9:
        level = np.array([1.0, 0.0, 0.0])
    u = level / np.linalg.norm(level)
    v = np.cross(u, axis)
    return (u, v) if v[2] >= 0 else (-u, -v)


def ring(s: ArrayLike, k: ArrayLike, a: float, b: float) -> RingAnswer:
    """All points a metres from S and b metres from K.

    Parameters
    ----------
    s, k : array_like, shape (3,)
        The two reference points, metres.
    a, b : float
        Distances from S and from K, metres, above zero.

    Returns
    -------
    RingAnswer
        ``circle`` with the ring; ``point`` when the spheres just touch; ``none`` with the
        reason and the point nearest to keeping both distances.

    Examples
    --------
    >>> ring((0, 0, 0), (1, 0, 0), 1.0, 1.0).ring.radius.__round__(4)
    0.866
    """
    S, K = np.asarray(s, dtype=float), np.asarray(k, dtype=float)
    if not (a > 0 and b > 0):
        return RingAnswer("none", None, None, "Both distances must be above zero.")
    line = K - S
    d = float(np.linalg.norm(line))
    if d < TOUCH_M:
        return RingAnswer(
            "none",
            None,
            None,
            "Snare and kick are measured to the same point, so there is no line for a ring.",
        )
    axis = line / d
    t = (a * a - b * b + d * d) / (2 * d)
    centre, square = S + t * axis, a * a - t * t
    if square > TOUCH_M**2:
        u, v = _frame(axis)
        return RingAnswer("circle", Ring(centre, float(np.sqrt(square)), axis, u, v), None, "")
    return _no_circle(S, axis, d, a, b)


def _no_circle(S: Floats, axis: Floats, d: float, a: float, b: float) -> RingAnswer:
    """The touching point, or the reason there is none, and the spot that misses both equally."""
    if a + b <= d:
        along, gap = (a + d - b) / 2, d - a - b
        why = "snare and kick are further apart than the two distances together"
    elif a > b:
        along, gap = (a + d + b) / 2, a - b - d
        why = "the snare distance is longer than the kick distance and the way between the drums"
    else:
        along, gap = -(a + b - d) / 2, b - a - d
        why = "the kick distance is longer than the snare distance and the way between the drums"
    point = S + along * axis
    if abs(gap) <= 1e-5:
        return RingAnswer(
            "point", None, point, "Only one spot keeps both distances: on the snare-kick line."
        )
    return RingAnswer(
        "none",
        None,
        point,
        f"No spot keeps both distances: {why}. The nearest is shown.",
    )


def ring_through(s: ArrayLike, k: ArrayLike, point: ArrayLike) -> RingAnswer:
    """The ring a mic already stands on.

    Parameters
    ----------
    s : array_like, shape (3,)
        The snare, metres.
    k : array_like, shape (3,)
        The kick, metres.
    point : array_like, shape (3,)
        Metres.

    Returns
    -------
    RingAnswer
    """
    p = np.asarray(point, dtype=float)
    return ring(
        s,
        k,
        float(np.linalg.norm(p - np.asarray(s, dtype=float))),
        float(np.linalg.norm(p - np.asarray(k, dtype=float))),
    )


def nearest_on_sphere(s: ArrayLike, distance: float, point: ArrayLike) -> Floats:
    """The point at a distance from S nearest to a point; straight up when it is at S.

    Parameters
    ----------
    s, point : array_like, shape (3,)
        Metres.
    distance : float
        Metres.

    Returns
    -------
    ndarray, shape (3,)
        Metres.
    """
    S, p = np.asarray(s, dtype=float), np.asarray(point, dtype=float)
    out = p - S
    size = float(np.linalg.norm(out))
    unit = out / size if size > 1e-9 else np.array([0.0, 0.0, 1.0])
    return np.asarray(S + distance * unit)


def at_distances(
    s: ArrayLike, k: ArrayLike, a: float, b: float, z: float, near: ArrayLike
) -> Floats:
    """The spot a from S, b from K and z high, nearest to where the mic is now.

    Returns
    -------
    ndarray
        (3,) metres.

    Parameters
    ----------
    s, k, near : array_like, shape (3,)
        Metres.
    a, b, z : float
        Metres.

    Raises
    ------
    RingsideError
        When there is none; the message says why and what is possible.
    """
    answer = ring(s, k, a, b)
    if answer.ring is None:
        raise RingsideError(answer.words)
    spots = answer.ring.at_height(z)
    if len(spots) == 0:
        half = answer.ring.radius * float(answer.ring.v[2])
        middle = float(answer.ring.centre[2])
        raise RingsideError(
            "No spot at that height keeps both distances; the ring runs from {low} to {high}"
            " above the floor.",
            low=middle - half,
            high=middle + half,
        )
    away = np.linalg.norm(spots - np.asarray(near, dtype=float), axis=1)
    return np.asarray(spots[int(away.argmin())])


@dataclass(frozen=True)
class Equidistant:
    """Where a point is as far from several others: a line for three, a spot along it for four.

    Every point of the line is equally far from the first three; ``best_along`` is where the
    others are least wrong (metres from ``line_point``), ``residuals`` what is then left:
    distance to each point less the distance to the first, metres (N,).
    """

    line_point: Floats
    line_way: Floats
    best_along: float
    residuals: Floats

    @property
    def best(self) -> Floats:
        """The spot itself (3,)."""
        return np.asarray(self.line_point + self.line_way * self.best_along)


def equidistant(points: ArrayLike) -> Equidistant:
    """The spots equally far from three points, and the best of them for a fourth.

    Parameters
    ----------
    points : array_like, shape (N, 3)
        Three or four; metres.

    Returns
    -------
    Equidistant
        For three points ``line_point`` is their circumcentre (elementary geometry) and
        ``best_along`` 0; for four the crossing of the line with the plane of points as far
        from the fourth as from the first, or where it is nearest to that.

    Raises
    ------
    RingsideError
        When there are not three or four points, or the first three stand in one line.

    Examples
    --------
    >>> equidistant([(0, 0, 0), (2, 0, 0), (0, 2, 0)]).line_point.tolist()
    [1.0, 1.0, 0.0]
    """
    p = np.asarray(points, dtype=float)
    if p.shape not in ((3, 3), (4, 3)):
        raise RingsideError("expected three or four drums to be equally far from")
    b, c = p[1] - p[0], p[2] - p[0]
    normal = np.cross(b, c)
    square = float(normal @ normal)
    if square < 1e-12:
        raise RingsideError("three drums in one line: no spot is equally far from all of them")
    rows = np.array([b, c, normal])  # equally far: x·b = b²/2 and x·c = c²/2, in their plane
    foot = p[0] + np.linalg.solve(rows, [float(b @ b) / 2, float(c @ c) / 2, 0.0])
    way = normal / np.sqrt(square)
    way = way if way[2] >= 0 else -way
    along = _meeting(p, foot, way) if len(p) == 4 else 0.0
    spot = foot + way * along
    away = np.linalg.norm(p - spot, axis=1)
    return Equidistant(foot, way, along, np.asarray(away - away[0]))


def _meeting(p: Floats, foot: Floats, way: Floats) -> float:
    """Where the line meets the plane halfway between the first and the fourth point."""
    across = p[3] - p[0]
    middle = (p[3] + p[0]) / 2
    slope = float(across @ way)
    if abs(slope) < 1e-6 * max(float(np.linalg.norm(across)), 1e-9):
        return 0.0
    return float(across @ (middle - foot)) / slope
