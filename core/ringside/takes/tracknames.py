"""What the name of a sound file says in the words of the trade, and which channel means that.

People call files "KickIn", "SN_Btm", "OHL", "Tom 12" or "FT" (common practice, all of it). What
such a name says is the drum or what else the mic hears, which of several, where at it, and which
side; a channel says the same by the drum its mic is put up for, by where that stands, and by its
name. Words that are neither are let go of: the band's, the song's, the take's.
"""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import zip_longest
from typing import Final

from ringside.plan.channels import Channel
from ringside.plan.drumframe import side_of
from ringside.plan.kit import Cymbal, Drum, Kit
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

WHAT: Final = {
    "kick": ("kick", "kik", "kck", "kk", "bd", "kd", "bassdrum"),
    "snare": ("snare", "snr", "sn", "sd", "sna"),
    "rack": ("rack", "racks", "rt"),
    "floor": ("floor", "flr", "fl", "ft"),
    "tom": ("tom", "toms", "tomtom"),
    "hats": ("hat", "hats", "hh", "hihat", "hihats"),
    "ride": ("ride", "rd"),
    "crash": ("crash", "cr"),
    "splash": ("splash",),
    "china": ("china",),
    "overhead": ("oh", "ohs", "overhead", "overheads", "ovh", "ovhd"),
    "room": ("room", "rooms", "rm", "rms", "amb", "ambi", "ambient", "ambience"),
}
WHERE: Final = {
    "in": ("in", "inside", "int"),
    "out": ("out", "outside", "ext", "front"),
    "top": ("top", "tp", "upper"),
    "bottom": ("bottom", "bot", "btm", "bttm", "under", "below", "lower"),
    "sub": ("sub", "woofer"),
    "beater": ("beater", "batter"),
    "shell": ("shell",),
}
SIDE: Final = {"left": ("l", "left", "lft"), "right": ("r", "right", "rgt")}
HEIGHT: Final = {"high": ("hi", "high"), "mid": ("mid", "middle"), "low": ("lo", "low")}

NO_MIC: Final = frozenset(
    ("verb", "reverb", "fx", "bus", "buss", "mix", "stem", "print", "comp", "parallel", "trig",
     "trigger", "sample", "samples", "smp", "midi", "click", "guide")
)  # fmt: skip
"""A file with one of these is no mic by itself, whatever drum it names beside it."""

INCHES: Final = 8
"""From this number on a tom is called by its size."""

INCH_M: Final = 0.0254
"""ISO 80000-3."""

_KNOWN: Final = {
    word: (slot, value)
    for slot, words in (("what", WHAT), ("where", WHERE), ("side", SIDE), ("height", HEIGHT))
    for value, said in words.items()
    for word in said
}
_ALONE: Final = {"k": "kick", "s": "snare", "t": "tom"}
"""Single letters, where what follows makes them a drum: "K in", "S top", "T1"."""


@dataclass(frozen=True, slots=True)
class Spoken:
    """What a name says."""

    what: str
    number: int | None
    height: str
    where: frozenset[str]
    side: str
    rest: frozenset[str]
    """Words that are none of these."""


def spoken(name: str) -> Spoken | None:
    """What a name says; None where it names no drum, several, or what is no mic.

    Parameters
    ----------
    name : str
        Without the file's ending and without a number in front.

    Returns
    -------
    Spoken or None

    Examples
    --------
    >>> spoken("KickIn_02").where
    frozenset({'in'})
    >>> spoken("OHL").side
    'left'
    """
    said: dict[str, list[str]] = {"what": [], "where": [], "side": [], "height": []}
    rest, number, before = set[str](), None, ""
    words = _words(name)
    for word, after in zip_longest(words, words[1:], fillvalue=""):
        slot, value = _slot(word, after)
        if slot:
            said[slot].append(value)
        elif not word.isdecimal():
            rest.add(word)
        elif number is None and before in ("what", "height"):
            number = word
        before = slot
    what = _one(said["what"])
    if what is None or rest & NO_MIC:
        return None
    return Spoken(
        what=what,
        number=_number(number, what),
        height=said["height"][0] if said["height"] and what != "hats" else "",
        where=frozenset(said["where"]),
        side=said["side"][0] if len(set(said["side"])) == 1 else "",
        rest=frozenset(rest),
    )


def _slot(word: str, after: str) -> tuple[str, str]:
    """Which of the things a name tells a word is, and what it says of it; empty where it is none.

    A single letter is a drum where what follows makes it one.
    """
    if word in _ALONE and (after.isdecimal() or _KNOWN.get(after, ("",))[0] == "where"):
        return "what", _ALONE[word]
    return _KNOWN.get(word, ("", ""))


def _one(whats: list[str]) -> str | None:
    """The one thing that is named; a rack or floor tom is one."""
    named = set(whats)
    if named & {"rack", "floor"}:
        named.discard("tom")
    return named.pop() if len(named) == 1 else None


def _number(digits: str | None, what: str) -> int | None:
    """Which of several: "01" is a take's number, but on a tom, which needs one."""
    if digits is None or len(digits) > 2:
        return None
    if digits.startswith("0") and what not in ("tom", "rack", "floor"):
        return None
    return int(digits)


def _words(name: str) -> list[str]:
    """Words and numbers, small; what is written in one is taken apart: "KickIn", "OHL", "sntop"."""
    text = re.sub(r"(?i)(?<![a-z])bass[\W_]*drum", "bassdrum", name)
    made: list[str] = []
    for run in re.findall(r"[^\W\d_]+|\d+", text):
        made += _apart(run)
    return made


