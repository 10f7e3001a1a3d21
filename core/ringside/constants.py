"""Constants that more than one module needs, each with its unit and its source."""

from typing import Final

REFERENCE_SPEED_OF_SOUND: Final = 343.2
"""m/s at the reference temperature (ISO 9613-1:1993)."""

REFERENCE_TEMPERATURE_K: Final = 293.15
"""K (ISO 9613-1:1993)."""

ZERO_CELSIUS_K: Final = 273.15
"""K at 0 degrees Celsius (definition)."""

INCH_M: Final = 0.0254
"""m in an inch (definition)."""

NEAREST_M: Final = 0.01
"""m. Inverse distance is not carried closer than this: a capsule has a size."""

SHELL_LOSS_DB: Final = 15.0
"""dB that a shell and its heads take from other drums for a mic inside it (from memory)."""

NULL_FLOOR: Final = 0.03
"""Ratio. No real capsule's null is deeper than about -30 dB across the band (common practice)."""

STANDARD_PRESSURE_PA: Final = 101_325.0
"""Pa, the standard atmosphere (ISO 2533)."""


OVERHEAD_HEIGHT_M: Final = 1.74
"""m. Where starting overheads stand, a good metre over the snare (common practice)."""

FARTHEST_MOVE_M: Final = 0.6
"""m. Neither a fit nor a remedy moves a mic farther: beyond it, it is another layout (from
memory)."""
