"""The commands of ./ringside."""

import argparse
import os
import shutil
import subprocess
import sys
import time
from pathlib import Path

from ops import install, serve
from ops.backup import back_up, bring_back, by_itself
from ops.cluster import Cluster
from ops.lan import Door
from ops.lock import alone
from ops.paths import DEFAULT_PORT, DEMO_PASSWORD, HOME, PYTHON, ROOT, WEB, fingerprint
from ops.say import StepFailed, run, step
from ops.watch import worker_command

DATABASE = "ringside"


def manage(env: dict[str, str], *args: str) -> str:
    """Run one of Django's commands."""
    return run(
        [PYTHON, ROOT / "server" / "manage.py", *args], env={**os.environ, **env},
        try_this=f"read the lines above; the database's own log is in {HOME}",
    )  # fmt: skip


def prepare_database(cluster: Cluster, name: str) -> dict[str, str]:
    """Start the cluster, make and migrate a database, load the demo; returns its environment."""
    with step("starting the database"):
        cluster.start()
        cluster.createdb(name)
    env = cluster.environment(name)
    stamp = cluster.folder / f"tables-{name}"  # goes when the cluster goes
    want = fingerprint(*(ROOT / "server").glob("*/migrations"), ROOT / "demo")
    if stamp.is_file() and stamp.read_text() == want:
        return env
    pending = manage(env, "waiting_migrations").strip()
    if pending == "changes":
        by_itself(cluster, name)
    with step("bringing its tables up to date"):
        manage(env, "migrate", "--no-input", "-v", "0")
    with step("loading the demo, if it is not there"):
        manage(env, "load_demo", "--password", DEMO_PASSWORD)
        manage(env, "load_demo_take")
    stamp.write_text(want)
    return env


def up(args: argparse.Namespace) -> int:
    """Install what is missing, start everything, print the address."""
    began = time.monotonic()
    print("Ringside: starting")
    with alone():
        install.system_packages(browser=True)
        install.python_packages(dev=False)
        install.web_build()
        with step("finding the database's folder"):
            cluster = Cluster(HOME / "db")
        env = prepare_database(cluster, DATABASE)
        door = None
        if args.lan is not None:
            with step("finding this computer's addresses on its network"):
                door = _door(args.port + 1, args.lan)
        with step(f"serving on port {args.port}"):
            serve.start(args.port, env, door)
    print(f"Ready in {time.monotonic() - began:.1f} s")
    print(f"\n  http://127.0.0.1:{args.port}\n  sign in: demo / {DEMO_PASSWORD}\n")
    if door:
        _tell_of(door, args.port)
    print("Stop with ./ringside stop")
    return 0


def _door(port: int, asked: str) -> Door:
    """Addresses and certificate for the studio's network, found out in the Python environment."""
    line = run(
        [PYTHON, "-m", "ops.lan", "door", HOME / "lan", str(port), asked], cwd=ROOT,
        try_this="./ringside up, which serves this computer alone",
    )  # fmt: skip
    return Door.read(line)


def _tell_of(door: Door, port: int) -> None:
    """What is open now, to whom, and how to close it."""
    print("Open to the studio's network:\n")
    for url in door.urls:
        print(f"  {url}")
    print(run([PYTHON, "-m", "ops.lan", "code", door.urls[0]], cwd=ROOT, try_this="read above"))
    print(
        "Anybody on this network reaches the sign-in page there and can make an account with a\n"
        "studio of their own; what is in a studio is seen by its members only. The demo's people\n"
        "sign in from this computer alone, until they have a password of their own. What a phone\n"
        "sends and gets is encrypted. Do not do this on a network of strangers.\n"
        "A phone warns once, since nobody vouches for a certificate that was made here. Go on\n"
        "only if the SHA-256 fingerprint it shows is this one:\n"
    )
    half = len(door.fingerprint) // 2
    print(f"  {door.fingerprint[: half + 1]}\n  {door.fingerprint[half + 1 :]}")
    print(f"  (made anew: {door.renewed})\n" if door.renewed else "  (the one of last time)\n")
    print(
        f"Sign a phone in without typing: Open on a phone, in the menu of a layout.\n"
        f"Close it again with ./ringside up --port {port} (this computer alone)."
    )


