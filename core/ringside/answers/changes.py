"""What changed between two layouts, in the words and tape terms of the trade."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.answers.kitchanges import (
    LEAST_DEG,
    LEAST_M,
    air_changes,
    kit_changes,
    room_changes,
    turned_deg,
)
from ringside.arrays import Floats
from ringside.plan.channels import CHANNEL_SWITCHES, Channel
from ringside.plan.layout import Layout
from ringside.plan.mics import MIC_SWITCHES, Mic
from ringside.plan.references import references


@dataclass(frozen=True, kw_only=True, slots=True)
class Change:
    """One difference in tape terms; before and after in metres where a mic moved."""

    what: str
    """A mic's or track's short name, a drum's or cymbal's name; air, room, kit or layout."""
    words: str
    moved_m: float | None = None
    snare_m: tuple[float, float] | None = None
    kick_m: tuple[float, float] | None = None


BY_TAPE: Final = 2.0
"""Tape errors that a mic read by tape must have moved to be told so: 95 in 100 read less when it
has not."""


def by_tape_m(layout: Layout) -> float:
    """How far a mic whose place is by tape must have moved to be told so.

    Parameters
    ----------
    layout : Layout
        It has the error of one reading among its thresholds.

    Returns
    -------
    float
        Metres.
    """
    return BY_TAPE * layout.thresholds.tape_error_m


def changes(before: Layout, after: Layout, least_m: float = LEAST_M) -> list[Change]:
    """Differences, one row each: mics added and taken away, then what changed of the others.

    Parameters
    ----------
    before : Layout
        As it was.
    after : Layout
        As it is now.
    least_m : float
        Mics that moved no further, metres, are not told as moved.

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
        rows += _mic_moved(before, after, id_, least_m)
        rows += _mic_changes(old[id_], new[id_])
    rows += _channel_changes(before, after)
    around = (
        *kit_changes(before.kit, after.kit),
        *room_changes(before.room, after.room),
        *air_changes(before.air, after.air),
    )
    rows += [Change(what=t.what, words=t.words, moved_m=t.moved_m) for t in around]
    return rows + _layout_changes(before, after)


def _mic_moved(before: Layout, after: Layout, mic: str, least_m: float) -> list[Change]:
    was, now = (np.array(x.mic(mic).position_m) for x in (before, after))
    moved = _gap(was, now)
    if moved <= least_m:
        return []
    r0, r1 = references(before), references(after)
    snare = (_gap(was, r0.snare), _gap(now, r1.snare))
    kick = (_gap(was, r0.kick), _gap(now, r1.kick))
    return [Change(what=mic, words="moved", moved_m=moved, snare_m=snare, kick_m=kick)]


def _mic_changes(old: Mic, new: Mic) -> list[Change]:
    rows: list[Change] = []
    turned = turned_deg(old.aim, new.aim)
    if turned > LEAST_DEG:
        rows.append(Change(what=new.id, words=f"turned {turned:.0f}°"))
    rows += _switches(old, new, MIC_SWITCHES)
    for field in ("pattern", "name", "job", "role"):
        if getattr(old, field) != getattr(new, field):
            value = getattr(new, field) or ("whole kit" if field == "job" else "none")
            rows.append(Change(what=new.id, words=f"{field}: {value}"))
    return rows


def _switches(old: Mic | Channel, new: Mic | Channel, names: dict[str, str]) -> list[Change]:
    return [
        Change(what=new.id, words=f"{words} {'on' if getattr(new, field) else 'off'}")
        for field, words in names.items()
        if getattr(old, field) != getattr(new, field)
    ]


def _channel_changes(before: Layout, after: Layout) -> list[Change]:
    """Tracks added and taken away, then what changed of the others."""
    old, new = ({c.id: c for c in x.channels} for x in (before, after))
    gone = {m.id for m in before.mics} - {m.id for m in after.mics}
    come = {m.id for m in after.mics} - {m.id for m in before.mics}
    rows = [
        Change(what=i, words="one more track")
        for i, c in new.items()
        if i not in old and c.mic not in come
    ]
    rows += [
        Change(what=i, words="not recorded")
        for i, c in old.items()
        if i not in new and c.mic not in gone
    ]
    for was, now in ((old[i], c) for i, c in new.items() if i in old):
        rows += _switches(was, now, CHANNEL_SWITCHES)
        for field, (words, unit) in CHANNEL_FIELDS.items():
            if (value := getattr(now, field)) != getattr(was, field):
                told = "none" if value is None else f"{_plain(value)}{unit}"
                rows.append(Change(what=now.id, words=f"{words}: {told}"))
        rows += [
            Change(what=now.id, words=f"{words} changed")
            for field, words in CHANNEL_WHOLES.items()
            if getattr(now, field) != getattr(was, field)
        ]
    return rows


def _plain(value: float | str) -> str:
    return value if isinstance(value, str) else f"{value:g}"


CHANNEL_FIELDS: Final = {
    "input": ("input", ""), "name": ("track", ""),
    "track_delay_samples": ("track delay", " samples"), "low_cut_hz": ("low cut", " Hz"),
    "pad_db": ("pad", " dB"), "gain_db": ("gain", " dB"),
}  # fmt: skip
"""What each is called, and its unit."""

CHANNEL_WHOLES: Final = {"pan": "pan", "crush": "compression"}
"""What is only told as changed."""


def _gap(a: Floats, b: Floats) -> float:
    return float(np.linalg.norm(a - b))


def _layout_changes(before: Layout, after: Layout) -> list[Change]:
    named = {
        "name": "renamed", "notes": "notes changed", "stereo_pairs": "stereo pairs changed",
        "thresholds": "thresholds changed",
        "sample_rate_hz": "sample rate changed", "outlook": "view changed",
        "timing": "school changed", "order": "order of adding changed",
        "options": "options changed", "balances": "balances changed",
        "current": "another balance",
    }  # fmt: skip
    rows = [
        words for field, words in named.items() if getattr(before, field) != getattr(after, field)
    ]
    if _decided(before) != _decided(after):
        rows.append("decisions changed")
    return [Change(what="layout", words=words) for words in rows]


def _decided(layout: Layout) -> set[tuple[str | None, ...]]:
    """What was decided, whoever did so and when."""
    return {(d.a, d.b, d.source, d.reason) for d in layout.decisions}
