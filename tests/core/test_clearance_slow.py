"""The zones against a slow, obvious second implementation, one point and one thing at a time."""

import math

import numpy as np
import pytest
from ringside.places.clearance import (
    BLOCKED_WORDS,
    CYMBAL_ROUND_M,
    CYMBAL_SWING_M,
    PEDAL_HIGH_M,
    PEDAL_LONG_M,
    PEDAL_WIDE_M,
    SHELL_ROUND_M,
    blocked,
    pedals,
    sweeps,
    words_for,
    words_for_all,
)
from ringside.places.starts import starting_layout
from ringside.plan.kits import KITS, eight_piece, five_piece
from ringside.plan.room import (
    Door,
    Gobo,
    Notch,
    Room,
    Space,
    inside_floor,
    to_kit,
    to_room,
    wall_distances,
)

ROOM = Room(
    name="R", width_m=6.4, length_m=8.2, height_m=3.3, kit_x_m=3.0, kit_y_m=2.4, kit_turn_rad=0.3,
    notch=Notch(corner="back right", width_m=1.7, length_m=2.1),
    spaces=(Space(id="hall", name="Hall", x_m=-2.3, y_m=1.0, width_m=2.0, length_m=5.0,
                  height_m=2.2),),
    doors=(Door(wall="left", at_m=3.0, leads_to="hall"), Door(wall="front", at_m=1.0)),
    gobos=(Gobo(name="G", x_m=1.2, y_m=3.0, turn_rad=0.6),),
)  # fmt: skip


def crosses(x, y, corners):
    """Whether a place is inside a polygon, by the number of edges a ray to the right meets."""
    inside = False
    for (x0, y0), (x1, y1) in zip(corners, corners[1:] + corners[:1], strict=True):
        if (y0 > y) != (y1 > y) and x < x0 + (y - y0) / (y1 - y0) * (x1 - x0):
            inside = not inside
    return inside


L_CORNERS = {
    "back left": [(2, 0), (6, 0), (6, 7), (0, 7), (0, 3), (2, 3)],
    "back right": [(0, 0), (4, 0), (4, 3), (6, 3), (6, 7), (0, 7)],
    "front left": [(0, 0), (6, 0), (6, 7), (2, 7), (2, 4), (0, 4)],
    "front right": [(0, 0), (6, 0), (6, 4), (4, 4), (4, 7), (0, 7)],
}


@pytest.mark.parametrize("corner", list(L_CORNERS))
def test_an_l_by_casting_rays(corner):
    room = Room(
        name="L", width_m=6.0, length_m=7.0, height_m=3.0, kit_x_m=3.0, kit_y_m=3.5,
        notch=Notch(corner=corner, width_m=2.0, length_m=3.0),
    )  # fmt: skip
    dice = np.random.default_rng(1)
    x, y = dice.uniform(-1, 7, 600), dice.uniform(-1, 8, 600)
    expected = [crosses(a, b, L_CORNERS[corner]) for a, b in zip(x, y, strict=True)]
    assert inside_floor(x, y, room).tolist() == expected


@pytest.mark.parametrize("corner", list(L_CORNERS))
def test_distances_to_walls_by_walking(corner):
    """Step off in each direction until the floor ends."""
    room = Room(
        name="L", width_m=6.0, length_m=7.0, height_m=3.0, kit_x_m=3.0, kit_y_m=3.5,
        notch=Notch(corner=corner, width_m=2.0, length_m=3.0),
    )  # fmt: skip
    ways = {"left": (-1, 0), "right": (1, 0), "back": (0, -1), "front": (0, 1)}
    for x, y in [(1.0, 3.5), (5.0, 3.5), (3.0, 1.0), (3.0, 6.0), (1.0, 5.5), (5.0, 1.5)]:
        if not crosses(x, y, L_CORNERS[corner]):
            continue
        told = wall_distances(x, y, room)
        for name, (dx, dy) in ways.items():
            steps = 0
            while crosses(x + dx * steps * 0.01, y + dy * steps * 0.01, L_CORNERS[corner]):
                steps += 1
            assert told[name] == pytest.approx(steps * 0.01, abs=0.011), (name, x, y)


