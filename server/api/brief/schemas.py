"""What the brief is asked and says."""

from typing import Annotated

from ninja import Schema
from pydantic import Field
from ringside.brief.plans import Piece, RuleRow
from ringside.plan.questions import Brief, Question

from api.common import LayoutOnly


class BriefOut(Schema):
    """The questions, where they start, and the table."""

    questions: list[Question]
    start: Brief
    rules: list[RuleRow]


class PlansIn(LayoutOnly):
    """A layout whose kit and room are used, and the answers."""

    brief: Brief


class BuildIn(PlansIn):
    """Pieces to build a layout of."""

    pieces: Annotated[list[Piece], Field(max_length=40)]
