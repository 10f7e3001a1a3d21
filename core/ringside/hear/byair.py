"""What reaches each capsule by the air, from each drum, before any switch, delay or fader.

The arrival, the image of a surface beside the capsule, what leads of the two, and every doubt of
the first half-wave's sign (:mod:`ringside.hear.arrivals` says how each is taken).
"""

from dataclasses import dataclass, fields, replace
from enum import IntFlag
from functools import lru_cache
from typing import Final, NamedTuple

import numpy as np

from ringside.arrays import Complexes, Floats, Ints, Mask, dot
from ringside.constants import NEAREST_M, NULL_FLOOR, SHELL_LOSS_DB
from ringside.hear.bends import Bends, bends
from ringside.hear.nearfield import curvature_m, low_cut, near_response
from ringside.hear.scene import Scene
from ringside.hear.screens import Screens, screens_of
from ringside.plan.drumframe import off_head
from ringside.plan.mics import directivity
from ringside.plan.thresholds import Thresholds

SURFACE_LEADS_DB: Final = 6.0
"""A near surface that sends this much more than the drum does straight is what the mic hears
first (from memory); below it the straight sound is still the first half-wave."""

OPPOSED_DB: Final = 6.0
"""A reflection of opposite sign this much under what leads takes half of its first half-wave
away: which way the sum goes first can no longer be planned (two waves of one shape; half of the
amplitude is 6 dB)."""

SAME_RAY_S: Final = 1e-7
"""Two arrivals nearer than this are one: what leads is not set against itself."""

NOTHING: Final = 1e-30
"""A share as good as none, of which the logarithm can be taken."""

FEW: Final = 64
"""Mics of a layout; what is asked of more is a field of spots, large and asked once."""


class Doubt(IntFlag):
    """Why a sign is unsure; several may hold at once."""

    NONE = 0
    HEAD_PLANE = 1
    NULL = 2
    REFLECTION = 4


@dataclass(frozen=True, kw_only=True)
class Heard:
    """Capsules against sources by the straight way only, (N, S)."""

    tape: Floats
    path: Floats
    radiated: Floats
    level: Floats
    doubt: Ints  # HEAD_PLANE and NULL
    near_db: Floats  # what nearness and a low cut make of the low end
    turn: Floats  # how far the low end is ahead of the travel time, radians
    side: Ints
    lobe: Ints
    axis_angle: Floats
    inside: Mask
    toward: Floats

    @property
    def shut_in(self) -> Mask:
        """Capsules within a shell, (N,)."""
        return np.asarray(self.inside.any(axis=1))

    def first(self, count: int) -> "Heard":
        """Of the first so many capsules alone.

        Parameters
        ----------
        count : int

        Returns
        -------
        Heard
        """
        return Heard(**{f.name: getattr(self, f.name)[:count] for f in fields(self)})


@dataclass(frozen=True, kw_only=True)
class Sent:
    """What surfaces send to the mics: G images, (G, S) unless said."""

    mic: Ints  # (G,)
    share: Floats  # (G,) how much of it is part of the mic's own sound, 0 to 1
    path: Floats
    level: Floats
    way: Ints  # side of the head times lobe
    doubt: Ints  # of the image itself
    turn: Floats


class First(NamedTuple):
    """What each mic hears first of each source, (M, S)."""

    path: Floats
    level: Floats
    way: Ints
    doubt: Ints
    by_surface: Mask
    turner: Floats  # (2, M, S) of the strongest reflection that may turn it: seconds later, dB


class ByAir(NamedTuple):
    """What reaches the capsules, before any switch, delay or fader."""

    straight: Heard
    sent: Sent | None
    first: First
    level: Floats  # (M, S) what comes straight, less what stands in the way
    screens: Screens | None


def by_air(scene: Scene, limits: Thresholds) -> ByAir:
    """What reaches the capsules; kept for the last few layouts.

    A flip, a delay or a fader leaves it as it was, and of those many are tried one after another.

    Parameters
    ----------
    scene : Scene
    limits : Thresholds

    Returns
    -------
    ByAir
        Others are given the same: the arrays of what is heard cannot be written to.
    """
    asked = _Asked(scene, limits)
    return _kept(asked) if len(scene.capsule) <= FEW else _by_air(asked)


class _Asked:
    """A scene by what of it counts in the air."""

    def __init__(self, scene: Scene, limits: Thresholds) -> None:
        self.scene, self.limits = scene, limits
        by_mic = (scene.capsule, scene.aim, scene.pressure_share, scene.open, scene.low_cut_hz)
        # In the order they lie in, too: the last digit of a sum hangs on that.
        self.bytes = [(v.tobytes(), v.strides) for v in by_mic]
        self.numbers = (scene.speed, scene.near_m)

    def __hash__(self) -> int:
        return hash((self.bytes[0], self.numbers))

    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, _Asked)
            and self.bytes == other.bytes
            and self.numbers == other.numbers
            and self.scene.sources is other.scene.sources
            and (self.scene.room is other.scene.room or self.scene.room == other.scene.room)
            and self.limits == other.limits
        )


