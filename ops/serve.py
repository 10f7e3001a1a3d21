"""Serving with gunicorn on loopback, in the background, with a pid and a log."""

import os
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path

from ops.paths import HOME, PYTHON, ROOT
from ops.say import StepFailed

PID, LOG = HOME / "web.pid", HOME / "web.log"
WORKER_PID, WORKER_LOG = HOME / "worker.pid", HOME / "worker.log"


def gunicorn_command(port: int) -> list[str]:
    """Two workers of two threads: one for each core, and a slow answer holds up no other."""
    return [
        str(PYTHON), "-m", "gunicorn", "config.wsgi:application", "--chdir", str(ROOT / "server"),
        "--bind", f"127.0.0.1:{port}", "--workers", "2", "--threads", "2", "--worker-tmp-dir",
        "/dev/shm" if os.path.isdir("/dev/shm") else "/tmp", "--log-level", "warning",
        "--pythonpath", str(ROOT / "core"), "--no-control-socket",
    ]  # fmt: skip


def worker_command() -> list[str]:
    """One worker for long work; more can be started on any machine that reaches the database."""
    return [
        str(PYTHON), str(ROOT / "server" / "manage.py"), "procrastinate", "worker",
        "--concurrency", "1", "--delete-jobs", "successful",
    ]  # fmt: skip


def taken(port: int) -> bool:
    """Whether something listens there."""
    with socket.socket() as s:
        return s.connect_ex(("127.0.0.1", port)) == 0


def wait_for(port: int, process: subprocess.Popen[bytes], log: Path) -> None:
    """Until the page is served."""
    for _ in range(300):
        if process.poll() is not None:
            raise StepFailed(f"the server ended with {process.returncode}", f"read {log}")
        try:
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/", timeout=5) as page:
                if page.status == 200:
                    return
        except (urllib.error.URLError, ConnectionError, TimeoutError):
            pass
        time.sleep(0.1)
    raise StepFailed("the server does not answer", f"read {log}")


def start(port: int, env: dict[str, str]) -> None:
    """Start the server and a worker, stopping ours that already run."""
    stop()
    if taken(port):
        raise StepFailed(
            f"port {port} is taken by another program",
            f"./ringside up --port {port + 1}, or set RINGSIDE_PORT",
        )
    process = _behind(gunicorn_command(port), env, PID, LOG)
    _behind(worker_command(), env, WORKER_PID, WORKER_LOG)
    wait_for(port, process, LOG)


def _behind(
    command: list[str], env: dict[str, str], pid: Path, log: Path
) -> subprocess.Popen[bytes]:
    """Run a command in the background, its pid and what it says kept."""
    with log.open("ab") as out:
        process = subprocess.Popen(
            command, env={**os.environ, **env}, stdout=out, stderr=out,
            stdin=subprocess.DEVNULL, start_new_session=True, cwd=ROOT,
        )  # fmt: skip
    pid.write_text(str(process.pid))
    return process


MARKS = (b"config.wsgi", b"procrastinate")


def _ours(pid: int) -> bool:
    try:
        said = Path(f"/proc/{pid}/cmdline").read_bytes()
    except OSError:
        return False
    return any(mark in said for mark in MARKS)


def stop() -> bool:
    """Stop ours; True when the server ran."""
    _end(WORKER_PID)
    return _end(PID)


def _end(kept: Path) -> bool:
    if not kept.is_file():
        return False
    pid = int(kept.read_text() or 0)
    kept.unlink()
    if not pid or not _ours(pid):
        return False
    os.kill(pid, signal.SIGTERM)
    for _ in range(100):
        if not _ours(pid):
            return True
        time.sleep(0.05)
    os.killpg(pid, signal.SIGKILL)
    return True
