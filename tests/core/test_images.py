"""Surfaces beside a mic: theory, a reference library's image sources, and doubt."""

import warnings

import numpy as np
import pytest
from ringside.answers.board import FocusOn, focus_on
from ringside.hear.byair import Doubt
from ringside.hear.mirrors import share_at
from ringside.hear.scene import scene_of
from ringside.hear.sums import curve_db
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.room import Room, Surfaces
from ringside.plan.thresholds import Thresholds

HARD = Surfaces(floor="concrete floor")


def mic(id_, at, aim=(0, 0, -1), **more):
    return Mic.model_validate(
        {"id": id_, "name": id_, "position_m": tuple(at), "aim": aim, "pattern": "omni",
         "role": "room", **more}
    )  # fmt: skip


def layout_of(*mics, room=None):
    return Layout(name="Surfaces", kit=five_piece(), mics=mics, room=room)


def room(**more):
    return Room(name="Box", width_m=6.0, length_m=8.0, height_m=3.0, kit_x_m=3.0, kit_y_m=2.5,
                **more)  # fmt: skip


def test_first_images_lie_where_a_reference_library_puts_them():
    # pyroomacoustics, image source model of a shoebox, order 1.
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import pyroomacoustics as pra
    box = room()
    at = np.array([0.9, 1.7, 1.2])
    layout = layout_of(mic("A", at), room=box)
    strike = scene_of(layout).sources.strike[6]  # a cymbal: a point at its edge
    library = pra.ShoeBox([6.0, 8.0, 3.0], fs=48000, max_order=1)
    shift = np.array([3.0, 2.5, 0.0])
    library.add_source(strike + shift)
    library.add_microphone(at + shift)
    library.image_source_model()
    theirs = np.linalg.norm(library.sources[0].images.T - (at + shift), axis=1)
    images = scene_of(layout).images
    ours = [np.linalg.norm(at - strike), *np.linalg.norm(images.capsule - strike, axis=1)]
    assert sorted(ours) == pytest.approx(sorted(theirs), abs=1e-6)
    assert len(ours) == 7


def test_sum_over_a_hard_floor_against_the_librarys_impulse_response():
    # Two omnis, one 12 cm over the floor, the other 70; only the floor reflects. The library's
    # impulse responses are added in time and measured over the body band.
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import pyroomacoustics as pra
    low, high = (1.1, 1.9, 0.12), (0.4, 1.6, 0.7)
    wide = Thresholds(near_surface_m=1.0)
    layout = layout_of(mic("A", low), mic("B", high)).model_copy(update={"thresholds": wide})
    k = 6  # a cymbal radiates evenly here
    an = analyse(layout)
    scene = an.scene
    factor = float(scene.images.factor[0, k])
    walls = ("north", "south", "east", "west", "ceiling")
    soft = {w: pra.Material(1.0) for w in walls}
    box = pra.ShoeBox([60.0, 60.0, 40.0], fs=96000, max_order=1,
                      materials={**soft, "floor": pra.Material(1 - factor**2)})  # fmt: skip
    box.set_sound_speed(scene.speed)
    shift = np.array([30.0, 30.0, 0.0])
    box.add_source(scene.sources.strike[k] + shift)
    box.add_microphone_array(np.array([low, high]).T + shift[:, None])
    box.compute_rir()
    a, b = (np.pad(box.rir[n][0], (0, 96000 - len(box.rir[n][0]))) for n in (0, 1))
    f = np.fft.rfftfreq(96000, 1 / 96000)
    band = (f >= scene.sources.body_low[k]) & (f <= scene.sources.body_high[k])

    def energy(signal):
        return float(np.mean(np.abs(np.fft.rfft(signal))[band] ** 2))

    near = 10 * np.log10(energy(a) / energy(b))
    ours = an.arrivals.level_db[0, k] - an.arrivals.level_db[1, k]
    assert ours == pytest.approx(near, abs=0.1)
    # After gain both stand at their own peak; the library's are scaled to the same.
    a = a * 10 ** (an.arrivals.after_gain_db[0, k] / 20) / np.sqrt(energy(a))
    b = b * 10 ** (an.arrivals.after_gain_db[1, k] / 20) / np.sqrt(energy(b))
    way = float(an.pairs.raw_sign[0, k])
    louder = max(energy(a), energy(b))
    assert an.pairs.body_db[0, k] == pytest.approx(
        10 * np.log10(energy(a + way * b) / louder), abs=0.1
    )
    assert an.pairs.flipped_body_db[0, k] == pytest.approx(
        10 * np.log10(energy(a - way * b) / louder), abs=0.1
    )


