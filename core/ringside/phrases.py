"""Names in a row, and numbers with their nouns, as everything that is told has them."""

from collections.abc import Sequence


def listed(names: Sequence[str]) -> str:
    """Names in a row: "a", "a and b", "a, b and c".

    Parameters
    ----------
    names : sequence of str

    Returns
    -------
    str
    """
    if len(names) < 2:
        return "".join(names)
    return f"{', '.join(names[:-1])} and {names[-1]}"


def count_words(n: int, one: str, more: str = "") -> str:
    """A number with its noun.

    Parameters
    ----------
    n : int
    one : str
        For a single one.
    more : str
        For several; with an s where it is left out.

    Returns
    -------
    str
    """
    return f"{n} {one if n == 1 else more or one + 's'}"
