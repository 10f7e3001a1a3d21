"""The way of sound round a wall's edge: by the door to a mic next door, round the corner of an L.

Where a wall is in the straight line, what comes first comes by the shortest way through the door,
or round the inner corner, and turns at an edge there. Such a mic is asked as if it stood further
on in the line from the drum to that edge, as far as the way is long: so distance, the side of the
head it looks at and what radiates are those of the way, and only the way the sound comes *in* is
turned back to where the edge is seen from the mic.

Past the corner of an L as much is lost as past the edge of a gobo (:mod:`ringside.hear.barriers`).
A doorway is a slit across and one up, and what passes is the product of both, by Fresnel's
integrals between the two edges of each with ν = √(2N) and N = 2δf/c (M. Born and E. Wolf,
Principles of Optics, 8.7; J. Goodman, Introduction to Fourier Optics, 4.5); the detour δ is the
exact one, so that it holds near the door as well. In sight of the drum that is within 1.5 dB of the
integral over the doorway, in the shadow within about 6 (its test). A shut door is the weakest part
of a wall: the way is by it too, and far weaker; with no door there it is straight through the wall.
What the space next door itself makes of the sound is left out.
"""

from dataclasses import dataclass, fields
from typing import Final

import numpy as np

from ringside.arrays import Complexes, Floats, Ints, Mask, dot
from ringside.hear.barriers import FAR, MOST_LOSS_DB, barrier_loss_db
from ringside.plan.openings import (
    InnerCorner,
    Opening,
    inner_corner,
    next_door,
    openings_to,
    past_corner,
    reach_of,
)
from ringside.plan.room import Room, to_kit, to_room

KEPT_OUT_DB: Final = {"open door": 0.0, "shut door": 25.0, "wall": 45.0}
"""What an ordinary inner door, and a plastered wall, keep out (from memory: 20 to 30 and 40 to 50
decibels)."""

EDGES: Final = 5
SLITS: Final = ((0, 1), (2, 3))
"""The edges of a door two by two: its jambs; its head, and the image of that in the floor."""

CORNER: Final = 4


LIT_M: Final = 1.2
"""In the light of a corner by so much nothing is lost above 29 Hz, N being under -0.2."""


@dataclass(frozen=True)
class Bends:
    """Those K of N capsules with which a wall has to do, by S sources; metres, of the kit."""

    rows: Ints  # (K,) rising
    capsule: Floats  # (K, S, 3) where it would be, were the way straight
    edge: Floats  # (K, S, 3) where the way turns; the capsule itself where it does not
    out: (
        Floats  # (K, S, 3) unit, from the edge on toward the source; nothing where it does not turn
    )
    back: Floats  # (K, S, 3) unit, from the capsule to the edge
    ahead_m: Floats  # (K, S) from the edge to where the source is struck
    turns: Mask  # (K, S)
    longer: Floats  # (K, EDGES, S) by the way over each edge; below nothing in its light
    shut_db: Floats  # (K,) what a shut door or a wall takes

    def straightened(self, capsule: Floats) -> Floats:
        """Where each capsule would be for each source, were the way straight.

        Parameters
        ----------
        capsule : ndarray, shape (N, 3)

        Returns
        -------
        ndarray, shape (N, S, 3)
        """
        every = np.repeat(capsule[:, None], self.turns.shape[1], axis=1)
        every[self.rows] = self.capsule
        return every

    def turned_back(self, toward: Floats) -> Floats:
        """Ways to a source as they were straight, as they come in at the real capsule.

        Parameters
        ----------
        toward : ndarray, shape (N, S, 3)

        Returns
        -------
        ndarray, shape (N, S, 3)
        """
        if not self.turns.any():
            return toward
        hinge, way = np.cross(self.out, self.back), toward[self.rows]
        once = np.cross(hinge, way)
        cos = np.maximum(1 + dot(self.out, self.back), 1e-9)[..., None]
        every = toward.copy()
        every[self.rows] = way + once + np.cross(hinge, once) / cos
        return every

    def loss_db(self, frequency_hz: Floats, speed: float, count: int) -> Floats:
        """What the edges and a shut door take.

        Parameters
        ----------
        frequency_hz : ndarray, shape (S,)
            Hertz.
        speed : float
            Of sound, m/s.
        count : int
            Capsules in all, N.

        Returns
        -------
        ndarray, shape (N, S)
            Decibels.
        """
        f = np.asarray(frequency_hz, dtype=float)
        doors, corner = self.longer[:, :CORNER], self.longer[:, CORNER]
        lost = barrier_loss_db(2 * corner * f / speed)
        if (doors > -FAR).any():
            past = _up_to(np.sign(doors) * np.sqrt(4 * np.abs(doors) * f / speed))
            passed = [np.abs(past[:, a] + past[:, b] - (1 + 1j)) / np.sqrt(2) for a, b in SLITS]
            through = -20 * np.log10(np.maximum(passed[0] * passed[1], 1e-6))
            lost = lost + np.where((doors > -FAR).any(axis=1), through, 0.0)
        every = np.zeros((count, len(f)))
        every[self.rows] = np.minimum(lost, MOST_LOSS_DB) + self.shut_db[:, None]
        return every

    def first(self, count: int) -> "Bends | None":
        """Of the first so many capsules alone.

        Parameters
        ----------
        count : int

        Returns
        -------
        Bends or None
        """
        kept = int(np.searchsorted(self.rows, count))
        return Bends(*(getattr(self, f.name)[:kept] for f in fields(self))) if kept else None

    def inner_legs(self, capsule: Floats, toward: Floats) -> tuple[Floats, Floats]:
        """Where each way sets out in the room itself, and on toward its source.

        Parameters
        ----------
        capsule : ndarray, shape (N, 3)
            The real ones.
        toward : ndarray, shape (N, S, 3)
            As they come in.

        Returns
        -------
        ndarray, ndarray, shape (N, S, 3)
        """
        turns, rows = self.turns[..., None], self.rows
        start, way = np.repeat(capsule[:, None], toward.shape[1], axis=1), toward.copy()
        start[rows] = np.where(turns, self.edge, start[rows])
        way[rows] = np.where(turns, self.out * self.ahead_m[..., None], way[rows])
        return start, way


