"""Starting, stopping and crashing: whatever was in the way, the next `up` gets there."""

import json
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from ops import install, paths, processes, serve
from ops.cluster import Cluster, free_port
from ops.paths import ROOT
from ops.processes import MARK
from ops.say import StepFailed


@pytest.fixture
def home(tmp_path, monkeypatch):
    """An installation of the test's own: what really runs on this machine is left alone."""
    monkeypatch.setattr(paths, "HOME", tmp_path)
    return tmp_path


@pytest.fixture
def cluster():
    """A throwaway cluster where the server's user can reach it."""
    if install.postgres_bin() is None:
        pytest.fail("PostgreSQL is not installed; ./ringside test installs it")
    made = Cluster(paths.HOME / f"ops-{os.getpid()}", fast=True)
    yield made
    made.remove()


def idle(*words, home=None):
    """Some process, of an installation or of nobody."""
    env = {**os.environ, MARK: str(home)} if home else {**os.environ}
    if not home:
        env.pop(MARK, None)
    code = "import time; print(flush=True); time.sleep(60)"
    made = subprocess.Popen([sys.executable, "-c", code, *words], env=env, stdout=subprocess.PIPE)
    made.stdout.readline()  # its environment can be read from now on
    made.stdout.close()
    return made


def until(what, seconds=30.0):
    deadline = time.monotonic() + seconds
    while not what():
        assert time.monotonic() < deadline, "waited in vain"
        time.sleep(0.05)


# --- processes -----------------------------------------------------------------------------


def test_a_taken_port_is_refused_with_another_one_to_try(home):
    with socket.socket() as busy:
        busy.bind(("127.0.0.1", 0))
        busy.listen()
        port = busy.getsockname()[1]
        assert serve.taken(port)
        with pytest.raises(StepFailed, match=f"port {port} is taken") as caught:
            serve.start(port, {})
        assert f"--port {port + 1}" in caught.value.try_this
    assert not serve.taken(free_port())


def test_stop_ends_all_of_ours_and_no_stranger_whatever_the_pid_files_say(home):
    mine = [idle(home=home), idle("procrastinate", home=home)]
    strangers = [idle(), idle(home=home / "another"), idle("nobody of ours")]
    (home / "web.pid").write_text(str(strangers[2].pid))
    (home / "worker.pid").write_text("garbled \x00")
    assert sorted(processes.ours()) == sorted(p.pid for p in mine)
    assert serve.stop() is True
    assert [p.wait(5) for p in mine] == [-15, -15]
    assert [p.poll() for p in strangers] == [None, None, None]
    assert serve.stop() is False
    for p in strangers:
        p.kill()
        p.wait()


def test_what_does_not_listen_to_reason_is_killed(home):
    code = (
        "import signal, time; signal.signal(15, signal.SIG_IGN); print(flush=True); time.sleep(60)"
    )
    deaf = subprocess.Popen(
        [sys.executable, "-c", code], env={**os.environ, MARK: str(home)}, stdout=subprocess.PIPE
    )
    deaf.stdout.readline()
    deaf.stdout.close()
    assert processes.end_ours(0.3) == 1
    assert deaf.wait(5) == -9


# --- one at a time -------------------------------------------------------------------------

HOLD = """
import sys, time
from ops.lock import alone
with alone():
    print("in", flush=True)
    time.sleep(float(sys.argv[1]))
"""


def at_work(home, seconds):
    env = {**os.environ, "RINGSIDE_HOME": str(home), "PYTHONPATH": str(ROOT)}
    command = [sys.executable, "-c", HOLD, str(seconds)]
    return subprocess.Popen(command, env=env, stdout=subprocess.PIPE, text=True)


def test_of_two_one_works_and_one_waits_and_says_for_whom(tmp_path):
    first = at_work(tmp_path, 1.0)
    assert first.stdout.readline() == "in\n"
    second = at_work(tmp_path, 0)
    said, _ = second.communicate(timeout=20)
    assert f"process {first.pid}" in said
    assert said.endswith("in\n")
    assert first.wait(5) == 0
    first.stdout.close()


