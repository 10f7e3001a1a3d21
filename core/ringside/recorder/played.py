"""What the drummer plays: a list of test hits, or a groove. Times in seconds from the start."""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.plan.kit import Kit

How = Literal["hit", "ghost", "flam", "stick"]

FIRST_S: Final = 1.0
"""Silence before the first stroke, seconds: what is under the hits is heard there."""

APART_S: Final = 1.6
"""From hit to hit, seconds; a floor tom has died away far enough by then (common practice)."""

GHOST_DB: Final = -22.0
"""A ghost note under a hit (from memory)."""

FLAM_S: Final = 0.028
"""From grace note to stroke (common practice: 20 to 40 ms)."""


@dataclass(frozen=True, slots=True)
class Stroke:
    """One stroke: on what, when, how hard, and what it is meant as."""

    source: str
    at_s: float
    db: float
    how: How = "hit"


def hit_list(
    kit: Kit, sources: tuple[str, ...] = (), each: int = 5, apart_s: float = APART_S, seed: int = 0
) -> list[Stroke]:
    """So many hits on each drum, one drum after another, none quite as hard as another.

    Parameters
    ----------
    kit : Kit
    sources : tuple of str
        Drums and cymbals in the order they are played; empty is every drum of the kit.
    each : int
        Hits on each.
    apart_s : float
        Seconds from hit to hit.
    seed : int
        The same hits for the same seed.

    Returns
    -------
    list of Stroke
        In order of time.
    """
    dice = np.random.default_rng([seed, 1])
    names = sources or tuple(d.id for d in kit.drums)
    made, now = [], FIRST_S
    for name in names:
        for _ in range(each):
            made.append(Stroke(name, now + float(dice.uniform(0, 0.05)), _hard(dice)))
            now += apart_s
    return made


def groove(kit: Kit, bars: int = 8, beats_a_minute: float = 96.0, seed: int = 0) -> list[Stroke]:
    """A plain beat with a fill on every fourth bar: kick, snare, hats, ghost notes, toms, a flam.

    Parameters
    ----------
    kit : Kit
    bars : int
    beats_a_minute : float
    seed : int
        The same playing for the same seed.

    Returns
    -------
    list of Stroke
        In order of time.
    """
    dice = np.random.default_rng([seed, 2])
    beat = 60 / beats_a_minute
    kick, snare = kit.first("kick"), kit.first("snare")
    hats = next((c.id for c in kit.cymbals if c.kind == "hats"), None)
    toms = [d.id for d in kit.drums if d.kind in ("rack", "floor")]
    made: list[Stroke] = []

    def play(source: str | None, beats: float, db: float = 0.0, how: How = "hit") -> None:
        if source is not None:
            late = float(dice.normal(0, 0.004))
            made.append(Stroke(source, FIRST_S + beats * beat + late, db + _hard(dice), how))

    for bar in range(bars):
        start = 4.0 * bar
        filled = bar % 4 == 3 and toms
        for eighth in range(4 if filled else 8):
            play(hats, start + eighth / 2, -3.0 if eighth % 2 else 0.0)
        for at in (0.0, 2.5):
            play(kick.id if kick else None, start + at)
        for at in (1.0, 3.0):
            if not (filled and at == 3.0):
                play(snare.id if snare else None, start + at)
        play(snare.id if snare else None, start + 1.75, GHOST_DB, "ghost")
        if filled:
            for n, name in enumerate(toms):
                play(name, start + 2 + n * 2 / len(toms))
            if snare:
                play(snare.id, start + 3.75 - FLAM_S / beat, -12.0, "flam")
                play(snare.id, start + 3.75)
    return sorted((s for s in made if s.at_s > 0), key=lambda s: s.at_s)


def _hard(dice: np.random.Generator) -> float:
    return float(np.clip(dice.normal(-2.0, 1.5), -6.0, 0.0))