def test_room_and_kit_frames_lead_back_to_each_other():
    points = np.random.default_rng(2).uniform(-3, 3, (50, 3))
    np.testing.assert_allclose(to_kit(to_room(points, ROOM), ROOM), points, atol=1e-12)
    # A kit turned by a quarter faces the left wall: what is ahead of it is to the room's left.
    turned = ROOM.model_copy(update={"kit_turn_rad": math.pi / 2})
    at = to_room(np.array([[0.0, 1.0, 0.5]]), turned)[0]
    assert at == pytest.approx([ROOM.kit_x_m - 1.0, ROOM.kit_y_m, 0.5])


# --- one point at a time -----------------------------------------------------------------------


def where(point, room):
    """What kind of place a point is in, in plain steps."""
    c, s = math.cos(room.kit_turn_rad), math.sin(room.kit_turn_rad)
    x = room.kit_x_m + c * point[0] - s * point[1]
    y = room.kit_y_m + s * point[0] + c * point[1]
    z = point[2]
    corners = [(0, 0), (4.7, 0), (4.7, 2.1), (6.4, 2.1), (6.4, 8.2), (0, 8.2)]
    own = crosses(x, y, corners)
    hall = -2.3 <= x <= -0.3 and 1.0 <= y <= 6.0 and z <= 2.2
    doorway = -0.3 <= x <= 0 and 3.0 <= y <= 3.9 and z <= 2.0
    if not (own or hall or doorway):
        return BLOCKED_WORDS[1]
    if own and not hall and not doorway and z > 3.3:
        return BLOCKED_WORDS[2]
    g = room.gobos[0]
    u, v = x - g.x_m, y - g.y_m
    along = math.cos(g.turn_rad) * u + math.sin(g.turn_rad) * v
    across = -math.sin(g.turn_rad) * u + math.cos(g.turn_rad) * v
    if abs(along) <= 0.6 and abs(across) <= 0.05 and z <= 1.2:
        return BLOCKED_WORDS[3]
    return ""


def at_parts(point, kit):
    for d in kit.drums:
        out = [p - q for p, q in zip(point, d.batter_m, strict=True)]
        height = sum(a * b for a, b in zip(out, d.axis, strict=True))
        radial = math.sqrt(max(sum(a * a for a in out) - height**2, 0))
        over = radial - d.diameter_m / 2
        if -d.depth_m < height < 0:
            closed = d.kind != "kick" and d.far_head is not None
            if (closed and over < SHELL_ROUND_M) or (not closed and abs(over) < SHELL_ROUND_M):
                return BLOCKED_WORDS[4]
    for c in kit.cymbals:
        out = [p - q for p, q in zip(point, c.centre_m, strict=True)]
        height = sum(a * b for a, b in zip(out, c.axis, strict=True))
        radial = math.sqrt(max(sum(a * a for a in out) - height**2, 0))
        if abs(height) < CYMBAL_SWING_M and radial < c.diameter_m / 2 + CYMBAL_ROUND_M:
            return BLOCKED_WORDS[5]
    return ""


def at_drummer(point, kit):
    stool = kit.stool
    away = math.hypot(point[0] - stool.position_m[0], point[1] - stool.position_m[1])
    if away < stool.zone_radius_m and point[2] < stool.zone_top_m:
        return BLOCKED_WORDS[6]
    for start, end in sweeps(kit):
        way, out = end - start, np.array(point) - start
        size = float(np.linalg.norm(way))
        t = float(out @ way) / size**2
        if 0 <= t <= 1 and np.linalg.norm(out - t * way) < stool.sweep_m:
            return BLOCKED_WORDS[7]
    for front, back in pedals(kit):
        way, out = (back - front) / PEDAL_LONG_M, np.array(point[:2]) - front
        t = float(out @ way)
        aside = float(np.linalg.norm(out - t * way))
        if 0 < t < PEDAL_LONG_M and aside < PEDAL_WIDE_M / 2 and point[2] < PEDAL_HIGH_M:
            return BLOCKED_WORDS[8]
    return ""