def stop(_: argparse.Namespace) -> int:
    """Stop the server and the database; everything stays stored."""
    with alone():
        return _stop()


def _stop() -> int:
    with step("stopping the server"):
        serve.stop()
    if install.postgres_bin() is not None:
        with step("stopping the database"):
            Cluster(HOME / "db").stop()
    return 0


def reset(args: argparse.Namespace) -> int:
    """Forget everything stored."""
    words = "This deletes every session, layout and account of this installation."
    if not args.yes and not _agreed(words, "forget"):
        return 1
    with alone():
        _stop()
        with step("forgetting what was stored"):
            Cluster(HOME / "db").remove()
            (HOME / "db-password").unlink(missing_ok=True)
            shutil.rmtree(HOME / "files", ignore_errors=True)
    print("Done. ./ringside up begins anew with the demo.")
    return 0


def backup(args: argparse.Namespace) -> int:
    """All of this installation into one file, tried out before it counts."""
    to = Path(args.file).resolve()
    if to.exists() and not args.over:
        print(f"ringside: {to} is there already; give another name, or --over to replace it")
        return 1
    with alone():
        cluster = Cluster(HOME / "db")
        with step("starting the database"):
            cluster.start()
        with step("writing the backup and trying it out"):
            rows = back_up(cluster, DATABASE, to)
    print(f"Done: {to}, {sum(rows.values())} rows. It holds everything: keep it where you trust.")
    return 0


def restore(args: argparse.Namespace) -> int:
    """A backup in the place of what is stored here; what was here is kept aside."""
    file = Path(args.file).resolve()
    if not args.yes and not _agreed("This puts a backup in the place of what is stored here.",
                                    "restore"):  # fmt: skip
        return 1
    with alone():
        install.system_packages(browser=False)
        install.python_packages(dev=False)
        with step("stopping the server"):
            serve.stop()
        cluster = Cluster(HOME / "db")
        with step("starting the database"):
            cluster.start()
        with step("restoring"):
            rows, before = bring_back(cluster, DATABASE, file)
        (cluster.folder / f"tables-{DATABASE}").unlink(missing_ok=True)
    print(f"Done: {sum(rows.values())} rows.")
    if before:
        print(f"What was here is kept as the database {before}.")
    print("Start it with ./ringside up")
    return 0


def _agreed(words: str, word: str) -> bool:
    print(words)
    try:
        answer = input(f"Type '{word}' to go on: ")
    except EOFError:
        answer = ""
    if answer.strip() != word:
        print("Nothing was changed.")
        return False
    return True


def dev(args: argparse.Namespace) -> int:
    """Hot reload: Django's own server behind Vite's."""
    with alone():
        install.system_packages(browser=False)
        install.python_packages(dev=True)
        install.web_packages()
        env = prepare_database(Cluster(HOME / "db"), DATABASE)
    back = args.port + 1
    for port in (args.port, back):
        if serve.taken(port):
            print(f"ringside: port {port} is taken; try ./ringside dev --port {port + 10}")
            return 1
    origins = f"http://127.0.0.1:{args.port},http://localhost:{args.port}"
    env |= {"RINGSIDE_DEBUG": "1", "RINGSIDE_ORIGINS": origins}
    django = [PYTHON, ROOT / "server" / "manage.py", "runserver", str(back)]
    children = [
        subprocess.Popen([str(a) for a in command], env={**os.environ, **env})
        for command in (django, worker_command())
    ]
    try:
        vite = ["npx", "vite", "--port", str(args.port), "--strictPort", "--host", "127.0.0.1"]
        front = {**os.environ, "RINGSIDE_BACK": f"http://127.0.0.1:{back}"}
        print(f"\n  http://127.0.0.1:{args.port}  sign in: demo / {DEMO_PASSWORD}\n")
        return subprocess.call(vite, cwd=WEB, env=front)
    except KeyboardInterrupt:
        return 0
    finally:
        for child in children:
            child.terminate()
        for child in children:
            child.wait()


