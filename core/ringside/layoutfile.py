"""Reading and writing the open layout file: JSON, metres and radians, version 1.

The format is described in docs/formats/layout.md and layout.schema.json. A file that is
not one is refused whole, with the place of the first fault and what was expected there.
"""

import json
from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from ringside.errors import LayoutFileError
from ringside.layout import FORMAT, VERSION, Layout

BIGGEST_FILE = 1_000_000
"""Bytes. Sixty-four mics with all their decisions take less than half of it."""


def _no_twins(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for key, value in pairs:
        if key in found:
            raise LayoutFileError(key, "the same field is given twice in one object")
        found[key] = value
    return found


def _parse(text: str) -> Any:
    try:
        return json.loads(text, object_pairs_hook=_no_twins)
    except RecursionError:
        raise LayoutFileError("", "nested too deep to be a layout file") from None
    except json.JSONDecodeError as fault:
        raise LayoutFileError(
            f"line {fault.lineno}, column {fault.colno}", f"not JSON: {fault.msg}"
        ) from None
    except ValueError:
        raise LayoutFileError("", "a number in the file has too many digits") from None


def read_layout(data: str | bytes) -> Layout:
    """A layout from the text of a layout file.

    Parameters
    ----------
    data : str or bytes
        JSON, UTF-8.

    Raises
    ------
    LayoutFileError
        With the place of the fault and what was expected.
    """
    if len(data) > BIGGEST_FILE:
        raise LayoutFileError("", f"larger than {BIGGEST_FILE} bytes; a layout file is smaller")
    if isinstance(data, bytes):
        try:
            data = data.decode("utf-8-sig")
        except UnicodeDecodeError as fault:
            raise LayoutFileError(f"byte {fault.start}", "not UTF-8 text") from None
    value = _parse(data)
    if not isinstance(value, dict) or value.get("format") != FORMAT:
        raise LayoutFileError("format", f"expected {FORMAT!r}; this is not a layout file")
    if value.get("version") != VERSION:
        raise LayoutFileError(
            "version",
            f"expected {VERSION}, got {_short(value.get('version'))};"
            " write the file again with a program that knows this version",
        )
    return layout_from(value)


def layout_from(value: Any) -> Layout:
    """A layout from parsed JSON; raises LayoutFileError like `read_layout`."""
    try:
        return Layout.model_validate_json(json.dumps(value))
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        raise LayoutFileError(place_of(first["loc"]), wording(first)) from None


def write_layout(layout: Layout) -> str:
    """The text of a layout file: two-space JSON that reads back to the same layout."""
    return json.dumps(layout.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def place_of(loc: Sequence[int | str]) -> str:
    """A place in the file, as ``mics[3].position_m[1]``."""
    words = ""
    for step in loc:
        words += f"[{step}]" if isinstance(step, int) else f".{step}" if words else step
    return words


def _short(value: Any) -> str:
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
    "model_type": "expected an object",
}


def wording(error: ErrorDetails) -> str:
    """What was expected, what came, and the likely slip, for one fault."""
    kind, given, ctx = error["type"], error["input"], error.get("ctx", {})
    if kind == "missing":
        return "missing; expected a value here"
    if kind == "extra_forbidden":
        return "not a field of this format; check the spelling"
    if kind == "value_error":
        return str(ctx["error"])
    if kind in _EXPECTED:
        return f"{_EXPECTED[kind]}, got {_short(given)}"
    if kind == "less_than_equal":
        metres = str(error["loc"][-1] if isinstance(error["loc"][-1], str) else error["loc"][-2])
        slip = " metres; given in cm?" if metres.endswith("_m") else ""
        return f"expected at most {ctx['le']:g}, got {_short(given)}{slip}"
    if kind == "greater_than_equal":
        return f"expected at least {ctx['ge']:g}, got {_short(given)}"
    return f"{error['msg'][:1].lower()}{error['msg'][1:]}, got {_short(given)}"
