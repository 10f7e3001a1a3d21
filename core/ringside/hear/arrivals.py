"""What reaches each capsule from each drum: how far by tape, when by air, how loud, which way.

Tape distance is the straight line people measure. Arrival follows the acoustic path: the
struck face if the mic is on its side or inside the shell; from behind, the first of the
far face (with the travel from head to head, shell depth over c) and the way round the rim;
beside the shell, the way over the rim. A cymbal is heard from its struck edge.

A surface beside the capsule adds its image (:mod:`ringside.hear.mirrors`): to the level, and to the
sum of a pair as a ray of its own. Where the surface sends far more than the drum does straight
(a mic that faces a wall), its ray is the arrival.

Sign is the first half-wave: a mic on the struck side is first pulled (-1), on the other
side first pushed (+1), times the lobe of the pattern and every switch to the track. It is
0, unsure, near the plane of a head, beside a shell, in a pattern's null, and where a
reflection may lead (common practice; pin 2 positive for positive pressure is IEC 61938).
"""

from dataclasses import dataclass
from enum import IntEnum
from functools import cached_property
from typing import Final

import numpy as np

from ringside.arrays import Floats, Ints, Mask
from ringside.constants import NEAREST_M, NULL_FLOOR, SHELL_LOSS_DB
from ringside.hear.scene import Scene, Sources
from ringside.hear.sums import likeness
from ringside.plan.drumframe import off_head
from ringside.plan.mics import directivity
from ringside.plan.thresholds import Thresholds

SURFACE_LEADS_DB: Final = 6.0
"""A near surface that sends this much more than the drum does straight is what the mic hears
first (from memory); below it the straight sound is still the first half-wave."""


class Doubt(IntEnum):
    """Why a sign is unsure."""

    NONE = 0
    HEAD_PLANE = 1
    NULL = 2
    REFLECTION = 3


@dataclass(frozen=True, kw_only=True)
class Rays:
    """Everything that counts as a mic's own sound: R rays, the M straight ones first.

    Weights are signed, with the lead's sign taken as plus, and for each mic and drum scaled
    so that the rays together have an energy of one over the body band.
    """

    mic: Ints  # (R,)
    time_s: Floats  # (R, S)
    weight: Floats  # (R, S)
    several: Mask  # (M,) mics with more than their straight ray

    @cached_property
    def by_mic(self) -> tuple[Ints, Ints, Ints]:
        """Rays in the order of the mics (R,), and where each mic's begin and how many (M,)."""
        count = np.bincount(self.mic, minlength=len(self.several))
        start = np.concatenate([[0], np.cumsum(count)[:-1]])
        return np.argsort(self.mic, kind="stable"), start.astype(np.int64), count

    def of(self, mic: int) -> Ints:
        """Rows of the rays of a mic.

        Parameters
        ----------
        mic : int
            By number.

        Returns
        -------
        ndarray of int, shape (R,)
        """
        return np.flatnonzero(self.mic == mic)


@dataclass(frozen=True, kw_only=True)
class Arrivals:
    """Mics by sources, (M, S)."""

    tape_m: Floats
    path_m: Floats
    time_s: Floats  # at the track: with any delay put on it
    level_db: Floats  # relative to 1 m on axis, near surfaces counted, before any gain
    after_gain_db: Floats  # relative to the mic's own job at its peak
    sign: Ints  # +1 pushed, -1 pulled, 0 unsure
    raw_sign: Ints  # the side of the head times lobe and switches, with no doubt counted
    doubt: Ints  # of Doubt
    face_side: Ints  # -1 struck side, +1 other side or inside
    axis_angle_rad: Floats  # angle off the plane through the middle of the shell, + struck side
    null: np.ndarray  # bool: in the null of the pattern
    toward: Floats  # (M, S, 3) metres, from the capsule the way the sound comes from
    by_surface: Mask  # the arrival is what a near surface sends
    surface_db: Floats  # what near surfaces add over the body band
    rays: Rays


