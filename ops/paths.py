"""Where things are. RINGSIDE_HOME moves the state folder; everything else hangs on the project."""

import hashlib
import os
import secrets
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
HOME = Path(os.environ.get("RINGSIDE_HOME", ROOT / ".ringside")).resolve()
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
DEFAULT_PORT = 8321
DEMO_PASSWORD = (ROOT / "demo" / "password.txt").read_text().strip()
"""Published with the program, so it lets nobody in from another machine."""


def fingerprint(*paths: Path) -> str:
    """A digest of files and of all files below folders, by name and content."""
    found = hashlib.sha256()
    for path in paths:
        files = (
            sorted(p for p in path.rglob("*") if p.is_file() and p.suffix != ".pyc")
            if path.is_dir()
            else [path]
        )
        for file in files:
            found.update(str(file.relative_to(ROOT)).encode() + b"\0" + file.read_bytes() + b"\0")
    return found.hexdigest()


def stamp(folder: Path) -> str:
    """What a folder was last made from; empty when it was not. It goes when the folder goes."""
    file = folder / ".made-from"
    return file.read_text() if file.is_file() else ""


def set_stamp(folder: Path, value: str) -> None:
    """Remember what a folder was made from; whole or not at all."""
    fresh = folder / f".made-from.{os.getpid()}"
    fresh.write_text(value)
    fresh.replace(folder / ".made-from")


def secret(name: str) -> str:
    """A secret of this installation, made once and readable by its owner only."""
    HOME.mkdir(parents=True, exist_ok=True)
    file = HOME / name
    if not file.is_file() or not file.read_text().strip():
        # Written whole beside it and put in its place at once: a crash leaves all or nothing.
        fresh = HOME / f"{name}.{os.getpid()}"
        handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
        with os.fdopen(handle, "w") as out:
            out.write(secrets.token_urlsafe(48))
            out.flush()
            os.fsync(out.fileno())
        fresh.replace(file)
    return file.read_text().strip()
