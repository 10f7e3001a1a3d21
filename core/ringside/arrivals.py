"""What reaches each capsule from each drum: how far by tape, when by air, how loud, which way.

Tape distance is the straight line people measure. Arrival follows the acoustic path: the
struck face if the mic is on its side or inside the shell; from behind, the first of the
far face (with the travel from head to head, shell depth over c) and the way round the rim;
beside the shell, the way over the rim. A cymbal is heard from its struck edge.

Sign is the first half-wave: a mic on the struck side is first pulled (-1), on the other
side first pushed (+1), times the lobe of the pattern and every switch to the track. It is
0, unsure, near the plane of a head, beside a shell, and in a pattern's null (common
practice; pin 2 positive for positive pressure is IEC 61938).
"""

from dataclasses import dataclass

import numpy as np

from ringside.constants import NEAREST_M, NULL_FLOOR, SHELL_LOSS_DB
from ringside.mics import directivity
from ringside.scene import Floats, Ints, Scene
from ringside.thresholds import Thresholds


@dataclass(frozen=True, kw_only=True)
class Arrivals:
    """Mics by sources, (M, S)."""

    tape_m: Floats
    path_m: Floats
    time_s: Floats
    level_db: Floats  # relative to 1 m on axis, before any gain
    after_gain_db: Floats  # relative to the mic's own job at its peak
    sign: Ints  # +1 pushed, -1 pulled, 0 unsure
    raw_sign: Ints  # the side of the head times lobe and switches, with no doubt counted
    face_side: Ints  # -1 struck side, +1 other side or inside
    axis_angle_rad: Floats  # angle off the plane through the middle of the shell, + struck side
    null: np.ndarray  # bool: in the null of the pattern
    toward: Floats  # (M, S, 3) metres, from the capsule the way the sound comes from


def _rows(v: Floats) -> Floats:
    """Lengths of the last axis."""
    return np.asarray(np.sqrt(np.einsum("...i,...i->...", v, v)))


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
    mic = scene.capsule[:, None, :]
    tape = _rows(mic - s.tape)

    from_centre = mic - s.centre
    height = np.einsum("msi,si->ms", from_centre, s.axis)
    in_plane = from_centre - height[..., None] * s.axis
    radial = _rows(in_plane)
    behind = -height - s.depth  # above zero: past the far face
    inside = (height < 0) & (behind < 0) & (radial < s.radius)

    to_strike = s.strike - mic
    straight = _rows(to_strike)
    round_rim = s.radius + np.hypot(radial - s.radius, height)
    rear = s.centre - s.depth[:, None] * s.axis
    to_rear = rear - mic
    through = s.depth + _rows(to_rear)

    seen = (height >= 0) | inside | (s.depth == 0)
    use_far = ~seen & (behind >= 0) & (through < round_rim)
    path = np.where(seen, straight, np.where(use_far, through, round_rim))

    outward = in_plane / np.maximum(radial, 1e-12)[..., None]
    to_rim = s.centre + outward * s.radius[:, None] - mic
    toward = np.where(seen[..., None], to_strike, np.where(use_far[..., None], to_rear, to_rim))
    cos_theta = np.einsum("msi,mi->ms", toward, scene.aim) / np.maximum(_rows(toward), 1e-12)
    response = directivity(scene.pressure_share[:, None], cos_theta)
    strength = np.maximum(np.abs(response), NULL_FLOOR)
    # The face that is heard radiates; the travel inside the shell delays it, no more.
    radiated = np.where(use_far, path - s.depth, path)
    level = 20 * np.log10(strength / np.maximum(radiated, NEAREST_M))
    level = level - SHELL_LOSS_DB * (inside.any(axis=1)[:, None] & ~inside)

    side = np.where(height >= 0, -1, 1)
    lobe = np.where(response < 0, -1, 1)
    angle = _head_angle(height, behind, radial - s.radius)
    in_null = np.abs(response) < 10 ** (-limits.null_db / 20)
    doubtful = (~inside & (np.abs(angle) < np.deg2rad(limits.head_plane_deg))) | in_null
    raw = side * lobe * scene.switch_sign[:, None]
    return Arrivals(
        tape_m=tape,
        path_m=path,
        time_s=path / scene.speed,
        level_db=level,
        after_gain_db=_after_gain(level + s.peak_db, scene.job),
        sign=np.where(doubtful, 0, raw),
        raw_sign=raw,
        face_side=side,
        axis_angle_rad=np.arctan2(height + s.depth / 2, radial),
        null=in_null,
        toward=toward,
    )


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
