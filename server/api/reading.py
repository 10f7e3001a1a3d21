"""How requests are read: JSON whose every text can be stored, in the body and in the address."""

import json
from typing import Any

from django.http import HttpRequest
from django.utils.datastructures import MultiValueDict
from ninja.parser import Parser
from ringside.faults import place_of
from ringside.plain import TooLong, digits, first_fault, suspect


class UnfitText(Exception):
    """A text that could not be stored; where it is and what is wrong with it."""

    def __init__(self, place: str, words: str) -> None:
        super().__init__(words)
        self.place = place


def _checked(value: Any) -> Any:
    fault = first_fault(value)
    if fault:
        raise UnfitText(place_of(fault[0]), fault[1])
    return value


def _no_number(word: str) -> Any:
    raise ValueError(f"{word} is no number")


class PlainParser(Parser):
    """Refuses NUL, halves of characters, control characters and direction marks at the door."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The JSON of a body."""
        long: list[TooLong] = []

        def whole(text: str) -> Any:
            number = digits(text)
            if isinstance(number, TooLong):
                long.append(number)
            return number

        try:
            value = json.loads(request.body, parse_constant=_no_number, parse_int=whole)
        except RecursionError:
            raise ValueError("nested too deep to be read") from None
        return _checked(value) if long or suspect(request.body) else value

    def parse_querydict(
        self, data: MultiValueDict[str, Any], list_fields: list[str], request: HttpRequest
    ) -> dict[str, Any]:
        """What an address or a form says."""
        found: dict[str, Any] = super().parse_querydict(data, list_fields, request)
        _checked({k: v for k, v in found.items() if isinstance(v, (str, list))})
        return found
