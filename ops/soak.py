"""`./ringside soak`: writers at work while processes are killed at random; then the count.

An installation of its own, far from the one in use. Each writer saves its own layout and writes
log rows under keys, sending again whatever was not answered, as the browser does. Killed are web
processes, the worker, the database and the watcher itself; when the watcher is killed the next
`up` is played. In the end every acknowledged write must be there, once.
"""

import argparse
import http.client
import json
import os
import random
import shutil
import signal
import sys
import threading
import time
import uuid
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from ops import asking, paths, processes, serve
from ops.cluster import Cluster, free_port
from ops.commands import prepare_database
from ops.say import StepFailed

MOST_READINGS = 1900
"""Of one layout; the server takes a few more."""


class Away(Exception):
    """No answer, or none that says whether it was done."""


@dataclass
class Writer:
    """One person at work on a layout of their own."""

    port: int
    name: str
    stop: threading.Event
    acked: list[str] = field(default_factory=list)
    logged: list[str] = field(default_factory=list)
    read: list[str] = field(default_factory=list)
    struck: list[str] = field(default_factory=list)
    again: int = 0
    faults: list[str] = field(default_factory=list)
    longest_s: float = 0.0
    cookies: dict[str, str] = field(default_factory=dict)

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """One request; Away when it is not known whether it was done."""
        link = http.client.HTTPConnection("127.0.0.1", self.port, timeout=10)
        try:
            head = asking.headers(self.cookies)
            link.request(method, path, None if body is None else json.dumps(body), head)
            answer = link.getresponse()
            text = answer.read()
        except (OSError, http.client.HTTPException) as fault:
            raise Away(str(fault)) from None
        finally:
            link.close()
        asking.hold(self.cookies, answer)
        if answer.status >= 500 or answer.status in (408, 429):
            raise Away(f"{answer.status}")
        if answer.status >= 400:
            raise RuntimeError(f"{method} {path}: {answer.status} {text[:200]!r}")
        return json.loads(text) if text.startswith((b"{", b"[")) else None

    def surely(self, method: str, path: str, body: Any = None) -> Any:
        """The same request until it is answered."""
        began = time.monotonic()
        while True:
            try:
                found = self.ask(method, path, body)
            except Away:
                self.again += 1
                time.sleep(0.2)
                continue
            self.longest_s = max(self.longest_s, time.monotonic() - began)
            return found

    def sign_up(self) -> tuple[int, int, Any]:
        """A studio of one's own; its layout, session and the document."""
        self.surely("GET", "/")
        who = {"username": self.name, "password": "long-enough-and-odd-7", "studio": "Soak"}
        self.surely("POST", "/api/account/sign-up", who)
        new = {"name": "Soak", "kit": "five-piece", "start": "square pair"}
        session = self.surely("POST", "/api/sessions", new)
        layout = session["layouts"][0]["id"]
        return layout, session["id"], self.surely("GET", f"/api/layouts/{layout}")

    def run(self) -> None:
        """Save and write down until told to stop."""
        try:
            layout, session, out = self.sign_up()
            doc, version, n = out["doc"], out["version"], 0
            while not self.stop.is_set():
                n += 1
                key = str(uuid.uuid4())
                doc["notes"] = f"{n}"
                body = {"version": version, "what": f"Save {n}", "doc": doc, "key": key}
                version = self.surely("PUT", f"/api/layouts/{layout}", body)["version"]
                self.acked.append(key)
                key = str(uuid.uuid4())
                lugs = {"drum": "snare", "lugs_hz": [200.0 + n % 90], "key": key}
                self.surely("POST", f"/api/sessions/{session}/lugs", lugs)
                self.logged.append(key)
                self.at_kit(layout, n)
        except Exception as fault:
            self.faults.append(f"{self.name}: {fault}")

    def at_kit(self, layout: int, n: int) -> None:
        """A reading at the kit; every fifth is struck out again."""
        path, key = f"/api/layouts/{layout}/at-kit", str(uuid.uuid4())
        if len(self.read) >= MOST_READINGS:
            return
        line = {
            "key": key,
            "what": "reading",
            "mic": "OL",
            "to": "snare",
            "metres": 1 + n % 90 / 99,
        }
        self.surely("POST", path, line)
        self.read.append(key)
        if n % 5 == 0:
            self.surely("POST", f"{path}/strike", {"key": key})
            self.struck.append(key)


def victims(cluster: Cluster) -> dict[str, list[int]]:
    """Processes that can be killed, by what they are."""
    found: dict[str, list[int]] = {"web": [], "worker": [], "watcher": [], "database": []}
    for pid in processes.ours():
        try:
            said = Path(f"/proc/{pid}/cmdline").read_bytes()
        except OSError:
            continue
        for mark, name in (
            (b"config.serve", "web"), (b"procrastinate", "worker"), (b"ops.watch", "watcher"),
        ):  # fmt: skip
            if mark in said:
                found[name].append(pid)
    if cluster.running():
        text = (cluster.data / "postmaster.pid").read_text()
        found["database"].append(int(text.split("\n")[0]))
    return found


