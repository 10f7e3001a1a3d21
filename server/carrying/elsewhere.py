"""Who did what elsewhere: nobody of this installation is named for it."""

from typing import Any

ELSEWHERE = " (elsewhere)"


def elsewhere(name: str) -> str:
    """A name with where it is from; no name stays none."""
    return f"{name.removesuffix(ELSEWHERE)[:130]}{ELSEWHERE}" if name else ""


def signed(doc: dict[str, Any]) -> dict[str, Any]:
    """Decisions made elsewhere say so: nobody here is named for them."""
    told = {}
    for field in ("decisions", "set_aside"):
        rows = doc.get(field)
        if isinstance(rows, list):
            told[field] = [
                {**r, "by": elsewhere(r["by"])} if isinstance(r, dict) and r.get("by") else r
                for r in rows
            ]
    return {**doc, **told}
