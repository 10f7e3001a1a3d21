"""`./ringside test`: a throwaway cluster, every check, every test, one line each."""

import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from ops import install
from ops.cluster import Cluster
from ops.lock import alone
from ops.paths import HOME, PYTHON, ROOT, WEB
from ops.say import run, step

BIN = ROOT / ".venv" / "bin"


def with_test_cluster(work: Callable[[dict[str, str]], int], *, quiet: bool = False) -> int:
    """Run work with the environment of a throwaway cluster, and take it away afterwards."""
    hold = sys.stdout
    if quiet:
        sys.stdout = sys.stderr
    with alone():
        install.system_packages(browser=True, recordings=True)
        install.python_packages(dev=True)
        install.web_packages()
        install.web_build()
    folder = Path(tempfile.mkdtemp(prefix="test-", dir=_parent()))
    folder.chmod(0o755)
    cluster = Cluster(folder, fast=True)
    try:
        with step("starting a throwaway database"):
            cluster.start()
        sys.stdout = hold
        env = {**os.environ, **cluster.environment("ringside"), "PYTHONPATH": _python_path()}
        return work(env)
    finally:
        sys.stdout = hold
        cluster.remove()


def _parent() -> Path:
    HOME.mkdir(parents=True, exist_ok=True)
    return HOME


def _python_path() -> str:
    return os.pathsep.join(str(ROOT / p) for p in ("core", "server", "."))


def _checks() -> list[tuple[str, list[str], Path]]:
    python = ["core", "server", "ops", "tests", "ringside"]
    return [
        ("ruff: faults", [str(BIN / "ruff"), "check", "-q", *python], ROOT),
        ("ruff: layout", [str(BIN / "ruff"), "format", "-q", "--check", *python], ROOT),
        ("mypy: the core, strictly", [str(BIN / "mypy"), "--no-error-summary"], ROOT),
        ("import rules", [str(BIN / "lint-imports"), "--no-cache"], ROOT),
        ("the house", [str(PYTHON), "-m", "ops.house"], ROOT),
        ("client types are current", [str(PYTHON), "-m", "ops.testing", "types"], ROOT),
        ("tsc", ["npm", "run", "-s", "types"], WEB),
        ("biome", ["npm", "run", "-s", "lint"], WEB),
        ("vitest: the web's core", ["npm", "run", "-s", "test"], WEB),
    ]


def _check(name: str, command: list[str], cwd: Path, env: dict[str, str]) -> tuple[bool, str]:
    """Whether a check is good, and what is told of it."""
    began = time.monotonic()
    done = subprocess.run(command, cwd=cwd, env=env, text=True, capture_output=True, check=False)
    good = done.returncode == 0
    told = f"  {name}: {'good' if good else 'FAILED'} {time.monotonic() - began:.1f} s"
    return good, told if good else f"{told}\n{done.stdout[-6000:]}\n{done.stderr[-3000:]}"


def _checked(env: dict[str, str]) -> list[bool]:
    """Every check, two at a time, told in their order."""
    made = []
    with ThreadPoolExecutor(2) as pool:
        waiting = [pool.submit(_check, *check, env) for check in _checks()]
        for one in waiting:
            good, told = one.result()
            print(told, flush=True)
            made.append(good)
    return made


def _pytest(paths: list[str], env: dict[str, str], *more: str) -> bool:
    command = [str(PYTHON), "-m", "pytest", "-q", *more, *paths]
    return subprocess.call(command, cwd=ROOT, env=env) in (0,)


def run_all(paths: list[str]) -> int:
    """All checks and tests, or the tests at the given paths."""

    def work(env: dict[str, str]) -> int:
        browser_env = {**env, "DJANGO_ALLOW_ASYNC_UNSAFE": "1"}
        if paths:
            return 0 if _pytest(paths, browser_env) else 1
        good = _checked(env)
        print("core and server:", flush=True)
        where = ["core", "server/sheets/units.py", "tests/core", "tests/server", "tests/ops"]
        # Each process a half, and from the other's when its own is done: what a file of tests
        # makes once is not made in both, and neither waits for the other's last.
        shared = ("-n", "2", "--dist", "worksteal")
        good.append(_pytest(where, env, "--doctest-modules", *shared))
        print("browser:", flush=True)
        good.append(_pytest(["tests/browser"], browser_env, *shared))
        bad = good.count(False)
        print("everything passed" if not bad else f"{bad} of {len(good)} parts failed")
        return 1 if bad else 0

    return with_test_cluster(work)


def write_types(types: Path, schema: Path) -> None:
    """The interface's schema, and the web client's types made from it."""
    env = {**os.environ, "RINGSIDE_SECRET_KEY": "schema", "PYTHONPATH": _python_path()}
    export = ["export_openapi_schema", "--api", "api.routes.api", "--indent", "1", "--sorted"]
    text = run([PYTHON, ROOT / "server" / "manage.py", *export], env=env, try_this="read above")
    schema.write_text(text.strip() + "\n")
    client = ["npx", "openapi-typescript", str(schema), "-o", str(types)]
    run(client, cwd=WEB, try_this="read above")


PAGES = {
    "techniques": "techniques.md", "brief": "brief.md", "cases": "worked-cases.md",
    "verdicts": "verdicts.md",
}  # fmt: skip


def write_pages(docs: Path) -> None:
    """The pages that the core itself can tell: techniques, the brief's rules, worked cases."""
    env = {**os.environ, "PYTHONPATH": _python_path()}
    for name, file in PAGES.items():
        code = f"from ringside.handbook.pages import {name}_page as page; print(page(), end='')"
        text = run([PYTHON, "-c", code], env=env, try_this="read above")
        (docs / file).write_text(text)
    schema = docs / "formats" / "layout.schema.json"
    head = {k: v for k, v in json.loads(schema.read_text()).items() if k.startswith("$")}
    code = (
        "import json; from ringside.files.layout import layout_schema as schema;"
        " print(json.dumps(schema()))"
    )
    made = json.loads(run([PYTHON, "-c", code], env=env, try_this="read above"))
    named = {k: head[k] for k in ("$schema", "$id")}
    schema.write_text(json.dumps({**named, **made}, indent=1) + "\n")


def types_are_current() -> int:
    """Whether the committed schema and types are what the server says now."""
    with tempfile.TemporaryDirectory() as folder:
        types, schema = Path(folder) / "schema.d.ts", Path(folder) / "openapi.json"
        write_types(types, schema)
        pairs = (
            (types, WEB / "src" / "api" / "schema.d.ts"),
            (schema, ROOT / "docs" / "formats" / "openapi.json"),
        )
        for fresh, kept in pairs:
            if not kept.is_file() or fresh.read_text() != kept.read_text():
                print(f"{kept.relative_to(ROOT)} is out of date: run ./ringside types")
                return 1
    return 0


if __name__ == "__main__":
    sys.exit(types_are_current())
