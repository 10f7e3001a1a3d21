"""Choosing between what stands in for each other, as lines: rooms as options, a better option."""

from typing import Final

from ringside.edits.balances import ChooseOptions, RoomOptions
from ringside.hear.standins import stand_ins
from ringside.pairs.verdicts import Verdict
from ringside.phrases import count_words, listed
from ringside.plan.balances import OptionSet
from ringside.worklist.state import State, edited, gain_of
from ringside.worklist.step import Step, left

CHOOSE_MIN: Final = 2.0
FEWER: Final = 2
"""So many marks fewer are worth another room (from memory)."""


def chooses(state: State) -> list[tuple[Step, State]]:
    """Rooms made options, and sets whose other option is judged better.

    Parameters
    ----------
    state : State

    Returns
    -------
    list of (Step, State)
    """
    away = frozenset().union(*left(state.layout, "choose"))
    now, made = state, list[tuple[Step, State]]()
    rooms = stand_ins(state.layout)
    if rooms is not None and rooms.id not in away and len(_up(now, rooms)) > 1:
        after = now.then(edited(now.layout, [RoomOptions(do="room-options")]))
        made.append((_rooms(rooms), after))
        now = after
    for chosen in now.layout.options:
        if chosen.id not in away:
            better = _better(now, chosen)
            if better is not None:
                made.append(better)
                now = better[1]
    return made


def marked(state: State) -> int:
    """How many pairs want something done.

    Parameters
    ----------
    state : State

    Returns
    -------
    int
    """
    return int((state.an.pairs.worst > Verdict.TOGETHER).sum())


def _rooms(rooms: OptionSet) -> Step:
    names = [o.name for o in rooms.options]
    return Step(
        kind="choose",
        of=(rooms.id,),
        words=f"Choose between the rooms {listed(names)}: {names[0]} is up, the others wait.",
        because="one room",
        edits=[RoomOptions(do="room-options")],
        minutes=CHOOSE_MIN,
        cost="nobody; by ear, at the desk",
        sure_words="Which one is up is changed in Balance; what follows is for the one that is.",
    )


def _up(state: State, chosen: OptionSet) -> list[str]:
    """The options of a set that the balance has up, by name."""
    heard = {m.id for m, up in zip(state.layout.mics, state.an.scene.heard, strict=True) if up}
    tracks = {c.id for c in state.layout.channels if c.mic in heard}
    return [o.name for o in chosen.options if tracks.intersection(o.channels)]


def _better(state: State, chosen: OptionSet) -> tuple[Step, State] | None:
    """The option that would mark clearly less and lose no body; none where one of several is up."""
    up = _up(state, chosen)
    if len(up) != 1:
        return None
    best: tuple[Step, State] | None = None
    least = marked(state) - FEWER
    for o in chosen.options:
        if o.name in up:
            continue
        edit = ChooseOptions(do="choose", set=chosen.id, used=(o.name,))
        after = state.then(edited(state.layout, [edit]))
        if marked(after) > least or gain_of(state, after) < 0:
            continue
        fewer = count_words(marked(state) - marked(after), "mark")
        least = marked(after) - 1
        step = Step(
            kind="choose",
            of=(chosen.id,),
            words=f"Use {o.name} instead of {up[0]} of {chosen.name}: {fewer} fewer.",
            because="one room",
            edits=[edit],
            minutes=CHOOSE_MIN,
            cost="nobody; by ear, at the desk",
            sure="likely",
            sure_words="The ear decides which room the song wants; this one fights the kit least.",
        )
        best = (step, after)
    return best
