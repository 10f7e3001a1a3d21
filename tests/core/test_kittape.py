"""The plan of a kit from tape readings: known truths, noise, one wrong reading, few readings."""

from functools import cache

import numpy as np
import pytest
from ringside.errors import RingsideError
from ringside.plan.kit import mirrored, reference_point
from ringside.plan.kits import KITS, five_piece, six_piece
from ringside.survey.net import fit
from ringside.survey.readings import forget, read, solved
from ringside.survey.report import tape_report
from ringside.survey.walk import PLACED_M, next_reading, walk_order
from scipy.optimize import least_squares

from ops.limits import misread_kit

TAPE_SIGMA = 0.005
CAREFUL_SIGMA = 0.003  # a tape held with care and read to half a centimetre (common practice)


def held(part):
    return np.array(reference_point(part) if hasattr(part, "batter_m") else part.centre_m)


def moved(kit, rng, spread=0.12):
    """The same kit as somebody else set it up; the snare stays the origin."""

    def at(p):
        x, y, z = np.array(p) + rng.normal(size=3) * [spread, spread, 0.04]
        return (float(x), float(y), float(z))

    drums = tuple(
        d if d.kind == "snare" else d.model_copy(update={"batter_m": at(d.batter_m)})
        for d in kit.drums
    )
    cymbals = tuple(c.model_copy(update={"centre_m": at(c.centre_m)}) for c in kit.cymbals)
    return kit.model_copy(update={"drums": drums, "cymbals": cymbals})


def true_length(truth, a, b):
    if b is None:
        return float(held(truth.part(a))[2])
    return float(np.linalg.norm(held(truth.part(a)) - held(truth.part(b))))


def turned_onto(points, onto):
    """Points turned about the upright axis through the first so that they lie best on others."""
    a, b = (points - points[0])[:, :2], (onto - onto[0])[:, :2]
    angle = np.arctan2((a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).sum(), (a * b).sum())
    c, s = np.cos(angle), np.sin(angle)
    flat = np.column_stack([c * a[:, 0] - s * a[:, 1], s * a[:, 0] + c * a[:, 1]])
    return np.column_stack([flat + onto[0, :2], points[:, 2]])


def worst_place(kit, truth):
    here = np.array([held(p) for p in kit.parts])
    there = np.array([held(p) for p in truth.parts])
    return float(np.abs(turned_onto(here, there) - there).max())


def walked(kit, truth, noise=None, stage="check"):
    """Take every reading that is asked for, up to and including a stage."""
    stages = {"place": {"place", "again"}, "check": {"place", "check", "again"}}[stage]
    for _ in range(150):
        ask = next_reading(kit, fit(kit))
        if ask is None or ask.stage not in stages:
            return kit
        off = 0.0 if noise is None else float(noise.normal()) * TAPE_SIGMA
        kit = read(kit, ask.a, ask.b, true_length(truth, ask.a, ask.b) + off)
    raise AssertionError("the walk does not end")


@pytest.mark.parametrize("name", ["small four-piece", "five-piece", "six-piece"])
def test_exact_readings_give_the_true_kit(name):
    for seed in range(3):
        truth = moved(KITS[name](), np.random.default_rng(seed))
        kit = walked(KITS[name](), truth, stage="place")
        assert len(kit.readings) <= 4 * len(kit.parts)  # two ways and a height each, and few more
        assert worst_place(solved(kit), truth) < 0.003  # the drawing pulls a hair's breadth


def test_noisy_readings_give_it_within_the_doubt_that_is_told():
    far = []
    for seed in range(8):
        rng = np.random.default_rng(100 + seed)
        truth = moved(five_piece(), rng)
        kit = walked(five_piece(), truth, rng)
        off = worst_place(solved(kit), truth)
        told = max(p.plan_m for p in tape_report(solved(kit)).parts)
        assert told <= 2 * PLACED_M  # a part far out may have no further reading within reach
        far.append(off / told)
    # The worst of 27 coordinates lies within three and a half sigmas (normal distribution).
    assert max(far) < 3.5
    assert max(far) > 0.3  # and the doubt is not told many times too large


@cache
def full_walks():
    """Six random kits with the reading list of a whole walk, lengths true."""
    found = []
    for seed in range(6):
        preset = (five_piece, six_piece)[seed % 2]()
        truth = moved(preset, np.random.default_rng(500 + seed))
        found.append((walked(preset, truth), truth))
    return found


