"""Fitting against an independent optimiser, and against what it promises: order, locks, reach."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ringside.constants import FARTHEST_MOVE_M
from ringside.fitting.fit import fit
from ringside.fitting.least import SameDistance, SameHeight, least_move
from ringside.fitting.work import FitAsk
from ringside.gear.locker import Locker, StandModel
from ringside.gear.stands import aside_m, base_for, floor_taken, reached
from ringside.places.clearance import words_for_all
from ringside.places.drumterms import DrumTerms, placed
from ringside.places.starts import starting_layout
from ringside.plan.drumframe import face_of
from ringside.plan.kit import mirrored, reference_point
from ringside.plan.kits import KITS, five_piece
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import LOCKS, Mic
from ringside.plan.room import Room
from ringside.plan.spoken import the
from ringside.techniques.taking import take
from scipy.optimize import minimize

BLANK = Layout(name="F", kit=five_piece())
EQUAL = FitAsk(wishes=("equal",))


def far(a, b):
    return float(np.linalg.norm(np.subtract(a, b)))


def pair(left, right, kit=None, locks=((), ()), room=None):
    """Two overheads where they were put down by eye."""
    mics = tuple(
        Mic(id=i, name=i, role="overhead", position_m=tuple(map(float, p)), aim=(0, 0, -1.0),
            locks=held)
        for i, p, held in zip(("OL", "OR"), (left, right), locks, strict=True)
    )  # fmt: skip
    return Layout(
        name="Pair", kit=kit or five_piece(), mics=mics, room=room,
        stereo_pairs=(StereoPair(name="Overheads", left="OL", right="OR"),),
    )  # fmt: skip


def gaps(layout, a="OL", b="OR"):
    kit = layout.kit
    to = [reference_point(kit.first(k)) for k in ("snare", "kick")]
    one, two = layout.mic(a).position_m, layout.mic(b).position_m
    return [abs(far(one, p) - far(two, p)) for p in to]


# --- the smallest move ----------------------------------------------------------------------


def moved_kit(rng):
    """A five-piece whose snare and kick stand somewhere else."""
    kit = five_piece()
    drums = tuple(
        d.model_copy(update={"batter_m": tuple(np.add(d.batter_m, rng.uniform(-0.08, 0.08, 3)))})
        if d.kind in ("snare", "kick")
        else d
        for d in kit.drums
    )
    return kit.model_copy(update={"drums": drums})


@pytest.mark.parametrize("seed", range(25))
def test_the_move_is_as_small_as_an_independent_optimiser_finds(seed):
    """SLSQP of scipy from the same start, with the two equalities as constraints."""
    rng = np.random.default_rng(seed)
    kit = moved_kit(rng)
    left = np.array([-0.5, 0.4, 1.75]) + rng.uniform(-0.2, 0.2, 3)
    right = np.array([0.6, 0.3, 1.75]) + rng.uniform(-0.2, 0.2, 3)
    start = np.array([left, right])
    s, k = (np.array(reference_point(kit.first(x))) for x in ("snare", "kick"))
    rules = [SameDistance(0, 1, p, p) for p in (s, k)]
    ours = least_move(start, np.ones((2, 3), bool), rules)
    assert ours is not None

    def equal(x, to):
        a, b = x.reshape(2, 3)
        return np.linalg.norm(a - to) - np.linalg.norm(b - to)

    theirs = minimize(
        lambda x: ((x - start.ravel()) ** 2).sum(), start.ravel(), method="SLSQP",
        constraints=[{"type": "eq", "fun": equal, "args": (p,)} for p in (s, k)],
        options={"ftol": 1e-14, "maxiter": 400},
    )  # fmt: skip
    assert theirs.success
    assert max(abs(equal(ours.ravel(), p)) for p in (s, k)) < 1e-7
    size = float(np.sqrt(((ours - start) ** 2).sum()))
    assert size <= np.sqrt(theirs.fun) * 1.001 + 1e-6


@pytest.mark.parametrize("seed", range(12))
def test_a_whole_fit_moves_no_farther_than_the_optimiser(seed):
    rng = np.random.default_rng(100 + seed)
    kit = moved_kit(rng).model_copy(update={"cymbals": ()})
    left = np.array([-0.5, 0.4, 1.75]) + rng.uniform(-0.15, 0.15, 3)
    right = np.array([0.6, -0.1, 1.75]) + rng.uniform(-0.15, 0.15, 3)
    layout = pair(left, right, kit)
    done = fit(layout, EQUAL)
    assert max(gaps(done.layout)) < 1e-6
    s, k = (np.array(reference_point(kit.first(x))) for x in ("snare", "kick"))
    start = np.array([left, right]).ravel()
    theirs = minimize(
        lambda x: ((x - start) ** 2).sum(), start, method="SLSQP",
        constraints=[
            {"type": "eq",
             "fun": lambda x, p=p: np.linalg.norm(x[:3] - p) - np.linalg.norm(x[3:] - p)}
            for p in (s, k)
        ], options={"ftol": 1e-14, "maxiter": 400},
    )  # fmt: skip
    moved = sum(m.moved_m**2 for m in done.moves)
    assert np.sqrt(moved) <= np.sqrt(theirs.fun) * 1.002 + 1e-5


def test_with_one_mic_held_the_other_goes_to_the_nearest_point_of_the_ring():
    """The ring sampled densely is the slow second answer."""
    from ringside.places.loci import ring_through

    layout = pair((-0.5, 0.45, 1.74), (0.55, -0.25, 1.70), locks=(LOCKS, ()))
    done = fit(layout, EQUAL).layout
    assert done.mic("OL") == layout.mic("OL")
    s, k = (reference_point(layout.kit.first(x)) for x in ("snare", "kick"))
    ring = ring_through(s, k, layout.mic("OL").position_m).ring
    points = ring.at(np.linspace(0, 2 * np.pi, 200_000))
    best = np.linalg.norm(points - np.array(layout.mic("OR").position_m), axis=1).min()
    assert far(done.mic("OR").position_m, layout.mic("OR").position_m) == pytest.approx(
        best, abs=1e-5
    )


def test_least_move_says_when_it_cannot():
    rules = [SameDistance(0, 1, np.zeros(3), np.zeros(3))]
    start = np.array([[1.0, 0, 0], [2.0, 0, 0]])
    assert least_move(start, np.zeros((2, 3), bool), rules) is None
    level = least_move(start + [0, 0, 0.3], np.array([[False] * 3, [False, False, True]]),
                       [SameHeight(0, 1, np.array([0, 0, 1.0]))])  # fmt: skip
    assert level == pytest.approx(start + [0, 0, 0.3])


# --- the order of wishes --------------------------------------------------------------------


def test_locks_hold_axis_by_axis():
    layout = pair((-0.5, 0.45, 1.74), (0.7, 0.0, 1.70), locks=(("height", "aim"), ("right",)))
    done = fit(layout, EQUAL).layout
    assert max(gaps(done)) < 1e-6
    assert done.mic("OL").position_m[2] == 1.74
    assert done.mic("OL").aim == layout.mic("OL").aim
    assert done.mic("OR").position_m[0] == 0.7


def test_snare_goes_before_kick_when_both_cannot_be():
    """One coordinate free: it can keep one equality, and keeps the snare's."""
    layout = pair((-0.5, 0.45, 1.74), (0.7, 0.0, 1.70), locks=(LOCKS, ("right", "front", "aim")))
    done = fit(layout, EQUAL)
    snare, kick = gaps(done.layout)
    assert snare < 1e-6
    assert kick > 0.01
    (lost,) = done.gave_up
    assert "kick" in lost.words
    assert lost.left_m == pytest.approx(kick)


