"""What changed of a kit, its room and its air: what was tried at the instrument itself."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import asin, degrees, dist, remainder
from typing import Final

from ringside.plan.kit import Cymbal, Drum, Head, Kit
from ringside.plan.layout import Air
from ringside.plan.room import Room
from ringside.values import Vector


@dataclass(frozen=True, slots=True)
class Told:
    """One difference: of what, in words, and by how many metres where something moved."""

    what: str
    words: str
    moved_m: float | None = None


AIR, ROOM, KIT = "air", "room", "kit"
LEAST_M: Final = 0.0005
LEAST_DEG: Final = 0.5
"""What is less would be told as nothing: lengths are told to the millimetre, angles by degrees; and
so would what is the same in words."""


def turned_deg(was: Vector, now: Vector) -> float:
    """The angle between two directions.

    Parameters
    ----------
    was, now : three floats each
        Of length one.

    Returns
    -------
    float
        Degrees, 0 to 180.
    """
    # By the chord: the arc cosine of nearly one knows no small angles.
    return degrees(2 * asin(min(dist(was, now) / 2, 1.0)))


def kit_changes(before: Kit, after: Kit) -> Iterator[Told]:
    """Differences of two kits: drums and cymbals by name, then what is of the whole kit.

    Parameters
    ----------
    before, after : Kit
        As it was, and as it is now.

    Returns
    -------
    iterator of Told
    """
    old, new = _parts(before), _parts(after)
    yield from (Told(new[i].name, "added to the kit") for i in new if i not in old)
    yield from (Told(old[i].name, "taken from the kit") for i in old if i not in new)
    for id_ in (i for i in new if i in old):
        yield from _part_changes(old[id_], new[id_])
    for field, words in KIT_FIELDS.items():
        if getattr(before, field) != getattr(after, field):
            yield Told(KIT, words)


KIT_FIELDS: Final = {
    "name": "renamed", "hand": "the other hand leads", "stool": "the stool or its zone changed",
    "rug": "the rug changed", "readings": "tape readings changed",
}  # fmt: skip


def _parts(kit: Kit) -> dict[str, Drum | Cymbal]:
    parts: tuple[Drum | Cymbal, ...] = (*kit.drums, *kit.cymbals)
    return {p.id: p for p in parts}


def _part_changes(old: Drum | Cymbal, new: Drum | Cymbal) -> Iterator[Told]:
    was, now = (p.batter_m if isinstance(p, Drum) else p.centre_m for p in (old, new))
    if dist(was, now) > LEAST_M:
        yield Told(new.name, "moved", dist(was, now))
    if turned_deg(old.axis, new.axis) > LEAST_DEG:
        yield Told(new.name, "leans another way")
    if old.name != new.name:
        yield Told(new.name, f"was called {old.name}")
    if _sizes(old) != _sizes(new):
        yield Told(new.name, "another size")
    if isinstance(old, Drum) and isinstance(new, Drum):
        yield from (Told(new.name, words) for words in _drum_words(old, new))


def _sizes(part: Drum | Cymbal) -> tuple[float, ...]:
    return (part.diameter_m, part.depth_m if isinstance(part, Drum) else 0.0)


def _drum_words(old: Drum, new: Drum) -> Iterator[str]:
    if _hertz(old) != _hertz(new):
        yield f"tuned to {_hertz(new)} ({_hertz(old)} before)"
    if old.head != new.head:
        yield f"batter head {_head(new.head)} ({_head(old.head)} before)"
    if old.far_head != new.far_head:
        yield f"far head {_head(new.far_head)} ({_head(old.far_head)} before)"
    if old.damping != new.damping:
        was, now = (", ".join(d.damping) or "none" for d in (old, new))
        yield f"damping: {now} ({was} before)"
    if old.beater != new.beater:
        yield f"beater: {new.beater or 'not told'} ({old.beater or 'not told'} before)"
    if old.port != new.port:
        yield "the hole in the front head changed"
    if old.wires_rad != new.wires_rad:
        yield "wires turned"
    if old.reference != new.reference:
        yield f"tape held to the {'beater spot' if new.reference == 'batter' else 'front head'}"


def _hertz(drum: Drum) -> str:
    return f"{drum.fundamental_hz:.0f} Hz" if drum.fundamental_hz else "what its size has"


def _head(head: Head | None) -> str:
    return f"{head.finish} {head.plies}-ply" if head else "none"


WHERE: Final = ("kit_x_m", "kit_y_m", "kit_turn_rad")


def room_changes(before: Room | None, after: Room | None) -> Iterator[Told]:
    """Differences of two rooms: where the kit stands in it, its gobos, and all else.

    Parameters
    ----------
    before, after : Room or None
        As it was, and as it is now; None is not drawn.

    Returns
    -------
    iterator of Told
    """
    if before is None or after is None:
        if before is not after:
            yield Told(ROOM, "drawn" if after else "taken away")
        return
    went = dist((before.kit_x_m, before.kit_y_m), (after.kit_x_m, after.kit_y_m))
    if went > LEAST_M:
        yield Told(KIT, "moved in the room", went)
    turned = remainder(degrees(after.kit_turn_rad - before.kit_turn_rad), 360.0)
    if abs(turned) > LEAST_DEG:
        way = "counter-clockwise" if turned > 0 else "clockwise"
        yield Told(KIT, f"turned {abs(turned):.1f}° {way}, from above")
    if before.gobos != after.gobos:
        yield Told(ROOM, "gobos changed")
    # Compared with where the kit is, and the gobos, out of the way.
    same = {"gobos": (), **{field: getattr(before, field) for field in WHERE}}
    if before.model_copy(update={"gobos": ()}) != after.model_copy(update=same):
        yield Told(ROOM, "changed" if before.name == after.name else f"another: {after.name}")


def air_changes(before: Air, after: Air) -> Iterator[Told]:
    """Differences of two states of the air.

    Parameters
    ----------
    before, after : Air
        As it was, and as it is now.

    Returns
    -------
    iterator of Told
    """
    was, now = (f"{air.temperature_c:.1f} °C" for air in (before, after))
    if was != now:
        yield Told(AIR, f"{now} ({was} before)")
    if _percent(before) != _percent(after):
        yield Told(AIR, f"humidity {_percent(after)} ({_percent(before)} before)")


def _percent(air: Air) -> str:
    return "not told" if air.humidity_pct is None else f"{air.humidity_pct:.0f} %"
