"""Edits of mics: as they should be, called otherwise, one more, fewer, turned over, paired, left.

What hangs on a mic goes with it (:mod:`ringside.plan.hanging`).
"""

from typing import Annotated, Final, Literal

from pydantic import Field

from ringside.edits.edited import Edited, checked
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.pairs.verdicts import WORDS_BY_VALUE
from ringside.plan.channels import MOST_CHANNELS, Channel
from ringside.plan.feeds import feed
from ringside.plan.hanging import renamed, track_of, with_flips, with_mics, without_mics
from ringside.plan.layout import Decision, Layout, StereoPair, Stood
from ringside.plan.mics import MIC_SWITCHES, Mic
from ringside.values import Key, Record, Text, Vector, unit

Some = Annotated[tuple[Key, ...], Field(min_length=1, max_length=64)]
IN_FRONT_M: Final[Vector] = (0.28, 1.6, 1.2)
"""Where a new mic is put: a good step in front of the kit, on the kick's side of the snare."""

FIELD_WORDS: Final = {
    "name": "Named {0}", "role": "{0}: {1}", "job": "{0} for {1}", "pattern": "{0}: {1}",
    "model": "{0}: {1}", "stand": "{0}: {1}", "locks": "Held {0}: {1}",
    "pad_db": "Pad at {0}: {1} dB",
}  # fmt: skip
"""How a change of one field is called; {0} is the mic, {1} the new value."""

NOTHING_WORDS: Final = {
    "job": "the whole kit", "model": "no mic chosen", "stand": "no stand chosen",
    "locks": "nothing",
}  # fmt: skip


class ChangeMics(Record):
    """Mics as they should be, by their short names; `why` names the step where it has a name."""

    do: Literal["mics"]
    mics: tuple[Mic, ...] = Field(min_length=1, max_length=64)
    why: Text = ""

    def on(self, layout: Layout) -> Edited:
        """The layout with these mics replaced.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        old = {m.id: _mic(layout, m.id) for m in self.mics}
        moved = tuple(m.id for m in self.mics if m.position_m != old[m.id].position_m)
        done = checked(with_mics(layout, self.mics))
        return Edited(done, self.why or _words(old, self.mics), moved)


class RenameMic(Record):
    """A mic under another short name; every mention of it follows."""

    do: Literal["rename"]
    was: Key
    to: Key

    def on(self, layout: Layout) -> Edited:
        """The layout with the mic called otherwise.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        _mic(layout, self.was)
        return Edited(
            checked(renamed(layout, self.was, self.to)), f"Renamed {self.was} to {self.to}", ()
        )


class AddMic(Record):
    """One more mic: like another, a hand beside it, or in front of the kit."""

    do: Literal["add-mic"]
    like: Key | None = None

    def on(self, layout: Layout) -> Edited:
        """The layout with the mic at its end.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        mic = _fresh(layout) if self.like is None else _copy(layout, _mic(layout, self.like))
        tracks = layout.channels
        if len(tracks) < MOST_CHANNELS:
            tracks = (*tracks, _track(layout, mic, self.like))
        done = checked(layout, mics=(*layout.mics, mic), channels=tracks)
        words = f"Added {mic.id}" if self.like is None else f"Copied {self.like}"
        return Edited(done, words, (), mic.id)


class RemoveMics(Record):
    """Without some mics and all that hangs on them."""

    do: Literal["remove-mics"]
    mics: Some

    def on(self, layout: Layout) -> Edited:
        """The layout without them.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        for name in self.mics:
            _mic(layout, name)
        done = checked(without_mics(layout, set(self.mics)))
        return Edited(done, f"Took {', '.join(self.mics)} away", ())


class FlipMics(Record):
    """The preamp switch of some mics turned over."""

    do: Literal["flip"]
    mics: Some

    def on(self, layout: Layout) -> Edited:
        """The layout with them turned over.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When the polarity of one of them is held.
        """
        held = [m for m in self.mics if "polarity" in _mic(layout, m).locks]
        loose = [m for m in self.mics if not feed(layout, m).channels]
        if loose:
            raise RingsideError(f"{', '.join(loose)} is not recorded; give it a track first")
        if held and len(self.mics) > 1:
            raise RingsideError(f"the polarity of {', '.join(held)} is held; free it first")
        done = checked(with_flips(layout, set(self.mics)))
        if len(self.mics) > 1:
            return Edited(done, f"Turned over {', '.join(self.mics)}", ())
        of = feed(layout, self.mics[0])
        words = f"Took the flip off {of.mic.id}" if of.flipped else f"Flipped {of.mic.id}"
        return Edited(done, f"{words} at the preamp", ())


