"""Text that can be stored, printed and read aloud: the one rule for every text anybody writes.

Refused are control characters other than tab and line break, halves of surrogate pairs, and
the marks that turn the direction of the text after them (the explicit directional formatting
characters of Unicode Standard Annex 9): a database cannot keep the first two, and the last
make a name read as another.
"""

import re
from typing import Any, Final

_BAD: Final = re.compile(
    "[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u202a-\u202e\u2066-\u2069\ud800-\udfff]"
)
_MAY_BE_BAD: Final = re.compile(
    rb"\\(?:[bf]|u(?:00[01][0-9a-f]|007f|00[89][0-9a-f]|20[26][0-9a-f]|d[89a-f][0-9a-f]{2}))"
    rb"|\x7f|\xc2[\x80-\x9f]|\xe2\x80[\xaa-\xae]|\xe2\x81[\xa6-\xa9]",
    re.IGNORECASE,
)
DEEPEST: Final = 64
"""Levels of lists and objects; nothing that is stored here has ten."""

Step = int | str


def _name(char: str) -> str:
    code = ord(char)
    if 0xD800 <= code <= 0xDFFF:
        return f"half a character (U+{code:04X})"
    if code >= 0x2000:
        return f"a mark that turns the direction of text (U+{code:04X})"
    return f"a control character (U+{code:04X})"


def fault_of(text: str) -> str | None:
    """Why a text cannot be stored; None when it can.

    Parameters
    ----------
    text : str

    Returns
    -------
    str or None

    Examples
    --------
    >>> fault_of("Room pair, low")
    >>> fault_of("Room\\x00pair")
    'expected plain text, got a control character (U+0000) at letter 5; take it out'
    """
    found = _BAD.search(text)
    if found is None:
        return None
    return (
        f"expected plain text, got {_name(found.group())} at letter {found.start() + 1};"
        " take it out"
    )


MOST_DIGITS: Final = 400
"""No figure has more; longer ones take a program seconds to read, or are refused by it."""


class TooLong(str):
    """The digits of a number that is longer than any figure."""


def digits(text: str) -> int | TooLong:
    """A whole number of JSON, or its digits where there are too many; for `json.loads`.

    Parameters
    ----------
    text : str

    Returns
    -------
    int or TooLong
    """
    return int(text) if len(text) <= MOST_DIGITS else TooLong(text)


def suspect(body: bytes) -> bool:
    """Whether UTF-8 JSON may hold a text that cannot be stored; a quick look, never a false no.

    Control characters written out are no JSON at all; escapes and the rest are looked for.

    Parameters
    ----------
    body : bytes
        As it came.

    Returns
    -------
    bool
    """
    return _MAY_BE_BAD.search(body) is not None


def first_fault(value: Any) -> tuple[tuple[Step, ...], str] | None:
    """The first text in parsed JSON, keys among them, that cannot be stored: where and why.

    Parameters
    ----------
    value : object
        As parsed from JSON.

    Returns
    -------
    tuple[tuple[Step, ...], str] or None
    """
    waiting: list[tuple[tuple[Step, ...], Any]] = [((), value)]
    while waiting:
        at, one = waiting.pop()
        if isinstance(one, TooLong):
            return at, f"expected a number of at most {MOST_DIGITS} digits, got one of {len(one)}"
        if isinstance(one, str):
            words = fault_of(one)
            if words:
                return at, words
        elif len(at) > DEEPEST:
            return at, "nested too deep to be read"
        elif isinstance(one, dict):
            for key in one:
                words = fault_of(str(key))
                if words:
                    return at, words
            waiting += [((*at, str(k)), v) for k, v in reversed(one.items())]
        elif isinstance(one, list):
            waiting += [((*at, i), v) for i, v in reversed(list(enumerate(one)))]
    return None