def _by_air(asked: _Asked) -> ByAir:
    scene, limits = asked.scene, asked.limits
    d, sent, ways = _straight_and_sent(scene, limits)
    level = d.level - SHELL_LOSS_DB * (d.shut_in[:, None] & ~d.inside)
    way, path = d.side * d.lobe, d.path
    screens = screens_of(scene.room, scene.capsule, d.toward, ways)
    if screens is not None and (gobos := screens.gobos) is not None:
        loss = gobos.loss_db(scene.sources.fundamental_hz, scene.speed)
        detour = gobos.detour_m()
        level, path = level - loss, path + detour
        d = replace(d, path=path)
        sent = _screened(sent, loss, detour) if sent is not None else None
    first = First(path, level, way, d.doubt, np.zeros(level.shape, dtype=bool),
                   np.zeros((2, *level.shape)))  # fmt: skip
    if sent is not None:
        first = _led(sent, first)
        first = _opposed(scene, sent, first, limits)
    for arrays in (vars(d), vars(sent) if sent is not None else {}, first._asdict()):
        for v in arrays.values():
            v.flags.writeable = False
    level.flags.writeable = False
    return ByAir(d, sent, first, level, screens)


_kept = lru_cache(maxsize=8)(_by_air)


def _rows(v: Floats) -> Floats:
    """Lengths of the last axis."""
    return np.asarray(np.sqrt(dot(v, v)))


def _heard(
    scene: Scene, limits: Thresholds, mics: Ints, capsule: Floats, aim: Floats, ways: Bends | None
) -> Heard:
    s, share = scene.sources, scene.pressure_share[mics][:, None]
    here = capsule[:, None, :]
    mic = here if ways is None else ways.straightened(capsule)
    at = off_head(mic, s.centre, s.axis, s.radius, s.depth)
    height, behind, radial, inside = at.height, at.behind, at.radial, at.inside

    to_strike = s.strike - mic
    straight = _rows(to_strike)
    round_rim = s.radius + np.hypot(radial - s.radius, height)
    rear = s.centre - s.depth[:, None] * s.axis
    to_rear = rear - mic
    through = s.depth + _rows(to_rear)

    seen = (height >= 0) | inside | (s.depth == 0)
    use_far = ~seen & (behind >= 0) & (through < round_rim)
    path = np.where(seen, straight, np.where(use_far, through, round_rim))

    outward = at.flat / np.maximum(radial, 1e-12)[..., None]
    to_rim = s.centre + outward * s.radius[:, None] - mic
    toward = np.where(seen[..., None], to_strike, np.where(use_far[..., None], to_rear, to_rim))
    if ways is not None:
        toward = ways.turned_back(toward)
    cos_theta = dot(toward, aim[:, None]) / np.maximum(_rows(toward), 1e-12)
    response = directivity(share, cos_theta)
    # The face that is heard radiates; the travel inside the shell delays it, no more.
    radiated = np.maximum(np.where(use_far, path - s.depth, path), NEAREST_M)
    low_end = _low_end(scene, mics, share, cos_theta, radiated)
    body = np.maximum(np.abs(low_end), NULL_FLOOR)
    level = 20 * np.log10(body / radiated)
    if ways is not None:
        level = level - ways.loss_db(s.fundamental_hz, scene.speed, len(capsule))
    lobe = np.where(response < 0, -1, 1)
    angle = _head_angle(height, behind, radial - s.radius)
    near_plane = ~inside & (np.abs(angle) < np.deg2rad(limits.head_plane_deg))
    in_null = np.abs(response) < 10 ** (-limits.null_db / 20)
    return Heard(
        tape=_rows(here - s.tape),
        path=path,
        radiated=radiated,
        level=level,
        doubt=near_plane * int(Doubt.HEAD_PLANE) | in_null * int(Doubt.NULL),
        near_db=20 * np.log10(body / np.maximum(np.abs(response), NULL_FLOOR)),
        turn=np.angle(low_end * lobe),
        side=np.where(height >= 0, -1, 1),
        lobe=lobe,
        axis_angle=np.arctan2(height + s.depth / 2, radial),
        inside=inside,
        toward=toward,
    )


def _low_end(
    scene: Scene, mics: Ints, share: Floats, cos_theta: Floats, radiated: Floats
) -> Complexes:
    """The pattern's response at each source's fundamental, low cut and all."""
    s = scene.sources
    f = s.fundamental_hz
    reach = curvature_m(radiated, s.radius)
    near = near_response(share, cos_theta, f, reach, scene.speed)
    corner = scene.low_cut_hz[mics]
    return near * low_cut(f, corner[:, None]) if corner.any() else near


