"""The body of many mics on one drum: what a sum of any mics, as wired or flipped, adds up to.

After gain, mic i hears drum s with amplitude a and the sum of all with signs x has over the
drum's body band the energy Σ x_i x_j a_i a_j σ_ij C_ij: σ is the product of the two first
half-waves, C the likeness of the two (:mod:`ringside.hear.sums`). The matrix of a drum is called
its gram here. Where the sign of a pair is unsure its term is left out: on average over both
signs it is nothing, and no guess is dressed as an answer. The sum is what mono has: the side of
a mid-side pair is in both speakers with opposite signs and counts for nothing there.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.arrays import Floats, Mask
from ringside.pairs.analysis import Analysis
from ringside.pairs.kinds import side_mics
from ringside.pairs.verdicts import Verdict

LEAST_SHARE: Final = 1e-3
"""A drum's sum is never taken for less than this share of its mics' energies: two that cancel
on paper leave something in the air, and a step from nothing would be endless."""


def grams(an: Analysis) -> Floats:
    """The gram of every drum, with the signs as wired; cymbals have no body.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    ndarray, shape (D, M, M)
        Energies on the scale of `after_gain_db`.
    """
    p, heard = an.pairs, an.arrivals
    drums = np.flatnonzero(an.scene.sources.drum)
    amplitude = 10 ** (heard.after_gain_db[:, drums] / 20)
    amplitude[~an.scene.heard] = 0.0
    amplitude[side_mics(an.layout)] = 0.0
    count = len(amplitude)
    made = np.zeros((len(drums), count, count))
    term = p.sign[:, drums] * p.alike[:, drums] * amplitude[p.first] * amplitude[p.second]
    made[:, p.first, p.second] = term.T
    made[:, p.second, p.first] = term.T
    rows = np.arange(count)
    made[:, rows, rows] = amplitude.T**2
    return made


def drum_ids(an: Analysis) -> list[str]:
    """The drums in the order of the grams.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    list of str
    """
    return [d.id for d in an.layout.kit.drums]


def meant(an: Analysis) -> Mask:
    """Drums whose sound is somebody's business, (D,): with a mic of their own, or under any
    overhead or room mic. What is only bleed in the spots of others is balanced by none of them.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    ndarray of bool, shape (D,)
        All of them where no mic that is heard is put up for any.
    """
    heard = [m for m, up in zip(an.layout.mics, an.scene.heard, strict=True) if up]
    if any(m.role != "close" or m.job is None for m in heard):
        return np.ones(len(an.layout.kit.drums), bool)
    jobs = {m.job for m in heard}
    own = np.array([d.id in jobs for d in an.layout.kit.drums], bool)
    return own if own.any() else np.ones_like(own)


def body_of(gram: Floats, signs: Floats) -> Floats:
    """Energy of the sum under signs, for each drum.

    Parameters
    ----------
    gram : ndarray, shape (D, M, M)
    signs : ndarray, shape (M,)
        +1, -1, or 0 for a mic that is off.

    Returns
    -------
    ndarray, shape (D,)
        Energies on the scale of `gram`.
    """
    return np.asarray(np.einsum("i,dij,j->d", signs, gram, signs))


def kept_body(gram: Floats, signs: Floats) -> Floats:
    """`body_of`, but no less than `LEAST_SHARE` of the mics that are on.

    Parameters
    ----------
    gram : ndarray, shape (D, M, M)
    signs : ndarray, shape (M,)
        +1, -1, or 0 for a mic that is off.

    Returns
    -------
    ndarray, shape (D,)
        Energies on the scale of `gram`.
    """
    whole = np.einsum("i,dii->d", np.abs(signs), gram)
    return np.asarray(np.maximum(body_of(gram, signs), LEAST_SHARE * np.maximum(whole, 1e-12)))


@dataclass(frozen=True, kw_only=True, slots=True)
class PairOn:
    """A pair on a drum, by name."""

    a: str
    b: str
    source: str


def unsure_pairs(an: Analysis) -> list[PairOn]:
    """Pairs and drums whose sign is unsure and would be heard.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    list of PairOn
    """
    p, ids = an.pairs, [m.id for m in an.layout.mics]
    names = an.scene.sources.ids
    matters = p.verdict == Verdict.ASK_THE_EAR
    return [
        PairOn(a=ids[p.first[r]], b=ids[p.second[r]], source=names[k])
        for r, k in zip(*np.nonzero(matters), strict=True)
    ]
