"""Patching done for one: which channel goes into which socket, by the rules of the trade.

What is plugged in and well stays where it is, and what is held is left alone; where that leaves
something without a good socket, all that is not held is plugged anew. Rules, the gravest first
(common practice; the weights between them are from memory):

- phantom for what needs it, and a ribbon never where the bank's one switch is on for another;
- an input that is not overloaded even at least gain, and has gain enough for what is soft;
- a cable that reaches;
- the two of a stereo pair side by side on one box, on matched inputs where there are some;
- the quietest inputs for ribbons; for the rest the order of the tracks, so that what is of one
  drum lies side by side.

Same layout and locker, same answer.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

from ringside.gear.headroom import TOO_SOFT_DB
from ringside.gear.leads import lead_m, turn_of
from ringside.gear.levels import SPREAD_DB, Peak, output_dbu, peaks
from ringside.gear.locker import InputBank, Locker, MicModel
from ringside.gear.phantom import hurt_by_phantom, phantom_of
from ringside.plan.channels import Channel
from ringside.plan.hanging import with_channels
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

Socket = tuple[int, InputBank]

GRAVE: Final = 1000.0
NO_PHANTOM, RIBBON_FED, OVER, SOFT, REACH = 4 * GRAVE, 4 * GRAVE, 2 * GRAVE, GRAVE, GRAVE
UNMATCHED: Final = 12.0
ONE_SLIP: Final = 20.0
"""A ribbon on a bank with one phantom switch: a slip of the hand reaches it, and nothing there may
want phantom any more."""

NOISE_PER_DB: Final = 1.0
"""For each decibel a ribbon's input is noisier than the quietest there is."""

OUT_OF_ORDER: Final = 0.2
"""For each socket away from where the order of the tracks would put it."""


@dataclass(frozen=True, kw_only=True, slots=True)
class PatchMove:
    """Channels that are plugged elsewhere, and why there."""

    channels: list[str]
    inputs: list[int]
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Patched:
    """A layout patched, what was moved, and what no socket was left for."""

    layout: Layout
    moves: list[PatchMove]
    without: list[str]
    words: str


class _Way(NamedTuple):
    """A channel as the rules see it."""

    channel: Channel
    mic: Mic
    model: MicModel | None
    peak: Peak
    place: int  # in the order of the tracks

    @property
    def ribbon(self) -> bool:
        return hurt_by_phantom(self.model)

    @property
    def fed(self) -> bool:
        return bool(phantom_of(self.channel, self.model))

    def output_dbu(self) -> float | None:
        """What comes out at a usual peak, with the pad that is in."""
        if self.model is None or self.model.sensitivity_mv_pa is None:
            return None
        bare = output_dbu(self.peak.middle_db, self.model.sensitivity_mv_pa)
        return bare - (self.mic.pad_db or 0.0)


def patch(layout: Layout, locker: Locker) -> Patched:
    """A layout with its channels plugged in as the trade would.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    Patched
    """
    sockets = [
        (n, bank) for n, bank in enumerate((b for b in locker.inputs for _ in range(b.count)), 1)
    ]
    board = _Board(layout, locker, sockets)
    kept = board.well_plugged()
    trial = board.filled(kept)
    if board.graves(trial) or len(trial) < len(layout.channels):
        anew = board.filled({w.channel.id: s for w, s in _held(board, kept)})
        if _better(board, anew, trial):
            trial = anew
    return _told(layout, board, trial)


def _held(board: "_Board", kept: dict[str, Socket]) -> list[tuple[_Way, Socket]]:
    """What is held, with its socket."""
    return [(w, kept[w.channel.id]) for w in board.ways if w.channel.fixed and w.channel.id in kept]


def _better(board: "_Board", one: dict[str, Socket], two: dict[str, Socket]) -> bool:
    """More plugged in, or as many with less that is grave: for less nothing good is pulled out."""
    return (-len(one), board.graves(one)) < (-len(two), board.graves(two))


