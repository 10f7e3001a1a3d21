"""Rooms against published tables, formulas and a room acoustics library from the registry."""

import math
from functools import cache

import numpy as np
import pytest
from ringside.errors import RingsideError
from ringside.places.clearance import words_for
from ringside.places.starts import starting_layout
from ringside.plan.air import absorption_db_m, speed_of_sound
from ringside.plan.layout import Air
from ringside.plan.materials import BANDS_HZ, MATERIALS, alpha
from ringside.plan.room import Door, Gobo, Notch, Room, Space, volume, wall_distances
from ringside.rooms.boundary import candidate_spots, response_db, spot_report
from ringside.rooms.decay import (
    Area,
    air_m,
    areas,
    critical_distance,
    decay,
    decay_report,
    random_energy,
    schroeder_hz,
)
from ringside.rooms.floorplan import plan_wave_numbers
from ringside.rooms.modes import (
    MOST_LISTED,
    beyond_words,
    box_modes,
    counted,
    listed_top_hz,
    modes,
    modes_words,
)

BOX = Room(name="Box", width_m=6.4, length_m=8.2, height_m=3.3, kit_x_m=3.1, kit_y_m=2.6)
ELL = BOX.model_copy(update={"notch": Notch(corner="front right", width_m=2.0, length_m=3.0)})
AT_BOX = starting_layout("five-piece", "square pair", room=BOX)


@cache
def pra():
    import pyroomacoustics

    return pyroomacoustics


# --- air ---------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("celsius", "humidity", "metres"),
    [(0.0, 0.0, 331.45), (20.0, 50.0, 343.99)],  # Cramer, J. Acoust. Soc. Am. 93 (1993) 2510
)
def test_speed_in_moist_air(celsius, humidity, metres):
    assert speed_of_sound(celsius, humidity) == pytest.approx(metres, abs=0.01)


def test_moist_air_is_a_little_faster_than_dry():
    gain = speed_of_sound(20.0, 100.0) / speed_of_sound(20.0, 0.0) - 1
    assert 0.002 < gain < 0.005  # under half a per cent indoors (common practice)


def test_air_absorption_is_that_of_iso_9613():
    # ISO 9613-2:1996, table 2, 20 °C and 70 %: dB/km at 63 Hz to 8 kHz, at exact mid-bands.
    exact = 1000 * 10 ** (0.3 * np.arange(-4, 4))
    table = [0.1, 0.3, 1.1, 2.8, 5.0, 9.0, 22.9, 76.6]
    ours = absorption_db_m(exact, 20.0, 70.0) * 1000
    np.testing.assert_allclose(ours, table, rtol=0.006, atol=0.05)


@pytest.mark.parametrize(
    ("celsius", "humidity", "words"),
    [
        (35.0, 40.0, "leave it empty"),
        (20.0, 140.0, "0 to 100"),
        (68.0, None, "Fahrenheit"),
    ],
)
def test_air_that_cannot_be_counted(celsius, humidity, words):
    with pytest.raises(RingsideError, match=words):
        speed_of_sound(celsius, humidity)
    with pytest.raises(ValueError, match=r"leave it empty|less than or equal"):
        Air(temperature_c=celsius, humidity_pct=humidity)


# --- materials and decay -----------------------------------------------------------------------

ROWS = {
    "concrete": "unpainted_concrete", "rough concrete": "rough_concrete",
    "concrete floor": "concrete_floor", "plastered brick": "brickwork",
    "painted brick": "smooth_brickwork_flush_pointing",
    "bare brick": "smooth_brickwork_10mm_pointing", "stone": "limestone_wall",
    "tiles": "ceramic_tiles", "plasterboard": "plasterboard",
    "plasterboard ceiling": "ceiling_plasterboard", "wooden lining": "wooden_lining",
    "boards on studs": "wood_16mm", "thin panelling": "plywood_thin", "wooden stage": "stage_floor",
    "wooden door": "wooden_door", "glass": "glass_window", "linoleum": "linoleum_on_concrete",
    "thin carpet": "carpet_thin", "thick carpet": "carpet_tufted_9m",
    "heavy curtain": "curtains_cotton_0.5", "light curtain": "curtains_0.2",
    "mineral wool": "rockwool_50mm_40kgm3", "fabric panel": "panel_fabric_covered_8pcf",
    "foam wedges": "ceiling_melamine_foam", "ceiling tiles": "ceiling_fissured_tile",
}  # fmt: skip


