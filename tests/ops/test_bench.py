"""The bench measures what it says it measures."""

import numpy as np
import pytest
from ringside.pairs.analysis import analyse

from ops.bench import bare, big_layout, p95, row, sixteen, timed


def test_a_figure_meets_its_goal_from_the_right_side():
    assert row("a", 24.9, "ms", 25)["met"]
    assert not row("a", 25.1, "ms", 25)["met"]
    assert row("a", 31, "a second", 30, least=True)["met"]
    assert not row("a", 29, "a second", 30, least=True)["met"]


def test_the_bench_layout_is_the_same_every_time_and_as_large_as_it_says():
    one, two = big_layout(40, 14), big_layout(40, 14)
    assert one == two
    an = analyse(one)
    assert an.arrivals.tape_m.shape == (40, 14)
    assert an.pairs.verdict.shape == (780, 14)
    assert len(set(an.pairs.verdict.ravel().tolist())) >= 4  # no branch is skipped


def test_the_bare_evaluation_is_of_the_same_arrays():
    layout = big_layout(12, 9)
    difference, verdict = bare(layout)()
    an = analyse(layout)
    assert np.allclose(difference, an.pairs.tape_difference_m)
    assert verdict.shape == an.pairs.verdict.shape


def test_percentile_and_timing():
    assert p95([float(i) for i in range(1, 101)]) == pytest.approx(96, abs=1)
    assert len(timed(lambda: None, 5)) == 5


def test_the_layout_that_is_fitted_has_sixteen_mics_and_something_to_fit():
    from ringside.fitting.fit import fit

    layout = sixteen()
    assert len(layout.mics) == 16
    assert layout == sixteen()
    done = fit(layout)
    assert len([m for m in done.moves if m.moved_m > 1e-3]) >= 6