def test_with_everything_locked_it_gives_up_and_says_so():
    layout = pair((-0.5, 0.45, 1.74), (0.7, 0.0, 1.70), locks=(LOCKS, LOCKS))
    done = fit(layout)
    assert done.layout == layout
    assert {w.words.split(" stay apart on ")[1].split(":")[0] for w in done.gave_up} == {
        "snare", "kick"}  # fmt: skip
    assert done.words == "2 wishes given up."


def test_what_is_within_tolerance_is_left_alone():
    layout = take(BLANK, "pair-turned").layout
    mic = layout.mic("OR")
    x, y, z = mic.position_m
    near = layout.with_mic(mic.model_copy(update={"position_m": (x + 0.003, y, z)}))
    assert fit(near, EQUAL).moves == []
    tight = FitAsk(wishes=("equal",), snare_tolerance_m=0.0005, kick_tolerance_m=0.0005)
    assert fit(near, tight).moves != []


def test_a_mic_in_the_way_goes_to_the_nearest_clear_spot_on_its_side():
    layout = take(BLANK, "tom-top", "rack-1").layout
    name = layout.mics[0].id
    terms = DrumTerms(side="over", height_m=0.05, in_from_rim_m=0.05, clock_h=6.0, tilt_deg=45.0,
                      target="centre")  # fmt: skip
    struck = placed(layout, name, terms)
    assert "sticks" in words_for_all([struck.mics[0].position_m], struck)[0]
    done = fit(struck, FitAsk(wishes=("clear",)))
    mic = done.layout.mics[0]
    assert words_for_all([mic.position_m], done.layout) == [""]
    assert done.moves[0].moved_m < 0.15
    assert "sticks" in done.moves[0].why[0]
    batter = struck.kit.part("rack-1")
    assert np.dot(np.subtract(mic.position_m, batter.batter_m), batter.axis) > 0
    to = np.subtract(batter.batter_m, mic.position_m)
    assert np.dot(mic.aim, to / np.linalg.norm(to)) > 0.97  # still aimed at its drum