@pytest.mark.parametrize(
    ("wrong_m", "sigma", "least"),
    [
        (0.03, CAREFUL_SIGMA, 0.95),
        (0.05, TAPE_SIGMA, 0.95),
        (0.2, TAPE_SIGMA, 0.97),
        # Six sigmas, with half of each reading's error taken up by the plan: theory says nine of
        # ten stand out (Baarda's internal reliability at the redundancy of a whole walk).
        (0.03, TAPE_SIGMA, 0.85),
    ],
)
def test_one_wrong_reading_is_found(wrong_m, sigma, least):
    rng = np.random.default_rng(int(wrong_m * 1000))
    found = named = times = 0
    for kit, _ in full_walks():
        tapes = [i for i, r in enumerate(kit.readings) if r.b is not None]
        for _ in range(25):
            bad = int(rng.choice(tapes))
            noise = rng.normal(size=len(kit.readings)) * sigma
            noise[bad] += wrong_m * rng.choice([-1, 1])
            readings = tuple(
                r.model_copy(update={"metres": r.metres + float(e)})
                for r, e in zip(kit.readings, noise, strict=True)
            )
            now = fit(kit.model_copy(update={"readings": readings}))
            found += bad in now.suspects or bad in now.rivals
            named += len(now.suspects) + len(now.rivals)
            times += 1
    assert found / times >= least
    assert named / times < 2.5  # it is pointed at, not a whole list


def test_good_readings_are_seldom_called_wrong():
    rng = np.random.default_rng(9)
    called = readings = 0
    for kit, _ in full_walks():
        for _ in range(10):
            noise = rng.normal(size=len(kit.readings)) * TAPE_SIGMA
            noisy = tuple(
                r.model_copy(update={"metres": r.metres + float(e)})
                for r, e in zip(kit.readings, noise, strict=True)
            )
            called += len(fit(kit.model_copy(update={"readings": noisy})).suspects)
            readings += len(noisy)
    assert called / readings < 0.01  # 2.8 sigmas: five in a thousand of a normal distribution


def test_the_solution_is_that_of_an_independent_least_squares():
    rng = np.random.default_rng(3)
    truth = moved(five_piece(), rng, 0.06)
    drawn = five_piece()
    kit = walked(drawn, truth, rng, stage="place")
    start = np.array([held(p) for p in drawn.parts])
    sigma = np.tile([0.20, 0.20, 0.06], len(start)).reshape(-1, 3)
    sigma[drawn.source_ids.index("snare"), :2] = 1e-4
    ids = drawn.source_ids

    def misses(x):
        p = x.reshape(-1, 3)
        tapes = [
            (r.metres - (p[ids.index(r.a), 2] if r.b is None
             else np.linalg.norm(p[ids.index(r.a)] - p[ids.index(r.b)]))) / TAPE_SIGMA
            for r in kit.readings
        ]  # fmt: skip
        return np.concatenate([((p - start) / sigma).ravel(), tapes])

    other = least_squares(misses, start.ravel(), x_scale="jac", xtol=1e-14, ftol=1e-14).x
    ours = fit(drawn.model_copy(update={"readings": kit.readings}))
    assert ours.suspects == ()
    np.testing.assert_allclose(ours.points, other.reshape(-1, 3), atol=1e-4)


def test_five_readings_already_place_what_they_touch():
    truth = moved(five_piece(), np.random.default_rng(4), 0.10)
    kit = five_piece()
    before = true_length(kit, "snare", "kick"), true_length(kit, "snare", "floor")
    for a, b in [("snare", "kick"), ("snare", "floor"), ("kick", "floor"), ("snare", "rack-1"),
                 ("kick", "rack-1")]:  # fmt: skip
        kit = read(kit, a, b, true_length(truth, a, b))
    now = solved(kit)
    for a, b in [("snare", "kick"), ("snare", "floor")]:
        assert true_length(now, a, b) == pytest.approx(true_length(truth, a, b), abs=0.002)
    assert before != (true_length(now, "snare", "kick"), true_length(now, "snare", "floor"))
    # What no reading touches stays where it was drawn.
    assert now.part("crash-r").centre_m == pytest.approx(five_piece().part("crash-r").centre_m)


def test_a_left_handed_kit_is_solved_as_its_mirror_image():
    truth = moved(six_piece(), np.random.default_rng(6))
    right = solved(walked(six_piece(), truth))
    left_kit, left_truth = mirrored(six_piece(), "Left"), mirrored(truth, "Left")
    left = left_kit
    for r in walked(six_piece(), truth).readings:
        left = read(left, r.a, r.b, true_length(left_truth, r.a, r.b))
    for one, other in zip(right.parts, solved(left).parts, strict=True):
        x, y, z = held(one)
        assert held(other) == pytest.approx([-x, y, z], abs=1e-4)


def test_the_walk_begins_at_snare_and_kick_and_goes_round():
    kit = five_piece()
    order = [kit.source_ids[i] for i in walk_order(kit)]
    assert order[:2] == ["snare", "kick"]
    assert set(order[2:5]) == {"rack-1", "rack-2", "floor"}
    assert order.index("rack-1") < order.index("rack-2") < order.index("floor")
    first = next_reading(kit, fit(kit))
    assert (first.a, first.b, first.stage) == ("snare", None, "place")
    assert first.words == "From the floor up to the snare."