@dataclass(frozen=True)
class _Way:
    """Ways of K points to S sources over what is open, in room coordinates."""

    at: Floats  # (K, S, 3) where it turns
    turns: Mask  # (K, S)
    longer: Floats  # (K, EDGES, S)

    def length(self, mics: Floats, sources: Floats) -> Floats:
        return _size(mics[:, None] - self.at) + _size(sources - self.at)


def bends(room: Room | None, capsule: Floats, whose: Ints, sources: Floats) -> Bends | None:
    """The ways with which a wall has to do.

    Parameters
    ----------
    room : Room or None
    capsule : ndarray, shape (N, 3)
        Mics first, then images of them; metres in the kit's frame.
    whose : ndarray of int, shape (N,)
        The mic of each.
    sources : ndarray, shape (S, 3)
        Where each is struck.

    Returns
    -------
    Bends or None
        None where it has to do with none.
    """
    if room is None or len(capsule) == 0 or not (room.spaces or room.notch):
        return None
    mics, ends = to_room(capsule, room), to_room(sources, room)
    beyond = next_door(mics[: int(whose.max()) + 1], room)[whose]
    parts = [_in_space(n, np.flatnonzero(beyond == n), room, mics, ends)
             for n in range(len(room.spaces)) if (beyond == n).any()]  # fmt: skip
    corner = inner_corner(room)
    if corner is not None:
        parts.append(_round(corner, np.flatnonzero(beyond < 0), mics, ends))
    found = [part for part in parts if len(part[0])]
    if not found:
        return None
    rows, ways, shut = zip(*found, strict=True)
    order = np.argsort(np.concatenate(rows))
    at, turns, longer = (
        np.concatenate([getattr(w, f) for w in ways])[order] for f in ("at", "turns", "longer")
    )
    every = np.concatenate(rows)[order]
    edge = to_kit(at.reshape(-1, 3), room).reshape(at.shape)
    return _straightened(every, capsule[every], sources, edge, turns, longer,
                         np.concatenate(shut)[order])  # fmt: skip


_Part = tuple[Ints, _Way, Floats]
"""Numbers of capsules, their ways, and what a shut door or a wall takes of each."""


def _in_space(space: int, rows: Ints, room: Room, mics: Floats, ends: Floats) -> _Part:
    """What stands next door, in one space."""
    own = mics[rows]
    ways = [_door_way(w, own, ends) for w in openings_to(space, room)]
    through = _Way(
        np.repeat(own[:, None], len(ends), axis=1),
        np.zeros((len(rows), len(ends)), dtype=bool),
        np.full((len(rows), EDGES, len(ends)), -FAR),
    )
    shut = np.full(len(rows), KEPT_OUT_DB[reach_of(space, room)])
    return rows, _shortest(ways, own, ends) if ways else through, shut


def _round(corner: InnerCorner, rows: Ints, mics: Floats, ends: Floats) -> _Part:
    """What stands in the room itself, an L, where its corner is in the way or near it."""
    crosses, _ = past_corner(corner.off(ends)[None], corner.off(mics[rows])[:, None])
    rows = rows[crosses.any(axis=1)]
    way = _corner_way(corner, mics[rows], ends)
    near = (way.longer[:, CORNER] > -LIT_M).any(axis=1)
    some = _Way(way.at[near], way.turns[near], way.longer[near])
    return rows[near], some, np.zeros(int(near.sum()))


