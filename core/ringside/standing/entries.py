"""What is written down at the kit: readings, ticks, and what was touched, one after the other.

A log is only added to, so that two people who write at once both keep theirs; what counts is
worked out from it. Entries of mics or drums that have gone meanwhile are kept and told.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Final, Literal, Self

from pydantic import Field, model_validator

from ringside.plan.kit import Reading
from ringside.plan.layout import Layout
from ringside.survey.readings import SAME_M
from ringside.values import Key, Record, length

MOST_ENTRIES: Final = 2000
LONGEST_M: Final = 30.0
"""What a tape reads at most."""

What = Literal["reading", "skip", "tick", "untick", "touched"]


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
    metres: Annotated[float, length(0.005, LONGEST_M, "What the tape read, metres.")] | None = None

    @model_validator(mode="after")
    def _read(self) -> Self:
        if (self.what == "reading") != (self.metres is not None):
            raise ValueError("expected metres with a reading, and with nothing else")
        return self


Span = frozenset[str | None]
"""The two ends of a reading; None is the floor."""


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
    ticked: frozenset[str]
    gone: tuple[Entry, ...]
    """Readings with an end that the layout has not got any more."""


def written(layout: Layout, log: Sequence[Entry]) -> Written:
    """What counts of a log: newest readings, what was skipped, what is up.

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
    skipped, ticked = set[Span](), set[str]()
    gone: list[Entry] = []
    for e in log:
        if e.mic not in mics or (e.to is not None and e.to not in ends) or e.to == e.mic:
            gone.extend([e] if e.what == "reading" else [])
        elif e.what == "tick":
            ticked.add(e.mic)
        elif e.what == "untick":
            ticked.discard(e.mic)
        elif e.what == "touched":
            found = {s: (_unsure(r, e.mic), k) for s, (r, k) in found.items()}
        elif e.what == "skip":
            skipped.add(span_of(e.mic, e.to))
        else:
            span = span_of(e.mic, e.to)
            old = found.pop(span, None)
            found[span] = (_read(e, old[0] if old else None), e.key)
            skipped.discard(span)
    return Written(
        readings=tuple(r for r, _ in found.values()),
        keys=tuple(k for _, k in found.values()),
        skipped=frozenset(skipped),
        ticked=frozenset(ticked),
        gone=tuple(gone),
    )


def _unsure(reading: Reading, mic: str) -> Reading:
    at_it = mic in (reading.a, reading.b)
    return reading.model_copy(update={"sure": False}) if at_it else reading


def _read(entry: Entry, old: Reading | None) -> Reading:
    metres = entry.metres or 0.0
    if old is None or not old.sure or abs(old.metres - metres) > SAME_M:
        return Reading.model_construct(a=entry.mic, b=entry.to, metres=metres, sure=True, taken=1)
    mean = (old.metres * old.taken + metres) / (old.taken + 1)
    return old.model_copy(update={"metres": mean, "taken": old.taken + 1})
