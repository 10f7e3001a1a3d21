"""A slow, obvious second implementation, one mic and one drum at a time, in plain Python.

It follows the written description of arrivals, signs, gains and verdicts and shares no code
with the arrays under test: no numpy, no formula in closed form where a sum will do.
"""

import cmath
import itertools
import math
from functools import cache

import pytest
from ringside.pairs.analysis import analyse
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.places.starts import starting_layout
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.thresholds import Thresholds

from tests.core.tracks import with_each

SHARE = {"omni": 1, "wide cardioid": 0.7, "cardioid": 0.5, "supercardioid": 0.366,
         "hypercardioid": 0.25, "figure-8": 0}  # fmt: skip


NEAR_S = 5e-8
"""Walking round a rim in 100 000 steps leaves 8 µm, 0.02 µs; a tape reads 5 mm, 15 µs."""


def minus(a, b):
    return [x - y for x, y in zip(a, b, strict=True)]


def dot(a, b):
    return sum(x * y for x, y in zip(a, b, strict=True))


def size(a):
    return math.sqrt(dot(a, a))


def one(mic, part, speed, limits):
    """What one mic hears of one drum: seconds, decibels, sign, inside, view, turn and raw sign.

    The view is what two unsure mics are compared by: the side, the angle off the middle of
    the shell in degrees, and whether the drum is in the null. The turn is how far the low end's
    phase is ahead, radians: the gradient's share lags by a quarter beside a small source. Raw is
    the sign with no doubt counted.
    """
    drum = hasattr(part, "depth_m")
    centre = part.batter_m if drum else part.centre_m
    depth, radius = (part.depth_m if drum else 0.0), part.diameter_m / 2
    off = minus(mic.position_m, centre)
    height = dot(off, part.axis)
    radial = math.sqrt(max(0.0, dot(off, off) - height**2))
    inside = -depth < height < 0 and radial < radius
    origin = centre if drum else struck_edge(part)
    way, length, radiated = minus(origin, mic.position_m), None, None
    if drum and height < 0 and not inside:
        rim_way = radius + math.hypot(radial - radius, height)
        rear = [c - depth * a for c, a in zip(centre, part.axis, strict=True)]
        through = depth + size(minus(rear, mic.position_m))
        if height < -depth and through < rim_way:
            way, length, radiated = minus(rear, mic.position_m), through, through - depth
        else:
            flat = [(o - height * a) / radial for o, a in zip(off, part.axis, strict=True)]
            rim = [c + f * radius for c, f in zip(centre, flat, strict=True)]
            way, length, radiated = minus(rim, mic.position_m), rim_way, rim_way
    length = size(way) if length is None else length
    radiated = length if radiated is None else radiated
    share = SHARE[mic.pattern]
    gradient = (1 - share) * dot(way, mic.aim) / size(way)
    response = share + gradient
    radiated = max(radiated, 0.01)
    kr = 2 * math.pi * fundamental(part) * math.sqrt(radiated**2 + radius**2) / speed
    near = share + gradient * (1 + 1 / (1j * kr))
    level = 20 * math.log10(max(abs(near), 0.03) / radiated)
    turn = cmath.phase(near if response >= 0 else -near)
    rise = height if height >= 0 else max(0.0, -height - depth)
    angle = math.degrees(math.atan2(rise, max(radial - radius, 0.0)))
    raw = (-1 if height >= 0 else 1) * (1 if response >= 0 else -1) * sign_of(mic)
    sign = raw
    if abs(response) < 10 ** (-limits.null_db / 20):
        sign = 0
    if angle < limits.head_plane_deg and not inside:
        sign = 0
    view = ((height >= 0, inside), math.degrees(math.atan2(height + depth / 2, radial)),
            abs(response) < 10 ** (-limits.null_db / 20))  # fmt: skip
    return length / speed, level, sign, inside, view, turn, raw


def sign_of(mic):
    """The two mics of the odd layout that are turned over, by name; no other is."""
    return -1 if mic.id in ("RL", "UF") else 1


