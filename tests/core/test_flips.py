"""The best set of flips against every set tried one by one, and mics added one by one."""

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ringside.errors import RingsideError
from ringside.pairs import flips
from ringside.pairs.analysis import analyse
from ringside.pairs.flips import LEAST_FLIP_DB, best_flips, best_sets
from ringside.pairs.gram import LEAST_SHARE, body_of, drum_ids, grams, unsure_pairs
from ringside.pairs.onebyone import order_of, school_order, steps
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_flips
from ringside.plan.layout import Layout
from ringside.techniques.taking import take

from ops.bench import big_layout
from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")


def mean_db(gram, signs):
    """Mean over the drums, written out mic by mic."""
    total = 0.0
    for g in gram:
        whole = sum(g[i][i] for i in range(len(g)))
        energy = sum(signs[i] * signs[j] * g[i][j] for i in range(len(g)) for j in range(len(g)))
        wired = sum(g[i][j] for i in range(len(g)) for j in range(len(g)))
        least = LEAST_SHARE * whole
        total += 10 * np.log10(max(energy, least) / max(wired, least))
    return total / len(gram)


def test_twelve_mics_against_every_set():
    layout = big_layout(12, 9)
    an = analyse(layout)
    gram = grams(an)
    plain = gram.tolist()
    every = [np.array((1, *s)) for s in itertools.product((1, -1), repeat=11)]
    # Sets are ranked by numpy here and the best few written out by hand.
    energy = np.einsum("ni,dij,nj->nd", np.array(every), gram, np.array(every), optimize=True)
    least = LEAST_SHARE * np.einsum("dii->d", gram)
    order = np.argsort(-np.log(np.maximum(energy, least)).sum(axis=1))
    by_hand = [mean_db(plain, every[n].tolist()) for n in order[:3]]
    found = best_flips(an)
    assert found.best.mean_db == pytest.approx(by_hand[0], abs=1e-4)
    assert found.runner_up.mean_db == pytest.approx(by_hand[1], abs=1e-4)
    assert found.proven
    best = np.array([-1 if m.id in found.best.flip else 1 for m in layout.mics])
    assert abs(best @ every[order[0]]) == 12  # the same set, or all of it turned over
    assert len(found.best.flip) <= 6


def random_grams(rng, mics, drums=4):
    """Sums that could be: each drum's mics are mixtures of a few tones."""
    tones = rng.normal(size=(drums, mics, 5)) * rng.uniform(0.1, 1, size=(drums, mics, 1))
    return np.einsum("dit,djt->dij", tones, tones)


@settings(max_examples=25)
@given(st.integers(2, 9), st.integers(0, 10_000), st.integers(0, 3))
def test_random_sums_with_mics_held(mics, seed, held_count):
    rng = np.random.default_rng(seed)
    gram = random_grams(rng, mics)
    held = np.zeros(mics, dtype=bool)
    held[: min(held_count, mics - 1)] = True
    found = best_sets(gram, held)
    plain = gram.tolist()
    best = max(
        mean_db(plain, [1 if h else s for h, s in zip(held, signs, strict=True)])
        for signs in itertools.product((1, -1), repeat=mics)
    )
    assert found.mean_db[0] == pytest.approx(best, abs=1e-4)
    assert (found.signs[0][held] == 1).all()


def test_branch_and_bound_agrees_with_trying_every_set(monkeypatch):
    rng = np.random.default_rng(8)
    for _ in range(4):
        gram = random_grams(rng, 13)
        none = np.zeros(13, dtype=bool)
        exact = best_sets(gram, none)
        with monkeypatch.context() as m:
            m.setattr(flips, "EXACT", 4)
            m.setattr(flips, "LEAF", 5)
            split = best_sets(gram, none)
        assert split.mean_db[0] == pytest.approx(exact.mean_db[0], abs=1e-6)
        assert split.bound_db >= exact.mean_db[0] - 1e-9


def test_cut_short_the_bound_still_holds(monkeypatch):
    gram = random_grams(np.random.default_rng(3), 14, drums=6)
    none = np.zeros(14, dtype=bool)
    exact = best_sets(gram, none)
    monkeypatch.setattr(flips, "EXACT", 3)
    monkeypatch.setattr(flips, "LEAF", 3)
    monkeypatch.setattr(flips, "MOST_WORK", 1)
    short = best_sets(gram, none)
    assert short.bound_db >= exact.mean_db[0] - 1e-9
    assert short.bound_db > short.mean_db[0] + 1e-3


def test_thirty_two_mics_are_proven():
    found = best_flips(analyse(big_layout(32, 14)))
    assert found.proven
    assert found.best.mean_db > found.runner_up.mean_db


def test_taking_the_set_gives_what_was_promised():
    an = analyse(SQUARE)
    found = best_flips(an)
    after = analyse(with_flips(SQUARE, found.best.flip))
    ones = np.ones(len(SQUARE.mics))
    gain = 10 * np.log10(body_of(grams(after), ones) / body_of(grams(an), ones))
    told = [r.gain_db for r in found.best.drums]
    assert gain.tolist() == pytest.approx(told, abs=2e-3)
    assert not best_flips(after).best.flip  # nothing is left to gain


