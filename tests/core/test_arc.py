"""The arc of a side mic: equal on the snare all round, told by what is free and what it hears."""

import math

import numpy as np
import pytest
from ringside.answers.arc import arc
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.clearance import words_for
from ringside.places.starts import starting_layout
from ringside.plan.layout import Layout
from ringside.survey.net import held_at
from ringside.techniques.taking import take

from tests.core.tracks import with_mic

BARE = starting_layout("five-piece", "empty")
PAIR = take(BARE, "over-and-side").layout
SIDE = "SD"


def reference(layout: Layout, kind: str) -> np.ndarray:
    return np.array(held_at(layout.kit.first(kind)))


def test_every_spot_is_as_far_from_the_snare_and_as_high_and_turned_as_told():
    found, mic = arc(PAIR, SIDE), PAIR.mic(SIDE)
    snare, kick = (reference(PAIR, k) for k in ("snare", "kick"))
    start = np.array(mic.position_m) - snare
    for spot in found.spots:
        at = np.array(spot.position_m)
        assert np.linalg.norm(at - snare) == pytest.approx(found.snare_m, abs=1e-4)
        assert at[2] == pytest.approx(mic.position_m[2])
        assert spot.kick_m == pytest.approx(np.linalg.norm(at - kick), abs=1e-4)
        way = (at - snare)[:2]
        turn = math.degrees(math.acos(min(1.0, way @ start[:2] / np.linalg.norm(way) ** 2)))
        assert turn == pytest.approx(abs(spot.turn_deg), abs=1e-3)
        # It looks at the snare as before.
        toward = np.array(spot.aim) @ (snare - at)
        assert toward == pytest.approx(np.array(mic.aim) @ -start, abs=1e-6)
        assert spot.blocked == words_for(at, PAIR)
    now = found.spots[found.now]
    assert (now.turn_deg, now.floor_db) == (0.0, 0.0)
    assert now.position_m == pytest.approx(mic.position_m)


def test_above_zero_is_toward_the_audience_on_either_side_of_the_kit():
    snare = reference(PAIR, "snare")
    across = np.array(PAIR.mic(SIDE).position_m) - snare
    left = with_mic(PAIR, SIDE, position_m=tuple(snare + across * (-1, 1, 1)))
    for layout in (PAIR, left):
        spots = arc(layout, SIDE).spots
        steps = np.diff([s.position_m[1] for s in spots])
        assert steps[len(steps) // 2 - 3 : len(steps) // 2 + 3].min() > 0


def test_the_gain_is_what_the_whole_analysis_hears():
    found = arc(PAIR, SIDE)
    ids = analyse(PAIR).scene.sources.ids
    floor, snare = ids.index("floor"), ids.index(PAIR.kit.first("snare").id)

    def heard(layout):
        level = analyse(layout).arrivals.level_db[[m.id for m in layout.mics].index(SIDE)]
        return level[floor] - level[snare]

    for spot in (found.spots[0], found.spots[found.now + 4], found.spots[-1]):
        moved = with_mic(PAIR, SIDE, position_m=spot.position_m, aim=spot.aim)
        assert spot.floor_db == pytest.approx(heard(moved) - heard(PAIR), abs=0.02)


def test_the_best_is_the_free_spot_with_most_of_the_floor_tom_and_is_told():
    found = arc(PAIR, SIDE)
    free = [s for s in found.spots if not s.blocked]
    best = found.spots[found.best]
    assert not best.blocked
    assert best.floor_db == max(s.floor_db for s in free)
    if best.floor_db >= 1.0:
        side = "toward the audience" if best.turn_deg > 0 else "toward the drummer"
        assert f"{abs(best.turn_deg):.0f}° {side}" in found.words
        assert f"{best.floor_db:+.1f} dB of floor tom" in found.words
    else:
        assert found.words.endswith("leave it.")


def test_where_it_is_planned_in_the_way_that_is_said_first():
    snare = reference(PAIR, "snare")
    floor = np.array(PAIR.kit.part("floor").batter_m)
    inside = snare + (floor - snare) * (1, 1, 1) + (0.0, 0.0, -0.1)
    told = arc(with_mic(PAIR, SIDE, position_m=tuple(inside)), SIDE)
    assert told.words.startswith("Where it is planned: This spot is inside a drum's shell.")
    assert told.spots[told.now].blocked


@pytest.mark.parametrize(("spoil", "said"), [
    (lambda p: (p, "XX"), "expected a mic of this layout, got 'XX'"),
    (lambda p: (p, "OV"), "straight over the snare"),
    (lambda p: (p.model_copy(update={"kit": p.kit.model_copy(update={
        "drums": tuple(d for d in p.kit.drums if d.kind != "floor")})}), SIDE), "floor tom"),
])  # fmt: skip
def test_what_has_no_arc_is_said(spoil, said):
    with pytest.raises(RingsideError, match=said):
        arc(*spoil(PAIR))
