"""Two channels on each other's tracks: whose, and not where something else is wrong."""

from dataclasses import replace
from itertools import combinations
from types import SimpleNamespace

import numpy as np
import pytest
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.recorder.wrong import Moved, Wrong
from ringside.standing.told import Told
from ringside.takes import crossed as crossed_module
from ringside.takes import misfit as misfit_module
from ringside.takes.crossed import crossed
from ringside.takes.misfit import Strokes, gains
from ringside.takes.naming import expected
from ringside.takes.reasons import Cause
from ringside.takes.report import told_take
from ringside.takes.tell import crossed_words
from ringside.takes.uncrossed import exchanged, plugged
from ringside.techniques.taking import take

from tests.core.takes import demo_layout, figures, recorded
from tests.core.test_balances import big_session

PARTS = ("at_s", "over_noise", "under_db")


def big():
    """Without how it was put up, which no take asks for."""
    return big_session().model_copy(update={"techniques": ()})


SIZES = {"ten": demo_layout, "twenty-eight": big}


def found(take, strokes=None, drums=(), sockets=None):
    ids = [m.id for m in take.analysis.layout.mics]
    want = expected(take.analysis, list(take.mics))
    told = crossed(want, strokes or take.strokes, take.mics, drums, sockets)
    return [tuple(ids[n] for n in ring) for ring in told]


def round_of(take, *ring):
    """Tracks of a take with the sound of each mic of a ring on the track of the next."""
    ids = [m.id for m in take.analysis.layout.mics]
    order = np.arange(len(ids))
    for k, name in enumerate(ring):
        order[ids.index(name)] = ids.index(ring[k - 1])
    return order


def finer(take, late_s=0.0, order=None):
    """The drums of a take, its tracks in another order, or late by so much each."""
    order = np.arange(len(take.mics)) if order is None else order

    def read(d):
        lag = d.lag_s[order] + late_s
        return replace(d, lag_s=lag - lag[d.own], energy_db=d.energy_db[:, order])

    return tuple(read(d) for d in take.drums)


def changed_over(take, *ring, strokes=None):
    """What is told of it with tracks changed over."""
    order = round_of(take, *ring)
    return found(take, (strokes or take.strokes).of(order), finer(take, order=order))


def with_pair(technique):
    """A kit under a pair of overheads, and another pair."""
    layout = take(starting_layout("five-piece", "turned pair"), technique, None).layout
    return layout.model_copy(update={"techniques": ()})


def off(strokes, dice, own_s=0.0, each_s=0.0, level_db=0.0):
    """As no plan is met: each mic, and each drum in each mic, a little off."""
    shape = strokes.at_s.shape
    at = strokes.at_s + dice.normal(0, own_s, shape[1]) + dice.normal(0, each_s, shape)
    under = strokes.under_db + dice.normal(0, level_db, shape)
    return replace(strokes, at_s=at, under_db=under - under.max(axis=0))


def test_the_plan_itself_has_none_crossed():
    for layout in SIZES.values():
        assert found(figures(layout())) == []


@pytest.mark.parametrize(("size", "every", "alike"), [
    ("ten", 1, set()),
    # Two over one snare, a bar of 30 cm and two at one point a few metres out.
    ("twenty-eight", 3, {("ST", "ST2"), ("RL", "RR"), ("XL", "XR")}),
])  # fmt: skip
def test_any_two_that_are_not_alike_are_found_and_no_others(size, every, alike):
    take = figures(SIZES[size]())
    ids = [m.id for m in take.analysis.layout.mics]
    assert found(take, drums=take.drums) == []
    for pair in list(combinations(ids, 2))[::every]:
        told = changed_over(take, *pair)
        assert told == ([] if pair in alike else [pair]), pair


