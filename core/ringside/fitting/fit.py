"""Fit: move what is free so that, in this order, every mic is clear and within its stand's
reach, pairs are equal on snare and then kick, twins are level, nulls face the loudest
neighbour, and bleed is as low as a slide round the rim makes it.

A later wish never breaks an earlier one. Nothing is random and nothing depends on the clock:
the same layout gives the same answer, and fitting a fitted layout moves nothing. Metres,
degrees, decibels.
"""

from dataclasses import dataclass, field
from typing import Annotated, Any, Final, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from ringside.clearance import blocked, words_for
from ringside.drumterms import face_of, side_of, unit, vector
from ringside.errors import RingsideError
from ringside.fitting.least import Rule, SameDistance, SameHeight, least_move
from ringside.fitting.stands import aside_m, reached
from ringside.kit import Drum
from ringside.layout import Layout
from ringside.locker import Locker, StandModel
from ringside.mics import LOCKS, PRESSURE_SHARE, Mic, directivity
from ringside.nulls import OFF_DEG, best_way, loudest_near, null_aim
from ringside.places import references
from ringside.scene import sources_of
from ringside.setup import NEAR_DEG
from ringside.techniques.around import Around
from ringside.techniques.catalogue import TECHNIQUES
from ringside.techniques.taking import APART_M
from ringside.values import Record

Array = NDArray[np.float64]
Wish = Literal["clear", "equal", "level", "nulls", "bleed"]
WISHES: Final[tuple[Wish, ...]] = ("clear", "equal", "level", "nulls", "bleed")
FARTHEST_M: Final = 0.6
"""A fit moves no mic farther than this: beyond it the technique is another one."""

TWIN_M: Final = 0.10
"""Two close mics on one side of a drum within this are twins (common practice: taped)."""

NULL_GAIN_DB: Final = 2.0
BLEED_GAIN_DB: Final = 1.5
OWN_LOSS_DB: Final = 3.0
"""What is worth a turn or a slide, and what the drum itself may lose by it (from memory)."""

ROOM_FLOOR: Final = 0.1
"""Twenty decibels: deeper in a null the room answers, so no more is hoped for (from memory)."""

SLIDE_H: Final = (-1.5, -1.0, -0.5, 0.5, 1.0, 1.5)
FAR_HALF_H: Final = 4.0
"""Hours either side of 12 that a mic may slide to: the drummer's side stays free."""


class FitAsk(Record):
    """What a fit should do and how exact it must be."""

    wishes: tuple[Wish, ...] = Field(default=WISHES, max_length=5)
    snare_tolerance_m: Annotated[float, Field(strict=True, ge=0.0001, le=0.1)] = 0.005
    kick_tolerance_m: Annotated[float, Field(strict=True, ge=0.0001, le=0.2)] = 0.01
    off_deg: Annotated[float, Field(strict=True, ge=0, le=60)] = OFF_DEG


@dataclass
class _Work:
    """The layout as it is being fitted, and what is told about it."""

    layout: Layout
    ask: FitAsk
    stands: dict[str, StandModel]
    why: dict[str, list[str]] = field(default_factory=dict)
    gave_up: list[dict[str, Any]] = field(default_factory=list)

    def spot(self, mic: str) -> Array:
        return np.array(self.layout.mic(mic).position_m)

    def stand(self, mic: Mic) -> StandModel | None:
        return self.stands.get(mic.stand or "")

    def free(self, mic: Mic) -> NDArray[np.bool_]:
        return np.array([name not in mic.locks for name in LOCKS[:3]])

    def put(self, mic: Mic, at: Array, why: str) -> None:
        """Move a mic; what it was aimed at it stays aimed at."""
        aim = mic.aim if "aim" in mic.locks else unit(self._still_at(mic, at))
        self.layout = self.layout.with_mic(
            mic.model_copy(update={"position_m": vector(at), "aim": aim})
        )
        self.why.setdefault(mic.id, []).append(why)

    def _still_at(self, mic: Mic, at: Array) -> Array:
        """The aim from a new place: at the drum it was aimed at, else the same direction."""
        old, way = np.array(mic.position_m), np.array(mic.aim)
        if abs(way[2]) > 0.999:
            return way
        src = sources_of(self.layout.kit)
        to = src.centre - old
        reach = np.linalg.norm(to, axis=1)
        cos = (to @ way) / np.maximum(reach, 1e-9)
        k = int(cos.argmax())
        if cos[k] < np.cos(np.radians(NEAR_DEG)):
            return way
        seen = old + way * float(to[k] @ way)
        out = seen - at
        return out if float(np.linalg.norm(out)) > 1e-6 else way

    def fine(self, points: Array, mic: Mic, apart_from: tuple[str, ...] = ()) -> NDArray[np.bool_]:
        """Which points (N, 3) a mic can be at: clear, held by its stand, not in another mic."""
        stand = self.stand(mic)
        if stand is not None and (aside_m(points[:, 2], stand) < 0).all():
            return np.zeros(len(points), bool)  # no height it could be held at: ask no more
        ok = ~blocked(points, self.layout)
        skip = {mic.id, *apart_from}
        others = np.array([m.position_m for m in self.layout.mics if m.id not in skip])
        if len(others):
            now = np.linalg.norm(others - np.array(mic.position_m), axis=1)
            others = others[now >= APART_M]  # who already shares its place goes on sharing it
        if len(others):
            gaps = np.linalg.norm(points[:, None] - others, axis=-1)
            ok &= gaps.min(axis=1) >= APART_M
        if stand is not None and ok.any():
            ok[ok] = reached(points[ok], stand, self.layout)
        return np.asarray(ok)