def test_a_slip_of_the_keys_is_told_even_with_nothing_to_check_it():
    kit = read(five_piece(), "snare", "kick", 4.2)  # 42 cm typed as 420
    report = tape_report(kit)
    assert report.readings[0].state == "misfit"
    assert report.next.stage == "again"
    assert report.words == "kick–snare does not fit the other readings and is left out." or (
        report.words == "snare–kick does not fit the other readings and is left out."
    )


def test_unsure_readings_are_not_used_and_are_asked_for_again():
    kit = read(five_piece(), "snare", "floor", 0.9)
    stale = kit.readings[0].model_copy(update={"sure": False})
    kit = kit.model_copy(update={"readings": (stale,)})
    assert solved(kit) == kit
    assert next_reading(kit, fit(kit)).stage == "again"
    assert tape_report(kit).readings[0].state == "unsure"
    again = read(kit, "floor", "snare", 0.8)  # the other way round is the same reading
    assert len(again.readings) == 1
    assert again.readings[0].sure
    gone = solved(forget(again, "snare", "floor"))
    assert gone.readings == ()
    assert gone.drawn == ()
    assert gone.drums == five_piece().drums  # with nothing measured it stands as it was drawn


def test_the_order_of_the_readings_does_not_matter():
    truth = moved(five_piece(), np.random.default_rng(8))
    readings = walked(five_piece(), truth, np.random.default_rng(1), stage="place").readings
    one = two = five_piece()
    for r in readings:
        one = solved(read(one, r.a, r.b, r.metres))
    for r in reversed(readings):
        two = solved(read(two, r.a, r.b, r.metres))
    for a, b in zip(one.parts, two.parts, strict=True):
        assert held(a) == pytest.approx(held(b), abs=2e-4)


def test_a_wrong_reading_is_among_those_in_doubt_as_soon_as_two_disagree():
    kit = five_piece()
    for _ in range(30):
        found = fit(kit)
        if found.suspects:
            break
        ask = next_reading(kit, found)
        wrong = 0.25 if {ask.a, ask.b} == {"kick", "floor"} else 0.0
        kit = solved(read(kit, ask.a, ask.b, true_length(five_piece(), ask.a, ask.b) + wrong))
    named = [{kit.readings[i].a, kit.readings[i].b} for i in (*found.suspects, *found.rivals)]
    assert {"kick", "floor"} in named


@pytest.mark.parametrize(
    ("a", "b", "metres", "words"),
    [
        ("snare", "cow", 0.5, "expected a drum or cymbal of the kit, got 'cow'"),
        ("snare", "snare", 0.5, "two different ends"),
        ("snare", "kick", 42.0, "expected a reading of"),
        ("snare", None, -0.1, "expected a reading of"),
    ],
)
def test_a_reading_that_cannot_be_is_refused_in_words(a, b, metres, words):
    with pytest.raises(RingsideError, match=words):
        read(five_piece(), a, b, metres)


def test_a_reading_that_is_repeated_and_stays_is_believed_and_the_other_asked_for():
    """Two readings disagree and the wrong one is not the first suspect: the walk still ends."""
    right = five_piece()
    kit = five_piece()
    for a, b in [("snare", "kick"), ("snare", "floor"), ("kick", "floor")]:
        kit = read(kit, a, b, true_length(right, a, b))
    for name in ("snare", "kick", "floor"):
        kit = read(kit, name, None, true_length(right, name, None))
    kit = read(kit, "snare", "rack-1", true_length(right, "snare", "rack-1"))
    kit = read(kit, "kick", "rack-1", true_length(right, "kick", "rack-1") + 0.10)
    kit = read(kit, "floor", "rack-1", true_length(right, "floor", "rack-1"))
    kit = read(kit, "rack-1", None, true_length(right, "rack-1", None))
    asked = []
    for _ in range(8):
        found = fit(kit)
        if not found.suspects:
            break
        ask = next_reading(kit, found)
        assert ask.stage == "again"
        asked.append({ask.a, ask.b})
        kit = read(kit, ask.a, ask.b, true_length(right, ask.a, ask.b))
    assert fit(kit).suspects == ()
    assert {"kick", "rack-1"} in asked
    assert len(asked) <= 5


def test_readings_that_are_the_same_are_joined():
    kit = read(read(five_piece(), "snare", "kick", 0.530), "kick", "snare", 0.534)
    assert len(kit.readings) == 1
    assert kit.readings[0].metres == pytest.approx(0.532)
    assert kit.readings[0].taken == 2
    other = read(kit, "snare", "kick", 0.60)  # another length is another reading
    assert (other.readings[0].metres, other.readings[0].taken) == (0.60, 1)


def test_when_hardly_any_reading_fits_it_is_said_to_be_no_slip():
    kit = misread_kit(66)
    report = tape_report(kit)
    assert sum(r.state == "misfit" for r in report.readings) == 10
    assert report.words.startswith("10 readings do not fit the others, and more may not")
