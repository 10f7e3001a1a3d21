"""Pans against the picture: close mics by the main pair, stereo pairs by their own two sides.

Every track is looked at by itself: a copy that lies elsewhere than the first of its mic splits
the drum as a mic panned wrong does.
"""

from dataclasses import dataclass
from typing import Final, Literal

from ringside.pairs.analysis import Analysis
from ringside.pairs.stereo import MIDDLE_PERCENT, positions
from ringside.plan.feeds import Feed, feeds
from ringside.plan.layout import Layout, StereoPair
from ringside.values import whole

OTHER_SIDE_PERCENT: Final = 10.0
APART_PERCENT: Final = 40.0
"""A close mic panned this far from where the overheads hear the drum splits it (from memory)."""

PanState = Literal["agrees", "other side", "apart", "closed", "not chosen"]


@dataclass(frozen=True, kw_only=True, slots=True)
class PanRow:
    """A track's pan against where it belongs in the picture, percent."""

    channel: str
    """The track; empty where the mic has none."""
    mic: str
    source: str
    """The drum or cymbal; empty for a mic of a stereo pair."""
    pan: float | None
    """None is not chosen."""
    heard: float
    """Where the main pair hears it; of a stereo pair, its own side."""
    usual: float
    """Where it is put as a rule."""
    state: PanState
    words: str


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
    """Each track's pan against the picture: close mics first, then the two sides of each pair.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    list of PanRow
        Empty without a stereo pair.
    """
    main = main_pair(an.layout)
    if main is None:
        return []
    fed = feeds(an.layout)
    of = {f.mic.id: f for f in fed}
    rows = _close_rows(an, main, fed)
    for pair in an.layout.stereo_pairs:
        if pair.coding == "left-right":  # a side that is decoded is looked after in the patch
            rows += _pair_rows(pair, of[pair.left], of[pair.right])
    return rows


def _close_rows(an: Analysis, main: StereoPair, fed: list[Feed]) -> list[PanRow]:
    percent, nowhere = positions(an, main)
    s, rows = an.scene.sources, []
    for m, f in enumerate(fed):
        k = int(an.scene.job[m])
        if f.mic.role != "close" or k < 0 or nowhere[k]:
            continue
        heard = float(percent[k])
        usual = 0.0 if f.mic.job in _middle(an.layout) else heard
        for channel, name, pan in _tracks(f):
            state = _close_state(pan, heard)
            rows.append(
                PanRow(
                    channel=channel, mic=f.mic.id, source=s.ids[k], pan=pan,
                    heard=round(heard, 1), usual=round(usual, 1), state=state,
                    words=_close_words(name, pan, heard, state, main.name)
                    + _rather(pan, heard, usual, main.name),
                )
            )  # fmt: skip
    return rows


def _tracks(f: Feed) -> list[tuple[str, str, float | None]]:
    """The tracks of a mic by short name, what they are called, and their pans."""
    return [(c.id, c.id, c.pan) for c in f.channels] or [("", f.mic.id, None)]


def _close_state(pan: float | None, heard: float) -> PanState:
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
    return f"{whole(abs(percent))} % {'left' if percent < 0 else 'right'}"


def _close_words(track: str, pan: float | None, heard: float, state: PanState, pair: str) -> str:
    there = side_words(heard)
    if pan is None:
        return f"{pair} hear it at {there}."
    if state == "agrees":
        return f"{track} at {side_words(pan)} agrees with {there} in {pair}."
    if state == "other side":
        return f"{track} is panned to {side_words(pan)}, but {pair} hear the drum at {there}."
    return f"{track} at {side_words(pan)} is far from {there} in {pair}: the drum splits in two."


def _middle(layout: Layout) -> set[str]:
    """Drums that are panned to the middle whatever a pair hears of them (common practice): every
    kick, and of several snares the first."""
    kit = layout.kit
    return {d.id for d in kit.drums if d.kind == "kick"} | {kit.first("snare").id}


def _rather(pan: float | None, heard: float, usual: float, pair: str) -> str:
    """What is done about a drum that belongs elsewhere than a pair hears it."""
    if usual == heard or abs(heard) < MIDDLE_PERCENT or (pan and abs(pan) >= MIDDLE_PERCENT):
        return ""
    return f" It goes to the middle as a rule: turn or move {pair}, not the pan."


def _pair_rows(pair: StereoPair, left: Feed, right: Feed) -> list[PanRow]:
    """The two sides of a pair, each with its copies: left of the right one, and apart from it."""
    rows = []
    for f, mate, own in ((left, right, -100.0), (right, left, 100.0)):
        for n, (channel, name, pan) in enumerate(_tracks(f)):
            beside = _tracks(mate)
            other = beside[min(n, len(beside) - 1)]
            state = _side_state(pan, other[2], own)
            rows.append(
                PanRow(
                    channel=channel, mic=f.mic.id, source="", pan=pan, heard=own, usual=own,
                    state=state,
                    words=_side_words(name, other[1], pan, own, state, pair.name),
                )
            )  # fmt: skip
    return rows


def _side_state(pan: float | None, mate: float | None, own: float) -> PanState:
    if pan is None:
        return "not chosen"
    if pan * own < 0 and abs(pan) > OTHER_SIDE_PERCENT:
        return "other side"
    if mate is not None and abs(pan - mate) < MIDDLE_PERCENT:
        return "closed"
    return "agrees"


def _side_words(
    track: str, mate: str, pan: float | None, own: float, state: PanState, pair: str
) -> str:
    side = "left" if own < 0 else "right"
    if pan is None:
        return f"It is the {side} of {pair}."
    if state == "other side":
        return f"{track} is the {side} of {pair} and panned to {side_words(pan)}: turn it round."
    if state == "closed":
        return f"{track} and {mate} are both at {side_words(pan)}: {pair} is mono there."
    return f"{track} at {side_words(pan)} is on its side of {pair}."
