"""What was touched: where it stood when it was last measured, and where it stands since."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ringside.arrays import Floats
from ringside.gear.locker import Locker
from ringside.plan.layout import Layout
from ringside.standing.entries import Entry, Written, before_touched, span_of, touched, written
from ringside.standing.places import THERE_M, back_words, shifts
from ringside.standing.told import Told, ended, joined
from ringside.standing.truth import Truth, fronts, truth


@dataclass(frozen=True, kw_only=True, slots=True)
class SinceTouched:
    """A mic that was touched after it had been measured."""

    mic: str
    key: str
    """Of the entry that says it was touched: struck out, it was not."""
    read_again: bool
    words: Told
    back: Told
    """Not read again yet: how it went back to its plan from where it last stood; else empty."""


def since_touched(
    layout: Layout, locker: Locker, log: Sequence[Entry], true: Truth
) -> list[SinceTouched]:
    """Every mic that was touched after it was measured, against where it stood then.

    Parameters
    ----------
    layout : Layout
        As planned.
    locker : Locker
    log : sequence of Entry
        Oldest first.
    true : Truth
        By all of the log.

    Returns
    -------
    list of SinceTouched
        In the order of the layout.
    """
    last = touched(log)
    if not any(m.id in last for m in layout.mics):
        return []
    before = written(layout, before_touched(log))
    stood = truth(layout, locker, before.readings)
    planned, now = fronts(layout, locker), written(layout, log)
    rows = []
    for i, mic in enumerate(layout.mics):
        if mic.id not in last or mic.id not in stood.measured:
            continue
        again = mic.id in true.measured
        close = mic.role == "close" and mic.job is not None
        off, spread = stood.point(i) - planned[i], stood.spread(i)
        words = Told("Touched, and not read since.")
        if again:
            words = _by_drum(layout, mic.id, before, now) if close else _moved(stood, true, i)
        rows.append(
            SinceTouched(
                mic=mic.id,
                key=log[last[mic.id]].key,
                read_again=again,
                words=words,
                back=Told() if again or close else back_words(off, spread),
            )
        )
    return rows


def _moved(stood: Truth, true: Truth, mic: int) -> Told:
    """From where it stood to where it stands, as far as both are known."""
    by: Floats = true.point(mic) - stood.point(mic)
    spread = stood.spread(mic) + true.spread(mic)
    said = shifts(by, spread, "higher", "lower")
    if not said:
        most = float(np.sqrt(np.linalg.eigvalsh(spread)[-1]))
        return Told("Stands as it did, as far as is known: {} or so.", (2 * most,), True)
    return joined([Told("Since it was touched:"), ended(joined(said, " and "))])


def _by_drum(layout: Layout, mic: str, before: Written, now: Written) -> Told:
    """A close mic: how much further from its drum, or nearer."""
    span = span_of(mic, layout.mic(mic).job)
    was, is_ = before.sure_m(span), now.sure_m(span)
    if was is None or is_ is None:
        return Told("Read again.")
    if abs(is_ - was) <= THERE_M:
        return Told("As far from its drum as before it was touched.")
    way = "further from" if is_ > was else "nearer to"
    return Told("Since it was touched: {} " + f"{way} its drum.", (abs(is_ - was),), True)
