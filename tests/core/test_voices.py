"""What a drum sounds like, and what two mics of it do when they are heard together."""

import io
import wave

import numpy as np
import pytest
from ringside.errors import RingsideError
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.voices.drum import RINGS, stroke
from ringside.voices.example import (
    PEAK,
    RATE_HZ,
    VERSIONS,
    ask_of,
    loudness_db,
    rendered,
    signals,
    wav,
)

from tests.core.tracks import with_mic

SQUARE = starting_layout("five-piece", "square pair")
AN = analyse(SQUARE)


def band_db(signal, low, high):
    spectrum = np.abs(np.fft.rfft(signal)) ** 2
    f = np.fft.rfftfreq(len(signal), 1 / RATE_HZ)
    return 10 * np.log10(spectrum[(f >= low) & (f <= high)].sum())


def test_a_drum_sounds_at_the_modes_of_a_membrane():
    # Fletcher and Rossing: 1 1.594 2.136 2.296 2.653 2.918.
    s = stroke("floor", 80.0, 2.0, RATE_HZ)
    spectrum, f = np.abs(np.fft.rfft(s)), np.fft.rfftfreq(len(s), 1 / RATE_HZ)
    for ratio in (1, 1.594, 2.136):
        near = (f > 80 * ratio - 6) & (f < 80 * ratio + 6)
        assert f[near][spectrum[near].argmax()] == pytest.approx(80 * ratio, abs=2.5)


@pytest.mark.parametrize("kind", ["kick", "snare", "rack", "floor", "hand drum"])
def test_a_drums_first_half_wave_pushes(kind):
    # Below the stick's noise: the low end of the stroke begins upward.
    s = stroke(kind, 100.0, 0.5, RATE_HZ)
    spectrum = np.fft.rfft(s)
    spectrum[np.fft.rfftfreq(len(s), 1 / RATE_HZ) > 800] = 0
    low = np.fft.irfft(spectrum, len(s))
    first = low[: RATE_HZ // 400]  # within a quarter of the fundamental's wave
    assert first.max() > 5 * abs(first.min())


@pytest.mark.parametrize("kind", sorted(RINGS))
def test_every_kind_sounds_dies_away_and_is_the_same_for_a_seed(kind):
    one, two = (stroke(kind, 300.0, 0.8, RATE_HZ, seed=3) for _ in range(2))
    assert (one == two).all()
    assert np.abs(one).max() == 1.0
    assert np.abs(one[-2400:]).mean() < np.abs(one[:2400]).mean() / 3
    assert not (one == stroke(kind, 300.0, 0.8, RATE_HZ, seed=4)).all()


def test_loudness_of_the_standards_own_tone():
    # ITU-R BS.1770-4: a 997 Hz sine at 0 dB full scale in one channel reads -3.01.
    t = np.arange(RATE_HZ) / RATE_HZ
    assert loudness_db(np.sin(2 * np.pi * 997 * t)) == pytest.approx(-3.01, abs=0.05)
    assert loudness_db(np.zeros(RATE_HZ)) == -120.0


@pytest.mark.parametrize(
    ("a", "b", "source"), [("ST", "SB", "snare"), ("OL", "OR", "kick"), ("T1", "OL", "rack-1")]
)
def test_what_is_heard_is_what_the_verdict_counts(a, b, source):
    # In the drum's body the difference of the two sums, as rendered and summed in time, is the
    # difference of the two body sums; the stroke weighs its band unevenly, hence the decibel.
    ask = ask_of(AN, a, b, source)
    raw = {}
    row, _ = AN.pair_index(a, b)
    k = AN.scene.sources.ids.index(source)
    bands = AN.scene.sources.bands[k]
    made = signals(ask)
    # Undo the matched loudness: both were scaled by their own.
    one, two = ask.a, ask.b
    rate, length = RATE_HZ, len(made["a"])
    noise = np.random.default_rng(1).normal(size=length)
    spectrum, f = np.fft.rfft(noise), np.fft.rfftfreq(length, 1 / rate)
    heard = [
        sum(
            w * np.exp(1j * (turn - 2 * np.pi * f * t))
            for t, w, turn in zip(h.times_s, h.weights, h.turns, strict=True)
        )
        for h in (one, two)
    ]
    raw["wired"] = np.fft.irfft(spectrum * (heard[0] + heard[1]), length)
    raw["flipped"] = np.fft.irfft(spectrum * (heard[0] - heard[1]), length)
    gap = band_db(raw["flipped"], bands.body_low, bands.body_high) - band_db(
        raw["wired"], bands.body_low, bands.body_high
    )
    expected = AN.pairs.flipped_body_db[row, k] - AN.pairs.body_db[row, k]
    assert gap == pytest.approx(expected, abs=1.0)


def test_all_versions_are_as_loud_and_none_clips():
    made = signals(ask_of(AN, "ST", "SB", "snare"))
    loud = [loudness_db(made[v]) for v in VERSIONS]
    assert max(loud) - min(loud) < 0.01
    assert max(np.abs(s).max() for s in made.values()) == pytest.approx(PEAK)


def test_aligned_has_more_body_than_late():
    late = analyse(with_mic(SQUARE, "OR", track_delay_samples=400))
    ask = ask_of(late, "OL", "OR", "kick")
    made = signals(ask)
    b = late.scene.sources.bands[0]
    share = {
        v: band_db(made[v], b.body_low, b.body_high) - band_db(made[v], 20, 20_000)
        for v in ("wired", "aligned")
    }
    assert share["aligned"] > share["wired"] + 3
    assert ask.apart_s == pytest.approx(
        -(float(late.arrivals.time_s[8, 0]) - float(late.arrivals.time_s[9, 0])), abs=1e-7
    )


def test_names_do_not_change_the_sound_and_numbers_do():
    one = ask_of(AN, "ST", "SB", "snare")
    renamed = one.model_copy(update={"a": one.a.model_copy(update={"id": "Top"})})
    assert renamed.key == one.key
    flipped = with_mic(SQUARE, "SB", preamp_flip=True)
    assert ask_of(analyse(flipped), "ST", "SB", "snare").key != one.key
    # What is not of this pair does not matter.
    moved = with_mic(SQUARE, "OL", preamp_flip=True)
    assert ask_of(analyse(moved), "ST", "SB", "snare").key == one.key


def test_an_unsure_pair_says_so():
    assert "unsure" in ask_of(AN, "KO", "OL", "kick").words
    assert ask_of(AN, "ST", "SB", "snare").words == ""


def test_wav_is_read_back_by_another_reader():
    t = np.arange(4800) / RATE_HZ
    body = wav(0.25 * np.sin(2 * np.pi * 440 * t))
    with wave.open(io.BytesIO(body)) as file:
        assert (file.getnchannels(), file.getframerate(), file.getsampwidth()) == (1, 48000, 2)
        read = np.frombuffer(file.readframes(4800), dtype="<i2") / 32767
    assert np.abs(read - 0.25 * np.sin(2 * np.pi * 440 * t)).max() < 2 / 32767


def test_progress_goes_up_to_one():
    told = []
    made = rendered(ask_of(AN, "ST", "SB", "snare"), told.append)
    assert told == sorted(told)
    assert told[-1] == 1.0
    assert set(made) == set(VERSIONS)


def test_wrong_names_are_told():
    with pytest.raises(RingsideError, match="two mics"):
        ask_of(AN, "ST", "ST", "snare")
    with pytest.raises(RingsideError, match="drum or cymbal"):
        ask_of(AN, "ST", "SB", "gong")
