"""One at a time: what installs, starts or stops this installation waits for what does so now."""

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager

from ops import paths

_held = False


@contextmanager
def alone() -> Iterator[None]:
    """Hold this installation's lock; the kernel lets it go however this process ends."""
    global _held
    if _held:
        yield
        return
    paths.HOME.mkdir(parents=True, exist_ok=True)
    with (paths.HOME / "lock").open("a+") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            file.seek(0)
            print(f"  another ./ringside is at work here (process {file.read().strip() or '?'});")
            print("  waiting for it ...", flush=True)
            fcntl.flock(file, fcntl.LOCK_EX)
        file.truncate(0)
        file.write(str(os.getpid()))
        file.flush()
        os.set_inheritable(file.fileno(), False)
        _held = True
        try:
            yield
        finally:
            _held = False
