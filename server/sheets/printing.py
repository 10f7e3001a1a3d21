"""The set-up sheet as PDF: long work, since a big session takes a second or two to lay out."""

import hashlib
from typing import Any

from accounts.models import User
from jobs import actions
from jobs.kinds import Kind, Tell
from jobs.models import Job
from plans.actions import layout_for
from plans.atkit import State, doc_in

from sheets.inputs import Printed, inputs_html
from sheets.page import STYLE, Paper, pdf_page
from sheets.units import Ruler

FILE = "sheet.pdf"
KEPT_SHEETS = 24
"""Of a studio; the oldest go first. One is about fifty kilobytes."""


def written(page: str, style: str, paper: str, tell: Tell = lambda _: None) -> bytes:
    """A page as PDF. Nothing is fetched: the style comes along."""
    from weasyprint import CSS, HTML  # half a second to import: only when a PDF is asked for

    def nothing(url: str, *args: Any, **kwargs: Any) -> Any:
        raise ValueError(f"the sheet fetches nothing, not even {url}")

    tell(0.1)
    size = CSS(string=f"@page {{ size: {paper} landscape; margin: 11mm }}")
    laid = HTML(string=page, url_fetcher=nothing).render(stylesheets=[CSS(string=style), size])
    tell(0.8)
    body: bytes = laid.write_pdf()
    return body


def _print(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    return {FILE: written(ask["page"], ask["style"], ask["paper"], tell)}


SHEET = Kind("sheet", _print, longest_s=120.0, kept=KEPT_SHEETS)


def ask_to_print(
    user: User, layout_pk: int, ruler: Ruler, paper: Paper, what: Printed = "sheet",
    state: State = "planned",
) -> Job:  # fmt: skip
    """A page of a layout as it is saved now; what was printed before is there at once."""
    layout = layout_for(user, layout_pk)
    if what == "sheet":
        page = pdf_page(layout, doc_in(layout, state), ruler, paper)
        called = f"{layout.file_name}-stands" if state == "stands" else layout.file_name
    else:
        page, called = inputs_html(layout, paper, pdf=True), f"{layout.file_name}-inputs"
    style = STYLE.read_text()
    key = hashlib.sha256("\0".join((page, style, paper)).encode()).hexdigest()
    ask = {"page": page, "style": style, "paper": paper, "called": called}
    return actions.ask_for(layout.session.studio, SHEET.name, key, ask)
