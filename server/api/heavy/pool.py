"""A process for long answers beside each web process: with a deadline, an end, and few in line.

Computed in the web process itself, one long answer would hold up everybody's short ones, and
nothing could stop it. Here it runs apart and at a lower priority; when its client has gone, or
its time is over, that process is ended and a fresh one is there at once (it is forked from one
that has read the core in already). One member has at most `OF_ONE` in line at a time.
"""

import contextlib
import logging
import multiprocessing
import os
import resource
import signal
import threading
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import CancelledError
from concurrent.futures.process import BrokenProcessPool
from contextlib import contextmanager
from typing import Any, TypeVar

from django.conf import settings
from django.db import connection
from django.http import HttpRequest
from pebble import ProcessExpired, ProcessFuture, ProcessPool

from api.heavy.answers import LOOK_S, Answers
from api.heavy.ends import Busy, GaveUp, TooLong

T = TypeVar("T")
LONGEST_S = 10.0
"""Of one answer, from when its turn has come."""

WAIT_S = 25.0
"""With the wait for its turn."""

GRACE_S = 0.5
"""So long an answer goes on for nobody: to end a process and have another takes as long, and who
comes back finds it kept."""

NICE = 5
"""After whoever drags, but not last of all: on a laptop the browser has the same two cores."""

WARM = "ready for long answers"

OF_ONE, OF_ALL = 4, 10
"""Long answers in line at once in one web process: of one member, and of all."""

PRELOADED = ["api.heavy.work", "scipy.sparse.linalg", "weasyprint"]
MEMORY_B = 3_000_000_000


def _begin() -> None:
    os.nice(NICE)
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_B, MEMORY_B))
    signal.signal(signal.SIGINT, signal.SIG_IGN)


class Bench:
    """The pool of one web process, and who is in line."""

    def __init__(self, processes: int) -> None:
        self._context = multiprocessing.get_context("forkserver")
        self._context.set_forkserver_preload(PRELOADED)
        self._processes = processes
        self._lock = threading.Lock()
        self._pool = self._made()
        self._line: Counter[object] = Counter()

    def _made(self) -> ProcessPool:
        return ProcessPool(max_workers=self._processes, context=self._context, initializer=_begin)

    def _scheduled(self, work: Callable[..., T], args: tuple[Any, ...]) -> ProcessFuture:
        """In line; a pool that lost its process from outside while it rested is made anew."""
        with self._lock:
            if not self._pool.active:
                self._pool.stop()
                self._pool = self._made()
            return self._pool.schedule(work, args=args, timeout=LONGEST_S)

    @contextmanager
    def seat(self, who: object) -> Iterator[None]:
        """A place in the line; Busy when this member, or the line, has no more."""
        with self._lock:
            if self._line[who] >= OF_ONE or self._line.total() >= OF_ALL:
                raise Busy
            self._line[who] += 1
        try:
            yield
        finally:
            with self._lock:
                self._line[who] -= 1
                self._line += Counter()  # those with none are forgotten

    def run(self, gone: Callable[[], bool], work: Callable[..., T], args: tuple[Any, ...]) -> T:
        """The answer; raises what the work raised, TooLong or GaveUp."""
        future = self._scheduled(work, args)
        waited, alone = 0.0, 0.0
        try:
            while True:
                try:
                    found: T = future.result(timeout=LOOK_S)
                    return found
                except TimeoutError as late:
                    if future.done():
                        raise TooLong from late
                waited += LOOK_S
                if gone():
                    alone += LOOK_S
                    if alone > GRACE_S or not future.running():
                        raise GaveUp
                if waited > WAIT_S:
                    raise TooLong
        except (ProcessExpired, BrokenProcessPool, MemoryError, CancelledError) as ended:
            raise TooLong from ended
        finally:
            future.cancel()

    def close(self) -> None:
        """End its processes."""
        self._pool.stop()
        self._pool.join()


_answers = Answers(WAIT_S)
_bench: Bench | None = None
_making = threading.Lock()


def bench() -> Bench:
    """The pool of this process, made when it is first needed."""
    global _bench
    with _making:
        if _bench is None:
            _bench = Bench(settings.HEAVY_PROCESSES)
        return _bench


def warm() -> None:
    """Have a process ready before anybody waits for one, and say so in the log."""
    if settings.HEAVY_PROCESSES:
        with contextlib.suppress(Exception):
            bench().run(lambda: False, os.getpid, ())
            logging.getLogger("ringside").info(WARM)


def heavy(request: HttpRequest, work: Callable[..., T], *args: Any) -> T:
    """What `work` answers for these arguments, worked out apart.

    Raises
    ------
    Busy, TooLong, GaveUp
        Or whatever the work itself raises.
    """
    who = request.user.pk
    if not settings.HEAVY_PROCESSES:
        return work(*args)
    gone = request.META.get("waitress.client_disconnected", lambda: False)
    with bench().seat(who):
        connection.close()  # to the pool: nothing is asked of the database meanwhile
        found: T = _answers.of(gone, bench().run, work, args)
        return found