class PairMics(Record):
    """Two mics as one stereo pair."""

    do: Literal["pair"]
    left: Key
    right: Key

    def on(self, layout: Layout) -> Edited:
        """The layout with one more stereo pair.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        pair = StereoPair(name=f"{self.left} and {self.right}", left=self.left, right=self.right)
        done = checked(layout, stereo_pairs=(*layout.stereo_pairs, pair))
        return Edited(done, f"Made {self.left} and {self.right} a stereo pair", ())


class UnpairMics(Record):
    """Two mics no longer a stereo pair."""

    do: Literal["unpair"]
    a: Key
    b: Key

    def on(self, layout: Layout) -> Edited:
        """The layout without that stereo pair.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        kept = tuple(p for p in layout.stereo_pairs if {p.left, p.right} != {self.a, self.b})
        done = checked(layout, stereo_pairs=kept)
        return Edited(done, f"{self.a} and {self.b} are no longer a stereo pair", ())


class Decide(Record):
    """A pair left as it is on a drum, on purpose, and why."""

    do: Literal["decide"]
    a: Key
    b: Key
    source: Key
    reason: Annotated[str, Field(strict=True, min_length=1, max_length=400)]

    def on(self, layout: Layout) -> Edited:
        """The layout with the decision, and what it was made on.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        an = analyse(layout)
        row, turned, k = an.find(self.a, self.b, self.source)
        p = an.pairs
        stood = Stood(
            verdict=WORDS_BY_VALUE[int(p.verdict[row, k])],
            delay_s=(-1 if turned else 1) * float(p.delay_s[row, k]),
            body_db=float(p.body_db[row, k]),
        )
        made = Decision(a=self.a, b=self.b, source=self.source, reason=self.reason, stood=stood)
        kept = tuple(d for d in layout.decisions if not _same(d, self))
        done = checked(layout, decisions=(*kept, made))
        return Edited(done, f"Left {self.a} and {self.b} on purpose", ())


class Undecide(Record):
    """A decision taken back."""

    do: Literal["undecide"]
    a: Key
    b: Key
    source: Key

    def on(self, layout: Layout) -> Edited:
        """The layout without the decision.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        kept = tuple(d for d in layout.decisions if not _same(d, self))
        return Edited(checked(layout, decisions=kept), "Took a decision back", ())


def _same(d: Decision, other: Decide | Undecide) -> bool:
    return d.source == other.source and {d.a, d.b} == {other.a, other.b}


def _mic(layout: Layout, name: str) -> Mic:
    try:
        return layout.mic(name)
    except KeyError:
        raise RingsideError(f"expected a mic of this layout, got {name!r}") from None


def _words(old: dict[str, Mic], new: tuple[Mic, ...]) -> str:
    """What was done to mics, in a few words."""
    if len(new) > 1:
        return f"Changed {', '.join(m.id for m in new)}"
    (mic,), was = new, old[new[0].id]
    if mic.position_m != was.position_m:
        return f"Moved {mic.id}"
    if mic.aim != was.aim:
        return f"Aimed {mic.id}"
    for field, words in MIC_SWITCHES.items():
        if getattr(mic, field) != getattr(was, field):
            on = "on" if getattr(mic, field) else "off"
            return f"{words[0].upper()}{words[1:]} {on}, {mic.id}"
    for field, words in FIELD_WORDS.items():
        value = getattr(mic, field)
        if value != getattr(was, field):
            told = ", ".join(value) if isinstance(value, tuple) else value
            shown = NOTHING_WORDS.get(field, "") if told in (None, "") else told
            return words.format(mic.id, shown)
    return f"Changed {mic.id}"


def _numbered(layout: Layout, stem: str) -> str:
    """The stem with the first number that makes a short name not yet taken."""
    taken = {m.id for m in layout.mics}
    return next(k for n in range(1, 1000) if (k := f"{stem[:12]}{n}") not in taken)


def _track(layout: Layout, mic: Mic, like: str | None) -> Channel:
    """The track of a new mic: set as that of the mic it is like, in the next input."""
    made = track_of(layout.channels, mic)
    old = feed(layout, like).first if like else None
    if old is None:
        return made
    return old.model_copy(update={"id": made.id, "mic": mic.id, "input": made.input})


def _fresh(layout: Layout) -> Mic:
    snare, kick = layout.kit.first("snare").batter_m, layout.kit.first("kick").batter_m
    x, y, z = IN_FRONT_M
    spot = (snare[0] + (x if kick[0] >= snare[0] else -x), snare[1] + y, z)
    look = unit([a - b for a, b in zip(snare, spot, strict=True)])
    return Mic(
        id=_numbered(layout, "M"), name="New mic", role="room", position_m=spot, aim=look,
    )  # fmt: skip


def _copy(layout: Layout, mic: Mic) -> Mic:
    x, y, z = mic.position_m
    stem = mic.id.rstrip("0123456789") or "M"
    return mic.model_copy(
        update={
            "id": _numbered(layout, stem),
            "position_m": (x + 0.1, y, z),
        }
    )
