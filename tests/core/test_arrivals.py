"""Distances, arrivals, levels and signs against a reference library, brute force and the trade."""

import numpy as np
import pytest
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.plan.kit import Cymbal, Drum, Kit
from ringside.plan.layout import Air, Layout
from ringside.plan.mics import Mic

from tests.core.tracks import with_mic

INCH = 0.0254
SNARE = Drum(id="snare", name="Snare", kind="snare", diameter_m=14 * INCH, depth_m=0.14,
             batter_m=(0, 0, 0.66), axis=(0, 0, 1))  # fmt: skip
KICK = Drum(id="kick", name="Kick", kind="kick", diameter_m=22 * INCH, depth_m=0.42,
            batter_m=(0.28, 0.25, 0.28), axis=(0, -1, 0))  # fmt: skip
RIDE = Cymbal(id="ride", name="Ride", kind="ride", diameter_m=0.5,
              centre_m=(0.8, 0.2, 1.0), axis=(0, 0, 1))  # fmt: skip
KIT = Kit(name="Test", drums=(SNARE, KICK), cymbals=(RIDE,))


def mic(at, aim=(0, 0, -1), **more):
    return Mic(**{"id": "M", "name": "M", "pattern": "omni", **more, "position_m": at, "aim": aim})


def heard(at, source="snare", **more):
    ways = {k: more.pop(k) for k in ("preamp_flip", "track_flip") if k in more}
    layout = Layout(name="t", kit=KIT, mics=(mic(at, **more),))
    an = analyse(with_mic(layout, "M", **ways))
    k = an.scene.sources.ids.index(source)
    a = an.arrivals
    return {f: getattr(a, f)[0, k] for f in ("tape_m", "path_m", "time_s", "level_db", "sign")}


def test_direct_arrivals_match_a_reference_library():
    """pyroomacoustics, free field: the strongest tap of each response, at its filter's delay."""
    import pyroomacoustics as pra

    layout = starting_layout("five-piece", "turned pair").model_copy(
        update={"air": Air(temperature_c=20.0)}
    )
    an = analyse(layout)
    fs, over = 96000, np.array([5.0, 5.0, 5.0])
    k = an.scene.sources.ids.index("snare")
    room = pra.AnechoicRoom(3, fs=fs)
    room.set_sound_speed(an.scene.speed)
    room.add_source(np.array(SNARE.batter_m) + over)
    ears = [i for i, m in enumerate(layout.mics) if m.position_m[2] > 0.66]
    room.add_microphone_array(an.scene.capsule[ears].T + over[:, None])
    room.compute_rir()
    half = pra.constants.get("frac_delay_length") // 2
    for n, i in enumerate(ears):
        response = room.rir[n][0]
        top = int(np.argmax(np.abs(response)))
        around = np.arange(top - 8, top + 9)
        weight = response[around]
        tap = float((around * weight).sum() / weight.sum()) - half
        assert tap / fs == pytest.approx(an.arrivals.time_s[i, k], abs=0.6 / fs)


def test_tape_is_the_straight_line_to_the_batter_centre():
    assert heard((0.3, 0.4, 0.66 + 1.2))["tape_m"] == pytest.approx(1.3)


def test_from_below_the_far_face_is_heard_after_the_travel_between_the_heads():
    got = heard((0.0, 0.0, 0.46), aim=(0, 0, 1))
    assert got["path_m"] == pytest.approx(0.14 + 0.06)
    assert got["tape_m"] == pytest.approx(0.20)
    assert got["time_s"] == pytest.approx(0.20 / 343.2, rel=1e-6)


@pytest.mark.parametrize("at", [(0.4, 0.1, 0.60), (0.2, -0.15, 0.58), (0.0, 0.9, 0.53)])
def test_beside_the_shell_sound_goes_over_the_rim(at):
    # Brute force: the shortest way from the head's centre over any point of the rim.
    turn = np.linspace(0, 2 * np.pi, 20001)
    rim = np.column_stack([np.cos(turn), np.sin(turn), 0 * turn]) * 7 * INCH + [0, 0, 0.66]
    ways = 7 * INCH + np.linalg.norm(rim - np.array(at), axis=1)
    assert heard(at)["path_m"] == pytest.approx(ways.min(), abs=1e-6)


def test_inside_the_kick_the_batter_is_seen_straight():
    got = heard((0.28, 0.45, 0.28), "kick")
    assert got["path_m"] == pytest.approx(0.20)
    assert got["sign"] == 1


def test_inverse_distance_is_six_decibels_for_twice_as_far():
    near, far = heard((0, 0, 1.16)), heard((0, 0, 1.66))
    assert near["level_db"] - far["level_db"] == pytest.approx(6.02, abs=0.01)


# Common practice: a head struck from above pulls the air above it and pushes the air below.
@pytest.mark.parametrize(
    ("at", "more", "sign"),
    [
        ((0.0, 0.1, 0.71), {}, -1),
        ((0.0, 0.0, 0.46), {"aim": (0, 0, 1)}, 1),
        ((0.0, 0.0, 0.46), {"aim": (0, 0, 1), "preamp_flip": True}, -1),
        ((0.0, 0.0, 0.46), {"aim": (0, 0, 1), "preamp_flip": True, "track_flip": True}, 1),
        ((0.0, 0.1, 0.71), {"aim": (0, 0, 1), "pattern": "figure-8"}, 1),  # rear lobe
        ((0.0, 0.1, 0.71), {"aim": (0, 0, 1), "pattern": "omni"}, -1),
        ((1.2, 0.0, 0.80), {}, 0),  # 7° over the plane of the head
        ((1.2, 0.0, 1.00), {}, -1),  # 18°
        ((1.2, 0.0, 0.60), {}, 0),  # beside the shell
        ((1.2, 0.0, 0.10), {}, 1),
        ((0.0, 0.0, 1.66), {"aim": (1, 0, 0), "pattern": "figure-8"}, 0),  # in the null
    ],
)
def test_first_half_wave(at, more, sign):
    assert heard(at, **more)["sign"] == sign


def test_a_cymbal_is_heard_from_its_struck_edge_and_taped_to_its_bell():
    got = heard((0.8, 0.2, 1.5), "ride")
    assert got["tape_m"] == pytest.approx(0.5)
    assert got["path_m"] == pytest.approx(np.hypot(0.5, 0.25))


def test_a_shell_keeps_other_drums_out():
    inside, outside = heard((0.28, 0.45, 0.28)), heard((0.28, 0.24, 0.28))
    assert outside["level_db"] - inside["level_db"] > 14


def test_no_mics_is_an_empty_answer_not_a_fault():
    an = analyse(Layout(name="t", kit=KIT))
    assert an.arrivals.tape_m.shape == (0, 3)
    assert an.pairs.verdict.shape == (0, 3)
