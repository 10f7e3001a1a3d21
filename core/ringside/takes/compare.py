"""Two takes of a layout held against each other: what moved between them, and what was retuned.

The plan is out of it: what one take says of every arrival is held against what the other says, so
nothing hangs on how well the layout was planned, and the reasons are those of
:mod:`ringside.takes.reasons` on the differences.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.standing.told import Told
from ringside.takes.reading import TakeRead
from ringside.takes.reasons import Cause, Rows, causes, kelvin_of, rows_of
from ringside.takes.tell import cause_words, retuned_words

HITS_S: Final = 0.00001
"""One standard deviation of an arrival that another day's hits do not show (from trial)."""


@dataclass(frozen=True, slots=True)
class Since:
    """What changed from an earlier take to a later one."""

    moved: list[Told]
    retuned: list[str]
    drums: list[str]
    """Those hit in both."""
    words: str


def since(earlier: TakeRead, later: TakeRead) -> Since:
    """What changed between two takes of one layout.

    Parameters
    ----------
    earlier, later : TakeRead

    Returns
    -------
    Since
    """
    an = later.analysis
    ids = an.scene.sources.ids
    common = {d.source for d in earlier.drums} & {d.source for d in later.drums}
    found = _changes(earlier, later)
    retuned = []
    for k in sorted(common):
        one, two = (next(d for d in t.drums if d.source == k) for t in (earlier, later))
        if one.fundamental_hz and two.fundamental_hz:
            spread = np.hypot(one.fundamental_spread_hz, two.fundamental_spread_hz)
            share = max(float(spread) / one.fundamental_hz, 0.004)
            name = an.scene.sources.names[k]
            words = retuned_words(name, two.fundamental_hz, one.fundamental_hz, share, "before")
            retuned += [words] if words else []
    told = []
    for c in found:
        name = str(later.matched[later.rows[c.track]].channel) if c.track >= 0 else ""
        told.append(cause_words(c, name, later.rate_hz, "before")[0])
    words = "" if told or retuned else "Nothing moved between the two, as far as they can tell."
    if not common:
        words = "The two have no drum in common."
    return Since(told, retuned, [ids[k] for k in sorted(common)], words)


def _changes(earlier: TakeRead, later: TakeRead) -> list[Cause]:
    """The faults that explain how arrivals differ between two takes."""
    rows, base = rows_of(later), rows_of(earlier)
    names = {n: later.matched[r].channel for n, r in enumerate(later.rows)}
    before = {
        (earlier.matched[earlier.rows[t]].channel, d): n
        for n, (t, d) in enumerate(zip(base.track, base.drum, strict=True))
    }
    kept, off, weight = [], [], []
    spread = {(d.source, n): float(d.deviation_s[n]) for d in later.drums
              for n in range(len(later.mics))}  # fmt: skip
    for n, (t, d) in enumerate(zip(rows.track, rows.drum, strict=True)):
        m = before.get((names[int(t)], d))
        if m is not None:
            kept.append(n)
            off.append(rows.off_s[n] - base.off_s[m])
            weight.append(1 / (2 * spread[int(d), int(t)] ** 2 + HITS_S**2))
    if not kept:
        return []
    made = Rows(
        rows.track[kept], rows.own[kept], rows.drum[kept], np.array(off), np.array(weight),
        rows.slope[kept], rows.own_slope[kept], rows.path_s[kept],
    )  # fmt: skip
    return causes(made, len(later.mics), kelvin_of(later))
