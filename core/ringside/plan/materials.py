"""What the surfaces of a room take from sound: a table of materials.

Random-incidence absorption coefficients in octave bands from 125 Hz to 8 kHz, as tabulated
in M. Vorländer, Auralization (Springer 2008), appendix "Absorption coefficients". Where the
table ends at 4 kHz the last value is carried on. A test holds every row against the copy of
that table in a published library.
"""

from dataclasses import dataclass
from typing import Annotated, Final

import numpy as np
from pydantic import AfterValidator, Field

from ringside.arrays import Floats

BANDS_HZ: Final = (125.0, 250.0, 500.0, 1000.0, 2000.0, 4000.0, 8000.0)
"""Octave bands of every row."""

SOURCE: Final = "Vorländer, Auralization (Springer 2008), table of absorption coefficients"


@dataclass(frozen=True)
class Material:
    """A surface: its name, what it is for, and seven coefficients, 125 Hz to 8 kHz."""

    name: str
    about: str
    alpha: tuple[float, ...]


MATERIALS: Final[dict[str, Material]] = {
    m.name: m
    for m in (
        Material("concrete", "Smooth concrete, unpainted",
                 (0.01, 0.01, 0.02, 0.02, 0.02, 0.05, 0.05)),
        Material("rough concrete", "Rough concrete",
                 (0.02, 0.03, 0.03, 0.03, 0.04, 0.07, 0.07)),
        Material("concrete floor", "Concrete floor",
                 (0.01, 0.03, 0.05, 0.02, 0.02, 0.02, 0.02)),
        Material("plastered brick", "Walls, rendered brickwork",
                 (0.01, 0.02, 0.02, 0.03, 0.03, 0.04, 0.04)),
        Material("painted brick", "Smooth brickwork, flush pointing, painted",
                 (0.01, 0.01, 0.02, 0.02, 0.02, 0.02, 0.02)),
        Material("bare brick", "Smooth brickwork, 10 mm deep pointing",
                 (0.08, 0.09, 0.12, 0.16, 0.22, 0.24, 0.24)),
        Material("stone", "Limestone walls",
                 (0.02, 0.02, 0.03, 0.04, 0.05, 0.05, 0.05)),
        Material("tiles", "Ceramic tiles, smooth",
                 (0.01, 0.01, 0.01, 0.02, 0.02, 0.02, 0.02)),
        Material("plasterboard", "Two layers of plasterboard on a frame, wool behind, painted",
                 (0.15, 0.10, 0.06, 0.04, 0.04, 0.05, 0.05)),
        Material("plasterboard ceiling", "Plasterboard on battens, large air space above",
                 (0.20, 0.15, 0.10, 0.08, 0.04, 0.02, 0.02)),
        Material("wooden lining", "Wooden lining, 12 mm, fixed on a frame",
                 (0.27, 0.23, 0.22, 0.15, 0.10, 0.07, 0.06)),
        Material("boards on studs", "16 mm wood on 40 mm studs",
                 (0.18, 0.12, 0.10, 0.09, 0.08, 0.07, 0.07)),
        Material("thin panelling", "Thin plywood panelling",
                 (0.42, 0.21, 0.10, 0.08, 0.06, 0.06, 0.06)),
        Material("wooden stage", "Wood floor, two layers over air space",
                 (0.10, 0.07, 0.06, 0.06, 0.06, 0.06, 0.06)),
        Material("wooden door", "Solid wooden door",
                 (0.14, 0.10, 0.06, 0.08, 0.10, 0.10, 0.10)),
        Material("glass", "Glass window",
                 (0.10, 0.05, 0.04, 0.03, 0.03, 0.03, 0.03)),
        Material("linoleum", "Linoleum or cork tile on concrete",
                 (0.02, 0.03, 0.03, 0.03, 0.03, 0.02, 0.02)),
        Material("thin carpet", "Thin carpet, cemented to concrete",
                 (0.02, 0.04, 0.08, 0.20, 0.35, 0.40, 0.40)),
        Material("thick carpet", "9 mm tufted pile carpet on felt",
                 (0.08, 0.08, 0.30, 0.60, 0.75, 0.80, 0.80)),
        Material("heavy curtain", "Cotton curtain draped to 3/4 area, 13 cm from the wall",
                 (0.30, 0.45, 0.65, 0.56, 0.59, 0.71, 0.71)),
        Material("light curtain", "Curtain hung 9 cm from the wall",
                 (0.05, 0.06, 0.39, 0.63, 0.70, 0.73, 0.73)),
        Material("mineral wool", "Rockwool, 50 mm, 40 kg/m³",
                 (0.23, 0.59, 0.86, 0.86, 0.86, 0.86, 0.86)),
        Material("fabric panel", "Fabric-covered panel with rockwool core",
                 (0.21, 0.66, 1.00, 1.00, 0.97, 0.98, 0.98)),
        Material("foam wedges", "Wedge-shaped melamine foam on the ceiling",
                 (0.12, 0.33, 0.83, 0.97, 0.98, 0.95, 0.95)),
        Material("ceiling tiles", "Fissured ceiling tile",
                 (0.49, 0.53, 0.53, 0.75, 0.92, 0.99, 0.99)),
        Material("open", "An open doorway: what goes out does not come back",
                 (1.00, 1.00, 1.00, 1.00, 1.00, 1.00, 1.00)),
    )
}  # fmt: skip


def known(name: str) -> str:
    """The name, if the table has it; a ValueError with the nearest names otherwise.

    Parameters
    ----------
    name : str

    Returns
    -------
    str
    """
    if name not in MATERIALS:
        raise ValueError(f"no material {name!r}; expected one of {', '.join(MATERIALS)}")
    return name


MaterialName = Annotated[
    str, Field(strict=True, max_length=40, description="A row of the material table."),
    AfterValidator(known),
]  # fmt: skip


def alpha(name: str) -> Floats:
    """Absorption coefficients of a material in `BANDS_HZ`.

    Parameters
    ----------
    name : str

    Returns
    -------
    ndarray, shape (7,)
        0 to 1.
    """
    return np.array(MATERIALS[name].alpha)


def reflection(material: str, frequency_hz: Floats) -> Floats:
    """Pressure reflection factor √(1 - α), bands joined on a logarithmic scale.

    Parameters
    ----------
    material : str
    frequency_hz : ndarray, shape (F,)
        Hertz.

    Returns
    -------
    ndarray, shape (F,)
        0 to 1.
    """
    taken = np.interp(np.log(frequency_hz), np.log(BANDS_HZ), alpha(material))
    return np.asarray(np.sqrt(1 - taken))
