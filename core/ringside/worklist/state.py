"""A layout on the way through the list, and what one state gives over another.

Two things are counted, in decibels of a drum in the mix: its body in the sum of all, and what
late arrivals can take from it between their best and their worst (:func:`swing_db`).
"""

from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.edits.apply import OneEdit
from ringside.pairs.analysis import Analysis
from ringside.pairs.doubts import body_db
from ringside.pairs.effects import EffectRow, effect_rows
from ringside.pairs.gram import drum_ids, meant
from ringside.pairs.verdicts import WEIGHT, Verdict, swing_db
from ringside.plan.layout import Layout, LineKind
from ringside.standing.stood import analysed
from ringside.worklist.lines import LineGain
from ringside.worklist.settled import Settled

MOST_COMB_DB: Final = 12.0
"""A comb deeper than this is as bad as this one."""

TOLD_DB: Final = 0.5
"""Less of a drum is not worth a word."""

ROUND: Final = 3


@dataclass(frozen=True)
class State:
    """A layout with everything computed from it."""

    an: Analysis
    settled: Settled | None = None
    """What a take has told."""
    heard: int = 0
    """Open signs on drums that are as it told."""

    @classmethod
    def of(cls, layout: Layout, settled: Settled | None = None) -> "State":
        """Of a layout, planned or as it stands.

        Parameters
        ----------
        layout : Layout
        settled : Settled, optional
            What a take has told of it.

        Returns
        -------
        State
        """
        an = analysed(layout)
        if settled is None:
            return cls(an)
        told = settled.told(an)
        return cls(told, settled, int((told.pairs.sign != an.pairs.sign).sum()))

    def then(self, layout: Layout) -> "State":
        """What this one comes to with another layout.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        State
        """
        return State.of(layout, self.settled)

    @property
    def told_by(self) -> str:
        """The take that has told a sign here; empty where none has."""
        return self.settled.take if self.settled and self.heard else ""

    @property
    def layout(self) -> Layout:
        """The layout."""
        return self.an.layout

    @cached_property
    def meant(self) -> Mask:
        """The drums that count, (D,)."""
        return meant(self.an)

    @cached_property
    def body(self) -> Floats:
        """How full every drum is in the sum of all, (D,), decibels."""
        return body_db(self.an)

    @cached_property
    def comb(self) -> Floats:
        """What pairs that are late can take from every drum, (D,), decibels."""
        p, s = self.an.pairs, self.an.scene.sources
        late = p.counts & (p.verdict == Verdict.LATE)
        takes = np.where(late, np.minimum(swing_db(p.share), MOST_COMB_DB), 0.0).sum(axis=0)
        return np.asarray(np.minimum(takes, MOST_COMB_DB)[s.drum])

    @cached_property
    def trouble(self) -> Floats:
        """Every pair's worst verdict by its weight, (P,)."""
        weight = np.array([WEIGHT[v] for v in sorted(WEIGHT)])
        return np.asarray(weight[self.an.pairs.worst])


def edited(layout: Layout, edits: list[OneEdit]) -> Layout:
    """A layout after some edits; one that stands still stands.

    Parameters
    ----------
    layout : Layout
    edits : list of OneEdit

    Returns
    -------
    Layout

    Raises
    ------
    RingsideError
        When one of them cannot be made.
    """
    done = layout
    for edit in edits:
        done = edit.on(done).layout
    if type(done) is type(layout):
        return done
    # What was measured of a layout that stands goes on standing beside it.
    return layout.model_copy(update=done.fields())


def gain_of(before: State, after: State, kind: LineKind = "move") -> float:
    """What one state gives over another, decibels on average over the drums.

    A flip gives body: the comb of late arrivals it moves along, but does not take away.

    Parameters
    ----------
    before, after : State
    kind : str
        What was done.

    Returns
    -------
    float
    """
    comb = 0.0 if kind == "flip" else before.comb - after.comb
    return float((after.body - before.body + comb)[before.meant].mean())


def gains_of(before: State, after: State, kind: LineKind = "move") -> list[LineGain]:
    """The same for every drum that gains or loses what is worth a word, most first.

    Parameters
    ----------
    before, after : State
    kind : str
        What was done.

    Returns
    -------
    list of LineGain
    """
    body = after.body - before.body
    comb = np.zeros_like(body) if kind == "flip" else before.comb - after.comb
    rows = [
        LineGain(source=d, body_db=round(float(b), ROUND), comb_db=round(float(c), ROUND))
        for d, b, c, own in zip(drum_ids(before.an), body, comb, before.meant, strict=True)
        if own and max(abs(b), abs(c)) >= TOLD_DB
    ]
    return sorted(rows, key=lambda r: -(r.body_db + r.comb_db))


def changed(before: State, after: State) -> tuple[list[EffectRow], list[EffectRow]]:
    """Pairs that are judged better, and worse, by their worst verdicts.

    Parameters
    ----------
    before, after : State
        Of the same mics.

    Returns
    -------
    (list of EffectRow, list of EffectRow)
    """
    by = after.trouble - before.trouble
    return (
        effect_rows(before.an, after.an, by < 0),
        effect_rows(before.an, after.an, by > 0),
    )