class _Board:
    """Sockets and channels, and what it costs to plug the one into the other."""

    def __init__(self, layout: Layout, locker: Locker, sockets: list[Socket]) -> None:
        models = {m.id: m for m in locker.mics}
        loud = dict(zip([m.id for m in layout.mics], peaks(layout), strict=True))
        self.layout, self.sockets = layout, sockets
        self.at = {b.bank: b.position_m for b in layout.boxes}
        self.longest = max((c.length_m for c in locker.cables), default=None)
        noise = [b.noise_dbu for b in locker.inputs if b.noise_dbu is not None]
        self.quietest = min(noise, default=None)
        self.ways = [
            _Way(c, m, models.get(m.model or ""), loud[m.id], n)
            for n, c in enumerate(layout.channels)
            for m in (layout.mic(c.mic),)
        ]

    def well_plugged(self) -> dict[str, Socket]:
        """What is held, and what stands in a socket of its own without a grave fault."""
        by = dict(self.sockets)
        held = [w for w in self.ways if w.channel.fixed]
        rest = [w for w in self.ways if not w.channel.fixed]
        kept: dict[str, Socket] = {}
        taken = set[int]()
        for w in (*held, *rest):
            number = w.channel.input
            if number is None or number not in by or number in taken:
                continue
            socket = (number, by[number])
            if w.channel.fixed or self.grave(w, socket, kept) < GRAVE:
                kept[w.channel.id] = socket
                taken.add(number)
        return kept

    def filled(self, kept: dict[str, Socket]) -> dict[str, Socket]:
        """The same with everything else plugged in, the hardest to please first."""
        done = dict(kept)
        for unit in self.units(done):
            spots = self.spots(unit, done)
            if not spots and len(unit) > 1:
                if len(self.sockets) - len(done) < len(unit):
                    continue  # half of a pair is of no use
                for one in unit:
                    self._put((one,), self.spots((one,), done), done)
            else:
                self._put(unit, spots, done)
        return done

    def _put(
        self, unit: Sequence[_Way], spots: list[tuple[Socket, ...]], done: dict[str, Socket]
    ) -> None:
        if not spots:
            return
        best = min(spots, key=lambda s: (self.of_unit(unit, s, done), s[0][0]))
        done.update({w.channel.id: s for w, s in zip(unit, best, strict=True)})

    def units(self, done: dict[str, Socket]) -> list[tuple[_Way, ...]]:
        """What is still to be plugged in: stereo pairs as two, the others one by one."""
        free = {w.channel.id: w for w in self.ways if w.channel.id not in done}
        partner = {p.left: p.right for p in self.layout.stereo_pairs}
        first: dict[str, _Way] = {}
        for w in self.ways:
            first.setdefault(w.mic.id, w)
        units: list[tuple[_Way, ...]] = []
        used = set[str]()
        for w in free.values():
            mate = first.get(partner.get(w.mic.id, ""))
            if w.channel.id in used or any(w.mic.id == r for r in partner.values()):
                continue
            if first[w.mic.id] is w and mate and mate.channel.id in free:
                units.append((w, mate))
                used |= {w.channel.id, mate.channel.id}
            else:
                units.append((w,))
                used.add(w.channel.id)
        units += [(w,) for w in free.values() if w.channel.id not in used]
        return sorted(units, key=lambda u: (not u[0].ribbon, u[0].place))

    def spots(self, unit: Sequence[_Way], done: dict[str, Socket]) -> list[tuple[Socket, ...]]:
        """Free sockets for a unit; for two, side by side on one box."""
        taken = {n for n, _ in done.values()}
        free = [s for s in self.sockets if s[0] not in taken]
        if len(unit) == 1:
            return [(s,) for s in free]
        by = dict(free)
        return [
            (s, (s[0] + 1, s[1]))
            for s in free
            if by.get(s[0] + 1) is not None and by[s[0] + 1].id == s[1].id
        ]

    def of_unit(
        self, unit: Sequence[_Way], spots: Sequence[Socket], done: dict[str, Socket]
    ) -> float:
        others = {**done}
        cost = 0.0
        for w, s in zip(unit, spots, strict=True):
            cost += self.grave(w, s, others) + self.light(w, s)
            others[w.channel.id] = s
        if len(unit) > 1 and not spots[0][1].matched and any(b.matched for _, b in self.sockets):
            cost += UNMATCHED
        return cost

    def grave(self, w: _Way, socket: Socket, done: dict[str, Socket]) -> float:
        """What nobody would do."""
        _, bank = socket
        cost = NO_PHANTOM if w.fed and bank.phantom == "none" else 0.0
        if bank.phantom == "bank":
            beside = [x for x in self.ways if x is not w and self._in(x, bank, done)]
            if (w.ribbon and any(x.fed for x in beside)) or (
                w.fed and any(x.ribbon for x in beside)
            ):
                cost += RIBBON_FED
        cost += OVER if self.over_db(w, bank) > 0 else 0.0
        cost += SOFT if self.short_db(w, bank) > TOO_SOFT_DB else 0.0
        if self.longest is not None and bank.id in self.at:
            far = lead_m(w.mic.position_m, self.at[bank.id], turn_of(self.layout))
            cost += REACH if far > self.longest else 0.0
        return cost

    def _in(self, w: _Way, bank: InputBank, done: dict[str, Socket]) -> bool:
        found = done.get(w.channel.id)
        return found is not None and found[1].id == bank.id

    def over_db(self, w: _Way, bank: InputBank) -> float:
        """What hard hits are over at least gain; below 0 where they fit, or nobody knows."""
        out = w.output_dbu()
        if out is None or bank.max_level_dbu is None:
            return -1.0
        return out + SPREAD_DB - (w.channel.pad_db or 0.0) - bank.max_level_dbu

    def short_db(self, w: _Way, bank: InputBank) -> float:
        """Gain that is wanting; 0 where there is enough, or nobody knows."""
        out = w.output_dbu()
        if out is None or bank.full_scale_dbu is None or bank.most_gain_db is None:
            return 0.0
        wanted = bank.full_scale_dbu - self.layout.thresholds.under_full_db - out
        return max(wanted - bank.most_gain_db, 0.0)

    def light(self, w: _Way, socket: Socket) -> float:
        """What somebody would rather not."""
        number, bank = socket
        cost = OUT_OF_ORDER * abs(number - 1 - w.place) + max(self.over_db(w, bank), 0.0)
        cost += self.short_db(w, bank)
        cost += ONE_SLIP if w.ribbon and bank.phantom == "bank" else 0.0
        if w.ribbon and self.quietest is not None and bank.noise_dbu is not None:
            cost += NOISE_PER_DB * (bank.noise_dbu - self.quietest)
        return cost

    def graves(self, done: dict[str, Socket]) -> float:
        """What nobody would do, of the whole patch."""
        here = (w for w in self.ways if w.channel.id in done)
        return sum(self.grave(w, done[w.channel.id], done) for w in here)


