"""All of an installation in one file, and back again: the database, files, and its secret key.

A backup is a tar of `manifest.json`, `database.dump` (PostgreSQL's own custom format) and
`files/`. It is tried out before it counts: the dump is restored into a database of its own, and
the rows found there are what a restore must find again. A restore goes into a new database which
then takes the place of the old one; the old one is kept under another name.
"""

import hashlib
import io
import json
import os
import re
import shutil
import tarfile
import tempfile
import time
from pathlib import Path

from ops import paths
from ops.cluster import Cluster
from ops.say import StepFailed, run, step

FORMAT, VERSION = "ringside-backup", 1
KEPT_BY_ITSELF = 5
COUNTS = (
    "select coalesce(json_object_agg(t, n), '{}') from (select c.relname t,"
    " (xpath('/row/n/text()', query_to_xml(format('select count(*) n from %I', c.relname),"
    " false, true, '')))[1]::text::bigint n from pg_class c join pg_namespace s"
    " on s.oid = c.relnamespace where c.relkind = 'r' and s.nspname = 'public'"
    " and c.relname not like 'procrastinate%' and c.relname not in ('django_session',"
    " 'axes_accessattempt', 'axes_accesslog')) x"
)


def _psql(cluster: Cluster, database: str, *commands: str) -> str:
    """Commands one after the other; the answer of the last."""
    env = {**os.environ, "PGPASSWORD": cluster.password}
    base = ["-h", "127.0.0.1", "-p", str(cluster.port), "-U", "ringside", "-d", database]
    more = [part for c in commands for part in ("-c", c)]
    return run(
        [cluster.bin / "psql", *base, "-v", "ON_ERROR_STOP=1", "-qAt", *more], env=env,
        try_this=f"read {cluster.log}",
    ).strip()  # fmt: skip


def counts(cluster: Cluster, database: str) -> dict[str, int]:
    """Rows of every table that holds somebody's work."""
    found: dict[str, int] = json.loads(_psql(cluster, database, COUNTS))
    return found


def _tool(cluster: Cluster, name: str, *args: str | Path) -> None:
    env = {**os.environ, "PGPASSWORD": cluster.password}
    base = ["-h", "127.0.0.1", "-p", str(cluster.port), "-U", "ringside"]
    run(
        [cluster.bin / name, *base, *args],
        env=env,
        try_this=f"read {cluster.log}; is the disk full?",
    )


def _digest(path: Path) -> str:
    found = hashlib.sha256()
    with path.open("rb") as file:
        while block := file.read(1 << 20):
            found.update(block)
    return found.hexdigest()


def back_up(cluster: Cluster, database: str, to: Path) -> dict[str, int]:
    """Everything into one file, tried out; the file is there whole or not at all."""
    to.parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=to.parent, prefix=".backup-") as folder:
        dump = Path(folder) / "database.dump"
        _tool(cluster, "pg_dump", "-Fc", "--no-owner", "-f", dump, database)
        rows = _tried(cluster, dump)
        made = Path(folder) / "whole"
        files = paths.HOME / "files"
        manifest = {
            "format": FORMAT, "version": VERSION, "made_at": time.strftime("%Y-%m-%dT%H:%M:%S%z"),
            "dump_sha256": _digest(dump), "rows": rows,
        }  # fmt: skip
        with tarfile.open(made, "w") as tar:
            _add(tar, "manifest.json", json.dumps(manifest, indent=1).encode())
            _add(tar, "secret-key", paths.secret("secret-key").encode())
            tar.add(dump, "database.dump")
            if files.is_dir():
                tar.add(files, "files")
        made.chmod(0o600)
        with made.open("rb") as file:
            os.fsync(file.fileno())
        made.replace(to)
    return rows


def _add(tar: tarfile.TarFile, name: str, body: bytes) -> None:
    info = tarfile.TarInfo(name)
    info.size, info.mode = len(body), 0o600
    tar.addfile(info, io.BytesIO(body))


