"""The plan of a kit from tape readings between its parts, and what to measure next.

Unknowns are the points the tape is held at, one per part, metres in the kit's frame. The
snare stays at its place. Where the kit was drawn counts as weak knowledge (`PRIOR_M`), so few
readings already give a sensible plan and it faces the way it is drawn: distances alone do
not say which way that is. Each reading weighs by the error of a tape.

Least squares with prior and snooping for gross errors by standardised residuals: W. Baarda,
A testing procedure for use in geodetic networks (1968); redundancy of each reading from the
same normal equations.
"""

from dataclasses import dataclass, replace
from itertools import combinations
from typing import Any, Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.plan.kit import Cymbal, Drawn, Drum, Kit, Reading, centre_of, reference_point
from ringside.values import Vector

TAPE_M: Final = 0.005
"""Standard error of one tape reading, metres (common practice)."""

PRIOR_M: Final = 0.20
"""How far a drawn part may stand from its true place in plan, metres, one sigma."""

PRIOR_HEIGHT_M: Final = 0.06
"""The same for its height."""

DATUM_M: Final = 1e-4
"""What is held: the snare's place in plan; for the doubt about parts also the kick's bearing."""

MISFIT: Final = 2.8
"""A standardised residual above this is asked for again: five good readings in a thousand are,
and a repeated reading costs seconds where a wrong one costs the plan."""

RIVAL: Final = 6.0
"""Squared sigmas: a reading that explains the misfit to within this of the best may be the
wrong one instead (a likelihood ratio of twenty), and is asked for again as well."""

CANDIDATES: Final = 4
"""So many of the worst readings are tried as the wrong one."""

REPEATED: Final = 14.0
"""Squared sigmas: what a reading that was repeated and stayed the same has in its favour. That
the same slip is made twice is one in a thousand (from memory)."""

SAME_M: Final = 0.015
"""Two readings of one length no further apart than this are the same reading."""

GROSS: Final = 5.0
"""Above this many sigmas the plan is bent so far that four times as many are tried."""

UNCHECKED: Final = 0.05
"""Below this redundancy only the drawing speaks against a reading, not other readings."""

MISDRAWN: Final = 6.0
"""So many sigmas from the drawing alone a reading is a slip of the keys, not a kit moved."""

GUARDED: Final = 0.55
"""From this redundancy an error of six sigmas (3 cm by tape) is found 95 times in a hundred:
the least error found so is (2.8 + 1.65)·σ/√r (Baarda's internal reliability)."""

PLACED_M: Final = 0.02
"""A part is placed when its plan is known to this, one sigma."""

HEIGHT_PLACED_M: Final = 0.02
TAPE_REACH_M: Final = 2.5
"""The longest reading that is asked for: the arms of two people."""


@dataclass(frozen=True)
class Fit:
    """The state of the kit by its readings. P parts, R readings that count."""

    points: Floats  # (P, 3)
    covariance: Floats  # (3P, 3P), with the kick's bearing held
    used: tuple[int, ...]  # indices into kit.readings
    residual: Floats  # (R,) measured minus computed, metres
    redundancy: Floats  # (R,) 0 to 1
    suspects: tuple[int, ...]  # indices into kit.readings that are left out
    rivals: tuple[int, ...]  # those that would explain the misfit nearly as well
    cost: float  # squared sigmas of readings and drawing together


def _held(part: Drum | Cymbal) -> Vector:
    return reference_point(part) if isinstance(part, Drum) else part.centre_m


def _drawn(kit: Kit) -> Floats:
    """The points the tape is held at where the parts were drawn, (P, 3)."""
    places = {d.id: d.at_m for d in kit.drawn}
    held = np.array([_held(p) for p in kit.parts], dtype=float)
    moved = [np.subtract(places.get(p.id, centre_of(p)), centre_of(p)) for p in kit.parts]
    return np.asarray(held + np.array(moved, dtype=float))


def _prior(kit: Kit, *, hold_bearing: bool) -> Floats:
    """Weights of the drawn places, (3P, 3P): inverse covariance, 1/m².

    With `hold_bearing` the kick keeps its bearing from the snare: the doubt is then about the
    places of the others seen from those two, as every mic's is.
    """
    n = len(kit.parts)
    weight = np.zeros((3 * n, 3 * n))
    flat, high, datum = PRIOR_M**-2, PRIOR_HEIGHT_M**-2, DATUM_M**-2
    ids = kit.source_ids
    s = ids.index(kit.first("snare").id)
    for i in range(n):
        weight[3 * i : 3 * i + 3, 3 * i : 3 * i + 3] = np.diag([flat, flat, high])
    weight[3 * s, 3 * s] = weight[3 * s + 1, 3 * s + 1] = datum
    if hold_bearing:
        k = ids.index(kit.first("kick").id)
        bearing = np.subtract(_held(kit.parts[k]), _held(kit.parts[s]))[:2]
        size = max(float(np.linalg.norm(bearing)), 1e-6)
        across = np.array([-bearing[1], bearing[0]]) / size
        weight[3 * k : 3 * k + 2, 3 * k : 3 * k + 2] += np.outer(across, across) * datum
    return weight


