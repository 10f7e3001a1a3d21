"""What a change did: the air against hand figures, and verdicts that turn over."""

import pytest
from ringside.answers.effects import VerdictChange, effects
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_flips
from ringside.plan.layout import Air

START = starting_layout("five-piece", "square pair")


def test_ten_degrees_by_hand():
    warm = START.model_copy(update={"air": Air(temperature_c=30.0)})
    found = effects(START, warm)
    # ISO 9613-1: 343.2 m/s at 20 °C and 349.0 at 30 °C, so every arrival is 1.7 % earlier.
    assert found.speed_after_m_s == pytest.approx(349.0, abs=0.05)
    row = found.arrivals
    assert row.after_s / row.before_s == pytest.approx(343.2 / 349.0, abs=1e-4)
    assert found.words.startswith("Sound goes 349.0 m/s instead of 343.2.")
    assert "earlier" in found.words


def test_nothing_changed_says_so():
    assert effects(START, START).words == "No verdict turns over."
    assert effects(START, START).turned == 0


def test_a_flip_turns_verdicts_over():
    flipped = with_flips(START, {"SB", "T1"})
    found = effects(START, flipped)
    assert VerdictChange(a="ST", b="SB", source="snare", before="hollow", after="together") in (
        found.verdicts
    )
    assert found.turned == len(found.verdicts)
    first = found.verdicts[0]
    said = f"{first.a} with {first.b} on {first.source} {first.before} → {first.after}"
    assert said in found.words
    assert f"{found.turned} verdicts turn over: " in found.words


def test_mics_and_drums_that_only_one_has_are_passed_over():
    fewer = START.model_copy(update={"channels": (), "mics": START.mics[:3], "stereo_pairs": ()})
    found = effects(START, fewer)
    ids = {m.id for m in fewer.mics}
    assert all({r.a, r.b} <= ids for r in found.verdicts)
    empty = START.model_copy(update={"channels": (), "mics": (), "stereo_pairs": ()})
    assert effects(START, empty).arrivals is None
