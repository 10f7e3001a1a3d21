"""The set-up list: a layout as jobs at the kit, one stand after the other, in somebody's order."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ringside.answers.inputs import InputRow, input_rows
from ringside.answers.sheet import SetupRow, setup_rows
from ringside.gear.doorways import doors_crossed
from ringside.gear.leads import LeadRow, lead_rows
from ringside.gear.locker import Locker, StandModel, bank_of
from ringside.gear.loudness import loudness
from ringside.gear.outfit import ON_A_BAR_M
from ringside.gear.pace import minutes_each, minutes_in_all
from ringside.gear.phantom import hurt_by_phantom
from ringside.gear.stock import stock
from ringside.plan.feeds import feed
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic

OVERHEAD_M: Final = 1.3
"""A boom at this height is over somebody's head who sits or bends (from memory)."""

JobOrder = Literal["overheads first", "kick first", "by stand", "round the kit"]
ORDERS: Final[tuple[JobOrder, ...]] = (
    "overheads first", "kick first", "by stand", "round the kit",
)  # fmt: skip


@dataclass(frozen=True, kw_only=True, slots=True)
class JobMic:
    """One mic of a job: what it is, where it goes, how it is plugged in."""

    row: SetupRow
    model: str
    """As the locker calls it; its key, or empty, where that does not know it."""
    pad_db: float | None
    plug: str
    """Its input in words: the box and its socket, and whether phantom is on."""
    cable: str
    """The cable that reaches, with how long it must be; empty where nobody knows."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Job:
    """One stand with what it carries, or a mic that needs none."""

    mics: list[JobMic]
    stand: str
    """As the locker calls it; empty where it needs none or none is chosen."""
    cautions: list[str]
    minutes: float
    """To the tenth, so that what is left of them adds up."""


@dataclass(frozen=True, kw_only=True, slots=True)
class SetupList:
    """The jobs in their order, what they take, and what is to be heeded throughout."""

    order: JobOrder
    jobs: list[Job]
    minutes: int
    there: int | None
    """Minutes there are; None where nobody said."""
    cautions: list[str]


def setup_list(layout: Layout, locker: Locker, order: JobOrder) -> SetupList:
    """The layout as jobs.

    Parameters
    ----------
    layout : Layout
    locker : Locker
    order : str

    Returns
    -------
    SetupList
    """
    told = _Told(layout, locker)
    groups = sorted(_stands(layout), key=_sorter(layout, order))
    jobs = [told.job(g) for g in groups]
    return SetupList(
        order=order,
        jobs=jobs,
        minutes=minutes_in_all(layout, locker),
        there=locker.minutes,
        cautions=_throughout(layout),
    )


def _throughout(layout: Layout) -> list[str]:
    """What holds for all of the set-up."""
    ears = loudness(layout)[0]
    return [
        f"Ear protection on while the drummer plays: about {ears.average_db:.0f} dB(A)"
        f" {ears.place}, peaks near {ears.peak_db:.0f} dB. Local rules go first.",
        "Keep exits and ways clear; leave mains to whoever is qualified.",
    ]


def _stands(layout: Layout) -> list[list[Mic]]:
    """Mics that go up together: on a bar, beside one of their technique that has the stand."""
    groups: list[list[Mic]] = []
    of = {m: t.id for t in layout.techniques for m in t.mics}
    for mic in layout.mics:
        home = None if mic.stand else _bar(mic, groups, of)
        if home is None:
            groups.append([mic])
        else:
            home.append(mic)
    return groups


def _bar(mic: Mic, groups: list[list[Mic]], of: dict[str, str]) -> list[Mic] | None:
    at = np.array(mic.position_m)
    for group in groups:
        first = group[0]
        near = float(np.linalg.norm(at - np.array(first.position_m))) < ON_A_BAR_M
        if near and first.stand and mic.id in of and of.get(first.id) == of[mic.id]:
            return group
    return None


def _sorter(layout: Layout, order: JobOrder) -> Callable[[list[Mic]], tuple[object, ...]]:
    kinds = {p.id: p.kind for p in layout.kit.parts}
    number = {m.id: n for n, m in enumerate(layout.mics)}

    def family(mic: Mic) -> str:
        if mic.role != "close":
            return mic.role
        return str(kinds.get(mic.job or "", "other"))

    first = FIRST[order if order in FIRST else "overheads first"]

    def by_family(group: list[Mic]) -> tuple[object, ...]:
        name = family(group[0])
        return (first.index(name) if name in first else len(first), number[group[0].id])

    def by_stand(group: list[Mic]) -> tuple[object, ...]:
        return (group[0].stand is None, group[0].stand or "", *by_family(group))

    def by_side(group: list[Mic]) -> tuple[object, ...]:
        x, y, _ = group[0].position_m
        # From behind on the drummer's left, round the front, to the right; far ones last.
        return (group[0].role == "room", float(np.arctan2(x, y)))

    return {"by stand": by_stand, "round the kit": by_side}.get(order, by_family)


FIRST: Final[dict[str, tuple[str, ...]]] = {
    "overheads first": ("overhead", "kick", "snare", "rack", "floor", "hats", "ride"),
    "kick first": ("kick", "snare", "rack", "floor", "hats", "ride", "crash", "overhead"),
}


class _Told:
    """A layout's jobs in words, by what the locker knows."""

    def __init__(self, layout: Layout, locker: Locker) -> None:
        self.layout, self.locker = layout, locker
        self.rows = {r.id: r for r in setup_rows(layout)}
        self.inputs: dict[str, InputRow] = {}
        for r in input_rows(layout, locker):
            self.inputs.setdefault(r.mic, r)
        self.minutes = minutes_each(layout, locker)
        self.leads = {r.mic: r for r in lead_rows(layout, locker)}
        self.stands = {s.id: s for s in locker.stands}
        self.boxes = {b.bank: b.position_m for b in layout.boxes}
        self.care: dict[str, list[str]] = {}
        for lack in stock(layout, locker).lacks:
            if lack.kind == "care" and len(lack.mics) == 1:
                self.care.setdefault(lack.mics[0], []).append(lack.words)

    def job(self, group: Sequence[Mic]) -> Job:
        stand = self.stands.get(group[0].stand or "")
        cautions = [*_boom_words(group, stand)]
        for mic in group:
            cautions += self.care.get(mic.id, [])
            cautions += self._phantom_words(mic)
            cautions += self._door_words(mic)
        return Job(
            mics=[self._mic(m) for m in group],
            stand=stand.name if stand else group[0].stand or "",
            cautions=list(dict.fromkeys(cautions)),
            minutes=round(sum(self.minutes[m.id] for m in group), 1),
        )

    def _mic(self, mic: Mic) -> JobMic:
        way = self.inputs.get(mic.id)
        return JobMic(
            row=self.rows[mic.id],
            model=way.model if way else mic.model or "",
            pad_db=way.pad_db if way else mic.pad_db,
            plug=_plug_words(way),
            cable=_cable_words(self.leads.get(mic.id)),
        )

    def _phantom_words(self, mic: Mic) -> list[str]:
        model = next((m for m in self.locker.mics if m.id == mic.model), None)
        if not hurt_by_phantom(model):
            return []
        return [f"{mic.id} is a ribbon: phantom off before you plug it in, and no draught on it."]

    def _door_words(self, mic: Mic) -> list[str]:
        bank = bank_of(self.locker, feed(self.layout, mic.id).input)
        if bank is None or bank.id not in self.boxes:
            return []
        walls = doors_crossed(self.layout, mic.position_m, self.boxes[bank.id])
        return [
            f"The cable of {mic.id} crosses the way of the door in the {w} wall: tape it down or"
            " lead it over the door."
            for w in walls
        ]


def _boom_words(group: Sequence[Mic], stand: StandModel | None) -> list[str]:
    """Care for a boom over somebody's head."""
    high = max(m.position_m[2] for m in group)
    if high < OVERHEAD_M or all(m.role == "close" for m in group):
        return []
    if stand is not None and stand.reach_m == 0:
        return ["High on a straight stand: weigh its foot down."]
    return [
        "A boom over heads: counterweight or sandbag on, clutches tight, nobody under it while it"
        " moves."
    ]


def _plug_words(way: InputRow | None) -> str:
    if way is None:
        return "not recorded"
    if way.input is None:
        return "no input yet"
    where = f"{way.bank}, input {way.socket}" if way.bank else f"input {way.input}"
    return f"{where}, phantom on" if way.phantom else where


def _cable_words(lead: LeadRow | None) -> str:
    if lead is None:
        return ""
    if lead.cable == "":
        return f"no cable left that reaches {lead.metres:.1f} m"
    return f"{lead.cable}, for {lead.metres:.1f} m" if lead.cable else f"{lead.metres:.1f} m"