def _straightened(
    rows: Ints, capsule: Floats, sources: Floats, edge: Floats, turns: Mask, longer: Floats,
    shut: Floats,
) -> Bends:  # fmt: skip
    here = capsule[:, None]
    ahead, behind = sources - edge, edge - here
    far, near = _size(ahead), _size(behind)
    turns = turns & (near > 1e-9) & (far > 1e-9)
    which = turns[..., None]
    out = np.where(which, ahead / np.maximum(far, 1e-9)[..., None], 0.0)
    back = np.where(which, behind / np.maximum(near, 1e-9)[..., None], 0.0)
    straight = np.where(which, edge - out * near[..., None], here)
    return Bends(rows, straight, edge, out, back, far, turns, longer, shut)


def _size(v: Floats) -> Floats:
    return np.asarray(np.sqrt(dot(v, v)))


def _shortest(ways: list[_Way], mics: Floats, sources: Floats) -> _Way:
    """Of several doors, for each mic and source the one by which the way is the shortest."""
    best = ways[0]
    for other in ways[1:]:
        less = other.length(mics, sources) < best.length(mics, sources)
        best = _Way(
            np.where(less[..., None], other.at, best.at),
            np.where(less, other.turns, best.turns),
            np.where(less[:, None], other.longer, best.longer),
        )
    return best


def _door_way(way: Opening, mics: Floats, sources: Floats) -> _Way:
    """Through a doorway: straight where that goes through it, else over the edge of the least way.

    The floor sends on what comes to it on both sides of the door, so that to its image the doorway
    reaches as far below the floor.
    """
    a, u = way.across, way.along
    m, s = mics[:, None], sources[None]
    before, past = (np.abs(p[..., a] - way.wall_m) for p in (s, m))
    share = before / np.maximum(before + past, 1e-12)
    cross = s + share[..., None] * (m - s)
    straight = _size(m - s)
    low, high, top = way.low_m, way.high_m, way.top_m
    across_it, up_it = cross[..., u], cross[..., 2]
    edges: list[_Edge] = [
        (u, low, 2, (-top, top)),
        (u, high, 2, (-top, top)),
        (2, top, u, (low, high)),
        (2, -top, u, (low, high)),
    ]
    outside = (across_it < low, across_it > high, up_it > top, up_it < -top)
    spots, lengths = zip(*(_over(e, a, way.wall_m, m, s) for e in edges), strict=True)
    longer = [
        np.where(o, n - straight, straight - n) for o, n in zip(outside, lengths, strict=True)
    ]
    least = np.argmin(np.array(lengths), axis=0)
    bent = np.take_along_axis(np.array(spots), least[None, ..., None], axis=0)[0]
    turns = np.asarray(np.any(outside, axis=0))
    every = np.full((len(mics), EDGES, len(sources)), -FAR)
    every[:, : len(edges)] = np.moveaxis(np.array(longer), 0, 1)
    return _Way(np.where(turns[..., None], bent, cross), turns, every)


def _up_to(v: Floats) -> Complexes:
    """Fresnel's integrals C + iS from an edge out into the light; `v` above nothing in shadow."""
    from scipy.special import fresnel  # the rest of the core does without all of that

    sine, cosine = fresnel(v)
    return np.asarray((0.5 - cosine) + 1j * (0.5 - sine))


_Edge = tuple[int, float, int, tuple[float, float]]
"""The coordinate an edge lies at, where, the one it runs along, and from where to where."""


def _over(edge: _Edge, across: int, wall: float, m: Floats, s: Floats) -> tuple[Floats, Floats]:
    """Where the shortest way over a straight edge meets it, and how long it is: straight, once the
    two half-planes are unfolded."""
    lies, where, runs, (low, high) = edge
    near, far = (np.hypot(p[..., lies] - where, p[..., across] - wall) for p in (s, m))
    share = near / np.maximum(near + far, 1e-12)
    along = np.clip(s[..., runs] + share * (m[..., runs] - s[..., runs]), low, high)
    spot = np.zeros((*along.shape, 3))
    spot[..., lies], spot[..., across], spot[..., runs] = where, wall, along
    length = np.hypot(near, s[..., runs] - along) + np.hypot(far, m[..., runs] - along)
    return spot, length


def _corner_way(corner: InnerCorner, mics: Floats, sources: Floats) -> _Way:
    """Round the inner corner of an L, whose edge goes from floor to ceiling and on in the images of
    both."""
    m, s = corner.off(mics)[:, None], corner.off(sources)[None]
    crosses, at = past_corner(s, m)
    near, far = (np.hypot(p[..., 0], p[..., 1]) for p in (s, m))
    share = near / np.maximum(near + far, 1e-12)
    up = mics[:, None, 2] - sources[None, :, 2]
    longer = np.hypot(near + far, up) - _size(mics[:, None] - sources[None])
    turns = np.asarray(crosses & (at > 0))
    spot = np.zeros((*turns.shape, 3))
    spot[..., :2], spot[..., 2] = corner.at, sources[:, 2] + share * up
    every = np.full((len(mics), EDGES, len(sources)), -FAR)
    every[:, CORNER] = np.where(turns, longer, np.where(crosses, -longer, -FAR))
    return _Way(np.where(turns[..., None], spot, mics[:, None]), turns, every)
