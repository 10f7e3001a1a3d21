"""Room techniques that stand in for each other: which of a layout could be options of one set."""

from typing import Final

from ringside.plan.balances import Option, OptionSet
from ringside.plan.layout import Layout

MOST_CHANNELS: Final = 8
"""Of one option."""
MOST_OPTIONS: Final = 12


def stand_ins(layout: Layout) -> OptionSet | None:
    """The room techniques as one set of options; None where there are not several.

    What is an option already is left out.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    OptionSet or None
    """
    rooms = {m.id for m in layout.mics if m.role == "room"}
    spoken = {c for s in layout.options for o in s.options for c in o.channels}
    options: dict[str, Option] = {}
    for t in layout.techniques:
        tracks = tuple(c.id for c in layout.channels if c.mic in t.mics)
        if not rooms.issuperset(t.mics) or spoken.intersection(tracks):
            continue
        if 0 < len(tracks) <= MOST_CHANNELS:
            name = " ".join(t.mics)
            options[name] = Option(name=name, channels=tracks)
    if len(options) < 2:
        return None
    taken = {s.id for s in layout.options}
    names = ("rooms", *(f"rooms-{n}" for n in range(2, len(taken) + 2)))
    free = next(n for n in names if n not in taken)
    return OptionSet(id=free, name="Rooms", options=tuple(options.values())[:MOST_OPTIONS])
