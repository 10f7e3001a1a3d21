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

from dataclasses import dataclass, replace

import numpy as np

from ringside.arrays import Complexes, Floats, Ints, Mask
from ringside.hear.byair import Doubt, Heard, Sent, by_air
from ringside.hear.mix import SILENT_DB, Voice
from ringside.hear.nearfield import low_cut
from ringside.hear.rays import Rays
from ringside.hear.scene import Scene
from ringside.hear.screens import Screens
from ringside.plan.thresholds import Thresholds


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
    d, sent, first, level, screens = by_air(scene, limits)
    time = first.path / scene.speed + scene.track_delay[:, None]
    rays, added = _rays(scene, sent, d, level, first.way)
    gained, turned = _in_the_mix(level + added + scene.sources.peak_db, scene)
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
