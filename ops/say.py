"""Steps that say what they do, how long they took, and what to try when they fail."""

import subprocess
import sys
import time
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path


class StepFailed(Exception):
    """A step that could not be done: which, why, and what to try."""

    def __init__(self, why: str, try_this: str) -> None:
        super().__init__(why)
        self.try_this = try_this


@contextmanager
def step(name: str) -> Iterator[None]:
    """One line per step, with its seconds."""
    print(f"  {name} ...", end="", flush=True)
    start = time.monotonic()
    try:
        yield
    except StepFailed as fault:
        print(f"\nringside: {name}: failed\n  why: {fault}\n  try: {fault.try_this}")
        sys.exit(1)
    print(f" {time.monotonic() - start:.1f} s", flush=True)


def run(
    args: Sequence[str | Path],
    *,
    try_this: str,
    cwd: Path | None = None,
    env: dict[str, str] | None = None,
) -> str:
    """Run a command quietly; StepFailed with the end of its output when it fails."""
    try:
        done = subprocess.run(
            [str(a) for a in args], cwd=cwd, env=env, text=True, stdin=subprocess.DEVNULL,
            stdout=subprocess.PIPE, stderr=subprocess.STDOUT, check=False,
        )  # fmt: skip
    except FileNotFoundError:
        raise StepFailed(f"{args[0]} is not on this machine", try_this) from None
    if done.returncode != 0:
        tail = "\n       ".join(done.stdout.strip().splitlines()[-12:])
        raise StepFailed(
            f"{Path(str(args[0])).name} answered {done.returncode}\n       {tail}", try_this
        )
    return done.stdout