def fit(layout: Layout, ask: FitAsk | None = None, locker: Locker | None = None) -> dict[str, Any]:
    """A layout fitted, with what was moved and what was given up.

    Parameters
    ----------
    layout : Layout
        Locks on its mics are kept.
    ask : FitAsk, optional
        Wishes and tolerances.
    locker : Locker, optional
        The stands the mics name; without it reach is not looked at.

    Returns
    -------
    dict
        ``layout``; ``moves``: rows of mic, ``moved_m``, ``turned_deg``, ``snare_m`` and
        ``kick_m`` as [before, after], and ``why``; ``gave_up``: rows of ``mics``, ``words`` and
        ``left_m`` (None when it is no distance); ``words``, one sentence over all.
    """
    ask = ask or FitAsk()
    stands = {s.id: s for s in locker.stands} if locker else {}
    work = _Work(layout, ask, stands)
    if "clear" in ask.wishes:
        _clear(work)
    if "equal" in ask.wishes:
        _equal(work)
    if "level" in ask.wishes:
        _level(work)
    if "nulls" in ask.wishes:
        _nulls(work)
    if "bleed" in ask.wishes:
        _bleed(work)
    return _told(layout, work)


# --- clear --------------------------------------------------------------------------------


def _directions() -> Array:
    """Even directions over the sphere (Fibonacci spiral), up and outward first, (N, 3)."""
    n = 96
    k = np.arange(n) + 0.5
    z = 1 - 2 * k / n
    turn = np.pi * (1 + 5**0.5) * k
    flat = np.sqrt(1 - z**2)
    return np.column_stack([flat * np.cos(turn), flat * np.sin(turn), z])


DIRECTIONS: Final = _directions()
RADII_M: Final = np.concatenate(
    [np.arange(0.01, 0.1, 0.01), np.arange(0.1, 0.3, 0.02), np.arange(0.3, FARTHEST_M + 0.01, 0.05)]
)
"""Finer near by, because a mic that only grazes a zone should move a centimetre."""


def _clear(work: _Work) -> None:
    for mic in work.layout.mics:
        now = np.array([mic.position_m])
        if work.fine(now, mic)[0]:
            continue
        why = words_for(now[0], work.layout) or "Out of its stand's reach, or in another mic."
        spot = _nearest_fine(work, mic)
        if spot is None:
            work.gave_up.append(
                {"mics": [mic.id], "left_m": None,
                 "words": f"{mic.id} found no clear spot near by. {why}"}
            )  # fmt: skip
        else:
            work.put(mic, spot, f"clear: {why[0].lower()}{why[1:].rstrip('.')}")


def _nearest_fine(work: _Work, mic: Mic) -> Array | None:
    """The nearest spot that is fine, on the side of its drum that it is on."""
    at, free = np.array(mic.position_m), work.free(mic)
    if not free.any():
        return None
    ways = np.where(free, DIRECTIONS, 0.0)
    ways = np.unique(np.round(ways, 9), axis=0)
    ways = ways[np.linalg.norm(ways, axis=1) > 0.2]
    ways /= np.linalg.norm(ways, axis=1)[:, None]
    part = work.layout.kit.part(mic.job) if mic.job else None
    for r in RADII_M:
        points = at + ways * r
        points = points[work.fine(points, mic)]
        if part is not None:
            points = np.array([p for p in points if side_of(part, p) == side_of(part, at)])
        if len(points):
            return np.asarray(points[0])
    return None


# --- equal --------------------------------------------------------------------------------


