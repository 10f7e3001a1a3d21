"""What a change of the whole (the air, the room, the kit) did to the answers, in words.

Two layouts with the same mics are analysed; verdicts that turned over and the largest change
of an arrival are told. Only mics and sources that both have are compared.
"""

from typing import Any

import numpy as np

from ringside.pairs.analysis import Analysis, analyse
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.plan.layout import Layout

MOST_ROWS = 40
NAMED = 3


def effects(before: Layout, after: Layout) -> dict[str, Any]:
    """Differences between two layouts.

    Returns
    -------
    dict
        ``speed_before_m_s``, ``speed_after_m_s``; ``arrivals``: the largest change of an
        arrival (mic, source, seconds before and after) or None; ``verdicts``: rows of a, b,
        source, before, after for every pair and source whose verdict turned over, gravest
        first, at most 40, and ``turned`` how many there are; ``words``.
    """
    one, two = analyse(before), analyse(after)
    largest = _largest(one, two)
    rows = _turned(one, two)
    return {
        "speed_before_m_s": one.scene.speed,
        "speed_after_m_s": two.scene.speed,
        "arrivals": largest,
        "verdicts": rows[:MOST_ROWS],
        "turned": len(rows),
        "words": _words(one, two, largest, rows),
    }


def _shared(one: list[str], two: list[str]) -> list[tuple[int, int]]:
    return [(i, two.index(x)) for i, x in enumerate(one) if x in two]


def _ids(an: Analysis) -> list[str]:
    return [m.id for m in an.layout.mics]


def _largest(one: Analysis, two: Analysis) -> dict[str, Any] | None:
    mics = _shared(_ids(one), _ids(two))
    sources = _shared(list(one.scene.sources.ids), list(two.scene.sources.ids))
    if not mics or not sources:
        return None
    a = one.arrivals.time_s[np.ix_([i for i, _ in mics], [k for k, _ in sources])]
    b = two.arrivals.time_s[np.ix_([j for _, j in mics], [k for _, k in sources])]
    i, k = np.unravel_index(int(np.abs(b - a).argmax()), a.shape)
    return {
        "mic": _ids(one)[mics[int(i)][0]],
        "source": one.scene.sources.ids[sources[int(k)][0]],
        "before_s": float(a[i, k]),
        "after_s": float(b[i, k]),
    }


def _turned(one: Analysis, two: Analysis) -> list[dict[str, Any]]:
    ids, others = _ids(one), set(_ids(two))
    sources = _shared(list(one.scene.sources.ids), list(two.scene.sources.ids))
    rows = []
    for row, (i, j) in enumerate(zip(one.pairs.first, one.pairs.second, strict=True)):
        a, b = ids[int(i)], ids[int(j)]
        if a not in others or b not in others:
            continue
        there = two.pair_index(a, b)[0]
        for k, m in sources:
            was, now = int(one.pairs.verdict[row, k]), int(two.pairs.verdict[there, m])
            if was != now:
                rows.append((max(was, now), a, b, one.scene.sources.ids[k], was, now))
    rows.sort(key=lambda r: -r[0])
    return [
        {
            "a": a,
            "b": b,
            "source": source,
            "before": VERDICT_WORDS[Verdict(was)],
            "after": VERDICT_WORDS[Verdict(now)],
        }
        for _, a, b, source, was, now in rows
    ]


def _words(
    one: Analysis, two: Analysis, largest: dict[str, Any] | None, rows: list[dict[str, Any]]
) -> str:
    said = []
    if abs(two.scene.speed - one.scene.speed) > 0.005:
        said.append(f"Sound goes {two.scene.speed:.1f} m/s instead of {one.scene.speed:.1f}.")
    if largest and abs(largest["after_s"] - largest["before_s"]) > 5e-7:
        ms = (largest["after_s"] - largest["before_s"]) * 1e3
        way = "later" if ms > 0 else "earlier"
        said.append(
            f"Arrivals change by up to {abs(ms):.2f} ms ({largest['mic']} hears the"
            f" {largest['source']} that much {way})."
        )
    if rows:
        verb = "verdict turns" if len(rows) == 1 else "verdicts turn"
        named = "; ".join(
            f"{r['a']} with {r['b']} on {r['source']} {r['before']} → {r['after']}"
            for r in rows[:NAMED]
        )
        more = ", and so on" if len(rows) > NAMED else ""
        said.append(f"{len(rows)} {verb} over: {named}{more}.")
    else:
        said.append("No verdict turns over.")
    return " ".join(said)