def _told(layout: Layout, board: _Board, done: dict[str, Socket]) -> Patched:
    """The layout with the sockets that were found, and each move with its reason."""
    moves: list[PatchMove] = []
    changed: list[Channel] = []
    partner = {p.left: p.right for p in layout.stereo_pairs}
    by_mic = {w.mic.id: w for w in reversed(board.ways)}
    seen = set[str]()
    for w in board.ways:
        new = done.get(w.channel.id)
        number = new[0] if new else None
        if number == w.channel.input or w.channel.id in seen:
            continue
        unit = [w]
        mate = by_mic.get(partner.get(w.mic.id, ""))
        if new and mate and mate.channel.id in done:
            beside = done[mate.channel.id]
            if beside[0] == new[0] + 1 and beside[0] != mate.channel.input:
                unit.append(mate)
        seen |= {x.channel.id for x in unit}
        for x in unit:
            to = done.get(x.channel.id)
            changed.append(x.channel.model_copy(update={"input": to[0] if to else None}))
        if new:
            moves.append(_move(board, unit, new[1], [done[x.channel.id][0] for x in unit]))
    without = [w.channel.id for w in board.ways if w.channel.id not in done]
    return Patched(
        layout=with_channels(layout, tuple(changed)),
        moves=moves,
        without=without,
        words=_summary(moves, without),
    )


def _move(board: _Board, unit: list[_Way], bank: InputBank, inputs: list[int]) -> PatchMove:
    names = " and ".join(w.channel.id for w in unit)
    to = " and ".join(str(n) for n in inputs)
    return PatchMove(
        channels=[w.channel.id for w in unit],
        inputs=inputs,
        words=f"{names} into {bank.name}, input {to}: {_reason(board, unit, bank)}.",
    )


def _reason(board: _Board, unit: list[_Way], bank: InputBank) -> str:
    """The gravest rule that speaks for the place."""
    w = unit[0]
    other = [b for _, b in board.sockets if b.id != bank.id]
    if w.ribbon:
        if any(b.phantom == "bank" for b in other) and bank.phantom != "bank":
            return "a ribbon, away from the phantom that feeds a whole bank"
        if board.quietest is not None and bank.noise_dbu == board.quietest:
            return "a ribbon, on the quietest input"
    if w.fed and any(b.phantom == "none" for b in other):
        return "it wants phantom"
    if board.over_db(w, bank) <= 0 and any(board.over_db(w, b) > 0 for b in other):
        return f"hot where it stands, and this input takes {bank.max_level_dbu:+.0f} dBu"
    if board.short_db(w, bank) == 0 and any(board.short_db(w, b) > 0 for b in other):
        return "soft where it stands, and this input has the gain"
    if len(unit) > 1:
        return "a pair, on matched inputs side by side" if bank.matched else "a pair, side by side"
    return "the next free input in the order of the tracks"


def _summary(moves: list[PatchMove], without: list[str]) -> str:
    if not moves and not without:
        return "Everything is well plugged in: nothing was moved."
    count = sum(len(m.channels) for m in moves)
    said = [f"{count} track{'s' if count != 1 else ''} plugged in"] if moves else []
    if without:
        said.append(f"no input is left for {', '.join(without)}")
    words = "; ".join(said)
    return f"{words[0].upper()}{words[1:]}."
