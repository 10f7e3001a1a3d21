"""What hangs on a mic: stereo pairs, decisions, the technique it is of, the order of adding.

A mic that goes takes them along; a mic that gets another short name keeps them.
"""

from collections.abc import Set

from ringside.plan.layout import Layout
from ringside.plan.mics import Mic


def without_mics(layout: Layout, gone: Set[str]) -> Layout:
    """The layout less some mics and all that hangs on them.

    A technique that lost a mic is none any more: the mics that are left stand on their own.

    Parameters
    ----------
    gone : set of str
        Short names; those that are not there are passed over.

    Returns
    -------
    Layout
    """
    return layout.model_copy(
        update={
            "mics": tuple(m for m in layout.mics if m.id not in gone),
            "stereo_pairs": tuple(p for p in layout.stereo_pairs if not gone & {p.left, p.right}),
            "decisions": tuple(d for d in layout.decisions if not gone & {d.a, d.b}),
            "techniques": tuple(t for t in layout.techniques if not gone & set(t.mics)),
            "order": tuple(m for m in layout.order if m not in gone),
        }
    )


def renamed(layout: Layout, was: str, to: str) -> Layout:
    """The layout with one mic called otherwise; every mention of it follows.

    Parameters
    ----------
    layout : Layout
    was : str
        Short name so far.
    to : str
        Short name from now on.

    Returns
    -------
    Layout
    """

    def name(mic: str) -> str:
        return to if mic == was else mic

    pairs, decisions, techniques = layout.stereo_pairs, layout.decisions, layout.techniques
    return layout.model_copy(
        update={
            "mics": tuple(m.model_copy(update={"id": name(m.id)}) for m in layout.mics),
            "stereo_pairs": tuple(
                p.model_copy(update={"left": name(p.left), "right": name(p.right)}) for p in pairs
            ),
            "decisions": tuple(
                d.model_copy(update={"a": name(d.a), "b": name(d.b)}) for d in decisions
            ),
            "techniques": tuple(
                t.model_copy(update={"mics": tuple(name(m) for m in t.mics)}) for t in techniques
            ),
            "order": tuple(name(m) for m in layout.order),
        }
    )


def with_mics(layout: Layout, mics: tuple[Mic, ...]) -> Layout:
    """The layout with the mics of those names replaced.

    Parameters
    ----------
    layout : Layout
    mics : tuple of Mic

    Returns
    -------
    Layout
    """
    new = {m.id: m for m in mics}
    return layout.model_copy(update={"mics": tuple(new.get(m.id, m) for m in layout.mics)})


def with_flips(layout: Layout, mics: Set[str]) -> Layout:
    """The layout with the preamp switch of some mics turned over.

    Parameters
    ----------
    layout : Layout
    mics : set of str
        Short names.

    Returns
    -------
    Layout
    """
    return with_mics(layout, tuple(m.turned_over() for m in layout.mics if m.id in mics))
