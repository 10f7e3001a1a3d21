"""Long answers apart: stopped when late, when nobody waits, and few in line."""

import os
import signal
import threading
import time

import pytest
from api.heavy import answers, pool
from api.heavy.answers import Answers
from api.heavy.pool import Bench, Busy, GaveUp, TooLong
from ringside.errors import RingsideError

from tests.server.conftest import Api
from tests.server.naps import hungry, nap, refuse
from tests.server.test_layouts import doc_of


@pytest.fixture(scope="module")
def bench():
    made = Bench(1)
    made.run(lambda: False, nap, (0,))
    yield made
    made.close()


def never():
    return False


def test_an_answer_comes_back_and_so_does_a_refusal_in_its_own_words(bench):
    assert bench.run(never, nap, (0.0,)) == "slept"
    with pytest.raises(RingsideError) as told:
        bench.run(never, refuse, (2.0,))
    assert told.value.worded(lambda m: f"{m * 100:.0f} cm") == "expected less than 200 cm"


def test_what_takes_too_long_is_ended_and_the_next_one_served(bench, monkeypatch):
    monkeypatch.setattr(pool, "LONGEST_S", 0.3)
    began = time.monotonic()
    with pytest.raises(TooLong):
        bench.run(never, nap, (30,))
    monkeypatch.setattr(pool, "LONGEST_S", 10.0)
    assert bench.run(never, nap, (0,)) == "slept"
    assert time.monotonic() - began < 20


def test_when_whoever_asked_has_gone_the_work_is_ended(bench):
    began = time.monotonic()
    with pytest.raises(GaveUp):
        bench.run(lambda: time.monotonic() - began > 0.3, nap, (30,))
    assert bench.run(never, nap, (0,)) == "slept"
    assert time.monotonic() - began < 20


def test_what_is_too_large_for_memory_is_stopped(bench):
    with pytest.raises(TooLong):
        bench.run(never, hungry, (pool.MEMORY_B * 2,))
    assert bench.run(never, nap, (0,)) == "slept"


def test_a_process_killed_from_outside_is_replaced(bench):
    """The system's own hand, short of memory, takes it while it works or while it rests."""
    for seconds in (30, 0):
        pid = bench.run(never, os.getpid, ())
        threading.Timer(0.3, os.kill, (pid, signal.SIGKILL)).start()
        if seconds:
            with pytest.raises(TooLong):
                bench.run(never, nap, (seconds,))
        else:
            time.sleep(1.0)
        assert bench.run(never, nap, (0,)) == "slept"


def test_waiting_for_a_turn_has_an_end_as_well(bench, monkeypatch):
    monkeypatch.setattr(pool, "WAIT_S", 0.2)
    holding = threading.Thread(target=lambda: bench._pool.schedule(nap, args=(1,)).result())
    holding.start()
    with pytest.raises(TooLong):
        bench.run(never, nap, (0,))
    holding.join()


def test_one_member_has_few_in_line_and_all_have_not_many(bench):
    seats = [bench.seat("one") for _ in range(pool.OF_ONE)]
    for s in seats:
        s.__enter__()
    with pytest.raises(Busy), bench.seat("one"):
        pass
    others = [bench.seat(n) for n in range(pool.OF_ALL - pool.OF_ONE)]
    for s in others:
        s.__enter__()
    with pytest.raises(Busy), bench.seat("late"):
        pass
    for s in seats + others:
        s.__exit__(None, None, None)
    with bench.seat("one"), bench.seat("late"):
        pass
    assert not bench._line


def answered(monkeypatch, settings, bench, fault):
    settings.HEAVY_PROCESSES = 1
    monkeypatch.setattr(pool, "_bench", bench)

    def run(*_):
        raise fault

    monkeypatch.setattr(bench, "run", run)


