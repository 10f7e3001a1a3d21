"""Which tests reach which lines of the core: for `./ringside mutate`, as a plugin of pytest.

Loaded by `-p ops.reached`; writes what it saw to the file that REACHED names. A line that a test
reaches while it is set up counts for every test of its file, since a fixture may be shared.
"""

import json
import os
from collections import Counter, defaultdict
from collections.abc import Iterator
from dataclasses import asdict, dataclass, field
from pathlib import Path

import coverage
import pytest

TOLD_TO = "REACHED"


@dataclass(frozen=True)
class Reached:
    """Tests, as pytest names them without their parameters, and how long they take."""

    by_line: dict[str, dict[str, list[str]]]
    """Of a module, of a line: tests, or whole files of them."""
    seconds: dict[str, float] = field(default_factory=dict)

    @staticmethod
    def read(parts: list[Path]) -> "Reached":
        """What several runs saw, put together."""
        lines: dict[str, dict[str, list[str]]] = defaultdict(lambda: defaultdict(list))
        seconds: Counter[str] = Counter()
        for part in parts:
            told = json.loads(part.read_text())
            seconds.update(told["seconds"])
            for module, by_line in told["by_line"].items():
                for line, tests in by_line.items():
                    lines[module][line] += tests
        return Reached({m: dict(by_line) for m, by_line in lines.items()}, dict(seconds))

    def tests(self, module: str, first: int, last: int) -> list[str]:
        """The tests that reach any of some lines, the quickest first; none for what is imported."""
        lines = self.by_line.get(module, {})
        seen = {t for n in range(first, last + 1) for t in lines.get(str(n), ())}
        files = {t for t in seen if "::" not in t}
        some = {t for t in self.seconds if t in seen or t.split("::")[0] in files}
        return sorted(some, key=lambda t: self.seconds[t])


def pytest_configure(config: pytest.Config) -> None:
    """Start to watch, if it is asked for, before the core is imported."""
    if TOLD_TO in os.environ:
        core = Path(config.rootpath) / "core" / "ringside"
        config.pluginmanager.register(_Watch(core, Path(os.environ[TOLD_TO])), "reached watch")


class _Watch:
    def __init__(self, core: Path, to: Path) -> None:
        self.core, self.to = core, to
        self.seconds: Counter[str] = Counter()
        self.cover = coverage.Coverage(data_file=None, source=[str(core)], config_file=False)
        self.cover.start()

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_setup(self, item: pytest.Item) -> Iterator[None]:
        self.cover.switch_context(item.nodeid.split("::")[0])
        return (yield)

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_call(self, item: pytest.Item) -> Iterator[None]:
        self.cover.switch_context(item.nodeid.split("[")[0])
        return (yield)

    def pytest_runtest_logreport(self, report: pytest.TestReport) -> None:
        self.seconds[report.nodeid.split("[")[0]] += report.duration

    def pytest_sessionfinish(self) -> None:
        self.cover.stop()
        data = self.cover.get_data()
        by_line = {}
        for file in data.measured_files():
            name = str(Path(file).relative_to(self.core).with_suffix(""))
            lines = data.contexts_by_lineno(file).items()
            by_line[name] = {str(n): [t for t in tests if t] for n, tests in lines}
        self.to.write_text(json.dumps(asdict(Reached(by_line, dict(self.seconds)))))
