"""The two points every distance is kept to: where the tape is held at snare and kick."""

from dataclasses import dataclass

import numpy as np

from ringside.arrays import Floats
from ringside.plan.kit import reference_point
from ringside.plan.layout import Layout


@dataclass(frozen=True)
class References:
    """The two reference points, metres (3,)."""

    snare: Floats
    kick: Floats


def references(layout: Layout) -> References:
    """Where the snare and kick tapes are held.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    References
    """
    return References(
        np.array(reference_point(layout.kit.first("snare"))),
        np.array(reference_point(layout.kit.first("kick"))),
    )
