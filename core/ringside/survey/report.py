"""What the tape says of a kit: readings against the plan, each part's doubt, what to read next."""

from dataclasses import dataclass
from typing import Literal

from ringside.plan.kit import Cymbal, Drum, Kit, Reading
from ringside.survey.lines import computed
from ringside.survey.net import MOST_OUT, Net, ends_of, fit
from ringside.survey.walk import GUARDED, HEIGHT_PLACED_M, PLACED_M, Ask, Ends, doubt, next_reading


def end_words(part: Drum | Cymbal) -> str:
    """Where the tape is held at a part.

    Parameters
    ----------
    part : Drum or Cymbal

    Returns
    -------
    str
    """
    if isinstance(part, Cymbal):
        return "the bell"
    if part.kind == "kick":
        return "the beater spot" if part.reference == "batter" else "the middle of the front head"
    return "the middle of the head"


ReadingState = Literal["fits", "misfit", "doubtful", "unsure"]


@dataclass(frozen=True, kw_only=True, slots=True)
class ReadingRow:
    """A tape reading against the plan, metres."""

    a: str
    b: str | None
    metres: float
    says_m: float
    """What the plan says it should be."""
    off_m: float
    state: ReadingState


@dataclass(frozen=True, kw_only=True, slots=True)
class PartDoubt:
    """How well a part's place is known, metres, one sigma; where the tape is held."""

    id: str
    plan_m: float
    height_m: float
    placed: bool
    held_at: str


@dataclass(frozen=True, kw_only=True, slots=True)
class TapeReport:
    """The walk round the kit: readings against the plan, parts with their doubt, the next."""

    readings: list[ReadingRow]
    parts: list[PartDoubt]
    next: Ask | None
    placed: int
    guarded: int
    """Readings in which an error of 3 cm would be net."""
    words: str


def tape_report(kit: Kit, skip: frozenset[Ends] = frozenset()) -> TapeReport:
    """Everything the walk needs: each reading against the plan, each part's doubt, the next.

    Parameters
    ----------
    skip : frozenset
        Readings that cannot be taken, each as the set of its two ends.

    Returns
    -------
    TapeReport
    """
    net = fit(kit)
    said = computed(net.points, [ends_of(kit, r) for r in kit.readings])[0]
    rows = [
        ReadingRow(
            a=r.a,
            b=r.b,
            metres=r.metres,
            says_m=float(said[i]),
            off_m=r.metres - float(said[i]),
            state=_state(net, i, r),
        )
        for i, r in enumerate(kit.readings)
    ]
    parts = [_part_doubt(net, i, part) for i, part in enumerate(kit.parts)]
    return TapeReport(
        readings=rows,
        parts=parts,
        next=next_reading(kit, net, skip),
        placed=sum(p.placed for p in parts),
        guarded=int((net.redundancy >= GUARDED).sum()),
        words=_words(kit, net),
    )


def _part_doubt(net: Net, i: int, part: Drum | Cymbal) -> PartDoubt:
    plan, high = doubt(net, i)
    return PartDoubt(
        id=part.id,
        plan_m=plan,
        height_m=high,
        placed=plan <= PLACED_M and high <= HEIGHT_PLACED_M,
        held_at=end_words(part),
    )


def _state(net: Net, i: int, r: Reading) -> ReadingState:
    if i in net.suspects:
        return "misfit"
    if i in net.rivals:
        return "doubtful"
    return "fits" if r.sure else "unsure"


def _words(kit: Kit, net: Net) -> str:
    if not kit.readings:
        return "Nothing is measured yet: the kit stands as it is drawn."
    if len(net.suspects) >= MOST_OUT:
        return (
            f"{len(net.suspects)} readings do not fit the others, and more may not: that is no slip"
            " of the hand. Is a unit another, or the kit not the one that is drawn?"
        )
    names = []
    for i in net.suspects:
        r = kit.readings[i]
        names.append(f"{r.a}–{r.b or 'floor'}")
    if names:
        do, be = ("does", "is") if len(names) == 1 else ("do", "are")
        return f"{', '.join(names)} {do} not fit the other readings and {be} left out."
    if not all(r.sure for r in kit.readings):
        return "Some readings are no longer sure: a part at their end was moved."
    if len(net.used) and float(net.redundancy.max()) > 0.1:
        return "All readings fit one plan."
    return "Each reading is used; none is checked by another yet."