def test_strokes_that_only_these_two_would_tell_of_are_told_by_the_rest():
    """Rack and floor for one another: each stroke of one is louder in the other's track."""
    take = figures(demo_layout())
    ids = [m.id for m in take.analysis.layout.mics]
    a, b = ids.index("T2"), ids.index("FT")
    two = [n for n, d in enumerate(take.drums) if d.own in (a, b)]
    alone = replace(take.strokes, **{f: getattr(take.strokes, f)[two] for f in PARTS})  # fmt: skip
    assert found(take, alone.of(round_of(take, "T2", "FT"))) == [("T2", "FT")]
    assert found(take, alone) == []


def test_two_pairs_are_both_told():
    take = figures(demo_layout())
    order = round_of(take, "KI", "OR")[round_of(take, "T1", "FT")]
    assert sorted(found(take, take.strokes.of(order))) == [("KI", "OR"), ("T1", "FT")]


def test_one_track_that_is_late_elsewhere_or_silent_is_not_two_crossed():
    take = figures(big())
    for n in range(len(take.mics)):
        for ms in (-5.0, -0.6, 0.6, 5.0):
            at = take.strokes.at_s.copy()
            at[:, n] += ms / 1000
            assert found(take, replace(take.strokes, at_s=at)) == []
        over, under = take.strokes.over_noise.copy(), take.strokes.under_db.copy()
        over[:, n], under[:, n] = 1.0, 0.0
        silent = replace(take.strokes, over_noise=over, under_db=under)
        assert found(take, silent) == []


@pytest.mark.parametrize("size", SIZES)
def test_a_plan_that_is_met_as_plans_are_met_has_none_crossed_and_two_that_are_found(size):
    """2 cm of each mic and of the stroke, 4 dB: over many draws, some pair each time."""
    take = figures(SIZES[size]())
    dice = np.random.default_rng(11)
    ids = [m.id for m in take.analysis.layout.mics]
    wrong = right = 0
    for _ in range(40):
        met = off(take.strokes, dice, 0.00006, 0.00006, 4.0)
        wrong += found(take, met) != []
        pair = tuple(ids[n] for n in sorted(dice.choice(len(ids), 2, replace=False)))
        right += changed_over(take, *pair, strokes=met) == [pair]
    assert wrong == 0
    assert right >= 36


@pytest.mark.parametrize(("a", "b"), [("ST", "SB"), ("T1", "T1b"), ("T2", "T2b"), ("FT", "FTb")])
def test_over_and_under_one_drum_are_told_by_which_has_it_first(a, b):
    take = figures(big())
    ids = [m.id for m in take.analysis.layout.mics]
    i, j = ids.index(a), ids.index(b)
    assert changed_over(take, a, b) == [(a, b)]
    # One of them late, so that the other comes first: no two plugs make that.
    for n, by_s in ((i, 0.0006), (j, -0.0006)):
        late = np.where(np.arange(len(ids)) == n, by_s, 0.0)
        strokes = replace(take.strokes, at_s=take.strokes.at_s + late)
        assert found(take, strokes, finer(take, late)) == []


def test_where_only_that_drum_is_struck_its_order_is_enough():
    take = figures(demo_layout(), sources=("snare",))
    every = figures(demo_layout())
    order = round_of(take, "ST", "SB")
    snare = finer(take, order=order)
    assert [d.source for d in snare] == [take.analysis.source_index("snare")]
    assert found(take, every.strokes.of(order), snare) == [("ST", "SB")]
    assert found(take, every.strokes.of(order)) == []  # too alike without
    assert found(take, every.strokes, snare) == []


def test_overheads_are_found_by_strokes_alone():
    take = figures(demo_layout())
    assert found(take, take.strokes.of(round_of(take, "OL", "OR"))) == [("OL", "OR")]


def test_where_strokes_and_finer_arrivals_disagree_it_comes_to_an_end():
    take = figures(big())
    strokes = take.strokes.of(round_of(take, "HL", "HR"))
    assert found(take, strokes, take.drums) == [("HL", "HR")]