@pytest.mark.parametrize(
    ("fault", "status", "words"),
    [
        (Busy(), 429, "in a moment"),
        (TooLong(), 503, "Nothing was changed"),
        (GaveUp(), 408, "gone"),
    ],
)
def test_each_end_is_told_as_what_it_is(
    as_owner, layout, monkeypatch, settings, bench, fault, status, words
):
    answered(monkeypatch, settings, bench, fault)
    doc, _ = doc_of(as_owner, layout.pk)
    got, told = as_owner("POST", "/best-flips", {"layout": doc})
    assert (got, words in told["detail"]) == (status, True)
    assert as_owner.last.headers["Content-Type"] == "application/problem+json"
    if status == 429:
        assert as_owner.last.headers["Retry-After"] == "2"


def test_worked_out_apart_the_answer_is_the_same(
    owner, layout, monkeypatch, settings, bench, transactional_db
):
    api = Api(owner)
    doc, _ = doc_of(api, layout.pk)
    here = api("POST", "/pair-rows", {"layout": doc})
    settings.HEAVY_PROCESSES = 1
    monkeypatch.setattr(pool, "_bench", bench)
    assert api("POST", "/pair-rows", {"layout": doc}) == here
    assert here[0] == 200


def counting(takes=0.1):
    """A way to run work here, that counts; and the answers it fills."""
    runs = []

    def run(gone, packed, args):
        runs.append(args)
        told, _ = packed(*args)
        return told, takes

    return Answers(longest_s=5.0), run, runs


def test_the_same_question_is_worked_out_once_and_another_anew():
    kept, run, runs = counting()
    asked = (nap, (0.0,))
    assert [kept.of(never, run, *asked) for _ in range(3)] == ["slept"] * 3
    assert len(runs) == 1
    kept.of(never, run, nap, (0.001,))
    assert len(runs) == 2
    with pytest.raises(RingsideError):
        kept.of(never, run, refuse, (0.0,))
    with pytest.raises(RingsideError):  # a refusal is no answer to keep
        kept.of(never, run, refuse, (0.0,))
    assert len(runs) == 4


def test_what_is_quick_or_large_is_not_kept_and_the_least_used_goes_first(monkeypatch):
    kept, run, runs = counting(takes=answers.LEAST_S * 0.9)
    for _ in range(2):
        kept.of(never, run, nap, (0.0,))
    assert len(runs) == 2
    kept, run, runs = counting()
    monkeypatch.setattr(answers, "LARGEST_B", 5)
    for _ in range(2):
        kept.of(never, run, nap, (0.0,))
    assert len(runs) == 2
    monkeypatch.setattr(answers, "LARGEST_B", 100)
    monkeypatch.setattr(answers, "MOST_B", 2 * len(answers.packed(nap, (0.0,))[0]))
    for seconds in (0.0, 0.001, 0.0, 0.002, 0.0):
        kept.of(never, run, nap, (seconds,))
    assert [a[1] for a in runs[2:]] == [(0.0,), (0.001,), (0.002,)]
    kept.of(never, run, nap, (0.001,))
    assert len(runs) == 6


def test_who_asks_what_is_being_worked_out_waits_for_that():
    kept, run, runs = counting()
    told = []
    crowd = [
        threading.Thread(target=lambda: told.append(kept.of(never, run, nap, (0.3,))))
        for _ in range(4)
    ]
    for t in crowd:
        t.start()
    with pytest.raises(GaveUp):
        kept.of(lambda: True, run, nap, (0.3,))
    for t in crowd:
        t.join()
    assert told == ["slept"] * 4
    assert len(runs) == 1
    assert kept._turns == {}


def test_when_the_first_gives_up_the_next_one_works_it_out():
    kept, run, runs = counting()

    def leaves(gone, packed, args):
        time.sleep(0.2)
        raise GaveUp

    def first():
        with pytest.raises(GaveUp):
            kept.of(never, leaves, nap, (0.0,))

    ahead = threading.Thread(target=first)
    ahead.start()
    time.sleep(0.05)
    assert kept.of(never, run, nap, (0.0,)) == "slept"
    ahead.join()
    assert len(runs) == 1
