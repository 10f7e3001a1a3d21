"""What is wrong with a patch, in words: sockets, phantom, pads, levels, splits, cables.

What a layout does not name is not counted, and what the locker does not say is not guessed.
"""

from collections import Counter
from dataclasses import dataclass

from ringside.gear.headroom import Headroom
from ringside.gear.lacks import LackRow, lack
from ringside.gear.leads import Lead, laid, leads
from ringside.gear.locker import InputBank, Locker, MicModel, bank_of
from ringside.gear.phantom import hurt_by_phantom, phantom_of
from ringside.plan.channels import Channel
from ringside.plan.feeds import feeds
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic


@dataclass(frozen=True, slots=True)
class Plugged:
    """A channel with what it comes from and where it goes, as far as the locker knows them."""

    channel: Channel
    mic: Mic
    model: MicModel | None
    bank: InputBank | None

    @property
    def wants_phantom(self) -> bool:
        """Whether its mic does not work without."""
        return bool(self.model and self.model.phantom)

    @property
    def fed(self) -> bool:
        """Whether its input gives phantom, as far as is known."""
        return bool(phantom_of(self.channel, self.model))

    @property
    def ribbon(self) -> bool:
        """Whether its mic is one that phantom can hurt."""
        return hurt_by_phantom(self.model)


def plugged(layout: Layout, locker: Locker) -> list[Plugged]:
    """Every channel with its mic and its bank, in the order of the tracks.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    list of Plugged
    """
    models = {m.id: m for m in locker.mics}
    mics = {m.id: m for m in layout.mics}
    return [
        Plugged(c, mics[c.mic], models.get(mics[c.mic].model or ""), bank_of(locker, c.input))
        for c in layout.channels
    ]


def cables_wanted(layout: Layout) -> int:
    """One for every mic: what is split is split at the inputs.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    int
    """
    return len(layout.mics)


def patch_lacks(layout: Layout, locker: Locker, levels: list[Headroom]) -> list[LackRow]:
    """All that is wrong between the mics and the tracks.

    Parameters
    ----------
    layout : Layout
    locker : Locker
    levels : list of Headroom
        Of this layout with this locker.

    Returns
    -------
    list of LackRow
    """
    rows = plugged(layout, locker)
    return [
        *_sockets(layout, locker),
        *_phantom(rows),
        *_pads(rows),
        *_splits(layout),
        *_cables(layout, locker),
        *_levels(levels),
    ]


def _sockets(layout: Layout, locker: Locker) -> list[LackRow]:
    lacks: list[LackRow] = []
    for number, n in Counter(c.input for c in layout.channels if c.input).items():
        if n > 1:
            who = [c for c in layout.channels if c.input == number]
            words = f"Input {number} is taken by {' and '.join(c.id for c in who)}."
            lacks.append(lack("inputs", words, *dict.fromkeys(c.mic for c in who)))
    total = sum(b.count for b in locker.inputs)
    if not total:
        return lacks
    over = [c for c in layout.channels if c.input and c.input > total]
    if over:
        words = f"{len(over)} input{_s(len(over))} short: there are {total}."
        lacks.append(lack("inputs", words, *dict.fromkeys(c.mic for c in over)))
    elif len(layout.channels) > total:
        short = len(layout.channels) - total
        tracks = len(layout.channels)
        words = f"{short} more track{_s(short)} than inputs: {tracks} tracks, {total} inputs."
        lacks.append(lack("inputs", words))
    return lacks


def _s(count: int) -> str:
    return "" if count == 1 else "s"


def _phantom(rows: list[Plugged]) -> list[LackRow]:
    lacks: list[LackRow] = []
    for r in rows:
        if r.bank is None or r.model is None:
            continue
        name = r.channel.id
        if r.wants_phantom and r.bank.phantom == "none":
            words = f"{name} wants phantom, and {r.bank.name} has none."
        elif r.wants_phantom and not r.fed:
            words = f"{name} wants phantom, and it is off at its input: switch it on."
        elif r.ribbon and r.fed:
            words = f"{name} is a ribbon with phantom on: switch it off before you plug it in."
        elif r.ribbon and r.bank.phantom == "bank" and _bank_feeds(rows, r.bank):
            words = (
                f"{name} is a ribbon on {r.bank.name}, whose phantom is on for all its inputs:"
                " patch it elsewhere."
            )
        else:
            continue
        lacks.append(lack("phantom", words, r.mic.id))
    return lacks


