"""Lengths as people read them. The browser words them the same way; one table tests both."""

from typing import Literal

Units = Literal["cm", "ft-in"]
EIGHTHS = {0: "", 1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}


def length_text(metres: float, units: Units) -> str:
    """A length with its unit: tenths of a centimetre, or feet, inches and eighths.

    Examples
    --------
    >>> length_text(1.2034, "cm"), length_text(1.2034, "ft-in")
    ('120.3 cm', '3′ 11⅜″')
    """
    if units == "cm":
        return f"{metres * 100 + 0.0:.1f} cm"
    sign = "−" if metres < 0 else ""
    eighths = int(abs(metres) / 0.0254 * 8 + 0.5)
    feet, rest = divmod(eighths, 96)
    inches = f"{rest // 8}{EIGHTHS[rest % 8]}″"
    return f"{sign}{feet}′ {inches}" if feet else f"{sign}{inches}"
