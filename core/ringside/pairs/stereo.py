"""The stereo picture: where each drum appears between the speakers, and what mono keeps of it.

A phantom source moves 7.5 % of the way from the middle to a speaker for each decibel and 13 %
for each tenth of a millisecond between the two signals, together, up to three quarters of the
way; from there it moves slower and is at the speaker from `FULL` on (H. Wittek and G. Theile,
The Recording Angle, AES 112th Convention, 2002; the two slopes; the last quarter is a straight
line laid through published recording angles). Speakers stand 30° left and right.

The recording angle of a pair is the angle in front of it that fills the whole base, for sound
from afar (M. Williams, The Stereophonic Zoom). Percent and degrees below zero are left.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import ArrayLike

from ringside.arrays import Floats, Mask
from ringside.pairs.analysis import TOGETHER_M, Analysis, pair_alike
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import PRESSURE_SHARE, directivity
from ringside.values import whole

PERCENT_PER_DB: Final = 7.5
PERCENT_PER_MS: Final = 130.0
BEND: Final = 75.0
FULL: Final = 112.0
SPEAKER_DEG: Final = 30.0

MIDDLE_PERCENT: Final = 7.0
"""Nearer than this to the middle nobody hears it beside it: 2° (localisation blur, from
J. Blauert, Spatial Hearing, ch. 2: 1 to 4° in front)."""

ROUND_M: Final = 0.6
"""Wider apart than this over the kit, a pair stands round it, and an angle in front of it says
nothing: sound does not come from afar."""


def place_percent(level_db: ArrayLike, early_ms: ArrayLike) -> Floats:
    """Where a phantom source appears, percent of the way to a speaker, right above zero.

    Parameters
    ----------
    level_db, early_ms : array_like
        How much louder, and earlier, the right signal is.

    Returns
    -------
    ndarray
        Percent, of the shape both broadcast to; -100 hard left, 100 hard right.

    Examples
    --------
    >>> float(place_percent(4.0, 0.0)), float(place_percent(0.0, -0.2))
    (30.0, -26.0)
    """
    u = PERCENT_PER_DB * np.asarray(level_db, dtype=float)
    u = u + PERCENT_PER_MS * np.asarray(early_ms, dtype=float)
    size = np.abs(u)
    slow = BEND + (size - BEND) * (100 - BEND) / (FULL - BEND)
    return np.asarray(np.sign(u) * np.minimum(np.where(size > BEND, slow, size), 100.0))


def _index(an: Analysis, pair: StereoPair) -> tuple[int, int]:
    ids = [m.id for m in an.layout.mics]
    return ids.index(pair.left), ids.index(pair.right)


def _signed(an: Analysis, mic: int) -> Floats:
    """Amplitude at the capsule, by its fader, with its first half-wave's sign, (S,).

    The two of a pair have one gain, so nothing but the faders tells them apart.
    """
    level = an.arrivals.level_db[mic] + an.scene.fader_db[mic]
    return np.asarray(10 ** (level / 20) * an.arrivals.raw_sign[mic])


def picture_left(layout: Layout) -> Floats:
    """The way the left of the picture lies, a unit vector (3,).

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    ndarray, shape (3,)
        No unit.
    """
    return np.array([-1.0 if layout.seen_from == "drummer" else 1.0, 0.0, 0.0])


def speakers(an: Analysis, pair: StereoPair) -> tuple[Floats, Floats, Floats]:
    """Signed amplitude at the left and right speaker and how early the right is.

    Parameters
    ----------
    an : Analysis
    pair : StereoPair

    Returns
    -------
    left, right : ndarray, shape (S,)
        Amplitudes; below 0 is pulled first.
    early_ms : ndarray, shape (S,)
        Milliseconds; above 0 where the right is earlier.
    """
    i, j = _index(an, pair)
    if pair.coding == "left-right":
        early = (an.arrivals.time_s[i] - an.arrivals.time_s[j]) * 1e3
        return _signed(an, i), _signed(an, j), early
    mid, side = _signed(an, i), pair.width * _signed(an, j)
    if not side_faces_left(an.layout, pair):
        side = -side
    return mid + side, mid - side, np.zeros_like(mid)


def side_faces_left(layout: Layout, pair: StereoPair) -> bool:
    """Whether the front of a side mic faces the left of the picture.

    Parameters
    ----------
    layout : Layout
    pair : StereoPair

    Returns
    -------
    bool
    """
    return float(np.array(layout.mic(pair.right).aim) @ picture_left(layout)) >= 0


def positions(an: Analysis, pair: StereoPair) -> tuple[Floats, Mask]:
    """Where each source appears, and which cannot be placed.

    Two signals of opposite polarity of about one level have no place (common practice).

    Parameters
    ----------
    an : Analysis
    pair : StereoPair

    Returns
    -------
    percent : ndarray, shape (S,)
        Right above zero.
    lost : ndarray of bool, shape (S,)
    """
    left, right, early = speakers(an, pair)
    level = 20 * np.log10(np.maximum(np.abs(right), 1e-6) / np.maximum(np.abs(left), 1e-6))
    return place_percent(level, early), (left * right < 0) & (np.abs(level) < 12)


def fold_down_db(an: Analysis, pair: StereoPair) -> dict[str, Floats]:
    """What mono keeps of each source, decibels (S,): 0 for one alike in both speakers.

    The mono sum against the two speakers' energies: a drum in one speaker only keeps -3 dB,
    two unlike copies -3 dB, opposite ones nothing. ``body`` and ``attack`` bands.

    Parameters
    ----------
    an : Analysis
    pair : StereoPair

    Returns
    -------
    dict of str to ndarray, shape (S,)
        Decibels by band.
    """
    i, j = _index(an, pair)
    s, a, b = an.scene.sources, _signed(an, i), _signed(an, j)
    if pair.coding == "mid-side":
        kept = 10 * np.log10(np.maximum(a**2, 1e-12) / np.maximum(a**2 + (pair.width * b) ** 2,
                                                                    1e-12))  # fmt: skip
        return {"body": kept, "attack": kept}
    one, two = np.array([min(i, j)]), np.array([max(i, j)])
    found = {}
    bands = {"body": (s.body_low, s.body_high), "attack": (s.punch_high, s.attack_high)}
    for name, (low, high) in bands.items():
        alike = pair_alike(an.arrivals.rays, one, two, low, high)[0]
        mono = a**2 + b**2 + 2 * a * b * alike
        kept = np.maximum(mono, 1e-9 * (a**2 + b**2)) / np.maximum(2 * (a**2 + b**2), 1e-12)
        found[name] = np.asarray(10 * np.log10(kept))
    return found


def recording_angle_deg(
    shares: tuple[float, float], aims: tuple[ArrayLike, ArrayLike], base: ArrayLike, speed: float
) -> float | None:
    """The angle in front of a pair that fills the base, degrees; None when none does.

    Parameters
    ----------
    shares : (float, float)
        The a of each pattern, left and right.
    aims : pair of array_like, shape (3,)
        Unit vectors.
    base : array_like, shape (3,)
        From the left capsule to the right, metres.
    speed : float
        Metres per second.

    Returns
    -------
    float or None

    References
    ----------
    Williams; Wittek and Theile (2002): about 96° for cardioids 17 cm and 110° apart, 180° for
    crossed cardioids at 90°, 70 to 76° for crossed figure-8.
    """
    one, two = (np.asarray(a, dtype=float) for a in aims)
    across = np.asarray(base, dtype=float)
    axis = one + two
    # At one point the capsules often cross; what is left is then what looks left.
    right = across if np.linalg.norm(across) > TOGETHER_M else two - one
    if np.linalg.norm(axis) < 1e-6 or np.linalg.norm(right) < 1e-6:
        return None
    right = right / np.linalg.norm(right)
    axis = axis - right * float(axis @ right)
    if np.linalg.norm(axis) < 1e-6:
        return None
    axis = axis / np.linalg.norm(axis)
    theta = np.radians(np.arange(0.0, 135.0, 0.05))
    way = np.cos(theta)[:, None] * axis + np.sin(theta)[:, None] * right
    left_db, right_db = (
        20 * np.log10(np.maximum(np.abs(directivity(share, way @ aim)), 1e-4))
        for share, aim in zip(shares, (one, two), strict=True)
    )
    early = way @ across / speed * 1e3
    full = np.flatnonzero(place_percent(right_db - left_db, early) >= 100 - 1e-9)
    return float(2 * np.degrees(theta[full[0]])) if len(full) else None


def _apart_m(an: Analysis, pair: StereoPair) -> float:
    i, j = _index(an, pair)
    return float(np.linalg.norm(an.scene.capsule[i] - an.scene.capsule[j]))


def _angle(an: Analysis, pair: StereoPair) -> float | None:
    i, j = _index(an, pair)
    mics, at, aim = an.layout.mics, an.scene.capsule, an.scene.aim
    if pair.coding == "left-right":
        shares = (PRESSURE_SHARE[mics[i].pattern], PRESSURE_SHARE[mics[j].pattern])
        return recording_angle_deg(shares, (aim[i], aim[j]), at[j] - at[i], an.scene.speed)
    return _mid_side_angle(PRESSURE_SHARE[mics[i].pattern], pair.width)


def _mid_side_angle(share: float, width: float) -> float | None:
    """The recording angle of a decoded mid-side pair, degrees."""
    theta = np.radians(np.arange(0.0, 135.0, 0.05))
    mid, side = directivity(share, np.cos(theta)), width * np.sin(theta)
    level = 20 * np.log10(
        np.maximum(np.abs(mid + side), 1e-4) / np.maximum(np.abs(mid - side), 1e-4)
    )
    full = np.flatnonzero(place_percent(level, 0.0) >= 100 - 1e-9)
    return float(2 * np.degrees(theta[full[0]])) if len(full) else None


def kit_angle_deg(an: Analysis, pair: StereoPair) -> float | None:
    """The angle the kit takes up in front of a pair; None where it stands over or round it.

    Parameters
    ----------
    an : Analysis
    pair : StereoPair

    Returns
    -------
    float or None
        Degrees.
    """
    i, j = _index(an, pair)
    at = an.scene.capsule[[i, j]].mean(axis=0)
    to = an.scene.sources.centre - at
    flat = to[:, :2]
    reach = np.linalg.norm(flat, axis=1)
    mean = flat.mean(axis=0)
    if reach.min() < 0.3 or np.linalg.norm(mean) < 0.6:
        return None
    turn = np.arctan2(flat[:, 0] * mean[1] - flat[:, 1] * mean[0], flat @ mean)
    span = float(np.degrees(turn.max() - turn.min()))
    return span if span < 180 else None


def off_centre_words(name: str, percent: float, placed: bool) -> str:
    """Where a drum appears, in degrees and words.

    Parameters
    ----------
    name : str
    percent : float
        Left is negative, -100 to 100.
    placed : bool
        Whether it appears where it is placed.

    Returns
    -------
    str
    """
    if not placed:
        return f"{name} has no place: the two speakers push opposite ways."
    degrees = abs(percent) * SPEAKER_DEG / 100
    if abs(percent) < MIDDLE_PERCENT:
        return f"{name} in the middle."
    side = "left" if percent < 0 else "right"
    if abs(percent) >= 99.5:
        return f"{name} at the {side} speaker."
    size = "a little " if abs(percent) < 25 else "half way " if abs(percent) < 60 else "far "
    return f"{name} {whole(degrees)}° {side} of the middle: {size}{side}."


@dataclass(frozen=True, kw_only=True, slots=True)
class SourcePlace:
    """Where a drum appears: percent and degrees, left below zero; what mono keeps of it."""

    source: str
    percent: float
    degrees: float
    placed: bool
    fold_body_db: float
    fold_attack_db: float
    sure: bool
    """Of the sign."""
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Picture:
    """The picture of one stereo pair."""

    name: str
    left: str
    right: str
    coding: Literal["left-right", "mid-side"]
    width: float
    recording_deg: float | None
    """None where an angle in front of the pair means nothing."""
    kit_deg: float | None
    sources: list[SourcePlace]
    notes: list[str]


def picture(an: Analysis, pair: StereoPair) -> Picture:
    """The stereo picture of one pair.

    Parameters
    ----------
    an : Analysis
    pair : StereoPair

    Returns
    -------
    Picture
    """
    s = an.scene.sources
    percent, nowhere = positions(an, pair)
    fold = fold_down_db(an, pair)
    i, j = _index(an, pair)
    row, _ = an.pair_index(pair.left, pair.right)
    sure = an.pairs.sign[row] != 0
    kit = kit_angle_deg(an, pair)
    round_it = kit is None and _apart_m(an, pair) > ROUND_M
    recording = None if round_it else _angle(an, pair)
    return Picture(
        name=pair.name,
        left=pair.left,
        right=pair.right,
        coding=pair.coding,
        width=pair.width,
        recording_deg=recording,
        kit_deg=kit,
        sources=[
            _source_place(an, k, float(percent[k]), bool(nowhere[k]), bool(sure[k]), fold)
            for k in range(len(s.ids))
        ],
        notes=_notes(an, pair, i, j, recording, kit),
    )


def _source_place(
    an: Analysis, k: int, percent: float, nowhere: bool, sure: bool, fold: dict[str, Floats]
) -> SourcePlace:
    s, placed = an.scene.sources, not (nowhere and sure)
    doubt = "" if sure or not s.drum[k] else " If both are pushed alike."
    return SourcePlace(
        source=s.ids[k],
        percent=round(percent, 2),
        degrees=round(percent * SPEAKER_DEG / 100, 2),
        placed=placed,
        fold_body_db=round(float(fold["body"][k]), 2),
        fold_attack_db=round(float(fold["attack"][k]), 2),
        sure=sure,
        words=off_centre_words(s.names[k], percent, placed) + doubt,
    )


def _notes(
    an: Analysis, pair: StereoPair, i: int, j: int, recording: float | None, kit: float | None
) -> list[str]:
    said = []
    left = picture_left(an.layout)
    at, aim = an.scene.capsule, an.scene.aim
    if pair.coding == "mid-side":
        if not side_faces_left(an.layout, pair):
            said.append(
                f"The front of {pair.right} faces the right of the picture: change the decoded"
                " channels over."
            )
    else:
        gap = float((at[i] - at[j]) @ left)
        if abs(gap) < TOGETHER_M:
            gap = float((aim[i] - aim[j]) @ left)
        if gap < -TOGETHER_M:
            said.append(
                f"For the {an.layout.seen_from}'s view {pair.left} stands on the right: change"
                f" {pair.left} and {pair.right} over, or choose the other view."
            )
    if recording is not None and kit is not None:
        if recording > kit * 1.25:
            said.append(
                f"The kit takes up {whole(kit)}° of the {whole(recording)}° this pair takes in: it"
                " will sound narrower than the speakers. Go nearer, or open the pair."
            )
        elif kit > recording * 1.1:
            said.append(
                f"The kit takes up {whole(kit)}°, more than the {whole(recording)}° this pair takes"
                " in: its sides pile up at the speakers. Step back, or close the pair."
            )
    if recording is None and kit is None and _apart_m(an, pair) > ROUND_M:
        said.append("The pair stands round the kit, so no one angle describes it: see each drum.")
    return said
