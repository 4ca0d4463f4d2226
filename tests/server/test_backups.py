"""Backups and what restores them: a drill with the real command on a real data folder, and files that are no backups."""

from __future__ import annotations

import errno
import os
import shutil
import sqlite3
import subprocess
import sys
import time
import zipfile
from contextlib import closing
from datetime import date

import pytest
from ground import folder as data_folder
from ground.folder import FolderTaken
from upkeep.backups import NoBackup, daily_backup, faults_of, restore_backup, write_backup
from upkeep.health import _Looked
from upkeep.housekeeping import Housekeeping

NAME = "9f86d081884c7d659a2feaa0c55ad015a3bf4f1b2b0b822cd15d6c15b0f00a08"
"""The SHA-256 of b"test": published with the standard's own examples, here from memory and checked by the first test."""


def server(folder, *words, said=""):
    environment = {**os.environ, "LEAN_NOTCH_DATA": str(folder)}
    command = [sys.executable, "-m", "config.command", *map(str, words)]
    code = f"import sys; sys.path[:0] = {sys.path!r}; from config.command import main; sys.exit(main({command[3:]!r}))"
    return subprocess.run([sys.executable, "-c", code], env=environment, input=said, capture_output=True, text=True)


@pytest.fixture(scope="module")
def first_day(tmp_path_factory):
    """A data folder with one account, made as a workshop would."""
    folder = tmp_path_factory.mktemp("first") / "data"
    made = server(folder, "first-account", "Heron", said="reed and sedge\n")
    assert made.returncode == 0, made.stderr
    return folder


@pytest.fixture
def workshop(first_day, tmp_path):
    """The same, of this test's own."""
    return shutil.copytree(first_day, tmp_path / "data")


def rows(folder, query):
    with closing(sqlite3.connect(folder / "lean-notch.sqlite3")) as database:
        return database.execute(query).fetchall()


def keep(folder):
    (folder / "files").mkdir()
    (folder / "files" / NAME).write_bytes(b"test")
    with closing(sqlite3.connect(folder / "lean-notch.sqlite3")) as database:
        database.execute(
            "INSERT INTO designs_keptfile (name, title, size, added) VALUES (?, 'frog', 4, '2026-01-01')", [NAME]
        )
        database.commit()


def test_a_first_account_is_made_once_and_a_restore_brings_everything_back(workshop, tmp_path):
    assert rows(workshop, "SELECT username FROM auth_user") == [("Heron",)]
    again = server(workshop, "first-account", "Wren", said="another password\n")
    assert (again.returncode, "has accounts already" in again.stderr) == (1, True)
    keep(workshop)
    assert server(workshop, "backup", tmp_path / "b.zip").returncode == 0
    assert (tmp_path / "b.zip").stat().st_mode & 0o077 == 0
    secret = (workshop / "secret-key").read_text()
    # The disaster: everything is overwritten.
    for path in ("lean-notch.sqlite3", "secret-key", f"files/{NAME}"):
        (workshop / path).write_bytes(b"rubbish")
    broken = server(workshop, "check")
    assert (broken.returncode, "file is not a database" in broken.stdout) == (1, True)
    restored = server(workshop, "restore", tmp_path / "b.zip")
    assert restored.returncode == 0, restored.stderr
    assert rows(workshop, "SELECT username FROM auth_user") == [("Heron",)]
    assert (workshop / "files" / NAME).read_bytes() == b"test"
    assert (workshop / "secret-key").read_text() == secret
    assert next(workshop.glob("before-restore-*/secret-key")).read_bytes() == b"rubbish"
    found = server(workshop, "check")
    assert found.stdout == "Nothing wrong was found.\n"


@pytest.mark.parametrize(("name", "password", "fault"), [
    ("", "reed and sedge", "name"), ("Heron", "short", "too short"), ("Heron", "", "too short"),
])  # fmt: skip
def test_a_first_account_wants_a_name_and_a_password(tmp_path, name, password, fault):
    refused = server(tmp_path, "first-account", name, said=f"{password}\n")
    assert (refused.returncode, fault in refused.stderr) == (1, True)
    assert "Traceback" not in refused.stderr
    assert server(tmp_path, "first-account", "Heron", said="reed and sedge\n").returncode == 0