def _straight_and_sent(scene: Scene, limits: Thresholds) -> tuple[Heard, Sent | None, Bends | None]:
    """What comes straight to the mics, and of the images all that can matter: of near surfaces,
    and every one for mics that stand open; nothing comes so into a shell. And the ways to the mics
    that turn at the edge of a wall.

    Capsules and images are asked together: twice as many take hardly longer.
    """
    img, count = scene.images, len(scene.capsule)
    rows = np.flatnonzero((img.share > 0) | scene.open[img.mic])
    whose = np.concatenate([np.arange(count), img.mic[rows]])
    capsule = np.asfortranarray(np.concatenate([scene.capsule, img.capsule[rows]]))
    aim = np.asfortranarray(np.concatenate([scene.aim, img.aim[rows]]))
    ways = bends(scene.room, capsule, whose, scene.sources.strike)
    every = _heard(scene, limits, whose, capsule, aim, ways)
    straight = every.first(count)
    own = ways.first(count) if ways is not None else None
    comes = np.flatnonzero(~straight.shut_in[img.mic[rows]])
    if len(comes) == 0:
        return straight, None, own
    at, rows = count + comes, rows[comes]
    sent = Sent(
        mic=img.mic[rows],
        share=img.share[rows],
        path=every.path[at],
        level=every.level[at] + 20 * np.log10(np.maximum(img.factor[rows], 1e-3)),
        way=every.side[at] * every.lobe[at],
        doubt=every.doubt[at],
        turn=every.turn[at],
    )
    return straight, sent, own


def _screened(sent: Sent, loss: Floats, detour: Floats) -> Sent:
    """What a surface beside the mic sends comes round the same gobos as the straight sound."""
    near, m = (sent.share > 0)[:, None], sent.mic
    return replace(
        sent,
        level=sent.level - np.where(near, loss[m], 0.0),
        path=sent.path + np.where(near, detour[m], 0.0),
    )


def _led(sent: Sent, first: First) -> First:
    """What a near surface sends goes first where it is far more than what comes straight.

    It is then asked itself whether its sign can be known.
    """
    beat = first.level + SURFACE_LEADS_DB
    every = sent.level + 20 * np.log10(np.maximum(sent.share, NOTHING))[:, None]
    able = np.flatnonzero((every > beat[sent.mic]).any(axis=1))
    if len(able) == 0:
        return first
    path, level, way = first.path.copy(), first.level.copy(), first.way.copy()
    doubt, led = first.doubt.copy(), first.by_surface.copy()
    for g in able:
        m, loud = sent.mic[g], every[g]
        won = loud > beat[m]
        path[m] = np.where(won, sent.path[g], path[m])
        way[m] = np.where(won, sent.way[g], way[m])
        doubt[m] = np.where(won, sent.doubt[g], doubt[m])
        level[m] = np.where(won, loud, level[m])
        beat[m] = np.where(won, loud, beat[m])
        led[m] |= won
    return First(path, level, way, doubt, led, first.turner)


def _opposed(scene: Scene, sent: Sent, first: First, limits: Thresholds) -> First:
    """Doubt where a reflection may turn the first half-wave over.

    It must come before that half-wave is over, half a period of the fundamental, and not be far
    under what leads; its sign is the other one, or unsure itself.
    """
    m = sent.mic
    lag = np.abs(sent.path - first.path[m]) / scene.speed
    within = (lag > SAME_RAY_S) & (lag < 0.5 / scene.sources.fundamental_hz)
    strong = sent.level >= first.level[m] - OPPOSED_DB + limits.reflection_db
    # An image in the plane of a head says no more about it than the straight sound that is, too.
    against = (sent.way != first.way[m]) | ((sent.doubt > 0) & (first.doubt[m] == 0))
    doubt = first.doubt.copy()
    image, source = np.nonzero(within & strong & against)
    doubt[m[image], source] |= int(Doubt.REFLECTION)
    under = sent.level - first.level[m]
    # Of several the strongest is kept: what is assigned last stays.
    rank = np.argsort(under[image, source], kind="stable")
    image, source = image[rank], source[rank]
    turner = np.zeros((2, *doubt.shape))
    turner[0, m[image], source] = lag[image, source]
    turner[1, m[image], source] = under[image, source]
    return first._replace(doubt=doubt, turner=turner)


def _head_angle(height: Floats, behind: Floats, out: Floats) -> Floats:
    """Angle off the plane of the nearer head, seen from its rim; 0 beside the shell."""
    beyond = np.maximum(out, 0.0)
    above = np.arctan2(np.maximum(height, 0.0), beyond)
    below = np.arctan2(np.maximum(behind, 0.0), beyond)
    return np.asarray(np.where(height >= 0, above, -below))