def test_a_capsule_close_to_a_hard_floor_gains_six_decibels_and_dips_at_c_over_4h():
    # Handbook fact (Eargle, The Microphone Book, boundary mics): +6 dB well below the dip.
    gap = 0.05
    an = analyse(layout_of(mic("A", (0.28, 3.0, gap), (0, 0, -1))))
    kick = an.arrivals.surface_db[0, 0]
    assert kick == pytest.approx(6.0, abs=0.1)
    # From straight above the image is 2h late: the dip of the two lies at c/(4h).
    c = an.scene.speed
    assert float(curve_db(c / (4 * gap), 2 * gap / c, 1.0, 1)) < -60


def test_each_surface_of_a_corner_adds_its_image():
    # Facts of acoustics: +6 dB at one hard surface, +12 in an edge, +18 in a corner.
    hard = Surfaces(floor="concrete floor", left="rough concrete", back="rough concrete")
    box = room(surfaces=hard)
    gain = []
    for at in ((0, 0, 0.02), (-2.98, 0, 0.02), (-2.98, -2.48, 0.02)):
        an = analyse(layout_of(mic("A", at, (1, 1, 0)), room=box))
        gain.append(float(an.arrivals.surface_db[0, 0]))
    assert gain == pytest.approx([6, 12, 18], abs=0.6)


def test_a_mic_that_faces_the_wall_hears_the_wall():
    box = room()
    wall = mic("W", (0.0, 5.44, 1.2), (0, 1, 0), pattern="cardioid")
    an = analyse(layout_of(wall, room=box))
    assert an.arrivals.by_surface[0, 1]  # the snare comes from behind, in the null
    # The null is of no matter then, but what the wall sends comes along the plane of the head.
    assert Doubt(int(an.arrivals.doubt[0, 1])) == Doubt.HEAD_PLANE
    assert (an.arrivals.sign[0, 1], an.arrivals.raw_sign[0, 1]) == (0, -1)
    straight = np.linalg.norm(np.array(wall.position_m) - an.scene.sources.strike[1])
    assert an.arrivals.path_m[0, 1] == pytest.approx(straight + 0.12, abs=0.005)
    assert not an.arrivals.null[0, 1]


def doubts(layout, source):
    an = analyse(layout)
    return Doubt(int(an.arrivals.doubt[0, an.scene.sources.ids.index(source)]))


def test_a_reflection_of_opposite_sign_within_the_first_half_wave_makes_the_sign_unsure():
    # A figure-8 on end a centimetre off the floor, tilted: the image enters its rear lobe.
    tilted = mic("F", (0.28, 2.0, 0.01), (0, -0.05, 1), pattern="figure-8")
    assert Doubt.REFLECTION in doubts(layout_of(tilted), "kick")
    # Along the floor both lobes hear alike; an omni has none.
    level = tilted.model_copy(update={"aim": (0.0, -1.0, 0.0)})
    assert Doubt.REFLECTION not in doubts(layout_of(level), "kick")
    even = tilted.model_copy(update={"pattern": "omni"})
    assert Doubt.REFLECTION not in doubts(layout_of(even), "kick")


@pytest.mark.parametrize(("hz", "unsure"), [(130.0, True), (150.0, False)])
def test_a_reflection_after_the_first_half_wave_is_no_doubt(hz, unsure):
    # The floor tom from above, over a hard floor: its underside, mirrored, comes 3.6 ms later at
    # 1.2 m over the head. Half a wave of 130 Hz is 3.8 ms, of 150 Hz 3.3.
    kit = five_piece()
    floor = kit.part("floor").model_copy(update={"fundamental_hz": hz})
    drums = tuple(floor if d.id == "floor" else d for d in kit.drums)
    x, y, z = floor.batter_m
    over = mic("O", (x, y, z + 1.2), role="overhead", pattern="omni")
    loud = Thresholds(reflection_db=-6.0)
    layout = Layout(name="t", kit=kit.model_copy(update={"drums": drums}), mics=(over,),
                    thresholds=loud)  # fmt: skip
    an = analyse(layout)
    k = an.scene.sources.ids.index("floor")
    below = an.scene.images.capsule[0]
    rear = an.scene.sources.centre[k] - an.scene.sources.depth[k] * an.scene.sources.axis[k]
    through = an.scene.sources.depth[k] + np.linalg.norm(below - rear)
    lag = (through - an.arrivals.path_m[0, k]) / an.scene.speed
    assert 0.5 / 150 < lag < 0.5 / 130
    assert (Doubt.REFLECTION in doubts(layout, "floor")) == unsure