def kill_one(cluster: Cluster, dice: random.Random) -> str:
    """Kill something with no warning; what it was."""
    there = {k: v for k, v in victims(cluster).items() if v}
    if not there:
        return ""
    kind = dice.choices(list(there), [{"watcher": 1, "database": 2}.get(k, 4) for k in there])[0]
    try:
        os.kill(dice.choice(there[kind]), signal.SIGKILL)
    except ProcessLookupError:
        return ""
    return kind


def upright(cluster: Cluster, port: int, env: dict[str, str]) -> float:
    """Wait until it answers; when the watcher is gone, what the next `up` does. Seconds."""
    began = time.monotonic()
    while not serve.answers(port):
        if not victims(cluster)["watcher"]:
            cluster.start()
            serve.start(port, {**env, "RINGSIDE_DB_PORT": str(cluster.port)})
        time.sleep(0.1)
        if time.monotonic() - began > 120:
            raise StepFailed("it did not come back within two minutes", "read its logs")
    return time.monotonic() - began


def checked(env: dict[str, str], writers: list[Writer]) -> tuple[int, int]:
    """Acknowledged writes that are missing, and those that are there twice."""
    import psycopg

    where = f"host=127.0.0.1 port={env['RINGSIDE_DB_PORT']} user=ringside"
    with psycopg.connect(
        f"{where} dbname={env['RINGSIDE_DB_NAME']}", password=env["RINGSIDE_DB_PASSWORD"]
    ) as link:
        saved = [
            str(k) for (k,) in link.execute("select key from plans_revision where key is not null")
        ]
        logs = [
            str(k) for (k,) in link.execute("select key from plans_luglog where key is not null")
        ]
        lines = {
            str(k): gone for k, gone in link.execute("select key, struck_at from plans_standlog")
        }
        (count,) = link.execute("select count(*) from plans_standlog").fetchone() or (0,)
    kept_s, kept_l = set(saved), set(logs)
    # Of each layout the newest five hundred states are kept; older ones went as they should.
    missing = sum(k not in kept_s for w in writers for k in w.acked[-400:])
    missing += sum(k not in kept_l for w in writers for k in w.logged)
    missing += sum(k not in lines for w in writers for k in w.read)
    missing += sum(lines.get(k) is None for w in writers for k in w.struck)
    # Beside those of the demo nothing that was not sent, and nothing struck out that was not.
    missing += sum(lines.get(k) is not None for w in writers for k in set(w.read) - set(w.struck))
    return missing, len(saved) - len(kept_s) + len(logs) - len(kept_l) + count - len(lines)


def soak(kills: int, writers: int, seed: int) -> int:
    """The whole of it, on an installation in `paths.HOME`."""
    cluster, port, dice = Cluster(paths.HOME / "db"), free_port(), random.Random(seed)
    env = prepare_database(cluster, "soak")
    serve.start(port, env)
    stop = threading.Event()
    people = [Writer(port, f"writer{n}", stop) for n in range(writers)]
    threads = [threading.Thread(target=p.run) for p in people]
    for t in threads:
        t.start()
    time.sleep(3)
    killed: dict[str, int] = {}
    away: list[float] = []
    for n in range(kills):
        time.sleep(dice.uniform(0.1, 1.5))
        kind = kill_one(cluster, dice)
        killed[kind] = killed.get(kind, 0) + 1
        away.append(upright(cluster, port, env))
        if n % 10 == 9:
            print(f"  {n + 1} kills, {sum(len(p.acked) for p in people)} saves", flush=True)
    stop.set()
    upright(cluster, port, env)
    for t in threads:
        t.join(60)
    missing, doubled = checked({**env, "RINGSIDE_DB_PORT": str(cluster.port)}, people)
    faults = [f for p in people for f in p.faults]
    told = ", ".join(f"{count} {kind or 'nothing'}" for kind, count in sorted(killed.items()))
    print(f"  killed: {told}")
    print(f"  acknowledged: {sum(len(p.acked) for p in people)} saves,"
          f" {sum(len(p.logged) for p in people)} log rows,"
          f" {sum(len(p.read) for p in people)} readings at the kit"
          f" ({sum(len(p.struck) for p in people)} struck out);"
          f" sent again {sum(p.again for p in people)} times")  # fmt: skip
    print(f"  back after at most {max(away):.1f} s; the longest write took"
          f" {max(p.longest_s for p in people):.1f} s")  # fmt: skip
    print(f"  missing: {missing}, doubled: {doubled}, refused: {len(faults)}")
    for f in faults:
        print(f"    {f}")
    return 1 if missing or doubled or faults else 0


def main() -> int:
    """Read the command line, soak, take everything away."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--kills", type=int, default=100)
    parser.add_argument("--writers", type=int, default=3)
    parser.add_argument("--seed", type=int, default=1)
    args = parser.parse_args()
    try:
        return soak(args.kills, args.writers, args.seed)
    finally:
        serve.stop()
        Cluster(paths.HOME / "db").remove()
        shutil.rmtree(paths.HOME, ignore_errors=True)


if __name__ == "__main__":
    sys.exit(main())
