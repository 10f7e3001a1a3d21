"""Flips as lines: the set worth throwing, split where each part is worth a line of its own.

Second mics come first, then spots, then pairs (:mod:`ringside.pairs.trade`); what gains nothing
until something else is turned over goes with that.
"""

from collections.abc import Collection
from typing import Final

from ringside.edits.mics import FlipMics
from ringside.pairs.doubts import Mix, Turned, mix_of
from ringside.pairs.flips import LEAST_FLIP_DB
from ringside.pairs.trade import SwitchKind, TradeKey, couples, switch_kind
from ringside.pairs.turning import LIKELY, turning
from ringside.phrases import listed
from ringside.plan.feeds import feed
from ringside.plan.layout import Layout
from ringside.worklist.lines import Surety
from ringside.worklist.state import State
from ringside.worklist.step import Step, left

ORDER: Final[dict[SwitchKind, int]] = {"second": 0, "spot": 1, "first": 1, "room": 2, "overhead": 3}
BECAUSE: Final[dict[SwitchKind, TradeKey]] = {
    "second": "second before first", "spot": "flip first", "first": "flip first",
    "room": "pair together", "overhead": "pair together",
}  # fmt: skip
SURE: Final = 0.95
SPREAD_DB: Final = 0.3
SWITCH_MIN: Final = 0.5


def turns(state: State, done: Collection[str] = ()) -> list[Step]:
    """The flips worth throwing, as lines in the order of the trade.

    Parameters
    ----------
    state : State
    done : collection of str
        Mics that a line before has turned over: no line takes back another.

    Returns
    -------
    list of Step
        Empty where as wired is as good.
    """
    layout = state.layout
    leave = frozenset(done).union(*left(layout, "flip"))
    found = turning(state.an, leave)
    if found is None:
        return []
    return [_step(layout, mics, told) for mics, told in _parts(state, found.flip)]


def _parts(state: State, flip: list[str]) -> list[tuple[list[str], Turned]]:
    """The set in groups, each worth its line when it is thrown after those before it."""
    mix, layout = mix_of(state.an), state.layout
    groups, thrown, rows = _groups(layout, flip), mix.signs(()), list[list[str]]()
    while groups:
        tried = [(g, mix.told(mix.signs(g), thrown)) for g in groups]
        good = [t for t in tried if _good(t[1])]
        if good:
            mics, _ = min(good, key=lambda t: (_rank(layout, t[0]), -t[1].mean_db))
            groups.remove(mics)
        else:  # each waits for another: together they are what was found
            mics, groups = [m for g in groups for m in g], []
        same = rows and _rank(layout, rows[-1]) == _rank(layout, mics) < 2
        if same:
            rows[-1] = [*rows[-1], *mics]
        else:
            rows.append(mics)
        thrown = thrown * mix.signs(mics)
    return _joined(mix, rows)


def _joined(mix: Mix, rows: list[list[str]]) -> list[tuple[list[str], Turned]]:
    """The lines, none of them unsure or worth nothing."""
    while True:
        made = _in_turn(mix, rows)
        poor = next((n for n, (_, told) in enumerate(made) if not _good(told)), None)
        if poor is None:
            return made
        # What gains nothing until the next is thrown goes along with that; else it is not thrown.
        both = [[*rows[poor], *rows[poor + 1]]] if poor + 1 < len(rows) else []
        with_next = _in_turn(mix, [*rows[:poor], *both])
        keep = both if both and _good(with_next[-1][1]) else rows[poor + 1 : poor + 2]
        rows[poor : poor + 2] = keep


def _in_turn(mix: Mix, rows: list[list[str]]) -> list[tuple[list[str], Turned]]:
    """What each gives after those before it."""
    thrown, made = mix.signs(()), []
    for mics in rows:
        made.append((mics, mix.told(mix.signs(mics), thrown)))
        thrown = thrown * mix.signs(mics)
    return made


def _good(told: Turned) -> bool:
    return told.mean_db >= LEAST_FLIP_DB and told.sure >= LIKELY


def _groups(layout: Layout, flip: list[str]) -> list[list[str]]:
    """Stereo pairs together, and the spots of one drum of one kind."""
    pairs = {frozenset(p) for p in couples(layout) if {*p} <= {*flip}}
    rows: dict[object, list[str]] = {}
    for m in flip:
        pair = next((p for p in pairs if m in p), None)
        mic = layout.mic(m)
        own = (mic.job if mic.role == "close" else m, mic.role)
        rows.setdefault(pair or own, []).append(m)
    return list(rows.values())


def _rank(layout: Layout, mics: list[str]) -> int:
    return max(ORDER[switch_kind(layout, layout.mic(m))] for m in mics)


def _of_one_drum(layout: Layout, mics: list[str]) -> bool:
    """Whether a first mic of a drum goes along with others of it, so that they stay one sound."""
    own = {(layout.mic(m).role, layout.mic(m).job) for m in mics}
    firsts = [m for m in mics if switch_kind(layout, layout.mic(m)) == "first"]
    return len(own) == 1 < len(mics) and bool(firsts)


def _step(layout: Layout, mics: list[str], told: Turned) -> Step:
    kinds = [switch_kind(layout, layout.mic(m)) for m in mics]
    gravest = max(kinds, key=lambda k: ORDER[k])
    sure: Surety = "sure" if told.sure >= SURE else "likely" if told.sure >= LIKELY else "open"
    n = len(mics)
    return Step(
        kind="flip",
        of=tuple(mics),
        words=turn_words(layout, mics),
        because="one drum" if _of_one_drum(layout, mics) else BECAUSE[gravest],
        edits=[FlipMics(do="flip", mics=tuple(mics))],
        minutes=SWITCH_MIN * n,
        cost=f"{n} switch{'es' if n > 1 else ''}, no stand",
        sure=sure,
        sure_words=_sure_words(told),
        low_db=told.low_db - told.mean_db,
        high_db=told.high_db - told.mean_db,
    )


def _sure_words(told: Turned) -> str:
    if told.high_db - told.low_db < SPREAD_DB:
        return "No open sign changes it."
    return (
        f"{told.low_db:+z.1f} to {told.high_db:+z.1f} dB of body on average, by the way the open"
        " signs fall."
    )


def turn_words(layout: Layout, mics: list[str]) -> str:
    """What to do at the preamps, in words.

    Parameters
    ----------
    layout : Layout
    mics : list of str

    Returns
    -------
    str
    """
    on = [m for m in mics if not feed(layout, m).flipped]
    off = [m for m in mics if feed(layout, m).flipped]
    said = [f"flip {listed(on)}"] if on else []
    said += [f"take the flip off {listed(off)}"] if off else []
    where = feed(layout, mics[0]).input if len(mics) == 1 else None
    words = f"{' and '.join(said)} at the preamp{f', input {where}' if where else ''}."
    return words[0].upper() + words[1:]
