"""The sizes of somebody's hand, for lengths told without a tape. Defaults are from memory."""

from typing import Annotated, Self

from pydantic import model_validator

from ringside.values import Record, length


class HandSizes(Record):
    """Two and three fingers side by side, a fist across, a hand's span, a card's thickness."""

    two_fingers_m: Annotated[float, length(0.02, 0.06, "Two fingers, metres.")] = 0.035
    three_fingers_m: Annotated[float, length(0.03, 0.09, "Three fingers, metres.")] = 0.055
    fist_m: Annotated[float, length(0.05, 0.15, "A fist, metres.")] = 0.09
    hand_m: Annotated[float, length(0.1, 0.3, "A hand's span, metres.")] = 0.19
    card_m: Annotated[float, length(0.0001, 0.005, "A card's thickness, metres.")] = 0.0004

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        sizes = (self.two_fingers_m, self.three_fingers_m, self.fist_m, self.hand_m)
        if list(sizes) != sorted(set(sizes)):
            raise ValueError(
                "expected two fingers, three fingers, fist and hand to grow in this order"
            )
        return self
