"""`./ringside house`: how long, how tangled, how documented and how tested, against goals."""

import ast
import json
import os
import re
import statistics
import sys
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from ops.paths import ROOT, WEB
from ops.say import run

ARRAYS = re.compile(r"\b(Floats|Ints|Mask|Arrays?|ndarray|NDArray)\b")
SECTIONS = ("Parameters", "Returns")
MADE = ("schema.d.ts",)
"""Files that are made, not written."""


@dataclass(frozen=True)
class Figure:
    """One measured figure and what it should be; `good` is None where it is only told."""

    area: str
    name: str
    value: str
    goal: str = ""
    good: bool | None = None


@dataclass(frozen=True)
class Function:
    """A function and its length in lines without its docstring."""

    where: str
    lines: int
    component: bool = False


def most(area: str, name: str, value: float, goal: float, told: str = "") -> Figure:
    """A figure that must not be above its goal."""
    words = f"{value:g}" + (f"  {told}" if told else "")
    return Figure(area, name, words, f"at most {goal:g}", value <= goal)


def python_files(folder: Path) -> list[Path]:
    """The modules of a folder, without those that Django makes."""
    return [f for f in sorted(folder.rglob("*.py")) if "migrations" not in f.parts]


def web_files(tests: bool) -> list[Path]:
    """The written files of the web, or its unit tests."""
    every = sorted((*(WEB / "src").rglob("*.ts"), *(WEB / "src").rglob("*.tsx")))
    return [f for f in every if f.name not in MADE and (".test." in f.name) == tests]


def lines_of(files: Iterable[Path]) -> dict[Path, int]:
    """How many lines each file has."""
    return {f: len(f.read_text().splitlines()) for f in files}


def told_lines(tree: ast.Module) -> set[int]:
    """The lines of a module that are docstrings."""
    homes = (n for n in ast.walk(tree) if isinstance(n, (ast.Module, ast.ClassDef, *Def.__args__)))
    first = [n.body[0] for n in homes if ast.get_docstring(n, clean=False) is not None]
    return {i for n in first for i in range(n.lineno, (n.end_lineno or n.lineno) + 1)}


def code_lines(file: Path) -> int:
    """Lines that do something: no docstrings, no comments, nothing empty."""
    text = file.read_text()
    told = told_lines(ast.parse(text)) if file.suffix == ".py" else set()
    empty = re.compile(r"\s*(#|//|/?\*|$)")
    rows = enumerate(text.splitlines(), start=1)
    return sum(1 for i, line in rows if i not in told and not empty.match(line))


Def = ast.FunctionDef | ast.AsyncFunctionDef


def defs(tree: ast.AST) -> Iterator[Def]:
    """Every function and method of a module."""
    return (n for n in ast.walk(tree) if isinstance(n, Def))


def length(node: Def) -> int:
    """Lines from `def` to the end, without the docstring."""
    first = node.body[0]
    told = ast.get_docstring(node, clean=False) is not None
    words = (first.end_lineno or first.lineno) - first.lineno + 1 if told else 0
    return (node.end_lineno or node.lineno) - node.lineno + 1 - words


def python_functions(files: Iterable[Path]) -> list[Function]:
    """The functions of Python files."""
    return [
        Function(f"{file.relative_to(ROOT)}:{node.lineno} {node.name}", length(node))
        for file in files
        for node in defs(ast.parse(file.read_text()))
    ]


def web_functions() -> list[Function]:
    """The functions of the web, as its own compiler reads them."""
    text = run(["node", "tools/functions.mjs"], cwd=WEB, try_this="run ./ringside test once")
    rows = [json.loads(line) for line in text.splitlines()]
    return [
        Function(f"web/src/{r['file']}:{r['line']} {r['name']}", r["lines"], r["component"])
        for r in rows
    ]


