"""Figures of takes: how fast one is measured and in how much memory, and how fast one is made."""

import json
import re
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

from ops.benchrow import Row
from ops.paths import PYTHON, ROOT

TRACKS, SECONDS, EACH = 24, 180.0, 22


def made(folder: Path) -> tuple[Path, list[Path]]:
    """A take of 24 tracks and 3 minutes in the open, and the file of its layout."""
    from ringside.files.layout import write_layout
    from ringside.recorder.played import hit_list
    from ringside.recorder.recording import Take, write

    from ops.bench import big_layout

    layout = big_layout(TRACKS, 9).model_copy(update={"room": None})
    apart = (SECONDS - 3) / (EACH * len(layout.kit.drums))
    played = hit_list(layout.kit, each=EACH, apart_s=apart)
    file = folder / "layout.json"
    file.write_text(write_layout(layout))
    return file, write(Take(layout, tuple(played)), folder / "take")


def megabytes() -> float:
    """The most this process has held; the kernel's other figure counts what its parent had."""
    said = Path("/proc/self/status").read_text()
    return float(re.search(r"VmHWM:\s+(\d+) kB", said)[1]) / 1024  # type: ignore[index]


def measured(layout: Path, files: list[Path]) -> dict[str, Any]:
    """Seconds to measure it and to just read it, and megabytes; in this process alone."""
    import scipy.fft  # what is loaded once is not measured
    import scipy.signal  # noqa: F401
    import soundfile
    from ringside.files.layout import read_layout
    from ringside.pairs.analysis import analyse
    from ringside.takes.report import told_take

    analysis = analyse(read_layout(layout.read_bytes()))
    began = time.perf_counter()
    told, _, _ = told_take(files, analysis)
    took = time.perf_counter() - began
    began = time.perf_counter()
    for path in files:
        with soundfile.SoundFile(str(path)) as file:
            while len(file.read(65_536, dtype="float32")):
                pass
    return {
        "seconds": told.seconds, "took": took, "read": time.perf_counter() - began,
        "megabytes": megabytes(),
        "hits": sum(1 for h in told.hits if not h.out),
    }  # fmt: skip


def recorded() -> tuple[float, float]:
    """Seconds of a simulated take of the demo, and of the room's responses in it alone."""
    from ringside.files.layout import read_layout
    from ringside.recorder.acoustics import faces, responses
    from ringside.recorder.played import hit_list
    from ringside.recorder.recording import Take

    layout = read_layout((ROOT / "demo" / "b-turned-pair.layout.json").read_bytes())
    responses(layout, faces(layout), 48_000, 0)  # loaded once
    whole, alone = [], []
    for _ in range(3):  # turn about, so that a slow moment of the machine meets both
        began = time.perf_counter()
        responses(layout, faces(layout), 48_000)
        alone.append(time.perf_counter() - began)
        began = time.perf_counter()
        take = Take(layout, tuple(hit_list(layout.kit)))
        for n in range(len(take.channels)):
            take.channel(n)
        whole.append(time.perf_counter() - began)
    return statistics.median(whole), statistics.median(alone)


def rows() -> list[Row]:
    """The rows of the bench."""
    whole, alone = recorded()
    with tempfile.TemporaryDirectory() as folder:
        layout, files = made(Path(folder))
        command = [str(PYTHON), "-m", "ops.benchtakes", str(layout), *map(str, files)]
        said = subprocess.run(command, cwd=ROOT, check=True, capture_output=True, text=True)
        found = json.loads(said.stdout)
    return [
        Row(f"take of {TRACKS} tracks, {found['seconds']:.0f} s, {found['hits']} hits: times real"
            " time", found["seconds"] / found["took"], "times", 40, least=True),
        Row("take: against just reading the files", found["took"] / found["read"], "times", None),
        Row("take: memory", found["megabytes"], "MB", 300),
        Row("simulated take: against its room alone", whole / alone, "times", 1.5),
    ]  # fmt: skip


if __name__ == "__main__":
    layout_file, *sound = (Path(p) for p in sys.argv[1:])
    print(json.dumps(measured(layout_file, sound)))