def test_a_drum_counts_once_however_often_it_was_struck():
    take = figures(demo_layout())
    want = expected(take.analysis, list(take.mics))
    often = np.repeat(np.arange(len(take.drums)), (1, 9, 1, 1, 2))
    once = take.strokes.of(round_of(take, *(take.analysis.layout.mics[n].id for n in (3, 8))))
    again = Strokes(*(getattr(once, f)[often] for f in PARTS))
    gain = gains(want, once)[0]
    assert gain[3, 8] > 20
    assert gains(want, again)[0] == pytest.approx(gain, abs=1e-3)


@pytest.mark.parametrize(("a", "b"), [("RL", "BL"), ("GL", "BR"), ("RR", "GR")])
def test_two_rooms_each_as_far_as_the_other_are_not_crossed(a, b):
    """Both have moved, or hang on other inputs: each drum reaches them as it would, but later."""
    take = figures(big())
    n = [m.id for m in take.analysis.layout.mics].index
    at = take.strokes.at_s.copy()
    apart = (at[:, n(b)] - at[:, n(a)]).mean()
    at[:, n(a)] += apart
    at[:, n(b)] -= apart
    assert found(take, replace(take.strokes, at_s=at)) == []


@pytest.mark.parametrize("ring", [
    ("T1", "T2", "FT"), ("T1", "FT", "T2"), ("KI", "OR", "SB"),
    ("ST", "SB", "T1", "T2", "FT"), ("ST", "FT", "T2", "T1", "SB"),
])  # fmt: skip
def test_of_a_ring_each_is_told_with_the_track_that_holds_it(ring):
    assert changed_over(figures(demo_layout()), *ring) == [ring]


@pytest.mark.parametrize(("layout", "ring"), [
    (demo_layout, ("ST", "FT", "SB")),  # over and under one drum
    (big, ("T1", "FT", "T1b")),
    (lambda: with_pair("pair-crossed-8"), ("KI", "OR2", "OL2")),  # two at one point
])  # fmt: skip
def test_so_is_one_with_two_in_it_that_are_alike_however_it_is_plugged(layout, ring):
    take = figures(layout())
    order = round_of(take, *ring)
    sockets = np.arange(len(take.mics))
    for row in (sockets, sockets[::-1], np.roll(sockets, 3)):
        told = found(take, take.strokes.of(order), finer(take, order=order), row)
        assert told == [ring]


def test_where_levels_and_leaning_disagree_it_comes_to_an_end(monkeypatch):
    """Strokes changed over, drums not: each says the opposite of what the other does."""
    take = figures(with_pair("pair-crossed-8"))
    strokes = take.strokes.of(round_of(take, "OL2", "OR2"))
    left = iter(range(9))

    def asked(want, heard):
        assert next(left, None) is not None, "it goes on for ever"
        return gains(want, heard)

    monkeypatch.setattr(crossed_module, "CROSSED", 1.0)
    monkeypatch.setattr(crossed_module, "gains", asked)
    assert found(take, strokes, take.drums) == [("OL2", "OR2")]


@pytest.mark.parametrize("size", SIZES)
def test_a_row_of_plugs_one_socket_on_or_back_is_told_though_one_is_heard_nowhere(size):
    """One socket on, what the first of the row feeds is silent, and the last is not recorded."""
    take = figures(SIZES[size]())
    ids = [m.id for m in take.analysis.layout.mics]
    for n in range(0, len(ids) - 5, 3):
        row = ids[n : n + 6]
        for ring in (tuple(row), (row[0], *row[:0:-1])):
            strokes = take.strokes.of(round_of(take, *ring))
            over = strokes.over_noise.copy()
            over[:, ids.index(row[0] if ring[1] == row[1] else row[-1])] = 1.0
            assert found(take, replace(strokes, over_noise=over)) == [ring]


