"""What is worked out apart. Only the core is known here: these processes have no database."""

from datetime import datetime
from typing import Any

from ringside.answers.depth import PairDepth, in_depth
from ringside.answers.jobs import JobOrder, setup_list
from ringside.answers.recheck import recheck
from ringside.answers.rows import PairRow, pair_rows
from ringside.answers.stands import compared
from ringside.edits.apply import apply
from ringside.edits.edited import Edited
from ringside.errors import RingsideError
from ringside.files.pairs import pairs_csv
from ringside.gear.locker import Locker
from ringside.pairs.analysis import analyse
from ringside.pairs.flips import BestFlips, best_flips
from ringside.places.clearance import PEDAL_WIDE_M, pedals, sweeps
from ringside.plan.kit import Kit
from ringside.plan.layout import Layout
from ringside.rooms.boundary import spot_report
from ringside.rooms.decay import decay_report
from ringside.rooms.modes import beyond_words, modes, modes_words
from ringside.standing.entries import Entry, written
from ringside.standing.judged import Judged, judged
from ringside.standing.report import NextReading, next_of, standing
from ringside.standing.since import since_touched
from ringside.standing.stood import analysed
from ringside.standing.truth import truth
from ringside.survey.report import tape_report
from ringside.survey.walk import Ends
from ringside.worklist.build import worklist
from ringside.worklist.lines import Worklist
from ringside.worklist.settled import Settled


def kit_board(kit: Kit, skip: frozenset[Ends]) -> dict[str, Any]:
    """The tape walk and the drummer's zones."""
    return {
        "tape": tape_report(kit, skip),
        "sweeps_m": sweeps(kit).tolist(),
        "pedals_m": pedals(kit).tolist(),
        "pedal_wide_m": PEDAL_WIDE_M,
    }


def at_kit(
    layout: Layout, locker: Locker, log: list[Entry], order: JobOrder, now: datetime
) -> dict[str, Any]:
    """Where everything stands by a log, what that changes of the plan, and the set-up list."""
    true = truth(layout, locker, written(layout, log).readings)
    stands = standing(layout, locker, log, true)
    told = compared(analyse(layout), analysed(true.layout))
    return {
        "standing": stands,
        "compared": told,
        "recheck": recheck(layout, log, stands, told, now),
        "since": since_touched(layout, locker, log, true),
        "setup": setup_list(layout, locker, order),
    }


def next_reading(layout: Layout, locker: Locker, log: list[Entry]) -> NextReading | None:
    """What is to be measured now."""
    return next_of(layout, locker, log)


def reading(
    layout: Layout, locker: Locker, log: list[Entry], mic: str, to: str | None, metres: float
) -> Judged:
    """A reading before it is kept."""
    return judged(layout, locker, log, mic, to, metres)


def room_board(layout: Layout) -> dict[str, Any]:
    """Decay, modes, boundary response and the map of spots."""
    room = layout.room
    if room is None:
        raise RingsideError("this layout has no room yet; draw one first")
    rows_ = modes(room, layout.air.speed)
    return {
        "decay": decay_report(layout),
        "modes": rows_,
        "modes_words": [*modes_words(rows_), *beyond_words(room, layout.air.speed)],
        "spots": spot_report(layout),
    }


def rows(layout: Layout, source: str | None) -> list[PairRow]:
    """Every pair in the order of the grid."""
    return pair_rows(analysed(layout), source)


def depth(layout: Layout, a: str, b: str, source: str | None) -> PairDepth:
    """A pair on a drum, every remedy tried on the whole."""
    return in_depth(layout, a, b, source)


def flips(layout: Layout) -> BestFlips:
    """The best set of flips."""
    return best_flips(analysed(layout))


def pairs_table(layout: Layout) -> str:
    """Every pair on every drum as CSV."""
    return pairs_csv(analysed(layout))


def apply_edit(layout: Layout, edit: Any) -> Edited:
    """A layout with one edit made."""
    return apply(layout, edit)


def what_to_do(layout: Layout, settled: Settled | None) -> Worklist:
    """The list of what to do now."""
    return worklist(layout, settled)


def lengths(layouts: list[tuple[Layout, Settled | None]]) -> list[int]:
    """How long that list is for each."""
    return [len(worklist(*one).lines) for one in layouts]
