"""What is written down at the kit: readings, ticks, and what was touched, one after the other.

A log is only added to, so that two people who write at once both keep theirs; what counts is
worked out from it. Entries of mics or drums that have gone meanwhile are kept and told.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Final, Literal, Self

from pydantic import AwareDatetime, Field, model_validator

from ringside.plan.kit import Reading
from ringside.plan.layout import Layout
from ringside.plan.room import longest_within
from ringside.survey.readings import SAME_M
from ringside.values import Key, Record, length

MOST_ENTRIES: Final = 2000
SHORTEST_M: Final = 0.005
LONGEST_M: Final = 30.0
"""What a tape at a kit reads at least and at most."""

What = Literal["reading", "cord", "skip", "tick", "untick", "touched"]

Cord = Literal["same", "nearer", "further"]
"""Of this capsule against another, whose distance the cord has."""


class Entry(Record):
    """One line of the log at the kit."""

    key: Annotated[str, Field(min_length=1, max_length=40)] = Field(
        description="Made where it was written, so that what is sent twice is kept once."
    )
    what: What
    mic: Key
    to: Key | None = Field(
        default=None, description="Of a reading: a drum, a cymbal or a mic; null is the floor."
    )
    metres: (
        Annotated[float, length(SHORTEST_M, LONGEST_M, "What the tape read, metres.")] | None
    ) = None
    like: Key | None = Field(
        default=None, description="Of a cord: the mic from which it was held to the same end."
    )
    cord: Cord | None = Field(default=None, description="Of a cord: what it said of this mic.")
    at: AwareDatetime | None = Field(
        default=None, description="When it was written down; null where that is only now."
    )

    @model_validator(mode="after")
    def _read(self) -> Self:
        if (self.what == "reading") != (self.metres is not None):
            raise ValueError("expected metres with a reading, and with nothing else")
        if any((self.what == "cord") != (v is not None) for v in (self.like, self.cord)):
            raise ValueError("expected like and cord with a cord, and with nothing else")
        return self


class CordReading(Reading):
    """Two mics as far from one end: a reading of no difference between two lengths."""

    like: Key


Span = frozenset[str | None]
"""The two ends of a reading, or the three of a cord; None is the floor."""


def span_read(reading: Reading) -> Span:
    """The ends of a reading, whichever way it was taken; of a cord all three.

    Parameters
    ----------
    reading : Reading

    Returns
    -------
    Span
    """
    like = {reading.like} if isinstance(reading, CordReading) else set()
    return frozenset({reading.a, reading.b} | like)


def span_of(mic: str, to: str | None) -> Span:
    """The two ends of a reading, whichever way it was taken.

    Parameters
    ----------
    mic : str
    to : str or None
        None is the floor.

    Returns
    -------
    Span
    """
    return frozenset((mic, to))


@dataclass(frozen=True, slots=True)
class Written:
    """What counts of a log, for one layout."""

    readings: tuple[Reading, ...]
    """In the order they were taken: the newest between two ends, or the mean of those alike."""
    keys: tuple[str, ...]
    """Of each reading: the entry it was last read in."""
    skipped: frozenset[Span]
    cords: dict[Span, Cord]
    """What the cord last said, by its three ends."""
    gone: tuple[Entry, ...]
    """Readings with an end that the layout has not got any more."""

    def sure_m(self, span: Span) -> float | None:
        """What was read between two ends, metres; None where nothing that is sure was.

        Parameters
        ----------
        span : Span

        Returns
        -------
        float or None
        """
        found = [r.metres for r in self.readings if r.sure and span_read(r) == span]
        return found[0] if found else None


def tape_span(layout: Layout) -> tuple[float, float]:
    """What a tape can read in the layout's room: at most from corner to corner, or next door.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    tuple of two float
        Least and most, metres.
    """
    most = longest_within(layout.room) if layout.room else LONGEST_M
    return SHORTEST_M, min(LONGEST_M, most)


def written(layout: Layout, log: Sequence[Entry]) -> Written:
    """What counts of a log: newest readings, what was skipped, what the cord said.

    A mic that was touched is no longer sure: its readings are asked for again.

    Parameters
    ----------
    layout : Layout
    log : sequence of Entry
        Oldest first.

    Returns
    -------
    Written
    """
    mics = {m.id for m in layout.mics}
    ends = mics | set(layout.kit.source_ids)
    found: dict[Span, tuple[Reading, str]] = {}
    skipped, cords = set[Span](), dict[Span, Cord]()
    gone: list[Entry] = []
    for e in log:
        if not _there(e, mics, ends):
            gone.extend([e] if e.what in ("reading", "cord") else [])
        elif e.what in ("tick", "untick"):
            continue  # of the set-up list; it fixes nothing
        elif e.what == "touched":
            found = {s: (_unsure(r, e.mic), k) for s, (r, k) in found.items()}
            cords = {s: said for s, said in cords.items() if e.mic not in s}
        elif e.what == "skip":
            skipped.add(span_of(e.mic, e.to))
        elif e.cord is not None:
            three: Span = frozenset((e.mic, e.to, e.like))
            cords[three] = e.cord
            found.pop(three, None)
            if e.cord == "same":
                found[three] = _same(e), e.key
        else:
            span = span_of(e.mic, e.to)
            old = found.pop(span, None)
            found[span] = (_read(e, old[0] if old else None), e.key)
            skipped.discard(span)
    return Written(
        readings=tuple(r for r, _ in found.values()),
        keys=tuple(k for _, k in found.values()),
        skipped=frozenset(skipped),
        cords=cords,
        gone=tuple(gone),
    )


def _there(e: Entry, mics: set[str], ends: set[str]) -> bool:
    """Whether all ends of an entry are of the layout, and each only once."""
    three = [e.mic, *([e.like] if e.what == "cord" else [])]
    good = all(m in mics for m in three) and len({*three, e.to}) == len(three) + 1
    return good and (e.to is None or e.to in ends)


def _same(e: Entry) -> CordReading:
    return CordReading.model_construct(
        a=e.mic, b=e.to, metres=0.0, sure=True, taken=1, like=e.like or ""
    )


def touched(log: Sequence[Entry]) -> dict[str, int]:
    """Mics that were touched, each with the number of the entry that says so last.

    Parameters
    ----------
    log : sequence of Entry
        Oldest first.

    Returns
    -------
    dict of str to int
    """
    return {e.mic: n for n, e in enumerate(log) if e.what == "touched"}


def before_touched(log: Sequence[Entry]) -> list[Entry]:
    """What was written down of every mic before it was touched last, as if it had not been.

    Parameters
    ----------
    log : sequence of Entry
        Oldest first.

    Returns
    -------
    list of Entry
    """
    last = touched(log)
    return [
        e
        for n, e in enumerate(log)
        if all(n < last.get(end, len(log)) for end in (e.mic, e.to, e.like) if end is not None)
    ]


def _unsure(reading: Reading, mic: str) -> Reading:
    at_it = mic in span_read(reading)
    return reading.model_copy(update={"sure": False}) if at_it else reading


def _read(entry: Entry, old: Reading | None) -> Reading:
    metres = entry.metres or 0.0
    if old is None or not old.sure or abs(old.metres - metres) > SAME_M:
        return Reading.model_construct(a=entry.mic, b=entry.to, metres=metres, sure=True, taken=1)
    mean = (old.metres * old.taken + metres) / (old.taken + 1)
    return old.model_copy(update={"metres": mean, "taken": old.taken + 1})