def test_a_pair_made_equal_is_never_put_into_a_cymbal_or_through_a_wall():
    room = Room(name="Narrow", width_m=2.4, length_m=5, height_m=2.4, kit_x_m=1.0, kit_y_m=1.5)
    for seed in range(8):
        rng = np.random.default_rng(seed)
        left = np.array([-0.55, 0.5, 1.45]) + rng.uniform(-0.1, 0.1, 3)
        right = np.array([0.75, 0.1, 1.4]) + rng.uniform(-0.1, 0.1, 3)
        done = fit(pair(left, right, room=room), FitAsk(wishes=("clear", "equal")))
        spots = [m.position_m for m in done.layout.mics]
        if not any("no clear spot near by. " in g.words for g in done.gave_up):
            assert words_for_all(spots, done.layout) == ["", ""]


def test_a_mic_that_cannot_be_cleared_does_not_keep_its_pair_from_being_equal():
    crash = BLANK.kit.part("crash-l").centre_m
    layout = pair((crash[0], crash[1], crash[2] + 0.05), (0.45, -0.15, 1.3), locks=(LOCKS, ()))
    done = fit(layout, FitAsk(wishes=("clear", "equal")))
    assert any("OL found no clear spot" in g.words for g in done.gave_up)
    assert done.layout.mic("OL") == layout.mic("OL")
    assert gaps(done.layout)[0] < 1e-6
    assert words_for_all([done.layout.mic("OR").position_m], done.layout) == [""]


def test_twins_are_levelled_and_set_as_far_from_their_head():
    layout = take(BLANK, "snare-two").layout
    one = layout.mic("S2")
    x, y, z = one.position_m
    crooked = layout.with_mic(one.model_copy(update={"position_m": (x + 0.01, y, z + 0.012)}))
    done = fit(crooked, FitAsk(wishes=("level",))).layout
    a, b = done.mic("S1").position_m, done.mic("S2").position_m
    head = done.kit.first("snare").batter_m
    assert a[2] == pytest.approx(b[2], abs=1e-6)
    assert far(a, head) == pytest.approx(far(b, head), abs=1e-6)


def test_nulls_are_turned_only_where_it_pays_and_never_over_a_lock():
    layout = starting_layout("eight-piece", "turned pair")
    asked = FitAsk(wishes=("nulls",))
    done = fit(layout, asked)
    turned = [m for m in done.moves if m.turned_deg > 0]
    assert turned
    assert all(m.moved_m < 1e-9 for m in done.moves)
    for m in turned:
        said, gain = m.why[0].split(": ")
        assert float(gain.split(" dB")[0]) >= 2.0
        assert said.removeprefix("null toward ") in {the(p.name) for p in layout.kit.parts}
    held = layout.model_copy(
        update={"mics": tuple(m.model_copy(update={"locks": ("aim",)}) for m in layout.mics)}
    )
    assert fit(held, asked).moves == []


