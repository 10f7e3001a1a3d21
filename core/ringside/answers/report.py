"""The whole analysis as plain JSON: `report` for files and programs, `board` for a screen.

Field names, units and signs are documented in docs/formats/report.md. Both hold the same
numbers; the report spells out one object per row, the board keeps the arrays together
because it is sent many times a second.
"""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ringside.answers.sentences import FREQUENCIES, verdict_words, why
from ringside.arrays import Floats
from ringside.hear.arrivals import Arrivals
from ringside.hear.sums import curve_db
from ringside.pairs.analysis import Analysis, Pairs, flipped
from ringside.pairs.counts import counts
from ringside.pairs.decisions import decision_rows
from ringside.pairs.uncertainty import COVERAGE, deviation_s, tips
from ringside.pairs.verdicts import WORDS_BY_VALUE as BY_VALUE
from ringside.pairs.verdicts import Verdict
from ringside.places.aims import aim_words
from ringside.places.clearance import words_for_all
from ringside.places.partner import can_be_equal, places, ring_of
from ringside.plan.layout import Layout

REPORT_FORMAT = "ringside-report"
REPORT_VERSION = 1


DIFFERS_M: Final = 0.01
"""Tape and air are told side by side from this difference on."""


def _words(values: np.ndarray) -> Any:
    """An array of verdicts as lists of words, of the same shape."""
    if values.ndim == 1:
        return [BY_VALUE[v] for v in values.tolist()]
    return [[BY_VALUE[v] for v in row] for row in values.tolist()]


def _finite(x: float) -> float | None:
    return float(x) if np.isfinite(x) else None


@dataclass(frozen=True)
class Sure:
    """How sure an analysis is: half an interval of every Δt, and what a verdict could tip to."""

    half_s: Floats  # (P, S)
    tips: np.ndarray  # (P, S) verdicts

    @staticmethod
    def of(an: Analysis) -> "Sure":
        """Computed once for all rows."""
        half = COVERAGE * deviation_s(an)
        return Sure(half, tips(an, half))


def pair_row(
    an: Analysis, row: int, source: int, turned: bool = False, sure: Sure | None = None
) -> dict[str, Any]:
    """One pair on one source, with its sentence; `turned` names the second mic first."""
    sure = sure or Sure.of(an)
    p, found = an.pairs, an.arrivals
    i, j = int(p.first[row]), int(p.second[row])
    way = -1.0 if turned else 1.0
    if turned:
        i, j = j, i
    delay = way * float(p.delay_s[row, source])
    return {
        "a": an.layout.mics[i].id,
        "b": an.layout.mics[j].id,
        "source": an.scene.sources.ids[source],
        "tape_a_m": float(found.tape_m[i, source]),
        "tape_b_m": float(found.tape_m[j, source]),
        "tape_difference_m": way * float(p.tape_difference_m[row, source]),
        "path_a_m": float(found.path_m[i, source]),
        "path_b_m": float(found.path_m[j, source]),
        "delay_s": delay,
        "delay_samples": delay * an.layout.sample_rate_hz,
        "level_difference_db": way * float(p.level_difference_db[row, source]),
        "sign": int(p.sign[row, source]),
        "first_dip_hz": _finite(float(p.dip_hz[row, source])),
        "body_db": float(p.body_db[row, source]),
        "flipped_body_db": float(p.flipped_body_db[row, source]),
        "verdict": BY_VALUE[int(p.verdict[row, source])],
        "words": verdict_words(an, row, source),
        "interval_s": float(sure.half_s[row, source]),
        "could_tip": _tip(p, sure, row, source),
        "path_differs_a": _differs(found, i, source),
        "path_differs_b": _differs(found, j, source),
    }


def pair_rows(an: Analysis, source: str | None = None) -> list[dict[str, Any]]:
    """Every pair on its worst source, or all on one, in the order of the grid.

    Raises
    ------
    RingsideError
        When the source is not in the kit.
    """
    sure = Sure.of(an)
    one = None if source is None else an.source_index(source)
    return [
        pair_row(an, r, int(an.worst_source[r]) if one is None else one, sure=sure)
        for r in range(len(an.pairs.first))
    ]


