"""How well mics are placed by hits: takes of the simulated recorder, and figures alone.

The recorder's sound goes by another model than the core's, so those takes show what measuring and
placing make of sound; but its strokes land in the middle of every head. Figures show what is left
where strokes land elsewhere, mics stand by eye and lengths are read as roughly as trial takes show.

`python -m ops.placetrial` writes the table into `docs/measuring.md`.
"""

import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cache
from pathlib import Path

import numpy as np
from ringside.arrays import Floats
from ringside.files.layout import read_layout
from ringside.hear.arrivals import arrivals
from ringside.pairs.analysis import Analysis, analyse
from ringside.plan.layout import Layout
from ringside.recorder.played import hit_list
from ringside.recorder.recording import Take, write
from ringside.recorder.wrong import Wrong
from ringside.takes.places import PRIOR, Placed, Readings, places_of, readings_of
from ringside.takes.reading import read_take

from ops.paths import ROOT

DRUMS = ("kick", "snare", "rack-1", "rack-2", "floor")
EVERY = (*DRUMS, "hats", "crash-l", "crash-r", "ride")
OFF_M = 0.05
"""One standard deviation, each way, that overheads stand from the plan."""

INSIDE = 7.815
"""The 95 % point of chi squared with three degrees of freedom."""


@dataclass(frozen=True)
class World:
    """Figures: how well lengths are read, how far strokes and close mics are off."""

    read_m: float = 0.007
    alike: bool = True
    """Read equally well in every take; else takes differ as much as the adjustment supposes."""
    stroke_m: float = 0.01
    """Root mean square, any way in the head."""
    near_m: float = 0.03
    sources: tuple[str, ...] = DRUMS


@dataclass(frozen=True)
class Sounded:
    """A take of the recorder."""

    name: str
    near_m: float = 0.0
    sources: tuple[str, ...] = DRUMS
    room: bool = False
    each: int = 5


def demo() -> Layout:
    """The demo's layout with five drums, ten mics, a room."""
    return read_layout((ROOT / "demo" / "b-turned-pair.layout.json").read_bytes())


@cache
def planned(sources: tuple[str, ...]) -> tuple[Analysis, Readings]:
    """The demo as planned, and what its tracks read of these sources where all stands so."""
    an = analyse(demo())
    s, mics, time = an.scene.sources, an.layout.mics, an.arrivals.time_s
    rows = []
    for k in (s.ids.index(name) for name in sources):
        near = [m for m, mic in enumerate(mics) if mic.job == s.ids[k]] or range(len(mics))
        own = min(near, key=lambda m, k=k: time[m, k])
        rows += [(m, own, k) for m in range(len(mics)) if m != own]
    mic, own, source = np.array(rows).T
    return an, Readings(mic, own, source, np.zeros(len(mic)), np.full(len(mic), 2e-5))


def figures(dice: np.random.Generator, world: World) -> tuple[Analysis, Floats, Readings]:
    """Where mics stand, (M, 3), and what is read of it."""
    an, r = planned(world.sources)
    s, at = an.scene.sources, an.scene.capsule.copy()
    for n, mic in enumerate(an.layout.mics):
        at[n] += dice.normal(0, world.near_m if mic.role == "close" else OFF_M, 3)
    across = np.linalg.svd(s.axis[:, None, :])[2][:, 1:]
    hit = dice.normal(0, world.stroke_m / np.sqrt(2), (len(s.ids), 2))
    struck = s.strike + np.einsum("sk,ski->si", hit, across)
    way = arrivals(replace(an.scene, capsule=at), an.layout.thresholds).path_m
    way = way + np.linalg.norm(at[:, None] - struck, axis=-1)
    way = way - np.linalg.norm(at[:, None] - s.strike, axis=-1)
    read = world.read_m * (1.0 if world.alike else np.sqrt(PRIOR / dice.chisquare(PRIOR)))
    off = dice.normal(0, read, len(r.mic))
    lag = (way[r.mic, r.source] - way[r.own, r.source] + off) / an.scene.speed
    return an, at, replace(r, lag_s=lag)


