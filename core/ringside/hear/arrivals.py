"""What reaches each capsule from each drum: how far by tape, when by air, how loud, which way.

Tape distance is the straight line people measure. Arrival follows the acoustic path: the
struck face if the mic is on its side or inside the shell; from behind, the first of the
far face (with the travel from head to head, shell depth over c) and the way round the rim;
beside the shell, the way over the rim. A cymbal is heard from its struck edge.

A surface beside the capsule adds its image (:mod:`ringside.hear.mirrors`): to the level, and to the
sum of a pair as a ray of its own. Where the surface sends far more than the drum does straight
(a mic that faces a wall), its ray is the arrival.

Gobos take from what passes them, and the way round is longer (:mod:`ringside.hear.barriers`). To a
mic next door the way is by the door, in an L round its corner (:mod:`ringside.hear.bends`).

After gain the levels are those in the current balance (:mod:`ringside.hear.mix`): each job at one
peak, then the faders. What a split mic feeds adds with its signs, for it is of one capsule; a
compressed channel raises what is quiet in it.

Level and body count the low end as it is beside a drum (:mod:`ringside.hear.nearfield`): the
gradient share of a pattern grows and its phase lags, and a low cut works against it.

Sign is the first half-wave: a mic on the struck side is first pulled (-1), on the other
side first pushed (+1), times the lobe of the pattern and every switch to the track. It is
0, unsure, near the plane of a head, beside a shell, in a pattern's null, and where a
reflection of opposite sign comes within the first half-wave, not far under what leads (common
practice; pin 2 positive for positive pressure is IEC 61938). All doubts are kept side by side.
"""

from dataclasses import dataclass, fields, replace
from enum import IntFlag
from typing import Final, NamedTuple

import numpy as np

from ringside.arrays import Complexes, Floats, Ints, Mask, dot
from ringside.constants import NEAREST_M, NULL_FLOOR, SHELL_LOSS_DB
from ringside.hear.bends import Bends, bends
from ringside.hear.mix import SILENT_DB, Voice
from ringside.hear.nearfield import curvature_m, low_cut, near_response
from ringside.hear.rays import Rays
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


class Doubt(IntFlag):
    """Why a sign is unsure; several may hold at once."""

    NONE = 0
    HEAD_PLANE = 1
    NULL = 2
    REFLECTION = 4


@dataclass(frozen=True, kw_only=True)
class Arrivals:
    """Mics by sources, (M, S)."""

    tape_m: Floats
    path_m: Floats
    radiated_m: Floats  # from the face that is heard, by the straight way, nothing screened
    time_s: Floats  # at the track: with any delay put on it
    level_db: Floats  # relative to 1 m on axis, near surfaces counted, before any gain
    after_gain_db: Floats  # relative to the mic's own job at its peak, and by its faders
    sign: Ints  # +1 pushed, -1 pulled, 0 unsure
    raw_sign: Ints  # the side of the head times lobe and switches, with no doubt counted
    doubt: Ints  # flags of Doubt
    face_side: Ints  # -1 struck side, +1 other side or inside
    inside: Mask  # within the shell
    axis_angle_rad: Floats  # angle off the plane through the middle of the shell, + struck side
    null: np.ndarray  # bool: in the null of the pattern
    toward: Floats  # (M, S, 3) metres, from the capsule the way the sound comes from
    by_surface: Mask  # the arrival is what a near surface sends
    turner: Floats  # (2, M, S) the reflection that may turn it over: seconds after it, decibels
    near_db: Floats  # what nearness and a low cut make of the low end, against the attack
    surface_db: Floats  # what near surfaces add over the body band
    screens: Screens | None  # gobos and walls in the way; what they take at the body is in levels
    rays: Rays


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


def arrivals(scene: Scene, limits: Thresholds) -> Arrivals:
    """Every mic against every source.

    Parameters
    ----------
    scene : Scene
        M mics and S sources, metres.
    limits : Thresholds
        Angles and decibels where the sign becomes unsure.

    Returns
    -------
    Arrivals
        Arrays of shape (M, S): metres, seconds, decibels, signs.
    """
    s = scene.sources
    d, sent, ways = _straight_and_sent(scene, limits)
    shut_in = d.shut_in[:, None]
    level = d.level - SHELL_LOSS_DB * (shut_in & ~d.inside)
    way, path = d.side * d.lobe, d.path
    screens = screens_of(scene.room, scene.capsule, d.toward, ways)
    if screens is not None and (gobos := screens.gobos) is not None:
        loss, detour = gobos.loss_db(s.fundamental_hz, scene.speed), gobos.detour_m()
        level, path = level - loss, path + detour
        d = replace(d, path=path)
        sent = _screened(sent, loss, detour) if sent is not None else None
    first = _First(path, level, way, d.doubt, np.zeros(level.shape, dtype=bool),
                   np.zeros((2, *level.shape)))  # fmt: skip
    if sent is not None:
        first = _led(sent, first)
        first = _opposed(scene, sent, first, limits)
    time = first.path / scene.speed + scene.track_delay[:, None]
    rays, added = _rays(scene, sent, d, level, first.way)
    gained, turned = _in_the_mix(level + added + s.peak_db, scene)
    raw = first.way * scene.switch_sign[:, None]
    if turned is not None:
        over = np.where(turned.real < 0, -1, 1)
        raw = raw * over
        rays = replace(rays, turn=rays.turn + np.angle(turned * over)[rays.mic])
    return Arrivals(
        tape_m=d.tape,
        path_m=first.path,
        radiated_m=d.radiated,
        time_s=time,
        level_db=level + added,
        after_gain_db=gained,
        sign=np.where(first.doubt > 0, 0, raw),
        raw_sign=raw,
        doubt=first.doubt,
        face_side=d.side,
        inside=d.inside,
        axis_angle_rad=d.axis_angle,
        null=(first.doubt & int(Doubt.NULL)) > 0,
        toward=d.toward,
        by_surface=first.by_surface,
        turner=first.turner,
        near_db=d.near_db,
        surface_db=added,
        screens=screens,
        rays=rays,
    )


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


