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

from ops.install import postgres_bin
from ops.paths import ROOT, secret
from ops.say import StepFailed, run

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
        """The port it was last started on."""
        file = self.folder / "port"
        return int(file.read_text()) if file.is_file() else 0

    @property
    def password(self) -> str:
        """The password of its one user."""
        return secret("db-password")

    def _own(self, path: Path) -> None:
        if self.as_root:
            who = pwd.getpwnam("postgres")
            os.chown(path, who.pw_uid, who.pw_gid)

    def make(self) -> None:
        """Make the cluster if it is not there."""
        if (self.data / "PG_VERSION").is_file():
            return
        shutil.rmtree(self.data, ignore_errors=True)
        self.data.mkdir(mode=0o700)
        self._own(self.data)
        self._own(self.folder)
        with tempfile.NamedTemporaryFile("w", suffix=".pw") as pw:
            pw.write(self.password)
            pw.flush()
            self._own(Path(pw.name))
            run(
                self._as_server(
                    self.bin / "initdb", "-D", self.data, "-A", "scram-sha-256",
                    f"--pwfile={pw.name}", "-U", "ringside", "--no-sync", "-E", "UTF8",
                    "--locale=C.UTF-8",
                ),
                cwd=Path("/"), try_this=f"look at {self.folder}; ./ringside reset begins anew",
            )  # fmt: skip

    def ready(self) -> bool:
        """Whether it answers."""
        if not self.port:
            return False
        args = [self.bin / "pg_isready", "-q", "-h", "127.0.0.1", "-p", str(self.port)]
        if subprocess.run([str(a) for a in args], check=False).returncode != 0:
            return False
        pid = self.data / "postmaster.pid"  # another program's server on that port is not ours
        return pid.is_file() and pid.read_text().split("\n")[3:4] == [str(self.port)]

    def start(self) -> None:
        """Start it on its port, or on another free one if that is taken meanwhile."""
        self.make()
        if self.ready():
            return
        port = self.port or free_port()
        with socket.socket() as s:
            if s.connect_ex(("127.0.0.1", port)) == 0:
                port = free_port()
        (self.folder / "port").write_text(str(port))
        options = f"-p {port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''"
        options += f" {FAST}" if self.fast else ""
        args = ["-D", self.data, "-l", self.log, "-w", "-t", "60", "-o", options, "start"]
        run(
            self._as_server(self.bin / "pg_ctl", *args), cwd=Path("/"),
            try_this=f"read {self.log}; ./ringside reset begins anew",
        )  # fmt: skip
        for _ in range(100):
            if self.ready():
                return
            time.sleep(0.1)
        raise StepFailed("the database does not answer", f"read {self.log}")

    def stop(self) -> None:
        """Stop it if it runs."""
        if not (self.data / "postmaster.pid").is_file():
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
            "OPENBLAS_NUM_THREADS": "1",
        }
