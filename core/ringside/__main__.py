"""`python -m ringside FILE`: read a layout file, print the whole report as JSON.

Exit 0 with the report on standard output; exit 2 with one line on standard error when the
file cannot be read as a layout.
"""

import json
import sys
from dataclasses import fields
from pathlib import Path
from typing import Any

from ringside.answers.report import report
from ringside.errors import RingsideError
from ringside.files.layout import read_layout
from ringside.pairs.analysis import analyse


def _fields(record: Any) -> dict[str, Any]:
    """A record's fields that say something, for the JSON of the report."""
    every = {f.name: getattr(record, f.name) for f in fields(record)}
    unset = {f.name for f in fields(record) if f.default is None}
    return {k: v for k, v in every.items() if v is not None or k not in unset}


def main(args: list[str]) -> int:
    """Run the command; returns the exit code.

    Parameters
    ----------
    args : list of str
        As typed, without the name of the command.

    Returns
    -------
    int
        0 when all went well.
    """
    if len(args) != 1:
        print("usage: ringside analyse FILE", file=sys.stderr)
        return 2
    try:
        layout = read_layout(Path(args[0]).read_bytes())
    except OSError as fault:
        print(f"{args[0]}: cannot be read: {fault.strerror}", file=sys.stderr)
        return 2
    except RingsideError as fault:
        print(f"{args[0]}: {fault}", file=sys.stderr)
        return 2
    try:
        json.dump(report(analyse(layout)), sys.stdout, indent=1, allow_nan=False, default=_fields)
        print(flush=True)
    except BrokenPipeError:  # whoever reads it has read enough
        sys.stderr.close()  # the interpreter would complain there on its way out
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