@dataclass(frozen=True)
class _Group:
    """Mics that must be equal, with the rules in their order and the tolerance of each."""

    mics: tuple[str, ...]
    rules: tuple[Rule, ...]
    names: tuple[str, ...]
    tolerances_m: tuple[float, ...]


def _groups(work: _Work) -> list[_Group]:
    found: list[_Group] = []
    covered: set[str] = set()
    for kept in work.layout.techniques:
        group = _promised(work, kept.technique, kept.target, dict(kept.numbers), kept.mics)
        if group is not None:
            found.append(group)
        t = TECHNIQUES.get(kept.technique)
        if t is not None:
            covered.update(kept.mics)
    ref = references(work.layout)
    for p in work.layout.stereo_pairs:
        a, b = work.layout.mic(p.left), work.layout.mic(p.right)
        if {a.id, b.id} <= covered or "close" in (a.role, b.role):
            continue
        rules = tuple(SameDistance(0, 1, to, to) for to in (ref.snare, ref.kick))
        found.append(_Group((a.id, b.id), rules, ("snare", "kick"), _limits(work, rules)))
    return found


def _limits(work: _Work, rules: tuple[Rule, ...]) -> tuple[float, ...]:
    ask = work.ask
    return (ask.snare_tolerance_m, *([ask.kick_tolerance_m] * (len(rules) - 1)))


def _promised(
    work: _Work,
    technique: str,
    target: str | None,
    numbers: dict[str, float],
    mics: tuple[str, ...],
) -> _Group | None:  # fmt: skip
    """What a technique in use promises, as rules over its mics."""
    t = TECHNIQUES.get(technique)
    if t is None or not t.keeps_on or "own head" in t.keeps_on:
        return None
    try:
        full = {n.id: numbers.get(n.id, n.default) for n in t.numbers}
        made = t.place(Around(work.layout, target), full)
    except RingsideError:
        return None
    if len(made.puts) != len(mics) or not made.equals:
        return None
    ordered = sorted(made.equals, key=lambda e: e.on != "snare")
    rules = tuple(SameDistance(e.a, e.b, e.to_a, e.to_b) for e in ordered)
    limits = tuple(
        work.ask.snare_tolerance_m if e.on.startswith("snare") else work.ask.kick_tolerance_m
        for e in ordered
    )
    return _Group(mics, rules, tuple(e.on for e in ordered), limits)


def _held(group: _Group, x: Array, upto: int) -> bool:
    return all(
        abs(r.value(x)) <= t + 1e-9
        for r, t in zip(group.rules[:upto], group.tolerances_m, strict=False)
    )


def _equal(work: _Work) -> None:
    for group in _groups(work):
        _make_equal(work, group, "equal on")


def _make_equal(work: _Work, group: _Group, said: str) -> None:
    x = np.array([work.spot(m) for m in group.mics])
    count = len(group.rules)
    if _held(group, x, count):
        return
    for upto in range(count, 0, -1):
        spots = x if _held(group, x, upto) else _solved(work, group, x, upto)
        if spots is None:
            continue
        for mic, at, was in zip(group.mics, spots, x, strict=True):
            if float(np.linalg.norm(at - was)) > 1e-7:
                work.put(work.layout.mic(mic), at, f"{said} {_and(group.names[:upto])}")
        x = spots
        break
    for rule, name, limit in zip(group.rules, group.names, group.tolerances_m, strict=True):
        left = abs(rule.value(x))
        if left > limit + 1e-9:
            who = _and(group.mics)
            work.gave_up.append(
                {"mics": list(group.mics), "left_m": left,
                 "words": f"{who} stay apart on {name}: no clear spot near by keeps it."}
            )  # fmt: skip


def _and(names: tuple[str, ...]) -> str:
    return " and ".join(dict.fromkeys(names))


def _solved(work: _Work, group: _Group, x: Array, upto: int) -> Array | None:
    """The clear spots with the smallest move that keep the first rules, or None."""
    mics = [work.layout.mic(m) for m in group.mics]
    free = np.array([work.free(m) for m in mics])
    rules = list(group.rules[:upto])
    # A mic that no clear spot was found for is not asked to have one here.
    asked = [bool(work.fine(p[None], m, group.mics)[0]) for p, m in zip(x, mics, strict=True)]
    best: tuple[float, Array] | None = None
    for start in _starts(x, free):
        spots = least_move(start, free, rules)
        if spots is None:
            continue
        moved = np.linalg.norm(spots - x, axis=1)
        if moved.max() > FARTHEST_M:
            continue
        size = float(np.sqrt((moved**2).sum()))
        if best is not None and size >= best[0] - 1e-9:
            continue
        if all(
            not must or work.fine(p[None], m, group.mics)[0]
            for p, m, must in zip(spots, mics, asked, strict=True)
        ):
            best = (size, spots)
            if start is x:
                break
    return best[1] if best else None


