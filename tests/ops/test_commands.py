"""./ringside itself: what it says, what it asks, what it leaves alone."""

import json
import os
import socket
import subprocess
import sys
import time

import pytest

from ops import commands, install, paths, serve
from ops.cluster import Cluster, free_port
from ops.paths import ROOT
from ops.say import StepFailed, run, step


def ringside(*args, home=None, **more):
    env = {**os.environ, **({"RINGSIDE_HOME": str(home)} if home else {})}
    return subprocess.run(
        [sys.executable, str(ROOT / "ringside"), *args],
        capture_output=True, text=True, env=env, check=False, **more,
    )  # fmt: skip


def test_a_failing_step_says_which_why_and_what_to_try(capsys):
    with pytest.raises(SystemExit) as left, step("boiling the sea"):
        raise StepFailed("it is too large", "a smaller one")
    assert left.value.code == 1
    said = capsys.readouterr().out
    assert "boiling the sea: failed" in said
    assert "why: it is too large" in said
    assert "try: a smaller one" in said


def test_a_good_step_says_how_long_it_took(capsys):
    with step("counting"):
        pass
    assert capsys.readouterr().out.strip().endswith("0.0 s")


def test_a_missing_program_and_a_failing_one_are_told_apart():
    with pytest.raises(StepFailed, match="is not on this machine"):
        run(["no-such-program-here"], try_this="x")
    with pytest.raises(StepFailed, match="answered 3"):
        run([sys.executable, "-c", "import sys; print('why'); sys.exit(3)"], try_this="x")
    assert run([sys.executable, "-c", "print('out')"], try_this="x") == "out\n"


def test_a_fingerprint_follows_names_and_contents(tmp_path, monkeypatch):
    monkeypatch.setattr(paths, "ROOT", tmp_path)
    (tmp_path / "a").mkdir()
    file = tmp_path / "a" / "x"
    file.write_text("1")
    first = paths.fingerprint(tmp_path / "a")
    (tmp_path / "a" / "x.pyc").write_text("noise")
    assert paths.fingerprint(tmp_path / "a") == first
    file.write_text("2")
    second = paths.fingerprint(tmp_path / "a")
    file.rename(tmp_path / "a" / "y")
    assert len({first, second, paths.fingerprint(tmp_path / "a")}) == 3


def test_a_stamp_goes_with_its_folder(tmp_path):
    assert paths.stamp(tmp_path) == ""
    paths.set_stamp(tmp_path, "made")
    assert paths.stamp(tmp_path) == "made"
    assert paths.stamp(tmp_path / "gone") == ""


def test_a_secret_is_made_once_and_is_its_owners_only(tmp_path, monkeypatch):
    monkeypatch.setattr(paths, "HOME", tmp_path / "home")
    first = paths.secret("key")
    assert paths.secret("key") == first
    assert len(first) > 40
    assert (tmp_path / "home" / "key").stat().st_mode & 0o777 == 0o600


def kept_in(folder, monkeypatch):
    """Pids and logs in a folder of the test's own: what really runs here is left alone."""
    for name in ("PID", "LOG", "WORKER_PID", "WORKER_LOG"):
        monkeypatch.setattr(serve, name, folder / name.lower())


def test_a_taken_port_is_refused_with_another_one_to_try(tmp_path, monkeypatch):
    kept_in(tmp_path, monkeypatch)
    with socket.socket() as busy:
        busy.bind(("127.0.0.1", 0))
        busy.listen()
        port = busy.getsockname()[1]
        assert serve.taken(port)
        with pytest.raises(StepFailed, match=f"port {port} is taken") as caught:
            serve.start(port, {})
        assert f"--port {port + 1}" in caught.value.try_this
    assert not serve.taken(free_port())


def test_stop_leaves_a_stranger_with_our_old_number_alone(tmp_path, monkeypatch):
    kept_in(tmp_path, monkeypatch)
    stranger = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"])
    serve.PID.write_text(str(stranger.pid))
    serve.WORKER_PID.write_text(str(stranger.pid))
    assert serve.stop() is False
    assert stranger.poll() is None
    stranger.kill()
    stranger.wait()
    assert serve.stop() is False


def test_stop_ends_the_server_and_its_worker(tmp_path, monkeypatch):
    kept_in(tmp_path, monkeypatch)
    ours = {}
    for kept, mark in ((serve.PID, "config.wsgi"), (serve.WORKER_PID, "procrastinate")):
        idle = [sys.executable, "-c", "import time; time.sleep(30)", mark]
        ours[kept] = serve._behind(idle, {}, kept, serve.LOG)
        deadline = time.monotonic() + 10
        while not serve._ours(ours[kept].pid):  # its command line can be read a moment later
            assert time.monotonic() < deadline
            time.sleep(0.01)
    assert serve.stop() is True
    for kept, process in ours.items():
        assert process.wait(10) == -15
        assert not kept.exists()


def test_reset_asks_and_changes_nothing_without_the_word(tmp_path):
    (tmp_path / "db").mkdir()
    kept = tmp_path / "db" / "kept"
    kept.write_text("x")
    for answer in ("no\n", ""):
        done = ringside("reset", home=tmp_path, input=answer)
        assert done.returncode == 1
        assert "Nothing was changed." in done.stdout
        assert kept.exists()


def test_analyse_works_from_any_folder_with_no_server(tmp_path):
    demo = ROOT / "demo" / "a-square-pair.layout.json"
    there = tmp_path / "with space"
    there.mkdir()
    (there / "mine.json").write_text(demo.read_text())
    done = ringside("analyse", "mine.json", cwd=there, home=tmp_path / "none")
    assert done.returncode == 0
    assert json.loads(done.stdout)["layout"] == "Layout A"
    assert ringside("analyse", "gone.json", cwd=there).returncode == 2


def test_unknown_commands_list_the_known_ones():
    done = ringside("fly")
    assert done.returncode == 2
    for name in ("up", "stop", "reset", "test", "dev", "bench", "analyse"):
        assert name in done.stderr


def test_the_port_comes_from_the_command_line_or_the_environment(monkeypatch):
    seen = []
    monkeypatch.setattr(commands, "up", lambda args: seen.append(args.port) or 0)
    commands.main(["up", "--port", "9001"])
    monkeypatch.setenv("RINGSIDE_PORT", "9002")
    commands.main(["up"])
    monkeypatch.delenv("RINGSIDE_PORT")
    commands.main(["up"])
    assert seen == [9001, 9002, paths.DEFAULT_PORT]


def test_no_lock_file_names_an_address():
    for lock in (*ROOT.glob("*.lock"), ROOT / "web" / "package-lock.json"):
        text = lock.read_text()
        assert "resolved" not in text, lock.name
        assert "index-url" not in text, lock.name
        assert "sha" in text, lock.name


def test_every_python_pin_is_hashed():
    for name in ("requirements", "requirements-dev", "requirements-uv"):
        lines = (ROOT / f"{name}.lock").read_text().splitlines()
        pins = [i for i, line in enumerate(lines) if "==" in line and not line.startswith("#")]
        assert pins
        assert all("--hash=" in lines[i + 1] for i in pins)


def test_a_cluster_starts_twice_moves_off_a_taken_port_and_goes(tmp_path):
    if install.postgres_bin() is None:
        pytest.fail("PostgreSQL is not installed; ./ringside test installs it")
    folder = paths.HOME / f"ops-{os.getpid()}"
    cluster = Cluster(folder, fast=True)
    try:
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
            cluster.start()
            assert cluster.port != first
        assert cluster.ready()
    finally:
        cluster.remove()
    assert not cluster.folder.exists()