def test_check_names_orphans_and_jobs_that_no_longer_build(workshop):
    keep(workshop)
    (workshop / "files" / NAME).unlink()
    (workshop / "files" / ("0" * 64)).write_bytes(b"stray")
    with closing(sqlite3.connect(workshop / "lean-notch.sqlite3")) as database:
        database.execute(
            "INSERT INTO designs_design (id, owner_id, name, moves, changed) VALUES (7, 1, 'Frog', 1, '2026-01-01')"
        )
        database.execute(
            "INSERT INTO designs_revision (id, design_id, number, document, saved, sentence)"
            " VALUES (9, 7, 1, '{\"lean_notch_job\": 99}', '2026-01-01', '')"
        )
        database.execute("UPDATE designs_design SET head_id = 9")
        database.execute("INSERT INTO designs_fileuse (file_id, revision_id) VALUES (?, 404)", [NAME])
        database.commit()
    said = server(workshop, "check").stdout
    assert "designs_fileuse names a row of designs_revision that is not there" in said
    with closing(sqlite3.connect(workshop / "lean-notch.sqlite3")) as database:
        database.execute("DELETE FROM designs_fileuse")
        database.commit()
    said = server(workshop, "check").stdout
    assert f"File {NAME[:12]}: it is kept for jobs, but is not in the data folder." in said
    assert "File 000000000000: it is in the data folder, and no job uses it." in said
    assert "Job 7: it no longer builds. The document is not a Lean Notch job" in said
    assert "Frog" not in said


def spoiled(file, how):
    """A backup with something wrong in it."""
    with zipfile.ZipFile(file) as pack:
        members = {name: pack.read(name) for name in pack.namelist()}
    how(members)
    with zipfile.ZipFile(file, "w") as pack:
        for name, data in members.items():
            pack.writestr(name, data)


@pytest.mark.parametrize(("how", "why"), [
    (lambda m: m.update({"lean-notch.sqlite3": b"SQLite format 3\0 and no more"}), "is not what was backed up"),
    (lambda m: m.pop("contents.json"), "is no backup"),
    (lambda m: m.update({"contents.json": b"[]"}), "is no backup"),
    (lambda m: m.update({"contents.json": b'{"lean_notch_backup": 2}'}), "of another version"),
    (lambda m: m.update({"contents.json": b'{"lean_notch_backup": 1, "sha256": {"../x": ""}}'}), "of no data folder"),
    (lambda m: m.update({"contents.json": b'{"lean_notch_backup": 1, "sha256": {}}'}), "holds no database"),
])  # fmt: skip
def test_what_is_no_sound_backup_touches_nothing(workshop, tmp_path, how, why):
    write_backup(workshop, tmp_path / "b.zip")
    spoiled(tmp_path / "b.zip", how)
    with pytest.raises(NoBackup, match=why):
        restore_backup(tmp_path / "b.zip", workshop)
    assert rows(workshop, "SELECT username FROM auth_user") == [("Heron",)]
    assert not list(workshop.glob("before-restore-*")) + list(workshop.glob(".restore-*"))


def test_a_folder_that_cannot_be_written_is_read_all_the_same(workshop, tmp_path, monkeypatch):
    with closing(sqlite3.connect(workshop / "lean-notch.sqlite3")) as database:
        database.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    monkeypatch.setattr("upkeep.backups.os.access", lambda *_: False)
    assert list(faults_of(workshop / "lean-notch.sqlite3")) == []
    write_backup(workshop, tmp_path / "b.zip")
    assert not (workshop / "lean-notch.sqlite3-shm").exists()


def test_a_backup_that_was_cut_off_and_one_that_is_not_there(workshop, tmp_path):
    write_backup(workshop, tmp_path / "b.zip")
    (tmp_path / "b.zip").write_bytes((tmp_path / "b.zip").read_bytes()[:-2000])
    with pytest.raises(NoBackup, match="only a piece of one"):
        restore_backup(tmp_path / "b.zip", workshop)
    with pytest.raises(NoBackup, match="There is no file"):
        restore_backup(tmp_path / "none.zip", workshop)
    with pytest.raises(NoBackup, match="there already"):
        write_backup(workshop, tmp_path / "b.zip")
    with pytest.raises(NoBackup, match="no database"):
        write_backup(tmp_path / "nowhere", tmp_path / "c.zip")


def test_the_last_seven_days_are_kept_whatever_the_clock_says(workshop):
    days = [date(2026, 11, n) for n in range(10, 20)]
    for day in days:
        assert daily_backup(workshop, day)
    assert daily_backup(workshop, days[-1]) is None
    early = daily_backup(workshop, date(2026, 1, 1))  # the clock was set back
    kept = sorted(path.name for path in (workshop / "backups").iterdir())
    assert kept == ["lean-notch-2026-01-01.zip", *(f"lean-notch-2026-11-{n}.zip" for n in range(14, 20))]
    assert early.exists()


