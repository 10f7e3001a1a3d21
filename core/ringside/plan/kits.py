"""Starting kits: common sizes set up the common way, in metres, to be changed at once.

Sizes and heights are common practice; no kit stands exactly like this.
"""

from collections.abc import Callable
from typing import Final

from ringside.constants import INCH_M
from ringside.plan.kit import Cymbal, CymbalKind, Drum, Kit, Rug, Stool, mirrored
from ringside.values import Vector


def _kick(x: float, inches: float = 22, deep: float = 16) -> Drum:
    return Drum(
        id="kick", name="Kick", kind="kick", diameter_m=inches * INCH_M, depth_m=deep * INCH_M,
        batter_m=(x, 0.25, round(inches * INCH_M / 2, 2)), axis=(0.0, -1.0, 0.0),
    )  # fmt: skip


def _snare(id_: str = "snare", name: str = "Snare", inches: float = 14, x: float = 0.0,
           y: float = 0.0) -> Drum:  # fmt: skip
    return Drum(
        id=id_, name=name, kind="snare", diameter_m=inches * INCH_M, depth_m=5.5 * INCH_M,
        batter_m=(x, y, 0.66), axis=(0.0, 0.0, 1.0),
    )  # fmt: skip


def _rack(id_: str, name: str, inches: float, x: float, y: float) -> Drum:
    return Drum(
        id=id_, name=name, kind="rack", diameter_m=inches * INCH_M, depth_m=8 * INCH_M,
        batter_m=(x, y, 0.87), axis=(0.0, -0.26, 0.97),
    )  # fmt: skip


def _floor(
    x: float, y: float = -0.06, id_: str = "floor", name: str = "Floor tom", inches: float = 16
) -> Drum:
    return Drum(
        id=id_, name=name, kind="floor", diameter_m=inches * INCH_M,
        depth_m=(inches - 1) * INCH_M, batter_m=(x, y, 0.62), axis=(0.0, 0.0, 1.0),
    )  # fmt: skip


def _cymbal(id_: str, name: str, kind: CymbalKind, inches: float, at: Vector) -> Cymbal:
    tilt = (0.0, 0.0, 1.0) if kind == "hats" else (0.0, -0.17, 0.98)
    return Cymbal(id=id_, name=name, kind=kind, diameter_m=inches * INCH_M, centre_m=at, axis=tilt)


def _cymbals() -> tuple[Cymbal, ...]:
    return (
        _cymbal("hats", "Hats", "hats", 14, (-0.40, 0.12, 0.90)),
        _cymbal("crash-l", "Crash L", "crash", 16, (-0.34, 0.60, 1.24)),
        _cymbal("crash-r", "Crash R", "crash", 18, (0.93, 0.62, 1.26)),
        _cymbal("ride", "Ride", "ride", 20, (0.80, 0.22, 1.02)),
    )


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


def small_four_piece() -> Kit:
    """An 18-inch kick, snare, one rack tom, one floor tom, hats, one crash, ride."""
    return Kit(
        name="Small four-piece",
        drums=(
            _kick(0.26, 18, 14), _snare(), _rack("rack", "Rack tom", 12, 0.16, 0.42),
            _floor(0.58, -0.06, inches=14),
        ),
        cymbals=(*_cymbals()[:2], _cymbal("ride", "Ride", "ride", 20, (0.74, 0.24, 1.0))),
        stool=_STOOL, rug=_RUG,
    )  # fmt: skip


def six_piece() -> Kit:
    """Kick, snare, two rack toms, two floor toms, hats, two crashes, ride."""
    return Kit(
        name="Six-piece",
        drums=(
            _kick(0.28), _snare(), _rack("rack-1", "Rack 1", 10, 0.10, 0.43),
            _rack("rack-2", "Rack 2", 12, 0.44, 0.45),
            _floor(0.63, -0.04, "floor-1", "Floor 1", 14),
            _floor(0.66, -0.46, "floor-2", "Floor 2", 16),
        ),
        cymbals=_cymbals(), stool=_STOOL, rug=_RUG,
    )  # fmt: skip


def eight_piece() -> Kit:
    """Kick, two snares, three rack toms, two floor toms, hats, crashes, splash, ride, china."""
    return Kit(
        name="Eight-piece",
        drums=(
            _kick(0.30), _snare(), _snare("snare-2", "Side snare", 12, -0.42, -0.12),
            _rack("rack-1", "Rack 1", 8, -0.10, 0.46), _rack("rack-2", "Rack 2", 10, 0.18, 0.48),
            _rack("rack-3", "Rack 3", 12, 0.50, 0.47),
            _floor(0.66, -0.03, "floor-1", "Floor 1", 14),
            _floor(0.70, -0.46, "floor-2", "Floor 2", 16),
        ),
        cymbals=(
            _cymbal("hats", "Hats", "hats", 14, (-0.52, 0.24, 0.90)),
            *_cymbals()[1:3],
            _cymbal("splash", "Splash", "splash", 10, (0.30, 0.66, 1.20)),
            _cymbal("ride", "Ride", "ride", 20, (0.86, 0.24, 1.02)),
            _cymbal("china", "China", "china", 18, (1.22, 0.10, 1.20)),
        ),
        stool=_STOOL, rug=_RUG,
    )  # fmt: skip


def left_handed_five_piece() -> Kit:
    """The five-piece, mirrored."""
    return mirrored(five_piece(), "Left-handed five-piece")


KITS: Final[dict[str, Callable[[], Kit]]] = {
    "small four-piece": small_four_piece,
    "four-piece": four_piece,
    "five-piece": five_piece,
    "left-handed five-piece": left_handed_five_piece,
    "six-piece": six_piece,
    "eight-piece": eight_piece,
}
