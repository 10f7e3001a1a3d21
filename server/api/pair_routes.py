"""Pairs in depth, as answers that are computed, not stored."""

from typing import Any

from django.http import HttpRequest
from ninja import Router
from ringside.answers.depth import in_depth
from ringside.answers.report import pair_rows
from ringside.pairs.analysis import analyse
from ringside.pairs.flips import best_flips
from ringside.pairs.onebyone import order_of, steps
from ringside.pairs.stereo import pictures

from api.kit_schemas import LayoutOnly
from api.pair_schemas import FlipsOut, OrderIn, PairDepth, PairIn, PictureOut, RowsIn, StepRow
from api.schemas import PairRow, Problem

router = Router(tags=["pairs"])
WRONG = {400: Problem, 422: Problem}


@router.post("/pair-rows", response={200: list[PairRow], **WRONG})
def rows(request: HttpRequest, data: RowsIn) -> list[dict[str, Any]]:
    """Every pair in the order of the grid, each on its worst source or all on one."""
    return pair_rows(analyse(data.layout), data.source)


@router.post("/pair-in-depth", response={200: PairDepth, **WRONG})
def depth(request: HttpRequest, data: PairIn) -> dict[str, Any]:
    """A pair on a drum: bands, body against delay, and every remedy tried on the whole."""
    return in_depth(data.layout, data.a, data.b, data.source)


@router.post("/best-flips", response={200: FlipsOut, **WRONG})
def flips(request: HttpRequest, data: LayoutOnly) -> dict[str, Any]:
    """The best set of flips for all mics together."""
    return best_flips(analyse(data.layout))


@router.post("/one-by-one", response={200: list[StepRow], **WRONG})
def one_by_one(request: HttpRequest, data: OrderIn) -> list[dict[str, Any]]:
    """What each mic does to every drum as it is added."""
    return steps(analyse(data.layout), order_of(data.layout, data.first))


@router.post("/picture", response={200: PictureOut, **WRONG})
def picture(request: HttpRequest, data: LayoutOnly) -> dict[str, Any]:
    """The stereo picture of every pair, mono, and the pans against it."""
    return pictures(analyse(data.layout))
