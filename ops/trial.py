"""How often measuring is right, wrong and refused: real recordings laid on known delays and signs.

The recordings are those of Debian's `sonic-pi-samples`, which its makers gave to the public domain
(CC0 1.0): toms, snares and kicks of a real kit. Each becomes a hit in six tracks: the drum's own
mic, and five others at known delays, signs and sizes, coloured, with reflections, a room's tail,
another instrument that still rings, and noise. Nothing of the core makes these tracks.

`python -m ops.trial` writes the table into `docs/measuring.md`.
"""

import sys
from dataclasses import dataclass
from functools import cache
from pathlib import Path

import numpy as np
from ringside.takes.hit import Cut, read_hit
from ringside.takes.pooled import DrumRead, pooled
from ringside.takes.reading import Ranges

from ops.paths import ROOT

SAMPLES = Path("/usr/share/sonic-pi/samples")
DRUMS = (
    "drum_snare_hard", "drum_snare_soft", "drum_tom_hi_hard", "drum_tom_mid_hard",
    "drum_tom_lo_hard", "drum_tom_lo_soft", "drum_heavy_kick", "drum_bass_hard", "drum_bass_soft",
)  # fmt: skip
RINGING = ("drum_cymbal_hard", "drum_splash_hard", "drum_roll")
FUNDAMENTAL_HZ = {"snare": 204.0, "tom_hi": 154.0, "tom_mid": 123.0, "tom_lo": 95.0,
                  "heavy": 63.0, "bass": 66.0}  # fmt: skip
"""Read off each recording's spectrum."""

RIGHT_S = 0.0001
"""3.4 cm: within it an arrival is right."""

HITS, OTHERS = 5, 5
BEFORE_S, AFTER_S, ACROSS_S = 0.05, 0.3, 0.03


@dataclass(frozen=True)
class Condition:
    """What stands in the way: decibels under the direct sound, None for nothing of it."""

    name: str
    noise_db: float = -70.0
    ringing_db: float | None = None
    room_db: float | None = None
    """Energy of reflections and tail under the direct sound's."""
    ordinary: bool = True
    """As in any session; else harder than most."""


CONDITIONS = (
    Condition("clean"),
    Condition("noise 40 dB under", noise_db=-40),
    Condition("another rings 24 dB under", ringing_db=-24),
    Condition("another rings 12 dB under", ringing_db=-12, ordinary=False),
    Condition("a dry room", room_db=-8),
    Condition("a live room", room_db=-2),
    Condition("beyond the critical distance", room_db=4, ordinary=False),
    Condition("a live room, another rings 24 dB under, noise 50 dB under", -50, -24, -2),
)


@cache
def sound(name: str) -> tuple[np.ndarray, int]:
    """A recording, from 5 ms before it begins, peak 1."""
    import soundfile

    made, rate = soundfile.read(SAMPLES / f"{name}.flac", always_2d=True)
    mono = made.mean(axis=1)
    lead = np.zeros(round(0.005 * rate))
    return np.concatenate([lead, mono / np.abs(mono).max()]), rate


def fundamental_of(name: str) -> float:
    """Of a recording, hertz."""
    return next(f for key, f in FUNDAMENTAL_HZ.items() if name.startswith(f"drum_{key}"))


@dataclass(frozen=True)
class Case:
    """One drum in six tracks, the first being its own mic's: what is true of the others."""

    read: DrumRead
    delay_s: np.ndarray
    sign: np.ndarray


def case(dice: np.random.Generator, condition: Condition) -> Case:
    """A drum with so many hits, measured."""
    name = str(dice.choice(DRUMS))
    _, rate = sound(name)
    f = fundamental_of(name)
    delay = np.concatenate([[0.0], dice.uniform(0.0004, 0.012, OTHERS)])
    sign = np.concatenate([[1], dice.choice([-1, 1], OTHERS)])
    size = 10 ** (np.concatenate([[0.0], dice.uniform(-24, 0, OTHERS)]) / 20)
    rooms = [None] + [_room(dice, condition, rate) for _ in range(OTHERS)]
    shelf = [(1000.0, 0.0), *((float(dice.uniform(800, 4000)), float(dice.uniform(-0.5, 0.6)))
                              for _ in range(OTHERS))]  # fmt: skip
    ranges = Ranges(f, (f / 2**0.5, f * 2**0.5), (5 * f, 6000.0), (6000.0, 18000.0))
    reads = []
    for _ in range(HITS):
        tracks = [
            _track(dice, condition, name, delay[n], sign[n] * size[n], rooms[n], shelf[n])
            for n in range(OTHERS + 1)
        ]
        cut = Cut(np.array(tracks), rate, round(BEFORE_S * rate), round(ACROSS_S * rate))
        reads.append(read_hit(cut, 0, ranges))
    return Case(pooled(0, reads, [f] * HITS), delay, sign)