def _starts(x: Array, free: NDArray[np.bool_]) -> list[Array]:
    """Where to begin: as it is, then each mic shifted each way, deterministic."""
    found = [x]
    for step in (0.05, 0.12, 0.25, 0.4):
        for k in range(len(x)):
            for axis in range(3):
                for sign in (1.0, -1.0):
                    if free[k, axis]:
                        shifted = x.copy()
                        shifted[k, axis] += sign * step
                        found.append(shifted)
    return found


# --- level twins --------------------------------------------------------------------------


def _twins(work: _Work) -> list[tuple[Mic, Mic, Drum]]:
    found = []
    close = [m for m in work.layout.mics if m.role == "close" and m.job]
    for i, a in enumerate(close):
        for b in close[i + 1 :]:
            if a.job != b.job:
                continue
            part = work.layout.kit.part(a.job or "")
            near = float(np.linalg.norm(np.subtract(a.position_m, b.position_m))) < TWIN_M
            if (
                isinstance(part, Drum)
                and near
                and side_of(part, a.position_m) == side_of(part, b.position_m)
            ):
                found.append((a, b, part))
    return found


def _level(work: _Work) -> None:
    for a, b, drum in _twins(work):
        face = face_of(drum, side_of(drum, a.position_m))
        rules: tuple[Rule, ...] = (
            SameDistance(0, 1, face.centre, face.centre),
            SameHeight(0, 1, np.array(drum.axis)),
        )
        group = _Group((a.id, b.id), rules, ("its head", "height"), (1e-3, 1e-3))
        _make_equal(work, group, "level twins:")


# --- nulls and bleed ----------------------------------------------------------------------


def _aimable(mic: Mic) -> bool:
    return mic.role == "close" and mic.job is not None and PRESSURE_SHARE[mic.pattern] <= 0.5


def _nulls(work: _Work) -> None:
    for mic in work.layout.mics:
        if not _aimable(mic) or "aim" in mic.locks or mic.job is None:
            continue
        part = work.layout.kit.part(mic.job)
        if side_of(part, mic.position_m) == "inside":
            continue
        other = loudest_near(work.layout.kit, mic.position_m, mic.job)
        if other is None:
            continue
        answer = null_aim(work.layout, mic.id, other, work.ask.off_deg)
        if answer["taken_db"] >= NULL_GAIN_DB and answer["own_db"] <= OWN_LOSS_DB:
            turned = mic.model_copy(update={"aim": unit(answer["aim"])})
            work.layout = work.layout.with_mic(turned)
            work.why.setdefault(mic.id, []).append(
                f"null toward the {other}: {answer['taken_db']:.1f} dB less of it"
            )


def _ratio_db(work: _Work, mic: Mic, at: Array, way: Array, other: int, own: int) -> float:
    """The drum over its loudest neighbour at a place and aim, decibels, in straight lines."""
    src = sources_of(work.layout.kit)
    share = PRESSURE_SHARE[mic.pattern]

    def heard(k: int) -> float:
        to = src.strike[k] - at
        far = max(float(np.linalg.norm(to)), 0.02)
        r = abs(float(directivity(share, float(to @ way) / far)))
        return float(src.peak_db[k] + 20 * np.log10(max(r, ROOM_FLOOR) / far))

    return heard(own) - heard(other)


def _bleed(work: _Work) -> None:
    twins = {m.id for pair in _twins(work) for m in pair[:2]}
    for mic in work.layout.mics:
        free = not mic.locks and mic.id not in twins
        if not (_aimable(mic) and free and mic.job):
            continue
        part = work.layout.kit.part(mic.job)
        if isinstance(part, Drum) and part.kind != "kick":
            _slide(work, mic.id, part)


def _slide(work: _Work, mic_id: str, drum: Drum) -> None:
    """Round the rim at the same height and way in, while each slide is worth it."""
    ids = sources_of(work.layout.kit).ids
    for _ in range(8):
        mic = work.layout.mic(mic_id)
        side = side_of(drum, mic.position_m)
        if side == "inside":
            return
        face = face_of(drum, side)
        at, way = np.array(mic.position_m), np.array(mic.aim)
        name = loudest_near(work.layout.kit, at, drum.id)
        if name is None:
            return
        other, own = ids.index(name), ids.index(drum.id)
        now = _ratio_db(work, mic, at, way, other, own)
        best: tuple[float, Array, Array] | None = None
        for spot, aim in _slides(work, mic, drum, face.out):
            if not work.fine(spot[None], mic)[0]:
                continue
            then_name = loudest_near(work.layout.kit, spot, drum.id) or name
            then = _ratio_db(work, mic, spot, aim, ids.index(then_name), own)
            if then - now >= BLEED_GAIN_DB and (best is None or then > best[0]):
                best = (then, spot, aim)
        if best is None:
            return
        moved = mic.model_copy(update={"position_m": vector(best[1]), "aim": unit(best[2])})
        work.layout = work.layout.with_mic(moved)
        work.why.setdefault(mic_id, []).append(
            f"round the rim: {best[0] - now:.1f} dB less of the {name}"
        )