def analyse(args: argparse.Namespace) -> int:
    """The whole report of a layout file; needs no server and no database."""
    return _of_the_core("ringside", [args.file])


OF_THE_CORE = {
    "measure": ("measure", "Measure recorded test hits of a layout, no server needed."),
    "record": ("record", "A simulated take of a layout, set up right or wrong."),
}
"""Commands of the core's own, with arguments of their own."""


def _of_the_core(module: str, typed: list[str]) -> int:
    """Run a module of the core, alone."""
    sys.stdout.flush()
    hold, sys.stdout = sys.stdout, sys.stderr  # standard output is the report's alone
    with alone():
        install.python_packages(dev=False)
    sys.stdout = hold
    env = {**os.environ, "PYTHONPATH": str(ROOT / "core")}
    return subprocess.call([str(PYTHON), "-m", module, *typed], env=env)


def test(args: argparse.Namespace) -> int:
    """Every check and test, on a throwaway database."""
    from ops.testing import run_all

    return run_all(args.paths)


def bench(args: argparse.Namespace) -> int:
    """Figures against their goals."""
    from ops.testing import with_test_cluster

    def measure(env: dict[str, str]) -> int:
        more = [*args.parts, *(["--json"] if args.json else [])]
        return subprocess.call([str(PYTHON), "-m", "ops.bench", *more], cwd=ROOT, env=env)

    return with_test_cluster(measure, quiet=args.json)


def soak(args: argparse.Namespace) -> int:
    """Kill processes at random while people write, and count what is there in the end."""
    with alone():
        install.system_packages(browser=False)
        install.python_packages(dev=False)
        install.web_build()
    home = HOME / f"soak-{os.getpid()}"
    env = {**os.environ, "RINGSIDE_HOME": str(home), "PYTHONPATH": str(ROOT)}
    command = [str(PYTHON), "-m", "ops.soak", "--kills", str(args.kills), "--seed", str(args.seed)]
    return subprocess.call(command, cwd=ROOT, env=env)


def meter(args: argparse.Namespace) -> int:
    """A simulated distance meter that sends readings to the Tape step."""
    from ops.meter import Line, Simulated, run

    return run(Line(args.at, args.word), Simulated(args.seed, args.slips), args.every)


def house(_: argparse.Namespace) -> int:
    """How long, tangled, documented and tested the code is, against goals."""
    with alone():
        install.python_packages(dev=True)
        install.web_packages()
    return subprocess.call([str(PYTHON), "-m", "ops.house"], cwd=ROOT)


def lock(_: argparse.Namespace) -> int:
    """Write the Python lock files anew from the .in files."""
    uv = ROOT / ".venv" / "bin" / "uv"
    for name in ("requirements", "requirements-dev", "requirements-uv"):
        with step(f"resolving {name}"):
            run(
                [uv, "pip", "compile", "-q", f"{name}.in", "--python-version", "3.11",
                 "--generate-hashes", "--no-emit-index-url", "--no-emit-find-links", "-o",
                 f"{name}.lock", "--custom-compile-command", "./ringside lock"],
                cwd=ROOT, try_this=install.ONLINE,
            )  # fmt: skip
    return 0


def types(_: argparse.Namespace) -> int:
    """Write the web's client types anew from the server's interface, and the core's pages."""
    from ops.testing import write_pages, write_types

    with step("writing web/src/api/schema.d.ts"):
        write_types(WEB / "src" / "api" / "schema.d.ts", ROOT / "docs" / "formats" / "openapi.json")
    with step("writing the pages of docs"):
        write_pages(ROOT / "docs")
    return 0


def mutate(args: argparse.Namespace) -> int:
    """Change the core's meaning in small ways and say which changes no test sees."""
    install.python_packages(dev=True)
    asked = [str(args.count), str(args.seed), *args.modules]
    return subprocess.call([str(PYTHON), "-m", "ops.mutate", *asked], cwd=ROOT)


