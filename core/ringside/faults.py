"""How a value that was refused is told: place, what was expected, what came, the likely slip."""

import json
from collections.abc import Sequence
from typing import Any

from pydantic_core import ErrorDetails

from ringside.values import FILE_NAME_PATTERN, KEY_PATTERN


def place_of(loc: Sequence[int | str]) -> str:
    """A place in the file, as ``mics[3].position_m[1]``.

    Parameters
    ----------
    loc : sequence of int or str
        The steps to a value, as the validator gives them.

    Returns
    -------
    str
    """
    words = ""
    for step in loc:
        words += f"[{step}]" if isinstance(step, int) else f".{step}" if words else step
    return words


def short(value: Any) -> str:
    """A value as it is told in a sentence.

    Parameters
    ----------
    value : object
        As parsed from JSON.

    Returns
    -------
    str
    """
    text = json.dumps(value, default=str)
    return text if len(text) <= 60 else text[:57] + "..."


_EXPECTED = {
    "float_type": "expected a number",
    "float_parsing": "expected a number",
    "finite_number": "expected a finite number",
    "int_type": "expected a whole number",
    "int_from_float": "expected a whole number",
    "bool_type": "expected true or false",
    "string_type": "expected text",
    "tuple_type": "expected a list",
    "list_type": "expected a list",
    "dict_type": "expected an object",
    "dataclass_type": "expected an object",
    "int_parsing": "expected a whole number",
    "bool_parsing": "expected true or false",
    "date_from_datetime_parsing": "expected a date",
    "datetime_from_date_parsing": "expected a date and time",
    "datetime_parsing": "expected a date and time",
    "datetime_type": "expected a date and time",
    "uuid_parsing": "expected a key of 32 hexadecimal digits",
    "uuid_type": "expected a key of 32 hexadecimal digits",
    "model_type": "expected an object",
}


_COUNTED = {
    "too_short": "expected at least {min_length} of them, got {actual_length}",
    "too_long": "expected at most {max_length} of them, got {actual_length}",
    "string_too_short": "expected at least {min_length} letters, got {given}",
    "string_too_long": "expected at most {max_length} letters, got {given}",
    "literal_error": "expected {expected}, got {given}",
    "greater_than": "expected more than {gt}, got {given}",
    "less_than": "expected less than {lt}, got {given}",
    "multiple_of": "expected a multiple of {multiple_of}, got {given}",
    "union_tag_invalid": "expected {expected_tags} as {discriminator}, got {tag}",
    "union_tag_not_found": "expected an object that says what it is by {discriminator}",
}
_PATTERNS = {
    KEY_PATTERN: (
        "expected one word of up to 16 letters, digits and . _ + -, the first a letter or digit"
    ),
    FILE_NAME_PATTERN: "expected a file's name without / and \\",
}


def wording(error: ErrorDetails) -> str:
    """What was expected, what came, and the likely slip, for one fault.

    Parameters
    ----------
    error : ErrorDetails

    Returns
    -------
    str
    """
    kind, given, ctx = error["type"], error["input"], error.get("ctx", {})
    if kind == "missing":
        return "missing; expected a value here"
    if kind == "extra_forbidden":
        return "not a field of this format; check the spelling"
    if kind == "value_error":
        return str(ctx["error"])
    if kind == "string_pattern_mismatch":
        return f"{_PATTERNS.get(ctx['pattern'], 'expected other text')}, got {short(given)}"
    if kind in _COUNTED:
        return _COUNTED[kind].format(**ctx, given=short(given))
    if kind in _EXPECTED:
        return f"{_EXPECTED[kind]}, got {short(given)}"
    if kind == "less_than_equal":
        metres = str(error["loc"][-1] if isinstance(error["loc"][-1], str) else error["loc"][-2])
        slip = " metres; given in cm?" if metres.endswith("_m") else ""
        return f"expected at most {ctx['le']:g}, got {short(given)}{slip}"
    if kind == "greater_than_equal":
        return f"expected at least {ctx['ge']:g}, got {short(given)}"
    return f"expected something else here, got {short(given)}"
