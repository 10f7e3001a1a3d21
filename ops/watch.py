"""What stays behind `./ringside up`: web processes, a worker and the database, watched over.

The listening socket is opened here and handed down, so that a web process that dies is replaced
without a connection refused. What dies is started again, at most so often; then the watcher says
why and gives up. Children die with it, whatever ends it. What they say goes through here into
log files that are turned over when they grow, readable by their owner only.
"""

import argparse
import logging
import os
import selectors
import signal
import socket
import subprocess
import sys
import time
from collections import deque
from dataclasses import dataclass, field
from logging.handlers import RotatingFileHandler

from ops.lan import Door
from ops.paths import HOME, PYTHON, ROOT
from ops.processes import with_parent
from ops.say import StepFailed

MOST_DEATHS = 6
WITHIN_S = 60.0
LOG_BYTES, LOGS_KEPT = 4_000_000, 5
LOOK_S = 2.0
PATIENCE_S = 10.0


def web_command(fd: int) -> list[str]:
    """One web process on a socket that was opened for it."""
    return [str(PYTHON), "-m", "config.serve", "--fd", str(fd)]


def lan_command(fds: list[int], door: Door) -> list[str]:
    """The web process for the studio's network, on sockets that were opened for it."""
    sockets = [word for fd in fds for word in ("--fd", str(fd))]
    return [str(PYTHON), "-m", "config.lan", *sockets, "--cert", door.cert, "--key", door.key]


def worker_command() -> list[str]:
    """One worker for long work; more can be started on any machine that reaches the database."""
    return [
        str(PYTHON), str(ROOT / "server" / "manage.py"), "procrastinate", "worker",
        "--concurrency", "1", "--delete-jobs", "successful",
    ]  # fmt: skip


def opened(port: int, address: str = "127.0.0.1") -> socket.socket:
    """A listening socket, on loopback unless another address of this machine is named."""
    s = socket.socket()
    s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    s.bind((address, port))
    s.listen(256)
    return s


def kept_log(name: str) -> logging.Logger:
    """A log that is turned over when it grows; its files are their owner's only."""
    folder = HOME / "log"
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    log = logging.getLogger(name)
    log.propagate = False
    log.setLevel(logging.INFO)
    handler = RotatingFileHandler(folder / f"{name}.log", maxBytes=LOG_BYTES, backupCount=LOGS_KEPT)
    handler.setFormatter(logging.Formatter("%(asctime)s %(message)s"))
    log.handlers = [handler]
    return log


@dataclass
class Child:
    """One process that is kept running."""

    name: str
    command: list[str]
    fds: tuple[int, ...]
    log: logging.Logger
    process: subprocess.Popen[bytes] | None = None
    deaths: deque[float] = field(default_factory=lambda: deque(maxlen=MOST_DEATHS))
    rest: bytes = b""
    env: dict[str, str] = field(default_factory=dict)

    def start(self) -> None:
        """Start it; it dies with this process, whatever ends this process."""
        self.process = subprocess.Popen(
            self.command, cwd=ROOT, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT, pass_fds=self.fds, env={**os.environ, **self.env},
            preexec_fn=with_parent(signal.SIGKILL),
        )  # fmt: skip
        assert self.process.stdout is not None
        os.set_blocking(self.process.stdout.fileno(), False)

    def hear(self) -> None:
        """Write down what it said since."""
        assert self.process is not None
        assert self.process.stdout is not None
        said = self.process.stdout.read() or b""
        *lines, self.rest = (self.rest + said).split(b"\n")
        for line in lines:
            self.log.info(line.decode(errors="replace"))

    def died_too_often(self) -> bool:
        """Note a death; whether there were too many in too short a time."""
        now = time.monotonic()
        self.deaths.append(now)
        return len(self.deaths) == MOST_DEATHS and now - self.deaths[0] < WITHIN_S


