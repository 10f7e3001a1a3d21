"""The pages to read say what the core computes with."""

from pathlib import Path

import pytest
from ringside.brief.rules import RULES
from ringside.handbook.pages import brief_page, cases_page, techniques_page, verdicts_page
from ringside.pairs.verdicts import VERDICT_WORDS
from ringside.plan.thresholds import REASONS
from ringside.techniques.catalogue import TECHNIQUES

DOCS = Path(__file__).resolve().parents[2] / "docs"


@pytest.mark.parametrize(
    ("name", "page"),
    [
        ("techniques.md", techniques_page),
        ("brief.md", brief_page),
        ("worked-cases.md", cases_page),
        ("verdicts.md", verdicts_page),
    ],
)
def test_the_page_in_docs_is_current(name, page):
    assert (DOCS / name).read_text() == page(), "write it anew with ./ringside types"


def test_every_technique_and_every_rule_is_on_its_page():
    page = techniques_page()
    for t in TECHNIQUES.values():
        assert f"### {t.name}\n" in page
        assert t.listen_for in page
    page = brief_page()
    assert sum(line.startswith("| ") for line in page.splitlines()) == len(RULES) + 12


def test_lengths_are_told_in_centimetres_and_the_floor_in_millimetres():
    page = techniques_page()
    assert "Back from the beater: 22 cm, from 3 cm to 60 cm" in page
    assert "Off the floor: 0.4 mm (a card), from 0.1 mm to 20.0 mm" in page
    assert "Angle between: 110°, from 60° to 150°" in page


def test_the_page_of_verdicts_has_every_verdict_and_every_limit():
    page = verdicts_page()
    for word in VERDICT_WORDS.values():
        assert f"## {word.capitalize()}" in page
    for name in REASONS.keys() - {"near_surface_m"}:
        assert REASONS[name] in page
    assert "30 cm and fades out of it until 60 cm" in page  # three quarters of 40 cm, and half more
