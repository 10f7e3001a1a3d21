"""Long answers kept by their numbers: the same question is worked out once.

An answer follows from what is asked and nothing else, so whoever asks the same is told the same:
a step that is opened again, a second browser, an undo. Only what took its time is kept, packed as
it came from the other process, so many bytes in all; the least used is forgotten first. Who asks
what is being worked out already waits for that.
"""

import hashlib
import pickle
import threading
import time
from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from api.heavy.ends import GaveUp, TooLong

LEAST_S = 0.05
"""What took less is worked out again sooner than it is worth keeping."""

MOST_B = 32_000_000
LARGEST_B = 4_000_000
LOOK_S = 0.05

Gone = Callable[[], bool]
Args = tuple[Any, ...]


def packed(work: Callable[..., Any], args: Args) -> tuple[bytes, float]:
    """The answer as bytes, and the seconds it took; runs in the other process."""
    began = time.perf_counter()
    answer = work(*args)
    return pickle.dumps(answer, pickle.HIGHEST_PROTOCOL), time.perf_counter() - began


def _named(work: Callable[..., Any], args: Args) -> bytes:
    asked = pickle.dumps((work.__module__, work.__qualname__, args), pickle.HIGHEST_PROTOCOL)
    return hashlib.blake2b(asked, digest_size=20).digest()


class _Turn:
    """The one who works a question out, and how many wait for that."""

    def __init__(self) -> None:
        self.lock = threading.Lock()
        self.people = 0


class Answers:
    """The answers of one web process."""

    def __init__(self, longest_s: float) -> None:
        self._longest_s = longest_s
        self._kept: OrderedDict[bytes, bytes] = OrderedDict()
        self._bytes = 0
        self._turns: dict[bytes, _Turn] = {}
        self._lock = threading.Lock()

    def of(
        self, gone: Gone, run: Callable[..., tuple[bytes, float]], work: Callable[..., Any],
        args: Args,
    ) -> Any:  # fmt: skip
        """The answer of `work`, kept or else by `run`; raises what that raises, or GaveUp."""
        name = _named(work, args)
        with self._turn(name, gone):
            told = self._known(name)
            if told is None:
                told, seconds = run(gone, packed, (work, args))
                if seconds >= LEAST_S:
                    self._keep(name, told)
        return pickle.loads(told)  # of this program's own making

    def _known(self, name: bytes) -> bytes | None:
        with self._lock:
            if name in self._kept:
                self._kept.move_to_end(name)
            return self._kept.get(name)

    def _keep(self, name: bytes, told: bytes) -> None:
        if len(told) > LARGEST_B:
            return
        with self._lock:
            self._bytes += len(told) - len(self._kept.pop(name, b""))
            self._kept[name] = told
            while self._bytes > MOST_B:
                self._bytes -= len(self._kept.popitem(last=False)[1])

    @contextmanager
    def _turn(self, name: bytes, gone: Gone) -> Iterator[None]:
        with self._lock:
            turn = self._turns.setdefault(name, _Turn())
            turn.people += 1
        try:
            until = time.monotonic() + self._longest_s
            while not turn.lock.acquire(timeout=LOOK_S):
                if gone():
                    raise GaveUp
                if time.monotonic() > until:
                    raise TooLong
            try:
                yield
            finally:
                turn.lock.release()
        finally:
            with self._lock:
                turn.people -= 1
                if not turn.people:
                    del self._turns[name]
