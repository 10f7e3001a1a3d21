"""Starting and stopping what `ops.watch` keeps running behind the command."""

import http.client
import os
import signal
import socket
import ssl
import subprocess
import time
from pathlib import Path

from ops import paths, processes
from ops.lan import Door
from ops.paths import PYTHON, ROOT
from ops.say import StepFailed

READY_S = 60.0


def watch_command(
    port: int, *, database: bool = False, web: int = 2, door: Door | None = None
) -> list[str]:
    """The watcher with its web processes and worker, and the door to the studio's network."""
    command = [str(PYTHON), "-m", "ops.watch", "--port", str(port), "--web", str(web)]
    lan = ["--lan", door.line()] if door else []
    return [*command, *(["--database"] if database else []), *lan]


def environment(env: dict[str, str]) -> dict[str, str]:
    """What the watcher and its children need beside the database's settings."""
    path = os.pathsep.join(str(ROOT / p) for p in ("core", "server", "."))
    home = {"RINGSIDE_HOME": str(paths.HOME), "PYTHONPATH": path, "PYTHONUNBUFFERED": "1"}
    return {**os.environ, **env, **home, **processes.mark()}


def taken(port: int, address: str = "127.0.0.1") -> bool:
    """Whether something listens there."""
    with socket.socket() as s:
        s.settimeout(2)
        return s.connect_ex((address, port)) == 0


def answers(port: int) -> bool:
    """Whether our server and its database answer there, whatever names it is served under."""
    return _healthy(http.client.HTTPConnection("127.0.0.1", port, timeout=5))


def answers_network(door: Door) -> bool:
    """Whether it answers at every address of the studio's network, under its own certificate."""
    return all(
        _healthy(
            http.client.HTTPSConnection(
                a, door.port, timeout=5, context=ssl.create_default_context(cafile=door.cert)
            )
        )
        for a in door.addresses
    )


def _healthy(link: http.client.HTTPConnection) -> bool:
    try:
        link.request("GET", "/healthz")
        return link.getresponse().status == 200
    except (OSError, http.client.HTTPException):
        return False
    finally:
        link.close()


def wait_for(
    port: int, process: subprocess.Popen[bytes], log: Path, door: Door | None = None
) -> None:
    """Until it is served."""
    deadline = time.monotonic() + READY_S
    while time.monotonic() < deadline:
        if process.poll() is not None:
            raise StepFailed(f"the server ended with {process.returncode}", f"read {log}")
        if answers(port) and (door is None or answers_network(door)):
            return
        time.sleep(0.1)
    raise StepFailed(f"the server does not answer after {READY_S:.0f} s", f"read {log}")


def start(port: int, env: dict[str, str], door: Door | None = None) -> None:
    """Start server and worker, ending what of ours still runs, also after a kill."""
    stop()
    listened = [(port, "127.0.0.1"), *((door.port, a) for a in (door.addresses if door else []))]
    for one, address in listened:
        if taken(one, address):
            raise StepFailed(
                f"port {one} is taken by another program",
                f"./ringside up --port {port + (2 if door else 1)}, or set RINGSIDE_PORT",
            )
    paths.HOME.mkdir(parents=True, exist_ok=True)
    more = door.environment() if door else {}
    process = subprocess.Popen(
        watch_command(port, database=True, door=door), env=environment({**env, **more}), cwd=ROOT,
        stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        start_new_session=True,
    )  # fmt: skip
    wait_for(port, process, paths.HOME / "log", door)


def stop() -> bool:
    """Stop what of ours runs; True when there was something."""
    earlier = [_end_earlier(paths.HOME / name) for name in ("worker.pid", "web.pid")]
    return processes.end_ours() > 0 or any(earlier)


def _end_earlier(kept: Path) -> bool:
    """What a version before this one left running, by the number it kept."""
    try:
        pid = int(kept.read_text())
        said = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        kept.unlink(missing_ok=True)
        return False
    kept.unlink(missing_ok=True)
    if str(ROOT).encode() not in said or not (b"config.wsgi" in said or b"procrastinate" in said):
        return False
    os.kill(pid, signal.SIGTERM)
    for _ in range(100):
        if not Path(f"/proc/{pid}").exists():
            break
        time.sleep(0.05)
    return True
