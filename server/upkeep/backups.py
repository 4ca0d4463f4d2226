"""Backups of a data folder: the database as of one moment, the files its jobs use, the secret, and what all that should be.

In: a data folder; out: one zip file, and the folder again. Knows SQLite, no Django: a damaged database cannot stop it.
"""

from __future__ import annotations

import errno
import hashlib
import json
import os
import re
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Iterator
from contextlib import closing
from datetime import date, datetime
from pathlib import Path

from lean_notch.ground.errors import NotchError

DATABASE = "lean-notch.sqlite3"
SECRET = "secret-key"
CONTENTS = "contents.json"
VERSION = 1
KEPT = 7
"""How many of the automatic daily backups are kept."""


class NoBackup(NotchError):
    code = "no-backup"


def write_backup(folder: Path, file: Path) -> list[str]:
    """Writes `file`, whole or not at all, also while the server runs. The names of kept files that are gone.

    Raises NoBackup for a database that is not sound, a `file` that is there, or a disk without room.
    """
    if file.exists():
        raise NoBackup(f"{file} is there already.", fix="Name another file, or move that one away.")
    try:
        return _write_backup(folder, file)
    except OSError as error:
        if error.errno not in (errno.ENOSPC, errno.EDQUOT):
            raise
        raise _no_room(file) from None


def _no_room(file: Path) -> NoBackup:
    return NoBackup(
        f"There is no room for {file}: no backup was made.",
        fix="Make room on that disk, or name a file on another one.",
    )


def _write_backup(folder: Path, file: Path) -> list[str]:
    file.parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=file.resolve().parent, prefix=".backup-") as place:
        copy, whole = Path(place) / DATABASE, Path(place) / "whole.zip"
        _copy_database(folder / DATABASE, copy, file)
        with closing(sqlite3.connect(copy)) as database:
            used = {name for (name,) in database.execute("SELECT name FROM designs_keptfile")}
        # Files after the database: one that it names stays for as long as a revision uses it.
        there = {name: folder / "files" / name for name in used if (folder / "files" / name).is_file()}
        members = {DATABASE: copy, **{f"files/{name}": there[name] for name in sorted(there)}}
        if (folder / SECRET).exists():
            members[SECRET] = folder / SECRET
        with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as pack:
            for name, path in members.items():
                pack.write(path, name)
            contents = {"lean_notch_backup": VERSION, "sha256": {name: _hash(path) for name, path in members.items()}}
            pack.writestr(CONTENTS, json.dumps(contents, indent=1))
        os.chmod(whole, 0o600)  # the secret is in it
        _to_disk(whole)
        whole.replace(file)
        _to_disk(file.resolve().parent)
    return sorted(used - there.keys())


def _copy_database(database: Path, copy: Path, file: Path) -> None:
    if not database.exists():
        raise NoBackup(f"There is no database at {database}.", fix="Set LEAN_NOTCH_DATA to the data folder.")
    try:
        with closing(_opened(database)) as source:
            source.execute("VACUUM INTO ?", [str(copy)])
        with closing(sqlite3.connect(copy)) as copied:
            _leave_out(copied)
        faults = list(faults_of(copy))
    except sqlite3.DatabaseError as error:
        if getattr(error, "sqlite_errorcode", 0) & 0xFF == sqlite3.SQLITE_FULL:
            raise _no_room(file) from None
        faults = [str(error)]
    if faults:
        raise NoBackup(
            f"The database is damaged: {faults[0]}.", fix="Restore an older backup: lean-notch-server restore FILE."
        )


def _leave_out(database: sqlite3.Connection) -> None:
    """Who is signed in is nothing to be found in a backup, nor to be brought back by one; what can be made again is not in it."""
    database.execute("PRAGMA secure_delete = ON")
    for table in ("django_session", "results_result"):
        if database.execute("SELECT 1 FROM sqlite_master WHERE name = ?", [table]).fetchone():
            database.execute(f"DELETE FROM {table}")
    database.commit()


def _opened(database: Path) -> sqlite3.Connection:
    """Also in a folder that cannot be written, where SQLite could not make the log that it reads by."""
    if os.access(database.parent, os.W_OK):
        return sqlite3.connect(database)
    return sqlite3.connect(f"file:{database}?immutable=1", uri=True)


