"""How far readings leave every arrival difference open: the net's covariance, carried to pairs."""

from dataclasses import replace

import numpy as np

from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis, analyse
from ringside.standing.truth import Truth


def as_it_stands(true: Truth) -> Analysis:
    """Everything computed from the layout as it stands, as sure as the readings make it.

    Parameters
    ----------
    true : Truth

    Returns
    -------
    Analysis
    """
    an = analyse(true.layout)
    return replace(an, doubt_m=doubt_m(true, an))


def doubt_m(true: Truth, an: Analysis) -> Floats:
    """One standard deviation of the difference of every pair's two ways, metres.

    A reading from a mic to a drum says their distance well though neither place is known well:
    what counts is the covariance of all of them together.

    Parameters
    ----------
    true : Truth
    an : Analysis
        Of its layout.

    Returns
    -------
    ndarray, shape (P, S)
    """
    to = an.arrivals.toward
    unit = to / np.maximum(np.linalg.norm(to, axis=-1, keepdims=True), 1e-9)
    n = true.parts + len(an.layout.mics)
    block = true.net.covariance.reshape(n, 3, n, 3).transpose(0, 2, 1, 3)
    i, j = an.pairs.first, an.pairs.second
    out = np.empty((len(i), unit.shape[1]))
    among = block[true.parts :, true.parts :]
    for k in range(unit.shape[1]):
        u = unit[:, k]
        both = np.einsum("mi,mnij,nj->mn", u, among, u)
        apart = u[j] - u[i]
        own = np.einsum("pi,ij,pj->p", apart, block[k, k], apart)
        cross = np.einsum("mi,mij->mj", u, block[true.parts :, k])
        with_part = np.einsum("pj,pj->p", cross[j] - cross[i], apart)
        out[:, k] = both[j, j] + both[i, i] - 2 * both[i, j] + own - 2 * with_part
    return np.sqrt(np.maximum(out, 0.0))
