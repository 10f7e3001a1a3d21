"""Sentences about a pair and a drum: what was found, why, and where each number comes from."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, NamedTuple

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.hear.bands import tuning_from
from ringside.hear.byair import Doubt
from ringside.hear.sums import ripple_db
from ringside.pairs.analysis import Analysis, Pairs
from ringside.pairs.kinds import side_mics
from ringside.pairs.known import signed_db, told_db
from ringside.pairs.stereo import fold_down_db, off_centre_words, positions
from ringside.pairs.verdicts import Kind, Verdict, swing_db
from ringside.plan.spoken import head, the


def verdict_words(an: Analysis, row: int, source: int) -> str:
    """One sentence or two: the verdict on a pair and source with its reason and numbers.

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
    on = _On.of(an, row, source)
    said = _SAID[on.told.verdict[row][source]](on)
    return said + _raised(on) if on.told.crushed else said


def _raised(on: "_On") -> str:
    """That a compressed mic has more of a drum that is not its own."""
    own = on.an.scene.sources.ids[on.source]
    crushed = [m for m in (on.a, on.b) if m in on.told.crushed]
    raised = [m for m in crushed if on.an.layout.mic(m).job != own and on.told.heard[m]]
    if not raised:
        return ""
    verb = "is" if len(raised) == 1 else "are"
    return f" {' and '.join(raised)} {verb} compressed, which raises {on.drum} in it."


@dataclass(frozen=True, slots=True)
class _Told:
    """What every sentence asks for, as plain lists: a table asks for tens of thousands of them."""

    mics: list[tuple[str, str]]  # the two of each pair, short names
    heard: dict[str, bool]  # in the current balance
    crushed: set[str]  # mics of which something is compressed
    drums: list[str]
    kinds: list[Kind]
    verdict: list[list[int]]
    delay_s: list[list[float]]
    gain_db: list[list[float]]
    level_db: list[list[float]]
    raw: list[list[int]]

    @classmethod
    def of(cls, an: Analysis) -> "_Told":
        """Made at the first sentence about an analysis."""
        if "told" not in an.kept:
            p, ids = an.pairs, [m.id for m in an.layout.mics]
            an.kept["told"] = cls(
                mics=[(ids[i], ids[j]) for i, j in zip(p.first, p.second, strict=True)],
                heard=dict(zip(ids, an.scene.heard.tolist(), strict=True)),
                crushed={
                    m for m, v in zip(ids, an.scene.voices, strict=True) if any(x.crush for x in v)
                },
                drums=[the(name) for name in an.scene.sources.names],
                kinds=[Kind(k) for k in p.kind.tolist()],
                verdict=p.verdict.tolist(),
                delay_s=p.delay_s.tolist(),
                gain_db=(p.flipped_body_db - p.body_db).tolist(),
                level_db=p.level_difference_db.tolist(),
                raw=p.raw_sign.tolist(),
            )
        told: _Told = an.kept["told"]
        return told


class _On(NamedTuple):
    """A pair on a source, as sentences need it."""

    an: Analysis
    told: _Told
    row: int
    source: int
    a: str
    b: str
    drum: str
    kind: Kind
    delay: float  # seconds, above zero where b is later

    @classmethod
    def of(cls, an: Analysis, row: int, source: int) -> "_On":
        told = _Told.of(an)
        delay = told.delay_s[row][source]
        return cls(
            an, told, row, source, *told.mics[row], told.drums[source], told.kinds[row], delay
        )

    @property
    def gain(self) -> float:
        """Of a flip, decibels."""
        return self.told.gain_db[self.row][self.source]

    @property
    def raw(self) -> int:
        return self.told.raw[self.row][self.source]

    @property
    def late(self) -> str:
        return self.b if self.delay > 0 else self.a

    @property
    def early(self) -> str:
        return self.a if self.delay > 0 else self.b

    @property
    def ms(self) -> str:
        return f"{abs(self.delay) * 1e3:.2f} ms"

    @property
    def has_body(self) -> bool:
        return bool(self.an.scene.sources.drum[self.source])


