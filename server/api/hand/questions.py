"""What a hand asks: the questions that need not be a request each, answered as those are."""

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from django.http import HttpRequest, HttpResponse
from pydantic import BaseModel

from api.board.routes import follow
from api.board.schemas import FollowIn
from api.edits.routes import tried
from api.edits.schemas import TryIn
from api.kit.routes import room_here
from api.kit.schemas import HereIn
from api.problems import ANSWERS
from api.resting import Unknown
from api.told import as_json

log = logging.getLogger("ringside.hand")
SLOW_S = 1.0
NOT_KNOWN, REFUSED, FAULT = 409, 400, 500


@dataclass(frozen=True, slots=True)
class Question:
    """What it is asked with, and the function that answers requests of this kind."""

    asked: type[BaseModel]
    answer: Callable[[HttpRequest, Any], Any]


QUESTIONS = {
    "/api/follow": Question(FollowIn, follow),
    "/api/edit/try": Question(TryIn, tried),
    "/api/room/here": Question(HereIn, room_here),
}
"""By the path of the request that asks the same. None of them reads or writes what is stored."""


def answered(request: HttpRequest, path: str, text: str) -> tuple[int, bytes]:
    """Status and JSON. With another status than 200 there is none: a request says what is amiss."""
    began = time.perf_counter()
    question = QUESTIONS.get(path)
    if question is None:
        return REFUSED, b""
    try:
        made = question.answer(request, question.asked.model_validate_json(text))
    except Unknown:
        return NOT_KNOWN, b""
    except tuple(ANSWERS):
        return REFUSED, b""
    except Exception:
        log.exception("%s over an open line", path)
        return FAULT, b""
    took = time.perf_counter() - began
    if took >= SLOW_S:
        log.info("%s over an open line %.0f ms SLOW", path, took * 1e3)
    return 200, made.content if isinstance(made, HttpResponse) else as_json(made)
