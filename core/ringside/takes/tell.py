"""What measuring found, in words a person at the desk would act on."""

from collections.abc import Collection, Sequence
from typing import Final, Literal

import numpy as np

from ringside.arrays import Floats
from ringside.hear.notes import note_of
from ringside.phrases import listed
from ringside.standing.moves import side_words
from ringside.standing.places import place_words, shifts
from ringside.standing.told import Told, ended, joined
from ringside.takes.faults import FileFault, FileNote
from ringside.takes.places import Placed
from ringside.takes.reasons import Cause
from ringside.takes.uncrossed import Names, held_by

ReasonKind = Literal[
    "dead", "doubled", "broken", "jumped", "turned over", "swapped", "late", "moved", "air"
]

FILE_FAULTS: Final[dict[FileFault, ReasonKind]] = {
    "doubled": "doubled", "broken": "broken", "jumped": "jumped",
}  # fmt: skip
"""What of a file has to be seen to before anything else is believed of its track."""

TO_DO: Final[dict[ReasonKind, str]] = {
    "dead": "Look at its cable, its mute, its phantom and its input; then record hits again.",
    "doubled": "Look at what feeds the two: the patch, a copied track, one file under two names.",
    "broken": "Write its file out of the recorder again.",
    "jumped": "Look at the clock and the buffer of the recorder; then record hits again.",
}


def silent_words(channels: Sequence[str]) -> tuple[Told, str]:
    """That tracks hold nothing of what was played, and what to do about it.

    Parameters
    ----------
    channels : sequence of str

    Returns
    -------
    (Told, str)
    """
    hold = "hold" if len(channels) > 1 else "holds"
    return Told(f"{', '.join(channels)} {hold} no drum."), TO_DO["dead"]


def crossed_words(
    ring: Names, sockets: Sequence[str], silent: Collection[str] = ()
) -> tuple[Told, str]:
    """That tracks hold each other's sound, and what to do about it.

    Parameters
    ----------
    ring : tuple of str
        Channels: the sound of each is on the track of the next, the last one's on the first.
    sockets : sequence of str
        All channels as they are plugged, side by side.
    silent : collection of str, optional
        Channels that are heard on no track.

    Returns
    -------
    (Told, str)
    """
    lost = [name for name in ring if name in silent]
    fits = "levels and arrivals fit"
    if len(ring) == 2 and not lost:
        words = f"{listed(ring)} hold each other's sound: {fits} the other way round."
        return Told(words), "Change the two plugs, or the two names."
    place = {name: n for n, name in enumerate(sockets)}
    on = sorted((o for o in held_by(ring) if o[0] not in lost), key=lambda o: place[o[0]])
    where, move = _held(on), "Move the plugs"
    for way, back in ((1, "one back"), (-1, "one on")):
        row = [o for o in on if place[o[1]] - place[o[0]] == way]
        if len(row) >= len(ring) - 1:
            rest = [o for o in on if o not in row]
            where, move = _held([*row, *rest], len(row)), f"{move} {back}"
    words = f"{where}: {fits} that way."
    if not lost:
        return Told(words), f"{move}, or the names."
    words += f" {listed(lost)} {'is' if len(lost) == 1 else 'are'} heard on none."
    return Told(words), f"{move}, and find that of {listed(lost)}; then record hits again."


def _held(on: Sequence[tuple[str, str]], row: int = 0) -> str:
    """Whose sound is on whose track; of so many in a row the first two and the last."""
    said = [f"{name} on that of {track}" for name, track in on]
    said[0] = "{} is on the track of {}".format(*on[0])
    if row > 3:
        said[2:row] = [f"{'and ' if row < len(on) else ''}so on to {said[row - 1]}"]
    return listed(said)


def file_words(note: FileNote, channel: str, other: str) -> tuple[Told, str]:
    """A fault of a file in words, and what to do about it.

    Parameters
    ----------
    note : FileNote
    channel : str
    other : str
        The channel whose sound it holds; empty where it is of none.

    Returns
    -------
    (Told, str)
    """
    kind = FILE_FAULTS[note.kind]
    if kind == "doubled":
        lost = f": its own is missing, and nothing is told of {channel}" if note.sure else ""
        return Told(f"{channel} holds the same sound as {other}{lost}."), TO_DO[kind]
    return Told(f"{channel}: {note.words}."), TO_DO[kind]


Than = Literal["the plan", "before"]
"""What something is held against: the plan, or an earlier take."""

RETUNED_CENTS: Final = {"the plan": 40.0, "before": 15.0}
"""Two hits of one drum differ by less, and a plan's note is a semitone wide (common practice: a
drum's pitch falls as it rings)."""