@cache
def struck_edge(cymbal):
    """The edge nearest the stool, found by walking round the rim."""
    stool = KIT.stool.position_m
    axis = cymbal.axis
    u = minus([1, 0, 0], [axis[0] * a for a in axis])
    u = [x / size(u) for x in u]
    v = [axis[1] * u[2] - axis[2] * u[1], axis[2] * u[0] - axis[0] * u[2],
         axis[0] * u[1] - axis[1] * u[0]]  # fmt: skip
    r = cymbal.diameter_m / 2

    def at(t):
        return [c + r * (math.cos(t) * a + math.sin(t) * b)
                for c, a, b in zip(cymbal.centre_m, u, v, strict=True)]  # fmt: skip

    # The edge lies the way the stool does: most of the level vector toward it.
    toward = [stool[0] - cymbal.centre_m[0], stool[1] - cymbal.centre_m[1], 0.0]
    best = max((math.tau * k / 100_000 for k in range(100_000)),
               key=lambda t: dot(minus(at(t), cymbal.centre_m), toward))  # fmt: skip
    return at(best)


def energy(rays, low, high):
    """Mean energy of rays (seconds, complex weight) over a band, frequency by frequency."""
    n = 600
    steps = [low + (high - low) * (k + 0.5) / n for k in range(n)]
    return sum(
        abs(sum(w * cmath.exp(-2j * math.pi * f * t) for t, w in rays)) ** 2 for f in steps
    ) / n  # fmt: skip


def floor_factor(f):
    """Pressure kept by concrete: 0.01 of the energy is lost at 125 Hz, 0.03 at 250, 0.05 at 500."""
    table = [(125, 0.01), (250, 0.03), (500, 0.05), (1000, 0.02)]
    if f <= 125:
        return math.sqrt(1 - 0.01)
    for (f0, a0), (f1, a1) in itertools.pairwise(table):
        if f0 <= f <= f1:
            return math.sqrt(1 - a0 - (a1 - a0) * math.log(f / f0) / math.log(f1 / f0))
    raise AssertionError(f)


def ghost_of(mic):
    """The mic mirrored in the floor."""
    (x, y, z), (u, v, w) = mic.position_m, mic.aim
    return mic.model_copy(update={"position_m": (x, y, -z), "aim": (u, v, -w)})


def own_rays(mic, part, speed, limits):
    """The straight sound and what the floor sends: all of it to 30 cm, nothing from 60."""
    seconds, level, _, _, _, turn, _ = one(mic, part, speed, limits)
    rays = [(seconds, cmath.rect(10 ** (level / 20), turn))]
    part_of = min(max((mic.position_m[2] / 0.4 - 0.75) / 0.75, 0), 1)
    share = math.cos(math.pi * part_of / 2) ** 2
    anywhere = any(one(mic, p, speed, limits)[3] for p in KIT.parts)
    if share > 0 and not anywhere:
        ghost = ghost_of(mic)
        when, loud, _, _, _, turned, _ = one(ghost, part, speed, limits)
        way = raw_way(ghost, part) * raw_way(mic, part)
        size_ = share * floor_factor(fundamental(part)) * way * 10 ** (loud / 20)
        rays.append((when, cmath.rect(size_, turned)))
    return rays


def turned_over_by_the_floor(mic, part, speed, limits):
    """Whether the floor sends the other sign, within 6 dB and before half a period is over."""
    near = mic.position_m[2] < 0.6 or mic.role != "close"
    if not near or any(one(mic, p, speed, limits)[3] for p in KIT.parts):
        return False
    when, loud, own, *_ = one(mic, part, speed, limits)
    ghost = ghost_of(mic)
    later, sent, its, *_ = one(ghost, part, speed, limits)
    sent += 20 * math.log10(floor_factor(fundamental(part)))
    against = raw_way(ghost, part) != raw_way(mic, part) or (its == 0 and own != 0)
    return 0 < later - when < 0.5 / fundamental(part) and sent >= loud - 6 and against


def raw_way(mic, part):
    """Side of the head times lobe of the pattern and switches, with no doubt counted."""
    return one(mic, part, SPEED, LIMITS)[6]


