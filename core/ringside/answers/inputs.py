"""The list of inputs: what is patched where, and what is to be switched on the way."""

from dataclasses import dataclass

from ringside.answers.sheet import SetupRow, setup_rows
from ringside.gear.headroom import Headroom, headroom
from ringside.gear.locker import Locker, MicModel, socket_of
from ringside.plan.layout import Layout


@dataclass(frozen=True, kw_only=True, slots=True)
class InputRow:
    """One track in the order of recording."""

    track: int
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
    """None where it is not known which mic it is."""
    pad_db: float | None
    """The one that lets hard hits fit; None for none."""
    gain_db: float | None
    """To begin with; None where the locker does not say enough."""
    low_cut_hz: float | None
    flips: list[str]
    stand: str


def input_rows(layout: Layout, locker: Locker) -> list[InputRow]:
    """Every mic that has an input, in order.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    list of InputRow
    """
    models = {m.id: m for m in locker.mics}
    stands = {s.id: s.name for s in locker.stands}
    levels = {h.mic: h for h in headroom(layout, locker)}
    return [
        _row(r, r.channel, models.get(r.model or ""), stands, locker, levels.get(r.id))
        for r in setup_rows(layout)
        if r.channel is not None
    ]


def _row(
    row: SetupRow, track: int, model: MicModel | None, stands: dict[str, str], locker: Locker,
    level: Headroom | None,
) -> InputRow:  # fmt: skip
    bank, socket = socket_of(locker, track) or (None, None)
    return InputRow(
        track=track,
        name=row.name,
        mic=row.id,
        model=model.name if model else row.model or "",
        pattern=row.pattern,
        bank=bank.name if bank else "",
        socket=socket,
        phantom=model.phantom if model else None,
        pad_db=level.pad_db if level else None,
        gain_db=level.gain_db if level else None,
        low_cut_hz=row.low_cut_hz,
        flips=row.flips,
        stand=stands.get(row.stand or "", row.stand or ""),
    )


def track_names(layout: Layout) -> list[str]:
    """What the tracks are called, in the order of recording; no two alike.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of str
        Those of the mics that have an input; of all where none has.
    """
    rows = setup_rows(layout)
    patched = [r for r in rows if r.channel is not None] or rows
    names = [r.name for r in patched]
    return [r.name if names.count(r.name) == 1 else f"{r.name} {r.id}" for r in patched]
