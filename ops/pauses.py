"""When the machine itself stood still: its host gives a virtual one no time now and then.

One process on each core, before all others, sleeps a little and looks at the clock. Where it wakes
late nothing else ran on that core either, however busy the machine is, so that no page is to
blame for a frame that was late by it.
"""

import contextlib
import multiprocessing
import os
import time
from collections.abc import Iterator
from multiprocessing.queues import SimpleQueue

Span = tuple[float, float]
"""From when to when, milliseconds since 1970."""
SLEEP_S = 0.002
LATE_S = 0.005
PRIORITY = 50
Said = SimpleQueue[Span]


def _watch(core: int, said: Said) -> None:
    os.sched_setaffinity(0, {core})
    os.sched_setscheduler(0, os.SCHED_FIFO, os.sched_param(PRIORITY))
    before = time.time()
    while True:
        time.sleep(SLEEP_S)
        now = time.time()
        if now - before > SLEEP_S + LATE_S:
            said.put(((before + SLEEP_S) * 1e3, now * 1e3))
        before = now


class Witness:
    """Tells of the pauses since it was asked last; none where nobody may watch."""

    def __init__(self, said: Said | None) -> None:
        self._said = said

    def told(self) -> list[Span]:
        """By which core is not told, for what was held up may have been on any."""
        found: list[Span] = []
        while self._said and not self._said.empty():
            found.append(self._said.get())
        return _joined(found)


def _joined(spans: list[Span]) -> list[Span]:
    """The same time, each moment of it once."""
    joined: list[Span] = []
    for begin, end in sorted(spans):
        if joined and begin <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(end, joined[-1][1]))
        else:
            joined.append((begin, end))
    return joined


def without(span: Span, pauses: list[Span]) -> float:
    """How long that was, milliseconds, the pauses in it left out."""
    begin, end = span
    stood = sum(max(0.0, min(end, b) - max(begin, a)) for a, b in pauses)
    return end - begin - stood


def _may_watch() -> bool:
    """Only who may come before all others can tell a pause from a busy core."""
    now = os.sched_getscheduler(0), os.sched_getparam(0)
    try:
        os.sched_setscheduler(0, os.SCHED_FIFO, os.sched_param(PRIORITY))
    except PermissionError:
        return False
    os.sched_setscheduler(0, *now)
    return True


@contextlib.contextmanager
def witnessed() -> Iterator[Witness]:
    """Watch meanwhile."""
    if not _may_watch():
        yield Witness(None)
        return
    said: Said = multiprocessing.SimpleQueue()
    cores = os.sched_getaffinity(0)
    crowd = [multiprocessing.Process(target=_watch, args=(c, said), daemon=True) for c in cores]
    for one in crowd:
        one.start()
    try:
        yield Witness(said)
    finally:
        for one in crowd:
            one.kill()
            one.join()
