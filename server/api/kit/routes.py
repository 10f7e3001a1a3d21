"""Kit and room as answers that are computed: edits, the tape walk, the room's sound."""

from typing import Any

from django.http import HttpRequest
from ninja import Router
from ringside.answers.effects import Effects, effects
from ringside.hear.tuning import fundamental_of, note_of
from ringside.plan.kits import KITS
from ringside.plan.materials import BANDS_HZ, MATERIALS, SOURCE
from ringside.rooms.boundary import SpotHere, spot_here

from api.common import LayoutOnly, Problem
from api.heavy import work
from api.heavy.pool import heavy
from api.kept import computed
from api.kit.schemas import (
    EffectsIn,
    HereIn,
    KitBoard,
    KitBoardIn,
    MaterialsOut,
    PitchIn,
    PitchOut,
    PresetOut,
    RoomBoard,
)
from api.resting import under_hands

router = Router(tags=["kit and room"])
WRONG = {400: Problem, 422: Problem}


@router.get("/kits", response=list[PresetOut])
def presets(request: HttpRequest) -> list[dict[str, Any]]:
    """The starting kits."""
    return [{"name": name, "kit": make()} for name, make in KITS.items()]


@router.post("/kit/board", response={200: KitBoard, **WRONG})
def kit_board(request: HttpRequest, data: KitBoardIn) -> dict[str, Any]:
    """The tape walk and the drummer's zones."""
    skip = frozenset(frozenset(pair) for pair in data.skip)
    return heavy(request, work.kit_board, data.layout.kit, skip)


@router.post("/kit/pitch", response={200: PitchOut, **WRONG})
def pitch(request: HttpRequest, data: PitchIn) -> dict[str, Any]:
    """A typed fundamental in hertz and as a note."""
    hz = fundamental_of(data.text)
    note, cents = note_of(hz)
    return {"hz": hz, "note": note, "cents": cents}


@router.post("/room/board", response={200: RoomBoard, **WRONG})
def room_board(request: HttpRequest, data: LayoutOnly) -> dict[str, Any]:
    """Decay, modes, boundary response and the map of spots."""
    return heavy(request, work.room_board, data.layout)


@router.post("/room/here", auth=computed, response={200: SpotHere, 409: Problem, **WRONG})
def room_here(request: HttpRequest, data: HereIn) -> SpotHere:
    """What the walls do where the kit stands, while a hand moves it; nothing is stored.

    409: the layout of this name is not known here any more, send it again.
    """
    layout = under_hands.before(request, data).layout
    return spot_here(layout.kit, data.room, layout.air.speed)


@router.get("/room/materials", response=MaterialsOut)
def materials(request: HttpRequest) -> dict[str, Any]:
    """The material table."""
    rows = [{"name": m.name, "about": m.about, "alpha": list(m.alpha)} for m in MATERIALS.values()]
    return {"source": SOURCE, "bands_hz": list(BANDS_HZ), "materials": rows}


@router.post("/effects", response={200: Effects, **WRONG})
def what_changed(request: HttpRequest, data: EffectsIn) -> Effects:
    """What turned over between two states of a layout."""
    return effects(data.before, data.after)
