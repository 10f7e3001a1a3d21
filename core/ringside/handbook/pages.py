"""Every technique and every rule of the brief as pages to read: docs/techniques.md, docs/brief.md,
docs/worked-cases.md.

The pages are made from what the core computes with, so they cannot say anything else; a test
holds them to it.
"""

from typing import Final

from ringside.answers.sheet import setup_rows
from ringside.brief.plans import table
from ringside.errors import RingsideError
from ringside.handbook.cases import cases
from ringside.handbook.verdictpage import verdicts_page as verdicts_page
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout
from ringside.plan.questions import QUESTIONS
from ringside.plan.room import Room, Space
from ringside.techniques.catalogue import TECHNIQUES
from ringside.techniques.recipe import GROUPS, HAND_WORDS, Named, Technique
from ringside.techniques.standing import standing
from ringside.techniques.taking import take

HEAD: Final = "<!-- Written by ./ringside types from the core; do not edit. -->\n\n"
_SIGN: Final = {"deg": "°", "clock": " o'clock", "share": ""}


def _value(x: float, n: Named) -> str:
    if n.unit == "m":
        return f"{x * 1000:.1f} mm" if abs(n.high) < 0.05 else f"{x * 100:.0f} cm"
    return f"{x:g}{_SIGN[n.unit]}"


def _number(n: Named) -> str:
    start = _value(n.default, n) + (f" ({HAND_WORDS[n.hand]})" if n.hand else "")
    return f"{n.label}: {start}, from {_value(n.low, n)} to {_value(n.high, n)}"


def _technique(t: Technique) -> str:
    mics = "1 mic" if t.mics == 1 else f"{t.mics} mics"
    lines = [f"### {t.name}\n", f"{mics}, about {t.minutes:.0f} minutes."]
    if t.keeps_on:
        lines.append(f"Kept equal on: {', '.join(t.keeps_on)}.")
    lines += [
        "",
        f"- Gives: {t.gives}",
        f"- Watch for: {t.watch_for}",
        f"- Listen for: {t.listen_for}",
    ]
    if t.care:
        lines.append(f"- Care: {t.care}")
    lines += [f"- {_number(n)}" for n in t.numbers]
    lines += _put_up(t)
    return "\n".join(lines)


def _empty() -> Layout:
    """The kit and the room that the page puts everything up in: every technique has its place."""
    small = Space(id="hall", name="Hall", x_m=2.0, y_m=8.0, width_m=2.0, length_m=3.0, height_m=2.6)
    room = Room(
        name="Room", width_m=6.0, length_m=8.0, height_m=3.2, kit_x_m=3.0, kit_y_m=2.5,
        spaces=(small,),
    )  # fmt: skip
    return Layout(name="Handbook", kit=five_piece(), room=room)


def _put_up(t: Technique) -> list[str]:
    """Where its mics stand on the five-piece starting kit, as somebody with a tape is told."""
    try:
        took = take(_empty(), t.id)
    except RingsideError:
        return []
    layout = took.layout
    lines = []
    for row in setup_rows(layout):
        mic = layout.mic(row.id)
        x, y, _ = mic.position_m
        where = f"{abs(x) * 100:.1f} cm {'right' if x > 0 else 'left'}"
        where += f" and {abs(y) * 100:.1f} cm {'before' if y > 0 else 'behind'} the snare"
        lines.append(
            f"  - {row.id}, {mic.pattern}: {where}, {row.height_m * 100:.1f} cm high; snare"
            f" {row.snare_m * 100:.1f}, kick {row.kick_m * 100:.1f} cm by tape; {row.aim}"
        )
    told = [f"  - {words}" for row in standing(layout) for words in row.notes]
    return ["- On the five-piece starting kit:", *lines, *told]


def techniques_page() -> str:
    """The list of techniques as Markdown, with their numbers in centimetres and degrees."""
    parts = [
        HEAD + "# Techniques\n\nStarts and ranges are common practice. A kit may settle other"
        " starts where the first is not clear. What is told by hand starts at one's own hand."
    ]
    for group in GROUPS:
        parts.append(f"## {group}")
        parts += [_technique(t) for t in TECHNIQUES.values() if t.group == group]
    return "\n\n".join(parts) + "\n"


def brief_page() -> str:
    """The questions and the table of rules as Markdown."""
    lines = [HEAD + "# The brief\n"]
    lines.append("Weights add up; they are common practice put into numbers from memory.\n")
    for q in QUESTIONS:
        lines.append(f"## {q.label}\n")
        lines += [f"- **{a.label}**: {a.changes}" for a in q.answers]
        lines += ["", "| answer | about | weight | because |", "|---|---|---|---|"]
        lines += [
            f"| {r.answer} | {r.about} | {r.weight:+g} | {r.because} |"
            for r in table()
            if r.question == q.label
        ]
        lines.append("")
    return "\n".join(lines)


def cases_page() -> str:
    """The worked cases as Markdown: what is put up, what is expected, what is computed."""
    lines = [
        HEAD + "# Worked cases\n",
        "Set-ups every engineer knows, on the five-piece starting kit at 20 °C. What is expected"
        " is common practice; what is found is computed, and a test holds the two together.\n",
    ]
    for case in cases():
        lines += [f"## {case.title}\n", f"{case.put_up}\n", f"**Expected.** {case.expected}\n"]
        lines += [f"- {found}" for found in case.found]
        lines.append("")
    return "\n".join(lines)
