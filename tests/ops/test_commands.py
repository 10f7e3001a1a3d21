"""./ringside itself: what it says, what it asks, what it leaves alone."""

import json
import os
import subprocess
import sys

import pytest

from ops import commands, install, paths
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


def test_what_is_written_while_the_screens_are_built_is_built_the_next_time(tmp_path, monkeypatch):
    monkeypatch.setattr(paths, "ROOT", tmp_path)
    monkeypatch.setattr(install, "WEB", tmp_path)
    monkeypatch.setattr(install, "web_packages", lambda: None)
    (tmp_path / "src").mkdir()
    (tmp_path / "dist").mkdir()
    source, built, late = tmp_path / "src" / "a.ts", [], ["later"]

    def build(command, **_):
        if command[0] == "npm":
            built.append(source.read_text())
            source.write_text(late.pop() if late else built[-1])

    source.write_text("first")
    monkeypatch.setattr(install, "run", build)
    for _ in range(3):
        install.web_build()
    assert built == ["first", "later"]


@pytest.mark.parametrize("crashes", [1, 2])
def test_an_installer_that_crashes_is_started_once_more(tmp_path, monkeypatch, capsys, crashes):
    venv = tmp_path / "venv"
    (venv / "bin").mkdir(parents=True)
    for lock in ("requirements.lock", "requirements-dev.lock"):
        (tmp_path / lock).write_text(lock)
    uv = venv / "bin" / "uv"
    uv.write_text(
        f"#!/bin/sh\n[ $1 = --version ] && exit\necho >> {tmp_path}/starts\n"
        f"[ $(wc -l < {tmp_path}/starts) -gt {crashes} ] || kill -SEGV $$\n"
    )
    uv.chmod(0o755)
    monkeypatch.setattr(install, "ROOT", tmp_path)
    monkeypatch.setattr(paths, "ROOT", tmp_path)
    monkeypatch.setattr(install, "VENV", venv)
    monkeypatch.setattr(install, "_usable", lambda: True)
    if crashes == 1:
        install.python_packages(dev=False)
        assert paths.stamp(venv)
    else:
        with pytest.raises(SystemExit):
            install.python_packages(dev=False)
        assert "uv answered -11" in capsys.readouterr().out
        assert not paths.stamp(venv)


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


def test_what_python_compiled_is_kept_beside_the_data_and_not_the_code(tmp_path, monkeypatch):
    """Else each process of the server compiles everything again as it starts."""
    monkeypatch.setenv("PYTHONDONTWRITEBYTECODE", "1")
    monkeypatch.delenv("PYTHONPYCACHEPREFIX", raising=False)
    beside = set(ROOT.glob("core/**/*.pyc"))
    assert ringside("analyse", "no-such-file.json", home=tmp_path).returncode == 2
    kept = tmp_path / "compiled" / ROOT.relative_to("/") / "core" / "ringside" / "plan"
    assert list(kept.glob("layout.*.pyc"))
    assert set(ROOT.glob("core/**/*.pyc")) == beside


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
