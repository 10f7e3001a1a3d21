"""Examples to hear as a kind of long work."""

from typing import Any

from jobs.kinds import Kind, Tell
from ringside.voices.example import Ask, rendered

KEPT_EXAMPLES = 24
"""Of a studio; the oldest go first. One is about two megabytes."""


def render(ask: dict[str, Any], tell: Tell) -> dict[str, bytes]:
    """Every version of an example as WAV."""
    made = rendered(Ask.model_validate(ask), tell)
    return {f"{name}.wav": body for name, body in made.items()}


EXAMPLE = Kind("example", render, longest_s=120.0, kept=KEPT_EXAMPLES)
