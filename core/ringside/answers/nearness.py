"""A close mic nearer and further: low end, attack and neighbours over its height, by pattern.

The pressure-gradient share of a pattern swells the low end near a head, which is why engineers
move a close mic at all; its low cut works against it (:mod:`ringside.hear.nearfield`).
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.errors import RingsideError
from ringside.hear.arrivals import Arrivals, arrivals
from ringside.hear.scene import Scene, at_spots, scene_of
from ringside.plan.drumframe import face_of, side_of
from ringside.plan.kit import Drum
from ringside.plan.layout import Layout
from ringside.plan.mics import PRESSURE_SHARE, Mic, Pattern

LOWEST_M: Final = 0.01
HIGHEST_M: Final = 0.4
HEIGHTS: Final = 32
SWELL_DB: Final = 3.0
"""A low end this much fuller than the attack is heard as nearness (common practice)."""


@dataclass(frozen=True, kw_only=True, slots=True)
class PatternCurve:
    """What one pattern makes of its own drum and its neighbours over N heights, decibels."""

    pattern: Pattern
    low_db: list[float]
    """The low end against the attack: nearness, and what a low cut takes."""
    attack_db: list[float]
    """The attack, against what the mic hears of it where it is now."""
    neighbours_db: list[float]
    """Everything else on the kit against its own drum, at their peaks."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Nearness:
    """A close mic over its height off the head, metres; each pattern a curve."""

    mic: str
    source: str
    heights_m: list[float]
    now: int
    """Where it is now, or nearest to it."""
    patterns: list[PatternCurve]
    words: str


def nearness(layout: Layout, mic_id: str) -> Nearness:
    """Low end, attack and neighbours of a close mic over its height, pattern by pattern.

    Parameters
    ----------
    layout : Layout
    mic_id : str
        Short name of a mic put up for a drum.

    Returns
    -------
    Nearness

    Raises
    ------
    RingsideError
        When the mic is not there, or is put up for no drum.
    """
    mic = next((m for m in layout.mics if m.id == mic_id), None)
    part = next((d for d in layout.kit.drums if mic is not None and d.id == mic.job), None)
    if mic is None or part is None:
        raise RingsideError(f"expected a mic put up for a drum, got {mic_id!r}")
    heights, spots, now = _heights(mic, part)
    patterns = tuple(PRESSURE_SHARE)
    scene = _scene(layout, mic, spots, patterns)
    heard = arrivals(scene, layout.thresholds)
    own = scene.sources.ids.index(part.id)
    n = len(spots)
    start = patterns.index(mic.pattern) * n + now
    curves = [
        _curve(scene, heard, pattern, slice(i * n, (i + 1) * n), own, start)
        for i, pattern in enumerate(patterns)
    ]
    mine = curves[patterns.index(mic.pattern)]
    return Nearness(
        mic=mic.id,
        source=part.id,
        heights_m=[round(float(h), 4) for h in heights],
        now=now,
        patterns=curves,
        words=_words(mic, mine.low_db[now]),
    )


def _heights(mic: Mic, part: Drum) -> tuple[Floats, Floats, int]:
    """Heights off the face the mic hears, the spots there (N, 3), and which is now."""
    at = np.array(mic.position_m)
    side = side_of(part, at)
    face = face_of(part, "under" if side == "under" else "over")
    height = float((at - face.centre) @ face.out)
    far = np.geomspace(LOWEST_M, max(HIGHEST_M, height * 1.5), HEIGHTS)
    heights = np.unique(np.append(far, max(height, LOWEST_M)))
    spots = at + (heights - height)[:, None] * face.out
    return heights, spots, int(np.abs(heights - height).argmin())


def _scene(layout: Layout, mic: Mic, spots: Floats, patterns: tuple[str, ...]) -> Scene:
    """The mic at every spot with every pattern, alone with the kit."""
    alone = scene_of(layout.model_copy(update={"mics": (mic,), "stereo_pairs": ()}))
    count = len(patterns) * len(spots)
    share = np.repeat([PRESSURE_SHARE[p] for p in patterns], len(spots))
    return at_spots(
        alone, np.tile(spots, (len(patterns), 1)), np.repeat(alone.aim, count, axis=0), share
    )


def _curve(
    scene: Scene, heard: Arrivals, pattern: str, rows: slice, own: int, start: int
) -> PatternCurve:
    attack = heard.level_db[:, own] - heard.near_db[:, own] - heard.surface_db[:, own]
    loud = heard.level_db[rows] + scene.sources.peak_db
    others = np.delete(10 ** (loud / 10), own, axis=1).sum(axis=1)
    return PatternCurve(
        pattern=pattern,  # type: ignore[arg-type]
        low_db=_rounded(heard.near_db[rows, own]),
        attack_db=_rounded(attack[rows] - attack[start]),
        neighbours_db=_rounded(10 * np.log10(np.maximum(others, 1e-12)) - loud[:, own]),
    )


def _rounded(values: Floats) -> list[float]:
    made: list[float] = np.round(values, 2).tolist()
    return made


def _words(mic: Mic, low: float) -> str:
    if PRESSURE_SHARE[mic.pattern] == 1.0:
        return "An omni keeps its low end at any distance."
    if low >= SWELL_DB:
        return f"Its nearness swells the low end by {low:.1f} dB; further off it is leaner."
    if low <= -SWELL_DB:
        return f"The low cut takes {-low:.1f} dB of the low end here, nearness counted."
    return "Here its low end is about as the attack; nearer, it swells."
