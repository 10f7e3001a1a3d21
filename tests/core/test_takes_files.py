"""Sound files: every format that is read, start times, and files that are out to hurt."""

import random
import resource
import struct

import numpy as np
import pytest
import soundfile
from ringside.pairs.analysis import analyse
from ringside.takes.files import Reader, SoundFileError, start_of, tracks_of
from ringside.takes.overview import overview
from ringside.takes.report import told_take

from tests.core.takes import demo_layout

CONTAINERS = (
    ("WAV", "wav", "PCM_24"), ("WAV", "wav", "FLOAT"), ("RF64", "wav", "PCM_16"),
    ("W64", "w64", "PCM_24"), ("AIFF", "aif", "PCM_16"), ("FLAC", "flac", "PCM_24"),
)  # fmt: skip
DICE = np.random.default_rng(5)


def sound(frames=4800, channels=1):
    made = DICE.normal(0, 0.01, (frames, channels))
    made[frames // 2] = 0.5
    return made


@pytest.mark.parametrize(("container", "end"), [("WAV", "wav"), ("RF64", "wav"), ("W64", "w64"),
                                                ("AIFF", "aif"), ("FLAC", "flac")])  # fmt: skip
@pytest.mark.parametrize("bits", ["PCM_16", "PCM_24", "PCM_32", "FLOAT"])
def test_every_format_is_read_to_its_last_bit(tmp_path, container, end, bits):
    if container == "FLAC" and bits in ("PCM_32", "FLOAT"):
        pytest.skip("FLAC holds no more than 24 bits here")
    path, made = tmp_path / f"one.{end}", sound(channels=3)
    soundfile.write(path, made, 96000, bits, format=container)
    tracks = tracks_of([path])
    assert [(t.name, t.channel, t.rate_hz, t.bits) for t in tracks] == [
        (f"one.{end}, {n + 1}", n, 96000, bits) for n in range(3)
    ]
    with Reader(tracks) as reader:
        cut = reader.cut(2390, 20)
    step = 2.0**-15 if bits == "PCM_16" else 2.0**-23
    assert cut == pytest.approx(made[2390:2410].T, abs=step)


def bext(samples):
    """A broadcast extension chunk, byte by byte as EBU Tech 3285 (2011), section 2.3, has it."""
    body = bytes(256) + bytes(32) + bytes(32) + b"2026-11-25" + b"09:30:00"
    body += struct.pack("<II", samples & 0xFFFFFFFF, samples >> 32)
    body += struct.pack("<H", 1) + bytes(64) + bytes(190)
    return b"bext" + struct.pack("<I", len(body)) + body


def broadcast(path, made, samples, rate=48000):
    soundfile.write(path, made, rate, "PCM_24")
    whole = path.read_bytes()
    chunk = bext(samples)
    size = struct.unpack("<I", whole[4:8])[0] + len(chunk)
    path.write_bytes(whole[:4] + struct.pack("<I", size) + whole[8:12] + chunk + whole[12:])


def test_a_broadcast_wav_begins_when_it_says(tmp_path):
    noon = 12 * 3600 * 48000 + 2**32  # past what 32 bits hold
    early, late = tmp_path / "a.wav", tmp_path / "b.wav"
    broadcast(early, sound(), noon)
    broadcast(late, sound(), noon + 37)
    assert start_of(early) == noon
    tracks = tracks_of([late, early])
    assert [t.begins for t in tracks] == [37, 0]
    with Reader(tracks) as reader:
        cut = reader.cut(2400, 100)
    assert np.abs(cut).argmax(axis=1).tolist() == [37, 0]
    seen = overview(tracks)
    assert seen.peak.argmax(axis=1).tolist() == [(2400 + 37) // 48, 50]


def test_one_file_without_a_stamp_and_all_begin_together(tmp_path):
    stamped, plain = tmp_path / "a.wav", tmp_path / "b.wav"
    broadcast(stamped, sound(), 4800)
    soundfile.write(plain, sound(), 48000, "PCM_24")
    assert [t.begins for t in tracks_of([stamped, plain])] == [0, 0]


def refused(*paths):
    with pytest.raises(SoundFileError) as told:
        tracks_of(paths)
    return str(told.value)


def test_what_cannot_be_measured_is_told_with_its_name(tmp_path):
    text, empty, slow = (tmp_path / n for n in ("notes.wav", "none.wav", "slow.wav"))
    text.write_text("take 3 was the good one")
    empty.write_bytes(b"")
    soundfile.write(slow, sound(), 22050, "PCM_16")
    lossy = tmp_path / "loop.ogg"
    soundfile.write(lossy, sound(48000), 48000, format="OGG", subtype="VORBIS")
    assert refused(text).startswith("notes.wav: is no sound file that can be measured; expected")
    assert refused(empty) == "none.wav: is empty"
    assert "slow.wav: is of 22050 Hz; expected one of 44100" in refused(slow)
    assert "A lossy codec moves the first half-wave" in refused(lossy)
    assert "gone.wav: cannot be read" in refused(tmp_path / "gone.wav")
    assert refused() == "expected at least one sound file, got none"


def test_files_of_two_rates_or_two_days_are_not_one_take(tmp_path):
    one, two = tmp_path / "a.wav", tmp_path / "b.wav"
    soundfile.write(one, sound(), 48000, "PCM_16")
    soundfile.write(two, sound(), 44100, "PCM_16")
    assert "of 44100 Hz and 48000 Hz; expected one rate" in refused(one, two)
    broadcast(one, sound(), 0)
    broadcast(two, sound(), 61 * 48000)
    assert "b.wav: begins 61 s after the first file" in refused(one, two)


def test_a_header_that_promises_hours_is_not_believed(tmp_path):
    path = tmp_path / "bomb.flac"
    soundfile.write(path, sound(), 48000, "PCM_16")
    raw = bytearray(path.read_bytes())
    # STREAMINFO, RFC 9639 section 8.2: how many samples, 36 bits, of which these are the last.
    raw[22:26] = b"\xff\xff\xff\xff"
    path.write_bytes(bytes(raw))
    assert "minutes long; expected at most 30" in refused(path)


def test_more_than_the_memory_holds_is_refused_before_it_is_read(tmp_path):
    path = tmp_path / "long.wav"
    soundfile.write(path, sound(), 48000, "PCM_16")
    whole = bytearray(path.read_bytes())
    with path.open("wb") as out:  # half an hour of 20 channels of 16 bits, mostly a hole
        count = 1700 * 48000 * 20 * 2
        whole[22:24] = struct.pack("<H", 20)
        whole[28:34] = struct.pack("<IH", 48000 * 40, 40)
        whole[40:44] = struct.pack("<I", count)
        whole[4:8] = struct.pack("<I", count + 36)
        out.write(whole[:44])
        out.truncate(count + 44)
    assert "20 tracks are 567 minutes together; expected at most 240" in refused(path)


def test_what_is_no_number_is_silence_and_is_counted(tmp_path):
    path, made = tmp_path / "nan.wav", sound(48000)
    made[100:107], made[200] = np.nan, np.inf
    made[300] = 1e30
    soundfile.write(path, made, 48000, "FLOAT")
    tracks = tracks_of([path])
    seen = overview(tracks)
    assert seen.broken.tolist() == [8]
    assert seen.peak.max() <= 64.0
    with Reader(tracks) as reader:
        assert np.isfinite(reader.cut(0, 400)).all()


def spoiled(dice, whole):
    """One way to spoil a file."""
    made = bytearray(whole)
    way = dice.randrange(6)
    if way == 0:
        return bytes(made[: dice.randrange(len(made))])
    if way == 1:
        for _ in range(dice.randrange(1, 12)):
            made[dice.randrange(min(len(made), 200))] = dice.randrange(256)
    elif way == 2:
        at = dice.randrange(min(len(made) - 4, 120))
        made[at : at + 4] = struct.pack("<I", dice.choice([0, 1, 2**31 - 1, 2**31, 2**32 - 1]))
    elif way == 3:
        for _ in range(200):
            made[dice.randrange(len(made))] = dice.randrange(256)
    elif way == 4:
        return dice.randbytes(dice.randrange(3000))
    else:
        at = dice.randrange(len(made))
        made[at:at] = dice.randbytes(dice.randrange(1, 60))
    return bytes(made)


def test_a_thousand_spoiled_files_are_read_or_told_of_in_words(tmp_path):
    """Each gives a report or one clear error; none crashes, hangs, or fills the memory.

    What can be read is read to its end each time, and every fourth time told of as well.
    """
    dice, an, good = random.Random(1), analyse(demo_layout()), []
    for container, end, bits in CONTAINERS:
        path = tmp_path / f"good.{end}"
        soundfile.write(path, sound(2400, 2), 48000, bits, format=container)
        good.append((end, path.read_bytes()))
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    told = set()
    for n in range(1000):
        end, whole = dice.choice(good)
        path = tmp_path / f"spoiled.{end}"
        path.write_bytes(spoiled(dice, whole))
        try:
            if n % 4:
                overview(tracks := tracks_of([path]))
                with Reader(tracks) as reader:
                    reader.cut(0, 4800)
            else:
                told_take([path], an)
            told.add("read")
        except SoundFileError as fault:
            words = str(fault)
            assert words.startswith(f"spoiled.{end}: ")
            told.add(words.split(": ", 1)[1][:10])
    assert {"read", "is damaged", "is no soun", "holds no s"} <= told
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 200_000  # kilobytes
