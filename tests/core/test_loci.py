"""The ring and its relatives against independent constructions."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from ringside.errors import RingsideError
from ringside.places.loci import at_distances, nearest_on_sphere, ring, ring_through
from scipy.optimize import least_squares, minimize

TENTH_MM = 1e-4
metre = st.floats(-3, 3, allow_nan=False).map(lambda x: round(x, 3))
point = st.tuples(metre, metre, metre).map(np.array)
S, K = np.array([0.0, 0.0, 0.66]), np.array([0.28, 0.25, 0.28])


def solved(s, k, a, b, start):
    """A point at both distances found by a numerical solver that knows nothing of circles."""
    f = lambda p: [np.linalg.norm(p - s) - a, np.linalg.norm(p - k) - b]  # noqa: E731
    return least_squares(f, start, xtol=1e-14, ftol=1e-14, gtol=1e-14).x


@given(point, point, point, st.floats(0, 6.28))
def test_every_ring_point_keeps_both_distances(s, k, mic, angle):
    assume(np.linalg.norm(s - k) > 0.05)
    answer = ring_through(s, k, mic)
    assume(answer.kind == "circle")
    on = answer.ring.at(angle)
    assert np.linalg.norm(on - s) == pytest.approx(np.linalg.norm(mic - s), abs=TENTH_MM)
    assert np.linalg.norm(on - k) == pytest.approx(np.linalg.norm(mic - k), abs=TENTH_MM)


def test_numerically_solved_points_lie_on_the_ring():
    rng = np.random.default_rng(7)
    r = ring(S, K, 1.20, 1.52).ring
    for start in rng.uniform(-2, 2, (40, 3)):
        p = solved(S, K, 1.20, 1.52, start)
        assert np.linalg.norm(r.nearest(p) - p) < TENTH_MM


def test_nearest_ring_point_against_a_constrained_minimiser():
    now = np.array([0.9, -0.3, 1.6])
    r = ring(S, K, 1.20, 1.52).ring
    hold = [
        {"type": "eq", "fun": lambda p: np.linalg.norm(p - S) - 1.20},
        {"type": "eq", "fun": lambda p: np.linalg.norm(p - K) - 1.52},
    ]
    found = minimize(lambda p: np.sum((p - now) ** 2), now, constraints=hold, tol=1e-14).x
    assert np.linalg.norm(found - r.nearest(now)) < TENTH_MM


def test_equal_height_answers_against_crossing_circles_in_plan():
    # Trilateration on paper: at height z both spheres are circles round the drums in plan.
    r = ring(S, K, 1.20, 1.52).ring
    z = 1.70
    ra, rb = np.sqrt(1.20**2 - (z - S[2]) ** 2), np.sqrt(1.52**2 - (z - K[2]) ** 2)
    d = np.hypot(*(K - S)[:2])
    along = (ra**2 - rb**2 + d**2) / (2 * d)
    e = (K - S)[:2] / d
    off = np.sqrt(ra**2 - along**2) * np.array([-e[1], e[0]])
    expected = {tuple(np.round(S[:2] + along * e + s * off, 4)) for s in (1, -1)}
    assert {tuple(np.round(p[:2], 4)) for p in r.at_height(z)} == expected


def test_mirrored_mic_is_the_other_equal_height_spot():
    # Geometry of the trade: mirroring across the upright plane through snare and kick keeps both.
    mic = np.array([-0.45, 0.60, 1.74])
    normal = np.array([-(K - S)[1], (K - S)[0], 0.0])
    normal /= np.linalg.norm(normal)
    mirror = mic - 2 * ((mic - S) @ normal) * normal
    spots = ring_through(S, K, mic).ring.at_height(1.74)
    assert min(np.linalg.norm(spots - mirror, axis=1)) < TENTH_MM
    assert min(np.linalg.norm(spots - mic, axis=1)) < TENTH_MM


def test_the_top_of_the_ring_is_one_spot_and_above_it_there_is_none():
    r = ring(S, K, 1.20, 1.52).ring
    top = r.at(np.pi / 2)
    assert len(r.at_height(float(top[2]))) == 1
    assert len(r.at_height(float(top[2]) + 0.01)) == 0


@pytest.mark.parametrize(
    ("a", "b", "words"),
    [
        (0.10, 0.10, "further apart than the two distances together"),
        (2.00, 0.50, "snare distance is longer"),
        (0.50, 2.00, "kick distance is longer"),
    ],
)
def test_no_ring_says_why_and_gives_the_spot_that_misses_least(a, b, words):
    answer = ring(S, K, a, b)
    assert answer.kind == "none"
    assert words in answer.words
    miss = lambda p: max(abs(np.linalg.norm(p - S) - a), abs(np.linalg.norm(p - K) - b))  # noqa: E731
    rng = np.random.default_rng(3)
    best = min(miss(p) for p in answer.point + rng.normal(0, 0.2, (4000, 3)))
    assert miss(answer.point) <= best + 1e-9


def test_touching_spheres_are_one_point():
    d = float(np.linalg.norm(K - S))
    answer = ring(S, K, d + 0.5, 0.5)
    assert answer.kind == "point"
    assert np.linalg.norm(answer.point - S) == pytest.approx(d + 0.5, abs=TENTH_MM)


@pytest.mark.parametrize(
    ("s", "k", "a", "words"),
    [((0, 0, 0), (0, 0, 0), 1.0, "same point"), ((0, 0, 0), (1, 0, 0), -1.0, "above zero")],
)
def test_degenerate_questions_are_answered_in_words(s, k, a, words):
    answer = ring(s, k, a, 1.0)
    assert answer.kind == "none"
    assert words in answer.words


@given(point, st.floats(0.05, 4), point)
def test_sphere_point_keeps_the_distance_and_the_direction(s, a, p):
    assume(np.linalg.norm(p - s) > 1e-3)
    on = nearest_on_sphere(s, a, p)
    assert np.linalg.norm(on - s) == pytest.approx(a, abs=TENTH_MM)
    assert np.linalg.norm(on - p) == pytest.approx(abs(np.linalg.norm(p - s) - a), abs=TENTH_MM)


def test_typed_distances_find_the_spot_on_the_side_the_mic_is_on():
    there = np.array([0.7, -0.2, 1.68])
    a, b = np.linalg.norm(there - S), np.linalg.norm(there - K)
    spot = at_distances(S, K, a, b, 1.68, there + 0.05)
    assert np.linalg.norm(spot - there) < TENTH_MM


def test_a_height_the_ring_does_not_reach_is_refused_with_what_is_possible():
    r = ring(S, K, 1.20, 1.52).ring
    low, high = (float(r.at(t)[2]) for t in (-np.pi / 2, np.pi / 2))
    with pytest.raises(RingsideError) as caught:
        at_distances(S, K, 1.20, 1.52, 2.68, (0, 0, 2))
    assert f"from {low:.3f} m to {high:.3f} m above the floor" in str(caught.value)
    inches = caught.value.worded(lambda m: f"{m / 0.0254:.0f} in")
    assert f"to {high / 0.0254:.0f} in above" in inches


@pytest.mark.parametrize("seed", range(10))
def test_three_points_have_their_circumcentre_and_its_line(seed):
    """Against scipy's least squares on the two differences of distance."""
    from ringside.places.loci import equidistant
    from scipy.optimize import least_squares

    p = np.random.default_rng(seed).uniform(-1, 1, (3, 3))
    found = equidistant(p)
    for along in (-0.7, 0.0, 1.3):
        d = np.linalg.norm(p - (found.line_point + along * found.line_way), axis=1)
        assert np.ptp(d) < 1e-9
    solved = least_squares(
        lambda x: np.diff(np.linalg.norm(p - x, axis=1)), found.line_point + 0.01, xtol=1e-15
    ).x
    assert np.ptp(np.linalg.norm(p - solved, axis=1)) < 1e-6


def test_four_corners_of_a_cube_have_its_middle():
    from ringside.places.loci import equidistant

    found = equidistant([(0, 0, 0), (1, 1, 0), (1, 0, 1), (0, 1, 1)])
    assert found.best == pytest.approx((0.5, 0.5, 0.5))
    assert np.abs(found.residuals).max() < 1e-12


def test_four_on_one_plane_but_no_circle_leave_a_residual():
    from ringside.places.loci import equidistant

    found = equidistant([(0, 0, 0), (2, 0, 0), (0, 2, 0), (5, 5, 0)])
    assert abs(found.residuals[3]) > 1
    assert np.abs(found.residuals[:3]).max() < 1e-9


@pytest.mark.parametrize("points", [[(0, 0, 0), (1, 0, 0), (2, 0, 0)], [(0, 0, 0), (1, 0, 0)]])
def test_no_spot_is_equally_far_from_three_in_a_line(points):
    from ringside.places.loci import equidistant

    with pytest.raises(RingsideError, match=r"line|three or four"):
        equidistant(points)