def _model(points: Floats, ends: list[tuple[int, int | None]]) -> tuple[Floats, Floats]:
    """What each reading should be (R,), and its slope over all coordinates (R, 3P)."""
    rows = np.arange(len(ends))
    one = np.array([a for a, _ in ends], dtype=int)
    floor = np.array([b is None for _, b in ends], dtype=bool)
    two = np.array([a if b is None else b for a, b in ends], dtype=int)
    way = points[one] - points[two]
    said = np.where(floor, points[one, 2], np.sqrt(np.einsum("ri,ri->r", way, way)))
    unit = way / np.maximum(said, 1e-6)[:, None]
    unit[floor] = (0.0, 0.0, 1.0)
    slope = np.zeros((len(ends), len(points), 3))
    slope[rows, one] = unit
    slope[rows[~floor], two[~floor]] = -unit[~floor]
    return np.asarray(said), slope.reshape(len(ends), points.size)


def _ends(kit: Kit, r: Reading) -> tuple[int, int | None]:
    ids = kit.source_ids
    return ids.index(r.a), None if r.b is None else ids.index(r.b)


def _solve(kit: Kit, used: list[int]) -> Fit:
    """Gauss-Newton with halved steps, begun from the kit as it was drawn."""
    start = _drawn(kit)
    weight = _prior(kit, hold_bearing=False)
    ends = [_ends(kit, kit.readings[i]) for i in used]
    read = np.array([kit.readings[i].metres for i in used])
    points = start.copy()

    def state(p: Floats) -> tuple[float, Floats, Floats]:
        away = (p - start).ravel()
        said, slope = _model(p, ends)
        off = read - said
        return float(away @ weight @ away + off @ off / TAPE_M**2), said, slope

    now, said, slope = state(points)
    for _ in range(60):
        normal = weight + slope.T @ slope / TAPE_M**2
        pull = slope.T @ (read - said) / TAPE_M**2 - weight @ (points - start).ravel()
        step = np.linalg.solve(normal, pull).reshape(-1, 3)
        scale, new = 1.0, state(points + step)
        while new[0] > now and scale > 1e-4:
            scale /= 2
            new = state(points + scale * step)
        points = points + scale * step
        now, said, slope = new
        if float(np.abs(step).max()) * scale < 1e-6:
            break
    told = slope.T @ slope / TAPE_M**2
    free = np.linalg.inv(weight + told)
    redundancy = 1 - np.einsum("ri,ij,rj->r", slope, free, slope) / TAPE_M**2
    covariance = np.linalg.inv(_prior(kit, hold_bearing=True) + told)
    return Fit(
        points,
        np.asarray(covariance, dtype=np.float64),
        tuple(used),
        read - said,
        np.maximum(redundancy, 0.0),
        (),
        (),
        now,
    )


def fit(kit: Kit) -> Fit:
    """The plan from all readings that are sure, less those that do not fit the others.

    While a standardised residual is above `MISFIT`, all is solved again without each of the
    worst in turn, because a large error bends the plan and the residuals with it. The one
    without which the rest fits best is left out; those that explain it nearly as well are its
    rivals. At most a third of the readings can be left out.
    """
    used = [i for i, r in enumerate(kit.readings) if r.sure]
    out: list[int] = []
    rivals: set[int] = set()
    found = _solve(kit, used)
    while used and len(out) < max(len(kit.readings) / 3, 1):
        over = _misfit(found)
        if over.max() <= MISFIT:
            break
        tried = CANDIDATES if over.max() <= GROSS else 4 * CANDIDATES
        worst = [int(k) for k in over.argsort()[::-1][:tried]]
        trials = {used[k]: _solve(kit, [i for i in used if i != used[k]]) for k in worst}
        cost = {i: t.cost + REPEATED * (kit.readings[i].taken - 1) for i, t in trials.items()}
        best = min(cost, key=lambda i: cost[i])
        rivals |= {i for i, c in cost.items() if c < cost[best] + RIVAL}
        found = trials[best]
        used.remove(best)
        out.append(best)
    return replace(found, suspects=tuple(sorted(out)), rivals=tuple(sorted(rivals - set(out))))


def _misfit(found: Fit) -> Floats:
    """How many sigmas each used reading is off, (R,), on the scale of `MISFIT`."""
    size = np.abs(found.residual) / (TAPE_M * np.sqrt(np.maximum(found.redundancy, 1e-5)))
    return np.asarray(size * np.where(found.redundancy > UNCHECKED, 1.0, MISFIT / MISDRAWN))


