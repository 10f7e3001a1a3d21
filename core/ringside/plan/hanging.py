"""What hangs on a mic: channels, pairs, decisions, lines put off, technique, faders, the order.

A mic that goes takes them along; a mic that gets another short name keeps them. The same holds
for a channel.
"""

from collections.abc import Callable, Sequence, Set
from typing import Any

from ringside.plan.balances import Balance, Option, OptionSet
from ringside.plan.channels import LAST_INPUT, MOST_CHANNELS, Channel
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic


def with_tracks(layout: Layout) -> Layout:
    """The layout with a track for every mic that has none, plugged into the next inputs.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Layout
    """
    has = {c.mic for c in layout.channels}
    new = list(layout.channels)
    for m in (m for m in layout.mics if m.id not in has):
        if len(new) < MOST_CHANNELS:
            new.append(track_of(new, m))
    return layout.model_copy(update={"channels": tuple(new)})


def track_of(others: Sequence[Channel], mic: Mic) -> Channel:
    """One more track of a mic: its own where it has none, else a copy; in the next input.

    Parameters
    ----------
    others : sequence of Channel
        Those that there are.
    mic : Mic

    Returns
    -------
    Channel
    """
    taken, n = {c.id for c in others}, 2
    id_ = mic.id
    while id_ in taken:
        id_, n = f"{mic.id[:13]}.{n}", n + 1
    last = max((c.input or 0 for c in others), default=0)
    old = next((c for c in others if c.mic == mic.id), None)
    if old is not None:
        copy = {"id": id_, "name": f"{old.name[:70]} copy", "input": None}
        return old.model_copy(update=copy)
    return Channel(id=id_, name=mic.name, mic=mic.id, input=last + 1 if last < LAST_INPUT else None)


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
    fewer = without_channels(layout, {c.id for c in layout.channels if c.mic in gone})
    return fewer.model_copy(
        update={
            "mics": tuple(m for m in layout.mics if m.id not in gone),
            "stereo_pairs": tuple(p for p in layout.stereo_pairs if not gone & {p.left, p.right}),
            "decisions": tuple(d for d in layout.decisions if not gone & {d.a, d.b}),
            "set_aside": tuple(s for s in layout.set_aside if not gone & set(s.of)),
            "techniques": tuple(t for t in layout.techniques if not gone & set(t.mics)),
            "order": tuple(m for m in layout.order if m not in gone),
        }
    )


def without_channels(layout: Layout, gone: Set[str]) -> Layout:
    """The layout less some channels and what hangs on them; their mics stay up.

    An option that lost a channel is used with the others; a set with one option left is none.

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
            "channels": tuple(c for c in layout.channels if c.id not in gone),
            "options": tuple(s for o in layout.options if (s := _fewer(o, gone))),
            "balances": tuple(
                b.model_copy(update={"faders": tuple(f for f in b.faders if f.channel not in gone)})
                for b in layout.balances
            ),
        }
    )


def _fewer(options: OptionSet, gone: Set[str]) -> OptionSet | None:
    left = [
        o.model_copy(update={"channels": kept})
        for o in options.options
        if (kept := tuple(c for c in o.channels if c not in gone))
    ]
    return options.model_copy(update={"options": tuple(left)}) if len(left) > 1 else None


def renamed(layout: Layout, was: str, to: str) -> Layout:
    """The layout with one mic called otherwise; every mention of it follows.

    A channel of the same short name is called otherwise with it.

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

    def name(of: str) -> str:
        return to if of == was else of

    def each(rows: tuple[Any, ...], **fields: Callable[[str], Any]) -> tuple[Any, ...]:
        return tuple(
            r.model_copy(update={f: change(getattr(r, f)) for f, change in fields.items()})
            for r in rows
        )

    def option(o: Option) -> Option:
        return o.model_copy(update={"channels": tuple(map(name, o.channels))})

    def set_of(s: OptionSet) -> OptionSet:
        return s.model_copy(update={"options": tuple(map(option, s.options))})

    def balance(b: Balance) -> Balance:
        return b.model_copy(update={"faders": each(b.faders, channel=name)})

    return layout.model_copy(
        update={
            "mics": each(layout.mics, id=name),
            "channels": each(layout.channels, id=name, mic=name),
            "stereo_pairs": each(layout.stereo_pairs, left=name, right=name),
            "decisions": each(layout.decisions, a=name, b=name),
            "set_aside": each(layout.set_aside, of=lambda of: tuple(map(name, of))),
            "techniques": each(layout.techniques, mics=lambda mics: tuple(map(name, mics))),
            "order": tuple(map(name, layout.order)),
            "options": tuple(map(set_of, layout.options)),
            "balances": tuple(map(balance, layout.balances)),
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


def with_channels(layout: Layout, channels: tuple[Channel, ...]) -> Layout:
    """The layout with the channels of those names replaced.

    Parameters
    ----------
    layout : Layout
    channels : tuple of Channel

    Returns
    -------
    Layout
    """
    new = {c.id: c for c in channels}
    every = tuple(new.get(c.id, c) for c in layout.channels)
    return layout.model_copy(update={"channels": every})


def with_flips(layout: Layout, mics: Set[str]) -> Layout:
    """The layout with some mics turned over, at the preamp of every channel they feed.

    Parameters
    ----------
    layout : Layout
    mics : set of str
        Short names.

    Returns
    -------
    Layout
    """
    return with_channels(layout, tuple(c.turned_over() for c in layout.channels if c.mic in mics))