def test_a_killed_one_leaves_no_lock_behind(tmp_path):
    first = at_work(tmp_path, 60)
    first.stdout.readline()
    first.kill()
    first.wait()
    first.stdout.close()
    said, _ = at_work(tmp_path, 0).communicate(timeout=20)
    assert said == "in\n"


# --- what a crash leaves half written ------------------------------------------------------


def test_a_secret_that_was_cut_off_is_made_anew_and_a_whole_one_kept(home):
    (home / "key").write_text("")
    first = paths.secret("key")
    assert len(first) > 40
    assert paths.secret("key") == first
    assert [f.name for f in home.iterdir()] == ["key"]


def test_an_environment_without_its_installer_is_made_again(tmp_path, monkeypatch):
    for name in ("VENV", "PYTHON"):
        monkeypatch.setattr(install, name, tmp_path if name == "VENV" else tmp_path / "bin/python")
    assert not install._usable()
    (tmp_path / "bin").mkdir()
    # As `venv` leaves it when it is killed before it put pip in.
    (tmp_path / "bin" / "python").write_text("#!/bin/sh\nexit 1\n")
    (tmp_path / "bin" / "python").chmod(0o755)
    assert not install._usable()
    (tmp_path / "bin" / "python").write_text("#!/bin/sh\nexit 0\n")
    assert install._usable()


def test_web_packages_cut_off_half_way_are_put_in_by_the_next_try(tmp_path, monkeypatch):
    monkeypatch.setattr(install, "WEB", tmp_path)
    monkeypatch.setattr(paths, "ROOT", tmp_path)
    (tmp_path / "package-lock.json").write_text("{}")
    (tmp_path / "node_modules" / "half").mkdir(parents=True)
    tries = []

    def npm(command, **_):
        tries.append((tmp_path / "node_modules").exists())
        if tries[-1]:
            raise StepFailed("npm answered 217", "")  # directory not empty
        (tmp_path / "node_modules").mkdir()
        return ""

    monkeypatch.setattr(install, "run", npm)
    install.web_packages()
    assert tries == [True, False]
    install.web_packages()
    assert len(tries) == 2


# --- the database --------------------------------------------------------------------------


def test_a_cluster_starts_twice_moves_off_a_taken_port_and_goes(cluster):
    cluster.start()
    first = cluster.port
    cluster.start()
    assert cluster.port == first
    cluster.createdb("one")
    cluster.createdb("one")
    cluster.stop()
    assert not cluster.ready()
    with socket.socket() as busy:
        # Connections that were just closed still hold the port for a while.
        busy.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        busy.bind(("127.0.0.1", first))
        busy.listen()
        with pytest.raises(StepFailed, match="is taken"):
            cluster._free_or_known(keep=True)
        cluster.start()
        assert cluster.port != first
    assert cluster.ready()
    cluster.remove()
    assert not cluster.folder.exists()


def test_a_start_while_the_database_puts_itself_right_waits_and_keeps_the_port(cluster):
    cluster.start()
    port = cluster.port
    postmaster = int((cluster.data / "postmaster.pid").read_text().split("\n")[0])
    os.kill(postmaster, signal.SIGKILL)
    until(lambda: not Path(f"/proc/{postmaster}").exists())
    # The file it left names a process that is gone, and the port file is garbled as well.
    assert cluster.running() == 0
    (cluster.folder / "port").write_text("543\x00")
    assert cluster.port == 0
    others = [subprocess.Popen([sys.executable, "-c", START, str(cluster.folder)],
              env={**os.environ, "PYTHONPATH": str(ROOT)}) for _ in range(2)]  # fmt: skip
    assert [p.wait(60) for p in others] == [0, 0]
    assert cluster.ready()
    assert cluster.port == cluster.running() != 0
    assert port != 0


START = """
import sys
from pathlib import Path
from ops.cluster import Cluster
Cluster(Path(sys.argv[1]), fast=True).start()
"""


def test_a_cluster_whose_making_was_cut_off_is_made_again(cluster):
    half = cluster.folder / "data.new"
    half.mkdir()
    (half / "PG_VERSION").write_text("15\n")
    cluster.start()
    assert cluster.ready()
    assert not half.exists()