def slow(point, layout):
    if point[2] < 0:
        return BLOCKED_WORDS[0]
    room = where(point, layout.room) if layout.room else ""
    return room or at_parts(point, layout.kit) or at_drummer(point, layout.kit)


@pytest.mark.parametrize("name", ["five-piece", "left-handed five-piece", "eight-piece"])
@pytest.mark.parametrize("room", [None, ROOM], ids=["no room", "a room"])
def test_every_zone_one_point_at_a_time(name, room):
    layout = starting_layout(name, "empty", room=room)
    dice = np.random.default_rng(len(name))
    near = dice.uniform((-1.4, -1.2, -0.05), (1.4, 1.2, 1.6), (1500, 3))
    far = dice.uniform((-6, -4, -0.2), (6, 7, 4), (500, 3))
    points = np.vstack([near, far])
    told = words_for_all(points, layout)
    for p, words in zip(points.tolist(), told, strict=True):
        assert words == slow(p, layout), p
    assert blocked(points, layout).tolist() == [bool(w) for w in told]
    # Every kind of zone that can be met was met, so that none is tested in name only.
    met = {BLOCKED_WORDS.index(w) for w in told if w}
    assert met >= ({0, 4, 5, 6, 7, 8} if room is None else {0, 1, 2, 4, 5, 6, 7, 8})


@pytest.mark.parametrize("name", list(KITS))
def test_sticks_go_from_the_hands_to_every_part_but_the_kick(name):
    kit = KITS[name]()
    ways = sweeps(kit)
    assert len(ways) == len(kit.parts) - 1
    seat = np.array(kit.stool.position_m)
    for start, end in ways:
        assert np.linalg.norm(start[:2] - seat) <= 0.25 + 1e-9
        assert start[2] == pytest.approx(kit.stool.height_m + 0.40)
        assert np.linalg.norm(end[:2] - seat) > np.linalg.norm(start[:2] - seat)


def test_pedals_lie_before_the_kick_and_under_the_hats():
    kit = five_piece()
    kick, hats = pedals(kit)
    assert kick[0] == pytest.approx(kit.part("kick").batter_m[:2])
    assert kick[1][1] == pytest.approx(kick[0][1] - PEDAL_LONG_M)  # toward the drummer
    assert hats[0] == pytest.approx(kit.part("hats").centre_m[:2])
    seat = np.array(kit.stool.position_m)
    assert np.linalg.norm(hats[1] - seat) < np.linalg.norm(hats[0] - seat)


def test_a_kit_without_a_stool_has_no_drummer_in_the_way():
    layout = starting_layout("five-piece", "empty")
    bare = layout.model_copy(update={"kit": layout.kit.model_copy(update={"stool": None})})
    assert words_for((0.24, -0.5, 1.0), bare) == ""
    assert words_for((0.24, -0.5, 1.0), layout) == BLOCKED_WORDS[6]


def test_a_drum_without_a_bottom_head_holds_a_mic_inside():
    layout = starting_layout("five-piece", "empty")
    inside = (0.64, -0.06, 0.45)
    assert words_for(inside, layout) == BLOCKED_WORDS[4]
    drums = tuple(
        d.model_copy(update={"far_head": None}) if d.id == "floor" else d for d in layout.kit.drums
    )
    kit = layout.kit.model_copy(update={"drums": drums})
    assert words_for(inside, layout.model_copy(update={"kit": kit})) == ""


def test_a_wider_sweep_reaches_further():
    kit = eight_piece()
    wide = kit.model_copy(update={"stool": kit.stool.model_copy(update={"sweep_m": 0.2})})
    layout = starting_layout("eight-piece", "empty")
    points = np.random.default_rng(3).uniform((-1, -0.6, 0.5), (1, 0.6, 1.4), (800, 3))
    narrow = sum(w == BLOCKED_WORDS[7] for w in words_for_all(points, layout))
    broad = sum(
        w == BLOCKED_WORDS[7]
        for w in words_for_all(points, layout.model_copy(update={"kit": wide}))
    )
    assert broad > 2 * narrow > 0
