"""The set-up sheet's rows in words, and as CSV."""

import csv
import io
from typing import Any

from ringside.layout import Layout
from ringside.setup import setup_rows

from sheets.units import Units, length_text

HEADINGS = (
    "Input", "Mic", "Name", "For", "Pattern", "To snare", "To kick", "To its drum", "Height",
    "Where", "Aim", "Flips",
)  # fmt: skip


def where_text(row: dict[str, Any], units: Units) -> str:
    """A close mic in drum terms: how far over, inside or under, and in from the rim."""
    head = row["from_head"]
    if head is None:
        return ""
    rim = head["in_from_rim_m"]
    edge = "in from the rim" if rim >= 0 else "outside the rim"
    off, side = length_text(head["off_m"], units), head["side"]
    first = f"{off} {side}" if side != "inside" else f"inside, {off} from the batter"
    return f"{first}, {length_text(abs(rim), units)} {edge}"


def sheet_rows(layout: Layout, units: Units) -> list[dict[str, str]]:
    """One row per mic, every value as text under the headings."""
    return [
        {
            "Input": str(r["channel"] or ""),
            "Mic": r["id"],
            "Name": r["name"],
            "For": r["job"],
            "Pattern": r["pattern"],
            "To snare": length_text(r["snare_m"], units),
            "To kick": length_text(r["kick_m"], units),
            "To its drum": length_text(r["own_m"], units) if r["own_m"] is not None else "",
            "Height": length_text(r["height_m"], units),
            "Where": where_text(r, units),
            "Aim": r["aim"],
            "Flips": "; ".join(r["flips"]),
        }
        for r in setup_rows(layout)
    ]


def _plain(text: str) -> str:
    """Text that a spreadsheet will not run as a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text


def sheet_csv(layout: Layout, units: Units) -> str:
    """The rows as CSV with a header (RFC 4180)."""
    out = io.StringIO()
    writer = csv.DictWriter(out, HEADINGS)
    writer.writeheader()
    for row in sheet_rows(layout, units):
        writer.writerow({k: _plain(v) for k, v in row.items()})
    return out.getvalue()
