"""What an edit changed, as a JSON Patch: applied by a library of that standard (RFC 6902)."""

import jsonpatch
import pytest
from pydantic import TypeAdapter
from pydantic_core import to_jsonable_python
from ringside.edits.apply import Edit, apply
from ringside.edits.changes import changes
from ringside.places.starts import starting_layout
from ringside.plan.kits import four_piece
from ringside.plan.room import Room
from ringside.standing.stood import Stood, standing_layout

EDIT = TypeAdapter(Edit)
ROOM = Room(name="R", width_m=6.4, length_m=8.2, height_m=3.3, kit_x_m=3.1, kit_y_m=2.6)
START = starting_layout("five-piece", "square pair", room=ROOM)


def floor(**change):
    part = START.kit.part("floor").model_copy(update=change)
    return {"do": "change", "was": "floor", "part": part.model_dump()}


def overhead(**change):
    return {"do": "mics", "mics": [START.mic("OL").model_copy(update=change).model_dump()]}


@pytest.mark.parametrize(
    ("edit", "paths"),
    [
        ({"do": "pose", "x_m": 3.2, "y_m": 2.6, "turn_rad": ROOM.kit_turn_rad}, ["/room/kit_x_m"]),
        ({"do": "room", "room": None}, ["/room"]),
        (floor(name="Low tom"), ["/kit/drums/4/name"]),
        (overhead(position_m=(0.1, 0.2, 1.3)), ["/mics/8/position_m"]),
        (floor(far_head=None), ["/kit/drums/4/far_head"]),
        (overhead(locks=("aim", "height")), ["/mics/8/locks"]),
        (overhead(), []),
        ({"do": "remove-mics", "mics": ["OL"]}, ["/mics", "/channels", "/stereo_pairs"]),
        ({"do": "rename", "was": "OL", "to": "A"},
         ["/mics/8/id", "/channels/8/id", "/channels/8/mic", "/stereo_pairs/0/left"]),
    ],
)  # fmt: skip
def test_it_says_what_was_changed_and_nothing_else(edit, paths):
    now = apply(START, EDIT.validate_python(edit)).layout
    assert [c.path for c in changes(START, now)] == paths


EDITS = [
    {"do": "hand"},
    {"do": "add", "kind": "crash"},
    {"do": "remove", "id": "floor"},
    {"do": "add-mic", "like": "OL"},
    {"do": "swap", "kit": four_piece().model_dump()},
    {"do": "reading", "a": "snare", "b": "kick", "metres": 0.66},
    floor(batter_m=(0.9, 0.1, 0.5), damping=("ring",)),
    overhead(job="snare", position_m=(0.1, 0.2, 1.3)),
]


@pytest.mark.parametrize("edit", EDITS)
def test_applied_to_what_was_it_gives_what_is(edit):
    now = apply(START, EDIT.validate_python(edit)).layout
    patch = to_jsonable_python(changes(START, now))
    assert jsonpatch.apply_patch(START.model_dump(mode="json"), patch) == now.model_dump(
        mode="json"
    )


def test_what_was_measured_of_one_that_stands_stays():
    stands = standing_layout(START, Stood(readings=(), setback_m=(0.0,) * len(START.mics)))
    now = apply(stands, EDIT.validate_python(overhead(pattern="omni"))).layout
    assert [c.path for c in changes(stands, now)] == ["/mics/8/pattern"]
