"""From the drum to the input: how loud at the capsule, and what leaves the mic.

Every level is that of a sine whose crest is as high as the peak, for so the limits of mics and
inputs are given (IEC 60268-4: a sine at a stated distortion), and crest meets crest. 94 dB SPL is
1 Pa, 0 dB being 20 µPa; 0 dBu is 0.775 V, the voltage of 1 mW in 600 ohms.

A drum's peak at a metre is a figure from memory (:mod:`ringside.hear.bands`). Nearer it does not
rise as it would from a point: on the axis of a disc that moves as one the pressure goes with
√(z²+R²) - z, which is a point's at (√(z²+R²) + z)/2, so the face itself is heard as from half a
radius off (Kinsler et al., Fundamentals of Acoustics, the field of a plane circular piston). Off
the axis the same distance is taken.
"""

from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats
from ringside.hear.arrivals import arrivals
from ringside.hear.scene import scene_of
from ringside.plan.layout import Layout
from ringside.plan.questions import Hitter

PASCAL_DB: Final = 20 * float(np.log10(1 / 20e-6))
"""1 Pa in dB SPL, 93.98 (IEC 61672-1: 0 dB is 20 µPa)."""

DBU_V: Final = float(np.sqrt(0.6))
"""V at 0 dBu: 1 mW in 600 ohms."""

PLAYED_DB: Final[dict[Hitter, float]] = {"light": -6.0, "even": 0.0, "hard": 4.0}
"""How much louder than the usual a drummer plays, by the brief (from memory)."""

SPREAD_DB: Final = 6.0
"""Nine in ten peaks lie within so much of the middle, by stroke and by drum (from memory)."""


class Peak(NamedTuple):
    """The loudest a mic meets: of which source, by number, and decibels."""

    source: int
    middle_db: float

    @property
    def high_db(self) -> float:
        """Where one peak in twenty is louder."""
        return self.middle_db + SPREAD_DB


def output_dbu(spl_db: float, sensitivity_mv_pa: float) -> float:
    """What a mic gives at a level.

    Parameters
    ----------
    spl_db : float
        At the capsule.
    sensitivity_mv_pa : float
        Into an open circuit, millivolts per pascal.

    Returns
    -------
    float
        dBu.

    References
    ----------
    IEC 60268-4, rated sensitivity.

    Examples
    --------
    >>> round(output_dbu(94.0, 20.0), 1)
    -31.7
    """
    volts = sensitivity_mv_pa / 1000 * 10 ** ((spl_db - PASCAL_DB) / 20)
    return float(20 * np.log10(volts / DBU_V))


def as_from_m(distance_m: ArrayLike, radius_m: ArrayLike) -> Floats:
    """How far off a point would be as loud as a disc is, both being alike from afar.

    Parameters
    ----------
    distance_m, radius_m : array_like
        Metres from the disc, and its radius; broadcast together.

    Returns
    -------
    ndarray
        Metres; half the radius on the disc itself.
    """
    z = np.asarray(distance_m, dtype=float)
    return np.asarray((np.hypot(z, np.asarray(radius_m, dtype=float)) + z) / 2)


def peaks(layout: Layout) -> list[Peak]:
    """The loudest each mic of a layout meets, in their order.

    Parameters
    ----------
    layout : Layout
        With a brief, played as that says.

    Returns
    -------
    list of Peak
    """
    if not layout.mics:
        return []
    scene = scene_of(layout)
    heard, s = arrivals(scene, layout.thresholds), scene.sources
    # Levels are those of points so far off; a disc is heard as from further.
    near = 20 * np.log10(heard.radiated_m / as_from_m(heard.radiated_m, s.radius))
    played = PLAYED_DB[layout.brief.hitter] if layout.brief else 0.0
    loud = heard.level_db + s.peak_db + near + played
    return [
        Peak(k, float(row[k])) for row, k in zip(loud, loud.argmax(axis=1).tolist(), strict=True)
    ]