def test_it_is_by_their_sockets_that_plugs_are_side_by_side():
    """Of these three no two alone are told, for what one of them holds is heard nowhere."""
    take = figures(demo_layout())
    n = [m.id for m in take.analysis.layout.mics].index
    ring = ("T1", "T2", "FT")
    strokes = take.strokes.of(round_of(take, *ring))
    strokes.over_noise[:, n("T1")] = 1.0
    want = expected(take.analysis, list(take.mics))

    def told(*row):
        return crossed(want, strokes, take.mics, (), [n(name) for name in row])

    others = ("KI", "KO", "ST", "SB", "HH", "OL", "OR")
    assert told(*others, *ring) == [tuple(n(name) for name in ring)]
    assert told(*others, *ring[::-1]) == [tuple(n(name) for name in ring)]
    assert told("T1", "OL", "T2", "OR", "FT", *others[:5]) == []


def test_what_fits_better_is_what_it_is_place_by_place():
    """Each way of plugging made one by one, of misfits that are nobody's."""
    dice = np.random.default_rng(3)
    strokes, count, drums = 7, 6, 3
    misfit = dice.uniform(0, 9, (strokes, count, count, drums))
    drum = np.array([0, 0, 0, 1, 1, 2, 2])
    made = misfit_module._gains(misfit, drum)
    straight = np.arange(count)

    def of(order):
        each = misfit[:, order, straight, :].sum(axis=1).min(axis=1)
        return sum(each[drum == k].mean() for k in range(drums))

    for a, b in combinations(range(count), 2):
        two, on, back = straight.copy(), straight.copy(), straight.copy()
        two[[a, b]] = b, a
        on[a:b], on[b] = straight[a + 1 : b + 1], a
        back[a + 1 : b + 1], back[a] = straight[a:b], b
        ways = [two] if b == a + 1 else [two, on, back]
        want = [of(straight) - of(way) for way in ways]
        assert list(made[: len(ways), a, b]) == pytest.approx(want)
        assert not made[len(ways) :, a, b].any()
        assert made[0, b, a] == made[0, a, b]


def test_two_of_one_capsule_are_never_crossed():
    take = figures(demo_layout())
    want = expected(take.analysis, list(take.mics))
    n = [m.id for m in take.analysis.layout.mics].index
    turned = take.strokes.of(round_of(take, "KI", "OR"))
    assert crossed(want, turned, take.mics) == [(n("KI"), n("OR"))]
    mics = np.array(take.mics)
    mics[n("OR")] = mics[n("KI")]
    assert crossed(want, turned, mics) == []


def test_nothing_heard_tells_nothing():
    take = figures(demo_layout())
    deaf = replace(take.strokes, at_s=np.full_like(take.strokes.at_s, np.nan))
    assert found(take, deaf) == []
    none = replace(deaf, **{f: getattr(deaf, f)[:0] for f in PARTS})
    assert found(take, none) == []


def leaning(layout, change=lambda levels, a, b: levels, two=("OL2", "OR2"), unheard=0):
    """What is told where levels of drums, (D, 3, C), are changed, the first not heard."""
    heard = figures(layout)
    n = [m.id for m in layout.mics].index
    levels = change(np.array([d.energy_db for d in heard.drums]), n(two[0]), n(two[1]))
    drums = [
        replace(d, energy_db=e, heard=d.heard & (k >= unheard))
        for k, (d, e) in enumerate(zip(heard.drums, levels, strict=True))
    ]
    return found(heard, drums=drums)


def swapped(levels, a, b, drums=slice(None)):
    made = levels.copy()
    made[drums, :, a], made[drums, :, b] = levels[drums, :, b], levels[drums, :, a]
    return made


@pytest.mark.parametrize("technique", ["pair-coincident", "pair-crossed-8"])
def test_two_at_one_point_are_told_by_how_the_drums_lean(technique):
    layout = with_pair(technique)
    assert leaning(layout) == []
    assert leaning(layout, swapped) == [("OL2", "OR2")]

    def louder(levels, a, b):
        return swapped(levels, a, b) + np.where(np.arange(levels.shape[2]) == a, 10.0, 0.0)

    assert leaning(layout, louder) == [("OL2", "OR2")]  # whatever its gain

    def ringing(levels, a, b):
        made = swapped(levels, a, b)
        made[::2, 2, a] += 20.0
        return made

    assert leaning(layout, ringing) == [("OL2", "OR2")]  # whatever cymbals do above the attack