class _First(NamedTuple):
    """What each mic hears first of each source, (M, S)."""

    path: Floats
    level: Floats
    way: Ints
    doubt: Ints
    by_surface: Mask
    turner: Floats  # (2, M, S) of the strongest reflection that may turn it: seconds later, dB


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


def _led(sent: Sent, first: _First) -> _First:
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
    return _First(path, level, way, doubt, led, first.turner)


def _opposed(scene: Scene, sent: Sent, first: _First, limits: Thresholds) -> _First:
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


def _rays(
    scene: Scene, sent: Sent | None, straight: Heard, level: Floats, led: Ints
) -> tuple[Rays, Floats]:
    """The rays of every mic, and what near surfaces add to its level over the body band.

    `led` is the side of the head times lobe of what each mic hears first.
    """
    count = len(level)
    late = scene.track_delay[:, None]
    mics = np.arange(count, dtype=np.int64)
    time, turn = straight.path / scene.speed + late, straight.turn
    weight = (straight.side * straight.lobe * led).astype(float)
    added, several = np.zeros(level.shape), np.zeros(count, dtype=bool)
    if sent is None or not (near := np.flatnonzero(sent.share)).size:
        return Rays(mic=mics, time_s=time, weight=weight, turn=turn, several=several), added
    m = sent.mic[near]
    time = np.concatenate([time, sent.path[near] / scene.speed + late[m]])
    ratio = 10 ** ((sent.level[near] - level[m]) / 20) * sent.share[near, None]
    weight = np.concatenate([weight, ratio * sent.way[near] * led[m]])
    turn = np.concatenate([turn, sent.turn[near]])
    mics = np.concatenate([mics, m])
    several[m] = True
    rays = Rays(mic=mics, time_s=time, weight=weight, turn=turn, several=several)
    energy = rays.energy(scene.sources.body_low, scene.sources.body_high)
    weight /= np.sqrt(energy)[mics]  # those of the rays that were asked
    return rays, 10 * np.log10(energy)


def _head_angle(height: Floats, behind: Floats, out: Floats) -> Floats:
    """Angle off the plane of the nearer head, seen from its rim; 0 beside the shell."""
    beyond = np.maximum(out, 0.0)
    above = np.arctan2(np.maximum(height, 0.0), beyond)
    below = np.arctan2(np.maximum(behind, 0.0), beyond)
    return np.asarray(np.where(height >= 0, above, -below))


def _in_the_mix(heard_db: Floats, scene: Scene) -> tuple[Floats, Complexes | None]:
    """Levels once each gain brings its mic's own job to one peak (the kit's is its loudest), by
    the faders; and the sums of what is split or compressed, against its first channel."""
    if heard_db.size == 0:
        return heard_db, None
    job, rows = scene.job, np.arange(len(scene.job))
    own = np.where(job >= 0, heard_db[rows, np.maximum(job, 0)], heard_db.max(axis=1))
    under = heard_db - own[:, None]
    level = under + scene.fader_db[:, None]
    if not any(scene.voices):
        return np.asarray(level), None
    turned = np.ones(level.shape, dtype=complex)
    f = scene.sources.fundamental_hz
    for mic, voices in enumerate(scene.voices):
        if voices:
            summed = sum(_voice(v, under[mic], f) for v in voices)
            turned[mic] = summed / _passed(f, scene.low_cut_hz[mic])
            level[mic] = 20 * np.log10(np.maximum(np.abs(turned[mic]), 10 ** (SILENT_DB / 20)))
    return np.asarray(level), turned


def _voice(voice: Voice, under_db: Floats, f: Floats) -> Complexes:
    """What a channel gives of each source, its low cut and all, (S,)."""
    level = voice.crush.after(under_db) if voice.crush else under_db
    size = voice.sign * 10 ** ((level + voice.db) / 20)
    return np.asarray(size * _passed(f, voice.low_cut_hz))


def _passed(f: Floats, corner_hz: float) -> Complexes | float:
    return low_cut(f, corner_hz) if corner_hz else 1.0
