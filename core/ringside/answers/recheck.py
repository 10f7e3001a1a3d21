"""What is most worth measuring again: what hangs on it, how sure it is, what happened since."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

import numpy as np

from ringside.answers.stands import Compared
from ringside.plan.layout import Layout
from ringside.standing.asks import AskRow
from ringside.standing.entries import Entry, touched
from ringside.standing.report import Standing
from ringside.survey.net import TAPE_M

OLD_MIN: Final = 120.0
"""After so long a stand may have sunk or been brushed against (from memory)."""

KNOWN_M: Final = 0.05
"""What is known better than this needs no word on how well."""


@dataclass(frozen=True, kw_only=True, slots=True)
class RecheckRow:
    """A mic that was measured, and the reading to take of it again."""

    mic: str
    to: str | None
    why: list[str]
    hangs: int
    """Verdicts that may be others by what is known of its place."""
    sigma_m: float
    """One standard deviation in the direction that is least known; of a close mic, of a tape."""
    age_min: float | None
    """Minutes since it was last read; None where nobody says."""


def recheck(
    layout: Layout, log: Sequence[Entry], standing: Standing, told: Compared, now: datetime
) -> list[RecheckRow]:
    """Mics worth measuring again, the most worth first.

    What does not fit comes first: nobody knows where that mic stands. Then by how many verdicts
    hang on it, then what was touched, then what is least sure, then what was read longest ago.

    Parameters
    ----------
    layout : Layout
        As planned.
    log : sequence of Entry
        Oldest first.
    standing : Standing
    told : Compared
    now : datetime
        With its zone.

    Returns
    -------
    list of RecheckRow
    """
    hangs = Counter(m for p in told.pairs if p.could for m in (p.a, p.b))
    hit = touched(log)
    at_odds = {m for r in standing.readings if r.state in ("misfit", "doubtful")
               for m in (r.mic, r.to) if m}  # fmt: skip
    rows = []
    for mic, stands in zip(layout.mics, standing.mics, strict=True):
        read = [e for e in log if e.what in ("reading", "cord") and mic.id in (e.mic, e.to, e.like)]
        asks = [a for a in standing.asks if mic.id in (a.mic, a.to)]
        if not read or not asks:
            continue
        age = _age_min(read[-1], now)
        moved = mic.id in hit and any(a.state == "again" for a in asks) and mic.id not in at_odds
        widest = float(np.sqrt(np.linalg.eigvalsh(np.array(stands.covariance_m2))[-1]))
        # A close mic stands by its own drum: where round it, nobody measures.
        sigma = TAPE_M if mic.role == "close" else widest
        row = RecheckRow(
            mic=mic.id,
            to=_other_end(_first(asks), mic.id),
            why=_why(mic.id in at_odds, moved, hangs[mic.id], sigma, age),
            hangs=hangs[mic.id],
            sigma_m=round(sigma, 4),
            age_min=age,
        )
        open_ = any(a.state in ("again", "to read") for a in asks)
        if open_ or (age is not None and age >= OLD_MIN):
            rows.append((mic.id in at_odds, moved, row))
    rows.sort(key=lambda r: (not r[0], -r[2].hangs, not r[1], -r[2].sigma_m, -(r[2].age_min or 0)))
    return [row for _, _, row in rows]


def _first(asks: Sequence[AskRow]) -> AskRow:
    """The reading to take: one that is asked for again, else one not taken yet, else the first."""
    rank = {"again": 0, "to read": 1}
    return min(asks, key=lambda a: rank.get(a.state, 2))


def _other_end(ask: AskRow, mic: str) -> str | None:
    return ask.to if ask.mic == mic else ask.mic


def _age_min(entry: Entry, now: datetime) -> float | None:
    if entry.at is None:
        return None
    return round(max((now - entry.at).total_seconds(), 0.0) / 60, 1)


def _why(odd: bool, moved: bool, hangs: int, sigma: float, age: float | None) -> list[str]:
    why = []
    if odd:
        why.append("its readings do not fit the others")
    if moved:
        why.append("touched since it was read")
    if hangs:
        why.append(f"{hangs} verdict{'s hang' if hangs > 1 else ' hangs'} on it")
    if sigma > KNOWN_M:
        why.append("its place is not sure yet")
    if age is not None and age >= OLD_MIN:
        why.append(f"read {age / 60:.0f} h ago")
    return why or ["not all of it is read"]
