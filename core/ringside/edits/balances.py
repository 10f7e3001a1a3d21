"""Edits of what is up in the mix: faders, balances, options."""

from typing import Annotated, Final, Literal

from pydantic import Field

from ringside.edits.channels import channel_of
from ringside.edits.edited import Edited, checked
from ringside.errors import RingsideError
from ringside.hear.mix import current_balance, ups
from ringside.hear.standins import stand_ins
from ringside.plan.balances import (
    HIGHEST_DB,
    LOWEST_DB,
    MOST_BALANCES,
    MOST_SETS,
    Balance,
    Fader,
    Level,
    OptionSet,
)
from ringside.plan.layout import Layout
from ringside.values import Key, Record, Text, Title

FIRST_NAME: Final = "Balance 1"
MOST_FADE_DB: Final = HIGHEST_DB - LOWEST_DB
STEP_DB: Final = 0.5
"""What faders are set to: nobody hears less."""


class SetFaders(Record):
    """Faders of the current balance as they should be; with none current, a first one is begun."""

    do: Literal["faders"]
    faders: Annotated[tuple[Fader, ...], Field(min_length=1, max_length=64)]
    why: Text = ""

    def on(self, layout: Layout) -> Edited:
        """The layout with these faders.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return Edited(with_faders(layout, self.faders), self.why or _words(self.faders), ())


class Fade(Record):
    """One fader moved, and those of its group with it by as much; to no level is to its usual."""

    do: Literal["fade"]
    channel: Key
    to_db: Level | None = None
    by_db: Annotated[float, Field(strict=True, ge=-MOST_FADE_DB, le=MOST_FADE_DB)] | None = None

    def on(self, layout: Layout) -> Edited:
        """The layout with the fader and its group moved, within the ends of a fader.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        own = channel_of(layout, self.channel)
        at = {u.id: u for u in ups(layout)}
        here = at[own.id]
        if self.by_db is not None:
            by = self.by_db
        else:
            by = (here.usual_db if self.to_db is None else self.to_db) - here.db
        group = [c.id for c in layout.channels if c.group and c.group == own.group] or [own.id]
        faders = tuple(Fader(channel=c, db=_within(at[c].db + by)) for c in group)
        return Edited(with_faders(layout, faders), _words(faders), ())


class RoomOptions(Record):
    """The room techniques as options of one set, where there are several."""

    do: Literal["room-options"]

    def on(self, layout: Layout) -> Edited:
        """The layout with the set added.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When there are not several, or they are options already.
        """
        rooms = stand_ins(layout)
        if rooms is None:
            raise RingsideError(
                "expected two or more room techniques with tracks that are no options yet"
            )
        return Edited(
            checked(layout, options=(*layout.options, rooms)), "Made the rooms options", ()
        )


class AddBalance(Record):
    """One more balance, like the current one, and current from now on."""

    do: Literal["add-balance"]
    name: Title

    def on(self, layout: Layout) -> Edited:
        """The layout with the balance at its end.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        like = current_balance(layout)
        made = _begun(layout, self.name, like.faders if like else ())
        done = checked(layout, balances=(*layout.balances, made), current=made.id)
        return Edited(done, f"Balance {self.name}", (), made.id)


class NameBalance(Record):
    """A balance under another name."""

    do: Literal["name-balance"]
    id: Key
    name: Title

    def on(self, layout: Layout) -> Edited:
        """The layout with the balance called otherwise.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        old = _balance(layout, self.id)
        new = old.model_copy(update={"name": self.name})
        return Edited(_with(layout, new), f"Renamed {old.name} to {self.name}", ())