def faults_of(database: Path) -> Iterator[str]:
    """What SQLite finds wrong with a database, and rows that name rows which are not there."""
    try:
        with closing(_opened(database)) as opened:
            for (line,) in opened.execute("PRAGMA integrity_check"):
                if line != "ok":
                    yield line
            for table, row, parent, _ in opened.execute("PRAGMA foreign_key_check"):
                yield f"row {row} of {table} names a row of {parent} that is not there"
    except sqlite3.DatabaseError as error:
        yield str(error)


def restore_backup(file: Path, folder: Path) -> Path | None:
    """Puts what `file` holds into `folder`; where what was there before lies now. Nothing is touched unless all is sound.

    Raises NoBackup. No server may run on the folder meanwhile.
    """
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=folder, prefix=".restore-") as place:
        fresh = Path(place)
        _unpack(file, fresh)
        faults = list(faults_of(fresh / DATABASE))
        if faults:
            raise NoBackup(f"The database in {file} is damaged: {faults[0]}.", fix="Use another backup.")
        aside = _put_aside(folder)
        for path in sorted(fresh.iterdir()):
            path.replace(folder / path.name)
        _to_disk(folder)
    return aside


def _unpack(file: Path, into: Path) -> None:
    try:
        with zipfile.ZipFile(file) as pack:
            contents = json.loads(pack.read(CONTENTS))
            if contents.get("lean_notch_backup") != VERSION:
                raise NoBackup(
                    f"{file} is a backup of another version.", fix="Restore it with the version that wrote it."
                )
            wanted: dict[str, str] = contents["sha256"]
            for name, digest in wanted.items():
                if not re.fullmatch(rf"{re.escape(DATABASE)}|{SECRET}|files/[0-9a-f]{{64}}", name):
                    raise NoBackup(f"{file} holds “{name}”, which is of no data folder.", fix="Use another backup.")
                (into / name).parent.mkdir(exist_ok=True)
                with pack.open(name) as source, (into / name).open("wb") as target:
                    shutil.copyfileobj(source, target)
                if _hash(into / name) != digest:
                    raise NoBackup(f"“{name}” in {file} is not what was backed up.", fix="Use another backup.")
                if name == SECRET:
                    os.chmod(into / name, 0o600)
                _to_disk(into / name)
            if DATABASE not in wanted:
                raise NoBackup(f"{file} holds no database.", fix="Use another backup.")
    except FileNotFoundError:
        raise NoBackup(f"There is no file {file}.", fix="Name a backup that there is.") from None
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError, AttributeError, EOFError, OSError) as error:
        if isinstance(error, OSError):
            raise
        raise NoBackup(f"{file} is no backup, or only a piece of one.", fix="Use another backup.") from None


def _put_aside(folder: Path) -> Path | None:
    """What a restore replaces, kept beside it."""
    old = [folder / name for name in (DATABASE, f"{DATABASE}-wal", f"{DATABASE}-shm", SECRET, "files")]
    old = [path for path in old if path.exists()]
    if not old:
        return None
    aside = folder / f"before-restore-{datetime.now():%Y-%m-%d-%H%M%S}"
    aside.mkdir()
    for path in old:
        path.replace(aside / path.name)
    return aside


def daily_backup(folder: Path, today: date) -> Path | None:
    """Today's backup in the data folder, if it is not there yet; only the last few by their names are kept.

    With a clock that was set back nothing is overwritten, and what was written just now is never taken away.
    """
    place = folder / "backups"
    file = place / f"lean-notch-{today:%Y-%m-%d}.zip"
    if file.exists():
        return None
    write_backup(folder, file)
    for old in [one for one in sorted(place.glob("lean-notch-????-??-??.zip")) if one != file][: -(KEPT - 1)]:
        old.unlink()
    return file


def _hash(path: Path) -> str:
    with path.open("rb") as data:
        return hashlib.file_digest(data, "sha256").hexdigest()


def _to_disk(path: Path) -> None:
    """A file's content, or a folder's list of names."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