def _tried(cluster: Cluster, dump: Path) -> dict[str, int]:
    """The rows of a dump, counted in a database made of it for that."""
    trial = f"ringside_trial_{os.getpid()}"
    _psql(cluster, "postgres", f"drop database if exists {trial}", f"create database {trial}")
    try:
        _tool(cluster, "pg_restore", "--no-owner", "--exit-on-error", "-d", trial, dump)
        return counts(cluster, trial)
    finally:
        _psql(cluster, "postgres", f"drop database if exists {trial}")


def manifest_of(tar: tarfile.TarFile) -> dict[str, object]:
    """The manifest of a backup; StepFailed when it is none."""
    try:
        file = tar.extractfile("manifest.json")
        found = json.loads(file.read()) if file else {}
    except (KeyError, ValueError, OSError):
        found = {}
    if not isinstance(found, dict) or found.get("format") != FORMAT:
        raise StepFailed("this is no backup of Ringside", "give a file that ./ringside backup made")
    if found.get("version") != VERSION:
        raise StepFailed(
            f"the backup is of version {found.get('version')}, this reads {VERSION}",
            "use the Ringside that made it, or a newer one",
        )
    return found


def bring_back(cluster: Cluster, database: str, file: Path) -> tuple[dict[str, int], str]:
    """A backup in the place of what there is; what there was is kept under the name told."""
    with tempfile.TemporaryDirectory(dir=paths.HOME, prefix=".restore-") as name:
        folder = Path(name)
        try:
            with tarfile.open(file) as tar:
                manifest = manifest_of(tar)
                tar.extractall(folder, filter="data")
        except (tarfile.TarError, OSError) as fault:
            raise StepFailed(f"{file} cannot be read: {fault}", "give another backup") from None
        dump = folder / "database.dump"
        if not dump.is_file() or _digest(dump) != manifest["dump_sha256"]:
            raise StepFailed(f"{file} was changed or cut short", "give another backup")
        return _swap(cluster, database, folder, manifest["rows"])


def _swap(
    cluster: Cluster, database: str, folder: Path, rows: object
) -> tuple[dict[str, int], str]:
    fresh, stamp = f"ringside_new_{os.getpid()}", time.strftime("%Y%m%d_%H%M%S")
    kept = f"ringside_before_{stamp}"
    _psql(cluster, "postgres", f"drop database if exists {fresh}", f"create database {fresh}")
    _tool(
        cluster,
        "pg_restore",
        "--no-owner",
        "--exit-on-error",
        "-d",
        fresh,
        folder / "database.dump",
    )
    found = counts(cluster, fresh)
    if found != rows:
        _psql(cluster, "postgres", f"drop database if exists {fresh}")
        raise StepFailed("what was restored has not the rows it should", "give another backup")
    there = _psql(
        cluster, "postgres", f"select count(*) from pg_database where datname = '{database}'"
    )
    if there == "1":
        _psql(cluster, "postgres", f'alter database "{database}" rename to "{kept}"')
    _psql(cluster, "postgres", f'alter database "{fresh}" rename to "{database}"')
    files, old = paths.HOME / "files", paths.HOME / f"files-before-{stamp}"
    if files.is_dir():
        files.rename(old)
    if (folder / "files").is_dir():
        shutil.move(folder / "files", files)
    if (folder / "secret-key").is_file():
        key = paths.HOME / "secret-key"
        shutil.copyfile(folder / "secret-key", key)
        key.chmod(0o600)
    return found, kept if there == "1" else ""


def by_itself(cluster: Cluster, database: str) -> None:
    """A backup before anything is changed by a new version; the newest few are kept."""
    folder = paths.HOME / "backups"
    with step("backing up before the tables are changed"):
        back_up(cluster, database, folder / f"before-{time.strftime('%Y%m%d-%H%M%S')}.tar")
    mine = sorted(
        p for p in folder.glob("before-*.tar") if re.match(r"before-[\d-]+\.tar$", p.name)
    )
    for old in mine[:-KEPT_BY_ITSELF]:
        old.unlink()
