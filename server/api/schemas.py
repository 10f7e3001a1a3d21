"""What the interface takes and gives. The layout itself is the core's own record.

The shapes of the board repeat what `ringside.answers.report` builds, so that the browser's client
is typed from them; a test holds the two together.
"""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import ConfigDict, Field
from ringside.places.starts import Start
from ringside.plan.handsizes import HandSizes
from ringside.plan.layout import Layout as LayoutDoc

Name = Annotated[str, Field(min_length=1, max_length=80)]
VerdictWord = Literal["no matter", "together", "ask the ear", "late", "hollow"]
Units = Literal["cm", "ft-in", "hand"]
Point = tuple[float, float, float]


class Strict(Schema):
    """Unknown fields are refused, so that a slip of the keys is not lost."""

    model_config = ConfigDict(extra="forbid")


class Problem(Schema):
    """An error as application/problem+json (RFC 9457)."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    place: str | None = None


class StudioOut(Schema):
    """A studio somebody belongs to."""

    id: int
    name: str
    role: Literal["owner", "member"]


class MeOut(Schema):
    """Who is signed in."""

    username: str
    units: Units
    hand: HandSizes
    studios: list[StudioOut]


class SignIn(Strict):
    """Name and password."""

    username: Annotated[str, Field(min_length=1, max_length=150)]
    password: Annotated[str, Field(min_length=1, max_length=200)]


class SignUp(SignIn):
    """A new account with its studio."""

    studio: Name


class PasswordIn(Strict):
    """Old and new password."""

    old: Annotated[str, Field(max_length=200)]
    new: Annotated[str, Field(max_length=200)]


class UnitsIn(Strict):
    """Units of display."""

    units: Units


class Counts(Schema):
    """Pairs by worst verdict."""

    no_matter: int
    together: int
    ask_the_ear: int
    late: int
    hollow: int
    left_on_purpose: int


class SketchDrum(Schema):
    """A drum in plan, metres."""

    x: float
    y: float
    r: float
    kind: str
    depth: float
    ax: float
    ay: float


class SketchCymbal(Schema):
    """A cymbal in plan, metres."""

    x: float
    y: float
    r: float


class SketchMic(Schema):
    """A mic in plan, metres."""

    id: str
    x: float
    y: float
    role: str


class Summary(Schema):
    """What the list shows of a layout."""

    counts: Counts
    drums: list[SketchDrum]
    cymbals: list[SketchCymbal]
    mics: list[SketchMic]


class LayoutRow(Schema):
    """A layout in a list."""

    id: int
    name: str
    summary: Summary
    changed_at: datetime


class SessionOut(Schema):
    """A session with its layouts."""

    id: int
    name: str
    place: str
    studio: str
    made_at: datetime
    layouts: list[LayoutRow]


class SessionIn(Strict):
    """A new session."""

    name: Name
    place: Annotated[str, Field(max_length=120)] = ""
    kit: Name
    start: Start
    studio_id: int | None = None
    room_id: int | None = None


class LayoutIn(Strict):
    """A new layout of a session, from a starting kit and a starting layout."""

    name: Name
    kit: Name
    start: Start


class SessionRename(Strict):
    """A session's name and place."""

    name: Name
    place: Annotated[str, Field(max_length=120)] = ""


class LayoutOut(Schema):
    """A layout in full, with what is needed to save it safely."""

    id: int
    studio_id: int
    session_id: int
    session_name: str
    place: str
    version: int
    can_undo: bool
    can_redo: bool
    undo_what: str
    redo_what: str
    saved_by: str
    saved_at: datetime
    doc: LayoutDoc


class LayoutSave(Strict):
    """A new state, made from version `version`."""

    version: int
    what: Annotated[str, Field(min_length=1, max_length=120)]
    doc: LayoutDoc


class VersionIn(Strict):
    """The version the browser holds."""

    version: int


class CopyIn(Strict):
    """A copy's name, and the state to keep when it could not be saved over the newest."""

    name: Name
    doc: LayoutDoc | None = None


class Change(Schema):
    """One difference in tape terms, metres."""

    what: str
    words: str
    moved_m: float | None = None
    snare_m: tuple[float, float] | None = None
    kick_m: tuple[float, float] | None = None


class ConflictOut(Problem):
    """The layout as it is now, and how it differs from what was sent."""

    current: LayoutOut
    changes: list[Change]


