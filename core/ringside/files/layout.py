"""Reading and writing the open layout file: JSON, metres and radians, versions 1 to 3.

The format is described in docs/formats/layout.md and layout.schema.json. A file that is
not one is refused whole, with the place of the first fault and what was expected there.
"""

import json
from typing import Any

from ringside.errors import LayoutFileError
from ringside.files.stored import LAYOUT
from ringside.plain import digits
from ringside.plan.layout import FORMAT, Layout

BIGGEST_LAYOUT = 1_000_000
"""Bytes. Sixty-four mics with all their decisions take less than half of it."""


def _no_twins(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    fields: dict[str, Any] = {}
    for key, value in pairs:
        if key in fields:
            raise LayoutFileError(key, "the same field is given twice in one object")
        fields[key] = value
    return fields


def _parse(text: str) -> Any:
    try:
        return json.loads(text, object_pairs_hook=_no_twins, parse_int=digits)
    except RecursionError:
        raise LayoutFileError("", "nested too deep to be a layout file") from None
    except json.JSONDecodeError as fault:
        raise LayoutFileError(
            f"line {fault.lineno}, column {fault.colno}", f"not JSON: {fault.msg}"
        ) from None


def read_layout(data: str | bytes) -> Layout:
    """A layout from the text of a layout file.

    Parameters
    ----------
    data : str or bytes
        JSON, UTF-8.

    Returns
    -------
    Layout

    Raises
    ------
    LayoutFileError
        With the place of the fault and what was expected.
    """
    if len(data) > BIGGEST_LAYOUT:
        raise LayoutFileError("", f"larger than {BIGGEST_LAYOUT} bytes; a layout file is smaller")
    if isinstance(data, bytes):
        try:
            data = data.decode("utf-8-sig")
        except UnicodeDecodeError as fault:
            raise LayoutFileError(f"byte {fault.start}", "not UTF-8 text") from None
    value = _parse(data)
    if not isinstance(value, dict) or value.get("format") != FORMAT:
        raise LayoutFileError("format", f"expected {FORMAT!r}; this is not a layout file")
    return layout_from(value)


def layout_from(value: Any) -> Layout:
    """A layout from parsed JSON of any version; raises LayoutFileError like `read_layout`.

    Parameters
    ----------
    value : object
        As parsed from JSON.

    Returns
    -------
    Layout
    """
    return LAYOUT.unpack(value)


def layout_schema() -> dict[str, Any]:
    """The JSON schema of the layout file; it requires what reading requires.

    Returns
    -------
    dict
        As docs/formats/layout.schema.json has it.
    """
    made = Layout.model_json_schema()
    return {**made, "required": ["format", "version", *made["required"]]}


def write_layout(layout: Layout) -> str:
    """The text of a layout file: two-space JSON that reads back to the same layout.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    str
    """
    return json.dumps(LAYOUT.pack(layout), indent=2, ensure_ascii=False) + "\n"