def _apart(run: str) -> Iterable[str]:
    low = run.lower()
    if low in _KNOWN or low in _ALONE or run.isdecimal():
        return [low]
    humps = [p.lower() for p in re.findall(r"[A-Z]+(?![a-z])|[A-Z]?[a-z]+", run)]
    if any(p in _KNOWN for p in humps):
        return humps
    for cut in range(len(low) - 1, 1, -1):  # the longest first
        head, tail = low[:cut], low[cut:]
        if _KNOWN.get(head, ("",))[0] == "what" and _KNOWN.get(tail, ("",))[0] in (
            "what",
            "where",
            "side",
        ):
            return [head, tail]
    return [low]


@dataclass(frozen=True, slots=True)
class Meaning:
    """What a channel is, by its mic and by its name."""

    channel: Channel
    mic: Mic
    part: Drum | Cymbal | None
    where: frozenset[str]
    side: str
    rest: frozenset[str]


def meanings(layout: Layout, channels: Sequence[Channel]) -> list[Meaning]:
    """What each channel is.

    Parameters
    ----------
    layout : Layout
    channels : sequence of Channel

    Returns
    -------
    list of Meaning
        In their order.
    """
    parts = {p.id: p for p in layout.kit.parts}
    # A mid and its side are neither: only what is made of them has a left and a right.
    pairs = [p for p in layout.stereo_pairs if p.coding == "left-right"]
    sides = {p.left: "left" for p in pairs} | {p.right: "right" for p in pairs}
    made = []
    for c in channels:
        mic = layout.mic(c.mic)
        part = parts.get(mic.job or "") if mic.role == "close" else None
        words = _words(f"{c.name} {mic.name}")
        known = [_KNOWN[w] for w in words if w in _KNOWN]
        where = {value for slot, value in known if slot == "where"} | _stands(mic, part)
        side = sides.get(mic.id) or next((v for slot, v in known if slot == "side"), "")
        rest = frozenset(w for w in words if w not in _KNOWN and not w.isdecimal())
        made.append(Meaning(c, mic, part, frozenset(where), side, rest))
    return made


def _stands(mic: Mic, part: Drum | Cymbal | None) -> set[str]:
    """Where at its drum a mic stands, in the trade's words."""
    if not isinstance(part, Drum):
        return set()
    side = side_of(part, mic.position_m)
    if part.kind == "kick":
        return {{"over": "beater", "under": "out", "inside": "in", "beside": "shell"}[side]}
    return {{"over": "top", "under": "bottom", "inside": "in", "beside": "shell"}[side]}


def against(said: Spoken, of: Meaning) -> bool:
    """Whether a name says that it is another mic than this: another end of the drum, or side.

    Parameters
    ----------
    said : Spoken
    of : Meaning

    Returns
    -------
    bool
    """
    ends = len(said.where) == 1 and of.where and not said.where <= of.where
    return bool(ends or (said.side and of.side and said.side != of.side))


def meant(said: Spoken, among: Sequence[Meaning], layout: Layout) -> Channel | None:
    """The one channel that a name means; None where none or several could be.

    Parameters
    ----------
    said : Spoken
    among : sequence of Meaning
        The channels that are still to be had.
    layout : Layout

    Returns
    -------
    Channel or None
    """
    fits = [
        (len(_unsaid(m, said)) - len(m.rest & said.rest), m)
        for m in among
        if _is_of(said, m, layout) and said.where <= m.where and not against(said, m)
    ]
    if not fits:
        return None
    least = min(cost for cost, _ in fits)
    best = [m.channel for cost, m in fits if cost == least]
    return best[0] if len(best) == 1 else None


def _unsaid(of: Meaning, said: Spoken) -> frozenset[str]:
    """What sets the channel apart that the name does not say; a drum's own mic is over its head,
    where nobody says otherwise."""
    plain = {"top"} if of.part is not None and of.part.kind != "kick" else set()
    return (of.where - said.where - plain) | (of.rest - said.rest)


def _is_of(said: Spoken, of: Meaning, layout: Layout) -> bool:
    """Whether it is what the name names: the drum, or a pair in the air."""
    if of.part is not None:
        return _is_drum(said, of.part, layout.kit)
    if said.what != of.mic.role:
        return False
    if not of.side:
        return not said.side
    # The two of a pair are numbered left first.
    number = {"left": 1, "right": 2}[of.side]
    return said.side == of.side or (not said.side and said.number == number)


def _is_drum(said: Spoken, part: Drum | Cymbal, kit: Kit) -> bool:
    same = [p for p in kit.parts if p.kind == part.kind]
    if part.kind in ("rack", "floor"):
        racks = [d for d in kit.drums if d.kind == "rack"]
        toms = [*racks, *(d for d in kit.drums if d.kind == "floor")]
        if said.what not in ("tom", part.kind):
            return False
        group: Sequence[Drum | Cymbal] = toms if said.what == "tom" else same
        if said.height:
            return _by_height(said.height, group) is part
        if said.number is not None and said.number >= INCHES:
            return round(part.diameter_m / INCH_M) == said.number
        return said.number is None or len(group) == 1 or group.index(part) + 1 == said.number
    if said.what != part.kind:
        return False
    return said.number is None or len(same) == 1 or same.index(part) + 1 == said.number


def _by_height(height: str, group: Sequence[Drum | Cymbal]) -> Drum | Cymbal | None:
    """The high, middle or low one of several; of two none is the middle."""
    if height == "mid" and len(group) != 3:
        return None
    return group[{"high": 0, "mid": 1, "low": -1}[height]]