def test_where_the_levels_tell_nothing_for_sure_two_at_one_point_are_left_alone():
    layout = with_pair("pair-crossed-8")
    dice = np.random.default_rng(5)
    assert leaning(with_pair("wide-crossed"), swapped, ("CL", "CR")) == []  # by 2 dB, of two drums
    heard = figures(layout)
    of = [heard.analysis.scene.sources.ids[d.source] for d in heard.drums]
    assert of == ["kick", "snare", "rack-1", "rack-2", "floor"]
    assert leaning(layout, lambda v, a, b: swapped(v, a, b, [4])) == []  # the floor tom alone

    def roughly(by_db):
        def made(levels, a, b):
            both = swapped(levels, a, b)
            both[:, :, a] += by_db * np.array([1, -1, -1, 0, 1])[:, None]
            return both

        return made

    assert leaning(layout, roughly(1.0)) == [("OL2", "OR2")]
    assert leaning(layout, roughly(3.0)) == []  # three standard deviations the other way, and two

    def noisy(levels, a, b):
        return swapped(levels, a, b) + dice.normal(0, 8.0, (len(levels), 1, levels.shape[2]))

    assert [leaning(layout, noisy) for _ in range(20)].count([]) >= 18
    right = [leaning(layout, lambda v, a, b: swapped(noisy(v, a, b), a, b)) for _ in range(20)]
    assert right == [[]] * 20

    assert leaning(layout, swapped, unheard=1) == [("OL2", "OR2")]
    assert leaning(layout, swapped, unheard=2) == []  # too few drums


def test_two_before_the_kit_and_two_on_one_drum_are_not_told_by_how_drums_lean():
    """Out there the room is as loud; and a close mic's neighbours lean to it by more than that."""
    assert leaning(with_pair("room-crossed-8"), swapped, ("XL", "XR")) == []
    assert leaning(with_pair("pair-near"), swapped) == []  # apart: arrivals tell of these
    layout = with_pair("pair-crossed-8")
    mics = [m.model_copy(update={"role": "close", "job": "snare"}) if m.id in ("OL2", "OR2") else m
            for m in layout.mics]  # fmt: skip
    assert leaning(layout.model_copy(update={"mics": tuple(mics)}), swapped) == []


def cause(track, by_m, kind="moved"):
    return Cause(kind, track, 0.0, np.array(by_m), np.full(3, 0.02), 50.0, 5)


def test_two_that_seem_to_have_taken_each_others_place_are_asked_about():
    planned = np.array([[-0.15, 2.0, 1.2], [0.15, 2.0, 1.2], [0.0, 3.0, 1.2]])
    left, right = cause(0, (0.28, 0.0, -0.1)), cause(1, (-0.25, 0.0, -0.1))
    assert list(exchanged([right, left], planned)) == [(0, 1)]
    assert list(exchanged([left], planned)) == []
    assert list(exchanged([left, cause(1, (0.25, 0.0, 0.0))], planned)) == []  # both to the right
    assert list(exchanged([left, cause(1, (-0.14, 0.0, 0.0))], planned)) == []  # half the way
    assert list(exchanged([left, cause(1, (-0.46, 0.0, 0.0))], planned)) == []  # past it
    assert list(exchanged([left, replace(right, kind="late")], planned)) == []
    assert list(exchanged([left, cause(2, (-0.3, 0.0, 0.0))], planned)) == []


