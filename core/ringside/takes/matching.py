"""Which track is which channel of the layout: by name, else by number, else by order.

A file is named as people name them: a number in front, the channel's name or short name behind,
other words around, or in the trade's own words (:mod:`ringside.takes.tracknames`); a file of two
channels by what the pair is called, left first. Whoever knows better says so, and what is said
goes before what is guessed.
"""

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ringside.errors import RingsideError
from ringside.plan.channels import Channel
from ringside.plan.layout import Layout
from ringside.takes.files import Track
from ringside.takes.tracknames import WHAT, against, meanings, meant, spoken

By = Literal["said", "name", "left", "number", "order", "heard", "nothing"]
"""`left`: its name could mean several, of which the others are taken."""


@dataclass(frozen=True, slots=True)
class Matched:
    """A track and the channel it is taken for, with how that was found."""

    track: str
    channel: str | None
    by: By


def channels_of(layout: Layout) -> tuple[Channel, ...]:
    """The tracks a layout records: its channels, or one of each mic where it has none.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    tuple of Channel
    """
    own = tuple(Channel(id=m.id, name=m.name, mic=m.id) for m in layout.mics)
    return layout.channels or own


def matched(
    tracks: Sequence[Track], layout: Layout, said: Mapping[str, str | None] | None = None
) -> list[Matched]:
    """Every track with its channel.

    Parameters
    ----------
    tracks : sequence of Track
    layout : Layout
    said : mapping of str to str or None, optional
        Channels by the name of their track, as somebody says; None is a track to leave out.

    Returns
    -------
    list of Matched
        In the order of the tracks; a channel is given once.

    Raises
    ------
    RingsideError
        When what is said names a track or channel that is not there, or a channel twice.
    """
    every = channels_of(layout)
    alone = len({t.path for t in tracks}) == 1
    told = dict(said or {})
    _checked(tracks, every, told)
    made = [Matched(t.name, told.get(t.name), "said" if t.name in told else "nothing")
            for t in tracks]  # fmt: skip
    left = [c for c in every if c.id not in told.values()]
    names = _Names(tracks, every, layout)
    _matched_by("name", made, left, tracks, lambda t: names.called(t, left))
    _matched_by("name", made, left, tracks, lambda t: _still(names.meant(t, every), left))
    while _matched_by("left", made, left, tracks, lambda t: names.meant(t, left)):
        pass  # what one name leaves can be all that another can mean
    sides = _sides(layout, every)
    _matched_by("name", made, left, tracks, lambda t: _one_of_two(t, sides, left))
    if _in_their_order(made, tracks, every):
        _matched_by("number", made, left, tracks, lambda t: _numbered(t, every, left, alone))
    open_rows = [n for n, m in enumerate(made) if m.by == "nothing"]
    if len(open_rows) == len(tracks) or not any(m.by in ("name", "left", "number") for m in made):
        for n, c in zip(open_rows, left, strict=False):
            made[n] = replace(made[n], channel=c.id, by="order")
    return made


def _checked(
    tracks: Sequence[Track], every: Sequence[Channel], told: Mapping[str, str | None]
) -> None:
    names, ids = {t.name for t in tracks}, {c.id for c in every}
    used: set[str] = set()
    for track, channel in told.items():
        if track not in names:
            raise RingsideError(f"no track is called {track!r}; expected one of the files' names")
        if channel is None:
            continue
        if channel not in ids:
            raise RingsideError(f"no channel is called {channel!r}; expected one of the layout's")
        if channel in used:
            raise RingsideError(f"channel {channel!r} is given to two tracks; expected one")
        used.add(channel)


def _matched_by(
    by: By, made: list[Matched], left: list[Channel], tracks: Sequence[Track],
    find: Callable[[Track], Channel | None],
) -> bool:  # fmt: skip
    """Match what is found; whether anything was."""
    any_found = False
    for n, track in enumerate(tracks):
        found = find(track) if made[n].by == "nothing" else None
        if found is not None:
            made[n] = replace(made[n], channel=found.id, by=by)
            left.remove(found)
            any_found = True
    return any_found


