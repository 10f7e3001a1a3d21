"""`./ringside mutate`: small changes of meaning in the core, and how many of them the tests see.

A copy of the core is changed in one place at a time: a comparison turned, a sign, a limit, a word
of direction; then the core's tests that reach this place run against it, the quickest first, until
one fails; for what is only imported, a limit or a word, every test, those nearest first. What
survives is printed with its place: either no test can tell, or it makes no difference. Those of
which the latter is known are listed in `no_difference.toml`, each with why; others are drawn.
"""

import ast
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
import tomllib
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

from ops.paths import PYTHON, ROOT
from ops.reached import TOLD_TO, Reached
from ops.say import StepFailed

DECIDING = (
    "answers/arc", "answers/changes", "answers/jobs", "answers/kitchanges", "answers/nearness",
    "answers/options", "answers/recheck",
    "answers/remedies", "answers/sentences", "answers/sheet", "answers/stands",
    "fitting/bleed", "fitting/clear", "fitting/equal", "gear/doorways", "gear/headroom",
    "gear/leads", "gear/levels",
    "gear/patch", "gear/patching", "hear/arrivals", "hear/bands", "hear/barriers", "hear/bends",
    "hear/byair", "hear/mirrors",
    "hear/mix", "hear/nearfield", "hear/rays", "hear/sums", "pairs/analysis", "pairs/delays",
    "pairs/flips",
    "pairs/doubts", "pairs/effects", "pairs/gram", "pairs/keeping", "pairs/kinds",
    "pairs/onebyone", "pairs/pans",
    "pairs/stereo", "pairs/trade", "pairs/turning", "pairs/uncertainty", "pairs/verdicts",
    "places/drumterms", "places/kitplace",
    "plan/air", "plan/channels", "plan/drumframe", "plan/hanging", "plan/kit", "plan/mics",
    "plan/openings", "plan/room", "plan/units", "plan/usual",
    "standing/asks", "standing/entries", "standing/judged",
    "standing/moves", "standing/places", "standing/report", "standing/since", "standing/stood",
    "standing/truth", "survey/lines", "survey/net", "survey/walk",
    "takes/against", "takes/align", "takes/asking", "takes/compare", "takes/crossed",
    "takes/events", "takes/faults", "takes/halfwave", "takes/hit", "takes/judged", "takes/lag",
    "takes/matching", "takes/misfit", "takes/naming", "takes/places", "takes/pooled",
    "takes/reading", "takes/reasons", "takes/tracknames",
    "techniques/rooms", "techniques/snare",
    "worklist/asks", "worklist/build", "worklist/chooses", "worklist/delays", "worklist/shifts",
    "worklist/settled", "worklist/state", "worklist/turns",
)  # fmt: skip
COMPARES: dict[type[ast.cmpop], tuple[type[ast.cmpop], ...]] = {
    ast.Lt: (ast.LtE, ast.Gt), ast.LtE: (ast.Lt, ast.GtE), ast.Gt: (ast.GtE, ast.Lt),
    ast.GtE: (ast.Gt, ast.LtE), ast.Eq: (ast.NotEq,), ast.NotEq: (ast.Eq,),
    ast.In: (ast.NotIn,), ast.NotIn: (ast.In,), ast.Is: (ast.IsNot,), ast.IsNot: (ast.Is,),
}  # fmt: skip
SUMS: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult, ast.BitAnd: ast.BitOr,
    ast.BitOr: ast.BitAnd, ast.BitXor: ast.BitAnd,
}  # fmt: skip
NAMES = {
    "minimum": "maximum", "maximum": "minimum", "min": "max", "max": "min", "argmin": "argmax",
    "argmax": "argmin", "any": "all", "all": "any", "cos": "sin", "sin": "cos",
    "first": "second", "second": "first", "left": "right", "right": "left",
}  # fmt: skip
WORDS = {
    "left": "right", "right": "left", "up": "down", "down": "up", "in": "out", "out": "in",
    "toward": "away from", "over": "under", "under": "over", "sooner": "later", "later": "sooner",
    "behind": "before", "before": "after", "drummer": "audience", "audience": "drummer",
}  # fmt: skip
WORD = re.compile(r"\b(" + "|".join(WORDS) + r")\b")
SLOW_S = 900
NO_MEANING = {"dataclass": {"frozen", "slots", "kw_only"}, "zip": {"strict"},
              "lru_cache": {"maxsize"}}  # fmt: skip
"""Arguments that say how something is kept or checked, not what is meant, by what takes them."""
GUARD = 1e-5
"""Numbers below it only keep a division or a comparison from what floating point does to it."""


