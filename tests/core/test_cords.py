"""The same distance without numbers: a cord from one capsule, held at another."""

import numpy as np
import pytest
from ringside.gear.locker import Locker
from ringside.standing.entries import Entry, written
from ringside.standing.report import standing
from ringside.standing.stood import analysed
from ringside.standing.truth import truth
from ringside.survey.net import TAPE_M
from scipy.optimize import least_squares

from tests.core.test_standing import IDS, KICK, SNARE, START, entry, length, measured_kit
from tests.core.tracks import with_mic

NOTHING = Locker()


def cord(n, said, mic="OR", to=SNARE, like="OL"):
    return Entry(key=f"c{n}", what="cord", mic=mic, to=to, like=like, cord=said)


def pair_ask(log, to=SNARE):
    return next(a for a in standing(START, NOTHING, log).asks if (a.mic, a.to) == ("OR", to))


def test_a_cord_says_what_to_do_and_settles_a_pair_without_a_number():
    row = pair_ask([])
    assert (row.state, row.cord.like, row.cord.said) == ("to read", "OL", None)
    # Overheads hang over the snare: up is away from it.
    assert row.cord.nearer == (
        "OR is nearer to the snare than OL: raise it or let it out until the cord is just taut,"
        " then ask once more."
    )
    assert row.cord.further.startswith(
        "OR is further from the snare than OL: lower it or draw it in"
    )
    near = pair_ask([cord(1, "nearer")])
    assert (near.state, near.cord.said, near.read_m) == ("off", "nearer", None)
    same = pair_ask([cord(1, "nearer"), cord(2, "same")])
    assert (same.state, same.cord.said) == ("good", "same")
    # What it said before counts no more once it says another thing, or the mic was touched.
    assert pair_ask([cord(1, "same"), cord(2, "further")]).state == "off"
    assert pair_ask([cord(1, "same"), entry(2, "OL", what="touched")]).state == "again"
    assert pair_ask([cord(1, "further"), entry(2, "OR", what="touched")]).state == "to read"
    # Only what is kept equal has a cord.
    assert all(a.cord is None for a in standing(START, NOTHING, []).asks if a.mic != "OR")


def test_a_cord_makes_two_equal_as_surely_as_two_tapes_though_no_place_is_known():
    kit = START.model_copy(update={"kit": measured_kit()})
    taken = written(kit, [cord(1, "same")]).readings
    found = truth(kit, NOTHING, taken)
    an = analysed(found.layout)
    row, _ = an.pair_index("OL", "OR")
    k = an.scene.sources.ids.index(SNARE)
    assert an.doubt_m[row, k] == pytest.approx(TAPE_M, rel=0.05)
    assert np.sqrt(np.diag(found.spread(IDS.index("OR")))).max() > 0.05
    assert {"OL", "OR"} <= found.measured
    # With one of the two read, the other is as far, wherever it was planned.
    off = with_mic(kit, "OR", position_m=tuple(np.add(kit.mic("OR").position_m, (0.1, 0.05, 0.1))))
    log = [entry(2, "OL", SNARE, 1.25), cord(1, "same")]
    told = truth(off, NOTHING, written(off, log).readings).layout
    assert length(told, "OR", SNARE) == pytest.approx(1.25, abs=0.006)


def test_a_cord_is_solved_as_another_solver_does():
    kit = START.model_copy(update={"kit": measured_kit()})
    log = [entry(1, "OL", SNARE, 1.27), entry(2, "OL", KICK, 1.66), entry(3, "OR", KICK, 1.6),
           cord(4, "same"), cord(5, "same", to=None)]  # fmt: skip
    taken = written(kit, log).readings
    found = truth(kit, NOTHING, taken)
    task = found.task

    def residual(x):
        p = x.reshape(-1, 3)
        said = [np.linalg.norm(p[a] - p[b]) if b is not None else p[a][2] for a, b in task.ends]
        less = [0.0 if e is None else
                (p[e[0]][2] if e[1] is None else np.linalg.norm(p[e[0]] - p[e[1]]))
                for e in task.less]  # fmt: skip
        root = np.linalg.cholesky(task.weight).T
        return np.concatenate([(task.read - said + less) / TAPE_M, root @ (x - task.start.ravel())])

    best = least_squares(residual, task.start.ravel(), xtol=1e-15, ftol=1e-15, gtol=1e-15)
    assert np.abs(best.x.reshape(-1, 3) - found.net.points).max() < 1e-5


def test_a_cord_that_readings_contradict_is_named_or_in_doubt():
    kit = START.model_copy(update={"kit": measured_kit()})
    ends = (SNARE, KICK, None, "floor", "rack-1", "crash-l", "crash-r", "hats", "ride")
    true = with_mic(kit, "OR", position_m=tuple(np.add(kit.mic("OR").position_m, (0.15, 0, 0.2))))
    log = [entry(f"{m}{i}", m, to, length(true, m, to))
           for m in ("OL", "OR") for i, to in enumerate(ends)]  # fmt: skip
    told = standing(kit, NOTHING, [*log, cord(1, "same")])
    assert told.words == ("OR as far as OL–snare does not fit the other readings and is left out.")
    (row,) = [r for r in told.readings if r.like]
    assert (row.mic, row.to, row.like, row.state) == ("OR", SNARE, "OL", "misfit")


@pytest.mark.parametrize("fields", [
    {"what": "cord"}, {"what": "cord", "like": "OL"}, {"what": "cord", "cord": "same"},
    {"what": "skip", "like": "OL"}, {"what": "tick", "cord": "same"},
])  # fmt: skip
def test_a_cord_says_of_which_two_and_what_and_nothing_else_does(fields):
    with pytest.raises(ValueError, match="expected like and cord with a cord"):
        Entry(key="k", mic="OR", to=SNARE, **fields)


def test_a_cord_of_a_mic_that_has_gone_or_of_itself_is_kept_and_counts_for_nothing():
    log = [cord(1, "same", like="XX"), cord(2, "same", like="OR"), cord(3, "same", to="OL")]
    told = standing(START, NOTHING, log)
    assert told.gone == [
        "OR to snare, same as XX",
        "OR to snare, same as OR",
        "OR to OL, same as OL",
    ]
    assert told.readings == []
