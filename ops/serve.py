"""Starting and stopping what `ops.watch` keeps running behind the command."""

import http.client
import os
import signal
import socket
import subprocess
import time
from pathlib import Path

from ops import paths, processes
from ops.paths import PYTHON, ROOT
from ops.say import StepFailed

READY_S = 60.0


def watch_command(port: int, *, database: bool = False, web: int = 2) -> list[str]:
    """The watcher with its web processes and worker."""
    command = [str(PYTHON), "-m", "ops.watch", "--port", str(port), "--web", str(web)]
    return [*command, "--database"] if database else command


def environment(env: dict[str, str]) -> dict[str, str]:
    """What the watcher and its children need beside the database's settings."""
    path = os.pathsep.join(str(ROOT / p) for p in ("core", "server", "."))
    home = {"RINGSIDE_HOME": str(paths.HOME), "PYTHONPATH": path, "PYTHONUNBUFFERED": "1"}
    return {**os.environ, **env, **home, **processes.mark()}


def taken(port: int) -> bool:
    """Whether something listens there."""
    with socket.socket() as s:
        s.settimeout(2)
        return s.connect_ex(("127.0.0.1", port)) == 0


def answers(port: int) -> bool:
    """Whether our server and its database answer there, whatever names it is served under."""
    link = http.client.HTTPConnection("127.0.0.1", port, timeout=5)
    try:
        link.request("GET", "/healthz")
        return link.getresponse().status == 200
    except (OSError, http.client.HTTPException):
        return False
    finally:
        link.close()


def wait_for(port: int, process: subprocess.Popen[bytes], log: Path) -> None:
    """Until it is served."""
    deadline = time.monotonic() + READY_S
    while time.monotonic() < deadline:
        if process.poll() is not None:
            raise StepFailed(f"the server ended with {process.returncode}", f"read {log}")
        if answers(port):
            return
        time.sleep(0.1)
    raise StepFailed(f"the server does not answer after {READY_S:.0f} s", f"read {log}")


def start(port: int, env: dict[str, str]) -> None:
    """Start server and worker, ending what of ours still runs, also after a kill."""
    stop()
    if taken(port):
        raise StepFailed(
            f"port {port} is taken by another program",
            f"./ringside up --port {port + 1}, or set RINGSIDE_PORT",
        )
    paths.HOME.mkdir(parents=True, exist_ok=True)
    process = subprocess.Popen(
        watch_command(port, database=True), env=environment(env), cwd=ROOT,
        stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        start_new_session=True,
    )  # fmt: skip
    wait_for(port, process, paths.HOME / "log")


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
