"""Names for the arrays that go between modules; shapes are said where they are used."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Signs = NDArray[np.int8]
Mask = NDArray[np.bool_]
Complexes = NDArray[np.complex128]


def dot(a: Floats, b: Floats) -> Floats:
    """The products of vectors of three, to the same last digit wherever their numbers lie.

    Parameters
    ----------
    a, b : ndarray, shape (..., 3)
        Broadcast together.

    Returns
    -------
    ndarray, shape (...)
    """
    return np.asarray(a[..., 0] * b[..., 0] + a[..., 1] * b[..., 1] + a[..., 2] * b[..., 2])
