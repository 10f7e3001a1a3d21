"""What follows a mic under the hand is the whole board's answer, number by number."""

from dataclasses import fields

import numpy as np
import pytest
from ringside.answers.board import FocusOn, board
from ringside.answers.following import Moved, follows
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.drumterms import terms_of
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_mics
from ringside.plan.room import Room

LAYOUT = starting_layout("five-piece", "turned pair")
ROOM = Room(name="Salt store", width_m=4.2, length_m=5.0, height_m=2.3, kit_x_m=2.0, kit_y_m=1.6)
BEFORE = analyse(LAYOUT)
CLOSE = {"ST", "SB", "KO", "FT"}
IN_ROOM = LAYOUT.model_copy(update={"room": ROOM})


def moved(layout, name, by, aim=None):
    mic = layout.mic(name)
    to = tuple(float(x) for x in np.add(mic.position_m, by))
    there = Moved(name, to, aim or mic.aim)
    new = mic.model_copy(update={"position_m": to, "aim": there.aim})
    return there, with_mics(layout, (new,))


@pytest.mark.parametrize("layout", [LAYOUT, IN_ROOM], ids=["free", "in a small room"])
@pytest.mark.parametrize(("mic", "anchor", "mover"), [
    ("OR", "OL", "OR"), ("OL", "OL", "OR"), ("OL", "OR", "OL"), ("ST", "SB", "ST"),
    ("KO", "KI", "KO"), ("FT", "FT", "OL"),
])  # fmt: skip
@pytest.mark.parametrize("by", [(0, 0, 0), (0.21, -0.13, 0.06), (-0.4, 0.3, -0.5)])
def test_it_is_the_boards_answer(layout, mic, anchor, mover, by):
    there, after = moved(layout, mic, by, (0.6, 0.0, -0.8))
    for source in (None, "kick"):
        focus = FocusOn(anchor, mover, source)
        told, whole = follows(analyse(layout), there, focus), board(analyse(after), focus)
        row = whole.mic_ids.index(mic)
        for name in ("tape_m", "path_m", "arrival_s", "after_gain_db", "sign"):
            assert getattr(told, name) == getattr(whole, name)[row], name
        assert (told.aim, told.blocked) == (whole.aim[mic], whole.blocked[mic])
        assert told.close == (terms_of(after, mic) if mic in CLOSE else None)
        pair, full = told.pair, whole.focus
        more = pair.in_words
        assert (pair.a, pair.b) == (full.a, full.b)
        for name in ("source", "curve_db", "flipped_curve_db"):
            assert getattr(more, name) == getattr(full, name), name
        shown = {"snare", "kick", full.source}
        assert more.rows == [r for r in full.rows if r.source in shown]
        assert len(more.rows) == len(shown)
        bare = follows(analyse(layout), there, focus, words=False)
        same_distances(pair, full)
        same_distances(bare.pair, full)
        if full.places is None:
            assert (more.spots, more.ring) == (None, None)
        else:
            for name in ("swing", "equal_height", "snare_only"):
                assert getattr(more.spots, name) == getattr(full.places, name), name
            assert more.ring == (full.places.ring if mic == anchor else None)
            still = board(analyse(layout), focus).focus.places.ring
            assert (still == full.places.ring) == (mic == mover or by == (0, 0, 0))


def same_distances(pair, full):
    told = {d.source: d for d in pair.distances}
    assert set(told) == {"snare", "kick"}
    for row in full.rows:
        if row.source in told:
            for f in fields(told[row.source]):
                assert getattr(told[row.source], f.name) == getattr(row, f.name), f.name


def test_without_words_the_numbers_are_the_same():
    at_the_snare, _ = moved(LAYOUT, "ST", (0.2, 0.1, 0.0))
    assert follows(BEFORE, at_the_snare, words=False).close is None
    there, _ = moved(LAYOUT, "OR", (0.2, 0.1, 0.0))
    for focus in (None, FocusOn("OL", "OR"), FocusOn("OL", "OR", "rack-1")):
        told = follows(BEFORE, there, focus)
        bare = follows(BEFORE, there, focus, words=False)
        for name in ("mic", "tape_m", "path_m", "arrival_s", "after_gain_db", "sign"):
            assert getattr(bare, name) == getattr(told, name)
        assert (bare.aim, bare.blocked) == (None, None)
        if focus:
            assert (bare.pair.distances, bare.pair.in_words) == (told.pair.distances, None)


def test_a_mic_outside_the_open_pair_leaves_it_alone():
    there, _ = moved(LAYOUT, "FT", (0.1, 0, 0))
    assert follows(BEFORE, there, FocusOn("OL", "OR")).pair is None
    assert follows(BEFORE, there).pair is None


def test_who_is_not_there_is_named():
    with pytest.raises(RingsideError, match="'XX'"):
        follows(BEFORE, Moved("XX", (0, 0, 1), (0, 0, -1)))
    there, _ = moved(LAYOUT, "OR", (0, 0, 0))
    with pytest.raises(RingsideError, match="'YY'"):
        follows(BEFORE, there, FocusOn("OR", "YY"))
    with pytest.raises(RingsideError, match="'gong'"):
        follows(BEFORE, there, FocusOn("OL", "OR", "gong"))


@pytest.mark.parametrize("change", [{"job": None}, {"role": "overhead"}])
def test_what_is_no_close_mic_of_a_drum_has_no_terms_there(change):
    other = LAYOUT.mic("ST").model_copy(update=change)
    before = analyse(with_mics(LAYOUT, (other,)))
    there, _ = moved(LAYOUT, "ST", (0.1, 0.0, 0.0))
    assert follows(BEFORE, there).close is not None
    assert follows(before, there).close is None
