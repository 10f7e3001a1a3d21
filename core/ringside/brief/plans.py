"""Three starting layouts from a brief: techniques chosen by the rules, placed, and counted.

The first is the best the rules know; the second has another kind of picture; the third does
with about half the inputs. Each is built slot by slot in order of worth until inputs, minutes
or the locker run out, and says why each technique is there and what was given up.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final

from pydantic import Field

from ringside.brief.rules import FEW, LEAST_WORTH, RULES, SLOTS, WORTH, Choice, Rule, Slot
from ringside.errors import RingsideError
from ringside.gear.locker import Locker
from ringside.gear.outfit import needs_stand, outfit
from ringside.gear.pace import SETTING_OUT_MIN, pace
from ringside.pairs.analysis import analyse
from ringside.pairs.counts import Counts, counts
from ringside.pairs.turning import turning
from ringside.plan.handsizes import HandSizes
from ringside.plan.hanging import with_flips, without_mics
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.questions import QUESTIONS, Brief
from ringside.plan.usual import as_usual
from ringside.techniques.catalogue import TECHNIQUES, lacking, targets_in
from ringside.techniques.taking import DEFAULT_HANDS, take
from ringside.values import Key, Number, Record

MOST_REASONS: Final = 5
PLANS: Final = 3

PICTURE_ONLY: Final = 2
"""So few mics are a picture of the kit and nothing else; a third may be a drum's own."""
AS_PLAYED: Final = "No drum can be turned up by itself: its level is the drummer's, and the spot's."
HALF: Final = "Half the inputs: sooner up, and fewer mics that can disagree."

GIVES_UP: Final[dict[Slot, str]] = {
    "picture": "the picture of the whole kit",
    "kick": "a kick mic",
    "snare": "a snare mic",
    "toms": "mics on the toms",
    "snare bottom": "a mic on the wires",
    "kick two": "a second kick mic",
    "room pair": "a room pair",
    "room mono": "a mono room mic",
    "hats": "a hats mic",
    "ride": "a ride mic",
    "far": "something far off",
    "odd": "an odd mic to crush",
}


class Piece(Record):
    """One technique of a plan, as it is asked for: whom it is for, and numbers set."""

    slot: Key
    technique: Key
    target: Key | None = None
    numbers: dict[Key, Number] = Field(default_factory=dict, max_length=12)


@dataclass
class _Plan:
    """A plan being built."""

    layout: Layout
    brief: Brief
    inputs: int
    minutes: float
    locker: Locker | None
    hands: HandSizes
    pace: float
    pieces: list[Piece] = field(default_factory=list)
    reasons: list[str] = field(default_factory=list)
    gives_up: list[str] = field(default_factory=list)
    left_out: dict[str, list[str]] = field(default_factory=dict)
    spent: float = SETTING_OUT_MIN
    score: float = 0.0

    @property
    def lean(self) -> bool:
        """Whether it does with fewer inputs than there are."""
        return self.inputs < self.brief.inputs

    @property
    def full(self) -> str:
        """Why nothing more goes in, once every input it may use is taken."""
        if self.lean:
            return f"this one does with {self.inputs} of the {self.brief.inputs} inputs"
        return "inputs are used up"


def fired(brief: Brief) -> list[Rule]:
    """The rules that a brief sets off, in the order of the table.

    Parameters
    ----------
    brief : Brief

    Returns
    -------
    list of Rule
    """
    answers = brief.model_dump()
    return [r for r in RULES if answers.get(r.question) == r.answer]


def _worth(choice: Choice, rules: Sequence[Rule]) -> float:
    return choice.worth + sum(r.weight for r in rules if r.about == choice.technique)


def _because(technique: str, slot: str, rules: Sequence[Rule]) -> list[str]:
    about = (technique, f"slot:{slot}")
    good = [r for r in rules if r.about in about and r.weight > 0]
    return [r.because for r in sorted(good, key=lambda r: -r.weight)]


def _against(technique: str, rules: Sequence[Rule]) -> list[str]:
    return [r.because for r in rules if r.about == technique and r.weight < 0]


def _numbers(technique: str, rules: Sequence[Rule]) -> dict[str, float]:
    numbers: dict[str, float] = {}
    for r in rules:
        if r.about == technique:
            numbers.update(r.numbers)
    return numbers


def _targets(slot: Slot, technique: str, layout: Layout) -> list[str | None]:
    """Whom a technique of a slot is put up for: every tom, but one of everything else."""
    t = TECHNIQUES[technique]
    if not t.over:
        return [None]
    possible = targets_in(t, layout)
    if slot in ("hats", "ride"):
        possible = [c.id for c in layout.kit.cymbals if c.kind == slot]
    return [*possible] if slot == "toms" else [*possible[:1]]


def ranked(slot: Slot, layout: Layout, rules: Sequence[Rule]) -> list[Choice]:
    """The choices for a slot that this kit and room allow, best first.

    Parameters
    ----------
    slot : Slot
    layout : Layout
    rules : sequence of Rule
        Those that the brief sets off.

    Returns
    -------
    list of Choice
    """
    able = [
        c for c in SLOTS[slot]
        if not lacking(TECHNIQUES[c.technique], layout) and _targets(slot, c.technique, layout)
    ]  # fmt: skip
    return sorted(able, key=lambda c: -_worth(c, rules))