def _hz(f: float) -> str:
    return f"{f / 1000:.1f} kHz" if f >= 1000 else f"{f:.0f} Hz"


def _no_matter(on: _On) -> str:
    if on.kind == Kind.SIDE:
        side, other = _side_first(on)
        return (
            f"{side} is a side: it has {on.drum} in both speakers with opposite signs, gone in"
            f" mono. What counts is {other} with its mid."
        )
    silent = [n for n in (on.a, on.b) if not on.told.heard[n]]
    if silent:
        return f"{' and '.join(silent)} {'is' if len(silent) == 1 else 'are'} not heard."
    level = on.told.level_db[on.row][on.source]
    limits = on.an.layout.thresholds
    if on.kind != Kind.DECODED and abs(level) >= limits.no_matter_level_db:
        quiet = on.a if level > 0 else on.b
        return (
            f"After gain {quiet} hears {on.drum} {abs(level):.1f} dB under the other:"
            " too far apart for a comb to be heard."
        )
    most = float(swing_db(on.an.pairs.share[on.row, on.source]))
    return (
        f"In this balance the two take {most:.1f} dB from {on.drum} at most: what else is up"
        " covers the two."
    )


def _side_first(on: _On) -> tuple[str, str]:
    sides = {on.an.layout.mics[i].id for i in side_mics(on.an.layout)}
    return (on.a, on.b) if on.a in sides else (on.b, on.a)


def _behind(on: _On) -> str:
    said = f"{on.late} is {on.ms} behind {on.early} on {on.drum}: heard as distance, not as a comb."
    if not on.has_body:
        return said
    p = on.an.pairs
    if p.sign[on.row, on.source] == 0:
        return f"{said} Which way either is pushed is unsure and makes little of its body."
    wired, flipped = (
        signed_db(float(x[on.row, on.source])) for x in (p.body_db, p.flipped_body_db)
    )
    return f"{said} Body {wired} as wired, {flipped} with one flipped."


def _together(on: _On) -> str:
    if on.kind == Kind.DECODED:
        side, mid = _side_first(on)
        return (
            f"Decoded they make left and right of {on.drum}; mono is {mid} alone. Flipping"
            f" {side} changes left and right over."
        )
    if on.kind == Kind.PICTURE:
        return _in_picture(on)
    if not on.has_body:
        return f"{on.ms} apart on {on.drum}; a cymbal has no body to lose."
    if on.an.pairs.sign[on.row, on.source] == 0:
        return (
            f"{on.ms} apart on {on.drum}. Which way either is pushed is unsure, but a flip"
            " makes little of its body."
        )
    if on.raw < 0:
        return (
            f"{head(on.drum)} reaches them with opposite signs, {on.ms} apart: the delay turns the"
            " body round again, so as wired is the fuller way."
        )
    return f"{on.ms} apart on {on.drum}, pushed the same way: no dip in the band that counts."


def _in_picture(on: _On) -> str:
    """Where a stereo pair has a source, and what mono keeps of it."""
    an, k = on.an, on.source
    percent, lost, body = _pictured(on)
    placed = not (bool(lost[k]) and int(an.pairs.sign[on.row, k]) != 0)
    where = off_centre_words(an.scene.sources.names[k], float(percent[k]), placed)
    if not on.has_body:
        return f"{on.ms} apart on {on.drum}, and the pair tells left from right by it. {where}"
    kept = signed_db(float(body[k]))
    return f"{on.ms} apart on {on.drum}. {where} In mono it keeps {kept} of its body."


def _pictured(on: _On) -> tuple[Floats, Mask, Floats]:
    """Where the pair has each source, which have no place, and what mono keeps of each body."""
    an, name = on.an, f"picture {on.a} {on.b}"
    if name not in an.kept:
        pair = next(p for p in an.layout.stereo_pairs if {p.left, p.right} == {on.a, on.b})
        an.kept[name] = (*positions(an, pair), fold_down_db(an, pair)["body"])
    seen: tuple[Floats, Mask, Floats] = an.kept[name]
    return seen


