"""Notes, intervals, membranes and drift against standards and tables."""

from datetime import UTC, datetime

import numpy as np
import pytest
from ringside.errors import RingsideError
from ringside.hear.bands import bands
from ringside.hear.tuning import (
    LUG_RATIO,
    LugReading,
    fundamental_of,
    hz_of,
    interval_words,
    membrane_ratios,
    note_of,
    spread_of,
    tuning_report,
)
from ringside.plan.kits import five_piece, six_piece
from scipy.special import jn_zeros

NOON = datetime(2026, 5, 2, 12, 0, tzinfo=UTC)


def test_membrane_modes_are_the_bessel_zeros():
    zeros = sorted(
        [(float(z), m) for m in range(4) for z in jn_zeros(m, 2)], key=lambda p: p[0]
    )[:6]  # fmt: skip
    expected = np.array([z for z, _ in zeros]) / zeros[0][0]
    np.testing.assert_allclose(membrane_ratios(), expected, rtol=1e-6)
    # Fletcher & Rossing, The Physics of Musical Instruments, fig. 3.6.
    np.testing.assert_allclose(
        membrane_ratios(), [1, 1.594, 2.136, 2.296, 2.653, 2.918], atol=1.2e-3
    )


@pytest.mark.parametrize(
    ("note", "hz"),
    [("A4", 440.0), ("C4", 261.63), ("E2", 82.41), ("A1", 55.0), ("Bb1", 58.27), ("F#3", 185.0)],
)
def test_notes_of_equal_temperament(note, hz):
    assert hz_of(note) == pytest.approx(hz, abs=0.006)  # table of frequencies, A4 = 440 (ISO 16)
    name, cents = note_of(hz)
    assert abs(cents) < 0.3
    assert hz_of(name) == pytest.approx(hz, abs=0.006)


def test_cents_off_a_note():
    assert note_of(440 * 2 ** (20 / 1200)) == ("A4", pytest.approx(20.0))
    assert note_of(440 * 2 ** (-20 / 1200)) == ("A4", pytest.approx(-20.0))


@pytest.mark.parametrize(
    ("typed", "hz"), [("82", 82.0), ("82,5 Hz", 82.5), ("E2", 82.407), (" bb1 ", 58.27)]
)
def test_a_fundamental_as_it_is_typed(typed, hz):
    assert fundamental_of(typed) == pytest.approx(hz, abs=0.01)


@pytest.mark.parametrize(
    ("typed", "words"), [("loud", "as A2 or Bb1"), ("5", "between 20 and 1000"), ("H2", "as A2")]
)
def test_what_is_no_fundamental_is_refused_in_words(typed, words):
    with pytest.raises(RingsideError, match=words):
        fundamental_of(typed)


@pytest.mark.parametrize(
    ("cents", "words"),
    [(0, "unison"), (386, "major third"), (498, "fourth"), (702, "fifth"), (1200, "octave"),
     (1702, "octave and a fourth"), (-300, "minor third")],
)  # fmt: skip
def test_intervals_by_name(cents, words):
    assert interval_words(cents) == words


def tuned(kit, **hz):
    drums = tuple(
        d.model_copy(update={"fundamental_hz": hz.get(d.id.replace("-", "_"), d.fundamental_hz)})
        for d in kit.drums
    )
    return kit.model_copy(update={"drums": drums})


def test_toms_in_fourths_are_even():
    kit = tuned(six_piece(), rack_1=hz_of("A3"), rack_2=hz_of("E3"), floor_1=hz_of("B2"),
                floor_2=hz_of("F#2"))  # fmt: skip
    spread = spread_of(kit)
    assert [s.words for s in spread.steps] == ["fourth"] * 3
    assert spread.words == "The toms are spread in fourths."


def test_an_uneven_step_is_named():
    kit = tuned(six_piece(), rack_1=200.0, rack_2=190.0, floor_1=100.0, floor_2=85.0)
    assert spread_of(kit).words.startswith("Uneven by")
    assert "the step Rack 2 to Floor 1 is the widest" in spread_of(kit).words


def test_an_estimate_says_so():
    assert spread_of(five_piece()).words == (
        "Estimated from size; type a note for Rack 1, Rack 2, Floor tom."
    )


def test_a_known_fundamental_feeds_the_body_band():
    kit = tuned(five_piece(), floor=70.0)
    b = bands(kit.part("floor"))
    assert (b.body_low, b.body_high) == (pytest.approx(70 / 2**0.5), pytest.approx(70 * 2**0.5))
    row = next(r for r in tuning_report(kit, [], NOON).drums if r.id == "floor")
    assert row.known
    assert row.note == "C♯2"


def lug(drum, hour, *hz):
    at = datetime(2026, 5, 2, hour, 0, tzinfo=UTC).isoformat()
    return LugReading(drum=drum, at=at, lugs_hz=hz)


def test_drift_through_the_day_names_the_lug_and_reminds():
    morning = lug("snare", 9, *[360.0] * 8)
    later = lug("snare", 10, *[360.0] * 6, 350.0, 360.0)
    row = tuning_report(five_piece(), [morning, later], NOON).drift[0]
    assert row.worst_lug == 7
    assert row.drift_cents[6] == pytest.approx(1200 * np.log2(350 / 360), abs=0.06)
    assert row.words == (
        "Snare: lug 7 has gone down 49 cents; the lugs are 49 cents apart;"
        " it is time to check it again."
    )
    assert row.recheck
    assert row.minutes == 120
    assert row.fundamental_hz == pytest.approx(360 / LUG_RATIO, abs=0.1)


def test_a_drum_that_holds():
    row = tuning_report(five_piece(), [lug("snare", 11, 360.0, 361.0)], NOON).drift[0]
    assert row.words == "Snare holds."
    assert not row.recheck
