"""Small changes of meaning: each made in one place, none in words that only explain."""

import ast

import pytest

from ops.mutate import (
    DECIDING,
    changed,
    changes_of,
    drawn,
    nearest_first,
    other_values,
    without_difference,
)
from ops.paths import ROOT


def made(text):
    tree = ast.parse(text)
    seen = []
    for node, field, value in list(changed(tree)):
        was = getattr(node, field)
        setattr(node, field, value)
        seen.append(ast.unparse(ast.fix_missing_locations(tree)))
        setattr(node, field, was)
    assert ast.unparse(tree) == ast.unparse(ast.parse(text))
    return seen


@pytest.mark.parametrize(("text", "changes"), [
    ("a < b", ["a <= b", "a > b"]),
    ("a + b", ["a - b"]),
    ("a and b", ["a or b"]),
    ("x = np.minimum(a, b)", ["x = np.maximum(a, b)"]),
    ("x = 'to the left'", ["x = 'to the right'"]),
    ("x = True", ["x = False"]),
    ("zip(a, b, strict=True)", []),
    ("Field(strict=True)", ["Field(strict=False)"]),
    ("x = 1e-09", []),
    ("def f():\n    \'\'\'To the left.\'\'\'", []),
])  # fmt: skip
def test_what_is_changed(text, changes):
    assert made(text) == changes


@pytest.mark.parametrize(("value", "others"), [(3, [4]), (0.5, [0.625]), (0.0, [0.1]), ("tom", []),
                                               (None, [])])  # fmt: skip
def test_what_a_constant_becomes(value, others):
    assert list(other_values(value)) == others


def test_the_tests_nearest_to_a_module_come_first_and_the_slow_last():
    order = nearest_first("hear/sums")
    assert "ringside.hear.sums" in (ROOT / order[0]).read_text()
    assert "slow" in order[-1]


@pytest.mark.parametrize("module", DECIDING)
def test_every_change_can_be_read_and_differs(module):
    text = (ROOT / "core" / "ringside" / f"{module}.py").read_text()
    plain = ast.unparse(ast.parse(text))
    some = changes_of(module)
    assert len(some) > 3
    for change in some[:: max(len(some) // 2, 1)]:
        assert change.text != plain
        ast.parse(change.text)


def test_what_is_listed_as_making_no_difference_is_there_once_and_is_not_drawn():
    every = [c for module in DECIDING for c in changes_of(module)]
    listed = without_difference()
    assert sorted(c.named for c in every if c.named in listed) == sorted(listed)
    some = drawn(every, 200, 2026)
    assert len(some) == 200
    assert not listed & {c.named for c in some}
    assert some[:150] == drawn(every, 150, 2026)