def lengths(area: str, functions: list[Function], p90: float, longest: float) -> list[Figure]:
    """Median, 90th percentile and longest of some functions."""
    sizes = [f.lines for f in functions]
    worst = max(functions, key=lambda f: f.lines)
    return [
        Figure(area, "functions, median lines", f"{statistics.median(sizes):g}"),
        most(area, "functions, 90th percentile", statistics.quantiles(sizes, n=10)[-1], p90),
        most(area, "longest function", worst.lines, longest, worst.where),
    ]


def file_length(area: str, files: Iterable[Path]) -> Figure:
    """The longest file."""
    path, lines = max(lines_of(files).items(), key=lambda item: item[1])
    return most(area, "longest file", lines, 500, str(path.relative_to(ROOT)))


def python_imports(root: Path) -> dict[str, set[str]]:
    """What each module below a folder imports of the others, also within functions."""
    names = {module_name(root, f): f for f in python_files(root)}
    return {
        name: {
            part
            for node in ast.walk(ast.parse(file.read_text()))
            for part in imported(node)
            if part in names and part != name
        }
        for name, file in names.items()
    }


def module_name(root: Path, file: Path) -> str:
    """The dotted name of a module below a folder."""
    parts = file.relative_to(root).with_suffix("").parts
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


def imported(node: ast.AST) -> Iterator[str]:
    """The names an import may stand for: a module, or something in it."""
    if isinstance(node, ast.Import):
        yield from (a.name for a in node.names)
    elif isinstance(node, ast.ImportFrom) and node.module:
        yield node.module
        yield from (f"{node.module}.{a.name}" for a in node.names)


def web_imports() -> dict[str, set[str]]:
    """What each file of the web imports of the others, types too."""
    source = WEB / "src"
    files = set(web_files(tests=False))
    told = re.compile(r'from "(\.[^"]+)"')

    def target(file: Path, words: str) -> Path | None:
        at = Path(os.path.normpath(file.parent / words))
        ends = (at.with_name(at.name + end) for end in (".ts", ".tsx"))
        return next((t for t in ends if t in files), None)

    return {
        str(f.relative_to(source)): {
            str(t.relative_to(source)) for w in told.findall(f.read_text()) if (t := target(f, w))
        }
        for f in files
    }


def circles(graph: dict[str, set[str]]) -> list[list[str]]:
    """Modules that import each other, directly or by way of others (Tarjan 1972)."""
    index: dict[str, int] = {}
    low: dict[str, int] = {}
    stack: list[str] = []
    out: list[list[str]] = []

    def visit(v: str) -> None:
        index[v] = low[v] = len(index)
        stack.append(v)
        for w in sorted(graph.get(v, ())):
            if w not in index:
                visit(w)
                low[v] = min(low[v], low[w])
            elif w in stack:
                low[v] = min(low[v], index[w])
        if low[v] == index[v]:
            ring = [stack.pop()]
            while ring[-1] != v:
                ring.append(stack.pop())
            if len(ring) > 1:
                out.append(sorted(ring))

    for v in sorted(graph):
        if v not in index:
            visit(v)
    return out


def circle_figure(area: str, graph: dict[str, set[str]]) -> Figure:
    """How many circles of imports there are; none is the goal."""
    found = circles(graph)
    return most(area, "circles of imports", len(found), 0, "; ".join(map(", ".join, found)))


def public(files: Iterable[Path]) -> Iterator[tuple[str, Def]]:
    """Public functions, and public methods of public classes."""
    for file in files:
        tree = ast.parse(file.read_text())
        classes = [n for n in tree.body if isinstance(n, ast.ClassDef) and n.name[0] != "_"]
        for home in (tree, *classes):
            for node in home.body:
                if isinstance(node, Def) and not node.name.startswith("_"):
                    yield f"{file.relative_to(ROOT)}:{node.lineno} {node.name}", node


def takes_arrays(node: Def) -> bool:
    """Whether a function's signature speaks of arrays."""
    kinds = (*(a.annotation for a in given(node)), node.returns)
    return any(ARRAYS.search(ast.unparse(k)) for k in kinds if k)


def given(node: Def) -> list[ast.arg]:
    """What a function takes, besides what it hangs on."""
    every = (*node.args.posonlyargs, *node.args.args, *node.args.kwonlyargs)
    return [a for a in every if a.arg not in ("self", "cls")]