def test_bleed_slides_only_what_a_technique_placed_and_not_far():
    layout = BLANK
    for name in ("snare-centre", "tom-top", "tom-top", "tom-top"):
        layout = take(layout, name).layout
    done = fit(layout, FitAsk(wishes=("nulls", "bleed")))
    for kept in done.layout.techniques:
        mic = done.layout.mic(kept.mics[0])
        part = layout.kit.part(kept.target)
        was = layout.mic(kept.mics[0])
        arc = (part.diameter_m / 2) * np.radians(45) + 1e-6
        assert far(mic.position_m, was.position_m) <= arc
    by_hand = layout.model_copy(update={"techniques": ()})
    slid = fit(by_hand, FitAsk(wishes=("bleed",))).moves
    assert slid == []


def test_a_mic_that_slides_round_its_rim_keeps_looking_where_it_looked():
    layout = BLANK
    for name in ("snare-centre", "tom-top", "tom-top", "tom-top"):
        layout = take(layout, name).layout
    done = fit(layout, FitAsk(wishes=("bleed",))).layout
    slid = [m.id for m in layout.mics if done.mic(m.id).position_m != m.position_m]
    assert slid
    for name in slid:
        face = face_of(layout.kit.part(layout.mic(name).job), "over")
        aside = [
            float(np.dot(m.aim, np.cross(face.out, face.centre - np.array(m.position_m))))
            for m in (layout.mic(name), done.mic(name))
        ]
        assert aside[1] == pytest.approx(aside[0], abs=1e-4), name  # neither left nor right of it


# --- properties -----------------------------------------------------------------------------


def full(kit="five-piece", room=None):
    layout = Layout(name="Full", kit=KITS[kit](), room=room)
    names = ["pair-turned", "kick-inside", "kick-outside", "snare-centre", "snare-bottom",
             "cymbal-over", "room-bar", "room-mono"]  # fmt: skip
    for name in names:
        layout = take(layout, name).layout
    for drum in layout.kit.drums:
        if drum.kind in ("rack", "floor"):
            layout = take(layout, "tom-top", drum.id).layout
    return layout


@pytest.mark.parametrize("kit", ["small four-piece", "five-piece", "eight-piece",
                                 "left-handed five-piece"])  # fmt: skip
def test_a_fitted_layout_is_clear_equal_and_at_rest(kit):
    layout = full(kit)
    rng = np.random.default_rng(7)
    mics = tuple(
        m.model_copy(
            update={"position_m": tuple(np.add(m.position_m, rng.uniform(-0.02, 0.02, 3)))}
        )
        for m in layout.mics
    )
    shaken = layout.model_copy(update={"mics": mics})
    one, two = fit(shaken), fit(shaken)
    assert one.layout == two.layout  # same input, same answer
    done = one.layout
    assert not any(words_for_all([m.position_m for m in done.mics], done))
    for p in done.stereo_pairs:
        snare, kick = gaps(done, p.left, p.right)
        assert snare == pytest.approx(0, abs=0.0101)
        # In front of the kick a room pair keeps the snare, and the kick as near as that lets it.
        assert kick == pytest.approx(0, abs=0.05 if p.name == "Room pair" else 0.0101)
    assert all(m.moved_m <= FARTHEST_MOVE_M for m in one.moves)
    again = fit(done)
    assert again.words == "Everything already fits: nothing was moved."


@given(seed=st.integers(0, 10_000))
@settings(max_examples=15)
def test_a_fit_never_moves_what_is_locked(seed):
    rng = np.random.default_rng(seed)
    layout = full()
    mics = tuple(
        m.model_copy(
            update={
                "position_m": tuple(np.add(m.position_m, rng.uniform(-0.05, 0.05, 3))),
                "locks": tuple(x for x in LOCKS if rng.random() < 0.4),
            }
        )
        for m in layout.mics
    )
    shaken = layout.model_copy(update={"mics": mics})
    done = fit(shaken).layout
    for was, now in zip(shaken.mics, done.mics, strict=True):
        for axis, name in enumerate(LOCKS[:3]):
            if name in was.locks:
                assert now.position_m[axis] == pytest.approx(was.position_m[axis], abs=1e-6)
        if "aim" in was.locks:
            assert now.aim == was.aim