class _Names:
    """What the names of files of one channel say."""

    def __init__(self, tracks: Sequence[Track], every: Sequence[Channel], layout: Layout) -> None:
        self._layout = layout
        self._means = {m.channel.id: m for m in meanings(layout, every)}
        self._said = {t.name: spoken(_stem(t)) for t in tracks if t.channels == 1}

    def called(self, track: Track, left: Sequence[Channel]) -> Channel | None:
        """The one channel whose name, long or short, stands in the file's; the longest of
        several. None that is another end of the drum, or another side, than the file says."""
        if track.channels > 1:
            return None
        said, stem = self._said[track.name], _words(_stem(track))
        fits: list[tuple[int, Channel]] = []
        for c in left:
            if said is not None and against(said, self._means[c.id]):
                continue
            for words in (_words(c.name), _words(c.id)):
                if words and _within(words, stem):
                    fits.append((sum(map(len, words)), c))
        if not fits:
            return None
        most = max(size for size, _ in fits)
        best = {c.id: c for size, c in fits if size == most}
        return next(iter(best.values())) if len(best) == 1 else None

    def meant(self, track: Track, left: Sequence[Channel]) -> Channel | None:
        """The one channel that the file's name means in the trade's words."""
        said = self._said.get(track.name)
        if said is None:
            return None
        return meant(said, [self._means[c.id] for c in left], self._layout)


def _still(found: Channel | None, left: Sequence[Channel]) -> Channel | None:
    return found if found is not None and any(c.id == found.id for c in left) else None


def _sides(layout: Layout, every: Sequence[Channel]) -> list[tuple[set[str], list[Channel]]]:
    """Every stereo pair that is recorded: the words it may go by, and its left and right."""
    made = []
    by_mic = {c.mic: c for c in reversed(every)}
    for p in layout.stereo_pairs:
        if p.left in by_mic and p.right in by_mic:
            role = layout.mic(p.left).role
            words = {*_words(p.name), role, f"{role}s", *WHAT.get(role, ())}
            made.append((words, [by_mic[p.left], by_mic[p.right]]))
    return made


def _one_of_two(
    track: Track, sides: Sequence[tuple[set[str], list[Channel]]], left: Sequence[Channel]
) -> Channel | None:
    """A side of the one stereo pair that a file of two channels goes by the name of."""
    if track.channels != 2:
        return None
    stem = set(_words(re.sub(r"\.\w{2,4}$", "", track.path.name)))
    fits = [pair for words, pair in sides if words & stem]
    if len(fits) != 1:
        return None
    return _still(fits[0][track.channel], left)


def _words(text: str) -> list[str]:
    return re.findall(r"[a-z]+|\d+", text.lower())


def _stem(track: Track) -> str:
    """A file's name without its ending, and without a number in front."""
    plain = re.sub(r"\.\w{2,4}$", "", track.path.name)
    return re.sub(r"^[\W_]*\d+(?!\d)(?=.*[^\W_])", "", plain)


def _within(words: list[str], stem: list[str]) -> bool:
    n = len(words)
    return any(stem[k : k + n] == words for k in range(len(stem) - n + 1))


def _in_their_order(
    made: Sequence[Matched], tracks: Sequence[Track], every: Sequence[Channel]
) -> bool:
    """Whether the numbers in front are the channels': none that a name tells is another's."""
    place = {c.id: n for n, c in enumerate(every, 1)}
    for m, t in zip(made, tracks, strict=True):
        number = re.match(r"\d+", t.path.name)
        if m.channel is None or m.by not in ("name", "left"):
            continue
        if t.channels > 1 or number is None:
            continue
        if int(number.group()) != place[m.channel]:
            return False
    return True


def _numbered(
    track: Track, every: Sequence[Channel], left: Sequence[Channel], alone: bool
) -> Channel | None:
    """By the channel of the one file there is, or by the number a file's name begins with."""
    if track.channels > 1:
        if not alone:
            return None
        number = track.channel + 1
    else:
        words = _words(track.path.name)
        if not words or not words[0].isdigit():
            return None
        number = int(words[0])
    if not 1 <= number <= len(every):
        return None
    return _still(every[number - 1], left)