class StartOut(Schema):
    """What a new session can begin with."""

    kits: list[str]
    own_kits: list[str]
    starts: dict[str, str]
    rooms: list["RoomOut"]


class RoomOut(Schema):
    """A room of a studio."""

    id: int
    name: str


class SourceRow(Schema):
    """A drum or cymbal with the bands it is judged in, hertz."""

    id: str
    name: str
    fundamental_hz: float
    body_low_hz: float
    body_high_hz: float
    punch_high_hz: float
    attack_high_hz: float


class PairRow(Schema):
    """One pair on one source; see docs/formats/report.md."""

    a: str
    b: str
    source: str
    tape_a_m: float
    tape_b_m: float
    tape_difference_m: float
    path_a_m: float
    path_b_m: float
    delay_s: float
    delay_samples: float
    level_difference_db: float
    sign: int
    first_dip_hz: float | None
    body_db: float
    flipped_body_db: float
    verdict: VerdictWord
    words: str
    interval_s: float
    could_tip: VerdictWord | None
    path_differs_a: bool
    path_differs_b: bool


class TipRow(Schema):
    """A verdict that could tip within its interval: pair and source by number, and to what."""

    pair: int
    source: int
    verdict: VerdictWord


class DecisionRow(Schema):
    """A decision held against the pair as it stands now."""

    a: str
    b: str
    source: str
    stale: bool
    words: str


class WhyRow(Schema):
    """A formula with its values and where it comes from."""

    title: str
    formula: str
    source: str


class RingOut(Schema):
    """A ring for drawing: points and where a mic can stand, metres."""

    kind: Literal["circle", "point", "none"]
    words: str
    centre_m: Point | None = None
    radius_m: float | None = None
    points_m: list[Point]
    clear: list[bool]


class Spot(Schema):
    """A better place for the mic that moves, or why there is none."""

    position_m: Point | None
    words: str
    moved_m: float | None = None
    snare_m: float | None = None
    kick_m: float | None = None


class Places(Schema):
    """The ring through the anchor and three better places."""

    anchor: str
    mover: str
    ring: RingOut
    swing: Spot
    equal_height: Spot
    snare_only: Spot


class FlipEffect(Schema):
    """What one flip does to all pairs."""

    mic: str
    hollow_before: int
    hollow_after: int
    cures: list[str]
    spoils: list[str]


class Focus(Schema):
    """One pair in full."""

    a: str
    b: str
    source: str
    rows: list[PairRow]
    curve_hz: list[float]
    curve_db: list[float]
    flipped_curve_db: list[float]
    why: list[WhyRow]
    places: Places | None = Field(
        description="Null when the two are not of a kind that is kept equal."
    )
    flips: list[FlipEffect]


class Board(Schema):
    """The analysis for a screen: arrays of mics by sources, and of pairs by sources."""

    speed_of_sound_m_s: float
    mic_ids: list[str]
    sources: list[SourceRow]
    tape_m: list[list[float]]
    path_m: list[list[float]]
    arrival_s: list[list[float]]
    after_gain_db: list[list[float]]
    sign: list[list[int]]
    pair_a: list[str]
    pair_b: list[str]
    verdict: list[list[VerdictWord]]
    worst: list[VerdictWord]
    worst_source: list[str]
    counts: Counts
    trouble: list[float]
    tips: list[TipRow]
    decisions: list[DecisionRow]
    aim: dict[str, str]
    blocked: dict[str, str]
    focus: Focus | None


class FocusIn(Strict):
    """The pair to open: the anchor stands, the mover moves."""

    anchor: str
    mover: str
    source: str | None = None


class ComputeIn(Strict):
    """A layout that need not be stored, and the pair to open."""

    layout: LayoutDoc
    focus: FocusIn | None = None


class TapeIn(Strict):
    """Typed distances for one mic, metres."""

    layout: LayoutDoc
    mic: str
    snare_m: Annotated[float, Field(gt=0, le=100)]
    kick_m: Annotated[float, Field(gt=0, le=100)]
    height_m: Annotated[float, Field(ge=0, le=30)]


class AimIn(Strict):
    """A mic to be aimed at a drum or cymbal by name, or straight ``down`` or ``up``."""

    layout: LayoutDoc
    mic: str
    target: str


class AimOut(Schema):
    """A unit direction."""

    aim: Point


class Setting(Schema):
    """A named threshold with its value and reason."""

    name: str
    value: float
    reason: str


StartOut.model_rebuild()
