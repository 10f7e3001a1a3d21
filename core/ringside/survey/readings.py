"""Tape readings taken and forgotten, and the kit as they place it."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.plan.kit import Cymbal, Drawn, Drum, Kit, Reading, centre_of
from ringside.survey.net import fit, held_at, solve
from ringside.values import Vector, vector

SAME_M: Final = 0.015
"""Two readings of one length no further apart than this are the same reading."""


def solved(kit: Kit) -> Kit:
    """The kit with every part where the readings say; as it was drawn when there are none.

    The answer depends on the drawing and the readings alone, not on the order they came in.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Kit
    """
    if not any(r.sure for r in kit.readings):
        if not kit.drawn:
            return kit
        net = solve(kit, [])
    else:
        net = fit(kit)

    def at(i: int, part: Drum | Cymbal) -> Vector:
        return placed_at(part, net.points[i])

    n = len(kit.drums)
    return kit.model_copy(
        update={
            "drums": tuple(
                d.model_copy(update={"batter_m": at(i, d)}) for i, d in enumerate(kit.drums)
            ),
            "cymbals": tuple(
                c.model_copy(update={"centre_m": at(n + i, c)}) for i, c in enumerate(kit.cymbals)
            ),
            "drawn": kit.drawn if kit.readings else (),
        }
    )


def placed_at(part: Drum | Cymbal, point: Floats) -> Vector:
    """The centre of a part whose tape is held at a point, metres.

    Parameters
    ----------
    part : Drum or Cymbal
    point : ndarray, shape (3,)
        Metres.

    Returns
    -------
    tuple of float, shape (3,)
    """
    return vector(np.array(centre_of(part)) + point - np.array(held_at(part)))


def read(kit: Kit, a: str, b: str | None, metres: float) -> Kit:
    """The kit with one more reading; an older one between the same ends is replaced, or joined
    when both read the same.

    Parameters
    ----------
    kit : Kit
    a : str
        Short name of a mic.
    b : str or None
        Short name of the other end; none for the floor.
    metres : float
        As read.

    Returns
    -------
    Kit

    Raises
    ------
    RingsideError
        When an end is not in the kit, both are one, or the length cannot be.
    """
    ids = kit.source_ids
    for end in (a, b):
        if end is not None and end not in ids:
            raise RingsideError(f"expected a drum or cymbal of the kit, got {end!r}")
    if a == b:
        raise RingsideError("a tape reading wants two different ends")
    if not 0.01 <= metres <= 10:
        raise RingsideError(
            "expected a reading of {least} to {most}, got {got}", least=0.01, most=10, got=metres
        )
    kept = tuple(r for r in kit.readings if {r.a, r.b} != {a, b})
    known = {d.id for d in kit.drawn}
    drawn = (
        *kit.drawn,
        *(Drawn(id=p.id, at_m=centre_of(p)) for p in kit.parts if p.id not in known),
    )
    reading = Reading(a=a, b=b, metres=metres)
    old = next((r for r in kit.readings if {r.a, r.b} == {a, b}), None)
    if old is not None and old.sure and abs(old.metres - metres) <= SAME_M:
        mean = (old.metres * old.taken + metres) / (old.taken + 1)
        reading = Reading(a=a, b=b, metres=mean, taken=old.taken + 1)
    return kit.model_copy(update={"readings": (*kept, reading), "drawn": drawn})


def forget(kit: Kit, a: str, b: str | None) -> Kit:
    """The kit without the reading between two ends.

    Parameters
    ----------
    kit : Kit
    a : str
        Short name of a mic.
    b : str or None
        Short name of the other end; none for the floor.

    Returns
    -------
    Kit
    """
    kept = tuple(r for r in kit.readings if {r.a, r.b} != {a, b})
    return kit.model_copy(update={"readings": kept})


def not_in(kit: Kit, log: Sequence[tuple[str, str | None, float]]) -> list[int]:
    """Which readings of a log a kit does not stand on, by number: the newest between two ends
    that are both of the kit, where the kit has none between them or one that differs.

    Parameters
    ----------
    log : sequence of (str, str or None, float)
        The two ends (None is the floor) and metres, oldest first.

    Returns
    -------
    list of int
    """
    ids = set(kit.source_ids)
    newest: dict[frozenset[str | None], int] = {}
    for n, (a, b, _) in enumerate(log):
        if a in ids and (b is None or b in ids):
            newest[frozenset((a, b))] = n
    held = {frozenset((r.a, r.b)): r.metres for r in kit.readings}
    return [
        n for ends, n in newest.items() if ends not in held or abs(held[ends] - log[n][2]) > SAME_M
    ]
