"""The list of inputs: what is patched where, and what is to be switched on the way."""

from dataclasses import dataclass

from ringside.gear.headroom import Headroom, headroom
from ringside.gear.locker import Locker, socket_of
from ringside.gear.phantom import phantom_of
from ringside.plan.channels import Channel
from ringside.plan.feeds import Feed
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic


@dataclass(frozen=True, kw_only=True, slots=True)
class InputRow:
    """One track in the order of recording."""

    track: int
    input: int | None
    """Counted on from box to box; None where it is not plugged in."""
    name: str
    mic: str
    model: str
    """As the locker calls it; its key where that has none of it, empty where none is chosen."""
    pattern: str
    bank: str
    """The preamps, empty where the locker has not got that many."""
    socket: int | None
    """Within the bank, from 1."""
    phantom: bool | None
    """None where it is not known which mic it is and nobody said."""
    pad_db: float | None
    """The one that is in at the mic, or the one that lets hard hits fit; None for none."""
    input_pad_db: float | None
    gain_db: float | None
    """As set, or to begin with; None where the locker does not say enough."""
    low_cut_hz: float | None
    crushed: bool
    flips: list[str]
    stand: str
    split_of: str
    """The track whose mic it shares; empty for a mic's first."""


def input_rows(layout: Layout, locker: Locker) -> list[InputRow]:
    """Every track, in the order of recording.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    list of InputRow
    """
    levels = {h.channel: h for h in headroom(layout, locker)}
    first: dict[str, str] = {}
    rows = []
    for n, c in enumerate(layout.channels, 1):
        of = first.setdefault(c.mic, c.name)
        split = of if of is not c.name else ""
        rows.append(_row(n, c, layout.mic(c.mic), locker, levels.get(c.id), split))
    return rows


def _row(
    track: int, channel: Channel, mic: Mic, locker: Locker, level: Headroom | None, split: str
) -> InputRow:
    bank, socket = socket_of(locker, channel.input) or (None, None)
    model = next((m for m in locker.mics if m.id == mic.model), None)
    stand = next((s.name for s in locker.stands if s.id == mic.stand), mic.stand or "")
    begin = level.gain_db if level else None
    return InputRow(
        track=track,
        input=channel.input,
        name=channel.name,
        mic=mic.id,
        model=model.name if model else mic.model or "",
        pattern=mic.pattern,
        bank=bank.name if bank else "",
        socket=socket,
        phantom=phantom_of(channel, model),
        pad_db=mic.pad_db if mic.pad_db is not None else (level.pad_db if level else None),
        input_pad_db=channel.pad_db,
        gain_db=channel.gain_db if channel.gain_db is not None else begin,
        low_cut_hz=channel.low_cut_hz,
        crushed=channel.crush is not None,
        flips=Feed(mic, (channel,)).on_the_way(),
        stand=stand,
        split_of=split,
    )


def track_names(layout: Layout) -> list[str]:
    """What the tracks are called, in the order of recording; no two alike.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of str
        Those of the mics where there are no tracks yet.
    """
    rows = [(c.name, c.id) for c in layout.channels] or [(m.name, m.id) for m in layout.mics]
    names = [name for name, _ in rows]
    return [name if names.count(name) == 1 else f"{name} {id_}" for name, id_ in rows]
