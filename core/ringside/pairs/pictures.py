"""Every stereo picture of a layout, and the pans of the close mics against the main one."""

from dataclasses import dataclass
from typing import Final, Literal

from ringside.pairs.analysis import Analysis
from ringside.pairs.stereo import (
    MIDDLE_PERCENT,
    Picture,
    picture,
    positions,
)
from ringside.plan.feeds import feeds
from ringside.plan.layout import Layout, StereoPair

OTHER_SIDE_PERCENT: Final = 10.0
APART_PERCENT: Final = 40.0
"""A close mic panned this far from where the overheads hear the drum splits it (from memory)."""

PanState = Literal["agrees", "other side", "apart", "not chosen"]


@dataclass(frozen=True, kw_only=True, slots=True)
class PanRow:
    """A close mic's pan against where the picture has its drum, percent."""

    mic: str
    source: str
    pan: float | None
    """None is not chosen."""
    heard: float
    state: PanState
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Pictures:
    """All stereo pairs, the pans, and whose view it is."""

    seen_from: Literal["audience", "drummer"]
    main: str | None
    pairs: list[Picture]
    pans: list[PanRow]


def main_pair(layout: Layout) -> StereoPair | None:
    """The pair that is the picture of the kit: the first of overheads, or the first.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    StereoPair or None
    """
    for p in layout.stereo_pairs:
        if layout.mic(p.left).role == "overhead":
            return p
    return layout.stereo_pairs[0] if layout.stereo_pairs else None


def pan_rows(an: Analysis) -> list[PanRow]:
    """Each close mic's pan against where the picture has its drum; none without a pair.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    list of PanRow
    """
    pair = main_pair(an.layout)
    if pair is None:
        return []
    percent, nowhere = positions(an, pair)
    s, rows, tracks = an.scene.sources, [], feeds(an.layout)
    for m, mic in enumerate(an.layout.mics):
        k = int(an.scene.job[m])
        if mic.role != "close" or k < 0 or nowhere[k]:
            continue
        heard = float(percent[k])
        way = tracks[m].first
        pan = way.pan if way else None
        state = _pan_state(pan, heard)
        words = _pan_words(mic.id, pan, heard, state, pair.name)
        rows.append(
            PanRow(
                mic=mic.id, source=s.ids[k], pan=pan, heard=round(heard, 1), state=state,
                words=words,
            )
        )  # fmt: skip
    return rows


def _pan_state(pan: float | None, heard: float) -> PanState:
    if pan is None:
        return "not chosen"
    if pan * heard < 0 and min(abs(pan), abs(heard)) > OTHER_SIDE_PERCENT:
        return "other side"
    return "apart" if abs(pan - heard) > APART_PERCENT else "agrees"


def side_words(percent: float) -> str:
    """A pan in words: 40 % left.

    Parameters
    ----------
    percent : float
        Left is negative, -100 to 100.

    Returns
    -------
    str
    """
    if abs(percent) < MIDDLE_PERCENT:
        return "the middle"
    return f"{abs(percent):.0f} % {'left' if percent < 0 else 'right'}"


def _pan_words(mic: str, pan: float | None, heard: float, state: str, pair: str) -> str:
    there = side_words(heard)
    if pan is None:
        return f"{pair} hear it at {there}."
    if state == "agrees":
        return f"{mic} at {side_words(pan)} agrees with {there} in {pair}."
    if state == "other side":
        return f"{mic} is panned to {side_words(pan)}, but {pair} hear the drum at {there}."
    return f"{mic} at {side_words(pan)} is far from {there} in {pair}: the drum splits in two."


def pictures(an: Analysis) -> Pictures:
    """All stereo pairs, the pans, and whose view it is.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    Pictures
    """
    main = main_pair(an.layout)
    return Pictures(
        seen_from=an.layout.seen_from,
        main=main.name if main else None,
        pairs=[picture(an, p) for p in an.layout.stereo_pairs],
        pans=pan_rows(an),
    )