def test_the_server_makes_a_backup_by_itself_and_goes_on_where_it_cannot(workshop, tmp_path):
    for folder in (workshop, tmp_path / "nowhere"):
        keeping = Housekeeping(folder, first=0.0)
        keeping.start()
        until = time.monotonic() + 20
        while folder == workshop and not list(folder.glob("backups/*.zip")) and time.monotonic() < until:
            time.sleep(0.05)
        assert keeping._thread.is_alive()
        keeping.stop()
    assert len(list(workshop.glob("backups/*.zip"))) == 1


def test_one_folder_takes_one_server(tmp_path):
    data_folder.take(tmp_path)
    try:
        second = server(tmp_path, "restore", tmp_path / "b.zip")
        assert (second.returncode, f"process {os.getpid()}" in second.stderr) == (1, True)
        with pytest.raises(FolderTaken):
            data_folder.take(tmp_path)
    finally:
        data_folder.give_back()
    data_folder.take(tmp_path)
    data_folder.give_back()


def test_a_full_disk_is_no_damage_and_leaves_nothing_behind(workshop, tmp_path, monkeypatch):
    """It said that the database is damaged, and to restore an older backup."""

    def full(_):
        raise OSError(errno.ENOSPC, "No space left on device")

    for what, fails in (("_hash", full), ("_opened", _Full)):
        with monkeypatch.context() as patch:
            patch.setattr(f"upkeep.backups.{what}", fails)
            with pytest.raises(NoBackup) as caught:
                write_backup(workshop, tmp_path / "full.zip")
        assert "no room" in caught.value.why
        assert "damaged" not in caught.value.why
        assert [*tmp_path.glob("*.zip"), *tmp_path.glob(".backup-*")] == []


class _Full:
    """A database whose copy has no room, as SQLite itself says it: the limit of pages is what a full disk gives."""

    def __init__(self, database):
        self.database = database

    def execute(self, _, place):
        with closing(sqlite3.connect(place[0])) as copy:
            copy.execute("PRAGMA max_page_count = 2")
            copy.execute("CREATE TABLE large (text)")
            copy.execute("INSERT INTO large VALUES (?)", ["x" * 100_000])

    def close(self):
        pass


def test_a_disk_that_cannot_be_read_is_not_said_to_be_full(workshop, tmp_path, monkeypatch):
    error = sqlite3.OperationalError("disk I/O error")
    error.sqlite_errorcode = sqlite3.SQLITE_IOERR_READ

    def unreadable(_):
        raise error

    monkeypatch.setattr("upkeep.backups._opened", unreadable)
    with pytest.raises(NoBackup, match="disk I/O error") as caught:
        write_backup(workshop, tmp_path / "b.zip")
    assert "no room" not in caught.value.why


def test_nobody_is_signed_in_by_a_backup(workshop, tmp_path):
    with closing(sqlite3.connect(workshop / "lean-notch.sqlite3")) as database:
        database.execute("INSERT INTO django_session VALUES ('copied-session-key', 'data', '2099-01-01')")
        database.commit()
    write_backup(workshop, tmp_path / "b.zip")
    with zipfile.ZipFile(tmp_path / "b.zip") as pack:
        assert b"copied-session-key" not in pack.read("lean-notch.sqlite3")
    assert rows(workshop, "SELECT count(*) FROM django_session") == [(1,)]


def test_a_spoilt_database_is_said_in_words_at_the_start(workshop):
    database = workshop / "lean-notch.sqlite3"
    database.write_bytes(b"spoilt" + database.read_bytes()[6:])
    for command in (("start", "--port", "1"), ("first-account", "Wren")):
        said = server(workshop, *command, said="reed and sedge\n")
        assert said.returncode == 1
        assert "The database is damaged." in said.stderr
        assert "Traceback" not in said.stderr


def test_health_tells_of_a_spoilt_table_once_it_was_looked_at(workshop):
    looked = _Looked()
    assert looked.look(workshop / "lean-notch.sqlite3") == ""
    assert looked.sound
    with closing(sqlite3.connect(workshop / "lean-notch.sqlite3")) as database:
        database.execute("PRAGMA writable_schema = ON")
        database.execute("UPDATE sqlite_master SET rootpage = 3 WHERE name = 'designs_design'")
        database.commit()
    assert looked.look(workshop / "lean-notch.sqlite3")
    assert not looked.sound


def test_a_restore_that_fails_leaves_an_empty_folder_as_it_was(tmp_path):
    """It left a secret behind, which the next one then put aside."""
    folder = tmp_path / "data"
    said = server(folder, "restore", tmp_path / "none.zip")
    assert said.returncode == 1
    assert [one.name for one in folder.iterdir()] in ([], ["server.lock"])
