"""What falls short, in words: of the locker, of a patch, of care."""

from dataclasses import dataclass
from typing import Final, Literal

LackKind = Literal[
    "mics", "stands", "inputs", "phantom", "cables", "level", "splits", "budget", "minutes", "care"
]


ON_THE_WAY: Final = frozenset({"inputs", "phantom", "cables", "level", "splits"})
"""What is put right in the patch, not at the stands."""


@dataclass(frozen=True, kw_only=True, slots=True)
class LackRow:
    """Something the locker falls short of, or care that is called for, and the mics concerned."""

    kind: LackKind
    words: str
    mics: list[str]
    on_the_way: bool
    """It is of the way from the mic to its track."""


def lack(kind: LackKind, words: str, *mics: str) -> LackRow:
    """A row of its words and the mics it concerns.

    Parameters
    ----------
    kind : LackKind
    words : str
    *mics : str
        Short names.

    Returns
    -------
    LackRow
    """
    return LackRow(kind=kind, words=words, mics=list(mics), on_the_way=kind in ON_THE_WAY)