@pytest.mark.parametrize("name", [n for n in MATERIALS if n != "open"])
def test_every_material_is_that_of_the_published_table(name):
    """Vorländer, Auralization (2008), as kept by pyroomacoustics."""
    pra()
    from pyroomacoustics.parameters import materials_absorption_table as table

    row = table[ROWS[name]]["coeffs"]
    assert list(alpha(name))[: len(row)] == row
    assert set(list(alpha(name))[len(row) :]) <= {row[-1]}  # carried on past 4 kHz


def test_decay_is_that_of_the_library():
    """Sabine and Eyring of pyroomacoustics, band by band."""
    parts = areas(BOX)
    size = sum(p.m2 for p in parts)
    mean = sum(p.m2 * alpha(p.material) for p in parts) / size
    sabine, eyring = decay(parts, volume(BOX), 343.2, air_m(Air()))
    for i in range(len(BANDS_HZ)):
        m = float(air_m(Air())[i])
        args = (size, volume(BOX), float(mean[i]), m, 343.2)
        assert sabine[i] == pytest.approx(pra().rt60_sabine(*args), rel=2e-3)
        # Without air: the library's Eyring formula subtracts what the air takes.
        still = decay(parts, volume(BOX), 343.2, np.zeros(7))[1][i]
        dry = (size, volume(BOX), float(mean[i]), 0.0, 343.2)
        assert still == pytest.approx(pra().rt60_eyring(*dry), rel=2e-3)
        assert eyring[i] <= still


def test_decay_of_a_worked_room():
    # By hand: 10 x 8 x 3 m, all surfaces 0.1, no air: V 240, S 268, A 26.8;
    # Sabine 0.161·240/26.8 = 1.44 s, Eyring 0.161·240/(268·0.10536) = 1.37 s.
    flat = [Area("all", "plasterboard", 268.0)]
    sabine, eyring = decay(flat, 240.0, 343.2, np.zeros(7))
    at = BANDS_HZ.index(250.0)  # plasterboard has 0.10 there
    assert sabine[at] == pytest.approx(1.44, abs=0.01)
    assert eyring[at] == pytest.approx(1.37, abs=0.01)


def test_schroeder_and_critical_distance_by_hand():
    # Kuttruff, Room Acoustics: 2000·√(T/V); 0.057·√(V/T).
    assert schroeder_hz(1.0, 100.0) == pytest.approx(200.0)
    assert critical_distance(100.0, 1.0) == pytest.approx(0.57)
    assert critical_distance(100.0, 1.0, q=3.0) == pytest.approx(0.57 * math.sqrt(3))


@pytest.mark.parametrize(
    ("share", "energy"), [(1.0, 1.0), (0.5, 1 / 3), (0.366, 0.268), (0.25, 0.25), (0.0, 1 / 3)]
)
def test_random_energy_efficiency(share, energy):
    assert random_energy(share) == pytest.approx(energy, abs=1e-3)  # Eargle, The Microphone Book


def test_rug_doors_and_gobos_change_the_decay():
    bare = decay_report(starting_layout("five-piece", "empty", room=BOX))
    treated = BOX.model_copy(update={"gobos": (Gobo(name="Left gobo", x_m=1, y_m=3),) * 4})
    dried = decay_report(starting_layout("five-piece", "empty", room=treated))
    assert dried.mid_s < bare.mid_s * 0.9
    hall = Space(id="hall", name="Hallway", x_m=-2, y_m=0, width_m=1.8, length_m=8, height_m=2.4)
    shut, ajar = (
        BOX.model_copy(
            update={"spaces": (hall,),
                    "doors": (Door(wall="left", at_m=1, open=o, leads_to="hall"),)}
        )
        for o in (False, True)
    )  # fmt: skip
    low = [decay_report(starting_layout("five-piece", "empty", room=r)).eyring_s[0]
           for r in (shut, ajar)]  # fmt: skip
    assert low[1] < low[0]
    assert {a.where for a in bare.areas} >= {"rug", "floor", "ceiling", "back"}
    floor = sum(a.m2 for a in bare.areas if a.where in ("rug", "floor"))
    assert floor == pytest.approx(6.4 * 8.2)


@pytest.mark.parametrize(
    ("material", "height", "words"),
    [("tiles", 3.3, "Long"), ("fabric panel", 3.3, "Dry"), ("tiles", 2.3, "low ceiling")],
)
def test_plain_words_for_the_decay(material, height, words):
    walls = dict.fromkeys(("floor", "ceiling", "back", "front", "left", "right"), material)
    room = Room.model_validate({**dict(BOX), "height_m": height, "surfaces": walls})
    said = " ".join(decay_report(starting_layout("five-piece", "empty", room=room)).words)
    assert words in said


# --- modes -------------------------------------------------------------------------------------


