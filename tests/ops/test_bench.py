"""The bench measures what it says it measures."""

import multiprocessing

import numpy as np
import pytest
from ringside.pairs.analysis import analyse

from ops.bench import PARTS, bare, big_layout, chosen, p95, sixteen, timed
from ops.benchrow import Row, told
from ops.pauses import Witness, without


def test_a_figure_meets_its_goal_from_the_right_side():
    assert Row("a", 24.9, "ms", 25).met
    assert not Row("a", 25.1, "ms", 25).met
    assert Row("a", 31, "a second", 30, least=True).met
    assert not Row("a", 29, "a second", 30, least=True).met
    assert Row("a", 29, "a second").met is None
    assert "NOT MET" in Row("a", 26, "ms", 25).line


def test_a_part_that_fails_takes_no_row_of_another_along(capsys):
    def breaks():
        yield Row("before", 1, "ms")
        raise SystemExit("took hold of nothing")

    parts = [("first", lambda: [Row("one", 1, "ms")]), ("broken", breaks)]
    assert told([*parts, ("last", lambda: [Row("two", 2, "ms", 1)])]) == 1
    said = capsys.readouterr()
    assert [line.split()[0] for line in said.out.splitlines()] == [
        "one", "before", "broken:", "two",
    ]  # fmt: skip
    assert "took hold of nothing" in said.err


def test_only_the_parts_that_are_asked_for_are_measured():
    assert [name for name, _ in chosen(["limits", "core"])] == ["core", "limits"]
    assert PARTS[:2] == ("core", "takes")


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


def test_what_the_machine_stood_still_is_left_out_once_whichever_core_says_it():
    said = multiprocessing.SimpleQueue()
    for pause in ((40.0, 60.0), (10.0, 15.0), (45.0, 62.0), (12.0, 14.0)):
        said.put(pause)
    paused = Witness(said).told()
    assert paused == [(10.0, 15.0), (40.0, 62.0)]
    assert without((0.0, 50.0), paused) == 50 - 5 - 10
    assert without((20.0, 36.0), paused) == 16
    assert without((41.0, 58.0), paused) == 0
    assert Witness(None).told() == []