def _keep_compiled() -> None:
    """Python keeps what it has compiled, beside the data and never beside the code.

    Somebody who told it to write nothing wants no files among the sources. But every process that
    is started then compiles it all again: some twenty of a test run, and two for each start.
    """
    os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
    os.environ.setdefault("PYTHONPYCACHEPREFIX", str(HOME / "compiled"))


def main(argv: list[str]) -> int:
    """Read the command line and run one command."""
    _keep_compiled()
    parser = argparse.ArgumentParser(prog="ringside", description="Plan and check drum mics.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    port = int(os.environ.get("RINGSIDE_PORT", DEFAULT_PORT))
    for name, action in (("up", up), ("dev", dev)):
        one = commands.add_parser(name, help=action.__doc__)
        one.add_argument("--port", type=int, default=port, help="or set RINGSIDE_PORT")
        one.set_defaults(action=action)
    commands.choices["up"].add_argument(
        "--lan", nargs="?", const="", metavar="ADDRESS",
        help="open it to the studio's own network, over HTTPS on the next port",
    )  # fmt: skip
    for name, action in (("stop", stop), ("house", house), ("lock", lock), ("types", types)):
        commands.add_parser(name, help=action.__doc__).set_defaults(action=action)
    one = commands.add_parser("reset", help=reset.__doc__)
    one.add_argument("--yes", action="store_true", help="do not ask")
    one.set_defaults(action=reset)
    one = commands.add_parser("backup", help=backup.__doc__)
    one.add_argument("file")
    one.add_argument("--over", action="store_true", help="replace a file that is there")
    one.set_defaults(action=backup)
    one = commands.add_parser("restore", help=restore.__doc__)
    one.add_argument("file")
    one.add_argument("--yes", action="store_true", help="do not ask")
    one.set_defaults(action=restore)
    one = commands.add_parser("test", help=test.__doc__)
    one.add_argument("paths", nargs="*")
    one.set_defaults(action=test)
    one = commands.add_parser("bench", help=bench.__doc__)
    one.add_argument("parts", nargs="*", help="some of its parts; an unknown one names them all")
    one.add_argument("--json", action="store_true")
    one.set_defaults(action=bench)
    one = commands.add_parser("soak", help=soak.__doc__)
    one.add_argument("--kills", type=int, default=100)
    one.add_argument("--seed", type=int, default=1)
    one.set_defaults(action=soak)
    one = commands.add_parser("meter", help=meter.__doc__)
    one.add_argument("word", help="as Tape, Read, Use a distance meter shows it")
    one.add_argument("--at", default=f"http://127.0.0.1:{port}/api/meter", metavar="ADDRESS")
    one.add_argument("--seed", type=int, default=1, help="which kit stands there")
    one.add_argument("--slips", type=float, default=0.0, help="share of readings that are wrong")
    one.add_argument("--every", type=float, help="measure by itself, every so many seconds")
    one.set_defaults(action=meter)
    one = commands.add_parser("mutate", help=mutate.__doc__)
    one.add_argument("modules", nargs="*", help="parts of names, such as pairs/stereo; else all")
    one.add_argument("--count", type=int, default=150)
    one.add_argument("--seed", type=int, default=1)
    one.set_defaults(action=mutate)
    one = commands.add_parser("analyse", help=analyse.__doc__)
    one.add_argument("file")
    one.set_defaults(action=analyse)
    for name, (_, help_) in OF_THE_CORE.items():
        commands.add_parser(name, help=help_)
    passed = OF_THE_CORE.get(argv[0]) if argv else None
    args = None if passed else parser.parse_args(argv)
    try:
        return (
            _of_the_core(f"ringside.commands.{passed[0]}", argv[1:])
            if passed
            else int(args.action(args))
        )
    except StepFailed as fault:
        print(f"\nringside: {argv[0]}: failed\n  why: {fault}\n  try: {fault.try_this}")
        return 1
    except KeyboardInterrupt:
        print("\nringside: stopped by hand; nothing stored was lost")
        return 130
