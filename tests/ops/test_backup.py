"""All of an installation in one file and back: tried out, whole or not at all, nothing lost."""

import io
import json
import os
import tarfile

import pytest

from ops import backup, install, paths
from ops.cluster import Cluster
from ops.say import StepFailed


@pytest.fixture(scope="module")
def cluster():
    if install.postgres_bin() is None:
        pytest.fail("PostgreSQL is not installed; ./ringside test installs it")
    made = Cluster(paths.HOME / f"backup-{os.getpid()}", fast=True)
    made.start()
    yield made
    made.remove()


@pytest.fixture
def home(tmp_path, monkeypatch):
    (tmp_path / "db-password").write_text(paths.secret("db-password"))
    (tmp_path / "secret-key").write_text("the key of the day")
    (tmp_path / "files" / "jobs").mkdir(parents=True)
    (tmp_path / "files" / "jobs" / "one.wav").write_bytes(b"RIFF")
    monkeypatch.setattr(paths, "HOME", tmp_path)
    return tmp_path


@pytest.fixture
def database(cluster, home):
    name = f"work_{os.urandom(4).hex()}"
    cluster.createdb(name)
    make = "create table takes (id int primary key, words text)"
    backup._psql(cluster, name, make, "insert into takes values (1, 'soft'), (2, 'härter')")
    return name


def takes(cluster, database):
    return backup._psql(cluster, database, "select string_agg(words, ' ' order by id) from takes")


def test_what_was_backed_up_comes_back_and_what_was_there_is_kept(cluster, database, home):
    file = home / "out" / "all.tar"
    assert backup.back_up(cluster, database, file) == {"takes": 2}
    assert file.stat().st_mode & 0o077 == 0
    assert [p.name for p in file.parent.iterdir()] == ["all.tar"]
    backup._psql(cluster, database, "delete from takes", "insert into takes values (3, 'later')")
    (home / "secret-key").write_text("another key")
    (home / "files" / "jobs" / "one.wav").write_bytes(b"changed")
    rows, kept = backup.bring_back(cluster, database, file)
    assert rows == {"takes": 2}
    assert takes(cluster, database) == "soft härter"
    assert takes(cluster, kept) == "later"
    assert (home / "secret-key").read_text() == "the key of the day"
    assert (home / "files" / "jobs" / "one.wav").read_bytes() == b"RIFF"
    (aside,) = home.glob("files-before-*")
    assert (aside / "jobs" / "one.wav").read_bytes() == b"changed"


def test_into_an_installation_with_nothing_in_it(cluster, database, home):
    backup.back_up(cluster, database, home / "all.tar")
    rows, kept = backup.bring_back(cluster, "fresh_one", home / "all.tar")
    assert (rows, kept) == ({"takes": 2}, "")
    assert takes(cluster, "fresh_one") == "soft härter"


def rewritten(file, to, change):
    """The backup with one of its files changed."""
    with tarfile.open(file) as old, tarfile.open(to, "w") as new:
        for member in old.getmembers():
            body = old.extractfile(member).read() if member.isfile() else b""
            body = change(member.name, body)
            member.size = len(body)
            new.addfile(member, io.BytesIO(body))


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda n, b: b[:-20] if n == "database.dump" else b, "changed or cut short"),
        (lambda n, b: b"{}" if n == "manifest.json" else b, "no backup of Ringside"),
        (
            lambda n, b: b.replace(b'"version": 1', b'"version": 9') if n == "manifest.json" else b,
            "version 9",
        ),
        (
            lambda n, b: b.replace(b'"takes": 2', b'"takes": 3') if n == "manifest.json" else b,
            "not the rows",
        ),
    ],
)
def test_a_backup_that_is_not_whole_changes_nothing(cluster, database, home, change, words):
    file = home / "all.tar"
    backup.back_up(cluster, database, file)
    rewritten(file, home / "bad.tar", change)
    backup._psql(cluster, database, "insert into takes values (3, 'later')")
    with pytest.raises(StepFailed, match=words):
        backup.bring_back(cluster, database, home / "bad.tar")
    assert takes(cluster, database) == "soft härter later"
    assert (home / "files" / "jobs" / "one.wav").read_bytes() == b"RIFF"


def test_a_file_cut_short_or_of_another_kind_says_so(cluster, database, home):
    backup.back_up(cluster, database, home / "all.tar")
    (home / "short.tar").write_bytes((home / "all.tar").read_bytes()[:3000])
    (home / "other.tar").write_bytes(b"nothing of the kind")
    for name in ("short.tar", "other.tar", "gone.tar"):
        with pytest.raises(StepFailed):
            backup.bring_back(cluster, database, home / name)
    assert takes(cluster, database) == "soft härter"


def test_a_tar_that_reaches_outside_is_refused(cluster, database, home):
    with tarfile.open(home / "evil.tar", "w") as tar:
        for name, body in (
            ("manifest.json", json.dumps({"format": "ringside-backup", "version": 1}).encode()),
            ("../../evil", b"x"),
        ):
            info = tarfile.TarInfo(name)
            info.size = len(body)
            tar.addfile(info, io.BytesIO(body))
    with pytest.raises(StepFailed):
        backup.bring_back(cluster, database, home / "evil.tar")
    assert not (home.parent / "evil").exists()


def test_backups_made_by_themselves_are_kept_to_the_newest(cluster, database, home, monkeypatch):
    folder = home / "backups"
    folder.mkdir()
    for n in range(7):
        (folder / f"before-2026010{n}-000000.tar").write_text("old")
    (folder / "mine.tar").write_text("by hand")
    backup.by_itself(cluster, database)
    left = sorted(p.name for p in folder.iterdir())
    assert len(left) == backup.KEPT_BY_ITSELF + 1
    assert "mine.tar" in left
    assert "before-20260106-000000.tar" in left
    assert "before-20260102-000000.tar" not in left