def _tip(p: Pairs, sure: Sure, row: int, source: int) -> str | None:
    """What a verdict could tip to within its interval; None when it holds."""
    other = int(sure.tips[row, source])
    return BY_VALUE[other] if other != int(p.verdict[row, source]) else None


def _differs(found: Arrivals, mic: int, source: int) -> bool:
    return bool(abs(found.path_m[mic, source] - found.tape_m[mic, source]) > DIFFERS_M)


def source_rows(an: Analysis) -> list[dict[str, Any]]:
    """The sources with the bands they are judged in."""
    s = an.scene.sources
    return [
        {
            "id": s.ids[k],
            "name": s.names[k],
            "fundamental_hz": b.fundamental,
            "body_low_hz": b.body_low,
            "body_high_hz": b.body_high,
            "punch_high_hz": b.punch_high,
            "attack_high_hz": b.attack_high,
        }
        for k, b in enumerate(s.bands)
    ]


def _mic_rows(an: Analysis) -> list[dict[str, Any]]:
    f, s = an.arrivals, an.scene.sources
    return [
        {
            "mic": mic.id,
            "source": s.ids[k],
            "tape_m": float(f.tape_m[i, k]),
            "path_m": float(f.path_m[i, k]),
            "arrival_s": float(f.time_s[i, k]),
            "level_db": float(f.level_db[i, k]),
            "after_gain_db": float(f.after_gain_db[i, k]),
            "sign": int(f.sign[i, k]),
            "surface_db": float(f.surface_db[i, k]),
        }
        for i, mic in enumerate(an.layout.mics)
        for k in range(len(s.ids))
    ]


def _ring_row(layout: Layout, name: str, anchor: str) -> dict[str, Any]:
    answer = ring_of(layout, anchor)
    row: dict[str, Any] = {"stereo_pair": name, "through": anchor, "kind": answer.kind}
    if answer.ring is None:
        return {**row, "words": answer.words}
    r = answer.ring
    return {
        **row,
        "centre_m": r.centre.tolist(),
        "radius_m": r.radius,
        "axis": r.axis.tolist(),
    }


def report(an: Analysis) -> dict[str, Any]:
    """Everything, one object per row; see docs/formats/report.md."""
    rows, sure = range(len(an.pairs.first)), Sure.of(an)
    n = len(an.scene.sources.ids)
    return {
        "format": REPORT_FORMAT,
        "version": REPORT_VERSION,
        "layout": an.layout.name,
        "speed_of_sound_m_s": an.scene.speed,
        "sample_rate_hz": an.layout.sample_rate_hz,
        "sources": source_rows(an),
        "arrivals": _mic_rows(an),
        "pairs": [pair_row(an, r, k, sure=sure) for r in rows for k in range(n)],
        "worst": [
            {
                key: value
                for key, value in pair_row(an, r, int(an.worst_source[r]), sure=sure).items()
                if key in ("a", "b", "source", "verdict", "words")
            }
            for r in rows
        ],
        "rings": [_ring_row(an.layout, p.name, p.left) for p in an.layout.stereo_pairs],
        "blocked": [
            {"mic": m.id, "words": words}
            for m, words in zip(
                an.layout.mics, words_for_all(an.scene.capsule, an.layout), strict=True
            )
            if words
        ],
        "counts": counts(an),
    }


def _table(values: Floats, digits: int) -> list[list[float]]:
    rows: list[list[float]] = np.round(values, digits).tolist()
    return rows