@pytest.mark.parametrize(("more", "unsure"), [(-0.3, False), (0.3, True)])
def test_a_reflection_six_decibels_under_is_the_limit(more, unsure):
    tilted = mic("F", (0.28, 2.0, 0.01), (0, -0.05, 1), pattern="figure-8")
    an = analyse(layout_of(tilted))
    s, k = an.scene.sources, 0
    front = s.centre[k] - s.depth[k] * s.axis[k]  # the front head is what is heard there
    way, back = front - an.scene.capsule[0], front - an.scene.images.capsule[0]
    straight = 20 * np.log10(abs(way @ an.scene.aim[0]) / (way @ way))
    image = 20 * np.log10(abs(back @ an.scene.images.aim[0]) / (back @ back))
    under = straight - image - 20 * np.log10(an.scene.images.factor[0, k])
    limits = Thresholds(reflection_db=6.0 - under - more)
    layout = layout_of(tilted).model_copy(update={"thresholds": limits})
    assert (Doubt.REFLECTION in doubts(layout, "kick")) == unsure


def test_an_unsure_reflection_is_told_of_the_mic_it_is_at():
    tilted = mic("F", (0.28, 2.0, 0.01), (0, -0.05, 1), pattern="figure-8")
    sure = mic("S", (0.28, 2.2, 0.6), (0, -1, 0))
    row = focus_on(analyse(layout_of(tilted, sure)), FocusOn("F", "S", "kick")).rows[0]
    assert row.sign == 0
    if row.verdict == "ask the ear":
        assert row.words.startswith("F is where a reflection may turn it over for the kick")


def test_the_null_and_the_plane_of_a_head_are_both_told():
    # A cardioid level with the snare's head and turned away from it.
    x, y, z = five_piece().part("snare").batter_m
    away = mic("A", (x, y + 1.5, z + 0.02), (0, 1, 0), pattern="cardioid")
    assert doubts(layout_of(away), "snare") & Doubt.NULL
    assert doubts(layout_of(away), "snare") & Doubt.HEAD_PLANE


def test_a_surface_fades_in_without_a_step():
    # From 15 to 70 cm over a hard floor, a millimetre at a time: level and body never jump.
    def at(height):
        an = analyse(layout_of(mic("A", (0.3, 2.0, height)), mic("B", (0.3, 2.4, 1.4))))
        return np.array([an.arrivals.level_db[0, 0], an.pairs.body_db[0, 0]])

    steps = [at(h) for h in np.arange(0.15, 0.7, 0.001)]
    assert np.abs(np.diff(steps, axis=0)).max() < 0.06


@pytest.mark.parametrize(
    ("gap", "share"), [(0.0, 1), (0.3, 1), (0.45, 0.5), (0.6, 0), (0.31, 0.997), (0.59, 0.003)]
)
def test_how_much_of_a_surface_is_the_mics_own(gap, share):
    assert float(share_at(gap, 0.4)) == pytest.approx(share, abs=5e-4)


def test_a_mic_inside_a_shell_hears_no_floor():
    an = analyse(starting_layout("five-piece", "turned pair"))
    inside = [m.id for m in an.layout.mics].index("KI")
    assert an.layout.mics[inside].position_m[2] < 0.4
    assert not an.arrivals.surface_db[inside].any()


def test_near_ends_at_the_limit_of_the_layout():
    an = analyse(layout_of(mic("A", (0.3, 2.0, 0.3))))
    assert an.arrivals.surface_db[0].any()
    limits = an.layout.thresholds.model_copy(update={"near_surface_m": 0.2})
    assert not analyse(
        an.layout.model_copy(update={"thresholds": limits})
    ).arrivals.surface_db.any()