@pytest.mark.parametrize(("ring", "silent", "words", "do"), [
    ("BC", "", "B and C hold each other's sound: levels and arrivals fit the other way round.",
     "Change the two plugs, or the two names."),
    ("BC", "C", "B is on the track of C: levels and arrivals fit that way. C is heard on none.",
     "Move the plugs one back, and find that of C; then record hits again."),
    ("ABCD", "", "A is on the track of B, B on that of C, C on that of D and D on that of A: levels"
     " and arrivals fit that way.", "Move the plugs one back, or the names."),
    ("BAEDC", "", "B is on the track of A, C on that of B, and so on to E on that of D and A on"
     " that of E: levels and arrivals fit that way.", "Move the plugs one on, or the names."),
    ("ABCDE", "E", "A is on the track of B, B on that of C and so on to D on that of E: levels and"
     " arrivals fit that way. E is heard on none.", "Move the plugs one back, and find"
     " that of E; then record hits again."),
    ("BED", "", "B is on the track of E, D on that of B and E on that of D: levels and arrivals fit"
     " that way.", "Move the plugs, or the names."),
    ("ADBC", "BC", "A is on the track of D and D on that of B: levels and arrivals fit that way. B"
     " and C are heard on none.", "Move the plugs, and find that of B and C; then"
     " record hits again."),
])  # fmt: skip
def test_what_is_crossed_is_told_as_plugs_are_moved(ring, silent, words, do):
    assert crossed_words(tuple(ring), "ABCDE", silent) == (Told(words), do)


ROW = ("KI", "KO", "ST", "SB", "T1", "T2")
RING = ("T1", "FT", "T2")
LATER = ("KI", "SB", "ST", "T2")


@pytest.mark.parametrize(("ring", "wrong", "kinds"), [
    (ROW, Wrong(shifted=(ROW,)), [("swapped", *ROW)]),
    (RING, Wrong(swapped=(("T1", "FT"), ("T1", "T2")), dead=("KO",)),
     [("dead", "KO"), ("swapped", *RING)]),
    # Which of the snare's two is which is told once the others are laid right.
    (LATER, Wrong(swapped=(("KI", "SB"), ("KI", "ST"), ("KI", "T2"))), [("swapped", *LATER)]),
])  # fmt: skip
def test_a_ring_is_read_with_each_track_as_of_the_mic_it_holds(tmp_path, ring, wrong, kinds):
    files, _ = recorded(tmp_path, wrong)
    told, read, _ = told_take(files, analyse(demo_layout()))
    assert [(r.kind, *r.channels) for r in told.reasons] == kinds
    held = dict(zip([c.id for c in demo_layout().channels], read.matched, strict=True))
    assert [held[name].channel for name in ring] == [ring[-1], *ring[:-1]]
    assert {name for name, m in held.items() if m.by == "heard"} == set(ring)
    assert {m.by for name, m in held.items() if name not in ring} == {"name"}
    lost = [t.by for t in told.tracks if t.by not in ("heard", "name")]
    assert lost == ["left"] * len(wrong.shifted)  # what holds nothing is not known by it


def test_tracks_stand_side_by_side_as_they_are_plugged():
    layout = demo_layout()
    inputs = {"KI": 9, "ST": 2, "SB": None, "OR": 1}
    channels = [c.model_copy(update={"input": inputs[c.id]}) for c in layout.channels
                if c.id in inputs]  # fmt: skip
    names = ["SB", "KI", "OR", "ST"]
    take = SimpleNamespace(
        analysis=analyse(layout.model_copy(update={"channels": tuple(channels)})),
        mics=range(4), channel=names.__getitem__,
    )  # fmt: skip
    assert [names[n] for n in plugged(take)] == ["OR", "ST", "KI", "SB"]


@pytest.mark.parametrize(("wrong", "told"), [
    (Wrong(swapped=(("RL", "RR"),)), [("swapped", "RL", "RR")]),
    # Moved past each other, one up and one down: no plug does that.
    (Wrong(moved=(Moved(mic="RL", by_m=(0.3, 0.0, 0.2)), Moved(mic="RR", by_m=(-0.3, 0.0, -0.2)))),
     [("moved", "RL"), ("moved", "RR")]),
])  # fmt: skip
def test_a_bar_on_the_wrong_plugs_is_told_from_two_mics_that_moved(tmp_path, wrong, told):
    layout = with_pair("room-bar")
    files, _ = recorded(tmp_path, wrong, layout=layout, each=3)
    answer, _, _ = told_take(files, analyse(layout))
    assert sorted((r.kind, *r.channels) for r in answer.reasons) == told