def cause_words(
    cause: Cause, channel: str, rate_hz: int, than: Than = "the plan"
) -> tuple[Told, str]:
    """A cause in words, and what to do about it.

    Parameters
    ----------
    cause : Cause
    channel : str
    rate_hz : int
    than : Than

    Returns
    -------
    (Told, str)
    """
    if cause.kind == "air":
        words = (
            f"Every way takes longer or shorter by one share: the air is {abs(cause.late_s):.0f}"
        )
        warmer = "colder" if cause.late_s < 0 else "warmer"
        return Told(
            f"{words} °C {warmer} than planned."
        ), "Read the thermometer; set it in the plan."
    if cause.kind == "late" and cause.drums == 1:
        return _late_once(cause, channel, rate_hz), (
            "Record hits of another drum: what is of the track is so on all of them."
        )
    if cause.kind == "late":
        return _late(cause, channel, rate_hz), (
            "Look at its converter, a plug-in, or where its file begins; then record a hit again."
        )
    where = moved_words(channel, cause.by_m, cause.drums, than)
    if cause.rival is not None and cause.rival.kind == "late":
        samples = abs(cause.rival.late_s) * rate_hz
        rival = Told(f"Or its track is {samples:.0f} samples {_way(cause.rival.late_s)}.")
        where = joined([where, rival])
    return where, tape_it(channel)


def moved_words(channel: str, by_m: Floats, drums: int, than: Than = "the plan") -> Told:
    """That a mic stands elsewhere than it should, or did.

    Parameters
    ----------
    channel : str
    by_m : ndarray, shape (3,)
        Metres.
    drums : int
        By how many drums.
    than : Than

    Returns
    -------
    Told
    """
    up, down = ("too high", "too low") if than == "the plan" else ("higher", "lower")
    where = ended(joined(shifts(by_m, np.zeros((3, 3)), up, down), " and "))
    was = "was planned" if than == "the plan" else "was before"
    start = Told(f"{channel} is not where it {was}, by what {drums} drums say: about ")
    return joined([start, where], "")


def apart_words(off: Floats) -> Told:
    """That the tape and the hits do not mean one place.

    Parameters
    ----------
    off : ndarray, shape (3,)
        From where the tape has it to where the hits do, metres.

    Returns
    -------
    Told
    """
    return Told(
        "The tape has it {} from there: it was moved since, or one of the two is wrong. Read it"
        " again.",
        (float(np.linalg.norm(off)),), True,
    )  # fmt: skip


TAPE_SAYS_SO: Final = "The tape has it there, too: put it back, or make that the plan on Tape."
TAPE_DIFFERS: Final = "The tape has it elsewhere, see Places: read it again, then move it."


def tape_it(channel: str) -> str:
    """What to do about a mic that seems to stand elsewhere.

    Parameters
    ----------
    channel : str

    Returns
    -------
    str
    """
    return f"Read {channel} with the tape: one reading tells."


def _way(late_s: float) -> str:
    return "late" if late_s > 0 else "early"


def _late_once(cause: Cause, channel: str, rate_hz: int) -> Told:
    """By one drum alone: a mic that stands elsewhere looks alike, and so does a reflection."""
    late = cause.late_s > 0
    other = "stands further off, or a reflection leads there" if late else "stands nearer"
    return Told(
        f"{channel} hears the one drum that tells it {abs(cause.late_s) * 1e3:.2f} ms"
        f" {'later' if late else 'sooner'} than planned: its track is"
        f" {abs(cause.late_s) * rate_hz:.0f} samples {_way(cause.late_s)}, or it {other}."
    )


def _late(cause: Cause, channel: str, rate_hz: int) -> Told:
    samples = abs(cause.late_s) * rate_hz
    words = (
        f"{channel} is {samples:.0f} samples {_way(cause.late_s)}"
        f" ({abs(cause.late_s) * 1e3:.2f} ms), on all of {cause.drums} drums alike."
    )
    rival = cause.rival
    if rival is None or rival.kind != "moved":
        return Told(words)
    return Told(
        words + " Or the mic stands {} " + side_words(rival.by_m) + " of where it was planned.",
        (float(np.linalg.norm(rival.by_m)),), True,
    )  # fmt: skip


def place_told(off: Floats, found: Placed) -> tuple[Told, Told]:
    """Where a mic stands by what it hears, and what is left open.

    Parameters
    ----------
    off : ndarray, shape (3,)
        From its plan, metres.
    found : Placed

    Returns
    -------
    (Told, Told)
    """
    way = found.open_way
    words = place_words(off, found.covariance, way is not None)
    if way is None:
        return words, Told()
    high = abs(float(way[2])) > 0.7
    along = "in height" if high else "along a level line"
    how = "the floor" if high else "a drum at that side"
    return words, Told(
        f"How it stands {along} is known to " + "{} only: a tape to " + f"{how} closes it.",
        (found.radius_m,), True,
    )  # fmt: skip


def retuned_words(name: str, hz: float, was: float, spread: float, than: Than = "the plan") -> str:
    """How a drum's pitch is against the plan, or an earlier take; empty where it is the same.

    Parameters
    ----------
    name : str
    hz, was : float
        Hertz.
    spread : float
        One standard deviation of what it was, as a share of it.
    than : Than

    Returns
    -------
    str
    """
    cents = 1200 * float(np.log2(hz / was))
    unsure = 1200 * float(np.log2(1 + 2 * spread))
    if abs(cents) < max(RETUNED_CENTS[than], unsure):
        return ""
    way = "above" if cents > 0 else "below"
    why = "" if than == "before" else " or the plan's tuning is old"
    against = "what it was" if than == "before" else "the plan"
    return (
        f"{name} sounds at {hz:.1f} Hz ({note_of(hz)[0]}), {abs(cents):.0f} cents {way} {against}:"
        f" it was retuned{',' if why else ''}{why}."
    )
