"""Every answer holds just what its record says: no other type, nothing JSON cannot carry.

Records are not checked when they are made (they are made many times a second), and the server
sends them as they are; so each kind is checked here once, strictly, against its annotations.
"""

from datetime import UTC, datetime

import numpy as np
import pytest
from pydantic import TypeAdapter
from ringside.answers.board import Board, FocusOn, board
from ringside.answers.changes import Change, changes
from ringside.answers.depth import PairDepth, in_depth
from ringside.answers.effects import Effects, effects
from ringside.answers.report import Report, report
from ringside.answers.sheet import SetupRow, setup_rows
from ringside.answers.whatif import Sweep, sweep
from ringside.brief.plans import PlanRow, plans
from ringside.edits.apply import apply
from ringside.edits.kit import TakeReading
from ringside.fitting.fit import Fitted, fit
from ringside.gear.locker import Locker
from ringside.gear.stock import Stock, stock
from ringside.hear.tuning import LugReading, Tuning, tuning_report
from ringside.pairs.analysis import analyse
from ringside.pairs.flips import BestFlips, best_flips
from ringside.pairs.onebyone import StepRow, order_of, steps
from ringside.pairs.pictures import Pictures, pictures
from ringside.places.drumterms import CloseTerms, terms_of
from ringside.places.nulls import NullAim, null_aim
from ringside.places.starts import starting_layout
from ringside.plan.handsizes import HandSizes
from ringside.plan.hanging import without_mics
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.plan.questions import Brief
from ringside.plan.references import references
from ringside.plan.room import Room
from ringside.rooms.boundary import SpotBoard, spot_report
from ringside.rooms.decay import Decay, decay_report
from ringside.rooms.modes import Mode, modes
from ringside.survey.report import TapeReport, tape_report
from ringside.techniques.catalogue import TechniqueRow, listed
from ringside.techniques.standing import StandingRow, standing
from ringside.techniques.taking import take

from tests.core.tracks import with_mic

ROOM = Room(name="Store", width_m=7.0, length_m=8.0, height_m=3.4, kit_x_m=3.5, kit_y_m=3.0)
LAYOUT = take(starting_layout("five-piece", "square pair", room=ROOM), "room-crossed-8").layout
TAPED = apply(LAYOUT, TakeReading(do="reading", a="snare", b="kick", metres=0.66)).layout
WARM = LAYOUT.model_copy(update={"air": LAYOUT.air.model_copy(update={"temperature_c": 33.0})})
LUGS = [LugReading(drum="snare", at="2026-01-01T10:00:00+00:00", lugs_hz=(331.0, 329.5))]
AN = analyse(LAYOUT)

ANSWERS = [
    (Board, board(AN, FocusOn("OL", "OR"))),
    (Report, report(AN)),
    (PairDepth, in_depth(LAYOUT, "OL", "OR", "kick")),
    (PairDepth, in_depth(LAYOUT, "ST", "SB")),
    (Effects, effects(LAYOUT, WARM)),
    (list[Change], changes(LAYOUT, without_mics(TAPED, {"KI"}))),
    (list[SetupRow], setup_rows(LAYOUT)),
    (Sweep, sweep(LAYOUT, "room-crossed-8", "out", 5)),
    (list[PlanRow], plans(LAYOUT, Brief())),
    (Fitted, fit(LAYOUT)),
    (Stock, stock(LAYOUT, Locker(minutes=1))),
    (Tuning, tuning_report(LAYOUT.kit, LUGS, datetime(2026, 1, 1, 15, tzinfo=UTC))),
    (BestFlips, best_flips(AN)),
    (list[StepRow], steps(AN, order_of(LAYOUT))),
    (Pictures, pictures(AN)),
    (CloseTerms, terms_of(LAYOUT, "ST")),
    (NullAim, null_aim(LAYOUT, "ST")),
    (SpotBoard, spot_report(LAYOUT)),
    (Decay, decay_report(LAYOUT)),
    (list[Mode], modes(ROOM, 343.2)),
    (TapeReport, tape_report(TAPED.kit)),
    (list[TechniqueRow], listed(LAYOUT, HandSizes())),
    (list[StandingRow], standing(LAYOUT)),
]


@pytest.mark.parametrize(("kind", "answer"), ANSWERS, ids=lambda v: getattr(v, "__name__", ""))
def test_an_answer_is_what_its_record_says(kind, answer):
    record = TypeAdapter(kind)
    text = record.dump_json(answer)
    record.validate_json(text, strict=True)


@pytest.mark.parametrize(("turn", "said"), [(np.pi * 2 / 3, True), (-np.pi / 3, True), (0.0, False),
                                            (np.pi * 2 / 3 + np.radians(11), False),
                                            (np.pi * 2 / 3 + np.radians(9), True)])  # fmt: skip
def test_the_sheet_says_which_mic_is_in_line_with_the_wires(turn, said):
    # Eleven o'clock lies 120° counter-clockwise from the drummer's right.
    kit = five_piece()
    drums = tuple(
        d.model_copy(update={"wires_rad": turn}) if d.kind == "snare" else d for d in kit.drums
    )
    layout = Layout(name="t", kit=kit.model_copy(update={"drums": drums}))
    took = take(layout, "snare-bottom", "snare", {"clock": 11.0}).layout
    assert [r.in_line for r in setup_rows(took)] == [said]


@pytest.mark.parametrize(
    ("by", "side"),
    [
        ((-0.5, 1.0), "left of the line from snare to kick, audience's side"),
        ((0.9, 0.3), "right of the line from snare to kick, audience's side"),
        ((-0.6, -0.4), "left of the line from snare to kick, drummer's side"),
        ((0.4, -0.5), "right of the line from snare to kick, drummer's side"),
        (None, "on the line from snare to kick, audience's side"),
    ],
)
def test_of_two_spots_that_two_tapes_leave_the_sheet_says_which(by, side):
    # The kick stands before the snare, to its right: the line runs from the stool to the audience.
    start = starting_layout("five-piece", "square pair")
    ref = references(start)
    spot = ref.kick if by is None else ref.snare + np.array([*by, 1.0])
    layout = with_mic(start, "OL", position_m=tuple(float(x) for x in spot))
    row = next(r for r in setup_rows(layout) if r.id == "OL")
    assert row.side == side
    # Mirrored in the line it is as far from both, as high, and told from the first.
    if by is not None:
        along = (ref.kick - ref.snare)[:2] / np.linalg.norm((ref.kick - ref.snare)[:2])
        to = (spot - ref.snare)[:2]
        other = np.array([*(ref.snare[:2] + 2 * (to @ along) * along - to), spot[2]])
        mirrored = with_mic(layout, "OL", position_m=tuple(float(x) for x in other))
        there = next(r for r in setup_rows(mirrored) if r.id == "OL")
        assert (there.snare_m, there.kick_m) == pytest.approx((row.snare_m, row.kick_m))
        assert there.side.split()[0] != row.side.split()[0]
    assert next(r for r in setup_rows(layout) if r.id == "ST").side == ""


def test_the_sheet_names_what_is_put_on_a_track_and_nothing_else():
    start = starting_layout("five-piece", "square pair")
    late = with_mic(start, "OL", track_delay_samples=9)
    rows = {r.id: r.flips for r in setup_rows(late)}
    assert rows["OL"] == ["track delayed by 9 samples"]
    assert rows["OR"] == []
    cut = with_mic(start, "HH", low_cut_hz=150.0)
    assert {r.id: r.low_cut_hz for r in setup_rows(cut)}["HH"] == 150.0