LIMITS = Thresholds()
SPEED = 343.2
KIT = starting_layout("five-piece", "empty").kit
PEAK = {
    "kick": 112,
    "snare": 115,
    "rack": 111,
    "floor": 111,
    "hats": 100,
    "crash": 108,
    "ride": 100,
}


def odd_layout():
    """A layout that meets every branch: inside, under, beside, rear lobe, null, flipped."""
    start = starting_layout("five-piece", "turned pair")
    more = [
        Mic(id="BM", name="Beside", role="room", pattern="omni", position_m=(1.4, 0.1, 0.55),
            aim=(-1, 0, 0)),
        Mic(id="F8", name="Side on", role="room", pattern="figure-8", position_m=(0.3, 2.4, 1.2),
            aim=(1, 0.05, 0)),
        Mic(id="RL", name="Rear lobe", pattern="hypercardioid", job="snare",
            position_m=(0.05, 0.12, 0.95), aim=(0, 0.1, 1)),
        Mic(id="UF", name="Under", pattern="supercardioid", job="floor",
            position_m=(0.62, -0.05, 0.15), aim=(0, 0, 1)),
    ]  # fmt: skip
    layout = Layout(**{**start.__dict__, "mics": (*start.mics, *more)})
    return with_each(layout, {"RL": {"preamp_flip": True}, "UF": {"track_flip": True}})


@pytest.fixture(scope="module")
def both():
    layout = odd_layout()
    an = analyse(layout)
    speed = 343.2 * math.sqrt((layout.air.temperature_c + 273.15) / 293.15)
    slow = [
        [one(m, part, speed, layout.thresholds) for part in layout.kit.parts] for m in layout.mics
    ]
    return layout, an, slow


def test_arrivals_and_signs_agree(both):
    layout, an, slow = both
    doubted = 0
    for i, mic in enumerate(layout.mics):
        for k, part in enumerate(layout.kit.parts):
            seconds, _, sign, *_ = slow[i][k]
            if turned_over_by_the_floor(mic, part, SPEED, layout.thresholds):
                doubted, sign = doubted + 1, 0
            where = (mic.id, part.id)
            assert an.arrivals.time_s[i, k] == pytest.approx(seconds, abs=NEAR_S), where
            assert an.arrivals.sign[i, k] == sign, where
    assert doubted > 3


def bands_of(part):
    """The octave round the fundamental."""
    return fundamental(part) / math.sqrt(2), fundamental(part) * math.sqrt(2)


def fundamental(part):
    """60 Hz at 22 inches and so on, as the core's table."""
    f, inches = {"kick": (60, 22), "snare": (230, 14), "rack": (140, 12), "floor": (85, 16),
                 "hats": (500, 14), "crash": (400, 16), "ride": (450, 20)}[part.kind]  # fmt: skip
    return f * inches * 0.0254 / part.diameter_m


def fader(layout, mic):
    """Rooms 8 dB under, a bottom tom mic 11 under its top, a cymbal's as it is to the snare."""
    parts = {p.id: p for p in layout.kit.parts}
    if mic.role == "room":
        return -8.0
    if mic.role == "close" and mic.job == "floor" and mic.position_m[2] < 0.3:
        return -11.0
    if mic.job and not hasattr(parts[mic.job], "depth_m"):
        return PEAK[parts[mic.job].kind] - PEAK["snare"]
    return 0.0


@cache
def lift_db(mic, part, limits):
    """What the floor adds to the straight sound over the body band."""
    rays = own_rays(mic, part, SPEED, limits)
    if len(rays) == 1:
        return 0.0
    return 10 * math.log10(energy(rays, *bands_of(part)) / abs(rays[0][1]) ** 2)


