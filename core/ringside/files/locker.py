"""The locker as CSV (RFC 4180, UTF-8): one row per kind of thing, columns by name.

The column ``what`` says mic, stand, input or cable; each kind reads its own columns and
leaves the others empty. Lists are parted by ``;``. Rows that cannot be read are reported
with their line and column and left out; the good ones are kept.
"""

import csv
import io
from dataclasses import dataclass
from typing import Any, Final

from pydantic import ValidationError

from ringside.errors import RingsideError
from ringside.faults import wording
from ringside.gear.locker import MOST, CableKind, InputBank, Locker, MicModel, StandModel
from ringside.plain import fault_of

BIGGEST_LOCKER: Final = 500_000
ROW_KINDS: Final = {
    "mic": ("mics", MicModel),
    "stand": ("stands", StandModel),
    "input": ("inputs", InputBank),
    "cable": ("cables", CableKind),
}
LOCKER_COLUMNS: Final = (
    "what", "id", "name", "count", "kind", "patterns", "setback_m", "phantom", "pads_db",
    "low_cuts_hz", "sensitivity_mv_pa", "max_spl_db", "fragile", "matched", "low_m", "high_m",
    "reach_m", "weight_kg", "max_level_dbu", "full_scale_dbu",
    "most_gain_db", "noise_dbu", "length_m", "cost",
)  # fmt: skip
YES: Final = {"yes": True, "true": True, "1": True, "no": False, "false": False, "0": False}
LISTS: Final = {"patterns": str, "pads_db": float, "low_cuts_hz": float}
FLAGS: Final = {"fragile", "matched"}
TEXTS: Final = {"id", "name", "kind"}
WHOLE: Final = {"count"}


@dataclass(frozen=True)
class Fault:
    """A row that was not read: its line in the file, the column, and why."""

    line: int
    column: str
    words: str


def write_locker(locker: Locker) -> str:
    """The locker as CSV text with all columns.

    Parameters
    ----------
    locker : Locker

    Returns
    -------
    str
    """
    out = io.StringIO()
    writer = csv.DictWriter(out, LOCKER_COLUMNS, lineterminator="\r\n")
    writer.writeheader()
    for what, (field, _) in ROW_KINDS.items():
        for row in getattr(locker, field):
            writer.writerow({"what": what, **{k: _cell(v) for k, v in dict(row).items()}})
    return out.getvalue()


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return ";".join(_cell(v) for v in value)
    text = f"{value:g}" if isinstance(value, float) else str(value)
    # A spreadsheet would run a text that begins like a formula.
    return f"'{text}" if text[:1] in "=+-@" and not isinstance(value, (int, float)) else text


def read_locker(data: str | bytes, old: Locker) -> tuple[Locker, list[Fault]]:
    """The old locker with the rows of a CSV file added, or put in the place of their likes.

    Parameters
    ----------
    data : str or bytes
        CSV, UTF-8, with a header line; comma, semicolon or tab between the cells.
    old : Locker

    Returns
    -------
    (Locker, list of Fault)
        With every good row; the faults name line and column of the others.

    Raises
    ------
    RingsideError
        When the file as a whole cannot be read: not text, no header, no column ``what``.
    """
    if len(data) > BIGGEST_LOCKER:
        raise RingsideError(f"larger than {BIGGEST_LOCKER} bytes; a locker is smaller")
    if isinstance(data, bytes):
        try:
            data = data.decode("utf-8-sig")
        except UnicodeDecodeError as fault:
            raise RingsideError(f"not UTF-8 text at byte {fault.start}; save it as UTF-8") from None
    rows = _rows(data)
    kept: dict[str, list[Any]] = {
        field: list(getattr(old, field)) for field, _ in ROW_KINDS.values()
    }
    place = {field: {r.id: n for n, r in enumerate(had)} for field, had in kept.items()}
    faults: list[Fault] = []
    for line, row in rows:
        unfit = next(((c, w) for c, v in row.items() if (w := fault_of(v or ""))), None)
        if unfit:
            faults.append(Fault(line, *unfit))
            continue
        what = (row.get("what") or "").strip().lower()
        if what not in ROW_KINDS:
            words = f"expected one of {', '.join(ROW_KINDS)}, got {what!r}"
            faults.append(Fault(line, "what", words))
            continue
        field, model = ROW_KINDS[what]
        made = _record(model, row, line)
        if isinstance(made, Fault):
            faults.append(made)
            continue
        if made.id in place[field]:
            kept[field][place[field][made.id]] = made
        elif len(kept[field]) >= MOST[field]:
            faults.append(Fault(line, "what", f"a locker holds at most {MOST[field]} {field}"))
        else:
            place[field][made.id] = len(kept[field])
            kept[field].append(made)
    return Locker.model_validate({**dict(old), **kept}), faults


def _rows(text: str) -> list[tuple[int, dict[str, str]]]:
    head = text.splitlines()[0] if text.strip() else ""
    parted = max(",;\t", key=head.count)
    reader = csv.DictReader(io.StringIO(text), delimiter=parted)
    names = [n.strip().lower() for n in reader.fieldnames or []]
    if "what" not in names:
        raise RingsideError(
            "expected a header line with a column 'what' among "
            f"{', '.join(LOCKER_COLUMNS[:4])} and so on"
        )
    reader.fieldnames = names
    found = []
    for row in reader:
        if any((v or "").strip() for k, v in row.items() if k is not None and isinstance(v, str)):
            found.append((reader.line_num, {k: v for k, v in row.items() if k is not None}))
    return found


def _record(model: Any, row: dict[str, str], line: int) -> Any:
    """The record of a row, or the fault that keeps it from being one."""
    values: dict[str, Any] = {}
    for name in model.model_fields:
        text = (row.get(name) or "").strip().removeprefix("'")
        if not text:
            continue
        try:
            values[name] = _value(model, name, text)
        except ValueError:
            wanted = "yes or no" if _is_flag(model, name) else "a number"
            return Fault(line, name, f"expected {wanted}, got {text!r}")
    try:
        return model.model_validate(values)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        column = str(first["loc"][0]) if first["loc"] else "id"
        return Fault(line, column, wording(first))


def _is_flag(model: Any, name: str) -> bool:
    """Whether a cell is yes or no; an input bank's phantom has three answers."""
    return name in FLAGS or (name == "phantom" and model is MicModel)


def _value(model: Any, name: str, text: str) -> Any:
    if name in LISTS:
        return tuple(LISTS[name](t.strip()) for t in text.split(";") if t.strip())
    if _is_flag(model, name):
        if text.lower() not in YES:
            raise ValueError(text)
        return YES[text.lower()]
    if name in TEXTS or name == "phantom":
        return text
    return int(text) if name in WHOLE else float(text.replace(",", "."))
