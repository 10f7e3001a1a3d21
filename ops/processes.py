"""Which processes are this installation's own: told by a mark in their environment."""

import ctypes
import os
import signal
import time
from collections.abc import Callable, Iterable
from pathlib import Path

from ops import paths

MARK = "RINGSIDE_WATCHED"
_prctl = ctypes.CDLL(None, use_errno=True).prctl
_PARENT_DEATH = 1


def with_parent(what: signal.Signals) -> Callable[[], None]:
    """What a child does first, to be sent that when its parent is gone, whatever ended it."""
    return lambda: _prctl(_PARENT_DEATH, what)


def mark() -> dict[str, str]:
    """What a process of this installation carries in its environment."""
    return {MARK: str(paths.HOME)}


def ours() -> list[int]:
    """Every running process of this installation, its watcher among them; never this one."""
    wanted = f"{MARK}={paths.HOME}".encode()
    found = []
    for entry in Path("/proc").iterdir():
        if not entry.name.isdigit() or int(entry.name) == os.getpid():
            continue
        try:
            carried = (entry / "environ").read_bytes().split(b"\0")
            dead = (entry / "stat").read_text().rsplit(") ", 1)[1].startswith(("Z", "X"))
        except (OSError, IndexError):
            continue
        if wanted in carried and not dead:
            found.append(int(entry.name))
    return found


def _tell(pids: Iterable[int], what: signal.Signals) -> None:
    for pid in pids:
        try:
            os.kill(pid, what)
        except (ProcessLookupError, PermissionError):
            continue


def end_ours(patience_s: float = 12.0) -> int:
    """End every process of this installation; how many there were."""
    there = ours()
    if not there:
        return 0
    _tell(there, signal.SIGTERM)
    deadline = time.monotonic() + patience_s
    while ours():
        if time.monotonic() > deadline:
            _tell(ours(), signal.SIGKILL)
            time.sleep(0.2)
            break
        time.sleep(0.05)
    return len(there)
