"""Surfaces beside a mic: theory, a reference library's image sources, and doubt."""

import warnings

import numpy as np
import pytest
from ringside.answers.board import FocusOn, focus_on
from ringside.hear.arrivals import Doubt, arrivals
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
    # Two omnis, one 12 cm over the floor, the other 90; only the floor reflects. The library's
    # impulse responses are added in time and measured over the body band.
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import pyroomacoustics as pra
    low, high = (1.1, 1.9, 0.12), (0.4, 1.6, 0.9)
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
    assert an.arrivals.sign[0, 1] == -1  # struck side, front lobe of the image
    straight = np.linalg.norm(np.array(wall.position_m) - an.scene.sources.strike[1])
    assert an.arrivals.path_m[0, 1] == pytest.approx(straight + 0.12, abs=0.005)
    assert not an.arrivals.null[0, 1]


def test_where_a_reflection_may_lead_the_sign_is_unsure():
    box = room(surfaces=Surfaces(front="rough concrete"))
    # From behind a wide cardioid is 8 dB down; the front wall sends 7 dB less, but on axis.
    away = mic("R", (0.0, 3.5, 2.2), (0, 1, 0), pattern="wide cardioid")
    an = analyse(layout_of(away, mic("T", (0.3, 2.0, 1.4), (0, -1, 0)), room=box))
    assert an.arrivals.doubt[0, 1] == Doubt.REFLECTION
    assert an.arrivals.sign[0, 1] == 0
    snare = focus_on(an, FocusOn("R", "T", "snare")).rows[1]
    assert snare.verdict == "ask the ear"
    assert snare.words.startswith("A reflection may reach R")
    free = arrivals(scene_of(layout_of(away)), an.layout.thresholds)
    assert free.doubt[0, 1] != Doubt.REFLECTION
    close = away.model_copy(update={"role": "close", "job": "snare"})
    assert Doubt.REFLECTION not in analyse(layout_of(close, room=box)).arrivals.doubt


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
