"""The smallest move that makes distances equal.

Minimise Σ|x - x₀|² subject to f(x) = 0, where each f is a difference of two distances (or of
two heights). Each step solves the linearised problem from the start, not from where it is:

    x ← x₀ + J⁺ (J (x - x₀) - f(x))

so that at rest f(x) = 0 and x - x₀ lies in the span of the constraints' gradients: the
first-order conditions of the constrained problem (Nocedal & Wright, Numerical Optimization,
ch. 12 and 18). Metres.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats, Mask

MOST_STEPS: Final = 60
EXACT_M: Final = 1e-8


@dataclass(frozen=True)
class SameDistance:
    """Mic ``i`` as far from one point as mic ``j`` from another (or the same)."""

    i: int
    j: int
    to_i: Floats
    to_j: Floats

    def value(self, x: Floats) -> float:
        """Difference of the two distances, metres.

        Parameters
        ----------
        x : ndarray, shape (K, 3)
            Where the mics are, metres.

        Returns
        -------
        float
            Above 0 where mic ``i`` is farther.
        """
        return float(np.linalg.norm(x[self.i] - self.to_i) - np.linalg.norm(x[self.j] - self.to_j))

    def gradient(self, x: Floats) -> Floats:
        """Slope of `value` over every coordinate.

        Parameters
        ----------
        x : ndarray, shape (K, 3)
            Where the mics are, metres.

        Returns
        -------
        ndarray, shape (K, 3)
            Metres per metre.
        """
        g = np.zeros_like(x)
        for k, to, sign in ((self.i, self.to_i, 1.0), (self.j, self.to_j, -1.0)):
            out = x[k] - to
            g[k] += sign * out / max(float(np.linalg.norm(out)), 1e-9)
        return g


@dataclass(frozen=True)
class SameHeight:
    """Mic ``i`` as high as mic ``j`` along an axis: capsules level over one head."""

    i: int
    j: int
    axis: Floats

    def value(self, x: Floats) -> float:
        """Difference of the two heights, metres.

        Parameters
        ----------
        x : ndarray, shape (K, 3)
            Where the mics are, metres.

        Returns
        -------
        float
            Above 0 where mic ``i`` is higher.
        """
        return float((x[self.i] - x[self.j]) @ self.axis)

    def gradient(self, x: Floats) -> Floats:
        """Slope of `value` over every coordinate.

        Parameters
        ----------
        x : ndarray, shape (K, 3)
            Where the mics are, metres.

        Returns
        -------
        ndarray, shape (K, 3)
            Metres per metre.
        """
        g = np.zeros_like(x)
        g[self.i] += self.axis
        g[self.j] -= self.axis
        return g


Rule = SameDistance | SameHeight


def worst(rules: list[Rule], x: Floats) -> float:
    """The largest of the differences, metres.

    Parameters
    ----------
    rules : list of Rule
    x : ndarray, shape (K, 3)
        Where the mics are, metres.

    Returns
    -------
    float
        0 where there is no rule.
    """
    return max((abs(r.value(x)) for r in rules), default=0.0)


def least_move(start: Floats, free: Mask, rules: list[Rule]) -> Floats | None:
    """The spots nearest to the start at which every rule holds.

    Parameters
    ----------
    start : ndarray, shape (K, 3)
        Where the mics are.
    free : ndarray of bool, shape (K, 3)
        Which coordinates may move.
    rules : list of Rule

    Returns
    -------
    ndarray or None
        (K, 3), exact to 1e-8 m; None when the free coordinates do not reach it.
    """
    x, open_ = start.copy(), free.ravel()
    if not open_.any():
        return x if worst(rules, x) < EXACT_M else None
    for _ in range(MOST_STEPS):
        f = np.array([r.value(x) for r in rules])
        jac = np.array([r.gradient(x).ravel()[open_] for r in rules])
        moved = (x - start).ravel()[open_]
        step = np.linalg.pinv(jac, rcond=1e-9) @ (jac @ moved - f)
        if not np.isfinite(step).all() or np.abs(step).max() > 10:
            return None
        x = start.copy()
        x.ravel()[open_] += step
        if float(np.abs(step - moved).max()) < 1e-11:
            break
    return x if worst(rules, x) < EXACT_M else None
