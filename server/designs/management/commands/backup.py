"""Everything that makers have made, in one zip file: the database as of one moment, and the files that its jobs use."""

from __future__ import annotations

import sqlite3
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection

from ...kept_files import folder
from ...models import KeptFile


class Command(BaseCommand):
    help = "Writes a backup. To restore it, unpack it into an empty folder and start with LEAN_NOTCH_DATA set to that."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path, help="the zip file to write; it must not be there yet")

    def handle(self, *_: Any, file: Path, **__: Any) -> None:
        if file.exists():
            raise CommandError(f"{file} is there already. Name another file, or move that one away.")
        with tempfile.TemporaryDirectory(dir=file.resolve().parent) as place:
            copy, whole = Path(place) / "database", Path(place) / "backup.zip"
            with closing(sqlite3.connect(connection.settings_dict["NAME"])) as database:
                database.execute("VACUUM INTO ?", [str(copy)])
            with closing(sqlite3.connect(copy)) as database:
                used = {name for (name,) in database.execute(f"SELECT name FROM {KeptFile._meta.db_table}")}
            # Files after the database: one that it names stays for as long as a revision uses it.
            there = {kept.name: kept for kept in folder().glob("*")} if folder().exists() else {}
            with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as pack:
                pack.write(copy, "lean-notch.sqlite3")
                for name in sorted(used & there.keys()):
                    pack.write(there[name], f"files/{name}")
            whole.replace(file)
        if missing := sorted(used - there.keys()):
            raise CommandError(f"{file} is written, but kept files are gone: {', '.join(missing)}. Add them again.")
        self.stdout.write(
            f"{file}: {file.stat().st_size / 1e6:.1f} MB. The secret key is not in it; a new one is made."
        )