def test_axial_modes_of_a_box():
    rows = box_modes((5.0, 4.0, 3.0), 344.0, 120.0)
    by_order = {tuple(r.order): r for r in rows}
    assert by_order[1, 0, 0].hz == pytest.approx(34.4)  # c/2L: half a wave from wall to wall
    assert by_order[0, 1, 0].hz == pytest.approx(43.0)
    assert by_order[0, 0, 1].hz == pytest.approx(57.33, abs=0.01)
    assert by_order[1, 1, 0].hz == pytest.approx(math.hypot(34.4, 43.0))
    assert by_order[1, 1, 0].kind == "tangential"
    assert by_order[1, 1, 1].kind == "oblique"
    assert [r.hz for r in rows] == sorted(r.hz for r in rows)


def test_worked_example_of_a_rectangular_room():
    # Kuttruff, Room Acoustics, table 3.1 (from memory): 4.7 x 4.1 x 3.1 m, c = 340 m/s.
    rows = box_modes((4.7, 4.1, 3.1), 340.0, 79.0)
    table = [36.17, 41.46, 54.84, 55.02, 65.69, 68.75, 72.34, 77.68]
    assert [r.hz for r in rows] == pytest.approx(table, abs=0.02)


def test_number_of_modes_follows_weyl():
    # Kuttruff eq. 3.20: N = 4π/3 V (f/c)³ + π/4 S (f/c)² + L/8 (f/c).
    a, b, c = 6.4, 8.2, 3.3
    f = 200 / 343.2
    about = (
        4 * math.pi / 3 * a * b * c * f**3
        + math.pi / 4 * 2 * (a * b + b * c + a * c) * f**2
        + 4 * (a + b + c) / 8 * f
    )
    assert len(box_modes((a, b, c), 343.2, 200.0)) == pytest.approx(about, rel=0.05)


def test_an_l_has_the_published_eigenvalues():
    """M. Dauge's benchmark of the L-shape: 2 x 2 with one 1 x 1 corner cut, free edges."""
    square = Room.model_validate({
        "name": "L", "width_m": 2.0, "length_m": 2.0, "height_m": 2.0, "kit_x_m": 0.5,
        "kit_y_m": 1.0, "notch": {"corner": "front right", "width_m": 1.0, "length_m": 1.0},
    })  # fmt: skip
    squares = [k**2 for k in plan_wave_numbers(square, 3.5)][1:6]
    published = [1.475621, 3.534031, 9.869604, 9.869604, 11.389479]
    assert squares == pytest.approx(published, rel=2e-4)


def test_a_hardly_cut_corner_is_nearly_the_box():
    cut = BOX.model_copy(update={"notch": Notch(corner="back left", width_m=0.2, length_m=0.2)})
    box = [r.hz for r in modes(BOX, 343.2, 60.0)]
    ell = [r.hz for r in modes(cut, 343.2, 60.0)]
    assert len(ell) == len(box)
    assert ell == pytest.approx(box, rel=0.015)


def test_corners_of_an_l_are_alike():
    """The same L turned over has the same modes, whichever corner is cut."""
    every = [
        [r.hz for r in modes(
            BOX.model_copy(update={"notch": Notch(corner=c, width_m=2.0, length_m=3.0)}), 343.2, 80
        )]
        for c in ("back left", "back right", "front left", "front right")
    ]  # fmt: skip
    for other in every[1:]:
        assert other == pytest.approx(every[0], rel=1e-4)


@pytest.mark.parametrize("notch", [None, Notch(corner="back left", width_m=9.0, length_m=12.0)])
def test_a_hall_lists_what_single_modes_it_has_and_counts_the_rest(notch):
    hall = BOX.model_copy(
        update={"width_m": 40.0, "length_m": 40.0, "height_m": 15.0, "notch": notch}
    )
    rows, top = modes(hall, 343.2), listed_top_hz(hall, 343.2)
    assert 0.5 * MOST_LISTED / (1 if notch is None else 4) < len(rows) <= 1.1 * MOST_LISTED
    assert rows[-1].hz <= top < 100
    # Weyl's count against the whole list of the box, to the same frequency.
    if notch is None:
        assert len(rows) == pytest.approx(counted(hall, 343.2, top), rel=0.05)
    said = beyond_words(hall, 343.2)[0]
    assert said.startswith(f"Above {top:.0f} Hz")
    assert (listed_top_hz(BOX, 343.2), beyond_words(BOX, 343.2)) == (200.0, [])


