"""How far each channel is up in the current balance, and whether somebody said so.

What nobody set is as usual for the role (common practice, the figures beside them), and said to
be that. Faders count against each other only: all of them moved together change nothing.
"""

from dataclasses import dataclass
from typing import Final, NamedTuple

from ringside.hear.bands import VOICES
from ringside.plan.balances import Balance, Fader
from ringside.plan.channels import Channel, Crush
from ringside.plan.feeds import feeds
from ringside.plan.kit import Drum
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.values import Vector

ROOM_DB: Final = -8.0
"""Room mics lie under the kit (common practice; the figure is from memory)."""

UNDER_TOM_DB: Final = -11.0
"""A bottom tom mic lies 10 to 12 dB under its top (common practice)."""

COPY_DB: Final = -10.0
"""A crushed copy is brought up under the clean one (common practice; the figure from memory)."""

SILENT_DB: Final = -120.0
"""What is muted, or not recorded, is as good as not there."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Up:
    """How far a channel is up."""

    id: str
    db: float
    heard: bool
    usual_db: float
    """What its role has where nobody sets it."""
    set: bool
    """Somebody set its level in this balance."""
    why: str
    """Why it is not heard, or what the usual level is of; empty where neither wants a word."""


def current_balance(layout: Layout) -> Balance | None:
    """The balance that is judged; None where it is the usual one.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Balance or None
    """
    return next((b for b in layout.balances if b.id == layout.current), None)


def ups(layout: Layout) -> list[Up]:
    """How far every channel is up in the current balance.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of Up
        In the order of the tracks.
    """
    return [
        Up(
            id=id_,
            db=u.db,
            heard=not u.off,
            usual_db=u.usual_db,
            set=u.set_db is not None,
            why=u.off or u.why,
        )
        for id_, u in _levels(layout).items()
    ]


class _Level(NamedTuple):
    """A channel's level, before it is put into words for anybody."""

    usual_db: float
    set_db: float | None
    off: str
    why: str

    @property
    def db(self) -> float:
        return self.usual_db if self.set_db is None else self.set_db


def _levels(layout: Layout) -> dict[str, _Level]:
    """The level of every channel by its name, in the order of the tracks."""
    balance = current_balance(layout)
    faders = {f.channel: f for f in balance.faders} if balance else {}
    role, spare, first = _Usual(layout), _spare(layout), set[str]()
    made, mics = {}, {m.id: m for m in layout.mics}
    # A layout under work may be less some mics for a while.
    for c in (c for c in layout.channels if c.mic in mics):
        usual, why = role.of(mics[c.mic], c.mic in first)
        first.add(c.mic)
        fader = faders.get(c.id)
        off = _off(fader, spare.get(c.id, ""))
        made[c.id] = _Level(usual, fader.db if fader else None, off, why)
    return made


def _off(fader: Fader | None, spare: str) -> str:
    """Why a channel is not heard; empty where it is."""
    if fader is not None and fader.muted is not None:
        return "muted" if fader.muted else ""
    return spare


class _Usual:
    """What each role has in this layout where nobody sets it."""

    def __init__(self, layout: Layout) -> None:
        self.under = _under_tops(layout)
        self.loudest = max(VOICES[d.kind].peak_db for d in layout.kit.drums)
        self.cymbals = {c.id: VOICES[c.kind].peak_db for c in layout.kit.cymbals}

    def of(self, mic: Mic, copy: bool) -> tuple[float, str]:
        if copy:
            return COPY_DB, "a copy, under the first of its mic"
        if mic.role == "room":
            return ROOM_DB, "a room mic, under the kit"
        if mic.id in self.under:
            return UNDER_TOM_DB, "under a tom that has a mic on top"
        if mic.role == "close" and mic.job in self.cymbals:
            return self.cymbals[mic.job] - self.loudest, "a cymbal's own mic, as it is to the drums"
        return 0.0, ""


def _spare(layout: Layout) -> dict[str, str]:
    """Channels of options that are not the first of their set, with the one that is used."""
    return {
        c: f"{s.options[0].name} is used of {s.name}"
        for s in layout.options
        for o in s.options[1:]
        for c in o.channels
    }


def _under_tops(layout: Layout) -> set[str]:
    """The mics under a tom that has one on top."""
    toms = {d.id: d for d in layout.kit.drums if d.kind in ("rack", "floor")}
    under: dict[str, str] = {}
    over = set[str]()
    for m in layout.mics:
        drum = toms.get(m.job or "")
        if drum is None or m.role != "close":
            continue
        if _is_under(drum, m.position_m):
            under[m.id] = drum.id
        else:
            over.add(drum.id)
    return {m for m, drum in under.items() if drum in over}


def _is_under(drum: Drum, spot: Vector) -> bool:
    """Whether a spot lies beyond the middle of the shell, seen from the struck head."""
    off = sum((p - c) * a for p, c, a in zip(spot, drum.batter_m, drum.axis, strict=True))
    return off < -drum.depth_m / 2


@dataclass(frozen=True, slots=True)
class Voice:
    """One channel of a mic, as it is heard: against the mic's first channel, and by its fader."""

    sign: int
    db: float
    crush: Crush | None
    low_cut_hz: float


class Mixed(NamedTuple):
    """A mic as it is heard in the current balance."""

    first: Channel | None
    """What leads: its first channel that is heard, or just its first."""
    heard: bool
    db: float
    """Its fader; against the highest of all that is heard."""
    voices: tuple[Voice, ...]
    """Where it is more than one channel by its fader: all that are heard."""


def mixed(layout: Layout) -> list[Mixed]:
    """Every mic as it is heard.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    list of Mixed
        In the order of the mics.
    """
    if not layout.channels:  # no tracks yet: as if all were recorded
        usual = _Usual(layout)
        levels = [usual.of(m, False)[0] for m in layout.mics]
        return [Mixed(None, True, db - max(levels), ()) for db in levels]
    every = _levels(layout)
    top = max((u.db for u in every.values() if not u.off), default=0.0)
    return [_mixed(f.channels, every, top) for f in feeds(layout)]


def _mixed(channels: tuple[Channel, ...], levels: dict[str, _Level], top: float) -> Mixed:
    on = [c for c in channels if not levels[c.id].off]
    if not on:
        return Mixed(channels[0] if channels else None, False, SILENT_DB, ())
    lead = on[0]
    level = levels[lead.id].db - top
    if len(on) == 1 and lead.crush is None:
        return Mixed(lead, True, level, ())
    voices = [
        Voice(c.sign * lead.sign, levels[c.id].db - top, c.crush, c.low_cut_hz or 0.0) for c in on
    ]
    return Mixed(lead, True, level, tuple(voices))
