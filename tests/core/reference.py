"""What the core decides about some layouts, usual and not, kept: a change of it must be meant.

`python -m tests.core.reference` from the root of the project writes reference.json anew; read what
differs before you keep it. The numbers themselves are checked against outside sources elsewhere;
here it is held that nothing else moves when one thing is changed.
"""

import dataclasses
import json
from pathlib import Path

import numpy as np
from ringside.answers.nearness import nearness
from ringside.answers.remedies import remedies
from ringside.answers.sentences import verdict_words, why
from ringside.files.layout import read_layout
from ringside.fitting.fit import fit
from ringside.fitting.work import FitAsk
from ringside.pairs.analysis import analyse
from ringside.pairs.delays import bands_db, body_by_delay
from ringside.pairs.flips import best_flips
from ringside.pairs.onebyone import order_of, steps
from ringside.pairs.pictures import pictures
from ringside.pairs.uncertainty import deviation_s, tips
from ringside.plan.hanging import with_mics
from ringside.plan.kit import Kit, centre_of
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.survey.readings import read
from ringside.survey.report import tape_report
from ringside.values import Record

from tests.core.scenes import SCENES, near_things

ROOT = Path(__file__).resolve().parents[2]
FILE = Path(__file__).parent / "reference.json"
DEMOS = sorted((ROOT / "demo").glob("*.layout.json"))


def plain(value):
    """Records as dictionaries, arrays as lists, numbers with six figures."""
    if isinstance(value, (Layout, Kit)):
        return value.name
    if isinstance(value, Record):
        return plain(value.model_dump())
    if dataclasses.is_dataclass(value):
        return {f.name: plain(getattr(value, f.name)) for f in dataclasses.fields(value)}
    if isinstance(value, dict):
        return {str(k): plain(v) for k, v in value.items()}
    if isinstance(value, (list, tuple, np.ndarray)):
        return [plain(v) for v in value]
    if isinstance(value, (bool, np.bool_)):
        return bool(value)
    if isinstance(value, (int, np.integer)):
        return int(value)
    if isinstance(value, (float, np.floating)):
        return float(f"{float(value):.5g}") + 0.0
    return value


def some_pairs(an):
    """The gravest pair of each verdict, and the stereo pairs."""
    gravest = {int(v): r for r, v in reversed(list(enumerate(an.pairs.worst.tolist())))}
    ids = [m.id for m in an.layout.mics]
    named = [(ids[an.pairs.first[r]], ids[an.pairs.second[r]]) for r in gravest.values()]
    return [*named, *((p.right, p.left) for p in an.layout.stereo_pairs)]


def of_pair(an, a, b):
    row, turned, k = an.find(a, b)
    return {
        "remedies": remedies(an, a, b),
        "why": why(an, row, k),
        "bands": bands_db(an, row, k),
        "by delay": [
            (c.best_move, c.equal_s, c.words)
            for c in (body_by_delay(an, row, k, way) for way in (turned, not turned))
        ],
        "words": [verdict_words(an, row, n) for n in range(len(an.scene.sources.ids))],
        "deviation": deviation_s(an)[row] * 1e6,
        "tips": tips(an)[row],
    }


def knocked(layout):
    """The layout with every mic a little off, the same way each time."""
    dice = np.random.default_rng(12)
    off = dice.uniform(-0.04, 0.04, (len(layout.mics), 3))
    return with_mics(layout, tuple(
        m.model_copy(update={"position_m": tuple(np.round(np.add(m.position_m, d), 4).tolist())})
        for m, d in zip(layout.mics, off, strict=True)
    ))  # fmt: skip


def of_layout(layout):
    an = analyse(layout)
    close = [m.id for m in layout.mics if m.role == "close" and m.job in ("snare", "rack1", "kick")]
    return {
        "pairs": {f"{a} {b}": of_pair(an, a, b) for a, b in some_pairs(an)},
        "flips": best_flips(an),
        "one by one": [steps(an, order_of(layout, s)) for s in ("overheads", "kick")],
        "pictures": pictures(an),
        "nearness": {m: nearness(layout, m).words for m in close},
        "fit": fit(knocked(layout), FitAsk()),
    }


def of_kit():
    """A kit taped as it is asked for, and then once more with one reading wrong."""
    kit = five_piece()
    at = {p.id: np.array(centre_of(p)) for p in kit.parts}
    asked = []
    for _ in range(26):
        ask = tape_report(kit).next
        if ask is None:
            break
        a, b = ask.a, ask.b
        metres = float(at[a][2]) if b is None else float(np.linalg.norm(at[a] - at[b]))
        wrong = 0.06 if len(asked) == 12 else 0.0
        kit = read(kit, a, b, metres + wrong)
        report = tape_report(kit)
        asked.append((ask, report.words, [r.state for r in report.readings]))
    return asked, tape_report(kit)


def everything():
    return {name: plain(made()) for name, made in KEPT.items()}


def kept():
    """By name, how each thing that is kept is made anew."""
    for file in DEMOS:
        yield file.stem, lambda file=file: of_layout(read_layout(file.read_text()))
    yield "near everything", lambda: of_layout(near_things())
    yield "tape", of_kit
    yield from SCENES.items()


KEPT = dict(kept())


if __name__ == "__main__":
    FILE.write_text(
        json.dumps(everything(), indent=None, ensure_ascii=False, separators=(",", ":")) + "\n"
    )