def test_words_about_modes():
    assert "lowest stands at 21 Hz" in modes_words(modes(BOX, 343.2))[0]
    cube = box_modes((3.0, 3.0, 3.0), 343.2, 200.0)
    assert any("Three pile up" in w for w in modes_words(cube))


# --- boundaries and spots ----------------------------------------------------------------------


def test_images_are_those_of_the_library():
    """pyroomacoustics, shoebox images: the power sum over the 26 nearest, walls all alike."""
    walls = dict.fromkeys(("floor", "ceiling", "back", "front", "left", "right"), "concrete")
    room = Room.model_validate({**dict(BOX), "surfaces": walls})
    spot, f = np.array([2.3, 1.7, 0.66]), np.array([40.0, 85.0, 150.0, 260.0])
    box = pra().ShoeBox(
        [6.4, 8.2, 3.3], fs=8000, materials=pra().Material(0.01), max_order=3, air_absorption=False
    )
    box.add_source(spot)
    box.add_microphone(spot + 1e-6)
    box.image_source_model()
    images, damping = box.sources[0].images.T, box.sources[0].damping[0]
    # The nearest images: at most one reflection in each direction.
    once = np.abs(np.round(box.sources[0].orders_xyz.T if hasattr(box.sources[0], "orders_xyz")
                           else _turns(images, spot))).max(axis=1) <= 1  # fmt: skip
    k = 2 * np.pi * f / 343.2
    power = np.zeros(len(f))
    for at, kept in zip(images[once], damping[once], strict=True):
        power += kept * np.sinc(np.linalg.norm(at - spot) * k / np.pi)
    ours = response_db(room, spot[None], f)[0]
    np.testing.assert_allclose(ours, 10 * np.log10(power), atol=0.05)


def _turns(images, spot):
    """How many reflections along each axis an image has, from where it stands."""
    size = np.array([6.4, 8.2, 3.3])
    found = np.zeros_like(images)
    for axis in range(3):
        for n in range(-4, 5):
            at = n * size[axis] + (spot[axis] if n % 2 == 0 else size[axis] - spot[axis])
            found[np.isclose(images[:, axis], at), axis] = n
    return found


def test_in_a_hard_corner_the_low_end_gains_nine_decibels():
    # Three surfaces double the pressure three times: power times 8 (Waterhouse 1958).
    walls = dict.fromkeys(("floor", "ceiling", "back", "front", "left", "right"), "concrete")
    room = Room.model_validate({
        **dict(BOX), "width_m": 60.0, "length_m": 60.0, "height_m": 30.0, "surfaces": walls,
    })  # fmt: skip
    low = response_db(room, np.array([[0.02, 0.02, 0.02]]), np.array([40.0]))[0, 0]
    assert low == pytest.approx(10 * math.log10(8), abs=0.15)
    middle = response_db(room, np.array([[30.0, 30.0, 15.0]]), np.array([300.0]))[0, 0]
    assert middle == pytest.approx(0.0, abs=0.2)


def test_first_dip_from_a_wall_lies_where_waterhouse_puts_it():
    # sin(2kd)/(2kd) is least at 2kd = 4.493: f = 4.493·c/(4πd); 1 m from one wall 122.7 Hz.
    walls = dict.fromkeys(("floor", "ceiling", "front", "left", "right"), "open")
    room = Room.model_validate({
        **dict(BOX), "width_m": 50.0, "length_m": 50.0, "height_m": 20.0,
        "surfaces": {**walls, "back": "concrete"},
    })  # fmt: skip
    f = np.linspace(60, 200, 1401)
    curve = response_db(room, np.array([[25.0, 1.0, 10.0]]), f)[0]
    assert f[curve.argmin()] == pytest.approx(4.493 * 343.2 / (4 * math.pi), abs=0.5)


def test_warmer_air_moves_everything_up_in_frequency():
    # A wave is as long as before at a frequency higher by the ratio of the speeds.
    spot, f = np.array([[2.0, 2.0, 0.6]]), np.linspace(50, 250, 9)
    ratio = 349.0 / 343.2
    cold = response_db(ELL, spot, f, 343.2)
    walls = dict.fromkeys(("floor", "ceiling", "back", "front", "left", "right"), "open")
    assert response_db(ELL, spot, f * ratio, 343.2 * ratio) == pytest.approx(cold, abs=0.02)
    bare = Room.model_validate({**dict(BOX), "surfaces": walls})
    assert response_db(bare, spot, f, 349.0) == pytest.approx(np.zeros((1, 9)), abs=1e-6)
    warm = starting_layout(
        "five-piece", "empty", room=BOX, air=Air(temperature_c=30.0, humidity_pct=50.0)
    )
    assert spot_report(warm).here.curves != spot_report(AT_BOX).here.curves
    assert decay_report(warm).eyring_s != decay_report(AT_BOX).eyring_s


