"""Installing what is missing: system packages, the Python environment, the web's packages."""

import glob
import importlib.util
import os
import shutil
import sys
from pathlib import Path

from ops.paths import PYTHON, ROOT, VENV, WEB, fingerprint, set_stamp, stamp
from ops.say import StepFailed, run, step

PDF_LIBRARIES = ["libpango-1.0-0", "libpangoft2-1.0-0", "libharfbuzz-subset0", "fontconfig"]
FONTS = ["fonts-liberation", "fonts-dejavu-core"]
RECORDINGS = ["sonic-pi-samples"]
BROWSERS = ["chromium", "chromium-headless-shell"]
"""What people have, for the bench; and the same without a window's trimmings, for tests: to open
and close a page takes it half as long."""
ONLINE = "check that this machine reaches its package registries, then run the command again"


def postgres_bin() -> Path | None:
    """The folder of the PostgreSQL programs, newest first; Debian keeps them off the PATH."""
    found = sorted(
        glob.glob("/usr/lib/postgresql/*/bin/initdb"), key=lambda p: int(p.split("/")[4])
    )
    if found:
        return Path(found[-1]).parent
    here = shutil.which("initdb")
    return Path(here).resolve().parent if here else None


def _missing(packages: list[str]) -> list[str]:
    if shutil.which("dpkg-query") is None:
        return []
    gone = []
    for name in packages:
        try:
            said = run(["dpkg-query", "-W", "-f=${Status}", name], try_this="")
        except StepFailed:
            said = ""
        if "install ok installed" not in said:
            gone.append(name)
    return gone


def system_packages(browser: bool, recordings: bool = False) -> None:
    """PostgreSQL, the libraries PDFs need and, for tests, the browser and recorded drums."""
    wanted = [*PDF_LIBRARIES, *FONTS, *(RECORDINGS if recordings else [])]
    if postgres_bin() is None:
        wanted.append("postgresql")
    if not PYTHON.exists() and importlib.util.find_spec("ensurepip") is None:
        wanted.append("python3-venv")  # Debian keeps it in a package of its own
    if browser:
        wanted.extend(BROWSERS)
    missing = _missing(wanted)
    if not missing:
        return
    by_hand = f"apt-get install {' '.join(missing)}  (as root), then run the command again"
    with step(f"installing {', '.join(missing)}"):
        if shutil.which("apt-get") is None:
            raise StepFailed("this is not a Debian machine", by_hand.replace("apt-get ", ""))
        first: list[str] = [] if os.geteuid() == 0 else ["sudo", "-n"]
        env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
        apt = [*first, "apt-get", "-o", "DPkg::Lock::Timeout=120"]
        if not _runs([*first, "dpkg", "--audit"]):
            run([*first, "dpkg", "--configure", "-a"], try_this=by_hand, env=env)
        run([*apt, "update", "-q"], try_this=by_hand, env=env)
        run([*apt, "install", "-y", "-q", *missing], try_this=by_hand, env=env)


def _python() -> str:
    if sys.version_info[:2] == (3, 11):
        return sys.executable
    other = shutil.which("python3.11")
    if other is None:
        raise StepFailed(
            f"Python 3.11 is needed, this is {sys.version.split()[0]}", "apt-get install python3.11"
        )
    return other


def _runs(command: list[str | Path]) -> bool:
    try:
        run(command, try_this="")
    except StepFailed:
        return False
    return True


def _usable() -> bool:
    """Whether the environment was made to its end: one cut off half way has no installer."""
    if stamp(VENV):
        return os.access(PYTHON, os.X_OK)
    return PYTHON.exists() and _runs([PYTHON, "-m", "pip", "--version"])


def python_packages(dev: bool) -> None:
    """The virtual environment, from pins with hashes."""
    lock = ROOT / ("requirements-dev.lock" if dev else "requirements.lock")
    want = fingerprint(lock)
    if not _usable():
        with step("making the Python environment"):
            shutil.rmtree(VENV, ignore_errors=True)
            run([_python(), "-m", "venv", VENV], try_this="apt-get install python3-venv")
    if stamp(VENV) in (want, fingerprint(ROOT / "requirements-dev.lock")):
        return
    with step("installing Python packages"):
        env = {**os.environ, "UV_PYTHON_DOWNLOADS": "never", "VIRTUAL_ENV": str(VENV)}
        uv = VENV / "bin" / "uv"
        if not _runs([uv, "--version"]):
            pins = ["--force-reinstall", "--require-hashes", "-r", ROOT / "requirements-uv.lock"]
            run([PYTHON, "-m", "pip", "install", "-q", *pins], try_this=ONLINE)
        sync = [uv, "pip", "sync", "-q", "--require-hashes", lock]
        try:
            run(sync, try_this="", env=env)
        except StepFailed:
            # A download that broke off, or an installer that crashed: what has come is kept.
            run(sync, try_this=ONLINE, env=env)
        set_stamp(VENV, want)


def web_packages() -> None:
    """The web's packages, from its lock file."""
    want = fingerprint(WEB / "package-lock.json")
    if stamp(WEB / "node_modules") == want:
        return
    with step("installing web packages"):
        command = ["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"]
        try:
            run(command, cwd=WEB, try_this="")
        except StepFailed:
            # What an install that was cut off left half done can be in the way.
            shutil.rmtree(WEB / "node_modules", ignore_errors=True)
            run(command, cwd=WEB, try_this="install Node 20 with npm, or " + ONLINE)
        set_stamp(WEB / "node_modules", want)


def web_build() -> None:
    """The production build of the screens, made anew when a source changed."""
    names = ("src", "public", "index.html", "vite.config.ts", "package-lock.json")
    sources = [WEB / n for n in names if (WEB / n).exists()]
    want = fingerprint(*sources)
    if stamp(WEB / "dist") == want:
        return
    web_packages()
    with step("building the screens"):
        run(
            ["npm", "run", "-s", "build"],
            cwd=WEB,
            try_this="read the fault above; it is in web/src",
        )
        # Packed once here; the server hands out the packed files as they are.
        run(
            [PYTHON, "-m", "whitenoise.compress", "--quiet", "--no-brotli", WEB / "dist"],
            try_this="check that there is room on the disk",
        )
        # What was written while it was built may not be in it: the next start sees to that.
        if fingerprint(*sources) == want:
            set_stamp(WEB / "dist", want)
