"""Kits, and what the records refuse."""

import pytest
from pydantic import ValidationError
from ringside.hear.bands import VOICES, bands
from ringside.places.starts import starting_layout
from ringside.plan.kit import Cymbal, Drum, Kit, mirrored, reference_point
from ringside.plan.kits import KITS, five_piece, left_handed_five_piece
from ringside.plan.layout import Decision, Layout, StereoPair

DRUM = {"id": "d", "name": "D", "kind": "snare", "diameter_m": 0.35, "depth_m": 0.14,
        "batter_m": (0, 0, 0.6), "axis": (0, 0, 1)}  # fmt: skip


def test_every_starting_kit_can_be_sat_at():
    for make in KITS.values():
        kit = make()
        assert kit.first("snare").batter_m[:2] == (0, 0)  # the frame's origin is under the snare
        for drum in kit.drums:
            low = drum.batter_m[2] - (drum.diameter_m / 2 if drum.kind == "kick" else drum.depth_m)
            assert -0.005 <= low < 0.75, drum.id
        assert kit.stool.position_m[1] < 0


def test_no_two_drums_stand_in_one_another():
    for make in KITS.values():
        shells = [d for d in make().drums if d.kind != "kick"]
        for i, a in enumerate(shells):
            for b in shells[i + 1 :]:
                gap = (a.batter_m[0] - b.batter_m[0]) ** 2 + (a.batter_m[1] - b.batter_m[1]) ** 2
                assert gap**0.5 > (a.diameter_m + b.diameter_m) / 2, (a.id, b.id)


def test_mirroring_twice_is_the_same_kit():
    kit = five_piece()
    again = mirrored(mirrored(kit, "x"), kit.name)
    assert again == kit


def test_left_handed_has_the_floor_tom_on_the_left():
    kit = left_handed_five_piece()
    assert kit.first("floor").batter_m[0] < 0
    assert kit.first("kick").batter_m[0] < 0
    assert next(c for c in kit.cymbals if c.kind == "hats").centre_m[0] > 0


def test_the_tape_can_be_held_to_the_front_head():
    kick = five_piece().first("kick")
    front = kick.model_copy(update={"reference": "front"})
    assert reference_point(kick) == kick.batter_m
    assert reference_point(front) == pytest.approx((0.28, 0.25 + 16 * 0.0254, 0.28))


@pytest.mark.parametrize(
    ("field", "value"),
    [("diameter_m", 14.0), ("depth_m", -0.1), ("kind", "gong"), ("axis", (0, 0, 0)),
     ("batter_m", (0, 0)), ("batter_m", (0, 0, float("nan"))), ("fundamental_hz", 5),
     ("id", "two words"), ("reference", "rim")],
)  # fmt: skip
def test_a_drum_that_cannot_be_is_refused(field, value):
    Drum(**DRUM)
    with pytest.raises(ValidationError):
        Drum(**{**DRUM, field: value})


def test_records_cannot_be_changed_in_place():
    drum = Drum(**DRUM)
    with pytest.raises(ValidationError):
        drum.depth_m = 1  # type: ignore[misc]


def test_a_kit_needs_its_two_reference_drums():
    with pytest.raises(ValidationError, match="expected a kick among the drums"):
        Kit(name="k", drums=(Drum(**DRUM),))


def test_a_known_fundamental_goes_before_the_estimate():
    plain, known = Drum(**DRUM), Drum(**DRUM, fundamental_hz=187)
    assert bands(known).fundamental == 187
    assert bands(known).body_low == pytest.approx(187 / 2**0.5)
    assert bands(plain).fundamental == pytest.approx(230 * (14 * 0.0254) / 0.35)


def test_a_bigger_head_is_lower():
    # Fletcher & Rossing, The Physics of Musical Instruments: f falls as the diameter grows.
    small = Drum(**{**DRUM, "kind": "rack", "diameter_m": 0.254})
    large = Drum(**{**DRUM, "kind": "rack", "diameter_m": 0.33})
    assert bands(small).fundamental > bands(large).fundamental
    ratio = bands(small).fundamental / bands(large).fundamental
    assert ratio == pytest.approx(0.33 / 0.254)


def test_bands_are_nested_for_every_kind():
    for kind in VOICES:
        disc = {"id": "x", "name": "X", "diameter_m": 0.4, "axis": (0, 0, 1)}
        part = (
            Drum(**disc, kind=kind, depth_m=0.2, batter_m=(0, 0, 1))
            if kind in ("kick", "snare", "rack", "floor", "hand drum")
            else Cymbal(**disc, kind=kind, centre_m=(0, 0, 1))
        )
        b = bands(part)
        assert b.body_low < b.fundamental < b.body_high < b.punch_high <= b.attack_high


def test_a_layout_refuses_what_does_not_hang_together():
    start = starting_layout("five-piece", "turned pair")
    for change, words in (
        ({"mics": (*start.mics, start.mics[0])}, "two mics are called 'KI'"),
        ({"stereo_pairs": (StereoPair(name="P", left="OL", right="ZZ"),)}, "not in the layout"),
        ({"decisions": (Decision(a="OL", b="OR", source="gong", reason="r"),)}, "not in the kit"),
        ({"decisions": (Decision(a="OL", b="OL", source="kick", reason="r"),)}, "twice"),
    ):
        with pytest.raises(ValidationError, match=words):
            Layout(**{**start.__dict__, **change})
