"""After something was touched: what is worth measuring again, and what has moved since."""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from ringside.answers.recheck import OLD_MIN, recheck
from ringside.answers.stands import Compared, PairStands, compared
from ringside.gear.locker import Locker
from ringside.pairs.analysis import analyse
from ringside.standing.entries import Entry, before_touched, written
from ringside.standing.report import standing
from ringside.standing.since import since_touched
from ringside.standing.stood import analysed
from ringside.standing.truth import truth

from tests.core.test_standing import KICK, SNARE, START, entry, length, measured_kit
from tests.core.tracks import with_mic

NOTHING = Locker()
NOW = datetime(2026, 5, 2, 15, 0, tzinfo=UTC)
PLAN = START.model_copy(update={"kit": measured_kit()})
ENDS = (SNARE, KICK, None, "floor", "rack-1", "crash-l", "crash-r", "hats", "ride")


def shifted(mic, by):
    return with_mic(PLAN, mic, position_m=tuple(np.add(PLAN.mic(mic).position_m, by)))


def read(n, true, mic, ends=ENDS, at=None):
    return [entry(f"{n}-{i}", mic, to, length(true, mic, to)).model_copy(update={"at": at})
            for i, to in enumerate(ends)]  # fmt: skip


def touch(n, mic):
    return entry(n, mic, what="touched")


def since(log):
    return since_touched(PLAN, NOTHING, log, truth(PLAN, NOTHING, written(PLAN, log).readings))


def test_a_mic_put_back_is_told_the_way_from_where_it_stood():
    # It stood 6 cm to the right and 3 cm high; then all was put back, and nothing read yet.
    log = [*read("a", shifted("OR", (0.06, 0, 0.03)), "OR"), touch("t", "OR")]
    (row,) = since(log)
    assert (row.mic, row.read_again, row.words.cm()) == (
        "OR",
        False,
        "Touched, and not read since.",
    )
    assert row.back.cm() == "Back to the plan: 6 cm to the left, 3 cm down."
    assert row.key == log[-1].key
    # Struck out, it was not touched.
    assert since(log[:-1]) == []


def test_what_has_moved_since_it_was_touched_is_told_and_what_has_not():
    first = [*read("a", shifted("OR", (0.06, 0, 0.03)), "OR"), *read("b", PLAN, "OL")]
    after = [touch("t", "OR"), touch("u", "OL")]
    log = [*first, *after, *read("c", shifted("OR", (0.0, 0.05, 0.0)), "OR"),
           *read("d", PLAN, "OL")]  # fmt: skip
    by = {r.mic: r for r in since(log)}
    # From 6 cm right and 3 cm high to 5 cm forward.
    assert by["OR"].words.cm() == (
        "Since it was touched: 8 cm to the left and forward and 3 cm lower."
    )
    assert by["OL"].words.cm().startswith("Stands as it did, as far as is known")
    assert all(r.read_again and not r.back for r in by.values())


@pytest.mark.parametrize(("was", "now", "said"), [
    (0.10, 0.14, "Since it was touched: 4 cm further from its drum."),
    (0.14, 0.10, "Since it was touched: 4 cm nearer to its drum."),
    (0.10, 0.108, "As far from its drum as before it was touched."),
])  # fmt: skip
def test_a_close_mic_is_held_to_its_drum(was, now, said):
    log = [entry(1, "T1", "rack-1", was), touch(2, "T1"), entry(3, "T1", "rack-1", now)]
    assert [r.words.cm() for r in since(log)] == [said]


def test_before_it_was_touched_counts_what_was_read_until_then_of_either_end():
    log = [entry(1, "OL", SNARE, 1.3), entry(2, "OL", "OR", 1.5), entry(3, "OR", KICK, 1.6),
           touch(4, "OR"), entry(5, "OR", KICK, 1.7), entry(6, "OL", "OR", 1.4),
           entry(7, "OL", KICK, 1.6)]  # fmt: skip
    assert [e.key for e in before_touched(log)] == ["k1", "k2", "k3", "k7"]


# --- what is worth measuring again ---------------------------------------------------------


def rows(log, now=NOW, pairs=None):
    true = truth(PLAN, NOTHING, written(PLAN, log).readings)
    told = compared(analyse(PLAN), analysed(true.layout))
    if pairs is not None:
        told = Compared(pairs=pairs, changed=0, open=len(pairs), words="")
    return recheck(PLAN, log, standing(PLAN, NOTHING, log, true), told, now)