def _hollow(on: _On) -> str:
    gain = told_db(on.gain)
    if on.raw < 0:
        return (
            f"{on.a} and {on.b} are pushed opposite ways by {on.drum}:"
            f" flipping one gains {gain} of body."
        )
    f = on.an.scene.sources.fundamentals[on.source]
    if abs(on.delay) * f < QUARTER:
        return (
            f"Both are pushed the same way by {on.drum}, but a low cut or nearness turns the"
            f" low end of one round: flipping one gains {gain} of body."
        )
    return (
        f"Both are pushed the same way, but {on.late} is {on.ms} late, about half a wave of"
        f" {on.drum}'s body: flipping one gains {gain}."
    )


QUARTER: Final = 0.2
"""Waves. A delay of less than about a quarter of a wave does not turn a body round."""


def _late(on: _On) -> str:
    if on.kind == Kind.APART:
        return (
            f"{on.late} is {abs(on.delay) * 1e3:.0f} ms behind {on.early} on {on.drum}: heard"
            " as a second stroke. Move it nearer, line the tracks up, or leave it as an effect."
        )
    dip = _hz(float(on.an.pairs.dip_hz[on.row, on.source]))
    if on.kind == Kind.DECODED:
        return (
            f"{on.late} is {on.ms} late on {on.drum}: decoded, each speaker dips at {dip}."
            " Put both capsules at one point."
        )
    return (
        f"{on.late} is {on.ms} late on {on.drum}: the sum dips at {dip}, inside the band it"
        " works in."
    )


_WHY_UNSURE: Final = {
    Doubt.HEAD_PLANE: "near the plane of the head",
    Doubt.NULL: "in the null of its pattern",
    Doubt.REFLECTION: "where a reflection may turn it over",
}
_REASONS: Final = [
    " and ".join(words for flag, words in _WHY_UNSURE.items() if flag in Doubt(value))
    for value in range(2 * max(Doubt))
]
"""By the value of a doubt."""


def _unsure(on: _On) -> str:
    doubt = on.an.arrivals.doubt[:, on.source]
    both = (on.an.pairs.first[on.row], on.an.pairs.second[on.row])
    why = [(name, _REASONS[int(doubt[i])]) for name, i in zip((on.a, on.b), both, strict=True)]
    said = "; ".join(f"{name} is {reasons}" for name, reasons in why if reasons)
    return f"{said} for {on.drum}, so the first half-wave may go either way: {_try(on)}"


def _try(on: _On) -> str:
    """What to do about a sign that is unsure, so that no other drum pays for it.

    One mic is flipped, or with it all that are put up for the same drum or make its picture.
    """
    spoiled = [(some, _spoils(on, turned, drums)) for some, turned, drums in _ways(on)]
    free = [some for some, drums in spoiled if not drums]
    if free[:2] == [{on.b}, {on.a}]:
        return "flip one, listen, keep the fuller."
    if free:
        ids = [m.id for m in on.an.layout.mics if m.id in free[0]]
        together = " together" if len(ids) > 1 else ""
        return f"flip {' and '.join(ids)}{together}, listen, keep the fuller."
    others = list(dict.fromkeys(n for _, names in spoiled[:2] for n in names))[:MOST_NAMED]
    return (
        f"flipping either would hollow {' and '.join(others)}: listen, and if it is thin move one."
    )


MOST_NAMED: Final = 2
"""Drums that a sentence names as the price of a flip."""


def _fellows(on: _On, mic: str) -> set[str]:
    """A mic with those put up for its drum, or with its stereo partner, but not both of a pair."""
    layout = on.an.layout
    job = layout.mic(mic).job
    same = {m.id for m in layout.mics if job and m.job == job}
    couple = {i for p in layout.stereo_pairs if mic in (p.left, p.right) for i in (p.left, p.right)}
    return (same | couple | {mic}) - ({on.a, on.b} - {mic})


