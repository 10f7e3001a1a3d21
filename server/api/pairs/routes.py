"""Pairs in depth, as answers that are computed, not stored."""

from django.http import HttpRequest
from ninja import Router
from ringside.answers.depth import PairDepth
from ringside.answers.options import OptionRow, ranked_options
from ringside.answers.rows import PairRow
from ringside.pairs.flips import BestFlips
from ringside.pairs.onebyone import StepRow, order_of, steps
from ringside.pairs.pictures import Pictures, pictures
from ringside.standing.stood import analysed
from ringside.worklist.lines import Worklist
from takes.telling import settled_of

from api.common import LayoutOnly, Problem
from api.heavy import work
from api.heavy.pool import heavy
from api.pairs.schemas import OptionsIn, OrderIn, PairIn, RowsIn, WorklistIn

router = Router(tags=["pairs"])
WRONG = {400: Problem, 422: Problem}


@router.post("/pair-rows", response={200: list[PairRow], **WRONG})
def rows(request: HttpRequest, data: RowsIn) -> list[PairRow]:
    """Every pair in the order of the grid, each on its worst source or all on one."""
    return heavy(request, work.rows, data.layout, data.source)


@router.post("/pair-in-depth", response={200: PairDepth, **WRONG})
def depth(request: HttpRequest, data: PairIn) -> PairDepth:
    """A pair on a drum: bands, body against delay, and every remedy tried on the whole."""
    return heavy(request, work.depth, data.layout, data.a, data.b, data.source)


@router.post("/best-flips", response={200: BestFlips, **WRONG})
def flips(request: HttpRequest, data: LayoutOnly) -> BestFlips:
    """The best set of flips for all mics together."""
    return heavy(request, work.flips, data.layout)


@router.post("/worklist", response={200: Worklist, 404: Problem, **WRONG})
def to_do(request: HttpRequest, data: WorklistIn) -> Worklist:
    """What to do now: a plan of at most seven lines that go together."""
    told = None if data.of is None else settled_of(request.user, data.of)
    return heavy(request, work.what_to_do, data.layout, told)


@router.post("/one-by-one", response={200: list[StepRow], **WRONG})
def one_by_one(request: HttpRequest, data: OrderIn) -> list[StepRow]:
    """What each mic does to every drum as it is added."""
    return steps(analysed(data.layout), order_of(data.layout, data.first))


@router.post("/options", response={200: list[OptionRow], **WRONG})
def options(request: HttpRequest, data: OptionsIn) -> list[OptionRow]:
    """The options of a set, each up alone in the current balance, the best first."""
    return heavy(request, ranked_options, data.layout, data.set)


@router.post("/picture", response={200: Pictures, **WRONG})
def picture(request: HttpRequest, data: LayoutOnly) -> Pictures:
    """The stereo picture of every pair, mono, and the pans against it."""
    return pictures(analysed(data.layout))