def _bank_feeds(rows: list[Plugged], bank: InputBank) -> bool:
    """Whether another mic on the bank has its phantom on."""
    return any(r.bank is bank and r.fed for r in rows)


def _pads(rows: list[Plugged]) -> list[LackRow]:
    """Pads that are switched in and are not there."""
    lacks: list[LackRow] = []
    for r in rows:
        has = r.model.pads_db if r.model else ()
        if r.model and r.mic.pad_db is not None and r.mic.pad_db not in has:
            words = f"{r.mic.id}: the {r.model.name} has no {r.mic.pad_db:g} dB pad; {_have(has)}."
            if words not in [x.words for x in lacks]:
                lacks.append(lack("level", words, r.mic.id))
        at = r.bank.pads_db if r.bank else ()
        if r.bank and r.channel.pad_db is not None and r.channel.pad_db not in at:
            words = (
                f"{r.channel.id}: {r.bank.name} has no {r.channel.pad_db:g} dB pad; {_have(at)}."
            )
            lacks.append(lack("level", words, r.mic.id))
    return lacks


def _have(pads: tuple[float, ...]) -> str:
    return f"it has {' or '.join(f'{p:g}' for p in sorted(pads))} dB" if pads else "it has none"


def _splits(layout: Layout) -> list[LackRow]:
    """Copies of one capsule are at one place: turned against each other they cancel, shifted they
    comb. The side of a mid-side pair is turned over once on purpose, for the other speaker."""
    sides = {p.right for p in layout.stereo_pairs if p.coding == "mid-side"}
    lacks: list[LackRow] = []
    for f in feeds(layout):
        if len(f.channels) < 2:
            continue
        names = " and ".join(c.id for c in f.channels)
        opposite = len({c.sign for c in f.channels}) > 1
        if f.mic.id in sides and len(f.channels) == 2:
            lacks += _decoded(f.mic.id, f.channels)
        elif opposite:
            words = f"{names} are of one mic and turned against each other: they cancel. Flip one."
            lacks.append(lack("splits", words, f.mic.id))
        if len({c.track_delay_samples for c in f.channels}) > 1:
            words = f"{names} are of one mic and delayed unlike each other: they comb."
            lacks.append(lack("splits", words, f.mic.id))
    return lacks


def _decoded(mic: str, channels: tuple[Channel, ...]) -> list[LackRow]:
    """The two tracks of a side: one the other way over, each in a speaker of its own."""
    one, two = channels
    names = f"{one.id} and {two.id}"
    if one.sign == two.sign:
        words = f"{names} are both sides of {mic}: to decode it, flip one of them."
        return [lack("splits", words, mic)]
    pans = sorted(c.pan or 0.0 for c in channels)
    if pans != [-100.0, 100.0]:
        words = f"{names} decode {mic}: pan one hard left, the other hard right."
        return [lack("splits", words, mic)]
    return []


def _cables(layout: Layout, locker: Locker) -> list[LackRow]:
    if not locker.cables:
        return []
    there, wanted = sum(c.count for c in locker.cables), cables_wanted(layout)
    lacks: list[LackRow] = []
    if wanted > there:
        words = f"{wanted - there} cable{_s(wanted - there)} short: there are {there}."
        lacks.append(lack("cables", words))
    lacks += [_short(x, locker) for x in laid(leads(layout, locker), locker).short]
    return lacks


def _short(lead: Lead, locker: Locker) -> LackRow:
    longest = max(c.length_m for c in locker.cables)
    words = f"{lead.mic} is {lead.metres:.1f} m from {lead.bank} along the floor, stand and slack"
    if lead.metres > longest:
        words += f" counted; the longest cable is {longest:g} m. Couple two, or take a nearer box."
    else:
        words += " counted; the cables that reach it are all in use."
    return lack("cables", words, lead.mic)


def _levels(levels: list[Headroom]) -> list[LackRow]:
    """Channels that a usual peak overloads, or that stay far too soft.

    What only hard hits do is told at the mic itself.
    """
    wrong = (h for h in levels if h.state == "overloads" or h.too_soft)
    return [lack("level", f"{h.channel or h.mic}: {h.words}", h.mic) for h in wrong]
