"""Sentences about a pair and a drum: what was found, why, and where each number comes from."""

from dataclasses import dataclass

import numpy as np

from ringside.hear.arrivals import Doubt
from ringside.hear.sums import ripple_db
from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import Verdict


def verdict_words(an: Analysis, row: int, source: int) -> str:
    """One sentence: the verdict on a pair and source with its reason and numbers.

    Parameters
    ----------
    an : Analysis
    row : int
        The pair, by number.
    source : int
        The drum or cymbal, by number.

    Returns
    -------
    str
    """
    p = an.pairs
    a, b = (an.layout.mics[int(i[row])].id for i in (p.first, p.second))
    drum = an.scene.sources.names[source].lower()
    verdict = Verdict(int(p.verdict[row, source]))
    delay = float(p.delay_s[row, source])
    late = b if delay > 0 else a
    ms = abs(delay) * 1e3
    gain = float(p.flipped_body_db[row, source] - p.body_db[row, source])
    if verdict == Verdict.NO_MATTER:
        return _no_matter(an, row, source, a, b, drum)
    if verdict == Verdict.ASK_THE_EAR:
        return _unsure(an, row, source, drum)
    if verdict == Verdict.HOLLOW:
        if p.raw_sign[row, source] < 0:
            return (
                f"{a} and {b} are pushed opposite ways by the {drum}:"
                f" flipping one gains {gain:.1f} dB of body."
            )
        return (
            f"Both are pushed the same way, but {late} is {ms:.2f} ms late, about half a wave of"
            f" the {drum}'s body: flipping one gains {gain:.1f} dB."
        )
    if verdict == Verdict.LATE:
        return (
            f"{late} is {ms:.2f} ms late on the {drum}: the sum dips at"
            f" {_hz(float(p.dip_hz[row, source]))}, inside the band it works in."
        )
    if not an.scene.sources.drum[source]:
        return f"{ms:.2f} ms apart on the {drum}; a cymbal has no body to lose."
    if p.raw_sign[row, source] < 0:
        return (
            f"The {drum} reaches them with opposite signs, {ms:.2f} ms apart: the delay turns the"
            f" body round again, so as wired is the fuller way."
        )
    return f"{ms:.2f} ms apart on the {drum}, pushed the same way: no dip in the band that counts."


def _hz(f: float) -> str:
    return f"{f / 1000:.1f} kHz" if f >= 1000 else f"{f:.0f} Hz"


def _no_matter(an: Analysis, row: int, source: int, a: str, b: str, drum: str) -> str:
    p = an.pairs
    level = float(p.level_difference_db[row, source])
    if abs(level) >= an.layout.thresholds.no_matter_level_db:
        quiet = a if level > 0 else b
        return (
            f"After gain {quiet} hears the {drum} {abs(level):.1f} dB under the other:"
            " too far apart for a comb to be heard."
        )
    return f"Both hear the {drum} only as bleed; a mic that hears it far better covers the two."


def _unsure(an: Analysis, row: int, source: int, drum: str) -> str:
    p, heard = an.pairs, an.arrivals
    both = (int(p.first[row]), int(p.second[row]))
    who = [an.layout.mics[i].id for i in both if heard.sign[i, source] == 0]
    why = max(Doubt(int(heard.doubt[i, source])) for i in both)
    if why == Doubt.REFLECTION:
        return (
            f"A reflection may reach {' and '.join(who)} stronger than the {drum} does straight,"
            " so its sign cannot be planned: flip one, listen, keep the fuller."
        )
    where = "in the null of its pattern" if why == Doubt.NULL else "near the plane of the head"
    verb = "is" if len(who) == 1 else "are"
    return (
        f"{' and '.join(who)} {verb} {where} for the {drum}, so the first half-wave may go"
        " either way: flip one, listen, keep the fuller."
    )


def _ripple(g: float) -> str:
    return f"{float(ripple_db(g)):.1f} dB" if g < MATCHED else "down to nothing"


MATCHED = 0.999
"""Ratios above this cancel as far as anybody can measure."""


@dataclass(frozen=True, kw_only=True, slots=True)
class WhyRow:
    """A formula with its values and where it comes from."""

    title: str
    formula: str
    source: str


def why(an: Analysis, row: int, source: int) -> list[WhyRow]:
    """The formulas behind a pair's numbers on a source, with their values and sources.

    Parameters
    ----------
    an : Analysis
    row : int
        The pair, by number.
    source : int
        The drum or cymbal, by number.

    Returns
    -------
    list of WhyRow
    """
    p, s, heard = an.pairs, an.scene.sources, an.arrivals
    i, j = int(p.first[row]), int(p.second[row])
    a, b = an.layout.mics[i].id, an.layout.mics[j].id
    c, band = an.scene.speed, s.bands[source]
    dt, g = float(p.delay_s[row, source]), float(p.ratio[row, source])
    sign = int(p.raw_sign[row, source])
    dips = "(2n+1)/(2Δt)" if sign > 0 else "n/Δt"
    return [
        WhyRow(
            title="Arrival",
            formula=f"{b}: {heard.path_m[j, source]:.4f} m / {c:.1f} m/s"
            f" - {a}: {heard.path_m[i, source]:.4f} m / {c:.1f} m/s = {dt * 1e3:+.3f} ms",
            source="c = 343.2·√(T/293.15 K), ISO 9613-1:1993",
        ),
        WhyRow(
            title="Level after gain",
            formula=f"{a} {heard.after_gain_db[i, source]:+.1f} dB,"
            f" {b} {heard.after_gain_db[j, source]:+.1f} dB against the job of each;"
            f" g = {g:.3f}, ripple {_ripple(g)}",
            source="20·log(|a+(1-a)·cos θ| / distance), gain brings each job to one peak",
        ),
        WhyRow(
            title="Dip",
            formula=f"{dips} with Δt = {abs(dt) * 1e3:.3f} ms:"
            f" {_hz(float(p.dip_hz[row, source]))}; judged from {_hz(band.body_low)}"
            f" to {_hz(float(p.band_high_hz[row, source]))}",
            source="|1 ± g·exp(-j2πfΔt)|, interference of two equal waves",
        ),
        WhyRow(
            title="Body",
            formula=f"octave round {_hz(band.fundamental)} ({_known(an, source)}): as wired"
            f" {p.body_db[row, source]:+.1f} dB, flipped {p.flipped_body_db[row, source]:+.1f} dB",
            source="energy of the sum over the band, against the louder mic alone",
        ),
    ]


def _known(an: Analysis, source: int) -> str:
    """Where a fundamental comes from."""
    part = an.layout.kit.parts[source]
    known = getattr(part, "fundamental_hz", None) is not None
    return "as tuned or measured" if known else "estimated from kind and size"


FREQUENCIES = np.geomspace(30.0, 16000.0, 140)
"""Hz, the points of every drawn sum curve."""
