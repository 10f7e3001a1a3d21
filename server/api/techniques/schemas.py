"""What is asked of techniques, drum terms and fits."""

from typing import Annotated

from ninja import Schema
from pydantic import Field
from ringside.fitting.work import FitAsk
from ringside.places.drumterms import DrumTerms
from ringside.plan.layout import Layout as LayoutDoc
from ringside.techniques.standing import StandingRow

from api.common import LayoutOnly, Word

Numbers = Annotated[dict[str, float], Field(max_length=12)]


class TakeIn(LayoutOnly):
    """A technique to take; without a target the first free one."""

    technique: Word
    target: Word | None = None
    numbers: Numbers = {}


class TookOut(Schema):
    """The layout as it would be; nothing is stored."""

    layout: LayoutDoc
    id: str
    what: str
    notes: list[str]
    short: list[str]
    standing: StandingRow | None


class TermsIn(LayoutOnly):
    """A close mic."""

    mic: str


class PutIn(TermsIn):
    """A close mic and where it should be in drum terms."""

    terms: DrumTerms


class NullIn(TermsIn):
    """A close mic, whom to turn away from, and how far its front may leave the drum, degrees."""

    neighbour: Word | None = None
    off_deg: Annotated[float, Field(ge=0, le=90)] = 30.0


class FitIn(LayoutOnly):
    """A layout to fit, and how."""

    ask: FitAsk = FitAsk()


class SweepIn(LayoutOnly):
    """A technique in use, one of its numbers, and how many values."""

    taken: Word
    number: Word
    points: Annotated[int, Field(ge=3, le=121)] = 41
