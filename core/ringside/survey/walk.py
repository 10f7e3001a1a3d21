"""What to measure next: one reading at a time, the one that is worth most."""

from dataclasses import dataclass
from itertools import combinations
from typing import Final, Literal

import numpy as np

from ringside.plan.kit import Kit
from ringside.plan.spoken import the
from ringside.survey.lines import computed
from ringside.survey.net import TAPE_M, Net, ends_of, held_at

GUARDED: Final = 0.55
"""From this redundancy an error of six sigmas (3 cm by tape) is net 95 times in a hundred:
the least error net so is (2.8 + 1.65)·σ/√r (Baarda's internal reliability)."""


PLACED_M: Final = 0.02
"""A part is placed when its plan is known to this, one sigma."""


HEIGHT_PLACED_M: Final = 0.02


TAPE_REACH_M: Final = 2.5
"""The longest reading that is asked for: the arms of two people."""


def walk_order(kit: Kit) -> list[int]:
    """Parts in the order they are measured: snare, kick, the drums round, the cymbals round.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    list of int
    """
    ids = kit.source_ids
    s, k = ids.index(kit.first("snare").id), ids.index(kit.first("kick").id)
    at = np.array([held_at(p) for p in kit.parts])[:, :2]
    middle = at.mean(axis=0)
    turn = -1.0 if kit.hand == "right" else 1.0
    start = np.arctan2(*(at[s] - middle)[::-1])

    def angle(i: int) -> float:
        a = float(np.arctan2(*(at[i] - middle)[::-1]))
        return float(turn * (a - start) % (2 * np.pi))

    drums = [i for i in range(len(kit.drums)) if i not in (s, k)]
    cymbals = list(range(len(kit.drums), len(ids)))
    return [s, k, *sorted(drums, key=angle), *sorted(cymbals, key=angle)]


def end_name(kit: Kit, end: int | None) -> str | None:
    """The short name of an end; None for the floor.

    Parameters
    ----------
    kit : Kit
    end : int or None
        Number of the part; none for the floor.

    Returns
    -------
    str or None
    """
    return None if end is None else kit.source_ids[end]


Stage = Literal["again", "place", "check"]


@dataclass(frozen=True, slots=True)
class Ask:
    """A reading to take: its two ends (None is the floor), and why."""

    a: str
    b: str | None
    stage: Stage
    words: str


def _gain(net: Net, part: int, ends: tuple[int, int | None]) -> float:
    """How much a reading would lessen the doubt about a part: trace of its variance, m²."""
    _, slope = computed(net.points, [ends])
    spread = net.covariance @ slope[0]
    variance = float(slope[0] @ spread) + TAPE_M**2
    own = spread[3 * part : 3 * part + 3]
    return float(own @ own) / variance


Ends = frozenset[str | None]


def next_reading(kit: Kit, net: Net, skip: frozenset[Ends] = frozenset()) -> Ask | None:
    """The one reading that is worth most now; None when every part is placed and checked.

    `skip` are readings that cannot be taken, as sets of their two ends.

    Parameters
    ----------
    kit : Kit
    net : Net
        As solved so far.
    skip : frozenset of Ends
        What was asked and not read.

    Returns
    -------
    Ask or None
    """
    doubtful = [*net.suspects, *net.rivals]
    if doubtful:  # what was repeated least comes first, so that each gets its turn
        i = min(doubtful, key=lambda k: kit.readings[k].taken)
        r = kit.readings[i]
        why = "It does not fit the others" if i in net.suspects else "It may be the wrong one"
        return Ask(r.a, r.b, "again", f"{why}: measure it again.")
    for r in kit.readings:
        if not r.sure:
            return Ask(r.a, r.b, "again", "A part at its end was moved since: measure it again.")
    taken: set[Ends] = {frozenset((r.a, r.b)) for r in kit.readings} | skip
    order = walk_order(kit)
    for group in (order[: len(kit.drums)], order[len(kit.drums) :]):
        for part in group:
            ask = _placing(kit, net, order, part, taken)
            if ask:
                return ask
    return _checking(kit, net, order, taken)


def doubt(net: Net, part: int) -> tuple[float, float]:
    """How well a part is known: the worst direction in plan and the height, metres, one sigma.

    Parameters
    ----------
    net : Net
        As solved so far.
    part : int
        Its number in the kit.

    Returns
    -------
    (float, float)
        In plan and in height, metres, one sigma.
    """
    block = net.covariance[3 * part : 3 * part + 3, 3 * part : 3 * part + 3]
    return float(np.sqrt(np.linalg.eigvalsh(block[:2, :2])[-1])), float(np.sqrt(block[2, 2]))


def _within_reach(net: Net, a: int, b: int) -> bool:
    return float(np.linalg.norm(net.points[a] - net.points[b])) <= TAPE_REACH_M


def _placing(kit: Kit, net: Net, order: list[int], part: int, taken: set[Ends]) -> Ask | None:
    plan, high = doubt(net, part)
    if plan <= PLACED_M and high <= HEIGHT_PLACED_M:
        return None
    free: list[tuple[int, int | None]] = []
    if plan > PLACED_M:
        before = order[: order.index(part)]
        free += [(part, other) for other in before if _within_reach(net, part, other)]
    if high > HEIGHT_PLACED_M:
        free.append((part, None))
    free = [e for e in free if frozenset((end_name(kit, e[0]), end_name(kit, e[1]))) not in taken]
    if not free:
        return None
    best = max(free, key=lambda e: _gain(net, part, e))
    return _ask(kit, best, "place")


def _checking(kit: Kit, net: Net, order: list[int], taken: set[Ends]) -> Ask | None:
    """The reading that best guards the readings no other yet checks well enough."""
    used = [ends_of(kit, kit.readings[i]) for i in net.used]
    weak = [i for i, r in enumerate(net.redundancy) if r < GUARDED and used[i][1] is not None]
    free: list[tuple[int, int | None]] = [
        (a, b)
        for a, b in combinations(range(len(order)), 2)
        if frozenset((end_name(kit, a), end_name(kit, b))) not in taken and _within_reach(net, a, b)
    ]
    if not free or not weak:
        return None
    told = computed(net.points, [used[i] for i in weak])[1]
    asked = computed(net.points, free)[1]
    spread = asked @ net.covariance
    variance = np.einsum("fi,fi->f", spread, asked) + TAPE_M**2
    # A further reading lowers the variance of each weak one by its squared covariance over
    # its own variance; what it lowers, it adds to their redundancy.
    worth = ((spread @ told.T) ** 2).sum(axis=1) / variance
    return _ask(kit, free[int(worth.argmax())], "check")


def _ask(kit: Kit, ends: tuple[int, int | None], stage: Stage) -> Ask:
    a, b = ends
    one = the(kit.parts[a].name)
    if b is None:
        return Ask(kit.source_ids[a], None, stage, f"From the floor up to {one}.")
    other = the(kit.parts[b].name)
    why = "" if stage == "place" else " It checks what is known."
    return Ask(kit.source_ids[b], kit.source_ids[a], stage, f"From {other} to {one}.{why}")