class Watcher:
    """Keeps the children running until it is told to stop."""

    def __init__(self, children: list[Child], log: logging.Logger, database: bool) -> None:
        self.children, self.log, self.database = children, log, database
        self.selector = selectors.DefaultSelector()
        self.stopping = False
        self.looked = time.monotonic()

    def run(self) -> int:
        """Until stopped (0) or something died too often (1)."""
        for sign in (signal.SIGTERM, signal.SIGINT):
            signal.signal(sign, lambda *_: setattr(self, "stopping", True))
        for child in self.children:
            self._begin(child)
        code = 0
        while not self.stopping:
            self._listen()
            for child in self.children:
                died = child.process is not None and child.process.poll() is not None
                if died and not self._again(child):
                    self.stopping, code = True, 1
            self._look_at_database()
        self._end()
        return code

    def _begin(self, child: Child) -> None:
        child.start()
        assert child.process is not None
        assert child.process.stdout is not None
        self.selector.register(child.process.stdout, selectors.EVENT_READ, child)
        self.log.info("%s started, process %d", child.name, child.process.pid)

    def _listen(self) -> None:
        for key, _ in self.selector.select(timeout=0.25):
            child: Child = key.data
            child.hear()

    def _again(self, child: Child) -> bool:
        assert child.process is not None
        assert child.process.stdout is not None
        self.selector.unregister(child.process.stdout)
        child.hear()
        child.process.stdout.close()
        self.log.info("%s ended with %s", child.name, child.process.returncode)
        if self.waits_for_database():
            child.deaths.clear()  # not its own fault, and no reason to give up
        elif child.died_too_often():
            self.log.error(
                "%s ended %d times within %.0f s: giving up. Its own log says why; "
                "./ringside up starts everything again.", child.name, MOST_DEATHS, WITHIN_S,
            )  # fmt: skip
            return False
        if len(child.deaths) > 1:
            time.sleep(min(0.2 * 2 ** len(child.deaths), 3.0))
        self._begin(child)
        return True

    def waits_for_database(self) -> bool:
        """Whether the database is away, so that nothing else can be expected to live."""
        from ops.cluster import Cluster

        return self.database and not Cluster(HOME / "db").ready()

    def _look_at_database(self) -> None:
        if not self.database or time.monotonic() - self.looked < LOOK_S:
            return
        from ops.cluster import Cluster

        self.looked = time.monotonic()
        cluster = Cluster(HOME / "db")
        if cluster.running():
            return
        self.log.info("the database is not running; starting it on port %d", cluster.port)
        try:
            cluster.start(keep_port=True)
            self.log.info("the database runs again")
        except StepFailed as fault:
            self.log.error("the database did not start: %s; trying again", fault)

    def _end(self) -> None:
        living = [c.process for c in self.children if c.process and c.process.poll() is None]
        for process in living:
            process.terminate()
        deadline = time.monotonic() + PATIENCE_S
        for process in living:
            try:
                process.wait(max(deadline - time.monotonic(), 0.1))
            except subprocess.TimeoutExpired:
                process.kill()
                process.wait()
        self.log.info("stopped")


def main() -> int:
    """Open the socket, start everything, watch over it."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--web", type=int, default=2, help="one for each core")
    parser.add_argument("--database", action="store_true", help="watch over the database too")
    parser.add_argument("--lan", type=Door.read, help="the studio's network, as ops.lan tells it")
    args = parser.parse_args()
    os.umask(0o077)
    log = kept_log("watch")
    try:
        s = opened(args.port)
        lan = [opened(args.lan.port, a) for a in args.lan.addresses] if args.lan else []
    except OSError as fault:
        log.error("port %d: %s", args.port, fault.strerror)
        return 3
    web = kept_log("web")
    children = [
        Child(f"web {n + 1}", web_command(s.fileno()), (s.fileno(),), web) for n in range(args.web)
    ]
    if lan:
        fds = tuple(one.fileno() for one in lan)
        command, env = lan_command(list(fds), args.lan), args.lan.own_environment()
        children.append(Child("lan", command, fds, web, env=env))
    children.append(Child("worker", worker_command(), (), kept_log("worker")))
    return Watcher(children, log, args.database).run()


if __name__ == "__main__":
    sys.exit(main())
