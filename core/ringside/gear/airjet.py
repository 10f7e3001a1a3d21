"""The air jet of a kick's port: it can destroy a diaphragm that stands straight in it."""

from typing import Final

import numpy as np

from ringside.plan.kit import reference_point
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

JET_M: Final = 0.35
"""How far the air of a kick's port still hits like a gust (common practice)."""


def in_jet(mic: Mic, layout: Layout) -> bool:
    """Whether a mic is straight in front of a kick's port, near enough to be blown at.

    Parameters
    ----------
    mic : Mic
    layout : Layout

    Returns
    -------
    bool
    """
    for d in layout.kit.drums:
        if d.port is None:
            continue
        axis = np.array(d.axis)
        right = np.cross(-axis, [0.0, 0.0, 1.0])
        right = right / max(float(np.linalg.norm(right)), 1e-9)
        front = np.array(reference_point(d.model_copy(update={"reference": "front"})))
        hole = front + right * d.port.right_m + np.array([0.0, 0.0, d.port.up_m])
        out = np.array(mic.position_m) - hole
        ahead = float(out @ -axis)
        aside = float(np.linalg.norm(out + ahead * axis))
        if 0 <= ahead <= JET_M and aside <= d.port.diameter_m / 2 + 0.2 * ahead:
            return True
    return False