def test_the_map_of_spots():
    report = spot_report(AT_BOX)
    assert set(report.here.curves) == {"kick", "snare", "overhead"}
    spots = report.spots
    xs = sorted({s.x_m for s in spots})
    assert np.diff(xs) == pytest.approx(0.5)
    smooth = [s.roughness_db for s in spots if s.smooth]
    rough = [s.roughness_db for s in spots if not s.smooth]
    assert max(smooth) <= min(rough)
    assert 0.15 < len(smooth) / len(spots) < 0.35
    assert report.smoothest_db == pytest.approx(min(smooth), abs=0.006)
    narrow = BOX.model_copy(update={"width_m": 1.5, "kit_x_m": 0.7})
    assert spot_report(starting_layout("five-piece", "empty", room=narrow)).smoothest_db is None
    assert report.here.walls_m == pytest.approx(
        {"left": 3.1, "right": 3.3, "back": 2.6, "front": 5.6}
    )
    inside = candidate_spots(ELL)
    assert len(inside) < len(candidate_spots(BOX))
    for x, y in inside:
        assert min(wall_distances(x, y, ELL).values()) >= 0.8 - 1e-9


def test_walls_of_an_l_are_those_in_the_way():
    assert wall_distances(1.0, 6.0, ELL) == pytest.approx(
        {"left": 1.0, "right": 3.4, "back": 6.0, "front": 2.2}
    )
    assert wall_distances(5.0, 1.0, ELL) == pytest.approx(
        {"left": 5.0, "right": 1.4, "back": 1.0, "front": 4.2}
    )
    assert volume(ELL) == pytest.approx((6.4 * 8.2 - 6.0) * 3.3)


# --- where a mic stands ------------------------------------------------------------------------

HALL = Space(id="hall", name="Hallway", x_m=-2.1, y_m=0.0, width_m=2.0, length_m=8.0, height_m=2.4)
WITH_HALL = ELL.model_copy(
    update={
        "spaces": (HALL,),
        "doors": (Door(wall="left", at_m=2.0, leads_to="hall"),),
        "gobos": (Gobo(name="Gobo", x_m=1.0, y_m=4.0),),
    }
)


@pytest.mark.parametrize(
    ("at", "words"),
    [
        ((1.0, 3.0, 1.0), ""),
        ((1.0, 3.0, 3.4), "above the ceiling"),
        ((5.9, 7.0, 1.0), "behind a wall"),  # in the corner that is cut away
        ((-1.0, 3.0, 1.0), ""),  # in the hallway
        ((-1.0, 3.0, 2.6), "behind a wall"),  # above the hallway's ceiling
        ((-0.05, 2.4, 1.0), ""),  # in the doorway
        ((-0.05, 4.4, 1.0), "behind a wall"),  # in the wall itself
        ((1.0, 4.0, 0.8), "gobo"),
        ((1.0, 4.0, 1.3), ""),  # over the gobo
    ],
)
def test_where_a_mic_can_stand_in_a_room_with_a_hallway(at, words):
    layout = starting_layout("five-piece", "empty", room=WITH_HALL)
    room = WITH_HALL
    point = (at[0] - room.kit_x_m, at[1] - room.kit_y_m, at[2])
    said = words_for(point, layout)
    assert (words in said) if words else said == ""


@pytest.mark.parametrize(
    ("point", "words"),
    [
        ((0.03, -0.02, 0.72), "way of the sticks"),
        ((0.28, 0.1, 0.1), "pedals"),
        ((0.0, 0.0, 0.60), "drum's shell"),
    ],
)
def test_zones_of_the_drummer(point, words):
    assert words in words_for(point, AT_BOX)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"height_m": 45.0}, "less than or equal to 30"),
        ({"notch": {"corner": "back left", "width_m": 6.2, "length_m": 3.0}}, "half a metre"),
        ({"doors": [{"wall": "back", "at_m": 6.0}]}, "past the end of the back wall"),
        ({"doors": [{"wall": "left", "at_m": 1.0, "leads_to": "attic"}]}, "no adjoining space"),
        ({"doors": [{"wall": "left", "at_m": 1.0, "height_m": 4.0}]}, "higher than the room"),
        ({"surfaces": {"floor": "cheese"}}, "no material 'cheese'; expected one of"),
    ],
)
def test_rooms_that_cannot_be_are_refused_in_words(change, words):
    with pytest.raises(ValueError, match=words):
        Room.model_validate({**BOX.model_dump(), **change})
