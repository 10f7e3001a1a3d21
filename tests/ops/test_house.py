"""The house is measured as it is: lengths, circles, docstrings, on small examples."""

import ast

import pytest

from ops.house import (
    Figure,
    circles,
    code_lines,
    defs,
    documented,
    imported,
    length,
    most,
    share,
    takes_arrays,
)


def only(text):
    return next(defs(ast.parse(text)))


TOLD = """
def spot(at: Floats, name: str) -> Floats:
    \'\'\'Where it is.

    Parameters
    ----------
    at : ndarray, shape (3,)
    name : str
    {returns}
    \'\'\'
    return at
""".replace("\\'", "'")


def test_a_function_is_as_long_as_what_it_does():
    assert length(only("def f():\n    return 1\n")) == 2
    assert length(only('def f():\n    """Two\n    lines."""\n    return 1\n')) == 2


def test_lines_that_only_tell_are_not_code(tmp_path):
    file = tmp_path / "a.py"
    file.write_text('"""Told."""\n\n# told\nx = 1\n\n\ndef f():\n    """Told."""\n    return x\n')
    assert code_lines(file) == 3
    script = tmp_path / "a.ts"
    script.write_text("/** Told. */\n// told\n\nexport const x = 1;\n")
    assert code_lines(script) == 1


@pytest.mark.parametrize(
    ("graph", "found"),
    [
        ({"a": {"b"}, "b": {"c"}, "c": set()}, []),
        ({"a": {"b"}, "b": {"a"}, "c": {"a"}}, [["a", "b"]]),
        (
            {"a": {"b"}, "b": {"c"}, "c": {"a"}, "d": {"d2"}, "d2": {"d"}},
            [["a", "b", "c"], ["d", "d2"]],
        ),
    ],
)
def test_circles_are_found_however_long(graph, found):
    assert sorted(circles(graph)) == found


def test_an_import_may_stand_for_a_module_or_for_something_in_it():
    node = ast.parse("from ringside.plan import kit").body[0]
    assert set(imported(node)) == {"ringside.plan", "ringside.plan.kit"}


def test_arrays_want_both_what_goes_in_and_what_comes_out():
    whole = only(TOLD.format(returns="\n    Returns\n    -------\n    ndarray, shape (3,)"))
    half = only(TOLD.format(returns=""))
    assert takes_arrays(whole)
    assert documented(whole)
    assert not documented(half)
    assert not takes_arrays(only("def f(x: float) -> float: ..."))


def test_an_attribute_of_arrays_says_its_shape_in_a_sentence():
    at = "def at(self) -> Floats:\n    '''Where it is{shape}.'''\n".replace("\\'", "'")
    assert documented(only(at.format(shape=", metres (N, 3)")))
    assert not documented(only(at.format(shape=" (see there)")))


def test_a_goal_is_missed_only_beyond_it():
    assert most("core", "longest file", 500, 500).good
    assert not most("core", "longest file", 501, 500).good
    assert share("core", "documented", [], 4) == Figure(
        "core", "documented", "100 %  4 of 4", "100 %", True
    )
    assert not share("core", "documented", ["a.py:1 f"], 4).good