def solved(kit: Kit) -> Kit:
    """The kit with every part where the readings say; as it was drawn when there are none.

    The answer depends on the drawing and the readings alone, not on the order they came in.
    """
    if not any(r.sure for r in kit.readings):
        if not kit.drawn:
            return kit
        found = _solve(kit, [])
    else:
        found = fit(kit)

    def at(i: int, part: Drum | Cymbal) -> Vector:
        shift = found.points[i] - np.array(_held(part))
        p = np.round(np.array(centre_of(part)) + shift, 5) + 0.0
        return (float(p[0]), float(p[1]), float(p[2]))

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


def read(kit: Kit, a: str, b: str | None, metres: float) -> Kit:
    """The kit with one more reading; an older one between the same ends is replaced, or joined
    when both read the same.

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
    """The kit without the reading between two ends."""
    kept = tuple(r for r in kit.readings if {r.a, r.b} != {a, b})
    return kit.model_copy(update={"readings": kept})


# --- what to measure next -----------------------------------------------------------------


def walk_order(kit: Kit) -> list[int]:
    """Parts in the order they are measured: snare, kick, the drums round, the cymbals round."""
    ids = kit.source_ids
    s, k = ids.index(kit.first("snare").id), ids.index(kit.first("kick").id)
    at = np.array([_held(p) for p in kit.parts])[:, :2]
    middle = at.mean(axis=0)
    turn = -1.0 if kit.hand == "right" else 1.0
    start = np.arctan2(*(at[s] - middle)[::-1])

    def angle(i: int) -> float:
        a = float(np.arctan2(*(at[i] - middle)[::-1]))
        return float(turn * (a - start) % (2 * np.pi))

    drums = [i for i in range(len(kit.drums)) if i not in (s, k)]
    cymbals = list(range(len(kit.drums), len(ids)))
    return [s, k, *sorted(drums, key=angle), *sorted(cymbals, key=angle)]


def _name(kit: Kit, end: int | None) -> str | None:
    return None if end is None else kit.source_ids[end]


@dataclass(frozen=True)
class Ask:
    """A reading to take: its two ends (None is the floor), and why."""

    a: str
    b: str | None
    stage: str  # "again", "place" or "check"
    words: str


def _gain(found: Fit, part: int, ends: tuple[int, int | None]) -> float:
    """How much a reading would lessen the doubt about a part: trace of its variance, m²."""
    _, slope = _model(found.points, [ends])
    spread = found.covariance @ slope[0]
    variance = float(slope[0] @ spread) + TAPE_M**2
    own = spread[3 * part : 3 * part + 3]
    return float(own @ own) / variance


Ends = frozenset[str | None]


def next_reading(kit: Kit, found: Fit, skip: frozenset[Ends] = frozenset()) -> Ask | None:
    """The one reading that is worth most now; None when every part is placed and checked.

    `skip` are readings that cannot be taken, as sets of their two ends.
    """
    doubtful = [*found.suspects, *found.rivals]
    if doubtful:  # what was repeated least comes first, so that each gets its turn
        i = min(doubtful, key=lambda k: kit.readings[k].taken)
        r = kit.readings[i]
        why = "It does not fit the others" if i in found.suspects else "It may be the wrong one"
        return Ask(r.a, r.b, "again", f"{why}: measure it again.")
    for r in kit.readings:
        if not r.sure:
            return Ask(r.a, r.b, "again", "A part at its end was moved since: measure it again.")
    taken: set[Ends] = {frozenset((r.a, r.b)) for r in kit.readings} | skip
    order = walk_order(kit)
    for group in (order[: len(kit.drums)], order[len(kit.drums) :]):
        for part in group:
            ask = _placing(kit, found, order, part, taken)
            if ask:
                return ask
    return _checking(kit, found, order, taken)


def doubt(found: Fit, part: int) -> tuple[float, float]:
    """How well a part is known: the worst direction in plan and the height, metres, one sigma."""
    block = found.covariance[3 * part : 3 * part + 3, 3 * part : 3 * part + 3]
    return float(np.sqrt(np.linalg.eigvalsh(block[:2, :2])[-1])), float(np.sqrt(block[2, 2]))


def _within_reach(found: Fit, a: int, b: int) -> bool:
    return float(np.linalg.norm(found.points[a] - found.points[b])) <= TAPE_REACH_M


def _placing(kit: Kit, found: Fit, order: list[int], part: int, taken: set[Ends]) -> Ask | None:
    plan, high = doubt(found, part)
    if plan <= PLACED_M and high <= HEIGHT_PLACED_M:
        return None
    free: list[tuple[int, int | None]] = []
    if plan > PLACED_M:
        before = order[: order.index(part)]
        free += [(part, other) for other in before if _within_reach(found, part, other)]
    if high > HEIGHT_PLACED_M:
        free.append((part, None))
    free = [e for e in free if frozenset((_name(kit, e[0]), _name(kit, e[1]))) not in taken]
    if not free:
        return None
    best = max(free, key=lambda e: _gain(found, part, e))
    return _ask(kit, best, "place")


def _checking(kit: Kit, found: Fit, order: list[int], taken: set[Ends]) -> Ask | None:
    """The reading that best guards the readings no other yet checks well enough."""
    used = [_ends(kit, kit.readings[i]) for i in found.used]
    weak = [i for i, r in enumerate(found.redundancy) if r < GUARDED and used[i][1] is not None]
    free: list[tuple[int, int | None]] = [
        (a, b)
        for a, b in combinations(range(len(order)), 2)
        if frozenset((_name(kit, a), _name(kit, b))) not in taken and _within_reach(found, a, b)
    ]
    if not free or not weak:
        return None
    told = _model(found.points, [used[i] for i in weak])[1]
    asked = _model(found.points, free)[1]
    spread = asked @ found.covariance
    variance = np.einsum("fi,fi->f", spread, asked) + TAPE_M**2
    # A further reading lowers the variance of each weak one by its squared covariance over
    # its own variance; what it lowers, it adds to their redundancy.
    worth = ((spread @ told.T) ** 2).sum(axis=1) / variance
    return _ask(kit, free[int(worth.argmax())], "check")


def _ask(kit: Kit, ends: tuple[int, int | None], stage: str) -> Ask:
    a, b = ends
    one = kit.parts[a].name.lower()
    if b is None:
        return Ask(kit.source_ids[a], None, stage, f"From the floor up to the {one}.")
    other = kit.parts[b].name.lower()
    why = "" if stage == "place" else " It checks what is known."
    return Ask(kit.source_ids[b], kit.source_ids[a], stage, f"From the {other} to the {one}.{why}")


def end_words(part: Drum | Cymbal) -> str:
    """Where the tape is held at a part."""
    if isinstance(part, Cymbal):
        return "the bell"
    if part.kind == "kick":
        return "the beater spot" if part.reference == "batter" else "the middle of the front head"
    return "the middle of the head"


def tape_report(kit: Kit, skip: frozenset[Ends] = frozenset()) -> dict[str, Any]:
    """Everything the walk needs: each reading against the plan, each part's doubt, the next.

    Returns
    -------
    dict
        ``readings`` (a, b, metres, says_m, off_m, state), ``parts`` (id, plan_m, height_m,
        placed), ``next`` or None, ``placed``, ``guarded`` (readings in which
        an error of 3 cm would be found) and ``words``; lengths in metres.
    """
    found = fit(kit)
    ids = kit.source_ids
    said = _model(found.points, [_ends(kit, r) for r in kit.readings])[0]
    rows = [
        {
            "a": r.a,
            "b": r.b,
            "metres": r.metres,
            "says_m": float(said[i]),
            "off_m": r.metres - float(said[i]),
            "state": _state(found, i, r),
        }
        for i, r in enumerate(kit.readings)
    ]
    doubts = [doubt(found, i) for i in range(len(ids))]
    parts = [
        {
            "id": name,
            "plan_m": plan,
            "height_m": high,
            "placed": plan <= PLACED_M and high <= HEIGHT_PLACED_M,
            "held_at": end_words(part),
        }
        for name, part, (plan, high) in zip(ids, kit.parts, doubts, strict=True)
    ]
    ask = next_reading(kit, found, skip)
    return {
        "readings": rows,
        "parts": parts,
        "next": None if ask is None else {**ask.__dict__},
        "placed": sum(bool(p["placed"]) for p in parts),
        "guarded": int((found.redundancy >= GUARDED).sum()),
        "words": _words(kit, found),
    }


def _state(found: Fit, i: int, r: Reading) -> str:
    if i in found.suspects:
        return "misfit"
    if i in found.rivals:
        return "doubtful"
    return "fits" if r.sure else "unsure"


def _words(kit: Kit, found: Fit) -> str:
    if not kit.readings:
        return "Nothing is measured yet: the kit stands as it is drawn."
    names = []
    for i in found.suspects:
        r = kit.readings[i]
        names.append(f"{r.a}–{r.b or 'floor'}")
    if names:
        verb = "does" if len(names) == 1 else "do"
        return f"{', '.join(names)} {verb} not fit the other readings and is left out."
    if not all(r.sure for r in kit.readings):
        return "Some readings are no longer sure: a part at their end was moved."
    if len(found.used) and float(found.redundancy.max()) > 0.1:
        return "All readings fit one plan."
    return "Each reading is used; none is checked by another yet."