def sounded(seed: int, how: Sounded) -> tuple[Analysis, Floats, Readings]:
    """The same of a take that was recorded and measured."""
    dice = np.random.default_rng(seed)
    layout = demo() if how.room else demo().model_copy(update={"room": None})
    stood = layout
    for mic in layout.mics:
        by = dice.normal(0, how.near_m if mic.role == "close" else OFF_M, 3)
        at = tuple(float(a + b) for a, b in zip(mic.position_m, by, strict=True))
        stood = stood.with_mic(mic.model_copy(update={"position_m": at}))
    played = hit_list(layout.kit, how.sources, how.each, seed=seed)
    with tempfile.TemporaryDirectory() as folder:
        files = write(Take(stood, tuple(played), Wrong(), seed, order=1), Path(folder))
        take = read_take(files, analyse(layout))
    at = np.array([m.position_m for m in stood.mics])
    return take.analysis, at, readings_of(take)


Case = tuple[Analysis, Floats, Readings]


def placed(cases: Iterator[Case]) -> Iterator[tuple[Placed, Floats]]:
    """Every overhead, and how far from the truth it is told, (3,) metres."""
    for an, at, readings in cases:
        for found in places_of(an, readings):
            yield found, found.at - at[found.mic]


def row(name: str, cases: Iterator[Case]) -> str:
    """Of a table."""
    made = list(placed(cases))
    far = [float(np.linalg.norm(off)) for _, off in made]
    held = [off @ np.linalg.solve(p.covariance, off) < INSIDE for p, off in made]
    told = np.median([p.radius_m for p, _ in made])
    return (f"| {name} | {len(made)} | {100 * np.median(far):.1f} cm |"
            f" {100 * np.quantile(far, 0.95):.1f} cm | {100 * told:.1f} cm |"
            f" {100 * np.mean(held):.0f} % |")  # fmt: skip


TAKES = (
    Sounded("five drums, in the open"),
    Sounded("five drums, in the demo's room", room=True),
    Sounded("five drums, close mics a centimetre off the plan", near_m=0.01),
    Sounded("with the cymbals, close mics a centimetre off", near_m=0.01, sources=EVERY),
)
WORLDS = {
    "figures: five drums, as unsure as it is told": World(alike=False),
    "figures: the same, and the cymbals": World(alike=False, sources=EVERY),
    "figures: every take read as well as the trial takes": World(),
    "figures: strokes twice as far off the middle": World(stroke_m=0.02),
    "figures: read twice as roughly": World(read_m=0.014),
    "figures: close mics twice as far off the plan": World(near_m=0.06),
}
BEGIN, END = "<!-- made by python -m ops.placetrial -->", "<!-- placed -->"


def table(takes: int, cases: int) -> str:
    """Every take and world, as a table."""
    lines = [
        "| Heard | Overheads | Typical error | 95 of 100 within | Told, the worst way | Held it |",
        "|---|---|---|---|---|---|",
    ]
    for n, how in enumerate(TAKES):
        lines.append(row(how.name, (sounded(1000 * n + k, how) for k in range(takes))))
    for name, world in WORLDS.items():
        dice = np.random.default_rng(1)
        lines.append(row(name, (figures(dice, world) for _ in range(cases))))
    return "\n".join(lines)


def main(takes: int = 15, cases: int = 1000) -> int:
    """Write the table into the page about measuring."""
    page = ROOT / "docs" / "measuring.md"
    made = f"{BEGIN}\n{table(takes, cases)}\n{END}"
    head, rest = page.read_text().split(BEGIN, 1)
    page.write_text(head + made + rest.split(END, 1)[1])
    print(made)
    return 0


if __name__ == "__main__":
    sys.exit(main(*(int(a) for a in sys.argv[1:])))