def test_the_mirrored_layout_is_fitted_to_the_mirrored_places():
    left = pair((-0.5, 0.45, 1.74), (0.62, -0.1, 1.70))
    kit = mirrored(left.kit, "L")
    right = pair((0.5, 0.45, 1.74), (-0.62, -0.1, 1.70), kit=kit)
    a, b = fit(left, EQUAL).layout, fit(right, EQUAL).layout
    for name in ("OL", "OR"):
        x, y, z = a.mic(name).position_m
        assert b.mic(name).position_m == pytest.approx((-x, y, z), abs=1e-6)


# --- stands ---------------------------------------------------------------------------------

BOOM = StandModel(id="boom", name="Boom", low_m=0.9, high_m=1.6, reach_m=0.8)
STRAIGHT = StandModel(id="pole", name="Pole", low_m=0.9, high_m=1.6)


@pytest.mark.parametrize(
    ("z", "aside"),
    [(1.0, 0.8), (1.6, 0.8), (2.4, 0.0), (2.0, np.sqrt(0.8**2 - 0.4**2)), (2.5, -1.0),
     (0.3, np.sqrt(0.8**2 - 0.6**2)), (0.05, -1.0)],
)  # fmt: skip
def test_a_boom_reaches_as_far_aside_as_pythagoras_lets(z, aside):
    assert aside_m([z], BOOM)[0] == pytest.approx(aside, abs=1e-6)


def test_a_base_stands_neither_in_the_kick_nor_under_the_drummer():
    kit = BLANK.kit
    kick, stool = kit.first("kick"), kit.stool
    x, y, _ = kick.batter_m
    spots = np.array([[x, y + 0.2], list(stool.position_m), [0.0, 0.05], [2.5, 2.0]])
    assert floor_taken(spots, BLANK).tolist() == [True, True, True, False]
    base = base_for((0.0, 0.5, 1.7), BOOM, BLANK)
    assert base is not None
    assert not floor_taken(np.array([base]), BLANK)[0]
    assert np.hypot(base[0], base[1] - 0.5) <= 0.8 + 1e-9
    assert base_for((x, y + 0.2, 1.2), STRAIGHT, BLANK) is None


def test_without_a_stand_named_every_place_is_reached():
    points = np.array([[0, 0, 9.0], [0, 0, 0.01]])
    assert reached(points, None, BLANK).tolist() == [True, True]
    assert reached(points, BOOM, BLANK).tolist() == [False, False]


@pytest.mark.parametrize("seed", range(4))
def test_many_points_at_once_are_reached_like_one_after_the_other(seed):
    points = np.random.default_rng(seed).uniform((-1.5, -1.5, 0), (1.5, 2.5, 2.6), (60, 3))
    for stand in (BOOM, STRAIGHT):
        slow = [base_for(p, stand, BLANK) is not None for p in points]
        assert reached(points, stand, BLANK).tolist() == slow
        assert True in slow
        assert False in slow


def test_an_overhead_too_high_for_its_stand_comes_down_and_stays_equal():
    layout = take(BLANK, "pair-turned", numbers={"over": 2.0}).layout
    short = StandModel(id="short", name="Short boom", low_m=0.9, high_m=1.5, reach_m=0.9)
    held = layout.model_copy(
        update={"mics": tuple(m.model_copy(update={"stand": "short"}) for m in layout.mics)}
    )
    done = fit(held, FitAsk(wishes=("clear", "equal")), Locker(stands=(short,)))
    spots = np.array([m.position_m for m in done.layout.mics])
    assert (spots[:, 2] <= 2.4).all()
    assert reached(spots, short, done.layout).all()
    assert max(gaps(done.layout)) < 1e-2
    assert any("reach" in w for m in done.moves for w in m.why)


def test_a_corner_pair_which_promises_nothing_is_made_equal_where_it_can_be():
    room = Room(name="Hall", width_m=6.4, length_m=8.2, height_m=3.4, kit_x_m=3.0, kit_y_m=2.2)
    layout = take(BLANK.model_copy(update={"room": room}), "corner-pair").layout
    before = gaps(layout, "CL", "CR")
    done = fit(layout, FitAsk(wishes=("clear", "equal")))
    assert before[0] > 0.05
    assert gaps(done.layout, "CL", "CR")[0] < 1e-6
    assert not any(words_for_all([m.position_m for m in done.layout.mics], done.layout))
