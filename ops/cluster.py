"""A private PostgreSQL cluster: its own folder, its own free port, loopback only, a password.

The server refuses to run as root. There it runs as the user postgres, in the state folder
if that user can reach it, else in a folder of /var/tmp named after the project.
"""

import hashlib
import os
import pwd
import shutil
import socket
import subprocess
import tempfile
import time
from pathlib import Path

from ops import paths
from ops.install import postgres_bin
from ops.paths import ROOT, secret
from ops.processes import MARK
from ops.say import StepFailed, run

START_S = 120.0
"""Seconds: long enough for a busy server to put itself right after a crash."""

LOG_BYTES = 8_000_000
FAST = "-c fsync=off -c synchronous_commit=off -c full_page_writes=off"


def free_port() -> int:
    """A port nothing listens on."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


class Cluster:
    """One cluster in one folder."""

    def __init__(self, folder: Path, *, fast: bool = False) -> None:
        self.as_root = os.geteuid() == 0
        self.fast = fast
        found = postgres_bin()
        if found is None:
            raise StepFailed("PostgreSQL is not installed", "apt-get install postgresql")
        self.bin = found
        self.folder = self._reachable(folder)
        self.data, self.log = self.folder / "data", self.folder / "log"

    def _as_server(self, *args: str | Path) -> list[str]:
        first = ["runuser", "-u", "postgres", "--"] if self.as_root else []
        return [*first, *(str(a) for a in args)]

    def _reachable(self, folder: Path) -> Path:
        folder.mkdir(parents=True, exist_ok=True)
        if not self.as_root:
            return folder
        seen = subprocess.run(self._as_server("test", "-x", folder), cwd="/", check=False)
        if seen.returncode == 0:
            return folder
        name = hashlib.sha256(f"{ROOT}:{folder}".encode()).hexdigest()[:12]
        other = Path("/var/tmp") / f"ringside-{name}"
        other.mkdir(mode=0o755, exist_ok=True)
        return other

    @property
    def port(self) -> int:
        """The port it was last known to answer on; 0 when none is known."""
        try:
            return int((self.folder / "port").read_text())
        except (OSError, ValueError):
            return 0

    def _keep_port(self, port: int) -> None:
        fresh = self.folder / f"port.{os.getpid()}"
        fresh.write_text(str(port))
        fresh.replace(self.folder / "port")

    @property
    def password(self) -> str:
        """The password of its one user."""
        return secret("db-password")

    def _own(self, path: Path) -> None:
        if self.as_root:
            who = pwd.getpwnam("postgres")
            os.chown(path, who.pw_uid, who.pw_gid)

    def make(self) -> None:
        """Make the cluster if it is not there: beside its place first, so that it is whole."""
        if (self.data / "PG_VERSION").is_file():
            return
        fresh = self.folder / "data.new"
        shutil.rmtree(fresh, ignore_errors=True)
        fresh.mkdir(mode=0o700)
        self._own(fresh)
        self._own(self.folder)
        with tempfile.NamedTemporaryFile("w", suffix=".pw") as pw:
            pw.write(self.password)
            pw.flush()
            self._own(Path(pw.name))
            run(
                self._as_server(
                    self.bin / "initdb", "-D", fresh, "-A", "scram-sha-256",
                    f"--pwfile={pw.name}", "-U", "ringside", "-E", "UTF8",
                    "--locale=C.UTF-8", *(["--no-sync"] if self.fast else []),
                ),
                cwd=Path("/"), try_this=f"look at {self.folder}; is its disk full?",
            )  # fmt: skip
        fresh.rename(self.data)

    def running(self) -> int:
        """The port its server was told to listen on, while that server lives; else 0.

        A file left behind by a server that was killed says nothing: the process must be there
        and be PostgreSQL in this very folder.
        """
        try:
            lines = (self.data / "postmaster.pid").read_text().split("\n")
            said = Path(f"/proc/{int(lines[0])}/cmdline").read_bytes()
            port = int(lines[3]) if len(lines) > 3 and lines[3].strip() else -1
        except (OSError, ValueError, IndexError):
            return 0
        return port if str(self.data).encode() in said else 0

    def ready(self) -> bool:
        """Whether it answers."""
        port = self.running()
        if port <= 0:
            return False
        args = [self.bin / "pg_isready", "-q", "-h", "127.0.0.1", "-p", str(port)]
        return subprocess.run([str(a) for a in args], check=False).returncode == 0

    def start(self, *, keep_port: bool = False) -> None:
        """Start it on its port, or (unless that must be kept) on a free one if that is taken.

        A server that is still putting itself right after a crash is waited for. The port is
        written down only when the server answers on it.
        """
        self.make()
        deadline = time.monotonic() + START_S
        last = "it does not answer"
        while time.monotonic() < deadline:
            if self.ready():
                self._keep_port(self.running())
                return
            if self.running():
                time.sleep(0.1)
                continue
            try:
                self._launch(self._free_or_known(keep_port))
            except StepFailed as fault:
                # Its processes of before the crash may not all be gone yet.
                last = str(fault)
                time.sleep(0.5)
        raise StepFailed(last, f"read {self.log}. Everything stored is still there")

    def _free_or_known(self, keep: bool) -> int:
        port = self.port or free_port()
        with socket.socket() as s:
            there = s.connect_ex(("127.0.0.1", port)) == 0
        if there and keep:
            raise StepFailed(f"port {port} is taken by another program", "end that program")
        return free_port() if there else port

    def _turn_log(self) -> None:
        """A log that has grown is put aside; the one before it goes."""
        if self.log.is_file() and self.log.stat().st_size > LOG_BYTES:
            self.log.replace(self.folder / "log.1")

    def _launch(self, port: int) -> None:
        self._turn_log()
        options = f"-p {port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''"
        options += f" {FAST}" if self.fast else ""
        wait = ["-w", "-t", str(int(START_S))]
        args = ["-D", self.data, "-l", self.log, *wait, "-o", options, "start"]
        env = {k: v for k, v in os.environ.items() if k != MARK}
        command = self._as_server(self.bin / "pg_ctl", *args)
        run(command, cwd=Path("/"), try_this=f"read {self.log}", env=env)

    def stop(self) -> None:
        """Stop it if it runs."""
        if not self.running():
            return
        args = self._as_server(self.bin / "pg_ctl", "-D", self.data, "-m", "fast", "-w", "stop")
        subprocess.run(args, cwd="/", check=False, capture_output=True)

    def remove(self) -> None:
        """Stop it and take its folder away."""
        self.stop()
        shutil.rmtree(self.folder, ignore_errors=True)

    def createdb(self, name: str) -> None:
        """Make a database if it is not there."""
        env = {**os.environ, "PGPASSWORD": self.password}
        base = ["-h", "127.0.0.1", "-p", str(self.port), "-U", "ringside"]
        asked = f"select 1 from pg_database where datname='{name}'"
        have = run(
            [self.bin / "psql", *base, "-d", "postgres", "-Atc", asked], env=env,
            try_this=f"read {self.log}",
        )  # fmt: skip
        if have.strip() != "1":
            run([self.bin / "createdb", *base, name], env=env, try_this=f"read {self.log}")

    def environment(self, name: str) -> dict[str, str]:
        """Variables for the server's settings."""
        return {
            "RINGSIDE_DB_PORT": str(self.port),
            "RINGSIDE_DB_NAME": name,
            "RINGSIDE_DB_PASSWORD": self.password,
            "RINGSIDE_SECRET_KEY": secret("secret-key"),
            "RINGSIDE_FILES": str(paths.HOME / "files"),
            "OPENBLAS_NUM_THREADS": "1",
        }
