"""Options of a set: what each, up alone, does to the kit's body, to mono and to the picture."""

from dataclasses import dataclass

import numpy as np

from ringside.edits.balances import ChooseOptions
from ringside.errors import RingsideError
from ringside.pairs.analysis import Analysis
from ringside.pairs.gram import drum_ids, grams, kept_body
from ringside.pairs.stereo import MIDDLE_PERCENT, fold_down_db, off_centre_words, positions
from ringside.pairs.verdicts import Verdict
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.spoken import the
from ringside.standing.stood import analysed


@dataclass(frozen=True, kw_only=True, slots=True)
class OptionRow:
    """One option alone, in the current balance."""

    name: str
    mean_db: float
    """What it gives to the body of the drums on average, against none of the set."""
    drums: list[tuple[str, float]]
    """The same for each drum, the one that loses most first."""
    marked: int
    """Pairs that are hollow, late, or to be asked about, with it up."""
    mono_db: float | None
    """What mono keeps of snare and kick in its stereo pair; None where it is none."""
    central: bool | None
    """Whether its stereo pair has the snare in the middle; None where it is none."""
    words: str


def ranked_options(layout: Layout, set_id: str) -> list[OptionRow]:
    """The options of a set, each up alone, the best first.

    Fewer marks go first, then a snare that is not off the middle, then more body.

    Parameters
    ----------
    layout : Layout
    set_id : str
        Short name of the set.

    Returns
    -------
    list of OptionRow

    Raises
    ------
    RingsideError
        When there is no such set.
    """
    chosen = next((s for s in layout.options if s.id == set_id), None)
    if chosen is None:
        raise RingsideError(f"expected a set of options of this layout, got {set_id!r}")
    none = analysed(_with(layout, set_id, ()))
    rows = [
        (_row(none, analysed(_with(layout, set_id, (o.name,))), o.name, set(o.channels)), n)
        for n, o in enumerate(chosen.options)
    ]
    rows.sort(key=lambda r: (r[0].marked, r[0].central is False, -round(r[0].mean_db, 1), r[1]))
    return [r for r, _ in rows]


def _with(layout: Layout, set_id: str, used: tuple[str, ...]) -> Layout:
    return ChooseOptions(do="choose", set=set_id, used=used).on(layout).layout


def _row(none: Analysis, an: Analysis, name: str, channels: set[str]) -> OptionRow:
    ones = np.ones(len(an.layout.mics))
    gain = 10 * np.log10(kept_body(grams(an), ones) / kept_body(grams(none), ones))
    drums = sorted(
        ((d, round(float(g), 2)) for d, g in zip(drum_ids(an), gain, strict=True)),
        key=lambda r: r[1],
    )
    pair = _own_pair(an.layout, channels)
    mono, central, snare = (None, None, "") if pair is None else _picture(an, pair)
    marked = int((an.pairs.worst > Verdict.TOGETHER).sum())
    mean = round(float(gain.mean()), 2)
    worst, least = drums[0]
    return OptionRow(
        name=name,
        mean_db=mean,
        drums=drums,
        marked=marked,
        mono_db=mono,
        central=central,
        words=_words(name, mean, (the(an.layout.kit.part(worst).name), least), marked, mono, snare),
    )


def _own_pair(layout: Layout, channels: set[str]) -> StereoPair | None:
    """The stereo pair that an option is of."""
    mics = {c.mic for c in layout.channels if c.id in channels}
    return next((p for p in layout.stereo_pairs if {p.left, p.right} <= mics), None)


def _picture(an: Analysis, pair: StereoPair) -> tuple[float, bool, str]:
    s = an.scene.sources
    percent, lost = positions(an, pair)
    kept = fold_down_db(an, pair)["body"][s.reference]
    k = s.ids.index(an.layout.kit.first("snare").id)
    where = off_centre_words(s.names[k], float(percent[k]), not bool(lost[k]))
    central = bool(abs(percent[k]) < MIDDLE_PERCENT and not lost[k])
    return round(float(kept.mean()), 1), central, where


def _words(
    name: str, mean: float, worst: tuple[str, float], marked: int, mono: float | None, snare: str,
) -> str:  # fmt: skip
    drum, least = worst
    said = [f"{name}: {mean:+z.1f} dB of body on average, {least:+z.1f} on {drum}"]
    said.append(f"{marked} pair{'s' if marked != 1 else ''} marked")
    if mono is not None:
        said.append(f"mono keeps {mono:+z.1f} dB of snare and kick")
    return "; ".join(said) + (f". {snare}" if snare else ".")