def test_the_bottom_mic_is_among_what_is_turned_against_the_top():
    # Common practice: of the two snare mics one is flipped.
    found = best_flips(analyse(SQUARE)).best.flip
    assert ("ST" in found) != ("SB" in found)


def test_a_held_mic_stays_and_all_held_is_as_wired():
    held = tuple(m.model_copy(update={"locks": ("polarity",)}) for m in SQUARE.mics)
    only = SQUARE.model_copy(update={"channels": (), "mics": held})
    found = best_flips(analyse(only))
    assert found.best.flip == []
    assert found.runner_up is None
    assert found.held == [m.id for m in SQUARE.mics]
    free = with_mic(SQUARE, "SB", locks=("polarity",))
    best = best_flips(analyse(free)).best.flip
    assert "SB" not in best
    assert "ST" in best


def test_pairs_with_unsure_signs_are_left_out_and_named():
    an = analyse(SQUARE)
    gram, ids = grams(an), [m.id for m in SQUARE.mics]
    named = unsure_pairs(an)
    assert named
    for n in named:
        d = drum_ids(an).index(n.source)
        assert gram[d][ids.index(n.a)][ids.index(n.b)] == 0.0


def test_more_than_32_mics_are_refused_in_words():
    with pytest.raises(RingsideError, match="1 to 32 mics"):
        best_flips(analyse(big_layout(33, 9)))


def test_one_mic_is_as_wired():
    one = Layout(name="One", kit=SQUARE.kit, mics=SQUARE.mics[:1])
    found = best_flips(analyse(one))
    assert found.best.flip == []
    assert found.words.startswith("As wired is the fullest")


def test_a_set_that_gains_less_than_is_heard_is_told_and_not_advised():
    wired = take(starting_layout("five-piece", "turned pair"), "room-omnis").layout
    first = best_flips(analyse(wired))
    assert first.worth
    assert first.words.startswith(f"Flip {', '.join(first.best.flip)}: 4.1 dB more body")
    # The bottom of the snare flipped in place of its top: a sixteenth of a decibel behind.
    found = best_flips(analyse(with_flips(wired, set(first.runner_up.flip))))
    assert found.best.flip == ["ST", "SB"]
    assert 0 < found.best.mean_db < LEAST_FLIP_DB
    assert not found.worth
    assert found.words.startswith("As wired is as full as any, to the ear: ST, SB turned over")


def test_two_schools_begin_at_two_ends():
    assert school_order(SQUARE, "overheads")[:3] == ["OL", "OR", "KI"]
    assert school_order(SQUARE, "kick") == [
        "KI", "KO", "ST", "SB", "T1", "T2", "FT", "HH", "OL", "OR",
    ]  # fmt: skip
    own = SQUARE.model_copy(update={"order": ("FT", "gone", "KI", "FT")})
    assert order_of(own)[:3] == ["FT", "KI", "OL"]
    assert sorted(order_of(own)) == sorted(m.id for m in SQUARE.mics)  # each once
    assert order_of(own, "kick")[:2] == ["KI", "KO"]


def test_each_step_is_what_the_sum_before_and_after_say():
    an = analyse(SQUARE)
    order = order_of(SQUARE, "kick")
    found = steps(an, order)
    ids, gram = [m.id for m in SQUARE.mics], grams(an)
    assert found[0].mean_db is None
    on = [ids.index(m) for m in order[:4]]
    before, after = (gram[1][np.ix_(k, k)].sum() for k in (on[:3], on))
    snare = next(r for r in found[3].drums if r.source == "snare")
    assert found[3].mic == "SB"
    assert snare.wired_db == pytest.approx(10 * np.log10(after / before), abs=0.01)
    assert snare.flipped_db > snare.wired_db + 3  # the bottom mic, not yet flipped
    assert "dB off the snare" in found[3].words


def test_the_last_step_ends_at_the_whole_sum():
    an = analyse(SQUARE)
    found = steps(an, order_of(SQUARE, "overheads"))
    gram, ids = grams(an), [m.id for m in SQUARE.mics]
    first = ids.index("OL")
    for d, drum in enumerate(drum_ids(an)):
        total = sum(next(r for r in s.drums if r.source == drum).wired_db for s in found[1:])
        expected = 10 * np.log10(gram[d].sum() / gram[d][first, first])
        assert total == pytest.approx(expected, abs=0.1)


def test_two_that_cancel_leave_no_endless_step():
    twin = SQUARE.mic("ST").model_copy(update={"id": "S2"})
    three = SQUARE.model_copy(
        update={
            "channels": (), "mics": (SQUARE.mic("ST"), twin, SQUARE.mic("OL")), "stereo_pairs": (),
        }
    )  # fmt: skip
    three = with_mic(three, "S2", preamp_flip=True)
    found = steps(analyse(three), ["ST", "S2", "OL"])
    snare = [next(r for r in s.drums if r.source == "snare") for s in found]
    assert snare[1].wired_db == pytest.approx(10 * np.log10(2e-3), abs=0.1)
    assert 0 < snare[2].wired_db < 30
    assert found[1].flip