def documented(node: Def) -> bool:
    """Whether a docstring says what goes in and what comes out, by numpydoc's sections.

    What takes nothing, an attribute in all but name, says its shape in a sentence.
    """
    words = ast.get_docstring(node) or ""
    if not given(node):
        return re.search(r"\([^)]*[\dA-Z],?[^)]*\)", words) is not None
    gives = not (isinstance(node.returns, ast.Constant) and node.returns.value is None)
    wanted = SECTIONS if gives else SECTIONS[:1]
    return all(re.search(rf"^{s}\n-+$", words, re.M) for s in wanted)


def share(area: str, name: str, some: list[str], every: int) -> Figure:
    """How many of all are as they should be; `some` are those that are not."""
    good = every - len(some)
    value = f"{100 * good / max(every, 1):.0f} %  {good} of {every}"
    first = f", first: {some[0]}" if some else ""
    return Figure(area, name, value + first, "100 %", not some)


def docstrings(files: list[Path]) -> list[Figure]:
    """Public functions that do not say what they do, what goes in and out, in which shape."""
    every = list(public(files))
    bare = [where for where, node in every if ast.get_docstring(node) is None]
    taking = [(where, node) for where, node in every if given(node)]
    silent = [where for where, node in taking if not documented(node)]
    arrays = [(where, node) for where, node in every if takes_arrays(node)]
    thin = [where for where, node in arrays if not documented(node)]
    return [
        share("core", "public functions documented", bare, len(every)),
        share("core", "say what they take and give", silent, len(taking)),
        share("core", "of arrays: shapes and units", thin, len(arrays)),
    ]


def test_shares() -> list[Figure]:
    """How much of each area is tests, by lines."""
    browser = python_files(ROOT / "tests" / "browser")
    areas = {
        "core": (python_files(ROOT / "core"), python_files(ROOT / "tests" / "core")),
        "server": (python_files(ROOT / "server"), python_files(ROOT / "tests" / "server")),
        "web": (web_files(tests=False), [*web_files(tests=True), *browser]),
        "ops": (python_files(ROOT / "ops"), python_files(ROOT / "tests" / "ops")),
    }
    sums = {a: [sum(map(code_lines, part)) for part in two] for a, two in areas.items()}
    told = [
        Figure(area, "share of tests", f"{100 * tests / (code + tests):.0f} %  {tests} lines")
        for area, (code, tests) in sums.items()
    ]
    code, tests = (sum(s[i] for s in sums.values()) for i in (0, 1))
    part = tests / (code + tests)
    words = f"{100 * part:.1f} %  {tests} of {code + tests} lines"
    whole = Figure("all", "share of tests", words, "25 to 33.3 %", 0.25 <= part <= 1 / 3)
    return [*told, whole]


def figures() -> list[Figure]:
    """Everything that is measured, area by area."""
    core, server = python_files(ROOT / "core"), python_files(ROOT / "server")
    web = web_functions()
    components = [f for f in web if f.component]
    return [
        *lengths("core", python_functions(core), 22, 80),
        file_length("core", core),
        circle_figure("core", python_imports(ROOT / "core")),
        *docstrings(core),
        *lengths("server", python_functions(server), 25, 80),
        file_length("server", server),
        *lengths("web", web, 40, 90),
        *lengths("components", components, 40, 90),
        file_length("web", web_files(tests=False)),
        circle_figure("web", web_imports()),
        *test_shares(),
    ]


def main() -> int:
    """Print every figure; 1 when one of them misses its goal."""
    if not (WEB / "node_modules").is_dir():
        print("ringside: the web's packages are missing; run ./ringside test once")
        return 1
    rows = figures()
    for f in rows:
        mark = {True: "good", False: "MISSED", None: ""}[f.good]
        print(f"{f.area:<11}{f.name:<30}{mark:<8}{f.goal:<14}{f.value}")
    return 1 if any(f.good is False for f in rows) else 0


if __name__ == "__main__":
    sys.exit(main())
