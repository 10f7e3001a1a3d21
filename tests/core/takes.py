"""Takes for tests: simulated ones, and drums that are only figures."""

from functools import cache
from pathlib import Path
from types import SimpleNamespace

import numpy as np
from ringside.files.layout import read_layout
from ringside.pairs.analysis import analyse
from ringside.recorder.played import hit_list
from ringside.recorder.recording import Take, write
from ringside.recorder.wrong import Wrong
from ringside.takes.misfit import Strokes
from ringside.takes.pooled import DrumRead
from ringside.takes.reading import TakeRead

from ops.paths import ROOT


@cache
def demo_layout(name="b-turned-pair"):
    return read_layout((ROOT / "demo" / f"{name}.layout.json").read_bytes())


def recorded(folder: Path, wrong=None, *, sources=(), each=3, seed=1, layout=None, **how):
    """A simulated take as files: in the open, to be quick, or by the room of a `layout`."""
    layout = layout or demo_layout().model_copy(update={"room": None})
    played = hit_list(layout.kit, sources, each, seed=seed)
    take = Take(layout, tuple(played), wrong or Wrong(), seed, order=1)
    return write(take, folder, **how), take


def heard_drum(an, source, own, mics, noise_s, dice, stands=None):
    """A drum as it would be measured where everything stands as `stands` has it."""
    true = (stands or an).arrivals
    lag = true.time_s[mics, source] - true.time_s[mics[own], source]
    lag = lag + dice.normal(0, noise_s, len(mics))
    lag[own] = 0.0
    sign = true.raw_sign[mics, source] * true.raw_sign[mics[own], source]
    sure = true.sign[mics, source] * true.sign[mics[own], source]
    count = len(mics)
    level = (true.level_db + an.scene.sources.peak_db)[mics, source]
    return DrumRead(
        source=source, own=own, hits=5, lag_s=lag, deviation_s=np.full(count, noise_s),
        sign=np.where(sure == 0, 0, sign), way=sign, late_why=("",) * count,
        sign_why=("",) * count, products=np.ones((1, 3, count, count)),
        energy_db=np.tile(level, (3, 1)), heard=np.ones((3, count), dtype=bool),
        fundamental_hz=None, fundamental_spread_hz=0.0,
    )  # fmt: skip


@cache
def _planned(layout):
    """Of a layout that many cases are held against, once."""
    return analyse(layout)


def figures(layout, stands=None, noise_s=0.00002, seed=0, sources=None):
    """A take that is figures alone: of a layout as planned, heard as it `stands`."""
    an = _planned(layout)
    true = analyse(stands) if stands is not None else None
    dice = np.random.default_rng(seed)
    mics = list(range(len(layout.mics)))
    drums = []
    for k, name in enumerate(an.scene.sources.ids):
        own = [m for m in mics if layout.mics[m].job == name]
        if (sources is None and an.scene.sources.drum[k]) or name in (sources or ()):
            first = min(own or mics, key=lambda m: an.arrivals.time_s[m, k])
            drums.append(heard_drum(an, k, first, mics, noise_s, dice, true))
    channels = [c.id for c in layout.channels]
    struck = [d.source for d in drums]
    level = (an.arrivals.level_db + an.scene.sources.peak_db)[mics]
    strokes = Strokes(
        at_s=(true or an).arrivals.time_s[mics][:, struck].T,
        over_noise=np.full((len(struck), len(mics)), 100.0),
        under_db=(level - level.max(axis=1, keepdims=True))[:, struck].T,
    )
    return TakeRead(
        analysis=an, tracks=(), matched=tuple(SimpleNamespace(channel=c) for c in channels),
        rows=tuple(mics), mics=tuple(mics), seen=SimpleNamespace(rate_hz=48000), hits=(),
        drums=tuple(drums), each={}, strokes=strokes,
    )  # fmt: skip