def _room(dice: np.random.Generator, condition: Condition, rate: int) -> np.ndarray | None:
    """Reflections and a tail, of the energy the condition asks for."""
    if condition.room_db is None:
        return None
    length = round(0.25 * rate)
    t = np.arange(length) / rate
    made = np.zeros(length)
    for _ in range(6):
        made[round(dice.uniform(0.0015, 0.02) * rate)] += dice.uniform(0.3, 1.0)
    tail = dice.normal(size=length) * np.exp(-6.9 * t / dice.uniform(0.25, 0.7)) * (t > 0.004)
    made += tail * np.sqrt((made**2).sum() / (tail**2).sum())
    return made * 10 ** (condition.room_db / 20) / np.sqrt((made**2).sum())


def _track(
    dice: np.random.Generator, condition: Condition, name: str, delay_s: float, size: float,
    room: np.ndarray | None, shelf: tuple[float, float],
) -> np.ndarray:  # fmt: skip
    dry, rate = sound(name)
    length = round((BEFORE_S + AFTER_S) * rate)
    f = np.fft.rfftfreq(4 * length, 1 / rate)
    spectrum = np.fft.rfft(dry[:length], 4 * length)
    corner, more = shelf
    spectrum = spectrum * (1 + (1 + more) * 1j * f / corner) / (1 + 1j * f / corner)
    if room is not None:
        spectrum = spectrum * (1 + np.fft.rfft(room, 4 * length))
    late = BEFORE_S - 0.005 + delay_s
    made = np.fft.irfft(spectrum * np.exp(-2j * np.pi * f * late), 4 * length)[:length] * size
    top = float(np.abs(made).max())
    if condition.ringing_db is not None:
        other, _ = sound(str(dice.choice(RINGING)))
        start = int(dice.integers(rate // 8, len(other) - length))
        rings = other[start : start + length]
        made += rings * top * 10 ** (condition.ringing_db / 20) / max(np.abs(rings).max(), 1e-9)
    return made + dice.normal(0, top * 10 ** (condition.noise_db / 20), length)


@dataclass
class Count:
    """How often something was right, wrong and refused."""

    right: int = 0
    wrong: int = 0
    refused: int = 0
    off_s: tuple[float, ...] = ()

    @property
    def every(self) -> int:
        return self.right + self.wrong + self.refused

    def share(self, what: str) -> float:
        return float(getattr(self, what)) / max(self.every, 1)


def trial(condition: Condition, cases: int, seed: int = 1) -> tuple[Count, Count]:
    """Arrivals and signs over so many cases."""
    dice = np.random.default_rng([seed, CONDITIONS.index(condition)])
    arrivals, signs = Count(), Count()
    for _ in range(cases):
        c = case(dice, condition)
        off = c.read.lag_s - c.delay_s
        for n in range(1, OTHERS + 1):
            if not np.isfinite(off[n]):
                arrivals.refused += 1
            elif abs(off[n]) <= RIGHT_S:
                arrivals.right += 1
                arrivals.off_s += (float(off[n]),)
            else:
                arrivals.wrong += 1
            said = int(c.read.sign[n])
            if said == 0:
                signs.refused += 1
            elif said == c.sign[n]:
                signs.right += 1
            else:
                signs.wrong += 1
    return arrivals, signs


def table(cases: int) -> str:
    """Every condition, as a table."""
    lines = [
        "| In the way | Arrivals right | wrong | refused | Typical error | Signs right | wrong"
        " | refused |",
        "|---|---|---|---|---|---|---|---|",
    ]
    for condition in CONDITIONS:
        at, sign = trial(condition, cases)
        typical = 1e3 * float(np.median(np.abs(at.off_s))) if at.off_s else 0.0
        shares = [f"{100 * c.share(w):.1f} %" for c in (at, sign)
                  for w in ("right", "wrong", "refused")]  # fmt: skip
        lines.append(f"| {condition.name} | {' | '.join(shares[:3])} | {typical:.3f} ms |"
                     f" {' | '.join(shares[3:])} |")  # fmt: skip
    return "\n".join(lines)


BEGIN, END = "<!-- made by python -m ops.trial -->", "<!-- end -->"


def main(cases: int = 200) -> int:
    """Write the table into the page about measuring."""
    page = ROOT / "docs" / "measuring.md"
    made = f"{BEGIN}\n{table(cases)}\n\n{cases} drums of {HITS} hits a row.\n{END}"
    text = page.read_text() if page.is_file() else f"{BEGIN}{END}"
    head, rest = text.split(BEGIN, 1)
    page.write_text(head + made + rest.split(END, 1)[1])
    print(made)
    return 0


if __name__ == "__main__":
    sys.exit(main(*(int(a) for a in sys.argv[1:])))
