"""How loud it gets at a capsule, what leaves the mic, and what it and its input take."""

import numpy as np
import pytest
from ringside.gear.headroom import headroom
from ringside.gear.levels import PLAYED_DB, SPREAD_DB, as_from_m, output_dbu, peaks
from ringside.gear.locker import InputBank, Locker, MicModel, bank_of
from ringside.gear.stock import stock
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_mics, without_mics
from ringside.plan.questions import Brief

from tests.core.tracks import with_mic

LAYOUT = starting_layout("five-piece", "turned pair")


def layout_with(model="x", channel=1, name="ST"):
    alone = without_mics(LAYOUT, {m.id for m in LAYOUT.mics} - {name})
    return with_mic(alone, name, model=model, input=channel)


def peak_of(layout=None):
    return peaks(layout or layout_with())[0].middle_db


def told(limit=None, gives=None, pads=(), most=None, layout=None, full=None, gain=None):
    model = MicModel(id="x", name="Test mic", max_spl_db=limit, sensitivity_mv_pa=gives,
                     pads_db=pads)  # fmt: skip
    locker = Locker(
        mics=(model,),
        inputs=(
            InputBank(
                id="b", name="Box", max_level_dbu=most, full_scale_dbu=full, most_gain_db=gain
            ),
        ),
    )
    (one,) = headroom(layout or layout_with(), locker)
    return one


@pytest.mark.parametrize(("spl", "mv_pa", "dbu"), [
    (94, 20, -31.76),  # 20 mV; 0 dBu is 0.775 V (IEC 60268-4 and IEC 60268-3, by hand)
    (134, 20, 8.24),  # 2 V
    (94, 1, -57.78),  # 1 mV/Pa is -60 dB re 1 V/Pa, and dBu is dBV + 2.2 (handbook tables)
    (114, 1.5, -34.26),
])  # fmt: skip
def test_what_a_mic_gives(spl, mv_pa, dbu):
    assert output_dbu(spl, mv_pa) == pytest.approx(dbu, abs=0.03)  # 94 dB is 1.002 Pa


@pytest.mark.parametrize("z", [0.0, 0.02, 0.05, 0.2, 1.0, 5.0])
def test_a_disc_is_as_loud_as_its_rings_together(z):
    # Rayleigh's integral on the axis, well below where the disc is large: every ring in phase.
    radius, n = 0.178, 200_000
    ring = (np.arange(n) + 0.5) * radius / n
    pressure = np.sum(ring / np.hypot(ring, z)) * radius / n
    point = radius**2 / 2  # the same disc's at one metre, were it a point
    assert as_from_m(z, radius) == pytest.approx(point / pressure, rel=1e-4)


def test_peaks_fall_by_six_decibels_for_twice_as_far():
    mic = LAYOUT.mic("ST").model_copy(update={"pattern": "omni", "job": "snare"})
    snare = next(d for d in LAYOUT.kit.drums if d.id == "snare")

    kit = LAYOUT.kit.model_copy(update={"drums": (snare, LAYOUT.kit.first("kick"))})

    def at(far):
        spot = np.add(snare.batter_m, np.multiply(snare.axis, far)).tolist()
        there = mic.model_copy(update={"position_m": tuple(spot)})
        alone = {"kit": kit, "channels": (), "mics": (there,), "stereo_pairs": (), "room": None}
        return peaks(LAYOUT.model_copy(update=alone))[0]

    assert at(2.0).middle_db - at(4.0).middle_db == pytest.approx(6.0, abs=0.3)
    # Nearer than its radius it hardly rises any more.
    assert 0 < at(0.02).middle_db - at(0.04).middle_db < 2.0
    assert kit.parts[at(0.05).source].id == "snare"


def test_a_hard_hitter_is_louder_and_a_light_one_is_not():
    plain = layout_with()
    for hitter, more in {"light": -6.0, "even": 0.0, "hard": 4.0}.items():
        assert PLAYED_DB[hitter] == more
        played = plain.model_copy(update={"brief": Brief(hitter=hitter)})
        assert peak_of(played) - peak_of(plain) == pytest.approx(more)


@pytest.mark.parametrize(("over", "state"), [
    (0.1, "overloads"), (-0.1, "hard hits"), (0.1 - SPREAD_DB, "hard hits"),
    (-0.1 - SPREAD_DB, "fits"),
])  # fmt: skip
def test_what_a_usual_peak_and_a_hard_hit_are_over(over, state):
    there = told(limit=peak_of() - over)
    assert there.state == state
    at_input = told(limit=170, gives=1.0, most=output_dbu(peak_of(), 1.0) - over)
    assert (at_input.state, at_input.input) == (state, "Box")


@pytest.mark.parametrize(("pads", "pad", "left", "words"), [
    ((), None, 9.0, "it has no pad; take another mic, or stand it off."),
    ((8.0,), 8.0, 1.0, "its 8 dB pad leaves 1 dB too much; take another, or stand it off."),
    ((20.0, 10.0, 9.0), 9.0, 0.0, "switch its 9 dB pad in."),
])  # fmt: skip
def test_the_smallest_pad_that_lets_hard_hits_fit(pads, pad, left, words):
    one = told(limit=peak_of() - 9 + SPREAD_DB, pads=pads)
    assert (one.pad_db, one.over_db) == (pad, pytest.approx(left))
    assert one.words.endswith(f"The Test mic overloads: {words}")


