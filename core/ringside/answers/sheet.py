"""The set-up sheet's content: every mic so that somebody with a tape can put it there.

A close mic is told in drum terms (over or under the head, in from the rim) and by tape to
its own drum; every mic by tape to snare and kick and its height over the floor. The plan
is worded from the drummer's stool, as the frame is.
"""

from typing import Any

import numpy as np

from ringside.places.aims import aim_words
from ringside.plan.kit import Cymbal, Drum, reference_point
from ringside.plan.layout import Layout
from ringside.plan.mics import SWITCHES, Mic
from ringside.plan.references import references


def setup_rows(layout: Layout) -> list[dict[str, Any]]:
    """One row per mic in channel order; distances in metres, words for the rest."""
    every = {p.id: p for p in layout.kit.parts}
    aims = aim_words(layout)
    ordered = sorted(enumerate(layout.mics), key=lambda n: (n[1].channel or 10_000, n[0]))
    return [_row(layout, mic, every.get(mic.job or ""), aims[i]) for i, mic in ordered]


def _row(layout: Layout, mic: Mic, job: Drum | Cymbal | None, aim: str) -> dict[str, Any]:
    ref, at = references(layout), np.array(mic.position_m)
    return {
        "id": mic.id,
        "name": mic.name,
        "channel": mic.channel,
        "pattern": mic.pattern,
        "model": mic.model,
        "stand": mic.stand,
        "job": job.name if job else "Whole kit",
        "snare_m": float(np.linalg.norm(at - ref.snare)),
        "kick_m": float(np.linalg.norm(at - ref.kick)),
        "own_m": _own(at, job),
        "height_m": mic.position_m[2],
        "from_head": _from_head(at, job),
        "aim": aim,
        "flips": [
            *(words for field, words in SWITCHES.items() if getattr(mic, field)),
            *_late(mic),
        ],
    }


def _late(mic: Mic) -> list[str]:
    """What is put on the track after recording."""
    late = mic.track_delay_samples
    return [f"track delayed by {late} samples"] if late else []


def _own(at: np.ndarray, job: Drum | Cymbal | None) -> float | None:
    if job is None:
        return None
    to = reference_point(job) if isinstance(job, Drum) else job.centre_m
    return float(np.linalg.norm(at - np.array(to)))


def _from_head(at: np.ndarray, job: Drum | Cymbal | None) -> dict[str, Any] | None:
    """Height over (or under) the head and distance in from the rim, for a close mic."""
    if job is None:
        return None
    centre = np.array(job.batter_m if isinstance(job, Drum) else job.centre_m)
    axis, depth = np.array(job.axis), job.depth_m if isinstance(job, Drum) else 0.0
    height = float((at - centre) @ axis)
    radial = float(np.linalg.norm((at - centre) - height * axis))
    if height >= 0:
        side, off = "over", height
    elif height > -depth:
        side, off = "inside", -height
    else:
        side = "in front" if job.kind == "kick" else "under"
        off = -height - depth
    return {"side": side, "off_m": off, "in_from_rim_m": job.diameter_m / 2 - radial}
