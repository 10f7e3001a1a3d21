"""Answers of the core as JSON, straight to bytes.

Checking an answer again that was just made would cost more than making it.
"""

from typing import Any

import orjson
from django.http import HttpResponse
from pydantic import BaseModel


def as_json(answer: Any) -> bytes:
    """A record of the core, its arrays as lists."""
    return orjson.dumps(answer, default=BaseModel.model_dump, option=orjson.OPT_SERIALIZE_NUMPY)


def told(answer: Any) -> HttpResponse:
    """As an answer to a request."""
    return HttpResponse(as_json(answer), content_type="application/json")