def _slides(work: _Work, mic: Mic, drum: Drum, out: Array) -> list[tuple[Array, Array]]:
    """Other hours for a mic, each with the aim turned along and its null where it counts."""
    side = side_of(drum, mic.position_m)
    face = face_of(drum, side)
    centre, at = face.centre, np.array(mic.position_m)
    off = at - centre
    height = float(off @ out)
    flat = off - height * out
    radial = float(np.linalg.norm(flat))
    hour = float(np.degrees(np.arctan2(flat @ face.three, flat @ face.twelve)) / 30) % 12
    home = _home(work, mic)
    if home is None:
        return []  # put there by hand, and left there
    found = []
    for step in SLIDE_H:
        then = (hour + step) % 12
        away = abs((then - home + 6) % 12 - 6)
        if min(then, 12 - then) > FAR_HALF_H + 1e-9 or away > max(SLIDE_H) + 1e-6:
            continue
        spot = centre + out * height + face.radial(then) * radial
        turn = np.radians(30 * step)
        aim = _about(np.array(mic.aim), np.array(drum.axis), -turn)
        name = loudest_near(work.layout.kit, spot, drum.id)
        if "nulls" in work.ask.wishes and name:
            src = sources_of(work.layout.kit)
            k, own = src.ids.index(name), src.ids.index(drum.id)
            share = PRESSURE_SHARE[mic.pattern]
            aim = best_way(
                src.strike[own] - spot if side == "over" else centre - spot,
                src.strike[k] - spot, share, float(np.radians(work.ask.off_deg)),
            )  # fmt: skip
        found.append((spot, aim))
    return found


def _home(work: _Work, mic: Mic) -> float | None:
    """The hour its technique gives a mic: a slide is counted from it and never goes far."""
    for kept in work.layout.techniques:
        if mic.id in kept.mics and "clock" in kept.numbers:
            return float(kept.numbers["clock"])
    return None


def _about(v: Array, axis: Array, turn: float) -> Array:
    """A vector turned about an axis by an angle, radians (Rodrigues)."""
    c, s = np.cos(turn), np.sin(turn)
    return np.asarray(v * c + np.cross(axis, v) * s + axis * float(axis @ v) * (1 - c))


# --- telling ------------------------------------------------------------------------------


def _told(before: Layout, work: _Work) -> dict[str, Any]:
    ref, rows = references(before), []
    for old, new in zip(before.mics, work.layout.mics, strict=True):
        was, now = np.array(old.position_m), np.array(new.position_m)
        moved = float(np.linalg.norm(now - was))
        cos = float(np.clip(np.dot(old.aim, new.aim), -1, 1))
        turned = float(np.degrees(np.arccos(cos))) if old.aim != new.aim else 0.0
        if moved < 1e-6 and turned < 0.05:
            continue
        rows.append(
            {
                "mic": old.id,
                "moved_m": moved,
                "turned_deg": turned,
                "snare_m": [float(np.linalg.norm(p - ref.snare)) for p in (was, now)],
                "kick_m": [float(np.linalg.norm(p - ref.kick)) for p in (was, now)],
                "why": list(dict.fromkeys(work.why.get(old.id, []))),
            }
        )
    return {
        "layout": work.layout,
        "moves": rows,
        "gave_up": work.gave_up,
        "words": _summary(rows, work.gave_up),
    }


def _summary(rows: list[dict[str, Any]], gave_up: list[dict[str, Any]]) -> str:
    if not rows and not gave_up:
        return "Everything already fits: nothing was moved."
    moved = sum(r["moved_m"] >= 1e-6 for r in rows)
    turned = len(rows) - moved
    said = []
    if moved:
        said.append(f"{moved} {'mic' if moved == 1 else 'mics'} moved")
    if turned:
        said.append(f"{turned} turned in place")
    if gave_up:
        said.append(f"{len(gave_up)} wish{'es' if len(gave_up) > 1 else ''} given up")
    return ", ".join(said) + "."