def after_gain(layout, slow, i, k):
    """Level once the mic's own job is at its peak, and by its fader; a shell keeps other drums
    15 dB down."""
    rows = []
    anywhere = any(inside for _, _, _, inside, *_ in slow[i])
    for n, part in enumerate(layout.kit.parts):
        _, level, _, inside, *_ = slow[i][n]
        level += lift_db(layout.mics[i], part, layout.thresholds)
        rows.append(level + PEAK[part.kind] - (15 if anywhere and not inside else 0))
    ids = [p.id for p in layout.kit.parts]
    job = layout.mics[i].job
    return rows[k] - (rows[ids.index(job)] if job else max(rows)) + fader(layout, layout.mics[i])


def test_levels_after_gain_agree(both):
    layout, an, slow = both
    for i in range(len(layout.mics)):
        for k in range(len(layout.kit.parts)):
            expected = after_gain(layout, slow, i, k)
            where = (layout.mics[i].id, layout.kit.parts[k].id)
            assert an.arrivals.after_gain_db[i, k] == pytest.approx(expected, abs=1e-3), where


def test_body_sums_and_verdicts_of_every_spot_with_every_overhead_agree(both):
    layout, an, slow = both
    ids = [p.id for p in layout.kit.parts]
    seen = set()
    for i, a in enumerate(layout.mics):
        for j in range(i + 1, len(layout.mics)):
            b = layout.mics[j]
            if a.job == b.job or not a.job:  # bands of those are tested where they are named
                continue
            k = ids.index(a.job)
            part = layout.kit.parts[k]
            if not hasattr(part, "depth_m"):
                continue
            row, _ = an.pair_index(a.id, b.id)
            word = slow_verdict(layout, slow, i, j, k, an, row)
            assert VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, k]))] == word, (
                a.id,
                b.id,
                part.id,
            )
            seen.add(word)
    assert seen == {"no matter", "behind", "hollow", "ask the ear"}


def slow_verdict(layout, slow, i, j, k, an, row):
    la, lb = after_gain(layout, slow, i, k), after_gain(layout, slow, j, k)
    every = sum(10 ** (after_gain(layout, slow, m, k) / 10) for m in range(len(layout.mics)))
    both = 2 * 10 ** ((la + lb) / 20)
    if abs(la - lb) >= 9.5 or 10 * math.log10((every + both) / (every - both)) < 2:
        return "no matter"
    sa, sb = slow[i][k][2], slow[j][k][2]
    part, unsure = layout.kit.parts[k], False
    floors = [turned_over_by_the_floor(layout.mics[n], part, SPEED, layout.thresholds)
              for n in (i, j)]  # fmt: skip
    if sa == 0 or sb == 0 or any(floors):
        (side_a, angle_a, null_a), (side_b, angle_b, null_b) = slow[i][k][4], slow[j][k][4]
        alike = side_a == side_b and abs(angle_a - angle_b) < 5 and not null_a and not null_b
        unsure = not alike or any(floors)
        sa, sb = raw_way(layout.mics[i], part), raw_way(layout.mics[j], part)
    dt = slow[j][k][0] - slow[i][k][0]
    low, high = bands_of(part)
    sums = []
    for turn in (1, -1):
        rays = []
        for n, level, sign in ((i, la, sa), (j, lb, sb * turn)):
            mine = own_rays(layout.mics[n], part, SPEED, layout.thresholds)
            scale = 10 ** (level / 20) / math.sqrt(energy(mine, low, high))
            rays += [(t, sign * w * scale) for t, w in mine]
        sums.append(10 * math.log10(energy(rays, low, high)) - max(la, lb))
    wired, turned = sums
    assert an.pairs.body_db[row, k] == pytest.approx(wired, abs=0.01)
    assert an.pairs.flipped_body_db[row, k] == pytest.approx(turned, abs=0.01)
    # What is alike of the two, from their sums; of the drum's whole they take so much.
    alike = both * abs(10 ** (wired / 10) - 10 ** (turned / 10)) / (2 * both)
    alike *= 10 ** (max(la, lb) / 10)
    swing = 10 * math.log10((every + alike) / (every - alike))
    if abs(turned - wired) >= 3 and swing < 2:
        return "no matter"
    if unsure and abs(turned - wired) >= 3:
        return "ask the ear"
    if turned - wired >= 3:
        return "hollow"
    return "behind" if abs(dt) >= 1e-3 else "together"
