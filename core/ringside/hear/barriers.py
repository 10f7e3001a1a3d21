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
    capsule : ndarray, shape (M, 3) or (M, S, 3)
        Metres, in the kit's frame; or by source, where a way sets out from elsewhere.
    toward : ndarray, shape (M, S, 3)
        From each capsule the way the sound of each source comes from, metres.

    Returns
    -------
    Barriers or None
        None without gobos.
    """
    if room is None or not room.gobos or len(capsule) == 0:
        return None
    starts = capsule if capsule.ndim == 3 else capsule[:, None, :]
    ends = starts + toward
    mics, sources = (to_room(p.reshape(-1, 3), room).reshape(p.shape) for p in (starts, ends))
    frames = [_frame(g) for g in room.gobos]
    at, turn = (np.array(x) for x in zip(*frames, strict=True))
    # In the frame of each gobo: along it, through it, up; (B, M, S, 3).
    q = np.einsum("bmsi,bij->bmsj", sources - at[:, None, None], turn)
    p = np.broadcast_to(np.einsum("bmsi,bij->bmsj", mics - at[:, None, None], turn), q.shape)
    between = p[..., 1] * q[..., 1] < 0
    longer = _longer(p, q, np.array([_edges(g) for g in room.gobos]))
    for b, gobo in enumerate(room.gobos):
        if gobo.from_m <= 0:
            longer[b, ..., UNDER] = FAR
    return Barriers(np.moveaxis(longer, -1, 1), between)


OUT: Final = (2, 2, 0, 0)
ALONG: Final = (0, 0, 2, 2)
OUTWARD: Final = np.array([1, -1, 1, -1])
UNDER: Final = 1
"""The four edges: over the top, under, and both sides. Each lies at one coordinate of the gobo's
frame, `OUT`, and runs along another; outward is the way out of the gobo."""


def _frame(gobo: Gobo) -> tuple[Floats, Floats]:
    """Where a gobo stands on the floor (3,), and its frame by columns: along, through, up."""
    c, s = np.cos(gobo.turn_rad), np.sin(gobo.turn_rad)
    turn = np.array([[c, -s, 0.0], [s, c, 0.0], [0.0, 0.0, 1.0]])
    return np.array([gobo.x_m, gobo.y_m, 0.0]), turn


def _edges(gobo: Gobo) -> list[list[float]]:
    """Each edge: where it lies, and from where to where it runs."""
    half, low, high = gobo.width_m / 2, gobo.from_m, gobo.from_m + gobo.height_m
    return [[high, -half, half], [low, -half, half], [half, low, high], [-half, low, high]]


def _longer(p: Floats, q: Floats, edges: Floats) -> Floats:
    """The detours from p to q over every edge, (B, M, S, 4).

    The shortest way over a straight edge is straight once the two half-planes are unfolded.
    Below nothing where the straight way passes outside the edge.
    """
    edge, low, high = (edges[:, None, None, :, n] for n in range(3))
    straight = np.sqrt(((q - p) ** 2).sum(axis=-1))[..., None]
    across = p[..., 1:2], q[..., 1:2]
    out = p[..., OUT] - edge, q[..., OUT] - edge
    along = p[..., ALONG], q[..., ALONG]
    near, far = (np.sqrt(a * a + o * o) for a, o in zip(across, out, strict=True))
    share = near / np.maximum(near + far, 1e-12)
    at = np.clip(along[0] + share * (along[1] - along[0]), low, high)
    longer = (
        sum(np.sqrt(d * d + (x - at) ** 2) for d, x in zip((near, far), along, strict=True))
        - straight
    )
    span = across[0] - across[1]
    where = across[0] / np.where(np.abs(span) < 1e-12, 1e-12, span)
    beside = OUTWARD * (out[0] + where * (out[1] - out[0])) > 0
    return np.asarray(np.where(beside, -longer, longer))
