"""What gobos, and a card of foam between hats and snare mic, take from what passes them.

A thin screen in the way lets sound round its edges. Over each edge the way is longer by δ, and
with N = 2δf/c the loss is 5 + 20·log(√(2πN)/tanh √(2πN)) dB; for a way that passes just beside
the edge N is below nothing and tan takes the place of tanh, until nothing is lost from N = -0.2
on (U. Kurze and G. Anderson, Applied Acoustics 4 (1971) 35, their fit to Z. Maekawa, Applied
Acoustics 1 (1968) 157). The fit is good from N = -0.2 to about 12, where one screen takes 24 dB,
and no more is told. What comes over several edges adds by energy. It is made for far thicker
shadows than a hand of foam throws: below a few hundred hertz it takes next to nothing from a card,
as foam does. What goes through a gobo, and what it sends back, is left out.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.plan.room import Gobo, Room, to_room

MOST_LOSS_DB: Final = 24.0
BRIGHT_N: Final = -0.2
"""Fresnel number from which on nothing is lost."""

FAR: Final = 1e9


def barrier_loss_db(fresnel: Floats) -> Floats:
    """What one edge takes.

    Parameters
    ----------
    fresnel : ndarray
        N = 2δf/c; below nothing where the straight way passes beside the edge.

    Returns
    -------
    ndarray
        Decibels, 0 to `MOST_LOSS_DB`, of the shape of `fresnel`.

    Examples
    --------
    >>> barrier_loss_db(np.array([-0.2, 0.0, 1.0])).round(1).tolist()
    [0.0, 5.0, 13.1]
    """
    n = np.asarray(fresnel, dtype=float)
    root = np.sqrt(2 * np.pi * np.maximum(np.abs(n), 1e-9))
    dark = 5 + 20 * np.log10(root / np.tanh(root))
    narrow = np.minimum(root, np.sqrt(2 * np.pi * -BRIGHT_N))
    bright = 5 + 20 * np.log10(narrow / np.tan(narrow))
    lost = np.where(n >= 0, dark, np.where(n > BRIGHT_N, bright, 0.0))
    return np.asarray(np.clip(lost, 0.0, MOST_LOSS_DB))


@dataclass(frozen=True)
class Barriers:
    """How much longer the ways round B gobos are: (B, 4, M, S) metres over top, under, and both
    sides; below nothing where the straight way passes beside that edge, endless where there is
    none. `between`: whether the gobo's plane lies between the two at all, (B, M, S)."""

    longer: Floats
    between: np.ndarray

    def loss_db(self, frequency_hz: Floats, speed: float) -> Floats:
        """What all of them take.

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
        fresnel = 2 * self.longer * np.asarray(frequency_hz, dtype=float) / speed
        edge = np.where(self.longer >= FAR, np.inf, barrier_loss_db(np.minimum(fresnel, 1e6)))
        passed = (10 ** (-edge / 10)).sum(axis=1)
        one = np.clip(-10 * np.log10(np.maximum(passed, 1e-12)), 0.0, MOST_LOSS_DB)
        return np.asarray(np.where(self.between, one, 0.0).sum(axis=0))

    def detour_m(self) -> Floats:
        """How much longer the shortest way is where the straight one is shut.

        Returns
        -------
        ndarray, shape (M, S)
            Metres.
        """
        shut = self.between & (self.longer > 0).all(axis=1)
        return np.asarray(np.where(shut, self.longer.min(axis=1), 0.0).sum(axis=0))


def barriers(room: Room | None, capsule: Floats, toward: Floats) -> Barriers | None:
    """The gobos of a room as they stand between mics and sources.

    Parameters
    ----------
    room : Room or None
    capsule : ndarray, shape (M, 3)
        Metres, in the kit's frame.
    toward : ndarray, shape (M, S, 3)
        From each capsule the way the sound of each source comes from, metres.

    Returns
    -------
    Barriers or None
        None without gobos.
    """
    if room is None or not room.gobos or len(capsule) == 0:
        return None
    mics = to_room(capsule, room)
    ends = capsule[:, None, :] + toward
    sources = to_room(ends.reshape(-1, 3), room).reshape(ends.shape)
    rows = [_round(g, mics, sources) for g in room.gobos]
    return Barriers(np.array([r[0] for r in rows]), np.array([r[1] for r in rows]))


def _round(gobo: Gobo, mics: Floats, sources: Floats) -> tuple[Floats, np.ndarray]:
    """The four detours round a gobo (4, M, S), and whether it is between (M, S)."""
    c, s = np.cos(gobo.turn_rad), np.sin(gobo.turn_rad)
    turn = np.array([[c, -s, 0.0], [s, c, 0.0], [0.0, 0.0, 1.0]])  # columns: along, across, up
    at = np.array([gobo.x_m, gobo.y_m, 0.0])
    p, q = (mics - at) @ turn, (sources - at) @ turn
    p = np.broadcast_to(p[:, None, :], q.shape)
    between = p[..., 1] * q[..., 1] < 0
    straight = np.linalg.norm(q - p, axis=-1)
    half, low, high = gobo.width_m / 2, gobo.from_m, gobo.from_m + gobo.height_m
    along, up = (p[..., 0], q[..., 0]), (p[..., 2], q[..., 2])
    across = (p[..., 1], q[..., 1])
    ways = [
        _over(up, across, along, high, (-half, half), straight, 1),
        _over(up, across, along, low, (-half, half), straight, -1)
        if low > 0
        else np.full(straight.shape, FAR),
        _over(along, across, up, half, (low, high), straight, 1),
        _over(along, across, up, -half, (low, high), straight, -1),
    ]
    return np.array(ways), between


Two = tuple[Floats, Floats]


def _over(
    out: Two, across: Two, along: Two, edge: float, ends: tuple[float, float], straight: Floats,
    outward: int,
) -> Floats:  # fmt: skip
    """The detour over an edge that lies at `edge` of the first coordinate and runs along the third.

    The shortest way over a straight edge is straight once the two half-planes are unfolded.
    Below nothing where the straight way passes outside the edge.
    """
    near, far = (np.hypot(a, o - edge) for a, o in zip(across, out, strict=True))
    share = near / np.maximum(near + far, 1e-12)
    at = np.clip(along[0] + share * (along[1] - along[0]), *ends)
    longer = np.hypot(near, along[0] - at) + np.hypot(far, along[1] - at) - straight
    span = across[0] - across[1]
    where = across[0] / np.where(np.abs(span) < 1e-12, 1e-12, span)
    crossing = out[0] + where * (out[1] - out[0])
    beside = outward * (crossing - edge) > 0
    return np.asarray(np.where(beside, -longer, longer))
