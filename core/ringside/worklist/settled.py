"""What a take of test hits has told of pairs whose sign no plan can know.

The hits say how two tracks add up on a drum. That holds for the list as long as both mics stand as
they stood when the take was made: a mic that was moved since, or whose track was put later, is
asked about again. A switch that was thrown since turns over what was heard, and no more.
"""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ringside.arrays import Mask, Signs
from ringside.pairs.analysis import Analysis, judge
from ringside.plan.feeds import Feed, feeds
from ringside.plan.layout import Layout
from ringside.plan.room import Room
from ringside.standing.stood import AsItStands
from ringside.values import Record

Sounding = tuple[tuple[Record, ...], Room | None]


@dataclass(frozen=True, slots=True)
class SettledPair:
    """A pair on a drum that the plan left to the ear and the hits have settled."""

    a: str
    b: str
    source: str
    alike: float
    """How the two tracks go together over the body band, -1 to 1."""


@dataclass(frozen=True)
class Settled:
    """What one take has settled of a layout."""

    take: str
    recorded: Layout
    """As it was when the take was made."""
    measured: Layout
    """As it was when the take was measured: its switches and delays on tracks are in `pairs`."""
    pairs: tuple[SettledPair, ...]

    def of(self, layout: Layout) -> "Settled":
        """The same for a layout that the list begins with.

        Where it stands was read by the tape, which the plan of the day knows nothing of: there
        the places of the reading are those of the take.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Settled
        """
        if not isinstance(layout, AsItStands):
            return self
        there = {"mics": layout.mics, "kit": layout.kit, "room": layout.room}
        return replace(self, recorded=self.recorded.model_copy(update=there))

    def told(self, an: Analysis) -> Analysis:
        """An analysis with the open signs as they were heard.

        Parameters
        ----------
        an : Analysis

        Returns
        -------
        Analysis
            The same one where nothing that was heard holds.
        """
        now = an.layout
        if _sounding(now) != self._sounded:
            return an
        turns = {f.mic.id: self._turned(f) for f in feeds(now)}
        p = an.pairs
        sign, alike = p.sign.copy(), p.alike.copy()
        for s in self.pairs:
            way = turns.get(s.a, 0) * turns.get(s.b, 0)
            if way and s.source in an.scene.sources.ids:
                at = an.pair_index(s.a, s.b)[0], an.source_index(s.source)
                if p.sign[at] == 0:
                    sign[at] = 1 if s.alike * way > 0 else -1
                    alike[at] = abs(s.alike)
        known: Mask = sign != p.sign
        if not known.any():
            return an
        raw: Signs = np.where(known, sign, p.raw_sign)
        pairs = replace(p, sign=sign, raw_sign=raw, alike=alike)
        return replace(an, pairs=judge(now.thresholds, an.scene, pairs))

    @cached_property
    def _sounded(self) -> Sounding:
        return _sounding(self.recorded)

    @cached_property
    def _then(self) -> dict[str, tuple[Feed, Feed]]:
        """Every mic as it was recorded and as it was measured."""
        measured = {f.mic.id: f for f in feeds(self.measured)}
        own = feeds(self.recorded)
        return {f.mic.id: (f, measured[f.mic.id]) for f in own if f.mic.id in measured}

    def _turned(self, now: Feed) -> int:
        """+1, or -1 where a mic is turned over against how it was heard; 0 where it is another."""
        if now.mic.id not in self._then:
            return 0
        recorded, measured = self._then[now.mic.id]
        if _place(now) != _place(recorded) or now.delay_samples != measured.delay_samples:
            return 0
        heard = recorded.switch_sign * _on_track(recorded) * _on_track(measured)
        return now.switch_sign * heard


def _sounding(layout: Layout) -> Sounding:
    """What is struck and what it stands in, whatever they are called."""
    parts: tuple[Record, ...] = (*layout.kit.drums, *layout.kit.cymbals)
    room = layout.room and layout.room.model_copy(update={"name": ""})
    return tuple(p.model_copy(update={"name": ""}) for p in parts), room


def _place(f: Feed) -> tuple[object, ...]:
    return f.mic.position_m, f.mic.aim, f.mic.pattern, f.mic.model


def _on_track(f: Feed) -> int:
    return -1 if f.first and f.first.track_flip else 1
