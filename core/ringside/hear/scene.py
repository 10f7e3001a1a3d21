"""A layout as arrays, so that everything after it is one numpy expression over all mics.

Shapes: M mics, S sources. Vectors are rows of three metres. A cymbal is a source of no
depth, so its top and underside are the two faces of one plane.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats, Ints, Mask
from ringside.hear.bands import TUNING_SPREAD, VOICES, Bands, bands, tuning_from
from ringside.hear.mirrors import Images, images_of
from ringside.hear.mix import Voice, mixed
from ringside.plan.kit import Cymbal, Drum, Kit, centre_of, depth_of, reference_point
from ringside.plan.layout import Layout
from ringside.plan.mics import PRESSURE_SHARE, Mic
from ringside.plan.room import Room


@dataclass(frozen=True, kw_only=True)
class Sources:
    """The S sources of a kit."""

    ids: tuple[str, ...]
    names: tuple[str, ...]
    bands: tuple[Bands, ...]
    fundamentals: tuple[float, ...]  # Hz
    tuning: Floats  # (S,) one standard deviation of each fundamental, as a share of it
    body_low: Floats  # (S,) Hz
    body_high: Floats  # (S,) Hz
    punch_high: Floats  # (S,) Hz
    attack_high: Floats  # (S,) Hz
    centre: Floats  # (S, 3) centre of the struck face
    strike: Floats  # (S, 3) where the sound starts
    tape: Floats  # (S, 3) where the tape is held
    axis: Floats  # (S, 3) unit normal of the struck face
    radius: Floats  # (S,)
    depth: Floats  # (S,) 0 for cymbals
    drum: Mask  # (S,) has heads, and so a body to lose
    reference: Mask  # (S,) the snare and the kick that distances are kept to
    peak_db: Floats  # (S,) peak at 1 m, only differences matter

    @cached_property
    def fundamental_hz(self) -> Floats:
        """The fundamentals as an array, (S,)."""
        return np.array(self.fundamentals)


@dataclass(frozen=True, kw_only=True)
class Scene:
    """Arrays of a whole layout."""

    speed: float  # m/s
    sources: Sources
    capsule: Floats  # (M, 3)
    aim: Floats  # (M, 3) unit
    pressure_share: Floats  # (M,)
    switch_sign: Ints  # (M,) +1 or -1
    job: Ints  # (M,) index of the source, -1 for the whole kit
    open: Mask  # (M,) stands off the kit, where a reflection may lead
    heard: Mask  # (M,) in the current balance
    fader_db: Floats  # (M,) against the highest that is heard; far down where it is not
    voices: tuple[tuple[Voice, ...], ...]  # (M,) of those split or compressed
    low_cut_hz: Floats  # (M,) corner of the low cut on the way to the track, 0 for none
    track_delay: Floats  # (M,) seconds put on the track after recording
    room: Room | None
    near_m: float

    @cached_property
    def images(self) -> Images:
        """Of every mic in every surface it can see; made when first asked for."""
        fundamentals = self.sources.fundamentals
        return images_of(self.capsule, self.aim, fundamentals, self.room, self.near_m)


def at_spots(scene: Scene, capsule: Floats, aim: Floats, pressure_share: Floats) -> Scene:
    """A scene of one mic as if it stood at many spots, once at each.

    Parameters
    ----------
    scene : Scene
        Of one mic.
    capsule, aim : ndarray, shape (N, 3)
        Where it stands, metres, and which way it looks.
    pressure_share : ndarray, shape (N,)

    Returns
    -------
    Scene
    """
    n = len(capsule)
    same = ("switch_sign", "job", "heard", "fader_db", "open", "low_cut_hz", "track_delay")
    told: dict[str, Any] = {name: np.repeat(getattr(scene, name), n) for name in same}
    return replace(
        scene, capsule=capsule, aim=aim, pressure_share=pressure_share, voices=scene.voices * n,
        **told,
    )  # fmt: skip


def scene_with(scene: Scene, row: int, mic: Mic, *, alone: bool = False) -> Scene:
    """A scene in which one mic stands and points otherwise; nothing else of it differs.

    Parameters
    ----------
    scene : Scene
    row : int
        The mic's, in the arrays.
    mic : Mic
        As it is now.
    alone : bool
        Without the other mics.

    Returns
    -------
    Scene
        M mics, or one.
    """
    capsule, aim = scene.capsule.copy(), scene.aim.copy()
    capsule[row], aim[row] = mic.position_m, mic.aim
    if not alone:
        return replace(scene, capsule=capsule, aim=aim)
    one = slice(row, row + 1)
    rest = {name: getattr(scene, name)[one] for name in _BY_MIC}
    return replace(scene, capsule=capsule[one], aim=aim[one], **rest)


_BY_MIC = (
    "pressure_share", "switch_sign", "job", "open", "heard", "fader_db", "voices", "low_cut_hz",
    "track_delay",
)  # fmt: skip


def edge_toward(cymbal: Cymbal, x: float, y: float) -> Floats:
    """The point of a cymbal's edge nearest a place on the floor, metres (3,).

    Parameters
    ----------
    cymbal : Cymbal
    x, y : float
        Metres.

    Returns
    -------
    ndarray, shape (3,)
        Metres.
    """
    centre, axis = np.array(cymbal.centre_m), np.array(cymbal.axis)
    toward = np.array([x, y, centre[2]]) - centre
    inplane = toward - axis * float(toward @ axis)
    size = float(np.linalg.norm(inplane))
    if size < 1e-9:
        return np.asarray(centre)
    return np.asarray(centre + inplane / size * cymbal.diameter_m / 2)


def _strike(part: Drum | Cymbal, kit: Kit) -> Floats:
    if isinstance(part, Drum):
        return np.array(part.batter_m)
    x, y = kit.stool.position_m if kit.stool else (0.0, 0.0)
    return edge_toward(part, x, y)


@lru_cache(maxsize=64)
def sources_of(kit: Kit) -> Sources:
    """Arrays of a kit; kept, because a kit stays while mics are dragged.

    Parameters
    ----------
    kit : Kit

    Returns
    -------
    Sources
    """
    every = kit.parts
    voiced = tuple(bands(p) for p in every)

    def row(values: list[float]) -> Floats:
        return np.array(values, dtype=float)

    return Sources(
        ids=tuple(p.id for p in every),
        names=tuple(p.name for p in every),
        bands=voiced,
        fundamentals=tuple(b.fundamental for b in voiced),
        tuning=row([TUNING_SPREAD[tuning_from(p)] for p in every]),
        body_low=row([b.body_low for b in voiced]),
        body_high=row([b.body_high for b in voiced]),
        punch_high=row([b.punch_high for b in voiced]),
        attack_high=row([b.attack_high for b in voiced]),
        centre=_vectors([centre_of(p) for p in every]),
        strike=_vectors([_strike(p, kit) for p in every]),
        tape=_vectors([reference_point(p) if isinstance(p, Drum) else p.centre_m for p in every]),
        axis=_vectors([p.axis for p in every]),
        radius=row([p.diameter_m / 2 for p in every]),
        depth=row([depth_of(p) for p in every]),
        drum=np.array([isinstance(p, Drum) for p in every]),
        reference=np.array([p in (kit.first("snare"), kit.first("kick")) for p in every]),
        peak_db=row([VOICES[p.kind].peak_db for p in every]),
    )


def _vectors(rows: Sequence[ArrayLike]) -> Floats:
    """Rows of three, (N, 3); what is asked of N at once goes fastest with N next to each other."""
    return np.array(rows, dtype=float, order="F").reshape(-1, 3)


def scene_of(layout: Layout) -> Scene:
    """Arrays of a layout.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Scene
    """
    src = sources_of(layout.kit)
    index = {name: i for i, name in enumerate(src.ids)}
    mics, ways = layout.mics, mixed(layout)
    leads = [w.first for w in ways]
    return Scene(
        speed=layout.air.speed,
        sources=src,
        capsule=_vectors([m.position_m for m in mics]),
        aim=_vectors([m.aim for m in mics]),
        pressure_share=np.array([PRESSURE_SHARE[m.pattern] for m in mics], dtype=float),
        switch_sign=np.array(
            [m.sign * (c.sign if c else 1) for m, c in zip(mics, leads, strict=True)],
            dtype=np.int64,
        ),
        job=np.array([index[m.job] if m.job else -1 for m in mics], dtype=np.int64),
        open=np.array([m.role != "close" for m in mics], dtype=bool),
        heard=np.array([w.heard for w in ways], dtype=bool),
        fader_db=np.array([w.db for w in ways], dtype=float),
        voices=tuple(w.voices for w in ways),
        low_cut_hz=np.array([(c.low_cut_hz if c else None) or 0.0 for c in leads], dtype=float),
        track_delay=np.array([c.track_delay_samples if c else 0 for c in leads])
        / layout.sample_rate_hz,
        room=layout.room,
        near_m=layout.thresholds.near_surface_m,
    )
