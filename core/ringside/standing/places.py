"""How a mic stands off a place, in stand terms, as far as that is more than what is not known."""

from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.standing.moves import side_words
from ringside.standing.told import Told, ended, joined

THERE_M: Final = 0.01
"""Nearer to its plan than this a mic stands there."""


def is_off(way: Floats, spread: Floats) -> bool:
    """Whether a shift is more than a centimetre, and more than twice what it is unsure by.

    Parameters
    ----------
    way : ndarray, shape (3,)
        Metres.
    spread : ndarray, shape (3, 3)
        Its covariance, m².

    Returns
    -------
    bool
    """
    size = float(np.linalg.norm(way))
    if size <= THERE_M:
        return False
    unit = way / size
    return size > 2 * float(np.sqrt(unit @ spread @ unit))


def shifts(off: Floats, spread: Floats, up: str, down: str) -> list[Told]:
    """What is known of a shift: level, and in height; none where nothing is.

    Parameters
    ----------
    off : ndarray, shape (3,)
        In the frame of the kit, metres.
    spread : ndarray, shape (3, 3)
        Its covariance, m².
    up, down : str
        How the two ways of height are called.

    Returns
    -------
    list of Told
    """
    level, high = off * (1.0, 1.0, 0.0), off * (0.0, 0.0, 1.0)
    said = []
    if is_off(level, spread):
        said.append(Told("{} " + side_words(off), (float(np.linalg.norm(level)),), True))
    if is_off(high, spread):
        said.append(Told("{} " + (up if off[2] > 0 else down), (abs(float(off[2])),), True))
    return said


def place_words(off: Floats, spread: Floats, likely: bool) -> Told:
    """How a mic stands off its plan.

    Parameters
    ----------
    off : ndarray, shape (3,)
        Metres.
    spread : ndarray, shape (3, 3)
        Covariance of its place, m².
    likely : bool
        Its place is still open in some direction.

    Returns
    -------
    Told
    """
    said = shifts(off, spread, "too high", "too low")
    if not said:
        most = float(np.sqrt(np.linalg.eigvalsh(spread)[-1]))
        words = "Stands where it was planned, as far as is known: {} or so."
        return Told(words, (2 * most,), True)
    return joined([Told("Likely" if likely else ""), ended(joined(said, " and "))])


def back_words(off: Floats, spread: Floats) -> Told:
    """The way back to the plan, of what is known to be off it.

    Parameters
    ----------
    off : ndarray, shape (3,)
        Metres.
    spread : ndarray, shape (3, 3)
        Covariance of its place, m².

    Returns
    -------
    Told
    """
    said = shifts(-off, spread, "up", "down")
    return joined([Told("Back to the plan:"), ended(joined(said, ", "))]) if said else Told()


def near_words(off_m: float) -> Told:
    """A close mic against its own drum.

    Parameters
    ----------
    off_m : float
        Above zero it is too far.

    Returns
    -------
    Told
    """
    if abs(off_m) <= THERE_M:
        return Told("As far from its drum as planned.")
    where = "too far from" if off_m > 0 else "too near"
    return Told("{} " + f"{where} its drum.", (abs(off_m),), True)
