"""Edits from the list of what to do: a line put off, dismissed or brought back; track delays."""

from typing import Annotated, Literal

from pydantic import Field

from ringside.edits.edited import Edited, checked
from ringside.errors import RingsideError
from ringside.plan.hanging import with_channels
from ringside.plan.layout import MOST_ASIDE, MOST_MICS, Layout, LineKind, SetAside
from ringside.values import Key, Record, Text

Of = Annotated[tuple[Key, ...], Field(min_length=1, max_length=MOST_MICS)]


class PutAside(Record):
    """A line that is not done now, or with a reason, not at all."""

    do: Literal["put-aside"]
    kind: LineKind
    of: Of
    words: Text = ""
    reason: Text = ""

    def on(self, layout: Layout) -> Edited:
        """The layout with the line set aside; said twice, the last reason holds.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When as many are set aside as can be.
        """
        kept = _others(layout, self.kind, self.of)
        if len(kept) >= MOST_ASIDE:
            raise RingsideError(
                f"{MOST_ASIDE} lines are set aside, which is all that can be; bring some back"
            )
        made = SetAside(kind=self.kind, of=self.of, words=self.words, reason=self.reason.strip())
        words = "Dismissed" if made.reason else "Put off"
        done = checked(layout, set_aside=(*kept, made))
        return Edited(done, f"{words}: {self.words or self.kind}", ())


class BringBack(Record):
    """A line that was set aside, asked for again."""

    do: Literal["bring-back"]
    kind: LineKind
    of: Of

    def on(self, layout: Layout) -> Edited:
        """The layout without it among those set aside.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        done = checked(layout, set_aside=_others(layout, self.kind, self.of))
        return Edited(done, "Brought a line back", ())


class TrackDelay(Record):
    """How late one mic is put on its tracks, samples."""

    mic: Key
    samples: Annotated[int, Field(strict=True, ge=0, le=20_000)]


class DelayTracks(Record):
    """Tracks of some mics delayed by so much after recording; nothing else of them is changed."""

    do: Literal["delay"]
    delays: Annotated[tuple[TrackDelay, ...], Field(min_length=1, max_length=MOST_MICS)]

    def on(self, layout: Layout) -> Edited:
        """The layout with these delays.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited

        Raises
        ------
        RingsideError
            When one is of a mic that is not recorded.
        """
        late = {d.mic: d.samples for d in self.delays}
        known = {c.mic for c in layout.channels}
        for mic in late:
            if mic not in known:
                raise RingsideError(f"expected a mic that is recorded, got {mic!r}")
        new = tuple(
            c.model_copy(update={"track_delay_samples": late[c.mic]})
            for c in layout.channels
            if c.mic in late
        )
        done = checked(layout, channels=with_channels(layout, new).channels)
        return Edited(done, f"Delayed {', '.join(late)} on the tracks", ())


def _others(layout: Layout, kind: LineKind, of: tuple[str, ...]) -> tuple[SetAside, ...]:
    return tuple(s for s in layout.set_aside if (s.kind, set(s.of)) != (kind, set(of)))
