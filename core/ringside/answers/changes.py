"""What changed between two layouts, in the words and tape terms of the trade."""

from dataclasses import dataclass

import numpy as np

from ringside.arrays import Floats
from ringside.plan.layout import Layout
from ringside.plan.mics import SWITCHES, Mic
from ringside.plan.references import references


@dataclass(frozen=True, kw_only=True, slots=True)
class Change:
    """One difference in tape terms; before and after in metres where a mic moved."""

    what: str
    """A mic's short name, or ``layout``."""
    words: str
    moved_m: float | None = None
    snare_m: tuple[float, float] | None = None
    kick_m: tuple[float, float] | None = None


def changes(before: Layout, after: Layout) -> list[Change]:
    """Differences, one row each: mics added and taken away, then what changed of the others.

    Parameters
    ----------
    before : Layout
        As it was.
    after : Layout
        As it is now.

    Returns
    -------
    list of Change
    """
    old = {m.id: m for m in before.mics}
    new = {m.id: m for m in after.mics}
    rows: list[Change] = []
    rows += [Change(what=i, words="added") for i in new if i not in old]
    rows += [Change(what=i, words="taken away") for i in old if i not in new]
    for id_ in (i for i in new if i in old):
        rows += _mic_changes(before, after, old[id_], new[id_])
    return rows + _layout_changes(before, after)


def _mic_changes(before: Layout, after: Layout, old: Mic, new: Mic) -> list[Change]:
    rows: list[Change] = []
    if old.position_m != new.position_m:
        was, now = np.array(old.position_m), np.array(new.position_m)
        r0, r1 = references(before), references(after)
        rows.append(
            Change(
                what=new.id,
                words="moved",
                moved_m=float(np.linalg.norm(now - was)),
                snare_m=(_gap(was, r0.snare), _gap(now, r1.snare)),
                kick_m=(_gap(was, r0.kick), _gap(now, r1.kick)),
            )
        )
    if old.aim != new.aim:
        rows.append(Change(what=new.id, words="turned"))
    for field, words in SWITCHES.items():
        if getattr(old, field) != getattr(new, field):
            rows.append(
                Change(what=new.id, words=f"{words} {'on' if getattr(new, field) else 'off'}")
            )
    for field in ("pattern", "name", "job", "role", "channel"):
        if getattr(old, field) != getattr(new, field):
            value = getattr(new, field) or ("whole kit" if field == "job" else "none")
            rows.append(Change(what=new.id, words=f"{field}: {value}"))
    if old.track_delay_samples != new.track_delay_samples:
        rows.append(Change(what=new.id, words=f"track delay: {new.track_delay_samples} samples"))
    if old.pan != new.pan:
        rows.append(Change(what=new.id, words="pan changed"))
    return rows


def _gap(a: Floats, b: Floats) -> float:
    return float(np.linalg.norm(a - b))


def _layout_changes(before: Layout, after: Layout) -> list[Change]:
    named = {
        "name": "renamed", "notes": "notes changed", "air": "air changed", "room": "room changed",
        "kit": "kit changed", "stereo_pairs": "stereo pairs changed",
        "decisions": "decisions changed", "thresholds": "thresholds changed",
        "sample_rate_hz": "sample rate changed", "outlook": "view changed",
        "timing": "school changed", "order": "order of adding changed",
    }  # fmt: skip
    return [
        Change(what="layout", words=words)
        for field, words in named.items()
        if getattr(before, field) != getattr(after, field)
    ]