class RemoveBalance(Record):
    """Without a balance; where it was current, the usual one is."""

    do: Literal["remove-balance"]
    id: Key

    def on(self, layout: Layout) -> Edited:
        """The layout without it.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        old = _balance(layout, self.id)
        left = tuple(b for b in layout.balances if b.id != self.id)
        current = None if layout.current == self.id else layout.current
        return Edited(checked(layout, balances=left, current=current), f"Took {old.name} away", ())


class UseBalance(Record):
    """A balance as the current one; none is the usual for each role."""

    do: Literal["use-balance"]
    id: Key | None

    def on(self, layout: Layout) -> Edited:
        """The layout judged under it.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        name = "the usual balance" if self.id is None else _balance(layout, self.id).name
        return Edited(checked(layout, current=self.id), f"Under {name}", ())


class SetOptions(Record):
    """All sets of options as they should be."""

    do: Literal["options"]
    options: tuple[OptionSet, ...] = Field(max_length=MOST_SETS)

    def on(self, layout: Layout) -> Edited:
        """The layout with these sets.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return Edited(checked(layout, options=self.options), "Changed the options", ())


class ChooseOptions(Record):
    """The options of a set that are used in the current balance, by name; the others are off."""

    do: Literal["choose"]
    set: Key
    used: tuple[Title, ...] = Field(max_length=12)

    def on(self, layout: Layout) -> Edited:
        """The layout with these options up.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When the set or an option is not there.
        """
        chosen = next((s for s in layout.options if s.id == self.set), None)
        if chosen is None:
            raise RingsideError(f"expected a set of options of this layout, got {self.set!r}")
        names = [o.name for o in chosen.options]
        for name in self.used:
            if name not in names:
                raise RingsideError(f"expected an option of {chosen.name}, got {name!r}")
        faders = tuple(
            Fader(channel=c, muted=o.name not in self.used)
            for o in chosen.options
            for c in o.channels
        )
        told = " and ".join(self.used) or "none"
        return Edited(with_faders(layout, faders), f"{chosen.name}: {told}", ())


def with_faders(layout: Layout, faders: tuple[Fader, ...]) -> Layout:
    """The layout with faders of its current balance set; what of one is null stays as it is.

    Parameters
    ----------
    layout : Layout
    faders : tuple of Fader

    Returns
    -------
    Layout
    """
    for f in faders:
        channel_of(layout, f.channel)
    balance = current_balance(layout)
    if balance is None:
        balance = _begun(layout, FIRST_NAME, ())
        layout = checked(layout, balances=(*layout.balances, balance), current=balance.id)
    rows = {f.channel: f for f in balance.faders}
    for f in faders:
        was = rows.get(f.channel, Fader(channel=f.channel))
        said = {k: v for k, v in (("db", f.db), ("muted", f.muted)) if v is not None}
        rows[f.channel] = was.model_copy(update=said)
    return _with(layout, balance.model_copy(update={"faders": tuple(rows.values())}))


def _within(db: float) -> float:
    """A level as a fader takes it."""
    return min(max(round(db / STEP_DB) * STEP_DB, LOWEST_DB), HIGHEST_DB)


def _begun(layout: Layout, name: str, faders: tuple[Fader, ...]) -> Balance:
    if len(layout.balances) >= MOST_BALANCES:
        raise RingsideError(f"expected at most {MOST_BALANCES} balances; take one away first")
    taken = {b.id for b in layout.balances}
    id_ = next(k for n in range(1, MOST_BALANCES + 2) if (k := f"balance-{n}") not in taken)
    return Balance(id=id_, name=name, faders=faders)


def _balance(layout: Layout, name: str) -> Balance:
    for b in layout.balances:
        if b.id == name:
            return b
    raise RingsideError(f"expected a balance of this layout, got {name!r}")


def _with(layout: Layout, balance: Balance) -> Layout:
    every = tuple(balance if b.id == balance.id else b for b in layout.balances)
    return checked(layout, balances=every)


def _words(faders: tuple[Fader, ...]) -> str:
    if len(faders) > 1:
        return f"Faders of {', '.join(f.channel for f in faders)}"
    one = faders[0]
    if one.db is not None:
        return f"{one.channel} at {one.db:+z.1f} dB"
    return f"{one.channel} {'muted' if one.muted else 'up again'}"
