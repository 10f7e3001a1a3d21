"""The set-up sheet's content: every mic so that somebody with a tape can put it there.

A close mic is told in drum terms (over or under the head, in from the rim) and by tape to
its own drum; every mic by tape to snare and kick and its height over the floor. The plan
is worded from the drummer's stool, as the frame is.
"""

from typing import Any

import numpy as np

from ringside.changes import SWITCHES
from ringside.kit import Cymbal, Drum, reference_point
from ringside.layout import Layout
from ringside.mics import Mic
from ringside.places import references

LEVEL_DEG = 15.0
STEEP_DEG = 60.0


def setup_rows(layout: Layout) -> list[dict[str, Any]]:
    """One row per mic in channel order; distances in metres, words for the rest."""
    every = {p.id: p for p in layout.kit.parts}
    ordered = sorted(enumerate(layout.mics), key=lambda n: (n[1].channel or 10_000, n[0]))
    return [_row(layout, mic, every.get(mic.job or "")) for _, mic in ordered]


def _row(layout: Layout, mic: Mic, job: Drum | Cymbal | None) -> dict[str, Any]:
    ref, at = references(layout), np.array(mic.position_m)
    return {
        "id": mic.id,
        "name": mic.name,
        "channel": mic.channel,
        "pattern": mic.pattern,
        "job": job.name if job else "Whole kit",
        "snare_m": float(np.linalg.norm(at - ref.snare)),
        "kick_m": float(np.linalg.norm(at - ref.kick)),
        "own_m": _own(at, job),
        "height_m": mic.position_m[2],
        "from_head": _from_head(at, job),
        "aim": aim_words(layout, mic),
        "flips": [words for field, words in SWITCHES.items() if getattr(mic, field)],
    }


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


def _seen(part: Drum | Cymbal, at: np.ndarray) -> tuple[str, np.ndarray]:
    """The face a mic at a spot sees, by name and centre, metres (3,)."""
    name = part.name.lower()
    if isinstance(part, Cymbal):
        return name, np.array(part.centre_m)
    batter, axis = np.array(part.batter_m), np.array(part.axis)
    if float((at - batter) @ axis) >= -part.depth_m:
        return name, batter
    far = {"kick": "front head", "snare": "wires"}.get(part.kind, "bottom head")
    return f"{name} {far}", batter - axis * part.depth_m


def aim_words(layout: Layout, mic: Mic) -> str:
    """What the front of the capsule points at, or how it is turned."""
    at, aim = np.array(mic.position_m), np.array(mic.aim)
    best, angle = "", 18.0
    for part in layout.kit.parts:
        name, centre = _seen(part, at)
        to = centre - at
        off = float(np.degrees(np.arccos(np.clip(to @ aim / np.linalg.norm(to), -1, 1))))
        if off < angle:
            best, angle = f"at the {name}", off
    if best:
        return best
    up = float(np.degrees(np.arcsin(np.clip(aim[2], -1, 1))))
    if up <= -STEEP_DEG:
        return "straight down"
    if up >= STEEP_DEG:
        return "straight up"
    turn = float(np.degrees(np.arctan2(aim[0], aim[1])))
    names = ("audience", "right front", "right", "right back", "drummer", "left back", "left",
             "left front")  # fmt: skip
    where = names[round(turn / 45) % 8]
    tilt = "" if abs(up) < LEVEL_DEG else ", tilted down" if up < 0 else ", tilted up"
    return f"toward the {where}{tilt}"