def _slot_order(layout: Layout, rules: Sequence[Rule]) -> list[tuple[float, Slot]]:
    """Slots that are worth filling, most worth first; the picture is chosen before."""
    slots: list[tuple[float, Slot]] = []
    for slot, worth in WORTH.items():
        value = worth + sum(r.weight for r in rules if r.about == f"slot:{slot}")
        if slot != "picture" and ranked(slot, layout, rules):
            slots.append((value, slot))
    return sorted(slots, key=lambda f: -f[0])


def _try(plan: _Plan, slot: Slot | str, technique: str, targets: list[str | None],
         rules: Sequence[Rule]) -> str:  # fmt: skip
    """Put a technique into a plan for each target; why not in words, or nothing when it is in."""
    t = TECHNIQUES[technique]
    need, layout = t.mics * len(targets), plan.layout
    if len(layout.mics) + need > plan.inputs:
        return plan.full
    takes = t.minutes * len(targets) * plan.pace
    if plan.spent + takes > plan.minutes:
        return "there is no time to set it up"
    pieces, numbers = [], _numbers(technique, rules)
    for target in targets:
        try:
            took = take(layout, technique, target, numbers, plan.hands)
        except RingsideError as fault:
            return str(fault).rstrip(".")
        layout = took.layout
        pieces.append(Piece(slot=_key(slot), technique=technique, target=target, numbers=numbers))
        if plan.locker is not None:
            got = outfit(layout, plan.locker, frozenset({took.id}))
            if got.no_mic:
                return "the locker has no mic left that suits"
            if got.no_stand:
                return "the locker has no stand left that reaches"
            layout = got.layout
    plan.layout = layout
    plan.pieces += pieces
    plan.spent += takes
    plan.reasons += _because(technique, str(slot), rules)
    return ""


def _key(slot: str) -> str:
    return slot.replace(" ", "-")


def _fill(plan: _Plan, rules: Sequence[Rule]) -> None:
    for value, slot in _slot_order(plan.layout, rules):
        if value < LEAST_WORTH:
            continue
        why = "nothing suits"
        for choice in ranked(slot, plan.layout, rules):
            if _worth(choice, rules) < 0:
                break
            used = {(p.technique, p.target) for p in plan.pieces}
            targets = _targets(slot, choice.technique, plan.layout)
            if any((choice.technique, t) in used for t in targets):
                continue
            why = _try(plan, slot, choice.technique, targets, rules)
            if not why:
                plan.score += value + _worth(choice, rules)
                break
        if why:
            plan.left_out.setdefault(why, []).append(GIVES_UP[slot])


def _left_out(plan: _Plan) -> list[str]:
    """What was left out, one sentence for each reason."""
    said = []
    for why, what in plan.left_out.items():
        listed = " and ".join(", ".join(what).rsplit(", ", 1))
        said.append(f"Without {listed}: {why}.")
    return said


def _start(layout: Layout, brief: Brief, locker: Locker | None, hands: HandSizes,
           inputs: int) -> _Plan:  # fmt: skip
    empty = without_mics(layout, {m.id for m in layout.mics}).model_copy(update={"brief": brief})
    use = locker if brief.from_locker and locker and (locker.mics or locker.stands) else None
    return _Plan(empty, brief, inputs, float(brief.minutes), use, hands, pace(locker))


def _candidates(layout: Layout, rules: Sequence[Rule], inputs: int) -> list[Choice]:
    few = FEW.get(inputs)
    if few:
        able = [c for c in few if not lacking(TECHNIQUES[c.technique], layout)]
        return sorted(able, key=lambda c: -_worth(c, rules))
    return ranked("picture", layout, rules)


def _build(layout: Layout, brief: Brief, locker: Locker | None, hands: HandSizes, inputs: int,
           pictures: list[Choice]) -> tuple[_Plan, Choice] | None:  # fmt: skip
    """A plan on the first of some pictures that can be put up."""
    rules = fired(brief)
    for picture in pictures:
        plan = _start(layout, brief, locker, hands, inputs)
        why = _try(plan, "picture", picture.technique,
                   _targets("picture", picture.technique, layout), rules)  # fmt: skip
        if why:
            continue
        plan.gives_up += _against(picture.technique, rules)
        plan.score += WORTH["picture"] + _worth(picture, rules)
        if inputs > 3:
            _fill(plan, rules)
        elif TECHNIQUES[picture.technique].mics <= PICTURE_ONLY:
            plan.gives_up.append(AS_PLAYED)
        return plan, picture
    return None


@dataclass(frozen=True, kw_only=True, slots=True)
class PlanRow:
    """A starting layout, why it is as it is, and what it takes."""

    title: str
    layout: Layout
    pieces: list[Piece]
    reasons: list[str]
    gives_up: list[str]
    watch_for: str
    inputs: int
    stands: int
    minutes: int
    counts: Counts
    score: float


