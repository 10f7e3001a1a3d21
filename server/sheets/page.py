"""The set-up sheet: one template, shown as a page and printed as PDF."""

from dataclasses import asdict
from typing import Any, Literal

from django.conf import settings
from django.template.loader import render_to_string
from django.utils.safestring import mark_safe
from plans.models import Layout
from ringside.gear.loudness import loudness
from ringside.pairs.counts import counts
from ringside.pairs.decisions import decision_rows
from ringside.plan.layout import Layout as LayoutDoc
from ringside.standing.stood import AsItStands, analysed
from studios.actions import stock_of

from sheets.drawing import plan_svg
from sheets.table import HEADINGS, pick_list, sheet_rows
from sheets.units import Ruler

Paper = Literal["A4", "Letter"]
STYLE = settings.ROOT / "server" / "static" / "sheet.css"


MOST_DECISIONS = 100
"""On paper; the layout file has them all."""


def _context(layout: Layout, doc: LayoutDoc, ruler: Ruler, paper: Paper) -> dict[str, Any]:
    locker = stock_of(layout.session.studio)
    analysis = analysed(doc)
    snare, kick = doc.kit.first("snare"), doc.kit.first("kick")
    pairs = []
    for p in doc.stereo_pairs:
        row, _ = analysis.pair_index(p.left, p.right)
        ids = analysis.scene.sources.ids
        columns = (ids.index(drum.id) for drum in (snare, kick))
        off = [abs(float(analysis.pairs.tape_difference_m[row, k])) for k in columns]
        pairs.append({
            "name": p.name, "left": p.left, "right": p.right,
            "snare": ruler.text(off[0]), "kick": ruler.text(off[1]),
        })  # fmt: skip
    return {
        "session": layout.session,
        "doc": doc,
        "stands": isinstance(doc, AsItStands),
        "state": layout.state,
        "paper": paper,
        "snare_at": "batter head" if snare.reference == "batter" else "bottom head",
        "kick_at": "beater spot" if kick.reference == "batter" else "centre of the front head",
        "speed": f"{doc.air.speed:.1f}",
        "headings": HEADINGS,
        "rows": [list(r.values()) for r in sheet_rows(doc, ruler, locker, short=True)],
        "pairs": pairs,
        "pick": pick_list(doc, locker),
        "loud": loudness(doc),
        "counts": {k.replace("_", " "): v for k, v in asdict(counts(analysis)).items() if v},
        "decisions": [
            {"told": d, "again": row.words}
            for d, row in zip(doc.decisions, decision_rows(analysis), strict=True)
        ][:MOST_DECISIONS],
        "decisions_more": max(len(doc.decisions) - MOST_DECISIONS, 0),
        "plan": mark_safe(plan_svg(doc)),  # built from numbers and escaped names only
    }


def sheet_html(layout: Layout, doc: LayoutDoc, ruler: Ruler, paper: Paper) -> str:
    """The page to print; its style is a file of its own, as the content policy asks."""
    return render_to_string("sheets/sheet.html", _context(layout, doc, ruler, paper))


def pdf_page(layout: Layout, doc: LayoutDoc, ruler: Ruler, paper: Paper) -> str:
    """The same page as it is printed."""
    return render_to_string(
        "sheets/sheet.html", {**_context(layout, doc, ruler, paper), "pdf": True}
    )