def test_nothing_that_passes_ever_advises_to_forget_everything():
    for file in (ROOT / "ops").glob("*.py"):
        if file.name != "commands.py":
            assert "ringside reset" not in file.read_text(), file.name


# --- the watcher ---------------------------------------------------------------------------


def of_its_own(folder):
    """What a server of the test's own is told: this run's database, a folder of its own."""
    from django.conf import settings

    name = settings.DATABASES["default"]["NAME"]
    own = {"RINGSIDE_HOME": str(folder), MARK: str(folder), "RINGSIDE_HOSTS": "drums.example"}
    return {**serve.environment({"RINGSIDE_DB_NAME": name}), **own}


@pytest.fixture
def watched(tmp_path, db):
    """A whole server."""
    port, env = free_port(), of_its_own(tmp_path)
    process = subprocess.Popen(serve.watch_command(port, web=1), env=env, cwd=ROOT)
    serve.wait_for(port, process, tmp_path)
    yield port, process, tmp_path
    process.terminate()
    process.wait(20)


def children(process):
    said = Path(f"/proc/{process.pid}/task/{process.pid}/children").read_text()
    return [int(p) for p in said.split()]


def test_a_server_under_other_names_is_found_healthy_and_what_dies_comes_back(watched):
    port, process, folder = watched
    with urllib.request.urlopen(f"http://127.0.0.1:{port}/healthz") as page:
        assert json.load(page) == {"web": "good", "database": "good"}
    first = children(process)
    assert len(first) == 2
    for pid in first:
        os.kill(pid, signal.SIGKILL)
    until(lambda: len(set(children(process)) - set(first)) == 2)
    until(lambda: serve.answers(port))
    said = (folder / "log" / "watch.log").read_text()
    assert "ended with -9" in said
    assert (folder / "log" / "web.log").stat().st_mode & 0o077 == 0
    with pytest.raises(urllib.error.HTTPError):  # asked for by a name it is not served under
        urllib.request.urlopen(f"http://127.0.0.1:{port}/api/account/me")
    until(lambda: "/api/account/me" in (folder / "log" / "web.log").read_text())


def test_a_killed_watcher_takes_its_children_along_and_frees_the_port(watched):
    port, process, folder = watched
    held = socket.create_connection(("127.0.0.1", port))
    held.sendall(b"GET / HTTP/1.1\r\nHost: drums.example\r\n")  # half a request, never ended
    mine = children(process)
    process.kill()
    process.wait()
    until(lambda: not any(Path(f"/proc/{p}").exists() for p in mine), 10)
    again = subprocess.Popen(serve.watch_command(port, web=1), cwd=ROOT, env=of_its_own(folder))
    try:
        serve.wait_for(port, again, folder)
    finally:
        held.close()
        again.terminate()
        again.wait(20)


def test_strangers_who_send_half_a_request_hold_up_nobody(watched):
    port, _, _ = watched
    slow = [socket.create_connection(("127.0.0.1", port)) for _ in range(40)]
    for s in slow:
        s.sendall(b"POST /api/account/sign-in HTTP/1.1\r\nHost: x\r\nContent-Le")
    began = time.monotonic()
    assert serve.answers(port)
    assert time.monotonic() - began < 20
    for s in slow:
        s.close()


@pytest.mark.parametrize("away", [0, 9])
def test_what_dies_again_and_again_is_given_up_with_words(tmp_path, monkeypatch, away):
    """But not while the database is away, however often it dies then."""
    from ops import watch

    monkeypatch.setattr(watch, "HOME", tmp_path)
    monkeypatch.setattr(watch.time, "sleep", lambda _: None)
    log = watch.kept_log("watch")
    child = watch.Child("web 1", [sys.executable, "-c", "print('cannot'); exit(4)"], (), log)
    keeper = watch.Watcher([child], log, database=False)
    looks = iter([True] * away)
    keeper.waits_for_database = lambda: next(looks, False)
    monkeypatch.setattr(watch.signal, "signal", lambda *_: None)
    assert keeper.run() == 1
    for handler in log.handlers:
        handler.close()
    said = (tmp_path / "log" / "watch.log").read_text()
    assert said.count("ended with 4") == watch.MOST_DEATHS + away
    assert "giving up" in said
    assert "cannot" in said
