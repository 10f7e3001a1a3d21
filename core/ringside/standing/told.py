"""Sentences with lengths in them, worded for each reader's own units where they are read."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

GAP: Final = "{}"
"""Where a length stands in a sentence."""


@dataclass(frozen=True, slots=True)
class Told:
    """A sentence, and the lengths that belong in its gaps, one after the other."""

    text: str = ""
    lengths_m: tuple[float, ...] = ()
    whole: bool = False
    """Known to a centimetre or so: told without what is finer."""

    def __bool__(self) -> bool:
        return bool(self.text)

    def cm(self) -> str:
        """The sentence in centimetres.

        Returns
        -------
        str
        """
        first, *rest = self.text.split(GAP)
        sizes = [f"{m * 100:.{0 if self.whole else 1}f} cm" for m in self.lengths_m]
        return first + "".join(f"{s}{r}" for s, r in zip(sizes, rest, strict=False))


def joined(parts: Sequence[Told], joint: str = " ") -> Told:
    """Several as one; whole where any of them is.

    Parameters
    ----------
    parts : sequence of Told
    joint : str
        What stands between.

    Returns
    -------
    Told
    """
    there = [p for p in parts if p]
    return Told(
        joint.join(p.text for p in there),
        tuple(m for p in there for m in p.lengths_m),
        any(p.whole for p in there),
    )


def ended(words: Told) -> Told:
    """A sentence with its full stop.

    Parameters
    ----------
    words : Told

    Returns
    -------
    Told
    """
    return Told(f"{words.text}.", words.lengths_m, words.whole)
