"""Lengths as people read them. The browser words them the same way; one table tests both."""

from dataclasses import dataclass
from typing import Literal

from ringside.plan.handsizes import HandSizes

Units = Literal["cm", "ft-in", "hand"]
EIGHTHS = {0: "", 1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}
USUAL_HAND = HandSizes()


def length_text(metres: float, units: Units, hand: HandSizes = USUAL_HAND) -> str:
    """A length with its unit: tenths of a centimetre, feet and inches, or hands and fingers.

    Examples
    --------
    >>> length_text(1.2034, "cm"), length_text(1.2034, "ft-in"), length_text(1.2034, "hand")
    ('120.3 cm', '3′ 11⅜″', '6 h 3½ f')
    """
    if units == "cm":
        return f"{metres * 100 + 0.0:.1f} cm"
    sign = "−" if metres < 0 else ""
    if units == "hand":
        text = _hand_text(abs(metres), hand)
        return text if text == "0 f" else sign + text
    eighths = int(abs(metres) / 0.0254 * 8 + 0.5)
    feet, rest = divmod(eighths, 96)
    inches = f"{rest // 8}{EIGHTHS[rest % 8]}″"
    return f"{sign}{feet}′ {inches}" if feet else f"{sign}{inches}"


@dataclass(frozen=True)
class Ruler:
    """What somebody reads lengths in: the units, and their own hand."""

    units: Units = "cm"
    hand: HandSizes = USUAL_HAND

    def text(self, metres: float) -> str:
        """A length as this ruler words it."""
        return length_text(metres, self.units, self.hand)


def _hand_text(metres: float, hand: HandSizes) -> str:
    """Whole hands, then a fist if it fits, then halves of a finger; cards for a sliver."""
    if metres < hand.two_fingers_m / 8:
        cards = int(metres / hand.card_m + 0.5)
        return f"{cards} card{'' if cards == 1 else 's'}" if cards else "0 f"
    hands = int(metres / hand.hand_m + 1e-9)
    rest = metres - hands * hand.hand_m
    fist = rest >= hand.fist_m - 1e-9
    halves = int(2 * _fingers(rest - (hand.fist_m if fist else 0.0), hand) + 0.5)
    said = [f"{hands} h"] if hands else []
    if fist:
        said.append("fist")
    if halves or not said:
        said.append(f"{halves // 2 or ''}{'½' if halves % 2 else ''} f")
    return " ".join(said)


def _fingers(metres: float, hand: HandSizes) -> float:
    """Fingers side by side: two and three are measured, the rest goes on as the third does."""
    if metres <= hand.two_fingers_m:
        return max(metres, 0.0) / (hand.two_fingers_m / 2)
    return 2 + (metres - hand.two_fingers_m) / (hand.three_fingers_m - hand.two_fingers_m)
