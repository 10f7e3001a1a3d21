"""What stands between mics and drums: gobos, and walls with mics next door or round a corner."""

from dataclasses import dataclass

import numpy as np

from ringside.arrays import Floats
from ringside.hear.barriers import Barriers, barriers
from ringside.hear.bends import Bends
from ringside.plan.room import Room


@dataclass(frozen=True)
class Screens:
    """Both, of M mics by S sources; None where there is nothing of the kind."""

    mics: int
    gobos: Barriers | None
    walls: Bends | None

    def loss_db(self, frequency_hz: Floats, speed: float) -> Floats:
        """What all of it takes.

        Parameters
        ----------
        frequency_hz : ndarray, shape (S,)
            Hertz.
        speed : float
            Of sound, m/s.

        Returns
        -------
        ndarray, shape (M, S)
            Decibels.
        """
        lost = self.gobos.loss_db(frequency_hz, speed) if self.gobos is not None else 0.0
        if self.walls is not None:
            lost = lost + self.walls.loss_db(frequency_hz, speed, self.mics)
        return np.asarray(lost)


def screens_of(
    room: Room | None, capsule: Floats, toward: Floats, walls: Bends | None
) -> Screens | None:
    """What is between, once the ways by doors and corners are known.

    Parameters
    ----------
    room : Room or None
    capsule : ndarray, shape (M, 3)
        Metres, in the kit's frame.
    toward : ndarray, shape (M, S, 3)
        The way each sound comes in.
    walls : Bends or None
        Of these mics.

    Returns
    -------
    Screens or None
        None where nothing is in any way.
    """
    start, way = (capsule, toward) if walls is None else walls.inner_legs(capsule, toward)
    gobos = barriers(room, start, way)
    return None if gobos is None and walls is None else Screens(len(capsule), gobos, walls)
