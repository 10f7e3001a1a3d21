"""Adding mics one at a time: what each newcomer does to every drum's body.

Two schools begin at two ends (common practice): with the overheads, which are the picture of
the kit, or with the kick, which sets how big everything is. Or in any order of the user's own.
Mics the order does not name follow in the order of the school.
"""

from typing import Any, Final, Literal

import numpy as np

from ringside.pairs.analysis import Analysis
from ringside.pairs.gram import drum_ids, grams, kept_body
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

FirstSchool = Literal["overheads", "kick"]
HEARD_DB: Final = 1.0
"""A change of body below this goes unnoticed among the rest (common practice)."""

ADDING_ORDER: Final = ("kick", "snare", "rack", "floor", "hand drum")


def school_order(layout: Layout, first: FirstSchool) -> list[str]:
    """The mics in the order of a school: overheads or kick first, rooms last."""
    kinds = {p.id: p.kind for p in layout.kit.parts}

    def place(mic: Mic) -> tuple[int, int]:
        if mic.role == "overhead":
            return (0 if first == "overheads" else 2, 0)
        if mic.role == "room":
            return (3, 0)
        kind = kinds.get(mic.job or "")
        return (1, ADDING_ORDER.index(kind) if kind in ADDING_ORDER else len(ADDING_ORDER))

    return [m.id for m in sorted(layout.mics, key=place)]


def order_of(layout: Layout, first: FirstSchool | None = None) -> list[str]:
    """The order in use: the user's own, then what it does not name by the school.

    A school named here goes before the user's own order.
    """
    brief = layout.brief.first if layout.brief else "overheads"
    school = school_order(layout, first or ("kick" if brief == "close" else "overheads"))
    own = [] if first else [m for m in dict.fromkeys(layout.order) if m in school]
    return [*own, *(m for m in school if m not in own)]


def steps(an: Analysis, order: list[str]) -> list[dict[str, Any]]:
    """What each mic does as it is added.

    Parameters
    ----------
    order : list of str
        Every mic once.

    Returns
    -------
    list of dict
        One per mic: ``mic``; ``drums``: rows of ``source``, ``wired_db`` and ``flipped_db``, how
        the body of the sum changes when the mic joins as it is, or turned over (None for the
        first mic), and ``heard``, by `HEARD_DB` or more as it is; ``mean_db``,
        ``flipped_mean_db`` over the drums; ``flip``: whether the other way is fuller by
        `HEARD_DB` or more; ``words``.
    """
    ids, drums = [m.id for m in an.layout.mics], drum_ids(an)
    names = dict(zip(an.scene.sources.ids, an.scene.sources.names, strict=True))
    gram = grams(an)
    on = np.zeros(len(ids))
    found = []
    for mic in order:
        i = ids.index(mic)
        before = kept_body(gram, on)
        rows: list[dict[str, Any]] = []
        ways = []
        for sign in (1.0, -1.0):
            there = on.copy()
            there[i] = sign
            ways.append(kept_body(gram, there))
        if on.any():
            changes = [10 * np.log10(w / before) for w in ways]
            rows = [
                {
                    "source": d,
                    "wired_db": round(float(a), 2),
                    "flipped_db": round(float(b), 2),
                    "heard": bool(abs(a) >= HEARD_DB),
                }
                for d, a, b in zip(drums, *changes, strict=True)
            ]
        else:
            rows = [
                {"source": d, "wired_db": None, "flipped_db": None, "heard": False} for d in drums
            ]
        found.append(_step(mic, rows, names))
        on[i] = 1.0
    return found


def _step(mic: str, rows: list[dict[str, Any]], names: dict[str, str]) -> dict[str, Any]:
    known = [r for r in rows if r["wired_db"] is not None]
    if not known:
        return {
            "mic": mic, "drums": rows, "mean_db": None, "flipped_mean_db": None, "flip": False,
            "words": f"{mic} is the first: everything is heard against it.",
        }  # fmt: skip
    wired = float(np.mean([r["wired_db"] for r in known]))
    turned = float(np.mean([r["flipped_db"] for r in known]))
    flip = turned - wired >= HEARD_DB
    return {
        "mic": mic, "drums": rows, "mean_db": round(wired, 2), "flipped_mean_db": round(turned, 2),
        "flip": flip, "words": _words(mic, known, names, flip, turned - wired),
    }  # fmt: skip


def _words(
    mic: str, rows: list[dict[str, Any]], names: dict[str, str], flip: bool, more: float
) -> str:
    least = min(rows, key=lambda r: r["wired_db"])
    most = max(rows, key=lambda r: r["wired_db"])

    gives = f"gives {most['wired_db']:.1f} dB to the {names[most['source']].lower()}"
    takes = f"takes {-least['wired_db']:.1f} dB off the {names[least['source']].lower()}"

    if most["wired_db"] < HEARD_DB and least["wired_db"] > -HEARD_DB:
        text = f"{mic} changes no drum's body by {HEARD_DB:.0f} dB."
    elif least["wired_db"] <= -HEARD_DB and most["wired_db"] >= HEARD_DB:
        text = f"{mic} {gives} and {takes}."
    elif least["wired_db"] <= -HEARD_DB:
        text = f"{mic} {takes}."
    else:
        text = f"{mic} {gives}."
    if flip:
        text += f" Turned over it would be {more:.1f} dB fuller on average: flip it."
    return text
