"""The list of inputs as CSV, the names of the tracks as plain text, and labels to cut."""

from typing import Literal

from django.template.loader import render_to_string
from plans.models import Layout as Kept
from ringside.answers.inputs import InputRow, input_rows, track_names
from ringside.gear.locker import Locker
from ringside.plan.layout import Layout
from studios.actions import stock_of

from sheets.table import as_csv

HEADINGS = (
    "Track", "Input", "Name", "Mic", "Model", "Pattern", "Preamps", "Socket", "Phantom", "Pad, dB",
    "Pad at the input, dB", "Gain, dB", "Low cut, Hz", "Compressed", "Flips", "Stand", "Split of",
)  # fmt: skip


ALWAYS = 4
"""Headings that are there on every list."""


def _cells(row: InputRow) -> tuple[str, ...]:
    return (
        str(row.track),
        str(row.input or ""),
        row.name,
        row.mic,
        row.model,
        row.pattern,
        row.bank,
        str(row.socket or ""),
        {True: "on", False: "off", None: ""}[row.phantom],
        f"{row.pad_db:g}" if row.pad_db else "",
        f"{row.input_pad_db:g}" if row.input_pad_db else "",
        "" if row.gain_db is None else f"{max(row.gain_db, 0):.0f}",
        f"{row.low_cut_hz:g}" if row.low_cut_hz else "",
        "yes" if row.crushed else "",
        "; ".join(row.flips),
        row.stand,
        row.split_of,
    )


def inputs_csv(layout: Layout, locker: Locker) -> str:
    """One row per track (RFC 4180); see docs/formats/inputs.md."""
    rows = (dict(zip(HEADINGS, _cells(r), strict=True)) for r in input_rows(layout, locker))
    return as_csv(HEADINGS, rows)


Printed = Literal["sheet", "inputs"]
"""What is printed of a layout: the set-up sheet, or the list of inputs alone."""


def inputs_html(kept: Kept, paper: str, *, pdf: bool = False) -> str:
    """The list of inputs alone, to print; what no track has is left out."""
    doc = kept.doc()
    rows = [_cells(r) for r in input_rows(doc, stock_of(kept.session.studio))]
    shown = [n for n, _ in enumerate(HEADINGS) if n < ALWAYS or any(r[n] for r in rows)]
    told = {
        "session": kept.session, "doc": doc, "state": kept.state, "paper": paper, "pdf": pdf,
        "headings": [HEADINGS[n] for n in shown],
        "rows": [[r[n] for n in shown] for r in rows],
    }  # fmt: skip
    return render_to_string("sheets/inputs.html", told)


def tracks_text(layout: Layout) -> str:
    """One name a line."""
    return "".join(f"{name}\n" for name in track_names(layout))


LabelWidth = Literal["20", "25", "30"]
"""Millimetres from one input to the next, as desks and boxes have them (common practice)."""


def labels_html(kept: Kept, width: LabelWidth) -> str:
    """A page of labels in the order of the inputs, to print and cut."""
    doc = kept.doc()
    named = zip(track_names(doc), doc.channels, strict=False)
    tracks = sorted((c.input, name) for name, c in named if c.input is not None)
    told = {"session": kept.session, "doc": doc, "width": width, "tracks": tracks}
    return render_to_string("sheets/labels.html", told)