@dataclass(frozen=True, kw_only=True)
class Heard:
    """Capsules against sources by the straight way only, (N, S)."""

    tape: Floats
    path: Floats
    level: Floats
    strength: Floats
    side: Ints
    lobe: Ints
    angle: Floats
    axis_angle: Floats
    inside: Mask
    toward: Floats


def _rows(v: Floats) -> Floats:
    """Lengths of the last axis."""
    return np.asarray(np.sqrt(np.einsum("...i,...i->...", v, v)))


def _heard(s: Sources, capsule: Floats, aim: Floats, pressure_share: Floats) -> Heard:
    mic = capsule[:, None, :]
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
    cos_theta = np.einsum("msi,mi->ms", toward, aim) / np.maximum(_rows(toward), 1e-12)
    response = directivity(pressure_share[:, None], cos_theta)
    strength = np.abs(response)
    # The face that is heard radiates; the travel inside the shell delays it, no more.
    radiated = np.where(use_far, path - s.depth, path)
    level = 20 * np.log10(np.maximum(strength, NULL_FLOOR) / np.maximum(radiated, NEAREST_M))
    return Heard(
        tape=_rows(mic - s.tape),
        path=path,
        level=level,
        strength=strength,
        side=np.where(height >= 0, -1, 1),
        lobe=np.where(response < 0, -1, 1),
        angle=_head_angle(height, behind, radial - s.radius),
        axis_angle=np.arctan2(height + s.depth / 2, radial),
        inside=inside,
        toward=toward,
    )


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
    d = _heard(s, scene.capsule, scene.aim, scene.pressure_share)
    shut_in = np.asarray(d.inside.any(axis=1))[:, None]
    level = d.level - SHELL_LOSS_DB * (shut_in & ~d.inside)
    raw = d.side * d.lobe * scene.switch_sign[:, None]
    in_null = d.strength < 10 ** (-limits.null_db / 20)
    near_plane = ~d.inside & (np.abs(d.angle) < np.deg2rad(limits.head_plane_deg))
    doubt = np.where(in_null, Doubt.NULL, np.where(near_plane, Doubt.HEAD_PLANE, Doubt.NONE))
    sent = _sent(scene, shut_in[:, 0])
    path, by_surface = d.path, np.zeros(level.shape, dtype=bool)
    if sent is not None:
        far = ~sent.near
        loudest = np.full(level.shape, -np.inf)
        np.maximum.at(loudest, sent.mic[far], sent.level[far])
        may_lead = scene.open[:, None] & (loudest >= level + limits.reflection_db)
        doubt = np.where(may_lead & (doubt == Doubt.NONE), Doubt.REFLECTION, doubt)
        path, raw, doubt, by_surface = _led(scene, sent, level, path, raw, doubt)
    time = path / scene.speed + scene.track_delay[:, None]
    rays, added = _rays(scene, sent, d.path, level, raw, d.side * d.lobe)
    return Arrivals(
        tape_m=d.tape,
        path_m=path,
        time_s=time,
        level_db=level + added,
        after_gain_db=_after_gain(level + added + s.peak_db, scene.job),
        sign=np.where(doubt > 0, 0, raw),
        raw_sign=raw,
        doubt=doubt,
        face_side=d.side,
        axis_angle_rad=d.axis_angle,
        null=in_null & ~by_surface,
        toward=d.toward,
        by_surface=by_surface,
        surface_db=added,
        rays=rays,
    )


@dataclass(frozen=True, kw_only=True)
class Sent:
    """What surfaces send to the mics: G images, (G, S) unless said."""

    mic: Ints  # (G,)
    near: Mask  # (G,)
    path: Floats
    level: Floats
    way: Ints  # side of the head times lobe