def _ways(on: _On) -> list[tuple[set[str], Mask, np.ndarray]]:
    """What could be flipped for a pair: mics, pairs that turns over, and how many of a drum's
    pairs it would hollow."""
    key = f"ways {on.a} {on.b}"
    if key not in on.an.kept:  # asked again for every drum
        # The switches of a spot's mics before those of both overheads (common practice).
        spots_first = sorted((on.b, on.a), key=lambda m: on.an.layout.mic(m).role != "close")
        every = ({on.b}, {on.a}, *(_fellows(on, m) for m in spots_first))
        on.an.kept[key] = [(some, *_turned(on.an, some)) for some in every]
    ways: list[tuple[set[str], Mask, np.ndarray]] = on.an.kept[key]
    return ways


def _turned(an: Analysis, some: set[str]) -> tuple[Mask, np.ndarray]:
    """The pairs that flipping some mics turns over, and how many of each drum's it hollows."""
    key = f"turned {sorted(some)}"
    if key not in an.kept:  # asked again for every pair of these mics
        flip = np.array([m.id in some for m in an.layout.mics])
        turned = flip[an.pairs.first] ^ flip[an.pairs.second]
        an.kept[key] = turned, an.flip_hollows[turned].sum(axis=0)
    turned, drums = an.kept[key]
    return turned, drums


def _spoils(on: _On, turned: Mask, drums: np.ndarray) -> list[str]:
    """The drums on which a flip would hollow another pair than this one on its drum, by name."""
    spoiled = drums.copy()
    if turned[on.row]:
        spoiled[on.source] -= on.an.flip_hollows[on.row, on.source]
    return [on.told.drums[k] for k in np.flatnonzero(spoiled)]


_SAID: Final[dict[int, Callable[[_On], str]]] = {
    Verdict.NO_MATTER: _no_matter,
    Verdict.BEHIND: _behind,
    Verdict.TOGETHER: _together,
    Verdict.ASK_THE_EAR: _unsure,
    Verdict.LATE: _late,
    Verdict.HOLLOW: _hollow,
}


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
            f" - {a}: {heard.path_m[i, source]:.4f} m / {c:.1f} m/s = {dt * 1e3:+z.3f} ms",
            source="c = 343.2·√(T/293.15 K), ISO 9613-1:1993",
        ),
        WhyRow(
            title="Level after gain",
            formula=f"{a} {heard.after_gain_db[i, source]:+z.1f} dB,"
            f" {b} {heard.after_gain_db[j, source]:+z.1f} dB against the job of each;"
            f" g = {g:.3f}, ripple {_ripple(g)}",
            source="20·log(|a+(1-a)·cos θ·(1+1/(jkr))| / distance), r beside a head as of a disc;"
            " gain brings each job to one peak",
        ),
        WhyRow(
            title="Dip",
            formula=f"{dips} with Δt = {abs(dt) * 1e3:.3f} ms:"
            f" {_hz(float(p.dip_hz[row, source]))}; {_counted(p, row, source, band.body_low)}",
            source="|1 ± g·exp(-j2πfΔt)|, interference of two equal waves",
        ),
        WhyRow(
            title="Body",
            formula=f"octave round {_hz(band.fundamental)} ({_known(an, source)}): as wired"
            f" {signed_db(float(p.body_db[row, source]))}, flipped"
            f" {signed_db(float(p.flipped_body_db[row, source]))}",
            source="energy of the sum over the band, against the louder mic alone",
        ),
    ]


def _counted(p: Pairs, row: int, source: int, low: float) -> str:
    top = float(p.band_high_hz[row, source])
    return f"counts from {_hz(low)} to {_hz(top)}" if top > 0 else "does not count for these two"


def _known(an: Analysis, source: int) -> str:
    """Where a fundamental comes from."""
    how = tuning_from(an.layout.kit.parts[source])
    return {
        "estimated": "estimated from kind and size",
        "note": "tuned to a note",
        "measured": "measured",
    }[how]


FREQUENCIES = np.geomspace(30.0, 16000.0, 140)
"""Hz, the points of every drawn sum curve."""
