"""The order in which tracks are looked for: a list is read by people who did not make it.

Kick, snare, hats, toms, the other cymbals, overheads, rooms; left before right, in before out and
over before under (common practice). Some put the hats after the toms: where they are so already
they stay there.
"""

from math import dist
from typing import Final, NamedTuple

from ringside.plan.channels import Channel
from ringside.plan.drumframe import Side, against, side_of
from ringside.plan.kit import Cymbal, Drum
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

KINDS: Final = (
    "kick", "snare", "hats", "rack", "floor", "hand drum", "ride", "crash", "splash", "china",
    "percussion",
)  # fmt: skip
TOMS: Final = ("rack", "floor", "hand drum")
WHOLE_KIT, OVERHEAD, ROOM = len(KINDS), len(KINDS) + 1, len(KINDS) + 2

AT_KICK: Final[tuple[Side, ...]] = ("inside", "under", "beside", "over")
AT_OTHERS: Final[tuple[Side, ...]] = ("over", "inside", "beside", "under")
"""Top mics before bottom mics; at a kick the one inside, then those in front of it."""

NEAR_M: Final = 0.1
"""Room mics that are so much alike in distance are equally far."""


class _Where(NamedTuple):
    """Where in the list one mic or one stereo pair belongs; first what is lowest."""

    group: int
    part: int
    side: int
    single: bool
    far: float
    first: int


def usual_mics(layout: Layout) -> tuple[Mic, ...]:
    """The mics of a layout in the order their tracks are looked for.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    tuple of Mic

    Examples
    --------
    >>> from ringside.plan.kits import five_piece
    >>> from ringside.plan.layout import Layout
    >>> mic = lambda id, job, z: Mic(id=id, name=id, job=job, position_m=(0, 0, z), aim=(0, 0, -1))
    >>> mics = (mic("SB", "snare", 0.3), mic("ST", "snare", 0.8), mic("KI", "kick", 0.3))
    >>> [m.id for m in usual_mics(Layout(name="L", kit=five_piece(), mics=mics))]
    ['KI', 'ST', 'SB']
    """
    kinds = _kinds(layout)
    units = sorted(_units(layout), key=lambda unit: _where(layout, kinds, unit))
    return tuple(m for unit in units for m in unit)


def usual_channels(layout: Layout) -> tuple[Channel, ...]:
    """The channels of a layout in that order; copies of one mic together, as they were.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    tuple of Channel
    """
    place = {m.id: n for n, m in enumerate(usual_mics(layout))}
    return tuple(sorted(layout.channels, key=lambda c: place[c.mic]))


def as_usual(layout: Layout) -> Layout:
    """A layout nobody has patched yet, its mics and tracks in that order from the first input on.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Layout
    """
    inputs = iter(sorted(c.input for c in layout.channels if c.input))
    channels = tuple(
        c.model_copy(update={"input": next(inputs)}) if c.input else c
        for c in usual_channels(layout)
    )
    return layout.model_copy(update={"mics": usual_mics(layout), "channels": channels})


def _kinds(layout: Layout) -> tuple[str, ...]:
    """The kinds in their order, the hats after the toms where this layout has them so."""
    jobs = [layout.kit.part(m.job).kind for m in layout.mics if m.role == "close" and m.job]
    toms = [n for n, kind in enumerate(jobs) if kind in TOMS]
    if "hats" not in jobs or not toms or jobs.index("hats") < max(toms):
        return KINDS
    others = [k for k in KINDS if k != "hats"]
    after = max(others.index(k) for k in TOMS) + 1
    return (*others[:after], "hats", *others[after:])


def _units(layout: Layout) -> list[tuple[Mic, ...]]:
    """Stereo pairs of one job, left first, and every other mic by itself; each mic once."""
    pairs: dict[str, tuple[Mic, ...]] = {}
    paired: set[str] = set()
    for p in layout.stereo_pairs:
        left, right = layout.mic(p.left), layout.mic(p.right)
        alike = (left.role, left.job) == (right.role, right.job)
        if alike and paired.isdisjoint((p.left, p.right)):
            pairs[p.left] = (left, right)
            paired |= {p.left, p.right}
    return [pairs.get(m.id, (m,)) for m in layout.mics if m.id in pairs or m.id not in paired]


def _where(layout: Layout, kinds: tuple[str, ...], unit: tuple[Mic, ...]) -> _Where:
    lead, ids = unit[0], [m.id for m in layout.mics]
    single, first = len(unit) == 1, min(ids.index(m.id) for m in unit)
    if lead.role != "close" or lead.job is None:
        group = {"overhead": OVERHEAD, "room": ROOM}.get(lead.role, WHOLE_KIT)
        far = dist(lead.position_m, layout.kit.first("snare").batter_m) if group == ROOM else 0.0
        return _Where(group, 0, 0, single, round(far / NEAR_M), first)
    part = layout.kit.part(lead.job)
    n = layout.kit.source_ids.index(lead.job)
    return _Where(kinds.index(part.kind), n, _side(part, lead), False, _far(part, lead), first)


def _side(part: Drum | Cymbal, mic: Mic) -> int:
    order = AT_KICK if part.kind == "kick" else AT_OTHERS
    return order.index(side_of(part, mic.position_m))


def _far(part: Drum | Cymbal, mic: Mic) -> float:
    """In front of a kick the nearer before the further; at others they stay as they were."""
    if part.kind != "kick":
        return 0.0
    return round(max(float(against(part, mic.position_m).behind), 0.0), 2)
