"""A move of a stand in the words of whoever moves it: up, boom in, to the drummer's left."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.plan.layout import Layout
from ringside.plan.references import references
from ringside.values import Vector

LEAST_M: Final = 0.002
"""A shorter step is none."""


@dataclass(frozen=True, kw_only=True, slots=True)
class StandStep:
    """One part of a move in stand terms; metres, above zero."""

    way: str
    metres: float


def stand_steps(layout: Layout, mic_id: str, to: Vector) -> list[StandStep]:
    """A move in stand terms: up or down, boom in or out (level, to or from the snare), round.

    The longest step comes first; steps under 2 mm are left out.

    Parameters
    ----------
    layout : Layout
    mic_id : str
        Its short name.
    to : tuple of float, shape (3,)
        Where it should stand, metres.

    Returns
    -------
    list of StandStep
    """
    was = np.array(layout.mic(mic_id).position_m)
    by = np.array(to) - was
    out = was - references(layout).snare
    out[2] = 0.0
    size = float(np.linalg.norm(out))
    steps = [("up" if by[2] > 0 else "down", abs(float(by[2])))]
    if size > 0.15:
        out /= size
        boom, level = float(by @ out), by - np.array([0, 0, by[2]])
        level = level - out * boom
        steps.append(("boom out" if boom > 0 else "boom in", abs(boom)))
        steps += _level_steps(level)
    else:  # right over the snare, in and out mean nothing
        steps += _level_steps(by)
    return [
        StandStep(way=way, metres=metres)
        for way, metres in sorted(steps, key=lambda s: -s[1])
        if metres >= LEAST_M
    ]


def _level_steps(by: Floats) -> list[tuple[str, float]]:
    """Over the floor, by the drummer's right and the audience."""
    x, y = float(by[0]), float(by[1])
    return [
        ("to the drummer's right" if x > 0 else "to the drummer's left", abs(x)),
        ("toward the audience" if y > 0 else "toward the drummer", abs(y)),
    ]