def test_who_is_short_first_is_named():
    limit = peak_of() + 20
    short = told(limit=limit, gives=20.0, pads=(10.0,), most=output_dbu(peak_of(), 20.0) - 2)
    assert "Box overloads even at least gain: switch its 10 dB pad in." in short.words
    spare = told(limit=limit, gives=20.0, most=output_dbu(peak_of(), 20.0) + 30)
    assert spare.words.endswith("The Test mic takes that, with 14 dB to spare.")
    assert (spare.pad_db, spare.over_db) == (None, 0.0)


def test_what_nobody_told_is_asked_for():
    nothing = told()
    assert nothing.state == "unknown"
    assert nothing.unknown == [
        "how loud the Test mic may be met", "how much the Test mic gives", "how much Box takes",
    ]  # fmt: skip
    assert (nothing.limit_db, nothing.output_dbu, nothing.pad_db) == (None, None, None)
    # The input alone cannot promise that the capsule bears it, but can tell that it does not.
    roomy = output_dbu(peak_of(), 1.0) + 30
    assert told(gives=1.0, most=roomy).state == "unknown"
    assert told(gives=1.0, most=roomy - 31).state == "overloads"
    assert told(limit=170, most=24).unknown == ["how much the Test mic gives"]
    assert told(limit=170, gives=1.0, most=24).unknown == ["at what level Box is full"]
    assert told(limit=170, gives=1.0, most=24, full=20).unknown == []


def test_mics_that_the_locker_has_not_got_are_left_out():
    locker = Locker(mics=(MicModel(id="y", name="Other"),))
    assert headroom(layout_with(model="x"), locker) == []
    assert headroom(layout_with(model=None), locker) == []
    assert headroom(without_mics(LAYOUT, {m.id for m in LAYOUT.mics}), locker) == []


def test_inputs_are_counted_on_from_bank_to_bank():
    a, b = InputBank(id="a", name="A", count=8), InputBank(id="b", name="B", count=4)
    locker = Locker(inputs=(a, b))
    found = [bank_of(locker, n) for n in (1, 8, 9, 12, 13, None)]
    assert found == [a, a, b, b, None, None]


def test_only_what_a_usual_peak_overloads_is_told_of_the_whole_layout():
    for over, count in ((0.5, 1), (-0.5, 0)):
        model = MicModel(id="x", name="Test mic", max_spl_db=peak_of() - over, pads_db=(10.0,))
        found = stock(layout_with(), Locker(mics=(model,)))
        assert [lack.kind for lack in found.lacks].count("level") == count
        assert [h.mic for h in found.headroom] == ["ST"]
    loud = [
        lack
        for lack in stock(
            with_mics(LAYOUT, (layout_with().mics)),
            Locker(mics=(MicModel(id="x", name="Test mic", max_spl_db=90),)),
        ).lacks
        if lack.kind == "level"
    ]
    assert loud[0].mics == ["ST"]
    assert loud[0].words.startswith("ST: The snare peaks at about 1")


@pytest.mark.parametrize(("wants", "has", "words", "soft"), [
    (30.0, 60.0, "30 dB of gain leaves usual peaks 12 dB under full scale.", False),
    (30.0, None, "30 dB of gain leaves usual peaks 12 dB under full scale.", False),
    (70.0, 60.0, "Usual peaks want 70 dB of gain; Box has 60 dB.", False),
    (73.0, 60.0, "Usual peaks want 73 dB of gain; Box has 60 dB.", True),
    (-4.0, 60.0, "Even at no gain usual peaks lie 8 dB under full scale.", False),
    (-15.0, 60.0, "Even at no gain usual peaks are 3 dB over full scale.", False),
])  # fmt: skip
def test_the_gain_that_leaves_peaks_under_full_scale(wants, has, words, soft):
    # A mic that gives what lies 12 dB and the gain under full scale.
    gives = 10 ** ((18 - 12 - wants - output_dbu(peak_of(), 1.0)) / 20)
    one = told(limit=170, gives=float(gives), full=18.0, gain=has)
    assert one.gain_db == pytest.approx(wants, abs=0.05)
    assert (one.words.endswith(words), one.too_soft) == (True, soft)


def test_gain_goes_by_how_far_under_full_scale_peaks_are_wanted():
    quiet = LAYOUT.thresholds.model_copy(update={"under_full_db": 20.0})
    usual = told(gives=1.0, full=20.0)
    lower = told(gives=1.0, full=20.0,
                 layout=layout_with().model_copy(update={"thresholds": quiet}))  # fmt: skip
    assert usual.gain_db - lower.gain_db == pytest.approx(8.0, abs=0.11)
    assert "leaves usual peaks 20 dB under full scale" in lower.words


def test_a_pad_that_is_in_wants_its_decibels_back():
    limit, full = peak_of() + 1, output_dbu(peak_of(), 10.0) + 32
    bare = told(limit=limit + 20, gives=10.0, full=full)
    padded = told(limit=limit, gives=10.0, pads=(10.0,), full=full)
    assert (bare.gain_db, padded.gain_db) == (pytest.approx(20), pytest.approx(30))
