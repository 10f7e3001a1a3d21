"""Mics that are one thing in a mix: a stereo pair, a room on its bar, all spots of a drum."""

from dataclasses import dataclass

from ringside.plan.layout import Layout


@dataclass(frozen=True, kw_only=True, slots=True)
class Unit:
    """One unit: what it is called, and its mics."""

    name: str
    mics: list[str]


def units(layout: Layout) -> list[Unit]:
    """Every mic in one unit, in the order of the layout.

    Spots of one drum or cymbal are a unit by the name of that; overheads and rooms are one as the
    pair, or the technique, that they are of.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of Unit
    """
    names = {p.id: p.name for p in layout.kit.parts}
    groups: dict[str, list[str]] = {}
    called: dict[str, str] = {}
    for m in layout.mics:
        own = _group(layout, m.id)
        if m.role == "close" and m.job:
            key = f"of {m.job}"
            called[key] = names.get(m.job, m.job)
        else:
            key = own or m.id
        groups.setdefault(key, []).append(m.id)
    return [
        Unit(name=called.get(key, "") if len(mics) > 1 and key in called else " ".join(mics),
             mics=mics)
        for key, mics in groups.items()
    ]  # fmt: skip


def _group(layout: Layout, mic: str) -> str:
    """What an overhead or room mic belongs to: its technique, else its stereo pair."""
    role = layout.mic(mic).role
    for t in layout.techniques:
        if mic in t.mics and all(layout.mic(m).role == role for m in t.mics):
            return f"technique {t.id}"
    for n, p in enumerate(layout.stereo_pairs):
        if mic in (p.left, p.right):
            return f"pair {n}"
    return ""