LISTED = Path(__file__).with_name("no_difference.toml")
Named = tuple[str, str, str, str]


@dataclass(frozen=True)
class Change:
    """One change: where, and which of the module's it is."""

    module: str
    number: int
    line: int
    last: int
    on: str
    was: str
    now: str

    @property
    def text(self) -> str:
        """The module with it made: written out for the few that are drawn only."""
        tree = ast.parse(_source(self.module))
        node, field, value = list(changed(tree))[self.number]
        setattr(node, field, value)
        return ast.unparse(ast.fix_missing_locations(tree))

    @property
    def named(self) -> Named:
        """What it is known by, wherever its line moves to."""
        return self.module, self.on, self.was, self.now


def without_difference() -> set[Named]:
    """Changes that are listed as making none."""
    rows = tomllib.loads(LISTED.read_text())["change"]
    return {(r["module"], r["on"], r["was"], r["now"]) for r in rows if r["why"]}


def drawn(every: list[Change], count: int, seed: int) -> list[Change]:
    """So many of them by seed, without those that are listed."""
    listed = without_difference()
    shuffled = random.Random(seed).sample(every, len(every))
    return [c for c in shuffled if c.named not in listed][:count]


def changed(tree: ast.Module) -> Iterator[tuple[ast.AST, str, object]]:
    """Nodes that can be changed, the field, and what comes in its place."""
    told = {id(n.value) for n in ast.walk(tree) if isinstance(n, ast.Expr)}
    told |= {
        id(k.value)
        for n in ast.walk(tree)
        if isinstance(n, ast.Call) and isinstance(n.func, ast.Name)
        for k in n.keywords
        if k.arg in NO_MEANING.get(n.func.id, ())
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare):
            for other in COMPARES.get(type(node.ops[0]), ()):
                yield node, "ops", [other(), *node.ops[1:]]
        elif isinstance(node, ast.BinOp) and type(node.op) in SUMS:
            yield node, "op", SUMS[type(node.op)]()
        elif isinstance(node, ast.BoolOp):
            yield node, "op", ast.Or() if isinstance(node.op, ast.And) else ast.And()
        elif isinstance(node, ast.UnaryOp) and isinstance(node.op, (ast.USub, ast.Not, ast.Invert)):
            yield node, "op", ast.UAdd() if isinstance(node.op, ast.USub) else ast.Not()
        elif isinstance(node, (ast.If, ast.IfExp)):
            yield node, "test", ast.UnaryOp(ast.Not(), node.test)
        elif isinstance(node, ast.Attribute) and node.attr in NAMES:
            yield node, "attr", NAMES[node.attr]
        elif isinstance(node, ast.Name) and node.id in ("min", "max", "any", "all"):
            yield node, "id", NAMES[node.id]
        elif isinstance(node, ast.Constant) and id(node) not in told:
            yield from ((node, "value", v) for v in other_values(node.value))


def other_values(value: object) -> Iterator[object]:
    """What a constant could be instead."""
    if isinstance(value, bool):
        yield not value
    elif isinstance(value, int):
        yield value + 1
    elif isinstance(value, float):
        if 0 < abs(value) <= GUARD:
            return
        yield value * 1.25 + (0.1 if value == 0 else 0.0)
    elif isinstance(value, str) and WORD.search(value):
        yield WORD.sub(lambda m: WORDS[m.group()], value, count=1)


def _source(module: str) -> str:
    return (ROOT / "core" / "ringside" / f"{module}.py").read_text()


def changes_of(module: str) -> list[Change]:
    """Every change of a module."""
    text = _source(module)
    tree, source = ast.parse(text), text.splitlines()
    made = []
    for number, (node, field, value) in enumerate(list(changed(tree))):
        was = getattr(node, field)
        before = ast.unparse(node)
        setattr(node, field, value)
        after = ast.unparse(ast.fix_missing_locations(node))
        if after != before:
            lines = getattr(node, "lineno", 0), getattr(node, "end_lineno", 0)
            on = source[lines[0] - 1].strip()
            made.append(Change(module, number, *lines, on, before, after))
        setattr(node, field, was)
    return made


def nearest_first(module: str) -> list[str]:
    """The core's test files, those that import the module or its package before the others."""
    dotted = "ringside." + module.replace("/", ".")
    package = dotted.rsplit(".", 1)[0]

    def far(file: Path) -> tuple[int, int]:
        text = file.read_text()
        return (0 if dotted in text else 1 if package in text else 2, len(text))

    files = sorted((ROOT / "tests" / "core").glob("test_*.py"), key=far)
    slow = [f for f in files if "slow" in f.name]
    return [str(f.relative_to(ROOT)) for f in (*(f for f in files if f not in slow), *slow)]