def board(an: Analysis, focus: tuple[str, str, str | None] | None = None) -> dict[str, Any]:
    """What a screen needs: arrays over mics and sources, the grid, and one pair in detail.

    Parameters
    ----------
    an : Analysis
    focus : (anchor, mover, source or None), optional
        The pair to open; without a source its worst one is opened.
    """
    f, s, sure = an.arrivals, an.scene.sources, Sure.of(an)
    ids = [m.id for m in an.layout.mics]
    return {
        "speed_of_sound_m_s": an.scene.speed,
        "mic_ids": ids,
        "sources": source_rows(an),
        "tape_m": _table(f.tape_m, 5),
        "path_m": _table(f.path_m, 5),
        "arrival_s": _table(f.time_s, 8),
        "after_gain_db": _table(f.after_gain_db, 2),
        "sign": f.sign.tolist(),
        "pair_a": [ids[i] for i in an.pairs.first],
        "pair_b": [ids[j] for j in an.pairs.second],
        "verdict": _words(an.pairs.verdict),
        "worst": _words(an.pairs.worst),
        "worst_source": [s.ids[k] for k in an.worst_source.tolist()],
        "counts": counts(an),
        "trouble": an.trouble.tolist(),
        "tips": _tip_rows(an, sure),
        "decisions": decision_rows(an),
        "aim": dict(zip(ids, aim_words(an.layout), strict=True)),
        "blocked": dict(zip(ids, words_for_all(an.scene.capsule, an.layout), strict=True)),
        "focus": detail(an, *focus, sure=sure) if focus else None,
    }


def _tip_rows(an: Analysis, sure: Sure) -> list[dict[str, Any]]:
    """The few verdicts that could tip: which pair and source (by number), and to what."""
    rows, sources = np.nonzero(sure.tips != an.pairs.verdict)
    return [
        {"pair": int(r), "source": int(k), "verdict": BY_VALUE[int(sure.tips[r, k])]}
        for r, k in zip(rows, sources, strict=True)
    ]


def detail(
    an: Analysis, anchor: str, mover: str, source: str | None = None, sure: Sure | None = None
) -> dict[str, Any]:
    """One pair in full: each source, the sum curve, the better places, and what flips would do.

    Raises
    ------
    RingsideError
        When a mic or the source is not in the layout, or both mics are one.
    """
    ids, s = [m.id for m in an.layout.mics], an.scene.sources
    row, turned, k = an.find(anchor, mover, source)
    equal = can_be_equal(an.layout, anchor, mover)
    p, sure = an.pairs, sure or Sure.of(an)
    delay, ratio, sign = (float(x[row, k]) for x in (p.delay_s, p.ratio, p.raw_sign))
    return {
        "a": anchor,
        "b": mover,
        "source": s.ids[k],
        "rows": [pair_row(an, row, n, turned, sure) for n in range(len(s.ids))],
        "curve_hz": np.round(FREQUENCIES, 2).tolist(),
        "curve_db": np.round(curve_db(FREQUENCIES, delay, ratio, sign), 2).tolist(),
        "flipped_curve_db": np.round(curve_db(FREQUENCIES, delay, ratio, -sign), 2).tolist(),
        "why": why(an, row, k),
        "places": places(an.layout, anchor, mover) if equal else None,
        "flips": sorted(
            (flip_effect(an, ids.index(m)) for m in (mover, anchor)),
            key=lambda f: f["hollow_after"],
        ),
    }


def flip_effect(an: Analysis, mic: int) -> dict[str, Any]:
    """What one flip would do to every other pair, by worst verdict."""
    after = flipped(an, mic)
    hollow = Verdict.HOLLOW
    was, now = an.pairs.worst == hollow, after.worst == hollow
    return {
        "mic": an.layout.mics[mic].id,
        "hollow_before": int(was.sum()),
        "hollow_after": int(now.sum()),
        "cures": _named(an, after, was & ~now),
        "spoils": _named(an, after, ~was & now),
    }


def _named(an: Analysis, after: Pairs, which: np.ndarray) -> list[str]:
    ids = [m.id for m in an.layout.mics]
    return [f"{ids[after.first[r]]}-{ids[after.second[r]]}" for r in np.flatnonzero(which)]
