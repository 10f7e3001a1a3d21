"""What changed between two layouts, in the words and tape terms of the trade."""

from typing import Any

import numpy as np

from ringside.plan.layout import Layout
from ringside.plan.mics import SWITCHES, Mic
from ringside.plan.references import references


def changes(before: Layout, after: Layout) -> list[dict[str, Any]]:
    """Differences, one row each.

    Returns
    -------
    list of dict
        ``what`` (a mic's name, or ``layout``), ``words``, and for a moved mic
        ``moved_m``, ``snare_m`` and ``kick_m`` as [before, after], metres.
    """
    old = {m.id: m for m in before.mics}
    new = {m.id: m for m in after.mics}
    rows: list[dict[str, Any]] = []
    rows += [{"what": i, "words": "added"} for i in new if i not in old]
    rows += [{"what": i, "words": "taken away"} for i in old if i not in new]
    for id_ in (i for i in new if i in old):
        rows += _mic_changes(before, after, old[id_], new[id_])
    return rows + _layout_changes(before, after)


def _mic_changes(before: Layout, after: Layout, old: Mic, new: Mic) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = []
    if old.position_m != new.position_m:
        was, now = np.array(old.position_m), np.array(new.position_m)
        r0, r1 = references(before), references(after)
        snare = [np.linalg.norm(was - r0.snare), np.linalg.norm(now - r1.snare)]
        kick = [np.linalg.norm(was - r0.kick), np.linalg.norm(now - r1.kick)]
        rows.append({
            "what": new.id,
            "words": "moved",
            "moved_m": float(np.linalg.norm(now - was)),
            "snare_m": [float(x) for x in snare],
            "kick_m": [float(x) for x in kick],
        })  # fmt: skip
    if old.aim != new.aim:
        rows.append({"what": new.id, "words": "turned"})
    for field, words in SWITCHES.items():
        if getattr(old, field) != getattr(new, field):
            rows.append(
                {"what": new.id, "words": f"{words} {'on' if getattr(new, field) else 'off'}"}
            )
    for field in ("pattern", "name", "job", "role", "channel"):
        if getattr(old, field) != getattr(new, field):
            value = getattr(new, field) or ("whole kit" if field == "job" else "none")
            rows.append({"what": new.id, "words": f"{field}: {value}"})
    if old.track_delay_samples != new.track_delay_samples:
        rows.append({"what": new.id, "words": f"track delay: {new.track_delay_samples} samples"})
    if old.pan != new.pan:
        rows.append({"what": new.id, "words": "pan changed"})
    return rows


def _layout_changes(before: Layout, after: Layout) -> list[dict[str, Any]]:
    named = {
        "name": "renamed", "notes": "notes changed", "air": "air changed", "room": "room changed",
        "kit": "kit changed", "stereo_pairs": "stereo pairs changed",
        "decisions": "decisions changed", "thresholds": "thresholds changed",
        "sample_rate_hz": "sample rate changed", "outlook": "view changed",
        "timing": "school changed", "order": "order of adding changed",
    }  # fmt: skip
    return [
        {"what": "layout", "words": words}
        for field, words in named.items()
        if getattr(before, field) != getattr(after, field)
    ]
