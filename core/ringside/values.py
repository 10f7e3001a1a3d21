"""The kinds of value every record is built from: bounded numbers, vectors, names.

Records are frozen and check themselves once, when they are made; the same records are
the vocabulary of the layout file and of the server's interface, so it is typed once.
"""

from typing import Annotated

import numpy as np
from numpy.typing import ArrayLike
from pydantic import AfterValidator, BaseModel, ConfigDict, Field

BIGGEST_ROOM_M = 100.0


class Record(BaseModel):
    """A frozen value; unknown fields are refused so that a typing slip is not lost."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


Number = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-1e6, le=1e6)]
"""Any figure that somebody could mean: larger ones are slips or worse."""
Coordinate = Annotated[
    float, Field(strict=True, allow_inf_nan=False, ge=-BIGGEST_ROOM_M, le=BIGGEST_ROOM_M)
]
Vector = tuple[Coordinate, Coordinate, Coordinate]
Place = Annotated[Vector, AfterValidator(lambda v: vector(v))]
"""Where something stands, metres: kept to a tenth of a micrometre, whoever wrote it."""

Flag = Annotated[bool, Field(strict=True)]
Text = Annotated[str, Field(strict=True, max_length=400)]
Title = Annotated[str, Field(strict=True, min_length=1, max_length=80)]
KEY_PATTERN = r"^[A-Za-z0-9][A-Za-z0-9_.+-]{0,15}$"
Key = Annotated[
    str,
    Field(
        strict=True,
        pattern=KEY_PATTERN,
        description="Short name, one word, unique within its list.",
    ),
]
FILE_NAME_PATTERN = r"^[^/\\\x00]+$"
FileName = Annotated[
    str, Field(strict=True, min_length=1, max_length=120, pattern=FILE_NAME_PATTERN)
]
"""Of a sound file, without the folders it lies in."""


def length(low: float, high: float, why: str) -> object:
    """A field of metres between two bounds, with what it means.

    Parameters
    ----------
    low : float
        Least value.
    high : float
        Greatest value.
    why : str
        What it means, for whoever gets it wrong.

    Returns
    -------
    object
    """
    return Field(strict=True, allow_inf_nan=False, ge=low, le=high, description=why)


def vector(p: ArrayLike) -> Vector:
    """A point as it is kept: the one rounding of places, finer than any promise made of them.

    Parameters
    ----------
    p : array_like, shape (3,)
        Metres.

    Returns
    -------
    tuple of float, shape (3,)
    """
    x, y, z = (round(float(v), 7) + 0.0 for v in np.asarray(p, dtype=float))
    return (x, y, z)


def unit(v: ArrayLike) -> Vector:
    """A direction as it is kept, of length one; `v` has shape (3,) and any length above zero.

    Parameters
    ----------
    v : array_like, shape (3,)

    Returns
    -------
    tuple of float, shape (3,)
    """
    w = np.asarray(v, dtype=float)
    x, y, z = (float(q) + 0.0 for q in w / np.linalg.norm(w))
    return (x, y, z)


def whole(value: float) -> int:
    """The nearest whole number, halves up, as a screen writes it: what is told in words is the
    number beside them.

    Parameters
    ----------
    value : float
        Not under zero.

    Returns
    -------
    int

    Examples
    --------
    >>> whole(2.5), whole(92.5), whole(0.4)
    (3, 93, 0)
    """
    return int(value + 0.5)
