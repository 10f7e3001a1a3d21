"""Starting kits: common sizes set up the common way, in metres, to be changed at once.

Sizes and heights are common practice; no kit stands exactly like this.
"""

from collections.abc import Callable
from typing import Final

from ringside.constants import INCH_M
from ringside.kit import Cymbal, Drum, Kit, Rug, Stool, mirrored


def _kick(x: float) -> Drum:
    return Drum(
        id="kick", name="Kick", kind="kick", diameter_m=22 * INCH_M, depth_m=16 * INCH_M,
        batter_m=(x, 0.25, 0.28), axis=(0.0, -1.0, 0.0),
    )  # fmt: skip


def _snare() -> Drum:
    return Drum(
        id="snare", name="Snare", kind="snare", diameter_m=14 * INCH_M, depth_m=5.5 * INCH_M,
        batter_m=(0.0, 0.0, 0.66), axis=(0.0, 0.0, 1.0),
    )  # fmt: skip


def _rack(id_: str, name: str, inches: float, x: float, y: float) -> Drum:
    return Drum(
        id=id_, name=name, kind="rack", diameter_m=inches * INCH_M, depth_m=8 * INCH_M,
        batter_m=(x, y, 0.87), axis=(0.0, -0.26, 0.97),
    )  # fmt: skip


def _floor(x: float) -> Drum:
    return Drum(
        id="floor", name="Floor tom", kind="floor", diameter_m=16 * INCH_M, depth_m=15 * INCH_M,
        batter_m=(x, -0.06, 0.62), axis=(0.0, 0.0, 1.0),
    )  # fmt: skip


def _cymbals() -> tuple[Cymbal, ...]:
    flat = (0.0, 0.0, 1.0)
    tilted = (0.0, -0.17, 0.98)
    return (
        Cymbal(id="hats", name="Hats", kind="hats", diameter_m=14 * INCH_M,
               centre_m=(-0.40, 0.12, 0.90), axis=flat),
        Cymbal(id="crash-l", name="Crash L", kind="crash", diameter_m=16 * INCH_M,
               centre_m=(-0.34, 0.60, 1.24), axis=tilted),
        Cymbal(id="crash-r", name="Crash R", kind="crash", diameter_m=18 * INCH_M,
               centre_m=(0.93, 0.62, 1.26), axis=tilted),
        Cymbal(id="ride", name="Ride", kind="ride", diameter_m=20 * INCH_M,
               centre_m=(0.80, 0.22, 1.02), axis=tilted),
    )  # fmt: skip


_STOOL = Stool(position_m=(0.24, -0.50), height_m=0.50)
_RUG = Rug(centre_m=(0.18, 0.14), width_m=2.4, length_m=2.0)


def four_piece() -> Kit:
    """Kick, snare, one rack tom, one floor tom, hats, two crashes, ride."""
    return Kit(
        name="Four-piece",
        drums=(_kick(0.28), _snare(), _rack("rack", "Rack tom", 12, 0.14, 0.44), _floor(0.64)),
        cymbals=_cymbals(), stool=_STOOL, rug=_RUG,
    )  # fmt: skip


def five_piece() -> Kit:
    """Kick, snare, two rack toms, one floor tom, hats, two crashes, ride."""
    return Kit(
        name="Five-piece",
        drums=(
            _kick(0.28), _snare(), _rack("rack-1", "Rack 1", 12, 0.08, 0.44),
            _rack("rack-2", "Rack 2", 13, 0.45, 0.46), _floor(0.64),
        ),
        cymbals=_cymbals(), stool=_STOOL, rug=_RUG,
    )  # fmt: skip


def left_handed_five_piece() -> Kit:
    """The five-piece, mirrored."""
    return mirrored(five_piece(), "Left-handed five-piece")


KITS: Final[dict[str, Callable[[], Kit]]] = {
    "four-piece": four_piece,
    "five-piece": five_piece,
    "left-handed five-piece": left_handed_five_piece,
}