class Bench:
    """A copy of the core and what its tests read, to be changed and changed back."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        for name in ("core", "tests", "docs", "demo", "ops", "server", "web/src/core"):
            shutil.copytree(ROOT / name, folder / name, ignore=shutil.ignore_patterns("*.pyc"))
        (folder / "pytest.ini").write_text("[pytest]\npythonpath = core .\n")

    def reached(self, tests: list[str]) -> tuple[str, Path]:
        """Some files of tests on the core as it is: the test that fails, and what each reaches."""
        to = self.folder / "reached.json"
        return self._failing(tests, {TOLD_TO: str(to)}), to

    def sees(self, change: Change, reached: Reached) -> str:
        """The test that sees a change; empty when none does."""
        file = self.folder / "core" / "ringside" / f"{change.module}.py"
        was = file.read_text()
        near = reached.tests(change.module, change.line, change.last)
        try:
            file.write_text(change.text)
            return self._failing(near or nearest_first(change.module))
        finally:
            file.write_text(was)

    def _failing(self, tests: list[str], more: dict[str, str] | None = None) -> str:
        plain = ["-x", "-q", "--no-header", "-p", "no:cacheprovider", "-p", "no:django", "-p",
                 "no:schemathesis", "-p", "no:xdist", "-p", "ops.reached"]  # fmt: skip
        env = {**os.environ, "CI": "1", "PYTHONDONTWRITEBYTECODE": "1", **(more or {})}
        try:
            done = subprocess.run(
                [str(PYTHON), "-m", "pytest", *plain, *tests], cwd=self.folder, env=env, text=True,
                capture_output=True, timeout=SLOW_S, check=False,
            )  # fmt: skip
        except subprocess.TimeoutExpired:
            return "it never ended"
        if done.returncode == 0:
            return ""
        said = done.stdout + done.stderr
        named = re.search(r"^(?:FAILED|ERROR) (\S+)", done.stdout, re.M)
        if "while loading conftest" in said:
            return "it could not be imported"
        if not named:  # no test has failed: pytest itself has
            raise StepFailed("the tests could not be run", said[-2000:])
        return named.group(1)


def as_it_is(benches: list[Bench]) -> tuple[str, Reached]:
    """A test that fails on the core as it is, if any does, and which tests reach which lines."""
    files = nearest_first(DECIDING[0])
    with ThreadPoolExecutor(len(benches)) as pool:
        parts = [files[n :: len(benches)] for n in range(len(benches))]
        done = list(pool.map(lambda bench, some: bench.reached(some), benches, parts))
    fault = next((fault for fault, _ in done if fault), "")
    return fault, Reached({}) if fault else Reached.read([to for _, to in done])


def run(count: int, seed: int, only: list[str], at_once: int = 2) -> int:
    """Try some changes, drawn by seed; print each and the share that is seen."""
    modules = [m for m in DECIDING if not only or any(o in m for o in only)]
    every = [c for m in modules for c in changes_of(m)]
    some = drawn(every, count, seed)
    print(f"{len(some)} of {len(every)} changes in {len(modules)} modules", flush=True)
    survived = []
    with tempfile.TemporaryDirectory(prefix="mutate-") as folder:
        free: Queue[Bench] = Queue()
        for n in range(at_once):
            free.put(Bench(Path(folder) / str(n)))
        fault, reached = as_it_is(list(free.queue))
        if fault:
            print(f"the tests fail as they are, so they can tell nothing: {fault}")
            return 1

        def tried(change: Change) -> tuple[Change, str]:
            bench = free.get()
            try:
                return change, bench.sees(change, reached)
            finally:
                free.put(bench)

        with ThreadPoolExecutor(at_once) as pool:
            for n, (change, seen) in enumerate(pool.map(tried, some), start=1):
                where = f"{change.module}:{change.line}"
                print(f"{n:4} {where}: {seen or 'SURVIVED'}", flush=True)
                if not seen:
                    survived.append(change)
                    print(
                        f"       in {change.on}\n       {change.was}\n    -> {change.now}",
                        flush=True,
                    )
    killed = len(some) - len(survived)
    print(f"seen: {killed} of {len(some)}, {100 * killed / max(len(some), 1):.0f} %")
    return 0


def main() -> int:
    """With the numbers of the command line: count, seed, modules."""
    count, seed, *only = sys.argv[1:]
    return run(int(count), int(seed), only)


if __name__ == "__main__":
    sys.exit(main())