@dataclass(frozen=True, kw_only=True, slots=True)
class RuleRow:
    """A row of the table of rules, in words."""

    question: str
    answer: str
    about: str
    weight: float
    because: str


def plans(
    layout: Layout, brief: Brief, locker: Locker | None = None, hands: HandSizes = DEFAULT_HANDS
) -> list[PlanRow]:
    """Up to three starting layouts for a brief, best first.

    Parameters
    ----------
    layout : Layout
        Its kit, room and air are used; its mics are left out.
    brief : Brief
    locker : Locker, optional
        Asked for mics and stands when the brief says so.

    Returns
    -------
    list of PlanRow
    """
    rules = fired(brief)
    worked: list[tuple[_Plan, Choice]] = []
    used: set[str] = set()
    families: set[str] = set()
    few = max(1, (brief.inputs + 1) // 2)
    for turn in range(PLANS):
        inputs = few if turn == PLANS - 1 and brief.inputs > 3 else brief.inputs
        choices = [c for c in _candidates(layout, rules, inputs) if c.technique not in used]
        if inputs > 3:
            other = [c for c in choices if c.family not in families]
            choices = other or choices
        built = _build(layout, brief, locker, hands, inputs, choices)
        if built is None:
            continue
        worked.append(built)
        used.add(built[1].technique)
        families.add(built[1].family)
    worked.sort(key=lambda f: -f[0].score)
    return [_shown(plan, picture) for plan, picture in worked]


def fullest(layout: Layout) -> tuple[Layout, str]:
    """The layout with the flips worth throwing, and what was turned over, in words.

    Overheads and close mics of a whole kit rarely push the same way (common practice: flip
    until there is more body); a plan begins with what the list of what to do would flip.

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    (Layout, str)
    """
    best = turning(analyse(layout))
    if best is None:
        return layout, ""
    words = (
        f"Polarity by body over all drums: {', '.join(best.flip)} turned over for"
        f" {best.mean_db:.1f} dB; the ear has the last word."
    )
    return with_flips(layout, set(best.flip)), words


def _shown(plan: _Plan, picture: Choice) -> PlanRow:
    layout, turned = fullest(as_usual(plan.layout))
    name = TECHNIQUES[picture.technique].name
    n = len(layout.mics)
    title = name if n == TECHNIQUES[picture.technique].mics else f"{name}, {n} mics"
    named = layout.model_copy(update={"name": title[:80]})
    stands = sum(1 for m in layout.mics if m.stand)
    t = TECHNIQUES[picture.technique]
    if plan.locker is None or not plan.locker.stands:
        stands = _stands(layout)
    return PlanRow(
        title=title,
        layout=named,
        pieces=list(plan.pieces),
        reasons=[
            *list(dict.fromkeys([t.gives, *([HALF] * plan.lean), *plan.reasons]))[:MOST_REASONS],
            *([turned] if turned else []),
        ],
        gives_up=list(dict.fromkeys([*plan.gives_up, *_left_out(plan)])),
        watch_for=t.watch_for,
        inputs=n,
        stands=stands,
        minutes=round(plan.spent),
        counts=counts(analyse(layout)),
        score=round(plan.score, 2),
    )


def _stands(layout: Layout) -> int:
    """How many stands when none are named: one each, but bars and what lies flat."""
    total = 0
    for kept in layout.techniques:
        held: list[Mic] = []
        for id_ in kept.mics:
            total += needs_stand(layout, kept, layout.mic(id_), held)
            held.append(layout.mic(id_))
    return total


def built(
    layout: Layout, brief: Brief, pieces: Sequence[Piece], locker: Locker | None = None,
    hands: HandSizes = DEFAULT_HANDS,
) -> Layout:  # fmt: skip
    """A layout of chosen pieces: a plan taken whole, or mixed from two.

    Parameters
    ----------
    layout : Layout
    brief : Brief
    pieces : sequence of Piece
    locker : Locker or None
        What there is to put up; none where nobody keeps a locker.
    hands : HandSizes
        Widths of a person's hand, metres.

    Returns
    -------
    Layout

    Raises
    ------
    RingsideError
        When a piece cannot be placed on this kit.
    """
    plan = _start(layout, brief, locker, hands, len(pieces))
    made = plan.layout
    for p in pieces:
        took = take(made, p.technique, p.target, p.numbers, hands)
        made = took.layout
        if plan.locker is not None:
            made = outfit(made, plan.locker, frozenset({took.id})).layout
    return fullest(as_usual(made))[0]


def table() -> list[RuleRow]:
    """The rules as rows, in the words of the questions."""
    names = {q.id: q.label for q in QUESTIONS}
    answers = {(q.id, a.value): a.label for q in QUESTIONS for a in q.answers}
    return [
        RuleRow(
            question=names[r.question],
            answer=answers[(r.question, r.answer)],
            about=TECHNIQUES[r.about].name if r.about in TECHNIQUES else GIVES_UP[_slot(r)],
            weight=r.weight,
            because=r.because,
        )
        for r in RULES
    ]


def _slot(rule: Rule) -> Slot:
    name = rule.about.removeprefix("slot:")
    return next(s for s in WORTH if s == name)