def _sent(scene: Scene, shut_in: Mask) -> Sent | None:
    """The images that can matter: of near surfaces, and of all for mics that stand open."""
    img = scene.images
    rows = np.flatnonzero((img.near | scene.open[img.mic]) & ~shut_in[img.mic])
    if len(rows) == 0:
        return None
    mic = img.mic[rows]
    h = _heard(scene.sources, img.capsule[rows], img.aim[rows], scene.pressure_share[mic])
    return Sent(
        mic=mic,
        near=img.near[rows],
        path=h.path,
        level=h.level + 20 * np.log10(np.maximum(img.factor[rows], 1e-3)),
        way=h.side * h.lobe,
    )


def _led(
    scene: Scene, sent: Sent, level: Floats, path: Floats, raw: Ints, doubt: Ints
) -> tuple[Floats, Ints, Ints, Mask]:
    """Path, sign and doubt where a near surface sends far more than comes straight."""
    path, raw, doubt = path.copy(), raw.copy(), doubt.copy()
    by_surface = np.zeros(level.shape, dtype=bool)
    lead = level + SURFACE_LEADS_DB
    for g in np.flatnonzero(sent.near):
        m = sent.mic[g]
        won = sent.level[g] > lead[m]
        path[m] = np.where(won, sent.path[g], path[m])
        raw[m] = np.where(won, sent.way[g] * scene.switch_sign[m], raw[m])
        doubt[m] = np.where(won & (doubt[m] != Doubt.HEAD_PLANE), Doubt.NONE, doubt[m])
        lead[m] = np.where(won, sent.level[g], lead[m])
        by_surface[m] |= won
    return path, raw, doubt, by_surface


def _rays(
    scene: Scene, sent: Sent | None, path: Floats, level: Floats, raw: Ints, way: Ints
) -> tuple[Rays, Floats]:
    """The rays of every mic, and what near surfaces add to its level over the body band."""
    count = len(level)
    late = scene.track_delay[:, None]
    mics = np.arange(count, dtype=np.int64)
    time, sign = path / scene.speed + late, way * scene.switch_sign[:, None] * raw
    added, several = np.zeros(level.shape), np.zeros(count, dtype=bool)
    weight = sign.astype(float)
    near = sent.near if sent is not None else np.zeros(0, dtype=bool)
    if sent is None or not near.any():
        return Rays(mic=mics, time_s=time, weight=weight, several=several), added
    m = sent.mic[near]
    time = np.vstack([time, sent.path[near] / scene.speed + late[m]])
    ratio = 10 ** ((sent.level[near] - level[m]) / 20)
    weight = np.vstack([weight, ratio * sent.way[near] * scene.switch_sign[m][:, None] * raw[m]])
    mics = np.concatenate([mics, m])
    several[m] = True
    low, high = scene.sources.body_low, scene.sources.body_high
    for one in np.flatnonzero(several):
        rows = np.flatnonzero(mics == one)
        w, t = weight[rows], time[rows]
        like = likeness(t[:, None] - t[None], low, high)
        energy = np.maximum(np.einsum("ps,qs,pqs->s", w, w, like), 1e-8)
        added[one] = 10 * np.log10(energy)
        weight[rows] = w / np.sqrt(energy)
    return Rays(mic=mics, time_s=time, weight=weight, several=several), added


def _head_angle(height: Floats, behind: Floats, out: Floats) -> Floats:
    """Angle off the plane of the nearer head, seen from its rim; 0 beside the shell."""
    beyond = np.maximum(out, 0.0)
    above = np.arctan2(np.maximum(height, 0.0), beyond)
    below = np.arctan2(np.maximum(behind, 0.0), beyond)
    return np.asarray(np.where(height >= 0, above, -below))


def _after_gain(heard_db: Floats, job: Ints) -> Floats:
    """Levels once each mic's gain brings its own job to one peak; the kit's is its loudest."""
    if heard_db.size == 0:
        return heard_db
    rows = np.arange(len(job))
    own = np.where(job >= 0, heard_db[rows, np.maximum(job, 0)], heard_db.max(axis=1))
    return np.asarray(heard_db - own[:, None])