def hanging(a, b):
    return PairStands(a=a, b=b, source=SNARE, planned="together", stands="together",
                      could="late", delay_ms=0.0, half_ms=0.1)  # fmt: skip


def test_what_was_never_read_is_not_measured_again_and_what_is_done_is_left():
    assert rows([]) == []
    every = [e for m in ("OL", "OR") for e in read(m, PLAN, m, (*ENDS, *("OR",) * (m == "OL")))]
    assert [r.mic for r in rows(every, pairs=[hanging("OL", "KI")])] == []


def test_what_hangs_on_it_comes_before_what_was_touched_and_a_misfit_before_both():
    log = [*read("a", PLAN, "OL"), *read("b", PLAN, "OR"), entry("c", "T1", "rack-1", 0.1),
           touch("t", "T1"), touch("u", "OL")]  # fmt: skip
    found = rows(log, pairs=[hanging("OL", "OR"), hanging("OL", "T2")])
    assert [r.mic for r in found] == ["OL", "OR", "T1"]
    assert [r.hangs for r in found] == [2, 1, 0]
    assert found[0].why[:2] == ["touched since it was read", "2 verdicts hang on it"]
    assert (found[0].to, found[2].to) == (SNARE, "rack-1")
    assert found[1].why == ["1 verdict hangs on it"]
    wrong = [entry("x", "OR", "ride", length(PLAN, "OR", "ride") + 0.3)]
    odd = rows([*log, *wrong], pairs=[hanging("OL", "T1"), hanging("OL", "T2")])
    assert odd[0].mic == "OR"
    assert odd[0].why[0] == "its readings do not fit the others"


@pytest.mark.parametrize(("minutes", "listed"), [(OLD_MIN - 1, False), (OLD_MIN, True)])
def test_what_was_read_long_ago_is_worth_a_look(minutes, listed):
    at = NOW - timedelta(minutes=minutes)
    log = [entry(1, "T1", "rack-1", length(PLAN, "T1", "rack-1")).model_copy(update={"at": at})]
    found = rows(log, pairs=[])
    assert bool(found) == listed
    if listed:
        assert (found[0].why, found[0].age_min) == (["read 2 h ago"], OLD_MIN)
    # A clock that is behind makes nothing older than now.
    ahead = [log[0].model_copy(update={"at": NOW + timedelta(hours=5)})]
    assert rows(ahead, pairs=[]) == []


def test_the_older_of_two_alike_comes_first():
    log = [
        Entry(key=f"k{m}", what="reading", mic=m, to=to, metres=length(PLAN, m, to),
              at=NOW - timedelta(hours=h))
        for m, to, h in (("T1", "rack-1", 3), ("T2", "rack-2", 5))
    ]  # fmt: skip
    found = rows(log, pairs=[])
    assert [(r.mic, r.why) for r in found] == [("T2", ["read 5 h ago"]), ("T1", ["read 3 h ago"])]


def test_a_place_that_is_open_is_said_with_how_far():
    log = read("a", PLAN, "OL", (SNARE,))
    (row,) = rows(log, pairs=[])
    assert row.why == ["its place is not sure yet"]
    # By eye in two directions, 10 cm one sigma; read in the third.
    assert row.sigma_m == pytest.approx(0.10, abs=0.005)
    close = rows([entry("c", "T1", "rack-1", 0.1), touch("t", "T1")], pairs=[])
    assert [(r.mic, r.why, r.sigma_m) for r in close] == [
        ("T1", ["touched since it was read"], 0.005),
    ]  # fmt: skip


def test_a_mic_read_by_a_cord_alone_is_listed_once_it_was_touched_and_one_half_read_is_said():
    held = Entry(key="c", what="cord", mic="OR", to=SNARE, like="OL", cord="same")
    found = rows([held, touch("t", "OR")], pairs=[])
    assert {r.mic: r.why[0] for r in found} == {
        "OR": "touched since it was read", "OL": "its place is not sure yet",
    }  # fmt: skip
    half = [e for m in ("OL", "OR") for e in read(m, PLAN, m, (SNARE, KICK, *ENDS[3:]))]
    assert [r.why for r in rows(half, pairs=[])] == [["not all of it is read"]] * 2
